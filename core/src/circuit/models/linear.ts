// What follows a straight line: resistor, contact, capacitor, inductor, sources.

import { across, type Course, type Form, timesOf, valueAt } from './form'

export interface Resistor {
  resistance: number
}
export const resistor: Form<Resistor> = {
  terminals: ['1', '2'],
  respond: ({ resistance }, { v }) => across((v[0]! - v[1]!) / resistance, 1 / resistance),
  joins: () => [[0, 1]],
}

export interface Contact {
  /** Whether it is closed; or from which times on it is closed and open, s. */
  closed: boolean | readonly (readonly [from: number, closed: boolean])[]
  /** Of the closed contact, Ω. */
  resistance?: number
}
/** A usual closed contact, Ω: what makers of small switches state as the most when new. */
const contactResistance = 0.1
const isClosed = ({ closed }: Contact, t: number) =>
  typeof closed === 'boolean' ? closed : (closed.filter(([from]) => from <= t).at(-1)?.[1] ?? false)
export const contact: Form<Contact> = {
  terminals: ['1', '2'],
  respond: (p, { v, t }) => {
    const slope = isClosed(p, t) ? 1 / (p.resistance ?? contactResistance) : 0
    return across(slope * (v[0]! - v[1]!), slope)
  },
  joins: (p, t) => (isClosed(p, t) ? [[0, 1]] : []),
  jumps: ({ closed }) => (typeof closed === 'boolean' ? [] : closed.map(([from]) => from)),
}

export interface Capacitor {
  capacitance: number
}
export const capacitor: Form<Capacitor> = {
  terminals: ['+', '−'],
  respond: () => across(0, 0),
  store: ({ capacitance }, { v }) => across(capacitance * (v[0]! - v[1]!), capacitance),
  joins: () => [],
}

export interface Inductor {
  inductance: number
  /** Of its wire, Ω. */
  resistance?: number
}
export const inductor: Form<Inductor> = {
  terminals: ['1', '2'],
  branches: 1,
  respond: ({ resistance = 0 }, { v, i }) => ({
    into: [i[0]!, -i[0]!],
    rest: [v[0]! - v[1]! - resistance * i[0]!],
    slopes: [
      [0, 0, 1],
      [0, 0, -1],
      [1, -1, -resistance],
    ],
  }),
  store: ({ inductance }, { i }) => ({
    into: [0, 0],
    rest: [-inductance * i[0]!],
    slopes: [
      [0, 0, 0],
      [0, 0, 0],
      [0, 0, -inductance],
    ],
  }),
  joins: () => [[0, 1]],
}

export interface VoltageSource {
  voltage: Course
  /** Inside it, Ω: of a cell, an adapter, a programmer's line. */
  resistance?: number
}
/** Its current is counted into `+`: negative where it feeds. */
export const source: Form<VoltageSource> = {
  terminals: ['+', '−'],
  branches: 1,
  respond: ({ voltage, resistance = 0 }, { v, i, t, share }) => ({
    into: [i[0]!, -i[0]!],
    rest: [v[0]! - v[1]! - resistance * i[0]! - share * valueAt(voltage, t)],
    slopes: [
      [0, 0, 1],
      [0, 0, -1],
      [1, -1, -resistance],
    ],
  }),
  joins: () => [[0, 1]],
  jumps: ({ voltage }) => timesOf(voltage),
}

export interface CurrentSource {
  /** From `from` through it to `to`, A. A leg's leakage is one. */
  current: Course
}
export const current: Form<CurrentSource> = {
  terminals: ['from', 'to'],
  respond: (p, { t, share }) => across(share * valueAt(p.current, t), 0),
  joins: () => [],
  jumps: (p) => timesOf(p.current),
}

export interface Load {
  /** At `full` volts and above, A. */
  current: number
  /** Below it the current falls with the voltage, V. */
  full: number
}
/** A device: the current that its sheet states, as long as it is fed; less and less below that, none below zero. */
export const load: Form<Load> = {
  terminals: ['+', '−'],
  respond: ({ current: most, full }, { v }) => {
    const u = v[0]! - v[1]!
    const reverse = leak * u
    if (u <= 0) return across(reverse, leak)
    return u < full ? across((most * u) / full + reverse, most / full + leak) : across(most + reverse, leak)
  },
  joins: () => [[0, 1]],
}

/** What passes through anything, S: a teraohm. It keeps what hangs on a blocking part from having no voltage at all. */
export const leak = 1e-12
