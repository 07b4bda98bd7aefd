import { type Check, type Fix, type Stages, say } from '../../findings'
import { formatQuantity } from '../../quantity'
import { legSaid, type Wire, timerFit } from '../../legs'
import { moveToBest } from './cannot-serve'

/** Other clocks of the chip at which this timer does it. */
const otherClocks = ({ chip, clock }: Stages, wire: Wire): Fix[] =>
  chip.chip?.board
    ? []
    : clock.choices
        .filter((c) => c.part === undefined && c.frequency !== clock.frequency.value.typ)
        .filter((c) => !timerFit(chip.chip!, wire.signal, wire.unit?.id, c.frequency))
        .slice(0, 2)
        .map((c) => ({
          label: `Run the chip at ${formatQuantity(c.frequency, 'Hz')}`,
          edits: [
            {
              kind: 'chooseClock' as const,
              clock: { source: c.source.id, frequency: c.frequency, part: undefined },
              name: c.name,
            },
          ],
        }))

export const timerTooCoarse: Check = {
  id: 'pins.timer-fit',
  stage: 'pins',
  looksFor: 'a timer that can’t run at the wanted frequency, or sets it in few steps only',
  rule: 'f = f_clock / (p · N): the timer’s divisions and bits',
  run: (stages) => {
    const { chip } = stages.chip
    const clock = stages.clock.frequency.value.typ
    if (!chip) return []
    return (stages.pins.plan?.wires ?? []).flatMap((wire) => {
      const fit = timerFit(chip, wire.signal, wire.unit?.id, clock)
      if (!fit || wire.impossible) return []
      const sum = stages.pins.pwms.find((p) => p.wire === wire)
      return [
        {
          id: `pins.timer-fit:${wire.signal.id}`,
          severity: fit.reaches ? ('risks' as const) : ('stops' as const),
          grade: fit.reaches ? ('outside the sheet' as const) : ('impossible' as const),
          ...say`${fit}.`,
          because: [
            say`${wire.signal.name} wants ${formatQuantity(wire.signal.frequency!, 'Hz')} and is on ${legSaid(wire.pin)}, which ${wire.unit!.name} serves`,
            {
              ...say`The chip runs at ${formatQuantity(clock, 'Hz')}`,
              worked: stages.clock.frequency,
            },
            say`${wire.unit!.name} counts ${wire.unit!.resolution!} bits (${chip.sheet}, ${wire.unit!.source ?? 'timers'})`,
            ...(sum?.stepTime ? [{ ...say`One step in time`, worked: sum.stepTime }] : []),
          ],
          fixes: [...(wire.signal.at ? [] : moveToBest(stages, wire)), ...otherClocks(stages, wire)],
          about: { signal: wire.signal.id, pin: wire.pin.id },
        },
      ]
    })
  },
}
