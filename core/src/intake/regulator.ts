// From the table of its legs and that of its characteristics to a regulator’s file.

import { partFormat } from '../parts'
import { formatQuantity } from '../quantity'
import { type FoundFact, withFacts } from './limits'
import type { Answers } from './questions'
import { askedFor, type Needed, type PartFrom } from './told'
import type { FoundLeg, Understood } from './understood'

type Json = Record<string, unknown>
export interface RegulatorHead {
  id: string
  name: string
  sheet: string
  maker?: string
  price?: number
  style?: string
  /** m; absent: by its style. */
  pitch?: number
}

const roles = [
  { id: 'in', label: 'its input' },
  { id: 'out', label: 'its output' },
  { id: 'ground', label: 'ground' },
  { id: 'none', label: 'something else: no step joins it' },
] as const
type Role = (typeof roles)[number]['id']

const byName: readonly (readonly [Role, RegExp])[] = [
  ['in', /^(?:P?V?_?IN(?:PUT)?\d?|V_?I|VCC|VDD|VS|VBAT|UNREG|\+?IN)$/],
  ['out', /^(?:V_?OUT(?:PUT)?\d?|OUT(?:PUT)?\d?|V_?O|REG|VREG|\+?OUT)$/],
  ['ground', /^(?:[APS]?GND\d?|GROUND|COM(?:MON)?|VSS|VEE|0V)$/],
  ['none', /^(?:NC|N\.C\.|EN|ENABLE|CE|N?SHDN|ON(?:\/OFF)?|STBY|BYP(?:ASS)?|NR|PG|PGOOD|SS|SYNC)$/],
]
const isTab = (id: string) => /^(?:TAB|EP|EPAD|PAD|HEAT ?SINK|DAP)$/.test(id)
const adjusts = (id: string) => /^(?:ADJ(?:UST)?|FB|VFB|SENSE)$/.test(id)
const switches = (id: string) => /^(?:SW|LX|PH|BOOT|BST|L\d?)$/.test(id)

const roleOf = (leg: FoundLeg): Role | undefined => {
  const named = byName.find(([, p]) => p.test(leg.id))?.[0]
  if (named) return named
  if (adjusts(leg.id) || switches(leg.id)) return 'none'
  return leg.type === 'ground' ? 'ground' : leg.type === 'none' && !isTab(leg.id) ? 'none' : undefined
}

const needed: readonly Needed[] = [
  { path: 'output', words: 'its output voltage', unit: 'V', is: 'typ', example: '3.3 V, or 3.2 V to 3.4 V' },
  { path: 'current', words: 'the most current it gives', unit: 'A', is: 'max', example: '500 mA' },
  {
    path: 'inputRecommended',
    words: 'the input it is made for',
    unit: 'V',
    is: 'range',
    example: '4 V to 12 V',
  },
  { path: 'inputAbsolute', words: 'the input that breaks it', unit: 'V', is: 'max', example: '16 V' },
  { path: 'quiescent', words: 'the current it takes itself', unit: 'A', is: 'max', example: '80 µA' },
  { path: 'junctionMax', words: 'how warm its junction may get', unit: '°C', is: 'max', example: '125 °C' },
  { path: 'inputCapacitor', words: 'the capacitor at its input', unit: 'F', is: 'plain', example: '1 µF' },
  {
    path: 'outputCapacitor.capacitance',
    words: 'the capacitor at its output',
    unit: 'F',
    is: 'plain',
    example: '10 µF',
  },
]
const neededDropout: Needed = {
  path: 'dropout',
  words: 'the voltage it needs above its output at full current',
  unit: 'V',
  is: 'max',
  example: '0.6 V',
}

const styles: Record<string, { pitch: (legs: number) => number; solder: string }> = {
  upright: { pitch: () => 2.54e-3, solder: 'through-hole' },
  dip: { pitch: () => 2.54e-3, solder: 'through-hole' },
  module: { pitch: () => 2.54e-3, solder: 'through-hole' },
  'two-sided': {
    pitch: (legs) => (legs <= 3 ? 2.3e-3 : legs <= 6 ? 0.95e-3 : 1.27e-3),
    solder: 'surface by hand',
  },
  'four-sided': { pitch: () => 0.5e-3, solder: 'surface hot air' },
}

