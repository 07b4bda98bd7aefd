// Pasted tables of limits, read into facts: what the row is about, its numbers with their unit, and what sort of
// statement the sheet makes. An absolute maximum stays one, whatever its row is called.

import { parseQuantity, QuantityError, type Unit } from '../quantity'
import type { LimitKind } from '../parts'
import { cleanText, placesBack } from './clean'
import { type Cell, gridOf, type Row } from './grid'
import type { Place } from './layout'
import { type Answers, inOrderOfValue, type Question } from './questions'
import { fromWeb } from './rewrite'

type Json = Record<string, unknown>
export interface FoundFact {
  /** Where it goes in a chip's file: `supply.recommended`, or `modes[]` for one more entry of a list. */
  path: string
  value: unknown
  words: string
  line: number
  place: Place
}
export type LimitRow = 'blank' | 'heading' | 'section' | 'fact' | 'unknown' | 'skipped'
export interface UnderstoodLimits {
  kinds: Record<number, LimitRow>
  facts: FoundFact[]
  questions: Question[]
  /** Numbers in rows that became facts, of which nothing became; and those of rows that are not understood. */
  open: (Place & { text: string })[]
}

interface Numbers {
  min?: string
  typ?: string
  max?: string
}
interface Reading {
  text: string
  conditions: string
  numbers: Numbers
  unit: string
  section: Section
  source?: string
  line: number
  place: Place
}
type Section = 'absolute' | 'recommended' | 'other'

interface Target {
  id: string
  words: string
  /** What its row is called; `not` guards against neighbours. */
  pattern: RegExp
  not?: RegExp
  section?: Section[]
  /** Undefined where the numbers can't be read for it. */
  read: (r: Reading) => { path: string; value: unknown } | undefined
}

const minus = (text: string) => text.replace(/[−–‒]/g, '-').replace(/^±/, '')
const cleanUnit = (unit: string) =>
  unit
    .trim()
    .replace(/^deg\.?\s*C$|^º?C$|^℃$/i, '°C')
    .replace(/℃/, '°C')

/** A number of a cell in SI: with its own unit, or the row's. */
const valueOf = (text: string | undefined, unit: string, wanted: Unit): number | undefined => {
  if (text === undefined) return undefined
  const plain = minus(text).replace(/\s+/g, ' ').trim()
  if (!/^[-+]?[\d.,]/.test(plain)) return undefined
  for (const candidate of [plain, `${plain} ${cleanUnit(unit)}`]) {
    try {
      const own = /[A-Za-zΩµμ°]/.test(candidate)
      if (own || unit === '') return parseQuantity(candidate, wanted)
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error
    }
  }
  return undefined
}

const ratedFrom = (r: Reading, wanted: Unit, kind: LimitKind): Json | undefined => {
  const value: Json = {}
  for (const corner of ['min', 'typ', 'max'] as const) {
    const v = valueOf(r.numbers[corner], r.unit, wanted)
    if (v !== undefined) value[corner] = v
  }
  if (Object.keys(value).length === 0) return undefined
  return {
    ...value,
    kind,
    ...(r.conditions ? { at: r.conditions } : {}),
    ...(r.source ? { source: r.source } : {}),
  }
}
const plainRated =
  (path: string, unit: Unit, kind: LimitKind = 'guaranteed') =>
  (r: Reading) => {
    const value = ratedFrom(r, unit, r.section === 'absolute' ? 'absolute' : kind)
    return value && { path, value }
  }
/** A current's sign only says which way it flows. */
const unsigned = (rated: Json | undefined): Json | undefined => {
  if (!rated) return undefined
  const values = (['min', 'typ', 'max'] as const).flatMap((c) =>
    typeof rated[c] === 'number' ? [Math.abs(rated[c])] : [],
  )
  const { min, typ, max, ...rest } = rated
  return [min, typ, max].some((v) => typeof v === 'number' && v < 0) || max === undefined
    ? { ...rest, max: Math.max(...values) }
    : rated
}
const limit = (path: string, absolute: string) => (r: Reading) => {
  const is = r.section === 'absolute'
  const value = unsigned(ratedFrom(r, 'A', is ? 'absolute' : 'recommended'))
  return value && { path: is ? absolute : path, value }
}

