// Branch and bound over a prepared problem: a first plan in a hurry, then every part of what is left that may hold a better one.

import { conflict, type Way } from './conflict'
import { dropDear, nextChoice, orderedOptions, unaffordable } from './choosing'
import { endless, type Patience } from '../patience'
import { picksFor } from './picks'
import { overfull } from './pigeonholes'
import { type Priced, raise, slacken } from './prices'
import type { PlanResult, Solution, SolveOptions } from './problem'
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
import { copyNode, dropped, type Frame, isWanted, type Node, rootOf, taken, undecided } from './state'
import { tiny } from './tiny'

export interface SearchOptions extends SolveOptions {
  /** Shown the first node, once its bound is as high as it can be made. */
  root?: (node: Node) => void
  /** Begins with this node instead of everything. */
  from?: Node
}

/** How many nodes the first plan may take. */
const hurry = 60
/** How often prices are raised at the root, where a rule is broken, and else. */
const raises = { root: 60, broken: 6, kept: 3 }

/** A node with what the assignment takes, and the ways in which the first rule that it breaks can be kept. */
interface At extends Priced {
  ways?: Way[]
}

/** Signals whose candidates are charged a price: for a channel, or for what they draw from a leg group. */
const pricedRows = ({ problem, small, budgets, loads }: Frame): Set<number> => {
  const priced = new Set<number>()
  for (let i = 0; i < small.row.length; i++) if (small.channels[i]!.length > 0) priced.add(small.row[i]!)
  for (let r = 0; r < problem.signals.length; r++) if (loads[r]! > 0 && budgets.length > 0) priced.add(r)
  return priced
}

class Search {
  private nodes = 0
  private spent = false
  private best: Solution | undefined
  private limit: number
  /** While a first plan is looked for: no prices, and only so many nodes. */
  private hurried = false
  private hurriedNodes = 0
  /** No plan costs less: what the first assignment says. */
  private rootBound = 0
  /** Bounds of the branches that are still to be looked at, outermost first. */
  private readonly open: number[] = []
  private readonly priced: Set<number>
  private readonly patience: Patience

  constructor(
    private readonly frame: Frame,
    private readonly options: SearchOptions,
  ) {
    this.best = options.known
    this.limit = options.known?.cost ?? Infinity
    this.patience = options.patience ?? endless
    this.priced = pricedRows(frame)
  }

  run(): PlanResult {
    const { frame } = this
    const { only, known, from } = this.options
    const { small } = frame
    const root = from ?? rootOf(frame)
    if (only && !from)
      for (let i = 0; i < root.alive.length; i++)
        if (root.alive[i] && !small.originals[i]!.some((c) => only(small.row[i]!, c))) root.alive[i] = 0
    dropNeedless(frame, root)
    const rows = new Set(from ? [] : Array.from({ length: frame.problem.signals.length }, (_, r) => r))
    // A first plan at once, so that there is one to show and to compare with; then the search proper.
    let looked = false
    if (!known) {
      this.hurried = true
      this.visit(copyNode(root), new Set(rows), 0)
      looked = !this.spent
      this.hurried = false
      this.spent = false
      this.open.length = 0
    }
    if (!looked && !this.isSpent()) this.visit(root, rows, 0)
    return this.result()
  }

  private result(): PlanResult {
    const { best, nodes, open } = this
    if (!this.spent) return best ? { status: 'proven', ...best, nodes } : { status: 'infeasible', nodes }
    const root = Math.ceil(Math.min(this.rootBound, this.limit) - tiny)
    const bound = Math.max(0, open.length > 0 ? this.lowest() : root)
    if (!best) return { status: 'undecided', bound, nodes }
    return bound >= best.cost
      ? { status: 'proven', ...best, nodes }
      : { status: 'found', ...best, bound, nodes }
  }

  private lowest(): number {
    return Math.ceil(Math.min(this.limit, ...this.open) - tiny)
  }
  /** Whether nothing behind this bound is better than the best plan known. */
  private isBeaten(bound: number): boolean {
    return Math.ceil(bound - tiny) >= this.limit
  }
  private isSpent(): boolean {
    return (this.spent ||= this.hurried
      ? this.best !== undefined || ++this.hurriedNodes > hurry || this.patience.spent()
      : (this.options.first === true && this.best !== undefined) || this.patience.spent())
  }

  private keepSolution({ node, chosen }: At): number {
    const { problem, small, choices } = this.frame
    let cost = 0
    for (let r = 0; r < problem.signals.length; r++) if (chosen[r]! >= 0) cost += small.cost[chosen[r]!]!
    const picked = choices.map((c) => c.options.find((o) => node.option[o.id] === taken))
    for (const o of picked) cost += o?.cost ?? 0
    if (cost < this.limit) {
      this.limit = cost
      this.best = { cost, chosen: asGiven(small, chosen), options: picked.map((o) => o?.id) }
      this.patience.progress?.({ best: cost, bound: this.lowest() })
    }
    return cost
  }

  private visit(node: Node, rows: Set<number>, depth: number): void {
    this.nodes++
    if (this.isSpent()) return
    const first = this.bounded(node, rows, depth)
    if (!first) return
    for (let at = first, lowering = false; ; lowering = true) {
      const choosing = nextChoice(this.frame, at.node) >= 0
      const narrowed = this.narrowed(at, depth, lowering)
      const next = narrowed && choosing ? this.branchedOrChosen(narrowed, depth) : narrowed
      if (!next) return
      if (next.ways) return this.branchOnWays(next, next.ways, depth)
      const lowered = this.keptAndLowered(next)
      if (!lowered) return
      if (lowered.ways) return this.branchOnWays(lowered, lowered.ways, depth)
      at = lowered
    }
  }

