import { type Check, partOrigin, say, unsaid } from '../../findings'
import { stockOf, supportFor } from '../../circuit'
import { formatQuantity, fullRange } from '../../quantity'
import { smallerLed } from '../../support'

/** An LED or its resistor beyond what each itself stands; what the leg stands is another check. */
export const ledRating: Check = {
  id: 'pins.led-rating',
  stage: 'pins',
  looksFor: 'an LED with more current than it stands, or a series resistor with more heat',
  rule: 'recommended and absolute maximum current of the LED; power rating of the resistor',
  run: ({ chip: { chip }, pins, power, library }) =>
    (chip ? (pins.plan?.wires ?? []) : []).flatMap((wire) => {
      const on = pins.leds[wire.signal.id]
      const support = supportFor(pins.support, 'lamp resistor', wire.signal.id)
      if (!on || !support) return []
      const actual = support.present ? on.current : on.bare
      const most = actual.value.max
      const [recommended, absolute] = [fullRange(on.led.current).max, fullRange(on.led.currentAbsolute).max]
      const rated = support.part.kind === 'resistors' ? support.part.power : Infinity
      const hot = support.present && on.power.value.max > rated
      const bright = most > recommended
      if (!bright && !hot) return []
      const { instance, signal } = wire.signal.ends[0]!
      const lower =
        power.rail &&
        smallerLed(
          wire,
          { chip: chip!, rail: power.rail, library, supplies: power.supplies, stock: stockOf(library) },
          on.wanted,
          (l) => l.current.value.max <= recommended && l.power.value.max <= rated,
        )
      return [
        {
          id: `pins.led-rating:${wire.signal.id}`,
          severity: most > absolute ? ('stops' as const) : ('risks' as const),
          grade: 'outside the sheet' as const,
          ...(bright
            ? say`${wire.signal.name} gets up to ${formatQuantity(most, 'A', 3)}; ${on.led.name} is made for ${formatQuantity(recommended, 'A')}${most > absolute ? say` and breaks above ${formatQuantity(absolute, 'A')}` : unsaid}.`
            : say`The resistor of ${wire.signal.name} turns up to ${formatQuantity(on.power.value.max, 'W', 2)} into heat; it is made for ${formatQuantity(rated, 'W')}.`),
          because: [
            { ...say`${formatQuantity(on.wanted, 'A')} is asked for`, worked: on.resistance },
            { ...say`The current is up to ${formatQuantity(most, 'A', 3)}`, worked: actual },
            {
              ...say`${on.led.sheet}: ${formatQuantity(recommended, 'A')} recommended, ${formatQuantity(absolute, 'A')} absolute maximum`,
              origin: partOrigin(on.led, 'current', on.led.current),
            },
            ...(support.present
              ? [
                  {
                    ...say`The resistor turns up to ${formatQuantity(on.power.value.max, 'W', 2)} into heat`,
                    worked: on.power,
                  },
                ]
              : []),
          ],
          fixes:
            lower === undefined
              ? []
              : [
                  {
                    label: `Ask for ${formatQuantity(lower, 'A')} instead`,
                    edits: [
                      {
                        kind: 'setSetting' as const,
                        id: instance.need.id,
                        setting: `${signal.id}.current`,
                        value: lower,
                      },
                      ...(support.present
                        ? []
                        : [{ kind: 'putIn' as const, support: support.key, name: support.name }]),
                    ],
                  },
                ],
          about: { signal: wire.signal.id, pin: wire.pin.id, device: instance.need.id },
        },
      ]
    }),
}
