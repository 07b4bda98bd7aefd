// A package drawn with letters: on each line a leg at its left and one at its right, whose numbers add up to the same.

import type { Mapped } from '../clean'
import { type Line, linesOf, rowsWritten, type Span, tight, type Written } from './rows'

interface Side {
  leg: Span
  label: Span
}
const art = '[-–—|│┃║┤├┼╢╟\\[\\](){}<>=:─━•●○*.+_~]'
/** What may stand beside a number: no letter, and no point, which is part of a port’s name. */
const edge = '[\\s|│┃║┤├┼╢╟\\[\\](){}<>=:─━•●○-]'
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

/** Every two numbers of a line that may be its legs: which are, the sum tells. */
const sidesOf = (m: Mapped, from: number, line: string): [Side, Side][] => {
  const numbers = [...line.matchAll(new RegExp(`(?<=^|${edge})\\d{1,3}(?=${edge}|$)`, 'g'))].slice(0, 8)
  const span = (at: number, end: number): Span => ({ from: from + at, to: from + end })
  return numbers.flatMap((a, i) =>
    numbers.slice(i + 1).flatMap((b): [Side, Side][] => {
      const [aEnd, bEnd] = [a.index + a[0].length, b.index + b[0].length]
      return b.index - aEnd < 2
        ? []
        : [
            [
              { leg: span(a.index, aEnd), label: bare(m, span(0, a.index), 'left') },
              { leg: span(b.index, bEnd), label: bare(m, span(bEnd, line.length), 'right') },
            ],
          ]
    }),
  )
}
const outerSides = (m: Mapped, from: number, line: string): [Side, Side][] => {
  const o = outer.exec(line)
  if (!o) return []
  const span = (at: number, length: number): Span => ({ from: from + at, to: from + at + length })
  const [, a, left, right, b] = o as unknown as [string, string, string, string, string]
  const first = line.indexOf(a)
  const label = line.indexOf(left, first + a.length)
  const last = line.lastIndexOf(b)
  const other = line.lastIndexOf(right, last - 1)
  return [
    [
      { leg: span(first, a.length), label: bare(m, span(label, left.length), 'left') },
      { leg: span(last, b.length), label: bare(m, span(other, right.length), 'right') },
    ],
  ]
}

/** Every number of a line that may be a leg’s, and every name. */
const piecesOf = (line: Line): { numbers: Span[]; names: Span[] } => {
  const all = [...line.text.matchAll(/[^\s|│┃║┤├+─━—–]+/g)].map((p) => ({
    text: p[0],
    from: line.from + p.index,
    to: line.from + p.index + p[0].length,
  }))
  return {
    numbers: all.filter((p) => /^\d{1,3}$/.test(p.text)),
    names: all.filter((p) => /^[~/!]?[A-Za-z][\w/.~+-]*$/.test(p.text)),
  }
}
/** A row of numbers that go up or down by one, with as many names on the line beyond them: the legs of an upper or lower side. */
const acrossSide = (m: Mapped, numbers: Line, names: Line): Side[] | undefined => {
  const [n, called] = [piecesOf(numbers), piecesOf(names)]
  const values = n.numbers.map((s) => Number(m.text.slice(s.from, s.to)))
  const step = values.length > 1 ? values[1]! - values[0]! : 0
  const even = Math.abs(step) === 1 && values.every((v, i) => i === 0 || v - values[i - 1]! === step)
  return even && n.names.length === 0 && called.numbers.length === 0 && called.names.length === values.length
    ? n.numbers.map((leg, i) => ({ leg, label: called.names[i]! }))
    : undefined
}
/** A package with legs on four sides: as one with two, and a row of numbers with a row of names above it and below it. */
const fromQuad = (m: Mapped, lines: Line[]): Mapped | undefined => {
  const above = lines.slice(0, 4).flatMap((l, i) => (lines[i + 1] && acrossSide(m, lines[i + 1]!, l)) || [])
  const last = lines.slice(-4)
  const below = last.flatMap((l, i) => (last[i + 1] && acrossSide(m, l, last[i + 1]!)) || [])
  if (above.length < 2 || below.length < 2) return undefined
  const value = ({ from, to }: Span) => Number(m.text.slice(from, to))
  const across = new Set([...above, ...below].map((s) => s.leg.from))
  const isAcross = (l: Line) => [...across].some((at) => at >= l.from && at < l.to)
  const pairs = lines.map((l) => (l.text.length > 400 || isAcross(l) ? [] : sidesOf(m, l.from, l.text)))
  const sums = new Map<number, number>()
  const sumOf = ([a, b]: [Side, Side]) => value(a.leg) + value(b.leg)
  for (const of of pairs) for (const sum of new Set(of.map(sumOf))) sums.set(sum, (sums.get(sum) ?? 0) + 1)
  const [sum, times] = [...sums].sort((a, b) => b[1] - a[1])[0] ?? [0, 0]
  if (times < 2) return undefined
  const sides = pairs.flatMap(
    (of) => of.find((p) => sumOf(p) === sum && p.every(({ label }) => label.to > label.from)) ?? [],
  )
  const all = [...sides, ...above, ...below].sort((a, b) => value(a.leg) - value(b.leg))
  // Each leg once, from one on: else it is no package.
  if (!all.every((s, i) => value(s.leg) === i + 1)) return undefined
  return rowsWritten(m, [['Pin', 'Name'], ...all.map((s): Written[] => [[s.leg], [s.label]])])
}

/** Undefined where the lines don’t show a package. */
export const fromDrawing = (m: Mapped): Mapped | undefined => {
  const lines = linesOf(m).filter((l) => l.text.trim() !== '')
  const quad = fromQuad(m, lines)
  if (quad) return quad
  const value = ({ from, to }: Span) => Number(m.text.slice(from, to))
  for (const read of [sidesOf, outerSides]) {
    const found = lines
      .map((l) => (l.text.length > 400 ? [] : read(m, l.from, l.text)))
      .filter((pairs) => pairs.length > 0)
    const sumOf = ([a, b]: [Side, Side]) => value(a.leg) + value(b.leg)
    const sums = new Map<number, number>()
    for (const pairs of found)
      for (const sum of new Set(pairs.map(sumOf))) sums.set(sum, (sums.get(sum) ?? 0) + 1)
    const [sum, times] = [...sums].sort((a, b) => b[1] - a[1])[0] ?? [0, 0]
    if (times < 3 || times < found.length * 0.8 || times < lines.length * 0.4) continue
    const fitting = found.flatMap((pairs) => {
      const pair = pairs.find((p) => sumOf(p) === sum && value(p[0].leg) < value(p[1].leg))
      return pair ? [pair] : []
    })
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
