import { defineStage } from '../findings'
import { pinsChecks } from './checks'
import { type PinsResult, type Planned, resolvePins, resolvePlan } from './resolve'

declare module '../findings/results' {
  interface Between {
    planned: Planned
  }
  interface Results {
    pins: PinsResult
  }
}

/** Apart from what follows from it: much can change without another plan. */
export const planStage = defineStage({
  name: 'planned',
  after: ['asked', 'carrier', 'clock'],
  run: ({ design, patience, asked, carrier, clock }) =>
    resolvePlan(design.pins, asked, carrier.chip, clock, patience),
  // With more patience there may be another plan.
  lasts: ({ plan }) => !plan || plan.status === 'proven' || (plan.status === 'clash' && !plan.clashUnsure),
})

export const pinsStage = defineStage({
  name: 'pins',
  after: ['asked', 'carrier', 'clock', 'supplies', 'planned'],
  run: ({ design, library, asked, carrier, clock, supplies, planned }) =>
    resolvePins(design, library, asked, carrier.chip, clock, supplies, planned),
  checks: pinsChecks,
})
