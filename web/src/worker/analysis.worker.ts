import {
  analyse,
  candidateOf,
  nextPlansOf,
  otherBoardsOf,
  previewEdits,
  variantsOf,
} from '@root-board/core/analysis'
import type { Library } from '@root-board/core/parts'
import { reachOf } from '@root-board/core/pins'
import { expose } from 'comlink'
import type { AnalysisWorker } from './protocol'

let library: Library = { parts: {} }

const worker: AnalysisWorker = {
  setLibrary: (next) => {
    library = next
  },
  analyse: (design) => analyse(design, library),
  preview: (design, edits) => previewEdits(analyse(design, library), library, edits),
  candidate: (design, id) => candidateOf(design, library, id),
  nextPlans: (design) => nextPlansOf(design, library),
  variants: (design) => variantsOf(design, library),
  otherBoards: (design) => otherBoardsOf(design, library),
  reach: (design, signal) => {
    const { chip, needs, pins } = analyse(design, library)
    return chip.chip ? reachOf(chip.chip, needs.open, design.pins, pins.taken, signal, pins.assignment) : []
  },
}

expose(worker)
