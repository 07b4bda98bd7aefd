// Whether a latch stays off: against leakage, against its source being put in, against a finger, and against a programmer.

import { type Check, say, type Found } from '../../findings'
import { formatMarking, formatQuantity } from '../../quantity'
import type { LatchResult } from '../resolve'

const id = (what: string) => `power.latch-stays-off:${what}`

/** A damp finger, Ω; a dry one has ten times as much. */
const damp = 100e3

const leaks = ({ off, leak, threshold, pass, pullUp, largest, resistors, need }: LatchResult): Found[] => {
  const most = off.value.max
  if (most < threshold.value.min) return []
  const smaller = largest.value.min / (1 + resistors.tolerance)
  return [
    {
      id: id('leaks'),
      severity: off.value.typ >= threshold.value.typ ? 'stops' : 'risks',
      grade: 'outside the sheet',
      ...say`The latch may switch itself on: leakage leaves up to ${formatQuantity(most, 'V', 2)} between gate and source, and ${pass.name} begins to carry from ${formatQuantity(threshold.value.min, 'V')}.`,
      because: [
        { ...say`Up to ${formatQuantity(leak.value.max, 'A', 2)} leak off the gate`, worked: leak },
        {
          ...say`Through ${formatMarking(pullUp.value, 'Ω')} that is ${formatQuantity(most, 'V', 2)}`,
          worked: off,
        },
        { ...say`${formatQuantity(largest.value.min, 'Ω', 2)} or less would hold it`, worked: largest },
      ],
      fixes:
        smaller >= resistors.from
          ? [
              {
                label: 'The resistor that holds it for sure',
                edits: [{ kind: 'changeLatch', change: { pullUp: undefined }, what: 'resistor as computed' }],
              },
            ]
          : [],
      about: { device: need.id, support: 'latch-pull-up' },
    },
  ]
}

export const latchStaysOff: Check = {
  id: 'power.latch-stays-off',
  stage: 'power',
  looksFor: 'a latch that switches itself on, or that is not off for everybody',
  rule: 'leakage of its parts and the gate’s capacitances against its least threshold; a damp finger of 100 kΩ; the diode in every MOSFET',
  run: ({ latch: { latch }, power }) => {
    if (!latch) return []
    const { blink, jump, startUp, setUp, touch, need, pass, source } = latch
    const starts = startUp.value.min + setUp.value.min
    return [
      ...leaks(latch),
      ...(blink.value.max >= starts
        ? [
            {
              id: id('plugged'),
              severity: 'risks' as const,
              grade: 'outside the sheet' as const,
              ...say`The latch may switch itself on when ${source.name} is put in: its gate lags behind for ${formatQuantity(blink.value.max, 's', 2)}, and the program may hold after ${formatQuantity(starts, 's', 2)}.`,
              because: [
                {
                  ...say`Between gate and source there are up to ${formatQuantity(jump.value.max, 'V', 2)} then`,
                  worked: jump,
                },
                { ...say`For up to ${formatQuantity(blink.value.max, 's', 2)}`, worked: blink },
                {
                  ...say`${startUp.label}: ${formatQuantity(startUp.value.min, 's', 2)} or more`,
                  worked: startUp,
                },
              ],
              fixes: [
                {
                  label: 'The resistor that holds it for sure',
                  edits: [
                    {
                      kind: 'changeLatch' as const,
                      change: { pullUp: undefined },
                      what: 'resistor as computed',
                    },
                  ],
                },
              ],
            },
          ]
        : []),
      ...(touch.value.max > damp
        ? [
            {
              id: id('touched'),
              severity: 'notes' as const,
              grade: 'typical' as const,
              ...say`A finger from the latch’s gate to ground of less than ${formatQuantity(touch.value.max, 'Ω', 2)} switches the project on: a damp one has ${formatQuantity(damp, 'Ω')}.`,
              because: [{ ...say`Finger and resistor divide what ${source.name} gives`, worked: touch }],
              fixes: [],
            },
          ]
        : []),
      // Behind a diode or a regulator nothing comes back so easily.
      ...(power.regulator || power.polarity?.present
        ? []
        : [
            {
              id: id('programmer'),
              severity: 'notes' as const,
              grade: 'typical' as const,
              ...say`Switched off is not unplugged: a programmer that feeds the rail drives current into ${source.name} through the diode inside ${pass.name}.`,
              because: [
                say`Every MOSFET has a diode from drain to source: a p-channel one in the plus carries backwards`,
              ],
              fixes: [],
            },
          ]),
      ...(power.feed
        ? [
            {
              id: id('feed'),
              severity: 'notes' as const,
              grade: 'typical' as const,
              ...say`The latch doesn’t switch the second feed: what hangs on ${power.feed.source.name} stays on when the rest is off.`,
              because: [say`Its transistor lies in the plus of ${source.name} alone`],
              fixes: [],
            },
          ]
        : []),
    ].map((f) => ({ about: { device: need.id }, ...f }))
  },
}
