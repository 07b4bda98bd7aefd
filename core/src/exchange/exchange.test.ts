// BSDL and IBIS files written to the standards' grammar, good and spoilt; and what is computed from an IBIS table.

import { driverCurve, tableCurrent } from '../levels'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import {
  chipFileFrom,
  joinStarts,
  readTable,
  startFromBsdl,
  startFromIbis,
  withDrivers,
  withStart,
} from '../intake'
import { type Chip, FaultyFile, makeLibrary, readPart } from '../parts'
import { fromRule } from '../findings'
import { currentInSeries, readCurve } from '../sums'
import { ibisNumber, readBsdl, readIbis } from '.'

const file = (name: string) => readFileSync(join(__dirname, 'test', name), 'utf8')
const bsd = file('gauge-16.bsd')
const ibs = file('gauge.ibs')
const faultOf = (read: () => unknown): string => {
  try {
    read()
  } catch (error) {
    if (error instanceof FaultyFile) return error.faults.map((f) => `${f.path}: ${f.message}`).join('; ')
    throw error
  }
  return 'none'
}

describe('a boundary-scan description', () => {
  test('ports, vectors both ways, packages in any order, the test access port', () => {
    const read = readBsdl(bsd, 'x')
    expect(read).toMatchObject({ entity: 'GAUGE16', defaultPackage: 'FLAT_16' })
    expect(read.maps.FLAT_16).toMatchObject({
      'PA(0)': ['1'],
      'PA(3)': ['4'],
      'PB(1)': ['6'],
      'PB(0)': ['5'],
    })
    expect(read.maps.DIL_16).toMatchObject({ 'PA(3)': ['9'], 'VDD(1)': ['16'], GND: ['8'] })
    expect(read.tap).toEqual({ TDI: 'TDI', TDO: 'TDO', TMS: 'TMS', TCK: 'TCK' })
  })
  test('it begins a part: legs, directions, debug lines', () => {
    const legs = startFromBsdl(readBsdl(bsd, 'x')).legs.map((l) => [l.id, l.legs, l.type, l.debug])
    expect(legs).toEqual(
      expect.arrayContaining([
        ['PA0', [1], 'io', undefined],
        ['PB0', [5], 'io', undefined],
        ['TDO', [8], 'output', 'TDO'],
        ['RESET_N', [11], 'input', undefined],
        ['GND', [13], 'ground', undefined],
        ['VDD1', [12], 'supply', undefined],
        ['SPARE', [14], 'none', undefined],
      ]),
    )
    expect(startFromBsdl(readBsdl(bsd, 'x'), 'dil_16').legs.find((l) => l.id === 'GND')!.legs).toEqual([8])
  })
  test.each<[string, (t: string) => string, RegExp]>([
    [
      'an unknown mode',
      (t) => t.replace(': out     bit', ': sideways bit'),
      /^line 7: expected in, out.*“sideways”/,
    ],
    [
      'no semicolon behind the generic',
      (t) => t.replace('"FLAT_16");', '"FLAT_16")'),
      /^line 5: expected “;”, found “port”/,
    ],
    [
      'a map of an unknown port',
      (t) => t.replace('"TDI : 7', '"TDX : 7'),
      /^line 27: .*tdx, which is no port/,
    ],
    [
      'too few legs for a vector',
      (t) => t.replace('(1, 2, 3, 4)', '(1, 2, 3)'),
      /^line 25: PA has 4 elements.*3 legs/,
    ],
    [
      'a text that doesn’t end',
      (t) => t.replace('"TDI : 7, TDO : 8, "', '"TDI : 7, TDO : 8, '),
      /^line 27: a text must end/,
    ],
    [
      'a colon forgotten in the map',
      (t) => t.replace('RESET_N : 11', 'RESET_N 11'),
      /^line 29: expected “:”.*“11”/,
    ],
    ['no ports', (t) => t.replace(/ {2}port \([\s\S]*?\n {2}\);/, ''), /expected the ports/],
    ['cut off', (t) => t.slice(0, t.indexOf('attribute INSTRUCTION_LENGTH')), /found the end of the file/],
    ['nothing at all', () => '', /expected “entity”, found the end of the file/],
  ])('%s is refused with its line', (_, spoil, words) => {
    expect(faultOf(() => readBsdl(spoil(bsd), 'x'))).toMatch(words)
  })
})

