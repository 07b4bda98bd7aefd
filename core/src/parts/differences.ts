// What differs between two versions of one part, field by field.

import type { Part } from './library'

export interface Difference {
  /** `io.leakage.max`; entries of lists are known by their id where they have one: `pins[PA3].functions`. */
  path: string
  /** What each version has there, as its file would say it; absent where it says nothing. */
  before?: unknown
  after?: unknown
}

type Json = Record<string, unknown>
const isObject = (v: unknown): v is Json => typeof v === 'object' && v !== null && !Array.isArray(v)
const keyed = (list: unknown[]): Map<string, unknown> | undefined => {
  const ids = list.map((v) => (isObject(v) ? (v.id ?? v.leg ?? v.at) : undefined))
  return ids.length > 0 &&
    ids.every((id) => typeof id === 'string' || typeof id === 'number') &&
    new Set(ids).size === ids.length
    ? new Map(list.map((v, i) => [String(ids[i]), v]))
    : undefined
}

const plain = (v: unknown) =>
  Array.isArray(v) ? v.every((x) => !isObject(x) || 'signal' in x) : !isObject(v)

const compare = (before: unknown, after: unknown, path: string): Difference[] => {
  if (before === undefined && after === undefined) return []
  if (JSON.stringify(before) === JSON.stringify(after)) return []
  if (before === undefined) return [{ path, after }]
  if (after === undefined) return [{ path, before }]
  if (Array.isArray(before) && Array.isArray(after) && !(plain(before) && plain(after))) {
    const a = keyed(before)
    const b = keyed(after)
    const keys =
      a && b
        ? [...new Set([...a.keys(), ...b.keys()])]
        : Array.from({ length: Math.max(before.length, after.length) }, (_, i) => String(i))
    return keys.flatMap((k) =>
      a && b
        ? compare(a.get(k), b.get(k), `${path}[${k}]`)
        : compare(before[Number(k)], after[Number(k)], `${path}[${k}]`),
    )
  }
  if (isObject(before) && isObject(after))
    return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((k) =>
      compare(before[k], after[k], path ? `${path}.${k}` : k),
    )
  return [{ path, before, after }]
}

/** From one to the other; empty where they say the same. */
export const differencesOf = (before: Part, after: Part): Difference[] => compare(before, after, '')
