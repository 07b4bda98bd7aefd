// Reading a design from JSON. Faults name the path; unknown fields are refused so that a typing error is not lost.

import { array, boolean, lazy, mixed, number, object, string } from 'yup'
import {
  type Fault,
  FaultyFile,
  identifier,
  optionalText,
  type Part,
  quantity,
  readPart,
  readWith,
  recordOf,
  text,
  withinBounds,
} from '../parts'
import {
  busSpeeds,
  type Design,
  feedersOf,
  measuredAt,
  mostCells,
  mostRails,
  radioAnswers,
  shiftKinds,
  stances,
} from './types'
import { loopIn } from './rails'

const names = lazy((value: unknown) => recordOf(value, identifier).required())
const oneOf = (allowed: readonly string[]) => () => string().strict(true).oneOf(allowed).required()
const sides = lazy((value: unknown) => recordOf(value, oneOf(['in', 'out'])).required())
const perSignal = (allowed: readonly string[]) =>
  lazy((value: unknown) =>
    value === undefined ? object().optional().default(undefined) : recordOf(value, oneOf(allowed)).required(),
  )
const settings = lazy((value: unknown) =>
  value === undefined
    ? object().optional().default(undefined)
    : recordOf(value, () => number().strict(true).min(0).max(1e9).required()).required(),
)

const leadMetal = () => ({
  wire: identifier().optional(),
  length: quantity('m').min(0.001).max(100).optional(),
  joint: identifier().optional(),
  joints: number().strict(true).integer().min(1).max(100).optional(),
})

const device = object({
  id: identifier(),
  part: identifier(),
  name: text(),
  count: number().strict(true).integer().min(1).max(64).required(),
  wiring: identifier().optional(),
  variant: identifier().optional(),
  address: number().strict(true).integer().min(0).max(127).optional(),
  bus: number().strict(true).integer().min(2).max(4).optional(),
  fedBy: identifier().optional(),
  settings: settings as never,
  transistors: lazy((value: unknown) =>
    value === undefined ? object().optional().default(undefined) : recordOf(value, identifier).required(),
  ) as never,
  lead: object(leadMetal()).exact().optional().default(undefined),
  drivenBy: identifier().optional(),
}).exact()

const seconds = () => quantity('s').min(1e-6).max(1e8)
const state = object({
  id: identifier(),
  name: text(),
  lasts: seconds().optional(),
  every: seconds().optional(),
  perDay: number().strict(true).min(0).max(1e8).optional(),
  begins: identifier().optional(),
  chip: identifier().optional(),
  radio: boolean().strict(true).optional(),
  modes: lazy((value: unknown) =>
    value === undefined ? object().optional().default(undefined) : recordOf(value, identifier).required(),
  ) as never,
}).exact()

const measurement = object({
  id: identifier(),
  state: identifier(),
  at: string().strict(true).oneOf(measuredAt).required(),
  reading: quantity('A').min(0).max(1000).required(),
  range: quantity('A').min(1e-9).max(1000).optional(),
  burden: quantity('Ω').min(0).max(1e6).optional(),
  accuracy: number().strict(true).min(0).max(0.5).optional(),
  found: optionalText(),
}).exact()

const rail = object({
  id: string()
    .strict(true)
    .matches(/^rail[2-9]$/, '${path} must be rail2 to rail9')
    .required(),
  regulator: identifier(),
  from: identifier().optional(),
}).exact()

const cells = () =>
  object({
    series: number().strict(true).integer().min(1).max(mostCells.series).optional(),
    parallel: number().strict(true).integer().min(1).max(mostCells.parallel).optional(),
  })
    .exact()
    .optional()
    .default(undefined)

const lead = () =>
  object({
    ...leadMetal(),
    fuse: identifier().optional(),
    protection: identifier().optional(),
  })
    .exact()
    .optional()
    .default(undefined)

const mostDevices = 200
const mostFacts = 400

