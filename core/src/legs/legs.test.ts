import { shippedLibrary } from '../../test/files'
import { one, signalsOf, silent } from '../../test/signals'
import { takenPins } from '../planner'
import type { SignalNeed } from '../needs'
import { type Chip, findPart, partsOfKind } from '../parts'
import { bytePlans, findPins, legName, passport, pinNames, type Wire, waysToServe } from '.'
import { costContext, costsOf } from './costs'

const library = shippedLibrary()
const chipOf = (id: string): Chip => findPart(library, 'chip', id)!
const sda = one('temperature-two-wire')
const button = one('push-button')
const analog = one('temperature-analog')
const pwm = one('servo-small')
const edge = one('pulse-sensor', 'edge')
const lamp = one('lamp-red')
const [spiClock] = signalsOf(['card-reader', 1])
const [, serialOut] = signalsOf(['serial-link', 1])

describe('what a leg can do, from the part file', () => {
  test.each<[string, string, SignalNeed, string]>([
    // chip, pin, signal, the unit.line that serves it, `plain`, or the reason why not; read off the part files by hand
    ['td8-28-dip', 'PA4', sda, 'TWO.SDA'],
    ['td8-28-dip', 'PA5', sda, 'it has no I2C line SDA'],
    ['td8-28-dip', 'PC0', button, 'plain'],
    ['td8-28-dip', 'VCC', button, 'it is a supply leg'],
    ['td8-28-dip', 'GND1', lamp, 'it is a ground leg'],
    ['td8-28-dip', 'AREF', analog, 'it is the converter’s reference'],
    ['td8-28-dip', 'RESET', lamp, 'it is the reset leg'],
    ['td8-28-dip', 'PA3', analog, 'ADC.A3'],
    ['td8-28-dip', 'PC0', analog, 'it has no analog input'],
    ['td8-28-dip', 'PC1', pwm, 'T1.A'],
    ['td8-28-dip', 'PC0', pwm, 'it has no PWM output'],
    ['td8-28-dip', 'PB4', edge, 'INT.INT0'],
    ['td8-28-dip', 'PC5', spiClock!, 'SPI.SCK'],
    ['td8-28-dip', 'PB5', serialOut!, 'SER.RX'],
    ['td8-08-dip', 'PA3', sda, 'TWO.SDA'],
    ['td8-08-dip', 'PA3', pwm, 'T0.A'],
    ['td8-40-dip', 'PC0', sda, 'TWO.SDA'],
    ['qm32-32', 'PA10', sda, 'IC1.SDA@4'],
    ['qm32-32', 'PA12', sda, 'IC2.SDA@5'],
    ['qm32-32', 'PA8', pwm, 'TM1.CH1@1'],
    ['qm32-32', 'PA5', analog, 'ADC.IN5'],
    ['qm32-32', 'VDDA', analog, 'it is a supply leg'],
  ])('%s %s', (chipId, pinId, signal, expected) => {
    const chip = chipOf(chipId)
    const pin = chip.pins.find((p) => p.id === pinId)!
    const served = waysToServe(chip, pin, signal, takenPins(chip, { pins: [], source: undefined }))
    const words =
      'reason' in served
        ? served.reason
        : served.ways
            .map((w) =>
              w.unit ? `${w.unit}.${w.line}${w.select === undefined ? '' : `@${w.select}`}` : 'plain',
            )
            .join(' ')
    expect(words).toBe(expected)
  })

  test('a matrix brings any signal of its units to any of its pins, and nowhere else', () => {
    const base = chipOf('td8-28-dip')
    const chip: Chip = { ...base, matrix: [{ units: ['TWO'], pins: ['PC0', 'PC6'] }] }
    const can = chip.pins.filter((p) => 'ways' in waysToServe(chip, p, sda, {})).map((p) => p.id)
    expect(can).toEqual(['PA4', 'PC0', 'PC6'])
  })

  test.each([
    ['input-only', lamp, 'it can only be an input'],
    ['flash', button, 'it is wired to the flash memory'],
  ] as const)('a leg that is %s refuses', (kind, signal, reason) => {
    const chip = chipOf('td8-28-dip')
    const pin = { ...chip.pins.find((p) => p.id === 'PC0')!, attributes: [{ kind }] }
    expect(waysToServe(chip, pin, signal, {})).toEqual({ reason })
  })
})

