// Edits that the server has not confirmed yet, kept in the page's own database. Each tab keeps its own, so that two tabs
// on one project can't overwrite each other's; one that a closed tab left behind is taken over by the next.

import type { Design } from '@root-board/core/design'
import { del, entries, get, set } from 'idb-keyval'

export interface Draft {
  design: Design
  /** The stored version it was made from. */
  version: number
}
interface Kept extends Draft {
  at: number
}

const tab = (() => {
  const known = sessionStorage.getItem('tab')
  if (known) return known
  const made = Math.random().toString(36).slice(2)
  sessionStorage.setItem('tab', made)
  return made
})()
const prefix = (id: string) => `draft:${id}:`
const key = (id: string) => `${prefix(id)}${tab}`
/** A tab that is still open renews or drops its draft sooner than this. */
const leftBehind = 5000

/** A browser may refuse its database, at once or later: then edits live in the page alone until they are saved. */
const attempt = async <T>(work: () => Promise<T>): Promise<T | undefined> => {
  try {
    return await work()
  } catch {
    return undefined
  }
}

export const keepDraft = async (id: string, draft: Draft): Promise<void> =>
  attempt(() => set(key(id), { ...draft, at: Date.now() } satisfies Kept))

export const dropDraft = async (id: string): Promise<void> => attempt(() => del(key(id)))

/** Whether two say the same, wherever each has been. */
export const isSame = (a: Design, b: Design): boolean => JSON.stringify(a) === JSON.stringify(b)

/** After a save whose page has been left: what was saved is no draft any more, and what came after it is one of the version just made. */
export const settleDraft = async (id: string, saved: Design, version: number): Promise<void> =>
  attempt(async () => {
    const own = await get<Kept>(key(id))
    if (!own) return
    if (isSame(own.design, saved)) await del(key(id))
    else if (own.version < version) await set(key(id), { ...own, version })
  })

/** This tab's draft, or the newest one that another tab left behind. */
export const readDraft = (id: string): Promise<Draft | undefined> =>
  attempt(async () => {
    const own = await get<Kept>(key(id))
    if (own) return own
    const others = (await entries<string, Kept>()).filter(
      ([name, draft]) => String(name).startsWith(prefix(id)) && Date.now() - draft.at > leftBehind,
    )
    const newest = others.sort(([, a], [, b]) => b.at - a.at)[0]
    if (!newest) return undefined
    await set(key(id), newest[1])
    await del(newest[0])
    return newest[1]
  })
