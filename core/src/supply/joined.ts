// How many of a cell that can be joined make a source for a project.

import { settledBy } from '../carrier'
import { type CellsChoice, type Design, joinCells, joinedOf, type LeadOwner } from '../design'
import { findPart, type Library, partsOfKind, type Source } from '../parts'
import { fullRange } from '../quantity'
import { convertsUp } from './graph'

type Feeding = Pick<Design, 'chip' | 'power'>

/** What the cells must have at the least, emptied, and may have at the most, fresh, V; as far as it is known before loads are. */
const wanted = (design: Feeding, library: Library): { least: number; most: number } => {
  const regulator = findPart(library, 'regulator', settledBy(design, library).regulator)
  const board = findPart(library, 'board', design.chip.part)
  if (board) {
    const { min, max } = fullRange(board.input)
    return { least: min, most: max }
  }
  if (regulator) {
    const { min, max } = fullRange(regulator.inputRecommended)
    // What it needs for itself at little load: more is told once loads are known.
    const drop = Math.min(...regulator.dropout.map((p) => fullRange(p.voltage).max))
    return {
      least: convertsUp(regulator) ? min : Math.max(min, fullRange(regulator.output).max + drop),
      most: max,
    }
  }
  const chip = findPart(library, 'chip', design.chip.part)
  const supply = chip && fullRange(chip.supply.recommended)
  return { least: supply?.min ?? 0, most: supply?.max ?? Infinity }
}

/**
 * The fewest in a row that have enough even emptied; where fresh ones would have too much then, as many as have not. Undefined for what
 * can’t be joined. For a second feed, one.
 */
export const usualCells = (
  of: LeadOwner,
  cell: Source,
  design: Feeding,
  library: Library,
): Required<CellsChoice> | undefined => {
  if (!cell.joins) return undefined
  if (of === 'feed') return { series: 1, parallel: 1 }
  const { least, most } = wanted(design, library)
  const { min: empty, max: fresh } = fullRange(cell.voltage)
  const enough = Math.ceil(least / empty - 1e-9)
  const standing = Math.floor(most / fresh + 1e-9)
  return { series: Math.max(1, Math.min(enough, standing, cell.joins.series)), parallel: 1 }
}

/** Every source of the library; of cells that can be joined as many as are chosen, or as many as it takes. */
export const sourcesFor = (of: LeadOwner, design: Feeding, library: Library): Source[] =>
  partsOfKind(library, 'source').map((source) => {
    const chosen = source.id === design.power[of] ? joinedOf(design, of) : undefined
    const joined = chosen ?? usualCells(of, source, design, library)
    return joined ? joinCells(source, joined) : source
  })
