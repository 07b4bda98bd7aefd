// From an understood table of header positions to a board's part file: which position is which leg of its chip. Names
// that the chip doesn't have are learned by their beginning: IO12 is the chip's GPIO12, so IO13 is its GPIO13.

import { type Chip, partFormat } from '../parts'
import type { Answers, Question } from './questions'
import type { FoundLeg, Understood } from './understood'

type Json = Record<string, unknown>

export interface BoardHead {
  id: string
  name: string
  sheet: string
  chip: Chip
  /** Volts. */
  logic: number
  input: { min: number; max: number }
  maker?: string
  price?: number
  footprint?: string
}

export interface UnderstoodBoard {
  headers: Json[]
  /** Positions whose name the chip doesn't have. */
  unknown: FoundLeg[]
  questions: Question[]
}

const upper = (text: string) => text.toUpperCase()
const parted = (id: string) => /^(.*?)(\d+(?:[._]\d+)?)$/.exec(id)

/** The chip's pin of a name: by id, by any further name, by what an answer says of its beginning. */
const pinOf = (chip: Chip, id: string, answers: Answers): string | undefined => {
  const named = chip.pins.find((p) => upper(p.id) === id || (p.names ?? []).some((n) => upper(n) === id))
  if (named) return named.id
  const [, prefix, rest] = parted(id) ?? []
  const told = prefix === undefined ? undefined : answers[`prefix:${prefix}`]
  return told === undefined || told === 'none'
    ? undefined
    : chip.pins.find((p) => upper(p.id) === upper(`${told}${rest}`))?.id
}

const voltsIn = (name: string): number | undefined => {
  const match = /(\d)(?:[.V](\d))?/.exec(name)
  return match && /V/i.test(name) ? Number(`${match[1]}.${match[2] ?? 0}`) : undefined
}
const railOf = (leg: FoundLeg, logic: number): string | undefined => {
  if (leg.type === 'ground') return 'GND'
  if (leg.type !== 'supply') return undefined
  const volts = voltsIn(leg.id)
  return volts === logic || /^V(?:DD|CC)/.test(leg.id) ? 'LOGIC' : leg.id.replace(/^\+/, '')
}

/** Header and place of a position: `J2-7` is the seventh of J2; a bare number is of the only header there is. */
const seatOf = (leg: FoundLeg): { header: string; place: number | undefined } => {
  const text = leg.position ?? ''
  const match = /^(.*?)[\s.:_-]*(\d+)$/.exec(text)
  if (match) return { header: match[1]!.trim() || 'main', place: Number(match[2]) }
  return { header: text || 'main', place: leg.legs[0] }
}

const idFrom = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'main'

const aboutPrefixes = (unknown: FoundLeg[], chip: Chip, answers: Answers): Question[] => {
  const byPrefix = new Map<string, FoundLeg[]>()
  for (const leg of unknown) {
    const prefix = parted(leg.id)?.[1] ?? leg.id
    byPrefix.set(prefix, [...(byPrefix.get(prefix) ?? []), leg])
  }
  const prefixes = [
    ...new Set(chip.pins.filter((p) => p.type === 'io').map((p) => parted(p.id)?.[1] ?? '')),
  ].filter((p) => p !== '')
  return [...byPrefix]
    .filter(([prefix]) => answers[`prefix:${prefix}`] === undefined)
    .map(([prefix, legs]): Question => {
      const fitting = prefixes.map((p) => ({
        prefix: p,
        hits: legs.filter((l) =>
          chip.pins.some((pin) => upper(pin.id) === upper(`${p}${parted(l.id)?.[2] ?? ''}`)),
        ).length,
      }))
      const best = [...fitting].sort((a, b) => b.hits - a.hits)[0]
      return {
        id: `prefix:${prefix}`,
        text: `${chip.name} has no ${legs
          .slice(0, 3)
          .map((l) => l.id)
          .join(', ')}. What is ${prefix} there?`,
        why:
          best && best.hits > 0
            ? `${best.hits} of ${legs.length} would be found as ${best.prefix}.`
            : undefined,
        guess: best && best.hits > 0 ? best.prefix : 'none',
        choices: [
          ...fitting.map((f) => ({
            id: f.prefix,
            label: `${f.prefix} …: ${f.hits} of ${legs.length} found`,
          })),
          { id: 'none', label: 'no leg of the chip' },
        ],
        value: legs.length,
        places: legs.flatMap((l) => l.places),
      }
    })
}

/** Joins header positions with the chip's legs. Until a question is answered, its guess is taken. */
export const joinBoard = (
  table: Understood,
  head: Pick<BoardHead, 'chip' | 'logic' | 'footprint'>,
  answers: Answers,
): UnderstoodBoard => {
  const signals = table.legs.filter(
    (l) => l.type === 'io' || l.type === 'input' || l.type === 'output' || l.type === 'reference',
  )
  const unknown = signals.filter((l) => pinOf(head.chip, l.id, answers) === undefined)
  const questions = aboutPrefixes(unknown, head.chip, answers)
  const guesses = Object.fromEntries(questions.map((q) => [q.id, q.guess!]))
  const all = { ...guesses, ...answers }
  const seats = new Map<string, { place: number; position: Json }[]>()
  for (const leg of table.legs) {
    const { header, place } = seatOf(leg)
    const pin = signals.includes(leg) ? pinOf(head.chip, leg.id, all) : undefined
    const rail = railOf(leg, head.logic)
    const list = seats.get(header) ?? []
    // Rows that share a supply's name stand for as many positions.
    for (const at of leg.position === undefined && leg.legs.length > 0
      ? leg.legs
      : [place ?? list.length + 1])
      list.push({
        place: at,
        position: {
          label: leg.label ?? leg.id,
          ...(pin ? { pin } : {}),
          ...(rail ? { rail } : {}),
          ...(leg.number === undefined ? {} : { number: leg.number }),
        },
      })
    seats.set(header, list)
  }
  return {
    headers: [...seats].map(([name, list]) => ({
      id: idFrom(name),
      name,
      ...(head.footprint && seats.size === 1 ? { footprint: head.footprint } : {}),
      positions: [...list].sort((a, b) => a.place - b.place).map((s) => s.position),
    })),
    unknown: unknown.filter((l) => pinOf(head.chip, l.id, all) === undefined),
    questions,
  }
}

export const boardFileFrom = (joined: UnderstoodBoard, head: BoardHead): Json => ({
  format: partFormat,
  kind: 'board',
  id: head.id,
  name: head.name,
  ...(head.maker ? { maker: head.maker } : {}),
  sheet: head.sheet,
  price: head.price ?? 0,
  chip: head.chip.id,
  input: { ...head.input, kind: 'recommended' },
  logic: { typ: head.logic, kind: 'typical' },
  headers: joined.headers,
  blocks: [],
})
