// The exact pin solver: branch and bound. Without the rules about units, channels and currents what is left is a plain
// assignment of signals to pins, whose least cost is a bound; uses of scarce channels and of leg groups are charged a
// price that makes the bound as high as it can be. Where the assignment breaks a rule the search branches on that rule
// and nowhere else. Choices (a device's wiring, a byte's place) are taken first; until then stand-ins hold the pins
// that whatever is chosen will need.

import type { PlanProblem, PlanResult, SolveOptions } from './problem'
import { search } from './search'
import { type Frame, frameOf } from './state'

/** Solves to a proven optimum or a proof that there is none, or says that the patience ran out. Deterministic. */
export const solvePlan = (problem: PlanProblem, options: SolveOptions = {}): PlanResult =>
  prepare(problem)(options)

/** The same problem asked several times, with other candidates left out each time. */
export const prepare = (problem: PlanProblem): ((options?: SolveOptions) => PlanResult) => {
  let frame: Frame | undefined
  return (options = {}) => search((frame ??= frameOf(problem)), options)
}
