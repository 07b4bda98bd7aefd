// Schemas as forms, differences between versions, what a part speaks of, and what it can serve.

import { partFiles, shippedLibrary } from '../../test/files'
import {
  completenessOf,
  differencesOf,
  findPart,
  formAt,
  type Part,
  pathText,
  readPart,
  referencesOf,
  stepsOf,
  unitAt,
  unitsWithoutPin,
  withReferences,
} from '.'

const library = shippedLibrary()
const parts = Object.values(library.parts)
const chip = findPart(library, 'chip', 'qm32-48')!

test.each<[Part['kind'], string, object]>([
  ['chip', 'supply.recommended', { is: 'rated', unit: 'V' }],
  ['chip', 'supply.recommended.min', { is: 'quantity', unit: 'V' }],
  ['chip', 'supply.recommended.kind', { is: 'choice' }],
  ['chip', 'supply.recommended.source', { is: 'text' }],
  ['chip', 'io.outputHigh', { is: 'list', plain: false }],
  ['chip', 'io.outputHigh[0].current', { is: 'quantity', unit: 'A' }],
  ['chip', 'pins[3].functions', { is: 'list', plain: true }],
  ['chip', 'pins[3].functions[0]', { is: 'function' }],
  ['chip', 'pins[3].legs', { is: 'list', plain: true }],
  ['chip', 'routing', { is: 'choice', options: ['fixed', 'selected'] }],
  ['chip', 'package.pitch', { is: 'quantity', unit: 'm' }],
  ['device', 'planChooses', { is: 'flag' }],
  ['device', 'wirings[0].links', { is: 'map' }],
  ['led', 'price', { is: 'number' }],
  ['led', 'name', { is: 'text' }],
])('%s: %s', (kind, path, form) => {
  expect(formAt(kind, stepsOf(path), {})).toMatchObject(form)
  expect(pathText(stepsOf(path))).toBe(path)
})

test('a union is told apart by what the file says', () => {
  const device = findPart(library, 'device', 'lamp-red')!
  const form = formAt('device', stepsOf('wirings[0].signals[0].electrical'), device)
  expect(form?.is === 'group' && form.fields.map((f) => f.name)).toContain('led')
  expect(formAt('chip', stepsOf('nothing.like.it'), {})).toBeUndefined()
})

test('every number of every shipped part has a form, and the entries of lists may be named by their id', () => {
  const visit = (part: Part, value: unknown, steps: (string | number)[]): void => {
    if (typeof value === 'number')
      expect([part.id, pathText(steps), formAt(part.kind, steps, part)?.is]).toEqual([
        part.id,
        pathText(steps),
        expect.stringMatching(/number|quantity/) as unknown,
      ])
    else if (Array.isArray(value)) value.forEach((v, i) => visit(part, v, [...steps, i]))
    else if (typeof value === 'object' && value !== null && !('signal' in value && 'unit' in value))
      Object.entries(value).forEach(([k, v]) => visit(part, v, [...steps, k]))
  }
  for (const part of parts.filter((p) => p.kind !== 'chip' || p.package.legs < 40)) visit(part, part, [])
  expect(unitAt('chip', 'clockSources[crystal].min')).toBe('Hz')
})

describe('differences', () => {
  const changed = (change: (p: Part) => void): string[][] => {
    const copy = structuredClone(chip)
    change(copy)
    return differencesOf(chip, copy).map((d) => [d.path, JSON.stringify(d.before), JSON.stringify(d.after)])
  }
  test('a part says the same as itself, whatever the order of its fields', () => {
    for (const { data, name } of partFiles()) {
      const part = readPart(data, name)
      const turned = Object.fromEntries(Object.entries(part).reverse()) as Part
      expect([name, differencesOf(part, turned)]).toEqual([name, []])
    }
  })
  test('a field, an entry by its id wherever it stands, one that came, one that went', () => {
    expect(changed((p) => (p.price = 9))).toEqual([['price', '3.1', '9']])
    expect(changed((p) => p.kind === 'chip' && p.pins.reverse())).toEqual([])
    expect(changed((p) => p.kind === 'chip' && (p.pins.find((x) => x.id === 'PA0')!.number = 77))).toEqual([
      ['pins[PA0].number', undefined, '77'],
    ])
    expect(
      changed((p) => p.kind === 'chip' && (p.modes = p.modes.filter((m) => m.id !== 'standby'))).map(
        (d) => d[0],
      ),
    ).toEqual(['modes[standby]'])
  })
})

test('a list of numbers is one thing; a list of records that became a list of numbers is told entry by entry', () => {
  const at = (legs: unknown) => ({ ...chip, legs }) as unknown as Part
  // Two marks came where one was: the list is told whole.
  expect(differencesOf(at([1]), at([1, 2])).map((d) => [d.path, d.before, d.after])).toEqual([
    ['legs', [1], [1, 2]],
  ])
  // Records without an id: by their place.
  expect(differencesOf(at([{ n: 1 }, { n: 2 }]), at([{ n: 1 }, { n: 3 }])).map((d) => d.path)).toEqual([
    'legs[1].n',
  ])
  // Functions of a leg, which are printed as one word each, are told together.
  const f = (signal: string) => ({ unit: 'ADC', signal })
  expect(differencesOf(at([f('A0')]), at([f('A1')])).map((d) => d.path)).toEqual(['legs'])
})

