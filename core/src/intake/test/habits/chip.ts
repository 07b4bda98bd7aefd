// A made-up chip of 8 to 144 legs: what each leg is called, which way it goes and what else it can be. Every function is
// known twice: as its sheet spells it, and as unit and signal. Nothing here knows how a table is read.

import type { ExpectedLeg } from '../expected'
import type { Dice } from './random'

export interface Spelled {
  /** As the sheet writes it: TXD1. */
  text: string
  /** What it is: UART1.TX. */
  is: string
}
export interface HabitLeg {
  /** As the sheet writes it without decoration. */
  name: string
  legs: number[]
  type: ExpectedLeg['type']
  functions: (Spelled & { select?: number })[]
  /** What its own name says it is, and no list of functions repeats: OSC.XTAL1. */
  own?: string
  reset?: boolean
}
export interface HabitChip {
  count: number
  legs: HabitLeg[]
  units: [id: string, kind: string][]
  /** Families whose kind nobody can see from a name, with what they are. */
  strange: [family: string, kind: string][]
}

type Speller = (unit: number, signal: string) => string
interface Peripheral {
  unit: string
  kind: string
  signals: string[]
  /** Ways to spell a signal; one is chosen for a whole chip. */
  spellings: Speller[]
}
const withUnit =
  (unit: string, mark: string): Speller =>
  (n, s) =>
    `${unit}${n}${mark}${s}`

/** What a chip may have. The signals are the ones that units are known by throughout this project. */
const peripherals: readonly Peripheral[] = [
  {
    unit: 'UART',
    kind: 'uart',
    signals: ['TX', 'RX', 'CTS', 'RTS'],
    spellings: [
      withUnit('UART', '_'),
      withUnit('UART', '.'),
      (n, s) => `${s.replace(/^([TR])X$/, '$1XD')}${n}`,
      (n, s) => `UART${n}${s.replace(/^([TR])X$/, '_$1XD').replace(/^([CR]TS)$/, '_$1')}`,
    ],
  },
  {
    unit: 'I2C',
    kind: 'i2c',
    signals: ['SDA', 'SCL'],
    spellings: [withUnit('I2C', '_'), withUnit('I2C', '.'), (n, s) => `${s}${n}`],
  },
  {
    unit: 'SPI',
    kind: 'spi',
    signals: ['SCK', 'MOSI', 'MISO', 'SS'],
    spellings: [withUnit('SPI', '_'), withUnit('SPI', ':'), (n, s) => `${s}${n}`],
  },
  {
    unit: 'TMR',
    kind: 'timer',
    signals: ['CH1', 'CH2', 'CH3', 'CH4'],
    spellings: [withUnit('TMR', '_'), withUnit('TMR', '.')],
  },
  { unit: 'TC', kind: 'timer', signals: ['CH1', 'CH2'], spellings: [(n, s) => `TC${n}_${s}`] },
  { unit: 'CAN', kind: 'can', signals: ['TX', 'RX'], spellings: [withUnit('CAN', '_')] },
  {
    unit: 'CMP',
    kind: 'comparator',
    signals: ['INP', 'INM', 'OUT'],
    spellings: [withUnit('CMP', '_')],
  },
  // Families of one maker’s own words.
  { unit: 'QLINK', kind: 'i2c', signals: ['SDA', 'SCL'], spellings: [withUnit('QLINK', '_')] },
  { unit: 'RTM', kind: 'timer', signals: ['CH1', 'CH2', 'CH3'], spellings: [withUnit('RTM', '_')] },
  { unit: 'SERCO', kind: 'spi', signals: ['SCK', 'MOSI', 'MISO'], spellings: [withUnit('SERCO', '_')] },
]
/** Families of numbered channels: ADC channel 5, interrupt 3. */
const channels: readonly { is: (n: number) => string; kind: string; spellings: ((n: number) => string)[] }[] =
  [
    {
      is: (n) => `ADC.IN${n}`,
      kind: 'converter',
      spellings: [(n) => `AIN${n}`, (n) => `ADC${n}`, (n) => `AN${n}`],
    },
    { is: (n) => `ADC1.IN${n}`, kind: 'converter', spellings: [(n) => `ADC1_IN${n}`, (n) => `ADC1_CH${n}`] },
    { is: (n) => `INT.INT${n}`, kind: 'interrupt', spellings: [(n) => `INT${n}`] },
    { is: (n) => `EINT.INT${n}`, kind: 'interrupt', spellings: [(n) => `EINT${n}`] },
    { is: (n) => `PWM.CH${n}`, kind: 'timer', spellings: [(n) => `PWM${n}`] },
    { is: (n) => `TOUCH.T${n}`, kind: 'touch', spellings: [(n) => `TOUCH${n}`] },
  ]

