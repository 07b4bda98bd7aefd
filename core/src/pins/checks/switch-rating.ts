import type { Check } from '../../findings'
import { findPart } from '../../parts'
import { otherSwitches, switchedLoads, switchFaults } from '../switches'

const grades = { stops: 'impossible', risks: 'outside the sheet', notes: 'typical' } as const

/** The transistor and the diode of a switched load: whether the leg turns it on, and whether each stands the load. */
export const switchRating: Check = {
  id: 'pins.switch-rating',
  stage: 'pins',
  looksFor:
    'a load whose transistor is not turned on by its leg, or whose transistor or diode does not stand it',
  rule: 'gate voltages of the channel, recommended current, absolute voltage, heat at the project’s ambient',
  run: (stages) => {
    const {
      design,
      library,
      chip: { chip },
      power: { rail },
    } = stages
    if (!chip || !rail) return []
    const { ambient } = design.needs.limits
    return switchedLoads(stages).flatMap((of) => {
      const transistor = findPart(library, 'transistor', of.transistor)
      if (!transistor) return []
      const { id } = of.wire.signal
      return switchFaults(of, transistor, chip, rail, ambient).map(({ what, ...fault }) => ({
        ...fault,
        id: `pins.switch-rating:${what}:${id}`,
        grade: grades[fault.severity],
        // Another diode is not chosen here.
        fixes:
          what === 'diode' || what === 'reverse'
            ? []
            : otherSwitches(of, library, chip, rail, ambient)
                .slice(0, 2)
                .map((t) => ({
                  label: `Switch it with ${t.name}`,
                  edits: [
                    {
                      kind: 'setTransistor' as const,
                      id: of.need,
                      signal: of.signal,
                      part: t.id,
                      name: t.name,
                    },
                  ],
                })),
        about: { signal: id, pin: of.wire.pin.id, device: of.need },
      }))
    })
  },
}
