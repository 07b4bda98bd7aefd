// What the machine does, for how much of the time.

import type { Chip } from '../parts'
import type { Worked } from '../findings'

export type StateId = string

/** A part of the time. The shares of all of them add up to one. */
export interface Period {
  id: StateId
  /** In a sentence: “at work”. */
  name: string
  /** Beneath the letter of what belongs to it: `I_work`. */
  symbol: string
  /** How much of the time, 0 to 1. */
  share: Worked
}

export interface State extends Period {
  /** The chip’s; undefined where none is chosen. */
  mode?: Chip['modes'][number]
  /** The chip sleeps, and what sleeps with it. */
  asleep: boolean
  radio: boolean
  /** Of devices, by their ids; one that is not here goes through its own cycle. */
  modes: Readonly<Record<string, string>>
}
