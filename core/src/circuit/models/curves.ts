// Parts with a curve: diodes by their law or by the points of a sheet.

import { across, type Answer, type Form } from './form'
import { leak } from './linear'

/** Boltzmann's constant by the charge of an electron, V/K (2019 SI: 1.380649e-23 / 1.602176634e-19). */
const boltzmannByCharge = 1.380649e-23 / 1.602176634e-19
/** kT/q at a temperature in °C, V: 25.69 mV at 25 °C. */
export const thermalVoltage = (celsius = 25): number => boltzmannByCharge * (celsius + 273.15)

export interface Diode {
  /** Saturation current, A. */
  saturation: number
  /** Emission coefficient, 1 to 2. */
  emission?: number
  /** Of the junction, °C. */
  temperature?: number
}

/** Above so many thermal voltages the law is drawn on as a straight line: no part of a board carries that, and numbers stay finite. */
const steepest = 80
/** Shockley: I = I_s (exp(V / n V_T) − 1), and its slope. */
export const shockley = (saturation: number, thermal: number, u: number): [number, number] => {
  const x = u / thermal
  const e = Math.exp(Math.min(x, steepest))
  const line = x > steepest ? x - steepest : 0
  return [saturation * (e * (1 + line) - 1) + leak * u, (saturation * e) / thermal + leak]
}

/**
 * How far a junction's voltage may move at once: beyond the knee as far as the current would on a straight line.
 * L. W. Nagel, SPICE2 (UCB/ERL M520, 1975), section on limiting.
 */
export const limited = (saturation: number, thermal: number, now: number, last: number): number => {
  const knee = thermal * Math.log(thermal / (Math.SQRT2 * saturation))
  if (now <= knee || Math.abs(now - last) <= 2 * thermal) return now
  if (last > 0) {
    const step = 1 + (now - last) / thermal
    return step > 0 ? last + thermal * Math.log(step) : knee
  }
  return thermal * Math.log(now / thermal)
}

const thermalOf = ({ emission = 1, temperature }: Diode) => emission * thermalVoltage(temperature)

export const diode: Form<Diode> = {
  terminals: ['anode', 'cathode'],
  respond: (p, { v }) => across(...shockley(p.saturation, thermalOf(p), v[0]! - v[1]!)),
  limit: (p, v, last) => [
    v[1]! + limited(p.saturation, thermalOf(p), v[0]! - v[1]!, last[0]! - last[1]!),
    v[1]!,
  ],
  joins: () => [[0, 1]],
}

export interface Curve {
  /** Volts over amperes, both rising from the first point: a sheet's points, straight between them, on with the last slope. */
  points: readonly (readonly [current: number, voltage: number])[]
  /** Whether it carries the other way round too, with the slope of its first points: a leg's driver does, a diode doesn't. */
  bothWays?: boolean
}

/** The current at a voltage, and its slope. */
const along = ({ points, bothWays }: Curve, u: number): Answer => {
  const [first] = points
  if (!first) return across(leak * u, leak)
  // A diode of a sheet begins to carry at the voltage of its first point.
  const from = bothWays && (first[0] > 0 || first[1] > 0) ? [[0, 0] as const, ...points] : points
  const above = from.findIndex(([, voltage]) => voltage >= u)
  const k = above < 0 ? from.length - 1 : Math.max(1, above)
  const [a, b] = [from[k - 1] ?? from[0]!, from[k] ?? from[0]!]
  const slope = b[1] > a[1] ? (b[0] - a[0]) / (b[1] - a[1]) : steep
  const i = a[0] + slope * (u - a[1])
  if (!bothWays && i <= 0) return across(leak * u, leak)
  return across(i + leak * u, slope + leak)
}
/** Of a curve that rises straight up, S. */
const steep = 1e3

export const curve: Form<Curve> = {
  terminals: ['anode', 'cathode'],
  respond: (p, { v }) => along(p, v[0]! - v[1]!),
  joins: () => [[0, 1]],
}
