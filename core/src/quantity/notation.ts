// Engineering notation both ways: what a builder types (4k7, 100n, 3.3V, 16 MHz, 1R5) to SI and back, without
// losing a digit. Everything between is plain SI numbers; this is the only place that knows prefixes.

export type Unit =
  | 'V'
  | 'A'
  | 'A/Hz'
  | 'Ω'
  | 'Ω/m'
  | 'F'
  | 'H'
  | 'Hz'
  | 's'
  | 'W'
  | '°C'
  | 'K/W'
  | 'm'
  | 'cm²'
  | 'Ah'
  | 'Wh'
  | '%'
  | 'ppm'
  | ''

const prefixes: Record<string, number> = {
  p: -12,
  n: -9,
  u: -6,
  µ: -6,
  μ: -6,
  m: -3,
  k: 3,
  K: 3,
  M: 6,
  G: 9,
}
const printed = new Map([
  [-12, 'p'],
  [-9, 'n'],
  [-6, 'µ'],
  [-3, 'm'],
  [0, ''],
  [3, 'k'],
  [6, 'M'],
  [9, 'G'],
])
/** Written without prefixes, whatever their size. */
const plainUnits = new Set<Unit>(['cm²', '°C', 'K/W', '%', 'ppm', ''])
const spellings: Record<string, Unit> = {
  R: 'Ω',
  ohm: 'Ω',
  ohms: 'Ω',
  Ohm: 'Ω',
  Ω: 'Ω',
  '\u2126': 'Ω', // the ohm sign, which some keyboards give
  C: '°C',
  '°C': '°C',
  hz: 'Hz',
  cm2: 'cm²',
  v: 'V',
  a: 'A',
}
const asUnit = (text: string): string => (Object.hasOwn(spellings, text) ? spellings[text]! : text)

export class QuantityError extends Error {
  override name = 'QuantityError'
}

/**
 * Reads a quantity in the given SI unit. Accepts `4k7`, `4.7k`, `4.7 kΩ`, `1R5`, `100n`, `16 MHz`, `2.2 mA`, `-40 °C`,
 * and a comma as decimal point. Throws QuantityError, naming the text, for anything else or another unit.
 */
export const parseQuantity = (text: string, unit: Unit): number => {
  const value = parsed(text, unit)
  if (!Number.isFinite(value)) throw new QuantityError(`“${text}” is too large a number`)
  return value
}
const parsed = (text: string, unit: Unit): number => {
  const fail = (why: string): never => {
    throw new QuantityError(`“${text}” ${why}`)
  }
  const match = /^([+-]?)(\d+(?:[.,]\d+)?|[.,]\d+)(e[+-]?\d+)?\s*(.*)$/i.exec(text.trim())
  if (!match) return fail(`is not a number${unit ? ` in ${unit}` : ''}`)
  const [, sign, digits, power, rest] = match
  const number = `${sign}${digits!.replace(',', '.')}`
  const exponent = power ? Number(power.slice(1)) : 0
  // 4k7, 4u7F, 1R5: the prefix or unit stands where the point would be
  const infix = /^([pnuµμmkKMGRΩVAFH])(\d+)\s*(.*)$/.exec(rest!)
  if (infix && !/[.]/.test(number)) {
    const [, mark, fraction, tail] = infix
    const markUnit = asUnit(mark!)
    const isPrefix = Object.hasOwn(prefixes, mark!)
    if (!isPrefix && markUnit !== unit) return fail(`is not in ${unit || 'plain numbers'}`)
    if (tail && asUnit(tail) !== unit) return fail(`is not in ${unit || 'plain numbers'}`)
    return Number(`${number}.${fraction}e${exponent + (isPrefix ? prefixes[mark!]! : 0)}`)
  }
  const inUnit = (suffix: string) => suffix === '' || asUnit(suffix) === unit
  if (inUnit(rest!)) return Number(`${number}e${exponent}`)
  const head = rest![0]!
  if (Object.hasOwn(prefixes, head) && inUnit(rest!.slice(1).trim()) && !plainUnits.has(unit))
    return Number(`${number}e${exponent + prefixes[head]!}`)
  return fail(`is not in ${unit || 'plain numbers'}`)
}

/** Decimal digits and exponent of the shortest text that reads back as the same number. */
const decimal = (value: number): { digits: string; exponent: number } => {
  const [mantissa, exponent] = value.toExponential().split('e') as [string, string]
  return { digits: mantissa.replace('.', ''), exponent: Number(exponent) }
}

export interface PrintedQuantity {
  number: string
  unit: string
}

/**
 * Prints a quantity with the fitting prefix, number and unit apart so that they can be set apart. `significant`
 * rounds to that many digits; without it no digit is lost.
 */
export const printQuantity = (value: number, unit: Unit, significant?: number): PrintedQuantity => {
  if (value === 0) return { number: '0', unit }
  if (!Number.isFinite(value)) return { number: value > 0 ? '∞' : Number.isNaN(value) ? '—' : '−∞', unit }
  const rounded =
    significant === undefined ? Math.abs(value) : Number(Math.abs(value).toPrecision(significant))
  const { digits, exponent } = decimal(rounded)
  const step = plainUnits.has(unit) ? 0 : Math.max(-12, Math.min(9, Math.floor(exponent / 3) * 3))
  const point = exponent - step
  const padded = point < 0 ? '0'.repeat(-point) + digits : digits.padEnd(point + 1, '0')
  const cut = Math.max(point, 0) + 1
  const whole = padded.slice(0, cut)
  const fraction = padded.slice(cut).replace(/0+$/, '')
  return {
    number: `${value < 0 ? '−' : ''}${whole}${fraction ? `.${fraction}` : ''}`,
    unit: `${printed.get(step)!}${unit}`,
  }
}

/** As printQuantity, in one string: `4.7 kΩ`. */
export const formatQuantity = (value: number, unit: Unit, significant?: number): string => {
  const p = printQuantity(value, unit, significant)
  return p.unit ? `${p.number} ${p.unit}` : p.number
}

/** A part's marking as builders write it on a bag: `4k7`, `100n`, `1R5`, `22p`. */
export const formatMarking = (value: number, unit: 'Ω' | 'F'): string => {
  const p = printQuantity(value, unit)
  const letter = p.unit === 'Ω' ? 'R' : p.unit.replace(/[ΩF]$/, '').replace('µ', 'u')
  const [whole, fraction] = p.number.split('.')
  return `${whole}${letter}${fraction ?? ''}`
}
