// A value read from a curve of a part's sheet, at another value. A specimen lies on one line between the least and the
// greatest all along.

import { partOrigin, type SheetPart, type Worked } from '../findings'
import type { Rated } from '../parts'
import { fullRange } from '../quantity'
import { dimensionOf } from './dimension'
import { sum, type SumInput, type SumMeta } from './sum'
import { readAt } from './term'

export interface SheetCurve {
  part: SheetPart
  field: string
  points: readonly { x: number; y: Rated }[]
  /** Nothing is known beyond the ends: held there. Absent: on with the last slope. */
  held?: boolean
  /** Which specimen, where there are several that vary apart. */
  specimen?: string
}

/** `at`: the symbol and the sum or quantity at which the curve is read. */
export const readCurve = (
  meta: SumMeta,
  { part, field, points, held, specimen }: SheetCurve,
  at: [string, SumInput],
): Worked => {
  const sorted = [...points].sort((a, b) => a.x - b.x)
  const curve = {
    held,
    points: sorted.map(({ x, y }) => {
      const { min, typ, max } = fullRange(y)
      return [x, min, typ, max] as const
    }),
  }
  const varies = curve.points.some(([, min, , max]) => min < max)
  const [symbol, of] = at
  const line = `${meta.symbol}(${symbol})`
  return sum(
    meta,
    {
      [symbol]: of,
      [line]: {
        symbol: line,
        label: `${meta.label}, curve of the sheet`,
        value: varies ? { min: -1, typ: 0, max: 1 } : { min: 0, typ: 0, max: 0 },
        unit: '',
        origin: partOrigin(part, field, sorted[0]!.y),
        variable: `${part.id}.${field}${specimen ? ` ${specimen}` : ''}`,
        curve: true,
      },
    },
    (i) => readAt(meta.symbol, curve, i[symbol]!, dimensionOf(meta.unit), i[line]!),
  )
}
