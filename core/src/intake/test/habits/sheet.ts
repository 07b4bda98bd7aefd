// How one sheet is written: its language, its spelling of empty cells, marks, hyphens and spaces, and what stands around
// its table. Chosen once for a sheet, then held to, as whoever sets a sheet does.

import type { HabitChip, HabitLeg } from './chip'
import type { Dice } from './random'
import { languages, type Words } from './words'

export interface Sheet {
  d: Dice
  chip: HabitChip
  words: Words
  /** Between two functions in one cell. */
  between: string
  empty: string
  types: Record<string, string>
  hasType: boolean
  hasAbout: boolean
  legend: boolean
  /** Written behind some names, and explained below. */
  footnotes: { mark: string; text: string }[]
  marked: Set<string>
  /** How a low-active reset shows it. */
  bar: 'none' | 'overline' | 'slash' | 'hash' | 'tilde'
  /** A letter or space that does not show, between letters or in place of a space. */
  odd: 'none' | 'nbsp' | 'narrow' | 'zero-width' | 'full-width' | 'soft-hyphen'
  title: boolean
  /** Sentences above and below. */
  intro: boolean
  /** Supply legs of one name in one row: 1, 17, 33. */
  together: boolean
  /** How leg numbers are written. */
  number: (n: number) => string
  /** A column of a few codes that says nothing about functions: 5VT, TC. */
  code: { head: string; values: string[] } | undefined
  /** Rows that part the table: Port A, Power. */
  sections: boolean
  /** Said of some functions in their cell. */
  aside: string | undefined
}

const notes = [
  '5 V tolerant',
  'This line is low after a reset of the device.',
  'Not available while the debugger is connected.',
  'Needs a pull-up resistor when used as an open drain.',
]

export const makeSheet = (d: Dice, chip: HabitChip): Sheet => {
  const language = d.chance(0.5) ? 'en' : d.one(Object.keys(languages))
  const words = languages[language]!
  const marks = d.one([
    ['(1)', '(2)'],
    ['*', '**'],
    ['¹', '²'],
    ['†', '‡'],
    ['[1]', '[2]'],
  ])
  const footnotes = d.chance(0.35)
    ? d.some(notes, 1 + d.upTo(2)).map((text, i) => ({ mark: marks[i]!, text }))
    : []
  return {
    d,
    chip,
    words,
    between: d.one([', ', ', ', ' / ', '/', '; ', ' ']),
    empty: d.one(['', '', '-', '–', '—']),
    types: Object.fromEntries(Object.entries(words.types).map(([type, ways]) => [type, d.one(ways)])),
    hasType: d.chance(0.6),
    hasAbout: d.chance(0.25),
    legend: d.chance(0.4),
    footnotes,
    marked: new Set(
      footnotes.length > 0
        ? d.some(
            chip.legs.filter((l) => l.type === 'io').map((l) => l.name),
            1 + d.upTo(4),
          )
        : [],
    ),
    bar: d.one(['none', 'none', 'overline', 'slash', 'hash', 'tilde']),
    odd: d.one(['none', 'none', 'none', 'nbsp', 'narrow', 'zero-width', 'full-width', 'soft-hyphen']),
    title: d.chance(0.5),
    intro: d.chance(0.2),
    together: d.chance(0.25),
    number: d.one([
      String,
      String,
      String,
      String,
      (n: number) => String(n).padStart(2, '0'),
      (n: number) => `${n}.`,
      (n: number) => `Pin ${n}`,
    ]),
    code: d.chance(0.25)
      ? d.one([
          { head: 'Level', values: ['FT', 'TC'] },
          { head: 'Structure', values: ['5VT', 'TT', 'HD'] },
          { head: 'Reset state', values: ['Hi-Z', 'PU'] },
          { head: 'Drive', values: ['4 mA', '8 mA'] },
          { head: 'Wake', values: ['yes', 'no'] },
        ])
      : undefined,
    sections: d.chance(0.2),
    aside: d.chance(0.15) ? d.one([' (remap)', ' (input only)', ' (default)']) : undefined,
  }
}

