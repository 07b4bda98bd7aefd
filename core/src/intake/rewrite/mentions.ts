// Legs told one after another, a paragraph or a block of lines for each: what begins each is its number and name, what
// follows is what it can be, among whatever words.

import { readToken } from '../functions'
import type { Mapped } from '../clean'
import { rowsWritten, type Span, tight, type Written } from './rows'

const word =
  '(?:pins?|legs?|leads?|terminals?|contacts?|balls?|anschluss|anschluß|bein(?:chen)?|broche|borne|patilla|terminal|piedino|pino|terminale|aansluiting|pen|poot)'
const name =
  '[~/!\\\\]?n?[A-Z][A-Z0-9]*(?:[A-Z0-9_.+]|-(?=[A-Z0-9]))*[#+-]?(?:[*†‡¹²³]+|\\s?\\(\\d\\)|\\[\\d\\])?'
const ported =
  '[~/!\\\\]?[A-Za-z][A-Za-z0-9]*(?:[A-Za-z0-9_.+]|-(?=[A-Z0-9]))*[#+-]?(?:[*†‡¹²³]+|\\(\\d\\)|\\[\\d\\])?'
const number = '(\\d{1,3})'
/** What begins a leg’s part; the number and the name in either order. */
const beginnings: readonly { pattern: RegExp; leg: number; name: number }[] = [
  {
    pattern: new RegExp(
      `(?:^[^\\S\\n]*(?:[-–—*•·#]+ +)?|(?<=[.;] ))${word}\\s*(?:no\\.?|nr\\.?|n°|number|#)?\\s*${number}\\b[\\s,:.)–—=-]*(?:is |named )?\\(?(${name})(?![a-z])`,
      'gim',
    ),
    leg: 1,
    name: 2,
  },
  {
    pattern: new RegExp(
      `^[^\\S\\n]*(?:[-–—*•·#]+ +)?(${ported})\\s*[,([–—-]*\\s*(?:on |is |at )?${word}\\s*(?:no\\.?|nr\\.?|n°|number|#)?\\s*${number}\\b[)\\]]?`,
      'gim',
    ),
    leg: 2,
    name: 1,
  },
  {
    pattern: new RegExp(`^[^\\S\\n]*(?:[-–—*•·#]+ +)?${number}[.):]?\\s*[–—-]?\\s*(${name})(?![a-z])`, 'gm'),
    leg: 1,
    name: 2,
  },
  {
    pattern: new RegExp(
      `(?:^[^\\S\\n]*(?:[-–—*•·#]+ +)?|(?<=[,;] ?))(${ported})\\s*[([]\\s*#?${number}\\s*[)\\]]`,
      'gm',
    ),
    leg: 2,
    name: 1,
  },
]

/** In running text a few small words stand between the number and the name: pin 4 is connected to VSS. */
const inProse = {
  pattern: new RegExp(
    `(?:^|(?<=[.;,(] ?)|(?<=\\b[Oo]n |\\b[Aa]t |\\b[Tt]o |[Ff]rom ))${word
      .slice(3, -1)
      .split('|')
      .filter((w) => /^\w+\??$/.test(w))
      .map((w) => `[${w[0]!.toUpperCase()}${w[0]!}]${w.slice(1)}`)
      .join('|')
      .replace(/^/, '(?:')
      .replace(/$/, ')')}\\s+${number}\\b[,:]?\\s+(?:\\(?\\p{Ll}+,?\\s+){0,4}\\(?(${name})(?![a-z])`,
    'gmu',
  ),
  leg: 1,
  name: 2,
}

