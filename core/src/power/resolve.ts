// The Power stage: what is drawn from every rail, what is left of its voltage, and what the parts on the way make of it.

import type { Design } from '../design'
import { fromDecision, fromPart, fromRule, type Worked } from '../findings'
import type { Chip, Regulator, Source } from '../parts'
import { fullRange } from '../quantity'
import { greatest, sum, type Term } from '../sums'
import type { State } from '../states'
import {
  type Converter,
  type Drawn,
  type LoadedSupply,
  type OpenSupply,
  ownVoltage,
  type PolarityDiode,
  type Rail,
  type RailId,
  wayTo,
  withLoads,
} from '../supply'
import { type CellsUse, cellsUse } from './cells'
import { type Consumer, consumersOf, type Drawing, sumOf } from './consumers'
import { regulate, type Regulation } from './regulate'

/** What lies on the way to the chip’s rail. */
export interface Path {
  source?: Source
  regulator?: Regulator
  /** Where a plug can come reversed, the diode that would guard against it. */
  polarity?: PolarityDiode
}

/** The chip’s rail and the way to it by themselves; every rail, source and converter under `loads` and `regulations`. */
export interface PowerResult extends Path {
  rail?: Worked
  /** With all that can flow: straight from its source, or from a regulator without room, it sags. */
  railLoaded?: Worked
  supplies: OpenSupply
  loads: LoadedSupply
  /** Of every converter whose input is known. */
  regulations: readonly { converter: Converter; regulation: Regulation }[]
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
  regulation?: Regulation
  /** How its cells run down. */
  cells?: CellsUse
  /** Seconds on one set of cells; absent where the source doesn't run down. */
  runtime?: Worked
  hottest?: Worked
}

/** At what voltage of the cells the project stops: where the regulator runs out of room, or the chip does. */
const stopAt = (
  path: Path,
  regulation: Regulation | undefined,
  input: Worked | undefined,
  chip: Chip | undefined,
  V_clock: Worked | undefined,
): Worked | undefined => {
  const { source, regulator } = path
  if (!source || !input || source.voltage.max === undefined) return undefined
  const V_lost = sum(
    { label: 'Lost in the cells and on the way', symbol: 'V_lost', unit: 'V' },
    { V_source: fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V'), V_in: input },
    (i) => i.V_source.minus(i.V_in),
  )
  if (regulator && regulation)
    return sum(
      { label: 'Cells below which the rail sags', symbol: 'V_stop', unit: 'V' },
      {
        V_out: fromPart('V_out', 'output', regulator, 'output', regulator.output, 'V'),
        V_DO: regulation.dropout,
        V_lost,
      },
      (i) => i.V_out.plus(i.V_DO).plus(i.V_lost),
    )
  return (
    chip &&
    sum(
      { label: 'Cells below which the chip stops', symbol: 'V_stop', unit: 'V' },
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
      },
      (i: Record<string, Term>) => (i.V_clock ? greatest(i.V_least!, i.V_clock) : i.V_least!).plus(i.V_lost!),
    )
  )
}

/** What hangs on a rail by itself. */
const drawnFrom = (
  { id, name }: Rail,
  own: boolean,
  consumers: readonly Consumer[],
  states: readonly State[],
): Drawn => {
  const mine = consumers.filter((c) => c.from === id)
  const of = (current: (c: Consumer) => Worked, words: string, symbol: string) =>
    sumOf(mine, current, own ? `Rail current, ${words}` : `Loads of the ${name}, ${words}`, symbol)
  const cycle = Object.fromEntries(
    states.map((s) => [s.id, of((c) => c.cycle[s.id]!, s.name, `I_${s.symbol}`)]),
  )
  return {
    rest: of((c) => c.rest, 'everything at rest', 'I_rest'),
    work: of((c) => c.work, 'everything working at once', 'I_work'),
    cycle,
    average: of((c) => c.average, 'on average', 'I_avg'),
  }
}

export const resolvePower = (of: Drawing): PowerResult => {
  const { design, chip, clock, states, supplies } = of
  const rail = ownVoltage(supplies)
  const consumers = consumersOf(of)
  const loads = withLoads(
    supplies,
    Object.fromEntries(
      supplies.rails.map((r) => [r.id, drawnFrom(r, r.id === supplies.own, consumers, states)]),
    ),
    states,
  )
  const ambient = design.needs.limits.ambient
  const regulations = supplies.converters.flatMap((converter) => {
    const input = loads.rails[converter.from]!.voltage
    const load = loads.rails[converter.to]!.loaded
    return input ? [{ converter, regulation: regulate(converter.part, load, input, ambient) }] : []
  })
  const way = wayTo(supplies, supplies.own)
  const [own, head] = [loads.rails[supplies.own]!, loads.rails[way.head]!]
  const path: Path = {
    source: way.source?.part,
    regulator: way.converter?.part,
    polarity: way.guard?.diode,
  }
  const input = loads.rails[way.converter?.from ?? supplies.own]!.voltage
  const regulation = regulations.find((r) => r.converter === way.converter)?.regulation
  const cells = cellsUse(
    path.source,
    head.average,
    stopAt(path, regulation, input, chip, clock.lowestSupply),
    alwaysAtWork(consumers, design, chip, supplies.fed.feed),
  )
  const feed = loads.sources.find((s) => s.source.to === supplies.fed.feed)
  return {
    ...path,
    rail,
    railLoaded: own.voltage,
    supplies,
    loads,
    regulations,
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
    cells,
    runtime: cells?.runtime,
    hottest: regulation?.junction ?? hottestWithout(chip, consumers, rail, ambient),
  }
}

/** Those that could do less than their work, and of which nothing says for how long; the chip with where it can be said. */
const alwaysAtWork = (
  consumers: Consumer[],
  design: Design,
  chip: Chip | undefined,
  elsewhere: RailId,
): string[] => {
  const sleeps = chip?.modes.some((m) => m.kind === 'sleep')
  return consumers.flatMap((c) => {
    if (c.id === 'chip')
      return sleeps && design.needs.limits.awake === undefined && !design.needs.states
        ? [`${c.name} (“Time the chip is awake” on the Needs page)`]
        : []
    const constant = c.average.value.typ >= c.work.value.typ && c.rest.value.typ < c.work.value.typ
    const said = design.needs.states?.every((s) => s.modes?.[c.id.split('.')[0]!] !== undefined) ?? false
    return constant && !said && c.id !== 'board' && c.from !== elsewhere ? [c.name] : []
  })
}

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
