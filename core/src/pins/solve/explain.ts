// Questions about a plan: what each leg would cost a signal, which needs can't be met together, what comes next best.

import type { Candidate, PlanProblem, Solution } from './problem'
import { solvePlan } from './solve'

/** Signals that are always wanted, and choices with the signals that only they ask for. Indices, ascending. */
export interface Clash {
  signals: number[]
  choices: number[]
}

/** The problem without some needs. A signal wanted under a dropped choice alone goes with it. */
const withOnly = (problem: PlanProblem, { signals, choices }: Clash): PlanProblem => {
  const kept = new Set(signals)
  const all = problem.choices ?? []
  const dropped = new Set(
    all.flatMap((c, i) => (choices.includes(i) ? [] : c.options.map((option) => option.id))),
  )
  return {
    ...problem,
    choices: choices.map((i) => all[i]!),
    signals: problem.signals.flatMap((s, i) => {
      if (s.when === undefined ? !kept.has(i) : s.when.every((o) => dropped.has(o))) return []
      const candidates = s.candidates.map((c) =>
        c.option !== undefined && dropped.has(c.option) ? { ...c, option: undefined } : c,
      )
      return [{ ...s, candidates, when: s.when?.filter((o) => !dropped.has(o)) }]
    }),
  }
}

type Member = { signal: number } | { choice: number }
const asClash = (members: Member[]): Clash => ({
  signals: members.flatMap((m) => ('signal' in m ? [m.signal] : [])),
  choices: members.flatMap((m) => ('choice' in m ? [m.choice] : [])),
})

/** Whether only these needs could be met together. */
export const solvableAlone = (problem: PlanProblem, needs: Clash): boolean =>
  solvePlan(withOnly(problem, needs)).status !== 'infeasible'

/**
 * A smallest clash: needs that can't be met together, while without any one of them the rest can (deletion filter).
 * Undefined when everything can be met. `known`: the solver has found no plan already.
 */
export const smallestClash = (problem: PlanProblem, known = false): Clash | undefined => {
  const solvable = (members: Member[]) => solvableAlone(problem, asClash(members))
  let clash: Member[] = [
    ...problem.signals.flatMap((s, signal) => (s.when === undefined ? [{ signal }] : [])),
    ...(problem.choices ?? []).map((_, choice) => ({ choice })),
  ]
  if (!known && solvable(clash)) return undefined
  // A signal that no pin can serve is a clash by itself.
  const hopeless = clash.find((m) => 'signal' in m && problem.signals[m.signal]!.candidates.length === 0)
  if (hopeless) return asClash([hopeless])
  // Halving first: whole blocks that the clash does not need go at once.
  for (let size = Math.max(1, clash.length >> 1); size >= 1; size >>= 1)
    for (let at = 0; at < clash.length;) {
      const rest = [...clash.slice(0, at), ...clash.slice(at + size)]
      if (!solvable(rest)) clash = rest
      else at += size
    }
  return asClash(clash)
}

/** Whether two candidates of a signal are the same to the builder: moving between them makes no other plan. */
export type Same = (a: Candidate, b: Candidate) => boolean

/**
 * The `count` cheapest plans after the best, each differing from every earlier one in a choice or in at least one
 * signal by `same`, cheapest first (Lawler's partition: each found plan splits what is left into parts that agree with
 * it up to one decision). Fewer when there are no more.
 */
export const nextPlans = (
  problem: PlanProblem,
  count: number,
  same: Same = (a, b) => a.pin === b.pin,
): Solution[] => {
  interface Part {
    problem: PlanProblem
    solution: Solution
  }
  const solve = (part: PlanProblem): Part | undefined => {
    const result = solvePlan(part)
    return result.status === 'optimal' ? { problem: part, solution: result } : undefined
  }
  const split = ({ problem: part, solution }: Part): Part[] => {
    const parts: (Part | undefined)[] = []
    const choices = [...(part.choices ?? [])]
    choices.forEach((choice, i) => {
      const options = choice.options.filter((o) => o.id !== solution.options[i])
      if (options.length > 0) parts.push(solve({ ...part, choices: choices.with(i, { options }) }))
      choices[i] = { options: choice.options.filter((o) => o.id === solution.options[i]) }
    })
    const signals = [...part.signals]
    signals.forEach((signal, s) => {
      const chosen = solution.chosen[s]
      if (!chosen) return
      const others = signal.candidates.filter((c) => !same(c, chosen))
      if (others.length > 0)
        parts.push(solve({ ...part, choices, signals: signals.with(s, { ...signal, candidates: others }) }))
      signals[s] = { ...signal, candidates: signal.candidates.filter((c) => same(c, chosen)) }
    })
    return parts.filter((p) => p !== undefined)
  }
  const found: Solution[] = []
  const first = solve(problem)
  let open = first ? split(first) : []
  while (found.length < count && open.length > 0) {
    const next = open.reduce((a, b) => (b.solution.cost < a.solution.cost ? b : a))
    found.push(next.solution)
    open = open.filter((p) => p !== next)
    if (found.length < count) open.push(...split(next))
  }
  return found
}
