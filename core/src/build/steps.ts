// The order of building, with a check after each step and the cautions that belong to it.

import { fittedResistor, type SupportPart, type SupportRole } from '../circuit'
import { fromRule, fromWorked, type Worked } from '../findings'
import type { Resistors } from '../parts'
import { voltageFor } from '../supply'
import { exactly, formatQuantity, type Unit } from '../quantity'
import { asStated, sum } from '../sums'
import type { NeedsResult } from '../needs'
import type { PowerResult } from '../power'
import { linksToSet } from '../planner'
import type { Caution } from './cautions'
import type { BoardPart } from './placed'

export interface StepCheck {
  /** “between VCC and GND” */
  where: string
  powered: boolean
  expect: { min?: number; max?: number; unit: Unit }
  worked?: Worked
  /** What another reading means. */
  otherwise: string
}

export interface BuildStep {
  title: string
  refs: string[]
  does: string[]
  checks: StepCheck[]
  cautions: Caution[]
}

/** A limit that no sheet gives: what a meter shows on a good joint, an open gap, a rail without a short. */
const byRule = (label: string, ohms: number, why: string): Worked =>
  asStated(label, 'R', 'Ω', fromRule('R_rule', 'rule of thumb', ohms, 'Ω', why))
const joined: Pick<StepCheck, 'expect' | 'worked'> = {
  expect: { max: 1, unit: 'Ω' },
  worked: byRule('A good joint', 1, 'wire, solder and the meter’s leads together stay below an ohm'),
}
const apart: Pick<StepCheck, 'expect' | 'worked'> = {
  expect: { min: 1e6, unit: 'Ω' },
  worked: byRule(
    'Nothing between',
    1e6,
    'clean board and a crystal conduct no direct current; flux residue may be some megohms',
  ),
}
const notShorted: Pick<StepCheck, 'expect' | 'worked'> = {
  expect: { min: 100, unit: 'Ω' },
  worked: byRule(
    'A rail without a short',
    100,
    'a regulator and capacitors alone, once these are charged by the meter, are hundreds of ohms and more',
  ),
}

/** A resistor that lies between two nets by itself, with the tolerance of its drawer. */
const bridge = (between: string, { key, name, part, value }: SupportPart, otherwise: string): StepCheck => {
  const worked = asStated(
    name,
    'R',
    'Ω',
    fittedResistor('R_fitted', 'fitted value', part as Resistors, value!, key),
  )
  return {
    where: between,
    powered: false,
    expect: { min: worked.value.min, max: worked.value.max, unit: 'Ω' },
    worked,
    otherwise,
  }
}

const volts = (where: string, worked: Worked, otherwise: string): StepCheck => ({
  where,
  powered: true,
  expect: { min: worked.value.min, max: worked.value.max, unit: 'V' },
  worked,
  otherwise,
})

const ofRoles = (placed: BoardPart[], ...roles: SupportRole[]) =>
  placed.filter((p) => p.support?.present && roles.includes(p.support.role))
const refsOf = (parts: BoardPart[]) => parts.map((p) => p.ref)
const solderWords = (parts: BoardPart[]) =>
  parts.map((p) => {
    const what = `${p.ref}, ${p.name}${p.support?.value ? ` ${p.support.value.marking}` : ''}`
    return p.legs.length > 0 ? `${what}: ${p.legs.map((l) => `${l.name} to ${l.net}`).join(', ')}` : what
  })

/** Undefined where nothing draws anything: then there is nothing to expect. */
const least = (rail: Worked, current: Worked): Worked | undefined =>
  current.value.max > 0
    ? sum(
        {
          label: 'Least resistance of the finished rail',
          symbol: 'R',
          unit: 'Ω',
          note: 'Nothing on the rail draws more than I_max when it works, so unpowered it can’t be below this; a short reads near 0 Ω.',
        },
        {
          V_DD: rail,
          I_max: {
            ...fromWorked(current),
            symbol: 'I_max',
            value: exactly(current.value.max),
            variable: 'greatest current',
          },
        },
        (i) => i.V_DD.over(i.I_max),
      )
    : undefined

