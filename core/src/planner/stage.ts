import { defineStage } from '../findings'
import { type Planned, resolvePlan } from './resolve'

declare module '../findings/results' {
  interface Between {
    planned: Planned
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
