// What a chip is taken for while its sheet has not been read, and what a part can serve without a fact: by hand, from
// what a careful builder would assume of a chip that he knows nothing of.

import { partFiles } from '../../test/files'
import { completenessOf, findPart, makeLibrary, readPart, siliconJunction } from '.'

type Json = Record<string, unknown>
const bare = (more: Json = {}, legs = 8) => ({
  format: 2,
  kind: 'chip',
  id: 'bare',
  name: 'Bare 8',
  sheet: 'none yet',
  pins: Array.from({ length: legs }, (_, i) => ({
    id: `P${i + 1}`,
    legs: [i + 1],
    type: i === 0 ? 'supply' : i === 1 ? 'ground' : 'io',
  })),
  ...more,
})
const read = (more?: Json, legs?: number) =>
  findPart(makeLibrary([readPart(bare(more, legs), 'x')]), 'chip', 'bare')!

test('a bare chip: a supply that burns nothing, slow, weak, and each of it listed as assumed', () => {
  const chip = read()
  const source = 'assumed: its sheet has not been read for this'
  const guess = { kind: 'assumed', source }
  expect(chip).toMatchObject({
    price: 0,
    family: 'Bare 8',
    package: { legs: 8, name: 'two-sided 8', style: 'two-sided', pitch: 1.27e-3, solder: 'surface by hand' },
    supply: { recommended: { min: 3, max: 3.6, ...guess }, absolute: { min: -0.3, max: 3.9, ...guess } },
    frequencyLimits: [{ supply: 3, frequency: 8e6, source }],
    clockSources: [{ kind: 'internal', min: 1e6, max: 8e6, frequencies: [1e6, 8e6], tolerance: 0.1, source }],
    modes: [{ kind: 'active', current: { typ: 0.02, max: 0.05, ...guess } }],
    memory: { program: 16384, data: 1024, stored: 0 },
    io: {
      inputHigh: { factor: 0.8, source },
      inputLow: { factor: 0.2, source },
      outputHigh: [{ current: 2e-3, drop: { typ: 0.3, max: 0.6, ...guess }, source }],
      outputLow: [{ current: 2e-3, drop: { typ: 0.3, max: 0.6, ...guess }, source }],
      leakage: { max: 1e-6, ...guess },
      capacitance: { max: expect.closeTo(1e-11, 20) as unknown, ...guess },
      aboveSupply: { max: 0.3, ...guess },
    },
    limits: {
      pinRecommended: { max: 4e-3, ...guess },
      pinAbsolute: { max: 8e-3, ...guess },
      total: { max: 0.05, ...guess },
    },
    routing: 'fixed',
    units: [],
    programming: [
      {
        contacts: [
          { signal: 'V', at: 'supply' },
          { signal: 'GND', at: 'ground' },
        ],
      },
    ],
    support: { decoupling: [{ pin: 'P1', capacitance: 1e-7, source }] },
  })
  // What follows from what the file says is no guess.
  const listed =
    'price package.style package.pitch package.solder supply.recommended supply.absolute frequencyLimits clockSources ' +
    'modes memory io.inputHigh io.inputLow io.outputHigh io.outputLow io.leakage io.capacitance io.aboveSupply ' +
    'limits.pinRecommended limits.pinAbsolute limits.total programming support.decoupling'
  expect(chip.assumed).toEqual(listed.split(' '))
  expect(siliconJunction).toBe(125)
})

// From 32 legs on, where they fall on four sides evenly; a style that is stated is taken, with what it is soldered with.
test.each<[number, Json, string, number, string]>([
  [28, {}, 'two-sided', 1.27e-3, 'surface by hand'],
  [31, {}, 'two-sided', 1.27e-3, 'surface by hand'],
  [32, {}, 'four-sided', 0.5e-3, 'surface by hand'],
  [34, {}, 'two-sided', 1.27e-3, 'surface by hand'],
  [36, {}, 'four-sided', 0.5e-3, 'surface by hand'],
  [8, { package: { style: 'dip' } }, 'dip', 2.54e-3, 'through-hole'],
  [8, { package: { style: 'module' } }, 'module', 2.54e-3, 'through-hole'],
  [32, { package: { style: 'two-sided' } }, 'two-sided', 1.27e-3, 'surface by hand'],
])('%d legs, %j: %s', (legs, more, style, pitch, solder) => {
  const { package: found } = read(more, legs)
  expect(found).toMatchObject({ legs, style, pitch, solder, name: `${style} ${legs}` })
})

test('a pin without legs, or with legs in a heap, counts the legs that are there; stated legs are stated', () => {
  const pins = [
    { id: 'V', type: 'supply', legs: [4, 1] },
    { id: 'G', type: 'ground', legs: [2] },
    { id: 'P', type: 'io', legs: [3] },
  ]
  expect(read({ pins }).package.legs).toBe(4)
  expect(() => read({ pins, package: { legs: 5 } })).toThrow(
    /the package has 5 legs, 4 are named; missing: 5/,
  )
  expect(read({ pins }).support.decoupling.map((d) => d.pin)).toEqual(['V'])
})