interface Begun {
  leg: Span
  name: Span
  at: number
  end: number
}
const begun = (text: string, { pattern, leg, name: named }: (typeof beginnings)[number]): Begun[] => {
  const found: Begun[] = []
  pattern.lastIndex = 0
  for (const p of text.matchAll(pattern)) {
    const [number, called] = [p[leg]!, p[named]!]
    const inside = (piece: string, from: number) => {
      const at = p[0].indexOf(piece, from)
      return { from: p.index + at, to: p.index + at + piece.length }
    }
    const first = leg < named ? inside(number, 0) : inside(called, 0)
    const second =
      leg < named
        ? inside(called, first.to - p.index)
        : { from: p.index + p[0].lastIndexOf(number), to: p.index + p[0].lastIndexOf(number) + number.length }
    const [legSpan, nameSpan] = leg < named ? [first, second] : [second, first]
    found.push({ leg: legSpan, name: nameSpan, at: p.index, end: p.index + p[0].length })
  }
  return found
}
/** How many legs come once each, of 1 to the highest. */
const counted = (m: Mapped, all: Begun[]): number => {
  const numbers = all.map((b) => Number(m.text.slice(b.leg.from, b.leg.to)))
  const highest = numbers.reduce((a, b) => Math.max(a, b), 1)
  return (new Set(numbers).size / Math.max(highest, numbers.length)) * Math.min(1, numbers.length / 4)
}

const candidate = /[~/!]?[A-Za-z][A-Za-z0-9]*(?:[_.:][A-Za-z0-9+-]+|[A-Za-z0-9])*[+-]?/g
const functionsIn = (m: Mapped, from: number, to: number, prose: boolean): Span[] =>
  joined(m, namesIn(m, from, to, prose))
/** `UART1 TX`: a unit and its signal, a space between them, are one function. */
const joined = ({ text }: Mapped, spans: Span[]): Span[] =>
  spans.reduce<Span[]>((all, span) => {
    const last = all[all.length - 1]
    const together =
      last !== undefined &&
      text.slice(last.to, span.from) === ' ' &&
      /^[A-Z][A-Z0-9]*\d$/.test(text.slice(last.from, last.to)) &&
      /^[A-Z]{2,4}\d{0,2}N?$/.test(text.slice(span.from, span.to))
    return together ? [...all.slice(0, -1), { from: last.from, to: span.to }] : [...all, span]
  }, [])
/** Names of functions in running words: what has a known form, or capitals with a digit or underscore. */
const namesIn = (m: Mapped, from: number, to: number, prose: boolean): Span[] =>
  [...m.text.slice(from, to).matchAll(candidate)].flatMap((t) => {
    const text = t[0].replace(/[.:]$/, '')
    if (!/^[~/!]?[A-Z0-9]+(?:[A-Z0-9_.:+-]*)$/.test(text) || text.length < 2) return []
    const read = readToken(text)
    const known = read && 'function' in read && read.function.kind !== undefined
    return known || /[\d_]/.test(text) || !prose
      ? [{ from: from + t.index, to: from + t.index + text.length }]
      : []
  })

/** Undefined where no way to begin a leg leads to legs that count. */
export const fromMentions = (m: Mapped): Mapped | undefined => {
  const ways = [...beginnings, inProse]
    .map((b) => begun(m.text, b))
    .map((all) => ({ all, share: counted(m, all) }))
  const best = ways.reduce((a, b) => (b.share > a.share + 0.02 ? b : a))
  if (best.all.length < 4 || best.share < 0.5) return undefined
  const first = best.all[0]!
  const words = m.text.slice(first.at).match(/\b[a-zà-ÿ]{3,}\b/g)?.length ?? 0
  const prose = words > best.all.length
  const rows = best.all.map((b, i): Written[] => {
    const end = best.all[i + 1]?.at ?? m.text.length
    // A heading or note behind the last leg’s part is not its own: an empty line ends it.
    const gap = m.text.slice(b.end, end).search(/\n\s*\n/)
    const until = i === best.all.length - 1 && gap >= 0 ? b.end + gap : end
    return [[b.leg], [tight(m, b.name)], functionsIn(m, b.end, until, prose)]
  })
  return rowsWritten(m, [['Pin', 'Name', 'Functions'], ...rows])
}
