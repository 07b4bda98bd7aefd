// Which needs can't be met together.

import { endless, type Patience } from '../patience'
import type { PlanProblem } from './problem'
import { solvePlan } from './solve'

/** Signals that are always wanted, and choices with the signals that only they ask for. Indices, ascending. */
export interface Clash {
  signals: number[]
  choices: number[]
  /** Set when the patience ran out before each member was seen to be needed: the clash may be larger than it must. */
  unsure?: true
}

/** The problem without some needs. A signal wanted under a dropped choice alone goes with it. */
const withOnly = (problem: PlanProblem, { signals, choices }: Clash): PlanProblem => {
  const kept = new Set(signals)
  const all = problem.choices ?? []
  const left = new Set(choices)
  const gone = new Set<number>()
  const stays = all.map((c, i) => {
    const here = c.when === undefined ? left.has(i) : !gone.has(c.when)
    if (!here) for (const o of c.options) gone.add(o.id)
    return here
  })
  return {
    ...problem,
    choices: all.filter((_, i) => stays[i]),
    signals: problem.signals.flatMap((s, i) => {
      if (s.when === undefined ? !kept.has(i) : s.when.every((o) => gone.has(o))) return []
      const candidates = s.candidates.map((c) =>
        c.option !== undefined && gone.has(c.option) ? { ...c, option: undefined } : c,
      )
      return [{ ...s, candidates, when: s.when?.filter((o) => !gone.has(o)) }]
    }),
  }
}

type Member = { signal: number } | { choice: number }
const asClash = (members: Member[]): Clash => ({
  signals: members.flatMap((m) => ('signal' in m ? [m.signal] : [])),
  choices: members.flatMap((m) => ('choice' in m ? [m.choice] : [])),
})

/** Whether only these needs could be met together; undefined when the patience ran out before that was clear. */
export const solvableAlone = (
  problem: PlanProblem,
  needs: Clash,
  patience: Patience = endless,
): boolean | undefined => {
  const { status } = solvePlan(withOnly(problem, needs), { patience, first: true })
  return status === 'undecided' ? undefined : status !== 'infeasible'
}

/**
 * A smallest clash: needs that can't be met together, while without any one of them the rest can (deletion filter).
 * Undefined when everything can be met, or nothing is proven. `known`: the solver has proven that there is no plan.
 */
export const smallestClash = (
  problem: PlanProblem,
  { known = false, patience = endless }: { known?: boolean; patience?: Patience } = {},
): Clash | undefined => {
  const solvable = (members: Member[]) => solvableAlone(problem, asClash(members), patience)
  let clash: Member[] = [
    ...problem.signals.flatMap((s, signal) => (s.when === undefined ? [{ signal }] : [])),
    ...(problem.choices ?? []).flatMap((c, choice) => (c.when === undefined ? [{ choice }] : [])),
  ]
  if (!known && solvable(clash) !== false) return undefined
  // A signal that no pin can serve is a clash by itself.
  const hopeless = clash.find((m) => 'signal' in m && problem.signals[m.signal]!.candidates.length === 0)
  if (hopeless) return asClash([hopeless])
  let unsure = false
  // Halving first: whole blocks that the clash does not need go at once.
  for (let size = Math.max(1, clash.length >> 1); size >= 1; size >>= 1)
    for (let at = 0; at < clash.length;) {
      if (patience.spent()) return { ...asClash(clash), unsure: true }
      const rest = [...clash.slice(0, at), ...clash.slice(at + size)]
      const without = solvable(rest)
      if (without === false) clash = rest
      else {
        if (without === undefined && size === 1) unsure = true
        at += size
      }
    }
  return unsure ? { ...asClash(clash), unsure } : asClash(clash)
}
