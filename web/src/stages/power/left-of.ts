// What is left to a limit.

import { fromWorked, type Origin, type Worked } from '@root-board/core/findings'
import { exactly, type Unit } from '@root-board/core/quantity'
import { sum } from '@root-board/core/sums'

export interface Line {
  what: string
  used: Worked
  show: 'min' | 'max'
  limit: number
  unit: Unit
  /** The used value must stay below the limit, or above it. */
  keep: 'below' | 'above'
  /** Where the limit is from. */
  origin: Origin
}

/** What is left to a limit at the worst corner, as a sum that can be opened. */
export const leftOf = (l: Line): Worked =>
  sum(
    { label: `${l.what}: left at the worst corner`, symbol: 'left', unit: l.unit },
    {
      limit: { symbol: 'limit', label: 'allowed', value: exactly(l.limit), unit: l.unit, origin: l.origin },
      used: {
        ...fromWorked(l.used),
        symbol: 'used',
        value: exactly(l.used.value[l.show]),
        variable: 'at its worst',
      },
    },
    (i) => (l.keep === 'below' ? i.limit.minus(i.used) : i.used.minus(i.limit)),
  )
