// A value read from a curve of a part's sheet, at another value. A specimen lies on one line between the least and the
// greatest all along.

import { partOrigin, type SheetPart, type Worked, type WorkedInput } from '../findings'
import type { Rated } from '../parts'
import { fullRange } from '../quantity'
import { dimensionOf } from './dimension'
import { sum, type SumInput, type SumMeta } from './sum'
import { type Curve, readAt, seriesCurrent } from './term'

export interface SheetCurve {
  part: SheetPart
  field: string
  points: readonly { x: number; y: Rated }[]
  /** Nothing is known beyond the ends: held there. Absent: on with the last slope. */
  held?: boolean
  /** Which specimen, where there are several that vary apart. */
  specimen?: string
}

const curveOf = ({ points, held }: SheetCurve): Curve => ({
  held,
  points: [...points]
    .sort((a, b) => a.x - b.x)
    .map(({ x, y }) => {
      const { min, typ, max } = fullRange(y)
      return [x, min, typ, max] as const
    }),
})

/** On which of its lines a specimen lies, as an input. */
const lineOf = (
  symbol: string,
  label: string,
  { part, field, points, specimen }: SheetCurve,
): WorkedInput => {
  const varies = points.some(({ y }) => fullRange(y).min < fullRange(y).max)
  return {
    symbol,
    label: `${label}, curve of the sheet`,
    value: varies ? { min: -1, typ: 0, max: 1 } : { min: 0, typ: 0, max: 0 },
    unit: '',
    origin: partOrigin(part, field, points[0]!.y),
    variable: `${part.id}.${field}${specimen ? ` ${specimen}` : ''}`,
    curve: true,
  }
}

/** `at`: the symbol and the sum or quantity at which the curve is read. */
export const readCurve = (meta: SumMeta, curve: SheetCurve, at: [string, SumInput]): Worked => {
  const [symbol, of] = at
  const line = `${meta.symbol}(${symbol})`
  return sum(meta, { [symbol]: of, [line]: lineOf(line, meta.label, curve) }, (i) =>
    readAt(meta.symbol, curveOf(curve), i[symbol]!, dimensionOf(meta.unit), i[line]),
  )
}

/** A part in a row with others, and what falls across it by the current: `symbol` of that voltage. */
export interface SeriesPart {
  symbol: string
  label: string
  curve: SheetCurve
}

/** The current through a resistance `R` and parts in series across a voltage `V`, amperes. */
export const currentInSeries = (
  meta: Omit<SumMeta, 'unit'>,
  V: [string, SumInput],
  R: [string, SumInput] | undefined,
  parts: readonly SeriesPart[],
): Worked => {
  const lines = parts.map((p) => `${p.symbol}(I)`)
  return sum(
    { ...meta, unit: 'A' },
    {
      [V[0]]: V[1],
      ...(R && { [R[0]]: R[1] }),
      ...Object.fromEntries(parts.map((p, k) => [lines[k]!, lineOf(lines[k]!, p.label, p.curve)])),
    },
    (i) =>
      seriesCurrent(
        i[V[0]]!,
        R && i[R[0]],
        parts.map((p, k) => ({ name: p.symbol, curve: curveOf(p.curve), band: i[lines[k]!]! })),
      ),
  )
}