const schema = object({
  format: number()
    .strict(true)
    .oneOf([1], '${path} must be 1: this program reads project format 1')
    .required(),
  name: text(),
  notes: optionalText(),
  stance: string().strict(true).oneOf(stances).required(),
  needs: object({
    devices: array().of(device).max(mostDevices).required(),
    limits: object({
      ambient: quantity('°C').min(-60).max(150).required(),
      coldest: quantity('°C').min(-60).max(150).optional(),
      charges: number().strict(true).integer().min(1).max(100_000).optional(),
      current: quantity('A').min(0).max(100).optional(),
      price: number().strict(true).min(0).max(1e6).optional(),
      runtime: quantity('s').min(1).max(1e10).optional(),
      energy: quantity('Wh').min(1e-6).max(1e5).optional(),
      heat: quantity('°C').min(-60).max(300).optional(),
      parts: number().strict(true).integer().min(1).max(10_000).optional(),
      area: quantity('cm²').min(0.1).max(1e5).optional(),
      awake: number().strict(true).min(0).max(1).optional(),
    })
      .exact()
      .required(),
    radio: boolean().strict(true).optional(),
    states: array().of(state).min(1).max(40).optional(),
    busSpeed: quantity('Hz').oneOf(busSpeeds).optional(),
    busSpeeds: object({
      2: quantity('Hz').oneOf(busSpeeds).optional(),
      3: quantity('Hz').oneOf(busSpeeds).optional(),
      4: quantity('Hz').oneOf(busSpeeds).optional(),
    })
      .exact()
      .optional()
      .default(undefined),
  })
    .exact()
    .required(),
  chip: object({
    part: identifier().optional(),
    also: array().of(identifier()).max(3).optional(),
    clock: object({
      source: identifier(),
      frequency: quantity('Hz').min(0).max(1e10).required(),
      part: identifier().optional(),
    })
      .exact()
      .optional()
      .default(undefined),
  })
    .exact()
    .required(),
  pins: object({
    locks: names as never,
    soldered: lazy((value: unknown) =>
      value === undefined ? object().optional().default(undefined) : recordOf(value, identifier).required(),
    ) as never,
    resetAsPort: boolean().strict(true).optional(),
    excluded: array().of(identifier()).max(1000).required(),
    kept: names as never,
    radio: perSignal(radioAnswers) as never,
    shifts: perSignal(shiftKinds) as never,
  })
    .exact()
    .required(),
  power: object({
    source: identifier().optional(),
    cells: cells(),
    feedCells: cells(),
    regulator: identifier().optional(),
    guard: identifier().optional(),
    feed: identifier().optional(),
    rails: array().of(rail).min(1).max(mostRails).optional(),
    lead: lead(),
    feedLead: lead(),
    latch: object({
      pass: identifier().optional(),
      diode: identifier().optional(),
      pullUp: quantity('Ω').min(1).max(1e9).optional(),
      setUp: quantity('s').min(0).max(60).optional(),
    })
      .exact()
      .optional()
      .default(undefined),
    charging: object({
      charger: identifier().required(),
      from: identifier().optional(),
      current: quantity('A').min(1e-4).max(100).optional(),
      sun: number().strict(true).min(0).max(24).optional(),
    })
      .exact()
      .optional()
      .default(undefined),
    measured: array().of(measurement).max(200).optional(),
  })
    .exact()
    .required(),
  parts: lazy((value: unknown) =>
    value === undefined
      ? object().optional().default(undefined)
      : recordOf(value, () => mixed().required()).required(),
  ) as never,
  build: object({ support: sides as never })
    .exact()
    .required(),
}).exact()

/** The facts a project carries, each read as a part file is. */
const readFacts = (given: Record<string, unknown>, faults: Fault[]): Record<string, Part> =>
  Object.fromEntries(
    Object.entries(given).flatMap(([id, data]) => {
      // Twenty are told; there is no need to look for more.
      if (faults.length > 20) return []
      try {
        const part = readPart(data, id)
        if (part.id !== id) faults.push({ path: `parts.${id}.id`, message: `must be ${id}, not ${part.id}` })
        return [[id, part]]
      } catch (error) {
        if (!(error instanceof FaultyFile)) throw error
        faults.push(...error.faults.map((f) => ({ path: `parts.${id}.${f.path}`, message: f.message })))
        return []
      }
    }),
  )

