// Pasted tables of limits, read into facts: what the row is about, its numbers with their unit, and what sort of
// statement the sheet makes. An absolute maximum stays one, whatever its row is called.

import { cleanText, type Mapped, placesBack, plainly } from '../clean'
import { type Cell, gridOf, type Row, type Separator, separatorOf } from '../grid'
import type { Place } from '../layout'
import { type Answers, inOrderOfValue, type Question } from '../questions'
import { fromWeb } from '../rewrite'
import { pageLine } from '../words'
import { chipTargets } from './chip'
import { deviceTargets } from './device'
import { regulatorTargets } from './regulator'
import { inEnglish } from './languages'
import { bare, byHeads, hasQuantity, type Heads, headsOf, placeOf, sectionOf, sentencesOf } from './rows'
import type { FoundFact, LimitRow, Reading, Section, Target, UnderstoodLimits } from './values'

const keyOf = (text: string) => text.toLowerCase().replace(/\s+/g, ' ').trim().slice(0, 60)
/** Kinds of parts whose tables of limits are read. */
export type LimitsOf = 'chip' | 'regulator' | 'device'
const targetsOf: Record<LimitsOf, readonly Target[]> = {
  chip: chipTargets,
  regulator: regulatorTargets,
  device: deviceTargets,
}
const targetOf = (
  r: Reading,
  answers: Answers,
  targets: readonly Target[],
): Target | 'nothing' | undefined => {
  const told = answers[`limit:${keyOf(r.text)}`]
  if (told === 'nothing') return 'nothing'
  const words = inEnglish(r.text)
  const bySection = (t: Target) => !t.section || t.section.includes(r.section)
  return (
    targets.find((t) => t.id === told) ??
    targets.find((t) => bySection(t) && t.pattern.test(words) && !t.not?.test(words))
  )
}

/**
 * Cells with numbers of a row that became a fact, of which nothing became: a corner is used where the fact is another one
 * without it.
 */
const unused = (row: Row, heads: Heads | undefined, reading: Reading, target: Target): Cell[] => {
  const fact = JSON.stringify(target.read?.(reading))
  const idle = (['min', 'typ', 'max'] as const).filter((corner) => {
    if (reading.numbers[corner] === undefined) return false
    const others = { ...reading.numbers, [corner]: undefined }
    return JSON.stringify(target.read?.({ ...reading, numbers: others })) === fact
  })
  const known = new Set(heads ? Object.values(heads).filter((v): v is number => typeof v === 'number') : [])
  const notCompared = heads ? byHeads(row, heads, { text: '', unit: reading.unit }).notCompared : []
  const names = heads?.text ?? row.cells.findIndex((_, i) => !known.has(i))
  return row.cells.filter((cell, i) => {
    if (!heads) return idle.some((c) => reading.numbers[c] === cell.text)
    if (notCompared.includes(i)) return true
    // What stands at another condition was compared with it.
    if (heads.further?.some((f) => f.column === i && f.corner !== 'typ')) return false
    const corner = (['min', 'typ', 'max'] as const).find((c) => heads[c] === i)
    if (corner === undefined) return !known.has(i) && i !== names
    // A range gives its least and its greatest, whichever column it stands in.
    return reading.numbers[corner] === undefined ? idle.length > 0 : idle.includes(corner)
  })
}

/** Of several rows about one fact the last is taken: the others say so. */
const withLater = (facts: FoundFact[]): FoundFact[] =>
  facts.map((fact, i) => {
    const later = facts.slice(i + 1).find((f) => f.path === fact.path)
    return later === undefined || fact.path.endsWith('[]') || same(later.value, fact.value)
      ? fact
      : { ...fact, later: later.line }
  })
const same = (a: unknown, b: unknown) =>
  JSON.stringify(a, (k, v: unknown) => (k === 'source' ? undefined : v)) ===
  JSON.stringify(b, (k, v: unknown) => (k === 'source' ? undefined : v))

