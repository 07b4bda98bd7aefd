// The exact pin solver: branch and bound. Without the rules about units, channels and currents what is left is a plain
// assignment of signals to pins, whose least cost is a bound; uses of scarce channels and of leg groups are charged a
// price that makes the bound as high as it can be. Where the assignment breaks a rule the search branches on that rule
// and nowhere else. Choices (a device's wiring, a byte's place) are taken first; until then stand-ins hold the pins
// that whatever is chosen will need.

import { conflict, type Way } from './conflict'
import { forbidden } from './lap'
import { endless, type Patience } from '../patience'
import { picksFor } from './picks'
import { overfull } from './pigeonholes'
import type { Candidate, PlanProblem, PlanResult, Solution } from './problem'
import { asGiven } from './small'
import {
  boundOf,
  dropNeedless,
  excess,
  isStuck,
  kill,
  liftsOf,
  needsPrices,
  propagate,
  update,
} from './narrow'
import {
  copyNode,
  dropped,
  type Frame,
  frameOf,
  isOpen,
  isWanted,
  type Node,
  pricedCost,
  rootOf,
  taken,
  undecided,
} from './state'

/** Bounds are sums of floating prices; costs are whole numbers. */
export const tiny = 1e-6

export interface SolveOptions {
  patience?: Patience
  /** Only candidates like these. */
  only?: (signal: number, candidate: Candidate) => boolean
  /** Any plan will do: ends with the first one, as “found” unless it is proven. */
  first?: boolean
  /** A plan that is known already. */
  known?: Solution
}

/** Solves to a proven optimum or a proof that there is none, or says that the patience ran out. Deterministic. */
export const solvePlan = (problem: PlanProblem, options: SolveOptions = {}): PlanResult =>
  prepare(problem)(options)

/** The same problem asked several times, with other candidates left out each time. */
export const prepare = (problem: PlanProblem): ((options?: SolveOptions) => PlanResult) => {
  let frame: Frame | undefined
  return (options = {}) => search((frame ??= frameOf(problem)), options)
}

