// A node of the search: which candidates and options are still allowed, what the cheapest of them cost on each pin, and
// the least-cost assignment of the wanted rows.

import { copyLap, emptyLap, forbidden, type Lap, type Scratch, scratchFor } from './lap'
import type { PlanChoice, PlanProblem } from './problem'
import { type Classes, makeSmall, type Small } from './small'

export const undecided = 0
export const taken = 1
export const dropped = 2

/** What stays the same through a search. */
export interface Frame {
  problem: PlanProblem
  small: Small
  choices: readonly PlanChoice[]
  /** Signals, then stand-ins. */
  rows: number
  /** For each choice the rows that stand for whatever it will ask for, while it is open. */
  standIns: number[][]
  choiceOfStandIn: Int32Array
  /** For each option the signals that it alone asks for. */
  asks: number[][]
  /** For each signal the choices on which it depends. */
  choicesOf: number[][]
  optionCount: number
  /** For each choice the rows whose candidates depend on its options: the bits of a byte. */
  bits: number[][]
  /** Equal numbers: choices that can be exchanged for one another, bytes of equal devices. */
  likeChoice: number[]
  loads: Float64Array
  /** Per budget: its pins, and its limit lowered to what the loads can add up to. */
  budgets: { inside: Uint8Array; limit: number }[]
  /** Signals that belong to a bus. */
  inGroup: number[]
  scratch: Scratch
}

export interface Node {
  alive: Uint8Array
  option: Uint8Array
  /** Rows × pins: the cheapest living candidate with its prices of channels and budgets, and which it is. */
  costs: Float64Array
  pick: Int32Array
  lap: Lap
  /** What a use of each channel, and a full budget, is charged above its cost. */
  channelPrice: Float64Array
  budgetPrice: Float64Array
  /** Units on which the search has decided something: they are no longer like others. */
  touched: Uint8Array
  /** For each pin the channel that it serves and nothing else, or −1. */
  held: Int32Array
}

/** The largest sum of some of the loads that stays within a limit. */
const reachable = (loads: number[], limit: number): number => {
  let sums = new Set([0])
  for (const load of loads) {
    const next = new Set(sums)
    for (const s of sums) if (s + load <= limit) next.add(s + load)
    if (next.size > 4000) return limit
    sums = next
  }
  return Math.max(...sums)
}

const optionsIn = ({ choices = [], signals }: PlanProblem, { option }: Small): number => {
  let last = -1
  for (const { options, when } of choices) {
    for (const o of options) last = Math.max(last, o.id)
    last = Math.max(last, when ?? -1)
  }
  for (const { when } of signals) for (const o of when ?? []) last = Math.max(last, o)
  for (let i = 0; i < option.length; i++) if (option[i]! > last) last = option[i]!
  return 1 + last
}

