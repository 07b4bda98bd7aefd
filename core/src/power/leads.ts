// What flows through the leads from the sources: what is lost and gets warm in them, what each of their parts may carry, whether a fuse
// holds in warm air, guards its wire, and opens at a short.

import { type Design, type Lead, leadField, type LeadOwner, leadOwners } from '../design'
import { fromPart, type Grade, type Said, say, type Severity, type Worked } from '../findings'
import { type Fuse, type Library, partsOfKind, type Source, type Wire } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { asStated, asVariable, sum } from '../sums'
import {
  airIn,
  airsOf,
  cellGuards,
  fuseHolds,
  fuseOpens,
  leadOf,
  type LeadParts,
  leadResistance,
  type LoadedSupply,
  type Plugged,
  shortCurrent,
  type Wear,
  wireCarries,
} from '../supply'
import type { Fault } from './fault'

export interface LoadedLead {
  of: LeadOwner
  source: Source
  wear?: Wear
  parts: LeadParts
  /** Through it, with everything at work at once. */
  current: Worked
  resistance: Worked
  /** Lost in it then, V. */
  drop: Worked
  heat: Worked
}

type OfSource = Pick<Plugged, 'part' | 'wear'>

export const loadedLead = (
  of: LeadOwner,
  { part: source, wear }: OfSource,
  parts: LeadParts,
  current: Worked,
): LoadedLead => ({ of, source, ...(wear && { wear }), ...throughLead(parts, current) })

/** What this much does in a lead. */
export const throughLead = (
  parts: LeadParts,
  current: Worked,
): Pick<LoadedLead, 'parts' | 'current' | 'resistance' | 'drop' | 'heat'> => {
  const resistance = leadResistance(parts)
  const given = { I: asVariable(current), R_lead: asVariable(resistance) }
  return {
    parts,
    current,
    resistance,
    drop: sum({ label: 'Lost in the lead', symbol: 'V_lead', unit: 'V', counts: 'max' }, given, (i) =>
      i.I.times(i.R_lead),
    ),
    heat: sum({ label: 'Heat in the lead', symbol: 'P_lead', unit: 'W', counts: 'max' }, given, (i) =>
      i.I.times(i.I).times(i.R_lead),
    ),
  }
}

export const leadsOf = ({ sources }: Pick<LoadedSupply, 'sources'>): LoadedLead[] =>
  sources.flatMap(({ source, work }) =>
    source.lead ? [loadedLead(source.id === 'feed' ? 'feed' : 'source', source, source.lead, work)] : [],
  )

export type LeadFaultKind =
  | 'wire carries'
  | 'joint carries'
  | 'fuse trips'
  | 'fuse curve'
  | 'fuse too big'
  | 'fuse voltage'
  | 'fuse breaks'
  | 'fuse stays'
  | 'no fuse'

/** Something that a lead is not made for. */
export type LeadFault = Fault<LeadFaultKind>

const amps = (i: number) => formatQuantity(i, 'A', 3)

/** A fuse guards a wire that stands what surely opens it for the while that this takes (IEC 60364-4-43: I_2 ≤ 1.45 · I_z). */
const overload = 1.45

