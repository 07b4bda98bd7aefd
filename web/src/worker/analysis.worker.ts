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
  giveUps,
  leadsOf,
  sourcesOf,
  trendOf,
  bridgesFor,
  switchesOf,
  rhythmsOf,
  variantsOf,
} from '@root-board/core/analysis'
import { stockOf } from '@root-board/core/circuit'
import { type Design, libraryFor, sharing } from '@root-board/core/design'
import type { Worked } from '@root-board/core/findings'
import { runLatch } from '@root-board/core/latch'
import type { Library } from '@root-board/core/parts'
import type { Patience, Progress } from '@root-board/core/patience'
import { burstsOf, chargeOf, measuredOf, streamsOf } from '@root-board/core/power'
import { spelled } from '@root-board/core/sums'
import { expose } from 'comlink'
import { follow } from './path'
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

/** The analysis before: what an edit left alone is taken from it, and all of it where a question is about the same project. */
let previous: Analysis | undefined
const analysed = (design: Design, patience: Patience): Analysis => {
  const shared = sharing(design, previous?.design)
  return (previous = analyse(shared, known(shared), patience, previous))
}

/** The last answers, by the page’s turns: asked for how their numbers were worked out. */
const sent = new Map<number, Analysis>()

const worker: AnalysisWorker = {
  setLibrary: (library) => {
    shelf = library
    previous = undefined
  },
  setBell: (cell) => {
    bell = cell
  },
  analyse: (design, turn, limit, progress) => {
    const analysis = analysed(design, patienceFor(limit, progress))
    sent.set(turn, analysis)
    for (const older of [...sent.keys()].slice(0, -3)) sent.delete(older)
    return analysis
  },
  working: (turn, path) => spelled(follow(sent.get(turn), path)) as Worked | undefined,
  preview: (design, edits, limit) => {
    const patience = patienceFor(limit)
    const before = analysed(design, patience)
    return spelled(previewEdits(before, known(before.design), edits, patience))
  },
  offers: (design, id, limit) => {
    const patience = patienceFor(limit)
    const before = analysed(design, patience)
    const finding = before.findings.find((f) => f.id === id)
    return spelled(finding && offersFor(before, known(before.design), finding, patience))
  },
  candidate: (design, id, limit) => spelled(candidateOf(design, known(design), id, patienceFor(limit))),
  nextPlans: (design, limit) => {
    const patience = patienceFor(limit)
    return spelled(nextPlansOf(design, known(design), patience, analysed(design, patience)))
  },
  regulators: (design, rail, limit) => {
    const analysis = analysed(design, patienceFor(limit))
    return spelled({
      ranked: regulatorsOf(analysis, known(design), rail),
      undecided: analysis.pins.plan?.status === 'undecided',
    })
  },
  sources: (design, limit) => {
    const analysis = analysed(design, patienceFor(limit))
    return spelled({
      ranked: sourcesOf(analysis, known(design)),
      undecided: analysis.pins.plan?.status === 'undecided',
    })
  },
  giveUps: (design, name, limit) => {
    const patience = patienceFor(limit)
    return spelled(giveUps(analysed(design, patience), known(design), name, patience))
  },
  trend: (designs, limit) => trendOf(designs, shelf, patienceFor(limit)),
  leads: (design, limit) => {
    const analysis = analysed(design, patienceFor(limit))
    return spelled({
      ranked: leadsOf(analysis, known(design)),
      undecided: analysis.pins.plan?.status === 'undecided',
    })
  },
  bridges: (design, limit) => {
    const analysis = analysed(design, patienceFor(limit))
    return spelled({
      ranked: bridgesFor(analysis, known(design)),
      undecided: analysis.pins.plan?.status === 'undecided',
    })
  },
  switches: (design, limit) => {
    const analysis = analysed(design, patienceFor(limit))
    return spelled({
      ranked: switchesOf(analysis, known(design)),
      undecided: analysis.pins.plan?.status === 'undecided',
    })
  },
  latch: (design, of, limit) => {
    const patience = patienceFor(limit)
    const { facts } = analysed(design, patience).latch
    return facts && runLatch(facts, of, patience)
  },
  streams: (design, state, limit) => spelled(streamsOf(analysed(design, patienceFor(limit)), state)),
  measured: (design, limit) => spelled(measuredOf(analysed(design, patienceFor(limit)))),
  bursts: (design, allowed, limit) =>
    spelled(burstsOf(analysed(design, patienceFor(limit)), stockOf(known(design)), allowed)),
  charge: (design, limit) => spelled(chargeOf(analysed(design, patienceFor(limit)).power)),
  rhythms: (design, state, limit) => {
    const patience = patienceFor(limit)
    return spelled(rhythmsOf(analysed(design, patience), known(design), state, patience))
  },
  variants: (design, limit) => spelled(variantsOf(design, known(design), patienceFor(limit))),
  otherBoards: (design, limit) => spelled(otherBoardsOf(design, known(design), patienceFor(limit))),
  reach: (design, signal, limit) => {
    const patience = patienceFor(limit)
    return spelled(reachIn(design, known(design), signal, patience, analysed(design, patience)))
  },
}

expose(worker)
