// A row for each property and a column for each leg, so many legs at a time.

import { legsIn } from '../legs'
import type { Mapped } from '../clean'
import { type Line, linesOf, rowsWritten, type Span, tight, type Written } from './rows'

const cellsOf = (m: Mapped, line: Line): Span[] => {
  const found: Span[] = []
  if (line.text.includes('\t')) {
    let from = line.from
    for (const piece of line.text.split('\t')) {
      found.push(tight(m, { from, to: from + piece.length }))
      from += piece.length + 1
    }
    return found
  }
  return [...line.text.matchAll(/\S+(?: \S+)*/g)].map((p) => ({
    from: line.from + p.index,
    to: line.from + p.index + p[0].length,
  }))
}

/** Undefined where no rows of numbers stand above rows of as many names. */
export const fromAcross = (m: Mapped): Mapped | undefined => {
  const textOf = (s: Span) => m.text.slice(s.from, s.to)
  const single = (s: Span) => legsIn(textOf(s))?.length === 1 && /\d/.test(textOf(s))
  const lines = linesOf(m).filter((l) => l.text.trim() !== '' && l.text.length < 2000)
  const rows = lines.map((l) => ({ line: l, cells: cellsOf(m, l) }))
  let first: string | undefined
  const numbered = (cells: Span[]) => {
    const head = cells[0] && single(cells[0]) ? 0 : 1
    const numbers = cells.slice(head)
    // The last legs may be few, under the same head.
    const again = head === 1 && first !== undefined && textOf(cells[0]!) === first
    return numbers.length >= (again ? 1 : 3) && numbers.every(single) ? head : -1
  }
  const out: Written[][] = []
  let most = 0
  for (let i = 0; i < rows.length; i++) {
    const top = rows[i]!
    const head = numbered(top.cells)
    if (head < 0) continue
    if (head === 1) first ??= textOf(top.cells[0]!)
    const below: typeof rows = []
    for (let n = i + 1; n < rows.length && numbered(rows[n]!.cells) < 0 && below.length < 8; n++)
      below.push(rows[n]!)
    if (below.length === 0 || below.length > 6) return undefined
    if (out.length === 0)
      out.push([
        head ? [top.cells[0]!] : 'Pin',
        ...below.map((b, n): Written => (head ? [b.cells[0]!] : n === 0 ? 'Name' : 'Functions')),
      ])
    most = Math.max(most, below.length)
    for (let c = head; c < top.cells.length; c++) {
      const at = top.cells[c]!.from - top.line.from
      const tabs = top.line.text.includes('\t')
      out.push([
        [top.cells[c]!],
        ...below.map((b): Written => {
          const cell = tabs
            ? b.cells[c]
            : b.cells.find((x) => {
                const [from, to] = [x.from - b.line.from, x.to - b.line.from]
                return from <= at + 1 && to > at - 1 && Math.abs(from - at) < 4
              })
          return cell ? [cell] : []
        }),
      ])
    }
    i += below.length
  }
  return out.length >= 5 ? rowsWritten(m, out) : undefined
}
