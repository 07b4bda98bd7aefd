// A light-emitting diode on a chip's leg: its series resistor, and the current actually reached.

import type { Range } from '../quantity'
import type { Corner, CurvePoint } from './curve'
import { ledCurrentThrough } from './driver'

/**
 * Series resistor for a wanted current: R = (V_OH − V_F) / I, in ohms (Ohm's law).
 * `supply` less the driver's `drop` is V_OH. Throws RangeError when nothing is left for the resistor.
 */
export const seriesResistor = (supply: number, drop: number, forward: number, current: number): number => {
  const left = supply - drop - forward
  if (left <= 0) throw new RangeError('the LED needs more voltage than the driver gives')
  return left / current
}

/** Current in amperes through one resistance and an LED at one corner. */
export const ledCurrent = (
  supply: number,
  resistance: number,
  curve: readonly CurvePoint[],
  corner: Corner,
): number => ledCurrentThrough(supply, () => 0, resistance, curve, corner)

/** {min, typ, max} of that current: most where supply is high, resistance low and V_F low. */
export const ledCurrentRange = (supply: Range, resistance: Range, curve: readonly CurvePoint[]): Range => ({
  min: ledCurrent(supply.min, resistance.max, curve, 'max'),
  typ: ledCurrent(supply.typ, resistance.typ, curve, 'typ'),
  max: ledCurrent(supply.max, resistance.min, curve, 'min'),
})
