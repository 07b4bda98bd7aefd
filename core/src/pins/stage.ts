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
  after: ['asked', 'carrier', 'clock', 'supplies', 'planned'],
  run: resolvePins,
  checks: pinsChecks,
})
