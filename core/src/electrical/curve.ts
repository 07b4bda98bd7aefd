// Curves given as points in a sheet: straight lines between them.

import { fullRange, type Range } from '../quantity'
import type { Rated } from '../parts'

export type Corner = keyof Range

/** Linear interpolation of y over x; held at the ends outside. `points` ascend in x. */
export const interpolate = (points: readonly (readonly [number, number])[], x: number): number => {
  const first = points[0]!
  const last = points[points.length - 1]!
  if (x <= first[0]) return first[1]
  if (x >= last[0]) return last[1]
  const after = points.findIndex(([px]) => px >= x)
  const [x0, y0] = points[after - 1]!
  const [x1, y1] = points[after]!
  return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0)
}

export interface CurvePoint {
  current: number
  voltage: Rated
}

/** Sorted once for each curve: some are read sixty times for one number. */
const sorted = new WeakMap<readonly CurvePoint[], Record<Corner, (readonly [number, number])[]>>()
const byCurrent = (curve: readonly CurvePoint[], corner: Corner) => {
  let lines = sorted.get(curve)
  if (!lines) {
    const points = [...curve].sort((a, b) => a.current - b.current)
    const line = (c: Corner) => points.map((p) => [p.current, fullRange(p.voltage)[c]] as const)
    sorted.set(curve, (lines = { min: line('min'), typ: line('typ'), max: line('max') }))
  }
  return lines[corner]
}

/** Voltage of a curve at a current, {min, typ, max} each along its own line. In volts. */
export const voltageAt = (curve: readonly CurvePoint[], current: number): Range => ({
  min: interpolate(byCurrent(curve, 'min'), current),
  typ: interpolate(byCurrent(curve, 'typ'), current),
  max: interpolate(byCurrent(curve, 'max'), current),
})

/** Diode voltage at a current for one corner; beyond the last point the last slope goes on. */
export const diodeVoltage = (curve: readonly CurvePoint[], corner: Corner, current: number): number => {
  const points = byCurrent(curve, corner)
  const n = points.length
  const last = points[n - 1]!
  if (current <= last[0] || n < 2) return interpolate(points, current)
  const before = points[n - 2]!
  return last[1] + ((last[1] - before[1]) / (last[0] - before[0])) * (current - last[0])
}
