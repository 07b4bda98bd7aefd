// The ways in which a text may be laid out. Each is a reader of its own that makes rows of it; which one is right is
// settled by what comes of them.

import type { TokenClass } from './account'
import { type Mapped, Writer } from './clean'
import { readToken } from './functions'
import { type Separator, separatorOf } from './grid'
import { isPort, isReset, typeByName } from './names'
import {
  fromAcross,
  fromDrawing,
  fromProgram,
  fromMarkup,
  fromMentions,
  fromRecords,
  fromStacked,
  fromTuples,
  fromWeb,
  withoutTags,
} from './rewrite'
import { isPlainWord } from './words'

export interface Reading {
  id: string
  /** As a builder would say it. */
  words: string
  mapped: Mapped
  separator: Separator
  /** What the text’s look says for it or against it, besides what comes of it. */
  bonus: number
  /** What a word is that the reader leaves out. */
  rest: (word: string) => TokenClass
}

const prose = (word: string): TokenClass =>
  isPlainWord(word) || /^\p{Lu}?\p{Ll}$/u.test(word) ? 'words' : 'open'
const rewriters: readonly {
  id: string
  words: string
  /** What it leaves out it may know better than `rest`. */
  write: (m: Mapped) => (Mapped & { rest?: Reading['rest'] }) | undefined
  rest: Reading['rest']
}[] = [
  { id: 'web', words: 'a table of a web page', write: fromWeb, rest: () => 'furniture' },
  {
    id: 'markup',
    words: 'a table in a typesetter’s or wiki’s notation',
    write: fromMarkup,
    rest: () => 'furniture',
  },
  { id: 'program', words: 'lines of a program', write: fromProgram, rest: () => 'heading' },
  {
    id: 'tuples',
    words: 'a list of values in brackets for each leg',
    write: fromTuples,
    rest: () => 'heading',
  },
  { id: 'records', words: 'records of keys and values', write: fromRecords, rest: () => 'heading' },
  { id: 'drawing', words: 'a package drawn from above', write: fromDrawing, rest: () => 'furniture' },
  { id: 'stacked', words: 'one column after another', write: fromStacked, rest: () => 'open' },
  { id: 'across', words: 'a column for each leg', write: fromAcross, rest: () => 'heading' },
  { id: 'mentions', words: 'a paragraph or a block of lines for each leg', write: fromMentions, rest: prose },
]
/** Whatever a reader leaves out, the name of a leg or function among it is not understood. */
const named =
  (rest: Reading['rest']): Reading['rest'] =>
  (word) => {
    const bare = word.replace(/[.,:;]+$/, '')
    const read = readToken(bare)
    const isFunction = read && 'function' in read && read.function.kind !== undefined && /[A-Z]/.test(bare)
    const isLeg = isPort(bare) || (/^[A-Z]/.test(bare) && typeByName(bare) !== undefined) || isReset(bare)
    return isLeg || isFunction ? 'open' : rest(word)
  }
const separatorWords: Record<Separator, string> = {
  tab: 'columns parted by tabs',
  semicolon: 'columns parted by semicolons',
  comma: 'columns parted by commas',
  bar: 'columns parted by bars',
  columns: 'columns aligned by spaces',
  gaps: 'cells parted by two spaces or more',
  words: 'a line of words for each leg',
  space: 'as many words on every line',
  lines: 'every cell on a line of its own',
}

