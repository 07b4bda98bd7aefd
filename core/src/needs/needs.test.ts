import { demo, shippedLibrary } from '../../test/files'
import { partsOfKind } from '../parts'
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
])('“%s” is %d × %s', (line, count, part) => {
  const [read] = readTypedDevices(line, devices)
  expect([read!.count, read!.matches[0]?.id]).toEqual([count, part])
})

test('one line, several wishes; what is not known has no match', () => {
  const read = readTypedDevices('3 buttons, 1 buzzer and a flux capacitor; relay module', devices)
  expect(read.map((r) => [r.count, r.matches.length > 0])).toEqual([
    [3, true],
    [1, true],
    [1, false],
    [1, true],
  ])
  expect(readTypedDevices('  ', devices)).toEqual([])
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