/** What the wire may carry for ever, the fuse not asked; the joints of it too. */
export const carrying = ({
  parts: { wire, joint, ambient },
  current,
}: Pick<LoadedLead, 'parts' | 'current'>): LeadFault[] => {
  const faults: LeadFault[] = []
  const most = current.value.max
  const told = { ...say`Up to ${amps(most)} flow through it`, worked: current }
  const severity = (allowed: number): Severity => (current.value.typ > allowed ? 'stops' : 'risks')
  if (wire) {
    const allowed = wireCarries(wire, ambient)
    if (most > allowed.value.max)
      faults.push({
        kind: 'wire carries',
        severity: severity(allowed.value.max),
        grade: 'outside the sheet',
        says: say`${wire.part.name} may carry ${amps(allowed.value.max)} in this air, and up to ${amps(most)} flow through it: it gets hotter than its insulation stands`,
        because: [
          told,
          { ...say`${wire.part.sheet}: ${amps(allowed.value.max)} in this air`, worked: allowed },
        ],
      })
  }
  const rated = joint?.part.current
  if (joint && !rated)
    faults.push({
      kind: 'joint carries',
      severity: 'notes',
      grade: 'typical',
      says: say`no sheet says what ${joint.part.name} may carry, and up to ${amps(most)} flow through it`,
      because: [told],
    })
  if (joint && rated && most > fullRange(rated).max) {
    const allowed = asStated(
      `${joint.part.name} may carry`,
      'I_max',
      'A',
      fromPart('I_max', 'rated current', joint.part, 'current', rated, 'A'),
    )
    faults.push({
      kind: 'joint carries',
      severity: severity(allowed.value.max),
      grade: 'outside the sheet',
      says: say`${joint.part.name} is made for ${amps(allowed.value.max)}, and up to ${amps(most)} flow through it: it gets hot, and worse with heat`,
      because: [told, { ...say`${joint.part.sheet}: ${amps(allowed.value.max)}`, worked: allowed }],
    })
  }
  return faults
}

/** A fuse that opens though nothing is wrong, or of which that isn’t known. */
const tripping = ({ parts: { fuse, ambient }, current }: LoadedLead): LeadFault[] => {
  if (!fuse) return []
  const faults: LeadFault[] = []
  const holds = fuseHolds(fuse, ambient)
  const most = current.value.max
  if (most > holds.value.min)
    faults.push({
      kind: 'fuse trips',
      severity: current.value.typ > holds.value.min ? 'stops' : 'risks',
      grade: 'outside the sheet',
      says: say`${fuse.name} holds ${amps(holds.value.min)} in air of ${ambient} °C, and up to ${amps(most)} flow with nothing wrong: it may open`,
      because: [
        { ...say`Through it flow up to ${amps(most)}`, worked: current },
        { ...say`It holds ${amps(holds.value.min)} in this air`, worked: holds },
      ],
    })
  const warmest = Math.max(...fuse.derating.map((p) => p.air))
  if (ambient > warmest)
    faults.push({
      kind: 'fuse curve',
      severity: 'risks',
      grade: 'outside the sheet',
      says: say`the sheet of ${fuse.name} says what it holds in air of up to ${warmest} °C, and it is to be ${ambient} °C warm: it holds less, and how much is not known`,
      because: [say`${fuse.sheet}, ${fuse.derating[0]!.source ?? 'derating'}: up to ${warmest} °C`],
    })
  return faults
}