/** What goes with the source, wherever the power comes in. */
const sourceCautions = ({ source }: Pick<PowerResult, 'source'>): Caution[] => [
  ...(source?.sort === 'adapter' ? (['reversed'] as const) : []),
  ...(source?.cautions?.includes('mains') ? (['mains'] as const) : []),
  ...(source?.cautions?.includes('lithium') ? (['lithium'] as const) : []),
  ...(source?.cautions?.includes('children') ? (['children'] as const) : []),
]

const entrySteps = (placed: BoardPart[], power: PowerResult): BuildStep[] => {
  const parts = ofRoles(
    placed,
    'entry',
    'polarity diode',
    'regulator',
    'regulator input capacitor',
    'regulator output capacitor',
  )
  const rail = power.rail
  if (parts.length === 0 || !rail) return []
  const before = voltageFor(power.supplies, { fedBy: 'source' })
  const hot = (power.regulation?.junction.value.max ?? 0) > 60
  return [
    {
      title: power.regulator ? 'Supply and regulator' : 'Supply',
      refs: refsOf(parts),
      does: solderWords(parts),
      checks: [
        ...(power.regulation
          ? [
              {
                where: 'between VCC and GND, red lead on VCC',
                powered: false,
                ...notShorted,
                otherwise:
                  'a reading near 0 Ω is a short: look for a bridge of solder at the regulator; do not plug in',
              },
            ]
          : []),
        // Nothing hangs on it yet: what falls in the diode is what falls at next to no current.
        ...(before && power.regulator
          ? [
              volts(
                'between VIN and GND',
                before,
                'nothing: the polarity diode is the wrong way round, or the plug has the other polarity',
              ),
            ]
          : []),
        volts(
          'between VCC and GND',
          rail,
          power.regulator
            ? 'too low: regulator turned round or its input sags; too high: ground leg of the regulator is open'
            : 'nothing, or negative: the source is the other way round; too high: it is another source than planned. The chip stays out',
        ),
      ],
      cautions: ['iron', 'eyes', ...sourceCautions(power), ...(hot ? (['heat'] as const) : [])],
    },
  ]
}

/** The second feed is tried before anything hangs on it. */
const feedSteps = (placed: BoardPart[], power: PowerResult): BuildStep[] => {
  const parts = ofRoles(placed, 'feed entry')
  const voltage = voltageFor(power.supplies, { fedBy: 'feed' })
  if (parts.length === 0 || !voltage) return []
  return [
    {
      title: 'Second feed',
      refs: refsOf(parts),
      does: [
        ...solderWords(parts),
        'Join its ground to the board’s ground; its plus goes to its loads alone.',
      ],
      checks: [
        {
          where: 'between VFEED and VCC, unplugged',
          powered: false,
          ...apart,
          otherwise: 'the two supplies are joined: find the bridge before anything is plugged in',
        },
        volts('between VFEED and GND', voltage, 'nothing, or negative: the plug is the other way round'),
      ],
      cautions: ['iron', 'eyes', 'joined-grounds', ...sourceCautions({ source: power.feed?.source })],
    },
  ]
}

/** The board that carries the chip, where the project is not built around a bare one. */
const boardOf = (placed: BoardPart[]) => {
  const { part } = placed[0]!
  return part.kind === 'chip' ? part.board : undefined
}

/** A board makes its own rail: it is fed and measured before anything is joined to it. */
const aloneSteps = (placed: BoardPart[], power: PowerResult): BuildStep[] => {
  const board = placed[0]!
  const rail = power.rail
  if (!rail || !power.source) return []
  const at = (net: string) => board.legs.find((l) => l.net === net)?.name.split(' ')[0]
  return [
    {
      title: `${board.name} alone`,
      refs: [board.ref],
      does: [
        `Feed ${board.name} from ${power.source.name} at its own input, with nothing else joined to it.`,
      ],
      checks: [
        volts(
          `on the board, ${at('VCC') ?? 'the logic rail'} against ${at('GND') ?? 'ground'}`,
          rail,
          'unplug: the board is fed at the wrong place, or it is not well; nothing else is joined yet',
        ),
      ],
      cautions: sourceCautions(power),
    },
  ]
}

