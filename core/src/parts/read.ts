// From a file's JSON to a part that every stage can rely on: schema first, then the cross-references within the part
// that a schema can't see (a function of a unit that isn't there, a leg named twice).

import type { ObjectSchema } from 'yup'
import { withAssumptions } from './assumed'
import { withinBounds } from './bounds'
import { partFormat, type Rated } from './fields'
import { type Fault, FaultyFile, readWith } from './faults'
import { boardSchema } from './kinds/board'
import { type Chip, chipSchema } from './kinds/chip'
import { type Device, deviceSchema } from './kinds/device'
import * as discrete from './kinds/discrete'
import { chargerSchema, protectionSchema } from './kinds/charging'
import { type Fuse, fuseSchema, type Wire, wireSchema } from './kinds/lead'
import { regulatorSchema, type Source, sourceSchema } from './kinds/supply'
import type { Part } from './library'
import { fullRange } from '../quantity'

export const schemas: Record<Part['kind'], ObjectSchema<object>> = {
  chip: chipSchema,
  device: deviceSchema,
  board: boardSchema,
  source: sourceSchema,
  regulator: regulatorSchema,
  led: discrete.ledSchema,
  diode: discrete.diodeSchema,
  transistor: discrete.transistorSchema,
  crystal: discrete.crystalSchema,
  resonator: discrete.resonatorSchema,
  resistors: discrete.resistorsSchema,
  capacitors: discrete.capacitorsSchema,
  connector: discrete.connectorSchema,
  switch: discrete.switchSchema,
  buffer: discrete.bufferSchema,
  wire: wireSchema,
  fuse: fuseSchema,
  charger: chargerSchema,
  protection: protectionSchema,
}

const sourceFaults = (source: Source): Fault[] => [
  ...dischargeFaults(source),
  ...wearFaults(source),
  ...joinFaults(source),
]

/** Cells that are charged on a board or guarded one by one are not joined here: each would have to be watched by itself. */
const joinFaults = ({ joins, sort, charging, protection }: Source): Fault[] => [
  ...(joins && sort !== 'cells' ? [{ path: 'joins', message: 'is for cells alone' }] : []),
  ...(joins && (charging ?? protection)
    ? [
        {
          path: 'joins',
          message:
            'must be left out where charging or protection is stated: joined, each would have to be watched by itself',
        },
      ]
    : []),
]

/** What cells are in the cold and with age is stated along a line that goes one way, of less than all and of more than nothing. */
const wearFaults = ({ cold, worn }: Source): Fault[] => {
  const of = (
    field: string,
    along: string,
    points: readonly { at: number; charge: Rated; resistance: Rated }[],
  ): Fault[] =>
    points.flatMap(({ at, charge, resistance }, i) => [
      ...(i > 0 && at <= points[i - 1]!.at
        ? [
            {
              path: `${field}[${i}].${along}`,
              message: `must be more than ${points[i - 1]!.at}, the one before`,
            },
          ]
        : []),
      ...(fullRange(charge).min < 0
        ? [{ path: `${field}[${i}].charge`, message: 'must not be less than 0: nothing is left' }]
        : []),
      ...(fullRange(resistance).min <= 0
        ? [{ path: `${field}[${i}].resistance`, message: 'must be more than 0, 1 at 20 °C and new' }]
        : []),
    ])
  return [
    ...of(
      'cold',
      'air',
      (cold ?? []).map((p) => ({ ...p, at: p.air })),
    ),
    ...of(
      'worn',
      'charges',
      (worn ?? []).map((p) => ({ ...p, at: p.charges })),
    ),
  ]
}

