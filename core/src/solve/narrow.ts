// Narrowing a node of the search: candidates go, what follows from that goes too, and the assignment and its bound are
// brought up to date.

import { costOf, forbidden, release, settle } from './lap'
import {
  dropped,
  type Frame,
  isOpen,
  isWanted,
  type Node,
  pricedCost,
  refresh,
  refreshChoice,
  taken,
  undecided,
} from './state'

/** Removes candidates; returns the rows concerned. */
export const kill = ({ small }: Frame, node: Node, keep: (i: number) => boolean): Set<number> => {
  const rows = new Set<number>()
  for (let i = 0; i < node.alive.length; i++)
    if (node.alive[i] && !keep(i)) {
      node.alive[i] = 0
      rows.add(small.row[i]!)
    }
  return rows
}

/**
 * Each bus keeps the units that all its lines can have; one that has a single unit left keeps it to itself. Adds the
 * rows that lost candidates; false when a bus has no unit left.
 */
export const propagate = (frame: Frame, node: Node, rows: Set<number>): boolean => {
  const { problem, small, inGroup } = frame
  if (inGroup.length === 0) return true
  for (let again = true; again;) {
    again = false
    const unitsOf = new Map<number, Set<number>[]>()
    for (const r of inGroup) {
      const group = problem.signals[r]!.group!
      if (!isWanted(frame, node, r)) continue
      const here: Set<number>[] = []
      for (let i = small.from[r]!; i < small.from[r + 1]!; i++)
        if (node.alive[i]) small.units[i]!.forEach((u, t) => (here[t] ??= new Set()).add(u))
      if (here.length === 0) return false
      const known = unitsOf.get(group)
      unitsOf.set(group, known ? known.map((s, t) => new Set([...s].filter((u) => here[t]!.has(u)))) : here)
    }
    if (unitsOf.size === 0) return true
    const sole = new Map<number, number>()
    for (const [group, sets] of unitsOf)
      for (const s of sets) {
        if (s.size === 0) return false
        if (s.size > 1) continue
        const [u] = s
        if (sole.has(u!)) return false
        sole.set(u!, group)
      }
    for (const r of inGroup) {
      const group = problem.signals[r]!.group!
      const sets = unitsOf.get(group)
      for (let i = small.from[r]!; i < small.from[r + 1]!; i++) {
        if (!node.alive[i]) continue
        const kept = small.units[i]!.every(
          (u, t) => (!sets || sets[t]!.has(u)) && (!sole.has(u) || sole.get(u) === group),
        )
        if (kept) continue
        node.alive[i] = 0
        rows.add(r)
        again = true
      }
    }
  }
  return true
}

/** Brings the assignment up to date; false when there is none. `price`: what open choices still cost at least. */
export const update = (frame: Frame, node: Node, rows: Iterable<number>): { price: number } | undefined => {
  const { choices, standIns, scratch } = frame
  const changed: number[] = []
  for (const r of rows) {
    refresh(frame, node, r)
    if (isWanted(frame, node, r)) changed.push(r)
  }
  let price = 0
  const gone: number[] = []
  for (let c = 0; c < choices.length; c++) {
    if (!isOpen(frame, node, c)) {
      for (const r of standIns[c]!) if (node.lap.slotOf[r]! >= 0) gone.push(r)
      continue
    }
    const least = refreshChoice(frame, node, c)
    if (least >= forbidden) return undefined
    price += least
    changed.push(...standIns[c]!)
  }
  if (gone.length > 0) release(node.lap, gone, node.costs, scratch)
  return settle(node.lap, changed, node.costs, scratch) ? { price } : undefined
}

/** Options taken so far are paid; prices are given back for what may be used in any case. */
const fixedCost = ({ choices, small, budgets }: Frame, node: Node): number => {
  let sum = 0
  for (const c of choices) for (const o of c.options) if (node.option[o.id] === taken) sum += o.cost
  for (let c = 0; c < node.channelPrice.length; c++) sum -= node.channelPrice[c]! * small.room[c]!
  for (let b = 0; b < budgets.length; b++) sum -= node.budgetPrice[b]!
  return sum
}
/** No plan of this node costs less. `price`: what open choices still cost at least. */
export const boundOf = (frame: Frame, node: Node, price: number): number =>
  costOf(node.lap, node.costs) + price + fixedCost(frame, node)

