// Regulators: what holds a rail as long as it can.

import { type Form } from './form'
import { leak } from './linear'

/** 0 ≤ a, 0 ≤ b, one of them nothing: 0 where that holds, as smooth as its corner allows. Slopes in a and in b. */
const oneIsNothing = (a: number, b: number): [number, number, number] => {
  const root = Math.hypot(a - b, 2 * smooth)
  // The same without taking nearly equal numbers from one another.
  const least = a + b > 0 ? (2 * (a * b - smooth * smooth)) / (a + b + root) : (a + b - root) / 2
  return [least, (1 - (a - b) / root) / 2, (1 + (a - b) / root) / 2]
}
/** How far from its corner the choice is rounded off, V. */
const smooth = 1e-9
/** A regulator's own current begins to flow with its input, and is all there from here on, V. */
const awake = 0.5

export interface LinearRegulator {
  /** V */
  output: number
  /** Drop-out voltage over load, A and V, least current first: straight between the points and beyond. */
  dropout: readonly (readonly [current: number, voltage: number])[]
  /** Its own current, A. */
  quiescent: number
}

const dropoutAt = (points: LinearRegulator['dropout'], i: number): [number, number] => {
  if (points.length < 2) return [points[0]?.[1] ?? 0, 0]
  const found = points.findIndex(([at]) => at >= i)
  const k = Math.max(1, found < 0 ? points.length - 1 : found)
  const [[x0, y0], [x1, y1]] = [points[k - 1]!, points[k]!]
  const slope = (y1 - y0) / (x1 - x0)
  const y = y0 + slope * (i - x0)
  return y < 0 ? [0, 0] : [y, slope]
}

const own = (quiescent: number, u: number): [number, number] => {
  if (u <= 0) return [leak * u, leak]
  return u < awake
    ? [(quiescent * u) / awake + leak * u, quiescent / awake + leak]
    : [quiescent + leak * u, leak]
}

/** Holds its output, or is its drop-out below its input; never takes current back. With no load a leak at its output says what it is. */
export const linearRegulator: Form<LinearRegulator> = {
  terminals: ['in', 'out', 'ground'],
  branches: 1,
  respond: (p, { v, i }) => {
    const [vin, vout, gnd] = v as [number, number, number]
    const load = i[0]!
    const [drop, byLoad] = dropoutAt(p.dropout, Math.max(0, load))
    const regulates = p.output <= vin - gnd - drop
    const held = regulates ? p.output : vin - gnd - drop
    const [rest, byCurrent, byVoltage] = oneIsNothing(load, vout - gnd - held)
    const [q, byQ] = own(p.quiescent, vin - gnd)
    const through = regulates ? 0 : byVoltage
    const idle = leak * (vout - gnd)
    return {
      into: [load + q, idle - load, -q - idle],
      rest: [rest],
      slopes: [
        [byQ, 0, -byQ, 1],
        [0, leak, -leak, -1],
        [-byQ, -leak, byQ + leak, 0],
        [
          -through,
          byVoltage,
          through - byVoltage,
          byCurrent + (regulates || load < 0 ? 0 : byVoltage * byLoad),
        ],
      ],
    }
  },
  joins: () => [
    [0, 2],
    [1, 2],
  ],
}

export interface SwitchingRegulator {
  /** V */
  output: number
  /** Share of what goes in that comes out. */
  efficiency: number
  /** Its own current, A. */
  quiescent: number
  /** Below this input it does nothing, V. */
  least: number
  /** One that steps up: an input above its output comes straight through its coil. */
  up?: boolean
}

/** Takes as much power as its load asks for, by its efficiency. Its current is counted out of `out`. */
export const switchingRegulator: Form<SwitchingRegulator> = {
  terminals: ['in', 'out', 'ground'],
  branches: 1,
  respond: (p, { v, i }) => {
    const [vin, vout, gnd] = v as [number, number, number]
    const load = i[0]!
    const works = vin - gnd >= p.least
    const passes = p.up === true && vin - gnd > p.output
    const held = passes ? vin - gnd : works ? p.output : 0
    const [rest, byCurrent, byVoltage] = oneIsNothing(load, vout - gnd - held)
    const u = Math.max(vin - gnd, p.least)
    const taken = passes ? load : (load * p.output) / (p.efficiency * u)
    const byInput = works && !passes ? -taken / u : 0
    const byLoad = passes ? 1 : p.output / (p.efficiency * u)
    const [q, byQ] = own(p.quiescent, vin - gnd)
    const idle = leak * (vout - gnd)
    return {
      into: [taken + q, idle - load, load - taken - q - idle],
      rest: [rest],
      slopes: [
        [byInput + byQ, 0, -byInput - byQ, byLoad],
        [0, leak, -leak, -1],
        [-byInput - byQ, -leak, byInput + byQ + leak, 1 - byLoad],
        // Out against ground; where it passes, against its input.
        passes ? [-byVoltage, byVoltage, 0, byCurrent] : [0, byVoltage, -byVoltage, byCurrent],
      ],
    }
  },
  joins: () => [
    [0, 2],
    [1, 2],
  ],
}
