import { type Check, say } from '../../findings'
import { legName } from '../../legs'

export const byteScattered: Check = {
  id: 'pins.byte-scattered',
  stage: 'pins',
  looksFor: 'a byte whose bits don’t lie on one port in order',
  rule: 'one write sets a whole port; scattered bits are set one by one',
  run: ({ pins, design }) =>
    pins.bytes
      .filter((b) => !b.port && b.wires.every((w) => !w.impossible))
      .map((byte) => {
        const locked = byte.wires.filter((w) => w.locked && !w.soldered)
        return {
          id: `pins.byte-scattered:${byte.id}`,
          severity: 'notes' as const,
          ...say`The ${byte.wires.length} bits of ${byte.name} don’t lie on one port in order: the program sets them one by one.`,
          because: [
            say`Bit 0 to ${byte.wires.length - 1}: ${byte.wires.map((w) => w.pin.id).join(', ')}`,
            ...(locked.length > 0
              ? [say`Locked: ${locked.map((w) => `${w.signal.name} on ${legName(w.pin)}`).join(', ')}`]
              : [say`No run of neighbouring legs of one port is free that costs less than scattering does`]),
            say`The bits don’t change at the same moment, and each write takes several steps`,
          ],
          fixes: [
            ...(locked.length > 0
              ? [
                  {
                    label: `Release the locks of ${byte.name}`,
                    edits: locked.map((w) => ({
                      kind: 'unlockSignal' as const,
                      signal: w.signal.id,
                      name: w.signal.name,
                    })),
                  },
                ]
              : []),
            ...(Object.keys(design.pins.kept).length > 0
              ? [{ label: 'Plan afresh, keeping only locks', edits: [{ kind: 'replan' as const }] }]
              : []),
          ],
          about: { signal: byte.wires[0]!.signal.id },
        }
      }),
}