export const needsPrices = (node: Node) =>
  node.channelPrice.some((p) => p > 0) || node.budgetPrice.some((p) => p > 0)

/** How far each channel and budget is over (above 0) or under its room. */
export const excess = ({ problem, small, budgets, loads }: Frame, chosen: Int32Array) => {
  const channel = new Float64Array(small.room.length)
  for (let c = 0; c < channel.length; c++) channel[c] = -small.room[c]!
  // Whole numbers until the end: a budget that is used up is over by nothing, and not by a rounding error that would ask any price.
  const load = new Float64Array(budgets.length)
  for (let r = 0; r < problem.signals.length; r++) {
    const i = chosen[r]!
    if (i < 0) continue
    for (const c of small.channels[i]!) channel[c]! += 1
    if (loads[r]! > 0)
      budgets.forEach((b, k) => {
        if (b.inside[small.pin[i]!]) load[k]! += loads[r]!
      })
  }
  return {
    channel,
    budget: load.map((sum, k) => (budgets[k]!.limit > 0 ? sum / budgets[k]!.limit - 1 : sum)),
  }
}

/**
 * What each option of an open byte adds to the bound at least: its price, and what its bits cost on its pins above the
 * assignment’s prices. Bits of different bytes are different rows, so the least of each byte add up.
 */
export const liftsOf = (
  frame: Frame,
  node: Node,
): {
  total: number
  /** By choice. */
  least: Map<number, number>
  /** By option; −1 where it is none of an open byte. */
  lift: Float64Array
} => {
  const { choices, bits, small, optionCount } = frame
  const lift = new Float64Array(optionCount).fill(-1)
  const least = new Map<number, number>()
  // What the cheapest candidate under an option adds in the row that is looked at; last: under none.
  const above = new Float64Array(optionCount + 1)
  let total = 0
  for (let c = 0; c < choices.length; c++) {
    if (bits[c]!.length === 0 || !isOpen(frame, node, c)) continue
    const open = choices[c]!.options.filter((o) => node.option[o.id] === undecided)
    let cheapest = Infinity
    for (const o of choices[c]!.options)
      if (node.option[o.id] !== dropped && o.cost < cheapest) cheapest = o.cost
    for (const o of open) lift[o.id] = o.cost - cheapest
    for (const r of bits[c]!) {
      const slot = node.lap.slotOf[r]!
      if (slot < 0) continue
      const price = node.lap.slotPrice[slot]!
      above.fill(Infinity)
      for (let i = small.from[r]!; i < small.from[r + 1]!; i++) {
        if (!node.alive[i]) continue
        const o = small.option[i]! < 0 ? optionCount : small.option[i]!
        if (above[o] === 0) continue
        const reduced = Math.max(0, pricedCost(frame, node, i) - price - node.lap.pinPrice[small.pin[i]!]!)
        if (reduced < above[o]!) above[o] = reduced
      }
      const free = above[optionCount]!
      for (const o of open) lift[o.id]! += Math.min(free, above[o.id]!)
    }
    let min = Infinity
    for (const o of open) if (lift[o.id]! < min) min = lift[o.id]!
    least.set(c, min)
    total += min
  }
  return { total, least, lift }
}

/** Whether a choice that must be made has no option left. */
export const isStuck = ({ choices }: Frame, { option }: Node): boolean =>
  choices.some(
    ({ when, options }) =>
      (when === undefined || option[when] === taken) && options.every((o) => option[o.id] === dropped),
  )

/** Choices that an option not taken makes needless lose their options. */
export const dropNeedless = ({ choices }: Frame, node: Node): void => {
  for (const c of choices)
    if (c.when !== undefined && node.option[c.when] === dropped)
      for (const o of c.options) node.option[o.id] = dropped
}
