import { defineStage } from '../findings'
import { powerChecks } from './checks'
import type { RankedRegulator } from './rank'
import { type PowerResult, resolvePower } from './resolve'

declare module '../findings/results' {
  interface Results {
    power: PowerResult
  }
  interface OnDemand {
    /** Every regulator at this load and input, ranked. */
    regulators: () => RankedRegulator[]
  }
}

export const powerStage = defineStage({
  name: 'power',
  after: ['needs', 'carrier', 'clock', 'pins', 'states', 'supplies'],
  run: ({ design, library, needs, carrier, clock, pins, states, supplies }) =>
    resolvePower({ design, needs, chip: carrier.chip, clock, pins, states, supplies }, library),
  checks: powerChecks,
})
