// The Power stage: what is drawn from every rail, what is left of its voltage, and what the parts on the way make of it.

import type { Design } from '../design'
import { fromDecision, fromPart, fromRule, type Worked, type WorkedInput } from '../findings'
import type { NeedsResult } from '../needs'
import type { Chip, Library, Source } from '../parts'
import { fullRange } from '../quantity'
import { asVariable, dimensionOf, greatest, number, sum, type SumInput, type Term, total } from '../sums'
import type { State } from '../states'
import {
  cellGuards,
  onTheSource,
  type OpenSupply,
  ownVoltage,
  railFor,
  type RailId,
  wayTo,
  wearOf,
} from '../supply'
import { type CellsUse, cellsUse } from './cells'
import { type Consumer, consumersOf, type Drawing } from './consumers'
import { type Fed, feedingOf, type Path } from './feeding'
import { bridgesOf, type LoadedBridge } from './bridges'
import { deviceLeadsOf, type LedDevice } from './device-leads'
import { leadsOf, type LoadedLead } from './leads'

/** The chip’s rail and the way to it by themselves; every rail, source and converter under `loads` and `regulations`. */
export interface PowerResult extends Path {
  rail?: Worked
  /** With all that can flow: straight from its source, or from a regulator without room, it sags. */
  railLoaded?: Worked
  supplies: OpenSupply
  loads: Fed['loads']
  regulations: Fed['regulations']
  /** From each source that has one. */
  leads: readonly LoadedLead[]
  /** To the devices of which a lead is said. */
  deviceLeads: readonly LedDevice[]
  /** With what hangs on them. */
  bridges: readonly LoadedBridge[]
  /** The second feed and what everything on it draws at once. */
  feed?: { source: Source; current: Worked }
  states: readonly State[]
  consumers: Consumer[]
  rest: Worked
  work: Worked
  average: Worked
  /** From everything at rest to everything at work. */
  loaded: Worked
  /** Through the plug and what guards it, as much. */
  through: Worked
  /** At the regulator's input then; of the rail where there is none. */
  input?: Worked
  fromSource: Worked
  regulation?: Fed['regulation']
  /** Of all sources, Wh a day. */
  energy?: Worked
  /** How its cells run down. */
  cells?: CellsUse
  /** Seconds on one set of cells; absent where the source doesn't run down. */
  runtime?: Worked
  hottest?: Worked
}

/**
 * At what voltage of the cells the first thing stops: where a regulator that hangs on them runs out of room, or what they feed
 * straight: a device, the chip where it has no regulator.
 */
