// Pasted text as a reader needs it, every character of it knowing where it came from: compatibility forms, invisible
// letters, kinds of space and hyphen are made one, and what a reader writes anew keeps its places too.

import type { Place } from './layout'

/** Text made of another text. */
export interface Mapped {
  text: string
  /** For each character of `text` its offset in what was pasted; one more for the end. */
  at: Int32Array
}

/** Writes mapped text piece by piece. */
export class Writer {
  private readonly pieces: string[] = []
  private readonly offsets: number[] = []
  /** Characters that all stand for the place `origin`. */
  put(text: string, origin: number): void {
    this.pieces.push(text)
    for (let i = 0; i < text.length; i++) this.offsets.push(origin)
  }
  /** A piece of mapped text as it is. */
  copy(from: Mapped, start: number, end: number): void {
    this.pieces.push(from.text.slice(start, end))
    for (let i = start; i < end; i++) this.offsets.push(from.at[i]!)
  }
  done(end: number): Mapped {
    this.offsets.push(end)
    return { text: this.pieces.join(''), at: Int32Array.from(this.offsets) }
  }
}

/** Control characters, soft hyphens, joiners, lines over and under a letter, direction marks. */
const isDropped = (code: number): boolean =>
  code < 9 ||
  (code > 13 && code < 32) ||
  [0xad, 0x304, 0x305, 0x332, 0x333, 0x33f, 0xfeff, 0xfe0e, 0xfe0f].includes(code) ||
  (code >= 0x200b && code <= 0x200f) ||
  (code >= 0x2060 && code <= 0x2064)
const oneFor: Record<string, string> = {
  '\u2010': '-',
  '\u2011': '-',
  '\u2012': '-',
  '\u2043': '-',
  '\u2212': '-',
  '\ufe63': '-',
  '\ufe58': '—',
  '\u2215': '/',
  '\u2044': '/',
  '\u29f8': '/',
  '\u03bc': 'µ',
  '\u2126': 'Ω',
  '\u2028': '\n',
  '\u2029': '\n',
  '\u000b': '\n',
  '\u000c': '\n',
  '\u0085': '\n',
  '\u00a0': ' ',
  '\u202f': ' ',
  '\u205f': ' ',
  '\u3000': ' ',
  '\u1680': ' ',
}
const compatible = /[\u2000-\u200a\u2080-\u208e\ufb00-\ufb06\uff01-\uff5e]|\ud835[\udc00-\udfff]/

/** What one character becomes; undefined for one that stays. */
const cleaned = (c: string): string | undefined => {
  if (isDropped(c.charCodeAt(0))) return ''
  const one = oneFor[c]
  if (one !== undefined) return one
  return compatible.test(c) ? c.normalize('NFKC').replace('−', '-') : undefined
}

/** The text with compatibility forms, invisible letters, spaces and hyphens made one. Line ends become one character each. */
export const cleanText = (pasted: string): Mapped => {
  if (!/[^\t\n\x20-\x7e]/.test(pasted))
    return { text: pasted, at: Int32Array.from({ length: pasted.length + 1 }, (_, i) => i) }
  const out = new Writer()
  for (let i = 0; i < pasted.length; i++) {
    const pair = pasted.charCodeAt(i) === 0xd835 && i + 1 < pasted.length
    const c = pair ? pasted.slice(i, i + 2) : pasted[i]!
    if (c === '\r') {
      if (pasted[i + 1] !== '\n') out.put('\n', i)
      continue
    }
    out.put(cleaned(c) ?? c, i)
    if (pair) i++
  }
  return out.done(pasted.length)
}

/** Dots that lead from a cell to the next are spaces. */
export const withoutLeaders = (m: Mapped): Mapped =>
  /\.{4}|(?:\. ){4}/.test(m.text)
    ? { text: m.text.replace(/\.{4,}|(?<=\s)(?:\. ){4,}\.?/g, (dots) => ' '.repeat(dots.length)), at: m.at }
    : m

/** Turns places in mapped text into places in what was pasted. */
export const placesBack = (mapped: Mapped, pasted: string): ((place: Place) => Place) => {
  const starts = lineStarts(mapped.text)
  const original = lineStarts(pasted)
  return ({ line, from, to }) => {
    const base = starts[line - 1] ?? 0
    const start = mapped.at[Math.min(base + from, mapped.text.length)]!
    const last = to > from ? mapped.at[Math.min(base + to - 1, mapped.text.length)]! : start - 1
    const at = lineAt(original, start)
    // A place is on one line: what goes on over its end is cut there.
    const lineEnd = (original[at + 1] ?? pasted.length + 1) - 1
    const end = Math.min(Math.max(last + 1, start), Math.max(start, lineEnd))
    return { line: at + 1, from: start - original[at]!, to: end - original[at]! }
  }
}

/** Where each line begins, at any of the usual line ends. */
export const lineStarts = (text: string): number[] => {
  const starts = [0]
  for (let i = 0; i < text.length; i++)
    if (text[i] === '\n' || (text[i] === '\r' && text[i + 1] !== '\n')) starts.push(i + 1)
  return starts
}
/** The index of the line that an offset lies in. */
export const lineAt = (starts: number[], offset: number): number => {
  let [low, high] = [0, starts.length - 1]
  while (low < high) {
    const middle = Math.ceil((low + high) / 2)
    if (starts[middle]! <= offset) low = middle
    else high = middle - 1
  }
  return low
}
