import { stockOf, supportFor } from '../../circuit'
import { type Check, type Fix, say } from '../../findings'
import { findPart } from '../../parts'
import { otherSwitches, switchedLoads, switchFaults } from '../switches'

const grades = { stops: 'impossible', risks: 'outside the sheet', notes: 'typical' } as const

/** The transistor and the diode of a switched load: whether the leg turns it on, and whether each stands the load. */
export const switchRating: Check = {
  id: 'pins.switch-rating',
  stage: 'pins',
  looksFor:
    'a load whose transistor is not turned on by its leg, or whose transistor or diode does not stand it',
  rule: 'gate voltages of the channel, or a tenth of the load’s current into a base; recommended current, absolute voltage, heat at the project’s ambient',
  run: (stages) => {
    const {
      design,
      library,
      pins,
      chip: { chip },
      power: { rail },
    } = stages
    if (!chip || !rail) return []
    const at = { chip, rail, ambient: design.needs.limits.ambient, stock: stockOf(library), library }
    return switchedLoads(stages).flatMap((of) => {
      const transistor = findPart(library, 'transistor', of.transistor)
      const { id, name } = of.wire.signal
      const about = { signal: id, pin: of.wire.pin.id, device: of.need }
      const fixes = (): Fix[] =>
        otherSwitches(of, at)
          .slice(0, 2)
          .map((t) => ({
            label: `Switch it with ${t.name}`,
            edits: [{ kind: 'setTransistor', id: of.need, signal: of.signal, part: t.id, name: t.name }],
          }))
      const latched = of.wire.signal.ends.some((e) => e.instance.part.latch)
      if (!transistor || transistor.sort === 'pnp' || (latched && transistor.sort !== 'n-mosfet'))
        return [
          {
            id: `pins.switch-rating:none:${id}`,
            severity: 'stops' as const,
            grade: 'impossible' as const,
            ...(transistor
              ? say`${transistor.name} can’t switch ${name} as it is fitted here: that takes an n-channel MOSFET, its gate on the leg${latched ? '' : ', an NPN transistor, or a p-channel MOSFET in its plus'}.`
              : say`The transistor of ${name} is “${of.transistor}”, which is not in the library: nothing switches ${of.device}.`),
            because: [say`${of.device} draws more than a leg gives`],
            fixes: fixes(),
            about,
          },
        ]
      const resistor = supportFor(pins.support, 'base resistor', id)
      const bare = resistor !== undefined && !resistor.present
      return switchFaults(of, transistor, { ...at, bare }).map(({ what, ...fault }) => ({
        ...fault,
        id: `pins.switch-rating:${what}:${id}`,
        grade: grades[fault.severity],
        // Another diode is not chosen here.
        fixes:
          what === 'base' && resistor && bare
            ? [
                {
                  label: 'Put the resistor in',
                  edits: [{ kind: 'putIn', support: resistor.key, name: resistor.name }],
                },
              ]
            : what === 'diode' || what === 'reverse'
              ? []
              : fixes(),
        about,
      }))
    })
  },
}