/** The name as the sheet shows it. */
export const shownName = (s: Sheet, leg: HabitLeg): string => {
  const barred =
    leg.reset && s.bar !== 'none' && !leg.name.startsWith('N') && !leg.name.endsWith('N')
      ? {
          overline: [...leg.name].map((c) => `${c}\u0305`).join(''),
          slash: `/${leg.name}`,
          hash: `${leg.name}#`,
          tilde: `~${leg.name}`,
        }[s.bar]
      : leg.name
  const at = s.footnotes.length
  const mark = s.marked.has(leg.name) ? s.footnotes[leg.legs[0]! % at]!.mark : ''
  return `${barred}${mark}`
}
export const shownFunctions = (s: Sheet, leg: HabitLeg): string =>
  leg.functions.length === 0
    ? s.empty
    : leg.functions
        .map(
          (f, i) =>
            `${f.text}${s.aside && i === 0 && leg.legs[0]! % 3 === 0 && s.between !== ' ' ? s.aside : ''}`,
        )
        .join(s.between)
export const shownType = (s: Sheet, leg: HabitLeg): string => s.types[leg.type] ?? ''
export const saidOf = (s: Sheet, leg: HabitLeg): string => {
  const ways = s.words.said[leg.type] ?? ['']
  return ways[leg.legs[0]! % ways.length]!
}

/** One line for each leg, in the order of their numbers. */
export const inOrder = (chip: HabitChip): { n: number; leg: HabitLeg }[] =>
  chip.legs.flatMap((leg) => leg.legs.map((n) => ({ n, leg }))).sort((a, b) => a.n - b.n)

/** Rows of a table: legs of one name together where the sheet does so. */
export const rowsOf = (s: Sheet): { n: number; numbers: string; leg: HabitLeg }[] =>
  s.together
    ? [...s.chip.legs]
        .map((leg) => ({ n: leg.legs[0]!, numbers: leg.legs.join(', '), leg }))
        .sort((a, b) => a.n - b.n)
    : inOrder(s.chip).map(({ n, leg }) => ({ n, leg, numbers: s.number(n) }))

/** Letters that a viewer puts out and nobody sees. */
export const withOddities = (s: Sheet, text: string): string => {
  switch (s.odd) {
    case 'nbsp':
      return text.replace(/(?<=\S) (?=\S)/g, '\u00a0')
    case 'narrow':
      return text.replace(/(?<=\S) (?=\S)/g, '\u202f')
    case 'zero-width':
      return text.replace(/_/g, '_\u200b')
    case 'full-width':
      return text.replace(/(?<=[A-Z])\d/g, (c) => String.fromCodePoint(c.charCodeAt(0) - 48 + 0xff10))
    case 'soft-hyphen':
      return text.replace(/(?<=[a-z]{4})(?=[a-z]{4})/g, '\u00ad')
    default:
      return text
  }
}

/** Above and below a table: what its page carries, its notes, what its letters mean. */
export const dressed = (s: Sheet, body: string[], typed: boolean): string[] => {
  const { io, input, supply, ground } = s.types
  return [
    ...(s.intro
      ? ['The following table lists every pin of the device and what it can be used for.', '']
      : []),
    ...(s.title
      ? [s.d.one(['Table 4. Pin description', `${s.chip.count}-pin package`, '3.2 Pin assignment'])]
      : []),
    ...body,
    ...(s.legend && typed
      ? [s.words.legend({ io: io!, input: input!, supply: supply!, ground: ground! })]
      : []),
    ...s.footnotes.map((f) => `${f.mark} ${f.text}`),
    ...(s.intro ? ['', 'Unused pins should be left open or tied to ground.'] : []),
  ]
}
