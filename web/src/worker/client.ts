// The page's side of the worker. Analyses are latest-wins: while one runs, only the newest design waits.

import type { Analysis } from '@root-board/core/analysis'
import type { Design } from '@root-board/core/design'
import { type Remote, wrap } from 'comlink'
import type { AnalysisWorker } from './protocol'

export const worker: Remote<AnalysisWorker> = wrap<AnalysisWorker>(
  new Worker(new URL('./analysis.worker.ts', import.meta.url), { type: 'module', name: 'analysis' }),
)

/** Keeps one request running and the newest one waiting; results of overtaken ones are dropped. */
export const latestWins = <In, Out>(
  run: (input: In) => Promise<Out>,
  done: (result: Out, input: In) => void,
) => {
  let running = false
  let waiting: { input: In } | undefined
  const next = async (): Promise<void> => {
    const job = waiting
    if (!job) return
    waiting = undefined
    running = true
    try {
      const result = await run(job.input)
      if (!waiting) done(result, job.input)
    } finally {
      running = false
    }
    await next()
  }
  return (input: In): void => {
    waiting = { input }
    if (!running) void next()
  }
}

/** Analyses in the worker; each run leaves a performance measure, which the benchmark reads. */
export const analyseInWorker = async (design: Design): Promise<Analysis> => {
  const began = performance.now()
  const analysis = await worker.analyse(design)
  performance.measure('analysis', { start: began, end: performance.now() })
  return analysis
}
