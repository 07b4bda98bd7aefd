// The pin problem made small for the search: rules that can't bind are gone, candidates that differ in nothing are one,
// and channels that are alike are one with room for several, so that equal things are not tried in every order.

import type { Candidate, PlanProblem, PlanSignal } from './problem'

export interface Small {
  rows: number
  pins: number
  /** Candidates row by row: those of row r are from[r] … from[r + 1] − 1, ascending by pin, then by cost. */
  from: Int32Array
  row: Int32Array
  pin: Int32Array
  cost: Int32Array
  option: Int32Array
  /** Per candidate: the unit on each target, where a rule about units looks at it; else empty. */
  units: (readonly number[])[]
  channels: (readonly number[])[]
  /** Which class it is of: candidates of several classes are never taken for one another. */
  kind: Int32Array
  classes: Classes
  /** For each channel how many signals may use it. */
  room: number[]
  /** Channels that never meet in one candidate, by family: each family is a matching of its own. */
  families: number[][]
  /** Equal numbers: units that can be exchanged for one another. −1: like no other. */
  likeUnit: Int32Array
  /** What a candidate stands for in the problem as it was given. */
  originals: Candidate[][]
}

/** The class of a signal’s candidate, as a number. */
export type Classes = (signal: number, candidate: Candidate) => number

/** One class for all. */
const alike: Classes = () => 0

interface Draft {
  row: number
  pin: number
  cost: number
  option: number
  units: readonly number[]
  channels: readonly number[]
  kind: number
  original: Candidate
  /** Further ones that it stands for. */
  more?: Candidate[]
  /** The next one of the same row and pin, while they are merged. */
  next?: Draft
}
const none: readonly number[] = []

const sameList = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i])

const isPlain = (d: Draft): boolean => d.units.length === 0 && d.channels.length === 0

/** Adds what another draft stands for. */
const join = (into: Draft, d: Draft): void => {
  into.more = [...(into.more ?? []), d.original, ...(d.more ?? [])]
}

/** One draft for those that differ in nothing but what they stand for; dearer ones go. Drafts lie by row, and stay so. */
const merged = (drafts: Draft[], pins: number): Draft[] => {
  const left: Draft[] = []
  const heads = new Array<Draft | undefined>(pins)
  let order: number[] = []
  const finish = () => {
    for (const pin of order) {
      const head = heads[pin]!
      heads[pin] = undefined
      if (!head.next) {
        left.push(head)
        continue
      }
      // A way that needs neither unit nor channel makes dearer ways on the same pin useless.
      for (let d: Draft | undefined = head; d; d = d.next) {
        let plain: Draft | undefined = head
        while (plain && (!isPlain(plain) || plain.option !== d.option || plain.kind !== d.kind))
          plain = plain.next
        if (!plain || d === plain || d.cost < plain.cost) left.push(d)
      }
    }
    order = []
  }
  let row = -1
  for (const d of drafts) {
    if (d.row !== row) {
      finish()
      row = d.row
    }
    d.next = undefined
    const head = heads[d.pin]
    if (!head) {
      heads[d.pin] = d
      order.push(d.pin)
      continue
    }
    let last: Draft | undefined
    let twin: Draft | undefined
    for (let o: Draft | undefined = head; o && !twin; o = o.next) {
      if (
        o.option === d.option &&
        o.kind === d.kind &&
        sameList(o.units, d.units) &&
        sameList(o.channels, d.channels)
      )
        twin = o
      else last = o
    }
    if (!twin) last!.next = d
    else if (d.cost === twin.cost) join(twin, d)
    else if (d.cost < twin.cost) {
      d.next = twin.next
      if (last) last.next = d
      else heads[d.pin] = d
    }
  }
  finish()
  return left
}

