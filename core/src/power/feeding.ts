// What is drawn laid over what feeds it: of the project as it is, and of other ways in which it could be fed.

import type { Regulator, Source } from '../parts'
import type { Worked } from '../findings'
import type { State } from '../states'
import {
  type Converter,
  type Drawn,
  type LoadedSupply,
  type OpenSupply,
  type PolarityDiode,
  type Rail,
  type RailLoad,
  wayTo,
  withLoads,
} from '../supply'
import { type Consumer, sumOf } from './consumers'
import { regulate, type Regulation } from './regulate'

/** What lies on the way to the chip’s rail. */
export interface Path {
  source?: Source
  regulator?: Regulator
  /** Where a plug can come reversed, the diode that would guard against it. */
  polarity?: PolarityDiode
}

export interface Fed extends Path {
  supplies: OpenSupply
  loads: LoadedSupply
  /** Of every converter whose input is known. */
  regulations: readonly { converter: Converter; regulation: Regulation }[]
  /** The chip’s rail, and the one at which the way to it begins. */
  own: RailLoad
  head: RailLoad
  /** At the regulator's input with all that can flow; of the rail where there is none. */
  input?: Worked
  regulation?: Regulation
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

/** `ambient` in °C. */
export const feedingOf = (
  supplies: OpenSupply,
  consumers: readonly Consumer[],
  states: readonly State[],
  ambient: number,
): Fed => {
  const loads = withLoads(
    supplies,
    Object.fromEntries(
      supplies.rails.map((r) => [r.id, drawnFrom(r, r.id === supplies.own, consumers, states)]),
    ),
    states,
  )
  const regulations = supplies.converters.flatMap((converter) => {
    const input = loads.rails[converter.from]!.voltage
    const load = loads.rails[converter.to]!.loaded
    return input ? [{ converter, regulation: regulate(converter.part, load, input, ambient) }] : []
  })
  const way = wayTo(supplies, supplies.own)
  return {
    supplies,
    loads,
    regulations,
    source: way.source?.part,
    regulator: way.converter?.part,
    polarity: way.guard?.diode,
    own: loads.rails[supplies.own]!,
    head: loads.rails[way.head]!,
    input: loads.rails[way.converter?.from ?? supplies.own]!.voltage,
    regulation: regulations.find((r) => r.converter === way.converter)?.regulation,
  }
}
