// A package drawn with letters: on each line a leg at its left and one at its right, whose numbers add up to the same.

import type { Mapped } from '../clean'
import { linesOf, rowsWritten, type Span, tight, type Written } from './rows'

interface Side {
  leg: Span
  label: Span
}
const art = '[-–—|│┃║┤├┼╢╟\\[\\](){}<>=:─━•●○*.+_~]'
const inner = new RegExp(
  `^(.*?)(?:\\s|${art})(\\d{1,3})((?:\\s|${art}).*?(?:\\s|${art}))(\\d{1,3})((?:\\s|${art}).*)$`,
)
const outer =
  /^\s*(\d{1,3})[\s.:)]+(\S.*?\S)\s*(?:[|│┃║┤├[\]]|--|──).*?(?:[|│┃║┤├[\]]|--|──)\s*(\S.*?)[\s.:(]+(\d{1,3})\s*$/

/** A label without the lines that lead to it. */
const bare = (m: Mapped, span: Span, side: 'left' | 'right'): Span => {
  const lead = new RegExp(`^(?:\\s|${art.replace('~', '').replace('.', '')}(?=[\\s\\w/~]|${art}))+`)
  const trail = new RegExp(`(?:\\s+${art}*|[-–—|│┃║┤├┼╢╟\\]\\[<>=─━•●○]+)$`)
  const text = m.text.slice(span.from, span.to)
  // A name’s own plus or minus, VREF+, is no line.
  const start = side === 'right' ? (lead.exec(text)?.[0].length ?? 0) : 0
  let end = text.length
  if (side === 'left')
    for (let cut = trail.exec(text.slice(0, end)); cut && cut[0] !== ''; cut = trail.exec(text.slice(0, end)))
      end = cut.index
  return tight(m, { from: span.from + start, to: span.from + Math.max(start, end) })
}

const sidesOf = (m: Mapped, from: number, line: string): [Side, Side] | undefined => {
  const span = (at: number, length: number): Span => ({ from: from + at, to: from + at + length })
  const i = inner.exec(` ${line} `)
  if (i) {
    const [, left, a, middle, b, right] = i as unknown as [string, string, string, string, string, string]
    // One space was put before the line.
    const at = left.length + 1 - 1
    const second = at + a.length + middle.length
    return [
      { leg: span(at, a.length), label: bare(m, span(0, Math.max(0, at)), 'left') },
      { leg: span(second, b.length), label: bare(m, span(second + b.length, right.length - 1), 'right') },
    ]
  }
  return undefined
}
const outerSides = (m: Mapped, from: number, line: string): [Side, Side] | undefined => {
  const o = outer.exec(line)
  if (!o) return undefined
  const span = (at: number, length: number): Span => ({ from: from + at, to: from + at + length })
  const [, a, left, right, b] = o as unknown as [string, string, string, string, string]
  const first = line.indexOf(a)
  const label = line.indexOf(left, first + a.length)
  const last = line.lastIndexOf(b)
  const other = line.lastIndexOf(right, last - 1)
  return [
    { leg: span(first, a.length), label: bare(m, span(label, left.length), 'left') },
    { leg: span(last, b.length), label: bare(m, span(other, right.length), 'right') },
  ]
}

/** Undefined where the lines don’t show a package. */
export const fromDrawing = (m: Mapped): Mapped | undefined => {
  const lines = linesOf(m).filter((l) => l.text.trim() !== '')
  const value = ({ from, to }: Span) => Number(m.text.slice(from, to))
  for (const read of [sidesOf, outerSides]) {
    const found = lines.flatMap((l) => {
      const sides = l.text.length > 400 ? undefined : read(m, l.from, l.text)
      return sides ? [sides] : []
    })
    const sums = new Map<number, number>()
    for (const [a, b] of found)
      sums.set(value(a.leg) + value(b.leg), (sums.get(value(a.leg) + value(b.leg)) ?? 0) + 1)
    const [sum, times] = [...sums].sort((a, b) => b[1] - a[1])[0] ?? [0, 0]
    if (times < 3 || times < found.length * 0.8 || times < lines.length * 0.4) continue
    const fitting = found.filter(
      ([a, b]) => value(a.leg) + value(b.leg) === sum && value(a.leg) < value(b.leg),
    )
    const sides = [...fitting.map(([a]) => a), ...fitting.map(([, b]) => b).reverse()]
    const rows: Written[][] = sides.map((s) => [[s.leg], [s.label]])
    // A title above may tell how many legs there are.
    const above = lines
      .filter((l) => /\d+[- ]?(?:pin|leg|lead)/i.test(l.text))
      .map((l): Written[] => [[{ from: l.from, to: l.to }]])
    return rowsWritten(m, [...above, ['Pin', 'Name'], ...rows])
  }
  return undefined
}
