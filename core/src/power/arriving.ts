// What a device is fed with while everything works, and what is left of that behind something on its way.

import type { NeedDevice } from '../design'
import type { Worked } from '../findings'
import { asVariable, dimensionOf, greatest, number, sum } from '../sums'
import { type LoadedSupply, type OpenSupply, railFor, voltageFor } from '../supply'

/** At the board; undefined while it is not decided. */
export const givenTo = (
  need: Pick<NeedDevice, 'fedBy'>,
  supplies: OpenSupply,
  rails: LoadedSupply['rails'],
): Worked | undefined => rails[railFor(supplies, need).id]?.voltage ?? voltageFor(supplies, need)

/** V at this device, of what is given; never less than nothing. */
export const arriving = (name: string, symbol: string, given: Worked, lost: Worked, note: string): Worked =>
  sum(
    { label: `Arrives at ${name}`, symbol, unit: 'V', counts: 'min', note },
    { V_near: asVariable(given), V_lost: asVariable(lost) },
    (i) => greatest(number(0, dimensionOf('V')), i.V_near.minus(i.V_lost)),
  )
