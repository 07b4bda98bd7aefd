import { defineStage } from '../findings'
import type { Chip } from '../parts'
import { ownVoltage } from '../supply'
import { chipChecks } from './checks'
import { type ChipResult, judgeChip } from './resolve'

declare module '../findings/results' {
  interface Results {
    chip: ChipResult
  }
  interface OnDemand {
    /** Another carrier that would fit, the cheapest; many are solved for it. */
    fitting: () => Chip | undefined
  }
}

export const chipStage = defineStage({
  name: 'chip',
  after: ['carrier', 'asked', 'supplies', 'pins'],
  run: ({ design, library, carrier, asked, supplies, pins }): ChipResult => ({
    ...carrier,
    own:
      carrier.chip &&
      judgeChip(
        carrier.chip,
        { design, library, needs: asked, rail: ownVoltage(supplies) },
        { known: pins.plan },
      ),
  }),
  checks: chipChecks,
})
