// What the page asks of its worker.

import type { Analysis, OtherBoard, Preview, VariantVerdict } from '@root-board/core/analysis'
import type { CandidateChip } from '@root-board/core/chip'
import type { Design, Edit } from '@root-board/core/design'
import type { Library } from '@root-board/core/parts'
import type { NextPlan, ReachEntry } from '@root-board/core/pins'

export interface AnalysisWorker {
  setLibrary: (library: Library) => void
  analyse: (design: Design) => Analysis
  preview: (design: Design, edits: Edit[]) => Preview
  /** One carrier of the library against the project. */
  candidate: (design: Design, id: string) => CandidateChip | undefined
  nextPlans: (design: Design) => NextPlan[]
  variants: (design: Design) => VariantVerdict[]
  otherBoards: (design: Design) => OtherBoard[]
  reach: (design: Design, signal: string) => ReachEntry[]
}
