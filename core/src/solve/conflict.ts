// The first rule beyond pins that an assignment breaks, as the ways in which it can be kept. The ways leave nothing out,
// so that branching on them loses no plan. They speak of units, channels and kinds of signal rather than of single
// signals wherever they can: equal signals are then not tried in every order.

import { type Frame, isWanted, type Node } from './state'

/** One way to narrow the search: the candidates to keep. */
export interface Way {
  keep: (candidate: number) => boolean
  /** Units that are decided about. */
  units: number[]
  /** A pin that from now on serves one channel only. */
  hold?: { pin: number; channel: number }
}

/** `chosen`: per signal a candidate or −1. Undefined when every rule is kept. */
export const conflict = (frame: Frame, node: Node, chosen: Int32Array): Way[] | undefined =>
  groupConflict(frame, node, chosen) ??
  frequencyConflict(frame, node, chosen) ??
  channelConflict(frame, node, chosen) ??
  budgetConflict(frame, node, chosen)

/** Without units that are like an earlier one of which nothing is decided yet. */
const unlike = ({ small }: Frame, { touched }: Node, units: number[]): number[] =>
  units.filter(
    (u, i) =>
      touched[u] ||
      small.likeUnit[u]! < 0 ||
      !units.slice(0, i).some((o) => !touched[o] && small.likeUnit[o] === small.likeUnit[u]),
  )

const groupConflict = (frame: Frame, node: Node, chosen: Int32Array): Way[] | undefined => {
  const { small, problem } = frame
  const unitsOfGroup = new Map<number, readonly number[]>()
  const groupOfUnit = new Map<number, number>()
  const broken = new Map<number, number>()
  for (let s = 0; s < chosen.length; s++) {
    const { group } = problem.signals[s]!
    if (group === undefined || chosen[s]! < 0) continue
    const units = small.units[chosen[s]!]!
    const before = unitsOfGroup.get(group)
    units.forEach((u, t) => {
      if (before && before[t] !== u) broken.set(group, t)
      const rival = groupOfUnit.get(u)
      if (rival !== undefined && rival !== group) {
        broken.set(group, t)
        broken.set(rival, t)
      }
      groupOfUnit.set(u, group)
    })
    if (!before) unitsOfGroup.set(group, units)
  }
  // The bus with the fewest units left to choose from decides first.
  let best: { group: number; t: number; units: number[]; use: Map<number, number> } | undefined
  for (const [group, t] of broken) {
    const found = unitsFor(frame, node, chosen, group, t)
    if (found.units.length === 0) return []
    if (found.units.length === 1 && broken.size > 1) continue
    if (!best || found.units.length < best.units.length) best = { group, t, ...found }
  }
  if (!best) {
    const first = [...broken][0]
    if (!first) return undefined
    best = { group: first[0], t: first[1], ...unitsFor(frame, node, chosen, first[0], first[1]) }
  }
  const { group, t, units, use } = best
  return unlike(frame, node, units)
    .sort((a, b) => (use.get(b) ?? 0) - (use.get(a) ?? 0) || a - b)
    .map((unit) => ({
      units: [unit],
      keep: (i) => {
        const of = problem.signals[small.row[i]!]!.group
        if (of === undefined) return true
        return (small.units[i]![t] === unit) === (of === group)
      },
    }))
}

/** Each unit of target `t` that could serve all of the group, and how many lines are on it now. */
const unitsFor = ({ small, problem }: Frame, node: Node, chosen: Int32Array, group: number, t: number) => {
  let units: Set<number> | undefined
  const use = new Map<number, number>()
  for (let s = 0; s < chosen.length; s++) {
    if (problem.signals[s]!.group !== group || chosen[s]! < 0) continue
    const here = new Set<number>()
    for (let i = small.from[s]!; i < small.from[s + 1]!; i++)
      if (node.alive[i] && (!units || units.has(small.units[i]![t]!))) here.add(small.units[i]![t]!)
    units = here
    const u = small.units[chosen[s]!]![t]!
    use.set(u, (use.get(u) ?? 0) + 1)
  }
  return { units: [...(units ?? [])].sort((a, b) => a - b), use }
}

const frequencyConflict = (frame: Frame, node: Node, chosen: Int32Array): Way[] | undefined => {
  const { small, problem } = frame
  const onUnit = new Map<number, Map<number, number>>()
  for (let s = 0; s < chosen.length; s++) {
    const { frequency } = problem.signals[s]!
    if (frequency === undefined || chosen[s]! < 0) continue
    for (const u of small.units[chosen[s]!]!) {
      if (u < 0) continue
      const here = onUnit.get(u) ?? new Map<number, number>()
      here.set(frequency, (here.get(frequency) ?? 0) + 1)
      onUnit.set(u, here)
    }
  }
  const quarrels = [...onUnit].filter(([, f]) => f.size > 1)
  if (quarrels.length === 0) return undefined
  const [unit, use] = quarrels.reduce((a, b) => (b[1].size > a[1].size ? b : a))
  const all = new Set<number>()
  for (let s = 0; s < chosen.length; s++) {
    const { frequency } = problem.signals[s]!
    if (frequency === undefined || all.has(frequency)) continue
    for (let i = small.from[s]!; i < small.from[s + 1]!; i++)
      if (node.alive[i] && small.units[i]!.includes(unit)) all.add(frequency)
  }
  return [...all]
    .sort((a, b) => (use.get(b) ?? 0) - (use.get(a) ?? 0) || a - b)
    .map((f) => ({
      units: [unit],
      keep: (i) => {
        const own = problem.signals[small.row[i]!]!.frequency
        return own === undefined || own === f || !small.units[i]!.includes(unit)
      },
    }))
}

