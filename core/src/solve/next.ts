// What comes next best, in an order of plans that differ in something the builder cares about (Lawler's partition: each
// found plan splits what is left into parts that agree with it up to one decision).

import { boundOf, dropNeedless, isStuck, kill, liftsOf, propagate, update } from './narrow'
import { endless, type Patience } from '../patience'
import { type Candidate, hasPlan, type PlanProblem, type Solution } from './problem'
import { search } from './search'
import { tiny } from './tiny'
import type { Classes } from './small'
import { copyNode, dropped, type Frame, frameOf, type Node, taken } from './state'

/** What of a candidate makes another plan: moving between candidates of one class doesn’t. */
export type ClassOf = (candidate: Candidate, signal: number) => string | number

export interface NextOptions {
  classOf?: ClassOf
  /** Equal numbers: signals that can be exchanged for one another, so that exchanging them makes no other plan. */
  kindOf?: (signal: number) => number | undefined
  /** Whether a plan is one of the `count`; absent: each is. At most three times as many are looked at. */
  counts?: (solution: Solution) => boolean
  patience?: Patience
}

/** Plans that are left to look at: decisions made and forbidden. */
interface Part {
  alive: Uint8Array
  option: Uint8Array
  /** Rows and choices in which this part tells candidates or options apart. */
  decided: Uint8Array
  settled: Uint8Array
  /** No plan of this part costs less. */
  least: number
  solution?: Solution
}

/**
 * The `count` cheapest plans after the best, each differing from every earlier one in a choice or in the class of at
 * least one signal’s candidate, cheapest first. Fewer when there are no more; `complete` is false when the patience ran
 * out before that was known.
 */
export const nextPlans = (
  problem: PlanProblem,
  count: number,
  { classOf = (c) => c.pin, kindOf, counts = () => true, patience = endless }: NextOptions = {},
): { plans: Solution[]; complete: boolean } => {
  const frame = frameOf(problem, numbered(classOf))
  let root: Node | undefined
  const best = search(frame, { patience, root: (node) => (root = copyNode(node)) })
  if (!root || !hasPlan(best)) return { plans: [], complete: best.status !== 'undecided' }
  const { rows, choices } = frame
  const twins = twinsOf(frame, kindOf)
  let complete = best.status === 'proven'
  const open: Part[] = [
    {
      alive: root.alive,
      option: root.option,
      decided: new Uint8Array(rows),
      settled: new Uint8Array(choices.length),
      least: best.cost,
      solution: ascending(frame, twins, best),
    },
  ]
  const plans: Solution[] = []
  for (let looked = 0; plans.length < count && looked <= 3 * count && open.length > 0;) {
    // The part that may hold the cheapest plan is solved when it comes first, and not before.
    const at = open.reduce((a, p, i) => {
      const o = open[a]!
      return p.least < o.least || (p.least === o.least && p.solution && !o.solution) ? i : a
    }, 0)
    const [part] = open.splice(at, 1)
    if (part!.solution) {
      if (looked++ > 0 && counts(part!.solution)) plans.push(part!.solution)
      if (plans.length < count) open.push(...split(frame, root, part!, part!.solution, twins))
      continue
    }
    const from = nodeOf(frame, root, part!)
    const result = from && search(likeNone(frame, part!), { patience, from })
    if (result?.status === 'found' || result?.status === 'undecided') complete = false
    if (result?.status === 'proven')
      open.push({ ...part!, least: result.cost, solution: ascending(frame, twins, result) })
    if (!complete && patience.spent()) break
  }
  // Enough was looked at without finding as many that count: there may be more further down.
  if (plans.length < count && open.length > 0) complete = false
  return { plans, complete }
}

/** Classes as numbers, the same in all signals. */
const numbered = (classOf: ClassOf): Classes => {
  const known = new Map<string | number, number>()
  return (signal, candidate) => {
    const key = classOf(candidate, signal)
    const number = known.get(key) ?? known.size
    known.set(key, number)
    return number
  }
}

/** Choices in which a part tells options apart can’t be exchanged for others any more. */
const likeNone = (frame: Frame, { decided, settled }: Part): Frame => ({
  ...frame,
  likeChoice: frame.likeChoice.map((like, c) => {
    const own = (k: number) => settled[k] || frame.bits[k]!.some((r) => decided[r])
    return own(c) || own(like) ? c : like
  }),
})

/** The node that a part stands for, with its assignment and the prices of the first one; undefined: it holds no plan. */
const nodeOf = (
  frame: Frame,
  root: Node,
  { alive, option }: Pick<Part, 'alive' | 'option'>,
): Node | undefined => {
  const node = copyNode(root)
  node.option.set(option)
  dropNeedless(frame, node)
  kill(frame, node, (i) => alive[i] === 1 && isAllowed(frame, node, i))
  const rows = new Set(Array.from({ length: frame.problem.signals.length }, (_, r) => r))
  if (isStuck(frame, node) || !propagate(frame, node, rows)) return undefined
  return update(frame, node, rows) ? node : undefined
}

const isAllowed = ({ small }: Frame, { option }: Node, i: number): boolean =>
  small.option[i]! < 0 || option[small.option[i]!] !== dropped

