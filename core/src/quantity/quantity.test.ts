import fc from 'fast-check'
import {
  durationWords,
  formatMarking,
  formatQuantity,
  fullRange,
  nearest,
  nextDown,
  nextUp,
  parallel,
  parseQuantity,
  QuantityError,
  seriesValues,
  type Unit,
  within,
} from '.'

describe('reading what a builder types', () => {
  test.each<[string, Unit, number]>([
    ['4k7', 'Ω', 4700],
    ['4u7', 'F', 4.7e-6],
    ['100n', 'F', 1e-7],
    ['22 pF', 'F', 22e-12],
    ['3.3V', 'V', 3.3],
    ['3V3', 'V', 3.3],
    ['16 MHz', 'Hz', 16e6],
    ['32.768kHz', 'Hz', 32768],
    ['2.2 mA', 'A', 2.2e-3],
    ['1R5', 'Ω', 1.5],
    ['0R22', 'Ω', 0.22],
    ['10', 'Ω', 10],
    ['4,7k', 'Ω', 4700],
    ['-40 °C', '°C', -40],
    ['1e3', 'Hz', 1000],
    ['5 µA', 'A', 5e-6],
  ])('%s in %s', (text, unit, value) => expect(parseQuantity(text, unit)).toBe(value))

  test.each<[string, Unit]>([
    ['', 'Ω'],
    ['k', 'Ω'],
    ['4k7Ω', 'V'],
    ['3 volts please', 'V'],
    ['5 A', 'V'],
    ['4..7', 'Ω'],
    ['1m', '%'],
  ])('“%s” in %s is refused by name', (text, unit) =>
    expect(() => parseQuantity(text, unit)).toThrow(QuantityError),
  )

  test('printing and reading again loses no digit', () => {
    const units: Unit[] = ['V', 'A', 'Ω', 'F', 'Hz', 's', 'W', '%']
    fc.assert(
      fc.property(
        fc.double({ min: 1e-11, max: 1e10, noNaN: true }),
        fc.constantFrom(...units),
        (value, unit) => parseQuantity(formatQuantity(value, unit), unit) === value,
      ),
    )
  })

  test.each<[number, 'Ω' | 'F', string]>([
    [4700, 'Ω', '4k7'],
    [1.5, 'Ω', '1R5'],
    [330, 'Ω', '330R'],
    [22e-12, 'F', '22p'],
    [1e-7, 'F', '100n'],
    [4.7e-6, 'F', '4u7'],
  ])('%d %s is marked %s', (value, unit, marking) => expect(formatMarking(value, unit)).toBe(marking))
})

describe('preferred values against the tables of IEC 60063', () => {
  test('E12 and E24 as printed there', () => {
    expect(seriesValues.E12).toEqual([1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2])
    expect(seriesValues.E6).toEqual([1, 1.5, 2.2, 3.3, 4.7, 6.8])
    expect(seriesValues.E24).toHaveLength(24)
  })
  test('E48 and E96 at places where rounding decides', () => {
    expect(seriesValues.E48.slice(0, 6)).toEqual([1, 1.05, 1.1, 1.15, 1.21, 1.27])
    expect(seriesValues.E48.slice(-4)).toEqual([8.25, 8.66, 9.09, 9.53])
    expect(seriesValues.E96.slice(0, 8)).toEqual([1, 1.02, 1.05, 1.07, 1.1, 1.13, 1.15, 1.18])
    expect(seriesValues.E96.slice(-5)).toEqual([8.87, 9.09, 9.31, 9.53, 9.76])
  })
  test('neighbours, also across a decade and at a value itself', () => {
    expect(nextUp(301, 'E12')).toBe(330)
    expect(nextDown(301, 'E12')).toBe(270)
    expect(nearest(301, 'E12')).toBe(330)
    expect(nextUp(9.2, 'E24')).toBe(10)
    expect(nextUp(4700, 'E12')).toBe(4700)
    expect(nextDown(22e-12, 'E12')).toBe(22e-12)
    expect(() => nextUp(0, 'E12')).toThrow(RangeError)
  })
  test('next up is never below and never a whole step above', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-12, max: 1e9, noNaN: true }), (value) => {
        const up = nextUp(value, 'E24')
        return up >= value * (1 - 1e-8) && nextDown(value, 'E24') <= value * (1 + 1e-8) && up / value < 1.16 // 1.3 to 1.5 is the widest step
      }),
    )
  })
})

describe('ranges', () => {
  test('two 10 kΩ in parallel are 5 kΩ, corner by corner', () =>
    expect(parallel(within(10e3, 0.05), within(10e3, 0.05))).toEqual({ min: 4750, typ: 5000, max: 5250 }))
  test('what a sheet leaves open', () => {
    expect(fullRange({ max: 3 })).toEqual({ min: 3, typ: 3, max: 3 })
    expect(fullRange({ min: 1, max: 3 })).toEqual({ min: 1, typ: 2, max: 3 })
    expect(() => fullRange({})).toThrow(RangeError)
  })
})

test.each([
  [90, '2 min'],
  [3600 * 5 + 60 * 12, '5 h 12 min'],
  [86400 * 37.4, '37 days'],
  [86400 * 412.6, '413 days'],
  [Infinity, 'no end'],
])('%d s', (seconds, words) => expect(durationWords(seconds)).toBe(words))
