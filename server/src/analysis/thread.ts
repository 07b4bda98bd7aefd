// The thread that computes, one question after another; whoever asks holds the clock and may end it.

import { parentPort } from 'node:worker_threads'
import { analyse } from '@root-board/core/analysis'
import { type Design, libraryFor } from '@root-board/core/design'
import type { Library } from '@root-board/core/parts'
import { seconds } from '../patience'

export type Told = { library: Library } | { design: Design; patience: number }
export type Answer = { text: string } | { failed: string }

let library: Library = { parts: {} }
parentPort?.on('message', (told: Told) => {
  if ('library' in told) {
    library = told.library
    return
  }
  let answer: Answer
  try {
    const { design, patience } = told
    answer = { text: JSON.stringify(analyse(design, libraryFor(design, library), seconds(patience))) }
  } catch (error) {
    answer = { failed: (error as Error).stack ?? String(error) }
  }
  parentPort!.postMessage(answer)
})
