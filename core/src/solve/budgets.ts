import type { PlanProblem } from './problem'

/** Whether these loads on these pins stay within every budget. */
export const keepsBudgets = (
  { budgets }: PlanProblem,
  placed: readonly { pin: number; load: number }[],
): boolean =>
  (budgets ?? []).every(
    ({ pins, limit }) =>
      placed.reduce((sum, { pin, load }) => sum + (load && pins.includes(pin) ? load : 0), 0) <= limit,
  )
