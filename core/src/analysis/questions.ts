// Questions about a design that are asked one at a time, outside the analysis of every edit.

import { asCarried, type CandidateChip, carrierOf, judgeChip } from '../chip'
import { railVoltage } from '../circuit'
import type { Design } from '../design'
import { resolveNeeds } from '../needs'
import type { Library } from '../parts'
import { type NextPlan, nextBestPlans } from '../pins'
import { analyse } from './analyse'

/** One carrier against the project; undefined when the library has none of that id. */
export const candidateOf = (decided: Design, library: Library, id: string): CandidateChip | undefined => {
  const carrier = carrierOf(library, id)
  const design = asCarried(decided, library)
  return (
    carrier &&
    judgeChip(carrier, design, library, resolveNeeds(design, library), railVoltage(design, library))
  )
}

/** The next best pin plans of the chosen carrier; none while the best one is a clash. */
export const nextPlansOf = (design: Design, library: Library): NextPlan[] => {
  const { chip, pins } = analyse(design, library)
  return chip.chip && pins.plan?.status === 'planned'
    ? nextBestPlans(chip.chip, resolveNeeds(design, library).open, design.pins, pins.taken, pins.plan)
    : []
}
