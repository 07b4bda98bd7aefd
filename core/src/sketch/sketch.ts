// A device of which no sheet is at hand: what a builder knows of it in a few words, and the part file made of that.
// Whatever the builder did not say is assumed on the careful side, marked so in the file, and told in words.

import { formatQuantity } from '../quantity'

export const sketchSorts = [
  'load',
  'motor',
  'led',
  'strip',
  'contact',
  'sensor',
  'two-wire',
  'spi',
  'serial',
  'module',
] as const
export type SketchSort = (typeof sketchSorts)[number]

export const sortWords: Record<SketchSort, string> = {
  load: 'load switched on and off',
  motor: 'motor, pump, valve or coil',
  led: 'LED',
  strip: 'strip of addressed lights',
  contact: 'contact or button',
  sensor: 'analog sensor',
  'two-wire': 'two-wire (I2C) device',
  spi: 'SPI device',
  serial: 'serial device',
  module: 'module with plain lines',
}

/** What can hurt someone with it. */
export type Hazard = 'mains' | 'lithium' | 'heat' | 'motor' | 'light'

export interface Sketch {
  name: string
  sort: SketchSort
  /** Rated, V; absent: not known. Contacts and LEDs have none. */
  supply?: number
  /** A, one piece. */
  rest?: number
  work?: number
  /** Of a two-wire device. */
  address?: number
  /** Of a module: lines that the chip drives, and those that it reads. */
  drives?: readonly string[]
  reads?: readonly string[]
  /** Those that its words name; what moves or may get hot by its sort is added. */
  hazards?: readonly Hazard[]
}

export interface Assumed {
  /** `supply`, `modes`: the field of the part file. */
  field: string
  /** “stalled it takes 2 A, five times what it runs at”. */
  words: string
}

const volts = (v: number) => formatQuantity(v, 'V', 3)
const amps = (i: number) => formatQuantity(i, 'A', 3)

/** Small motors with brushes stall at three to ten times the current that they run at. */
const stall = 5
/** By its sort: what moves, and what turns its current into heat. */
const hazardsOf: Partial<Record<SketchSort, readonly Hazard[]>> = { motor: ['motor'], load: ['heat'] }

/** Without the last digit of a product of two fractions. */
const plain = (value: number) => Number(value.toPrecision(12))
/** How far off its rated voltage a thing may run, where its sheet has not been read. */
const slack = 0.1
/** Of modules and sensors, A: more than most take. */
const usualWork: Record<Exclude<SketchSort, 'contact'>, number> = {
  load: 0.1,
  motor: 0.2,
  led: 5e-3,
  strip: 0.5,
  sensor: 5e-3,
  'two-wire': 5e-3,
  spi: 50e-3,
  serial: 50e-3,
  module: 20e-3,
}

type Json = Record<string, unknown>
const source = 'assumed: its sheet has not been read for this'
const told = 'as the builder put it'

interface Making {
  sketch: Sketch
  supply: number
  work: number
  assume: (field: string, words: string) => void
}

const listens = {
  kind: 'logic-input',
  high: { factor: 0.7 },
  low: { factor: 0.3 },
}
const speaks = { kind: 'logic-output' }
const signal = (terminal: string, kind: string, electrical: Json, more: Json = {}): Json => ({
  id: terminal,
  terminal,
  kind,
  electrical,
  ...more,
})
const line = (bus: string, name: string, electrical: Json): Json =>
  signal(name, 'bus', electrical, { bus, line: name })

const switched = (inductive: boolean, { work, sketch, assume }: Making, most: number): Json[] => {
  if (inductive)
    assume('wirings.switched', 'it is a coil: a diode carries its current when it is switched off')
  assume('wirings.switched', 'it is switched on its ground side')
  return [
    signal(
      '-',
      'digital-out',
      {
        kind: 'switched',
        transistor: most > smallTransistor ? 'nfet-strong' : 'nfet-small',
        ...(inductive ? { inductive: true, diode: most > smallDiode ? 'diode-strong' : 'diode-small' } : {}),
        current: { typ: work, max: most, kind: 'assumed', source: sketch.work === undefined ? source : told },
      },
      { quiet: true },
    ),
  ]
}
/** What the library’s small ones carry, A. */
const smallTransistor = 0.3
const smallDiode = 0.2