export const stopAt = (
  { source, regulator, regulation, regulations, input, supplies }: Fed,
  chip: Chip | undefined,
  V_clock: Worked | undefined,
  needs: NeedsResult,
): Worked | undefined => {
  if (!source || !input || source.voltage.max === undefined) return undefined
  const V_lost = sum(
    { label: 'Lost in the cells and on the way', symbol: 'V_lost', unit: 'V' },
    { V_source: fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V'), V_in: input },
    (i) => i.V_source.minus(i.V_in),
  )
  const guards = cellGuards(source, wayTo(supplies, supplies.own).source?.lead).map(({ cut }) => cut)
  const cut = guards.length > 0 && Object.fromEntries(guards.map((V) => [V.symbol, V]))
  // In front of what regulates the chip’s rail: all else that hangs there.
  const at = wayTo(supplies, supplies.own).converter?.from ?? supplies.own
  const beside = Object.fromEntries(
    regulations.flatMap(({ converter, regulation: { least } }): [string, SumInput][] =>
      converter.from === at && converter.to !== supplies.own ? [[`V_${converter.to}`, least]] : [],
    ),
  )
  const V_device = neediest(needs, supplies, at)
  if (regulator && regulation)
    return sum(
      {
        label: `Cells below which ${V_device || Object.keys(beside).length > 0 ? 'the first rail or part stops' : 'the rail sags'}${cut ? ', or their protection opens' : ''}`,
        symbol: 'V_stop',
        unit: 'V',
      },
      { V_least: regulation.least, V_lost, ...beside, ...(V_device && { V_device }), ...cut },
      ({ V_lost: lost, ...needed }: Record<string, Term>) =>
        greatest(...(Object.values(needed) as [Term])).plus(lost!),
    )
  return (
    chip &&
    sum(
      {
        label: `Cells below which the first thing on the rail stops${cut ? ', or their protection opens' : ''}`,
        symbol: 'V_stop',
        unit: 'V',
      },
      {
        V_least: fromRule(
          'V_least',
          `lowest supply of ${chip.name}`,
          fullRange(chip.supply.recommended).min,
          'V',
          chip.supply.recommended.source ?? chip.sheet,
        ),
        V_lost,
        ...(V_clock && { V_clock }),
        ...(V_device && { V_device }),
        ...beside,
        ...cut,
      },
      ({ V_lost: lost, ...needed }: Record<string, Term>) =>
        greatest(...(Object.values(needed) as [Term])).plus(lost!),
    )
  )
}

/** The lowest supply of the device on a rail that stops first as the rail falls. */
const neediest = (needs: NeedsResult, supplies: OpenSupply, rail: RailId): WorkedInput | undefined => {
  const [first] = needs.instances
    .flatMap(({ part, name, need }) =>
      part.supply && railFor(supplies, need).id === rail
        ? [{ part, name, supply: part.supply, least: fullRange(part.supply).min }]
        : [],
    )
    .sort((a, b) => b.least - a.least)
  return (
    first &&
    fromRule(
      'V_device',
      `lowest supply of ${first.name}`,
      first.least,
      'V',
      first.supply.source ?? first.part.sheet,
    )
  )
}

export const resolvePower = (of: Drawing & { library: Library }): PowerResult => {
  const { design, chip, clock, states, supplies } = of
  const rail = ownVoltage(supplies)
  const consumers = consumersOf(of)
  const ambient = design.needs.limits.ambient
  const fed = feedingOf(supplies, consumers, states, ambient)
  const { source, regulator, polarity, loads, regulations, own, head, input, regulation } = fed
  const cells = cellsUse(
    source,
    wearOf(design.needs.limits),
    head.average,
    stopAt(fed, chip, clock.lowestSupply, of.needs),
    alwaysAtWork(consumers, design, chip, supplies),
  )
  const feed = loads.sources.find((s) => s.source.to === supplies.fed.feed)
  const bridges = bridgesOf(design, of.needs, loads, supplies)
  return {
    source,
    regulator,
    polarity,
    rail,
    railLoaded: own.voltage,
    supplies,
    loads,
    regulations,
    leads: leadsOf(loads),
    deviceLeads: deviceLeadsOf(design, of.needs, of.library, loads, supplies, bridges),
    bridges,
    feed: feed && { source: feed.source.part, current: feed.work },
    states,
    consumers,
    rest: own.rest,
    work: own.work,
    average: head.average,
    through: head.loaded,
    input,
    fromSource: head.work,
    loaded: own.loaded,
    regulation,
    energy: energyOf(loads),
    cells,
    runtime: cells?.runtime,
    hottest: hottestRegulator(regulations) ?? hottestWithout(chip, consumers, rail, ambient),
  }
}

/** 24 h. */
export const aDay = number(86400, dimensionOf('s'))

/** What all sources give in a day, at their own voltages. */
const energyOf = ({ sources }: Fed['loads']): Worked | undefined =>
  sources.length === 0
    ? undefined
    : sum(
        { label: 'Energy a day', symbol: 'E_day', unit: 'Wh', counts: 'max' },
        Object.fromEntries(
          sources.flatMap(({ source: { id, part }, average }): [string, SumInput][] => [
            [`I_${id}`, asVariable(average)],
            [`V_${id}`, fromPart(`V_${id}`, part.name, part, 'voltage', part.voltage, 'V')],
          ]),
        ),
        (i: Record<string, Term>) =>
          total(
            sources.map(({ source: { id } }) => i[`I_${id}`]!.times(i[`V_${id}`]!).times(aDay)),
            dimensionOf('Wh'),
          ),
      )

/** Those that could do less than their work, and of which nothing says for how long; the chip with where it can be said. */
export const alwaysAtWork = (
  consumers: Consumer[],
  design: Design,
  chip: Chip | undefined,
  supplies: OpenSupply,
): string[] => {
  const sleeps = chip?.modes.some((m) => m.kind === 'sleep')
  return consumers.flatMap((c) => {
    if (c.id === 'chip')
      return sleeps && design.needs.limits.awake === undefined && !design.needs.states
        ? [`${c.name} (“Time the chip is awake” on the Needs page)`]
        : []
    const constant = c.average.value.typ >= c.work.value.typ && c.rest.value.typ < c.work.value.typ
    const said = design.needs.states?.every((s) => s.modes?.[c.id.split('.')[0]!] !== undefined) ?? false
    return constant && !said && c.id !== 'board' && onTheSource(supplies, c.from) ? [c.name] : []
  })
}

const hottestRegulator = (regulations: Fed['regulations']): Worked | undefined =>
  regulations.map((r) => r.regulation.junction).sort((a, b) => b.value.max - a.value.max)[0]

/** Without a regulator the chip itself is the warmest part that can be computed. */
const hottestWithout = (
  chip: Chip | undefined,
  consumers: Consumer[],
  rail: Worked | undefined,
  ambient: number,
): Worked | undefined => {
  const own = consumers.find((c) => c.id === 'chip')
  const theta = chip?.package.thermalResistance
  if (!chip || !own || !rail || !theta) return undefined
  return sum(
    { label: `Junction of ${chip.name}`, symbol: 'T_J', unit: '°C' },
    {
      T_A: fromDecision('T_A', 'ambient', ambient, '°C', 'set on the Needs page'),
      V_DD: rail,
      I_chip: own.work,
      θ_JA: fromPart('θ_JA', 'junction to ambient', chip, 'package.thermalResistance', theta, 'K/W'),
    },
    (i) => i.T_A.plus(i.V_DD.times(i.I_chip).times(i.θ_JA)),
  )
}
