import { type Check, say } from '../../findings'
import { legSaid, attributeOf } from '../../legs'

export const resetPort: Check = {
  id: 'pins.reset-port',
  stage: 'pins',
  looksFor: 'a reset leg that serves as a port',
  rule: 'what becomes of programming, in the chip’s part file',
  run: ({ chip: { chip }, design, pins }) => {
    const pin = chip?.pins.find((p) => attributeOf(p, 'reset')?.asPort !== undefined)
    if (!chip || !pin || !design.pins.resetAsPort) return []
    const why = attributeOf(pin, 'reset')!
    const wire = pins.plan?.wires.find((w) => w.pin.id === pin.id)
    const keep = {
      label: 'Keep the reset leg for reset',
      edits: [{ kind: 'useReset' as const, port: false }],
    }
    return [
      {
        id: 'pins.reset-port',
        severity: 'risks',
        ...(wire
          ? say`${wire.signal.name} is on the reset leg: once that is set, the programmer can’t get in.`
          : say`The reset leg is set to be a port, and nothing needs it.`),
        because: [
          say`${legSaid(pin)} is a port by your choice`,
          say`Then ${why.asPort!} (${chip.sheet}, ${why.source ?? 'reset'})`,
          say`Load and try the program first, and set the bit last`,
        ],
        fixes: [keep],
        about: { pin: pin.id, signal: wire?.signal.id },
      },
    ]
  },
}
