// What is settled between the builder and the carrier: a board brings its own clock and its own regulator.

import type { ClockChoice, Design } from '../design'
import { findPart, type Library } from '../parts'

export interface Settled {
  /** Absent: the chip's own start. */
  clock?: ClockChoice
  /** The part that makes the chip's rail; absent: the source is on it. */
  regulator?: string
}

/** What of a design settles it. */
export type Deciding = Pick<Design, 'chip' | 'power'>

/** The board's own where a board is chosen, whatever was decided before; else what the builder decided. */
export const settledBy = ({ chip, power }: Deciding, library: Library): Settled => {
  const board = findPart(library, 'board', chip.part)
  return board
    ? { clock: board.clock, regulator: board.regulator }
    : { clock: chip.clock, regulator: power.regulator }
}
