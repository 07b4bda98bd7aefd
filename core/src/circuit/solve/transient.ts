// What a circuit does over time.

import { type Element, type NetId } from '../models'
import { newton } from './newton'
import { operatingPoint, type OperatingPoint, pointAt } from './point'
import { assemble, ground, NotFound, stored, type System, systemOf } from './system'

export interface Transient {
  /** s, rising. At a time at which something jumps, all is as it was before. */
  times: number[]
  /** V of a net at each time. */
  voltage: (net: NetId) => number[]
  /** Stopped before `until`: what came after is not known. */
  stopped?: true
  /** Everything at one of the times, by its place. What capacitors take and coils induce is not in its currents. */
  at: (k: number) => OperatingPoint
}

export interface TransientOptions {
  /** s */
  until: number
  /** Share of a value that a step may be wrong by. */
  precision?: number
  /** What counts as nothing beside that share, V and A. */
  nothing?: number
  /** Longest step, s. */
  longest?: number
  /** Voltages of capacitors and currents of coils at the beginning; absent: from the operating point. Others follow from these. */
  from?: 'rest' | 'empty'
  /** Asked at every step: true stops, and what was computed so far is given, marked as stopped. */
  stop?: (share: number) => boolean
}

/**
 * Trapezoidal rule with steps as long as the error of the third derivative allows; after each jump one step backwards (Euler), which rings not.
 * Throws FloatingNet, Contradiction, NotFound.
 */
export const transient = (
  elements: readonly Element[],
  { until, precision = 1e-5, nothing = 1e-9, longest = until / 50, from = 'rest', stop }: TransientOptions,
): Transient => {
  const system = systemOf(elements)
  const jumps = [...new Set(system.seated.flatMap(({ element, form }) => form.jumps?.(element.model) ?? []))]
    .filter((t) => t > 0 && t < until)
    .sort((a, b) => a - b)
  const xs: number[][] = [from === 'rest' ? operatingPoint(elements).x : emptyStart(system)]
  const times = [0]
  const stops = [...jumps, until]
  const keeping = keepers(system, xs[0]!)
  let t = 0
  let h = Math.min(longest, stops[0]!) * start
  let flow = Array<number>(system.size).fill(0)
  let since = 0
  for (const end of stops) {
    while (t < end) {
      if (stop?.(t / until)) return { ...resultOf(system, times, xs), stopped: true }
      // Not beyond the end; and a last step that would hardly be one is added to this.
      if (end - t - h < h * 1e-6) h = end - t
      const x0 = xs.at(-1)!
      const q0 = stored(system, x0, t).lacks
      const euler = since === 0
      const weight = euler ? 1 / h : 2 / h
      const next = t + h
      const found = newton(system, x0, (x, last) => {
        // Just before a jump all is as before it.
        const now = assemble(system, x, { t: next === end ? before(next) : next, share: 1, last })
        stored(system, x, next, now, weight)
        for (let k = 0; k < system.size; k++) now.lacks[k]! -= weight * q0[k]! + (euler ? 0 : flow[k]!)
        return now
      })
      const worst = found && since >= 2 ? errorOf(keeping, times, xs, next, found.x, precision, nothing) : 0
      if (!found || worst > 1) {
        h *= found ? Math.max(0.2, 0.9 * worst ** (-1 / 3)) : 0.25
        if (h < until * 1e-15) throw new NotFound()
        continue
      }
      const q1 = stored(system, found.x, next).lacks
      flow = q1.map((q, k) => weight * (q - q0[k]!) - (euler ? 0 : flow[k]!))
      t = next
      times.push(t)
      xs.push(found.x)
      since++
      h = Math.min(longest, h * (since < 3 ? 1 : Math.min(2, 0.9 * Math.max(worst, 1e-3) ** (-1 / 3))))
    }
    since = 0
    h = Math.min(longest, until) * start
  }
  return resultOf(system, times, xs)
}

/**
 * The unknowns whose history counts: nets with something stored at them, currents of coils. All others follow from these at once, and what
 * the rule does to them between one step and the next is nobody’s error.
 */
const keepers = (system: System, x: readonly number[]): number[] => {
  const { slopes } = stored(system, x, 0)
  return x.flatMap((_, k) => (slopes[k]!.some((s) => s !== 0) ? [k] : []))
}

/** After a jump the first step is this share of the longest: nothing is known yet of how fast it goes. */
const start = 1e-8

const before = (t: number) => t * (1 - 1e-12)

/** Everything at nothing: capacitors empty, coils without current. */
const emptyStart = (system: System): number[] => Array<number>(system.size).fill(0)

/**
 * By how many times the allowed error a step is wrong: the trapezoidal rule errs by h³/12 of the third derivative, which shows in how far a parabola
 * through the three points before is off.
 */
const errorOf = (
  keeping: readonly number[],
  times: readonly number[],
  xs: readonly number[][],
  t: number,
  x: readonly number[],
  precision: number,
  nothing: number,
): number => {
  const n = times.length
  const [t2, t1, t0] = [times[n - 3]!, times[n - 2]!, times[n - 1]!]
  const [x2, x1, x0] = [xs[n - 3]!, xs[n - 2]!, xs[n - 1]!]
  const h = t - t0
  const own = h ** 3 / 12
  const parabola = (h * (t - t1) * (t - t2)) / 6
  const l0 = ((t - t1) * (t - t2)) / ((t0 - t1) * (t0 - t2))
  const l1 = ((t - t0) * (t - t2)) / ((t1 - t0) * (t1 - t2))
  const l2 = ((t - t0) * (t - t1)) / ((t2 - t0) * (t2 - t1))
  return keeping.reduce((worst, k) => {
    const value = x[k]!
    const foretold = l0 * x0[k]! + l1 * x1[k]! + l2 * x2[k]!
    const error = (Math.abs(value - foretold) * own) / (own + parabola)
    return Math.max(worst, error / (precision * Math.max(Math.abs(value), Math.abs(x0[k]!)) + nothing))
  }, 0)
}

const resultOf = (system: System, times: number[], xs: number[][]): Transient => ({
  times,
  voltage: (net) => {
    if (net === ground) return times.map(() => 0)
    const k = system.nets.indexOf(net)
    if (k < 0) throw new Error(`There is no net ${net}.`)
    return xs.map((x) => x[k]!)
  },
  at: (k) => pointAt(system, xs[k]!, before(times[k]!)),
})
