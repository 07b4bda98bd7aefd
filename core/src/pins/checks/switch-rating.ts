import { type Check, type Finding, partOrigin } from '../../findings'
import { findPart, siliconJunction } from '../../parts'
import { formatQuantity, fullRange } from '../../quantity'
import { voltageFor } from '../../supply'
import { switchOnLeg } from '../../support'

/** The transistor and the diode of a switched load: whether the leg turns it on, and whether each stands the load. */
export const switchRating: Check = {
  id: 'pins.switch-rating',
  stage: 'pins',
  looksFor:
    'a load whose transistor is not turned on by its leg, or whose transistor or diode does not stand it',
  rule: 'gate voltages of the channel, recommended current, heat at the project’s ambient',
  run: ({ design, library, chip: { chip }, pins, power: { rail, supplies } }) =>
    (chip && rail ? (pins.plan?.wires ?? []) : []).flatMap((wire) => {
      const end = wire.signal.ends.find((e) => e.signal.electrical.kind === 'switched')
      const load = end?.signal.electrical
      if (!end || load?.kind !== 'switched') return []
      const transistor = findPart(library, 'transistor', load.transistor)
      if (!transistor) return []
      const { name } = wire.signal
      const on = switchOnLeg(wire, transistor, load.current, {
        chip: chip!,
        rail: rail!,
        ambient: design.needs.limits.ambient,
      })
      const about = { signal: wire.signal.id, pin: wire.pin.id, device: end.instance.need.id }
      const most = fullRange(load.current).max
      const found: Omit<Finding, 'check' | 'stage'>[] = []
      const say = (
        what: string,
        severity: 'stops' | 'risks' | 'notes',
        text: string,
        because: Finding['because'],
      ): void => {
        found.push({
          id: `pins.switch-rating:${what}:${wire.signal.id}`,
          severity,
          grade: severity === 'stops' ? 'impossible' : severity === 'risks' ? 'outside the sheet' : 'typical',
          text,
          because,
          fixes: [],
          about,
        })
      }
      const gate = on.drive.value.min
      const stated = (transistor.channel ?? []).map((c) => c.gate)
      if (transistor.threshold && gate < fullRange(transistor.threshold).max)
        say(
          'off',
          'stops',
          `The leg gives the gate of ${name} as little as ${formatQuantity(gate, 'V', 3)}; ${transistor.name} may need ${formatQuantity(fullRange(transistor.threshold).max, 'V')} to begin to conduct.`,
          [
            { text: `The gate gets ${formatQuantity(gate, 'V', 3)} at the least`, worked: on.drive },
            {
              text: `${transistor.sheet}: threshold`,
              origin: partOrigin(transistor, 'threshold', transistor.threshold),
            },
          ],
        )
      else if (stated.length === 0)
        say(
          'unknown',
          'notes',
          `The sheet of ${transistor.name} states no resistance of its channel: how far it turns on ${name}, and how hot it gets, is not known.`,
          [{ text: `The gate gets ${formatQuantity(gate, 'V', 3)} at the least`, worked: on.drive }],
        )
      else if (gate < Math.min(...stated))
        say(
          'weak',
          'risks',
          `The leg gives the gate of ${name} as little as ${formatQuantity(gate, 'V', 3)}; the sheet of ${transistor.name} says what its channel is from ${formatQuantity(Math.min(...stated), 'V')} on.`,
          [{ text: `The gate gets ${formatQuantity(gate, 'V', 3)} at the least`, worked: on.drive }],
        )
      const rated = fullRange(transistor.current).max
      if (most > rated)
        say(
          'current',
          'stops',
          `${end.instance.name} draws up to ${formatQuantity(most, 'A', 3)} through ${transistor.name}, which is made for ${formatQuantity(rated, 'A')}.`,
          [
            {
              text: `${transistor.sheet}: ${formatQuantity(rated, 'A')}`,
              origin: partOrigin(transistor, 'current', transistor.current),
            },
          ],
        )
      if (on.junction && on.junction.value.max > siliconJunction)
        say(
          'heat',
          'risks',
          `The transistor of ${name} reaches ${formatQuantity(on.junction.value.max, '°C', 3)} when it stays on; its sheet states no limit, and ${siliconJunction} °C is what silicon is made for.`,
          [
            {
              text: `It turns up to ${formatQuantity(on.heat!.value.max, 'W', 2)} into heat`,
              worked: on.heat,
            },
            {
              text: `Its junction reaches ${formatQuantity(on.junction.value.max, '°C', 3)}`,
              worked: on.junction,
            },
          ],
        )
      const diode = load.inductive ? findPart(library, 'diode', load.diode) : undefined
      const supply = voltageFor(supplies, end.instance.need)
      if (diode && most > fullRange(diode.current).max)
        say(
          'diode',
          'risks',
          `When ${end.instance.name} is switched off, ${formatQuantity(most, 'A', 3)} flow on through ${diode.name}, which is made for ${formatQuantity(fullRange(diode.current).max, 'A')}.`,
          [
            {
              text: `${diode.sheet}: ${formatQuantity(fullRange(diode.current).max, 'A')}`,
              origin: partOrigin(diode, 'current', diode.current),
            },
          ],
        )
      if (diode && supply && supply.value.max > fullRange(diode.reverse).max)
        say(
          'reverse',
          'stops',
          `${diode.name} across ${end.instance.name} stands ${formatQuantity(fullRange(diode.reverse).max, 'V')} in reverse; its supply reaches ${formatQuantity(supply.value.max, 'V', 3)}.`,
          [{ text: `The supply reaches ${formatQuantity(supply.value.max, 'V', 3)}`, worked: supply }],
        )
      return found
    }),
}