/** The search itself, over a prepared problem. */
export const search = (
  frame: Frame,
  {
    patience = endless,
    only,
    first: anyPlan = false,
    known,
    root: seeRoot,
    from,
  }: SolveOptions & {
    /** Shown the first node, once its bound is as high as it can be made. */
    root?: (node: Node) => void
    /** Begins with this node instead of everything. */
    from?: Node
  },
): PlanResult => {
  const { problem, small, choices, asks, likeChoice, budgets, loads } = frame
  const signals = problem.signals.length
  let nodes = 0
  let spent = false
  let best: Solution | undefined = known
  let limit = known?.cost ?? Infinity
  /** While a first plan is looked for: no prices, and only so many nodes. */
  let hurried = false
  let hurry = 0
  /** No plan costs less: what the first assignment says. */
  let rootBound = 0
  /** Bounds of the branches that are still to be looked at, outermost first. */
  const open: number[] = []
  const lowest = () => Math.ceil(Math.min(limit, ...open) - tiny)

  const tell = () => patience.progress?.({ best: best?.cost, bound: lowest() })
  const isSpent = () =>
    (spent ||= hurried
      ? best !== undefined || ++hurry > 60 || patience.spent()
      : (anyPlan && best !== undefined) || patience.spent())

  const keepSolution = (node: Node, chosen: Int32Array): number => {
    let cost = 0
    for (let r = 0; r < signals; r++) if (chosen[r]! >= 0) cost += small.cost[chosen[r]!]!
    const picked = choices.map((c) => c.options.find((o) => node.option[o.id] === taken))
    for (const o of picked) cost += o?.cost ?? 0
    if (cost < limit) {
      limit = cost
      best = { cost, chosen: asGiven(small, chosen), options: picked.map((o) => o?.id) }
      tell()
    }
    return cost
  }

  const priced = new Set<number>()
  for (let i = 0; i < small.row.length; i++) if (small.channels[i]!.length > 0) priced.add(small.row[i]!)
  for (let r = 0; r < signals; r++) if (loads[r]! > 0 && budgets.length > 0) priced.add(r)

  /** Raises prices of what is over its room and lowers those of what is under it, while the bound gains by it. */
  const raise = (
    node: Node,
    at: { bound: number; price: number },
    chosen: Int32Array,
    times: number,
  ): { node: Node; bound: number; price: number; chosen: Int32Array } | undefined => {
    let kept = { node, ...at, chosen }
    let current = kept
    let pace = 1
    let idle = 0
    for (let n = 0; n < times && !isSpent(); n++) {
      const { channel, budget } = excess(frame, current.chosen)
      let square = 0
      for (let c = 0; c < channel.length; c++)
        if (channel[c]! > 0 || current.node.channelPrice[c]! > 0) square += channel[c]! ** 2
        else channel[c] = 0
      for (let b = 0; b < budget.length; b++)
        if (budget[b]! > 0 || current.node.budgetPrice[b]! > 0) square += budget[b]! ** 2
        else budget[b] = 0
      if (square === 0) break
      const aim = limit < Infinity ? limit : kept.bound + Math.max(4, 0.1 * Math.abs(kept.bound))
      const step = (pace * Math.max(0.5, aim - current.bound)) / square
      const next = copyNode(current.node)
      for (let c = 0; c < channel.length; c++)
        if (channel[c] !== 0) next.channelPrice[c] = Math.max(0, next.channelPrice[c]! + step * channel[c]!)
      for (let b = 0; b < budget.length; b++)
        if (budget[b] !== 0) next.budgetPrice[b] = Math.max(0, next.budgetPrice[b]! + step * budget[b]!)
      const updated = update(frame, next, priced)
      if (!updated) return undefined
      const bound = boundOf(frame, next, updated.price)
      current = { node: next, bound, price: updated.price, chosen: picksFor(frame, next) }
      if (bound > kept.bound + 0.05) idle = 0
      else if (++idle % 3 === 0) pace /= 2
      if (bound > kept.bound) kept = current
      if (Math.ceil(kept.bound - tiny) >= limit) break
      if (idle > 9) break
    }
    return kept
  }

  /** Candidates that alone would push the bound over the best plan known. */
  const unaffordable = (node: Node, bound: number): Set<number> => {
    const rows = new Set<number>()
    if (limit === Infinity) return rows
    const spare = limit - 1 - bound + tiny
    const { lap } = node
    for (let r = 0; r < signals; r++) {
      const slot = lap.slotOf[r]!
      if (slot < 0) continue
      const price = lap.slotPrice[slot]!
      for (let i = small.from[r]!; i < small.from[r + 1]!; i++)
        if (node.alive[i] && pricedCost(frame, node, i) - price - lap.pinPrice[small.pin[i]!]! > spare) {
          node.alive[i] = 0
          rows.add(r)
        }
    }
    return rows
  }

  /** The open choice to make next: the one with the fewest options left; of equal ones the first. */
  const nextChoice = (node: Node): number => {
    let at = -1
    let fewest = Infinity
    for (let c = 0; c < choices.length; c++) {
      if (!isOpen(frame, node, c)) continue
      if (choices.some((_, k) => k < c && likeChoice[k] === likeChoice[c] && isOpen(frame, node, k))) continue
      const left = choices[c]!.options.filter((o) => node.option[o.id] === undecided).length
      if (left < fewest) {
        fewest = left
        at = c
      }
    }
    return at
  }

  /** Drops options of bytes that alone would push the bound over the best plan known. */
  const dropDear = (
    node: Node,
    bound: number,
    { total, least, lift }: ReturnType<typeof liftsOf>,
  ): Set<number> => {
    const rows = new Set<number>()
    const gone = new Set<number>()
    for (const [c, min] of least)
      for (const o of choices[c]!.options) {
        const own = lift[o.id]!
        if (own >= 0 && Math.ceil(bound + total - min + own - tiny) >= limit) {
          node.option[o.id] = dropped
          gone.add(o.id)
        }
      }
    if (gone.size > 0)
      for (let i = 0; i < small.option.length; i++)
        if (node.alive[i] && gone.has(small.option[i]!)) {
          node.alive[i] = 0
          rows.add(small.row[i]!)
        }
    return rows
  }

  /** The options of a choice, the one that the assignment already agrees with most first. */
  const orderedOptions = (node: Node, c: number, chosen: Int32Array, lift: Float64Array) => {
    const left = choices[c]!.options.filter((o) => node.option[o.id] === undecided)
    const price = new Map<number, number>()
    for (const o of left) {
      let sum = lift[o.id]! < 0 ? o.cost : lift[o.id]!
      for (const r of asks[o.id]!) {
        let least = forbidden
        for (let p = 0; p < small.pins; p++) least = Math.min(least, node.costs[r * small.pins + p]!)
        sum += least
      }
      price.set(o.id, sum)
    }
    const agrees = new Map<number, number>()
    for (let i = 0; i < small.option.length; i++) {
      const o = small.option[i]!
      const row = small.row[i]!
      if (o >= 0 && node.alive[i] && chosen[row]! >= 0 && small.pin[chosen[row]!] === small.pin[i])
        agrees.set(o, (agrees.get(o) ?? 0) + 1)
    }
    return left.sort(
      (a, b) => price.get(a.id)! - price.get(b.id)! || (agrees.get(b.id) ?? 0) - (agrees.get(a.id) ?? 0),
    )
  }

  const visit = (node: Node, touchedRows: Set<number>, depth: number): void => {
    nodes++
    if (isSpent()) return
    const rows = touchedRows
    if (isStuck(frame, node) || !propagate(frame, node, rows)) return
    const first = update(frame, node, rows)
    if (!first) return
    let bound = boundOf(frame, node, first.price)
    if (depth === 0) rootBound = Math.max(rootBound, bound)
    if (Math.ceil(bound - tiny) >= limit) return
    if (overfull(frame, node)) return
    let chosen = picksFor(frame, node)
    let current = node
    let ways: Way[] | undefined
    let lowering = false
    for (;;) {
      const openChoice = nextChoice(current)
      ways = conflict(frame, current, chosen)
      if (ways && ways.length === 0) return
      if (!hurried && !lowering && (ways || needsPrices(current))) {
        const raised = raise(
          current,
          { bound, price: first.price },
          chosen,
          depth === 0 && !from ? 60 : ways ? 6 : 3,
        )
        if (!raised) return
        ;({ node: current, bound, chosen } = raised)
        if (Math.ceil(bound - tiny) >= limit) return
        ways = conflict(frame, current, chosen)
        if (ways && ways.length === 0) return
      }
      if (depth === 0 && !lowering) seeRoot?.(current)
      if (isSpent()) {
        open.push(bound)
        return
      }
      const lost = unaffordable(current, bound)
      if (lost.size > 0) {
        if (!propagate(frame, current, lost)) return
        const updated = update(frame, current, lost)
        if (!updated) return
        bound = boundOf(frame, current, updated.price)
        if (Math.ceil(bound - tiny) >= limit) return
        chosen = picksFor(frame, current)
        ways = conflict(frame, current, chosen)
        if (ways && ways.length === 0) return
      }
      if (openChoice >= 0) {
        let lifts = liftsOf(frame, current)
        let sum = bound + lifts.total
        if (Math.ceil(sum - tiny) >= limit) return
        const dear = dropDear(current, bound, lifts)
        if (dear.size > 0) {
          const updated = update(frame, current, dear)
          if (!updated) return
          bound = boundOf(frame, current, updated.price)
          lifts = liftsOf(frame, current)
          sum = Math.max(sum, bound + lifts.total)
          if (Math.ceil(sum - tiny) >= limit) return
          chosen = picksFor(frame, current)
        }
        const next = nextChoice(current)
        if (next >= 0) return branchOnChoice(current, next, chosen, sum, lifts.lift, depth)
        ways = conflict(frame, current, chosen)
      }
      if (ways) break
      const cost = keepSolution(current, chosen)
      if (cost <= bound + tiny || Math.ceil(bound - tiny) >= limit) return
      lowering = true
      // Prices of what is not used up hide a gap: without them the bound says what the assignment costs.
      const { channel, budget } = excess(frame, chosen)
      let slack = false
      for (let c = 0; c < channel.length; c++)
        if (current.channelPrice[c]! > 0 && channel[c]! < 0) {
          current.channelPrice[c] = 0
          slack = true
        }
      for (let b = 0; b < budget.length; b++)
        if (current.budgetPrice[b]! > 0 && budget[b]! < -1e-12) {
          current.budgetPrice[b] = 0
          slack = true
        }
      if (!slack) return
      const updated = update(frame, current, priced)
      if (!updated) return
      bound = boundOf(frame, current, updated.price)
      chosen = picksFor(frame, current)
      if (Math.ceil(bound - tiny) >= limit) return
      ways = conflict(frame, current, chosen)
      if (ways) break
    }
    if (ways.length === 0) return
    const level = open.push(bound) - 1
    for (let w = 0; w < ways.length; w++) {
      const way = ways[w]!
      const next = w === ways.length - 1 ? current : copyNode(current)
      for (const u of way.units) next.touched[u] = 1
      if (way.hold) next.held[way.hold.pin] = way.hold.channel
      visit(next, kill(frame, next, way.keep), depth + 1)
      if (isSpent()) {
        open[level] = bound
        return
      }
      if (Math.ceil(bound - tiny) >= limit) break
    }
    open.length = level
  }

  const branchOnChoice = (
    node: Node,
    c: number,
    chosen: Int32Array,
    bound: number,
    lift: Float64Array,
    depth: number,
  ): void => {
    const level = open.push(bound) - 1
    const options = orderedOptions(node, c, chosen, lift)
    for (let k = 0; k < options.length; k++) {
      const next = copyNode(node)
      for (const o of choices[c]!.options)
        if (next.option[o.id] !== dropped) next.option[o.id] = o === options[k] ? taken : dropped
      const rank = choices[c]!.options.indexOf(options[k]!)
      for (let other = c + 1; other < choices.length; other++)
        if (likeChoice[other] === likeChoice[c])
          for (const o of choices[other]!.options.slice(0, rank))
            if (next.option[o.id] === undecided) next.option[o.id] = dropped
      dropNeedless(frame, next)
      const rows = kill(frame, next, (i) => small.option[i]! < 0 || next.option[small.option[i]!] !== dropped)
      for (const o of choices[c]!.options) for (const r of asks[o.id]!) rows.add(r)
      for (let r = 0; r < signals; r++) if (isWanted(frame, next, r) && next.lap.slotOf[r]! < 0) rows.add(r)
      visit(next, rows, depth + 1)
      if (isSpent()) {
        open[level] = bound
        return
      }
      if (Math.ceil(bound - tiny) >= limit) break
    }
    open.length = level
  }

  const root = from ?? rootOf(frame)
  if (only && !from)
    for (let i = 0; i < root.alive.length; i++)
      if (root.alive[i] && !small.originals[i]!.some((c) => only(small.row[i]!, c))) root.alive[i] = 0
  dropNeedless(frame, root)
  const rows = new Set(from ? [] : Array.from({ length: signals }, (_, r) => r))
  // A first plan at once, so that there is one to show and to compare with; then the search proper.
  let looked = false
  if (!known) {
    hurried = true
    visit(copyNode(root), new Set(rows), 0)
    looked = !spent
    hurried = false
    spent = false
    open.length = 0
  }
  if (!looked && !isSpent()) visit(root, rows, 0)
  if (!spent) return best ? { status: 'proven', ...best, nodes } : { status: 'infeasible', nodes }
  const bound = Math.max(0, open.length > 0 ? lowest() : Math.ceil(Math.min(rootBound, limit) - tiny))
  if (!best) return { status: 'undecided', bound, nodes }
  return bound >= best.cost
    ? { status: 'proven', ...best, nodes }
    : { status: 'found', ...best, bound, nodes }
}
