// Edits that the server has not confirmed yet, kept in the page's own database. Each tab keeps its own, so that two tabs
// on one project can't overwrite each other's; one that a closed tab left behind is taken over by the next.

import type { Design } from '@root-board/core/design'
import { del, entries, get, set } from 'idb-keyval'

export interface Draft {
  design: Design
  /** The stored version it was made from. */
  version: number
  /** What was sent over that version: any of it may have been stored, though its answer never came. */
  sent?: readonly Design[]
}
interface Kept extends Draft {
  at: number
}

const newTab = (): string => {
  const made = Math.random().toString(36).slice(2)
  sessionStorage.setItem('tab', made)
  return made
}
const lockOf = (tab: string) => `tab:${tab}`
/** For as long as this page lives; not where another page holds it: a tab that was doubled has its name from the first. */
const hold = (tab: string): Promise<boolean> =>
  new Promise((resolve) => {
    navigator.locks
      .request(lockOf(tab), { signal: AbortSignal.timeout(1000) }, () => {
        resolve(true)
        return new Promise(() => undefined)
      })
      .catch(() => resolve(false))
  })
const hasLocks = 'locks' in navigator
/** This tab’s name. It outlives a reload. */
const tab: Promise<string> = (async () => {
  const known = sessionStorage.getItem('tab') ?? newTab()
  if (!hasLocks || (await hold(known))) return known
  const made = newTab()
  await hold(made)
  return made
})()
const prefix = (id: string) => `draft:${id}:`
const key = async (id: string) => `${prefix(id)}${await tab}`
/** Where a browser can’t say which tabs are open: one that is renews or drops its draft sooner than this. */
const leftBehind = 5000

/** Which of these drafts belong to no tab that is open. */
const leftBehindOf = async <T extends { at: number }>(
  drafts: [string, T][],
  id: string,
): Promise<[string, T][]> => {
  if (!hasLocks) return drafts.filter(([, draft]) => Date.now() - draft.at > leftBehind)
  const { held = [] } = await navigator.locks.query()
  const open = new Set(held.map((lock) => lock.name))
  return drafts.filter(([name]) => !open.has(lockOf(name.slice(prefix(id).length))))
}

/** A browser may refuse its database, at once or later: then edits live in the page alone until they are saved. */
const attempt = async <T>(work: () => Promise<T>): Promise<T | undefined> => {
  try {
    return await work()
  } catch {
    return undefined
  }
}

/** Whether it is kept: a browser’s storage may be full, or refused. */
export const keepDraft = async (id: string, draft: Draft): Promise<boolean> =>
  (await attempt(async () => {
    await set(await key(id), { ...draft, at: Date.now() } satisfies Kept)
    return true
  })) ?? false

export const dropDraft = async (id: string): Promise<void> => attempt(async () => del(await key(id)))

/** With the names of each object in one order: the server reads what it stores, and writes it in its own. */
const inOrder = (design: Design): string =>
  JSON.stringify(design, (_, value: unknown) =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  )
/** Whether two say the same, wherever each has been. */
export const isSame = (a: Design, b: Design): boolean => inOrder(a) === inOrder(b)

/** After a save whose page has been left: what was saved is no draft any more, and what came after it is one of the version just made. */
export const settleDraft = async (id: string, saved: Design, version: number): Promise<void> =>
  attempt(async () => {
    const mine = await key(id)
    const own = await get<Kept>(mine)
    if (!own) return
    if (isSame(own.design, saved)) await del(mine)
    else if (own.version < version) await set(mine, { ...own, version, sent: undefined })
  })

/**
 * This tab's draft, or the newest one that another tab left behind. What says the same as what is stored is no draft any
 * more, whoever left it.
 */
export const readDraft = (id: string, stored?: Design): Promise<Draft | undefined> =>
  attempt(async () => {
    const mine = await key(id)
    const all = (await entries<string, Kept>()).filter(([name]) => String(name).startsWith(prefix(id)))
    const left = await leftBehindOf(
      all.filter(([name]) => name !== mine),
      id,
    )
    const open = [...all.filter(([name]) => name === mine), ...left.sort(([, a], [, b]) => b.at - a.at)]
    let found: [string, Kept] | undefined
    for (const one of open)
      if (stored && isSame(one[1].design, stored)) await del(one[0])
      else found ??= one
    if (!found) return undefined
    if (found[0] !== mine) {
      await set(mine, found[1])
      await del(found[0])
    }
    return found[1]
  })
