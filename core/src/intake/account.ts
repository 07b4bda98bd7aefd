// What became of every character of a pasted text. Nothing is dropped without a class: what no rule explains is not
// understood, and shown as that.

import { lineAt, lineStarts, type Mapped } from './clean'
import type { Place } from './layout'

export const tokenClasses = [
  'space',
  'leg',
  'name',
  'type',
  'function',
  'number',
  'mark',
  'note',
  'heading',
  'furniture',
  'words',
  'open',
] as const
/**
 * `space`: spaces and punctuation. `number`: a number in the program, a label or a position. `mark`: of a footnote.
 * `furniture`: what pages and notations carry besides. `words`: for people, about a leg. `open`: not understood.
 */
export type TokenClass = (typeof tokenClasses)[number]

export interface Account {
  /** Characters of each class; all together are the whole text. */
  counts: Record<TokenClass, number>
  /** The whole text in runs of one class, by offset. */
  runs: { from: number; to: number; class: TokenClass }[]
  /** Where what was not understood stands, word by word. */
  open: (Place & { text: string })[]
}

const beyondAscii = /[\p{L}\p{N}]/u
const isLetter = (text: string, i: number): boolean => {
  const code = text.charCodeAt(i)
  return code < 128
    ? (code > 47 && code < 58) || (code > 64 && code < 91) || (code > 96 && code < 123)
    : beyondAscii.test(text[i]!)
}
const isSpace = (text: string, i: number): boolean => text.charCodeAt(i) <= 32 || /\s/.test(text[i]!)
const wordPattern = /[^\s,;|/()[\]{}<>"'=]+/g
const codes = Object.fromEntries(tokenClasses.map((c, i) => [c, i])) as Record<TokenClass, number>

/** Classes of a text’s characters while they are being told. */
export class Classes {
  private readonly classes: Uint8Array
  private readonly starts: number[]
  constructor(private readonly text: string) {
    this.classes = new Uint8Array(text.length).fill(255)
    this.starts = lineStarts(text)
  }
  /** Tells what stands at a place; what has been told before stays unless `over`. */
  tell({ line, from, to }: Place, is: TokenClass, over = true): void {
    const base = this.starts[line - 1]
    if (base === undefined) return
    const end = Math.min(base + to, this.text.length)
    for (let i = base + from; i < end; i++) if (over || this.classes[i] === 255) this.classes[i] = codes[is]
  }
  tellLine(line: number, is: TokenClass): void {
    const [base, next] = [this.starts[line - 1], this.starts[line]]
    if (base !== undefined)
      this.tell({ line, from: 0, to: (next ?? this.text.length + 1) - 1 - base }, is, false)
  }
  /** The words of a line with their places. */
  wordsIn(line: number): { text: string; place: Place }[] {
    const [base, next] = [this.starts[line - 1], this.starts[line]]
    if (base === undefined) return []
    const text = this.text.slice(base, (next ?? this.text.length + 1) - 1)
    return [...text.matchAll(wordPattern)].map((w) => ({
      text: w[0],
      place: { line, from: w.index, to: w.index + w[0].length },
    }))
  }
  /** The account of what was pasted. `rest` says what a word is that the reader left out. */
  account(
    mapped: Mapped,
    pasted: string,
    rest: (word: string) => TokenClass,
    known: ReadonlySet<string> = new Set(),
  ): Account {
    const all = new Uint8Array(pasted.length).fill(255)
    for (let i = 0; i < this.text.length; i++) {
      const at = mapped.at[i]!
      const now = this.classes[i]!
      if (at < pasted.length && now !== 255 && (all[at] === 255 || now !== codes.open)) all[at] = now
    }
    const covered = new Uint8Array(pasted.length)
    for (let i = 0; i < this.text.length; i++) if (mapped.at[i]! < pasted.length) covered[mapped.at[i]!] = 1
    const starts = lineStarts(pasted)
    const open: Account['open'] = []
    for (const word of pasted.matchAll(wordPattern)) {
      const [from, to] = [word.index, word.index + word[0].length]
      const untold: number[] = []
      for (let i = from; i < to; i++)
        if ((all[i] === 255 || all[i] === codes.open) && isLetter(pasted, i)) untold.push(i)
      if (untold.length === 0) continue
      const dropped = untold.every((i) => covered[i] === 0)
      const is = known.has(word[0]) ? 'words' : dropped ? rest(word[0]) : 'open'
      for (const i of untold) all[i] = codes[is]
      if (is === 'open') {
        const line = lineAt(starts, from)
        open.push({ text: word[0], line: line + 1, from: from - starts[line]!, to: to - starts[line]! })
      }
    }
    const counts = Object.fromEntries(tokenClasses.map((c) => [c, 0])) as Account['counts']
    const runs: Account['runs'] = []
    for (let i = 0; i < pasted.length; i++) {
      const is = tokenClasses[all[i]!] ?? 'space'
      // Spaces and punctuation are no part of what they stand beside.
      const told = is !== 'open' && all[i] !== 255 && !isSpace(pasted, i)
      const here = isLetter(pasted, i) || told ? is : 'space'
      counts[here]++
      const last = runs[runs.length - 1]
      if (last?.class === here) last.to = i + 1
      else runs.push({ from: i, to: i + 1, class: here })
    }
    return { counts, runs, open }
  }
}

export const noAccount = (): Account => ({
  counts: Object.fromEntries(tokenClasses.map((c) => [c, 0])) as Account['counts'],
  runs: [],
  open: [],
})