/** Without channels that bind nothing: used on one pin only, or by no more rows than have room. Drafts lie by row. */
const withoutIdle = (drafts: Draft[], room: number[]): void => {
  const pinOf = new Int32Array(room.length).fill(-1)
  const lastRow = new Int32Array(room.length).fill(-1)
  const rows = new Int32Array(room.length)
  const several = -2
  for (const d of drafts)
    for (const c of d.channels) {
      pinOf[c] = pinOf[c] === -1 || pinOf[c] === d.pin ? d.pin : several
      if (lastRow[c] !== d.row) rows[c]!++
      lastRow[c] = d.row
    }
  const binds = (c: number) => pinOf[c] === several && rows[c]! > room[c]!
  for (const d of drafts)
    if (d.channels.length > 0 && !d.channels.every(binds)) d.channels = d.channels.filter(binds)
}

/** Channels with the same candidates become one with the room of all. Returns whether there were any. */
const joinChannels = (drafts: Draft[], room: number[]): boolean => {
  // A cheap sum first: only channels with equal sums can be alike.
  const sums = new Float64Array(room.length)
  const counts = new Int32Array(room.length)
  for (const d of drafts)
    for (const c of d.channels) {
      sums[c]! += (((d.row * 7919 + d.pin) * 31 + d.cost) * 17 + d.option) * 13 + d.kind
      counts[c]!++
    }
  const groups = new Map<string, number>()
  for (let c = 0; c < room.length; c++)
    if (counts[c]! > 0) {
      const key = `${sums[c]} ${counts[c]}`
      groups.set(key, (groups.get(key) ?? 0) + 1)
    }
  const hasTwin = room.map((_, c) => counts[c]! > 0 && groups.get(`${sums[c]} ${counts[c]}`)! > 1)
  const uses: string[][] = room.map(() => [])
  for (const d of drafts)
    for (const c of d.channels)
      if (hasTwin[c])
        uses[c]!.push(
          `${d.row} ${d.pin} ${d.cost} ${d.option} ${d.kind} ${d.units.join()} ${d.channels.filter((o) => o !== c).join()}`,
        )
  const first = new Map<string, number>()
  const to = room.map((_, c) => c)
  let any = false
  uses.forEach((list, c) => {
    if (list.length === 0) return
    const key = list.sort().join(';')
    const twin = first.get(key)
    if (twin === undefined) first.set(key, c)
    else {
      to[c] = twin
      room[twin]! += room[c]!
      room[c] = 0
      any = true
    }
  })
  if (any) for (const d of drafts) d.channels = d.channels.map((c) => to[c]!)
  return any
}

/** Channels coloured so that no candidate has two of a colour. */
const familiesOf = (drafts: Draft[], count: number): number[][] => {
  const beside = Array.from({ length: count }, () => new Set<number>())
  const used = new Set<number>()
  for (const d of drafts)
    for (const c of d.channels) {
      used.add(c)
      for (const o of d.channels) if (o !== c) beside[c]!.add(o)
    }
  const families: number[][] = []
  const colour = new Map<number, number>()
  for (const c of used) {
    const taken = new Set([...beside[c]!].map((o) => colour.get(o)))
    let k = 0
    while (taken.has(k)) k++
    colour.set(c, k)
    ;(families[k] ??= []).push(c)
  }
  return families
}

/** Units of one target that serve the same rows on the same pins at the same cost, with channels of the same room. */
const alikeUnits = (all: Draft[], units: number, room: number[]): Int32Array => {
  const alike = new Int32Array(units).fill(-1)
  const drafts = all.filter((d) => d.units.length > 0)
  if (drafts.some((d) => d.units.length > 1)) return alike
  const uses = Array.from({ length: units }, () => new Map<string, string[]>())
  for (const d of drafts)
    for (const u of d.units)
      if (u >= 0) {
        const by = uses[u]!
        const key = d.channels.join()
        const list = by.get(key)
        const text = `${d.row} ${d.pin} ${d.cost} ${d.option} ${d.kind}`
        if (list) list.push(text)
        else by.set(key, [text])
      }
  // A channel that other units share, too, ties its unit to them: it keeps its number.
  const ownerOf = new Map<number, number>()
  for (const d of drafts)
    for (const c of d.channels)
      for (const u of d.units) ownerOf.set(c, ownerOf.has(c) && ownerOf.get(c) !== u ? -1 : u)
  const first = new Map<string, number>()
  uses.forEach((by, u) => {
    if (by.size === 0) return
    const key = [...by]
      .map(([channels, list]) => {
        const rooms = channels
          .split(',')
          .filter(Boolean)
          .map((c) => (ownerOf.get(Number(c)) === u ? `room ${room[Number(c)]}` : `channel ${c}`))
        return `${rooms.join()}: ${list.sort().join(';')}`
      })
      .sort()
      .join('|')
    if (!first.has(key)) first.set(key, u)
    alike[u] = first.get(key)!
  })
  return alike
}