/** A curve of cells goes from full to empty, and its voltage with it. */
const dischargeFaults = ({ discharge }: Source): Fault[] => {
  if (!discharge) return []
  const faults: Fault[] = []
  discharge.forEach(({ used, voltage }, i) => {
    const before = discharge[i - 1]
    if (before && used <= before.used)
      faults.push({
        path: `discharge[${i}].used`,
        message: `must be more than ${before.used}, the one before`,
      })
    for (const line of ['min', 'typ', 'max'] as const)
      if (before && fullRange(voltage)[line] >= fullRange(before.voltage)[line])
        faults.push({
          path: `discharge[${i}].voltage`,
          message: `must be lower than the one before (${line})`,
        })
  })
  if (discharge[0]!.used !== 0) faults.push({ path: 'discharge[0].used', message: 'must be 0: fresh cells' })
  if (discharge.at(-1)!.used !== 1)
    faults.push({ path: `discharge[${discharge.length - 1}].used`, message: 'must be 1: empty cells' })
  return faults
}

const chipFaults = (chip: Chip): Fault[] => {
  const faults: Fault[] = []
  const units = new Map(chip.units.map((u) => [u.id, new Set(u.signals)]))
  const pins = new Set<string>()
  const legs = new Map<number, string>()
  chip.pins.forEach((pin, i) => {
    if (pins.has(pin.id)) faults.push({ path: `pins[${i}].id`, message: `pin ${pin.id} is there twice` })
    pins.add(pin.id)
    pin.legs.forEach((leg, j) => {
      const path = `pins[${i}].legs[${j}]`
      if (leg < 1 || leg > chip.package.legs)
        faults.push({ path, message: `leg ${leg} is not on a package of ${chip.package.legs} legs` })
      const other = legs.get(leg)
      if (other) faults.push({ path, message: `leg ${leg} is named both ${other} and ${pin.id}` })
      legs.set(leg, pin.id)
    })
    pin.functions?.forEach((f, j) => {
      const path = `pins[${i}].functions[${j}]`
      const signals = units.get(f.unit)
      if (!signals) faults.push({ path, message: `there is no unit ${f.unit}` })
      else if (!signals.has(f.signal))
        faults.push({ path, message: `unit ${f.unit} has no signal ${f.signal}` })
    })
  })
  if (legs.size < chip.package.legs)
    faults.push({
      path: 'pins',
      message: `the package has ${chip.package.legs} legs, ${legs.size} are named; missing: ${missingLegs(chip, legs).join(', ')}`,
    })
  const drivers = new Set(chip.io.drivers?.map((d) => d.id))
  chip.pins.forEach((pin, i) => {
    if (pin.driver !== undefined && !drivers.has(pin.driver))
      faults.push({ path: `pins[${i}].driver`, message: `there is no driver ${pin.driver}` })
  })
  const known = (id: string, path: string) => {
    if (!pins.has(id)) faults.push({ path, message: `there is no pin ${id}` })
  }
  chip.clockSources.forEach((s, i) => s.pins?.forEach((p, j) => known(p, `clockSources[${i}].pins[${j}]`)))
  chip.limits.groups?.forEach((g, i) => g.pins.forEach((p, j) => known(p, `limits.groups[${i}].pins[${j}]`)))
  chip.support.decoupling.forEach((d, i) => known(d.pin, `support.decoupling[${i}].pin`))
  if (chip.support.reset) known(chip.support.reset.pin, 'support.reset.pin')
  chip.programming.forEach((m, i) =>
    m.contacts.forEach((c, j) => {
      if (c.at !== 'supply' && c.at !== 'ground') known(c.at, `programming[${i}].contacts[${j}].at`)
    }),
  )
  chip.matrix?.forEach((m, i) => {
    m.pins.forEach((p, j) => known(p, `matrix[${i}].pins[${j}]`))
    m.units.forEach((u, j) => {
      if (!units.has(u)) faults.push({ path: `matrix[${i}].units[${j}]`, message: `there is no unit ${u}` })
    })
  })
  return faults
}

/** What it may carry in other air follows from what is left to what its insulation stands: there must be something left. */
const wireFaults = ({ ratedAt, insulation }: Wire): Fault[] =>
  ratedAt < fullRange(insulation).max
    ? []
    : [
        {
          path: 'ratedAt',
          message: `must be below the ${fullRange(insulation).max} °C that its insulation stands`,
        },
      ]

