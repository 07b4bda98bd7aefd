// Sketches: a line read to its last word, a part file that is whole, and nothing assumed without saying so.

import fc from 'fast-check'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import { cautionWords } from '../blocks'
import { type Device, readPart } from '../parts'
import { readSketch, type Sketch, sketchedPart, sketchSorts, type SketchSort } from '.'

test.each<[string, Partial<Sketch>, string[]]>([
  ['pump: motor 12 V 0.4 A', { name: 'pump', sort: 'motor', supply: 12, work: 0.4 }, []],
  // The name says what it is where nothing else does; a count before it is no part of it.
  ['2 pumps', { name: 'pumps', sort: 'motor' }, []],
  ['soil sensor', { name: 'soil sensor', sort: 'sensor' }, []],
  [
    'Air: i2c 3.3V 600uA 2mA 0x76',
    { sort: 'two-wire', supply: 3.3, work: 2e-3, rest: 6e-4, address: 0x76 },
    [],
  ],
  // The greater current is the one at work, in whatever order they stand.
  ['Air: i2c 2mA 600uA', { work: 2e-3, rest: 6e-4 }, []],
  ['mat: heater 12 V 2.5 A', { sort: 'load', supply: 12, work: 2.5 }, []],
  [
    'bridge: module 5 V 30 mA out STEP DIR in FAULT',
    { sort: 'module', drives: ['STEP', 'DIR'], reads: ['FAULT'] },
    [],
  ],
  ['gate: reed', { sort: 'contact' }, []],
  ['modem: serial 5 V 0.3 A blue', { sort: 'serial', supply: 5, work: 0.3 }, ['blue']],
  // Seven bits are all that an address has; what is said twice is not taken twice.
  ['x: i2c 0x80 5 V 12 V', { sort: 'two-wire', supply: 5 }, ['0x80', '12V']],
  ['thing', { name: 'thing', sort: 'module' }, []],
  // Without a colon the numbers are read all the same, in capitals or not.
  ['pump 12v 400ma', { name: 'pump', sort: 'motor', supply: 12, work: 0.4 }, []],
  ['3 x fan 5 v', { name: 'fan', sort: 'motor', supply: 5 }, []],
  // The last word says what it is.
  ['motor driver', { sort: 'module' }, []],
  ['x: motor driver 5 V', { sort: 'module', supply: 5 }, []],
  ['x: module 5 V 1 A 2 A 3 A', { work: 2, rest: 1 }, ['3A']],
  // What can hurt is heard wherever it stands.
  ['plug: relay 5 V 80 mA mains', { sort: 'motor', hazards: ['mains'] }, ['mains']],
  ['hotplate: heater 230 V 4 A', { sort: 'load', supply: 230, hazards: ['mains', 'heat'] }, []],
  ['feed: load 61 V', { hazards: ['mains'] }, []],
  ['feed: load 60 V', { hazards: [] }, []],
  ['pack: charger 5 V 1 A', { hazards: ['lithium'] }, ['charger']],
  ['pointer: laser 5 V', { hazards: ['light'] }, ['laser']],
])('%s', (line, expected, unread) => {
  const read = readSketch(line)
  expect(read.sketch).toMatchObject(expected)
  expect(read.unread).toEqual(unread)
})

const library = shippedLibrary()
const made = (sketch: Sketch) => {
  const { file, assumed } = sketchedPart(sketch, 'own-thing')
  return { part: readPart(file, 'sketch') as Device, assumed }
}

