import type { Worked, WorkedInput } from '../findings'
import type { Diode } from '../parts'
import { fullRange } from '../quantity'
import { readCurve } from '../sums'

/** What falls across a diode, in volts. Without a current nothing falls: below the curve’s first point it may be as little as that. */
export const forwardOf = (diode: Diode, I: Worked | WorkedInput): Worked => {
  const points = diode.forward.map((p) => ({ x: p.current, y: { source: p.source, ...p.voltage } }))
  const first = [...points].sort((a, b) => a.x - b.x)[0]!
  const { typ, max } = fullRange(first.y)
  return readCurve(
    { label: `Forward voltage of ${diode.name}`, symbol: 'V_F', unit: 'V' },
    {
      part: diode,
      field: 'forward',
      points: [...(first.x > 0 ? [{ x: 0, y: { ...first.y, min: 0, typ, max } }] : []), ...points],
    },
    [I.symbol, I],
  )
}
