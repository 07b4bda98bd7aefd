// A check looks for one kind of mistake over everything the stages have computed.

import type { BuildResult } from '../build'
import type { ChipResult } from '../chip'
import type { ClockResult } from '../clock'
import type { Design, StageName } from '../design'
import type { NeedsResult } from '../needs'
import type { Chip, Library } from '../parts'
import type { Patience, PinsResult } from '../pins'
import type { PowerResult, RankedRegulator } from '../power'
import type { Finding } from './finding'

/** What the stages made, in working order. */
export interface Stages {
  design: Design
  library: Library
  needs: NeedsResult
  chip: ChipResult
  clock: ClockResult
  pins: PinsResult
  power: PowerResult
  build: BuildResult
  /** Another carrier that would fit, the cheapest; found only when a check asks, since it solves many. */
  fitting: () => Chip | undefined
  /** Every regulator at this load and input; ranked only when a check asks. */
  regulators: () => RankedRegulator[]
  /**
   * Whether fixes are asked for that need the planner: another leg, another carrier. The analysis of an edit does
   * without; they are worked out for the one finding that is opened (see `proposalsFor`).
   */
  proposing: boolean
  /** What is left of it for questions that a check asks of the planner. */
  patience: Patience
}

export interface Check {
  id: string
  stage: StageName
  looksFor: string
  /** Where the rule comes from. */
  rule: string
  run: (stages: Stages) => Omit<Finding, 'check' | 'stage'>[]
}

export const runChecks = (checks: readonly Check[], stages: Stages): Finding[] =>
  checks.flatMap((check) => check.run(stages).map((f) => ({ ...f, check: check.id, stage: check.stage })))
