import type { Worked } from '../src/findings'

/** Every number in a result, and what it stands on. */
export const numbersIn = (of: unknown, seen = new Set<object>(), found: Worked[] = []): Worked[] => {
  if (typeof of !== 'object' || of === null || seen.has(of)) return found
  seen.add(of)
  if ('formula' in of && 'inputs' in of) {
    found.push(of as Worked)
    // Not among its own properties where a sum made it.
    numbersIn((of as Worked).inputs, seen, found)
  }
  for (const value of of instanceof Map ? of.values() : Object.values(of)) numbersIn(value, seen, found)
  return found
}