const at = (file: Json, path: string): unknown =>
  path.split('.').reduce<unknown>((v, k) => (v as Json | undefined)?.[k], file)
const withValue = (file: Json, path: string, value: unknown): Json =>
  withFacts(file, [{ path, value, words: '', line: 1, place: { line: 1, from: 0, to: 0 } }])

/** `±2 %` of the output is its least and its greatest, where no row states these. */
const withAccuracy = (file: Json, share: unknown): Json => {
  const { typ, min, max } = (file.output ?? {}) as { typ?: number; min?: number; max?: number }
  return typeof share !== 'number' || typ === undefined || min !== undefined || max !== undefined
    ? file
    : { ...file, output: { ...(file.output as Json), min: typ * (1 - share), max: typ * (1 + share) } }
}

/** What comes up on the way. */
type Asked = Pick<PartFrom, 'questions' | 'notes' | 'missing'>
interface RoledLeg {
  leg: number
  role: Role
  name: string
}

/** Its legs with what each is for: by name, by what was answered, else asked. */
const legsFrom = (table: Understood, answers: Answers, asked: Asked): RoledLeg[] => {
  const legs = table.legs.flatMap((leg): RoledLeg[] => {
    if (isTab(leg.id)) {
      asked.notes.push(
        `${leg.id} carries heat and has a potential of its own: it is no leg here. Solder it as its sheet says.`,
      )
      return []
    }
    const told = roles.find((r) => r.id === answers[`role:${leg.id}`])?.id
    const role = told ?? roleOf(leg)
    if (role === undefined)
      asked.questions.push({
        id: `role:${leg.id}`,
        text: `What is ${leg.id}?`,
        guess: 'none',
        choices: [...roles],
        value: 2,
        places: leg.places,
      })
    if (role === undefined || role === 'none')
      asked.notes.push(
        adjusts(leg.id)
          ? `${leg.id} sets its output by resistors, which are in no sum: the output that is stated is taken as it is.`
          : leg.type === 'none'
            ? `${leg.id} is joined to nothing.`
            : `${leg.id} is joined by no step: tie it as its sheet says.`,
      )
    return leg.legs.map((n) => ({ leg: n, role: role ?? 'none', name: leg.id }))
  })
  for (const role of ['in', 'out'] as const)
    if (!legs.some((l) => l.role === role)) asked.missing.push(`which leg is ${labelOf(role)}`)
  if (!legs.some((l) => l.role === 'ground')) asked.notes.push('No leg is ground.')
  return legs.sort((a, b) => a.leg - b.leg)
}
const labelOf = (role: Role): string => roles.find((r) => r.id === role)!.label

/** Linear, or switching down or up: asked, with what speaks for the guess. */
const sortFrom = (table: Understood, facts: FoundFact[], answers: Answers, asked: Asked): string => {
  if (answers.topology !== undefined) return answers.topology
  const value = (path: string) =>
    facts.find((f) => f.path === path)?.value as { min?: number; max?: number; typ?: number } | undefined
  const switching = value('efficiency[]') !== undefined || table.legs.some((l) => switches(l.id))
  const [input, output] = [value('inputRecommended')?.max, value('output')]
  const up = input !== undefined && output !== undefined && input < (output.typ ?? output.min ?? 0)
  const guess = !switching ? 'linear' : up ? 'up' : 'down'
  asked.questions.push({
    id: 'topology',
    text: 'How does it make its output?',
    why: switching ? 'It has an efficiency, or a leg for a coil.' : 'Nothing of it speaks of switching.',
    guess,
    choices: [
      { id: 'linear', label: 'linear: what is too much becomes heat' },
      { id: 'down', label: 'switching, from a higher voltage down' },
      { id: 'up', label: 'switching, from a lower voltage up' },
    ],
    value: 1,
    places: [],
  })
  return guess
}

