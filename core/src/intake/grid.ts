// Pasted text as rows of cells, each remembering where in the text it came from, so that what was understood can be
// linked to what was pasted. Written here because no CSV reader keeps the places.

import { pageLine } from './words'

export interface Cell {
  text: string
  /** Line of the pasted text, from 1, and where in it the cell begins and ends. */
  line: number
  from: number
  to: number
}

export interface Row {
  cells: Cell[]
  line: number
}

/**
 * `columns`: aligned by spaces; `gaps`: two spaces or more between cells, aligned or not; `words`: text without columns; `space`: as many words on every line;
 * `lines`: every cell on a line of its own, a leg number beginning the next leg.
 */
export type Separator =
  'tab' | 'semicolon' | 'comma' | 'bar' | 'columns' | 'gaps' | 'words' | 'space' | 'lines'
export interface Grid {
  separator: Separator
  rows: Row[]
}

const marks: Partial<Record<Separator, string>> = { tab: '\t', semicolon: ';', comma: ',', bar: '|' }

const trimmed = (raw: string, line: number, from: number): Cell => {
  const text = raw.trim()
  const lead = raw.length - raw.trimStart().length
  return { text, line, from: from + lead, to: from + lead + text.length }
}

/** Cells between separators; a cell in quotes may hold separators, doubled quotes and line ends (RFC 4180). */
const separated = (text: string, mark: string): Row[] => {
  const rows: Row[] = []
  let cells: Cell[] = []
  let at = 0
  let line = 1
  let lineStart = 0
  const endRow = () => {
    rows.push({ cells, line: cells[0]?.line ?? line })
    cells = []
  }
  while (at <= text.length) {
    const start = at
    const cellLine = line
    let value = ''
    const quoted = text[at] === '"' && mark !== '|' && text.indexOf('"', at + 1) > 0
    if (quoted) {
      at++
      while (at < text.length) {
        if (text[at] === '"' && text[at + 1] === '"') {
          value += '"'
          at += 2
        } else if (text[at] === '"') break
        else {
          if (text[at] === '\n') line++
          value += text[at]
          at++
        }
      }
      at++
    }
    const bare = at
    while (at < text.length && text[at] !== mark && text[at] !== '\n') at++
    const rest = text.slice(bare, at)
    const from = start - lineStart
    const lineEnd = text.indexOf('\n', start)
    const shown = Math.min(at, lineEnd < 0 ? at : lineEnd)
    const plain = `${value}${rest}`.replace(/\s+/g, ' ').trim()
    // Without doubled quotes and line ends in it, a quoted cell’s letters stand one after another.
    const inside = quoted && text.startsWith(`${plain}"`, start + 1) ? 1 : 0
    cells.push(
      quoted
        ? {
            text: plain,
            line: cellLine,
            from: from + inside,
            to: inside ? from + inside + plain.length : from + (shown - start),
          }
        : trimmed(rest, cellLine, from),
    )
    if (text[at] === '\n' || at >= text.length) {
      endRow()
      line++
      lineStart = at + 1
      if (at >= text.length) break
    }
    if (cellLine !== line && text[at] !== '\n') lineStart = text.lastIndexOf('\n', at) + 1
    at++
  }
  return mark === '|' ? rows.map(withoutFrame) : rows
}

/** A table drawn with bars has them at both ends, and a line of dashes under its heads. */
const withoutFrame = (row: Row): Row => {
  const cells = [...row.cells]
  if (cells.length > 2 && cells[0]!.text === '') cells.shift()
  if (cells.length > 1 && cells[cells.length - 1]!.text === '') cells.pop()
  return cells.every((c) => /^[:+=-]*$/.test(c.text)) ? { ...row, cells: [] } : { ...row, cells }
}

interface Piece extends Cell {
  end: number
}
const piecesOf = (line: string, number: number): Piece[] =>
  [...line.matchAll(/\S+(?: \S+)*/g)].map((m) => ({
    text: m[0],
    line: number,
    from: m.index,
    to: m.index + m[0].length,
    end: m.index + m[0].length,
  }))

/** Columns aligned by spaces: where no line has ink over its whole height, one column ends and the next begins. */
const aligned = (lines: string[]): Row[] => {
  const width = lines.reduce((most, l) => Math.max(most, l.length), 0)
  const ink = new Array<number>(width + 1).fill(0)
  const counts = lines.map((l) => piecesOf(l, 0).length)
  const most = counts.filter((n) => n > 2).length > lines.length / 3 ? 3 : 2
  const body = lines.filter((_, i) => counts[i]! >= most)
  for (const line of body) for (const p of piecesOf(line, 0)) for (let i = p.from; i < p.to; i++) ink[i]!++
  const starts: number[] = []
  const tolerated = Math.floor(body.length * 0.04)
  for (let i = 0; i < width; i++) {
    const before = i === 0 ? 0 : ink[i - 1]!
    if (ink[i]! > tolerated && before <= tolerated) starts.push(i)
  }
  return lines.map((line, i) => {
    const cells: Cell[] = starts.map((s) => ({ text: '', line: i + 1, from: s, to: s }))
    for (const p of piecesOf(line, i + 1)) {
      // The column whose start is the last at or before the piece's middle; a piece before the first joins it.
      const middle = Math.min(p.from + 1, p.to)
      let column = 0
      starts.forEach((s, c) => {
        if (s <= middle) column = c
      })
      const cell = cells[column]
      if (!cell) continue
      if (cell.text === '') cells[column] = { text: p.text, line: p.line, from: p.from, to: p.to }
      else {
        cell.text = `${cell.text} ${p.text}`
        cell.to = p.to
      }
    }
    return { cells: line.trim() === '' ? [] : cells, line: i + 1 }
  })
}

