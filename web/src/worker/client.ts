// The page's side of the workers: one for the analysis of every edit, one for questions beside it, so that neither waits
// for the other. A newer question rings the bell, and the one that runs gives up at its next step.

import type { Analysis, BudgetName } from '@root-board/core/analysis'
import type { Design, Edit, FurtherId } from '@root-board/core/design'
import type { LatchTry } from '@root-board/core/latch'
import type { Shown, Worked } from '@root-board/core/findings'
import type { Library } from '@root-board/core/parts'
import type { Progress } from '@root-board/core/patience'
import { proxy, type Remote, wrap } from 'comlink'
import { pathTo } from './path'
import type { AnalysisWorker, Limit } from './protocol'

/** Milliseconds for an edit or a question; more only when the builder asks to look longer. */
const usualTime = 2000
export const longTime = 60_000

interface Thread {
  remote: Remote<AnalysisWorker>
  /** Ends what runs, if anything does. */
  ring: () => void
  limit: (ms?: number) => Limit
}

const start = (name: string): Thread => {
  const remote = wrap<AnalysisWorker>(
    new Worker(new URL('./analysis.worker.ts', import.meta.url), { type: 'module', name }),
  )
  // Pages that are not isolated share no memory: questions there end by their time alone.
  const bell = typeof SharedArrayBuffer === 'undefined' ? undefined : new Int32Array(new SharedArrayBuffer(4))
  if (bell) void remote.setBell(bell)
  let ticket = 0
  return {
    remote,
    ring: () => {
      ticket++
      if (bell) Atomics.store(bell, 0, ticket)
    },
    limit: (ms = usualTime) => ({ ms, ticket }),
  }
}

const edits = start('analysis')
const asked = start('questions')

export const setLibrary = (library: Library): void => {
  void edits.remote.setLibrary(library)
  void asked.remote.setLibrary(library)
}

/** Analyses in the worker; each run leaves a performance measure, which the benchmark reads. */
export const analyseInWorker = async (
  design: Design,
  look?: { ms: number; progress: (at: Progress) => void },
): Promise<Analysis> => {
  const began = performance.now()
  const turn = ++turns
  const analysis = look
    ? await edits.remote.analyse(design, turn, edits.limit(look.ms), proxy(look.progress))
    : await edits.remote.analyse(design, turn, edits.limit())
  performance.measure('analysis', { start: began, end: performance.now() })
  turnOf.set(analysis, turn)
  return analysis
}
let turns = 0
const turnOf = new WeakMap<Analysis, number>()

/** How a number of an analysis was worked out; undefined where the worker has gone on to newer ones. */
export const workingOf = async (analysis: Analysis, shown: Shown): Promise<Worked | undefined> => {
  const turn = turnOf.get(analysis)
  const path = pathTo(analysis, shown)
  return turn === undefined || path === undefined ? undefined : edits.remote.working(turn, path)
}

/** The design has changed, or the builder has seen enough: what is being analysed gives up with what it has. */
export const endAnalysis = (): void => edits.ring()

/** Questions about a design that is no longer the open one are not worth their time. */
export const endQuestions = (): void => asked.ring()

const { remote, limit } = asked
export const questions = {
  preview: (design: Design, change: Edit[]) => remote.preview(design, change, limit()),
  offers: (design: Design, finding: string) => remote.offers(design, finding, limit(4000)),
  candidate: (design: Design, id: string) => remote.candidate(design, id, limit()),
  nextPlans: (design: Design) => remote.nextPlans(design, limit()),
  regulators: (design: Design, rail?: FurtherId) => remote.regulators(design, rail, limit()),
  streams: (design: Design, state?: string) => remote.streams(design, state, limit()),
  measured: (design: Design) => remote.measured(design, limit()),
  giveUps: (design: Design, name: BudgetName) => remote.giveUps(design, name, limit(10_000)),
  trend: (designs: readonly Design[]) => remote.trend(designs, limit(10_000)),
  leads: (design: Design) => remote.leads(design, limit()),
  bridges: (design: Design) => remote.bridges(design, limit()),
  switches: (design: Design) => remote.switches(design, limit()),
  latch: (design: Design, of: LatchTry) => remote.latch(design, of, limit(10_000)),
  sources: (design: Design) => remote.sources(design, limit()),
  bursts: (design: Design, allowed: number) => remote.bursts(design, allowed, limit()),
  charge: (design: Design) => remote.charge(design, limit()),
  rhythms: (design: Design, state: string) => remote.rhythms(design, state, limit(5000)),
  variants: (design: Design) => remote.variants(design, limit(10_000)),
  otherBoards: (design: Design) => remote.otherBoards(design, limit(5000)),
  reach: (design: Design, signal: string) => remote.reach(design, signal, limit(4000)),
}