const rail = 'V[_ ]?(?:DD|CC|IN|S)(?:IO)?'
/** `0.7 × VDD`, `0.2VDD+0.9`, `VDD − 0.4`, or plain volts, as a share of the supply plus a fixed part. */
export const shareOfSupply = (text: string): { factor: number; offset: number } | undefined => {
  const plain = minus(text).replace(/\s+/g, '').replace(/,/g, '.')
  const match = new RegExp(`^(?:(\\d*\\.?\\d+)[*×x·]?)?${rail}(?:([+-]\\d*\\.?\\d+)V?)?$`, 'i').exec(plain)
  if (match) return { factor: match[1] === undefined ? 1 : Number(match[1]), offset: Number(match[2] ?? 0) }
  const volts = /^(-?\d*\.?\d+)V?$/i.exec(plain)
  return volts ? { factor: 0, offset: Number(volts[1]) } : undefined
}
const threshold = (path: string, corner: 'min' | 'max') => (r: Reading) => {
  const text = r.numbers[corner] ?? r.numbers.typ
  const share = text === undefined ? undefined : shareOfSupply(text)
  return share && { path, value: { ...share, ...(r.source ? { source: r.source } : {}) } }
}
const currentIn = (text: string): number | undefined => {
  const match = /I\w*\s*=\s*[-−–+±]?\s*([\d.,]+\s*[mµu]?A)/i.exec(text)
  return match ? valueOf(match[1], '', 'A') : undefined
}
const drop = (path: string, side: 'high' | 'low') => (r: Reading) => {
  const current = currentIn(`${r.conditions} ${r.text}`)
  const share = shareOfSupply((side === 'high' ? r.numbers.min : r.numbers.max) ?? r.numbers.typ ?? '')
  if (current === undefined || !share) return undefined
  const max = side === 'low' ? share.offset : share.factor === 1 ? -share.offset : undefined
  return max === undefined || max < 0
    ? undefined
    : {
        path: `${path}[]`,
        value: { current, drop: { max, kind: 'guaranteed', ...(r.source ? { source: r.source } : {}) } },
      }
}
const wordId = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40) || 'mode'
const mode = (kind: 'active' | 'idle' | 'sleep') => (r: Reading) => {
  const current = ratedFrom(r, 'A', 'guaranteed')
  const name = r.text
    .replace(/\b(?:supply|current|consumption|I[_ ]?(?:DD|CC)\w*)\b/gi, '')
    .replace(/[\s,;:()]+/g, ' ')
    .trim()
  return (
    current && { path: 'modes[]', value: { id: wordId(name || kind), name: name || kind, kind, current } }
  )
}
const frequency = (r: Reading) => {
  const max = valueOf(r.numbers.max ?? r.numbers.typ, r.unit, 'Hz')
  const volts =
    /V[_ ]?\w*\s*(?:=|≥|>=|from)\s*([\d.,]+)\s*V?/i.exec(r.conditions)?.[1] ??
    /([\d.,]+)\s*V\b/.exec(r.conditions)?.[1]
  const supply = volts === undefined ? undefined : Number(volts.replace(',', '.'))
  return max === undefined || supply === undefined
    ? undefined
    : {
        path: 'frequencyLimits[]',
        value: { supply, frequency: max, ...(r.source ? { source: r.source } : {}) },
      }
}
const aboveSupply = (r: Reading) => {
  const share = shareOfSupply(r.numbers.max ?? '')
  return share?.factor === 1
    ? {
        path: 'io.aboveSupply',
        value: { max: share.offset, kind: 'absolute', ...(r.source ? { source: r.source } : {}) },
      }
    : undefined
}

