// What lies between a source and what it feeds: wires there and back, joints, a fuse, what guards a cell, the transistor of a latch.

import {
  type Design,
  type DeviceLead,
  leadField,
  type LeadOwner,
  type Limits,
  type NeedDevice,
  sourceOf,
} from '../design'
import { fromDecision, fromPart, fromRule, type Worked, type WorkedInput } from '../findings'
import {
  type Connector,
  findPart,
  type Fuse,
  type Library,
  type Protection,
  type Source,
  type Transistor,
  type Wire,
} from '../parts'
import { fullRange } from '../quantity'
import { insideOf, type Wear } from './cells'
import { guardOf } from './guard'
import { latchParts, passResistance } from './latch'
import {
  asVariable,
  dimensionOf,
  greatest,
  least,
  number,
  readCurve,
  squareRoot,
  sum,
  type SumInput,
  type Term,
  total,
} from '../sums'

export interface LeadParts {
  wire?: { part: Wire; /** One way, m. */ length: number }
  joint?: { part: Connector; /** In plus and minus together. */ count: number }
  fuse?: Fuse
  /** In the minus, at the cell. */
  protection?: Protection
  /** In the plus, on the board: what a latch switches by. */
  pass?: Transistor
  /** In the plus, on the board: what stops a source the wrong way round. */
  guard?: Transistor
  /** Their source, on which a transistor’s channel depends. */
  source?: Source
  /** Air around it at its warmest, °C. */
  ambient: number
  /** At its coldest, °C; absent: nobody has said. */
  coldest?: number
  /** The most that it carries, where that is known before its resistance is, A: its copper gets no warmer than by that. */
  flowing?: Worked
}

/** The air around a lead, °C. */
export const airIn = ({ ambient, coldest }: Limits): Pick<LeadParts, 'ambient' | 'coldest'> => ({
  ambient,
  ...(coldest !== undefined && { coldest: Math.min(coldest, ambient) }),
})

/** Undefined where nothing is said of it. A length without a wire, or a wire without one, is no lead yet. */
export const leadOf = (
  design: Pick<Design, 'chip' | 'power'> & { needs: Pick<Design['needs'], 'limits' | 'devices'> },
  library: Library,
  of: LeadOwner,
): LeadParts | undefined => {
  const choice = design.power[leadField[of]] ?? {}
  const fuse = findPart(library, 'fuse', choice.fuse)
  const protection = findPart(library, 'protection', choice.protection)
  const parts = {
    ...metalOf(choice, library),
    ...(fuse ? { fuse } : {}),
    ...(protection ? { protection } : {}),
    ...(of === 'source' ? { ...passing(design, library), ...guarding(design, library) } : {}),
  }
  return Object.keys(parts).length > 0 ? { ...parts, ...airIn(design.needs.limits) } : undefined
}

/** From the board to one device and back; undefined where nothing is said of it that could be reckoned with. */
export const deviceLead = (
  { lead = {} }: Pick<NeedDevice, 'lead'>,
  limits: Limits,
  library: Library,
): LeadParts | undefined => {
  const parts = metalOf(lead, library)
  return Object.keys(parts).length > 0 ? { ...parts, ...airIn(limits) } : undefined
}

/** Its wire and its joints, where all is said of them. */
const metalOf = (choice: DeviceLead, library: Library): Pick<LeadParts, 'wire' | 'joint'> => {
  const wire = findPart(library, 'wire', choice.wire)
  const joint = findPart(library, 'connector', choice.joint)
  return {
    ...(wire && choice.length ? { wire: { part: wire, length: choice.length } } : {}),
    ...(joint && choice.joints ? { joint: { part: joint, count: choice.joints } } : {}),
  }
}

const passing = (...of: Parameters<typeof latchParts>): Pick<LeadParts, 'pass' | 'source'> => {
  const pass = latchParts(...of)?.pass
  return pass ? { pass, source: sourceOf(of[0], of[1]) } : {}
}

const guarding = (...of: Parameters<typeof guardOf>): Pick<LeadParts, 'guard' | 'source'> => {
  const guard = guardOf(...of)
  return guard ? { guard, source: sourceOf(of[0], of[1]) } : {}
}

/** What leads to the board, without what is on it; undefined where there is no more. */
export const ledOnly = (lead: LeadParts): LeadParts | undefined => {
  const { protection } = lead
  const metal = metalOnly(lead)
  return protection ? { ...metal, protection, ...airAt(lead) } : metal
}

/** Wires, joints and fuse alone: what a meter finds joined, whatever is at its ends. */
export const metalOnly = ({ wire, joint, fuse, ...lead }: LeadParts): LeadParts | undefined =>
  wire || joint || fuse
    ? { ...(wire && { wire }), ...(joint && { joint }), ...(fuse && { fuse }), ...airAt(lead) }
    : undefined

const airAt = ({ ambient, coldest }: Pick<LeadParts, 'ambient' | 'coldest'>) => ({
  ambient,
  ...(coldest !== undefined && { coldest }),
})

