// The parts list, merged and priced, and the wiring table, wire by wire.

import type { Net } from '../circuit'
import type { Worked } from '../findings'
import type { Source } from '../parts'
import { exactly } from '../quantity'
import type { BoardPart } from './placed'

export interface PartsRow {
  part: string
  name: string
  value: string
  refs: string[]
  count: number
  each: number
  total: number
}

/** Equal parts of equal value in one line; devices and the source at the end. */
export const partsList = (placed: BoardPart[], sources: (Source | undefined)[]): PartsRow[] => {
  const rows = new Map<string, PartsRow>()
  const add = (
    key: string,
    part: { id: string; name: string; price: number },
    value: string,
    ref: string,
  ) => {
    const row = rows.get(key) ?? {
      part: part.id,
      name: part.name,
      value,
      refs: [],
      count: 0,
      each: part.price,
      total: 0,
    }
    rows.set(key, {
      ...row,
      refs: ref ? [...row.refs, ref] : row.refs,
      count: row.count + 1,
      total: (row.count + 1) * part.price,
    })
  }
  for (const p of placed) {
    if (p.bridged) continue
    const value = p.support?.value?.marking ?? ''
    add(`${p.part.id} ${value}`, p.part, value, p.ref)
  }
  for (const source of sources) if (source) add(source.id, source, '', '')
  return [...rows.values()]
}

export const totalPrice = (rows: PartsRow[]): Worked => ({
  label: 'Price of all parts',
  symbol: 'Σ €',
  value: exactly(Math.round(rows.reduce((sum, r) => sum + r.total, 0) * 100) / 100),
  unit: '',
  formula: 'Σ count · price',
  inputs: rows.map((r) => ({
    symbol: `${r.count} ×`,
    label: `${r.name} ${r.value}`.trim(),
    value: exactly(r.each),
    unit: '',
    origin: { kind: 'part', part: r.part, name: r.name, field: 'price', sheet: 'the part file' },
  })),
  note: 'In euro, as the part files give it.',
})

export interface WireEnd {
  ref: string
  name: string
  terminal: string
}
export interface WireRow {
  net: string
  from: WireEnd
  to: WireEnd
}

/** Which end a net's wires start from: where the supply comes in, else the chip. */
const anchor = (net: Net, parts: Map<string, BoardPart>): number => {
  const rank = (ref: string) => {
    const part = parts.get(ref)!
    if (part.support?.key === 'entry') return 0
    if (part.support?.key === 'regulator') return 1
    return part.kind === 'chip' ? 2 : part.kind === 'support' ? 3 : 4
  }
  return net.nodes.reduce((best, n, i) => (rank(n.ref) < rank(net.nodes[best]!.ref) ? i : best), 0)
}

/** One row a wire: every node of a net joined to the net's anchor. */
export const wiringTable = (nets: Net[], placed: BoardPart[]): WireRow[] => {
  const parts = new Map(placed.map((p) => [p.ref, p]))
  const end = (n: Net['nodes'][number]): WireEnd => ({
    ref: n.ref,
    name: parts.get(n.ref)!.name,
    terminal: n.terminal,
  })
  return nets.flatMap((net) => {
    const at = anchor(net, parts)
    return net.nodes.flatMap((n, i) =>
      i === at ? [] : [{ net: net.name, from: end(net.nodes[at]!), to: end(n) }],
    )
  })
}

/** One line of the parts list as a sum: count times price. */
export const lineTotal = (row: PartsRow): Worked => ({
  label: `${row.name} ${row.value}`.trim(),
  symbol: '€',
  value: exactly(row.total),
  unit: '',
  formula: 'n · €_each',
  inputs: [
    {
      symbol: 'n',
      label: `counted: ${row.refs.join(' ') || 'the source'}`,
      value: exactly(row.count),
      unit: '',
      origin: { kind: 'rule', source: 'the parts on the board' },
    },
    {
      symbol: '€_each',
      label: 'one piece',
      value: exactly(row.each),
      unit: '',
      origin: { kind: 'part', part: row.part, name: row.name, field: 'price', sheet: 'the part file' },
    },
  ],
})

/** What a line is called in the drawer: a value of a series by its marking too. */
export const drawerKey = (row: PartsRow): string => (row.value ? `${row.part} ${row.value}` : row.part)

export interface ToGet extends PartsRow {
  /** Of those needed, so many lie in the drawer. */
  have: number
  get: number
}

/** The list against the drawer: two lines of one part share what lies there. */
export const stillToGet = (rows: PartsRow[], drawer: Record<string, number>): ToGet[] => {
  const left = new Map(Object.entries(drawer))
  return rows.map((row) => {
    const key = drawerKey(row)
    const have = Math.min(row.count, left.get(key) ?? 0)
    left.set(key, (left.get(key) ?? 0) - have)
    return { ...row, have, get: row.count - have }
  })
}

/** What is not in the drawer, priced. */
export const priceToGet = (rows: ToGet[]): Worked => ({
  ...totalPrice(rows.filter((r) => r.get > 0).map((r) => ({ ...r, count: r.get, total: r.get * r.each }))),
  label: 'Still to pay',
  formula: 'Σ (count − in the drawer) · price',
})
