// A list of values in brackets for each leg, as programs and databases write them: (1, 'PA0', 'AIN0'), {2, "PA1", …},
// (pin 3 "VDD" power). What stands before the brackets is the notation’s own.

import type { Mapped } from '../clean'
import { type Line, linesOf, rowsWritten, type Span, tight, type Written } from './rows'

const closing: Record<string, string> = { '(': ')', '[': ']', '{': '}' }

/** Where the bracket that opens at `from` closes; -1 where it doesn’t. */
const closeOf = (text: string, from: number): number => {
  const open: string[] = []
  for (let i = from; i < text.length; i++) {
    const c = text[i]!
    if (c === '"' || c === "'") {
      const end = text.indexOf(c, i + 1)
      if (end < 0) return -1
      i = end
    } else if (closing[c]) open.push(closing[c])
    else if (c === open[open.length - 1]) {
      open.pop()
      if (open.length === 0) return i
    }
  }
  return -1
}
const nothing = /^(?:null|none|nil|undefined|na)$/i

/** The values between two offsets; a list within is one value. */
const valuesIn = (text: string, from: number, to: number): Span[] => {
  const byCommas = /,/.test(
    text.slice(from, to).replace(/"[^"]*"|'[^']*'|\([^()]*\)|\[[^[\]]*\]|\{[^{}]*\}/g, ''),
  )
  const values: Span[] = []
  let i = from
  while (i < to) {
    const c = text[i]!
    if (/[\s,]/.test(c)) i++
    else if (c === '"' || c === "'") {
      const end = text.indexOf(c, i + 1)
      values.push({ from: i + 1, to: end })
      i = end + 1
    } else if (closing[c]) {
      const end = closeOf(text, i)
      values.push({ from: i + 1, to: end })
      i = end + 1
    } else {
      const bare = (byCommas ? /^[^,"'()[\]{}]+/ : /^[^\s"'()[\]{}]+/).exec(text.slice(i, to))?.[0] ?? c
      values.push({ from: i, to: i + bare.length })
      i += bare.length
    }
  }
  return values
}
const rowOf = (m: Mapped, { text, from }: Line): Span[] | undefined => {
  const at = text.search(/[([{]/)
  if (at < 0 || text.length > 500) return undefined
  const end = closeOf(text, at)
  // Behind it the notation’s own marks, and a remark.
  if (end < 0 || !/^\s*[,;)\]}]*\s*(?:(?:\/\/|\/\*|#|--).*)?$/.test(text.slice(end + 1))) return undefined
  // A name or a number before it is no notation’s own: PA0 (AIN0, INT3).
  if (/[A-Z]+\d|^\s*\d/.test(text.slice(0, at))) return undefined
  const values = valuesIn(text, at + 1, end).map((v) => tight(m, { from: from + v.from, to: from + v.to }))
  return values.length >= 2 ? values : undefined
}

/** Undefined where most lines are no such list. */
export const fromTuples = (m: Mapped): Mapped | undefined => {
  const lines = linesOf(m).filter((l) => l.text.trim() !== '')
  const rows = lines.flatMap((l) => {
    const row = rowOf(m, l)
    return row ? [row] : []
  })
  if (rows.length < 3 || rows.length < lines.length * 0.6) return undefined
  const textOf = (s: Span | undefined) => (s ? m.text.slice(s.from, s.to) : '')
  // A word that begins each of them is what they are.
  const called = rows.every((r) => textOf(r[0]) === textOf(rows[0]![0]) && /^[a-z]/i.test(textOf(r[0])))
  return rowsWritten(
    m,
    rows.map((r) => r.slice(called ? 1 : 0).map((v): Written => (nothing.test(textOf(v)) ? [] : [v]))),
  )
}
