// Questions about a plan: which needs can't be met together, and what comes next best.

import { endless, type Patience } from './patience'
import type { Candidate, PlanProblem, Solution } from './problem'
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

/** Whether two candidates of a signal are the same to the builder: moving between them makes no other plan. */
export type Same = (a: Candidate, b: Candidate) => boolean

export interface NextOptions {
  same?: Same
  /** Equal numbers: signals that can be exchanged for one another, so that exchanging them makes no other plan. */
  kindOf?: (signal: number) => number | undefined
  patience?: Patience
}

/**
 * The `count` cheapest plans after the best, each differing from every earlier one in a choice or in at least one
 * signal by `same`, cheapest first (Lawler's partition: each found plan splits what is left into parts that agree with
 * it up to one decision). Fewer when there are no more; `complete` is false when the patience ran out before that was
 * known.
 */
export const nextPlans = (
  problem: PlanProblem,
  count: number,
  { same = (a, b) => a.pin === b.pin, kindOf, patience = endless }: NextOptions = {},
): { plans: Solution[]; complete: boolean } => {
  interface Part {
    problem: PlanProblem
    /** No plan of this part costs less. */
    least: number
    solution?: Solution
  }
  let complete = true
  const open: Part[] = [{ problem, least: 0 }]
  const split = ({ problem: part, least }: Part, solution: Solution): void => {
    const add = (problem: PlanProblem) => open.push({ problem, least: Math.max(least, solution.cost) })
    const choices = [...(part.choices ?? [])]
    choices.forEach((choice, i) => {
      const chosen = solution.options[i]
      if (chosen === undefined) return
      const options = choice.options.filter((o) => o.id !== chosen)
      if (options.length > 0) add({ ...part, choices: choices.with(i, { ...choice, options }) })
      choices[i] = { ...choice, options: choice.options.filter((o) => o.id === chosen) }
    })
    const signals = [...part.signals]
    const tried = new Set<string>()
    signals.forEach((signal, s) => {
      const chosen = solution.chosen[s]
      if (!chosen) return
      const others = signal.candidates.filter((c) => !same(c, chosen))
      const kind = kindOf?.(s)
      // A signal like an earlier one, placed alike: any plan in which this one differs is one in which that one does.
      const key =
        kind === undefined
          ? `only ${s}`
          : `${kind} ${chosen.units.join()} ${chosen.cost} ${signal.candidates.map((c) => `${c.pin}/${c.cost}`).join()}`
      if (others.length > 0 && !tried.has(key))
        add({ ...part, choices, signals: signals.with(s, { ...signal, candidates: others }) })
      tried.add(key)
      signals[s] = { ...signal, candidates: signal.candidates.filter((c) => same(c, chosen)) }
    })
  }
  const found: Solution[] = []
  // The part that may hold the cheapest plan is solved when it comes first, and not before.
  while (found.length <= count && open.length > 0) {
    const at = open.reduce((a, p, i) => {
      const [x, y] = [p, open[a]!]
      return x.least < y.least || (x.least === y.least && x.solution && !y.solution) ? i : a
    }, 0)
    const [part] = open.splice(at, 1)
    if (part!.solution) {
      found.push(part!.solution)
      if (found.length <= count) split(part!, part!.solution)
      continue
    }
    const result = solvePlan(part!.problem, { patience })
    if (result.status === 'found' || result.status === 'undecided') complete = false
    if (result.status === 'proven') open.push({ ...part!, least: result.cost, solution: result })
    if (!complete && patience.spent()) break
  }
  return { plans: found.slice(1), complete }
}
