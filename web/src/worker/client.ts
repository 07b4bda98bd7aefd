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
  worker: Worker
  remote: Remote<AnalysisWorker>
  /** Ends what runs, if anything does. */
  ring: () => void
  limit: (ms?: number) => Limit
}

const start = (name: string): Thread => {
  const worker = new Worker(new URL('./analysis.worker.ts', import.meta.url), { type: 'module', name })
  const remote = wrap<AnalysisWorker>(worker)
  // Pages that are not isolated share no memory: questions there end by their time alone.
  const bell = typeof SharedArrayBuffer === 'undefined' ? undefined : new Int32Array(new SharedArrayBuffer(4))
  if (bell) void remote.setBell(bell)
  let ticket = 0
  return {
    worker,
    remote,
    ring: () => {
      ticket++
      if (bell) Atomics.store(bell, 0, ticket)
    },
    limit: (ms = usualTime) => ({ ms, ticket }),
  }
}

let edits = start('analysis')
const asked = start('questions')
let shelf: Library | undefined

export const setLibrary = (library: Library): void => {
  shelf = library
  void edits.remote.setLibrary(library)
  void asked.remote.setLibrary(library)
}

/** Analyses in the worker; each run leaves a performance measure, which the benchmark reads. */
export const analyseInWorker = async (
  design: Design,
  look?: { ms: number; progress: (at: Progress) => void },
): Promise<Analysis> => {
  const began = performance.now()
  runningSince = began
  const turn = ++turns
  const answer = look
    ? edits.remote.analyse(design, turn, edits.limit(look.ms), proxy(look.progress))
    : edits.remote.analyse(design, turn, edits.limit())
  const analysis = await orStopped(answer, (look?.ms ?? usualTime) + grace)
  performance.measure('analysis', { start: began, end: performance.now() })
  turnOf.set(analysis, turn)
  return analysis
}
/** What gives up when its time is over does so well within this; what doesn’t is ended with its worker. */
const grace = 20_000

/** Ended before it was done; its message says by whom or what. */
export class Stopped extends Error {
  override name = 'Stopped'
}
let stopWith: ((why: Stopped) => void) | undefined

/** The answer, or the end of its worker: told to stop, failed, or far beyond its time. */
const orStopped = async <T>(answer: Promise<T>, ms: number): Promise<T> => {
  let timer: ReturnType<typeof setTimeout> | undefined
  const { worker } = edits
  const end = new Promise<never>((_, reject) => {
    stopWith = (why) => {
      worker.terminate()
      edits = start('analysis')
      if (shelf) void edits.remote.setLibrary(shelf)
      reject(why)
    }
    worker.onerror = ({ message }) => stopWith?.(new Stopped(message || 'the worker ended'))
    timer = setTimeout(
      () => stopWith?.(new Stopped(`stopped after ${Math.round(ms / 1000)} s: this project asks for more`)),
      ms,
    )
  })
  try {
    return await Promise.race([answer, end])
  } finally {
    clearTimeout(timer)
    stopWith = undefined
  }
}

/** When what is being analysed was begun, by the page’s clock. */
export const analysisBegan = (): number => runningSince
let runningSince = 0

/** Ends what is being analysed at once, with nothing to show for it. */
export const stopAnalysis = (): void => stopWith?.(new Stopped('stopped by you'))

let turns = 0
const turnOf = new WeakMap<Analysis, number>()

/** How a number of an analysis was worked out; undefined where the worker has gone on to newer ones. */
export const workingOf = async (analysis: Analysis, shown: Shown): Promise<Worked | undefined> => {
  const turn = turnOf.get(analysis)
  const path = pathTo(analysis, shown)
  return turn === undefined || path === undefined ? undefined : edits.remote.working(turn, path)
}

/** The design has changed, or the builder has seen enough: what is being analysed gives up with what it has. */
export const endAnalysis = (): void => {
  edits.ring()
  const running = stopWith
  // What hears no bell is ended with its worker: nobody waits for what is no longer wanted.
  setTimeout(() => {
    if (running && running === stopWith) running(new Stopped('stopped by you'))
  }, deaf)
}
const deaf = 15_000

/** Questions about a design that is no longer the open one are not worth their time. */
export const endQuestions = (): void => asked.ring()

const { remote, limit } = asked
export const questions = {
  preview: (design: Design, change: Edit[]) => remote.preview(design, change, limit()),
  offers: (design: Design, finding: string) => remote.offers(design, finding, limit(8000)),
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
