import type { Check, Fix } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'

export const clockTooFast: Check = {
  id: 'clock.too-fast',
  stage: 'chip',
  looksFor: 'a clock above what the chip permits at the rail’s lowest voltage',
  rule: 'the chip’s frequency limits over supply',
  run: ({ chip: { chip }, clock, power, regulators }) => {
    const f = clock.frequency.value.max
    if (!chip || !clock.limit || !power.rail || f <= clock.limit.value.min) return []
    const slower = clock.choices
      .filter((o) => o.frequency <= clock.limit!.value.min)
      .sort(
        (a, b) =>
          Number(b.source.id === clock.source?.id) - Number(a.source.id === clock.source?.id) ||
          b.frequency - a.frequency,
      )[0]
    const needed = clock.lowestSupply?.value.max
    const higher =
      needed === undefined
        ? []
        : regulators()
            .filter((r) => r.no.length === 0 && fullRange(r.regulator.output).min >= needed)
            .slice(0, 2)
    const fixes: Fix[] = [
      ...(slower
        ? [
            {
              label: `Clock at ${formatQuantity(slower.frequency, 'Hz')} from ${slower.name}`,
              edits: [
                {
                  kind: 'chooseClock' as const,
                  name: slower.name,
                  clock: { source: slower.source.id, frequency: slower.frequency, part: slower.part?.id },
                },
              ],
            },
          ]
        : []),
      ...higher.map((r) => ({
        label: `Raise the rail with ${r.regulator.name}`,
        edits: [{ kind: 'chooseRegulator' as const, part: r.regulator.id, name: r.regulator.name }],
      })),
    ]
    return [
      {
        id: 'clock.too-fast',
        severity: 'stops',
        grade: 'outside the sheet',
        text: `${formatQuantity(f, 'Hz')} is too fast for this supply: at ${formatQuantity(power.rail.value.min, 'V', 3)} ${chip.name} is good for ${formatQuantity(clock.limit.value.min, 'Hz', 3)}.`,
        because: [
          { text: `The clock is ${formatQuantity(f, 'Hz')}`, worked: clock.frequency },
          {
            text: `The rail may be as low as ${formatQuantity(power.rail.value.min, 'V', 3)}`,
            worked: power.rail,
          },
          {
            text: `At that supply the chip permits ${formatQuantity(clock.limit.value.min, 'Hz', 3)}`,
            worked: clock.limit,
          },
          ...(clock.lowestSupply
            ? [
                {
                  text: `This clock needs at least ${formatQuantity(clock.lowestSupply.value.max, 'V', 3)}`,
                  worked: clock.lowestSupply,
                },
              ]
            : []),
        ],
        fixes,
      },
    ]
  },
}
