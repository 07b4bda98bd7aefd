// A row of a table of limits: which of its cells are what, by the heads above or by what they look like.

import type { Cell, Row } from '../grid'
import type { Place } from '../layout'
import type { Unit } from '../../quantity'
import { type Numbers, rail, type Reading, type Section, valueOf } from './values'

export const sectionOf = (text: string): Section | undefined => {
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
/** A further column of the same corner, at another condition: Max 25 °C, Max 85 °C. */
interface Further {
  corner: keyof Numbers
  column: number
}
export type Heads = Partial<Record<(typeof corners)[number][0], number>> & {
  further?: Further[]
  /** What stands in the head of a column besides its corner. */
  at?: Record<number, string>
  /** A unit that stands in the heads of the numbers: Max (mA). */
  inHeads?: string
}
/** `Max 85 °C`, `Typ @ 3 V`, `Max (105 °C)`: a corner and where it holds. */
const headAt = (text: string): { head: string; at?: string } => {
  const parted =
    /^(\p{L}+\.?)\s*(?:@|at|bei|à|a|bij)?\s*[([]?\s*([A-Z_]*\s*=?\s*[-+−–]?\d[\d.,]*\s*(?:°C|℃|V))\s*[)\]]?$/u.exec(
      text.trim(),
    )
  return parted ? { head: parted[1]!, at: parted[2]! } : { head: text.trim() }
}
/** `Max (mA)` and `Max [mA]` are a corner and its unit. */
const headIn = (text: string): { head: string; unit?: string } => {
  const parted = /^(.*?)\s*[([]\s*([^()[\]]{1,8})\s*[)\]]$/.exec(text.trim())
  return parted && unitWord.test(parted[2]!) ? { head: parted[1]!, unit: parted[2]! } : { head: text.trim() }
}
export const headsOf = (row: Row): Heads | undefined => {
  const heads: Heads = {}
  row.cells.forEach((c, i) => {
    const { head: named, unit } = headIn(c.text)
    const { head, at } = headAt(named)
    if (unit !== undefined) heads.inHeads ??= unit
    const found = corners.find(([, p]) => p.test(head))?.[0]
    if (found !== undefined && at !== undefined) heads.at = { ...heads.at, [i]: at }
    if (found !== undefined && heads[found] === undefined) heads[found] = i
    else if (found === 'min' || found === 'typ' || found === 'max')
      heads.further = [...(heads.further ?? []), { corner: found, column: i }]
    else if (/^(?:values?|ratings?|werte?|valeurs?|valore?s?|waarden?)$/i.test(head)) heads.typ ??= i
  })
  // A head has no numbers but those of where it holds.
  if (hasQuantity(row.cells.map((c, i) => (heads.at?.[i] === undefined ? c.text : '')).join(' ')))
    return undefined
  return heads.min !== undefined ||
    heads.max !== undefined ||
    (heads.typ !== undefined && (heads.unit !== undefined || heads.inHeads !== undefined))
    ? heads
    : undefined
}

const unitWord = /^(?:[pnuµμmkMG]?(?:V|A|F|Hz|Ω|ohms?)|°C|º?C|℃|K\/W|°C\/W|[kM]?Ω|%)$/
const numberWord =
  /^[-+−–±]?\d[\d.,]*(?:\s*[pnuµμmkMG]?(?:V|A|F|Hz|Ω|ohms?|°C))?$|^[\d.,]*\s*[*×x·]?\s*V[_ ]?(?:DD|CC|S)(?:\s*[-+−–]\s*[\d.,]+\s*V?)?$/i

const quantity =
  /(?:(max(?:imum)?|min(?:imum)?|typ(?:ical(?:ly)?)?|at most|at least|up to|between|from|to|and|≤|<|≥)\.?\s*[:=]?\s*)?([-+−–±]?\d[\d.,]*(?<![.,])\s*[pnuµμmkMG]?(?:V|A|F|Hz|Ω|°C|K\/W)(?![A-Za-z]))(?:\s*\(?(max(?:imum)?|min(?:imum)?|typ(?:ical)?|at most|at least)\b\.?\)?)?/gi
const cornerOf: Record<string, keyof Numbers> = {
  max: 'max',
  'at most': 'max',
  'up to': 'max',
  to: 'max',
  and: 'max',
  '≤': 'max',
  '<': 'max',
  min: 'min',
  'at least': 'min',
  between: 'min',
  from: 'min',
  '≥': 'min',
  typ: 'typ',
}
/** A line of words whose quantities say beside them which they are: typ. 6 mA, max. 8 mA; between 2.7 V and 5.5 V. */
const worded = (line: string): Pick<Reading, 'text' | 'conditions' | 'numbers' | 'unit'> | undefined => {
  const found = [...line.matchAll(quantity)]
  if (found.length === 0) return undefined
  const numbers: Numbers = {}
  const short = (word: string | undefined) =>
    word === undefined
      ? undefined
      : (cornerOf[word.toLowerCase()] ?? cornerOf[word.toLowerCase().slice(0, 3)])
  const usual = /\bmax/i.test(line) ? 'max' : /\bmin/i.test(line) ? 'min' : 'typ'
  const said = found.map((q) => short(q[3]) ?? short(q[1]))
  // Beside quantities that say which they are, others are conditions; where none does, the last is what the line tells.
  const told = said.some((c) => c !== undefined)
  const conditions: string[] = []
  for (const [i, q] of found.entries()) {
    const corner = said[i] ?? (told || i < found.length - 1 ? undefined : usual)
    if (corner === undefined) conditions.push(q[2]!)
    // Two of one corner are of two things: none of them can be told.
    else if (numbers[corner] !== undefined) return undefined
    else numbers[corner] = q[2]!
  }
  const text = line
    .replace(quantity, ' ')
    .replace(/[\s:,;.()]+$/, '')
    .replace(/\s+/g, ' ')
  // A number without a unit that is left among the words was meant for something.
  if (/(?<![\w.,])[-+−–±]?\d+(?:[.,]\d+)?(?![\w.,]*\w)/.test(text)) return undefined
  return { text, conditions: conditions.join(', '), numbers, unit: '' }
}

/** Whether a text has a number with a unit: such a line is no title. */
export const hasQuantity = (text: string): boolean => text.search(quantity) >= 0

/** Sentences of a line of running text, each a row. */
export const sentencesOf = (row: Row): Row[] => {
  const [only, ...more] = row.cells.filter((c) => c.text !== '')
  if (!only || more.length > 0 || !hasQuantity(only.text) || !/[.;]\s+\p{Lu}/u.test(only.text)) return [row]
  return [...only.text.matchAll(/\S.*?(?:[.;](?=\s+\p{Lu})|$)/gu)].map((s) => ({
    line: row.line,
    cells: [{ ...only, text: s[0], from: only.from + s.index, to: only.from + s.index + s[0].length }],
  }))
}

/** Without headings: the last cells that are numbers, the unit behind them, the words before. */
export const bare = (row: Row): Pick<Reading, 'text' | 'conditions' | 'numbers' | 'unit'> | undefined => {
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
    // An address on a bus is a number too.
    const hex = /^(.*?)[\s:,=]+(0x[0-9a-f]{1,2})\s*$/i.exec(line)
    if (hex) return { text: hex[1]!, conditions: '', numbers: { typ: hex[2]! }, unit: '' }
    return worded(line)
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

export const placeOf = (cells: Cell[], line: number): Place => {
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

const measured: readonly Unit[] = ['V', 'A', 'F', 'Hz', 'Ω', '°C']
const ofSupply = new RegExp(rail, 'i')
/** For comparison alone: in SI where it has a unit, a share of the supply as its number. Undefined: no number. */
const sizeOf = (text: string, unit: string): number | undefined => {
  const [value] = measured.flatMap((wanted) => valueOf(text, unit, wanted) ?? [])
  const plain = text.replace(/[−–]/g, '-').replace(',', '.').replace(/\s+/g, '')
  const number =
    ofSupply.test(plain) || /^[-+±]?[.\d]/.test(plain) ? /[-+]?\d*\.?\d+/.exec(plain)?.[0] : undefined
  return value ?? (number === undefined ? undefined : Number(number))
}

/**
 * `allowed`: its numbers are what may be, rather than what is: then the least of several greatest ones leaves least.
 * `notCompared`: columns of what is no number, or a share of the supply beside volts.
 */
export const byHeads = (
  row: Row,
  heads: Heads,
  above: { text: string; unit: string },
  allowed = false,
): Pick<Reading, 'text' | 'conditions' | 'numbers' | 'unit'> & { notCompared: number[] } => {
  const cell = (key: Exclude<keyof Heads, 'inHeads' | 'further' | 'at'>) => {
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
  const unit = cell('unit') || heads.inHeads || (own ? '' : above.unit)
  // Of several columns of one corner the one that leaves least counts; which it was is told.
  const where: string[] = []
  const notCompared: number[] = []
  for (const corner of ['min', 'typ', 'max'] as const) {
    const all = [
      { column: heads[corner], text: numbers[corner] },
      ...(heads.further ?? [])
        .filter((f) => f.corner === corner)
        .map((f) => ({ column: f.column, text: row.cells[f.column]?.text })),
    ].flatMap(({ column, text }) =>
      column === undefined || text === undefined || dash.test(text) ? [] : [{ column, text }],
    )
    const sized = all.flatMap((a) => {
      const size = sizeOf(a.text, unit)
      return size === undefined ? [] : [{ ...a, size }]
    })
    const [first] = sized
    if (!first) continue
    const comparable = sized.filter((a) => ofSupply.test(a.text) === ofSupply.test(first.text))
    if (corner !== 'typ')
      notCompared.push(...all.map((a) => a.column).filter((c) => !comparable.some((a) => a.column === c)))
    const worst = comparable.reduce((a, b) => {
      const [one, other] = [a.size, b.size]
      if (corner === 'typ' || one === other) return a
      // A current that is told as negative only flows the other way.
      const more = corner === 'max' && one < 0 && other < 0 ? other < one : other > one
      return ((corner === 'max') !== allowed) === more ? b : a
    }, first)
    numbers[corner] = worst.text
    const at = heads.at?.[worst.column]
    if (at !== undefined && !where.includes(at)) where.push(at)
  }
  // A range in one cell is its least and its greatest.
  const given = (['min', 'typ', 'max'] as const).filter((c) => numbers[c] !== undefined)
  const only = given.length === 1 ? numbers[given[0]!]! : undefined
  const range = only === undefined ? undefined : rangeIn(only)
  if (range) numbers = range
  // A row that goes on under another's name, with another condition.
  return {
    text: own || above.text,
    conditions: [cell('conditions'), ...where].filter((t) => t !== '').join(', '),
    numbers,
    unit,
    notCompared,
  }
}
