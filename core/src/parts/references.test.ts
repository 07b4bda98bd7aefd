// What within a part speaks of what is not there: refused at its place, in words, and nothing else is. What a part speaks
// of outside itself.

import { partFiles } from '../../test/files'
import {
  type Board,
  completenessOf,
  type Device,
  type FaultyFile,
  type Fault,
  findPart,
  makeLibrary,
  type Part,
  readPart,
  referencesOf,
  unitsWithoutPin,
} from '.'

type Json = Record<string, unknown>
const copyOf = (id: string) =>
  structuredClone(partFiles().find((f) => (f.data as Json).id === id)!.data) as never
const faultsOf = (data: unknown): Fault[] => {
  try {
    readPart(data, 'x')
    return []
  } catch (error) {
    return (error as FaultyFile).faults
  }
}

interface ChipFile {
  package: { legs: number }
  pins: { id: string; driver?: string; functions?: string[]; legs: number[] }[]
  clockSources: { pins?: string[] }[]
  limits: { groups?: { pins: string[] }[] }
  support: { decoupling: { pin: string }[]; reset: { pin: string } }
  programming: { contacts: { at: string }[] }[]
  matrix: { pins: string[]; units: string[] }[]
  io: Json
}
const nowhere = 'there is no pin PX9'
test.each<[string, string, (c: ChipFile) => void, string, string]>([
  [
    'mw1-32',
    'a driver',
    (c) => (c.pins[0]!.driver = 'strong'),
    'pins[0].driver',
    'there is no driver strong',
  ],
  [
    'td8-28-dip',
    'a clock on a leg',
    (c) => (c.clockSources.find((s) => s.pins)!.pins![1] = 'PX9'),
    'clockSources[*].pins[1]',
    nowhere,
  ],
  [
    'td8-28-dip',
    'a group of legs',
    (c) => (c.limits.groups![1]!.pins[2] = 'PX9'),
    'limits.groups[1].pins[2]',
    nowhere,
  ],
  [
    'td8-28-dip',
    'a capacitor',
    (c) => (c.support.decoupling[1]!.pin = 'PX9'),
    'support.decoupling[1].pin',
    nowhere,
  ],
  ['td8-28-dip', 'the reset', (c) => (c.support.reset.pin = 'PX9'), 'support.reset.pin', nowhere],
  [
    'td8-28-dip',
    'a contact of the programmer',
    (c) => (c.programming[0]!.contacts[0]!.at = 'PX9'),
    'programming[0].contacts[0].at',
    nowhere,
  ],
  ['mw1-32', 'a matrix, its legs', (c) => (c.matrix[0]!.pins[3] = 'PX9'), 'matrix[0].pins[3]', nowhere],
  [
    'mw1-32',
    'a matrix, its units',
    (c) => (c.matrix[0]!.units[1] = 'NONE'),
    'matrix[0].units[1]',
    'there is no unit NONE',
  ],
])('%s: %s that is not there', (id, _, spoil, path, message) => {
  const file = copyOf(id) as ChipFile
  const at = file.clockSources.findIndex((s) => s.pins)
  spoil(file)
  expect(faultsOf(file)).toEqual([{ path: path.replace('*', String(at)), message }])
})

test('a leg twice, a pin twice, a leg beside the package: each told where it stands', () => {
  const file = copyOf('td8-28-dip') as ChipFile
  const [first, second] = file.pins
  const leg = first!.legs[0]!
  second!.legs = [leg, 29, 0]
  expect(faultsOf(file).map((f) => f.message)).toEqual([
    `leg ${leg} is named both ${first!.id} and ${second!.id}`,
    'leg 29 is not on a package of 28 legs',
    'leg 0 is not on a package of 28 legs',
  ])
  const twice = copyOf('td8-28-dip') as ChipFile
  twice.pins[1]!.id = twice.pins[0]!.id
  expect(faultsOf(twice)[0]).toEqual({
    path: 'pins[1].id',
    message: `pin ${twice.pins[0]!.id} is there twice`,
  })
})

interface DeviceFile {
  wirings: { signals: Json[] }[]
}
test.each<[string, (s: Json) => void, string, string]>([
  ['a terminal', (s) => (s.terminal = 'NIX'), '.terminal', 'there is no terminal NIX'],
  ['the line of a bus', (s) => delete s.line, '', 'a bus signal needs bus and line'],
  ['the bus', (s) => delete s.bus, '', 'a bus signal needs bus and line'],
  ['what sits there', (s) => delete s.electrical, '.electrical.kind', 'is a required field'],
  ['its place', (s) => (s.at = 'left.1'), '.at', 'the expansion has no position left.1'],
])('a device’s signal without %s', (_, spoil, path, message) => {
  const file = copyOf('glow-display') as DeviceFile
  spoil(file.wirings[0]!.signals.find((s) => s.kind === 'bus')!)
  expect(faultsOf(file)).toContainEqual(
    expect.objectContaining({
      path: expect.stringMatching(
        new RegExp(`^wirings\\[0\\]\\.signals\\[\\d\\]${path.replace('.', '\\.')}$`),
      ) as unknown,
      message,
    }),
  )
})
test('a pwm signal says how fast', () => {
  const pwm = partFiles()
    .map((f) => f.data as Json & DeviceFile)
    .find((d) => d.kind === 'device' && d.wirings[0]!.signals.some((s) => s.kind === 'pwm'))!
  const file = structuredClone(pwm)
  const i = file.wirings[0]!.signals.findIndex((s) => s.kind === 'pwm')
  delete file.wirings[0]!.signals[i]!.frequency
  expect(faultsOf(file)).toEqual([
    { path: `wirings[0].signals[${i}]`, message: 'a pwm signal needs its frequency' },
  ])
})