test('the slowest clock is known at the lowest supply that is stated; nothing that is stated is touched', () => {
  const supply = { recommended: { min: 1.8, max: 5.5 }, absolute: { min: -0.3, max: 6 } }
  const chip = read({ supply, io: { leakage: { max: '50 nA' } }, limits: { total: { max: '90 mA' } } })
  expect(chip.frequencyLimits).toMatchObject([{ supply: 1.8, frequency: 8e6 }])
  expect(chip.io.leakage?.max).toBeCloseTo(5e-8, 15)
  expect(chip.io.inputHigh.factor).toBe(0.8)
  expect(chip.limits).toMatchObject({ total: { max: 0.09 }, pinAbsolute: { max: 8e-3 } })
  expect(chip.assumed).not.toContain('limits.total')
  // An older assumption gives way to a better one; a statement beside it doesn't.
  const again = read({ assumed: ['io.leakage'], io: { leakage: { max: '2 uA' }, inputLow: { factor: 0.3 } } })
  expect([again.io.leakage?.max, again.io.inputLow.factor]).toEqual([1e-6, 0.3])
  expect(() => read({ io: 'unknown' })).toThrow(/io/)
})

// What can't be judged without: the fact, and the check that asks for it.
test.each<[string, string, string]>([
  ...['io.outputHigh', 'io.outputLow', 'io.inputHigh', 'io.inputLow', 'io.leakage', 'io.aboveSupply'].map(
    (field): [string, string, string] => ['chip', field, 'drive'],
  ),
  ...['pinRecommended', 'pinAbsolute', 'total'].map((f): [string, string, string] => [
    'chip',
    `limits.${f}`,
    'drive',
  ]),
  ['chip', 'io.capacitance', 'drive'],
  ['chip', 'supply.recommended', 'power'],
  ['chip', 'supply.absolute', 'power'],
  ['chip', 'clockSources', 'clock'],
  ['chip', 'frequencyLimits', 'clock'],
  ['chip', 'support.reset', 'start-up'],
  ['chip', 'programming', 'programming'],
  ['chip', 'memory', 'programming'],
  ['chip', 'package.style', 'build'],
  ['chip', 'package.pitch', 'build'],
  ['chip', 'package.rowSpacing', 'build'],
  ['chip', 'support.decoupling', 'build'],
  ['chip', 'price', 'build'],
  ['board', 'pinCurrent', 'drive'],
  ['board', 'clock', 'clock'],
  ['device', 'supply', 'drive'],
  ['device', 'supplyAbsolute', 'drive'],
  ['device', 'height', 'build'],
  ['regulator', 'package.thermalResistance', 'power'],
  ['regulator', 'outputCapacitor.esr', 'build'],
  ['source', 'resistance', 'power'],
  ['source', 'capacity', 'sleep'],
  ['led', 'diameter', 'build'],
  ['transistor', 'threshold', 'drive'],
  ['transistor', 'channel', 'drive'],
  ['transistor', 'gateLeakage', 'drive'],
  ['transistor', 'gateCapacitance', 'drive'],
  ['crystal', 'motional', 'clock'],
  ['crystal', 'shunt', 'clock'],
  ['crystal', 'resistance', 'clock'],
])('%s without %s: the check “%s”, and no other, is short of one fact', (kind, path, serves) => {
  const holderOf = (data: Json) =>
    path
      .split('.')
      .slice(0, -1)
      .reduce<Json | undefined>((at, k) => at?.[k] as Json | undefined, data)
  const key = path.split('.').at(-1)!
  const counts = (data: unknown) =>
    Object.fromEntries(
      completenessOf(readPart(data, 'x')).map((c) => [
        c.serves,
        [c.stated.length, c.assumed.length + c.missing.length],
      ]),
    )
  const file = partFiles()
    .map((f) => f.data as Json)
    .find((d) => d.kind === kind && holderOf(d)?.[key] !== undefined)!
  const before = counts(file)
  const silent = structuredClone(file)
  Reflect.deleteProperty(holderOf(silent)!, key)
  const [stated, short] = before[serves]!
  expect(counts(silent)).toEqual({ ...before, [serves]: [stated! - 1, short! + 1] })
})

test('of a switching regulator it is asked what share it passes on; of a linear one not', () => {
  const file = structuredClone(
    partFiles()
      .map((f) => f.data as Json)
      .find((d) => d.id === 'bl5-cool')!,
  )
  const words = 'what share of its input it passes on'
  const told = (more: Json) =>
    completenessOf(readPart({ ...file, ...more }, 'x')).find((c) => c.serves === 'power')!
  expect(JSON.stringify(told({}))).not.toContain(words)
  expect(told({ topology: 'switching' }).missing).toEqual([words])
  const points = [{ current: '0.1 A', share: 0.9 }]
  expect(told({ topology: 'switching', efficiency: points }).stated).toContain(words)
})

test('a value that says it is assumed is so wherever it stands, and names where', () => {
  const file = structuredClone(
    partFiles()
      .map((f) => f.data as Json)
      .find((d) => d.kind === 'source')!,
  )
  file.resistance = { typ: '0.1 ohm', kind: 'assumed', source: 'a guess' }
  const power = completenessOf(readPart(file, 'x')).find((c) => c.serves === 'power')!
  expect(power).toEqual({
    serves: 'power',
    stated: [],
    assumed: [{ words: 'inner resistance', path: 'resistance' }],
    missing: [],
  })
})
