// Counting arguments that the assignment of signals to pins doesn't see: too many signals for the channels, frequencies
// for the timers, buses for the units, currents for the leg groups. Each looks at one kind of rule alone, so that what it
// says “no” to is impossible whatever the others allow.

import { allFit } from './matching'
import { type Frame, isWanted, type Node } from './state'

/** Whether some kind of rule can't be kept any more by the living candidates of the wanted signals. */
export const overfull = (frame: Frame, node: Node): boolean => {
  const wanted: number[] = []
  for (let r = 0; r < frame.problem.signals.length; r++) if (isWanted(frame, node, r)) wanted.push(r)
  return (
    channelsOverfull(frame, node, wanted) ||
    budgetsOverfull(frame, node, wanted) ||
    groupsOverfull(frame, node, wanted) ||
    timersOverfull(frame, node, wanted)
  )
}

const channelsOverfull = ({ small }: Frame, node: Node, wanted: number[]): boolean =>
  small.families.some((family) => {
    const inFamily = new Set(family)
    const wishes: number[][] = []
    for (const r of wanted) {
      const places = new Set<number>()
      let free = false
      for (let i = small.from[r]!; i < small.from[r + 1]! && !free; i++) {
        if (!node.alive[i]) continue
        const c = small.channels[i]!.find((x) => inFamily.has(x))
        if (c === undefined) free = true
        else places.add(c)
      }
      if (!free) wishes.push([...places])
    }
    return wishes.length > 1 && !allFit(wishes, (c) => small.room[c]!)
  })

/** Each budget as so many places as the lightest loads would need to fill it. */
const budgetsOverfull = ({ small, loads, budgets }: Frame, node: Node, wanted: number[]): boolean => {
  if (budgets.length === 0) return false
  const wishes: number[][] = []
  const mustFit: number[] = []
  for (const r of wanted) {
    if (loads[r] === 0) continue
    const places = new Set<number>()
    let outside = false
    for (let i = small.from[r]!; i < small.from[r + 1]! && !outside; i++) {
      if (!node.alive[i]) continue
      const b = budgets.findIndex((x) => x.inside[small.pin[i]!])
      if (b < 0) outside = true
      else places.add(b)
    }
    if (outside) continue
    wishes.push([...places])
    mustFit.push(loads[r]!)
  }
  if (wishes.length === 0) return false
  mustFit.sort((a, b) => a - b)
  const rooms = budgets.map(({ limit }) => {
    let sum = 0
    let n = 0
    while (n < mustFit.length && sum + mustFit[n]! <= limit) sum += mustFit[n++]!
    return n
  })
  return !allFit(wishes, (b) => rooms[b]!)
}

/** For each bus and target, the units that all its lines can have; buses to units is a matching. */
const groupsOverfull = ({ small, problem }: Frame, node: Node, wanted: number[]): boolean => {
  const unitsOf = new Map<number, Set<number>[]>()
  for (const r of wanted) {
    const { group } = problem.signals[r]!
    if (group === undefined) continue
    const here: Set<number>[] = []
    for (let i = small.from[r]!; i < small.from[r + 1]!; i++)
      if (node.alive[i]) small.units[i]!.forEach((u, t) => (here[t] ??= new Set()).add(u))
    const known = unitsOf.get(group)
    unitsOf.set(
      group,
      known ? known.map((units, t) => new Set([...units].filter((u) => here[t]?.has(u)))) : here,
    )
  }
  if (unitsOf.size === 0) return false
  const groups = [...unitsOf.values()]
  const targets = Math.max(...groups.map((g) => g.length))
  for (let t = 0; t < targets; t++) {
    const wishes = groups.flatMap((g) => (g[t] ? [[...g[t]!]] : []))
    if (!allFit(wishes, () => 1)) return true
  }
  return false
}

/** How many settings of timers are tried before the question is left open. */
const most = 3000

/** Whether no setting of one frequency a timer serves all signals with a frequency. */
const timersOverfull = ({ small, problem }: Frame, node: Node, wanted: number[]): boolean => {
  const withFrequency = wanted.filter((r) => problem.signals[r]!.frequency !== undefined)
  if (withFrequency.length < 2) return false
  const targets = Math.max(0, ...withFrequency.map((r) => small.units[small.from[r]!]?.length ?? 0))
  for (let t = 0; t < targets; t++) {
    // unit → channels that a row can use on it
    const rows: { frequency: number; on: Map<number, number[]> }[] = []
    for (const r of withFrequency) {
      const on = new Map<number, number[]>()
      let free = false
      for (let i = small.from[r]!; i < small.from[r + 1]! && !free; i++) {
        if (!node.alive[i]) continue
        const u = small.units[i]![t]
        if (u === undefined || u < 0) free = true
        else {
          // Without a channel that binds, the pin stands for the place.
          const c = small.channels[i]![0] ?? -1 - small.pin[i]!
          const list = on.get(u)
          if (!list) on.set(u, [c])
          else if (!list.includes(c)) list.push(c)
        }
      }
      if (!free) rows.push({ frequency: problem.signals[r]!.frequency!, on })
    }
    if (!timersServe(rows, small.room, small.likeUnit)) return true
  }
  return false
}

const timersServe = (
  rows: { frequency: number; on: Map<number, number[]> }[],
  room: number[],
  like: Int32Array,
): boolean => {
  const frequencies = [...new Set(rows.map((r) => r.frequency))]
  if (frequencies.length < 2) return true
  const units = [...new Set(rows.flatMap((r) => [...r.on.keys()]))].sort((a, b) => a - b)
  const need = frequencies.map((f) => rows.filter((r) => r.frequency === f).length)
  const roomOf = (c: number) => (c < 0 ? 1 : room[c]!)
  const capacity = units.map((u) =>
    frequencies.map((f) => {
      const able = rows.filter((r) => r.frequency === f && r.on.has(u))
      const channels = new Set(able.flatMap((r) => r.on.get(u)!))
      return Math.min(
        able.length,
        [...channels].reduce((sum, c) => sum + roomOf(c), 0),
      )
    }),
  )
  let tried = 0
  const given: number[] = []
  const serves = (): boolean =>
    frequencies.every((f, k) => {
      const own = new Set(units.filter((_, i) => given[i] === k))
      const wishes = rows
        .filter((r) => r.frequency === f)
        .map((r) => [...r.on].flatMap(([u, channels]) => (own.has(u) ? channels : [])))
      return allFit(wishes, roomOf)
    })
  const tryFrom = (i: number): boolean => {
    if (++tried > most) return true
    const short = frequencies.some((_, k) => {
      let can = 0
      for (let j = 0; j < units.length; j++) if (j >= i || given[j] === k) can += capacity[j]![k]!
      return can < need[k]!
    })
    if (short) return false
    if (i === units.length) return serves()
    // Among timers that are alike the frequencies ascend: which of them takes which is no matter.
    const twin = units.findIndex((u, j) => j < i && like[u]! >= 0 && like[u] === like[units[i]!])
    const least =
      twin < 0
        ? 0
        : Math.max(0, ...units.flatMap((u, j) => (j < i && like[u] === like[units[i]!] ? [given[j]!] : [])))
    for (let k = least; k < frequencies.length; k++) {
      if (capacity[i]![k] === 0) continue
      given[i] = k
      if (tryFrom(i + 1)) return true
    }
    if (capacity[i]!.every((c) => c === 0)) {
      given[i] = -1
      if (tryFrom(i + 1)) return true
    }
    given[i] = -1
    return false
  }
  return tryFrom(0)
}
