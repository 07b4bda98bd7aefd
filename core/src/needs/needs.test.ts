import { demo, shippedLibrary } from '../../test/files'
import { partsOfKind } from '../parts'
import { project, type Project } from '../../test/project'
import { readTypedDevices, resolveNeeds } from '.'

const library = shippedLibrary()
const devices = partsOfKind(library, 'device')

test.each([
  ['3 buttons', 3, 'push-button'],
  ['1 buzzer', 1, 'buzzer-magnetic'],
  ['relay module', 1, 'relay-module'],
  ['4-digit display', 1, 'digit-display-4'],
  ['two servos', 2, 'servo-small'],
  ['a red led', 1, 'lamp-red'],
  ['12 x lamp', 12, 'lamp-green'],
  // by how a word begins, and not by how it ends
  ['calend', 1, 'keeper-clock'],
  ['lendar', 1, undefined],
])('“%s” is %d × %s', (line, count, part) => {
  const [read] = readTypedDevices(line, devices)
  expect([read!.count, read!.matches[0]?.id]).toEqual([count, part])
})

describe('what nets are called, whatever a builder calls his things', () => {
  const nets = (names: string[], chip = 'td8-28-dip', devices = 'lamp-red') =>
    resolveNeeds(project({ chip, devices: names.map((n) => [devices, n]) }), library).signals.map(
      (s) => s.net,
    )
  test.each<[string, string[], string[]]>([
    ['as he does', ['Safe light', 'Door'], ['SAFE_LIGHT', 'DOOR']],
    [
      'not as the supply, ground, reset, or the board’s own lamp',
      ['VCC', 'Gnd', 'Reset', 'lamp'],
      ['VCC_D1', 'GND_D2', 'RESET_D3', 'LAMP_D4'],
    ],
    ['not as a leg', ['PC3'], ['PC3_D1']],
    ['not as another', ['Lamp 1', 'Lamp-1', 'LAMP  1'], ['LAMP_1', 'LAMP_1_D2', 'LAMP_1_D3']],
    // Behind the resistor of A lies A_LED.
    ['not as what lies behind another’s parts', ['A', 'A LED'], ['A', 'A_LED_D2']],
    ['without a letter that a net could have', ['Лампа', 'Кнопка'], ['LINE', 'D2']],
  ])('%s', (_, names, expected) => {
    expect(nets(names)).toEqual(expected)
  })
  // By the board’s drawings: ground and rails, what comes in, a cell before its latch, the charger, reset, lamp, the latch’s gate.
  test.each('GND VCC VCC2 VCC9 VIN VPLUG VCELL VFEED VCHARGE CHARGE_SET RESET LAMP LATCH_GATE'.split(' '))(
    'never as the board’s own %s',
    (own) => expect(nets([own])).toEqual([`${own}_D1`]),
  )
  test('not as one of several of another: two of Lamp are LAMP_1 and LAMP_2', () => {
    const d = project({
      chip: 'td8-28-dip',
      devices: [
        ['lamp-red', 'Beam', undefined, { count: 2 }],
        ['lamp-red', 'Beam 2'],
      ],
    })
    expect(resolveNeeds(d, library).signals.map((s) => s.net)).toEqual(['BEAM_1', 'BEAM_2', 'BEAM_2_D2'])
  })
  test('a shared line by its bus, and nothing else by that', () => {
    const d = project({
      chip: 'td8-28-dip',
      devices: [
        ['humidity-two-wire', 'Air'],
        ['lamp-red', 'I2C SDA'],
      ],
    })
    expect(
      resolveNeeds(d, library)
        .signals.map((s) => s.net)
        .sort(),
    ).toEqual(['I2C_SCL', 'I2C_SDA', 'I2C_SDA_D2'])
  })
  test('with another chip the leg’s name is free again', () => {
    expect(nets(['PC3'], 'mw1-32')).toEqual(['PC3'])
  })
})

test('one line, several wishes; what is not known has no match', () => {
  const read = readTypedDevices('3 buttons, 1 buzzer and a flux capacitor; relay module', devices)
  expect(read.map((r) => [r.count, r.matches.length > 0])).toEqual([
    [3, true],
    [1, true],
    [1, false],
    [1, true],
  ])
  // What is described behind a colon is not looked for; its count is no part of it.
  const [pump] = readTypedDevices('2 buzzers: motor 12 V 0.4 A', devices)
  expect([pump!.count, pump!.what, pump!.matches]).toEqual([2, 'buzzers: motor 12 V 0.4 A', []])
  expect(readTypedDevices('  ', devices)).toEqual([])
  expect(readTypedDevices('???', devices).map((r) => r.matches)).toEqual([[]])
})

