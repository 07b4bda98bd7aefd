// A voltage of one's own for the converters to measure against: what comes in at the reference leg.

import type { Worked } from '../findings'
import type { Wire } from '../legs'
import { statedVoltage } from './sides'

/** What the device at the reference leg gives, in volts; undefined where there is none. */
export const referenceOf = (wires: Wire[]): Worked | undefined => {
  for (const { signal, impossible } of wires) {
    const end = signal.ends.find((e) => e.signal.electrical.kind === 'reference')
    const electrical = end?.signal.electrical
    if (impossible || electrical?.kind !== 'reference') continue
    return statedVoltage(`What ${end!.instance.name} gives`, 'V_ext', end!, 'voltage', electrical.voltage)
  }
  return undefined
}