const portNames: readonly ((n: number) => string)[] = [
  (n) => `P${'ABCDEFGHJK'[Math.floor(n / 16)]}${n % 16}`,
  (n) => `P${Math.floor(n / 8)}.${n % 8}`,
  (n) => `P${Math.floor(n / 8)}_${n % 8}`,
  (n) => `IO${n}`,
  (n) => `GPIO${n}`,
  (n) => `R${'ABCDEFGHJKLMNPQRSTUV'[Math.floor(n / 8)]}${n % 8}`,
]
const resets = ['NRST', 'RESET', 'RST', 'NRESET', 'RESETN', 'RESET_N', 'RST_N', 'MCLR', 'NRST'] as const
const crystals = [
  ['XTAL1', 'XTAL2'],
  ['XIN', 'XOUT'],
  ['OSC1', 'OSC2'],
  ['OSC_IN', 'OSC_OUT'],
  ['XTALIN', 'XTALOUT'],
] as const
const supplies = ['VDD', 'VCC', 'VDDIO', 'AVDD', 'AVCC', 'VDDA', 'VBAT'] as const
const grounds = ['VSS', 'GND', 'AGND', 'VSSA', 'DGND'] as const

/** `selected`: each function is chosen by a number, no two of a leg by the same. */
export const makeChip = (d: Dice, selected: number): HabitChip => {
  const count = d.one([8, 14, 16, 20, 20, 24, 28, 28, 32, 32, 40, 44, 48, 48, 64, 64, 80, 100, 144])
  const order = d.some(
    Array.from({ length: count }, (_, i) => i + 1),
    count,
  )
  const take = (n: number) => order.splice(0, n).sort((a, b) => a - b)
  const legs: HabitLeg[] = []
  const add = (name: string, type: HabitLeg['type'], n = 1, more: Partial<HabitLeg> = {}) =>
    legs.push({ name, legs: take(n), type, functions: [], ...more })
  const pairs = Math.max(1, Math.floor(count / 20))
  add(d.one(supplies.slice(0, 3)), 'supply', pairs)
  add(d.one(grounds.slice(0, 2)), 'ground', pairs)
  if (count >= 20 && d.chance(0.6)) {
    add(d.one(supplies.slice(3)), 'supply')
    add(d.one(grounds.slice(2)), 'ground')
  }
  add(d.one(resets), 'input', 1, { reset: true })
  if (count >= 20 && d.chance(0.3)) add(d.one(['VREF', 'AREF', 'VREF+', 'VCAP']), 'reference')
  if (count >= 28 && d.chance(0.25)) add('NC', 'none', 1 + d.upTo(3))
  if (count >= 16 && d.chance(0.3))
    for (const name of d.one(crystals)) add(name, 'io', 1, { own: `OSC.${name}` })
  // What is on the chip, each with one spelling.
  const kinds = d.some(peripherals, 4 + d.upTo(4))
  const numbered = d.some(channels, 1 + d.upTo(3)).map((c) => ({ ...c, spell: d.one(c.spellings) }))
  if (numbered.some((c) => c.is(0) === 'ADC.IN0') && numbered.some((c) => c.is(0) === 'ADC1.IN0'))
    numbered.splice(0, 1)
  const pool = kinds.flatMap((p) => {
    const spell = d.one(p.spellings)
    const first = d.chance(0.3) ? 0 : 1
    const many = 1 + d.upTo(count >= 48 ? 3 : 2)
    return Array.from({ length: many }, (_, i) =>
      p.signals.map((s) => ({
        text: spell(first + i, s),
        is: `${p.unit}${first + i}.${s}`,
        kind: p.kind,
        family: p.unit,
      })),
    ).flat()
  })
  const port = d.one(count >= 100 ? portNames.slice(0, 5) : portNames)
  const ports = take(order.length)
  const next = new Map<(typeof numbered)[number], number>()
  const units = new Map<string, string>()
  ports.forEach((leg, i) => {
    const functions = new Map<string, Spelled & { select?: number }>()
    for (const c of numbered)
      if (d.chance(0.35)) {
        const n = next.get(c) ?? 0
        next.set(c, n + 1)
        functions.set(c.is(n), { text: c.spell(n), is: c.is(n) })
        units.set(c.is(n).split('.')[0]!, c.kind)
      }
    for (const f of d.some(pool, d.upTo(4)))
      if (!functions.has(f.is)) {
        functions.set(f.is, { text: f.text, is: f.is })
        units.set(f.is.split('.')[0]!, f.kind)
      }
    const all = [...functions.values()]
    if (selected > 0) {
      const numbers = d.some(
        Array.from({ length: selected }, (_, n) => n),
        all.length,
      )
      all.forEach((f, n) => (f.select = numbers[n]))
      all.sort((a, b) => a.select! - b.select!)
    }
    legs.push({
      name: port(i),
      legs: [leg],
      type: 'io',
      functions: all.filter((f) => selected === 0 || f.select !== undefined),
    })
  })
  return {
    count,
    legs,
    units: [...units],
    strange: [
      ['QLINK', 'i2c'],
      ['RTM', 'timer'],
      ['SERCO', 'spi'],
      ['TC', 'timer'],
    ],
  }
}

export const expectedOf = (chip: HabitChip): ExpectedLeg[] =>
  chip.legs.map((l) => ({
    id: l.name.toUpperCase(),
    legs: l.legs,
    type: l.type,
    functions: [
      ...(l.own ? [l.own] : []),
      ...l.functions.map((f) => `${f.is}${f.select === undefined ? '' : `@${f.select}`}`),
    ],
  }))
