import { shippedLibrary } from '../../test/files'
import type { Worked } from '../findings'
import { findPart } from '../parts'
import { exactly, type Range } from '../quantity'
import { objections, regulate } from '.'

const regulator = findPart(shippedLibrary(), 'regulator', 'br5-plain')!
const of = (value: Range, unit: 'A' | 'V'): Worked => ({
  label: 'x',
  symbol: 'x',
  value,
  unit,
  formula: 'x',
  inputs: [],
})

// The part file, every value exact: 5 V, 4.2 mA, 50 K/W, at most 125 °C, drop-out 1.5 V at 10 mA to 2 V at 1 A.
describe('linear regulator by hand', () => {
  const exact: typeof regulator = {
    ...regulator,
    output: { typ: 5, kind: 'typical' },
    quiescent: { typ: 4.2e-3, kind: 'typical' },
    package: { ...regulator.package, thermalResistance: { typ: 50, kind: 'typical' } },
    dropout: regulator.dropout.map((p) => ({ ...p, voltage: { typ: p.voltage.typ, kind: 'typical' } })),
  }
  const at = (volts: number, amperes: number) =>
    regulate(exact, of(exactly(amperes), 'A'), of(exactly(volts), 'V'), 30)
  test('12 V in, 200 mA: 1.4 W + 50.4 mW of heat, 102.52 °C inside, 1.596 V of drop-out', () => {
    const { dissipation, junction, margin } = at(12, 0.2)
    expect(dissipation.value.typ).toBeCloseTo(1.4504, 12)
    expect(junction.value.typ).toBeCloseTo(102.52, 9)
    expect(margin.value.typ).toBeCloseTo(12 - 5 - (1.5 + (0.5 * 0.19) / 0.99), 12)
  })
  test('the load limit is where the junction meets its limit: (1.9 W − 50.4 mW) / 7 V', () => {
    const { loadLimit } = at(12, 0.2)
    expect(loadLimit!.value.typ).toBeCloseTo((1.9 - 0.0504) / 7, 12)
    expect(at(12, loadLimit!.value.typ).junction.value.typ).toBeCloseTo(125, 9)
  })
  test('out of regulation its drop-out voltage is left over it, and it still takes its own current', () => {
    const { dissipation, margin, loadLimit } = at(4.5, 0.2)
    expect(dissipation.value.typ).toBeCloseTo(0.2 * (1.5 + (0.5 * 0.19) / 0.99) + 4.5 * 4.2e-3, 12)
    // Of less than its drop-out nothing comes out; all that comes in is left over it.
    expect(at(1, 0.2).dissipation.value.typ).toBeCloseTo(0.2 * 1 + 1 * 4.2e-3, 12)
    expect(margin.value.typ).toBeLessThan(-0.5)
    expect(loadLimit).toBeUndefined()
    // Of 5 V out of 5 V nothing is dropped either.
    expect(at(5, 0.2).loadLimit).toBeUndefined()
  })
})

describe('ranges go to the worst corner', () => {
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
    // The usual margin is at the usual load, 150 mA, and not at the greatest.
    expect(r.margin.value.typ).toBeCloseTo(11.7 - 5 - (1.5 + (0.5 * 0.14) / 0.99), 9)
  })
  test('heat at an input around the output is that of its drop-out voltage at that load', () => {
    const { value } = regulate(regulator, load, of({ min: 4.4, typ: 4.8, max: 5.5 }, 'V'), 30).dissipation
    expect(value.min).toBeCloseTo(1.5 * 0.01 + 4.4 * 4.2e-3, 9)
    expect(value.typ).toBeCloseTo((1.5 + (0.5 * 0.14) / 0.99) * 0.15 + 4.8 * 4.2e-3, 9)
    expect(value.max).toBeCloseTo((1.8 + ((2.5 - 1.8) * 0.21) / 0.99) * 0.22 + 5.5 * 8e-3, 9)
  })
  test('with room as usual and none at its lowest, the least heat is that of the drop-out voltage', () => {
    const { value } = regulate(regulator, load, of({ min: 6, typ: 7, max: 8 }, 'V'), 30).dissipation
    expect(value.min).toBeCloseTo(1.5 * 0.01 + 6 * 4.2e-3, 9)
    expect(value.max).toBeCloseTo((8 - 4.8) * 0.22 + 8 * 8e-3, 9)
  })
  // ((125 − 30) / 54 − 12.6 V · 8 mA) / (12.6 − 4.8) V: everything else at its worst. At that load it is just at its limit.
  test('the load limit is at the highest input, the lowest output and the worst way for the heat', () => {
    const limit = r.loadLimit!.value.max
    expect(limit).toBeCloseTo((95 / 54 - 12.6 * 8e-3) / 7.8, 12)
    const there = regulate(regulator, of({ min: 0.01, typ: 0.1, max: limit }, 'A'), input, 30)
    expect(there.junction.value.max).toBeCloseTo(125, 9)
  })
  test('what speaks against it is said', () => {
    expect(objections(r, load).map((o) => o.text)).toEqual(['its junction reaches 128 °C, above 125 °C'])
    expect(
      objections(regulate(regulator, load, of({ min: 6, typ: 7, max: 7 }, 'V'), 30), load)[0]!.text,
    ).toMatch(/^it lacks 1.1 V/)
  })
})
