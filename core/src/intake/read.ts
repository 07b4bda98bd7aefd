// A pasted table of legs, read: the text is cleaned, read in every way it may be laid out, and the way that explains most
// of it is taken. Pure: text and answers in, everything understood out.

import { type Account, Classes, tokenClasses } from './account'
import { questionsOf } from './ask'
import { cleanText, type Mapped, placesBack, plainly, withoutBalls } from './clean'
import { gridOf } from './grid'
import { aroundOf, doubtsOf } from './doubt'
import { classesOf } from './explained'
import { type Answers, inOrderOfValue, type Question } from './questions'
import { type Reading, readingsOf } from './readings'
import { type GridRead, readGrid, type TableOptions } from './table'
import type { ReadingScore, Understood } from './understood'

interface Tried {
  reading: Reading
  grid: GridRead
  account: Account
  score: number
}

const weights: Record<(typeof tokenClasses)[number], number> = {
  space: 0,
  leg: 1,
  name: 1,
  type: 1,
  function: 1,
  number: 1,
  mark: 1,
  note: 0.9,
  heading: 0.9,
  furniture: 0.6,
  words: 0.6,
  open: 0,
}
/** How much of the text a reading explains, and whether its legs count 1 … n once each: 0 to 1. */
const scoreOf = (
  { read, numbered }: GridRead,
  account: Account,
  board: boolean,
  reading: Reading,
): number => {
  const { counts } = account
  const all = tokenClasses.reduce((n, c) => (c === 'space' ? n : n + counts[c]), 0)
  const explained = tokenClasses.reduce((n, c) => n + counts[c] * weights[c], 0) / Math.max(1, all)
  const times = new Map<number, number>()
  for (const leg of read.legs) for (const n of leg.legs) times.set(n, (times.get(n) ?? 0) + 1)
  const once = [...times.values()].filter((n) => n === 1).length
  const count = Math.max(read.total, times.size, 3)
  const names = new Map<string, number>()
  for (const l of read.legs) if (l.type === 'io') names.set(l.id, (names.get(l.id) ?? 0) + 1)
  const io = read.legs.filter((l) => l.type === 'io').length
  const unique = io === 0 ? 1 : [...names.values()].filter((n) => n === 1).length / io
  // An excerpt has few of its chip’s legs; a leg named twice is worse.
  const legs = board
    ? read.legs.length > 2
      ? 1
      : 0.3
    : (once / Math.max(1, times.size)) * (0.6 + (0.4 * times.size) / count) * Math.min(1, times.size / 3)
  // Columns that a heading counts say more than the same words in a line.
  const selects = read.columns.some((c) => c.role === 'select') ? 0.05 : 0
  return (
    explained * (0.25 + 0.75 * legs) * (0.5 + 0.5 * unique) * (numbered || board ? 1 : 0.7) +
    selects +
    reading.bonus
  )
}

/** What a reading comes to, to tell readings that differ. */
const likeness = ({ read }: GridRead): string =>
  read.legs
    .map(
      (l) => `${l.id} ${l.legs.join()} ${l.functions.map((f) => `${f.unit}.${f.signal}@${f.select}`).join()}`,
    )
    .sort()
    .join('\n')

/** A long text’s layout shows in its beginning; one of a chip of 144 legs, each of 16 cells in a line of its own, is none. */
const longFrom = 3000
const sample = 250

/** What answers say of single lines and words: `row:12:REMARK` is no leg, `word:XY` is nothing. */
const saidOf = (answers: Answers) => {
  const nothing = Object.entries(answers).flatMap(([id, answer]) => (answer === 'nothing' ? [id] : []))
  return {
    rows: nothing.flatMap((id) => {
      const row = /^row:(\d+):(.*)$/.exec(id)
      return row ? [{ line: Number(row[1]), name: row[2]! }] : []
    }),
    words: new Set(nothing.flatMap((id) => (id.startsWith('word:') ? [id.slice(5)] : []))),
  }
}
/** The lines, as a reader wrote them, that are to be left out. */
const linesLeft = (
  reading: Reading,
  pasted: string,
  rows: ReturnType<typeof saidOf>['rows'],
): Set<number> => {
  if (rows.length === 0) return new Set()
  const back = placesBack(reading.mapped, pasted)
  return new Set(
    reading.mapped.text.split('\n').flatMap((text, i) => {
      const { line } = back({ line: i + 1, from: 0, to: Math.max(1, text.length) })
      return rows.some((r) => r.line === line && text.toUpperCase().includes(r.name)) ? [i + 1] : []
    }),
  )
}

const tried = (reading: Reading, pasted: string, options: TableOptions): Tried => {
  const { rows, words } = saidOf(options.answers ?? {})
  const grid = readGrid(
    gridOf(reading.mapped.text, reading.separator),
    options,
    linesLeft(reading, pasted, rows),
  )
  const classes = new Classes(reading.mapped.text)
  classesOf(grid, classes)
  const account = classes.account(reading.mapped, pasted, reading.rest, words)
  return { reading, grid, account, score: scoreOf(grid, account, options.board ?? false, reading) }
}

