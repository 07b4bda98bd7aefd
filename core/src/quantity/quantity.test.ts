import fc from 'fast-check'
import {
  add,
  durationWords,
  euro,
  listWords,
  formatMarking,
  formatQuantity,
  fullRange,
  isExact,
  nearest,
  nextDown,
  nextUp,
  parseQuantity,
  QuantityError,
  seriesValues,
  parseTime,
  timeWords,
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
    ['60 cm2', 'cm²', 60],
    ['32.768kHz', 'Hz', 32768],
    ['2.2 mA', 'A', 2.2e-3],
    ['1R5', 'Ω', 1.5],
    ['0R22', 'Ω', 0.22],
    ['10', 'Ω', 10],
    ['4,7k', 'Ω', 4700],
    ['-40 °C', '°C', -40],
    ['1e3', 'Hz', 1000],
    ['2e-3', 'A', 2e-3],
    ['2e+3', 'Ω', 2000],
    ['+5', 'V', 5],
    ['1.2 GHz', 'Hz', 1.2e9],
    ['12 nA', 'A', 12e-9],
    ['4K7', 'Ω', 4700],
    ['2M2', 'Ω', 2.2e6],
    ['4k7 Ohm', 'Ω', 4700],
    ['.5', 'V', 0.5],
    ['40 C', '°C', 40],
    ['5 %', '%', 5],
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
    ['3V3', 'Ω'],
    ['4k7 V', 'Ω'],
    ['4.7k3', 'Ω'],
    ['5 5', 'V'],
    ['x5', 'V'],
    ['5 Vx', 'V'],
    ['1e', 'V'],
  ])('“%s” in %s is refused by name', (text, unit) =>
    expect(() => parseQuantity(text, unit)).toThrow(QuantityError),
  )

  test.each<[number, Unit, number | undefined, string]>([
    [0, 'V', 3, '0 V'],
    [Infinity, 'V', 3, '∞ V'],
    [-Infinity, 'V', 3, '−∞ V'],
    [NaN, 'V', 3, '— V'],
    [-0.3, 'V', 3, '−300 mV'],
    [1234.5, 'Ω', 3, '1.23 kΩ'],
    [999.9, 'Ω', 3, '1 kΩ'],
    [2e-13, 'F', undefined, '0.2 pF'],
    [3e11, 'Hz', undefined, '300 GHz'],
    [12345, '%', undefined, '12345 %'],
    [0.05, 'K/W', undefined, '0.05 K/W'],
    [47, '', undefined, '47'],
    [100, 'V', undefined, '100 V'],
  ])('%d %s to %s digits is printed %s', (value, unit, digits, text) =>
    expect(formatQuantity(value, unit, digits).replace(/\s/g, ' ')).toBe(text),
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
    expect(seriesValues.E24).toEqual([
      1, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2, 2.2, 2.4, 2.7, 3, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5,
      8.2, 9.1,
    ])
    // The standard: E48 is every other value of E96.
    expect(seriesValues.E48).toEqual(seriesValues.E96.filter((_, i) => i % 2 === 0))
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
    // 1.1 and 1.2: their middle by ratio is √1.32 = 1.14891
    expect([nearest(1.1489, 'E24'), nearest(1.149, 'E24')]).toEqual([1.1, 1.2])
    expect(nextDown(1, 'E6')).toBe(1)
    expect(nextDown(0.99, 'E6')).toBe(0.68)
    for (const value of [0, -1, NaN, Infinity]) expect(() => nextUp(value, 'E12')).toThrow(RangeError)
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
  test('within a tolerance, of negative ones too; added corner by corner', () => {
    expect(within(1000, 0.05)).toEqual({ min: 950, typ: 1000, max: 1050 })
    expect(within(-1000, 0.05)).toEqual({ min: -1050, typ: -1000, max: -950 })
    expect(add({ min: 1, typ: 2, max: 4 }, { min: -3, typ: 5, max: 6 })).toEqual({ min: -2, typ: 7, max: 10 })
    expect(add()).toEqual({ min: 0, typ: 0, max: 0 })
    expect([isExact({ min: 1, typ: 1, max: 1 }), isExact({ min: 1, typ: 1, max: 2 })]).toEqual([true, false])
  })
  test('what a sheet leaves open', () => {
    expect(fullRange({ max: 3 })).toEqual({ min: 3, typ: 3, max: 3 })
    expect(fullRange({ min: 1, max: 3 })).toEqual({ min: 1, typ: 2, max: 3 })
    expect(fullRange({ min: 1, typ: 1.2, max: 3 })).toEqual({ min: 1, typ: 1.2, max: 3 })
    expect(fullRange({ min: 1 })).toEqual({ min: 1, typ: 1, max: 1 })
    expect(fullRange({ min: 1, typ: 2 })).toEqual({ min: 1, typ: 2, max: 2 })
    expect(fullRange({ typ: 2, max: 3 })).toEqual({ min: 2, typ: 2, max: 3 })
    expect(() => fullRange({})).toThrow(RangeError)
  })
})

test.each([
  [90, '2 min'],
  [3570, '1 h 0 min'],
  [3600 * 6 - 10, '6 h 0 min'],
  [3540, '59 min'],
  [86400 * 1.99, '47 h 46 min'],
  [86400 * 2, '2 days'],
  [86400 * 2.54, '2.5 days'],
  [86400 * 99.4, '99 days'],
  [86400 * 100.4, '100 days'],
  [3600 * 5 + 60 * 12, '5 h 12 min'],
  [86400 * 37.4, '37 days'],
  [86400 * 412.6, '413 days'],
  [Infinity, 'no end'],
])('%d s', (seconds, words) => expect(durationWords(seconds)).toBe(words))

test('prices in euro and cent', () =>
  expect([euro(1.005), euro(0.1), euro(12)]).toEqual(['€ 1.00', '€ 0.10', '€ 12.00']))

test('names in a row, as one says them', () =>
  expect([[], ['A'], ['A', 'B'], ['A', 'B', 'C']].map(listWords)).toEqual(['', 'A', 'A and B', 'A, B and C']))

test.each([
  ['90', 90],
  ['90 s', 90],
  ['1.5min', 90],
  ['1,5 min', 90],
  ['1 h 30 min', 5400],
  ['2 days 6 hours', 194_400],
  ['250 ms', 0.25],
  ['8 µs', 8e-6],
])('%s is %d seconds', (text, seconds) => expect(parseTime(text)).toBeCloseTo(seconds, 12))

test.each([
  ['', 'no length of time'],
  ['soon', 'no length of time'],
  ['5 m', 'minutes or a thousandth'],
  ['5 weeks', 'no unit of time'],
  ['1 h 30', '30 of what?'],
  ['-3 s', 'no length of time'],
])('“%s” is no time: %s', (text, why) => expect(() => parseTime(text)).toThrow(why))

test.each([
  [0.25, '250 ms'],
  [59.5, '59.5 s'],
  [60, '1 min'],
  [90.5, '1 min 30.5 s'],
  [21_600, '6 h'],
  [86_400, '1 day'],
  [180_060, '2 days 2 h 1 min'],
])('%d seconds are %s, and read back the same', (seconds, words) => {
  expect(timeWords(seconds)).toBe(words)
  expect(parseTime(words)).toBe(seconds)
})
