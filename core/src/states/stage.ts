import { defineStage } from '../findings'
import { statesChecks } from './checks'
import { statesOf } from './made'
import type { State } from './state'

declare module '../findings/results' {
  interface Results {
    states: readonly State[]
  }
}

export const statesStage = defineStage({
  name: 'states',
  after: ['carrier'],
  run: ({ design, carrier }) => statesOf(design, carrier.chip),
  checks: statesChecks,
})
