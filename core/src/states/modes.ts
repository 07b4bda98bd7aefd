// What a device can be doing in a state.

import type { Device } from '../parts'

export interface DeviceMode {
  id: string
  name: string
}

/** Of a device that takes nothing by itself, and all through the legs: a lamp, a pointer. */
const throughLegs: readonly DeviceMode[] = [
  { id: 'off', name: 'off' },
  { id: 'on', name: 'on' },
]
const isDriven = ({ wirings }: Device): boolean =>
  wirings.some((w) => w.signals.some((s) => ['led', 'analog-load'].includes(s.electrical.kind)))

/** The modes of its sheet, at rest first; without any, on and off where the legs drive it. */
export const modesOf = (part: Device): readonly DeviceMode[] =>
  part.modes.length > 0 ? part.modes : isDriven(part) ? throughLegs : []

/** What rests has its first mode of several. */
export const isAtRest = (part: Device, mode: string | undefined): boolean => {
  const modes = modesOf(part)
  return modes.length > 1 && modes[0]!.id === mode
}
