// The order of building, with a check after each step and the cautions that belong to it.

import {
  apart,
  type Around,
  type BoardPart,
  bridge,
  type BuildStep,
  type Caution,
  refsOf,
  solderWords,
  sourceCautions,
  type StepCheck,
  type StepContext,
  stepsOf,
  volts,
} from '../blocks'
import { fromRule, fromWorked, type Worked } from '../findings'
import type { NeedsResult } from '../needs'
import { linksToSet } from '../planner'
import type { PowerResult } from '../power'
import { leadNames } from '../design'
import { capital, exactly, formatQuantity } from '../quantity'
import { asVariable, sum } from '../sums'
import { leadResistance, type LeadParts, ledOnly, metalOnly, type OpenSupply, railFor } from '../supply'

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
      cautions: sourceCautions(power.source),
    },
  ]
}

/** Support parts go with the first device on their signal. */
const owner = (needs: NeedsResult, signal: string | undefined) =>
  needs.signals.find((s) => s.id === signal)?.ends[0]?.instance.id

/** A device is wired terminal by terminal; an expansion board is set, plugged on, and fed where its supply is not the header’s. */
const joinWords = (device: BoardPart, supplies: OpenSupply): string[] => {
  const { part, wiring } = device.instance!
  const wires = (legs: BoardPart['legs']) => legs.map((l) => `${l.name} to ${l.net}`).join(', ')
  if (!part.expansion) return [`${device.ref}, ${device.name}: ${wires(device.legs)}`]
  const from = railFor(supplies, device.instance!.need)
  const apart = device.legs.filter((l) => from.id !== supplies.own && l.net === from.net)
  return [
    ...linksToSet(part, wiring).map((l) => `Set ${l.link} of ${device.name}: ${l.to}.`),
    `${device.ref}, ${device.name}, goes onto the ${part.expansion.fits} header: each of its pins in the position of the same place, none beside.`,
    ...(apart.length > 0 ? [`Its own supply terminals: ${wires(apart)}, ground to GND.`] : []),
  ]
}

const deviceSteps = (
  placed: BoardPart[],
  needs: NeedsResult,
  { supplies, deviceLeads }: PowerResult,
): BuildStep[] => {
  const apart = boardOf(placed) ? 'board not joined' : 'chip out'
  return (
    placed
      .filter((p) => p.kind === 'device')
      // What hangs on a bridge comes after that.
      .sort((a, b) => Number(a.instance!.hung !== undefined) - Number(b.instance!.hung !== undefined))
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
        const led = deviceLeads.find((l) => l.need === device.instance!.need.id)
        const lead = led ? [...wireWords(led.parts), ...jointWords(led.parts)] : []
        return {
          title: device.name,
          refs: [...refsOf(own), device.ref],
          does: [
            ...solderWords(own),
            ...(lead.length > 0 ? ['Its lead, between board and device:', ...lead] : []),
            ...joinWords(device, supplies),
          ],
          checks: [
            ...checks,
            ...(led
              ? [
                  throughCheck(
                    `the lead to ${device.name}: plus from end to end, and minus from end to end, nothing plugged in`,
                    leadResistance(led.parts),
                    'a joint that doesn’t hold: find it before the device is joined',
                  ),
                  { ...overCheck, where: `the lead to ${device.name}: ${overCheck.where}` },
                ]
              : []),
          ],
          cautions: ['iron', ...((part.cautions ?? []) as Caution[])],
        }
      })
  )
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
        ...power.supplies.converters.flatMap(({ to }) => {
          const { rail: further, voltage } = power.loads.rails[to]!
          return to === power.supplies.own || !voltage
            ? []
            : [
                volts(
                  `between ${further.net} and GND, plugged in`,
                  voltage,
                  'it sags, or is not there: unplug at once and feel which part is warm',
                ),
              ]
        }),
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

/** Joints and leads of the meter, Ω. */
const meterLeads = 1

const wireWords = ({ wire }: LeadParts): string[] =>
  wire
    ? [
        `Two conductors of ${formatQuantity(wire.length, 'm')}, ${wire.part.name}: plus and minus, told apart by colour or a knot.`,
      ]
    : []
