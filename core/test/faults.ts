// Where a part file is refused.

import { FaultyFile, readPart } from '../src/parts'

/** Paths of its faults; empty where it is read. */
export const faultsOf = (data: unknown): string[] => {
  try {
    readPart(data, 'test')
    return []
  } catch (error) {
    if (!(error instanceof FaultyFile)) throw error
    return error.faults.map((f) => f.path)
  }
}
