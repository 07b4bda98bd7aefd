// How far a leg's output is from its rail at a current: along the maker's table where there is one, else as a resistance
// from the sheet's point.

import { fullRange, type Range } from '../quantity'
import type { LegDriver, Rated } from '../parts'
import { type Corner, type CurvePoint, diodeVoltage, interpolate } from './curve'

/** Volts from the rail at a current in amperes. `max` is the weakest driver, `min` the strongest. */
export type Driver = (current: number, corner: Corner) => number
export type DriveTable = NonNullable<LegDriver['pullDown']>

/** One point of a sheet: a resistance, drop / current. */
export const resistanceDriver = (resistance: Range): Driver => {
  return (current, corner) => current * resistance[corner]
}

/** Weak drivers give the smallest currents of a table, so they drop most. */
const column: Record<Corner, keyof Pick<Rated, 'min' | 'typ' | 'max'>> = {
  min: 'max',
  typ: 'typ',
  max: 'min',
}

const rowsOf = (table: DriveTable, corner: Corner): [voltage: number, current: number][] =>
  table.map((p) => [p.voltage, fullRange(p.current)[column[corner]]])

/**
 * Amperes at volts from the rail, straight between the rows of the table (IBIS, ANSI/EIA-656, section 6b). Held at the
 * last row beyond it.
 */
export const tableCurrent = (table: DriveTable, voltage: number, corner: Corner): number =>
  interpolate(rowsOf(table, corner), voltage)

/** The other way round: the smallest voltage at which the table carries the current; where none does, its last slope goes on. */
export const tableDriver = (table: DriveTable): Driver => {
  const rows: Record<Corner, [number, number][]> = {
    min: rowsOf(table, 'min'),
    typ: rowsOf(table, 'typ'),
    max: rowsOf(table, 'max'),
  }
  return (current, corner) => {
    const points = rows[corner]
    if (current <= points[0]![1]) return points[0]![0]
    const after = points.findIndex(([, i]) => i >= current)
    const b = after >= 0 ? after : points.length - 1
    const [v0, i0] = points[b - 1]!
    const [v1, i1] = points[b]!
    // A driver that carries no more whatever the voltage: nothing but more voltage than there is would help.
    if (i1 <= i0) return after >= 0 ? v1 : Infinity
    return v0 + ((v1 - v0) * (current - i0)) / (i1 - i0)
  }
}

/**
 * Current in amperes through driver, series resistor and LED at one corner: the root of V − V_drop(I) − I·R − V_F(I) = 0,
 * by bisection (the left side falls as I grows, so there is one root).
 */
export const ledCurrentThrough = (
  supply: number,
  driver: Driver,
  resistance: number,
  curve: readonly CurvePoint[],
  corner: Corner,
): number => {
  const rest = (i: number) => supply - driver(i, corner) - i * resistance - diodeVoltage(curve, corner, i)
  if (rest(0) <= 0) return 0
  let low = 0
  let high = 1
  for (let n = 0; n < 60; n++) {
    const middle = (low + high) / 2
    if (rest(middle) > 0) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** {min, typ, max} of that: most where the supply is high, the driver strong, the resistor small and V_F low. */
export const ledCurrentsThrough = (
  supply: Range,
  driver: Driver,
  resistance: Range,
  curve: readonly CurvePoint[],
): Range => ({
  min: ledCurrentThrough(supply.min, driver, resistance.max, curve, 'max'),
  typ: ledCurrentThrough(supply.typ, driver, resistance.typ, curve, 'typ'),
  max: ledCurrentThrough(supply.max, driver, resistance.min, curve, 'min'),
})
