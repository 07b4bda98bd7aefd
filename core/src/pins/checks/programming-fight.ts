import type { Check } from '../../findings'
import { deviceDrives } from '../costs'
import { legName } from '../passport'
import { attributeOf } from '../ways'
import { moveToBest } from './cannot-serve'

export const programmingFight: Check = {
  id: 'pins.programming-fight',
  stage: 'pins',
  looksFor: 'a device that drives a line which the programmer drives too',
  rule: 'two outputs on one line fight; which of them wins is not defined',
  run: (stages) =>
    (stages.pins.plan?.wires ?? []).flatMap((wire) => {
      const use = attributeOf(wire.pin, 'programming')
      if (!use || use.drivenBy !== 'programmer' || !deviceDrives(wire.signal)) return []
      const device = wire.signal.ends[0]!.instance
      const method = stages.chip.chip!.programming[0]!
      return [
        {
          id: `pins.programming-fight:${wire.signal.id}`,
          severity: 'stops' as const,
          grade: 'impossible' as const,
          text: `${device.name} drives ${legName(wire.pin)}, which the programmer drives as ${use.signal}: the chip can’t be programmed on the board.`,
          because: [
            { text: `${wire.signal.name} is on ${legName(wire.pin)}` },
            {
              text: `${wire.pin.id} is the programmer’s ${use.signal} (${stages.chip.chip!.sheet}, ${use.source ?? method.source ?? 'programming'})`,
            },
            {
              text: `${device.name} drives its ${wire.signal.ends[0]!.signal.terminal} all the time (${device.part.sheet})`,
            },
            { text: 'Two outputs on one line: each pulls its way, and neither level is sure' },
          ],
          fixes: [
            ...moveToBest(stages, wire),
            {
              label: 'Keep this leg free',
              edits: [{ kind: 'excludePin' as const, pin: wire.pin.id, kept: stages.pins.assignment }],
            },
          ],
          about: { signal: wire.signal.id, pin: wire.pin.id },
        },
      ]
    }),
}
