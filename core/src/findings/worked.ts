// A number that can show its working: every number a stage shows is one of these.

import { exactly, fullRange, type Range, type Unit } from '../quantity'
import type { LimitKind, Rated } from '../parts'

/** Where a value was taken from. */
export type Origin =
  | {
      kind: 'part'
      part: string
      name: string
      field: string
      sheet?: string
      place?: string
      limit?: LimitKind
    }
  | { kind: 'need'; what: string }
  | { kind: 'decision'; what: string }
  | { kind: 'rule'; source: string }
  | { kind: 'worked'; of: Worked }

export interface WorkedInput {
  symbol: string
  label: string
  value: Range
  unit: Unit
  origin: Origin
  /** What varies, where inputs from the same place don’t vary together: two resistors of one drawer. */
  variable?: string
  /** A curve: its value says on which line between least (−1) and greatest (1) a specimen lies. */
  curve?: true
}

/** One corner of a sum. */
export interface Corner {
  /** Values of the inputs, in their order. */
  at: number[]
  /** What a calculator evaluates to the value. */
  line: string
  /** Where what varies stands: “highest source, lowest output”. */
  where: string
}

/** A number as it is shown, wherever it was worked out. */
export interface Shown {
  label: string
  symbol: string
  value: Range
  unit: Unit
  /** The least and the greatest were looked for and not proven to be the furthest. */
  unproven?: true
  /** Of a limit: which of the three values is the one to keep to. Absent: the usual one tells most. */
  counts?: 'min' | 'max'
  /** Which corner decides, or a source of the formula. */
  note?: string
}

/** A number and how it is worked out. */
export interface Worked extends Shown {
  /** In the field's symbols, with the inputs' symbols in it. */
  formula: string
  inputs: WorkedInput[]
  /** The corner that each of the three values belongs to. */
  corners?: Record<keyof Range, Corner>
}

export const fromWorked = (of: Worked): WorkedInput => ({
  symbol: of.symbol,
  label: of.label,
  value: of.value,
  unit: of.unit,
  origin: { kind: 'worked', of },
})

export const fromRule = (
  symbol: string,
  label: string,
  value: number,
  unit: Unit,
  source: string,
): WorkedInput => ({
  symbol,
  label,
  value: exactly(value),
  unit,
  origin: { kind: 'rule', source },
})

export const fromDecision = (
  symbol: string,
  label: string,
  value: number,
  unit: Unit,
  what: string,
): WorkedInput => ({
  symbol,
  label,
  value: exactly(value),
  unit,
  origin: { kind: 'decision', what },
})

export interface SheetPart {
  id: string
  name: string
  sheet: string
}

export const partOrigin = (
  part: SheetPart,
  field: string,
  rated?: Partial<Pick<Rated, 'source' | 'kind'>>,
): Origin => ({
  kind: 'part',
  part: part.id,
  name: part.name,
  field,
  sheet: part.sheet,
  place: rated?.source,
  limit: rated?.kind,
})

/** A rated value of a part as an input. */
export const fromPart = (
  symbol: string,
  label: string,
  part: SheetPart,
  field: string,
  rated: Rated,
  unit: Unit,
): WorkedInput => ({ symbol, label, value: fullRange(rated), unit, origin: partOrigin(part, field, rated) })
