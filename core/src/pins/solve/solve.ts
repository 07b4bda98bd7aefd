// The exact pin solver: branch and bound. Dropping the rules about units leaves a plain assignment of signals to pins,
// whose least cost is a bound. Where its answer breaks a rule (a bus on two units, two buses on one, two frequencies on
// a timer, a channel used twice, a leg group over its current) the search branches on that rule, and nowhere else.
// Choices (a device's wiring, a byte's place) are taken where nothing else is broken; until then only the signals that
// are wanted whatever is chosen take part.

import { type Assignment, assign, forbidden } from './assignment'
import { type Branch, conflict } from './conflict'
import type { Candidate, PlanProblem, PlanResult, Solution } from './problem'

export interface SolveOptions {
  /** Search nodes before giving up with the best plan so far. */
  maxNodes?: number
}

const undecided = 0
const taken = 1
const dropped = 2

/** Solves to a proven optimum, a proof that there is none, or the node limit. Deterministic. */
export const solvePlan = (problem: PlanProblem, { maxNodes = 100_000 }: SolveOptions = {}): PlanResult => {
  const { signals, pins } = problem
  const choices = problem.choices ?? []
  const rows = signals.length
  let nodes = 0
  let best: Solution | undefined
  let rootBound: number | undefined
  const costs = new Float64Array(rows * Math.max(pins, 1))
  const pick = new Int32Array(rows * Math.max(pins, 1))
  const offered = new Set(choices.flatMap((c) => c.options.map((o) => o.id)))
  const optionCount =
    1 +
    signals.reduce(
      (most, s) =>
        s.candidates.reduce((m, c) => Math.max(m, c.option ?? -1), Math.max(most, ...(s.when ?? []))),
      Math.max(-1, ...offered),
    )
  /** Signals that only this option asks for, so that its price can count their cheapest legs. */
  const asks: number[][] = Array.from({ length: optionCount }, () => [])
  signals.forEach((s, i) => {
    if (s.when?.length === 1) asks[s.when[0]!]!.push(i)
  })

  /** Bound by pins: cheapest living candidate of each wanted signal at each pin, then least-cost assignment. */
  const byPins = (alive: Candidate[][], wanted: number[]): Assignment | undefined => {
    costs.fill(forbidden, 0, wanted.length * pins)
    for (let r = 0; r < wanted.length; r++) {
      const list = alive[wanted[r]!]!
      for (let i = 0; i < list.length; i++) {
        const c = list[i]!
        const at = r * pins + c.pin
        if (c.cost < costs[at]!) {
          costs[at] = c.cost
          pick[at] = i
        }
      }
    }
    return assign(costs, wanted.length, pins)
  }

  const narrowed = (alive: Candidate[][], wanted: boolean[], keep: Branch): Candidate[][] | undefined => {
    const next: Candidate[][] = []
    for (let s = 0; s < rows; s++) {
      const list = alive[s]!
      const kept = list.every((c) => keep(s, c)) ? list : list.filter((c) => keep(s, c))
      if (kept.length === 0 && wanted[s]) return undefined
      next.push(kept)
    }
    return next
  }

  /** Cheapest that the open choices can still become, by their options’ own prices and the cheapest legs they need. */
  const openPrice = (alive: Candidate[][], state: Uint8Array): number => {
    let sum = 0
    for (const choice of choices) {
      let least = Infinity
      for (const { id, cost } of choice.options) {
        if (state[id] === dropped) continue
        let price = cost
        if (state[id] === undecided)
          for (const s of asks[id]!) price += Math.min(Infinity, ...alive[s]!.map((c) => c.cost))
        least = Math.min(least, price)
      }
      sum += least
    }
    return sum
  }

  /** Bound by channels: one column for each, a private one for signals that need none. */
  const byChannels = (alive: Candidate[][], wanted: number[]): number => {
    const using = wanted.filter((s) => alive[s]!.every((c) => c.channels.length > 0))
    const table = new Float64Array(using.length * problem.channels).fill(forbidden)
    using.forEach((s, r) =>
      alive[s]!.forEach((c) => {
        const at = r * problem.channels + c.channels[0]!
        if (c.cost < table[at]!) table[at] = c.cost
      }),
    )
    return assign(table, using.length, problem.channels)?.cost ?? Infinity
  }

  /** The plan that the last assignment stands for. */
  const planOf = (alive: Candidate[][], wanted: number[], found: Assignment): (Candidate | undefined)[] => {
    const chosen: (Candidate | undefined)[] = signals.map(() => undefined)
    wanted.forEach((s, r) => {
      chosen[s] = alive[s]![pick[r * pins + found.columns[r]!]!]
    })
    return chosen
  }

  /** Without the candidates that alone would push the bound over the best plan known, by the assignment’s duals. */
  const affordable = (
    alive: Candidate[][],
    wanted: number[],
    isWanted: boolean[],
    { rowPrice, columnPrice }: Assignment,
    spare: number,
  ): Candidate[][] | undefined => {
    const rowOf = new Int32Array(rows).fill(-1)
    wanted.forEach((s, r) => (rowOf[s] = r))
    return narrowed(
      alive,
      isWanted,
      (s, c) => rowOf[s]! < 0 || c.cost - rowPrice[rowOf[s]!]! - columnPrice[c.pin]! <= spare + 1e-9,
    )
  }

  const search = (alive: Candidate[][], state: Uint8Array, depth: number): void => {
    if (nodes >= maxNodes) return
    nodes++
    const isWanted = signals.map((s) => s.when === undefined || s.when.some((o) => state[o] === taken))
    const wanted = signals.flatMap((_, i) => (isWanted[i] ? [i] : []))
    if (wanted.some((s) => alive[s]!.length === 0)) return
    const rest = openPrice(alive, state)
    if (rest === Infinity) return
    const found = byPins(alive, wanted)
    if (!found) return
    const bound = found.cost + rest
    if (depth === 0) rootBound = bound
    if (best && bound >= best.cost) return
    const chosen = planOf(alive, wanted, found)
    const living = best ? affordable(alive, wanted, isWanted, found, best.cost - 1 - bound) : alive
    if (!living) return
    const open = choices.findIndex((choice) => choice.options.some((o) => state[o.id] === undecided))
    if (open >= 0) {
      const options = choices[open]!.options.filter((o) => state[o.id] !== dropped)
      for (const option of options.sort((a, b) => a.cost - b.cost)) {
        const next = state.slice()
        for (const o of choices[open]!.options) next[o.id] = o === option ? taken : dropped
        const kept = narrowed(
          living,
          isWanted,
          (_, c) => c.option === undefined || next[c.option] !== dropped,
        )
        if (kept) search(kept, next, depth + 1)
        if (best && bound >= best.cost) return
      }
      return
    }
    const broken = conflict(problem, living, chosen)
    if (!broken) {
      const options = choices.map((choice) => choice.options.find((o) => state[o.id] === taken)!.id)
      best = { cost: bound, chosen, options }
      return
    }
    if (broken.channel) {
      const other = byChannels(living, wanted)
      if (other === Infinity || (best && other + rest >= best.cost)) return
    }
    for (const keep of broken.ways) {
      const next = narrowed(living, isWanted, keep)
      if (next) search(next, state, depth + 1)
      if (best && bound >= best.cost) return
    }
  }

  if (choices.every((c) => c.options.length > 0))
    search(
      signals.map((s) => s.candidates.filter((c) => c.option === undefined || offered.has(c.option))),
      Uint8Array.from({ length: optionCount }, (_, id) => (offered.has(id) ? undecided : dropped)),
      0,
    )
  if (nodes >= maxNodes) return { status: 'stopped', ...best, bound: rootBound ?? 0, nodes }
  return best ? { status: 'optimal', ...best, nodes } : { status: 'infeasible', nodes }
}
