// Field-effect and bipolar transistors.

import type { Answer, Form } from './form'
import { limited, shockley, thermalVoltage } from './curves'
import { leak } from './linear'

export interface Mosfet {
  polarity: 'n' | 'p'
  /** Of the gate against the source at which it begins to carry, V, positive for both polarities. */
  threshold: number
  /** A/V²: I = k (V_GS − V_th − V_DS / 2) V_DS before saturation, k / 2 (V_GS − V_th)² in it. */
  transconductance: number
  /** Saturation current of the diode from source to drain (n) that every such part has inside, A; none where 0. */
  body?: number
}

/** k from a channel resistance at a gate voltage: R = 1 / (k (V_GS − V_th)) for a small V_DS. */
export const transconductanceOf = (resistance: number, gate: number, threshold: number): number =>
  1 / (resistance * (gate - threshold))

/** Drain current of an n-channel for V_DS ≥ 0, with its slopes in V_GS and V_DS: the square law (Shichman and Hodges, 1968). */
const squareLaw = (k: number, threshold: number, gs: number, ds: number): [number, number, number] => {
  const over = gs - threshold
  if (over <= 0) return [leak * ds, 0, leak]
  return ds < over
    ? [k * (over - ds / 2) * ds + leak * ds, k * ds, k * (over - ds) + leak]
    : [(k / 2) * over * over + leak * ds, k * over, leak]
}

/** Over its threshold by no more than this a gate may be looked at as off in the next step, V. */
const slight = 0.1

const body = ({ body: saturation = 1e-12 }: Mosfet) => saturation

export const mosfet: Form<Mosfet> = {
  terminals: ['gate', 'drain', 'source'],
  respond: (p, { v }) => {
    const sign = p.polarity === 'n' ? 1 : -1
    const [g, d, s] = [sign * v[0]!, sign * v[1]!, sign * v[2]!]
    // Drain and source are alike: the current flows from the higher to the lower.
    const turned = d < s
    const [hi, lo] = turned ? [s, d] : [d, s]
    const [i, byGate, byAcross] = squareLaw(p.transconductance, p.threshold, g - lo, hi - lo)
    const [back, byBack] = body(p) > 0 ? shockley(body(p), thermalVoltage(), s - d) : [0, 0]
    const drain = (turned ? -i : i) - back
    const byDrain = (turned ? byAcross + byGate : byAcross) + byBack
    const bySource = -(turned ? byAcross : byAcross + byGate) - byBack
    // Into the drain, out of the source; nothing into the gate. Both signs turn for a p-channel, so the slopes stay.
    const slope = [turned ? -byGate : byGate, byDrain, bySource]
    return {
      into: [0, sign * drain, -sign * drain],
      rest: [],
      slopes: [[0, 0, 0], slope, slope.map((x) => -x)],
    }
  },
  // A step may throw a saturated drain volts beyond its source, since its current hardly hears of it, and with it the supply that
  // sags, and the gate on that supply: the gate’s overdrive is halved at most, so that the channel is not lost on the way.
  limit: (p, v, last) => {
    const saturation = body(p)
    const sign = p.polarity === 'n' ? 1 : -1
    const overdrive = (at: readonly number[]) => sign * (at[0]! - at[2]!) - p.threshold
    const over = overdrive(last) > slight ? Math.max(overdrive(v), overdrive(last) / 2) : overdrive(v)
    const [now, before] = [sign * (v[2]! - v[1]!), sign * (last[2]! - last[1]!)]
    const back = saturation > 0 ? limited(saturation, thermalVoltage(), now, before) : now
    return [v[2]! + sign * (over + p.threshold), v[2]! - sign * back, v[2]!]
  },
  joins: () => [[1, 2]],
}

export interface Bipolar {
  polarity: 'npn' | 'pnp'
  /** Collector current by base current. */
  gain: number
  /** The same with collector and emitter exchanged. */
  reverseGain?: number
  /** Saturation current, A. */
  saturation: number
}

/** Ebers and Moll, transport form: I_C = I_s (e^(V_BE/V_T) − e^(V_BC/V_T)) − I_s/β_R (e^(V_BC/V_T) − 1). */
export const bipolar: Form<Bipolar> = {
  terminals: ['base', 'collector', 'emitter'],
  respond: ({ polarity, gain, reverseGain = 1, saturation }, { v }): Answer => {
    const sign = polarity === 'npn' ? 1 : -1
    const thermal = thermalVoltage()
    const [f, df] = shockley(saturation, thermal, sign * (v[0]! - v[2]!))
    const [r, dr] = shockley(saturation, thermal, sign * (v[0]! - v[1]!))
    const collector = f - r - r / reverseGain
    const base = f / gain + r / reverseGain
    const collectorSlopes = [df - dr - dr / reverseGain, dr + dr / reverseGain, -df]
    const baseSlopes = [df / gain + dr / reverseGain, -dr / reverseGain, -df / gain]
    return {
      into: [sign * base, sign * collector, -sign * (base + collector)],
      rest: [],
      slopes: [baseSlopes, collectorSlopes, baseSlopes.map((b, k) => -b - collectorSlopes[k]!)],
    }
  },
  limit: ({ polarity, saturation }, v, last) => {
    const sign = polarity === 'npn' ? 1 : -1
    const held = (k: number) =>
      sign * limited(saturation, thermalVoltage(), sign * (v[0]! - v[k]!), sign * (last[0]! - last[k]!))
    return [v[0]!, v[0]! - held(1), v[0]! - held(2)]
  },
  joins: () => [
    [0, 2],
    [1, 2],
  ],
}
