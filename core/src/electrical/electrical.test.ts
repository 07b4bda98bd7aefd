import {
  diodeVoltage,
  interpolate,
  largestBusPullUp,
  largestPullDown,
  largestPullUp,
  ledCurrent,
  ledCurrentRange,
  seriesResistor,
  smallestBusPullUp,
  timeToThreshold,
  voltageAt,
} from '.'

const red = [
  { current: 1e-3, voltage: { min: 1.6, typ: 1.7, max: 1.8, kind: 'guaranteed' as const } },
  { current: 20e-3, voltage: { min: 1.85, typ: 2.05, max: 2.4, kind: 'guaranteed' as const } },
]

describe('LED on a leg', () => {
  test('series resistor by hand: (5 − 0.2 − 2.0) V / 10 mA = 280 Ω', () => {
    expect(seriesResistor(5, 0.2, 2, 10e-3)).toBeCloseTo(280, 9)
    expect(() => seriesResistor(2, 0.2, 2, 10e-3)).toThrow(RangeError)
  })
  test('current reached: 330 Ω on 5 V, curve 1.7 V + (I − 1 mA)·18.42 Ω, solved by hand', () => {
    // 5 = 330·I + 1.7 + (I − 1e-3)·(0.35 / 19e-3)  →  I = (3.3 + 0.018421) / (330 + 18.42105)
    expect(ledCurrent(5, 330, red, 'typ')).toBeCloseTo((3.3 + 0.35 / 19) / (330 + 0.35 / 19e-3), 12)
  })
  test('most at high supply, low resistance, low forward voltage; nothing below the forward voltage', () => {
    const range = ledCurrentRange({ min: 4.75, typ: 5, max: 5.25 }, { min: 313.5, typ: 330, max: 346.5 }, red)
    expect(range.max).toBeCloseTo(ledCurrent(5.25, 313.5, red, 'min'), 12)
    expect(range.min).toBeLessThan(range.typ)
    expect(range.typ).toBeLessThan(range.max)
    expect(ledCurrent(1.5, 100, red, 'typ')).toBe(0)
  })
  test('curves: straight between points, held outside, last slope beyond for a diode', () => {
    expect(voltageAt(red, 10.5e-3).typ).toBeCloseTo(1.875, 12)
    expect(diodeVoltage(red, 'typ', 39e-3)).toBeCloseTo(2.4, 12)
    expect(
      interpolate(
        [
          [1, 10],
          [2, 20],
        ],
        5,
      ),
    ).toBe(20)
    expect(
      interpolate(
        [
          [1, 10],
          [2, 20],
        ],
        1.25,
      ),
    ).toBe(12.5)
  })
})

describe('pull resistors', () => {
  test('largest pull-up: (4.75 − 3.0) V / 1 µA = 1.75 MΩ', () =>
    expect(largestPullUp(4.75, 3, 1e-6)).toBeCloseTo(1.75e6, 3))
  test.each([
    // V_DD, V_OL, I_OL → R_min; the worked example of the I2C-bus specification, section 7.1: 5 V, 3 mA
    [5, 0.4, 3e-3, 1533.33],
    [3.3, 0.4, 3e-3, 966.67],
    [5.25, 0.4, 3e-3, 1616.67],
    // fast mode plus: drivers of 20 mA
    [3.3, 0.4, 20e-3, 145],
  ])('I2C smallest pull-up at %d V', (v, low, i, r) => expect(smallestBusPullUp(v, low, i)).toBeCloseTo(r, 1))
  test.each([
    // t_r, C_b → R_max by hand: 1 µs / (0.8473 · 100 pF) and the fast mode's 300 ns at 200 pF
    [1000e-9, 100e-12, 11802.2],
    [300e-9, 200e-12, 1770.3],
    [1000e-9, 400e-12, 2950.5],
    // fast mode plus: 120 ns at 550 pF, the most it allows
    [120e-9, 550e-12, 257.5],
  ])('I2C largest pull-up for %d s, %d F', (t, c, r) => expect(largestBusPullUp(t, c)).toBeCloseTo(r, 0))
  test('gate: 1 V threshold, 1 µA leakage → 500 kΩ; 50 pF creeps up in 50 µs', () => {
    expect(largestPullDown(1, 1e-6)).toBeCloseTo(500e3, 6)
    expect(timeToThreshold(50e-12, 1, 1e-6)).toBeCloseTo(50e-6, 12)
  })
})
