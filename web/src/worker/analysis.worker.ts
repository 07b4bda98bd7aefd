import {
  analyse,
  candidateOf,
  nextPlansOf,
  otherBoardsOf,
  previewEdits,
  reachIn,
  variantsOf,
} from '@root-board/core/analysis'
import { type Design, libraryFor } from '@root-board/core/design'
import type { Library } from '@root-board/core/parts'
import { expose } from 'comlink'
import type { AnalysisWorker } from './protocol'

let shelf: Library = { parts: {} }
/** What the project was planned with goes before what the library says. */
const known = (design: Design) => libraryFor(design, shelf)

const worker: AnalysisWorker = {
  setLibrary: (next) => {
    shelf = next
  },
  analyse: (design) => analyse(design, known(design)),
  preview: (design, edits) => previewEdits(analyse(design, known(design)), known(design), edits),
  candidate: (design, id) => candidateOf(design, known(design), id),
  nextPlans: (design) => nextPlansOf(design, known(design)),
  variants: (design) => variantsOf(design, known(design)),
  otherBoards: (design) => otherBoardsOf(design, known(design)),
  reach: (design, signal) => reachIn(design, known(design), signal),
}

expose(worker)