const jointWords = ({ joint }: LeadParts): string[] =>
  joint ? [`${joint.part.name}, ${joint.count} contacts in all: pull at each wire, none may slip.`] : []

const throughCheck = (where: string, resistance: Worked, otherwise: string): StepCheck => ({
  where,
  powered: false,
  expect: { max: meterLeads + resistance.value.max, unit: 'Ω' },
  worked: sum(
    { label: 'A lead from end to end, at most', symbol: 'R', unit: 'Ω' },
    {
      R_lead: asVariable(resistance),
      R_meter: fromRule('R_meter', 'leads and joints of the meter', meterLeads, 'Ω', 'rule of thumb'),
    },
    (i) => i.R_lead.plus(i.R_meter),
  ),
  otherwise,
})
const overCheck: StepCheck = {
  where: 'between plus and minus, nothing joined',
  powered: false,
  ...apart,
  otherwise: 'a short in the lead: a strand that reaches over',
}

/** A lead is made and measured by itself, before anything hangs on it. */
const leadSteps = ({ leads, supplies }: PowerResult): BuildStep[] =>
  leads.flatMap(({ of, source, parts }) => {
    const led = ledOnly(parts)
    if (!led) return []
    const { fuse, protection } = led
    // What guards a cell lets nothing through while no cell is at it.
    const metal = metalOnly(led)
    const resistance = metal && leadResistance(metal)
    const end = supplies.sources.find((s) => s.id === of)?.to
    const voltage = end === undefined ? undefined : supplies.open[end]
    return {
      title: capital(leadNames[of]),
      refs: [],
      does: [
        ...wireWords(led),
        ...(fuse ? [`${fuse.name} goes into the plus, as near to ${source.name} as can be.`] : []),
        ...jointWords(led),
        ...(protection
          ? [
              `${protection.name} between ${source.name} and all else: its cell side to the cell, the other side to the lead, minus before plus. Solder to tabs or leads, never to the cell itself.`,
            ]
          : []),
      ],
      checks: [
        ...(resistance
          ? [
              throughCheck(
                `plus from end to end, and minus from end to end, source unplugged${protection ? ` and ${protection.name} not yet in` : ''}`,
                resistance,
                'a joint that doesn’t hold, or a fuse that is open: do not go on before each is found',
              ),
              overCheck,
            ]
          : []),
        ...(voltage
          ? [
              volts(
                'at the end of the lead, red on plus, source plugged in',
                voltage,
                `negative: plus and minus are exchanged, or the plug has the other polarity; nothing may be joined to it so${protection ? `. Nothing: ${protection.name} may need a moment at a charger before it first lets anything out` : ''}`,
              ),
            ]
          : []),
      ],
      cautions: ['iron', 'eyes', ...sourceCautions(source)],
    }
  })

/** All steps; lowest and earliest parts first, devices after the chip's surroundings, the chip last. A board is tried alone first. */
export const buildSteps = (
  placed: BoardPart[],
  around: readonly Around[],
  needs: NeedsResult,
  power: PowerResult,
  planned: Pick<StepContext, 'latch' | 'charging'> = {},
): BuildStep[] => {
  const { rail } = power
  const blocks = (last: boolean) =>
    rail ? stepsOf(around, placed, { chip: placed[0]!, power, rail, ...planned }, last) : []
  return [
    ...(rail ? leadSteps(power) : []),
    ...(boardOf(placed) ? aloneSteps(placed, power) : []),
    ...blocks(false),
    ...deviceSteps(placed, needs, power),
    ...lastSteps(placed, power),
    ...blocks(true),
  ]
}

/** Beside each step the cautions that are said there: of iron and eyes once, at the first; of what can do lasting harm each time. */
export const cautionsBeside = (steps: readonly BuildStep[]): Caution[][] => {
  const said = new Set<Caution>()
  return steps.map(({ cautions }) => {
    const now = cautions.filter((c) => !((c === 'iron' || c === 'eyes') && said.has(c)))
    now.forEach((c) => said.add(c))
    return now
  })
}
