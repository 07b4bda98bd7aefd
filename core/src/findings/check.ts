// A check looks for one kind of mistake over everything the stages have computed.

import type { StageName } from '../design'
import type { Finding } from './finding'
import type { Given, OnDemand, Results } from './results'

/** What the stages made, and what can be asked beside it. */
export interface Stages extends Results, OnDemand, Given {
  /**
   * Whether fixes are asked for that take sums or the planner: another leg, carrier, regulator or source. The analysis of an
   * edit does without; they are worked out for the one finding that is opened (see `proposalsFor`).
   */
  proposing: boolean
}

/** What a check finds, before it is said of which check. */
export type Found = Omit<Finding, 'check' | 'stage'>

export interface Check {
  id: string
  stage: StageName
  looksFor: string
  /** Where the rule comes from. */
  rule: string
  run: (stages: Stages) => Found[]
}

export const runChecks = (checks: readonly Check[], stages: Stages): Finding[] =>
  checks.flatMap((check) => check.run(stages).map((f) => ({ ...f, check: check.id, stage: check.stage })))
