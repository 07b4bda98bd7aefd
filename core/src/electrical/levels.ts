// Logic levels and what joins two of them: noise margins, dividers, and how fast a line behind a resistor can be.

import type { Range } from '../quantity'

/**
 * What is left between a level driven and the threshold it must pass, in volts: driven − threshold for a high, the
 * other way round for a low. `together`: both follow one supply, so they are compared corner by corner; otherwise the
 * least of one meets the greatest of the other.
 */
export const noiseMargin = (over: Range, under: Range, together: boolean): Range => {
  const typ = over.typ - under.typ
  if (!together) return { min: over.min - under.max, typ, max: over.max - under.min }
  const ends = [over.min - under.min, typ, over.max - under.max]
  return { min: Math.min(...ends), typ, max: Math.max(...ends) }
}

/** Output of an unloaded divider, V · R_bottom / (R_top + R_bottom), at its worst corners. */
export const divided = (voltage: Range, top: Range, bottom: Range): Range => ({
  min: (voltage.min * bottom.min) / (top.max + bottom.min),
  typ: (voltage.typ * bottom.typ) / (top.typ + bottom.typ),
  max: (voltage.max * bottom.max) / (top.min + bottom.max),
})

/**
 * Least top resistor so that a divider never gives more than `limit`, ohms: R_bottom · (V/limit − 1), with both
 * resistors at the worse end of their tolerance. Zero when the voltage is within the limit anyway.
 */
export const leastTopResistor = (voltage: number, limit: number, bottom: number, tolerance: number): number =>
  Math.max(0, ((bottom * (1 + tolerance)) / (1 - tolerance)) * (voltage / limit - 1))

/** Rise time from 10 % to 90 % of a capacitance behind a resistance: t_r = 2.2 · R · C, seconds. */
export const riseTime = (resistance: number, capacitance: number): number => 2.2 * resistance * capacitance

/** Bits a second that a line behind a resistance carries when each bit lasts at least two rise times. */
export const rateThrough = (resistance: number, capacitance: number): number =>
  1 / (2 * riseTime(resistance, capacitance))
