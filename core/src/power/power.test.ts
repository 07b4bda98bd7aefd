import { shippedLibrary } from '../../test/files'
import type { Worked } from '../findings'
import { findPart } from '../parts'
import type { Range } from '../quantity'
import { dropoutMargin, junctionTemperature, linearDissipation, loadAtLimit, objections, regulate } from '.'

describe('linear regulator by hand', () => {
  test('12 V in, 5 V out, 200 mA, 5 mA quiescent: 1.4 W + 60 mW', () =>
    expect(linearDissipation(12, 5, 0.2, 5e-3)).toBeCloseTo(1.46, 12))
  test('1.46 W at 50 K/W in 30 °C: 103 °C', () =>
    expect(junctionTemperature(30, 1.46, 50)).toBeCloseTo(103, 12))
  test('7 V in, 5 V out, 2 V drop-out: nothing left', () => expect(dropoutMargin(7, 5, 2)).toBe(0))
  test('the load limit is where the junction meets its limit', () => {
    const load = loadAtLimit(12, 5, 5e-3, 30, 125, 50)
    expect(load).toBeCloseTo((1.9 - 0.06) / 7, 12)
    expect(junctionTemperature(30, linearDissipation(12, 5, load, 5e-3), 50)).toBeCloseTo(125, 9)
  })
})

describe('ranges go to the worst corner', () => {
  const regulator = findPart(shippedLibrary(), 'regulator', 'br5-plain')!
  const of = (value: Range, unit: 'A' | 'V'): Worked => ({
    label: 'x',
    symbol: 'x',
    value,
    unit,
    formula: 'x',
    inputs: [],
  })
  const load = of({ min: 0.01, typ: 0.15, max: 0.22 }, 'A')
  const input = of({ min: 11, typ: 11.7, max: 12.6 }, 'V')
  const r = regulate(regulator, load, input, 30)
  test('heat at highest input, greatest load, lowest output, by hand', () => {
    // (12.6 − 4.8) · 0.22 + 12.6 · 8 mA = 1.716 + 0.1008 W; junction at 54 K/W
    expect(r.dissipation.value.max).toBeCloseTo(1.8168, 9)
    expect(r.junction.value.max).toBeCloseTo(30 + 1.8168 * 54, 9)
  })
  test('margin at lowest input and highest output; drop-out between the sheet’s points at 220 mA', () => {
    const drop = 1.8 + ((2.5 - 1.8) * (0.22 - 0.01)) / 0.99
    expect(r.margin.value.min).toBeCloseTo(11 - 5.2 - drop, 9)
  })
  test('what speaks against it is said', () => {
    expect(objections(r, load, input).map((o) => o.text)).toEqual([
      'its junction reaches 128 °C, above 125 °C',
    ])
    expect(
      objections(
        regulate(regulator, load, of({ min: 6, typ: 7, max: 7 }, 'V'), 30),
        load,
        of({ min: 6, typ: 7, max: 7 }, 'V'),
      )[0]!.text,
    ).toMatch(/^it lacks 1.1 V/)
  })
})
