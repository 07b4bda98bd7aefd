// The parts list, merged and priced, and the wiring table, wire by wire.

import type { Net } from '../circuit'
import { fromRule, type Worked, type WorkedInput } from '../findings'
import { knownPrice, type Source } from '../parts'
import { exactly } from '../quantity'
import { dimensionOf, number, sum, type Term, total } from '../sums'
import type { BoardPart } from '../blocks'
import type { LeadParts } from '../supply'

export interface PartsRow {
  part: string
  name: string
  value: string
  refs: string[]
  count: number
  each: number
  total: number
  /** Its file does not say what it costs: counted as nothing. */
  unpriced: boolean
}

/** Equal parts of equal value in one line; devices, the sources and all leads at the end. Wire is counted by the metre, whole ones. */
export const partsList = (
  placed: BoardPart[],
  sources: (Source | undefined)[],
  leads: readonly { parts: LeadParts; count?: number }[] = [],
): PartsRow[] => {
  const rows = new Map<string, PartsRow>()
  const add = (
    key: string,
    part: { id: string; name: string; price: number; assumed?: readonly string[] },
    value: string,
    ref: string,
    count = 1,
  ) => {
    const row = rows.get(key) ?? {
      part: part.id,
      name: part.name,
      value,
      refs: [],
      count: 0,
      each: part.price,
      total: 0,
      unpriced: knownPrice(part) === undefined,
    }
    rows.set(key, {
      ...row,
      refs: ref ? [...row.refs, ref] : row.refs,
      count: row.count + count,
      total: (row.count + count) * part.price,
    })
  }
  for (const p of placed) {
    if (p.bridged) continue
    const value = p.support?.value?.marking ?? ''
    add(`${p.part.id} ${value}`, p.part, value, p.ref)
  }
  for (const source of sources) if (source) add(source.id, source, '', '')
  for (const { parts, count = 1 } of leads) {
    const { wire, joint, fuse, protection } = parts
    if (fuse) add(`${fuse.id} `, fuse, '', '')
    if (protection) add(`${protection.id} `, protection, '', '')
    if (joint)
      add(`${joint.part.id} `, joint.part, '', '', count * Math.ceil(joint.count / joint.part.contacts))
    if (wire) add(`${wire.part.id} `, wire.part, 'metres', '', Math.ceil(2 * wire.length * count))
  }
  return [...rows.values()]
}

const priced = (label: string, symbol: string, rows: PartsRow[]): Worked =>
  sum(
    { label, symbol, unit: '', note: 'In euro, as the part files give it.' },
    Object.fromEntries(rows.map((r, k) => [`€_${k + 1}`, each(`€_${k + 1}`, r)])),
    (i: Record<string, Term>) =>
      total(
        rows.map((r, k) => (r.count === 1 ? i[`€_${k + 1}`]! : number(r.count).times(i[`€_${k + 1}`]!))),
        dimensionOf(''),
      ),
  )
/** One piece. Two lines may be of one part. */
const each = (symbol: string, row: PartsRow): WorkedInput => ({
  symbol,
  label: `${row.name} ${row.value}`.trim(),
  value: exactly(row.each),
  unit: '',
  origin: { kind: 'part', part: row.part, name: row.name, field: 'price', sheet: 'the part file' },
})

export const totalPrice = (rows: PartsRow[]): Worked => priced('Price of all parts', 'Σ €', rows)

/** What is fitted or joined: chip or board, what is around it, devices. */
export const piecesOf = (placed: readonly BoardPart[]): Worked => {
  const count = (kind: BoardPart['kind']) => placed.filter((p) => p.kind === kind && !p.bridged).length
  const counted = (symbol: string, what: string, kind: BoardPart['kind']) =>
    fromRule(symbol, what, count(kind), '', 'counted on the board')
  return sum(
    { label: 'Pieces to fit and to join', symbol: 'n', unit: '' },
    {
      n_chip: counted('n_chip', 'chip or board', 'chip'),
      n_around: counted('n_around', 'around it', 'support'),
      n_devices: counted('n_devices', 'devices', 'device'),
    },
    (i) => i.n_chip.plus(i.n_around).plus(i.n_devices),
  )
}

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
    if (part.support?.role === 'entry') return 0
    if (part.support?.role === 'regulator') return 1
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
export const lineTotal = (row: PartsRow): Worked =>
  sum(
    { label: `${row.name} ${row.value}`.trim(), symbol: '€', unit: '' },
    {
      n: fromRule(
        'n',
        `counted: ${row.refs.join(' ') || 'sources and leads'}`,
        row.count,
        '',
        'the parts on the board',
      ),
      '€_each': { ...each('€_each', row), label: 'one piece' },
    },
    (i) => i.n.times(i['€_each']),
  )

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
export const priceToGet = (rows: ToGet[]): Worked =>
  priced(
    'Still to pay',
    'Σ €',
    rows.filter((r) => r.get > 0).map((r) => ({ ...r, count: r.get })),
  )