const byBalls = {
  path: 'legs',
  message: 'are balls under the package (A1 …); here they are counted from 1 on in the order of the rows',
}

/** Reads pasted text as a table of legs (or, for a board, of header positions). Never throws. */
export const readTable = (pasted: string, options: TableOptions = {}): Understood => {
  const { answers = {} } = options
  const counted = options.board ? undefined : withoutBalls(plainly(cleanText(pasted)))
  const written = (text: string): Mapped => {
    const plain = plainly(cleanText(text))
    return (counted && withoutBalls(plain)) ?? plain
  }
  const clean = written(pasted)
  const wanted = answers.reading ?? options.separator
  const lines = pasted.split('\n')
  const long = lines.length > longFrom
  const part = long ? lines.slice(0, sample).join('\n') : pasted
  const ways = readingsOf(long ? written(part) : clean)
  // The answer that chose among readings leaves them to be chosen from again.
  const ranked = ways
    .map((r, i) => {
      const one = tried(r, part, options)
      return { ...one, score: one.score - i * 0.001 }
    })
    .sort((a, b) => b.score - a.score)
  const told = ranked.find((t) => t.reading.id === wanted) ?? ranked[0]!
  const { id } = told.reading
  const taken = long
    ? tried(readingsOf(clean, id).find((r) => r.id === id) ?? told.reading, pasted, options)
    : told
  const scored = (t: Tried): ReadingScore => ({
    id: t.reading.id,
    words: t.reading.words,
    score: Math.max(0, t.score),
    legs: long ? undefined : t.grid.read.legs.length,
  })
  const mine = likeness(told.grid)
  const understood = settled(taken, pasted, options, {
    readings: ranked.map(scored),
    others: ranked
      .filter((t) => t.grid.read.legs.length > 2 && t !== told && likeness(t.grid) !== mine)
      .map(scored),
  })
  return counted ? { ...understood, faults: [...understood.faults, byBalls] } : understood
}

/** Places as they are in what was pasted, and what is left to ask. `others` come to something else than what is taken. */
const settled = (
  { reading, grid, account }: Tried,
  pasted: string,
  { answers = {}, board = false }: TableOptions,
  { readings, others }: { readings: ReadingScore[]; others: ReadingScore[] },
): Understood => {
  const { read, layout, numbered, chosen, families } = grid
  const back = placesBack(reading.mapped, pasted)
  const moved = reading.mapped.text !== pasted
  // What is asked of a column stands where the reader put it; the rest is told by what was pasted.
  const there = (q: Question): Question =>
    moved && q.id.startsWith('column:') ? { ...q, places: q.places.map(back) } : q
  if (moved)
    for (const leg of read.legs) {
      leg.places = leg.places.map(back)
      for (const f of leg.functions) f.place = back(f.place)
    }
  // In which lines each leg stands.
  const lineOf = (n: number) => (moved ? back({ line: n, from: 0, to: 1 }).line : n)
  const together = new Map<number, Set<number>>()
  for (const row of layout.rows) {
    const lines = new Set(row.lines.map(lineOf))
    for (const n of lines) together.set(n, new Set([...(together.get(n) ?? []), ...lines]))
  }
  const around = aroundOf(read.legs, account.open)
  for (const leg of read.legs) {
    const lines = new Set(leg.places.flatMap((p) => [...(together.get(p.line) ?? [p.line])]))
    const unsure = [...(leg.unsure ?? []), ...doubtsOf(leg, around, lines)]
    if (unsure.length > 0) leg.unsure = unsure
  }
  const used = Object.keys(answers).filter((id) => {
    const of = id.slice(5)
    return id.startsWith('kind:') ? families.has(of) : id.startsWith('word:') && pasted.includes(of)
  })
  const taken = readings.find((r) => r.id === reading.id)
  const questions = questionsOf({ ...read, account, readings, used }, layout, {
    board,
    numbered,
    chosen,
    answers,
    close: taken ? [taken, ...others.filter((r) => r.score > taken.score - 0.06)] : [],
  })
  return {
    ...read,
    kinds: moved ? kindsBack(read.kinds, reading, pasted, back) : read.kinds,
    account,
    readings: taken ? [taken, ...readings.filter((r) => r !== taken)] : readings,
    used,
    questions: inOrderOfValue(questions.map(there), answers),
  }
}
const kindsBack = (
  kinds: Understood['kinds'],
  reading: Reading,
  pasted: string,
  back: ReturnType<typeof placesBack>,
): Understood['kinds'] => {
  const lines = reading.mapped.text.split('\n')
  const out: Understood['kinds'] = {}
  for (const [line, kind] of Object.entries(kinds)) {
    const n = Number(line)
    const first = back({ line: n, from: 0, to: 1 }).line
    const last = back({ line: n, from: 0, to: Math.max(1, lines[n - 1]?.length ?? 1) }).line
    for (let i = first; i <= Math.max(first, last); i++)
      if (out[i] === undefined || kind === 'leg') out[i] = kind
  }
  return out
}