const packageFrom = (head: RegulatorHead, legs: RoledLeg[], { notes }: Asked): Json => {
  const count = Math.max(3, ...legs.map((l) => l.leg))
  const style = head.style || (count <= 3 ? 'upright' : 'two-sided')
  const { pitch, solder } = styles[style] ?? styles['two-sided']!
  if (!head.style) notes.push(`Its package is taken to be ${style}, by its ${count} legs.`)
  if (head.pitch === undefined)
    notes.push(
      `Its legs are taken to be ${formatQuantity(pitch(count), 'm')} apart, as is usual for its style.`,
    )
  return { name: `${style} ${count}`, style, legs: count, pitch: head.pitch ?? pitch(count), solder }
}

/** Points of a line by rising current; of two at one current the less favourable. */
const byCurrent = (file: Json, field: 'dropout' | 'efficiency'): Json => {
  const points = file[field] as { current: number; share?: number; voltage?: Corners }[] | undefined
  if (!points) return file
  const worse = (a: (typeof points)[number], b: (typeof points)[number]) =>
    field === 'efficiency' ? (a.share ?? 1) < (b.share ?? 1) : most(a.voltage) > most(b.voltage)
  const at = new Map<number, (typeof points)[number]>()
  for (const p of points) {
    const before = at.get(p.current)
    if (!before || worse(p, before)) at.set(p.current, p)
  }
  return { ...file, [field]: [...at.values()].sort((a, b) => a.current - b.current) }
}
interface Corners {
  min?: number
  typ?: number
  max?: number
}
const most = (v: Corners = {}): number => v.max ?? v.typ ?? v.min ?? 0

/** The file with what no table says asked for, and with what was typed for it. */
const completed = (begun: Json, needs: readonly Needed[], answers: Answers, asked: Asked): Json =>
  needs.reduce((file, need) => {
    if (at(file, need.path) !== undefined) return file
    const { value, question } = askedFor(need, answers)
    if (question) asked.questions.push(question)
    if (value === undefined) asked.missing.push(need.words)
    return value === undefined ? file : withValue(file, need.path, value)
  }, begun)

/** The file of a regulator, what is still to be asked for it, and what was taken without having been read. */
export const regulatorFrom = (
  table: Understood,
  facts: FoundFact[],
  head: RegulatorHead,
  answers: Answers,
): PartFrom => {
  const asked: Asked = { questions: [], notes: [], missing: [] }
  const legs = legsFrom(table, answers, asked)
  const sort = sortFrom(table, facts, answers, asked)
  const begun: Json = {
    format: partFormat,
    kind: 'regulator',
    id: head.id,
    name: head.name,
    ...(head.maker ? { maker: head.maker } : {}),
    sheet: head.sheet,
    price: head.price ?? 0,
    topology: sort === 'linear' ? 'linear' : 'switching',
    ...(sort === 'up' ? { converts: 'up' } : {}),
    package: packageFrom(head, legs, asked),
    legs,
  }
  // An absolute maximum comes first, so that what is recommended is what is taken.
  const kindOf = (f: FoundFact) => (f.value as { kind?: string }).kind
  const stated = withFacts(begun, [
    ...facts.filter((f) => kindOf(f) === 'absolute'),
    ...facts.filter((f) => kindOf(f) !== 'absolute' && f.path !== 'accuracy'),
  ])
  const whole = completed(stated, needed, answers, asked)
  const exact = withAccuracy(whole, facts.find((f) => f.path === 'accuracy')?.value)
  const full = (exact.current as Corners | undefined)?.max ?? 0
  // One that converts up needs nothing above its output; a typed drop-out is that at full current.
  const up = sort === 'up' ? [{ current: full, voltage: { typ: 0, max: 0 } }] : undefined
  const able = up ? { dropout: up, ...exact } : completed(exact, [neededDropout], answers, asked)
  const dropout =
    Array.isArray(able.dropout) || able.dropout === undefined
      ? able.dropout
      : [{ current: full, voltage: able.dropout }]
  const file = [dropout === undefined ? able : { ...able, dropout }]
    .map((f) => byCurrent(f, 'dropout'))
    .map((f) => byCurrent(f, 'efficiency'))[0]!
  const says = Object.fromEntries(
    legs.map((l) => [l.name, l.role === 'none' ? 'joined by no step' : labelOf(l.role)]),
  )
  return { file, ...asked, says }
}
