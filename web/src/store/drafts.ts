// Edits that the server has not confirmed yet, kept in the page's own database.

import type { Design } from '@root-board/core/design'
import { del, get, set } from 'idb-keyval'

export interface Draft {
  design: Design
  /** The stored version it was made from. */
  version: number
}

const key = (id: string) => `draft:${id}`
/** A browser may refuse its database, at once or later: then edits live in the page alone until they are saved. */
const attempt = async <T>(work: () => Promise<T>): Promise<T | undefined> => {
  try {
    return await work()
  } catch {
    return undefined
  }
}

export const keepDraft = async (id: string, draft: Draft): Promise<void> => attempt(() => set(key(id), draft))
export const readDraft = (id: string): Promise<Draft | undefined> => attempt(() => get<Draft>(key(id)))
export const dropDraft = async (id: string): Promise<void> => attempt(() => del(key(id)))
