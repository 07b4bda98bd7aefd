import type { FurtherId } from '../design'
import { defineStage } from '../findings'
import { powerChecks } from './checks'
import type { RankedRegulator } from './rank'
import { type PowerResult, resolvePower } from './resolve'

declare module '../findings/results' {
  interface Results {
    power: PowerResult
  }
  interface OnDemand {
    /** Every regulator at this load and input, ranked: of the chip’s rail, or of a further one. */
    regulators: (rail?: FurtherId) => RankedRegulator[]
  }
}

export const powerStage = defineStage({
  name: 'power',
  after: ['around', 'needs', 'carrier', 'clock', 'pins', 'states', 'supplies'],
  run: ({ around, carrier, ...stages }) => resolvePower({ ...stages, around, chip: carrier.chip }),
  checks: powerChecks,
})