const sections: readonly { id: Section; label: string }[] = [
  { id: 'other', label: 'what its sheet guarantees or measured' },
  { id: 'recommended', label: 'what it is made for' },
  { id: 'absolute', label: 'what breaks it: absolute maximums as well' },
]
/** What the rows under a title are that stands behind absolute maximums and doesn’t say. */
const askedSection = (
  { text, place }: { text: string; place: Place },
  answers: Answers,
  questions: Question[],
): Section => {
  const id = `section:${keyOf(text)}`
  const told = sections.find((s) => s.id === answers[id])?.id
  if (told === undefined)
    questions.push({
      id,
      text: `What do the rows under “${text}” say?`,
      why: 'They stand behind the absolute maximums.',
      guess: 'other',
      choices: [...sections],
      value: 3,
      places: [place],
    })
  return told ?? 'other'
}
const isTitle = (text: string) => /\b(?:ratings|conditions|characteristics)\b/i.test(inEnglish(text))

/** Ways to part a text into cells; the one that its look speaks for comes first. */
const separatorsOf = (text: string): (Separator | 'sentences')[] => {
  const usual = separatorOf(text)
  const others = (
    [
      ['tab', /\t/],
      ['semicolon', /;/],
      ['bar', /\|/],
      ['comma', /,/],
      ['columns', / {2}/],
      ['gaps', / {2}/],
    ] as const
  ).flatMap(([separator, has]) => (separator !== usual && has.test(text) ? [separator] : []))
  return [usual, ...others, 'sentences']
}
/** Tables under one another are aligned each for itself: heads begin the next. A line that has no columns is one cell. */
const rowsOf = (text: string, separator: Separator): Row[] => {
  if (separator !== 'columns') return gridOf(text, separator).rows
  const lines = text.split('\n')
  const gaps = gridOf(text, 'gaps').rows
  const starts = [0, ...gaps.flatMap((r) => (r.line > 1 && headsOf(r) ? [r.line - 1] : []))]
  return starts.flatMap((from, i) => {
    const part = lines.slice(from, starts[i + 1]).join('\n')
    return gridOf(part, separator).rows.map((row) => {
      const line = row.line + from
      const cells = row.cells.map((c) => ({ ...c, line }))
      return cells.some((c) => c.text !== '')
        ? { line, cells }
        : (gaps.find((g) => g.line === line) ?? { line, cells })
    })
  })
}
/** A line as one cell. */
const inOne = (text: string, row: Row): Row => {
  const filled = row.cells.filter((c) => c.text !== '')
  const [first, last] = [filled[0], filled[filled.length - 1]]
  if (!first || !last) return row
  const line = text.split('\n')[row.line - 1] ?? ''
  return {
    line: row.line,
    cells: [{ line: row.line, from: first.from, to: last.to, text: line.slice(first.from, last.to) }],
  }
}

/** Reads pasted limits in every way their cells may be parted. Never throws; rows that aren't understood are asked about. */
export const readLimits = (text: string, answers: Answers = {}, of: LimitsOf = 'chip'): UnderstoodLimits => {
  const clean = plainly(cleanText(text))
  const mapped = fromWeb(clean) ?? clean
  const barred = { text: mapped.text.replace(/[│┃║¦]/g, '|'), at: mapped.at }
  // What was found counts; what it leaves open, and what its look speaks for, tell two apart that find as much.
  const worth = ({ facts, beside, open, kinds }: UnderstoodLimits, i: number) =>
    facts.length +
    beside.length * 0.5 +
    // Heads say what each cell is.
    (Object.values(kinds).includes('heading') ? 1 : 0) -
    open.length * 0.001 -
    i * 0.02
  return separatorsOf(barred.text)
    .map((separator) => readParted(barred, separator, text, answers, of))
    .map((one, i) => ({ one, worth: worth(one, i) }))
    .reduce((best, next) => (next.worth > best.worth ? next : best)).one
}

