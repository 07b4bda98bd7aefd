// Signals of a few devices, for tests about legs and plans.

import { emptyDesign } from '../src/design'
import { type OpenNeeds, resolveNeeds, type SignalNeed } from '../src/needs'
import { shippedLibrary } from './files'

const library = shippedLibrary()

/** Signals of a few devices, by part id and count. */
export const signalsOf = (...wanted: [part: string, count: number, wiring?: string][]): SignalNeed[] =>
  resolveNeeds(
    {
      ...emptyDesign('x'),
      needs: {
        limits: { ambient: 25 },
        devices: wanted.map(([part, count, wiring], i) => ({
          id: `d${i + 1}`,
          part,
          name: part,
          count,
          wiring,
        })),
      },
    },
    library,
  ).signals
export const one = (part: string, wiring?: string, index = 0): SignalNeed =>
  signalsOf([part, 1, wiring])[index]!

export const silent = { on: false, answers: {} }
/** Signals whose wiring is settled, and no radio. */
export const alone = (signals: SignalNeed[]): OpenNeeds => ({ signals, choices: [], bytes: [], radio: false })
