// Whether a latch turns on, and stays so: its transistor fully on, the button read, the press no longer than anybody presses.

import { type Check, type Fact, partOrigin, say, type Worked, type Found } from '../../findings'
import type { Library } from '../../parts'
import { formatQuantity, fullRange } from '../../quantity'
import type { LatchResult } from '../resolve'
import { otherDiodes, otherPasses } from './others'

const id = (what: string) => `power.latch-turns-on:${what}`

/** Longer than this nobody expects to press, s. */
const patient = 0.5

/** What its gate gets, against what its sheet says that it needs. */
const gate = (latch: LatchResult, library: Library, when: 'held' | 'pressed'): Found[] => {
  const { pass, threshold, source } = latch
  const drive: Worked = latch[when]
  const least = drive.value.min
  const gets = formatQuantity(least, 'V', 3)
  const words = when === 'held' ? 'while the program holds' : 'while the button is pressed'
  const because: Fact[] = [
    { ...say`Its gate is ${gets} below the source at the least, ${words}`, worked: drive },
  ]
  const stated = (pass.channel ?? []).map((c) => c.gate)
  const from = Math.min(...stated)
  const fixes = otherPasses(latch, library)
  if (least < threshold.value.max)
    return [
      {
        id: id(`off:${when}`),
        severity: 'stops',
        grade: drive.value.max < threshold.value.min ? 'impossible' : 'outside the sheet',
        ...say`On ${source.name} the latch’s ${pass.name} gets as little as ${gets} ${words}, and may need ${formatQuantity(threshold.value.max, 'V')} to begin to carry.`,
        because: [
          ...because,
          {
            ...say`${pass.sheet}: threshold`,
            ...(pass.threshold && { origin: partOrigin(pass, 'threshold', pass.threshold) }),
          },
        ],
        fixes,
      },
    ]
  if (stated.length > 0 && least < from)
    return [
      {
        id: id(`weak:${when}`),
        // Pressed, it has only to start.
        severity: when === 'held' ? 'risks' : 'notes',
        grade: 'outside the sheet',
        ...say`The latch’s ${pass.name} may not be fully on ${words}: its gate gets as little as ${gets}, and its sheet says what its channel is from ${formatQuantity(from, 'V')} on.`,
        because,
        fixes,
      },
    ]
  return []
}

const read = (latch: LatchResult, library: Library): Found[] => {
  const { margin, low, need, diode } = latch
  if (!margin || !low || !diode || margin.value.min >= 0) return []
  return [
    {
      id: id('unread'),
      severity: margin.value.max < 0 ? 'stops' : 'risks',
      grade: margin.value.typ >= 0 ? 'typical' : margin.value.max >= 0 ? 'outside the sheet' : 'impossible',
      ...say`Pressed, ${need.name} brings its leg no lower than ${formatQuantity(low.value.max, 'V', 2)}, and the chip may not read that as low.`,
      because: [
        { ...say`Up to ${formatQuantity(low.value.max, 'V', 2)} fall in ${diode.name}`, worked: low },
        {
          ...say`Left below what the leg reads as low: ${formatQuantity(margin.value.min, 'V', 2)}`,
          worked: margin,
        },
      ],
      fixes: otherDiodes(latch, library),
    },
  ]
}

export const latchTurnsOn: Check = {
  id: 'power.latch-turns-on',
  stage: 'power',
  looksFor:
    'a latch that is not fully on, whose button the program can’t read, or that must be pressed for long',
  rule: 'threshold and gate voltages of the channel’s sheet, the chip’s greatest low level, half a second',
  run: ({ library, latch: { latch } }) => {
    if (!latch) return []
    const { press, pass, need, source, fall, startUp, setUp } = latch
    const anew = startUp.value.max + setUp.value.max
    const long = press.value.max
    const off = gate(latch, library, 'held')
    return [
      ...off,
      ...(off.length === 0 ? gate(latch, library, 'pressed') : []),
      ...(pass.channel?.length
        ? []
        : [
            {
              id: id('unknown'),
              severity: 'notes' as const,
              ...say`The sheet of ${pass.name} states no resistance of its channel: what is lost in the latch, and how warm it gets, is not known.`,
              because: [say`It lies in the plus of ${source.name}, ${fullRange(source.voltage).typ} V`],
              fixes: otherPasses(latch, library),
            },
          ]),
      ...read(latch, library),
      // Nothing holds while the chip is in reset: the rail’s capacitors would have to.
      ...((fall?.value.min ?? 0) >= anew
        ? []
        : [
            {
              id: id('reset'),
              severity: 'notes' as const,
              grade: 'typical' as const,
              ...say`A reset switches the project off: the leg that holds is free for up to ${formatQuantity(anew, 's', 2)}, and nothing else holds the latch.`,
              because: [
                {
                  ...say`${startUp.label}: up to ${formatQuantity(startUp.value.max, 's', 2)}`,
                  worked: startUp,
                },
                ...(fall
                  ? [
                      {
                        ...say`The rail’s capacitors carry it for as little as ${formatQuantity(fall.value.min, 's', 2)}`,
                        worked: fall,
                      },
                    ]
                  : []),
              ],
              fixes: [],
            },
          ]),
      ...(long > patient
        ? [
            {
              id: id('long'),
              severity: 'notes' as const,
              grade: 'typical' as const,
              ...say`${need.name} may have to be pressed for ${formatQuantity(long, 's', 2)} until the program holds.`,
              because: [
                {
                  ...say`Rail, start of the chip and set-up take ${formatQuantity(long, 's', 2)}`,
                  worked: press,
                },
              ],
              fixes: [],
            },
          ]
        : []),
    ].map((f) => ({ about: { device: need.id }, ...f }))
  },
}