/** A fuse that doesn’t guard what it is there for. */
const guarding = ({ parts, source, wear }: LoadedLead): LeadFault[] => {
  const { fuse, wire } = parts
  if (!fuse) return []
  const faults: LeadFault[] = []
  const add = (
    kind: LeadFaultKind,
    severity: Severity,
    grade: Grade,
    says: Said,
    because: LeadFault['because'],
  ) => faults.push({ kind, severity, grade, says, because })
  const inAir = airsOf(parts).map((air) => ({ air, opening: fuseOpens(fuse, air) }))
  const hardest = inAir[0]!.opening
  const opens = hardest.value.max
  const opensAt = { ...say`It surely opens at ${amps(opens)} in air of ${inAir[0]!.air} °C`, worked: hardest }
  // Fuse and wire lie in the same air.
  const burns =
    wire &&
    inAir
      .map((at) => ({ ...at, carries: wireCarries(wire, at.air) }))
      .findLast(
        ({ air, opening, carries }) =>
          fuseHolds(fuse, air).value.max > carries.value.max ||
          opening.value.max > carries.value.max * overload,
      )
  if (burns) {
    const { air, opening, carries } = burns
    const stands = carries.value.max * overload
    add(
      'fuse too big',
      'risks',
      'outside the sheet',
      say`${fuse.name} opens surely only at ${amps(opening.value.max)} in air of ${air} °C; ${wire.part.name} may carry ${amps(carries.value.max)} then, and stands ${amps(stands)} for the while that a fuse takes: the wire burns first`,
      [
        { ...say`It surely opens at ${amps(opening.value.max)}`, worked: opening },
        { ...say`The wire may carry ${amps(carries.value.max)}`, worked: carries },
        say`IEC 60364-4-43: what opens a fuse is no more than 1.45 times what its wire may carry`,
      ],
    )
  }
  const most = fullRange(source.voltage).max
  const rated = fullRange(fuse.voltage).max
  if (most > rated)
    add(
      'fuse voltage',
      'risks',
      'outside the sheet',
      say`${fuse.name} interrupts up to ${formatQuantity(rated, 'V')}, and ${source.name} has up to ${formatQuantity(most, 'V', 3)}: it may go on burning when it opens`,
      [say`${fuse.sheet}, ${fuse.voltage.source ?? 'voltage'}: ${formatQuantity(rated, 'V')}`],
    )
  const short = shortCurrent({ part: source, wear }, parts)
  const breaks = fullRange(fuse.breaking).max
  if (short && short.value.max > breaks)
    add(
      'fuse breaks',
      'risks',
      'outside the sheet',
      say`a short draws up to ${amps(short.value.max)} from ${source.name}, and ${fuse.name} can interrupt ${amps(breaks)}: it may burst or go on burning`,
      [{ ...say`Into a short flow up to ${amps(short.value.max)}`, worked: short }],
    )
  const least = short?.value.min ?? fullRange(source.current).max
  if (least < opens)
    add(
      'fuse stays',
      'notes',
      short ? 'outside the sheet' : 'typical',
      short
        ? say`a short draws no more than ${amps(least)} from ${source.name} at its weakest, and ${fuse.name} opens surely only at ${amps(opens)}: it may not open`
        : say`${source.name} gives ${amps(least)}, and ${fuse.name} opens surely only at ${amps(opens)}: whether a short opens it is not known, since no sheet says what the source gives into one`,
      [opensAt, ...(short ? [{ ...say`Into a short flow ${amps(least)} or more`, worked: short }] : [])],
    )
  return faults
}

/** Wire that its source can burn, or a source that melts whatever wire there is, without a fuse. */
const unfused = ({ part: source, wear }: OfSource, parts: LeadParts | undefined): LeadFault[] => {
  if (parts?.fuse) return []
  const short = shortCurrent({ part: source, wear }, parts)
  const gives = short?.value.max ?? fullRange(source.current).max
  const flows = short
    ? { ...say`Into a short flow up to ${amps(gives)}`, worked: short }
    : say`${source.sheet}, ${source.current.source ?? 'rating'}: ${amps(gives)}`
  const fault = (says: Said, ...because: LeadFault['because']): LeadFault[] => [
    { kind: 'no fuse', severity: 'risks', grade: 'outside the sheet', says, because: [flows, ...because] },
  ]
  if (!parts?.wire)
    return source.cautions?.includes('short')
      ? fault(
          say`${source.name} drives up to ${amps(gives)} into a short, and there is no fuse: whatever wire there is burns`,
        )
      : []
  const { part } = parts.wire
  const carries = wireCarries(parts.wire, parts.ambient)
  if (gives <= carries.value.max) return []
  const [guard] = cellGuards(source, parts)
  const stops = guard
    ? say`${guard.name} is made to guard the cell, and no fuse guards the wire`
    : say`without a fuse nothing stops it`
  return fault(
    short
      ? say`a short at the end of the lead draws up to ${amps(gives)} from ${source.name}; ${part.name} may carry ${amps(carries.value.max)}, and ${stops}: it ${guard ? 'may burn' : 'burns'}`
      : say`${source.name} gives ${amps(gives)} or more into a short; ${part.name} may carry ${amps(carries.value.max)}, and ${stops}: it gets hotter than its insulation stands`,
    { ...say`The wire may carry ${amps(carries.value.max)}`, worked: carries },
  )
}

export const leadFaults = (lead: LoadedLead): LeadFault[] => [
  ...carrying(lead),
  ...tripping(lead),
  ...guarding(lead),
  ...unfused({ part: lead.source, wear: lead.wear }, lead.parts),
]