const airOf = (ambient: number): WorkedInput =>
  fromDecision('T_A', 'ambient', ambient, '°C', 'set on the Needs page')

/** Copper’s resistance grows as if it were none at −234.5 °C (IEC 60028). */
const copperZero = 234.5

/** How warm its copper gets: as its insulation stands, or less where what flows is known. */
const copperWarmth = (
  part: Wire,
  { ambient, coldest = 20, flowing }: Pick<LeadParts, 'ambient' | 'coldest' | 'flowing'>,
): SumInput => {
  const air = { min: Math.min(20, ambient, coldest), typ: ambient }
  if (!flowing)
    return {
      symbol: 'T',
      label: 'of the copper: the air around, up to what its insulation stands',
      value: { ...air, max: Math.max(ambient, fullRange(part.insulation).max) },
      unit: '°C',
      origin: {
        kind: 'rule',
        source: 'a wire that isn’t overloaded gets no warmer than its insulation stands',
      },
      variable: `copper of ${part.id}`,
    }
  return sum(
    {
      label: `Copper of ${part.name} gets as warm as`,
      symbol: 'T',
      unit: '°C',
      counts: 'max',
      note: 'Heat leaves with the difference to the air, and grows with the square of the current (IEC 60364-5-52).',
    },
    {
      T_air: {
        symbol: 'T_air',
        label: 'air around it, from its coldest to its warmest',
        value: { ...air, max: ambient },
        unit: '°C',
        origin: { kind: 'decision', what: 'set on the Needs page' },
        variable: `air around ${part.id}`,
      },
      I: asVariable(flowing),
      I_r: fromPart('I_r', 'rated current', part, 'current', part.current, 'A'),
      T_max: fromPart('T_max', 'what its insulation stands', part, 'insulation', part.insulation, '°C'),
      T_r: fromRule('T_r', 'air in which it is rated', part.ratedAt, '°C', part.sheet),
    },
    (i) => {
      const share = i.I.over(i.I_r)
      const rise = i.T_max.minus(i.T_r).times(share).times(share)
      return greatest(i.T_air, least(i.T_max, i.T_air.plus(rise)))
    },
  )
}

/** There and back, from cold copper to as warm as it gets. */
const wireResistance = (
  { part, length }: NonNullable<LeadParts['wire']>,
  air: Pick<LeadParts, 'ambient' | 'coldest' | 'flowing'>,
): Worked =>
  sum(
    {
      label: `Resistance of ${part.name}, there and back`,
      symbol: 'R_wire',
      unit: 'Ω',
      note: 'Copper’s resistance grows with its warmth as if it were none at −234.5 °C (IEC 60028).',
    },
    {
      r_20: fromPart('r_20', 'one metre at 20 °C', part, 'resistance', part.resistance, 'Ω/m'),
      ℓ: fromDecision('ℓ', 'length, one way', length, 'm', 'set on the Power page'),
      T: copperWarmth(part, air),
    },
    (i) =>
      number(2)
        .times(i.ℓ)
        .times(i.r_20)
        .times(i.T.plus(number(copperZero, dimensionOf('°C'))))
        .over(number(copperZero + 20, dimensionOf('°C'))),
  )

/** A contact of which no sheet says what it has: this is what a clean one of any sort stays below, Ω. */
const usualContact = 0.02

const jointResistance = ({ part, count }: NonNullable<LeadParts['joint']>): Worked =>
  sum(
    { label: `Resistance of ${count} joints`, symbol: 'R_joints', unit: 'Ω' },
    {
      n: fromDecision('n', 'joints, plus and minus together', count, '', 'set on the Power page'),
      R_joint: part.resistance
        ? fromPart('R_joint', part.name, part, 'resistance', part.resistance, 'Ω')
        : {
            symbol: 'R_joint',
            label: part.name,
            value: { min: 0, typ: usualContact / 2, max: usualContact },
            unit: 'Ω',
            origin: { kind: 'rule', source: 'assumed: its sheet says nothing of it' },
            variable: `${part.id}.resistance`,
          },
    },
    (i) => i.n.times(i.R_joint),
  )

/** Of each of its parts that is there, Ω. */
export const leadResistances = ({
  wire,
  joint,
  fuse,
  protection,
  pass,
  guard,
  source,
  ...air
}: LeadParts): {
  wire?: Worked
  joint?: Worked
  fuse?: WorkedInput
  protection?: WorkedInput
  pass?: Worked
  guard?: Worked
} => ({
  ...(wire && { wire: wireResistance(wire, air) }),
  ...(joint && { joint: jointResistance(joint) }),
  ...(fuse && { fuse: fromPart('R_fuse', fuse.name, fuse, 'resistance', fuse.resistance, 'Ω') }),
  ...(protection && {
    protection: fromPart('R_guard', protection.name, protection, 'resistance', protection.resistance, 'Ω'),
  }),
  ...(pass && source && { pass: passResistance(pass, source) }),
  ...(guard && source && { guard: passResistance(guard, source) }),
})

