// The equations of a circuit: modified nodal analysis (Ho, Ruehli and Brennan, 1975). Unknowns are the voltages of all nets
// but ground and the currents of the branches that hold a voltage.

import { type Answer, type Element, type Form, formOf, type Model, type NetId } from '../models'

/** The net from which voltages are counted. */
export const ground = 'GND'

/** A net that no direct current can reach from ground: its voltage is anybody's guess. */
export class FloatingNet extends Error {
  constructor(readonly nets: NetId[]) {
    super(
      `${nets.join(', ')}: no way for a direct current from here to ground, so ${nets.length > 1 ? 'these nets have' : 'this net has'} no voltage of ${nets.length > 1 ? 'their' : 'its'} own`,
    )
    this.name = 'FloatingNet'
  }
}
/** A circuit whose parts contradict one another: two ideal sources side by side. */
export class Contradiction extends Error {
  constructor(readonly elements: string[]) {
    super(`${elements.join(', ')}: what they hold can’t all be true at once`)
    this.name = 'Contradiction'
  }
}
/** The search for the voltages did not end: not that there are none. */
export class NotFound extends Error {
  constructor() {
    super('no voltages were found that all parts of the circuit agree to')
    this.name = 'NotFound'
  }
}

interface Seated {
  element: Element
  form: Form<Model>
  /** For each terminal and branch: its place among the unknowns; −1 for ground. */
  at: number[]
}

export interface System {
  nets: NetId[]
  seated: Seated[]
  /** Those of them that keep charge or flux. */
  storing: Seated[]
  size: number
}

export const systemOf = (elements: readonly Element[]): System => {
  const place = new Map<NetId, number>([[ground, -1]])
  const nets: NetId[] = []
  const ids = new Set<string>()
  for (const { id } of elements) {
    if (ids.has(id)) throw new Error(`${id}: there are two elements of this name`)
    ids.add(id)
  }
  for (const { terminals, id, model } of elements)
    for (const terminal of formOf(model).terminals) {
      const net = terminals[terminal]
      if (net === undefined) throw new Error(`${id}: its terminal ${terminal} is on no net`)
      if (!place.has(net)) {
        place.set(net, nets.length)
        nets.push(net)
      }
    }
  let size = nets.length
  const seated = elements.map((element): Seated => {
    const form = formOf(element.model)
    return {
      element,
      form,
      at: [
        ...form.terminals.map((t) => place.get(element.terminals[t]!)!),
        ...Array.from({ length: form.branches ?? 0 }, () => size++),
      ],
    }
  })
  return { nets, seated, storing: seated.filter(({ form }) => form.store), size }
}

/** Throws FloatingNet where a net hangs in the air at this time. */
export const mustNotFloat = ({ nets, seated }: System, t: number): void => {
  const parent = nets.map((_, i) => i)
  const grounded = nets.length
  parent.push(grounded)
  const root = (k: number): number => (parent[k] === k ? k : (parent[k] = root(parent[k]!)))
  const of = (k: number) => root(k < 0 ? grounded : k)
  for (const { element, form, at } of seated)
    for (const [a, b] of form.joins(element.model, t)) parent[of(at[a]!)] = of(at[b]!)
  const floating = nets.filter((_, i) => root(i) !== of(-1))
  if (floating.length > 0) throw new FloatingNet(floating)
}

const read = (x: readonly number[], k: number) => (k < 0 ? 0 : x[k]!)

/** Voltages and branch currents of one element. */
export const seenBy = ({ form, at }: Seated, x: readonly number[]): { v: number[]; i: number[] } => {
  const n = form.terminals.length
  const v: number[] = []
  const i: number[] = []
  for (let k = 0; k < at.length; k++) (k < n ? v : i).push(read(x, at[k]!))
  return { v, i }
}

export interface Assembled {
  /** What each equation lacks: A for nets, V for branches. */
  lacks: number[]
  /** Row by row. */
  slopes: number[][]
}

const nothingYet = (size: number): Assembled => ({
  lacks: Array<number>(size).fill(0),
  slopes: Array.from({ length: size }, () => Array<number>(size).fill(0)),
})

const add = (to: Assembled, at: readonly number[], { into, rest, slopes }: Answer, factor = 1): void => {
  for (let r = 0; r < into.length + rest.length; r++) {
    const row = at[r]!
    if (row < 0) continue
    to.lacks[row]! += factor * (r < into.length ? into[r]! : rest[r - into.length]!)
    const own = to.slopes[row]!
    const slope = slopes[r]!
    for (let c = 0; c < slope.length; c++) if (at[c]! >= 0) own[at[c]!]! += factor * slope[c]!
  }
}

export interface Looked {
  t: number
  share: number
  /** Where each element was looked at last, for those that must not overshoot. */
  last?: (number[] | undefined)[]
  /** S from every net to ground, to start with. */
  aid?: number
}

/** All equations at `x`; elements that would overshoot are looked at nearer and drawn on straight from there. */
export const assemble = (
  system: System,
  x: readonly number[],
  { t, share, last, aid = 0 }: Looked,
): Assembled & { looked: (number[] | undefined)[]; held: boolean } => {
  const to = nothingYet(system.size)
  let held = false
  const looked = system.seated.map((seat, k) => {
    const { element, form, at } = seat
    const { v, i } = seenBy(seat, x)
    const before = last?.[k]
    const near = form.limit && before ? form.limit(element.model, v, before) : v
    const answer = form.respond(element.model, { v: near, i, t, share })
    if (near !== v && near.some((u, n) => Math.abs(u - v[n]!) > 1e-9)) {
      held = true
      const drawnOn = answer.slopes.map((row, r) =>
        near.reduce((sum, u, n) => sum + row[n]! * (v[n]! - u), [...answer.into, ...answer.rest][r]!),
      )
      answer.into = drawnOn.slice(0, answer.into.length)
      answer.rest = drawnOn.slice(answer.into.length)
    }
    add(to, at, answer)
    return form.limit ? [...near] : undefined
  })
  if (aid > 0)
    for (let k = 0; k < system.nets.length; k++) {
      to.lacks[k]! += aid * x[k]!
      to.slopes[k]![k]! += aid
    }
  return { ...to, looked, held }
}

/** What is stored in all elements at `x`: charge of nets, flux of branches, with slopes; added, so many times, to what is there already. */
export const stored = (
  system: System,
  x: readonly number[],
  t: number,
  to = nothingYet(system.size),
  factor = 1,
): Assembled => {
  for (const seat of system.storing) {
    const { v, i } = seenBy(seat, x)
    add(to, seat.at, seat.form.store!(seat.element.model, { v, i, t, share: 1 }), factor)
  }
  return to
}