/** What a row may be about, most special first. */
const targets: readonly Target[] = [
  {
    id: 'thermal',
    words: 'thermal resistance',
    pattern: /thermal resistance|θ ?JA|R(?:th|θ)/i,
    read: plainRated('package.thermalResistance', 'K/W'),
  },
  {
    id: 'leakage',
    words: 'input leakage',
    pattern: /leakage|I[_ ]?(?:LEAK|LKG|IL\b|IH\b)/i,
    read: (r) => {
      const value = unsigned(ratedFrom(r, 'A', 'guaranteed'))
      return value && { path: 'io.leakage', value }
    },
  },
  {
    id: 'pull-up',
    words: 'pull-up inside',
    pattern: /pull[- ]?up|R[_ ]?PU\b/i,
    read: plainRated('io.pullUp', 'Ω'),
  },
  {
    id: 'pull-down',
    words: 'pull-down inside',
    pattern: /pull[- ]?down|R[_ ]?PD\b/i,
    read: plainRated('io.pullDown', 'Ω'),
  },
  {
    id: 'capacitance',
    words: 'capacitance of a leg',
    pattern: /(?:input|pin|leg|i\/o)\b.*capacitance|\bC[_ ]?I[NO]*\b/i,
    read: plainRated('io.capacitance', 'F'),
  },
  {
    id: 'output-high',
    words: 'high output level',
    pattern: /output.*high.*|high.*output|\bV[_ ]?OH\b/i,
    not: /current/i,
    read: drop('io.outputHigh', 'high'),
  },
  {
    id: 'output-low',
    words: 'low output level',
    pattern: /output.*low|low.*output|\bV[_ ]?OL\b/i,
    not: /current/i,
    read: drop('io.outputLow', 'low'),
  },
  {
    id: 'input-high',
    words: 'input threshold, high',
    pattern: /input.*high|high.*input|\bV[_ ]?IH\b/i,
    not: /current|leak/i,
    read: threshold('io.inputHigh', 'min'),
  },
  {
    id: 'input-low',
    words: 'input threshold, low',
    pattern: /input.*low|low.*input|\bV[_ ]?IL\b/i,
    not: /current|leak/i,
    read: threshold('io.inputLow', 'max'),
  },
  {
    id: 'total',
    words: 'current of all legs together',
    pattern:
      /total.*current|sum of.*current|current.*(?:into|out of|through|of all)|I[_ ]?(?:VDD|VSS|GND|TOT)/i,
    read: limit('limits.total', 'limits.totalAbsolute'),
  },
  {
    id: 'pin-current',
    words: 'current of one leg',
    pattern:
      /(?:output|source|sink|sunk|drive|dc)\b.*current|current.*(?:per|any|each|single|one|by)\b.*(?:pin|i\/o|leg|output)|I[_ ]?IO/i,
    read: limit('limits.pinRecommended', 'limits.pinAbsolute'),
  },
  {
    id: 'sleep',
    words: 'current asleep',
    pattern: /sleep|stand-?by|power[- ]?down|stop|hibernat|shutdown|deep/i,
    not: /voltage|temperature/i,
    read: mode('sleep'),
  },
  {
    id: 'idle',
    words: 'current while idle',
    pattern: /idle|wait|halt/i,
    not: /voltage|temperature/i,
    read: mode('idle'),
  },
  {
    id: 'active',
    words: 'current while running',
    pattern:
      /(?:active|run|operating|supply|normal).*current|current.*(?:active|run|operating)|I[_ ]?(?:DD|CC)\b/i,
    read: mode('active'),
  },
  {
    id: 'above',
    words: 'how far above the supply a leg may go',
    pattern: /(?:input|i\/o|pin|leg|any)\b.*voltage|voltage on (?:any|all|other)/i,
    not: /high|low|threshold/i,
    section: ['absolute'],
    read: aboveSupply,
  },
  {
    id: 'supply',
    words: 'supply voltage',
    pattern: new RegExp(`supply voltage|operating voltage|voltage supply|^${rail}\\b`, 'i'),
    not: /current/i,
    read: (r) =>
      plainRated(r.section === 'absolute' ? 'supply.absolute' : 'supply.recommended', 'V', 'recommended')(r),
  },
  {
    id: 'frequency',
    words: 'highest clock at a supply',
    pattern: /(?:clock|cpu|system|operating|core)?.*frequency|f[_ ]?(?:CPU|SYS|CLK|OSC)/i,
    read: frequency,
  },
  {
    id: 'temperature',
    words: 'temperature of the air',
    pattern: /(?:ambient|operating).*temperature|T[_ ]?A\b/i,
    section: ['recommended', 'other'],
    read: plainRated('temperature', '°C', 'recommended'),
  },
]

