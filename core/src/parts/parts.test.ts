import { faultsOf } from '../../test/faults'
import { partFiles } from '../../test/files'
import { readPart } from '.'

const chip = () =>
  structuredClone(partFiles().find((f) => f.name.includes('td8-28-dip'))!.data) as {
    limits: Record<string, unknown>
    pins: Record<string, unknown>[]
  }
test('every shipped part is read, and cites its sheet', () => {
  for (const { name, data } of partFiles())
    expect([name, readPart(data, name).sheet.length > 0]).toEqual([name, true])
})

test('the slice’s library: chips, devices, regulators, sources', () => {
  const kinds = partFiles().map((f) => readPart(f.data, f.name).kind)
  const count = (kind: string) => kinds.filter((k) => k === kind).length
  expect(count('chip')).toBeGreaterThanOrEqual(5)
  expect(count('device')).toBeGreaterThanOrEqual(15)
  expect(count('regulator')).toBeGreaterThanOrEqual(5)
  expect(count('source')).toBeGreaterThanOrEqual(4)
})

test('quantities are read with their units, a bare value is the typical one', () => {
  const part = readPart(chip(), 'test')
  if (part.kind !== 'chip') throw new Error('not a chip')
  expect(part.limits.pinRecommended).toMatchObject({ max: 0.02, kind: 'recommended', source: 'table 4' })
  expect(part.support.decoupling[0]!.capacitance).toBe(1e-7)
  expect(part.pins.find((p) => p.id === 'PA4')!.functions).toEqual([
    { unit: 'ADC', signal: 'A4' },
    { unit: 'TWO', signal: 'SDA' },
  ])
})

test.each<[string, (c: ReturnType<typeof chip>) => void, string]>([
  ['a leg named twice', (c) => (c.pins[3]!.legs = [3]), 'pins[3].legs[0]'],
  ['a leg beyond the package', (c) => (c.pins[3]!.legs = [29]), 'pins[3].legs[0]'],
  ['a missing leg', (c) => c.pins.pop(), 'pins'],
  ['a unit that isn’t there', (c) => (c.pins[0]!.functions = ['NOPE.A0']), 'pins[0].functions[0]'],
  ['a signal that isn’t there', (c) => (c.pins[0]!.functions = ['ADC.A9']), 'pins[0].functions[0]'],
  [
    'a wrong unit of measure',
    (c) => Object.assign(c, { limits: { ...c.limits, total: '5 V' } }),
    'limits.total.typ',
  ],
  ['an unknown field', (c) => Object.assign(c.pins[0]!, { colour: 'blue' }), 'pins[0]'],
  [
    'an unknown attribute',
    (c) => (c.pins[0]!.attributes = [{ kind: 'magic' }]),
    'pins[0].attributes[0].kind',
  ],
  [
    'min above max',
    (c) => Object.assign(c, { limits: { ...c.limits, total: { min: 2, max: 1 } } }),
    'limits.total',
  ],
  ['a newer format', (c) => Object.assign(c, { format: 3 }), 'format'],
])('%s is refused by its path', (_, spoil, path) => {
  const data = chip()
  spoil(data)
  expect(faultsOf(data)).toContain(path)
})

test('a wire has something left to what its insulation stands; a fuse’s curve goes to warmer air, and more than it holds opens it', () => {
  const of = (id: string) => partFiles().find((f) => f.name.endsWith(`${id}.json`))!.data as object
  expect(faultsOf({ ...of('wire-24'), ratedAt: '69 °C' })).toEqual([])
  expect(faultsOf({ ...of('wire-24'), ratedAt: '70 °C' })).toEqual(['ratedAt'])
  const points = (...air: number[]) => air.map((at) => ({ air: `${at} °C`, share: 1 }))
  expect(faultsOf({ ...of('fuse-1'), derating: points(20, 60) })).toEqual([])
  expect(faultsOf({ ...of('fuse-1'), derating: points(20, 60, 60) })).toEqual(['derating[2].air'])
  expect(faultsOf({ ...of('fuse-1'), trips: { max: '1 A' } })).toEqual(['trips'])
})

test('a board can be written down', () => {
  const head = { format: 1, sheet: 'made-up sheet', price: 9 }
  const header = {
    id: 'left',
    name: 'left row',
    positions: [
      { label: 'D0', pin: 'PA0', number: 0 },
      { label: 'GND', rail: 'GND' },
    ],
  }
  const board = {
    ...head,
    kind: 'board',
    id: 'stick',
    name: 'Stick',
    chip: 'td8-28-dip',
    input: { min: 6, max: 12 },
    logic: 5,
    headers: [header],
    loads: [{ pin: 'PC5', what: 'lamp with 1 kΩ', current: '3 mA' }],
    links: [
      {
        id: 'sb1',
        name: 'SB1',
        kind: 'solder bridge',
        positions: [
          { id: 'open', effect: 'none' },
          { id: 'closed', effect: 'joins PB0 to D0' },
        ],
        factory: 'open',
      },
    ],
    blocks: [
      {
        id: 'bridge',
        name: 'USB bridge',
        does: 'joins a computer',
        asleep: '2 mA',
        awake: '12 mA',
        standalone: 'leave out',
        why: 'the program is in',
      },
    ],
  }
  expect(readPart(board, 'board').kind).toBe('board')
})

test.each([
  ['into a signal it has not', { in: 'NONE', out: 'SOUT' }, 'wirings[1].chain.in'],
  ['out of a terminal it has not', { in: 'SIN', out: 'NONE' }, 'wirings[1].chain.out'],
])('a chain %s is refused by its path', (_, chain, path) => {
  const found = partFiles().find((f) => f.name.endsWith('output-register-8.json'))!.data
  const data = structuredClone(found) as { wirings: { chain: object }[] }
  data.wirings[1]!.chain = chain
  expect(faultsOf(data)).toEqual([path])
})

describe('an expansion board', () => {
  const deck = () =>
    structuredClone(partFiles().find((f) => f.name.endsWith('relay-deck.json'))!.data) as Deck
  interface Deck {
    expansion?: { positions: { at: string; label: string }[] }
    wirings: { signals: { at?: string }[] }[]
  }
  test.each<[string, (d: Deck) => void, string]>([
    [
      'a signal at a position it has not',
      (d) => (d.wirings[0]!.signals[0]!.at = 'main.99'),
      'wirings[0].signals[0].at',
    ],
    ['a signal without a position', (d) => delete d.wirings[1]!.signals[1]!.at, 'wirings[1].signals[1]'],
    ['positions on a device that is none', (d) => delete d.expansion, 'wirings[0].signals[0].at'],
    ['no positions at all', (d) => (d.expansion!.positions = []), 'expansion.positions'],
  ])('%s is refused by its path', (_, spoil, path) => {
    const data = deck()
    spoil(data)
    expect(faultsOf(data)).toContain(path)
  })
})
