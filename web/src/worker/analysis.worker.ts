import {
  analyse,
  candidateOf,
  nextPlansOf,
  offersFor,
  otherBoardsOf,
  previewEdits,
  reachIn,
  variantsOf,
} from '@root-board/core/analysis'
import { type Design, libraryFor } from '@root-board/core/design'
import type { Library } from '@root-board/core/parts'
import type { Patience, Progress } from '@root-board/core/pins'
import { expose } from 'comlink'
import type { AnalysisWorker, Limit } from './protocol'

let shelf: Library = { parts: {} }
let bell: Int32Array | undefined
/** What the project was planned with goes before what the library says. */
const known = (design: Design) => libraryFor(design, shelf)

/** Spent when the time is over or the page has rung for something newer. Progress is told ten times a second. */
const patienceFor = ({ ms, ticket }: Limit, progress?: (at: Progress) => void): Patience => {
  const end = performance.now() + ms
  let told = 0
  return {
    spent: () => performance.now() > end || (bell !== undefined && Atomics.load(bell, 0) !== ticket),
    progress:
      progress &&
      ((at) => {
        const now = performance.now()
        if (now - told < 100) return
        told = now
        progress(at)
      }),
  }
}

const worker: AnalysisWorker = {
  setLibrary: (next) => {
    shelf = next
  },
  setBell: (cell) => {
    bell = cell
  },
  analyse: (design, limit, progress) => analyse(design, known(design), patienceFor(limit, progress)),
  preview: (design, edits, limit) => {
    const patience = patienceFor(limit)
    return previewEdits(analyse(design, known(design), patience), known(design), edits, patience)
  },
  offers: (design, id, limit) => {
    const patience = patienceFor(limit)
    const before = analyse(design, known(design), patience)
    const finding = before.findings.find((f) => f.id === id)
    return finding && offersFor(before, known(design), finding, patience, design)
  },
  candidate: (design, id, limit) => candidateOf(design, known(design), id, patienceFor(limit)),
  nextPlans: (design, limit) => nextPlansOf(design, known(design), patienceFor(limit)),
  variants: (design, limit) => variantsOf(design, known(design), patienceFor(limit)),
  otherBoards: (design, limit) => otherBoardsOf(design, known(design), patienceFor(limit)),
  reach: (design, signal, limit) => reachIn(design, known(design), signal, patienceFor(limit)),
}

expose(worker)