  /** What the assignment says of a node; nothing where it holds no better plan. */
  private bounded(node: Node, rows: Set<number>, depth: number): At | undefined {
    const { frame } = this
    if (isStuck(frame, node) || !propagate(frame, node, rows)) return undefined
    const updated = update(frame, node, rows)
    if (!updated) return undefined
    const bound = boundOf(frame, node, updated.price)
    if (depth === 0) this.rootBound = Math.max(this.rootBound, bound)
    if (this.isBeaten(bound) || overfull(frame, node)) return undefined
    return { node, bound, price: updated.price, chosen: picksFor(frame, node) }
  }

  /** The same after some candidates or prices have changed. */
  private again({ node, price }: At, rows: Set<number>): At | undefined {
    const { frame } = this
    const updated = update(frame, node, rows)
    if (!updated) return undefined
    const bound = boundOf(frame, node, updated.price)
    return { node, bound, price, chosen: picksFor(frame, node) }
  }

  /** With the rules that are broken; none, as opposed to undefined, means that they can’t be kept. */
  private judged(at: At): At | undefined {
    const ways = conflict(this.frame, at.node, at.chosen)
    return ways?.length === 0 ? undefined : { ...at, ways }
  }

  /** With prices raised and all left out that could only make a dearer plan. */
  private narrowed(from: At, depth: number, lowering: boolean): At | undefined {
    const { frame } = this
    let at = this.judged(from)
    if (at && !this.hurried && !lowering && (at.ways || needsPrices(at.node))) {
      const atRoot = depth === 0 && !this.options.from
      const raised = raise(
        { frame, priced: this.priced, limit: () => this.limit, isSpent: () => this.isSpent() },
        at,
        atRoot ? raises.root : at.ways ? raises.broken : raises.kept,
      )
      at = !this.isBeaten(raised.bound) ? this.judged(raised) : undefined
    }
    if (!at) return undefined
    if (depth === 0 && !lowering) this.options.root?.(at.node)
    if (this.isSpent()) {
      this.open.push(at.bound)
      return undefined
    }
    const lost = unaffordable(frame, at.node, at.bound, this.limit)
    if (lost.size === 0) return at
    if (!propagate(frame, at.node, lost)) return undefined
    const after = this.again(at, lost)
    return after && !this.isBeaten(after.bound) ? this.judged(after) : undefined
  }

  /** Branches on the next open choice; returns where none is left to make. */
  private branchedOrChosen(from: At, depth: number): At | undefined {
    const { frame } = this
    let at = from
    let lifts = liftsOf(frame, at.node)
    let bound = at.bound + lifts.total
    if (this.isBeaten(bound)) return undefined
    const dear = dropDear(frame, at.node, lifts, at.bound, this.limit)
    if (dear.size > 0) {
      const after = this.again(at, dear)
      if (!after) return undefined
      at = after
      lifts = liftsOf(frame, at.node)
      bound = Math.max(bound, at.bound + lifts.total)
      if (this.isBeaten(bound)) return undefined
    }
    const next = nextChoice(frame, at.node)
    if (next < 0) return this.judged(at)
    this.branchOnChoice({ ...at, bound }, next, lifts.lift, depth)
    return undefined
  }

  /** A plan: kept; and where its cost is above the bound, what the bound is without prices that hide that. */
  private keptAndLowered(at: At): At | undefined {
    const cost = this.keepSolution(at)
    if (cost <= at.bound + tiny || this.isBeaten(at.bound)) return undefined
    if (!slacken(at.node, excess(this.frame, at.chosen))) return undefined
    const after = this.again(at, this.priced)
    return after && !this.isBeaten(after.bound) ? this.judged(after) : undefined
  }

  /** Each branch in turn, while there may be something better; what is left open when the patience ends is noted. */
  private branches(bound: number, count: number, visit: (k: number) => void): void {
    const level = this.open.push(bound) - 1
    for (let k = 0; k < count; k++) {
      visit(k)
      if (this.isSpent()) {
        this.open[level] = bound
        return
      }
      if (this.isBeaten(bound)) break
    }
    this.open.length = level
  }

  private branchOnWays({ node, bound }: At, ways: Way[], depth: number): void {
    this.branches(bound, ways.length, (w) => {
      const way = ways[w]!
      const next = w === ways.length - 1 ? node : copyNode(node)
      for (const u of way.units) next.touched[u] = 1
      if (way.hold) next.held[way.hold.pin] = way.hold.channel
      this.visit(next, kill(this.frame, next, way.keep), depth + 1)
    })
  }

  private branchOnChoice({ node, bound, chosen }: At, c: number, lift: Float64Array, depth: number): void {
    const { frame } = this
    const { problem, small, choices, likeChoice, asks } = frame
    const options = orderedOptions(frame, node, c, chosen, lift)
    this.branches(bound, options.length, (k) => {
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
      for (let r = 0; r < problem.signals.length; r++)
        if (isWanted(frame, next, r) && next.lap.slotOf[r]! < 0) rows.add(r)
      this.visit(next, rows, depth + 1)
    })
  }
}

/** The search itself, over a prepared problem. */
export const search = (frame: Frame, options: SearchOptions): PlanResult => new Search(frame, options).run()