const fuseFaults = ({ derating, current, trips }: Fuse): Fault[] => [
  ...derating.flatMap(({ air }, i) =>
    i > 0 && air <= derating[i - 1]!.air
      ? [{ path: `derating[${i}].air`, message: `must be more than ${derating[i - 1]!.air}, the one before` }]
      : [],
  ),
  ...(fullRange(trips).max > fullRange(current).max
    ? []
    : [{ path: 'trips', message: 'must be more than it carries for ever' }]),
]

/** What a schema can’t see. */
const faultsOf = (part: Part): Fault[] => {
  if (part.kind === 'chip') return chipFaults(part)
  if (part.kind === 'device') return deviceFaults(part)
  if (part.kind === 'wire') return wireFaults(part)
  if (part.kind === 'fuse') return fuseFaults(part)
  return part.kind === 'source' ? sourceFaults(part) : []
}

const missingLegs = (chip: Chip, named: Map<number, string>): number[] =>
  Array.from({ length: Math.min(chip.package.legs, 1000) }, (_, i) => i + 1).filter((leg) => !named.has(leg))

const deviceFaults = (device: Device): Fault[] => {
  const faults: Fault[] = []
  const terminals = new Set(device.terminals.map((t) => t.id))
  device.wirings.forEach(({ chain, signals }, i) => {
    if (!chain) return
    const path = `wirings[${i}].chain`
    if (!signals.some((s) => s.id === chain.in))
      faults.push({ path: `${path}.in`, message: `this wiring has no signal ${chain.in}` })
    if (!terminals.has(chain.out))
      faults.push({ path: `${path}.out`, message: `there is no terminal ${chain.out}` })
  })
  const used = new Set<string>()
  device.drives?.outputs.forEach((output, i) => {
    for (const side of ['one', 'other'] as const) {
      const path = `drives.outputs[${i}].${side}`
      const terminal = device.terminals.find((t) => t.id === output[side])
      if (!terminal) faults.push({ path, message: `there is no terminal ${output[side]}` })
      else if (terminal.role !== 'passive')
        faults.push({ path, message: `terminal ${output[side]} is not passive` })
      if (used.has(output[side])) faults.push({ path, message: `terminal ${output[side]} is named twice` })
      used.add(output[side])
    }
  })
  device.wirings.forEach((w, i) =>
    w.signals.forEach((s, j) => {
      const path = `wirings[${i}].signals[${j}]`
      if (!terminals.has(s.terminal))
        faults.push({ path: `${path}.terminal`, message: `there is no terminal ${s.terminal}` })
      if (s.kind === 'bus' && !(s.bus && s.line))
        faults.push({ path, message: 'a bus signal needs bus and line' })
      if (s.kind === 'pwm' && !s.frequency) faults.push({ path, message: 'a pwm signal needs its frequency' })
      if (s.at !== undefined && !device.expansion?.positions.some((p) => p.at === s.at))
        faults.push({ path: `${path}.at`, message: `the expansion has no position ${s.at}` })
      if (device.expansion && s.at === undefined)
        faults.push({ path, message: 'a signal of an expansion board needs the position it is at' })
    }),
  )
  return faults
}

/** A file of an older format as it would be written today: all that format 1 could say is said in the same way. */
const upgraded = (data: Record<string, unknown>): Record<string, unknown> =>
  data.format === 1 ? { ...data, format: partFormat } : data

/** Reads one part. `file` is used in the faults. Throws FaultyFile. */
export const readPart = (data: unknown, file: string): Part => {
  withinBounds(data, file)
  const kind = (data as { kind?: unknown } | null)?.kind
  if (typeof kind !== 'string' || !Object.hasOwn(schemas, kind))
    throw new FaultyFile(file, [
      { path: 'kind', message: `must be one of ${Object.keys(schemas).join(', ')}` },
    ])
  const now = upgraded(data as Record<string, unknown>)
  const whole = kind === 'chip' ? withAssumptions(now) : now
  const part = readWith(schemas[kind as Part['kind']], whole, file) as Part
  const faults = faultsOf(part)
  if (faults.length > 0) throw new FaultyFile(file, faults)
  return part
}
