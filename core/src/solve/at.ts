// Where one signal could go: for every pin the best plan with the signal on it, most of them without a search.

import { conflict } from './conflict'
import { boundOf, isStuck, kill, liftsOf, propagate, update } from './narrow'
import { endless, type Patience } from '../patience'
import { picksFor } from './picks'
import { type Candidate, hasPlan, type PlanProblem, type PlanResult, type Solution } from './problem'
import { asGiven } from './small'
import { search } from './search'
import { tiny } from './tiny'
import { copyNode, dropped, type Frame, frameOf, isOpen, type Node, taken } from './state'

/**
 * For each pin the best plan with a signal on it, in the order of `pins`. The signal must be wanted whatever is chosen.
 * Most are settled without a search: by the bound of the first assignment, and by the best plan changed no more than the
 * assignment needs.
 */
export const solveAt = (
  problem: PlanProblem,
  signal: number,
  pins: readonly number[],
  patience: Patience = endless,
): PlanResult[] => {
  const frame = frameOf(problem)
  const { small } = frame
  let root: Node | undefined
  const best = search(frame, { patience, root: (node) => (root = copyNode(node)) })
  // Nodes near the best plan; a bit of a byte is also looked for in each other place of its byte.
  const byte = frame.bits.findIndex((rows) => rows.includes(signal))
  const nodes = new Map<number, Node | undefined>()
  const nodeNear = (option: number): Node | undefined => {
    if (!root || !hasPlan(best)) return undefined
    if (!nodes.has(option)) {
      const options = option < 0 ? best.options : best.options.with(byte, option)
      nodes.set(option, nodeLike(frame, root, { ...best, options }))
    }
    return nodes.get(option)
  }
  const placesAt = (pin: number): number[] => {
    if (byte < 0) return [-1]
    const places = new Set<number>()
    for (let i = small.from[signal]!; i < small.from[signal + 1]!; i++)
      if (small.pin[i] === pin && small.option[i]! >= 0) places.add(small.option[i]!)
    return [...places]
  }
  // No plan with the signal on a certain pin is cheaper than the best of all.
  const floor = best.status === 'proven' ? best.cost : 'bound' in best ? best.bound : 0
  return pins.map((pin) => {
    const only = (s: number, c: Candidate) => s !== signal || c.pin === pin
    if (!root) return search(frame, { patience, only })
    const from = copyNode(root)
    const alone = narrowTo(frame, from, signal, pin)
    if (alone === undefined) return { status: 'infeasible', nodes: 1 }
    const least = Math.max(floor, alone + liftsOf(frame, from).total)
    let known: Solution | undefined
    for (const place of placesAt(pin)) {
      const near = nodeNear(place)
      const close = near && copyNode(near)
      const plan =
        close && narrowTo(frame, close, signal, pin) !== undefined ? planIn(frame, close) : undefined
      if (plan && (!known || plan.cost < known.cost)) known = plan
    }
    if (known && known.cost <= Math.ceil(least - tiny)) return { status: 'proven', ...known, nodes: 2 }
    return search(frame, { patience, only, known, from })
  })
}

/** Leaves a signal one pin, with all that follows; the bound then, or undefined when nothing is left. */
const narrowTo = (frame: Frame, node: Node, signal: number, pin: number): number | undefined => {
  const { small } = frame
  for (let i = small.from[signal]!; i < small.from[signal + 1]!; i++)
    if (small.pin[i] !== pin) node.alive[i] = 0
  const rows = new Set([signal])
  if (isStuck(frame, node) || !propagate(frame, node, rows)) return undefined
  const updated = update(frame, node, rows)
  return updated && boundOf(frame, node, updated.price)
}

/** The plan that a node’s assignment stands for, where it breaks no rule and leaves no choice open. */
const planIn = (frame: Frame, node: Node): Solution | undefined => {
  const { choices, small } = frame
  if (choices.some((_, c) => isOpen(frame, node, c))) return undefined
  const chosen = picksFor(frame, node)
  if (conflict(frame, node, chosen)) return undefined
  const picked = choices.map((c) => c.options.find((o) => node.option[o.id] === taken))
  let cost = 0
  for (const i of chosen) if (i >= 0) cost += small.cost[i]!
  for (const o of picked) cost += o?.cost ?? 0
  return { cost, chosen: asGiven(small, chosen), options: picked.map((o) => o?.id) }
}

/** A node in which the choices, the units of the buses and the frequencies of the timers are those of a plan. */
const nodeLike = (frame: Frame, root: Node, { chosen, options }: Solution): Node | undefined => {
  const { problem, small, choices } = frame
  const node = copyNode(root)
  choices.forEach((c, k) => {
    for (const o of c.options) node.option[o.id] = o.id === options[k] ? taken : dropped
  })
  const unitsOf = new Map<number, readonly number[]>()
  const frequencyOn = new Map<number, number>()
  chosen.forEach((c, s) => {
    const { group, frequency } = problem.signals[s]!
    if (c && group !== undefined) unitsOf.set(group, c.units)
    if (c && frequency !== undefined) for (const u of c.units) if (u >= 0) frequencyOn.set(u, frequency)
  })
  const keep = (i: number): boolean => {
    const o = small.option[i]!
    if (o >= 0 && node.option[o] !== taken) return false
    const { group, frequency } = problem.signals[small.row[i]!]!
    const units = group === undefined ? undefined : unitsOf.get(group)
    if (units && small.units[i]!.some((u, t) => u !== units[t])) return false
    return (
      frequency === undefined || small.units[i]!.every((u) => (frequencyOn.get(u) ?? frequency) === frequency)
    )
  }
  const rows = kill(frame, node, keep)
  for (let r = 0; r < problem.signals.length; r++) rows.add(r)
  return propagate(frame, node, rows) && update(frame, node, rows) ? node : undefined
}