/** A channel used more often than it has room: one of its pins is held for it, or does not serve it. */
const channelConflict = ({ small }: Frame, node: Node, chosen: Int32Array): Way[] | undefined => {
  const users = new Map<number, number[]>()
  for (let s = 0; s < chosen.length; s++)
    if (chosen[s]! >= 0)
      for (const c of small.channels[chosen[s]!]!) {
        const list = users.get(c)
        if (list) list.push(chosen[s]!)
        else users.set(c, [chosen[s]!])
      }
  let worst: { channel: number; over: number; members: number[] } | undefined
  for (const [channel, members] of users) {
    const over = members.length - small.room[channel]!
    if (over > 0 && (!worst || over > worst.over)) worst = { channel, over, members }
  }
  if (!worst) return undefined
  const { channel } = worst
  const members = worst.members.filter((i) => node.held[small.pin[i]!] !== channel)
  // Plans in which a held pin does not serve the channel are in the other branch.
  if (members.length === 0) return []
  const pin = small.pin[members.reduce((a, b) => (small.cost[b]! < small.cost[a]! ? b : a))]!
  const uses = (i: number) => small.channels[i]!.includes(channel)
  const units = [...new Set(members.flatMap((i) => small.units[i]!.filter((u) => u >= 0)))]
  const full = node.held.filter((c) => c === channel).length + 1 >= small.room[channel]!
  return [
    {
      units,
      hold: { pin, channel },
      keep: (i) => {
        const at = small.pin[i]!
        return at === pin ? uses(i) : !full || !uses(i) || node.held[at] === channel
      },
    },
    { units, keep: (i) => !uses(i) || small.pin[i] !== pin },
  ]
}

/** A leg group over its current: fewer of one kind of signal are in it, or at least as many as now. */
const budgetConflict = (frame: Frame, node: Node, chosen: Int32Array): Way[] | undefined => {
  const { small, loads, budgets, problem } = frame
  for (const { inside, limit } of budgets) {
    const members: number[] = []
    let sum = 0
    for (let s = 0; s < chosen.length; s++)
      if (chosen[s]! >= 0 && loads[s]! > 0 && inside[small.pin[chosen[s]!]!]) {
        members.push(s)
        sum += loads[s]!
      }
    if (sum <= limit) continue
    const kinds = new Map<string, number[]>()
    for (let s = 0; s < problem.signals.length; s++) {
      if (loads[s] === 0 || !isWanted(frame, node, s)) continue
      const key = kindOf(frame, node, s)
      kinds.set(key, [...(kinds.get(key) ?? []), s])
    }
    const isIn = new Set(members)
    let heaviest: { all: number[]; count: number; load: number } | undefined
    for (const all of kinds.values()) {
      // Signals that can’t be anywhere else have been decided.
      const [one] = all
      let elsewhere = false
      for (let i = small.from[one!]!; i < small.from[one! + 1]! && !elsewhere; i++)
        elsewhere = node.alive[i] === 1 && !inside[small.pin[i]!]
      if (!elsewhere) continue
      const count = all.filter((s) => isIn.has(s)).length
      const load = count * loads[all[0]!]!
      if (count > 0 && (!heaviest || load > heaviest.load)) heaviest = { all, count, load }
    }
    if (!heaviest) return []
    const { all, count } = heaviest
    // Of equal signals the first ones are in the group: fewer than now, so that from the last one on all are out; or more.
    const out = new Set(all.slice(count - 1))
    const stay = new Set(all.slice(0, count))
    const out_: Way = {
      units: [],
      keep: (i) => !out.has(small.row[i]!) || !inside[small.pin[i]!],
    }
    const stay_: Way = {
      units: [],
      keep: (i) => !stay.has(small.row[i]!) || inside[small.pin[i]!] === 1,
    }
    return [out_, stay_]
  }
  return undefined
}

/** Equal for signals that can be exchanged for one another: the same load, rules and living candidates. */
const kindOf = ({ small, loads, problem }: Frame, node: Node, s: number): string => {
  const { group, frequency, when } = problem.signals[s]!
  if (group !== undefined) return `${s}`
  const cells: string[] = [`${loads[s]} ${frequency} ${when?.join() ?? ''}`]
  for (let i = small.from[s]!; i < small.from[s + 1]!; i++)
    if (node.alive[i])
      cells.push(
        `${small.pin[i]} ${small.cost[i]} ${small.option[i]} ${small.units[i]!.join()} ${small.channels[i]!.join()}`,
      )
  return cells.join(';')
}