const levels = (assume: Making['assume']) =>
  assume('wirings.levels', 'high from 0.7 of its supply, low up to 0.3 of it, as CMOS inputs are')

/** Signals of each sort; what is assumed of them is told. */
const signalsOf: Record<SketchSort, (of: Making, most: number) => Json[]> = {
  load: (of, most) => switched(false, of, most),
  motor: (of, most) => switched(true, of, most),
  led: ({ work, assume }) => {
    assume('wirings.light', 'a red LED, its resistor worked out for that current')
    return [signal('anode', 'digital-out', { kind: 'led', led: 'led-red', current: work, to: 'ground' })]
  },
  strip: ({ assume, supply }) => {
    // The chips in its lamps live on 5 V, whatever feeds the lamps.
    const own = 5
    const high = { factor: 0, offset: listens.high.factor * own }
    const low = { factor: 0, offset: listens.low.factor * own }
    if (supply <= own * (1 + slack)) levels(assume)
    else
      assume(
        'wirings.levels',
        `its chips make their own ${volts(own)}: high from ${volts(high.offset)}, low up to ${volts(low.offset)}`,
      )
    assume('wirings.DIN', '800 kbit/s on one line, each bit good to 12 %')
    const reads = supply <= own * (1 + slack) ? listens : { ...listens, high, low }
    return [signal('DIN', 'digital-out', reads, { quiet: true, rate: 800e3, timing: 0.12 })]
  },
  contact: ({ assume }) => {
    assume('wirings.contact', 'it closes to ground, and leaks at most 0.1 µA open')
    return [signal('1', 'digital-in', { kind: 'contact', leakage: { max: 1e-7, kind: 'assumed', source } })]
  },
  sensor: ({ assume, supply }) => {
    assume('wirings.OUT', `between 0 V and its supply (${volts(supply)}), through at most 10 kΩ`)
    return [
      signal('OUT', 'analog-in', {
        kind: 'analog',
        max: supply,
        sourceResistance: { typ: 1e3, max: 10e3, kind: 'assumed', source },
      }),
    ]
  },
  'two-wire': ({ assume, sketch }) => {
    assume('wirings.bus', '100 kHz, 3 mA of pull, 10 pF a line, no pull-ups on it')
    if (sketch.address === undefined)
      assume('wirings.address', 'its address is not known: a clash with another device is not found')
    const end = {
      kind: 'open-drain',
      sinkCurrent: { min: 3e-3, kind: 'assumed', source },
      capacitance: { typ: 10e-12, kind: 'assumed', source },
    }
    return ['SDA', 'SCL'].map((name) => line('i2c', name, end))
  },
  spi: ({ assume }) => {
    levels(assume)
    return [
      line('spi', 'SCK', listens),
      line('spi', 'MOSI', listens),
      line('spi', 'MISO', speaks),
      signal('CS', 'digital-out', listens, { quiet: true }),
    ]
  },
  serial: ({ assume }) => {
    levels(assume)
    return [
      signal('RX', 'bus', listens, { bus: 'uart', line: 'TX' }),
      signal('TX', 'bus', speaks, { bus: 'uart', line: 'RX' }),
    ]
  },
  module: ({ assume, sketch: { drives = [], reads = [] } }) => {
    levels(assume)
    const none = drives.length + reads.length === 0
    if (none) assume('wirings.LINE', 'one line, which the chip drives')
    return [
      ...(none ? ['LINE'] : drives).map((name) => signal(name, 'digital-out', listens, { quiet: true })),
      ...reads.map((name) => signal(name, 'digital-in', speaks)),
    ]
  },
}

