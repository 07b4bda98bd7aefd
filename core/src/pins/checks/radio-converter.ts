import { type Check, say } from '../../findings'
import { legSaid, stoppedByRadio } from '../../legs'
import { moveToBest } from './cannot-serve'

export const radioConverter: Check = {
  id: 'pins.radio-converter',
  stage: 'pins',
  looksFor: 'readings by a converter that stops while the radio is on',
  rule: 'what disables a converter, in the chip’s part file',
  run: (stages) => {
    const { chip, design, needs, pins } = stages
    if (!chip.chip || !needs.open.radio) return []
    return (pins.plan?.wires ?? [])
      .filter((w) => w.unit && !w.impossible && stoppedByRadio(chip.chip!, { unit: w.unit.id }))
      .map((wire) => {
        const { signal, unit, pin } = wire
        const accepted = design.pins.radio?.[signal.id] === 'accept'
        return {
          id: `pins.radio-converter:${signal.id}`,
          severity: accepted ? 'risks' : 'notes',
          ...(accepted
            ? say`Readings of ${signal.name} fail while the radio is on.`
            : say`The program must pause the radio while it reads ${signal.name}.`),
          because: [
            say`${signal.name} is on ${legSaid(pin)}, which ${unit!.name} reads`,
            say`${unit!.name} stops while the radio is on (${chip.chip!.sheet}, ${unit!.source ?? 'converters'})`,
            say`The program uses the radio (said on the Needs page)`,
          ],
          fixes: [
            ...(design.pins.radio?.[signal.id]
              ? [
                  {
                    label: `Keep ${signal.name} off that converter`,
                    edits: [
                      { kind: 'answerRadio' as const, signal: signal.id, name: signal.name, answer: null },
                      { kind: 'unlockSignal' as const, signal: signal.id, name: signal.name },
                    ],
                  },
                ]
              : moveToBest(stages, wire)),
            ...(accepted
              ? [
                  {
                    label: `Pause the radio to read ${signal.name}`,
                    edits: [
                      {
                        kind: 'answerRadio' as const,
                        signal: signal.id,
                        name: signal.name,
                        answer: 'pause' as const,
                      },
                    ],
                  },
                ]
              : []),
          ],
          about: { signal: signal.id, pin: pin.id },
        }
      })
  },
}
