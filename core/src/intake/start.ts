// What an exchange file of the maker says of a chip, as the beginning of a part that pasted tables complete: legs, names
// and directions from BSDL, drivers and clamps from IBIS.

import { noAccount } from './account'
import {
  type Bsdl,
  type BsdlPort,
  type Corners,
  type Ibis,
  type IbisModel,
  readBsdl,
  readIbis,
  type TableName,
  type TablePoint,
} from '../exchange'
import { type ChipPin, FaultyFile } from '../parts'
import { isReset, typeByName } from './names'
import type { FoundLeg, Understood } from './understood'

type Json = Record<string, unknown>

export interface Start {
  name: string
  legs: FoundLeg[]
  drivers: Json[]
  /** Driver of each leg, by its name. */
  driverOf: Record<string, string>
  /** What holds for every leg, in the words of a chip’s `io`. */
  io?: Json
  /** What of the file could not be used, in words. */
  left: string[]
}

const legNumber = (leg: string): number | undefined => (/^\d{1,4}$/.test(leg) ? Number(leg) : undefined)
const identifierOf = (name: string): string =>
  name
    .replace(/\((\d+)\)$/, '$1')
    .replace(/[^A-Za-z0-9_.:+/-]/g, '_')
    .replace(/^_+/, '') || 'X'

const plainLeg = (id: string, legs: number[], type: ChipPin['type']): FoundLeg => ({
  id,
  legs,
  type,
  functions: [],
  reset: isReset(id),
  oscillator: false,
  notes: [],
  places: [],
})

const bsdlType = (mode: string, id: string): ChipPin['type'] => {
  const byName = typeByName(id)
  if (mode === 'in' || mode === 'linkage_in') return 'input'
  if (mode === 'out' || mode === 'buffer' || mode === 'linkage_out') return 'output'
  if (mode === 'inout' || mode === 'linkage_inout') return 'io'
  if (mode === 'power_0') return 'ground'
  if (mode.startsWith('power')) return 'supply'
  if (mode.startsWith('vref')) return 'reference'
  return byName ?? 'none'
}

const elementName = (p: BsdlPort) => (p.index === undefined ? p.name : `${p.name}(${p.index})`)

/** The beginning of a chip in one of the packages that the description maps; `package` defaults to the file's own. */
export const startFromBsdl = (bsdl: Bsdl, packageName?: string): Start => {
  const names = Object.keys(bsdl.maps)
  const wanted = (packageName ?? bsdl.defaultPackage)?.toLowerCase()
  const chosen = names.find((n) => n.toLowerCase() === wanted) ?? names[0]
  const map = chosen === undefined ? {} : bsdl.maps[chosen]!
  const left: string[] = []
  const tapOf = new Map(Object.entries(bsdl.tap).map(([signal, port]) => [port.toLowerCase(), signal]))
  const legs = bsdl.ports.flatMap((p): FoundLeg[] => {
    const at = map[elementName(p)]
    const id = identifierOf(elementName(p))
    if (!at) return []
    const numbers = at.map(legNumber).filter((n) => n !== undefined)
    if (numbers.length === 0) {
      left.push(`${id} is on ${at.join(', ')}: places of a grid of balls have no leg number`)
      return []
    }
    const leg = plainLeg(id, numbers, bsdlType(p.mode, id))
    const tap = tapOf.get(p.name.toLowerCase())
    return [tap ? { ...leg, debug: tap } : leg]
  })
  return { name: bsdl.entity, legs, drivers: [], driverOf: {}, left }
}

const ibisTypes: Record<string, ChipPin['type']> = {
  input: 'input',
  output: 'output',
  '3-state': 'output',
  open_drain: 'output',
  open_sink: 'output',
  open_source: 'output',
  terminator: 'none',
}
const typeOfModel = (model: IbisModel | undefined, name: string, word: string): ChipPin['type'] => {
  if (/^power$/i.test(word)) return 'supply'
  if (/^gnd$/i.test(word)) return 'ground'
  if (/^nc$/i.test(word)) return 'none'
  return typeByName(name) ?? ibisTypes[model?.type.toLowerCase() ?? ''] ?? 'io'
}

