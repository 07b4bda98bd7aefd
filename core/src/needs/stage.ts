import { defineStage } from '../findings'
import { needsChecks } from './checks'
import { type NeedsResult, resolveNeeds, withWirings } from './resolve'

declare module '../findings/results' {
  interface Between {
    /** The signals that the devices ask for, before the plan has chosen among their wirings. */
    asked: NeedsResult
  }
  interface Results {
    /** With the wirings that the plan chose. */
    needs: NeedsResult
  }
}

export const askedStage = defineStage({
  name: 'asked',
  after: [],
  run: ({ design, library }) => resolveNeeds(design, library),
})

export const needsStage = defineStage({
  name: 'needs',
  after: ['asked', 'pins'],
  run: ({ design, library, asked, pins: { plan } }) => {
    const wirings = plan?.wirings ?? []
    if (wirings.length === 0) return asked
    const chosen = Object.fromEntries(wirings.map((w) => [w.need, w.wiring.id]))
    // No copy of the whole design: what is not looked at here may change.
    const { needs, chip, pins, power, stance, build } = design
    return resolveNeeds(withWirings({ needs, chip, pins, power, stance, build }, chosen), library)
  },
  checks: needsChecks,
})
