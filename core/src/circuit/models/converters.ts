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
    const held = passes ? vin - gnd : p.output
    // Asleep it gives nothing.
    const [rest, byCurrent, byVoltage] =
      works || passes ? oneIsNothing(load, vout - gnd - held) : [load, 1, 0]
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

export interface LimitedRegulator {
  /** V */
  output: number
  /** The most that it gives, A. */
  most: number
  /** Across it with no room left, by current: Ω. Absent: it takes power instead of current, by its efficiency. */
  dropout?: number
  efficiency?: number
  /** Its own current, A. */
  quiescent: number
  /** Below this input it does nothing, V. */
  least: number
  /** One that steps up: what comes in goes straight through its coil and diode until it has done its own. */
  up?: boolean
}

/** Behind it the output gives way by so much, Ω: a tenth of a millivolt at some milliamperes. */
const softness = 0.05
/** Corners of its current are rounded off within so much, A. */
const roundedOff = 1e-3
/** Of a coil and the diode behind it, Ω and V. */
const coil = { resistance: 0.3, diode: 0.3 }
/** From its least input on it comes to work within so much, V. */
const wakes = 0.1

/** A value with its slopes in the voltages at input and output. */
type Sloped = readonly [value: number, byIn: number, byOut: number]

/** What of it is above nothing, its corner rounded off; below it exactly nothing. */
const above = ([value, byIn, byOut]: Sloped): Sloped => {
  if (value <= 0) return never
  if (value >= roundedOff) return [value - roundedOff / 2, byIn, byOut]
  const share = value / roundedOff
  return [(value * share) / 2, share * byIn, share * byOut]
}
const never: Sloped = [0, 0, 0]
const minus = (a: Sloped, b: Sloped): Sloped => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const lesser = (a: Sloped, b: Sloped): Sloped => minus(a, above(minus(a, b)))
const product = (a: Sloped, b: Sloped): Sloped => [
  a[0] * b[0],
  a[1] * b[0] + a[0] * b[1],
  a[2] * b[0] + a[0] * b[2],
]
const plus = (a: Sloped, b: Sloped): Sloped => [a[0] + b[0], a[1] + b[1], a[2] + b[2]]

/** What it gives into a voltage: never more than it can, and nothing back. */
const given = ({ output, most, dropout, least, up }: LimitedRegulator, uin: number, uout: number) => {
  const wanted = lesser([(output - uout) / softness, 0, -1 / softness], [most, 0, 0])
  if (dropout !== undefined)
    return {
      made: above(lesser(wanted, [(uin - uout) / dropout, 1 / dropout, -1 / dropout])),
      passed: never,
    }
  const share = Math.min(1, Math.max(0, (uin - least) / wakes))
  const awake: Sloped = [share, share > 0 && share < 1 ? 1 / wakes : 0, 0]
  const g = 1 / coil.resistance
  return {
    made: product(awake, above(wanted)),
    passed: up ? above([(uin - uout - coil.diode) * g, g, -g]) : never,
  }
}

/**
 * A regulator for what happens over time: from an empty output on, with the most that it can give. At rest it is as the others but for
 * what its softness takes.
 */
export const limitedRegulator: Form<LimitedRegulator> = {
  terminals: ['in', 'out', 'ground'],
  respond: (p, { v }) => {
    const [vin, vout, gnd] = v as [number, number, number]
    const [uin, uout] = [vin - gnd, vout - gnd]
    const { made, passed } = given(p, uin, uout)
    // One that takes power: what comes out by what comes in.
    const u = Math.max(uin, p.least)
    const ratio: Sloped =
      p.dropout === undefined
        ? [
            uout / ((p.efficiency ?? 1) * u),
            uin > p.least ? -uout / ((p.efficiency ?? 1) * u * u) : 0,
            1 / ((p.efficiency ?? 1) * u),
          ]
        : [1, 0, 0]
    const [q, byQ] = own(p.quiescent, uin)
    const out = plus(made, passed)
    const taken = plus(plus(product(made, ratio), passed), [q, byQ, 0])
    const idle = leak * uout
    const rowIn = [taken[1], taken[2], -taken[1] - taken[2]]
    const rowOut = [-out[1], -out[2] + leak, out[1] + out[2] - leak]
    return {
      into: [taken[0], idle - out[0], out[0] - taken[0] - idle],
      rest: [],
      slopes: [rowIn, rowOut, rowIn.map((x, k) => -x - rowOut[k]!)],
    }
  },
  // Below what it holds it gives its most whatever the voltage, and above it nothing: neither says where to go, and what is between is
  // soon overshot.
  limit: ({ output, most }, v, last) => {
    const holds = output - (softness * most) / 2
    const [now, before] = [v[1]! - v[2]!, last[1]! - last[2]!]
    const over = (before - holds) * (now - holds) < 0
    return over ? [v[0]!, v[2]! + holds, v[2]!] : [...v]
  },
  joins: () => [
    [0, 2],
    [1, 2],
  ],
}
