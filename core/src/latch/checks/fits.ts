// Whether a latch can be there, and whether its transistors stand what is asked of them.

import { stockOf } from '../../circuit'
import { type Check, partOrigin, say, type Worked, type Found } from '../../findings'
import { findPart, type Library, siliconJunction } from '../../parts'
import { formatQuantity, fullRange } from '../../quantity'
import { latchButtons } from '../../supply'
import type { LatchResult } from '../resolve'
import { otherPasses } from './others'

const id = (what: string) => `power.latch-fits:${what}`

const rated = (latch: LatchResult, most: Worked, library: Library): Found[] => {
  const { pass, pull, source, junction, heat } = latch
  const volts = fullRange(source.voltage).max
  const amps = fullRange(pass.current).max
  const flows = formatQuantity(most.value.max, 'A', 3)
  const gate = pass.gateVoltage && fullRange(pass.gateVoltage).max
  return [
    ...(gate !== undefined && volts > gate
      ? [
          {
            id: id('gate'),
            severity: 'stops' as const,
            grade: 'outside the sheet' as const,
            ...say`The gate of ${pass.name} in the latch stands ${formatQuantity(gate, 'V')} against its source, and gets up to ${formatQuantity(volts, 'V', 3)} when it is pulled to ground: it breaks through.`,
            because: [
              {
                ...say`${pass.sheet}: ${formatQuantity(gate, 'V')} between gate and source`,
                origin: partOrigin(pass, 'gateVoltage', pass.gateVoltage),
              },
              say`Button and program pull the gate all the way down`,
            ],
            fixes: otherPasses(latch, library),
          },
        ]
      : gate === undefined
        ? [
            {
              id: id('gate-unknown'),
              severity: 'notes' as const,
              ...say`The sheet of ${pass.name} doesn’t state what its gate stands against its source: it gets up to ${formatQuantity(volts, 'V', 3)}.`,
              because: [say`Button and program pull the gate all the way down`],
              fixes: otherPasses(latch, library),
            },
          ]
        : []),
    ...[pass, ...(pull ? [pull] : [])].flatMap((t): Found[] => {
      const stands = fullRange(t.voltage).max
      return volts > stands
        ? [
            {
              id: id(`voltage:${t.id}`),
              severity: 'stops',
              grade: 'outside the sheet',
              ...say`${t.name} in the latch stands ${formatQuantity(stands, 'V')}; while it is off it has up to ${formatQuantity(volts, 'V', 3)} across it.`,
              because: [
                {
                  ...say`${t.sheet}: ${formatQuantity(stands, 'V')}`,
                  origin: partOrigin(t, 'voltage', t.voltage),
                },
              ],
              fixes: t === pass ? otherPasses(latch, library) : [],
            },
          ]
        : []
    }),
    ...(most.value.max > amps
      ? [
          {
            id: id('current'),
            severity: most.value.typ > amps ? ('stops' as const) : ('risks' as const),
            grade: 'outside the sheet' as const,
            ...say`Up to ${flows} flow through ${pass.name} in the latch, which is made for ${formatQuantity(amps, 'A')}.`,
            because: [
              {
                ...say`${pass.sheet}: ${formatQuantity(amps, 'A')}`,
                origin: partOrigin(pass, 'current', pass.current),
              },
            ],
            fixes: otherPasses(latch, library),
          },
        ]
      : []),
    ...(junction && junction.value.max > siliconJunction
      ? [
          {
            id: id('heat'),
            severity: 'risks' as const,
            grade: 'outside the sheet' as const,
            ...say`${pass.name} in the latch reaches ${formatQuantity(junction.value.max, '°C', 3)}; its sheet states no limit, and ${siliconJunction} °C is what silicon is made for.`,
            because: [
              ...(heat
                ? [{ ...say`Up to ${formatQuantity(heat.value.max, 'W', 2)} of heat`, worked: heat }]
                : []),
              {
                ...say`Its junction reaches ${formatQuantity(junction.value.max, '°C', 3)}`,
                worked: junction,
              },
            ],
            fixes: otherPasses(latch, library),
          },
        ]
      : []),
  ]
}

export const latchFits: Check = {
  id: 'power.latch-fits',
  stage: 'power',
  looksFor: 'a latch that can’t be there, or whose transistors don’t stand what is asked of them',
  rule: 'one in the plus of a source; absolute voltages, recommended current, heat in the project’s air',
  run: ({ design, library, chip, power, latch: { latch } }) => {
    const [first, ...more] = latchButtons(design, library)
    if (!first) return []
    const { need, button } = first
    const left = (what: string, says: ReturnType<typeof say>, because: ReturnType<typeof say>): Found => ({
      id: id(what),
      severity: 'stops',
      grade: 'impossible',
      ...says,
      because: [because],
      fixes: [],
      about: { device: need.id },
    })
    const { pass, diode } = { ...button.latch!, ...design.power.latch }
    const transistor = findPart(library, 'transistor', pass)
    return [
      ...[...more, ...(need.count > 1 ? [first] : [])].map(({ need: other }) =>
        left(
          `one:${other.id}`,
          say`${other.name}: a project has one latch, and it has that already; this one is left out of every sum.`,
          say`One transistor lies in the plus, and ${need.name} switches it`,
        ),
      ),
      ...(chip.chip?.board
        ? [
            left(
              'board',
              say`${need.name} can’t switch ${chip.chip.board.name}: the latch is left out of every sum.`,
              say`A board is fed through its own plug, and nothing of ours lies behind that`,
            ),
          ]
        : []),
      ...(transistor?.sort !== 'p-mosfet'
        ? [
            left(
              'pass',
              transistor
                ? say`${transistor.name} can’t lie in the plus of a latch: the latch is left out of every sum.`
                : say`The transistor of the latch is “${pass}”, which is not in the library: the latch is left out of every sum.`,
              say`It takes a p-channel MOSFET: its gate is pulled below the source to switch it on`,
            ),
          ]
        : []),
      ...(transistor?.sort === 'p-mosfet' && !stockOf(library).resistors
        ? [
            left(
              'resistors',
              say`The library has no resistors, and one holds the latch off: the latch is left out of every sum.`,
              say`Without it the gate of ${transistor.name} floats`,
            ),
          ]
        : []),
      ...(latch?.readable && !latch.diode
        ? [
            left(
              'diode',
              say`The diode of the latch is “${diode}”, which is not in the library: nothing joins the button.`,
              say`Gate and leg share the button by two diodes`,
            ),
          ]
        : []),
      ...(latch ? rated(latch, power.through, library) : []),
    ]
  },
}