const sectionOf = (text: string): Section | undefined => {
  if (/absolute|maximum ratings?|stress/i.test(text)) return 'absolute'
  if (/recommended|operating conditions|general conditions/i.test(text)) return 'recommended'
  return /characteristics|consumption|d\.?c\.? /i.test(text) ? 'other' : undefined
}

const corners: readonly (readonly [keyof Numbers | 'unit' | 'text' | 'symbol' | 'conditions', RegExp])[] = [
  ['min', /^m[ií]n(?:imum|imo|\.)?$/i],
  ['typ', /^(?:typ(?:ical|isch|ique|\.)?|t[ií]p(?:ico|\.)?|nom(?:inal|\.)?)$/i],
  ['max', /^m[aá]x(?:imum|imo|\.)?$|^mass(?:imo|\.)?$/i],
  ['unit', /^(?:units?|einheit(?:en)?|unit[éà]s?|unidad(?:es)?|unidades?|eenhe(?:id|den))$/i],
  ['symbol', /^(?:symbol(?:e)?|s[ií]mbolo|simbolo|symbool|kurzzeichen|formelzeichen)$/i],
  [
    'conditions',
    /^(?:test )?conditions?$|^notes?$|^at$|^bedingung(?:en)?$|^condici(?:ón|ones)$|^condizion[ei]$|^condiç(?:ão|ões)$|^voorwaarden?$/i,
  ],
  [
    'text',
    /^(?:parameter|description|rating|item|characteristic|name)s?$|^(?:kenngr(?:ö|oe)ße|kennwert|größe|bezeichnung|paramètre|parámetro|parametro|parâmetro|grootheid|grandeur)s?$/i,
  ],
]
type Heads = Partial<Record<(typeof corners)[number][0], number>> & {
  /** A unit that stands in the heads of the numbers: Max (mA). */
  inHeads?: string
}
/** `Max (mA)` and `Max [mA]` are a corner and its unit. */
const headIn = (text: string): { head: string; unit?: string } => {
  const parted = /^(.*?)\s*[([]\s*([^()[\]]{1,8})\s*[)\]]$/.exec(text.trim())
  return parted && unitWord.test(parted[2]!) ? { head: parted[1]!, unit: parted[2]! } : { head: text.trim() }
}
const headsOf = (row: Row): Heads | undefined => {
  const heads: Heads = {}
  row.cells.forEach((c, i) => {
    const { head, unit } = headIn(c.text)
    if (unit !== undefined) heads.inHeads ??= unit
    const found = corners.find(([, p]) => p.test(head))
    if (found) heads[found[0]] ??= i
    else if (/^(?:values?|ratings?|werte?|valeurs?|valore?s?|waarden?)$/i.test(head)) heads.typ ??= i
  })
  return heads.min !== undefined ||
    heads.max !== undefined ||
    (heads.typ !== undefined && (heads.unit !== undefined || heads.inHeads !== undefined))
    ? heads
    : undefined
}

const unitWord = /^(?:[pnuµμmkMG]?(?:V|A|F|Hz|Ω|ohms?)|°C|º?C|℃|K\/W|°C\/W|[kM]?Ω)$/
const numberWord =
  /^[-+−–±]?\d[\d.,]*(?:\s*[pnuµμmkMG]?(?:V|A|F|Hz|Ω|ohms?|°C))?$|^[\d.,]*\s*[*×x·]?\s*V[_ ]?(?:DD|CC|S)(?:\s*[-+−–]\s*[\d.,]+\s*V?)?$/i

