import type { Check } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { legName } from '../passport'
import { attributeOf } from '../ways'

export const inputLevel: Check = {
  id: 'pins.input-level',
  stage: 'pins',
  looksFor: 'a device whose output is above what its leg stands, or too low to be read as high',
  rule: 'input thresholds and absolute maximum of the chip',
  run: ({ chip: { chip }, pins, power }) =>
    (chip && power.rail ? (pins.plan?.wires ?? []) : []).flatMap((wire) =>
      wire.signal.ends.flatMap((end) => {
        const out = end.signal.electrical
        if (out.kind !== 'logic-output' || !out.high) return []
        const high = fullRange(out.high)
        const rail = power.rail!.value
        const tolerant = attributeOf(wire.pin, 'tolerant')
        const most = tolerant ? tolerant.voltage : rail.min + fullRange(chip!.io.aboveSupply).max
        const threshold = chip!.io.inputHigh.factor * rail.max + (chip!.io.inputHigh.offset ?? 0)
        const tooHigh = high.max > most
        if (!tooHigh && high.min >= threshold) return []
        return [
          {
            id: `pins.input-level:${wire.signal.id}`,
            severity: tooHigh ? ('stops' as const) : ('risks' as const),
            grade: 'outside the sheet' as const,
            text: tooHigh
              ? `${end.instance.name} puts up to ${formatQuantity(high.max, 'V', 3)} on ${legName(wire.pin)}, which stands ${formatQuantity(most, 'V', 3)}.`
              : `${end.instance.name} gives as little as ${formatQuantity(high.min, 'V', 3)}; ${legName(wire.pin)} reads high from ${formatQuantity(threshold, 'V', 3)}.`,
            because: [
              {
                text: `${end.instance.part.sheet}: its high level is ${formatQuantity(high.min, 'V', 3)} to ${formatQuantity(high.max, 'V', 3)}`,
              },
              {
                text: `The rail is ${formatQuantity(rail.min, 'V', 3)} to ${formatQuantity(rail.max, 'V', 3)}`,
                worked: power.rail!,
              },
              { text: `${chip!.sheet}: ${tooHigh ? 'absolute maximum of a leg' : 'threshold of an input'}` },
            ],
            fixes: [],
            about: { signal: wire.signal.id, pin: wire.pin.id },
          },
        ]
      }),
    ),
}
