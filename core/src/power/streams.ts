// What flows on the way from plug to load while the machine is in one state, or at its worst: current along each part of the way, heat
// where it arises, and what each part could carry.

import { fromPart, fromWorked, type Stages, type Worked } from '../findings'
import type { Rated, Regulator } from '../parts'
import { exactly, fullRange } from '../quantity'
import type { State } from '../states'
import { asVariable, sum, total, dimensionOf } from '../sums'
import { forwardOf, insideOf, leadWords, wayTo } from '../supply'
import type { Consumer } from './consumers'
import { type Fed, feedingOf } from './feeding'
import { loadedLead } from './leads'

/** A part of the way. */
export interface Station {
  name: string
  /** Through it, A. */
  current: Worked
  /** What it turns to heat, W; absent where nothing says. */
  heat?: Worked
  /** Behind it, V. */
  voltage?: Worked
  /** What it may carry, A, and what is left of that at the most. */
  allowed?: number
  left?: Worked
}

export interface FurtherStream extends Station {
  id: string
  /** In a sentence. */
  rail: string
  /** The rail that it hangs on. */
  from: string
  /** Out of that for what it gives, A; its own current comes to it. */
  taken: Worked
  junction: Worked
}

export interface Streams {
  /** Absent: everything at rest to everything working at once. */
  state?: string
  source?: Station
  /** From the source to what comes first behind it: what leads there, the latch that switches it. */
  lead?: Station
  guard?: Station
  regulator?: Station & { junction?: Worked }
  rail: Station
  /** Rails beside the chip’s own, each behind its regulator. */
  further: readonly FurtherStream[]
  loads: readonly { id: string; name: string; count: number; from: string; current: Worked }[]
  /** All heat on the way, W. */
  lost?: Worked
  /** The second feed by itself. */
  feed?: Station
}

/** Everything as it is in one state, and nothing else. */
const held = (c: Consumer, { id }: State): Consumer => {
  const now = c.cycle[id]!
  return { ...c, rest: now, work: now, average: now, cycle: { [id]: now } }
}

const leftOf = (
  part: { id: string; name: string; sheet: string },
  field: string,
  rated: Rated,
  I: Worked,
) => {
  const allowed = fullRange(rated).max
  return {
    allowed,
    left: sum(
      { label: `${part.name}: left at the most that flows`, symbol: 'left', unit: 'A' },
      {
        I_max: {
          ...fromPart('I_max', 'what it may carry', part, field, rated, 'A'),
          value: exactly(allowed),
        },
        I: { ...fromWorked(I), symbol: 'I', value: exactly(I.value.max), variable: 'at the most' },
      },
      (i) => i.I_max.minus(i.I),
    ),
  }
}

/** Of the rails beside the chip’s own, with everything at work; how much is left of what each could give is another sum. */
export const furtherOf = ({
  regulations,
  loads,
  supplies,
}: Pick<Fed, 'regulations' | 'loads' | 'supplies'>): (FurtherStream & { part: Regulator })[] =>
  regulations.flatMap(({ converter: { part, from, to }, regulation }) => {
    const { rail, work, voltage } = loads.rails[to]!
    return to === supplies.own
      ? []
      : [
          {
            id: to,
            rail: rail.name,
            from,
            part,
            name: part.name,
            current: work,
            taken: regulation.taken ?? work,
            heat: regulation.dissipation,
            junction: regulation.junction,
            ...(voltage && { voltage }),
          },
        ]
  })

/** `state`: its id; absent, or none of the project: the worst. */
export const streamsOf = ({ design, power }: Pick<Stages, 'design' | 'power'>, state?: string): Streams => {
  const found = power.states.find((s) => s.id === state)
  const consumers = found ? power.consumers.map((c) => held(c, found)) : power.consumers
  const fed = feedingOf(
    power.supplies,
    consumers,
    found ? [found] : power.states,
    design.needs.limits.ambient,
  )
  const { supplies, loads, source, regulator, polarity, regulation, own, head } = fed
  const way = wayTo(supplies, supplies.own)
  const through = head.work
  const R_i = source && insideOf(source, way.source?.wear)
  const behind = way.guard ? loads.rails[way.guard.to] : undefined
  const atSource: Station | undefined = source && {
    name: source.name,
    current: through,
    ...leftOf(source, 'current', source.current, through),
    ...(R_i && {
      heat: sum(
        { label: `Heat inside ${source.name}`, symbol: 'P', unit: 'W' },
        { I: asVariable(through), R_i },
        (i) => i.I.times(i.I).times(i.R_i),
      ),
    }),
    ...(!way.guard && !way.source?.lead && head.voltage && { voltage: head.voltage }),
  }
  const led = source && way.source?.lead && loadedLead('source', way.source, way.source.lead, through)
  const onLead: Station | undefined = led && {
    name: leadWords(way.source!.lead!),
    current: through,
    heat: led.heat,
    ...(!way.guard && head.voltage && { voltage: head.voltage }),
  }
  const guard: Station | undefined =
    polarity?.present && behind
      ? {
          name: polarity.diode.name,
          current: behind.work,
          ...leftOf(polarity.diode, 'current', polarity.diode.current, behind.work),
          heat: sum(
            { label: `Heat in ${polarity.diode.name}`, symbol: 'P', unit: 'W' },
            { I: asVariable(behind.work), V_F: forwardOf(polarity.diode, asVariable(behind.work)) },
            (i) => i.I.times(i.V_F),
          ),
          ...(behind.voltage && { voltage: behind.voltage }),
        }
      : undefined
  const onWay: Streams['regulator'] = regulator && {
    name: regulator.name,
    current: own.work,
    ...leftOf(regulator, 'current', regulator.current, own.work),
    ...(regulation && { heat: regulation.dissipation, junction: regulation.junction }),
    ...(own.voltage && { voltage: own.voltage }),
  }
  const further = furtherOf(fed).map(({ part, ...stream }) => ({
    ...stream,
    ...leftOf(part, 'current', part.current, stream.current),
  }))
  const heats = [
    atSource?.heat,
    onLead?.heat,
    guard?.heat,
    onWay?.heat,
    ...further.map((f) => f.heat),
  ].filter((h) => h !== undefined)
  const feedRail = loads.rails[supplies.fed.feed]
  const second = loads.sources.find((s) => s.source.to === supplies.fed.feed)
  return {
    ...(found && { state: found.id }),
    ...(atSource && { source: atSource }),
    ...(onLead && { lead: onLead }),
    ...(guard && { guard }),
    ...(onWay && { regulator: onWay }),
    rail: { name: own.rail.name, current: own.work, ...(own.voltage && { voltage: own.voltage }) },
    further,
    loads: consumers
      .map(({ id, name, count, from, work }) => ({ id, name, count, from, current: work }))
      .sort((a, b) => b.current.value.max - a.current.value.max),
    ...(heats.length > 0 && {
      lost: sum(
        { label: 'Heat on the way, all together', symbol: 'P_lost', unit: 'W' },
        Object.fromEntries(heats.map((h, n) => [`P_${n + 1}`, asVariable(h)])),
        (i) => total(Object.values(i), dimensionOf('W')),
      ),
    }),
    ...(second &&
      feedRail && {
        feed: {
          name: second.source.part.name,
          current: second.work,
          ...leftOf(second.source.part, 'current', second.source.part.current, second.work),
          ...(feedRail.voltage && { voltage: feedRail.voltage }),
        },
      }),
  }
}
