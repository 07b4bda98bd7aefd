// Records in a notation that programs use, key and value: JSON, YAML, XML, C, blocks of lines. A key that comes first in
// a record begins the next one when it comes again.

import type { Mapped } from '../clean'
import { isPlainWord } from '../words'
import { rowsWritten, type Span, tight, type Written } from './rows'

interface Pair {
  key: string
  values: Span[]
  at: number
}

const pair =
  /<([a-z][\w-]*)(?:\s[^<>]*)?>([^<>\n]*)<\/\1>|(?<![\w.+-])(["']?)\.?([A-Za-z_][\w-]*(?: [A-Za-z][\w-]*){0,2})\3[^\S\n]*(?:=>|:=|[:=](?!=))[^\S\n]*/g

/** The values that stand at an offset: in quotes, in a list, or bare up to what ends it. */
const valuesAt = (text: string, from: number): { values: Span[]; to: number } => {
  const c = text[from]
  if (c === '"' || c === "'") {
    const end = text.indexOf(c, from + 1)
    return end < 0 ? { values: [], to: from } : { values: [{ from: from + 1, to: end }], to: end + 1 }
  }
  if (c === '[' || c === '{' || c === '(') {
    const close = { '[': ']', '{': '}', '(': ')' }[c]
    const end = text.indexOf(close, from + 1)
    const inside = end < 0 ? '' : text.slice(from + 1, end)
    // Pairs inside are a record of their own; a colon within a name is none.
    const bare = inside.replace(/(["'])[^"']*\1(\s*[:=])?/g, (_, __, colon: string | undefined) =>
      colon ? 'key: x' : '',
    )
    if (end < 0 || /[A-Za-z_]\w*(?:\s*=\s*|\s*:\s+)[[{\w]/.test(bare)) return { values: [], to: from + 1 }
    const values = [...inside.matchAll(/[^\s,;"'|][^,;"'|\n]*/g)].map((v) => ({
      from: from + 1 + v.index,
      to: from + 1 + v.index + v[0].trimEnd().length,
    }))
    return { values, to: end + 1 }
  }
  const bare = /^[^\n;}>\]]*/.exec(text.slice(from, from + 400))![0]
  const cut = /,\s*["']?\.?[A-Za-z_]\w*["']?\s*(?:=|:(?=[\s"'[{]))|\s+[A-Za-z_]\w*=["']|\s*\/?$/.exec(bare)
  const value = bare.slice(0, cut ? cut.index : bare.length).replace(/,\s*$/, '')
  return { values: value.trim() === '' ? [] : [{ from, to: from + value.length }], to: from + value.length }
}
/** Lines that begin with a dash below a key without a value. */
const listBelow = (text: string, from: number): { values: Span[]; to: number } | undefined => {
  const below = /^(?:\s*\n[^\S\n]*[-*•][^\S\n]+["']?[^\s:"']+["']?[^\S\n]*(?=\n|$))+/.exec(
    text.slice(from, from + 4000),
  )
  if (!below) return undefined
  const values = [...below[0].matchAll(/[-*•][^\S\n]+["']?([^\s:"']+)/g)].map((v) => {
    const to = from + v.index + v[0].length
    return { from: to - v[1]!.length, to }
  })
  return { values, to: from + below[0].length }
}

/** `[PA0]` on a line of its own names the record below it. */
const titles = (text: string): Pair[] =>
  [...text.matchAll(/^[^\S\n]*\[([A-Za-z~/!][\w.+/~-]*)\][^\S\n]*$/gm)].map((t) => ({
    key: t[1]!.toLowerCase(),
    values: [],
    at: t.index,
  }))

const pairsOf = (text: string): Pair[] => {
  const found: Pair[] = titles(text)
  pair.lastIndex = 0
  for (let p = pair.exec(text); p; p = pair.exec(text)) {
    if (p[1] !== undefined) {
      const from = p.index + p[0].indexOf('>') + 1
      found.push({ key: p[1].toLowerCase(), values: [{ from, to: from + p[2]!.length }], at: p.index })
      // Attributes of the element itself are pairs too.
      if (/="/.test(p[0].slice(0, from - p.index))) pair.lastIndex = p.index + 1 + p[1].length
      continue
    }
    const from = p.index + p[0].length
    const { values, to } =
      text[from] === '\n' || from >= text.length
        ? (listBelow(text, from) ?? { values: [], to: from })
        : valuesAt(text, from)
    found.push({ key: p[4]!.toLowerCase(), values, at: p.index })
    pair.lastIndex = Math.max(to, from)
  }
  return found.sort((a, b) => a.at - b.at)
}

/** Undefined where the text holds no list of records of one kind. */
export const fromRecords = (
  m: Mapped,
): (Mapped & { rest: (word: string) => 'heading' | 'words' | 'open' }) | undefined => {
  const { text } = m
  const pairs = pairsOf(text)
  if (pairs.length < 8) return undefined
  const counts = new Map<string, number>()
  for (const p of pairs) counts.set(p.key, (counts.get(p.key) ?? 0) + 1)
  const most = Math.max(...counts.values())
  // A key that names the record itself, "PA0": {…}, comes once; those that come in most records are its fields.
  const empty = (key: string) => pairs.every((p) => p.key !== key || p.values.length === 0)
  const fields = [...counts].filter(([k, n]) => n >= Math.max(2, most * 0.3) && !empty(k)).map(([k]) => k)
  const first = pairs.find((p) => fields.includes(p.key))?.key
  if (first === undefined || fields.length < 2) return undefined
  const records: { named?: Span; cells: Map<string, Span[]> }[] = []
  let name: Span | undefined
  for (const p of pairs) {
    if (!fields.includes(p.key)) {
      if (p.values.length === 0) {
        const at = text.toLowerCase().indexOf(p.key, p.at)
        name = { from: at, to: at + p.key.length }
      }
      continue
    }
    if (p.key === first) {
      records.push({ named: name, cells: new Map() })
      name = undefined
    }
    const { cells } = records[records.length - 1]!
    cells.set(p.key, [...(cells.get(p.key) ?? []), ...p.values.map((v) => tight(m, v))])
  }
  const named = records.filter((r) => r.named).length >= records.length * 0.8
  if (records.length < 3) return undefined
  const rows: Written[][] = records.map((r) => [
    ...(named ? [r.named ? [r.named] : []] : []),
    ...fields.map((f) => r.cells.get(f) ?? []),
  ])
  // Keys and tags are heads; a field that few records have is not understood, unless it is words for people.
  const keys = new Set([
    ...pairs.flatMap((p) => p.key.split(' ')),
    ...[...text.matchAll(/<\/?([a-z][\w-]*)/gi)].map((t) => t[1]!.toLowerCase()),
  ])
  return {
    ...rowsWritten(m, [[...(named ? ['name'] : []), ...fields], ...rows]),
    rest: (word) => {
      const bare = word.replace(/^[.@-]+|[.:?]+$/g, '').toLowerCase()
      return bare === '' || keys.has(bare) ? 'heading' : isPlainWord(word) ? 'words' : 'open'
    },
  }
}
