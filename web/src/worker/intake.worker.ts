import { readExchange, readLimits, readTable } from '@root-board/core/intake'
import { FaultyFile } from '@root-board/core/parts'
import { expose } from 'comlink'
import type { IntakeWorker } from './intake-protocol'

const worker: IntakeWorker = {
  table: readTable,
  limits: readLimits,
  exchange: (text, file) => {
    try {
      return { exchange: readExchange(text, file), faults: [] }
    } catch (error) {
      if (error instanceof FaultyFile) return { faults: error.faults }
      throw error
    }
  },
}

expose(worker)
