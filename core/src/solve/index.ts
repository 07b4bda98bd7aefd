export { solveAt } from './at'
export { keepsBudgets } from './budgets'
export { smallestClash } from './explain'
export { nextPlans } from './next'
export {
  type Candidate,
  hasPlan,
  type PlanBudget,
  type PlanChoice,
  type PlanProblem,
  type PlanResult,
  type Solution,
} from './problem'
export { prepare, solvePlan } from './solve'
