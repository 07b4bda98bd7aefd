import { without } from '../../design'
import type { Check, Stages } from '../../findings'
import { planPins } from '../plan'
import { legName } from '../passport'

/** Where the solver would put a signal if its lock were gone; undefined when nowhere. */
export const bestPinFor = ({ chip, design, needs, pins }: Stages, signal: string): string | undefined => {
  if (!chip.chip) return undefined
  const locks = without(design.pins.locks, signal)
  const kept = without(pins.assignment, signal)
  const plan = planPins(chip.chip, needs.signals, { ...design.pins, locks, kept }, pins.taken)
  return plan.wires.find((w) => w.signal.id === signal && !w.impossible)?.pin.id
}

export const cannotServe: Check = {
  id: 'pins.cannot-serve',
  stage: 'pins',
  looksFor: 'a signal locked on a leg that can’t do its work',
  rule: 'the chip’s functions and what else needs the leg',
  run: (stages) =>
    (stages.pins.plan?.wires ?? [])
      .filter((w) => w.impossible)
      .map((wire) => {
        const best = bestPinFor(stages, wire.signal.id)
        return {
          id: `pins.cannot-serve:${wire.signal.id}`,
          severity: 'stops',
          grade: 'impossible',
          text: `${wire.signal.name} can’t be on ${legName(wire.pin)}: ${wire.impossible}.`,
          because: [
            { text: `${wire.signal.name} is locked on ${legName(wire.pin)}` },
            {
              text: `${wire.signal.name} is ${wire.signal.bus ? `line ${wire.signal.bus.line} of a bus` : `a ${wire.signal.kind.replace('-', ' ')} signal`}`,
            },
            { text: `${wire.pin.id}: ${wire.impossible} (${stages.chip.chip!.sheet})` },
          ],
          fixes: [
            ...(best
              ? [
                  {
                    label: `Move it to ${best}`,
                    edits: [
                      {
                        kind: 'moveSignal' as const,
                        signal: wire.signal.id,
                        name: wire.signal.name,
                        pin: best,
                        kept: stages.pins.assignment,
                      },
                    ],
                  },
                ]
              : []),
            {
              label: 'Release the lock',
              edits: [{ kind: 'unlockSignal' as const, signal: wire.signal.id, name: wire.signal.name }],
            },
          ],
          about: { signal: wire.signal.id, pin: wire.pin.id },
        }
      }),
}
