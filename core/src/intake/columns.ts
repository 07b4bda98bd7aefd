// What each column of a table is: by its heading where it has one, and always by what stands in it.

import { hintOf, readToken } from './functions'
import type { Layout } from './layout'
import { legsIn } from './legs'
import { headingSays } from './words'
import { nameIn, isPort, tokensOf, typeByName, typeIn } from './names'

export const roles = [
  'legs',
  'name',
  'type',
  'functions',
  'unit',
  'select',
  'selects',
  'number',
  'label',
  'position',
  'rail',
  'nothing',
] as const
/** `unit`: the unit that the next column's signals belong to. `select`: functions chosen by the number in the heading. `nothing`: words for people, or not understood. */
export type Role = (typeof roles)[number]

export interface Column {
  index: number
  role: Role
  heading: string
  /** Of a `select` column: the number that selects it. */
  select?: number
  /** How sure: what is below one half is asked. */
  sure: number
}

const share = (texts: string[], holds: (t: string) => boolean) =>
  texts.length === 0 ? 0 : texts.filter(holds).length / texts.length

const selectNumber = (heading: string): number | undefined => {
  const match = /^(?:[A-Za-z]{1,9}\.?[ _-]?)?(\d{1,2})$/.exec(heading.trim())
  return match ? Number(match[1]) : undefined
}
/** Runs of at least three neighbouring columns whose headings count up by one. */
const selectColumns = (headings: string[], cells: (c: number) => string[]): Map<number, number> => {
  const found = new Map<number, number>()
  let run: number[] = []
  const close = () => {
    const texts = run.flatMap(cells).filter((t) => legsIn(t)?.length !== 0)
    if (run.length >= 3 && share(texts, (t) => legsIn(t) === undefined) > 0.5)
      run.forEach((c) => found.set(c, selectNumber(headings[c]!)!))
    run = []
  }
  headings.forEach((h, c) => {
    const number = selectNumber(h)
    const before = run.length > 0 ? selectNumber(headings[run[run.length - 1]!]!) : undefined
    if (number !== undefined && (before === undefined || number === before + 1)) run.push(c)
    else {
      close()
      if (number !== undefined) run = [c]
    }
  })
  close()
  return found
}

const known = (text: string, heading: string): boolean => {
  const tokens = tokensOf(text)
  const hint = hintOf(heading)
  return (
    tokens.length > 0 &&
    tokens.some((t) => {
      const read = readToken(t.text, hint)
      return (
        read !== undefined &&
        ('function' in read ? read.function.kind !== undefined || /[_.:]/.test(t.text) : true)
      )
    })
  )
}

