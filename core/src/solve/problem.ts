// The pin problem without electronics: signals, pins, and the ways ("candidates") in which a pin can serve a signal.
// The demand builder makes it from parts; the solver, its oracle and the benchmark all speak it.

import type { Patience } from '../patience'

export interface Candidate {
  pin: number
  /** For each target the unit that serves it (a timer, an SPI …), or −1 when any leg will do without one. */
  units: readonly number[]
  /** What only one signal may use: a unit's line, an interrupt line, a second target's pin. */
  channels: readonly number[]
  /** A whole number, 0 or more. */
  cost: number
  /** May be used only when this option is taken. */
  option?: number
}

export interface PlanSignal {
  candidates: Candidate[]
  /** Signals of one group need one unit on each target, and a unit serves one group: a bus. */
  group?: number
  /** Signals with a frequency can share a unit only when theirs is the same: PWM on one timer. */
  frequency?: number
  /** Wanted only when one of these options is taken; absent: always wanted. */
  when?: readonly number[]
  /** Current through the pin, a whole number (µA), against the budgets. */
  load?: number
}

/** Exactly one option is taken: a device's wiring, a byte's place. */
export interface PlanChoice {
  options: readonly { id: number; cost: number }[]
  /** Made only when this option of an earlier choice is taken: the place of a byte that one wiring has. */
  when?: number
}

/** The loads on these pins together stay within a limit: a leg group's current. */
export interface PlanBudget {
  pins: readonly number[]
  limit: number
}

export interface PlanProblem {
  pins: number
  units: number
  channels: number
  signals: PlanSignal[]
  choices?: PlanChoice[]
  budgets?: PlanBudget[]
}

/**
 * What the solver decided: for each signal its candidate (undefined: not wanted), for each choice its option
 * (undefined: not made).
 */
export interface Solution {
  cost: number
  chosen: (Candidate | undefined)[]
  options: (number | undefined)[]
}

export type PlanResult =
  /** No plan costs less. */
  | ({ status: 'proven'; nodes: number } & Solution)
  /** There is no plan, and that is proven. */
  | { status: 'infeasible'; nodes: number }
  /** Given up with a plan: no plan costs less than `bound`. */
  | ({ status: 'found'; bound: number; nodes: number } & Solution)
  /** Given up without a plan and without a proof that there is none. */
  | { status: 'undecided'; bound: number; nodes: number }

export const hasPlan = (r: PlanResult): r is PlanResult & Solution =>
  r.status === 'proven' || r.status === 'found'

export interface SolveOptions {
  patience?: Patience
  /** Only candidates like these. */
  only?: (signal: number, candidate: Candidate) => boolean
  /** Any plan will do: ends with the first one, as “found” unless it is proven. */
  first?: boolean
  /** A plan that is known already. */
  known?: Solution
}
