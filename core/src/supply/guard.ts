// A p-channel MOSFET in the plus against a source that is put in the wrong way round: its drain at the source, its gate at ground.
// It is on by the source’s own voltage, and off when that is turned round; unlike a diode it lets current back while it is on.

import type { Design } from '../design'
import { type Said, say } from '../findings'
import { findPart, type Library, type Source, type Transistor } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { latchParts } from './latch'

type Feeding = Pick<Design, 'chip' | 'power'> & { needs: Pick<Design['needs'], 'devices'> }

export type NoGuard = 'no source' | 'board' | 'latch' | 'unknown' | 'other sort'

/** Why the one that is chosen can’t lie there; nothing where it can, or none is chosen. */
export const noGuard = (design: Feeding, library: Library): NoGuard | undefined => {
  const { guard, source } = design.power
  if (guard === undefined) return undefined
  const part = findPart(library, 'transistor', guard)
  if (!part) return 'unknown'
  if (part.sort !== 'p-mosfet') return 'other sort'
  if (!findPart(library, 'source', source)) return 'no source'
  if (findPart(library, 'board', design.chip.part)) return 'board'
  return latchParts(design, library)?.pass ? 'latch' : undefined
}

/** The transistor in the plus; undefined where there is none. */
export const guardOf = (design: Feeding, library: Library): Transistor | undefined =>
  noGuard(design, library) === undefined ? findPart(library, 'transistor', design.power.guard) : undefined

/** What speaks against it in the plus of this source, by the sheets of both: what it stands, and whether it is on. */
export const guardAgainst = (
  { name, gateVoltage, voltage, threshold, channel }: Transistor,
  source: Source,
): Said[] => {
  const { min, max } = fullRange(source.voltage)
  const gate = gateVoltage && fullRange(gateVoltage).max
  const stands = fullRange(voltage).max
  const begins = threshold && fullRange(threshold).max
  const from = Math.min(...(channel ?? []).map((c) => c.gate))
  return [
    ...(gate !== undefined && max > gate
      ? [say`${name} in the plus stands ${formatQuantity(gate, 'V', 3)} at its gate`]
      : []),
    ...(max > stands ? [say`${name} in the plus stands ${formatQuantity(stands, 'V', 3)}`] : []),
    ...(begins !== undefined && min < begins
      ? [say`${formatQuantity(min, 'V', 3)} may not turn on ${name} in the plus`]
      : min < from && channel?.length
        ? [
            say`what the channel of ${name} in the plus is at ${formatQuantity(min, 'V', 3)} its sheet doesn’t say`,
          ]
        : []),
  ]
}
