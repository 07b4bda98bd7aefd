// What hangs beside the chip’s rail, and gets too little because of what is lost on the way.

import type { Worked } from '../findings'
import type { NeedsResult } from '../needs'
import { fullRange } from '../quantity'
import { type LoadedSupply, type OpenSupply, railFor, type RailId } from '../supply'

/** What no sheet is exact to, V. */
export const hair = 0.01

export interface Starved {
  name: string
  rail: RailId
  /** Its lowest supply, V. */
  least: number
  gets: Worked
  /** What it would get if nothing flowed. */
  open: Worked
}

/** One for each rail but the chip’s own: the neediest. What is too low even without a load is told elsewhere. */
export const starved = (
  { instances }: NeedsResult,
  supplies: OpenSupply,
  { rails }: Pick<LoadedSupply, 'rails'>,
): Starved[] => {
  const hungry = instances.flatMap(({ name, part, need }): Starved[] => {
    const { id } = railFor(supplies, need)
    const [open, gets] = [supplies.open[id], rails[id]?.voltage]
    if (!part.supply || !open || !gets || id === supplies.own) return []
    const { min: least } = fullRange(part.supply)
    return least > gets.value.min + hair && least <= open.value.min
      ? [{ name, rail: id, least, gets, open }]
      : []
  })
  return hungry
    .sort((a, b) => b.least - a.least)
    .filter((s, n, all) => all.findIndex((o) => o.rail === s.rail) === n)
}
