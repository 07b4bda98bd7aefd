// How much board it takes: what each part covers, and the room between them.

import type { BoardPart } from '../blocks'
import { partOrigin, type Worked, type WorkedInput } from '../findings'
import type { Board, Part } from '../parts'
import { exactly } from '../quantity'
import { dimensionOf, number, sum, type Term, total } from '../sums'

const onBoard = (part: Part): Board | undefined => (part.kind === 'chip' ? part.board : undefined)

/** As far as body or legs reach, cm²; undefined where its file doesn’t say. */
const covers = (part: Part): number | undefined => {
  const board = onBoard(part)
  if (board)
    return board.length !== undefined && board.width !== undefined
      ? board.length * board.width * 1e4
      : undefined
  if (!('package' in part) || !part.package) return undefined
  const { length, width, legs, pitch, rowSpacing, style } = part.package
  if (length === undefined || width === undefined) return undefined
  if (style === 'four-sided') return length * width * 1e4
  const rows = part.kind === 'connector' ? part.rows : rowSpacing === undefined ? 1 : 2
  const across = rowSpacing ?? (rows - 1) * pitch
  return Math.max(length, (legs / rows - 1) * pitch) * Math.max(width, across) * 1e4
}

/** Legs, wires and fingers want room: of a board soldered by hand the parts cover a quarter to a half. */
const room: WorkedInput = {
  symbol: 's',
  label: 'board for each part’s own area',
  value: { min: 2, typ: 3, max: 4 },
  unit: '',
  origin: { kind: 'rule', source: 'assumed: usual for boards soldered by hand' },
  variable: 'room between parts',
}

interface Size {
  name: string
  part: Part
  count: number
  area: number
}

/**
 * Devices hang on wires and are not on it. A development board is as large as it is. `unsized`: what is not counted, since its file
 * gives no size.
 */
export const areaOf = (placed: readonly BoardPart[]): { area: Worked; unsized: string[] } => {
  const sizes = new Map<string, Size>()
  const unknown = new Set<string>()
  for (const { part, kind, bridged, name } of placed) {
    if (bridged || kind === 'device') continue
    const area = covers(part)
    if (area === undefined) unknown.add(name)
    else sizes.set(part.id, { name: part.name, part, area, count: (sizes.get(part.id)?.count ?? 0) + 1 })
  }
  const all = [...sizes.values()]
  const input = ({ name, part, area }: Size, symbol: string): WorkedInput => ({
    symbol,
    label: name,
    value: exactly(area),
    unit: 'cm²',
    origin: partOrigin(onBoard(part) ?? part, onBoard(part) ? 'length' : 'package.length'),
  })
  const bought = all.find(({ part }) => onBoard(part))
  const parts = all.filter((size) => size !== bought)
  const symbols = parts.map((_, k) => `A_${k + 1}`)
  const covered = sum(
    {
      label: 'Covered by the parts',
      symbol: 'A_parts',
      unit: 'cm²',
      note: 'Of each as far as body or legs reach; devices hang on wires.',
    },
    Object.fromEntries(parts.map((size, k) => [symbols[k]!, input(size, symbols[k]!)])),
    (i: Record<string, Term>) =>
      total(
        parts.map(({ count }, k) => (count === 1 ? i[symbols[k]!]! : number(count).times(i[symbols[k]!]!))),
        dimensionOf('cm²'),
      ),
  )
  const meta = {
    label: 'Board, with room between the parts',
    symbol: 'A',
    unit: 'cm²' as const,
    counts: 'max' as const,
  }
  return {
    area: bought
      ? sum(meta, { A_board: input(bought, 'A_board'), s: room, A_parts: covered }, (i) =>
          i.A_board.plus(i.s.times(i.A_parts)),
        )
      : sum(meta, { s: room, A_parts: covered }, (i) => i.s.times(i.A_parts)),
    unsized: [...unknown],
  }
}
