// What a board is made of, what each block draws, and what a board of one's own does with it.

import { type Design, type Edit } from '../design'
import { fromPart, type Worked } from '../findings'
import { type Board, type Chip, findPart, type Library } from '../parts'
import { dimensionOf, sum, total } from '../sums'
import { seatsOf } from '../carrier'

export type Block = Board['blocks'][number]

export interface Anatomy {
  board: Board
  /** The bare chip or module on it. */
  bare?: Chip
  /** What the blocks draw beside the chip. */
  asleep: Worked
  awake: Worked
  /** Asleep, of the blocks that a board of one's own copies. */
  standaloneAsleep: Worked
  /** The chip alone in its deepest sleep. */
  chipAsleep?: Worked
  /** Chip pins that no header brings out, by what keeps them. */
  hidden: string[]
}

/** What some blocks of a board draw together. */
export const blocksCurrent = (
  board: Board,
  blocks: Block[],
  which: 'asleep' | 'awake',
  label: string,
  symbol: string,
): Worked =>
  sum(
    { label, symbol, unit: 'A' },
    Object.fromEntries(
      blocks.map((b, i) => [
        `I${i + 1}`,
        fromPart(`I${i + 1}`, b.name, board, `blocks.${b.id}.${which}`, b[which], 'A'),
      ]),
    ),
    (i) => total(Object.values(i), dimensionOf('A')),
  )

/** The chip of a carrier in its deepest sleep; undefined where it has none. */
const chipAsleep = (chip: Chip): Worked | undefined => {
  const sleep = chip.modes.filter((m) => m.kind === 'sleep').at(-1)
  if (!sleep) return undefined
  const I_sleep = fromPart('I_sleep', sleep.name, chip, `modes.${sleep.id}.current`, sleep.current, 'A')
  return sum(
    { label: `${chip.name}, ${sleep.name}`, symbol: 'I_chip', unit: 'A' },
    { I_sleep },
    (i) => i.I_sleep,
  )
}

const boardAsleep = (board: Board): Worked =>
  blocksCurrent(
    board,
    board.blocks,
    'asleep',
    'What the board’s blocks draw while the chip sleeps',
    'I_asleep',
  )

/** What a carrier draws while its chip sleeps as deeply as it can: a bare chip itself, a board with all its blocks. */
export const asleepOf = (carrier: Chip): Worked | undefined => {
  const chip = chipAsleep(carrier)
  if (!chip || !carrier.board) return chip
  return sum(
    { label: `${carrier.name} asleep`, symbol: 'I', unit: 'A' },
    { I_chip: chip, I_asleep: boardAsleep(carrier.board) },
    (i) => i.I_chip.plus(i.I_asleep),
  )
}

export const anatomyOf = (board: Board, library: Library): Anatomy => {
  const bare = findPart(library, 'chip', board.chip)
  const brought = new Set(seatsOf(board).flatMap((p) => p.pin ?? []))
  return {
    board,
    bare,
    asleep: boardAsleep(board),
    awake: blocksCurrent(
      board,
      board.blocks,
      'awake',
      'What the board’s blocks draw beside the running chip',
      'I_awake',
    ),
    standaloneAsleep: blocksCurrent(
      board,
      board.blocks.filter((b) => b.standalone === 'copy'),
      'asleep',
      'What the copied blocks draw while the chip sleeps',
      'I_copied',
    ),
    chipAsleep: bare && chipAsleep(bare),
    hidden: (bare?.pins ?? [])
      .filter((p) => ['io', 'input', 'output'].includes(p.type) && !brought.has(p.id))
      .map((p) => p.id),
  }
}

/** Builds the project around the bare chip of a board, leg by leg as it was wired to the board. */
export const standaloneEdit = (
  design: Design,
  { board, bare }: Anatomy,
  assignment: Record<string, string>,
): Edit | undefined =>
  bare && design.chip.part === board.id
    ? {
        kind: 'makeStandalone',
        part: bare.id,
        name: bare.name,
        kept: assignment,
        clock: board.clock,
        regulator: board.regulator,
      }
    : undefined