/** Without headings: the last cells that are numbers, the unit behind them, the words before. */
const bare = (row: Row): Pick<Reading, 'text' | 'conditions' | 'numbers' | 'unit'> | undefined => {
  const line = row.cells
    .map((c) => c.text)
    .filter((t) => t !== '')
    .join(' ')
  const ranged =
    /^(.*?)[\s:,]+([-+−–]?\d[\d.,]*)\s*([A-Za-zµΩ°]*)\s*(?:to|…|\.\.\.?|–|—|-)\s*([-+−–]?\d[\d.,]*)\s*([A-Za-zµΩ°/]+)\s*$/.exec(
      line,
    )
  if (ranged)
    return {
      text: ranged[1]!,
      conditions: '',
      numbers: { min: ranged[2]!, max: ranged[4]! },
      unit: ranged[5]!,
    }
  const cells = row.cells.filter((c) => c.text !== '')
  const unit = cells.length > 2 && unitWord.test(cells[cells.length - 1]!.text) ? cells.pop()!.text : ''
  const numbers: string[] = []
  while (
    cells.length > 1 &&
    (numberWord.test(cells[cells.length - 1]!.text) || /^[-–—]$/.test(cells[cells.length - 1]!.text))
  )
    numbers.unshift(cells.pop()!.text)
  if (numbers.length === 0) {
    const single =
      /^(.*?)[\s:,]+([-+−–]?\d[\d.,]*\s*[pnuµμmkMG]?(?:V|A|F|Hz|Ω|°C|K\/W))\s*(max(?:imum)?|min(?:imum)?|typ(?:ical)?)?\.?\s*$/i.exec(
        line,
      )
    if (!single) return undefined
    const corner = (single[3]?.slice(0, 3).toLowerCase() ??
      (/\bmax/i.test(line) ? 'max' : /\bmin/i.test(line) ? 'min' : 'typ')) as keyof Numbers
    return { text: single[1]!, conditions: '', numbers: { [corner]: single[2]! }, unit: '' }
  }
  const names: (keyof Numbers)[] =
    numbers.length >= 3 ? ['min', 'typ', 'max'] : numbers.length === 2 ? ['min', 'max'] : ['typ']
  return {
    text: cells.map((c) => c.text).join(' '),
    conditions: cells.map((c) => c.text).find((t) => /[=<>≤≥@]/.test(t)) ?? '',
    numbers: Object.fromEntries(
      names
        .map((n, i) => [n, numbers[numbers.length - names.length + i]])
        .filter(([, v]) => v && !/^[-–—]$/.test(v)),
    ) as Numbers,
    unit,
  }
}

const placeOf = (cells: Cell[], line: number): Place => {
  const filled = cells.filter((c) => c.text !== '')
  return { line, from: filled[0]?.from ?? 0, to: filled[filled.length - 1]?.to ?? 0 }
}
const dash = /^[-–—]?$/

/** `2.7 to 5.5` and `−40 … 85`, each with the unit behind it, if there is one. */
const rangeIn = (text: string): Numbers | undefined => {
  const range =
    /^\s*([-+−–]?\d[\d.,]*)\s*([A-Za-zµΩ°/]*)\s*(?:to|bis|à|a|tot|até|…|\.\.\.?|–|—|-|~)\s*([-+−–]?\d[\d.,]*)\s*([A-Za-zµΩ°/]*)\s*$/.exec(
      text,
    )
  if (!range) return undefined
  const [, min, minUnit, max, unit] = range as unknown as [string, string, string, string, string]
  return { min: `${min} ${minUnit || unit}`.trim(), max: `${max} ${unit}`.trim() }
}

