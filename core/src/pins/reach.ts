// Everything about one signal and all legs: where it could go, at what cost, who would have to move, and why not.

import { without } from '../design'
import type { OpenNeeds } from '../needs'
import type { Chip } from '../parts'
import type { CostItem } from './costs'
import { makeDemand, type Offer, type PinChoices } from './demand'
import { solvePlan } from './solve'

export interface ReachEntry {
  pin: string
  /** Extra cost of the whole plan with the signal here, against the best plan; undefined when it can't be here. */
  extra?: number
  items: CostItem[]
  /** Why it can't. */
  reason?: string
  /** Signals that would move, with their new pins. */
  moves: { signal: string; name: string; to: string }[]
}

/** One entry a pin, in the chip's order. Costs are those of whole plans, each solved to its optimum. */
export const reachOf = (
  chip: Chip,
  needs: OpenNeeds,
  choices: PinChoices,
  taken: Record<string, string>,
  signalId: string,
  current: Record<string, string>,
): ReachEntry[] => {
  const locks = without(choices.locks, signalId)
  const kept = without(current, signalId)
  const open: PinChoices = { ...choices, locks, kept }
  const base = makeDemand(chip, needs, open, taken)
  const at = base.signals.findIndex((s) => s.id === signalId)
  if (at < 0) return []
  /** Why a leg that could serve can't be had: whoever is on it has nowhere else to go. */
  const stuck = (pin: string): string => {
    const occupant = base.signals.find((s) => s.id !== signalId && current[s.id] === pin)
    return occupant ? `${occupant.name} has no other leg` : 'another signal then finds no leg'
  }
  const solved = chip.pins.map((pin): Omit<ReachEntry, 'extra'> & { cost?: number } => {
    const reason = base.reasons[at]![chip.pins.indexOf(pin)]
    if (reason !== undefined) return { pin: pin.id, reason, items: [], moves: [] }
    // A locked neighbour is asked to leave: the builder sees who would move.
    const neighbour = Object.keys(locks).find((s) => locks[s] === pin.id)
    const freed = neighbour ? { ...open, locks: without(locks, neighbour) } : open
    const demand = makeDemand(chip, needs, { ...freed, locks: { ...freed.locks, [signalId]: pin.id } }, taken)
    const result = solvePlan(demand.problem)
    if (result.status === 'infeasible')
      return {
        pin: pin.id,
        reason: stuck(pin.id),
        items: [] as CostItem[],
        moves: [],
      }
    const offers = (result.chosen ?? []).filter((c) => c !== undefined) as Offer[]
    return {
      pin: pin.id,
      cost: result.cost ?? Infinity,
      items: offers.find((o) => o.signal.id === signalId)?.items ?? [],
      moves: offers
        .filter(
          (o) =>
            o.signal.id !== signalId &&
            current[o.signal.id] !== undefined &&
            current[o.signal.id] !== o.chipPin.id,
        )
        .map((o) => ({ signal: o.signal.id, name: o.signal.name, to: o.chipPin.id })),
    }
  })
  const best = Math.min(...solved.map((s) => s.cost ?? Infinity))
  return solved.map(({ cost, ...rest }) => (cost === undefined ? rest : { ...rest, extra: cost - best }))
}
