// One column after another: all leg numbers, then all names, then the rest, each cell on a line of its own. What a viewer
// gives when a table is marked column by column.

import type { Mapped } from '../clean'
import { legsIn } from '../legs'
import { linesOf, rowsWritten, type Written } from './rows'

const isNumber = (text: string) => /\d/.test(text) && (legsIn(text)?.length ?? 0) > 0

/** Undefined where no block of numbers tells how long the columns are. */
export const fromStacked = (m: Mapped): Mapped | undefined => {
  const lines = linesOf(m).filter((l) => l.text.trim() !== '')
  let best = { from: 0, to: 0 }
  for (let i = 0; i < lines.length; i++) {
    let end = i
    const seen = new Set<string>()
    while (end < lines.length && isNumber(lines[end]!.text) && !seen.has(lines[end]!.text.trim()))
      seen.add(lines[end++]!.text.trim())
    if (end - i > best.to - best.from) best = { from: i, to: end }
    if (end > i) i = end - 1
  }
  const n = best.to - best.from
  if (n < 4 || lines.some((l) => l.text.includes('\t'))) return undefined
  for (const headed of [1, 0]) {
    const block = n + headed
    const before = best.from - headed
    const after = lines.length - best.to
    if (before < 0 || before % block !== 0 || after % block !== 0) continue
    const columns = (before + after) / block + 1
    if (columns < 2) continue
    const start = (c: number) => c * block
    const cell = (c: number, row: number): Written => {
      const { from, to } = lines[start(c) + row]!
      return [{ from, to }]
    }
    const rows = Array.from({ length: block }, (_, row) =>
      Array.from({ length: columns }, (_, c) => cell(c, row)),
    )
    return rowsWritten(m, rows)
  }
  return undefined
}
