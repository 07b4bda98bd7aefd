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

const leaders = /\.{4,}|(?<=\s)(?:\. ){4,}\.?|(?<=[^\s.] )\.{2,}(?= )/g
/** `**1**`, `~~RESET~~`, `` `PA0` ``: marks around a word that only say how it is set. */
const emphasis = /(\*\*|~~|`)(?=[^\s*~`])([^*~`\n]*[^\s*~`])\1/g
/** `PA[7:0]`: names that count, written as a range. */
const counting = /(?<=[A-Za-z_])\[(\d{1,2})(:|\.\.\.?|-)(\d{1,2})\]/g

/** What documents add to the words themselves, taken away: dots that lead to the next cell, marks of emphasis. */
export const plainly = (m: Mapped): Mapped => {
  const { text } = m
  const cuts: { at: number; old: string; now: string }[] = []
  for (const p of text.matchAll(leaders)) cuts.push({ at: p.index, old: p[0], now: ' '.repeat(p[0].length) })
  for (const p of text.matchAll(emphasis)) {
    cuts.push({ at: p.index, old: p[1]!, now: '' })
    cuts.push({ at: p.index + p[0].length - p[1]!.length, old: p[1]!, now: '' })
  }
  for (const p of text.matchAll(counting)) {
    cuts.push({ at: p.index, old: '[', now: '' })
    cuts.push({ at: p.index + 1 + p[1]!.length, old: p[2]!, now: '-' })
    cuts.push({ at: p.index + p[0].length - 1, old: ']', now: '' })
  }
  if (cuts.length === 0) return m
  const out = new Writer()
  let done = 0
  for (const { at, old, now } of cuts.sort((a, b) => a.at - b.at)) {
    if (at < done) continue
    out.copy(m, done, at)
    out.put(now, m.at[at]!)
    done = at + old.length
  }
  out.copy(m, done, text.length)
  return out.done(m.at[text.length]!)
}

/** Balls under a package, A1, A2 … at the beginnings of lines, counted from 1 on; undefined where there are none. */
export const withoutBalls = (m: Mapped): Mapped | undefined => {
  if (!/\b(?:balls?|bumps?|\w*BGA\d*|\w*CSP\d*)\b/i.test(m.text)) return undefined
  const found = [...m.text.matchAll(/^[^\S\n]*["']?([A-Y]{1,2}\d{1,2})(?=["']?(?:\t|[^\S\n]|[,;|]))/gm)]
  const names = new Set(found.map((f) => f[1]!))
  const lines = m.text.split('\n').filter((l) => l.trim() !== '').length
  // A grid: several letters, each with several numbers, and each once.
  const letters = new Set([...names].map((n) => n.replace(/\d/g, '')))
  if (found.length < 4 || names.size < found.length || found.length < lines * 0.6) return undefined
  if (letters.size < 2 || letters.size > found.length / 1.5) return undefined
  const out = new Writer()
  let done = 0
  found.forEach((f, i) => {
    const at = f.index + f[0].length - f[1]!.length
    out.copy(m, done, at)
    const number = String(i + 1).padStart(f[1]!.length, '0')
    for (let c = 0; c < number.length; c++) out.put(number[c]!, m.at[at + Math.min(c, f[1]!.length - 1)]!)
    done = at + f[1]!.length
  })
  out.copy(m, done, m.text.length)
  return out.done(m.at[m.text.length]!)
}

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