/** Volts and amperes as a driver's file counts them: both grow away from the rail the table belongs to. */
const facing: Record<TableName, { field: string; sign: number }> = {
  pulldown: { field: 'pullDown', sign: 1 },
  // The standard counts these volts from the supply downwards, and current into the leg.
  pullup: { field: 'pullUp', sign: -1 },
  'gnd clamp': { field: 'groundClamp', sign: -1 },
  'power clamp': { field: 'powerClamp', sign: 1 },
}
const tableFrom = (name: TableName, points: TablePoint[]): Json[] => {
  const { sign } = facing[name]
  // Clamps conduct beyond their rail: their volts are negative in the standard.
  const beyond = name.endsWith('clamp') ? -1 : 1
  return points
    .map((p) => {
      const values = [p.typ, p.min ?? p.typ, p.max ?? p.typ].map((v) => v * sign)
      const sorted = [...values].sort((a, b) => a - b)
      return {
        voltage: p.voltage * beyond,
        current: { min: sorted[0]!, typ: values[0]!, max: sorted[2]!, kind: 'guaranteed' },
      }
    })
    .filter((p) => p.voltage >= 0)
    .sort((a, b) => a.voltage - b.voltage)
    .filter((p, i, all) => i === 0 || p.voltage > all[i - 1]!.voltage)
}
const ratedOf = (c: { typ: number; min?: number; max?: number }): Json => {
  const [min, , max] = [c.min ?? c.typ, c.typ, c.max ?? c.typ].sort((a, b) => a - b)
  return { min: min!, typ: c.typ, max: max! }
}

const driverFrom = (model: IbisModel, file: string): Json => ({
  id: identifierOf(model.name),
  name: model.name,
  type: model.type,
  ...(model.voltage ? { supply: { ...ratedOf(model.voltage), kind: 'condition' } } : {}),
  ...(model.capacitance ? { capacitance: { ...ratedOf(model.capacitance), kind: 'guaranteed' } } : {}),
  ...Object.fromEntries(
    (Object.entries(model.tables) as [TableName, TablePoint[]][])
      .map(([name, points]) => [facing[name].field, tableFrom(name, points)] as const)
      .filter(([, points]) => points.length >= 2),
  ),
  source: `${file}, model ${model.name}`,
})

/** The most that a leg can weigh: its driver’s own capacitance and what the package adds. */
const capacitanceOf = (models: IbisModel[], added: Corners | undefined, source: string): Json | undefined => {
  const known = models.flatMap((m) => (m.capacitance ? [m.capacitance] : []))
  if (known.length === 0) return undefined
  const sum = (of: (c: Corners) => number) => known.map(of).map((c) => c + (added ? of(added) : 0))
  return {
    typ: Math.max(...sum((c) => c.typ)),
    max: Math.max(...sum((c) => Math.max(c.typ, c.min ?? c.typ, c.max ?? c.typ))),
    kind: 'guaranteed',
    source,
  }
}

/** Thresholds as fixed volts: the highest that must read high, the lowest that must read low. */
const thresholdsOf = (models: IbisModel[], source: string): Json => {
  const high = models.flatMap((m) => m.thresholds.high ?? [])
  const low = models.flatMap((m) => m.thresholds.low ?? [])
  return {
    ...(high.length > 0 ? { inputHigh: { factor: 0, offset: Math.max(...high), source } } : {}),
    ...(low.length > 0 ? { inputLow: { factor: 0, offset: Math.min(...low), source } } : {}),
  }
}

/** The beginning of a chip from one component of an IBIS file. */
export const startFromIbis = (ibis: Ibis, file: string, component = 0): Start => {
  const { name, pins, package: added, packageModel } = ibis.components[component]!
  const models = new Map(ibis.models.map((m) => [m.name.toLowerCase(), m]))
  const left: string[] = []
  const legs = new Map<string, FoundLeg>()
  const driverOf: Record<string, string> = {}
  for (const pin of pins) {
    const number = legNumber(pin.leg)
    const id = /^nc$/i.test(pin.model) ? 'NC' : identifierOf(pin.name)
    if (number === undefined) {
      left.push(`${id} is on ${pin.leg}: places of a grid of balls have no leg number`)
      continue
    }
    const model = models.get(pin.model.toLowerCase())
    const type = typeOfModel(model, pin.name, pin.model)
    const same = legs.get(id)
    if (same && same.type === type) same.legs.push(number)
    else legs.set(id, plainLeg(id, [number], type))
    if (model && type !== 'supply' && type !== 'ground') driverOf[id] = identifierOf(model.name)
  }
  const used = new Set(Object.values(driverOf))
  if (packageModel)
    left.push(`the package model ${packageModel} is not read: the values under [Package] are taken`)
  const modelled = ibis.models.filter((m) => used.has(identifierOf(m.name)))
  const capacitance = capacitanceOf(modelled, added.c_pkg, `${file}, C_comp and C_pkg`)
  return {
    name,
    io: { ...thresholdsOf(modelled, `${file}, Vinh and Vinl`), ...(capacitance ? { capacitance } : {}) },
    legs: [...legs.values()],
    drivers: ibis.models.map((m) => driverFrom(m, file)).filter((d) => used.has(d.id as string)),
    driverOf,
    left,
  }
}

