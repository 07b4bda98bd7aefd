// Sums about clocks.

import { interpolate } from '../electrical'

/** Each of a crystal's two load capacitors: C = 2·(C_L − C_stray), farads; never below zero. Series connection halves. */
export const loadCapacitor = (load: number, stray: number): number => Math.max(0, 2 * (load - stray))

/** Load that two equal capacitors and the stray capacitance make: C/2 + C_stray, farads. */
export const loadOf = (capacitor: number, stray: number): number => capacitor / 2 + stray

/**
 * Frequency pull, as a share of the frequency, of a crystal loaded with `load` instead of `nominal`:
 * Δf/f = C_1/2 · (1/(C_0 + C) − 1/(C_0 + C_L)). C_1 motional, C_0 shunt capacitance, farads. First order of the
 * series-resonant model.
 */
export const loadPull = (motional: number, shunt: number, nominal: number, load: number): number =>
  (motional / 2) * (1 / (shunt + load) - 1 / (shunt + nominal))

export interface FrequencyLimit {
  supply: number
  frequency: number
}

/** Highest clock in hertz at a supply: straight between the sheet's points, 0 below the first, flat above the last. */
export const maximumFrequency = (limits: readonly FrequencyLimit[], supply: number): number => {
  const points = [...limits].sort((a, b) => a.supply - b.supply).map((l) => [l.supply, l.frequency] as const)
  return supply < points[0]![0] ? 0 : interpolate(points, supply)
}

/** Lowest supply in volts at which a clock is permitted; undefined when none is. */
export const lowestSupplyFor = (limits: readonly FrequencyLimit[], frequency: number): number | undefined => {
  const points = [...limits].sort((a, b) => a.supply - b.supply)
  if (frequency <= points[0]!.frequency) return points[0]!.supply
  if (frequency > points[points.length - 1]!.frequency) return undefined
  return interpolate(
    points.map((l) => [l.frequency, l.supply] as const),
    frequency,
  )
}
