import type { SupportPart } from '../../circuit'
import {
  type Check,
  type Fact,
  type Fix,
  fromPart,
  fromWorked,
  type Stages,
  type Worked,
} from '../../findings'
import type { PinAttribute, Rated } from '../../parts'
import { exactly, formatQuantity, fullRange, type Range } from '../../quantity'
import { legName } from '../passport'
import type { Wire } from '../plan'
import { attributeOf } from '../ways'
import { moveToBest } from './cannot-serve'

type Strap = PinAttribute & { kind: 'strap' }
type End = Wire['signal']['ends'][number]

/** What holds a line before the program runs: to which side, how strongly, and in whose words. */
interface Hold {
  to: 'low' | 'high'
  resistance: Range
  text: string
  end: End
  from?: { rated: Rated; field: string }
}

const holdOf = (end: End, support: SupportPart[]): Hold | undefined => {
  const { electrical } = end.signal
  const { name, part } = end.instance
  if (electrical.kind === 'tied')
    return {
      to: electrical.to === 'ground' ? 'low' : 'high',
      resistance: exactly(0),
      text: `${name} has no ${end.signal.terminal} here: its place is tied to ${electrical.to} (${part.sheet})`,
      end,
    }
  if (electrical.kind === 'logic-input' && electrical.pull && electrical.pullResistance)
    return {
      to: electrical.pull === 'down' ? 'low' : 'high',
      resistance: fullRange(electrical.pullResistance),
      text: `${name} pulls ${end.signal.terminal} ${electrical.pull} (${part.sheet}, ${end.signal.source ?? 'inputs'})`,
      end,
      from: { rated: electrical.pullResistance, field: `${end.signal.id}.pullResistance` },
    }
  const gate = support.find((s) => s.present && s.key.startsWith('gate-pull-down:') && s.value)
  if (electrical.kind === 'switched' && gate)
    return {
      to: 'low',
      resistance: exactly(gate.value!.value),
      text: `The ${gate.name} holds it low until the program runs`,
      end,
    }
  return undefined
}

/** The voltage that the chip samples: its own pull against what holds the line. */
const sampled = (hold: Hold, { chip, power }: Stages, strap: Strap): Worked | undefined => {
  const rail = power.rail
  const own = strap.pull === 'up' ? chip.chip?.io.pullUp : chip.chip?.io.pullDown
  if (!rail || !chip.chip) return undefined
  const inside = own && strap.pull !== 'none' ? fullRange(own) : undefined
  const { min, typ, max } = rail.value
  const r = hold.resistance
  // The share of the supply at the leg, between what pulls it up and what pulls it down.
  const value: Range = !inside
    ? hold.to === 'low'
      ? exactly(0)
      : rail.value
    : hold.to === 'low'
      ? {
          min: (min * r.min) / (r.min + inside.max),
          typ: (typ * r.typ) / (r.typ + inside.typ),
          max: (max * r.max) / (r.max + inside.min),
        }
      : {
          min: (min * inside.min) / (r.max + inside.min),
          typ: (typ * inside.typ) / (r.typ + inside.typ),
          max: (max * inside.max) / (r.min + inside.max),
        }
  return {
    label: 'Level sampled at reset',
    symbol: 'V_strap',
    value,
    unit: 'V',
    formula: hold.to === 'low' ? 'V_DD · R / (R + R_own)' : 'V_DD · R_own / (R + R_own)',
    inputs: [
      fromWorked(rail),
      ...(hold.from
        ? [fromPart('R', 'what holds it', hold.end.instance.part, hold.from.field, hold.from.rated, 'Ω')]
        : []),
      ...(own ? [fromPart('R_own', `the leg’s own pull-${strap.pull}`, chip.chip, 'io', own, 'Ω')] : []),
    ],
  }
}

/** “main.3 of the display deck is its Q2, the board’s D02, the chip’s P03”. */
const nameChain = (wire: Wire, end: End): Fact[] => {
  const seat = wire.signal.at?.find((s) => s.instance.id === end.instance.id)
  const place = seat && wire.pin.places!.indexOf(seat.place)
  return seat
    ? [
        { text: `On ${seat.instance.name} that line is ${seat.label}` },
        { text: `${seat.label} sits on the header’s ${wire.pin.labels![place!]}` },
        { text: `${wire.pin.labels![place!]} is ${wire.pin.id} of the chip` },
      ]
    : [{ text: `It is wired to ${legName(wire.pin)}` }]
}

