// What each row of a pasted table is: a heading, a leg, the rest of the row above, a footnote, or what the document's
// pages carry besides. Broken rows are put together again.

import type { Cell, Grid, Row } from './grid'
import { legsIn } from './legs'
import { isPort, isReset, nameIn, typeByName, typeIn } from './names'
import { codesIn, legendIn, pageLine, type TypeCodes } from './words'

/** A cell that may have been broken over several lines, knowing where each part of its text came from. */
export interface JoinedCell {
  text: string
  pieces: { start: number; cell: Cell }[]
}
export interface Place {
  line: number
  from: number
  to: number
}
/** `open`: a row that nothing explains. */
export type RowKind = 'blank' | 'page' | 'heading' | 'section' | 'footnote' | 'leg' | 'joined' | 'open'
export interface TableRow {
  cells: JoinedCell[]
  lines: number[]
}
export interface Footnote {
  mark: string
  text: string
  line: number
}
export interface Layout {
  /** The heading of each column; empty where there is none. */
  headings: string[]
  /** The same, each row of them by itself. */
  headingRows: string[][]
  columns: number
  rows: TableRow[]
  /** What each line of the text was taken for. */
  kinds: Record<number, RowKind>
  /** Lines that part the table: Port A, Left side. */
  titles: { line: number; text: string }[]
  footnotes: Footnote[]
  /** A number of legs that a title names: “28-pin”. */
  titled: number[]
  /** What the letters of a type’s column mean, where a legend says so. */
  legend: TypeCodes
}

export const placeIn = (cell: JoinedCell, from: number, to: number): Place => {
  const piece = [...cell.pieces].reverse().find((p) => p.start <= from) ?? cell.pieces[0]!
  const at = piece.cell.from + (from - piece.start)
  const { line, to: end } = piece.cell
  // In a quoted cell over several lines, or with doubled quotes, its beginning is all that is known.
  return at >= end
    ? { line, from: piece.cell.from, to: end }
    : { line, from: at, to: Math.min(at + (to - from), end) }
}
/** All the places of a piece of a cell that may have been broken. */
export const placesIn = (cell: JoinedCell, from: number, to: number): Place[] =>
  cell.pieces.flatMap(({ start, cell: { text } }, i) => {
    const end = cell.pieces[i + 1]?.start ?? start + text.length
    const [a, b] = [Math.max(from, start), Math.min(to, end, start + text.length)]
    return b > a ? [placeIn(cell, a, b)] : []
  })
export const placeOf = (cell: JoinedCell): Place => {
  const { line, from, to } = cell.pieces[0]!.cell
  return { line, from, to }
}
const alone = (cell: Cell): JoinedCell => ({ text: cell.text, pieces: [{ start: 0, cell }] })

/** Puts the rest of a broken cell behind it: a hyphen at the break goes, a slash or underscore holds on. */
const joined = (before: JoinedCell, cell: Cell): JoinedCell => {
  if (cell.text === '') return before
  if (before.text === '') return alone(cell)
  const hyphen = /[A-Z0-9_]-$/i.test(before.text)
  const kept = hyphen ? before.text.slice(0, -1) : before.text
  const tight = hyphen || /[_/|]$/.test(kept) || /^[_/|)]/.test(cell.text) || kept.endsWith('(')
  const start = kept.length + (tight ? 0 : 1)
  return {
    text: `${kept}${tight ? '' : ' '}${cell.text}`,
    pieces: [...before.pieces, { start, cell }],
  }
}

const rowText = (row: Row) =>
  row.cells
    .map((c) => c.text)
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim()
const footnote = /^\s*([([]\d{1,2}[)\]]|\d{1,2}[.)]|[*†‡§¹²³⁴⁵])\s*(\S+(?:\s+\S+){2,})$/
const sentence = (text: string) => (text.match(/\b[a-z]{2,}\b/g) ?? []).length >= 4
const masked = (text: string) => text.replace(/\d+/g, '#').toLowerCase()

