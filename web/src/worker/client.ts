// The page's side of the worker.

import type { Analysis } from '@root-board/core/analysis'
import type { Design } from '@root-board/core/design'
import { type Remote, wrap } from 'comlink'
import type { AnalysisWorker } from './protocol'

export const worker: Remote<AnalysisWorker> = wrap<AnalysisWorker>(
  new Worker(new URL('./analysis.worker.ts', import.meta.url), { type: 'module', name: 'analysis' }),
)

/** Analyses in the worker; each run leaves a performance measure, which the benchmark reads. */
export const analyseInWorker = async (design: Design): Promise<Analysis> => {
  const began = performance.now()
  const analysis = await worker.analyse(design)
  performance.measure('analysis', { start: began, end: performance.now() })
  return analysis
}
