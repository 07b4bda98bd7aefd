// What feeds what: sources, what guards them, converters, and the rails between. Any number of each; rails are told apart by
// their ids alone.

import { type FedBy, type feeders, isFurther, type SupportChoice } from '../design'
import type { Worked } from '../findings'
import type { Wear } from './cells'
import type { LeadParts } from './lead'
import type { Diode, Regulator, Source } from '../parts'

export type RailId = string

export interface Rail {
  id: RailId
  /** In a sentence: “the rail”, “the second feed”. */
  name: string
  net: string
  /** Of its voltage: `V_DD`. */
  symbol: string
}

/** A source and the rail that its plug is on. */
export interface Plugged {
  id: string
  part: Source
  to: RailId
  /** Between it and its rail. */
  lead?: LeadParts
  /** What it goes through, where it is cells. */
  wear?: Wear
}

/** In or out, and which diode it is. */
export type PolarityDiode = SupportChoice & { diode: Diode }

/** A diode that lets current one way only; where it is left out a wire is in its place. */
export interface Guard {
  id: string
  diode: PolarityDiode
  from: RailId
  to: RailId
}

export interface Converter {
  id: string
  part: Regulator
  from: RailId
  to: RailId
}

/** Made to give more voltage than it gets. */
export const convertsUp = ({ topology, converts }: Regulator): boolean =>
  topology === 'switching' && converts === 'up'

export interface Supply {
  rails: readonly Rail[]
  sources: readonly Plugged[]
  guards: readonly Guard[]
  converters: readonly Converter[]
  /** The rail of chip, lines and whatever says nothing else. */
  own: RailId
  /** What a builder's word for a feeder stands for; a further rail is called as it is. */
  fed: Readonly<Record<(typeof feeders)[number], RailId>>
}

/** A supply whose voltages are known, with nothing drawn from it yet. */
export interface OpenSupply extends Supply {
  open: Readonly<Record<RailId, Worked | undefined>>
}

export class SupplyLoop extends Error {
  override name = 'SupplyLoop'
  constructor(readonly rails: readonly RailId[]) {
    super(`These rails feed one another: ${rails.join(', ')}.`)
  }
}

/** What brings current to a rail, or takes it from one. */
type Link = Plugged | Guard | Converter
const into = ({ sources, guards, converters }: Supply, rail: RailId): Link[] =>
  [...sources, ...guards, ...converters].filter((l) => l.to === rail)

/** Each rail behind all that feed it. Throws SupplyLoop, and on a rail that is not there. */
export const fromTheSource = (supply: Supply): Rail[] => {
  const left = new Map(supply.rails.map((r) => [r.id, r]))
  for (const { id, from, to } of [...supply.guards, ...supply.converters])
    for (const rail of [from, to])
      if (!left.has(rail)) throw new Error(`${id} is on ${rail}, which is no rail.`)
  for (const { id, to } of supply.sources)
    if (!left.has(to)) throw new Error(`${id} is on ${to}, which is no rail.`)
  const sorted: Rail[] = []
  while (left.size > 0) {
    const next = [...left.values()].find((r) =>
      into(supply, r.id).every((l) => !('from' in l) || !left.has(l.from)),
    )
    if (!next) throw new SupplyLoop([...left.keys()])
    left.delete(next.id)
    sorted.push(next)
  }
  return sorted
}

export const railOf = (supply: Supply, id: RailId): Rail => {
  const rail = supply.rails.find((r) => r.id === id)
  if (!rail) throw new Error(`There is no rail ${id}.`)
  return rail
}

/** What lies on the way to a rail, from the rail where it begins. */
export interface Way {
  head: RailId
  source?: Plugged
  guard?: Guard
  /** The last before the rail. */
  converter?: Converter
}

/** The first way by which a rail is fed. Throws SupplyLoop. */
export const wayTo = (supply: Supply, rail: RailId): Way => {
  fromTheSource(supply)
  const way: Way = { head: rail }
  for (;;) {
    const at = way.head
    const converter = supply.converters.find((c) => c.to === at)
    const guard = supply.guards.find((g) => g.to === at)
    way.source ??= supply.sources.find((s) => s.to === at)
    const next = converter ?? guard
    if (way.source || !next) return way
    if (converter) way.converter ??= converter
    else way.guard ??= guard
    way.head = next.from
  }
}

/** The rail at which the way to a rail begins. Throws SupplyLoop. */
export const headOf = (supply: Supply, rail: RailId): RailId => wayTo(supply, rail).head

/** Whether a rail is fed by what feeds the chip’s own, and not by a feed of its own. */
export const onTheSource = (supply: Supply, rail: RailId): boolean =>
  headOf(supply, rail) === headOf(supply, supply.own)

export const feederRail = ({ fed }: Pick<Supply, 'fed'>, by: FedBy): RailId => (isFurther(by) ? by : fed[by])

/** The rail that feeds a device; two on one rail have the same. */
export const railFor = (supply: Supply, need: { fedBy?: FedBy }): Rail =>
  railOf(supply, feederRail(supply, need.fedBy ?? 'rail'))

/** Whether a device is fed from the chip’s own rail. */
export const onOwnRail = (supply: Supply, need: { fedBy?: FedBy }): boolean =>
  railFor(supply, need).id === supply.own

/** Of the rail that is the chip’s own. */
export const ownVoltage = (supply: OpenSupply): Worked | undefined => supply.open[supply.own]

/** What a device is fed with; undefined while it is not decided. */
export const voltageFor = (supply: OpenSupply, need: { fedBy?: FedBy }): Worked | undefined =>
  supply.open[railFor(supply, need).id]