const byHeads = (row: Row, heads: Heads, above: { text: string; unit: string }) => {
  const cell = (key: Exclude<keyof Heads, 'inHeads'>) => {
    const at = heads[key]
    return at === undefined ? '' : (row.cells[at]?.text ?? '')
  }
  const firstText = heads.text ?? row.cells.findIndex((_, i) => !Object.values(heads).includes(i))
  const own = [firstText >= 0 ? (row.cells[firstText]?.text ?? '') : '', cell('symbol')]
    .filter((t) => t !== '')
    .join(' ')
  let numbers: Numbers = {}
  for (const corner of ['min', 'typ', 'max'] as const) {
    const text = cell(corner)
    if (!dash.test(text)) numbers[corner] = text
  }
  // A range in one cell is its least and its greatest.
  const given = (['min', 'typ', 'max'] as const).filter((c) => numbers[c] !== undefined)
  const only = given.length === 1 ? numbers[given[0]!]! : undefined
  const range = only === undefined ? undefined : rangeIn(only)
  if (range) numbers = range
  // A row that goes on under another's name, with another condition.
  return {
    text: own || above.text,
    conditions: cell('conditions'),
    numbers,
    unit: cell('unit') || heads.inHeads || (own ? '' : above.unit),
  }
}

const keyOf = (text: string) => text.toLowerCase().replace(/\s+/g, ' ').trim().slice(0, 60)
const targetOf = (r: Reading, answers: Answers): Target | 'nothing' | undefined => {
  const told = answers[`limit:${keyOf(r.text)}`]
  if (told === 'nothing') return 'nothing'
  const bySection = (t: Target) => !t.section || t.section.includes(r.section)
  return (
    targets.find((t) => t.id === told) ??
    targets.find((t) => bySection(t) && t.pattern.test(r.text) && !t.not?.test(r.text))
  )
}

/**
 * Cells with numbers of a row that became a fact, of which nothing became: a corner is used where the fact is another one
 * without it.
 */
const unused = (row: Row, heads: Heads | undefined, reading: Reading, target: Target): Cell[] => {
  const fact = JSON.stringify(target.read(reading))
  const idle = (['min', 'typ', 'max'] as const).filter((corner) => {
    if (reading.numbers[corner] === undefined) return false
    const others = { ...reading.numbers, [corner]: undefined }
    return JSON.stringify(target.read({ ...reading, numbers: others })) === fact
  })
  const known = new Set(heads ? Object.values(heads).filter((v): v is number => typeof v === 'number') : [])
  const names = heads?.text ?? row.cells.findIndex((_, i) => !known.has(i))
  return row.cells.filter((cell, i) => {
    if (!heads) return idle.some((c) => reading.numbers[c] === cell.text)
    const corner = (['min', 'typ', 'max'] as const).find((c) => heads[c] === i)
    if (corner === undefined) return !known.has(i) && i !== names
    // A range gives its least and its greatest, whichever column it stands in.
    return reading.numbers[corner] === undefined ? idle.length > 0 : idle.includes(corner)
  })
}

