// What a reader of another layout writes: rows of cells parted by tabs, each character of a cell from its place.

import { type Mapped, Writer } from '../clean'

export interface Span {
  from: number
  to: number
}
export interface Line extends Span {
  text: string
}
/** A cell: pieces of the text, put together with `between`; or words of the reader’s own, such as a heading. */
export type Written = Span[] | string

export const linesOf = ({ text }: Mapped): Line[] => {
  let from = 0
  return text.split('\n').map((line) => {
    const span = { text: line, from, to: from + line.length }
    from += line.length + 1
    return span
  })
}

/** Rows parted by tabs. Tabs and line ends inside a cell become spaces. */
export const rowsWritten = (m: Mapped, rows: Written[][], between = ', '): Mapped => {
  const out = new Writer()
  const origin = (row: Written[]) => {
    for (const cell of row) if (typeof cell !== 'string' && cell[0]) return m.at[cell[0].from]!
    return 0
  }
  for (const row of rows) {
    let last = origin(row)
    row.forEach((cell, c) => {
      if (c > 0) out.put('\t', last)
      if (typeof cell === 'string') return out.put(cell, last)
      cell.forEach((span, i) => {
        if (i > 0) out.put(between, last)
        let at = span.from
        for (const gap of m.text.slice(span.from, span.to).matchAll(/[\t\n]+ */g)) {
          out.copy(m, at, span.from + gap.index)
          out.put(' ', m.at[span.from + gap.index]!)
          at = span.from + gap.index + gap[0].length
        }
        out.copy(m, at, span.to)
        last = m.at[Math.max(span.from, span.to - 1)]!
      })
    })
    out.put('\n', last)
  }
  return out.done(m.at[m.text.length]!)
}

/** A span without the spaces around it. */
export const tight = ({ text }: Mapped, { from, to }: Span): Span => {
  let [start, end] = [from, to]
  while (start < end && /\s/.test(text[start]!)) start++
  while (end > start && /\s/.test(text[end - 1]!)) end--
  return { from: start, to: end }
}
