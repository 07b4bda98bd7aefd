// A leg's drop along a maker's table, by hand: the table turned round, line by line.

import { shippedLibrary } from '../../../test/files'
import type { Chip, ChipPin } from '../../parts'
import { driverCurve, tableCurrent } from './driver'

const td8 = shippedLibrary().parts['td8-28-dip'] as Chip
const row = (voltage: number, typ: number, min = typ, max = typ) => ({
  voltage,
  current: { min, typ, max, kind: 'typical' as const },
})
const pullDown = [
  row(0, 0, 0, 1e-3),
  row(1, 10e-3, 5e-3, 20e-3),
  row(2, 15e-3, 7.5e-3, 30e-3),
  row(3, 15e-3, 7.5e-3, 30e-3),
]
const pullUp = [row(0, 0), row(1, 4e-3)]
const chip: Chip = {
  ...td8,
  io: { ...td8.io, drivers: [{ id: 'strong', name: 'strong', type: 'I/O', pullDown, pullUp }] },
}
const pin = { ...td8.pins[0]!, driver: 'strong' } as ChipPin
const at = (side: 'high' | 'low', x: number) =>
  driverCurve(chip, pin, side).points.find((p) => Math.abs(p.x - x) < 1e-12)?.y

test('volts over amperes: what carries more drops less, and where none carries more it drops without end', () => {
  const { points } = driverCurve(chip, pin, 'low')
  // every current of any line; from 15 mA on the usual one carries no more: 1 V more for 1 µA
  expect(points.map((p) => Number((p.x * 1e3).toFixed(3)))).toEqual([
    0, 1, 5, 7.5, 7.501, 10, 15, 15.001, 20, 30, 30.001,
  ])
  // At 10 mA: the strong line from 1 mA at nothing to 20 mA at 1 V: 9/19 V; the weak one beyond 7.5 mA, 1 V for 1 µA: 3 V + 2.499 mA · 1 MV/A.
  expect(at('low', 10e-3)!.min).toBeCloseTo(9 / 19, 9)
  expect(at('low', 10e-3)!.typ).toBeCloseTo(1, 9)
  expect(at('low', 10e-3)!.max! / 1e3).toBeCloseTo(2.502, 6)
  // Below where the strong line begins it drops nothing.
  expect(at('low', 0)).toMatchObject({ min: 0, typ: 0, max: 0 })
  expect(at('low', 15.001e-3)!.typ).toBeCloseTo(3, 9)
})
test('each side has its own table; a line that still rises goes on as it is', () => {
  expect(driverCurve(chip, pin, 'high').points.map((p) => [p.x, p.y.typ])).toEqual([
    [0, 0],
    [4e-3, 1],
  ])
  const [first, second] = driverCurve(chip, undefined, 'high').points
  expect([first!.x, first!.y.max, second!.x]).toEqual([0, 0, td8.io.outputHigh[0]!.current])
})
test.each([
  [-1, 'typ', 0],
  [0.5, 'typ', 5e-3],
  [0.5, 'min', 2.5e-3],
  [0.5, 'max', 10.5e-3],
  [1.5, 'typ', 12.5e-3],
  [9, 'max', 30e-3],
] as const)('at %d V the %s line carries %d A', (v, line, i) =>
  expect(tableCurrent(pullDown, v, line)).toBeCloseTo(i, 12),
)
