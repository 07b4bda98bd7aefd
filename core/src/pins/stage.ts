import { defineStage } from '../findings'
import { pinsChecks } from './checks'
import { type PinsResult, resolvePins } from './resolve'

declare module '../findings/results' {
  interface Results {
    pins: PinsResult
  }
}

export const pinsStage = defineStage({
  name: 'pins',
  after: ['asked', 'carrier', 'clock', 'supplies'],
  run: ({ design, library, patience, asked, carrier, clock, supplies }) =>
    resolvePins(design, library, asked, carrier.chip, clock, supplies, patience),
  checks: pinsChecks,
})