/** Two beginnings of one chip, BSDL and IBIS: the first one's names stand, the second one's drivers are added by leg. */
export const joinStarts = (first: Start, second: Start): Start => {
  const at = new Map(first.legs.flatMap((l) => l.legs.map((n) => [n, l] as const)))
  const driverOf = { ...first.driverOf }
  for (const leg of second.legs) {
    const same = at.get(leg.legs[0]!)
    const driver = second.driverOf[leg.id]
    if (same && driver) driverOf[same.id] = driver
  }
  const missing = second.legs.filter((l) => l.legs.every((n) => !at.has(n)))
  return {
    name: first.name,
    legs: [...first.legs, ...missing],
    drivers: [...first.drivers, ...second.drivers],
    driverOf,
    io: { ...second.io, ...first.io },
    left: [...first.left, ...second.left],
  }
}

/**
 * The table with what the exchange file knows besides. The table's word on a leg goes before the file's; a leg that both
 * name differently is a contradiction, and the file's name is lost to nobody: it is said.
 */
export const withStart = (start: Start, table: Understood | undefined): Understood => {
  const inTable = new Map<number, FoundLeg>()
  for (const l of table?.legs ?? []) for (const n of l.legs) inTable.set(n, l)
  const faults = [...(table?.faults ?? [])]
  const added: FoundLeg[] = []
  for (const leg of start.legs) {
    const free = leg.legs.filter((n) => !inTable.has(n))
    const other = leg.legs
      .map((n) => inTable.get(n))
      .find((l) => l && l.id !== leg.id.toUpperCase() && l.id !== leg.id)
    const n = leg.legs.find((x) => inTable.get(x) === other)
    if (other)
      faults.push({
        path: `leg ${n}`,
        message: `is ${other.id} in the table and ${leg.id} in the exchange file`,
      })
    const named = [...inTable.values()].find((l) => l.id === leg.id || l.id === leg.id.toUpperCase())
    if (named) named.debug ??= leg.debug
    if (free.length > 0) added.push({ ...leg, legs: free })
  }
  const legs = [...(table?.legs ?? []), ...added]
  const total = Math.max(table?.total ?? 0, ...legs.flatMap((l) => l.legs), 0)
  const named = new Set(legs.flatMap((l) => l.legs))
  const missing = Array.from({ length: total }, (_, i) => i + 1).filter((n) => !named.has(n))
  return {
    ...(table ?? {
      separator: 'tab' as const,
      kinds: {},
      columns: [],
      packages: [],
      units: [],
      questions: [],
      used: [],
      account: noAccount(),
      readings: [],
    }),
    legs,
    total,
    faults: [
      ...faults.filter((f) => f.path !== 'legs'),
      ...(missing.length > 0
        ? [{ path: 'legs', message: `${total} listed, ${named.size} named; missing: ${missing.join(', ')}` }]
        : []),
    ],
  }
}

/** Puts the drivers into a chip's file: by the leg's name, else by its number. */
export const withDrivers = (file: Json, start: Start): Json => {
  if (start.drivers.length === 0) return file
  const byLeg = new Map(start.legs.flatMap((l) => l.legs.map((n) => [n, start.driverOf[l.id]] as const)))
  const io = (file.io ?? {}) as Json
  return {
    ...file,
    io: { ...start.io, ...io, drivers: start.drivers },
    pins: (file.pins as Json[]).map((pin) => {
      const driver = (pin.legs as number[]).map((n) => byLeg.get(n)).find((d) => d !== undefined)
      return driver && pin.type !== 'none' ? { ...pin, driver } : pin
    }),
  }
}

/** What one exchange file offers to begin with: each package of a description, each component of an IBIS file. */
export interface Exchange {
  kind: 'boundary scan' | 'IBIS'
  file: string
  starts: { name: string; start: Start }[]
}

const mostLines = 200_000

/** Reads an exchange file of either kind. Throws FaultyFile with the line and what was expected there. */
export const readExchange = (text: string, file: string): Exchange => {
  let lines = 1
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) lines++
  if (lines > mostLines)
    throw new FaultyFile(file, [
      { path: `line ${mostLines}`, message: `has ${lines} lines; at most ${mostLines} are read` },
    ])
  if (/^\s*\[ibis[ _]ver\]/im.test(text)) {
    const ibis = readIbis(text, file)
    return {
      kind: 'IBIS',
      file,
      starts: ibis.components.map((c, i) => ({ name: c.name, start: startFromIbis(ibis, file, i) })),
    }
  }
  if (/\bentity\b/i.test(text)) {
    const bsdl = readBsdl(text, file)
    const names = Object.keys(bsdl.maps)
    const first = names.filter((n) => n.toLowerCase() === bsdl.defaultPackage?.toLowerCase())
    return {
      kind: 'boundary scan',
      file,
      starts: [...new Set([...first, ...names])].map((name) => ({ name, start: startFromBsdl(bsdl, name) })),
    }
  }
  throw new FaultyFile(file, [
    {
      path: 'line 1',
      message: 'expected “entity” of a boundary-scan description or [IBIS Ver], found neither',
    },
  ])
}
