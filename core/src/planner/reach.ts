// Everything about one signal and all legs: where it could go, at what cost, who would have to move, and why not.

import { without } from '../design'
import type { CostItem } from '../legs'
import { type Demand, makeDemand, type Offer, type PinChoices, type PinQuestion } from './demand'
import { type Candidate, type PlanProblem, type PlanResult, prepare, solveAt } from '../solve'
import { type Patience, usualPatience } from '../patience'

export interface ReachEntry {
  pin: string
  /** Extra cost of the whole plan with the signal here, against the best plan; undefined when it can't be here. */
  extra?: number
  items: CostItem[]
  /** Why it can't. */
  reason?: string
  /** Signals that would move, with their new pins. */
  moves: { signal: string; name: string; to: string }[]
  /** The search was given up: `best so far` may be dearer than it must, `not decided` has no plan and no proof. */
  unsure?: 'best so far' | 'not decided'
}

/** One entry a pin, in the chip's order. Costs are those of whole plans, each solved to its optimum. */
export const reachOf = (
  question: PinQuestion,
  signalId: string,
  current: Record<string, string>,
  patience: Patience = usualPatience(),
): ReachEntry[] => {
  const { chip, choices } = question
  const locks = without(choices.locks, signalId)
  const kept = without(current, signalId)
  const open: PinChoices = { ...choices, locks, kept }
  const base = makeDemand({ ...question, choices: open })
  const at = base.signals.flatMap((s, i) => (s.id === signalId ? [i] : []))
  if (at.length === 0) return []
  /** Why a leg that could serve can't be had: whoever is on it has nowhere else to go. */
  const stuck = (pin: string): string => {
    const occupant = base.signals.find((s) => s.id !== signalId && current[s.id] === pin)
    return occupant ? `${occupant.name} has no other leg` : 'another signal then finds no leg'
  }
  /** Only wirings that have the signal: a leg for it is what is asked about. */
  const wantingIt = ({ problem, signals }: Demand): PlanProblem => {
    const when = new Set(
      problem.signals.flatMap((s, i) => (signals[i]!.id === signalId ? (s.when ?? []) : [])),
    )
    const choices = problem.choices?.map((c) => {
      const options = c.options.filter((o) => when.has(o.id))
      return options.length > 0 ? { ...c, options } : c
    })
    return { ...problem, choices }
  }
  const able = chip.pins.flatMap((_, p) => (at.some((i) => base.reasons[i]![p] === undefined) ? [p] : []))
  /** A locked neighbour is asked to leave: the builder sees who would move. */
  const neighbourOn = (pin: string) => Object.keys(locks).find((s) => locks[s] === pin)
  // A line that is wanted in any case (so there is one of it), where nobody is locked: all legs in one go.
  const simple = base.problem.signals[at[0]!]!.when === undefined
  const alone = able.filter((p) => !neighbourOn(chip.pins[p]!.id))
  const together = simple
    ? new Map(solveAt(base.problem, at[0]!, alone, patience).map((r, i) => [alone[i]!, r]))
    : undefined
  const ask = prepare(wantingIt(base))
  const resultAt = (p: number): PlanResult => {
    const known = together?.get(p)
    if (known) return known
    const neighbour = neighbourOn(chip.pins[p]!.id)
    const demand = neighbour
      ? makeDemand({ ...question, choices: { ...open, locks: without(locks, neighbour) } })
      : base
    const mine = new Set(demand.signals.flatMap((s, i) => (s.id === signalId ? [i] : [])))
    const only = (s: number, c: Candidate) => !mine.has(s) || c.pin === p
    return (neighbour ? prepare(wantingIt(demand)) : ask)({ patience, only })
  }
  const solved = chip.pins.map((pin, p): Omit<ReachEntry, 'extra'> & { cost?: number } => {
    const none = { pin: pin.id, items: [] as CostItem[], moves: [] }
    if (!able.includes(p)) return { ...none, reason: base.reasons[at[0]!]![p]?.words }
    const result = resultAt(p)
    if (result.status === 'undecided') return { ...none, unsure: 'not decided' }
    if (result.status === 'infeasible') return { ...none, reason: stuck(pin.id) }
    const offers = result.chosen.filter((c) => c !== undefined) as Offer[]
    const own = offers.find((o) => o.signal.id === signalId)
    return {
      pin: pin.id,
      cost: result.cost,
      unsure: result.status === 'found' ? 'best so far' : undefined,
      items: own?.items ?? [],
      moves: offers
        .filter(
          (o) =>
            o.signal.id !== signalId &&
            current[o.signal.id] !== undefined &&
            current[o.signal.id] !== o.chipPin.id,
        )
        .map((o) => ({ signal: o.signal.id, name: o.signal.name, to: o.chipPin.id })),
    }
  })
  const best = Math.min(...solved.map((s) => s.cost ?? Infinity))
  return solved.map(({ cost, ...rest }) => (cost === undefined ? rest : { ...rest, extra: cost - best }))
}