/** States that can’t all be: which would leave no rest of the time, or two, or speak of what is not there. */
const stateFaults = ({ devices, limits, states }: Design['needs']): Fault[] => {
  if (!states) return []
  const faults: Fault[] = []
  const seen = new Set<string>()
  states.forEach(({ id, lasts, every, perDay, begins, modes }, i) => {
    const add = (field: string, message: string) =>
      faults.push({ path: `needs.states[${i}].${field}`, message })
    if (seen.has(id)) add('id', `${id} is there twice`)
    seen.add(id)
    const often = [every, perDay].filter((x) => x !== undefined).length
    if (lasts === undefined && often > 0) add('lasts', 'says how often it comes, and not how long it lasts')
    if (lasts !== undefined && often === 0) add('every', 'or perDay must say how often it comes')
    if (often > 1) add('perDay', 'and every both say how often it comes: one of them is enough')
    if (begins !== undefined && begins !== 'clock' && !devices.some((d) => d.id === begins))
      add('begins', `there is no device ${begins}; it may be clock`)
    for (const device of Object.keys(modes ?? {}))
      if (!devices.some((d) => d.id === device)) add(`modes.${device}`, `there is no device ${device}`)
  })
  const rest = states.filter((s) => s.lasts === undefined)
  if (rest.length !== 1)
    faults.push({
      path: 'needs.states',
      message: `one of them, without lasts, must have the rest of the time; ${rest.length === 0 ? 'none' : rest.map((s) => s.id).join(' and ')} has`,
    })
  if (limits.awake !== undefined)
    faults.push({ path: 'needs.limits.awake', message: 'is said by needs.states here: leave it out' })
  return faults
}

/** Rails that are there twice or feed one another, and what is fed by one that isn’t there. */
const railFaults = ({ needs, power }: Design): Fault[] => {
  const rails = power.rails ?? []
  const there = feedersOf({ power })
  const fed = (by: string | undefined, elsewhere: string): string | undefined =>
    by === undefined || (there.some((f) => f === by) && by !== elsewhere)
      ? undefined
      : `must be one of ${there.filter((f) => f !== elsewhere).join(', ')}, or left out: ${elsewhere}`
  const faults = [
    ...needs.devices.map((d, i) => ({ path: `needs.devices[${i}].fedBy`, message: fed(d.fedBy, 'rail') })),
    ...rails.map((r, i) => ({ path: `power.rails[${i}].from`, message: fed(r.from, 'source') })),
    ...rails.map(({ id }, i) => ({
      path: `power.rails[${i}].id`,
      message: rails.findIndex((r) => r.id === id) < i ? `${id} is there twice` : undefined,
    })),
  ]
  const round = loopIn(rails)
  return [
    ...faults.flatMap(({ path, message }) => (message === undefined ? [] : [{ path, message }])),
    ...(round ? [{ path: 'power.rails', message: `${round.join(', ')} feed one another` }] : []),
  ]
}

/** Before each of them is looked at. */
const notTooMany = (data: unknown, file: string): void => {
  const { needs, parts } = (data ?? {}) as { needs?: { devices?: unknown } | null; parts?: unknown }
  const devices = needs?.devices
  if (Array.isArray(devices) && devices.length > mostDevices)
    throw new FaultyFile(file, [
      {
        path: 'needs.devices',
        message: `has ${devices.length} devices; at most ${mostDevices} can be planned`,
      },
    ])
  const facts = typeof parts === 'object' && parts !== null ? Object.keys(parts).length : 0
  if (facts > mostFacts)
    throw new FaultyFile(file, [
      { path: 'parts', message: `has the facts of ${facts} parts; at most ${mostFacts} can be kept` },
    ])
}

/** Reads a design. Throws FaultyFile with every fault and its path. */
export const readDesign = (data: unknown, file: string): Design => {
  withinBounds(data, file)
  notTooMany(data, file)
  const design = readWith<unknown>(schema, data, file) as Design
  const faults: Fault[] = []
  const seen = new Set<string>()
  design.needs.devices.forEach((d, i) => {
    if (seen.has(d.id)) faults.push({ path: `needs.devices[${i}].id`, message: `${d.id} is there twice` })
    seen.add(d.id)
  })
  faults.push(...stateFaults(design.needs), ...railFaults(design))
  const measured = design.power.measured ?? []
  measured.forEach(({ id }, i) => {
    if (measured.findIndex((m) => m.id === id) < i)
      faults.push({ path: `power.measured[${i}].id`, message: `${id} is there twice` })
  })
  const parts = design.parts && readFacts(design.parts, faults)
  if (faults.length > 0) throw new FaultyFile(file, faults)
  return parts ? { ...design, parts } : design
}
