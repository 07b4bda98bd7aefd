// What was used of each budget after each of the last edits.

import { type Design, libraryFor } from '../design'
import type { Library } from '../parts'
import type { Patience } from '../patience'
import { analyse } from './analyse'
import { type BudgetName, budgetOf } from './budget'

/** At the value that counts; absent where there is nothing to compute, or no end of it. */
export interface BudgetAt {
  used: Partial<Record<BudgetName, number>>
  /** The legs were not planned in the time given: more may have been used. */
  undecided: boolean
}

/** For each design in turn; undefined where the time ended before it. */
export const trendOf = (
  designs: readonly Design[],
  library: Library,
  patience: Patience,
): (BudgetAt | undefined)[] => {
  let before: ReturnType<typeof analyse> | undefined
  return designs.map((design) => {
    if (patience.spent()) return undefined
    const analysis = analyse(design, libraryFor(design, library), patience, before)
    before = analysis
    return {
      used: Object.fromEntries(
        budgetOf(analysis).flatMap(({ name, used, corner }) => (used ? [[name, used.value[corner]]] : [])),
      ),
      undecided: analysis.pins.plan?.status === 'undecided',
    }
  })
}
