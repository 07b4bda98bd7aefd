// The supply with what is drawn from it: how much flows along every link and what is left of every rail’s voltage.

import { exactly } from '../quantity'
import type { Period } from '../states'
import { type Drawn, flowsOf, loadedOf, type RailLoad } from './flows'
import { type Converter, fromTheSource, type OpenSupply, type Plugged, type RailId } from './graph'
import { voltagesOf } from './voltages'

export interface SourceLoad extends Drawn {
  source: Plugged
}

export interface LoadedSupply {
  rails: Readonly<Record<RailId, RailLoad>>
  sources: readonly SourceLoad[]
  /** Converters that take more the lower their input gets, until the source can’t give it: there is no voltage at which it ends. */
  collapsing: readonly Converter[]
}

/** So near is near enough, V. */
const settled = 1e-4
const rounds = 60
const corners = ['min', 'typ', 'max'] as const

/**
 * Where a voltage gets to that falls by `fell`, then by `falls`, and on by the same share: less than it will in truth, since the
 * share grows as it falls. One step alone where it falls to the floor or hardly more slowly each time: that may be a collapse.
 */
const ahead = (to: number, falls: number, fell: number | undefined, floor: number): number => {
  if (fell === undefined || !(falls > settled && falls < 0.6 * fell)) return to
  const there = to - (falls * falls) / (fell - falls)
  return there > floor ? there : to
}

/**
 * Currents from the last rail to the sources, voltages the other way round. What a switching converter takes depends on
 * what it gets, which sags with what it takes: gone round, from the most that it can get downwards, until nothing changes any
 * more.
 */
export const withLoads = (
  supply: OpenSupply,
  draws: Readonly<Record<RailId, Drawn>>,
  /** What each of them takes is added up by the states of `draws`; with one or none its average is that of its loads. */
  periods: readonly Period[] = [],
): LoadedSupply => {
  const switching = supply.converters.filter((c) => c.part.topology === 'switching' && supply.open[c.from])
  const inputs = new Map(switching.map((c) => [c.id, exactly(supply.open[c.from]!.value.max)]))
  // Until what the last switching converter gets is settled nothing behind that is asked for.
  const order = fromTheSource(supply)
  const last = order.findLastIndex((rail) => switching.some((c) => c.from === rail.id)) + 1
  const fallen = new Map<string, number[]>()
  const collapsing = new Set<Converter>()
  for (let round = 0; ; round++) {
    const loaded = loadedOf(supply, draws, inputs, periods)
    const inFront = voltagesOf(supply, loaded, order.slice(0, last))
    let changed = false
    for (const c of switching) {
      const [was, now] = [inputs.get(c.id)!, inFront[c.from]!.value]
      // Below half of what there is without a load a source gives less power the more is taken.
      const floor = supply.open[c.from]!.value.min / 2
      if (now.min <= floor || round >= rounds) collapsing.add(c)
      const next = {
        min: Math.max(floor, now.min),
        typ: Math.max(floor, now.typ),
        max: Math.max(floor, now.max),
      }
      if (corners.some((at) => Math.abs(was[at] - next[at]) > settled)) changed = true
      const [fell, falls] = [fallen.get(c.id), corners.map((at) => was[at] - next[at])]
      const [min, typ, max] = corners.map((at, k) => ahead(next[at], falls[k]!, fell?.[k], floor))
      // A leap of one alone may overtake the others, which get below it in the end.
      const usual = Math.min(typ!, max!)
      inputs.set(c.id, { min: Math.min(min!, usual), typ: usual, max: max! })
      // Two steps make a leap; after it they are counted anew.
      if (fell) fallen.delete(c.id)
      else fallen.set(c.id, falls)
    }
    if (changed && round < rounds) continue
    const voltage = voltagesOf(supply, loaded, order.slice(last), inFront)
    const loads = flowsOf(supply, draws, inputs, periods, loaded)
    const rails = Object.fromEntries(
      supply.rails.map((r) => [r.id, { ...loads[r.id]!, voltage: voltage[r.id] }]),
    )
    const sources = supply.sources.map((source): SourceLoad => {
      const { rest, work, cycle, average } = rails[source.to]!
      return { source, rest, work, cycle, average }
    })
    return { rails, sources, collapsing: [...collapsing] }
  }
}
