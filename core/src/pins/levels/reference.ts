// A voltage of one's own for the converters to measure against: what comes in at the reference leg.

import { fromPart, type Worked } from '../../findings'
import { fullRange } from '../../quantity'
import type { Wire } from '../plan'

/** What the device at the reference leg gives, in volts; undefined where there is none. */
export const referenceOf = (wires: Wire[]): Worked | undefined => {
  for (const { signal, impossible } of wires) {
    const end = signal.ends.find((e) => e.signal.electrical.kind === 'reference')
    const electrical = end?.signal.electrical
    if (impossible || electrical?.kind !== 'reference') continue
    return {
      label: `What ${end!.instance.name} gives`,
      symbol: 'V_ext',
      value: fullRange(electrical.voltage),
      unit: 'V',
      formula: 'V_sheet',
      inputs: [
        fromPart(
          'V_sheet',
          'output voltage',
          end!.instance.part,
          `${end!.signal.id}.voltage`,
          electrical.voltage,
          'V',
        ),
      ],
    }
  }
  return undefined
}
