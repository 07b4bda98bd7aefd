// The thread that computes, one question after another; whoever asks holds the clock and may end it.

import { setPriority } from 'node:os'
import { parentPort } from 'node:worker_threads'
import { analyse } from '@root-board/core/analysis'
import { libraryFor, readDesign } from '@root-board/core/design'
import { FaultyFile, type Library } from '@root-board/core/parts'
import { seconds } from '../patience'

export type Told = { library: Library } | { design: unknown; patience: number }
export type Answer =
  { json: Uint8Array<ArrayBuffer> } | { faulty: Pick<FaultyFile, 'file' | 'faults'> } | { failed: string }

// Where a priority is a thread's own, what others wait for goes first; elsewhere it would be that of the whole program.
try {
  if (process.platform === 'linux') setPriority(10)
} catch {
  // Not allowed here: then they share alike.
}

let library: Library = { parts: {} }
parentPort?.on('message', (told: Told) => {
  if ('library' in told) {
    library = told.library
    return
  }
  const tell = (answer: Answer, handedOver: ArrayBuffer[] = []) => parentPort!.postMessage(answer, handedOver)
  try {
    const { patience } = told
    const design = readDesign(told.design, 'project')
    const analysis = analyse(design, libraryFor(design, library), seconds(patience))
    // Written out here and handed over: whoever answers others has nothing to do with its size.
    const json = new TextEncoder().encode(JSON.stringify(analysis))
    tell({ json }, [json.buffer])
  } catch (error) {
    if (error instanceof FaultyFile) tell({ faulty: { file: error.file, faults: error.faults } })
    else tell({ failed: (error as Error).stack ?? String(error) })
  }
})
