// What leaves the program as tables: rows of plain cells, the first row the headings. Whoever writes the file quotes them.

import type { PartsRow, WireRow } from '../build'

export type Table = string[][]

export const partsTable = (rows: PartsRow[]): Table => [
  ['count', 'part', 'value', 'references', 'price each (EUR)', 'price (EUR)'],
  ...rows.map((r) => [
    String(r.count),
    r.name,
    r.value,
    r.refs.join(' '),
    // A price that is not known is none, and not one of nothing.
    r.unpriced ? '' : r.each.toFixed(2),
    r.unpriced ? '' : r.total.toFixed(2),
  ]),
]

export const wiringTableCells = (rows: WireRow[]): Table => [
  ['net', 'from', 'from terminal', 'to', 'to terminal'],
  ...rows.map((r) => [
    r.net,
    `${r.from.ref} ${r.from.name}`,
    r.from.terminal,
    `${r.to.ref} ${r.to.name}`,
    r.to.terminal,
  ]),
]
