// The pin plan: every signal on a leg at the least cost, or the smallest set of signals that can't be met together.

import { type Chip, type ChipPin } from '../parts'
import { clashWords, deciding } from './clash'
import type { CostItem, ChosenWiring, Plan, Wire } from '../legs'
import { type Demand, linksToSet, makeDemand, type Offer, type PinChoices, type PinQuestion } from './demand'
import { tidy } from './tidy'
import {
  type Candidate,
  hasPlan,
  keepsBudgets,
  nextPlans,
  prepare,
  smallestClash,
  type Solution,
} from '../solve'
import { type Patience, share, usualPatience } from '../patience'

/** Legs that can carry a signal at all, before anything is taken. */
const usablePins = (chip: Chip): ChipPin[] =>
  chip.pins.filter((p) => ['io', 'input', 'output'].includes(p.type))

/** Whether no unit’s line, and no leg of another board, is used by two. */
const channelsOnce = (plan: Offer[]): boolean => {
  const used = new Set<number>()
  for (const { channels } of plan)
    for (const channel of channels) {
      if (used.has(channel)) return false
      used.add(channel)
    }
  return true
}

/** What a solution says: its wires in the order of the signals, and the wirings it chose. */
const readSolution = (
  demand: Demand,
  solution: Pick<Solution, 'chosen' | 'options'>,
  choices: PinChoices,
  tidied = true,
): Pick<Plan, 'wires' | 'wirings'> => {
  const { chip, problem } = demand
  const unitById = new Map(chip.units.map((u) => [u.id, u]))
  const wirings = demand.wirings
    .filter((o) => solution.options.includes(o.id))
    .map(({ choice: { need, part }, wiring }) => ({
      need: need.id,
      name: need.name,
      part,
      wiring,
      links: linksToSet(part, wiring),
    }))
  const wiringOf = new Map(wirings.map((w) => [w.need, w.wiring.id]))
  const wanted = solution.chosen.flatMap((c, i) => (c ? [i] : []))
  const found = wanted.map((i) => solution.chosen[i] as Offer)
  const placed = !tidied
    ? found
    : tidy(
        found,
        wanted.map((i) => problem.signals[i]!.candidates as Offer[]),
        (plan) =>
          channelsOnce(plan) &&
          keepsBudgets(
            problem,
            plan.map((o, at) => ({ pin: o.pin, load: problem.signals[wanted[at]!]!.load ?? 0 })),
          ),
      )
  return {
    wirings,
    wires: placed.map(({ signal, chipPin, way, others, items }) => ({
      // A shared line has on it only the devices that are wired by it.
      signal: {
        ...signal,
        ends: signal.ends.filter(
          ({ instance: { need, wiring } }) => (wiringOf.get(need.id) ?? wiring.id) === wiring.id,
        ),
      },
      pin: chipPin,
      unit: way.unit === undefined ? undefined : unitById.get(way.unit),
      line: way.line,
      select: way.select,
      items,
      others: others.length > 0 ? others : undefined,
      locked: choices.locks[signal.id] === chipPin.id,
      ...(choices.soldered?.[signal.id] === chipPin.id ? { soldered: true as const } : {}),
    })),
  }
}

export interface PlanOptions {
  /** A device’s signals side by side among plans of equal cost; a mere verdict does without. */
  tidied?: boolean
  patience?: Patience
}

/** Solved with the wires as they were for a plan to begin with: what was found once is found again at once. */
const solveNear = ({ problem, chip, signals }: Demand, kept: Record<string, string>, patience: Patience) => {
  const ask = prepare(problem)
  if (Object.keys(kept).length === 0) return ask({ patience })
  const pinOf = new Map(chip.pins.map((p, i) => [p.id, i]))
  const wanted = signals.map((s) => pinOf.get(kept[s.id] ?? ''))
  const near = ask({
    patience: share(patience, 60),
    only: (s, c) => wanted[s] === undefined || wanted[s] === c.pin,
  })
  return ask({ patience, known: hasPlan(near) ? near : undefined })
}

export const planPins = (
  question: PinQuestion,
  { tidied = true, patience = usualPatience() }: PlanOptions = {},
): Plan => {
  const { chip, needs, choices, taken } = question
  const demand = makeDemand(question)
  const result = solveNear(demand, choices.kept, patience)
  const wrong: Wire[] = demand.impossible.map(({ signal, pin, reason }) => ({
    signal,
    pin,
    items: [],
    locked: true,
    impossible: reason,
  }))
  const solution = result.status === 'proven' || result.status === 'found' ? result : undefined
  const { wires: right, wirings } = readSolution(
    demand,
    solution ?? { chosen: [], options: [] },
    choices,
    tidied,
  )
  const wires = [...right, ...wrong]
  const order = new Map(needs.signals.map((s, i) => [s.id, i]))
  wires.sort((a, b) => order.get(a.signal.id)! - order.get(b.signal.id)!)
  const none = { wires, wirings, cost: 0, gap: 0, clash: [], clashChoices: [], clashRules: [], free: [] }
  if (result.status === 'undecided') return { ...none, status: 'undecided', bound: result.bound }
  if (!solution) {
    const smallest = smallestClash(demand.problem, { known: true, patience })!
    const clash = smallest.signals.map((i) => demand.signals[i]!)
    const clashChoices = smallest.choices.flatMap((i) => needs.choices[i] ?? [])
    const clashRules = deciding(question, clash, clashChoices, patience)
    return {
      ...none,
      status: 'clash',
      bound: Infinity,
      clash,
      clashChoices,
      clashRules,
      clashText: clashWords(demand, clash, clashChoices, clashRules),
      clashUnsure: smallest.unsure,
    }
  }
  const used = new Set([...wires.map((w) => w.pin.id), ...Object.keys(taken)])
  const { cost } = solution
  const bound = result.status === 'found' ? result.bound : cost
  return {
    ...none,
    status: solution.status,
    cost,
    bound,
    gap: cost - bound,
    free: usablePins(chip).filter((p) => !used.has(p.id)),
  }
}