test('the darkroom timer asks for eleven signals: two of a bus, five inputs, one PWM, two outputs, one analog', () => {
  const needs = resolveNeeds(demo('darkroom-timer'), library)
  expect(Object.fromEntries(needs.asked.map((a) => [a.kind, a.count]))).toEqual({
    'I2C line': 2,
    input: 5,
    'PWM output': 1,
    output: 2,
    'analog input': 1,
  })
})

test('two devices on one bus share its lines; two serial links do not', () => {
  const design = demo('darkroom-timer')
  const of = (part: string, n: number) =>
    resolveNeeds(
      { ...design, needs: { ...design.needs, devices: [{ id: 'd1', part, name: 'X', count: n }] } },
      library,
    ).signals.map((s) => [s.id, s.ends.length])
  expect(of('temperature-two-wire', 2)).toEqual([
    ['i2c.SDA', 2],
    ['i2c.SCL', 2],
  ])
  expect(of('serial-link', 2)).toHaveLength(4)
  expect(of('card-reader', 2).map(([id]) => id)).toEqual([
    'spi.SCK',
    'spi.MOSI',
    'spi.MISO',
    'd1.1.CS',
    'd1.2.CS',
  ])
})

test('a variant brings its own supply and address, and lacks what it lacks', () => {
  const [name, design] = ['digit-display-4', demo('darkroom-timer')]
  const changed = structuredClone(library)
  const display = changed.parts[name]!
  if (display.kind !== 'device') throw new Error(name)
  display.variants!.push({
    id: 'x',
    name: 'cut down',
    supply: { max: 3.6, kind: 'recommended' },
    missing: [{ terminal: 'SCL', restsAt: 'ground' }],
  })
  const of = (variant: string) => {
    const devices = design.needs.devices.map((d) => (d.part === name ? { ...d, variant } : d))
    const needs = resolveNeeds({ ...design, needs: { ...design.needs, devices } }, changed)
    return { needs, instance: needs.instances.find((i) => i.part.id === name)! }
  }
  expect(of('b').instance.wiring.address).toBe(0x39)
  expect(of('x').instance.part.supply).toMatchObject({ max: 3.6 })
  expect(of('x').needs.signals.map((s) => s.id)).not.toContain('i2c.SCL')
  expect(of('no such').instance.wiring.address).toBe(0x38)
})

const needsOf = (devices: Project['devices'], chip = 'qm32-48') =>
  resolveNeeds(project({ chip, devices }), library)

test('an expansion board without one of its lines has the others, and its position is tied', () => {
  const { signals } = needsOf([['display-deck', 'Deck', undefined, { variant: 'b' }]])
  expect(signals.map((s) => s.id)).toEqual(['i2c.SDA', 'i2c.SCL', 'd1.1.RES'])
  expect(signals[2]).toMatchObject({ kind: 'digital-in', quiet: false, bus: undefined })
  expect(signals[2]!.ends[0]!.signal.electrical).toEqual({ kind: 'tied', to: 'ground' })
})

// A display and a tilt sensor may each be on the one two-wire bus, or not; what is on it for good decides for the bus.
test.each<[string, Project['devices'], string[] | undefined]>([
  ['one that may', [['glow-display', 'Show']], ['d1=i2c']],
  [
    'two that may',
    [
      ['glow-display', 'Show'],
      ['tilt-sensor', 'Tilt'],
    ],
    ['d1=i2c', 'd2=i2c'],
  ],
  ['two of one that may', [['glow-display', 'Show', undefined, { count: 2 }]], ['d1=i2c']],
  [
    'one that may before one that is',
    [
      ['glow-display', 'Show'],
      ['humidity-two-wire', 'Air'],
    ],
    undefined,
  ],
  [
    'one that is before one that may',
    [
      ['humidity-two-wire', 'Air'],
      ['glow-display', 'Show'],
    ],
    undefined,
  ],
])('the bus is there for %s', (_, devices, when) =>
  expect(needsOf(devices).open.signals.find((s) => s.id === 'i2c.SDA')!.when).toEqual(when),
)

test('the two lines of an encoder that is counted go to one timer, those of another to another', () => {
  const { signals } = needsOf([['rotary-encoder', 'Dial', 'counted', { count: 2 }]])
  const pairs = signals.flatMap((s) => (s.pair ? [[s.id, s.pair.line, s.pair.group]] : []))
  expect(pairs.map(([id, line]) => [id, line])).toEqual([
    ['d1.1.A', 'A'],
    ['d1.1.B', 'B'],
    ['d1.2.A', 'A'],
    ['d1.2.B', 'B'],
  ])
  const groups = pairs.map(([, , group]) => group)
  expect([groups[0] === groups[1], groups[2] === groups[3], groups[0] === groups[2]]).toEqual([
    true,
    true,
    false,
  ])
})
