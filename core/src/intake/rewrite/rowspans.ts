// Cells of a web page’s table that reach over several rows, written into each of them.

import { type Mapped, Writer } from '../clean'

interface WebCell {
  from: number
  to: number
  columns: number
  rows: number
}
const numberIn = (attributes: string, name: string): number => {
  const n = Number(new RegExp(`${name}\\s*=\\s*["']?(\\d{1,3})`, 'i').exec(attributes)?.[1] ?? 1)
  return Math.min(Math.max(n, 1), 200)
}

/** The same where no cell reaches over rows. */
export const withRowspans = (m: Mapped): Mapped => {
  const { text } = m
  if (!/\browspan\s*=/i.test(text)) return m
  const out = new Writer()
  const carried = new Map<number, { cell: WebCell; left: number }>()
  let done = 0
  for (const row of text.matchAll(/<tr\b[^>]*>([\s\S]*?)(?=<\/tr\b|<tr\b|<\/table\b|$)/gi)) {
    const start = row.index + row[0].length - row[1]!.length
    const end = row.index + row[0].length
    const cells = [...row[1]!.matchAll(/<(?:td|th)\b((?:"[^"]*"|'[^']*'|[^>"'])*)>/gi)]
    out.copy(m, done, start)
    const write = ({ from, to }: WebCell) => out.copy(m, from, to)
    let column = 0
    const carryOn = () => {
      for (let at = carried.get(column); at; at = carried.get(column)) {
        write(at.cell)
        if (--at.left === 0) carried.delete(column)
        column += at.cell.columns
      }
    }
    cells.forEach((c, i) => {
      carryOn()
      const cell: WebCell = {
        from: start + c.index,
        to: i + 1 < cells.length ? start + cells[i + 1]!.index : end,
        columns: numberIn(c[1]!, 'colspan'),
        rows: numberIn(c[1]!, 'rowspan'),
      }
      write(cell)
      if (cell.rows > 1) carried.set(column, { cell, left: cell.rows - 1 })
      column += cell.columns
    })
    carryOn()
    done = end
  }
  out.copy(m, done, text.length)
  return out.done(m.at[text.length]!)
}
