// A voltage of one's own for the converters to measure against: what comes in at the reference leg.

import type { Worked } from '../findings'
import { endsOf, type Wire } from '../legs'
import { statedVoltage } from './sides'

/** What the device at the reference leg gives, in volts; undefined where there is none. */
export const referenceOf = (wires: Wire[]): Worked | undefined => {
  const [found] = wires.filter((w) => !w.impossible).flatMap((w) => endsOf(w, 'reference'))
  if (!found) return undefined
  const { end, electrical } = found
  return statedVoltage(`What ${end.instance.name} gives`, 'V_ext', end, 'voltage', electrical.voltage)
}
