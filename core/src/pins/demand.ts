// From signals and a chip to the pin problem that the solver speaks, and back.

import type { SignalNeed } from '../needs'
import type { Chip, ChipPin } from '../parts'
import { type CostItem, costContext, costsOf } from './costs'
import type { Candidate, PlanProblem } from './solve'
import { type Way, waysToServe } from './ways'

export interface PinChoices {
  locks: Record<string, string>
  excluded: readonly string[]
  kept: Record<string, string>
}

/** A candidate that remembers what it stands for. */
export interface Offer extends Candidate {
  signal: SignalNeed
  chipPin: ChipPin
  way: Way
  items: CostItem[]
}

export interface Demand {
  chip: Chip
  signals: SignalNeed[]
  problem: PlanProblem & { signals: { candidates: Offer[] }[] }
  /** Why a pin can't serve a signal: [signal index][pin index]; undefined where it can. */
  reasons: (string | undefined)[][]
  /** Locks that no way serves: the builder's word stands, and is a mistake. */
  impossible: { signal: SignalNeed; pin: ChipPin; reason: string }[]
}

/** `taken`: pins that something else needs, with the reason in words. */
export const makeDemand = (
  chip: Chip,
  signals: SignalNeed[],
  choices: PinChoices,
  taken: Record<string, string>,
): Demand => {
  const context = costContext(chip, signals, choices.kept)
  const unitIndex = new Map(chip.units.map((u, i) => [u.id, i]))
  const channelIndex = new Map<string, number>()
  const channel = (way: Way) => {
    const key = `${way.unit}.${way.line}`
    if (!channelIndex.has(key)) channelIndex.set(key, channelIndex.size)
    return channelIndex.get(key)!
  }
  const groups = new Map<string, number>()
  const pinById = new Map(chip.pins.map((p) => [p.id, p]))
  const impossible: Demand['impossible'] = []
  const lockOwner = new Map<string, string>()
  for (const signal of signals) {
    const pin = pinById.get(choices.locks[signal.id] ?? '')
    if (!pin) continue
    const owner = lockOwner.get(pin.id)
    if (owner) {
      impossible.push({ signal, pin, reason: `${owner} is locked there already` })
      continue
    }
    lockOwner.set(pin.id, signal.name)
    const served = waysToServe(chip, pin, signal, taken)
    if ('reason' in served) impossible.push({ signal, pin, reason: served.reason })
  }
  const blocked = new Set(impossible.map((i) => i.signal.id))
  const misplaced = new Map(
    impossible.filter((i) => lockOwner.get(i.pin.id) === i.signal.name).map((i) => [i.pin.id, i.signal]),
  )
  const wanted = signals.filter((s) => !blocked.has(s.id))
  const reasons: (string | undefined)[][] = []
  const planned = wanted.map((signal) => {
    const candidates: Offer[] = []
    const lock = choices.locks[signal.id]
    reasons.push(
      chip.pins.map((pin, p) => {
        const served = waysToServe(chip, pin, signal, taken)
        if ('reason' in served) return served.reason
        const other = misplaced.get(pin.id)
        if (other) return `${other.name} is wired there`
        if (choices.excluded.includes(pin.id) && lock !== pin.id) return 'you keep it free'
        if (lock !== undefined && pinById.has(lock) && lock !== pin.id)
          return `${signal.name} is locked on ${lock}`
        const items = costsOf(signal, pin, context)
        const cost = items.reduce((sum, i) => sum + i.points, 0)
        for (const way of served.ways)
          candidates.push({
            pin: p,
            unit: way.unit === undefined ? -1 : unitIndex.get(way.unit)!,
            channel: way.unit === undefined ? -1 : channel(way),
            cost,
            signal,
            chipPin: pin,
            way,
            items,
          })
        return undefined
      }),
    )
    if (signal.bus && !groups.has(signal.bus.group)) groups.set(signal.bus.group, groups.size)
    return {
      candidates,
      group: signal.bus ? groups.get(signal.bus.group) : undefined,
      frequency: signal.kind === 'pwm' ? signal.frequency : undefined,
    }
  })
  return {
    chip,
    signals: wanted,
    problem: {
      pins: chip.pins.length,
      units: chip.units.length,
      channels: channelIndex.size,
      signals: planned,
    },
    reasons,
    impossible,
  }
}
