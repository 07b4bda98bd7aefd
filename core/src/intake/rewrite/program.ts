// Lines of a program that give names numbers: #define PIN_PA0 2 // ADC0. What names have in common before them goes.

import type { Mapped } from '../clean'
import { linesOf, rowsWritten, type Span, tight, type Written } from './rows'

const line =
  /^(\s*(?:#\s*define|static|const\w*|let|var|int|uint\d+_t|u8|enum|final|public)?(?:\s+(?:const\w*|int|u?int\d+_t|u8|byte))*\s*)([A-Za-z_][\w.]*)(\s*(?:=|:=|\s)\s*\(?)(\d{1,3})\)?\s*[,;]?\s*(?:(?:\/\/+|\/\*+|#+|--|;)<?\s*(.*?)\s*(?:\*\/)?)?\s*$/

/** Undefined where most lines are no such thing. */
export const fromProgram = (m: Mapped): Mapped | undefined => {
  const lines = linesOf(m).filter((l) => l.text.trim() !== '')
  const found = lines.flatMap((l) => {
    const p = l.text.length < 300 ? line.exec(l.text) : null
    return p && (/\S/.test(p[1]!) || /[=]/.test(p[3]!)) ? [{ l, p }] : []
  })
  if (found.length < 4 || found.length < lines.length * 0.6) return undefined
  const names = found.map(({ p }) => p[2]!)
  // PIN_PA0, PIN_PA1: what is the same up to an underscore is no part of a name.
  const cut = names[0]!.lastIndexOf('_') + 1
  let prefix = ''
  for (let i = cut; i > 0; i = names[0]!.lastIndexOf('_', i - 2) + 1) {
    const start = names[0]!.slice(0, i)
    if (names.every((n) => n.startsWith(start) && n.length > start.length)) {
      prefix = start
      break
    }
    if (names[0]!.lastIndexOf('_', i - 2) < 0) break
  }
  const rows = found.map(({ l, p }): Written[] => {
    const name = l.from + p[1]!.length
    const number = name + p[2]!.length + p[3]!.length
    const said: Span[] = []
    if (p[5]) {
      const at = l.from + l.text.lastIndexOf(p[5])
      said.push(tight(m, { from: at, to: at + p[5].length }))
    }
    return [
      [{ from: number, to: number + p[4]!.length }],
      [{ from: name + prefix.length, to: name + p[2]!.length }],
      said,
    ]
  })
  return rowsWritten(m, [['Pin', 'Name', 'Functions'], ...rows])
}
