// From the table of its legs and that of its characteristics to a regulator’s file.

import { partFormat } from '../parts'
import { type FoundFact, withFacts } from './limits'
import type { Answers, Question } from './questions'
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

/** The file of a regulator, what is still to be asked for it, and what was taken without having been read. */
export const regulatorFrom = (
  table: Understood,
  facts: FoundFact[],
  head: RegulatorHead,
  answers: Answers,
): PartFrom => {
  const questions: Question[] = []
  const notes: string[] = []
  const legs = table.legs.flatMap((leg) => {
    if (isTab(leg.id)) {
      notes.push(
        `${leg.id} carries heat and has a potential of its own: it is no leg here. Solder it as its sheet says.`,
      )
      return []
    }
    const told = roles.find((r) => r.id === answers[`role:${leg.id}`])?.id
    const role = told ?? roleOf(leg)
    if (role === undefined)
      questions.push({
        id: `role:${leg.id}`,
        text: `What is ${leg.id}?`,
        guess: 'none',
        choices: [...roles],
        value: 2,
        places: leg.places,
      })
    if (role === undefined || role === 'none')
      notes.push(
        adjusts(leg.id)
          ? `${leg.id} sets its output by resistors, which are in no sum: the output that is stated is taken as it is.`
          : leg.type === 'none'
            ? `${leg.id} is joined to nothing.`
            : `${leg.id} is joined by no step: tie it as its sheet says.`,
      )
    return leg.legs.map((n) => ({ leg: n, role: role ?? 'none', name: leg.id }))
  })
  for (const role of ['in', 'out', 'ground'] as const)
    if (!legs.some((l) => l.role === role))
      notes.push(`No leg is ${roles.find((r) => r.id === role)!.label}.`)

  const has = (path: string) => facts.some((f) => f.path === path)
  const value = (path: string) =>
    facts.find((f) => f.path === path)?.value as { min?: number; max?: number; typ?: number }
  const switching = has('efficiency[]') || table.legs.some((l) => switches(l.id))
  const [input, output] = [value('inputRecommended'), value('output')]
  const up =
    switching &&
    input?.max !== undefined &&
    output !== undefined &&
    input.max < (output.typ ?? output.min ?? 0)
  const guess = !switching ? 'linear' : up ? 'up' : 'down'
  const sort = answers.topology ?? guess
  if (answers.topology === undefined)
    questions.push({
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

  const count = Math.max(3, ...legs.map((l) => l.leg))
  const style = head.style || (count <= 3 ? 'upright' : 'two-sided')
  const { pitch, solder } = styles[style] ?? styles['two-sided']!
  if (!head.style) notes.push(`Its package is taken to be ${style}, by its ${count} legs.`)
  if (head.pitch === undefined)
    notes.push(`Its legs are taken to be ${pitch(count) * 1e3} mm apart, as is usual for its style.`)
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
    package: { name: `${style} ${count}`, style, legs: count, pitch: head.pitch ?? pitch(count), solder },
    legs: [...legs].sort((a, b) => a.leg - b.leg),
  }
  // An absolute maximum comes first, so that what is recommended is what is taken.
  const kindOf = (f: FoundFact) => (f.value as { kind?: string }).kind
  const inOrder = [
    ...facts.filter((f) => kindOf(f) === 'absolute'),
    ...facts.filter((f) => kindOf(f) !== 'absolute' && f.path !== 'accuracy'),
  ]
  let file = withFacts(begun, inOrder)
  const missing: string[] = []
  const fill = (need: Needed, made: (v: unknown) => unknown = (v) => v) => {
    if (at(file, need.path) !== undefined) return
    const { value: typed, question } = askedFor(need, answers)
    if (question) questions.push(question)
    if (typed === undefined) missing.push(need.words)
    else file = withValue(file, need.path, made(typed))
  }
  needed.forEach((need) => fill(need))
  file = withAccuracy(file, facts.find((f) => f.path === 'accuracy')?.value)
  const full = (file.current as { max?: number } | undefined)?.max
  if (sort === 'up')
    file = { ...file, dropout: file.dropout ?? [{ current: full ?? 0, voltage: { typ: 0, max: 0 } }] }
  else fill(neededDropout, (voltage) => [{ current: full ?? 0, voltage }])
  const says = Object.fromEntries(
    legs.map((l) => [
      l.name,
      l.role === 'none' ? 'joined by no step' : roles.find((r) => r.id === l.role)!.label,
    ]),
  )
  return { file, questions, missing, notes, says }
}