describe('what a leg costs', () => {
  const cost = (chipId: string, pinId: string, signal: SignalNeed, kept: Record<string, string> = {}) => {
    const chip = chipOf(chipId)
    const pin = chip.pins.find((p) => p.id === pinId)!
    return costsOf(signal, pin, {}, costContext({ chip, signals: [signal], kept, radio: silent })).map(
      (c) => [c.name, c.points],
    )
  }
  const driver = one('pulse-sensor')
  test.each<[string, string, SignalNeed, [string, number][]]>([
    ['td8-28-dip', 'PC0', button, []],
    [
      'td8-28-dip',
      'PC4',
      driver,
      [
        ['programming leg', 60],
        ['scarce ability spent', 1],
      ],
    ],
    [
      'td8-28-dip',
      'PC4',
      button,
      [
        ['programming leg', 9],
        ['scarce ability spent', 1],
      ],
    ],
    ['td8-28-dip', 'PC5', spiClock!, [['programming leg', 6]]],
    ['td8-28-dip', 'PB0', button, [['crystal leg', 4]]],
    ['td8-28-dip', 'PA4', button, [['scarce ability spent', 2]]],
    ['qm32-32', 'PA13', button, [['debug leg', 30]]],
    ['qm32-32', 'PB8', button, [['start-up strap', 25]]],
  ])('%s %s for %j', (chip, pin, signal, items) => expect(cost(chip, pin, signal)).toEqual(items))

  test('a wire that would move costs, one that stays does not', () => {
    expect(cost('td8-28-dip', 'PC0', button, { [button.id]: 'PC7' })).toEqual([['moves a wire', 4]])
    expect(cost('td8-28-dip', 'PC0', button, { [button.id]: 'PC0' })).toEqual([])
  })
  test('a leg that twitches at start-up costs what must stay quiet, and nothing else', () => {
    const chip = chipOf('td8-28-dip')
    const pin = {
      ...chip.pins.find((p) => p.id === 'PC0')!,
      attributes: [{ kind: 'startup' as const, state: 'chatter' as const }],
    }
    const names = (s: SignalNeed) =>
      costsOf(s, pin, {}, costContext({ chip, signals: [s], kept: {}, radio: silent })).map((c) => c.name)
    expect(names(one('relay-module'))).toEqual(['start-up twitch'])
    expect(names(lamp)).toEqual([])
  })
})

// qm32-32, table of functions: timer 1's channels 1 and 2 are on PA8 and PA9, 3 on PA10. An encoder's A goes on the first, B on the second.
test.each([
  ['A', 'PA8', true],
  ['A', 'PA9', false],
  ['B', 'PA9', true],
  ['B', 'PA8', false],
  ['B', 'PA10', false],
])('an encoder’s line %s on %s: %s', (line, id, can) => {
  const chip = chipOf('qm32-32')
  const signal = signalsOf(['rotary-encoder', 1, 'counted']).find((s) => s.pair?.line === line)!
  const found = waysToServe(
    chip,
    chip.pins.find((p) => p.id === id)!,
    signal,
    {},
  )
  expect('reason' in found).toBe(!can)
})

describe('a byte on a port', () => {
  const wires = (...pins: string[]) =>
    pins.map((id, n) => ({ pin: { id }, signal: { id: `b${n}` } })) as unknown as Wire[]
  const port = (...pins: string[]) =>
    bytePlans(
      { bytes: [{ id: 'd1', name: 'Bars', signals: pins.map((_, n) => `b${n}`) }] },
      { wires: wires(...pins), wirings: [] },
    )[0]!.port
  test.each<[string[], { name: string; shift: number } | undefined]>([
    [['PA2', 'PA3', 'PA4'], { name: 'PA', shift: 2 }],
    [['PA2', 'PA3', 'PB4'], undefined],
    [['PA2', 'PA4', 'PA3'], undefined],
    [['PA4', 'PA3', 'PA2'], undefined],
    [['RESET', 'PA1'], undefined],
  ])('%j: %j', (pins, to) => expect(port(...pins)).toEqual(to))
})

describe('names', () => {
  const chip = chipOf('td8-28-dip')
  test.each([
    ['5', 'PA4'],
    ['leg 5', 'PA4'],
    ['pa4', 'PA4'],
    ['XIN', 'PB0'],
    ['sda', 'PA4'],
    ['TWO.SDA', 'PA4'],
    ['ADC A0', 'PA0'],
    ['INT1', 'PB7'],
    ['pd0', 'RESET'],
  ])('“%s” finds %s first', (text, pin) => expect(findPins(chip, text)[0]?.id).toBe(pin))
  test('nothing is found by nothing, or by nonsense', () => {
    expect(findPins(chip, ' ')).toEqual([])
    expect(findPins(chip, 'zzz')).toEqual([])
  })
  test('every pin of every chip is found by each of its legs and by its own name', () => {
    for (const c of partsOfKind(library, 'chip'))
      for (const pin of c.pins) {
        expect(findPins(c, pin.id)[0]?.id).toBe(pin.id)
        for (const leg of pin.legs) expect(findPins(c, String(leg)).map((p) => p.id)).toContain(pin.id)
      }
  })
  test('a passport tells all names and abilities', () => {
    const pin = chip.pins.find((p) => p.id === 'PA4')!
    expect(passport(chip, pin)).toMatchObject({
      place: 'leg 5',
      names: ['PA4', 'number 4'],
      abilities: ['analog ADC A4', 'TWO SDA'],
    })
    expect(legName(pin)).toBe('leg 5 (PA4)')
  })
  test('what a matrix can bring to a leg is told by kind', () => {
    const module = chipOf('mw2-module')
    const told = passport(
      module,
      module.pins.find((p) => p.id === 'P00')!,
    ).abilities.at(-1)!
    expect(told).toMatch(/^any line of /)
    for (const word of ['PWM', 'serial', 'I2C', 'SPI']) expect(told).toContain(word)
    const ground = module.pins.find((p) => p.type === 'ground')!
    expect(passport(module, ground).abilities).toEqual([])
  })
  test('a leg has the labels of boards that carry the chip: T0 is PA4 of the QM32-64, and S1 is not', () => {
    const bare = chipOf('qm32-64')
    const of = (id: string) =>
      pinNames(bare, library, [], [])
        .get(id)!
        .map((n) => n.name)
    expect(of('PA4')).toContain('T0')
    expect(of('PA4')).not.toContain('S1')
    expect(of('PA0')).toContain('S1')
  })
})