test('what a part speaks of, and what those speak of', () => {
  expect(referencesOf(findPart(library, 'device', 'lamp-red')!)).toEqual(['led-red'])
  const stick = findPart(library, 'board', 'stick-qm32-48')!
  expect(referencesOf(stick)).toEqual(expect.arrayContaining(['qm32-48']))
  expect(withReferences(library, ['stick-qm32-48', 'nothing-like-it']).map((p) => p.id)).toEqual(
    expect.arrayContaining(['stick-qm32-48', 'qm32-48']),
  )
  for (const part of parts) for (const id of referencesOf(part)) expect(library.parts).toHaveProperty(id)
})

describe('completeness', () => {
  const of = (part: Part, serves: string) => completenessOf(part).find((c) => c.serves === serves)!
  test('a shipped chip serves pins, drive, power and clock with nothing assumed', () => {
    for (const serves of ['pins', 'drive', 'power', 'clock']) {
      const check = of(chip, serves)
      expect([serves, check.assumed, check.missing]).toEqual([serves, [], []])
    }
  })
  test.each<[string, (c: Record<string, unknown>) => void, string, RegExp]>([
    ['no levels', (c) => Reflect.deleteProperty(c, 'io'), 'drive', /output strength, high/],
    ['no clock', (c) => Reflect.deleteProperty(c, 'clockSources'), 'clock', /clock sources/],
    ['no modes', (c) => Reflect.deleteProperty(c, 'modes'), 'power', /current while running/],
    ['no price', (c) => Reflect.deleteProperty(c, 'price'), 'build', /price/],
    ['no header', (c) => Reflect.deleteProperty(c, 'programming'), 'programming', /programming header/],
  ])('%s: assumed, and named by the check it serves', (_, spoil, serves, words) => {
    const data = structuredClone(partFiles().find((f) => f.name.includes('td8-08'))!.data) as Record<
      string,
      unknown
    >
    spoil(data)
    const part = readPart(data, 'x')
    expect(
      of(part, serves)
        .assumed.map((a) => a.words)
        .join(),
    ).toMatch(words)
    expect(part.assumed!.length).toBeGreaterThan(0)
  })
  test('what only some parts have is asked of those alone', () => {
    const words = 'through what resistance a converter reads, and what it fills for that'
    expect(of(chip, 'drive').stated).toContain(words)
    const silent = { ...chip, units: chip.units.map((u) => ({ ...u, samplingCapacitance: undefined })) }
    expect(of(silent, 'drive').missing).toEqual([words])
    const without = { ...chip, units: chip.units.filter((u) => u.kind !== 'converter') }
    expect(JSON.stringify(of(without, 'drive'))).not.toContain(words)
    const inside = 'the resistance inside it that a reading comes through'
    const sound = findPart(library, 'device', 'sound-sensor')!
    expect(of(sound, 'drive').stated).toContain(inside)
    const [wiring] = structuredClone(sound.wirings)
    for (const { electrical } of wiring!.signals) Reflect.deleteProperty(electrical, 'sourceResistance')
    expect(of({ ...sound, wirings: [wiring!] }, 'drive').missing).toContain(inside)
    expect(JSON.stringify(of(findPart(library, 'device', 'lamp-red')!, 'drive'))).not.toContain(inside)
  })
  test('what the legs do at start-up, what a board draws asleep: stated, or missing', () => {
    const startup = 'what the legs do at start-up, and which are read then'
    const told = { kind: 'startup', state: 'high' } as never
    const pins = chip.pins.map((p) => ({ ...p, attributes: undefined }))
    expect(of({ ...chip, pins }, 'start-up').missing).toContain(startup)
    const [first, ...rest] = pins
    expect(of({ ...chip, pins: [{ ...first!, attributes: [told] }, ...rest] }, 'start-up').stated).toContain(
      startup,
    )
    const asleep = 'blocks and what they draw asleep'
    const stick = findPart(library, 'board', 'stick-qm32-48')!
    expect(of(stick, 'sleep').stated).toEqual([asleep])
    expect(of({ ...stick, blocks: [] }, 'sleep').missing).toEqual([asleep])
  })
  test('a chip whose functions each name a choice is one whose functions are selected', () => {
    const data = structuredClone(partFiles().find((f) => f.name.includes('td8-08'))!.data) as {
      routing?: string
      pins: { functions?: unknown[] }[]
    }
    delete data.routing
    const routing = () => (readPart(data, 'x') as { routing?: string }).routing
    expect(routing()).toBe('fixed')
    const pin = data.pins.find((p) => typeof p.functions?.[0] === 'string')!
    pin.functions![0] = `${pin.functions![0] as string}@2`
    expect(routing()).toBe('selected')
  })
  test('a unit that no leg carries is found; the shipped chips have none', () => {
    for (const part of parts) expect([part.id, unitsWithoutPin(part)]).toEqual([part.id, []])
    const pins = chip.pins.map((p) => ({ ...p, functions: p.functions?.filter((f) => f.unit !== 'TM1') }))
    expect(unitsWithoutPin({ ...chip, pins })).toEqual(['TM1'])
  })
  test('a statement takes the place of an assumption, and is no longer listed', () => {
    const data = structuredClone(partFiles().find((f) => f.name.includes('td8-08'))!.data) as Record<
      string,
      unknown
    >
    Reflect.deleteProperty(data, 'memory')
    const bare = readPart(data, 'x')
    expect(bare.assumed).toEqual(['memory'])
    const told = readPart({ ...data, memory: { program: 8192, data: 512, stored: 0 } }, 'x')
    expect(told.assumed).toBeUndefined()
  })
})