export interface NextPlan {
  wires: Wire[]
  wirings: ChosenWiring[]
  cost: number
  /** What it costs more than the best plan. */
  extra: number
  /** Signals that lie elsewhere, or are there in one plan only. */
  differs: { signal: string; name: string; from?: string; to?: string }[]
  /** Reasons for cost, and links to set, that the best plan has and this one has not, and the other way round. */
  spares: string[]
  givesUp: string[]
}

const troubles = ({ wires, wirings }: Pick<Plan, 'wires' | 'wirings'>): Map<string, string> =>
  new Map([
    ...wires.flatMap((w) =>
      w.items.map((i) => [`${w.signal.id} ${i.name}`, `${w.pin.id}: ${i.reason}`] as const),
    ),
    ...wirings.flatMap((w) =>
      w.links.map(
        (l) => [`${w.need} ${l.link} ${l.to}`, `${w.name}: ${l.link} must be set (${l.to})`] as const,
      ),
    ),
  ])

/** Equal numbers for signals of like devices that nothing tells apart: the same part, no lock, no wire of their own. */
const kindsOf = ({ signals }: Demand, { locks, kept }: PinChoices) => {
  const known = new Map<string, number>()
  return (s: number): number | undefined => {
    const { id, ends, bus, pair, when, at } = signals[s]!
    const [end] = ends
    if (ends.length !== 1 || bus || pair || when || at || locks[id] || kept[id]) return undefined
    const { part, wiring, need } = end!.instance
    const key = JSON.stringify([part.id, wiring.id, end!.signal.id, need.settings, need.fedBy, need.variant])
    if (!known.has(key)) known.set(key, known.size)
    return known.get(key)
  }
}

/** Drawbacks that make another plan; which of several legs spends a rare ability or was wired before is no matter. */
const drawbacks = (items: CostItem[]): string =>
  items
    .filter((i) => i.points > 1 && i.name !== 'moves a wire')
    .map((i) => `${i.name} ${i.points}`)
    .join()

/**
 * The next best plans that differ from the best in something to care about: a wiring, the unit of a bus, a drawback of a
 * leg. Moving signals to legs with the same drawbacks, or exchanging equal devices, is no other plan.
 */
export const nextBestPlans = (
  question: PinQuestion,
  best: Pick<Plan, 'wires' | 'wirings' | 'cost'>,
  { count = 3, patience = usualPatience() }: { count?: number; patience?: Patience } = {},
): { plans: NextPlan[]; complete: boolean } => {
  const { choices } = question
  const demand = makeDemand(question)
  const classes = new Map<CostItem[], string>()
  const classOf = (candidate: Candidate): string => {
    const { signal, units, items } = candidate as Offer
    if (!classes.has(items)) classes.set(items, drawbacks(items))
    return signal.bus ? `${units.join()} ${classes.get(items)}` : classes.get(items)!
  }
  const kindOf = kindsOf(demand, choices)
  // What a builder sees of a plan: each kind of signal with its legs’ drawbacks, and the wirings. Two units of a kind on
  // the same legs, and equal devices exchanged, are no other plan.
  const kind = new Map(demand.signals.map((s, i) => [s.id, kindOf(i)]))
  const seenAs = ({ wires, wirings }: Pick<Plan, 'wires' | 'wirings'>) =>
    JSON.stringify([
      wirings.map((w) => [w.need, w.wiring.id]),
      wires
        .map((w) =>
          JSON.stringify([
            kind.get(w.signal.id) ?? w.signal.id,
            drawbacks(w.items),
            w.signal.bus ? w.unit?.id : w.unit?.kind,
          ]),
        )
        .sort(),
    ])
  const seen = new Set([seenAs(best)])
  const counts = (solution: Solution): boolean => {
    const as = seenAs(readSolution(demand, solution, choices, false))
    return !seen.has(as) && Boolean(seen.add(as))
  }
  const found = nextPlans(demand.problem, count, { classOf, kindOf, counts, patience })
  const before = new Map(best.wires.map((w) => [w.signal.id, w.pin.id]))
  const old = troubles(best)
  const plans = found.plans.map((solution): NextPlan => {
    const { wires, wirings } = readSolution(demand, solution, choices)
    const after = new Map(wires.map((w) => [w.signal.id, w.pin.id]))
    const names = new Map([...best.wires, ...wires].map((w) => [w.signal.id, w.signal.name]))
    const now = troubles({ wires, wirings })
    const only = (a: Map<string, string>, b: Map<string, string>) =>
      [...a].filter(([key]) => !b.has(key)).map(([, reason]) => reason)
    return {
      wires,
      wirings,
      cost: solution.cost,
      extra: solution.cost - best.cost,
      differs: [...names]
        .map(([signal, name]) => ({ signal, name, from: before.get(signal), to: after.get(signal) }))
        .filter((d) => d.from !== d.to),
      spares: only(old, now),
      givesUp: only(now, old),
    }
  })
  return { plans, complete: found.complete }
}
