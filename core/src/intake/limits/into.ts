// Facts, put into a part's file.

import type { FoundFact, Json } from './values'

const set = (data: Json, [key, ...rest]: string[], value: unknown): Json => {
  if (rest.length === 0) {
    const list = /^(.*)\[\]$/.exec(key!)
    if (!list) return { ...data, [key!]: value }
    const before = data[list[1]!]
    return { ...data, [list[1]!]: [...(Array.isArray(before) ? (before as unknown[]) : []), value] }
  }
  const inner = data[key!]
  return {
    ...data,
    [key!]: set(
      typeof inner === 'object' && inner !== null && !Array.isArray(inner) ? (inner as Json) : {},
      rest,
      value,
    ),
  }
}

/** A part's file with facts put in. A fact already there stays beside the new one, which is the chosen one. */
export const withFacts = (file: Json, facts: FoundFact[]): Json => {
  const assumed = new Set(Array.isArray(file.assumed) ? (file.assumed as string[]) : [])
  let data = file
  const fresh = new Set<string>()
  for (const { path, value } of facts) {
    const field = path.replace(/\[\]$/, '')
    const keys = path.split('.')
    // An assumption gives way to the first fact.
    if (assumed.has(field) && path.endsWith('[]') && !fresh.has(field)) data = set(data, field.split('.'), [])
    fresh.add(field)
    const before = field.split('.').reduce<unknown>((v, k) => (v as Json | undefined)?.[k], data)
    const isRated = (v: unknown): v is Json => typeof v === 'object' && v !== null && 'kind' in v
    if (
      !path.endsWith('[]') &&
      isRated(before) &&
      isRated(value) &&
      before.kind !== 'assumed' &&
      !assumed.has(field)
    ) {
      const { others, ...old } = before
      delete old.why
      const same = JSON.stringify({ ...old, source: '' }) === JSON.stringify({ ...value, source: '' })
      data = same
        ? data
        : set(data, keys, {
            ...value,
            others: [...(Array.isArray(others) ? (others as unknown[]) : []), old],
            why:
              before.kind === 'absolute' && value.kind !== 'absolute'
                ? 'what it is made for, not what breaks it'
                : 'pasted last',
          })
    } else data = set(data, keys, value)
  }
  const left = [...assumed].filter((path) => !fresh.has(path))
  return left.length > 0
    ? { ...data, assumed: left }
    : Object.fromEntries(Object.entries(data).filter(([k]) => k !== 'assumed'))
}
