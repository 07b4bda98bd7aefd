// Edits that the server has not confirmed yet, kept in the page's own database.

import type { Design } from '@root-board/core/design'
import { del, get, set } from 'idb-keyval'

export interface Draft {
  design: Design
  /** The stored version it was made from. */
  version: number
}

const key = (id: string) => `draft:${id}`
export const keepDraft = (id: string, draft: Draft): Promise<void> =>
  set(key(id), draft).catch(() => undefined)
export const readDraft = (id: string): Promise<Draft | undefined> =>
  get<Draft>(key(id)).catch(() => undefined)
export const dropDraft = (id: string): Promise<void> => del(key(id)).catch(() => undefined)
