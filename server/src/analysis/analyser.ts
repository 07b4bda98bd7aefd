// Analyses one after another in a thread of their own, so that nothing else waits for them: each with an end in time and
// in memory, and no more of them waiting than can be answered.

import { pathToFileURL } from 'node:url'
import { Worker } from 'node:worker_threads'
import { FaultyFile, type Library } from '@root-board/core/parts'
import type { Answer, Told } from './thread'

export interface AnalyserLimits {
  /** Seconds, from when it is begun. */
  time: number
  /** Megabytes. */
  memory: number
  /** So many may wait. */
  queue: number
}
const usual: AnalyserLimits = { time: 20, memory: 768, queue: 8 }

/** Too many wait already: asked again later it is answered. */
export class AnalyserBusy extends Error {
  override name = 'AnalyserBusy'
}
/** Ended before it was done, for the reason in its message. */
export class AnalysisStopped extends Error {
  override name = 'AnalysisStopped'
}

/** A thread takes over no loader from whoever begins it: where nothing is built it registers its own. */
const fromSource = (file: string): string =>
  `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(pathToFileURL(file).href)}) })`

interface Asked {
  design: unknown
  library: Library
  done: (json: Uint8Array) => void
  failed: (error: Error) => void
}

export class Analyser {
  private worker: Worker | undefined
  private has: Library | undefined
  private readonly waiting: Asked[] = []
  private running: Asked | undefined
  private timer: ReturnType<typeof setTimeout> | undefined
  private readonly limits: AnalyserLimits

  /** `file` is the program of the thread, as it is built. */
  constructor(
    private readonly file: string,
    limits: Partial<AnalyserLimits> = {},
  ) {
    this.limits = { ...usual, ...limits }
  }

  /** The analysis as JSON, in UTF-8. Throws FaultyFile, AnalyserBusy, AnalysisStopped, and what the analysis failed with. */
  ask(design: unknown, library: Library): Promise<Uint8Array> {
    if (this.waiting.length >= this.limits.queue)
      return Promise.reject(new AnalyserBusy('Too many analyses are waiting already'))
    return new Promise<Uint8Array>((done, failed) => {
      this.waiting.push({ design, library, done, failed })
      this.next()
    })
  }

  private next(): void {
    if (this.running) return
    this.running = this.waiting.shift()
    if (!this.running) return
    const { design, library } = this.running
    const worker = (this.worker ??= this.begin())
    const tell = (told: Told) => worker.postMessage(told)
    if (this.has !== library) tell({ library })
    this.has = library
    tell({ design, patience: 2 })
    const { time } = this.limits
    this.timer = setTimeout(
      () =>
        this.stop(
          new AnalysisStopped(`The analysis was stopped after ${time} s: this project asks for more`),
        ),
      1000 * time,
    )
  }

  private begin(): Worker {
    const source = this.file.endsWith('.ts')
    const worker = new Worker(source ? fromSource(this.file) : this.file, {
      eval: source,
      resourceLimits: { maxOldGenerationSizeMb: this.limits.memory },
    })
    worker.unref()
    worker.on('message', (answer: Answer) => {
      const asked = this.running
      this.settled()
      if ('json' in answer) asked?.done(answer.json)
      else if ('faulty' in answer) asked?.failed(new FaultyFile(answer.faulty.file, answer.faulty.faults))
      else asked?.failed(new Error(answer.failed))
      this.next()
    })
    worker.on('error', (error: Error & { code?: string }) => {
      if (worker !== this.worker) return
      this.stop(
        error.code === 'ERR_WORKER_OUT_OF_MEMORY'
          ? new AnalysisStopped(
              `The analysis was stopped: it asked for more than ${this.limits.memory} MB of memory`,
            )
          : error,
      )
    })
    return worker
  }

  private settled(): void {
    clearTimeout(this.timer)
    this.running = undefined
  }

  /** Ends the thread with what it is doing; the next question begins another. */
  private stop(why: Error): void {
    const { worker, running } = this
    this.worker = undefined
    this.has = undefined
    this.settled()
    running?.failed(why)
    void worker?.terminate()
    this.next()
  }

  async close(): Promise<void> {
    for (const asked of this.waiting.splice(0)) asked.failed(new AnalysisStopped('The program is ending'))
    const { worker } = this
    this.stop(new AnalysisStopped('The program is ending'))
    await worker?.terminate()
  }
}
