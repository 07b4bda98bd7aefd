// Cells of a kind joined with others of it: in a row for more voltage, beside one another for more charge and current.

import { findPart, type Library, type Rated, type Source } from '../parts'
import type { CellsChoice, Design, LeadOwner } from './types'

export const cellsField = { source: 'cells', feed: 'feedCells' } as const satisfies Record<LeadOwner, string>

/** How many in a row and beside one another: one each where nothing is said. */
export const joinedOf = ({ power }: Pick<Design, 'power'>, of: LeadOwner): Required<CellsChoice> => ({
  series: 1,
  parallel: 1,
  ...power[cellsField[of]],
})

const scaled = (of: Rated, by: number, how: string): Rated => {
  const times = (x: number | undefined) => (x === undefined ? {} : { x: x * by })
  const [min, typ, max] = [times(of.min), times(of.typ), times(of.max)]
  return {
    ...of,
    ...('x' in min && { min: min.x }),
    ...('x' in typ && { typ: typ.x }),
    ...('x' in max && { max: max.x }),
    source: `${of.source ?? 'one cell'}, ${how}`,
    ...(of.others && { others: of.others.map((o) => scaled(o as Rated, by, how)) }),
  }
}

const joinedWords = ({ series, parallel }: Required<CellsChoice>): string =>
  [
    ...(series > 1 ? [`${series} in a row`] : []),
    ...(parallel > 1 ? [`${parallel} beside one another`] : []),
  ].join(', ')

const made = new WeakMap<Source, Map<string, Source>>()

/**
 * So many equal cells as one source: in a row their voltages and resistances add up, beside one another their charges and currents. What
 * its file can’t be joined of stays as it is.
 */
export const joinCells = (cell: Source, joined: Required<CellsChoice>): Source => {
  const { series, parallel } = joined
  if (!cell.joins || series * parallel === 1) return cell
  const key = `${series} ${parallel}`
  const known = made.get(cell)?.get(key)
  if (known) return known
  const [row, beside] = [`times ${series} in a row`, `times ${parallel} beside one another`]
  const source: Source = {
    ...cell,
    joined,
    name: `${cell.name}, ${joinedWords(joined)}`,
    price: cell.price * series * parallel,
    voltage: scaled(cell.voltage, series, row),
    current: scaled(cell.current, parallel, beside),
    ...(cell.capacity && { capacity: scaled(cell.capacity, parallel, beside) }),
    ...(cell.resistance && {
      resistance: scaled(cell.resistance, series / parallel, `${row}, over ${parallel} beside one another`),
    }),
    ...(cell.discharge && {
      discharge: cell.discharge.map((p) => ({ ...p, voltage: scaled(p.voltage, series, row) })),
    }),
  }
  if (!made.has(cell)) made.set(cell, new Map())
  made.get(cell)!.set(key, source)
  return source
}

/** The source that a design has chosen, as many cells of it as there are to be. */
export const sourceOf = (
  design: Pick<Design, 'power'>,
  library: Library,
  of: LeadOwner = 'source',
): Source | undefined => {
  const source = findPart(library, 'source', design.power[of])
  return source && joinCells(source, joinedOf(design, of))
}
