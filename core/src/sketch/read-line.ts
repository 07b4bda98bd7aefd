// One line about a device that no library has: `pump: motor 12 V 0.4 A`. Every word of it is used or named as not understood.

import { parseQuantity, QuantityError } from '../quantity'
import type { Sketch, SketchSort } from './sketch'

/** Words for each sort, as builders use them. The longest that is found counts. */
const words: readonly [SketchSort, readonly string[]][] = [
  ['motor', ['motor', 'pump', 'fan', 'blower', 'valve', 'solenoid', 'coil', 'relay', 'lock', 'magnet']],
  ['load', ['load', 'heater', 'heating', 'bulb', 'lamp', 'wire', 'mat', 'cooler']],
  ['led', ['led']],
  ['strip', ['strip', 'pixels', 'ring', 'addressed']],
  ['contact', ['contact', 'button', 'switch', 'reed', 'key', 'limit']],
  ['sensor', ['sensor', 'probe', 'analog', 'potentiometer', 'gauge', 'thermistor']],
  ['two-wire', ['i2c', 'two-wire']],
  ['spi', ['spi']],
  ['serial', ['serial', 'uart', 'rs232']],
  ['module', ['module', 'board', 'driver']],
]
const sortOf = (word: string): SketchSort | undefined =>
  words.find(([, names]) => names.some((n) => word === n || word === `${n}s`))?.[0]

export interface ReadSketch {
  sketch: Sketch
  /** Words that mean nothing here. */
  unread: string[]
  /** Whether the line itself says what sort of thing it is. */
  sortSaid: boolean
}

/** `12 V` and `12V` are one word. */
const tokensOf = (text: string): string[] =>
  text
    .replace(/(\d)\s+(?=(?:m|µ|u|k)?[VA]\b)/g, '$1')
    .split(/[\s,;]+/)
    .filter(Boolean)

const quantity = (text: string, unit: 'V' | 'A'): number | undefined => {
  if (!text.endsWith(unit)) return undefined
  try {
    const value = parseQuantity(text, unit)
    return value >= 0 ? value : undefined
  } catch (error) {
    if (error instanceof QuantityError) return undefined
    throw error
  }
}

/** `name: sort, supply, current at work, current at rest`; what follows `out` and `in` are lines of a module. */
export const readSketch = (line: string): ReadSketch => {
  const [before, ...rest] = line.split(':')
  const named = rest.length > 0
  const name = before!.trim().replace(/^\d+\s*(?:x|×)?\s+/i, '')
  const sketch: Sketch = { name, sort: 'module' }
  const unread: string[] = []
  const currents: number[] = []
  let sort: SketchSort | undefined
  let lines: 'drives' | 'reads' | undefined
  for (const token of named ? tokensOf(rest.join(':')) : []) {
    const lower = token.toLowerCase()
    const volts = quantity(token, 'V')
    const amperes = quantity(token, 'A')
    const address = /^0x([0-9a-f]{1,2})$/i.exec(token)
    if (volts !== undefined && sketch.supply === undefined) sketch.supply = volts
    else if (amperes !== undefined && currents.length < 2) currents.push(amperes)
    else if (address && parseInt(address[1]!, 16) < 128) sketch.address = parseInt(address[1]!, 16)
    else if (lower === 'out' || lower === 'in') lines = lower === 'out' ? 'drives' : 'reads'
    else if (lines && /^[\w.:/+-]+$/.test(token)) sketch[lines] = [...(sketch[lines] ?? []), token]
    else if (sortOf(lower)) sort ??= sortOf(lower)
    else unread.push(token)
  }
  const guessed = name
    .toLowerCase()
    .split(/\s+/)
    .flatMap((w) => sortOf(w) ?? [])
    .at(-1)
  sketch.sort = sort ?? guessed ?? 'module'
  // Of two the greater is the one at work, in whatever order they stand.
  if (currents.length > 0) sketch.work = Math.max(...currents)
  if (currents.length > 1) sketch.rest = Math.min(...currents)
  return { sketch, unread, sortSaid: sort !== undefined || guessed !== undefined }
}
