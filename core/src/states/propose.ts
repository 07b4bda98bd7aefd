// States to begin with: the machine asleep with everything at rest, at work, and calling where it has a radio. Their times are
// guesses for the builder to put right.

import type { Design, StateChoice } from '../design'
import { type Chip, findPart, type Library } from '../parts'
import { modeOf } from './made'
import { modesOf } from './modes'

/** Seconds: at work so long each time, so often; with a radio so long, so often. */
const guess = { work: 2, every: 600, call: 4, calls: 3600 }

export const proposedStates = (design: Design, library: Library, chip: Chip | undefined): StateChoice[] => {
  const { devices, limits, radio } = design.needs
  const modes = (which: 'first' | 'last'): Record<string, string> =>
    Object.fromEntries(
      devices.flatMap((d) => {
        const part = findPart(library, 'device', d.part)
        const known = part ? modesOf(part) : []
        return known.length > 1 ? [[d.id, known.at(which === 'first' ? 0 : -1)!.id]] : []
      }),
    )
  const low = modeOf(chip, 'sleep') ?? modeOf(chip, 'idle')
  const calls = (radio ?? false) && chip?.radio !== undefined
  const said = limits.awake !== undefined && limits.awake > 0 && limits.awake < 1
  return [
    {
      id: 'work',
      name: 'at work',
      lasts: said ? Number((limits.awake! * guess.every).toPrecision(6)) : guess.work,
      every: guess.every,
      ...(calls && { radio: false }),
      modes: modes('last'),
    },
    ...(calls
      ? [
          {
            id: 'call',
            name: 'calling',
            lasts: guess.call,
            every: guess.calls,
            radio: true,
            modes: modes('first'),
          },
        ]
      : []),
    { id: 'rest', name: low ? 'asleep' : 'waiting', ...(low && { chip: low.id }), modes: modes('first') },
  ]
}
