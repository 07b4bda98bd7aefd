// Tables of web pages and of text processors’ notations: what is a tag, an entity or a rule goes, cells stay.

import { type Mapped, Writer } from '../clean'
import { withRowspans } from './rowspans'

const entities: Record<string, string> = {
  nbsp: ' ',
  ensp: ' ',
  emsp: ' ',
  thinsp: ' ',
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  micro: 'µ',
  mu: 'µ',
  Omega: 'Ω',
  ohm: 'Ω',
  deg: '°',
  ndash: '–',
  mdash: '—',
  minus: '-',
  plusmn: '±',
  times: '×',
  middot: '·',
  bull: '•',
  le: '≤',
  ge: '≥',
  sup1: '¹',
  sup2: '²',
  sup3: '³',
  dagger: '†',
  Dagger: '‡',
  shy: '',
  zwnj: '',
  hellip: '…',
}
const entity = (name: string): string | undefined => {
  const number = /^#(?:x([\da-f]+)|(\d+))$/i.exec(name)
  if (!number) return entities[name]
  const code = number[1] === undefined ? Number(number[2]) : parseInt(number[1], 16)
  return code > 31 && code < 0x10ffff ? String.fromCodePoint(code) : ''
}

const row = /^(?:tr|row)$/i
const cell = /^(?:td|th|entry)$/i
const ends = /^(?:table|thead|tbody|tfoot|p|div|h\d|caption|li|ul|ol)$/i

/** HTML: undefined where there is no table in it. */
export const fromWeb = (page: Mapped): Mapped | undefined => {
  const m = withRowspans(page)
  const { text } = m
  if (!/<(?:tr|row)\b/i.test(text) || !/<(?:td|th|entry)\b/i.test(text)) return undefined
  const out = new Writer()
  let inCell = false
  let first = true
  let last = '\n'
  // Cells that a wide one takes besides its own.
  let pending = 0
  const put = (c: string, at: number) => {
    if (c === '') return
    out.put(c, at)
    last = c[c.length - 1]!
  }
  const lineEnd = (at: number) => {
    if (last !== '\n') put('\n', at)
  }
  const pieces =
    /<!--[\s\S]*?-->|<(\/?)([a-z][a-z0-9]*)((?:"[^"]*"|'[^']*'|[^>"'])*)>|&(#?\w{1,10});|[\s\S]/gi
  for (const p of text.matchAll(pieces)) {
    const at = m.at[p.index]!
    const [whole, closing, tag, attributes, named] = p
    if (tag !== undefined) {
      if (row.test(tag)) {
        lineEnd(at)
        first = true
        inCell = false
      } else if (cell.test(tag)) {
        inCell = closing === ''
        if (inCell) {
          if (!first) put('\t', at)
          first = false
          const span = Number(/colspan\s*=\s*["']?(\d{1,2})/i.exec(attributes ?? '')?.[1] ?? 1)
          if (span > 1) pending = span - 1
        } else {
          for (; pending > 0; pending--) put('\t', at)
        }
      } else if (/^sup$/i.test(tag)) put(closing ? ')' : '(', at)
      else if (/^br$/i.test(tag)) put(/[_/]/.test(last) ? '' : ' ', at)
      else if (ends.test(tag) && !inCell) lineEnd(at)
    } else if (named !== undefined) put(entity(named) ?? whole, at)
    else if (/\s/.test(whole)) {
      if (inCell ? !/\s/.test(last) : !/\s/.test(last) && whole !== '\n') put(' ', at)
      else if (!inCell && whole === '\n') lineEnd(at)
    } else if (!whole.startsWith('<!--')) put(whole, at)
  }
  return out.done(m.at[text.length]!)
}

/** The words of a web page without a table, a line for each item or paragraph; undefined where there are no tags. */
export const withoutTags = (m: Mapped): Mapped | undefined => {
  const tags = m.text.match(/<\/?[a-z][a-z0-9]*(?:\s[^<>]*)?>/gi)?.length ?? 0
  if (
    tags < 6 ||
    /<(?:tr|row|pin)\b/i.test(m.text) ||
    !/<(?:li|p|div|br|dt|dd|pre|span|b|h\d)\b/i.test(m.text)
  )
    return undefined
  const out = new Writer()
  for (const p of m.text.matchAll(
    /<!--[\s\S]*?-->|<(\/?)([a-z][a-z0-9]*)(?:"[^"]*"|'[^']*'|[^>"'])*>|&(#?\w{1,10});|[\s\S]/gi,
  )) {
    const at = m.at[p.index]!
    const [whole, , tag, named] = p
    if (tag !== undefined) {
      if (/^(?:li|p|div|br|dt|h\d|ul|ol|dl)$/i.test(tag)) out.put('\n', at)
    } else if (named !== undefined) out.put(entity(named) ?? whole, at)
    else if (!whole.startsWith('<!--')) out.put(whole, at)
  }
  return out.done(m.at[m.text.length]!)
}

/** Rows as typesetters write them, `a & b \\\\`, or as wikis do, `| a || b`. */
export const fromMarkup = (m: Mapped): Mapped | undefined => {
  const lines = m.text.split('\n').filter((l) => l.trim() !== '')
  const share = (p: RegExp) => lines.filter((l) => p.test(l)).length / Math.max(1, lines.length)
  const typeset = share(/[^&]&[^&].*\\\\\s*(?:\\[a-z]+)?\s*$/) >= 0.5
  const wiki = share(/^[|!].*(?:\|\||!!)/) >= 0.3
  if (!typeset && !wiki) return undefined
  const out = new Writer()
  const pattern = typeset
    ? /(\\[&_#%$])|(\\\\(?:\s*\\[a-z]+)*)|(&)|\\(?:text\w*|emph|overline|mathrm)\{([^{}]*)\}|[\s\S]/g
    : /(?:^)(\|-.*|\{\|.*|\|\}.*)$|^([|!])|(\|\||!!)|[\s\S]/gm
  for (const p of m.text.matchAll(pattern)) {
    const at = m.at[p.index]!
    if (typeset) {
      if (p[1]) out.put(p[1].slice(1), at)
      else if (p[2]) continue
      else if (p[3]) out.put('\t', at)
      else if (p[4] !== undefined) {
        const start = p.index + p[0].indexOf('{') + 1
        out.copy(m, start, start + p[4].length)
      } else out.copy(m, p.index, p.index + p[0].length)
    } else if (p[1]) continue
    else if (p[2]) continue
    else if (p[3]) out.put('\t', at)
    else out.copy(m, p.index, p.index + p[0].length)
  }
  return out.done(m.at[m.text.length]!)
}