const name = fc.stringMatching(/^[A-Za-z][A-Za-z0-9]{0,7}$/)
const sketches = fc.record(
  {
    name,
    sort: fc.constantFrom(...sketchSorts),
    supply: fc.double({ min: 1, max: 48, noNaN: true }),
    rest: fc.double({ min: 0, max: 1e-3, noNaN: true }),
    work: fc.double({ min: 1e-3, max: 0.02, noNaN: true }),
    address: fc.integer({ min: 8, max: 119 }),
    drives: fc.uniqueArray(fc.stringMatching(/^A[0-9]{1,3}$/), { minLength: 1, maxLength: 3 }),
    reads: fc.uniqueArray(fc.stringMatching(/^B[0-9]{1,3}$/), { maxLength: 3 }),
  },
  { requiredKeys: ['name', 'sort', 'drives'] },
)
test('of any sketch the part is whole, keeps what was said, and is analysed', () => {
  fc.assert(
    fc.property(sketches, (sketch) => {
      const { part } = made(sketch)
      const passive = sketch.sort === 'led' || sketch.sort === 'contact'
      if (!passive) {
        if (sketch.supply !== undefined)
          expect([part.supply!.min! / 0.9, part.supply!.max! / 1.1]).toEqual([
            expect.closeTo(sketch.supply, 9),
            expect.closeTo(sketch.supply, 9),
          ])
        if (sketch.work !== undefined) expect(part.modes.at(-1)!.current.typ).toBe(sketch.work)
        if (sketch.rest !== undefined) expect(part.modes[0]!.current.max).toBe(sketch.rest)
      }
      const { power, needs } = analyse(
        project({
          chip: 'td8-28-dip',
          source: 'adapter-9v',
          regulator: 'bl5-low',
          devices: [[part.id, 'Thing']],
        }),
        { parts: { ...library.parts, [part.id]: part } },
      )
      expect(needs.signals.length).toBeGreaterThan(0)
      if (!passive) expect(power.consumers.map((c) => c.id)).toContain('d1')
    }),
    { numRuns: 60 },
  )
})

// By hand, from what each sort is: who is fed how, who drives, what is careful.
const wires: [SketchSort, [string, string][]][] = [
  ['load', [['-', 'digital-out switched']]],
  ['motor', [['-', 'digital-out switched']]],
  ['led', [['anode', 'digital-out led']]],
  ['strip', [['DIN', 'digital-out logic-input']]],
  ['contact', [['1', 'digital-in contact']]],
  ['sensor', [['OUT', 'analog-in analog']]],
  [
    'two-wire',
    [
      ['SDA', 'bus open-drain'],
      ['SCL', 'bus open-drain'],
    ],
  ],
  [
    'spi',
    [
      ['SCK', 'bus logic-input'],
      ['MOSI', 'bus logic-input'],
      ['MISO', 'bus logic-output'],
      ['CS', 'digital-out logic-input'],
    ],
  ],
  // Its RX is the chip's TX.
  [
    'serial',
    [
      ['RX', 'bus logic-input'],
      ['TX', 'bus logic-output'],
    ],
  ],
  [
    'module',
    [
      ['EN', 'digital-out logic-input'],
      ['OK', 'digital-in logic-output'],
    ],
  ],
]
test.each(wires)('a %s has its lines', (sort, expected) => {
  const { part } = made({ name: 'Thing', sort, drives: ['EN'], reads: ['OK'] })
  expect(part.wirings[0]!.signals.map((s) => [s.terminal, `${s.kind} ${s.electrical.kind}`])).toEqual(
    expected,
  )
  expect(part.wirings[0]!.signals.flatMap((s) => s.line ?? [])).toEqual(
    { 'two-wire': ['SDA', 'SCL'], spi: ['SCK', 'MOSI', 'MISO'], serial: ['TX', 'RX'] }[sort as string] ?? [],
  )
})