const readParted = (
  mapped: Mapped,
  separator: Separator | 'sentences',
  text: string,
  answers: Answers,
  of: LimitsOf,
): UnderstoodLimits => {
  const targets = targetsOf[of]
  const back = placesBack(mapped, text)
  const parted = rowsOf(mapped.text, separator === 'sentences' ? 'words' : separator)
  const rows = (separator === 'sentences' ? parted.map((r) => inOne(mapped.text, r)) : parted).flatMap(
    sentencesOf,
  )
  const open: UnderstoodLimits['open'] = []
  const notUnderstood = (cells: readonly Cell[]) => {
    for (const c of cells)
      if (/\d/.test(c.text)) open.push({ text: c.text, line: c.line, from: c.from, to: c.to })
  }
  const kinds: UnderstoodLimits['kinds'] = {}
  const facts: FoundFact[] = []
  const questions: Question[] = []
  const beside: string[] = []
  let section: Section = 'other'
  let source: string | undefined
  let heads: Heads | undefined
  let above = { text: '', unit: '' }
  let title: { line: number; text: string; place: Place } | undefined
  for (const row of rows) {
    const whole = row.cells
      .map((c) => c.text)
      .filter((t) => t !== '')
      .join(' ')
    const say = (kind: LimitRow) => {
      // Of several sentences of a line the one that is not understood counts.
      if (kinds[row.line] !== 'unknown') kinds[row.line] = kind
    }
    if (whole === '') {
      say('blank')
      continue
    }
    const nextHeads = headsOf(row)
    if (nextHeads) {
      heads = nextHeads
      // A title that says nothing of its kind begins another table: no maximums by themselves.
      if (title && section === 'absolute') section = askedSection(title, answers, questions)
      title = undefined
      say('heading')
      continue
    }
    // A title may say at what its numbers hold; it is no row.
    const titled = isTitle(row.cells.find((c) => c.text !== '')?.text ?? '')
    const read = titled ? undefined : heads ? byHeads(row, heads, above) : bare(row)
    if (!read || Object.keys(read.numbers).length === 0) {
      const next = sectionOf(inEnglish(whole))
      const table = /\btable\s+[\w.-]+/i.exec(whole)?.[0].toLowerCase().replace(/\.$/, '')
      // Another section is another table: without its number its facts have no place, rather than the last one's.
      if (next !== undefined || table !== undefined) source = table
      // A number with a unit, or several numbers, make no title, unless it says that it is one.
      const several = (whole.match(/(?<![\w.,-])[-−±]?\d+(?:[.,]\d+)?(?![\w.,-])/g) ?? []).length > 1
      if (next === undefined && table === undefined && (several || hasQuantity(whole))) {
        say('unknown')
        notUnderstood(row.cells)
        continue
      }
      section = next ?? section
      title =
        next === undefined && table === undefined && !pageLine.test(whole)
          ? { line: row.line, text: whole, place: placeOf(row.cells, row.line) }
          : undefined
      if (heads && read) above = { text: read.text, unit: read.unit }
      say('section')
      continue
    }
    title = undefined
    const before = above
    above = { text: read.text, unit: read.unit }
    const asRead: Reading = { ...read, section, source, line: row.line, place: placeOf(row.cells, row.line) }
    const target = targetOf(asRead, answers, targets)
    const known = target && target !== 'nothing' ? target : undefined
    const reading = known?.allowed && heads ? { ...asRead, ...byHeads(row, heads, before, true) } : asRead
    const fact = known && (known.read ? known.read(reading) : 'beside')
    if (fact === 'beside') {
      beside.push(reading.text)
      say('skipped')
    } else if (fact && known) {
      facts.push({
        ...fact,
        words: fact.words ?? known.words,
        ...(reading.conditions === '' ? {} : { at: reading.conditions }),
        line: row.line,
        place: reading.place,
      })
      say('fact')
      notUnderstood(unused(row, heads, reading, known))
    } else if (target === 'nothing') say('skipped')
    else {
      say('unknown')
      notUnderstood(row.cells)
      const id = `limit:${keyOf(reading.text)}`
      if (!questions.some((q) => q.id === id))
        questions.push({
          id,
          text: `What is “${reading.text}”?`,
          why: known
            ? `It looks like the ${known.words}, but its numbers can’t be read for that.`
            : undefined,
          choices: [
            ...targets.flatMap((t) => (t.read ? [{ id: t.id, label: t.words }] : [])),
            { id: 'nothing', label: 'nothing that is asked for: leave it out' },
          ],
          guess: 'nothing',
          value: 1,
          places: [reading.place],
        })
    }
  }
  // Places are told in what was pasted.
  const there = <T extends { place: Place; line: number }>(x: T): T => ({
    ...x,
    place: back(x.place),
    line: back(x.place).line,
  })
  return {
    kinds: Object.fromEntries(
      Object.entries(kinds).map(([line, kind]) => [back({ line: Number(line), from: 0, to: 1 }).line, kind]),
    ),
    facts: withLater(facts).map(there),
    beside,
    questions: inOrderOfValue(questions, answers).map((q) => ({ ...q, places: q.places.map(back) })),
    open: open.map((o) => ({ ...o, ...back(o) })),
  }
}
