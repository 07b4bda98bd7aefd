// The operating point: what every net and element is at when nothing changes any more.

import { Matrix } from 'ml-matrix'
import type { Element, NetId } from '../models'
import { type Found, newton } from './newton'
import {
  assemble,
  Contradiction,
  ground,
  mustNotFloat,
  NotFound,
  seenBy,
  type System,
  systemOf,
} from './system'

export interface OperatingPoint {
  /** V against ground. */
  voltage: (net: NetId) => number
  /** Into the element at this terminal, A. */
  current: (element: string, terminal: string) => number
  /** What becomes of electrical power in the element, W: heat, light, motion; negative where it feeds. */
  power: (element: string) => number
}

/** With the equations, for those that go on from there. */
export interface Solved extends OperatingPoint {
  system: System
  x: number[]
  slopes: Matrix
}

export const pointAt = (system: System, x: readonly number[], t: number): OperatingPoint => {
  const nets = new Map(system.nets.map((net, k) => [net, k]))
  const byId = new Map(system.seated.map((seat) => [seat.element.id, seat]))
  const voltage = (net: NetId) => {
    if (net === ground) return 0
    const k = nets.get(net)
    if (k === undefined) throw new Error(`There is no net ${net}.`)
    return x[k]!
  }
  const seatOf = (id: string) => {
    const seat = byId.get(id)
    if (!seat) throw new Error(`There is no element ${id}.`)
    return seat
  }
  const into = (id: string) => {
    const seat = seatOf(id)
    return seat.form.respond(seat.element.model, { ...seenBy(seat, x), t, share: 1 }).into
  }
  return {
    voltage,
    current: (id, terminal) => {
      const at = seatOf(id).form.terminals.indexOf(terminal)
      if (at < 0) throw new Error(`${id} has no terminal ${terminal}.`)
      return into(id)[at]!
    },
    power: (id) => {
      const { v } = seenBy(seatOf(id), x)
      return into(id).reduce((sum, i, k) => sum + i * v[k]!, 0)
    },
  }
}

/** Aids that are taken away one after the other: S from every net to ground. */
const aids = [1e-2, 1e-3, 1e-4, 1e-5, 1e-6, 1e-7, 1e-8, 1e-9, 1e-10, 1e-11, 1e-12]
const shares = Array.from({ length: 20 }, (_, k) => (k + 1) / 20)

/**
 * Voltages and currents at rest, capacitors full, coils through. Tried at once; then from a circuit that leaks to ground, less
 * and less; then with sources turned up from nothing. Throws FloatingNet, Contradiction or NotFound.
 */
export const operatingPoint = (elements: readonly Element[], t = 0): Solved => {
  const system = systemOf(elements)
  mustNotFloat(system, t)
  const nothing = Array<number>(system.size).fill(0)
  let contradiction: Contradiction | undefined
  // On a way that goes astray, junctions volts beyond their knee, a sound circuit can look like one that contradicts itself.
  const from = (start: readonly number[], share: number, aid: number): Found | undefined => {
    try {
      return newton(system, start, (x, last) => assemble(system, x, { t, share, last, aid }))
    } catch (e) {
      if (!(e instanceof Contradiction)) throw e
      contradiction ??= e
      return undefined
    }
  }
  const along = (stages: [share: number, aid: number][]): Found | undefined => {
    let at: Found | undefined
    for (const [share, aid] of stages) {
      at = from(at?.x ?? nothing, share, aid)
      if (!at) return undefined
    }
    return at
  }
  const found =
    along([[1, 0]]) ??
    along([...aids.map((aid): [number, number] => [1, aid]), [1, 0]]) ??
    along([...shares.map((share): [number, number] => [share, 1e-9]), [1, 0]])
  if (!found) throw contradiction ?? new NotFound()
  return { ...pointAt(system, found.x, t), system, x: found.x, slopes: new Matrix(found.slopes) }
}
