// The pin problem without electronics: signals, pins, and the ways ("candidates") in which a pin can serve a signal.
// The demand builder makes it from parts; the solver, its oracle and the benchmark all speak it.

export interface Candidate {
  pin: number
  /** The unit that serves it (a timer, an SPI …), or −1 when any leg will do without one. */
  unit: number
  /** The unit's channel or line; no two signals share one. −1 when there is none. */
  channel: number
  /** A whole number, 0 or more. */
  cost: number
}

export interface PlanSignal {
  candidates: Candidate[]
  /** Signals of one group need one unit, and a unit serves one group: a bus. */
  group?: number
  /** Signals with a frequency can share a unit only when theirs is the same: PWM on one timer. */
  frequency?: number
}

export interface PlanProblem {
  pins: number
  units: number
  channels: number
  signals: PlanSignal[]
}

export type PlanResult =
  | { status: 'optimal'; cost: number; chosen: Candidate[]; nodes: number }
  | { status: 'infeasible'; nodes: number }
  /** The node limit ran out: the best plan so far, if any, and a cost that no plan can undercut. */
  | { status: 'stopped'; cost?: number; chosen?: Candidate[]; bound: number; nodes: number }