const chipSteps = (placed: BoardPart[], power: PowerResult): BuildStep[] => {
  const chip = placed[0]!
  const rail = power.rail
  if (!rail) return []
  const supply = chip.legs.filter((l) => l.net === 'VCC')
  const ground = chip.legs.filter((l) => l.net === 'GND')
  const around = ofRoles(placed, 'socket', 'decoupling capacitor', 'bulk capacitor')
  const reset = ofRoles(placed, 'reset pull-up', 'reset button')
  const clock = ofRoles(placed, 'resonating part', 'load capacitor')
  const header = ofRoles(placed, 'programming header')
  const lamp = ofRoles(placed, 'power lamp', 'power lamp resistor')
  const pull = reset.find((p) => p.support!.role === 'reset pull-up')
  const steps: BuildStep[] = [
    {
      title: 'Chip’s place, decoupling and rails',
      refs: refsOf(around),
      does: [
        ...solderWords(around),
        `Wire ${supply.map((l) => `leg ${l.name.split(' ')[0]}`).join(', ')} to VCC and ${ground.map((l) => `leg ${l.name.split(' ')[0]}`).join(', ')} to GND. The chip stays out.`,
      ],
      checks: [
        ...supply.map((l) =>
          volts(
            `leg ${l.name.replace(' ', ' (')}) against GND, before the chip goes in`,
            rail,
            'nothing: this leg is not joined to the rail; count the legs again from the notch',
          ),
        ),
        ...ground.map((l) => ({
          where: `leg ${l.name.replace(' ', ' (')}) to the plug’s negative`,
          powered: false,
          ...joined,
          otherwise: 'ground is on the leg beside it: count again from the notch',
        })),
      ],
      cautions: ['iron', 'eyes'],
    },
  ]
  if (lamp.length > 0)
    steps.push({
      title: 'Power lamp',
      refs: refsOf(lamp),
      does: solderWords(lamp),
      checks: power.lamp
        ? [
            {
              where: 'lamp, powered',
              powered: true,
              expect: { min: power.lamp.current.value.min, max: power.lamp.current.value.max, unit: 'A' },
              worked: power.lamp.current,
              otherwise: 'dark: the LED is the wrong way round',
            },
          ]
        : [],
      cautions: ['iron'],
    })
  if (reset.length > 0)
    steps.push({
      title: 'Reset',
      refs: refsOf(reset),
      does: solderWords(reset),
      checks: [
        ...(pull?.support?.value
          ? [
              bridge(
                'between RESET and VCC, chip out',
                pull.support,
                'near 0 Ω: the button’s legs are turned, and it is always pressed',
              ),
            ]
          : []),
        ...(reset.some((p) => p.support!.role === 'reset button')
          ? [
              {
                where: 'between RESET and GND, button pressed',
                powered: false,
                ...joined,
                otherwise: 'open: the button is turned by a quarter',
              },
            ]
          : []),
      ],
      cautions: ['iron'],
    })
  if (clock.length > 0)
    steps.push({
      title: 'Clock',
      refs: refsOf(clock),
      does: [
        ...solderWords(clock),
        'Keep the leads as short as they can be, with nothing crossing under them.',
      ],
      checks: clock
        .filter((p) => p.support!.role === 'resonating part')
        .flatMap((p) => [
          {
            where: `between ${p.legs[0]!.net} and ${p.legs[1]!.net}, chip out`,
            powered: false,
            ...apart,
            otherwise: 'a bridge of solder under the crystal',
          },
        ]),
      cautions: ['iron'],
    })
  if (header.length > 0)
    steps.push({
      title: 'Programming header',
      refs: refsOf(header),
      does: solderWords(header),
      checks: header[0]!.legs
        .filter((l) => l.net !== 'VCC' && l.net !== 'GND')
        .map((l) => {
          const leg = chip.legs.find((c) => c.net === l.net)
          return {
            where: `contact ${l.name} to ${leg ? `leg ${leg.name.replace(' ', ' (')})` : l.net}`,
            powered: false,
            ...joined,
            otherwise: 'open, or on the leg beside it',
          }
        }),
      cautions: ['iron', 'two-supplies'],
    })
  return steps
}

