// The page's side of the worker that reads pasted text. Reading can be stopped: the worker is ended, and the next
// question begins a new one.

import { type Remote, wrap } from 'comlink'
import type { IntakeWorker } from './intake-protocol'

let thread: Worker | undefined
let remote: Remote<IntakeWorker> | undefined
let stop: (() => void) | undefined

export class Stopped extends Error {
  override name = 'Stopped'
}

/** Asks the worker; rejects with Stopped when `stopReading` comes first. */
export const ask = async <T>(question: (worker: Remote<IntakeWorker>) => Promise<T>): Promise<T> => {
  thread ??= new Worker(new URL('./intake.worker.ts', import.meta.url), { type: 'module', name: 'intake' })
  remote ??= wrap<IntakeWorker>(thread)
  const stopped = new Promise<never>((_, reject) => {
    stop = () => reject(new Stopped('stopped'))
  })
  return Promise.race([question(remote), stopped])
}

export const stopReading = (): void => {
  thread?.terminate()
  thread = undefined
  remote = undefined
  stop?.()
}
