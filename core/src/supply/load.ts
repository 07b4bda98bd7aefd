// The supply with what is drawn from it: how much flows along every link and what is left of every rail’s voltage.

import { exactly } from '../quantity'
import type { Period } from '../states'
import { type Drawn, flowsOf, loadedOf, type RailLoad } from './flows'
import type { Converter, OpenSupply, Plugged, RailId } from './graph'
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
  const collapsing = new Set<Converter>()
  for (let round = 0; ; round++) {
    const loaded = loadedOf(supply, draws, inputs, periods)
    const voltage = voltagesOf(supply, loaded)
    let changed = false
    for (const c of switching) {
      const [was, now] = [inputs.get(c.id)!, voltage[c.from]!.value]
      // Below half of what there is without a load a source gives less power the more is taken.
      const floor = supply.open[c.from]!.value.min / 2
      if (now.min <= floor || round >= rounds) collapsing.add(c)
      const next = {
        min: Math.max(floor, now.min),
        typ: Math.max(floor, now.typ),
        max: Math.max(floor, now.max),
      }
      if (corners.some((at) => Math.abs(was[at] - next[at]) > settled)) changed = true
      inputs.set(c.id, next)
    }
    if (changed && round < rounds) continue
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