const words = (lines: string[]): Row[] =>
  lines.map((line, i) => ({
    line: i + 1,
    cells: [...line.matchAll(/\S+/g)].map((m) => ({
      text: m[0],
      line: i + 1,
      from: m.index,
      to: m.index + m[0].length,
    })),
  }))

/** The line numbers on which a leg begins, in text with one cell a line: numbers that count up by one. */
const legLines = (lines: string[]): number[] => {
  const found: number[] = []
  let next = 1
  lines.forEach((line, i) => {
    if (line.trim() === String(next)) {
      found.push(i)
      next++
    }
  })
  return found
}
const oneCellALine = (lines: string[]): Row[] => {
  const starts = legLines(lines)
  const cell = (i: number) => trimmed(lines[i]!, i + 1, 0)
  const head: Row[] = lines.slice(0, starts[0]).map((_, i) => ({ line: i + 1, cells: [cell(i)] }))
  const rows = starts.flatMap((at, n): Row[] => {
    const all = Array.from({ length: (starts[n + 1] ?? lines.length) - at }, (_, i) => at + i)
    // What the page carries between two legs is no cell of either.
    const pages = all.filter((i) => pageLine.test(lines[i]!))
    return [
      { line: at + 1, cells: all.filter((i) => !pages.includes(i)).map(cell) },
      ...pages.map((i) => ({ line: i + 1, cells: [cell(i)] })),
    ]
  })
  return [...head, ...rows]
}

/** How regular the rows are: share of rows with as many cells as most have, where that is more than one. */
const regularity = (rows: Row[]): { share: number; cells: number } => {
  const counts = new Map<number, number>()
  const full = rows.filter((r) => r.cells.some((c) => c.text !== ''))
  for (const r of full) counts.set(r.cells.length, (counts.get(r.cells.length) ?? 0) + 1)
  const [cells, n] = [...counts].filter(([c]) => c > 1).sort((a, b) => b[1] - a[1])[0] ?? [1, 0]
  return { share: full.length > 0 ? n / full.length : 0, cells }
}

/** Which separator the text uses: tabs before anything; others by how regular the rows are that they make. */
export const separatorOf = (text: string): Separator => {
  const lines = text.split('\n').filter((l) => l.trim() !== '')
  const share = (has: (l: string) => boolean) => lines.filter(has).length / Math.max(1, lines.length)
  if (share((l) => l.includes('\t')) >= 0.5) return 'tab'
  if (share((l) => /^\s*\|.*\|\s*$/.test(l)) >= 0.5) return 'bar'
  const semicolon = regularity(separated(text, ';'))
  if (semicolon.share >= 0.6) return 'semicolon'
  const gaps = share((l) => /\S {2,}\S/.test(l))
  const comma = regularity(separated(text, ','))
  if (comma.share >= 0.6 && comma.cells >= 3 && gaps < 0.5) return 'comma'
  if (share((l) => l.includes('|')) >= 0.6) return 'bar'
  if (gaps >= 0.5) {
    const pieces = lines.map((l, i) => ({ cells: piecesOf(l, i), line: i }))
    const { share: same, cells } = regularity(pieces)
    const starts = new Set(pieces.filter((p) => p.cells.length === cells).map((p) => p.cells[1]?.from))
    return same >= 0.9 && cells >= 3 && starts.size > 2 ? 'gaps' : 'columns'
  }
  if (share((l) => !/\s/.test(l.trim())) >= 0.8 && legLines(lines).length >= 5) return 'lines'
  const lists = share((l) => /^[\w./+#-]+(?:\s*,\s*[\w./+#-]+)*$/.test(l.trim()))
  return lists >= 0.9 && share((l) => l.includes(',')) >= 0.4 ? 'comma' : 'words'
}

const byLines = {
  columns: aligned,
  gaps: (lines: string[]): Row[] => lines.map((l, i) => ({ cells: piecesOf(l, i + 1), line: i + 1 })),
  words,
  space: words,
  lines: oneCellALine,
}

/** Reads text into rows. Empty lines stay as rows without cells, so that row numbers are line numbers' order. */
export const gridOf = (text: string, separator: Separator = separatorOf(text)): Grid => {
  const clean = text.replace(/\r\n?/g, '\n').replace(/\u00a0/g, ' ')
  const mark = marks[separator]
  if (mark) return { separator, rows: separated(clean, mark) }
  const lines = clean.split('\n').map((l) => l.trimEnd())
  return { separator, rows: byLines[separator as keyof typeof byLines](lines) }
}