/** `classes`: what must be kept apart; absent: nothing but what the rules look at. */
export const makeSmall = (
  { pins, units, channels, signals }: PlanProblem,
  classes: Classes = alike,
): Small => {
  // One frequency alone never quarrels.
  const quarrels = new Set(signals.flatMap((s) => s.frequency ?? [])).size > 1
  const looksAtUnits = ({ group, frequency }: PlanSignal, c: Candidate) =>
    group !== undefined || (quarrels && frequency !== undefined && c.units.some((u) => u >= 0))
  let drafts: Draft[] = []
  signals.forEach((signal, row) => {
    for (const c of signal.candidates)
      drafts.push({
        row,
        pin: c.pin,
        cost: c.cost,
        option: c.option ?? -1,
        units: looksAtUnits(signal, c) ? c.units : none,
        channels: c.channels,
        kind: classes(row, c),
        original: c,
        more: undefined,
        next: undefined,
      })
  })
  const room = Array.from({ length: channels }, () => 1)
  withoutIdle(drafts, room)
  drafts = merged(drafts, pins)
  let joined = false
  for (let pass = 0; pass < 3 && joinChannels(drafts, room); pass++) {
    joined = true
    drafts = merged(drafts, pins)
  }
  if (joined) {
    withoutIdle(drafts, room)
    drafts = merged(drafts, pins)
  }
  const order = (a: Draft, b: Draft) => a.row - b.row || a.pin - b.pin || a.cost - b.cost
  if (drafts.some((d, i) => i > 0 && order(drafts[i - 1]!, d) > 0)) drafts.sort(order)
  const count = drafts.length
  const from = new Int32Array(signals.length + 1)
  const [row, pin, cost, option] = [0, 0, 0, 0].map(() => new Int32Array(count)) as [
    Int32Array,
    Int32Array,
    Int32Array,
    Int32Array,
  ]
  drafts.forEach((d, i) => {
    from[d.row + 1]!++
    row[i] = d.row
    pin[i] = d.pin
    cost[i] = d.cost
    option[i] = d.option
  })
  for (let r = 0; r < signals.length; r++) from[r + 1]! += from[r]!
  return {
    rows: signals.length,
    pins,
    from,
    row,
    pin,
    cost,
    option,
    units: drafts.map((d) => d.units),
    channels: drafts.map((d) => d.channels),
    kind: Int32Array.from(drafts, (d) => d.kind),
    classes,
    room,
    families: familiesOf(drafts, channels),
    likeUnit: alikeUnits(drafts, units, room),
    originals: drafts.map((d) => (d.more ? [d.original, ...d.more] : [d.original])),
  }
}

/**
 * The candidates of the given problem that small ones stand for: of each, one whose channels are still free.
 * `chosen`: per row a small candidate, or −1.
 */
export const asGiven = (small: Small, chosen: Int32Array): (Candidate | undefined)[] => {
  const used = new Set<number>()
  return Array.from({ length: small.rows }, (_, r) => {
    const c = chosen[r]!
    if (c < 0) return undefined
    const original = small.originals[c]!.find((o) => !o.channels.some((x) => used.has(x)))
    if (!original) throw new Error(`channels of signal ${r} are used twice`)
    for (const x of original.channels) used.add(x)
    return original
  })
}