/** Which rows hang on which choice, and which choices are alike: the same options for rows with the same candidates. */
const bitsOf = (
  { signals, choices = [] }: PlanProblem,
  small: Small,
  optionCount: number,
): Pick<Frame, 'bits' | 'likeChoice'> => {
  const choiceOf = new Int32Array(optionCount).fill(-1)
  const ranks = new Int32Array(optionCount).fill(-1)
  choices.forEach((c, choice) =>
    c.options.forEach((o, rank) => {
      choiceOf[o.id] = choice
      ranks[o.id] = rank
    }),
  )
  const bits: number[][] = choices.map(() => [])
  for (let i = 0; i < small.option.length; i++) {
    const c = small.option[i]! < 0 ? -1 : choiceOf[small.option[i]!]!
    if (c >= 0 && bits[c]!.at(-1) !== small.row[i]) bits[c]!.push(small.row[i]!)
  }
  const rankOf = (i: number) => (small.option[i]! < 0 ? -1 : ranks[small.option[i]!]!)
  const sameList = (a: readonly number[], b: readonly number[]) =>
    a === b || (a.length === b.length && a.every((x, i) => x === b[i]))
  const sameRow = (a: number, b: number): boolean => {
    const [s, t] = [signals[a]!, signals[b]!]
    const [first, other] = [small.from[a]!, small.from[b]!]
    const count = small.from[a + 1]! - first
    if (s.group !== undefined || t.group !== undefined || s.frequency !== t.frequency) return false
    if (s.load !== t.load || s.when?.join() !== t.when?.join()) return false
    if (small.from[b + 1]! - other !== count) return false
    for (let k = 0; k < count; k++) {
      const [i, j] = [first + k, other + k]
      if (small.pin[i] !== small.pin[j] || small.cost[i] !== small.cost[j] || rankOf(i) !== rankOf(j))
        return false
      if (!sameList(small.units[i]!, small.units[j]!) || !sameList(small.channels[i]!, small.channels[j]!))
        return false
    }
    return true
  }
  const sameChoice = (a: number, b: number): boolean =>
    choices[a]!.when === choices[b]!.when &&
    bits[a]!.length === bits[b]!.length &&
    choices[a]!.options.length === choices[b]!.options.length &&
    choices[a]!.options.every((o, i) => o.cost === choices[b]!.options[i]!.cost) &&
    bits[a]!.every((r, i) => sameRow(r, bits[b]![i]!))
  const likeChoice: number[] = []
  choices.forEach((_, c) => {
    const twin = bits[c]!.length === 0 ? -1 : likeChoice.findIndex((k, o) => k === o && sameChoice(o, c))
    likeChoice.push(twin < 0 ? c : twin)
  })
  return { bits, likeChoice }
}

export const frameOf = (problem: PlanProblem, classes?: Classes): Frame => {
  const small = makeSmall(problem, classes)
  const choices = problem.choices ?? []
  const optionCount = optionsIn(problem, small)
  const asks: number[][] = Array.from({ length: optionCount }, () => [])
  problem.signals.forEach((s, i) => {
    if (s.when?.length === 1) asks[s.when[0]!]!.push(i)
  })
  let rows = problem.signals.length
  const standIns = choices.map((choice) => {
    if (choice.when !== undefined || choice.options.length === 0) return []
    const count = Math.min(...choice.options.map((o) => asks[o.id]!.length))
    return Array.from({ length: count }, () => rows++)
  })
  const choiceOfStandIn = new Int32Array(rows).fill(-1)
  standIns.forEach((list, c) => list.forEach((r) => (choiceOfStandIn[r] = c)))
  const choiceOfOption = new Map(choices.flatMap((c, i) => c.options.map((o) => [o.id, i] as const)))
  const loads = Float64Array.from(problem.signals, (s) => s.load ?? 0)
  return {
    problem,
    small,
    choices,
    rows,
    standIns,
    choiceOfStandIn,
    asks,
    choicesOf: problem.signals.map((s) =>
      s.when?.length === 1 && choiceOfOption.has(s.when[0]!) ? [choiceOfOption.get(s.when[0]!)!] : [],
    ),
    optionCount,
    ...bitsOf(problem, small, optionCount),
    loads,
    budgets: (problem.budgets ?? []).map(({ pins, limit }) => {
      const inside = new Uint8Array(problem.pins)
      for (const p of pins) if (p >= 0) inside[p] = 1
      const within = problem.signals.flatMap((s, r) => {
        if (!s.load) return []
        for (let i = small.from[r]!; i < small.from[r + 1]!; i++) if (inside[small.pin[i]!]) return [s.load]
        return []
      })
      return { inside, limit: Math.min(limit, reachable(within, limit)) }
    }),
    inGroup: problem.signals.flatMap((s, r) => (s.group === undefined ? [] : [r])),
    scratch: scratchFor(problem.pins),
  }
}

