// One line about a device that no library has: `pump: motor 12 V 0.4 A`. Every word of it is used or named as not understood.

import { parseQuantity, QuantityError } from '../quantity'
import type { Hazard, Sketch, SketchSort } from './sketch'

/** Words for each sort, as builders use them. */
const words: readonly [SketchSort, readonly string[]][] = [
  ['motor', ['motor', 'pump', 'fan', 'blower', 'valve', 'solenoid', 'coil', 'relay', 'lock', 'magnet']],
  ['load', ['load', 'heater', 'heating', 'bulb', 'lamp', 'wire', 'mat', 'cooler']],
  ['led', ['led']],
  ['strip', ['strip', 'pixel', 'ring', 'addressed']],
  ['contact', ['contact', 'button', 'switch', 'reed', 'key', 'limit']],
  ['sensor', ['sensor', 'probe', 'analog', 'potentiometer', 'gauge', 'thermistor']],
  ['two-wire', ['i2c', 'two-wire']],
  ['spi', ['spi']],
  ['serial', ['serial', 'uart', 'rs232']],
  ['module', ['module', 'board', 'driver']],
]
/** What can hurt someone, by the words that name it. */
const hazards: readonly [Hazard, readonly string[]][] = [
  ['mains', ['mains', 'relay', 'socket', 'outlet', 'triac', 'dimmer']],
  ['heat', ['heater', 'heating', 'heated', 'bulb', 'mat', 'oven', 'kiln', 'iron', 'hotplate', 'furnace']],
  ['lithium', ['lithium', 'battery', 'accumulator', 'charger', 'cell']],
  ['motor', ['motor', 'pump', 'fan', 'blower', 'servo', 'saw', 'drill', 'winch']],
  ['light', ['laser', 'ultraviolet', 'uv', 'strobe']],
]
const named = <T>(table: readonly [T, readonly string[]][], word: string): T[] =>
  table.flatMap(([what, names]) => (names.some((n) => word === n || word === `${n}s`) ? [what] : []))

/** What is safe to touch ends here, V of direct current (IEC 61140). */
export const touchable = 60
export const hazardsIn = (text: string, supply = 0): Hazard[] => [
  ...new Set([
    ...(supply > touchable ? (['mains'] as const) : []),
    ...tokensOf(text).flatMap((t) => named(hazards, t.toLowerCase())),
  ]),
]

export interface ReadSketch {
  sketch: Sketch
  /** Words that mean nothing here. */
  unread: string[]
}

/** `12 V` and `12V` are one word, in capitals or not. */
const tokensOf = (text: string): string[] =>
  text
    .replace(/(\d)\s+(?=[mµuk]?[va]\b)/gi, '$1')
    .split(/[\s,;]+/)
    .filter(Boolean)

const quantity = (token: string, unit: 'V' | 'A'): number | undefined => {
  if (!/^\d/.test(token) || token.at(-1)!.toUpperCase() !== unit) return undefined
  try {
    return parseQuantity(`${token.slice(0, -1)}${unit}`, unit)
  } catch (error) {
    if (error instanceof QuantityError) return undefined
    throw error
  }
}

/**
 * `name: sort, supply, current at work, current at rest`; what follows `out` and `in` are lines of a module. Without a colon
 * what is no number is the name.
 */
export const readSketch = (line: string): ReadSketch => {
  const colon = line.indexOf(':')
  const [before, after] = colon < 0 ? ['', line] : [line.slice(0, colon), line.slice(colon + 1)]
  const names = tokensOf(before.replace(/^\s*\d+\s*(?:x|×)?\s+/i, ''))
  const sketch: Sketch = { name: '', sort: 'module', hazards: [] }
  const unread: string[] = []
  const currents: number[] = []
  let sort: SketchSort | undefined
  let lines: 'drives' | 'reads' | undefined
  for (const token of tokensOf(after.replace(/^\s*\d+\s*(?:x|×)?\s+(?![mµuk]?[va]\b)/i, ''))) {
    const lower = token.toLowerCase()
    const volts = quantity(token, 'V')
    const amperes = quantity(token, 'A')
    const address = /^0x([0-7]?[0-9a-f])$/i.exec(token)
    if (volts !== undefined && sketch.supply === undefined) sketch.supply = volts
    else if (amperes !== undefined && currents.length < 2) currents.push(amperes)
    else if (address && sketch.address === undefined) sketch.address = parseInt(address[1]!, 16)
    else if (colon < 0) names.push(token)
    else if (lower === 'out' || lower === 'in') lines = lower === 'out' ? 'drives' : 'reads'
    else if (lines && /^[\w.:/+-]+$/.test(token)) sketch[lines] = [...(sketch[lines] ?? []), token]
    // The last says what it is: a motor driver is a driver.
    else if (named(words, lower).length > 0) sort = named(words, lower)[0]
    else unread.push(token)
  }
  sketch.name = names.join(' ')
  sketch.sort = sort ?? names.flatMap((w) => named(words, w.toLowerCase())).at(-1) ?? 'module'
  // Of two the greater is the one at work, in whatever order they stand.
  if (currents.length > 0) sketch.work = Math.max(...currents)
  if (currents.length > 1) sketch.rest = Math.min(...currents)
  sketch.hazards = hazardsIn(line.replace(':', ' '), sketch.supply)
  return { sketch, unread }
}
