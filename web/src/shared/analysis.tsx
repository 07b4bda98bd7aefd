// The analysis of the open design, for every part of the page.

import type { Analysis } from '@root-board/core/analysis'
import type { Design, Edit } from '@root-board/core/design'
import type { Shown, Worked } from '@root-board/core/findings'
import type { Library } from '@root-board/core/parts'
import type { Progress } from '@root-board/core/patience'
import { createContext, useContext } from 'react'
import { useProject } from '../store/project'

export interface StageData {
  analysis: Analysis
  /** A newer design is being analysed. */
  pending: boolean
  library: Library
  design: Design
  /** How a number of that analysis was worked out; undefined where the worker has gone on to newer ones. */
  workingOf: (analysis: Analysis, shown: Shown) => Promise<Worked | undefined>
  /** While it is looked longer for a plan: how far that has come. */
  looking?: Progress
  lookLonger: () => void
  /** What is shown was looked for longer than an edit’s two seconds. */
  lookedLonger: boolean
  /** Enough of looking: what has been found is shown. */
  enough: () => void
}

export const StageContext = createContext<StageData | undefined>(undefined)

export const useStage = (): StageData & { edit: (edits: Edit | Edit[], label?: string) => void } => {
  const data = useContext(StageContext)
  const edit = useProject((s) => s.edit)
  if (!data) throw new Error('outside a project')
  return { ...data, edit }
}
