// The first rule beyond pins that a plan breaks, as the ways in which it can be kept. The ways exclude one another and
// leave nothing out, so that branching on them loses no plan and visits none twice.

import type { Candidate, PlanProblem } from './problem'

/** One way to narrow the search: the candidates to keep. */
export type Branch = (signal: number, candidate: Candidate) => boolean

export interface Conflict {
  ways: Branch[]
  /** Whether it is about a channel, so that the bound by channels can help. */
  channel: boolean
}

/** Undefined when `chosen` keeps every rule. */
export const conflict = (
  problem: PlanProblem,
  alive: Candidate[][],
  chosen: (Candidate | undefined)[],
): Conflict | undefined =>
  groupConflict(problem, alive, chosen) ??
  frequencyConflict(problem, alive, chosen) ??
  channelConflict(problem, chosen) ??
  budgetConflict(problem, chosen)

const groupConflict = (
  problem: PlanProblem,
  alive: Candidate[][],
  chosen: (Candidate | undefined)[],
): Conflict | undefined => {
  const { signals } = problem
  const unitsOfGroup = new Map<number, readonly number[]>()
  const groupOfUnit = new Map<number, number>()
  for (let s = 0; s < chosen.length; s++) {
    const group = signals[s]!.group
    const candidate = chosen[s]
    if (group === undefined || !candidate) continue
    const other = unitsOfGroup.get(group)
    for (let t = 0; t < candidate.units.length; t++) {
      const unit = candidate.units[t]!
      const free = (of: number, first: number) => unitsFor(problem, alive, chosen, of, t, first)
      if (other && other[t] !== unit) return { ways: free(group, other[t]!), channel: false }
      const rival = groupOfUnit.get(unit)
      if (rival !== undefined && rival !== group) {
        const own = free(group, -1)
        return { ways: own.length > 1 ? own : free(rival, -1), channel: false }
      }
      groupOfUnit.set(unit, group)
    }
    unitsOfGroup.set(group, candidate.units)
  }
  return undefined
}

/** Each unit of target `t` that could serve the whole group, given to that group alone; `first` goes first. */
const unitsFor = (
  { signals }: PlanProblem,
  alive: Candidate[][],
  chosen: (Candidate | undefined)[],
  group: number,
  t: number,
  first: number,
): Branch[] => {
  let units: Set<number> | undefined
  signals.forEach((s, i) => {
    if (s.group !== group || !chosen[i]) return
    const here = new Set(alive[i]!.map((c) => c.units[t]!))
    units = units ? new Set([...units].filter((u) => here.has(u))) : here
  })
  return [...(units ?? [])]
    .sort((a, b) => Number(b === first) - Number(a === first) || a - b)
    .map((unit) => (s, c) => {
      const of = signals[s]!.group
      return of === group ? c.units[t] === unit : of === undefined || c.units[t] !== unit
    })
}

const frequencyConflict = (
  { signals }: PlanProblem,
  alive: Candidate[][],
  chosen: (Candidate | undefined)[],
): Conflict | undefined => {
  const frequencyOfUnit = new Map<number, number>()
  for (let s = 0; s < chosen.length; s++) {
    const frequency = signals[s]!.frequency
    if (frequency === undefined) continue
    for (const unit of chosen[s]?.units ?? []) {
      if (unit < 0) continue
      const other = frequencyOfUnit.get(unit)
      frequencyOfUnit.set(unit, frequency)
      if (other === undefined || other === frequency) continue
      const all = new Set<number>()
      signals.forEach((x, i) => {
        if (x.frequency !== undefined && alive[i]!.some((c) => c.units.includes(unit))) all.add(x.frequency)
      })
      const ways = [...all].map<Branch>((f) => (x, c) => {
        const own = signals[x]!.frequency
        return own === undefined || own === f || !c.units.includes(unit)
      })
      return { ways, channel: false }
    }
  }
  return undefined
}

const channelConflict = (problem: PlanProblem, chosen: (Candidate | undefined)[]): Conflict | undefined => {
  const signalOfChannel = new Map<number, number>()
  for (let s = 0; s < chosen.length; s++)
    for (const channel of chosen[s]?.channels ?? []) {
      const owner = signalOfChannel.get(channel)
      if (owner === undefined) {
        signalOfChannel.set(channel, s)
        continue
      }
      const uses = (c: Candidate) => c.channels.includes(channel)
      return {
        ways: [(x, c) => (x === owner ? uses(c) : !uses(c)), (x, c) => x !== owner || !uses(c)],
        channel: true,
      }
    }
  return undefined
}

/** Whether these loads on these pins stay within every budget. */
export const keepsBudgets = (
  { budgets }: PlanProblem,
  placed: readonly { pin: number; load: number }[],
): boolean =>
  (budgets ?? []).every(
    ({ pins, limit }) =>
      placed.reduce((sum, { pin, load }) => sum + (load && pins.includes(pin) ? load : 0), 0) <= limit,
  )

const budgetConflict = (
  { signals, budgets }: PlanProblem,
  chosen: (Candidate | undefined)[],
): Conflict | undefined => {
  for (const { pins, limit } of budgets ?? []) {
    const inside = new Set(pins)
    const members = chosen.flatMap((c, s) => (c && inside.has(c.pin) && signals[s]!.load ? [s] : []))
    if (members.reduce((sum, s) => sum + signals[s]!.load!, 0) <= limit) continue
    // The heaviest leaves; or it stays and the next leaves; and so on.
    members.sort((a, b) => signals[b]!.load! - signals[a]!.load!)
    const ways = members.map<Branch>((leaver, i) => {
      const stayers = new Set(members.slice(0, i))
      return (s, c) => (s === leaver ? !inside.has(c.pin) : !stayers.has(s) || inside.has(c.pin))
    })
    return { ways, channel: false }
  }
  return undefined
}
