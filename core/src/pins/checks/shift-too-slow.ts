import { stockOf } from '../../circuit'
import { type Check, type Fix, say } from '../../findings'
import { formatQuantity } from '../../quantity'
import { fittedShift, isFar, passes, shiftNames, shiftsFor } from '../../levels'

export const shiftTooSlow: Check = {
  id: 'pins.shift-too-slow',
  stage: 'pins',
  looksFor: 'a level shift that is slower than its line',
  rule: 'rise time behind its resistors at their highest; I2C-bus specification, table 10',
  run: ({ design, library, chip: { chip }, pins, power: { rail, supplies } }) =>
    (chip && rail ? (pins.plan?.wires ?? []) : []).flatMap((wire) => {
      const context = {
        design,
        library,
        chip: chip!,
        rail: rail!,
        supplies,
        stock: stockOf(library),
        reference: pins.reference,
      }
      const end = wire.signal.ends.find((e) => isFar(wire, e))
      const shift = end && fittedShift(wire, end, context)
      if (!end || !shift || passes(shift)) return []
      const { name } = wire.signal
      const direction = pins.levels.find((l) => l.wire === wire && l.end === end)?.direction ?? 'both ways'
      const fit = (kind: typeof shift.kind | null) => ({
        kind: 'fitShift' as const,
        signal: wire.signal.id,
        name,
        shift: kind,
      })
      const fixes: Fix[] = shiftsFor(wire, end, direction, context)
        .filter((s) => s.kind !== shift.kind && passes(s))
        .map((s) => ({ label: `Fit a ${shiftNames[s.kind]} instead`, edits: [fit(s.kind)] }))
      return [
        {
          id: `pins.shift-too-slow:${wire.signal.id}`,
          severity: 'risks' as const,
          grade: 'outside the sheet' as const,
          ...say`The ${shiftNames[shift.kind]} in ${name} passes ${formatQuantity(shift.rate.value.min, 'Hz', 2)} at the worst; the line needs ${formatQuantity(shift.needed, 'Hz', 2)}.`,
          because: [
            { ...say`It passes up to ${formatQuantity(shift.rate.value.min, 'Hz', 2)}`, worked: shift.rate },
            say`${name} needs ${formatQuantity(shift.needed, 'Hz', 2)}`,
          ],
          fixes,
          about: { signal: wire.signal.id, pin: wire.pin.id },
        },
      ]
    }),
}
