// How the states follow one another, to be drawn: each comes so often, first one after the other, and what meets waits.

import type { StateChoice } from '../design'
import type { StateId } from './state'

export interface Segment {
  /** Seconds from the beginning. */
  from: number
  to: number
  state: StateId
}

const day = 86400

/** Seconds from one time to the next; undefined for what has the rest of the time, and for what never comes. */
export const periodOf = ({ lasts, every, perDay }: StateChoice): number | undefined =>
  lasts === undefined ? undefined : (every ?? (perDay ? day / perDay : undefined))

/**
 * What is done in the first `window` seconds. When exactly a state comes is not known: here they begin one after the other,
 * and one that would begin while another lasts waits for it. At most `most` segments; undefined where that isn’t enough.
 */
export const cycleWithin = (
  states: readonly StateChoice[],
  window: number,
  most = 1000,
): Segment[] | undefined => {
  const rest = states.find((s) => s.lasts === undefined)
  let offset = 0
  let count = 0
  const times: { at: number; lasts: number; state: StateId }[] = []
  for (const s of states) {
    const period = periodOf(s)
    if (period === undefined) continue
    count += Math.ceil(window / period)
    if (2 * count > most) return undefined
    for (let at = offset; at < window; at += period) times.push({ at, lasts: s.lasts!, state: s.id })
    offset += s.lasts!
  }
  times.sort((a, b) => a.at - b.at)
  const segments: Segment[] = []
  let now = 0
  const until = (to: number, state: StateId | undefined) => {
    const end = Math.min(to, window)
    if (end > now && state !== undefined) segments.push({ from: now, to: end, state })
    now = Math.max(now, end)
  }
  for (const { at, lasts, state } of times) {
    until(at, rest?.id)
    until(now + lasts, state)
  }
  until(window, rest?.id)
  return segments
}