/** Reads pasted limits. Never throws; rows that aren't understood are asked about. */
export const readLimits = (text: string, answers: Answers = {}): UnderstoodLimits => {
  const clean = cleanText(text)
  const mapped = fromWeb(clean) ?? clean
  const back = placesBack(mapped, text)
  const { rows } = gridOf(mapped.text.replace(/[│┃║¦]/g, '|'))
  const open: UnderstoodLimits['open'] = []
  const notUnderstood = (cells: readonly Cell[]) => {
    for (const c of cells)
      if (/\d/.test(c.text)) open.push({ text: c.text, line: c.line, from: c.from, to: c.to })
  }
  const kinds: UnderstoodLimits['kinds'] = {}
  const facts: FoundFact[] = []
  const questions: Question[] = []
  let section: Section = 'other'
  let source: string | undefined
  let heads: Heads | undefined
  let above = { text: '', unit: '' }
  for (const row of rows) {
    const whole = row.cells
      .map((c) => c.text)
      .filter((t) => t !== '')
      .join(' ')
    const say = (kind: LimitRow) => {
      kinds[row.line] = kind
    }
    if (whole === '') {
      say('blank')
      continue
    }
    const nextHeads = headsOf(row)
    if (nextHeads) {
      heads = nextHeads
      say('heading')
      continue
    }
    const read = heads ? byHeads(row, heads, above) : bare(row)
    if (!read || Object.keys(read.numbers).length === 0) {
      const next = sectionOf(whole)
      const table = /\btable\s+[\w.-]+/i.exec(whole)?.[0].toLowerCase().replace(/\.$/, '')
      // Another section is another table: without its number its facts have no place, rather than the last one's.
      if (next !== undefined || table !== undefined) source = table
      section = next ?? section
      if (heads && read) above = { text: read.text, unit: read.unit }
      say('section')
      continue
    }
    above = { text: read.text, unit: read.unit }
    const reading: Reading = { ...read, section, source, line: row.line, place: placeOf(row.cells, row.line) }
    const target = targetOf(reading, answers)
    const fact = target && target !== 'nothing' ? target.read(reading) : undefined
    if (fact && target && target !== 'nothing') {
      facts.push({ ...fact, words: target.words, line: row.line, place: reading.place })
      say('fact')
      notUnderstood(unused(row, heads, reading, target))
    } else if (target === 'nothing') say('skipped')
    else {
      say('unknown')
      notUnderstood(row.cells)
      const id = `limit:${keyOf(reading.text)}`
      if (!questions.some((q) => q.id === id))
        questions.push({
          id,
          text: `What is “${reading.text}”?`,
          why: target
            ? `It looks like the ${target.words}, but its numbers can’t be read for that.`
            : undefined,
          choices: [
            ...targets.map((t) => ({ id: t.id, label: t.words })),
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
    facts: facts.map(there),
    questions: inOrderOfValue(questions, answers).map((q) => ({ ...q, places: q.places.map(back) })),
    open: open.map((o) => ({ ...o, ...back(o) })),
  }
}

const set = (data: Json, [key, ...rest]: string[], value: unknown): Json => {
  if (rest.length === 0) {
    const list = /^(.*)\[\]$/.exec(key!)
    if (!list) return { ...data, [key!]: value }
    const before = data[list[1]!]
    return { ...data, [list[1]!]: [...(Array.isArray(before) ? (before as unknown[]) : []), value] }
  }
  const inner = data[key!]
  return {
    ...data,
    [key!]: set(
      typeof inner === 'object' && inner !== null && !Array.isArray(inner) ? (inner as Json) : {},
      rest,
      value,
    ),
  }
}

/** A part's file with facts put in. A fact already there stays beside the new one, which is the chosen one. */
export const withFacts = (file: Json, facts: FoundFact[]): Json => {
  const assumed = new Set(Array.isArray(file.assumed) ? (file.assumed as string[]) : [])
  let data = file
  const fresh = new Set<string>()
  for (const { path, value } of facts) {
    const field = path.replace(/\[\]$/, '')
    const keys = path.split('.')
    // An assumption gives way to the first fact.
    if (assumed.has(field) && path.endsWith('[]') && !fresh.has(field)) data = set(data, field.split('.'), [])
    fresh.add(field)
    const before = field.split('.').reduce<unknown>((v, k) => (v as Json | undefined)?.[k], data)
    const isRated = (v: unknown): v is Json => typeof v === 'object' && v !== null && 'kind' in v
    if (
      !path.endsWith('[]') &&
      isRated(before) &&
      isRated(value) &&
      before.kind !== 'assumed' &&
      !assumed.has(field)
    ) {
      const { others, ...old } = before
      delete old.why
      const same = JSON.stringify({ ...old, source: '' }) === JSON.stringify({ ...value, source: '' })
      data = same
        ? data
        : set(data, keys, {
            ...value,
            others: [...(Array.isArray(others) ? (others as unknown[]) : []), old],
            why: 'pasted last',
          })
    } else data = set(data, keys, value)
  }
  const left = [...assumed].filter((path) => !fresh.has(path))
  return left.length > 0
    ? { ...data, assumed: left }
    : Object.fromEntries(Object.entries(data).filter(([k]) => k !== 'assumed'))
}
