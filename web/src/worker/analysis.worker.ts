import {
  type Analysis,
  analyse,
  candidateOf,
  nextPlansOf,
  offersFor,
  otherBoardsOf,
  previewEdits,
  reachIn,
  regulatorsOf,
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

/** The last project that a question was about, analysed: the next one is often about the same. */
let last: { key: string; analysis: Analysis } | undefined
const analysed = (design: Design, patience: Patience): Analysis => {
  const key = JSON.stringify(design)
  if (last?.key === key) return last.analysis
  const analysis = analyse(design, known(design), patience)
  const { plan } = analysis.pins
  // What was given up half way is tried again.
  const whole = !plan || plan.status === 'proven' || (plan.status === 'clash' && !plan.clashUnsure)
  last = whole ? { key, analysis } : undefined
  return analysis
}

const worker: AnalysisWorker = {
  setLibrary: (next) => {
    shelf = next
    last = undefined
  },
  setBell: (cell) => {
    bell = cell
  },
  analyse: (design, limit, progress) => analyse(design, known(design), patienceFor(limit, progress)),
  preview: (design, edits, limit) => {
    const patience = patienceFor(limit)
    return previewEdits(analysed(design, patience), known(design), edits, patience)
  },
  offers: (design, id, limit) => {
    const patience = patienceFor(limit)
    const before = analysed(design, patience)
    const finding = before.findings.find((f) => f.id === id)
    return finding && offersFor(before, known(design), finding, patience, design)
  },
  candidate: (design, id, limit) => candidateOf(design, known(design), id, patienceFor(limit)),
  nextPlans: (design, limit) => {
    const patience = patienceFor(limit)
    return nextPlansOf(design, known(design), patience, analysed(design, patience))
  },
  regulators: (design, limit) => regulatorsOf(analysed(design, patienceFor(limit)), known(design)),
  variants: (design, limit) => variantsOf(design, known(design), patienceFor(limit)),
  otherBoards: (design, limit) => otherBoardsOf(design, known(design), patienceFor(limit)),
  reach: (design, signal, limit) => {
    const patience = patienceFor(limit)
    return reachIn(design, known(design), signal, patience, analysed(design, patience))
  },
}

expose(worker)