interface Looks {
  numbers: number
  legs: number
  ports: number
  names: number
  distinct: number
  types: number
  functions: number
  prose: number
  balls: number
  filled: number
}
const looksOf = (all: string[], heading: string, legend: Layout['legend']): Looks => {
  const texts = all.filter((t) => t !== '')
  const dashless = texts.filter((t) => !/^[-–—]+$/.test(t))
  return {
    filled: texts.length / Math.max(1, all.length),
    legs: share(texts, (t) => legsIn(t) !== undefined),
    balls: share(dashless, (t) => /^[A-Y]{1,2}\d{1,2}$/.test(t)),
    numbers: share(all, (t) => (legsIn(t)?.length ?? 0) > 0),
    ports: share(dashless, (t) => {
      const name = nameIn(t)
      return name !== undefined && (isPort(name.id) || typeByName(name.id) !== undefined)
    }),
    names: share(dashless, (t) => /^[~/!+]?[A-Za-z][\w+.#-]*[*†¹²³]*(?:[([].*)?$/.test(t)),
    distinct: new Set(dashless).size / Math.max(1, dashless.length),
    types: share(dashless, (t) => typeIn(t, legend) !== undefined),
    functions: share(dashless, (t) => known(t, heading)),
    prose: share(dashless, (t) => (t.match(/(?<!\p{L})\p{Ll}{3,}(?!\p{L})/gu) ?? []).length >= 2),
  }
}

const says = {
  legs: (h: string) =>
    headingSays('legs', h) ||
    /#|\b[a-z]{0,3}(?:dip|soic|sop|ssop|tssop|qfp|qfn|dfn|flat|module)\b|(?:dip|sop|soic|qfp|qfn|dfn|flat|module)[- ]?\d+/i.test(
      h,
    ),
  number: (h: string) => /\b(?:program|sketch|code|software|digital|bit|index)\b/i.test(h),
  name: (h: string) => headingSays('name', h),
  type: (h: string) => headingSays('type', h),
  functions: (h: string) => headingSays('functions', h) || /\b(?:multiplex\w*|remap\w*)\b/i.test(h),
  nothing: (h: string) => headingSays('nothing', h),
  label: (h: string) => /\b(?:label|printed|silk\w*|marking|header|board)\b/i.test(h),
  position: (h: string) => /\b(?:position|contact|place|row|slot)\b/i.test(h),
  rail: (h: string) => /\b(?:rail|domain|supply|power)\b/i.test(h),
}

/** So many rows tell what a column holds; no package has as many legs. */
const judged = 600

/** The role of each column. `board` reads a header's table: positions, labels and the chip's pins. */
export const columnsOf = (layout: Layout, told: Record<string, string>, board: boolean): Column[] => {
  const cells = (c: number) => layout.rows.slice(0, judged).map((r) => r.cells[c]?.text ?? '')
  const selects = [layout.headings, ...layout.headingRows]
    .map((headings) => selectColumns(headings, cells))
    .reduce((best, found) => (found.size > best.size ? found : best))
  const looks = layout.headings.map((h, c) => looksOf(cells(c), h, layout.legend))
  const columns: Column[] = layout.headings.map((heading, index) => {
    const select = selects.get(index)
    if (select !== undefined) return { index, heading, role: 'select', select, sure: 1 }
    return { index, heading, ...roleBy(heading, looks[index]!, board) }
  })
  if (!board || !areSides(columns, cells)) settleNames(columns, looks, board)
  settleUnits(columns, cells)
  settleSelected(columns, cells)
  for (const column of columns) {
    const answer = told[`column:${column.index}`]
    const role = roles.find((r) => r === answer)
    if (role) Object.assign(column, { role, sure: 1 })
  }
  return columns
}

const roleBy = (heading: string, l: Looks, board: boolean): { role: Role; sure: number } => {
  const h = heading.replace(/[_/]/g, ' ')
  if (l.filled === 0) return { role: 'nothing', sure: 1 }
  // Balls of another package have letters and numbers: A1, B12.
  if (l.balls >= 0.9 && l.distinct === 1 && /ball|bump|BGA|CSP/i.test(h)) return { role: 'nothing', sure: 1 }
  if (l.legs >= 0.85 && l.numbers > 0) {
    if (says.number(h)) return { role: 'number', sure: 1 }
    if (hintOf(heading).kind && !says.legs(h)) return { role: 'functions', sure: 0.8 }
    if (board && says.position(h)) return { role: 'position', sure: 1 }
    if (heading === '' || says.legs(h)) return { role: 'legs', sure: heading === '' ? 0.8 : 1 }
    return { role: 'legs', sure: 0.6 }
  }
  if (board && says.label(h)) return { role: 'label', sure: 1 }
  if (board && says.position(h) && l.distinct > 0.9) return { role: 'position', sure: 0.9 }
  // VCC, GND, OUT: each once, and most of them a leg’s names, they are no types.
  const names = !says.type(h) && (says.name(h) || (l.distinct === 1 && l.ports >= 0.6))
  if (l.types >= 0.85 && !names) return { role: 'type', sure: 1 }
  if (says.nothing(h) && l.functions < 0.5) return { role: 'nothing', sure: 1 }
  if (says.functions(h)) return { role: 'functions', sure: 1 }
  if (l.ports >= 0.6 || (says.name(h) && l.names >= 0.6)) return { role: 'name', sure: 0.9 }
  if (l.prose >= 0.4) return { role: 'nothing', sure: 0.9 }
  if (hintOf(heading).kind) return { role: 'functions', sure: 0.9 }
  if (l.functions >= 0.4) return { role: 'functions', sure: 0.8 }
  if (l.types >= 0.6) return { role: 'type', sure: 0.6 }
  if (heading === '' && l.names >= 0.6) return { role: 'functions', sure: 0.4 }
  return { role: says.rail(h) ? 'rail' : 'nothing', sure: 0.3 }
}

/** Two columns side by side, UART1 and TX, say together what one alone doesn't. */
const settleUnits = (columns: Column[], cells: (c: number) => string[]): void => {
  columns.forEach((column, i) => {
    const next = columns[i + 1]
    if (
      !next ||
      column.role === 'legs' ||
      ![column, next].every((c) => c.role === 'functions' || c.role === 'nothing')
    )
      return
    const signals = cells(next.index)
    const pairs = cells(column.index).flatMap((unit, row) => {
      const signal = signals[row]
      return unit && signal && /^[A-Z][A-Z0-9]*$/i.test(unit) && /^[A-Z][A-Z0-9]*$/i.test(signal)
        ? [[unit, signal]]
        : []
    })
    const together = pairs.filter(([unit, signal]) => {
      const both = readToken(`${unit}_${signal}`)
      return both && 'function' in both && both.function.kind && both.function.unit === unit!.toUpperCase()
    })
    if (pairs.length >= 2 && together.length >= pairs.length * 0.6) {
      Object.assign(column, { role: 'unit', sure: 0.9 })
      Object.assign(next, { role: 'functions', sure: 0.9 })
    }
  })
}

/** AF1, AF2 … in a column of their own, under a heading that is what they begin with, select the function beside them. */
const settleSelected = (columns: Column[], cells: (c: number) => string[]): void => {
  columns.forEach((column, i) => {
    if (columns[i + 1]?.role !== 'functions' || !['functions', 'nothing'].includes(column.role)) return
    const filled = cells(column.index).filter((t) => !/^[-–—]?$/.test(t))
    const begins = new Set(filled.map((t) => /^([A-Z]{1,4})\d{1,2}$/i.exec(t)?.[1]?.toUpperCase()))
    const [begin] = begins
    const headed =
      begin !== undefined &&
      column.heading
        .toUpperCase()
        .split(/[^A-Z]+/)
        .includes(begin)
    if (filled.length >= 3 && begins.size === 1 && headed)
      Object.assign(column, { role: 'selects', sure: 0.9 })
  })
}

/**
 * Two columns of a board’s names are two sides of it, and not what is printed beside the chip’s leg: each has numbers of its
 * own, or a supply of one stands beside a signal of the other.
 */
const areSides = (columns: Column[], cells: (c: number) => string[]): boolean => {
  const named = columns.filter((c) => c.role === 'name')
  const legs = columns.filter((c) => c.role === 'legs')
  const [one, other, more] = named
  if (!one || !other || more) return false
  if (legs.length === 2) return true
  const [a, b] = [cells(one.index), cells(other.index)]
  const types = (names: string[], i: number) => typeByName(names[i] ?? '')
  const against = a.filter((_, i) => types(a, i) !== types(b, i)).length
  const alike = a.filter((_, i) => types(a, i) !== undefined && types(a, i) === types(b, i)).length
  // Of one family of names, none of them on both.
  const ports = (names: string[]) => names.map((t) => t.toUpperCase()).filter((t) => isPort(t))
  const family = (names: string[]) => new Set(ports(names).map((t) => t.replace(/\d+$/, '')))
  const [mine, yours] = [new Set(ports(a)), ports(b)]
  const related = [...family(a)].some((f) => family(b).has(f)) && !yours.some((t) => mine.has(t))
  const sides = legs.length === 0 && mine.size > 1 && (related || against > alike)
  if (sides) other.sure = 0.45
  return sides
}

/** One column names the legs; a table folded into halves has one for each of its leg columns. */
const settleNames = (columns: Column[], looks: Looks[], board: boolean): void => {
  const named = columns.filter((c) => c.role === 'name')
  const legs = columns.filter((c) => c.role === 'legs')
  if (named.length === 0) {
    const candidates = columns.filter(
      (c) => !['legs', 'select', 'type', 'number', 'position'].includes(c.role),
    )
    const score = (c: Column) => {
      const l = looks[c.index]!
      return (
        2 * l.ports +
        l.names +
        l.distinct * l.filled -
        l.prose -
        (c.heading !== '' && says.functions(c.heading) ? 1 : 0) -
        c.index * 0.05
      )
    }
    // Those of a few legs look like types: IN, GND, OUT. They are names where types stand besides, or nothing else could be.
    const types = columns.filter((c) => c.role === 'type')
    const asTypes = types.find((c) => looks[c.index]!.distinct === 1)
    const best =
      (types.length > 1 ? asTypes : undefined) ??
      [...candidates].sort((a, b) => score(b) - score(a)).find((c) => looks[c.index]!.names > 0) ??
      asTypes ??
      candidates[0]
    if (best) Object.assign(best, { role: 'name', sure: looks[best.index]!.ports >= 0.4 ? 0.9 : 0.5 })
    return
  }
  const folded = named.length > 1 && named.length === legs.length && !board
  if (named.length <= 1 || folded) return
  const better = (c: Column) =>
    looks[c.index]!.ports * 2 + (/\bport|\bname|\bpin/i.test(c.heading) ? 0.5 : 0) - c.index * 0.01
  const best = [...named].sort((a, b) => better(b) - better(a))[0]!
  for (const c of named) {
    if (c === best) continue
    // On a board, what is printed stands beside the chip's pin.
    c.role = board ? 'label' : looks[c.index]!.functions > 0.3 ? 'functions' : 'functions'
    c.sure = 0.6
  }
}
