import { defineStage } from '../findings'
import { ownVoltage } from '../supply'
import { clockChecks } from './checks'
import { type ClockResult, resolveClock } from './resolve'

declare module '../findings/results' {
  interface Results {
    clock: ClockResult
  }
}

export const clockStage = defineStage({
  name: 'clock',
  after: ['carrier', 'supplies'],
  run: ({ design, library, carrier, supplies }) =>
    resolveClock(design, library, carrier.chip, ownVoltage(supplies)),
  checks: clockChecks,
})
