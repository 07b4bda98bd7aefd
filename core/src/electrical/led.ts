// A light-emitting diode on a chip's leg: its series resistor, and the current actually reached.

import type { Range } from '../quantity'
import { type Corner, type CurvePoint, diodeVoltage } from './curve'

/**
 * Series resistor for a wanted current: R = (V_OH − V_F) / I, in ohms (Ohm's law).
 * `supply` less the driver's `drop` is V_OH. Throws RangeError when nothing is left for the resistor.
 */
export const seriesResistor = (supply: number, drop: number, forward: number, current: number): number => {
  const left = supply - drop - forward
  if (left <= 0) throw new RangeError('the LED needs more voltage than the driver gives')
  return left / current
}

/**
 * Current in amperes through driver resistance + series resistor + LED at one corner: the root of
 * V − I·R − V_F(I) = 0, by bisection (the left side falls as I grows, so there is one root).
 */
export const ledCurrent = (
  supply: number,
  resistance: number,
  curve: readonly CurvePoint[],
  corner: Corner,
): number => {
  const rest = (i: number) => supply - i * resistance - diodeVoltage(curve, corner, i)
  if (rest(0) <= 0) return 0
  let low = 0
  let high = 1
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (rest(middle) > 0) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** {min, typ, max} of that current: most where supply is high, resistance low and V_F low. */
export const ledCurrentRange = (supply: Range, resistance: Range, curve: readonly CurvePoint[]): Range => ({
  min: ledCurrent(supply.min, resistance.max, curve, 'max'),
  typ: ledCurrent(supply.typ, resistance.typ, curve, 'typ'),
  max: ledCurrent(supply.max, resistance.min, curve, 'min'),
})