/** What lies there, in a word or three. */
export const leadWords = (lead: LeadParts): string =>
  [
    ...(metalOnly(lead) ? ['lead'] : []),
    ...(lead.protection ? ['cell protection'] : []),
    ...(lead.guard ? ['guarding transistor'] : []),
    ...(lead.pass ? ['latch'] : []),
  ].join(' and ')

/** All of it in a row, Ω. */
export const leadResistance = (lead: LeadParts): Worked => {
  const { wire, joint, fuse, protection, pass, guard } = leadResistances(lead)
  const all: Record<string, SumInput> = {
    ...(wire && { R_wire: wire }),
    ...(joint && { R_joints: joint }),
    ...(fuse && { R_fuse: fuse }),
    ...(protection && { R_guard: protection }),
    ...(pass && { R_DS: pass }),
    ...(guard && { R_turn: guard }),
  }
  return sum(
    { label: `Resistance of the ${leadWords(lead)}`, symbol: 'R_lead', unit: 'Ω' },
    all,
    (i: Record<string, Term>) => total(Object.values(i), dimensionOf('Ω')),
  )
}

/**
 * What its wire may carry in this air, A: the heat that it can give away falls with what is left to its insulation’s limit, and heat
 * grows with the square of the current (IEC 60364-5-52, correction for ambient temperature).
 */
export const wireCarries = (
  { part }: Pick<NonNullable<LeadParts['wire']>, 'part'>,
  ambient: number,
): Worked =>
  sum(
    {
      label: `${part.name} may carry, in this air`,
      symbol: 'I_z',
      unit: 'A',
      counts: 'max',
      note: 'Heat leaves with the difference to the air, and grows with the square of the current (IEC 60364-5-52).',
    },
    {
      I_r: fromPart('I_r', 'rated current', part, 'current', part.current, 'A'),
      T_max: fromPart('T_max', 'what its insulation stands', part, 'insulation', part.insulation, '°C'),
      T_r: fromRule('T_r', 'air in which it is rated', part.ratedAt, '°C', part.sheet),
      T_A: airOf(Math.min(ambient, fullRange(part.insulation).max)),
    },
    (i) => i.I_r.times(squareRoot(i.T_max.minus(i.T_A).over(i.T_max.minus(i.T_r)))),
  )

/** The share of its ratings that a fuse has left in this air. */
export const fuseShare = (fuse: Fuse, ambient: number): Worked =>
  readCurve(
    { label: `Share of the ratings of ${fuse.name} in this air`, symbol: 'k', unit: '' },
    {
      part: fuse,
      field: 'derating',
      points: fuse.derating.map((p) => ({ x: p.air, y: { typ: p.share, kind: 'typical' as const } })),
      held: true,
    },
    ['T_A', airOf(ambient)],
  )

/** What it carries for ever in this air, A. */
export const fuseHolds = (fuse: Fuse, ambient: number): Worked =>
  sum(
    { label: `${fuse.name} holds, in this air`, symbol: 'I_hold', unit: 'A', counts: 'min' },
    {
      I_n: fromPart('I_n', 'what it carries for ever at 23 °C', fuse, 'current', fuse.current, 'A'),
      k: fuseShare(fuse, ambient),
    },
    (i) => i.I_n.times(i.k),
  )

/** °C at which fuses are rated. */
const ratedAir = 23

/** The airs between which a fuse lies: where nobody has said how cold it gets, from the one in which it is rated. */
export const airsOf = ({ coldest, ambient }: Pick<LeadParts, 'ambient' | 'coldest'>): number[] => [
  ...new Set([coldest ?? Math.min(ratedAir, ambient), ambient]),
]

/** What surely opens it in this air, A: in colder air more is needed. */
export const fuseOpens = (fuse: Fuse, ambient: number): Worked =>
  sum(
    { label: `${fuse.name} surely opens, in this air`, symbol: 'I_open', unit: 'A', counts: 'max' },
    {
      I_trip: fromPart('I_trip', 'what surely opens it at 23 °C', fuse, 'trips', fuse.trips, 'A'),
      k: fuseShare(fuse, ambient),
    },
    (i) => i.I_trip.times(i.k),
  )

/** What flows into a dead short at its end, A; undefined where the source’s sheet doesn’t tell. */
export const shortCurrent = (
  { part: source, wear }: { part: Source; wear?: Wear },
  parts: LeadParts | undefined,
): Worked | undefined => {
  const lead = parts && ledOnly(parts)
  const inside = insideOf(source, wear)
  return inside && intoShort(source, inside, lead)
}
const intoShort = (source: Source, R_i: SumInput, lead: LeadParts | undefined): Worked =>
  sum(
    { label: 'Into a short at the end of the lead', symbol: 'I_short', unit: 'A' },
    {
      V_source: fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V'),
      R_i,
      ...(lead && { R_lead: asVariable(leadResistance(lead)) }),
    },
    (i: Record<string, Term>) => i.V_source!.over(i.R_lead ? i.R_i!.plus(i.R_lead) : i.R_i!),
  )
