import { readLimits, readTable } from '@root-board/core/intake'
import { expose } from 'comlink'
import type { IntakeWorker } from './intake-protocol'

const worker: IntakeWorker = { table: readTable, limits: readLimits }

expose(worker)