/** Support parts go with the first device on their signal. */
const owner = (needs: NeedsResult, signal: string | undefined) =>
  needs.signals.find((s) => s.id === signal)?.ends[0]?.instance.id

/** A device is wired terminal by terminal; an expansion board is set, plugged on, and fed where its supply is not the header’s. */
const joinWords = (device: BoardPart): string[] => {
  const { part, wiring } = device.instance!
  const wires = (legs: BoardPart['legs']) => legs.map((l) => `${l.name} to ${l.net}`).join(', ')
  if (!part.expansion) return [`${device.ref}, ${device.name}: ${wires(device.legs)}`]
  const apart = device.legs.filter((l) => l.net === 'VFEED' || l.net === 'VIN')
  return [
    ...linksToSet(part, wiring).map((l) => `Set ${l.link} of ${device.name}: ${l.to}.`),
    `${device.ref}, ${device.name}, goes onto the ${part.expansion.fits} header: each of its pins in the position of the same place, none beside.`,
    ...(apart.length > 0 ? [`Its own supply terminals: ${wires(apart)}, ground to GND.`] : []),
  ]
}

const deviceSteps = (placed: BoardPart[], needs: NeedsResult): BuildStep[] => {
  const apart = boardOf(placed) ? 'board not joined' : 'chip out'
  return placed
    .filter((p) => p.kind === 'device')
    .map((device) => {
      const { id, part } = device.instance!
      const own = placed.filter((p) => p.support?.present && owner(needs, p.support.signal) === id)
      const checks = own.flatMap((p): StepCheck[] => {
        const value = p.support!.value
        const [a, b] = p.legs
        if (value?.unit !== 'Ω' || !a || !b) return []
        const where = `${p.ref}: between ${a.net} and ${b.net}, ${apart}, ${device.name} not yet joined`
        return [bridge(where, p.support!, 'another value: read the rings again; near 0 Ω: bridged')]
      })
      return {
        title: device.name,
        refs: [...refsOf(own), device.ref],
        does: [...solderWords(own), ...joinWords(device)],
        checks,
        cautions: ['iron', ...((part.cautions ?? []) as Caution[])],
      }
    })
}

const lastSteps = (placed: BoardPart[], power: PowerResult): BuildStep[] => {
  const chip = placed[0]!
  const board = boardOf(placed)
  const rail = power.rail
  if (!rail) return []
  const most = power.fromSource.value.max
  const devices = placed.some((p) => p.kind === 'device')
  const lowest = least(rail, power.work)
  return [
    {
      title: board ? `${chip.name} is joined` : `${chip.name} goes in`,
      refs: [chip.ref],
      does: [
        board
          ? 'Unplug. Touch ground, then join the board: each of its positions to the net that the wiring table names, ground first.'
          : 'Unplug. Touch ground, then put the chip in: notch as drawn, leg 1 at its mark, no leg bent under.',
      ],
      checks: [
        ...(lowest
          ? [
              {
                where: 'between VCC and GND, unplugged',
                powered: false,
                expect: { min: Math.floor(lowest.value.min), unit: 'Ω' as const },
                worked: lowest,
                otherwise: `a short came in with the last step: take the ${board ? 'board off' : 'chip out'} and measure again`,
              },
            ]
          : []),
        volts('between VCC and GND, plugged in', rail, 'it sags: unplug at once and feel which part is warm'),
        {
          where: `in the supply lead${devices ? ', no program yet' : ''}`,
          powered: true,
          expect: { max: most, unit: 'A' },
          worked: power.fromSource,
          otherwise: `more than ${formatQuantity(most, 'A', 3)}: unplug at once; something is reversed or shorted`,
        },
      ],
      cautions: ['reversed'],
    },
  ]
}

/** All steps; lowest and earliest parts first, devices after the chip's surroundings, the chip last. A board is tried alone first. */
export const buildSteps = (placed: BoardPart[], needs: NeedsResult, power: PowerResult): BuildStep[] => [
  ...entrySteps(placed, power),
  ...(boardOf(placed) ? aloneSteps(placed, power) : chipSteps(placed, power)),
  ...feedSteps(placed, power),
  ...deviceSteps(placed, needs),
  ...lastSteps(placed, power),
]