describe('an IBIS file', () => {
  const read = readIbis(ibs, 'gauge.ibs')
  test('pins, models, corners with NA, another comment mark, a selector', () => {
    expect(read.components[0]).toMatchObject({
      name: 'Gauge 16',
      package: { r_pkg: { typ: 0.05, min: 0.04 }, l_pkg: { typ: 2e-9, max: 2.5e-9 } },
    })
    expect(read.components[0]!.pins.map((p) => [p.leg, p.name, p.model])).toEqual([
      ['1', 'PA0', 'strong'],
      ['2', 'PA1', 'strong'],
      ['7', 'TDI', 'ear'],
      ['12', 'VDD', 'POWER'],
      ['13', 'GND', 'GND'],
      ['14', 'SPARE', 'NC'],
    ])
    const [ear, strong] = read.models
    expect(ear).toMatchObject({
      type: 'Input',
      thresholds: { low: 0.8, high: 2 },
      voltage: { typ: 3.3, min: 3, max: 3.6 },
    })
    expect(strong!.tables.pulldown![2]).toEqual({ voltage: 0.2, typ: 8e-3, min: 5e-3, max: 12e-3 })
  })
  test('keywords with as many blanks as anyone likes, and a package of which only the usual value is known', () => {
    const spaced = ibs.replace(/^\[GND[ _]Clamp\]/gim, '[GND   Clamp]')
    expect(spaced).not.toBe(ibs)
    expect(readIbis(spaced, 'x').models).toEqual(readIbis(ibs, 'x').models)
    const short = ibs.replace(/^R_pkg.*$/im, 'R_pkg 50m')
    expect(short).not.toBe(ibs)
    expect(readIbis(short, 'x').components[0]!.package.r_pkg).toMatchObject({ typ: 0.05 })
  })
  test.each<[string, number | undefined]>([
    ['3.3V', 3.3],
    ['-10.2mA', -10.2e-3],
    ['5p', 5e-12],
    ['1.5e-3', 1.5e-3],
    ['2MHz', 2e6],
    ['.5n', 0.5e-9],
    ['NA', undefined],
  ])('the number %s', (text, value) => {
    const number = ibisNumber(text)
    if (value === undefined) expect(number).toBeUndefined()
    else expect(number).toBeCloseTo(value, 15)
  })
  test.each<[string, (t: string) => string, RegExp]>([
    ['no end', (t) => t.replace('[End]', ''), /expected \[End\]/],
    [
      'a word for a number',
      (t) => t.replace('0.2    8.0mA', '0.2    much'),
      /^line 43: expected a number or NA, found “much”/,
    ],
    [
      'a model that isn’t there',
      (t) => t.replace('PA0          strong', 'PA0          stronger'),
      /^line 12: expected a model of this file, found “stronger”/,
    ],
    ['a bracket left open', (t) => t.replace('[Ramp]', '[Ramp'), /expected a keyword closed by/],
    [
      'a table before any model',
      (t) => t.replace('[Pin]', '[Pulldown]\n[Pin]'),
      /^line 11: expected \[Model\] before/,
    ],
    ['no version first', (t) => t.split('\n').slice(1).join('\n'), /expected \[IBIS Ver\] first/],
    ['no type of a model', (t) => t.replace('Model_type Input', ''), /expected Model_type in \[Model\] ear/],
  ])('%s is refused with its line', (_, spoil, words) => {
    expect(faultOf(() => readIbis(spoil(ibs), 'x'))).toMatch(words)
  })
})

const start = joinStarts(
  startFromBsdl(readBsdl(bsd, 'x')),
  startFromIbis(readIbis(ibs, 'gauge.ibs'), 'gauge.ibs'),
)
const chipOf = (): Chip => {
  const table = withStart(start, readTable('1 PA0 ADC0\n2 PA1 TMR0_CH1\n15 PC0 UART0_TX'))
  const part = readPart(
    withDrivers(chipFileFrom(table, { id: 'gauge-16', name: 'Gauge', sheet: 's' }), start),
    'x',
  )
  if (part.kind !== 'chip') throw new Error('no chip')
  return part
}

test('both files begin the part, and a pasted table completes it', () => {
  const chip = chipOf()
  expect(chip.pins).toHaveLength(16)
  const pin = (id: string) => chip.pins.find((p) => p.id === id)
  expect(pin('PA0')).toMatchObject({
    legs: [1],
    driver: 'strong',
    functions: [{ unit: 'ADC', signal: 'IN0' }],
  })
  expect(pin('TDI')).toMatchObject({ type: 'input', driver: 'ear' })
  expect(pin('PC0')).toMatchObject({ legs: [15] })
  // 4 pF of the strong driver and 0.5 pF of the package, at most 5 and 0.5; thresholds of the one input model.
  expect(chip.io.capacitance.typ).toBeCloseTo(4.5e-12, 20)
  expect(chip.io.capacitance.max).toBeCloseTo(5.5e-12, 20)
  expect(chip.io).toMatchObject({ inputHigh: { factor: 0, offset: 2 }, inputLow: { factor: 0, offset: 0.8 } })
  expect(chip.assumed).not.toContain('io.capacitance')
  const clash = withStart(start, readTable('1 PZ9 ADC0\n2 PA1 ADC1'))
  expect(clash.faults.map((f) => `${f.path} ${f.message}`)).toContain(
    'leg 1 is PZ9 in the table and PA0 in the exchange file',
  )
})