test('what a part speaks of: each once, and only what is named', () => {
  const electrical = (e: Json) => ({ kind: 'device', wirings: [{ signals: [{ electrical: e }] }] })
  const board = (more: Json) => ({ kind: 'board', chip: 'c', blocks: [], ...more })
  const of = (p: Json) => referencesOf(p as unknown as Device | Board)
  expect(of(electrical({ kind: 'led', led: 'red', power: 'strong' }))).toEqual(['red', 'strong'])
  expect(of(electrical({ kind: 'led', led: 'red' }))).toEqual(['red'])
  expect(of(electrical({ kind: 'switched', transistor: 't', diode: 'd' }))).toEqual(['t', 'd'])
  expect(of(electrical({ kind: 'open-drain', led: 'red' }))).toEqual([])
  expect(
    of(board({ regulator: 'r', clock: { part: 'x' }, blocks: [{ part: 'b' }, {}, { part: 'r' }] })),
  ).toEqual(['c', 'r', 'x', 'b'])
  expect(of(board({}))).toEqual(['c'])
  for (const { data } of partFiles().filter(
    (f) => !['board', 'device'].includes((f.data as Json).kind as string),
  ))
    expect(referencesOf(data as Part)).toEqual([])
})

test('a sleep that nothing ends, a chip without one, a matrix that carries a unit', () => {
  const chip = findPart(makeLibrary([readPart(copyOf('mw1-32'), 'x')]), 'chip', 'mw1-32')!
  const sleep = (modes: typeof chip.modes) => {
    const { stated, missing } = completenessOf({ ...chip, modes }).find((c) => c.serves === 'sleep')!
    return [stated, missing]
  }
  const awake = chip.modes.filter((m) => m.kind !== 'sleep')
  const asleep = {
    ...chip.modes.find((m) => m.kind === 'sleep')!,
    wakes: ['a timer'],
  } as (typeof chip.modes)[0]
  const [current, wakes] = ['a sleep mode with its current', 'what wakes it']
  expect(sleep([...awake, asleep])).toEqual([[current, wakes], []])
  expect(sleep([...awake, { ...asleep, wakes: [] }])).toEqual([[current], [wakes]])
  expect(sleep([...awake, { ...asleep, wakes: undefined }])).toEqual([[current], [wakes]])
  expect(sleep(awake)).toEqual([[], [current, wakes]])
  expect(sleep([{ ...awake[0]!, wakes: ['a timer'] }])).toEqual([[], [current, wakes]])
  // A unit that no leg names is carried by a matrix with legs in it, and by no other.
  const unit = chip.matrix!.flatMap((m) => m.units)[0]!
  expect(unitsWithoutPin(chip)).toEqual([])
  const pins = chip.pins.map((p) => ({ ...p, functions: p.functions?.filter((f) => f.unit !== unit) }))
  const matrix = chip.matrix!.map((m) => ({ ...m, pins: [] }))
  expect(unitsWithoutPin({ ...chip, pins, matrix })).toContain(unit)
})

test.each<[string, (o: { one: string; other: string }[]) => void, string, string]>([
  [
    'a terminal that is not there',
    (o) => (o[0]!.one = 'NIX'),
    'drives.outputs[0].one',
    'there is no terminal NIX',
  ],
  [
    'a line of the chip’s',
    (o) => (o[0]!.other = 'A1'),
    'drives.outputs[0].other',
    'terminal A1 is not passive',
  ],
  ['its supply', (o) => (o[1]!.one = 'VDD'), 'drives.outputs[1].one', 'terminal VDD is not passive'],
  [
    'one that another has',
    (o) => (o[1]!.one = 'OA2'),
    'drives.outputs[1].one',
    'terminal OA2 is named twice',
  ],
])('an output of a bridge at %s: the place is named', (_, spoil, path, message) => {
  const bridge = copyOf('bridge-two') as { drives: { outputs: { one: string; other: string }[] } }
  spoil(bridge.drives.outputs)
  expect(faultsOf(bridge as never)).toContainEqual({ path, message })
})
