// The pin plan: every signal on a leg at the least cost, or the smallest set of signals that can't be met together.

import { askedWord, type SignalNeed } from '../needs'
import type { Chip, ChipPin, ChipUnit } from '../parts'
import type { CostItem } from './costs'
import { type Demand, makeDemand, type Offer, type PinChoices } from './demand'
import { tidy } from './tidy'
import { smallestClash, solvePlan } from './solve'

export interface Wire {
  signal: SignalNeed
  pin: ChipPin
  unit?: ChipUnit
  line?: string
  select?: number
  items: CostItem[]
  locked: boolean
  /** Set when the builder locked it where it can't work. */
  impossible?: string
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
  clashText?: string
  free: ChipPin[]
}

/** Legs that can carry a signal at all, before anything is taken. */
export const usablePins = (chip: Chip): ChipPin[] =>
  chip.pins.filter((p) => ['io', 'input', 'output'].includes(p.type))

export const planPins = (
  chip: Chip,
  signals: SignalNeed[],
  choices: PinChoices,
  taken: Record<string, string>,
): Plan => {
  const demand = makeDemand(chip, signals, choices, taken)
  const result = solvePlan(demand.problem)
  const unitById = new Map(chip.units.map((u) => [u.id, u]))
  const wrong: Wire[] = demand.impossible.map(({ signal, pin, reason }) => ({
    signal,
    pin,
    items: [],
    locked: true,
    impossible: reason,
  }))
  const placed =
    result.status === 'infeasible'
      ? []
      : tidy(
          (result.chosen ?? []) as Offer[],
          demand.problem.signals.map((s) => s.candidates as Offer[]),
        )
  const wires: Wire[] = [
    ...placed.map((o) => ({
      signal: o.signal,
      pin: o.chipPin,
      unit: o.way.unit === undefined ? undefined : unitById.get(o.way.unit),
      line: o.way.line,
      select: o.way.select,
      items: o.items,
      locked: choices.locks[o.signal.id] === o.chipPin.id,
    })),
    ...wrong,
  ]
  const order = new Map(signals.map((s, i) => [s.id, i]))
  wires.sort((a, b) => order.get(a.signal.id)! - order.get(b.signal.id)!)
  const used = new Set([...wires.map((w) => w.pin.id), ...Object.keys(taken)])
  const free = usablePins(chip).filter((p) => !used.has(p.id))
  if (result.status === 'infeasible') {
    const clash = smallestClash(demand.problem).map((i) => demand.signals[i]!)
    return { status: 'clash', wires, cost: 0, gap: 0, clash, clashText: clashWords(demand, clash), free: [] }
  }
  const cost = result.cost ?? 0
  return {
    status: result.status === 'optimal' ? 'planned' : 'stopped',
    wires,
    cost,
    gap: result.status === 'stopped' ? cost - result.bound : 0,
    clash: [],
    free,
  }
}

/** “5 analog inputs are asked for, and 4 legs can serve them”. */
const clashWords = (demand: Demand, clash: SignalNeed[]): string => {
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