/** Separators that a text may use at all. */
const plausible = (text: string): Separator[] => {
  const lines = text.split('\n').filter((l) => l.trim() !== '')
  const share = (has: RegExp) => lines.filter((l) => has.test(l)).length / Math.max(1, lines.length)
  const tabs = share(/\t/)
  const counts = new Map<number, number>()
  for (const l of lines) {
    const n = l.trim().split(/\s+/).length
    counts.set(n, (counts.get(n) ?? 0) + 1)
  }
  const [count, times] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [0, 0]
  return [
    ...(tabs >= 0.25 ? (['tab'] as const) : []),
    ...(share(/\|/) >= 0.3 ? (['bar'] as const) : []),
    ...(share(/;/) >= 0.3 ? (['semicolon'] as const) : []),
    ...(share(/,/) >= 0.3 ? (['comma'] as const) : []),
    ...(share(/\S {2,}\S/) >= 0.25 ? (['columns', 'gaps'] as const) : []),
    ...(count >= 4 && times >= lines.length * 0.6 && tabs < 0.5 && share(/\S {2,}\S/) < 0.5
      ? (['space'] as const)
      : []),
    ...(tabs < 0.5 ? (['words'] as const) : []),
    ...(share(/^\s*\d{1,3}\s*$/) >= 0.1 ? (['lines'] as const) : []),
  ]
}

/** With spaces put back where letters that don’t show were left out, for lines that were aligned with them counted. */
const widened = (m: Mapped): Mapped | undefined => {
  const out = new Writer()
  let pending = 0
  let found = false
  for (let i = 0; i < m.text.length; i++) {
    const dropped = i === 0 || m.text[i - 1] === '\n' ? 0 : m.at[i]! - m.at[i - 1]! - 1
    if (dropped > 0) pending += dropped
    if (m.text[i] === '\n') pending = 0
    if (pending > 0 && m.text[i] === ' ' && m.text[i + 1] === ' ') {
      out.put(' '.repeat(pending), m.at[i]!)
      pending = 0
      found = true
    }
    out.copy(m, i, i + 1)
  }
  return found ? out.done(m.at[m.text.length]!) : undefined
}

/** Every way to read a text, the one that its look speaks for first; or the one of that id alone. */
export const readingsOf = (pasted: Mapped, only?: string): Reading[] => {
  const bare = withoutTags(pasted)
  const tags: Reading['rest'] = (word) => (/[A-Z0-9]/.test(word) ? 'open' : 'furniture')
  return bare
    ? waysOf(bare, only).map((r) => ({
        ...r,
        rest: (word: string) => (r.id === 'mentions' ? r.rest(word) : named(tags)(word)),
      }))
    : waysOf(pasted, only)
}
const waysOf = (clean: Mapped, only?: string): Reading[] => {
  const barred: Mapped = { text: clean.text.replace(/[│┃║¦]/g, '|'), at: clean.at }
  const usual = separatorOf(barred.text)
  const separators = [usual, ...plausible(barred.text).filter((s) => s !== usual)]
  const tokens = clean.text.slice(0, 20_000).match(/[\p{L}\p{N}][^\s,;]*/gu) ?? []
  const inProse = tokens.filter(isPlainWord).length > tokens.length * 0.35
  const filled = clean.text.split('\n').filter((l) => l.trim() !== '')
  const inColumns = filled.filter((l) => /\S(?:\t| {2,})\S/.test(l)).length >= filled.length * 0.5
  const written = rewriters.flatMap(({ id, words, write, rest }): Reading[] => {
    const mapped = only === undefined || only === id ? write(clean) : undefined
    return mapped
      ? [
          {
            id,
            words,
            mapped,
            separator: 'tab',
            rest: named(mapped.rest ?? rest),
            bonus: id !== 'mentions' ? 0 : inProse ? 0.1 : inColumns ? -0.12 : -0.05,
          },
        ]
      : []
  })
  const wide = separators.includes('columns') ? widened(barred) : undefined
  return [
    ...written,
    ...separators.map((separator): Reading => ({
      id: separator,
      words: separatorWords[separator],
      mapped: barred,
      separator,
      // Cells parted by gaps alone move up where one before them is empty.
      bonus:
        separator === 'words' || separator === 'space'
          ? -0.02
          : separator === 'gaps' && usual !== 'gaps'
            ? -0.06
            : 0,
      rest: () => 'open',
    })),
    ...(wide
      ? [
          {
            id: 'columns, wide',
            words: 'columns aligned by spaces, with letters that don’t show counted',
            mapped: wide,
            separator: 'columns' as const,
            bonus: -0.01,
            rest: () => 'open' as const,
          },
        ]
      : []),
  ]
}