export const rootOf = ({ small, choices, rows, optionCount, problem, loads, budgets }: Frame): Node => {
  const option = new Uint8Array(optionCount).fill(dropped)
  for (const c of choices) for (const o of c.options) option[o.id] = undecided
  const alive = new Uint8Array(small.row.length).fill(1)
  for (let i = 0; i < alive.length; i++) {
    const o = small.option[i]!
    if (o >= 0 && option[o] === dropped) alive[i] = 0
    const load = loads[small.row[i]!]!
    if (load > 0 && budgets.some((b) => load > b.limit && b.inside[small.pin[i]!])) alive[i] = 0
  }
  return {
    alive,
    option,
    costs: new Float64Array(rows * problem.pins).fill(forbidden),
    pick: new Int32Array(rows * problem.pins).fill(-1),
    lap: emptyLap(rows, problem.pins),
    channelPrice: new Float64Array(small.room.length),
    budgetPrice: new Float64Array(problem.budgets?.length ?? 0),
    touched: new Uint8Array(small.likeUnit.length),
    held: new Int32Array(problem.pins).fill(-1),
  }
}

export const copyNode = (n: Node): Node => ({
  alive: n.alive.slice(),
  option: n.option.slice(),
  costs: n.costs.slice(),
  pick: n.pick.slice(),
  lap: copyLap(n.lap),
  channelPrice: n.channelPrice.slice(),
  budgetPrice: n.budgetPrice.slice(),
  touched: n.touched.slice(),
  held: n.held.slice(),
})

export const isWanted = ({ problem }: Frame, { option }: Node, row: number): boolean => {
  const when = problem.signals[row]!.when
  return when === undefined || when.some((o) => option[o] === taken)
}

/** Whether a choice is still to be made (and will be, unless an earlier one makes it needless). */
export const isOpen = ({ choices }: Frame, { option }: Node, c: number): boolean => {
  const { when, options } = choices[c]!
  return (when === undefined || option[when] === taken) && options.some((o) => option[o.id] === undecided)
}

/** What a candidate costs with the prices of what it uses. */
export const pricedCost = ({ small, loads, budgets }: Frame, node: Node, i: number): number => {
  let sum = small.cost[i]!
  for (const c of small.channels[i]!) sum += node.channelPrice[c]!
  const load = loads[small.row[i]!]!
  if (load > 0)
    for (let b = 0; b < budgets.length; b++)
      if (node.budgetPrice[b]! > 0 && budgets[b]!.inside[small.pin[i]!])
        sum += (node.budgetPrice[b]! * load) / budgets[b]!.limit
  return sum
}

/** Writes the cheapest living candidate of a signal at each pin. */
export const refresh = (frame: Frame, node: Node, row: number): void => {
  const { small } = frame
  const at = row * small.pins
  node.costs.fill(forbidden, at, at + small.pins)
  for (let i = small.from[row]!; i < small.from[row + 1]!; i++) {
    if (!node.alive[i]) continue
    const cost = pricedCost(frame, node, i)
    const cell = at + small.pin[i]!
    if (cost < node.costs[cell]!) {
      node.costs[cell] = cost
      node.pick[cell] = i
    }
  }
}

const leastIn = (node: Node, row: number, pins: number): number => {
  let least = Infinity
  for (let p = 0, at = row * pins; p < pins; p++, at++) if (node.costs[at]! < least) least = node.costs[at]!
  return least
}

/** The least that an open choice can still cost, and its stand-ins’ costs above that. Infinity: no option is left. */
export const refreshChoice = (frame: Frame, node: Node, c: number): number => {
  const { choices, standIns, asks, small } = frame
  const { pins } = small
  const rows = standIns[c]!
  for (const r of rows) node.costs.fill(forbidden, r * pins, (r + 1) * pins)
  let least = Infinity
  for (const { id, cost } of choices[c]!.options) {
    if (node.option[id] === dropped) continue
    let price = cost
    const own = asks[id]!
    const bases = own.map((row) => leastIn(node, row, pins))
    for (const b of bases) price += b
    if (price >= forbidden) continue
    least = Math.min(least, price)
    rows.forEach((r, k) => {
      const from = own[k]! * pins
      for (let p = 0; p < pins; p++) {
        const above = node.costs[from + p]! - bases[k]!
        if (above < node.costs[r * pins + p]!) node.costs[r * pins + p] = above
      }
    })
  }
  return least
}
