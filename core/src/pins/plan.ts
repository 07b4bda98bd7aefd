// The pin plan: every signal on a leg at the least cost, or the smallest set of signals that can't be met together.

import { askedWord, type OpenNeeds, type SignalNeed, type WiringChoice } from '../needs'
import { type Chip, type ChipPin, type ChipUnit, type Device, type DeviceWiring } from '../parts'
import type { CostItem } from './costs'
import { type Demand, linksToSet, makeDemand, type Offer, type OnOther, type PinChoices } from './demand'
import { legName } from './passport'
import { tidy } from './tidy'
import { waysToServe } from './ways'
import { keepsBudgets, nextPlans, type Same, smallestClash, solvePlan, type Solution } from './solve'

export interface Wire {
  signal: SignalNeed
  pin: ChipPin
  unit?: ChipUnit
  line?: string
  select?: number
  items: CostItem[]
  /** The same header position on the other boards that the plan must hold on. */
  others?: OnOther[]
  locked: boolean
  /** Set when the builder locked it where it can't work. */
  impossible?: string
}

/** A device whose wiring the plan chose, and the links to set for it. */
export interface ChosenWiring {
  need: string
  name: string
  part: Device
  wiring: DeviceWiring
  links: { link: string; to: string }[]
}

export type PlanStatus = 'planned' | 'clash' | 'stopped'

export interface Plan {
  status: PlanStatus
  wires: Wire[]
  cost: number
  /** How far below the cost a plan could still lie; 0 for a proven optimum. */
  gap: number
  /** Signals that can't be met together, when there is a clash. */
  clash: SignalNeed[]
  /** Devices that are part of the clash in every one of their wirings. */
  clashChoices: WiringChoice[]
  clashText?: string
  free: ChipPin[]
  wirings: ChosenWiring[]
}

/** Legs that can carry a signal at all, before anything is taken. */
export const usablePins = (chip: Chip): ChipPin[] =>
  chip.pins.filter((p) => ['io', 'input', 'output'].includes(p.type))

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
    })),
  }
}

/** `tidied`: a device’s signals side by side among plans of equal cost; a mere verdict does without. */
export const planPins = (
  chip: Chip,
  needs: OpenNeeds,
  choices: PinChoices,
  taken: Record<string, string>,
  { tidied = true }: { tidied?: boolean } = {},
): Plan => {
  const demand = makeDemand(chip, needs, choices, taken)
  const result = solvePlan(demand.problem)
  const wrong: Wire[] = demand.impossible.map(({ signal, pin, reason }) => ({
    signal,
    pin,
    items: [],
    locked: true,
    impossible: reason,
  }))
  const nothing = { chosen: [], options: [] }
  const { wires: right, wirings } = readSolution(
    demand,
    result.status !== 'infeasible' && result.chosen && result.options
      ? { chosen: result.chosen, options: result.options }
      : nothing,
    choices,
    tidied,
  )
  const wires = [...right, ...wrong]
  const order = new Map(needs.signals.map((s, i) => [s.id, i]))
  wires.sort((a, b) => order.get(a.signal.id)! - order.get(b.signal.id)!)
  const used = new Set([...wires.map((w) => w.pin.id), ...Object.keys(taken)])
  const free = usablePins(chip).filter((p) => !used.has(p.id))
  if (result.status === 'infeasible') {
    const smallest = smallestClash(demand.problem, true)!
    const clash = smallest.signals.map((i) => demand.signals[i]!)
    const clashChoices = smallest.choices.flatMap((i) => needs.choices[i] ?? [])
    return {
      status: 'clash',
      wires,
      wirings,
      cost: 0,
      gap: 0,
      clash,
      clashChoices,
      clashText: clashWords(demand, clash, clashChoices),
      free: [],
    }
  }
  const cost = result.cost ?? 0
  return {
    status: result.status === 'optimal' ? 'planned' : 'stopped',
    wires,
    wirings,
    cost,
    gap: result.status === 'stopped' ? cost - result.bound : 0,
    clash: [],
    clashChoices: [],
    free,
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
    ...wires.flatMap((w) => w.items.map((i) => [`${w.signal.id} ${i.name}`, i.reason] as const)),
    ...wirings.flatMap((w) =>
      w.links.map(
        (l) => [`${w.need} ${l.link} ${l.to}`, `${w.name}: ${l.link} must be set (${l.to})`] as const,
      ),
    ),
  ])