test('a pump of 0.4 A stalls at 2 A: a strong transistor and diode, the caution for what moves, all of it told', () => {
  const { part, assumed } = made({ name: 'Pump', sort: 'motor', supply: 12, work: 0.4 })
  expect(part.modes.map((m) => [m.current.typ, m.current.max])).toEqual([
    [0, 0],
    [0.4, 2],
  ])
  expect(part.wirings[0]!.signals[0]!.electrical).toMatchObject({
    transistor: 'nfet-strong',
    diode: 'diode-strong',
    inductive: true,
    current: { max: 2 },
  })
  expect(part.cautions).toEqual(['motor'])
  expect(assumed.map((a) => a.words)).toEqual(
    expect.arrayContaining([
      'from 10.8 V to 13.2 V, a tenth around that',
      'starting or stalled it takes 2 A, five times what it runs at',
      'off it takes nothing',
      'its price is not known',
    ]),
  )
  // A small one, and one that is no coil.
  const small = made({ name: 'Lock', sort: 'motor', work: 0.03 }).part.wirings[0]!.signals[0]!.electrical
  expect(small).toMatchObject({ transistor: 'nfet-small', diode: 'diode-small' })
  const bulb = made({ name: 'Bulb', sort: 'load', work: 2 }).part
  // A load turns its current into heat.
  expect([bulb.wirings[0]!.signals[0]!.electrical, bulb.cautions]).toEqual([
    expect.not.objectContaining({ diode: expect.anything() }),
    ['heat'],
  ])
  // Neither may twitch before the program runs: a pull-down holds the gate.
  for (const sort of ['motor', 'load', 'strip'] as const)
    expect([sort, made({ name: 'X', sort }).part.wirings[0]!.signals[0]!.quiet]).toEqual([sort, true])
  const switches = made({ name: 'Plug', sort: 'motor', hazards: ['mains'] }).part
  expect(switches.cautions).toEqual(['mains', 'motor'])
})
test('a module of which no line is known has one, and says so', () => {
  const { part, assumed } = made({ name: 'Thing', sort: 'module' })
  expect(part.wirings[0]!.signals.map((s) => [s.terminal, s.kind])).toEqual([['LINE', 'digital-out']])
  expect(assumed.map((a) => a.words)).toContain('one line, which the chip drives')
})
test('what is worked out has no more digits than what was said: 24 V by a tenth is 26.4 V, five times 0.43 A 2.15 A', () => {
  const { part } = made({ name: 'Lamp', sort: 'motor', supply: 24, work: 0.43 })
  expect([part.supply!.min, part.supply!.max, part.modes[1]!.current.max]).toEqual([21.6, 26.4, 2.15])
})
test('a sensor on 5 V reaches further than the converter of a chip on 3.3 V, and that is told', () => {
  const { part } = made({ name: 'Level', sort: 'sensor', supply: 5, work: 1e-3 })
  const { findings } = analyse(
    project({
      chip: 'mw2-module',
      source: 'usb-port',
      regulator: 'bl33-low',
      devices: [[part.id, 'Level', undefined, { fedBy: 'source' }]],
    }),
    { parts: { ...library.parts, [part.id]: part } },
  )
  expect(findings.map((f) => f.check)).toContain('pins.level')
})
test('what can hurt stands at the step in which it is joined: a laser’s light, what moves', () => {
  const { part } = made(readSketch('pointer: module laser 5 V 30 mA').sketch)
  const { build } = analyse(
    project({
      chip: 'td8-28-dip',
      source: 'adapter-9v',
      regulator: 'bl5-low',
      devices: [[part.id, 'Pointer']],
    }),
    { parts: { ...library.parts, [part.id]: part } },
  )
  const step = build.steps.find((s) => s.title === 'Pointer')!
  expect(step.cautions).toContain('light')
  expect(cautionWords.light).toMatch(/[Nn]ever look into it/)
  // Clipped leads are another matter.
  expect(step.cautions).not.toContain('eyes')
})
test('the less is said the more is told as assumed, and what is said is not', () => {
  const words = (more: Partial<Sketch>) =>
    made({ name: 'Air', sort: 'two-wire', ...more })
      .assumed.map((a) => a.words)
      .join('; ')
  expect(words({})).toMatch(/runs on 5 V.*takes 5 mA at work.*at rest it takes as much.*address is not known/)
  const whole = words({ supply: 3.3, work: 2e-3, rest: 1e-6, address: 0x40 })
  expect(whole).not.toMatch(/runs on|at work|at rest|address/)
  expect(whole).toMatch(/2\.97 V to 3\.63 V/)
})

// The chips in a strip’s lamps are 5 V ones: 0.7 and 0.3 of what feeds them, or of the 5 V that they make from more.
test.each([
  [5, { factor: 0.7, offset: 0 }, { factor: 0.3, offset: 0 }],
  [5.5, { factor: 0.7, offset: 0 }, { factor: 0.3, offset: 0 }],
  [12, { factor: 0, offset: 3.5 }, { factor: 0, offset: 1.5 }],
])('a strip of addressed lights on %p V reads its line against', (supply, high, low) => {
  const { part } = made({ name: 'Strip', sort: 'strip', supply })
  expect(part.wirings[0]!.signals[0]!.electrical).toMatchObject({ high, low })
})
