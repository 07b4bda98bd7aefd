// Which candidate each signal uses on the pin it was given: where several cost the same, those that keep the rules about
// channels, buses and frequencies.

import { type Frame, isWanted, type Node, pricedCost } from './state'

export const picksFor = (frame: Frame, node: Node): Int32Array => {
  const { small, problem } = frame
  const { lap, costs } = node
  const chosen = new Int32Array(problem.signals.length).fill(-1)
  const rows: { r: number; open: number[] }[] = []
  for (let r = 0; r < chosen.length; r++) {
    if (lap.slotOf[r]! < 0 || !isWanted(frame, node, r)) continue
    const pin = lap.pinOf[lap.slotOf[r]!]!
    const cost = costs[r * small.pins + pin]!
    const open: number[] = []
    for (let i = small.from[r]!; i < small.from[r + 1]!; i++)
      if (small.pin[i] === pin && node.alive[i] && pricedCost(frame, node, i) <= cost + 1e-9) open.push(i)
    chosen[r] = open[0]!
    if (open.length > 1 || small.channels[open[0]!]!.length > 0 || small.units[open[0]!]!.length > 0)
      rows.push({ r, open })
  }
  const key = (r: number) => problem.signals[r]!.frequency ?? -1
  const group = (r: number) => problem.signals[r]!.group ?? -1
  rows.sort((a, b) => a.open.length - b.open.length || group(a.r) - group(b.r) || key(a.r) - key(b.r))
  const used = new Map<number, number>()
  const groupOn = new Map<number, number>()
  const unitsOf = new Map<number, readonly number[]>()
  const frequencyOn = new Map<number, number>()
  const faults = (r: number, i: number): number => {
    let n = 0
    for (const c of small.channels[i]!) if ((used.get(c) ?? 0) >= small.room[c]!) n += 2
    const { group: g, frequency: f } = problem.signals[r]!
    if (g !== undefined) {
      const before = unitsOf.get(g)
      small.units[i]!.forEach((u, t) => {
        if (before ? before[t] !== u : groupOn.has(u)) n += 3
      })
    } else if (f !== undefined)
      for (const u of small.units[i]!) {
        const other = u < 0 ? undefined : frequencyOn.get(u)
        if (other !== undefined && other !== f) n += 3
        // A timer that runs at this frequency already leaves the others free.
        else if (other === undefined) n += 0.5
      }
    return n
  }
  for (const { r, open } of rows) {
    let best = open[0]!
    let least = Infinity
    for (const i of open) {
      const n = faults(r, i)
      if (n < least) {
        least = n
        best = i
      }
    }
    chosen[r] = best
    for (const c of small.channels[best]!) used.set(c, (used.get(c) ?? 0) + 1)
    const { group: g, frequency: f } = problem.signals[r]!
    if (g !== undefined) {
      unitsOf.set(g, small.units[best]!)
      for (const u of small.units[best]!) groupOn.set(u, g)
    } else if (f !== undefined) for (const u of small.units[best]!) if (u >= 0) frequencyOn.set(u, f)
  }
  return chosen
}
