import { type Check, type Fix, say } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { optionTooFast, tooFast } from '../resolve'

export const clockTooFast: Check = {
  id: 'clock.too-fast',
  stage: 'chip',
  looksFor: 'a clock above what the chip permits at the rail’s lowest voltage',
  rule: 'the chip’s frequency limits over supply',
  run: ({ chip: { chip }, clock, power, regulators }) => {
    const over = tooFast(clock)
    if (!chip || !clock.limit || !power.rail || !over) return []
    const f = over === 'surely' ? clock.nominal.value.typ : clock.frequency.value.max
    const slower = clock.choices
      .filter((o) => o.frequency < clock.nominal.value.typ && !optionTooFast(chip, o, power.rail!))
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
    const low = formatQuantity(power.rail.value.min, 'V', 3)
    const permitted = clock.limit.value.min
    return [
      {
        id: 'clock.too-fast',
        severity: over === 'surely' ? 'stops' : 'risks',
        grade: 'outside the sheet',
        ...say`${over === 'surely' ? formatQuantity(f, 'Hz') : say`A clock of ${formatQuantity(clock.nominal.value.typ, 'Hz')} may be up to ${formatQuantity(f, 'Hz', 4)}, which`} is too fast for this supply: at ${low} ${chip.name} is good for ${permitted > 0 ? formatQuantity(permitted, 'Hz', 4) : say`no clock at all`}.`,
        because: [
          {
            ...say`The clock is up to ${formatQuantity(clock.frequency.value.max, 'Hz', 4)}`,
            worked: clock.frequency,
          },
          {
            ...say`The rail may be as low as ${low}`,
            worked: power.rail,
          },
          {
            ...say`At that supply the chip permits ${permitted > 0 ? formatQuantity(permitted, 'Hz', 4) : say`none`}`,
            worked: clock.limit,
          },
          ...(clock.lowestSupply
            ? [
                {
                  ...say`This clock needs at least ${formatQuantity(clock.lowestSupply.value.max, 'V', 3)}`,
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
