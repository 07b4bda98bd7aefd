import { supportFor } from '../../circuit'
import { type Check, say, unsaid } from '../../findings'
import { formatQuantity, fullRange, nextDown } from '../../quantity'
import { boardLoads } from '../drive'
import { legSaid } from '../../legs'

export const ledOverLimit: Check = {
  id: 'pins.led-over-limit',
  stage: 'pins',
  looksFor: 'an LED that draws more than its leg should carry',
  rule: 'recommended and absolute maximum current of a leg',
  run: ({ chip: { chip }, pins }) =>
    (chip ? (pins.plan?.wires ?? []) : []).flatMap((wire) => {
      const on = pins.leds[wire.signal.id]
      const support = supportFor(pins.support, 'lamp resistor', wire.signal.id)
      if (!on || !support) return []
      const actual = support.present ? on.current : on.bare
      const recommended = fullRange(chip!.limits.pinRecommended).max
      const absolute = fullRange(chip!.limits.pinAbsolute).max
      const beside = boardLoads(chip!, wire)
      const lost = beside.reduce((sum, l) => sum + l.current.value.max, 0)
      const most = actual.value.max + lost
      if (most <= recommended) return []
      const end = wire.signal.ends[0]!
      const lower = nextDown(Math.min(recommended - lost, fullRange(on.led.current).max) * 0.8, 'E6')
      return [
        {
          id: `pins.led-over-limit:${wire.signal.id}`,
          severity: most > absolute ? ('stops' as const) : ('risks' as const),
          grade: 'outside the sheet' as const,
          ...say`${wire.signal.name} draws up to ${formatQuantity(most, 'A', 3)}; ${legSaid(wire.pin)} is good for ${formatQuantity(recommended, 'A')}${most > absolute ? say` and breaks above ${formatQuantity(absolute, 'A')}` : unsaid}.`,
          because: [
            say`${formatQuantity(on.wanted, 'A')} is asked for ${wire.signal.name}`,
            support.present
              ? { ...say`The resistor is ${formatQuantity(on.resistor.value, 'Ω')}`, worked: on.resistance }
              : say`The series resistor is left out`,
            {
              ...say`The current is then ${formatQuantity(actual.value.min, 'A', 3)} to ${formatQuantity(actual.value.max, 'A', 3)}`,
              worked: actual,
            },
            ...beside.map((l) => ({
              ...say`On the same leg ${chip!.board!.name} has ${l.onBoard!}: ${formatQuantity(l.current.value.max, 'A')} more`,
              worked: l.current,
            })),
            {
              ...say`A leg carries ${formatQuantity(recommended, 'A')} recommended, ${formatQuantity(absolute, 'A')} absolute maximum`,
              origin: {
                kind: 'part' as const,
                part: chip!.id,
                name: chip!.name,
                field: 'limits.pinRecommended',
                sheet: chip!.sheet,
                place: chip!.limits.pinRecommended.source,
                limit: 'recommended' as const,
              },
            },
          ],
          fixes: [
            {
              label: `Ask for ${formatQuantity(lower, 'A')} instead`,
              edits: [
                {
                  kind: 'setSetting' as const,
                  id: end.instance.need.id,
                  setting: `${end.signal.id}.current`,
                  value: lower,
                },
                ...(support.present
                  ? []
                  : [{ kind: 'putIn' as const, support: support.key, name: support.name }]),
              ],
            },
            ...(support.present
              ? []
              : [
                  {
                    label: 'Put the resistor in',
                    edits: [{ kind: 'putIn' as const, support: support.key, name: support.name }],
                  },
                ]),
          ],
          about: { signal: wire.signal.id, pin: wire.pin.id, device: end.instance.need.id },
        },
      ]
    }),
}
