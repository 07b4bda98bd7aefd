// What is read out of a row of a table of limits: its numbers in SI, and what a part's file makes of them.

import { parseQuantity, QuantityError, type Unit } from '../../quantity'
import type { LimitKind } from '../../parts'
import type { Place } from '../layout'
import type { Question } from '../questions'

export type Json = Record<string, unknown>
export interface FoundFact {
  /** Where it goes in the part's file: `supply.recommended`, or `modes[]` for one more entry of a list. */
  path: string
  value: unknown
  words: string
  /** What its row says of where it holds; of several columns, that of the one that was taken. */
  at?: string
  line: number
  place: Place
  /** The line of a later row about the same, which is taken. */
  later?: number
}
export type LimitRow = 'blank' | 'heading' | 'section' | 'fact' | 'unknown' | 'skipped'
export interface UnderstoodLimits {
  kinds: Record<number, LimitRow>
  facts: FoundFact[]
  questions: Question[]
  /** Rows that are known and that nothing asks for. */
  beside: string[]
  /** Numbers in rows that became facts, of which nothing became; and those of rows that are not understood. */
  open: (Place & { text: string })[]
}

export interface Numbers {
  min?: string
  typ?: string
  max?: string
}
export interface Reading {
  text: string
  conditions: string
  numbers: Numbers
  unit: string
  section: Section
  source?: string
  line: number
  place: Place
}
export type Section = 'absolute' | 'recommended' | 'other'

export interface Target {
  id: string
  words: string
  /** What its row is called; `not` guards against neighbours. */
  pattern: RegExp
  not?: RegExp
  section?: Section[]
  /** Its numbers are what may be, or must be at least: of several conditions the narrowest counts. */
  allowed?: true
  /**
   * Undefined where the numbers can't be read for it. `beside`, or no reading at all: it is known, and nothing asks for it.
   * `words` tells what of its numbers is no value of the file's.
   */
  read?: (r: Reading) => { path: string; value: unknown; words?: string } | 'beside' | undefined
}
/** What a row of this sort is about, so that nobody is asked: nothing is planned with it. */
export const besides = (id: string, pattern: RegExp, not?: RegExp): Target => ({
  id: `beside-${id}`,
  words: id,
  pattern,
  not,
})

const minus = (text: string) => text.replace(/[−–‒]/g, '-').replace(/^±/, '')
const cleanUnit = (unit: string) =>
  unit
    .trim()
    .replace(/^deg\.?\s*C$|^º?C$|^℃$/i, '°C')
    .replace(/℃|º ?C/, '°C')
    .replace(/^°C\/W$/, 'K/W')

/** A number of a cell in SI: with its own unit, or the row's. */
export const valueOf = (text: string | undefined, unit: string, wanted: Unit): number | undefined => {
  if (text === undefined) return undefined
  const plain = minus(text).replace(/\s+/g, ' ').trim()
  if (!/^[-+]?[\d.,]/.test(plain)) return undefined
  // A unit in the cell goes before the row’s.
  const [, amount, own] = /^([-+]?[\d.,]+)\s*(\D.*)$/.exec(plain) ?? []
  const inCell = amount !== undefined ? [`${amount} ${cleanUnit(own!)}`] : []
  for (const candidate of [plain, ...inCell, `${plain} ${cleanUnit(unit)}`]) {
    try {
      const united = /[A-Za-zΩµμ°]/.test(candidate)
      if (united || unit === '') return parseQuantity(candidate, wanted)
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error
    }
  }
  return undefined
}

export const ratedFrom = (r: Reading, wanted: Unit, kind: LimitKind): Json | undefined => {
  const value: Json = {}
  for (const corner of ['min', 'typ', 'max'] as const) {
    const v = valueOf(r.numbers[corner], r.unit, wanted)
    if (v !== undefined) value[corner] = v
  }
  if (Object.keys(value).length === 0) return undefined
  // A least above the greatest was read wrongly, whichever way its sign says that a current flows.
  const told = (['min', 'typ', 'max'] as const).flatMap((c) =>
    typeof value[c] === 'number' ? [value[c]] : [],
  )
  const rises = (all: number[]) => all.every((v, i) => i === 0 || v >= all[i - 1]!)
  if (!rises(told) && !rises(told.map(Math.abs))) return undefined
  return {
    ...value,
    kind,
    ...(r.conditions ? { at: r.conditions } : {}),
    ...(r.source ? { source: r.source } : {}),
  }
}
export const plainRated =
  (path: string, unit: Unit, kind: LimitKind = 'guaranteed') =>
  (r: Reading) => {
    const value = ratedFrom(r, unit, r.section === 'absolute' ? 'absolute' : kind)
    return value && { path, value }
  }
/** A current's sign only says which way it flows. */
export const unsigned = (rated: Json | undefined): Json | undefined => {
  if (!rated) return undefined
  const values = (['min', 'typ', 'max'] as const).flatMap((c) =>
    typeof rated[c] === 'number' ? [Math.abs(rated[c])] : [],
  )
  const { min, typ, max, ...rest } = rated
  return [min, typ, max].some((v) => typeof v === 'number' && v < 0) || max === undefined
    ? { ...rest, max: Math.max(...values) }
    : rated
}
export const rail = 'V[_ ]?(?:DD|CC|IN|S)(?:IO)?'
/** `0.7 × VDD`, `0.2VDD+0.9`, `VDD − 0.4`, or plain volts, as a share of the supply plus a fixed part. */
export const shareOfSupply = (text: string): { factor: number; offset: number } | undefined => {
  const plain = minus(text).replace(/\s+/g, '').replace(/,/g, '.')
  const match = new RegExp(`^(?:(\\d*\\.?\\d+)[*×x·]?)?${rail}(?:([+-]\\d*\\.?\\d+)V?)?$`, 'i').exec(plain)
  if (match) return { factor: match[1] === undefined ? 1 : Number(match[1]), offset: Number(match[2] ?? 0) }
  const volts = /^(-?\d*\.?\d+)V?$/i.exec(plain)
  return volts ? { factor: 0, offset: Number(volts[1]) } : undefined
}
export const currentIn = (text: string): number | undefined => {
  const match = /I\w*\s*=\s*[-−–+±]?\s*([\d.,]+\s*[mµu]?A)/i.exec(text)
  return match ? valueOf(match[1], '', 'A') : undefined
}
export const wordId = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40) || 'mode'
/** A share: `92 %`, `±2` with a unit of %, 0.92. */
export const shareIn = (text: string | undefined, unit: string): number | undefined => {
  const plain = minus(text ?? '').trim()
  const match = /^([-+]?\d+(?:[.,]\d+)?)\s*(%?)$/.exec(plain)
  if (!match) return undefined
  const value = Number(match[1]!.replace(',', '.'))
  return match[2] === '%' || unit.trim() === '%' ? value / 100 : Math.abs(value) <= 1 ? value : undefined
}
/** What it does while it takes this current, in the row’s own words. */
export const modeName = (r: Reading): string =>
  r.text
    .replace(/\b(?:supply|current|consumption|I[_ ]?(?:DD|CC|S)\w*)\b/gi, '')
    .replace(/[\s,;:()]+/g, ' ')
    .trim()
export const mode = (kind: 'active' | 'idle' | 'sleep') => (r: Reading) => {
  const current = ratedFrom(r, 'A', 'guaranteed')
  const name = modeName(r) || kind
  return current && { path: 'modes[]', value: { id: wordId(name), name, kind, current } }
}
