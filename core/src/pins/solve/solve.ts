// The exact pin solver: branch and bound. Dropping the rules about units leaves a plain assignment of signals to pins,
// whose least cost is a bound. Where its answer breaks a rule (a bus on two units, two buses on one, two frequencies on
// a timer, a channel used twice) the search branches on that rule, and nowhere else.

import { type Assignment, assign, forbidden } from './assignment'
import type { Candidate, PlanProblem, PlanResult } from './problem'

export interface SolveOptions {
  /** Search nodes before giving up with the best plan so far. */
  maxNodes?: number
}

/** One way to narrow the search: the candidates to keep, of those that the narrowing is about. */
type Branch = (signal: number, candidate: Candidate) => boolean

/** Solves to a proven optimum, a proof that there is none, or the node limit. Deterministic. */
export const solvePlan = (problem: PlanProblem, { maxNodes = 200_000 }: SolveOptions = {}): PlanResult => {
  const { signals, pins } = problem
  const rows = signals.length
  let nodes = 0
  let best: { cost: number; chosen: Candidate[] } | undefined
  let rootBound: number | undefined
  const costs = new Float64Array(rows * Math.max(pins, 1))
  const pick = new Int32Array(rows * Math.max(pins, 1))

  /** Bound by pins: cheapest living candidate of each signal at each pin, then least-cost assignment. */
  const byPins = (alive: Candidate[][]): Assignment | undefined => {
    costs.fill(forbidden)
    for (let s = 0; s < rows; s++) {
      const list = alive[s]!
      for (let i = 0; i < list.length; i++) {
        const c = list[i]!
        const at = s * pins + c.pin
        if (c.cost < costs[at]!) {
          costs[at] = c.cost
          pick[at] = i
        }
      }
    }
    return assign(costs, rows, pins)
  }

  /** Bound by channels: the same with channels for columns, a private one for signals that need none. */
  const byChannels = (alive: Candidate[][]): Assignment | undefined => {
    const width = problem.channels + rows
    const table = new Float64Array(rows * width).fill(forbidden)
    alive.forEach((list, s) =>
      list.forEach((c) => {
        const at = s * width + (c.channel >= 0 ? c.channel : problem.channels + s)
        if (c.cost < table[at]!) table[at] = c.cost
      }),
    )
    return assign(table, rows, width)
  }

  const narrowed = (alive: Candidate[][], keep: Branch): Candidate[][] | undefined => {
    const next: Candidate[][] = []
    for (let s = 0; s < rows; s++) {
      const list = alive[s]!
      const kept = list.every((c) => keep(s, c)) ? list : list.filter((c) => keep(s, c))
      if (kept.length === 0) return undefined
      next.push(kept)
    }
    return next
  }

  const search = (alive: Candidate[][]): void => {
    if (nodes >= maxNodes) return
    nodes++
    const found = byPins(alive)
    if (!found) return
    rootBound ??= found.cost
    if (best && found.cost >= best.cost) return
    const chosen = alive.map((list, s) => list[pick[s * pins + found.columns[s]!]!]!)
    const branches = conflict(problem, alive, chosen)
    if (!branches) {
      best = { cost: found.cost, chosen }
      return
    }
    if (branches.channel) {
      const bound = byChannels(alive)
      if (!bound || (best && bound.cost >= best.cost)) return
    }
    for (const keep of branches.ways) {
      const next = narrowed(alive, keep)
      if (next) search(next)
      if (best && found.cost >= best.cost) return
    }
  }

  const start = signals.map((s) => s.candidates)
  if (start.every((list) => list.length > 0)) search(start)
  if (nodes >= maxNodes)
    return { status: 'stopped', cost: best?.cost, chosen: best?.chosen, bound: rootBound ?? 0, nodes }
  return best ? { status: 'optimal', ...best, nodes } : { status: 'infeasible', nodes }
}

/** The first rule that `chosen` breaks, as the ways in which it can be kept; undefined when it breaks none. */
const conflict = (
  problem: PlanProblem,
  alive: Candidate[][],
  chosen: Candidate[],
): { ways: Branch[]; channel: boolean } | undefined => {
  const { signals } = problem
  const unitOfGroup = new Map<number, number>()
  const groupOfUnit = new Map<number, number>()
  for (let s = 0; s < chosen.length; s++) {
    const group = signals[s]!.group
    if (group === undefined) continue
    const unit = chosen[s]!.unit
    const other = unitOfGroup.get(group)
    if (other !== undefined && other !== unit)
      return { ways: unitsFor(problem, alive, group, other), channel: false }
    unitOfGroup.set(group, unit)
    const rival = groupOfUnit.get(unit)
    if (rival !== undefined && rival !== group) {
      const free = unitsFor(problem, alive, group, -1)
      return { ways: free.length > 1 ? free : unitsFor(problem, alive, rival, -1), channel: false }
    }
    groupOfUnit.set(unit, group)
  }
  const frequencyOfUnit = new Map<number, number>()
  for (let s = 0; s < chosen.length; s++) {
    const frequency = signals[s]!.frequency
    const unit = chosen[s]!.unit
    if (frequency === undefined || unit < 0) continue
    const other = frequencyOfUnit.get(unit)
    if (other !== undefined && other !== frequency)
      return { ways: frequenciesFor(problem, alive, unit), channel: false }
    frequencyOfUnit.set(unit, frequency)
  }
  const signalOfChannel = new Map<number, number>()
  for (let s = 0; s < chosen.length; s++) {
    const { channel } = chosen[s]!
    if (channel < 0) continue
    if (signalOfChannel.has(channel)) {
      const owner = signalOfChannel.get(channel)!
      return {
        ways: [
          (x, c) => (x === owner ? c.channel === channel : c.channel !== channel),
          (x, c) => x !== owner || c.channel !== channel,
        ],
        channel: true,
      }
    }
    signalOfChannel.set(channel, s)
  }
  return undefined
}

/** Each unit that could serve the whole group, as a branch that gives it to that group alone; `first` goes first. */
const unitsFor = ({ signals }: PlanProblem, alive: Candidate[][], group: number, first: number): Branch[] => {
  let units: Set<number> | undefined
  signals.forEach((s, i) => {
    if (s.group !== group) return
    const here = new Set(alive[i]!.map((c) => c.unit))
    units = units ? new Set([...units].filter((u) => here.has(u))) : here
  })
  return [...(units ?? [])]
    .sort((a, b) => Number(b === first) - Number(a === first) || a - b)
    .map(
      (unit) => (s, c) =>
        signals[s]!.group === group ? c.unit === unit : c.unit !== unit || signals[s]!.group === undefined,
    )
}

const frequenciesFor = ({ signals }: PlanProblem, alive: Candidate[][], unit: number): Branch[] => {
  const all = new Set<number>()
  signals.forEach((s, i) => {
    if (s.frequency !== undefined && alive[i]!.some((c) => c.unit === unit)) all.add(s.frequency)
  })
  return [...all].map(
    (frequency) => (s, c) =>
      c.unit !== unit || signals[s]!.frequency === undefined || signals[s]!.frequency === frequency,
  )
}
