// A leg's drop along a maker's table, by hand: the table turned round, line by line.

import { driverCurve, tableCurrent } from './driver'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import type { Chip, ChipPin, Led } from '../parts'

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

test('where a maker tables one side only, the other goes by the sheet; so does a leg without a table', () => {
  const half: Chip = {
    ...td8,
    io: { ...td8.io, drivers: [{ id: 'strong', name: 'strong', type: 'I/O', pullDown }] },
  }
  const fields = (c: Chip, p: ChipPin | undefined) =>
    (['high', 'low'] as const).map((side) => driverCurve(c, p, side).field)
  expect(fields(half, pin)).toEqual(['io.outputHigh', 'io.drivers.strong'])
  expect(fields(half, { ...pin, driver: undefined })).toEqual(['io.outputHigh', 'io.outputLow'])
  expect(fields(half, undefined)).toEqual(['io.outputHigh', 'io.outputLow'])
  expect(fields(td8, pin)).toEqual(['io.outputHigh', 'io.outputLow'])
})

describe('an LED on a leg', () => {
  const library = shippedLibrary()
  /** What leg and lamp stand, A. */
  const lamp = (leg: number, most: number, settings?: Record<string, number>) => {
    const red = structuredClone(library.parts['led-red']!) as Led
    red.currentAbsolute = { ...red.currentAbsolute, max: most }
    const chip = structuredClone(td8)
    chip.limits.pinAbsolute = { ...chip.limits.pinAbsolute, max: leg }
    const a = analyse(
      project({
        chip: 'td8-28-dip',
        source: 'cells-2-aa',
        devices: [['lamp-red', 'Lamp', 'to-ground', { settings }]],
      }),
      { parts: { ...library.parts, 'led-red': red, [chip.id]: chip } },
    )
    const part = a.build.support.find((s) => s.key === 'led:d1.1.light')!
    return { on: a.pins.leds['d1.1.light']!, part }
  }
  test('the current it is for comes from its sheet, or from whoever set it', () => {
    const origin = (settings?: Record<string, number>) =>
      lamp(0.04, 0.03, settings).on.resistance.inputs.find((i) => i.symbol === 'I')!.origin.kind
    expect(origin()).toBe('part')
    expect(origin({ 'light.current': 3e-3 })).toBe('decision')
  })
  test('without its resistor it stops where leg or lamp breaks, either of them', () => {
    // Some 50 mA flow then at most.
    const { max } = lamp(0.04, 0.03).on.bare.value
    expect(max).toBeGreaterThan(0.04)
    expect(max).toBeLessThan(0.1)
    const severity = (leg: number, most: number) => lamp(leg, most).part.risk.severity
    expect([severity(0.1, 0.1), severity(0.04, 0.1), severity(0.1, 0.03), severity(0.04, 0.03)]).toEqual([
      'risks',
      'stops',
      'stops',
      'stops',
    ])
  })
})