const isSwitched = (sort: SketchSort) => sort === 'load' || sort === 'motor'
/** Fed through its leg, or by nothing. */
const isPassive = (sort: SketchSort) => sort === 'led' || sort === 'contact'

const terminalsOf = (sort: SketchSort, signals: readonly Json[]): Json[] => {
  const legs = signals.map((s) => ({
    id: s.terminal,
    role: isSwitched(sort) || isPassive(sort) ? 'passive' : 'signal',
  }))
  if (isSwitched(sort)) return [{ id: '+', role: 'supply' }, ...legs]
  return isPassive(sort)
    ? [...legs, { id: sort === 'led' ? 'cathode' : '2', role: 'ground' }]
    : [{ id: 'VCC', role: 'supply' }, { id: 'GND', role: 'ground' }, ...legs]
}

/** The part file of a sketch under an id of its own, and what it assumes. */
export const sketchedPart = (
  sketch: Sketch,
  id: string,
): { file: Json; assumed: Assumed[]; cautions: Hazard[] } => {
  const { name, sort, rest } = sketch
  const assumed: Assumed[] = []
  const assume = (field: string, words: string) => assumed.push({ field, words })
  const supply = sketch.supply ?? 5
  const [low, high] = [plain(supply * (1 - slack)), plain(supply * (1 + slack))]
  if (!isPassive(sort)) {
    if (sketch.supply === undefined) assume('supply', `it runs on ${volts(supply)}`)
    assume('supply', `from ${volts(low)} to ${volts(high)}, a tenth around that`)
  }
  const work = sketch.work ?? (sort === 'contact' ? 0 : usualWork[sort])
  if (sketch.work === undefined && sort !== 'contact') assume('modes.work', `it takes ${amps(work)} at work`)
  const most = sort === 'motor' ? plain(work * stall) : work
  const cautions = [...new Set([...(sketch.hazards ?? []), ...(hazardsOf[sort] ?? [])])]
  if (sort === 'motor')
    assume('modes.work', `starting or stalled it takes ${amps(most)}, five times what it runs at`)
  if (rest === undefined && !isPassive(sort))
    assume('modes.rest', isSwitched(sort) ? 'off it takes nothing' : `at rest it takes as much as at work`)
  const idle = rest ?? (isSwitched(sort) ? 0 : work)
  const signals = signalsOf[sort]({ sketch, supply, work, assume }, most)
  assume('memory', '500 bytes of program and 20 of data for its driver')
  assume('price', 'its price is not known')
  return {
    assumed,
    cautions,
    file: {
      format: 2,
      kind: 'device',
      id,
      name,
      group: sortWords[sort],
      sheet: 'a sketch, without a sheet',
      price: 0,
      assumed: [...new Set(assumed.map(({ field }) => field.split('.')[0]!))],
      terminals: terminalsOf(sort, signals),
      modes: isPassive(sort)
        ? []
        : [
            {
              id: 'rest',
              name: isSwitched(sort) ? 'off' : 'at rest',
              current: { typ: idle, max: idle, kind: 'assumed', source: rest === undefined ? source : told },
            },
            {
              id: 'work',
              name: sort === 'motor' ? 'running, at most stalled' : 'at work',
              current: {
                typ: work,
                max: most,
                kind: 'assumed',
                source: sketch.work === undefined ? source : told,
              },
            },
          ],
      ...(isPassive(sort) ? {} : { supply: { min: low, max: high, kind: 'assumed', source } }),
      wirings: [
        {
          id: 'sketched',
          name: sortWords[sort],
          signals,
          ...(sort === 'two-wire' && sketch.address !== undefined ? { address: sketch.address } : {}),
        },
      ],
      memory: { program: 500, data: 20 },
      ...(cautions.length > 0 ? { cautions } : {}),
    },
  }
}
