// What a MOSFET is taken to be where its sheet is silent, and the resistor that holds its gate off.

import { fromPart, type Worked, type WorkedInput } from '../findings'
import type { Rated, Transistor } from '../parts'
import { number, sum, type SumInput } from '../sums'

/** What no sheet of ours states: usual small parts at room temperature. */
const assumed = {
  threshold: { min: 0.4, typ: 1, max: 2, kind: 'assumed' },
  gateLeakage: { max: 0.1e-6, kind: 'assumed' },
  channel: { typ: 10e-9, max: 1e-6, kind: 'assumed' },
} satisfies Record<string, Rated>

/** Between gate and source, V. */
export const thresholdOf = (of: Transistor): WorkedInput =>
  fromPart('V_th', `threshold of ${of.name}`, of, 'threshold', of.threshold ?? assumed.threshold, 'V')

/** Into the gate, A. */
export const gateLeakageOf = (of: Transistor): WorkedInput =>
  fromPart(
    'I_gate',
    `into the gate of ${of.name}`,
    of,
    'gateLeakage',
    of.gateLeakage ?? assumed.gateLeakage,
    'A',
  )

/** Through the channel while it is off, A. */
export const offCurrent = (symbol: string, of: Transistor): WorkedInput =>
  fromPart(symbol, `${of.name}, off`, of, 'leakage', of.leakage ?? assumed.channel, 'A')

/** The largest resistor between gate and source that holds it off, Ω, with so much leaking onto the gate, A. */
export const largestHolding = (label: string, of: Transistor, I_leak: SumInput): Worked =>
  sum(
    {
      label,
      symbol: 'R_max',
      unit: 'Ω',
      counts: 'min',
      note: 'All leakage together must leave the gate below half its least threshold.',
    },
    { V_th: thresholdOf(of), I_leak },
    (i) => i.V_th.over(number(2).times(i.I_leak)),
  )