describe('the current of a driver', () => {
  const chip = chipOf()
  const { pullDown, pullUp, powerClamp } = chip.io.drivers!.find((d) => d.id === 'strong')!
  const strong = chip.pins.find((p) => p.driver === 'strong')
  const given = (symbol: string, value: number, unit: 'V' | 'A' | 'Ω') =>
    fromRule(symbol, symbol, value, unit, 'test')
  /** Volts that the product’s own curve of the leg drops at a current. */
  const drop = (current: number) =>
    readCurve({ label: 'Drop', symbol: 'V', unit: 'V' }, driverCurve(chip, strong, 'low'), [
      'I',
      given('I', current, 'A'),
    ])
  /** Straight from the file's rows, by another way: area weights. */
  const between = (rows: [number, number][], v: number) => {
    const i = rows.findIndex(([x]) => x > v)
    const [[x0, y0], [x1, y1]] = [rows[i - 1]!, rows[i]!]
    return (y0 * (x1 - v) + y1 * (v - x0)) / (x1 - x0)
  }
  const down: Record<'typ' | 'min' | 'max', [number, number][]> = {
    typ: [
      [0, 0],
      [0.2, 8e-3],
      [0.5, 18e-3],
      [1, 30e-3],
      [3.3, 36e-3],
    ],
    max: [
      [0, 0],
      [0.2, 5e-3],
      [0.5, 11e-3],
      [1, 18e-3],
      [3.3, 22e-3],
    ],
    min: [
      [0, 0],
      [0.2, 12e-3],
      [0.5, 26e-3],
      [1, 44e-3],
      [3.3, 52e-3],
    ],
  }
  test('equals an independent interpolation, in three corners, and its inverse comes back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 3.29, noNaN: true }),
        fc.constantFrom('typ', 'min', 'max'),
        (v, line) => {
          const current = tableCurrent(pullDown!, v, line)
          // The weakest, with the least current, drops most.
          const corner = { min: 'max', typ: 'typ', max: 'min' } as const
          expect(current).toBeCloseTo(between(down[corner[line]], v), 12)
          expect(drop(current).value[corner[line]]).toBeCloseTo(v, 9)
        },
      ),
    )
  })
  test('the other tables: volts from their own rail, current away from it', () => {
    expect(tableCurrent(pullUp!, 0.2, 'typ')).toBeCloseTo(6e-3, 12)
    expect(tableCurrent(powerClamp!, 0.8, 'typ')).toBeCloseTo((1e-3 + 40e-3) / 2, 12)
    expect(tableCurrent(powerClamp!, 9, 'max')).toBeCloseTo(0.18, 12)
  })
  test('an LED on it agrees with a hand solution', () => {
    // LED of 2 V flat, 100 Ω, 3.3 V, pulled down: between 0.2 V / 8 mA and 0.5 V / 18 mA the driver is
    // V = 0.2 + 30 Ω·(I − 8 mA). 3.3 − 2 − 100·I − 0.2 − 30·I + 0.24 = 0, so I = 1.34 / 130.
    const led = {
      symbol: 'V_F',
      label: 'LED',
      curve: { part: chip, field: 'led', points: [{ x: 10e-3, y: { typ: 2, kind: 'typical' as const } }] },
    }
    const driver = { symbol: 'V_drop', label: 'driver', curve: driverCurve(chip, strong, 'low') }
    const through = (ohms: number) =>
      currentInSeries(
        { label: 'LED', symbol: 'I' },
        ['V', given('V', 3.3, 'V')],
        ['R', given('R', ohms, 'Ω')],
        [led, driver],
      ).value.typ
    expect(through(100)).toBeCloseTo(1.34 / 130, 9)
    // Without a resistor 1.3 V is left for the driver: 0.3 V into the last stretch, 6 mA over 2.3 V.
    expect(through(0)).toBeCloseTo(30e-3 + (6e-3 * 0.3) / 2.3, 9)
  })
  test('a driver that can’t carry it doesn’t', () => expect(drop(1).value.typ).toBeGreaterThan(3.3))
})

test('in a project, the LED’s current and its working come from the table', () => {
  const library = makeLibrary([...Object.values(shippedLibrary().parts), chipOf()])
  const { pins } = analyse(
    project({
      chip: 'gauge-16',
      devices: [['lamp-red', 'Lamp']],
      source: 'cells-2-aa',
      locks: { 'd1.1.light': 'PA0' },
    }),
    library,
  )
  const lamp = pins.leds['d1.1.light']
  expect(lamp!.current.formula).toContain('V_drop(I)')
  expect(lamp!.current.inputs.find((i) => i.symbol === 'V_drop(I)')!.origin).toMatchObject({
    field: 'io.drivers.strong',
    place: 'gauge.ibs, model strong',
  })
  // What the driver drops at that current, and the resistor and the LED with it, make up the rail.
  expect(lamp!.bare.value.max).toBeLessThan(60e-3)
})
