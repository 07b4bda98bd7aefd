// What the page asks of its workers.

import type {
  Analysis,
  BudgetAt,
  BudgetName,
  GivingUp,
  Offers,
  OtherBoard,
  Preview,
  Rhythm,
  VariantVerdict,
} from '@root-board/core/analysis'
import type { CandidateChip } from '@root-board/core/chip'
import type { Design, Edit, FurtherId } from '@root-board/core/design'
import type { LatchRun, LatchTry } from '@root-board/core/latch'
import type { Library } from '@root-board/core/parts'
import type { Worked } from '@root-board/core/findings'
import type { RankedLoad } from '@root-board/core/pins'
import type { NextPlan, ReachEntry } from '@root-board/core/planner'
import type { Progress } from '@root-board/core/patience'
import type {
  Burst,
  Charge,
  Compared,
  RankedLead,
  RankedRegulator,
  RankedDriven,
  RankedSource,
  Streams,
} from '@root-board/core/power'
import type { Path } from './path'

/** How long a question may take, and which one it is: a newer number in the shared cell ends it. */
export interface Limit {
  ms: number
  ticket: number
}

export interface AnalysisWorker {
  setLibrary: (library: Library) => void
  /** A cell shared with the page, where it may be shared: the number of the newest question. */
  setBell: (bell: Int32Array) => void
  /** The numbers in the answer come without how they were worked out, which `working` is asked for. */
  analyse: (design: Design, turn: number, limit: Limit, progress?: (at: Progress) => void) => Analysis
  /** How the number at this path of the answer of that turn was worked out; undefined where it is no longer kept. */
  working: (turn: number, path: Path) => Worked | undefined
  preview: (design: Design, edits: Edit[], limit: Limit) => Preview
  /** The proposed fixes of a finding, tried. Undefined when the design has no such finding. */
  offers: (design: Design, finding: string, limit: Limit) => Offers | undefined
  /** One carrier of the library against the project. */
  candidate: (design: Design, id: string, limit: Limit) => CandidateChip | undefined
  nextPlans: (design: Design, limit: Limit) => { plans: NextPlan[]; complete: boolean }
  /** Of the chip’s rail, or of a further one. `undecided`: the pins are not planned, so what their devices draw is not all in the load. */
  regulators: (
    design: Design,
    rail: FurtherId | undefined,
    limit: Limit,
  ) => { ranked: RankedRegulator[]; undecided: boolean }
  sources: (design: Design, limit: Limit) => { ranked: RankedSource[]; undecided: boolean }
  /** What could be given up for one limit of the budget, each tried. */
  giveUps: (design: Design, name: BudgetName, limit: Limit) => GivingUp
  trend: (designs: readonly Design[], limit: Limit) => (BudgetAt | undefined)[]
  /** Every wire and fuse in each lead. */
  leads: (design: Design, limit: Limit) => { ranked: RankedLead[]; undecided: boolean }
  /** Every transistor behind each switched load. */
  bridges: (design: Design, limit: Limit) => { ranked: RankedDriven[]; undecided: boolean }
  switches: (design: Design, limit: Limit) => { ranked: RankedLoad[]; undecided: boolean }
  /** What the latch does when this is done to it; undefined where there is none. */
  latch: (design: Design, of: LatchTry, limit: Limit) => LatchRun | undefined
  /** What flows on the way in a state, by its id; without one at the worst. */
  streams: (design: Design, state: string | undefined, limit: Limit) => Streams
  /** Each measurement against what was predicted, with what could explain the difference. */
  measured: (design: Design, limit: Limit) => Compared[]
  /** What each state pulls the source down by, and the capacitor that keeps it within so many volts. */
  bursts: (design: Design, allowed: number, limit: Limit) => Burst[]
  /** Where the charge goes; undefined where no source is chosen or nothing is drawn. */
  charge: (design: Design, limit: Limit) => Charge | undefined
  /** Undefined where the state has no time of its own. */
  rhythms: (design: Design, state: string, limit: Limit) => Rhythm[] | undefined
  variants: (design: Design, limit: Limit) => VariantVerdict[]
  otherBoards: (design: Design, limit: Limit) => OtherBoard[]
  reach: (design: Design, signal: string, limit: Limit) => ReachEntry[]
}