const waysOut = (stages: Stages, wire: Wire, { end }: Hold): Fix[] => {
  const { need, part } = end.instance
  const other = stages.fitting()
  return [
    ...(need.variant !== undefined
      ? [
          {
            label: `Use ${need.name} as in the sheet`,
            edits: [{ kind: 'setVariant' as const, id: need.id, variant: null }],
          },
        ]
      : []),
    ...(wire.signal.at ? [] : moveToBest(stages, wire)),
    ...(part.wirings.length > 1
      ? part.wirings
          .filter((w) => w.id !== end.instance.wiring.id)
          .map((w) => ({
            label: `Wire ${need.name} by ${w.name}`,
            edits: [{ kind: 'setWiring' as const, id: need.id, wiring: w.id }],
          }))
      : []),
    ...(other
      ? [
          {
            label: `Choose ${other.name}`,
            edits: [{ kind: 'chooseChip' as const, part: other.id, name: other.name }],
          },
        ]
      : []),
    { label: `Do without ${need.name}`, edits: [{ kind: 'removeDevice' as const, id: need.id }] },
  ]
}

export const strapHeld: Check = {
  id: 'pins.strap-held',
  stage: 'pins',
  looksFor: 'a line that a device holds at the wrong level while the chip samples it at reset',
  rule: 'the chip’s straps, its own pull against what the device holds, input thresholds',
  run: (stages) =>
    (stages.pins.plan?.wires ?? []).flatMap((wire) => {
      const strap = attributeOf(wire.pin, 'strap')
      const { chip } = stages.chip
      if (!strap || !chip) return []
      const support = stages.pins.support.filter((s) => s.signal === wire.signal.id)
      const hold = wire.signal.ends.flatMap((e) => holdOf(e, support) ?? []).find((h) => h.to !== strap.needs)
      if (!hold) return []
      const level = sampled(hold, stages, strap)
      const supply = stages.power.rail?.value
      if (!level || !supply) return []
      const high = chip.io.inputHigh.factor * supply.max + (chip.io.inputHigh.offset ?? 0)
      const low = chip.io.inputLow.factor * supply.min + (chip.io.inputLow.offset ?? 0)
      const right = strap.needs === 'high' ? level.value.min >= high : level.value.max <= low
      if (right) return []
      const wrong = strap.needs === 'high' ? level.value.max <= low : level.value.min >= high
      const leads = hold.to === 'low' ? strap.low : strap.high
      return [
        {
          id: `pins.strap-held:${wire.signal.id}`,
          severity: wrong ? ('stops' as const) : ('risks' as const),
          grade: wrong ? ('impossible' as const) : ('outside the sheet' as const),
          text: wrong
            ? `${hold.end.instance.name} holds ${legName(wire.pin)} ${hold.to} at reset: the chip then ${asVerb(leads)}.`
            : `${hold.end.instance.name} pulls ${legName(wire.pin)} to ${formatQuantity(level.value.typ, 'V', 2)} at reset, neither high nor low: what the chip starts with is left to chance.`,
          because: [
            { text: hold.text },
            ...nameChain(wire, hold.end),
            {
              text: `${wire.pin.id} is sampled at reset and must be ${strap.needs}; ${hold.to} means: ${leads} (${chip.sheet}, ${strap.source ?? 'straps'})`,
            },
            {
              text: `It is ${formatQuantity(level.value.min, 'V', 2)} to ${formatQuantity(level.value.max, 'V', 2)} then; low is up to ${formatQuantity(low, 'V', 3)}, high from ${formatQuantity(high, 'V', 3)}`,
              worked: level,
            },
          ],
          fixes: waysOut(stages, wire, hold),
          about: { signal: wire.signal.id, pin: wire.pin.id },
        },
      ]
    }),
}

/** Strap outcomes are written as verbs or as states; both read well after “the chip then”. */
const asVerb = (outcome: string): string => (/^[a-z]+s\b/.test(outcome) ? outcome : `has ${outcome}`)
