// The questions that a pasted table leaves open, each with what it settles and what is taken meanwhile.

import { unitKinds } from '../parts'
import { roles } from './columns'
import { type Layout, placeOf } from './layout'
import type { Answers, Question } from './questions'
import type { PackageColumn, Understood } from './understood'

const kindWords: Partial<Record<(typeof unitKinds)[number], string>> = {
  converter: 'analog-to-digital converter',
  dac: 'analog output',
  timer: 'timer or PWM',
  uart: 'UART',
  i2c: 'I2C',
  spi: 'SPI',
  can: 'CAN',
  usb: 'USB',
  interrupt: 'interrupt',
  touch: 'touch',
  wake: 'wake-up',
  comparator: 'comparator',
  oscillator: 'oscillator',
  debug: 'debug',
  programming: 'programming',
  other: 'something no need asks for',
}
const kindChoices = unitKinds.map((id) => ({ id, label: kindWords[id] ?? id }))
/** A rule in words: `ZK: no function`. */
export const ruleWords = (id: string, value: string): string => {
  const of = id.slice(id.indexOf(':') + 1)
  const none = value === 'none' || value === 'nothing'
  return `${of}: ${none ? 'no function' : (kindChoices.find((k) => k.id === value)?.label ?? value)}`
}
const roleWords: Record<(typeof roles)[number], string> = {
  legs: 'leg numbers',
  name: 'names of the legs',
  type: 'type: input, output, supply',
  functions: 'functions',
  unit: 'unit of the signals beside it',
  select: 'functions selected by a number',
  selects: 'numbers that select the function beside them',
  number: 'number used in the program',
  label: 'what is printed beside it',
  position: 'position on the header',
  rail: 'rail',
  nothing: 'words for people: leave it out',
}

interface Asked {
  board: boolean
  numbered: boolean
  chosen: PackageColumn | undefined
  answers: Answers
  /** The reading that was taken, and those nearly as good that come to something else. */
  close: Understood['readings']
}
type Read = Omit<Understood, 'questions'>

const some = (texts: string[], n = 4) => [...new Set(texts)].slice(0, n).join(', ')

const aboutPackage = (
  { packages, legs }: Read,
  layout: Layout,
  { chosen, answers, board }: Asked,
): Question[] =>
  packages.length < 2 || board
    ? []
    : [
        {
          id: 'package',
          text: `Which column has the legs of your package?`,
          why: `${packages.length} columns count legs.`,
          guess: String(chosen?.column ?? packages[0]!.column),
          choices: packages.map((p) => ({
            id: String(p.column),
            label: `${p.heading || `column ${p.column + 1}`}, up to leg ${p.legs}`,
          })),
          value: answers.package === undefined ? legs.length * 2 : 0,
          places: [],
        },
      ]

const aboutColumns = ({ columns }: Read, layout: Layout): Question[] =>
  columns
    .filter((c) => c.sure < 0.5 && c.role !== 'select')
    .map((c) => {
      const cells = layout.rows.flatMap((r) => (r.cells[c.index]?.text ? [r.cells[c.index]!] : []))
      return {
        id: `column:${c.index}`,
        text: `What is in column ${c.index + 1}${c.heading ? `, “${c.heading}”` : ''}?`,
        why: `It holds ${some(cells.map((x) => x.text))} …`,
        guess: c.role,
        choices: roles.map((id) => ({ id, label: roleWords[id] })),
        value: cells.length,
        places: cells.slice(0, 40).map(placeOf),
      }
    })

const aboutSelects = ({ columns, legs }: Read): Question[] => {
  const unsure = columns.filter((c) => c.role === 'select' && c.sure < 0.5)
  return unsure.length === 0
    ? []
    : [
        {
          id: 'select',
          text: 'Is a function selected by the number of its column?',
          why: 'Cells are left empty in between, as in a table of alternate functions, but the columns have no headings.',
          guess: 'zero',
          choices: [
            { id: 'zero', label: 'yes, counted from 0' },
            { id: 'one', label: 'yes, counted from 1' },
            { id: 'none', label: 'no' },
          ],
          value: legs.reduce((n, l) => n + l.functions.filter((f) => f.select !== undefined).length, 0),
          places: [],
        },
      ]
}

const aboutOrder = ({ legs }: Read, { numbered, board }: Asked): Question[] =>
  numbered || board || legs.length === 0
    ? []
    : [
        {
          id: 'order',
          text: 'There are no leg numbers. Are the rows in the order of the legs, from leg 1?',
          guess: 'rows',
          choices: [
            { id: 'rows', label: 'yes, one row for each leg' },
            { id: 'none', label: 'no: legs are not known yet' },
          ],
          value: legs.length,
          places: [],
        },
      ]

const aboutKinds = ({ legs, units }: Read): Question[] => {
  const families = [...new Set(units.map((u) => u.family))]
  return families.flatMap((family): Question[] => {
    const functions = legs.flatMap((l) => l.functions).filter((f) => f.family === family && f.by !== 'form')
    const [first] = functions
    if (!first || first.by === 'answer') return []
    return [
      {
        id: `kind:${family}`,
        text: `What is ${family}?`,
        why: `${functions.length === 1 ? 'One leg has' : `${functions.length} functions:`} ${some(functions.map((f) => f.text))}${functions.length > 4 ? ' …' : ''}`,
        guess: first.kind,
        choices: [...kindChoices, { id: 'none', label: 'no function: leave it out' }],
        // Where its signals tell already, the answer would rarely be another one.
        value: functions.length * (first.by === 'signals' ? 0.2 : 1),
        places: functions.map((f) => f.place),
      },
    ]
  })
}