/** Parts that agree with a solution of this part up to one decision, in which they differ. */
const split = (frame: Frame, root: Node, part: Part, solution: Solution, twins: number[][]): Part[] => {
  const { problem, small, choices } = frame
  const parts: Part[] = []
  const fixed: Part = {
    ...part,
    alive: part.alive.slice(),
    option: part.option.slice(),
    decided: part.decided.slice(),
    settled: part.settled.slice(),
    solution: undefined,
    least: solution.cost,
  }
  const add = (change: (p: Part) => void, at: Node | undefined, rows: Set<number>) => {
    const own: Part = { ...fixed, alive: fixed.alive.slice(), option: fixed.option.slice() }
    own.decided = fixed.decided.slice()
    own.settled = fixed.settled.slice()
    change(own)
    const least = at && leastOf(frame, at, own, rows)
    if (least !== undefined) parts.push({ ...own, least: Math.max(solution.cost, least) })
  }
  choices.forEach((choice, c) => {
    const chosen = solution.options[c]
    if (chosen === undefined) return
    const left = choice.options.filter((o) => fixed.option[o.id] !== dropped)
    const others = left.filter((o) => o.id !== chosen)
    if (others.length > 0)
      add(
        (p) => {
          p.option[chosen] = dropped
          p.settled[c] = 1
        },
        nodeOf(frame, root, fixed),
        new Set(Array.from({ length: problem.signals.length }, (_, r) => r)),
      )
    for (const o of others) fixed.option[o.id] = dropped
    fixed.option[chosen] = taken
    fixed.settled[c] = 1
  })
  // From here on one row after the other is fixed, and each part differs from the node so far in one row.
  const node = nodeOf(frame, root, fixed)
  solution.chosen.forEach((chosen, r) => {
    if (!chosen || !node) return
    const mine = small.classes(r, chosen)
    const later = twins[r]!.filter((t) => t > r)
    const differ = (from: number[], isOut: (kind: number) => boolean) => {
      const candidates = from.flatMap((row) => candidatesOf(frame, fixed, row, isOut))
      if (!candidatesOf(frame, fixed, r, (kind) => !isOut(kind)).length) return
      add(
        (p) => {
          for (const i of candidates) p.alive[i] = 0
          for (const row of from) p.decided[row] = 1
        },
        node,
        new Set(from),
      )
    }
    // Among equal signals the classes ascend: exchanged, they would be the same plan.
    if (later.length === 0) differ([r], (kind) => kind === mine)
    else {
      differ([r, ...later], (kind) => kind <= mine)
      differ([r], (kind) => kind >= mine)
    }
    const out = [
      ...candidatesOf(frame, fixed, r, (kind) => kind !== mine),
      ...later.flatMap((row) => candidatesOf(frame, fixed, row, (kind) => kind < mine)),
    ]
    if (out.length === 0) return
    for (const i of out) fixed.alive[i] = node.alive[i] = 0
    for (const row of [r, ...later]) fixed.decided[row] = 1
    update(frame, node, [r, ...later])
  })
  return parts
}

const candidatesOf = (
  { small }: Frame,
  { alive }: Part,
  row: number,
  wanted: (kind: number) => boolean,
): number[] => {
  const list: number[] = []
  for (let i = small.from[row]!; i < small.from[row + 1]!; i++)
    if (alive[i] && wanted(small.kind[i]!)) list.push(i)
  return list
}

/** For each signal those that can be exchanged with it, itself among them: of one kind, and with the same candidates. */
const twinsOf = ({ problem: { signals }, small }: Frame, kindOf: NextOptions['kindOf']): number[][] => {
  const groups = new Map<string, number[]>()
  return signals.map(({ group, frequency, load, when }, r) => {
    const kind = group === undefined && when === undefined ? kindOf?.(r) : undefined
    if (kind === undefined) return [r]
    const cells = [kind, frequency, load].map(String)
    for (let i = small.from[r]!; i < small.from[r + 1]!; i++)
      cells.push(
        [small.pin[i], small.cost[i], small.option[i], small.kind[i], small.units[i], small.channels[i]].join(
          '/',
        ),
      )
    const key = cells.join(' ')
    const list = groups.get(key) ?? []
    groups.set(key, list)
    list.push(r)
    return list
  })
}

/** The same plan with equal signals exchanged so that their classes ascend. */
const ascending = (
  { problem: { signals }, small }: Frame,
  twins: number[][],
  solution: Solution,
): Solution => {
  const chosen = [...solution.chosen]
  for (const group of new Set(twins)) {
    if (group.length < 2) continue
    const ranked = group
      .map((r) => ({ candidate: solution.chosen[r]!, kind: small.classes(r, solution.chosen[r]!), from: r }))
      .sort((a, b) => a.kind - b.kind || a.from - b.from)
    group.forEach((r, k) => {
      const { candidate, from } = ranked[k]!
      if (from !== r) chosen[r] = likeOf(signals[r]!.candidates, candidate)
    })
  }
  return { ...solution, chosen }
}

/** The candidate of an equal signal that is like this one. */
const likeOf = (candidates: Candidate[], { pin, option, cost, units, channels }: Candidate): Candidate =>
  candidates.find(
    (c) =>
      c.pin === pin &&
      c.option === option &&
      c.cost === cost &&
      c.units.join() === units.join() &&
      c.channels.join() === channels.join(),
  )!

/** No plan of a part costs less, from a node that has more candidates in these rows; undefined: it holds none. */
const leastOf = (frame: Frame, at: Node, part: Part, rows: Set<number>): number | undefined => {
  const node = copyNode(at)
  node.option.set(part.option)
  dropNeedless(frame, node)
  for (let i = 0; i < part.alive.length; i++)
    if (!part.alive[i] || !isAllowed(frame, node, i)) node.alive[i] = 0
  if (isStuck(frame, node)) return undefined
  const updated = update(frame, node, rows)
  if (!updated) return undefined
  return Math.ceil(boundOf(frame, node, updated.price) + liftsOf(frame, node).total - tiny)
}
