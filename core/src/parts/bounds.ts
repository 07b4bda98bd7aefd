// What is looked at before anything else is: how deep, how much, how long. A file that no one could have written by hand
// or with this program costs nothing then, and says where it goes too far.

import { type Fault, FaultyFile } from './faults'

const usual = {
  /** Objects and lists within one another. The deepest part file has 9. */
  depth: 32,
  /** Entries of one list, names of one object: more than the largest chip has legs. */
  entries: 2000,
  /** Values in all: a hundred times the largest chip. */
  values: 300_000,
  /** Characters of one text. */
  text: 20_000,
}

interface Place {
  value: unknown
  depth: number
  key?: string | number
  above?: Place
}
const pathOf = (place: Place): string => {
  const keys: (string | number)[] = []
  for (let at: Place | undefined = place; at?.key !== undefined; at = at.above) keys.unshift(at.key)
  // The place of what is too deep is told as far as one can read it.
  return keys
    .slice(0, 12)
    .map((k, i) => (typeof k === 'number' ? `[${k}]` : `${i > 0 ? '.' : ''}${k.slice(0, 80)}`))
    .join('')
}
/** Line ends and tabs are text; other control characters, and halves of characters, can’t be kept as they are. */
// eslint-disable-next-line no-control-regex
const unwritable = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ud800-\udfff]/u

const wrongWith = ({ value, depth }: Place, bounds: typeof usual): string | undefined => {
  if (typeof value === 'number')
    return Number.isFinite(value) ? undefined : 'is a number too large to reckon with'
  if (typeof value === 'string') {
    if (value.length > bounds.text)
      return `is text of ${value.length} characters; at most ${bounds.text} are read`
    return unwritable.test(value) ? 'has a character that can’t be written' : undefined
  }
  if (typeof value !== 'object' || value === null) return undefined
  if (depth > bounds.depth) return `is more than ${bounds.depth} levels deep`
  const count = Array.isArray(value) ? value.length : Object.keys(value).length
  return count > bounds.entries ? `has ${count} entries; at most ${bounds.entries} are read` : undefined
}

/** Throws FaultyFile, with the first twenty places, where the data go beyond what any file has. Takes no recursion. */
export const withinBounds = (data: unknown, file: string, more: Partial<typeof usual> = {}): void => {
  const bounds = { ...usual, ...more }
  const faults: Fault[] = []
  const open: Place[] = [{ value: data, depth: 0 }]
  let seen = 0
  for (let place = open.pop(); place && faults.length < 20; place = open.pop()) {
    if (++seen > bounds.values) {
      faults.push({ path: '', message: `holds more than ${bounds.values} values` })
      break
    }
    const wrong = wrongWith(place, bounds)
    if (wrong) {
      faults.push({ path: pathOf(place), message: wrong })
      continue
    }
    const { value, depth } = place
    if (typeof value !== 'object' || value === null) continue
    const entries: [string | number, unknown][] = Array.isArray(value)
      ? value.map((v: unknown, i) => [i, v])
      : Object.entries(value)
    for (let i = entries.length - 1; i >= 0; i--) {
      const [key, inner] = entries[i]!
      const next: Place = { value: inner, depth: depth + 1, key, above: place }
      if (typeof key === 'string' && (key.length > 400 || unwritable.test(key)))
        faults.push({ path: pathOf(place), message: 'has a name that can’t be one' })
      else if (typeof key === 'string' && isTaken(key))
        faults.push({ path: pathOf(place), message: `can’t have “${key}” as a name: take another` })
      else open.push(next)
    }
  }
  if (faults.length > 0) throw new FaultyFile(file, faults)
}

/** Names that every object has by itself: as the id of a part or of a leg they would be found where nothing is. */
export const isTaken = (name: string): boolean => name in Object.prototype