const isName = (text: string): boolean => {
  const first = /^[~/!\\]?([^\s,;/|(]+)/.exec(text)?.[1] ?? ''
  return (
    isPort(first) ||
    typeByName(text) !== undefined ||
    typeByName(first) !== undefined ||
    /^[a-z]{1,4}\d{1,2}(?:[._]\d+)?$/.test(first) ||
    (/^[~/!]?[A-Z][A-Z0-9_+.-]*#?[*†¹²³]*(?:[([/|,].*)?$/.test(text) && /^[~/!]?[A-Z]/.test(first))
  )
}
const startsWithPort = (text: string) => {
  const name = nameIn(text)
  return name !== undefined && (isPort(name.id) || typeByName(name.id) !== undefined)
}

const calledAsTypes = /^(?:IN|OUT|INPUT|OUTPUT)$/
/** A row that names a leg: a leg number beside a name, or a port's name with something beside it. */
const looksLikeLeg = (row: Row): boolean => {
  const filled = row.cells.filter((c) => c.text !== '')
  const numbers = filled.filter((c) => (legsIn(c.text)?.length ?? 0) > 0)
  const others = filled.filter((c) => legsIn(c.text) === undefined)
  const named = (c: Cell) =>
    isName(c.text) && (typeIn(c.text) === undefined || typeByName(c.text) !== undefined)
  if (numbers.length > 0 && others.some(named)) return true
  // A regulator’s legs are called as types are: 1 IN, 3 OUT.
  if (filled.some((c, i) => numbers.includes(c) && calledAsTypes.test(filled[i + 1]?.text ?? ''))) return true
  if (filled.length === 1 && isReset(filled[0]!.text)) return true
  return filled.length > 0 && startsWithPort(filled[0]!.text) && !/\b[a-z]{3,}\b/.test(filled[0]!.text)
}

/** In text without columns, a line is taken apart by what its words are: numbers, a name, a type, and the rest. */
const byWords = (rows: Row[]): Row[] => {
  const leading = (row: Row) => {
    let n = 0
    while (
      n < row.cells.length &&
      (legsIn(row.cells[n]!.text) !== undefined || /^\d+,$/.test(row.cells[n]!.text))
    )
      n++
    return n
  }
  const counts = rows.map(leading).filter((n) => n > 0)
  const usual = [...new Set(counts)].sort(
    (a, b) => counts.filter((c) => c === b).length - counts.filter((c) => c === a).length,
  )[0]
  return rows.map((row) => takenApart(row, usual ?? 0))
}
const merge = (all: Cell[]): Cell | undefined => {
  const cells = all.filter((c) => c.text !== '')
  const [first] = cells
  const last = cells[cells.length - 1]
  return first && last
    ? { text: cells.map((c) => c.text).join(' '), line: first.line, from: first.from, to: last.to }
    : undefined
}
const takenApart = (row: Row, numbers: number): Row => {
  const { cells, line } = row
  if (cells.length === 0) return row
  const blank: Cell = { text: '', line, from: 0, to: 0 }
  const full = merge(cells)!
  const colon = /^(\S+)\s*:\s*(\d[\d\s,;–-]*)$/.exec(full.text)
  if (colon && legsIn(colon[2]!) !== undefined) {
    const second = full.text.lastIndexOf(colon[2]!)
    const legs = { text: colon[2]!, line, from: full.from + second, to: full.to }
    return {
      line,
      cells: [legs, { text: colon[1]!, line, from: full.from, to: full.from + colon[1]!.length }],
    }
  }
  const counted =
    /^(?:(?:pin|leg|lead|terminal)\s*#?\s*(\d{1,3})\s*[:=.)–-]?|(\d{1,3})\s*[:=.)–-])\s+(\S.*)$/i.exec(
      full.text,
    )
  if (counted) {
    const at = full.to - counted[3]!.length
    return {
      line,
      cells: [
        { text: counted[1] ?? counted[2]!, line, from: full.from, to: at },
        { text: counted[3]!, line, from: at, to: full.to },
      ],
    }
  }
  const width = Math.max(1, numbers)
  // More numbers than other lines begin with: this name is on several legs.
  const more = cells.findIndex((c) => !/^\d{1,3},?$/.test(c.text))
  if (numbers === 1 && more > 1 && isName(cells[more]!.text))
    return takenApart({ line, cells: [merge(cells.slice(0, more))!, ...cells.slice(more)] }, numbers)
  const led = cells.slice(0, numbers).every((c) => legsIn(c.text) !== undefined) && numbers > 0
  let at = led ? numbers : 0
  const name: Cell[] = []
  if (cells[at] && isName(cells[at]!.text)) {
    name.push(cells[at++]!)
    let depth = 0
    const count = (c: Cell) => (c.text.match(/\(/g) ?? []).length - (c.text.match(/\)/g) ?? []).length
    depth += count(name[0]!)
    if (depth === 0 && cells[at]?.text.startsWith('(')) {
      name.push(cells[at]!)
      depth += count(cells[at++]!)
    }
    while (depth > 0 && at < cells.length) {
      name.push(cells[at]!)
      depth += count(cells[at++]!)
    }
  }
  if (name.length === 0) return led ? { line, cells } : { line, cells: [full] }
  const behind = !led && legsIn(cells[at]?.text ?? '')?.length ? cells[at++] : undefined
  const type = typeIn(cells[at]?.text ?? '') !== undefined ? cells[at++] : undefined
  const numbersHere = led
    ? cells.slice(0, numbers)
    : Array.from({ length: width }, (_, i) => (i === 0 && behind) || blank)
  return {
    line,
    cells: [...numbersHere, merge(name)!, type ?? blank, merge(cells.slice(at)) ?? blank],
  }
}

const titledLegs = (text: string): number[] =>
  [...text.matchAll(/(\d{1,3})[- ]?(?:pins?|legs?|leads?)\b/gi)].map((m) => Number(m[1]))

/** The lines above the first leg that have several cells are the heading, those with one are titles. */
const headingRows = (rows: Row[], first: number, separator: Grid['separator']): number[] => {
  const found: number[] = []
  const width = rows[first]?.cells.length ?? 0
  for (let i = first - 1; i >= 0 && found.length < 3; i--) {
    const filled = rows[i]!.cells.filter((c) => c.text !== '')
    if (filled.length === 0 && found.length === 0) continue
    // A row that parts the table stands between its head and its first leg.
    if (
      filled.length === 1 &&
      found.length === 0 &&
      i > first - 4 &&
      separator !== 'words' &&
      separator !== 'space'
    )
      continue
    if (
      filled.length < 2 &&
      !(
        found.length > 0 &&
        filled.length === 1 &&
        rows[i]!.cells.length > 2 &&
        rows[i]!.cells[0]!.text === ''
      )
    )
      break
    // A title’s words are no heads of columns.
    const words = separator === 'space' || separator === 'words'
    if (
      pageLine.test(rowText(rows[i]!)) ||
      (words && found.length > 0) ||
      (separator === 'space' && filled.length < width)
    )
      break
    found.unshift(i)
  }
  return found
}

/** Where most rows have the name of a port or supply, a row that has one there is a leg as well, number or not. */
const withNamesBelow = (rows: Row[], found: boolean[]): boolean[] => {
  const counts = new Map<number, number>()
  rows.forEach((row, i) => {
    const at = found[i] ? row.cells.findIndex((c) => c.text !== '' && startsWithPort(c.text)) : -1
    if (at >= 0) counts.set(at, (counts.get(at) ?? 0) + 1)
  })
  const [column] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? []
  return column === undefined
    ? found
    : rows.map(
        (row, i) => found[i]! || (row.cells.length > 1 && startsWithPort(row.cells[column]?.text ?? '')),
      )
}

/** So many rows tell where numbers and names stand. */
const judged = 600
/** The column that holds leg numbers, and the one that holds names, by what most rows have there. */
const mainColumns = (rows: Row[], legRows: boolean[]): { number: number; name: number } => {
  const numbers = new Map<number, number>()
  const names = new Map<number, number>()
  const add = (to: Map<number, number>, at: number) => to.set(at, (to.get(at) ?? 0) + 1)
  let count = 0
  rows.forEach((row, i) => {
    if (!legRows[i] || count === judged) return
    count++
    row.cells.forEach((c, at) => {
      if (c.text === '') return
      if (legsIn(c.text)?.length) add(numbers, at)
      else if (startsWithPort(c.text)) add(names, at)
    })
  })
  const most = (of: Map<number, number>, least: number) => {
    const [best] = [...of].sort((a, b) => b[1] - a[1])
    return best && best[1] >= count * least ? best[0] : -1
  }
  return { number: most(numbers, 0.5), name: most(names, 0.4) }
}
/** A title with a number and a name in it is no leg: it has neither where most rows have them. */
const likeMost = (rows: Row[], found: boolean[]): boolean[] => {
  const { number, name } = mainColumns(rows, found)
  if (number < 0 || name < 0) return found
  return found.map((is, i) => {
    const cells = rows[i]!.cells
    return (
      is && ((legsIn(cells[number]?.text ?? '')?.length ?? 0) > 0 || startsWithPort(cells[name]?.text ?? ''))
    )
  })
}
/** Whether what stands in a row goes on with a cell of the row above: it was cut at a mark that holds on. */
const holdsOn = (before: string, after: string) => /[/_(,+-]$/.test(before) || /^[/_),]/.test(after)
const isFunctions = (text: string): boolean => {
  const words = text.split(/[\s,;/]+/).filter((w) => w !== '')
  const named = words.filter((w) => /^[~/!]?[A-Z0-9]+[_.:]?[A-Z0-9_.:+()-]*$/.test(w) && /[A-Z]/.test(w))
  return named.length > 0 && named.length >= words.length * 0.6
}

/** Reads the layout of a grid. `left`: lines that the builder says to leave out. */
export const layoutOf = (grid: Grid, left: ReadonlySet<number> = new Set()): Layout => {
  const whole = grid.rows.map(rowText)
  const inWords = grid.separator === 'words'
  const rows = inWords ? byWords(grid.rows) : grid.rows
  const kinds: Record<number, RowKind> = {}
  const footnotes: Footnote[] = []
  const titled: number[] = []
  const legend = new Map<string, NonNullable<ReturnType<typeof typeIn>>>()
  const legRows = likeMost(rows, withNamesBelow(rows, rows.map(looksLikeLeg))).map(
    (is, i) => is && !left.has(rows[i]!.line),
  )
  const first = Math.max(0, legRows.indexOf(true))
  const heads = headingRows(rows, first, grid.separator)
  const headTexts = new Set(heads.map((i) => whole[i]!.toLowerCase()))
  const main = mainColumns(rows, legRows)
  const repeats = new Map<string, number>()
  whole.forEach((t) => t && repeats.set(masked(t), (repeats.get(masked(t)) ?? 0) + 1))
  const columns = rows.reduce(
    (most, r, i) => (legRows[i] || (heads.includes(i) && !inWords) ? Math.max(most, r.cells.length) : most),
    1,
  )
  // A line’s words stand under no heading, unless there are as many, and few: numbers that select are no line’s.
  const headed = inWords ? heads.filter((i) => rows[i]!.cells.length === columns && columns < 7) : heads
  const headings = Array.from({ length: columns }, (_, c) =>
    headed
      .map((i) => rows[i]!.cells[c]?.text ?? '')
      .filter((t) => t !== '')
      .join(' '),
  )
  // Marks of footnotes that stand behind a name.
  const used = new Set(
    rows.flatMap((r, i) =>
      legRows[i]
        ? r.cells.flatMap((c) =>
            [...c.text.matchAll(/(?<=[\w#+])\s?(?:[([](\d{1,2})[)\]]|([*†‡§¹²³⁴⁵]+))/g)].map(
              (m) => m[1] ?? m[2]!,
            ),
          )
        : [],
    ),
  )
  const nothing = !legRows.includes(true)
  const table: TableRow[] = []
  let noted = false
  rows.forEach((row, i) => {
    const text = whole[i]!
    const afterNote = noted
    noted = false
    const say = (kind: RowKind) => {
      kinds[row.line] = kind
    }
    const note = (mark: string, of: string) => {
      if (mark !== '') footnotes.push({ mark, text: of, line: row.line })
      noted = true
      return say('footnote')
    }
    if (row.cells.length === 0 || !/[\p{L}\p{N}]/u.test(text)) return say('blank')
    if (left.has(row.line)) return say('page')
    if (heads.includes(i) || (headTexts.has(text.toLowerCase()) && !legRows[i])) return say('heading')
    const letters = legendIn(text)
    if (letters) {
      for (const [letter, type] of letters) legend.set(letter, type)
      return say('footnote')
    }
    const marked = footnote.exec(text)
    const mark = marked?.[1]?.replace(/[()[\].]/g, '') ?? ''
    if (marked && !(legRows[i] && /^\d/.test(marked[1]!)) && (sentence(marked[2]!) || used.has(mark)))
      return note(mark, marked[2]!)
    if (legRows[i]) {
      table.push({ cells: row.cells.map(alone), lines: [row.line] })
      return say('leg')
    }
    const page =
      pageLine.test(text) ||
      (repeats.get(masked(text))! > 1 && sentence(text)) ||
      /^[-–— ]*\d{1,4}[-–— ]*$/.test(text)
    // Where no row is a leg’s, no row is explained.
    if (nothing) return say('open')
    if (i < first || page) {
      titled.push(...titledLegs(text))
      return say('page')
    }
    const filled = row.cells.flatMap((c, at) => (c.text === '' ? [] : [at]))
    const last = table[table.length - 1]
    const prose = sentence(text) && filled.length === 1
    if (afterNote && (prose || filled.length === 1)) return note('', text)
    if (!last || prose) return say(prose ? 'footnote' : 'section')
    if (inWords) {
      if (/^\p{Lu}\p{Ll}/u.test(text) && !isFunctions(text))
        return say(sentence(text) ? 'footnote' : 'section')
      if (!isFunctions(text)) return say(sentence(text) ? 'footnote' : 'open')
      // Text without columns belongs to the end of the row above.
      const end = last.cells.length - 1
      const rest = merge(row.cells)!
      const target =
        last.cells[end]!.text === '' && /\($|\([^)]*$/.test(last.cells[end - 2]?.text ?? '') ? end - 2 : end
      last.cells[target] = joined(last.cells[target]!, rest)
      last.lines.push(row.line)
      return say('joined')
    }
    const numbered = (legsIn(row.cells[main.number]?.text ?? '')?.length ?? 0) > 0
    if (numbered && filled.length > 1) {
      table.push({ cells: row.cells.map(alone), lines: [row.line] })
      return say('leg')
    }
    const before = (at: number) => last.cells[at]?.text ?? ''
    const cellText = (at: number) => row.cells[at]?.text ?? ''
    if (
      filled.length === 1 &&
      filled[0] === 0 &&
      main.number !== -1 &&
      !holdsOn(before(0), text) &&
      !(main.name === 0 && isFunctions(text) && holdsOn(before(0), text))
    )
      return say(isFunctions(text) && !sentence(text) && /[_\d]/.test(text) ? 'open' : 'section')
    if (filled.length === 1 && filled[0] === 0 && main.number === -1) return say('section')
    // What is left belongs to the row above, cell by cell; but no leg number and no name is put behind another.
    const number =
      filled.includes(main.number) &&
      before(main.number) !== '' &&
      !holdsOn(before(main.number), cellText(main.number))
    const name =
      filled.includes(main.name) &&
      before(main.name) !== '' &&
      !holdsOn(before(main.name), cellText(main.name))
    if (number || (name && cellText(main.name) !== before(main.name))) {
      if (name && !number && isName(cellText(main.name))) {
        table.push({ cells: row.cells.map(alone), lines: [row.line] })
        return say('leg')
      }
      return say(sentence(text) ? 'footnote' : 'open')
    }
    filled.forEach((at) => {
      if (at === main.name && cellText(at) === before(at)) return
      last.cells[at] = last.cells[at] ? joined(last.cells[at], row.cells[at]!) : alone(row.cells[at]!)
    })
    last.lines.push(row.line)
    say('joined')
  })
  return {
    headings,
    headingRows: headed.map((i) => Array.from({ length: columns }, (_, c) => rows[i]!.cells[c]?.text ?? '')),
    columns,
    rows: table,
    kinds,
    titles: rows.flatMap((r, n) => {
      const is = kinds[r.line]
      return is === 'leg' || is === 'joined' || is === 'blank' ? [] : [{ line: r.line, text: whole[n]! }]
    }),
    footnotes,
    titled,
    legend: codesIn(
      table.flatMap((r) => r.cells.map((c) => c.text)).filter((t) => t.length <= 3),
      legend,
    ),
  }
}
