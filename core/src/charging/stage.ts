import { stockOf } from '../circuit'
import { defineStage } from '../findings'
import { chargingChecks } from './checks'
import { planCharging } from './plan'
import { type ChargingResult, resolveCharging } from './resolve'

declare module '../findings/results' {
  interface Results {
    /** How the cell is charged on the board; absent where it isn’t. */
    charging: { charging?: ChargingResult }
  }
}

export const chargingStage = defineStage({
  name: 'charging',
  after: ['carrier', 'power'],
  run: ({ design, library, power }) => {
    const plan = planCharging({ design, library, stock: stockOf(library) })
    return plan ? { charging: resolveCharging(plan, { design, power }) } : {}
  },
  checks: chargingChecks,
})