const aboutLegs = ({ legs, total }: Read, { board, answers }: Asked): Question[] => {
  if (board) return []
  const at = new Map<number, Read['legs']>()
  for (const l of legs) for (const n of l.legs) at.set(n, [...(at.get(n) ?? []), l])
  const twiceNamed = [...at].filter(([, all]) => all.length > 1)
  const missing = Array.from({ length: Math.min(total, 400) }, (_, i) => i + 1).filter((n) => !at.has(n))
  const twice = new Map<string, Read['legs']>()
  for (const l of legs)
    if (l.type === 'io' || l.type === 'input' || l.type === 'output')
      twice.set(l.id, [...(twice.get(l.id) ?? []), l])
  return [
    ...twiceNamed.map(([n, all]): Question => ({
      id: `leg:${n}`,
      text: `Leg ${n} is named ${all.map((l) => l.id).join(' and ')}. Which is right?`,
      guess: all[0]!.id,
      choices: all.map((l) => ({ id: l.id, label: l.id })),
      value: 2,
      places: all.flatMap((l) => l.places),
    })),
    ...missing.map((n): Question => ({
      id: `missing:${n}`,
      text: `Leg ${n} has no row. What is it?`,
      guess: 'NC',
      choices: [{ id: 'NC', label: 'not connected' }],
      free: 'its name',
      value: 1,
      places: [],
    })),
    ...[...twice].flatMap(([id, all]): Question[] => {
      const places = all.flatMap((l) => l.legs)
      return places.length < 2 || answers[`twice:${id}`]
        ? []
        : [
            {
              id: `twice:${id}`,
              text: `${id} is on legs ${places.join(' and ')}. Which is right?`,
              guess: 'all',
              choices: [
                { id: 'all', label: 'all of them, joined inside' },
                ...places.map((n) => ({ id: String(n), label: `leg ${n} only` })),
              ],
              value: 2,
              places: all.flatMap((l) => l.places),
            },
          ]
    }),
  ]
}

/** Two ways to read the text that explain it nearly as well, and come to different legs. */
const aboutReading = ({ legs }: Read, { close, answers, board }: Asked): Question[] =>
  board || answers.reading !== undefined || close.length < 2
    ? []
    : [
        {
          id: 'reading',
          text: 'How is the text laid out?',
          why: 'It can be read in more than one way, and they come to different legs.',
          guess: close[0]!.id,
          choices: close.map((r) => ({
            id: r.id,
            label: r.legs === undefined ? r.words : `${r.words}: ${r.legs} names`,
          })),
          value: legs.length * 1.5,
          places: [],
        },
      ]

/** Words that nothing explains, the same word once. */
const aboutWords = ({ account, legs }: Read, { board }: Asked): Question[] => {
  if (board) return []
  const words = new Map<string, Read['account']['open']>()
  for (const o of account.open)
    if (/^[A-Z][A-Z0-9_.]+$/.test(o.text)) words.set(o.text, [...(words.get(o.text) ?? []), o])
  const lines = new Set(legs.flatMap((l) => l.places.map((p) => p.line)))
  return [...words]
    .filter(([, at]) => at.some((o) => lines.has(o.line)))
    .slice(0, 40)
    .map(([word, at]): Question => ({
      id: `word:${word}`,
      text: `${word} is not understood. What is it?`,
      why: at.length > 1 ? `It stands at ${at.length} places.` : undefined,
      guess: 'nothing',
      choices: [{ id: 'nothing', label: 'no function: leave it out' }, ...kindChoices],
      value: at.length * 0.5,
      places: at.map(({ line, from, to }) => ({ line, from, to })),
    }))
}

/** Rows in which nothing was recognised as a leg, though they stand among legs. */
const aboutRows = ({ legs }: Read, { board }: Asked): Question[] =>
  board
    ? []
    : legs
        .filter(
          (l) =>
            (l.unsure ?? []).length > 0 && !/\d/.test(l.id) && l.type === 'io' && l.functions.length === 0,
        )
        .flatMap((l): Question[] => {
          const [place] = l.places
          return place
            ? [
                {
                  id: `row:${place.line}:${l.id}`,
                  text: `Is line ${place.line}, ${l.id}, a leg?`,
                  why: `${l.unsure![0]!}.`,
                  guess: 'leg',
                  choices: [
                    { id: 'leg', label: 'yes, a leg' },
                    { id: 'nothing', label: 'no: leave the line out' },
                  ],
                  value: 1,
                  places: [place],
                },
              ]
            : []
        })

export const questionsOf = (read: Read, layout: Layout, asked: Asked): Question[] => [
  ...aboutReading(read, asked),
  ...aboutPackage(read, layout, asked),
  ...aboutColumns(read, layout),
  ...aboutSelects(read),
  ...aboutOrder(read, asked),
  ...aboutKinds(read),
  ...aboutLegs(read, asked),
  ...aboutWords(read, asked),
  ...aboutRows(read, asked),
]