/** The next best plans that differ from the best in more than moving signals to legs of the same unit and price. */
export const nextBestPlans = (
  chip: Chip,
  needs: OpenNeeds,
  choices: PinChoices,
  taken: Record<string, string>,
  best: Pick<Plan, 'wires' | 'wirings' | 'cost'>,
  count = 3,
): NextPlan[] => {
  const demand = makeDemand(chip, needs, choices, taken)
  const same: Same = (a, b) => a.units.every((u, t) => u === b.units[t]) && a.cost === b.cost
  const before = new Map(best.wires.map((w) => [w.signal.id, w.pin.id]))
  const old = troubles(best)
  const plans = nextPlans(demand.problem, 3 * count, same).map((solution): NextPlan => {
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
  // Two units of a kind on the same legs are no other plan to the builder.
  const wiringOf = (p: NextPlan) => JSON.stringify(p.wires.map((w) => [w.signal.id, w.pin.id]))
  const seen = new Set<string>()
  return plans
    .filter((p) => p.differs.length > 0 && !seen.has(wiringOf(p)) && seen.add(wiringOf(p)))
    .slice(0, count)
}

/** What is wrong where expansion boards sit: no such header, a position twice, a position that can’t do the work. */
const seatWords = ({ chip }: Demand, clash: SignalNeed[]): string | undefined => {
  const seats = clash.flatMap((signal) => (signal.at ?? []).map((seat) => ({ signal, seat })))
  for (const { signal, seat } of seats) {
    const footprint = seat.place.split(' ')[0]!
    if (!chip.board?.headers.some((h) => h.footprint === footprint))
      return `${seat.instance.name} needs a ${footprint} header, and there is none`
    const rival = seats.find((s) => s.seat.place === seat.place && s.signal.id !== signal.id)
    if (rival) return `${signal.name} and ${rival.signal.name} sit on the same position`
    const pin = chip.pins.find((p) => p.places?.includes(seat.place))
    if (clash.length === 1 && pin) {
      const served = waysToServe(chip, pin, signal, {})
      return `${signal.name} sits on ${legName(pin)}${'reason' in served ? `: ${served.reason}` : ''}`
    }
  }
  return undefined
}

/** “5 analog inputs are asked for, and 4 legs can serve them”. */
const clashWords = (demand: Demand, clash: SignalNeed[], choices: WiringChoice[]): string => {
  const seated = seatWords(demand, clash)
  if (seated) return seated
  if (choices.length > 0) {
    const names = [...choices.map((c) => `${c.need.name} in any of its wirings`), ...clash.map((s) => s.name)]
    const all = names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : names[0]
    return `${all} can’t be served ${names.length > 1 ? 'together' : 'at all'}`
  }
  const kinds = new Map<string, number>()
  for (const s of clash) kinds.set(askedWord(s), (kinds.get(askedWord(s)) ?? 0) + 1)
  const asked = [...kinds].map(([word, n]) => `${n} ${word}${n > 1 ? 's' : ''}`)
  const listed = asked.length > 1 ? `${asked.slice(0, -1).join(', ')} and ${asked.at(-1)}` : asked[0]
  const indices = clash.map((s) => demand.signals.indexOf(s))
  const legs = new Set(indices.flatMap((i) => demand.problem.signals[i]!.candidates.map((c) => c.pin)))
  if (legs.size === 0) {
    const reasons = demand.reasons[indices[0]!]!
    const locked = reasons.find((r) => r?.includes('locked') || r?.includes('keep it free'))
    return `no leg can be ${askedWord(clash[0]!)} for ${clash[0]!.name}${locked ? ` (${locked})` : ''}`
  }
  const are = clash.length > 1 ? 'are' : 'is'
  if (legs.size < clash.length)
    return `${listed} ${are} asked for, and only ${legs.size} ${legs.size > 1 ? 'legs' : 'leg'} can serve ${clash.length > 1 ? 'them' : 'it'}`
  const frequencies = new Set(clash.map((s) => s.frequency).filter((f) => f !== undefined))
  if (frequencies.size > 1)
    return `${listed} need ${frequencies.size} frequencies, and too few timers reach their legs`
  return `${listed} ${are} asked for together, and no unit and legs serve them all at once`
}
