// Which other parts a part speaks of: a board of its chip, a lamp of its LED.

import type { Electrical } from './kinds/device'
import type { Library, Part } from './library'

const ofElectrical = (e: Electrical): (string | undefined)[] => {
  if (e.kind === 'led') return [e.led, e.power]
  if (e.kind === 'switched') return [e.transistor, e.diode]
  return []
}

export const referencesOf = (part: Part): string[] => {
  const ids: (string | undefined)[] =
    part.kind === 'board'
      ? [part.chip, part.regulator, part.clock?.part, ...part.blocks.map((b) => b.part)]
      : part.kind === 'device'
        ? [
            ...part.wirings.flatMap((w) => w.signals.flatMap((s) => ofElectrical(s.electrical))),
            part.latch?.pass,
            part.latch?.diode,
          ]
        : []
  return [...new Set(ids.filter((id) => id !== undefined))]
}

/** These parts and every part they speak of, as far as the library has them. */
export const withReferences = (library: Library, ids: readonly string[]): Part[] => {
  const found = new Map<string, Part>()
  const visit = (id: string): void => {
    const part = Object.hasOwn(library.parts, id) ? library.parts[id] : undefined
    if (!part || found.has(id)) return
    found.set(id, part)
    referencesOf(part).forEach(visit)
  }
  ids.forEach(visit)
  return [...found.values()]
}