/** Of every source, also of one of whose lead nothing is said. */
export const faultsInLeads = (
  loads: Pick<LoadedSupply, 'sources'>,
): { of: LeadOwner; faults: LeadFault[] }[] => {
  const leads = leadsOf(loads)
  return loads.sources.map(({ source }) => {
    const of: LeadOwner = source.id === 'feed' ? 'feed' : 'source'
    const lead = leads.find((l) => l.of === of)
    return { of, faults: lead ? leadFaults(lead) : unfused(source, undefined) }
  })
}

export interface RankedWire extends LoadedLead {
  wire: Wire
  carries: Worked
  no: Said[]
  chosen: boolean
}

export interface RankedFuse {
  fuse: Fuse
  holds: Worked
  /** Lost in it, V. */
  drop: Worked
  no: Said[]
  /** What no sheet tells, and what speaks neither for nor against it. */
  unsure: Said[]
  chosen: boolean
}

export interface RankedLead {
  of: LeadOwner
  source: Source
  /** Empty while no length is known. */
  wires: RankedWire[]
  fuses: RankedFuse[]
}

interface Asked {
  design: Pick<Design, 'chip' | 'power' | 'needs'>
  library: Library
  sources: LoadedSupply['sources']
  /** With this in it: what flows, since a switching regulator takes more the more is lost, and what the loss does to what hangs on it. */
  tried: (of: LeadOwner, change: Lead) => { current: Worked; suffers: Said[] }
}

const byNo = (a: { no: readonly Said[] }, b: { no: readonly Said[] }) => a.no.length - b.no.length

/** Every wire and every fuse of the library in each lead, those that nothing speaks against first, the cheapest first among them. */
export const rankLeads = ({ design, library, sources, tried }: Asked): RankedLead[] =>
  leadOwners.flatMap((of): RankedLead[] => {
    const found = sources.find((s) => s.source.id === of)
    if (!found) return []
    const { source } = found
    const { length, wire: chosen } = design.power[leadField[of]] ?? {}
    const now: LeadParts = leadOf(design, library, of) ?? airIn(design.needs.limits)
    const wires = length
      ? partsOfKind(library, 'wire').map((wire): RankedWire => {
          const parts = { ...now, wire: { part: wire, length } }
          const { current, suffers } = tried(of, { wire: wire.id })
          const lead = loadedLead(of, source, parts, current)
          const no = [
            ...carrying(lead).filter((f) => f.kind === 'wire carries'),
            ...guarding(lead).filter((f) => f.kind === 'fuse too big'),
            ...unfused(source, parts),
          ].map((f) => f.says)
          return {
            ...lead,
            wire,
            carries: wireCarries({ part: wire }, parts.ambient),
            no: [...no, ...suffers],
            chosen: wire.id === chosen,
          }
        })
      : []
    const fuses = partsOfKind(library, 'fuse').map((fuse): RankedFuse => {
      const { current, suffers } = tried(of, { fuse: fuse.id })
      const lead = loadedLead(of, source, { ...now, fuse }, current)
      const faults = [...tripping(lead), ...guarding(lead)]
      const alone = loadedLead(of, source, { fuse, ...airIn(design.needs.limits) }, current)
      return {
        fuse,
        holds: fuseHolds(fuse, design.needs.limits.ambient),
        drop: alone.drop,
        no: [...faults.filter((f) => f.severity !== 'notes').map((f) => f.says), ...suffers],
        unsure: faults.filter((f) => f.severity === 'notes').map((f) => f.says),
        chosen: fuse.id === now.fuse?.id,
      }
    })
    return [
      {
        of,
        source: source.part,
        wires: wires.sort((a, b) => byNo(a, b) || a.wire.price - b.wire.price),
        fuses: fuses.sort(
          (a, b) => byNo(a, b) || a.fuse.price - b.fuse.price || a.drop.value.max - b.drop.value.max,
        ),
      },
    ]
  })
