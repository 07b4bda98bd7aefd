// Questions about a plan: what each leg would cost a signal, and which signals can't be met together.

import type { Candidate, PlanProblem } from './problem'
import { solvePlan } from './solve'

/** Cost of the best plan with `signal` on each pin; undefined where there is no such plan. Length: pins. */
export const costByPin = (problem: PlanProblem, signal: number): (number | undefined)[] =>
  Array.from({ length: problem.pins }, (_, pin) => {
    const candidates = problem.signals[signal]!.candidates.filter((c) => c.pin === pin)
    if (candidates.length === 0) return undefined
    const result = solvePlan(withCandidates(problem, signal, candidates))
    return result.status === 'optimal' ? result.cost : undefined
  })

const withCandidates = (problem: PlanProblem, signal: number, candidates: Candidate[]): PlanProblem => ({
  ...problem,
  signals: problem.signals.map((s, i) => (i === signal ? { ...s, candidates } : s)),
})

/**
 * A smallest clash: signals that can't be met together, while without any one of them the rest can
 * (deletion filter). Empty when everything can be met. Indices into `problem.signals`, ascending.
 */
export const smallestClash = (problem: PlanProblem): number[] => {
  const solvable = (members: number[]) =>
    solvePlan({ ...problem, signals: members.map((i) => problem.signals[i]!) }).status !== 'infeasible'
  let clash = problem.signals.map((_, i) => i)
  if (solvable(clash)) return []
  // A signal that no pin can serve is a clash by itself.
  const hopeless = clash.find((i) => problem.signals[i]!.candidates.length === 0)
  if (hopeless !== undefined) return [hopeless]
  // Halving first: whole blocks that the clash does not need go at once.
  for (let size = clash.length >> 1; size >= 1; size >>= 1)
    for (let at = 0; at < clash.length;) {
      const rest = [...clash.slice(0, at), ...clash.slice(at + size)]
      if (rest.length > 0 && !solvable(rest)) clash = rest
      else at += size
    }
  return clash
}
