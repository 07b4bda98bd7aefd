// Random pin problems for the tests and the benchmark, from a seed: chips with all three routings, timers with one
// frequency each, buses in one unit, interrupt lines shared by pins, a converter that the radio stops, devices with two
// wirings, bytes that want a port in order, leg groups with a current limit, two boards with one header, locks.

import type { Candidate, PlanBudget, PlanChoice, PlanProblem, PlanSignal } from '../problem'
import { seeded } from '../../../test/seeded'

export interface Shape {
  pins: number
  signals: number
}

interface Line {
  units: number[]
  channels: number[]
  pins: number[]
}

export const randomInstance = (seed: number, largest: Shape = { pins: 40, signals: 25 }): PlanProblem => {
  const random = seeded(seed)
  const int = (low: number, high: number) => low + Math.floor(random() * (high - low + 1))
  const chance = (share: number) => random() < share
  const some = <T>(from: readonly T[], n: number): T[] => {
    const pool = [...from]
    return Array.from({ length: Math.min(n, pool.length) }, () => pool.splice(int(0, pool.length - 1), 1)[0]!)
  }
  const pins = int(Math.ceil(largest.pins / 4), largest.pins)
  const everyPin = Array.from({ length: pins }, (_, i) => i)
  const pinCost = everyPin.map(() => (chance(0.4) ? int(1, 30) : 0))
  // Nothing with more than fifty legs routes anything anywhere.
  const routing = (['fixed', 'selected', 'matrix'] as const)[int(0, pins > 50 ? 1 : 2)]!
  const targets = chance(0.25) ? 2 : 1
  const size = Math.max(1, Math.round(pins / 20))
  let units = 0
  let channels = 0
  let options = 0

  /** Header positions that are one chip pin on the second board. */
  const twin = new Map<number, number>()
  if (targets === 2)
    for (let n = int(0, 2); n > 0; n--) {
      const [a, b] = some(everyPin, 2)
      if (a === undefined || b === undefined || twin.has(a) || twin.has(b)) continue
      twin.set(a, channels)
      twin.set(b, channels++)
    }
  const at = (pin: number, line: Omit<Line, 'pins'>, cost: number): Candidate => ({
    pin,
    units: line.units,
    channels: twin.has(pin) ? [...line.channels, twin.get(pin)!] : line.channels,
    cost: pinCost[pin]! + cost,
  })
  const plain = { units: Array.from({ length: targets }, () => -1), channels: [] }
  const unit = (lines: number, reach: number, spreads = routing === 'matrix'): Line[] => {
    const ids = Array.from({ length: targets }, () => units++)
    const spread = spreads ? some(everyPin, int(Math.min(4, pins), pins)) : undefined
    return Array.from({ length: lines }, () => ({
      units: ids,
      channels: ids.map(() => channels++),
      pins: spread ?? some(everyPin, routing === 'fixed' ? (reach > 1 ? int(1, 3) : 1) : int(1, reach)),
    }))
  }
  const timers = Array.from({ length: int(1, 3 * size) }, () => unit(int(2, 4), 3))
  const buses = { 2: [] as Line[][], 3: [] as Line[][] }
  for (const lines of [2, 3] as const)
    buses[lines] = Array.from({ length: int(1, 2 + Math.ceil(size / 2)) }, () => unit(lines, 3))
  const stopped = chance(0.5)
  const converters = [
    ...unit(int(4, 6 * size), 1, false).map((line) => ({ line, stopped: false })),
    ...unit(int(2, 4 * size), 1, false).map((line) => ({ line, stopped })),
  ]
  /** Sixteen interrupt lines, each shared by the pins whose number ends alike. */
  const interruptUnit = Array.from({ length: targets }, () => units++)
  const firstInterrupt = channels
  channels += 16

  const signals: PlanSignal[] = []
  const choices: PlanChoice[] = []
  const full = Math.min(largest.signals, pins + 1)
  const room = (n = 1) => signals.length + n <= full
  const serve = (line: Line, cost = 0): Candidate[] => line.pins.map((pin) => at(pin, line, cost))
  const anywhere = (share: number, cost = 3): Candidate[] =>
    everyPin.filter(() => chance(share)).map((pin) => at(pin, plain, int(0, cost)))
  let group = 0
  const bus = (lines: 2 | 3, when?: number[]) => {
    for (let line = 0; line < lines; line++)
      signals.push({ group, when, candidates: buses[lines].flatMap((u) => serve(u[line]!)) })
    group++
  }
  for (const lines of [2, 3] as const)
    for (let n = int(0, Math.min(2, buses[lines].length - 1)); n > 0 && room(lines); n--) bus(lines)
  // A device that can be wired by either bus, or by plain lines.
  for (let n = int(0, 3); n > 0 && room(6); n--) {
    const ids = Array.from({ length: int(2, 3) }, () => options++)
    choices.push({ options: ids.map((id, i) => ({ id, cost: i === 0 ? 0 : int(0, 6) })) })
    bus(2, [ids[0]!])
    bus(3, [ids[1]!])
    signals.push({ when: [ids[1]!, ...(ids[2] === undefined ? [] : [ids[2]])], candidates: anywhere(0.5) })
  }
  // A byte that wants four neighbouring pins in order, or pays for being scattered.
  for (let n = int(0, 1); n > 0 && room(4) && pins >= 8; n--) {
    const starts = some(everyPin.slice(0, pins - 3), int(1, 4))
    const scattered = options + starts.length
    choices.push({
      options: [...starts, -1].map((_, i) => ({ id: options + i, cost: i === starts.length ? 8 : 0 })),
    })
    for (let bit = 0; bit < 4; bit++)
      signals.push({
        candidates: [
          ...starts.map((start, i) => ({ ...at(start + bit, plain, 0), option: options + i })),
          ...everyPin.map((pin) => ({ ...at(pin, plain, 0), option: scattered })),
        ],
      })
    options = scattered + 1
  }
  const frequencies = int(1, 3)
  for (let n = int(0, 2 + size); n > 0 && room(); n--)
    signals.push({
      frequency: int(1, frequencies),
      candidates: timers.flat().flatMap((l) => serve(l, int(0, 2))),
    })
  for (let n = int(0, 2 + size); n > 0 && room(); n--) {
    const mayPause = chance(0.5)
    signals.push({
      candidates: converters
        .filter((c) => !c.stopped || mayPause)
        .flatMap((c) => serve(c.line, c.stopped ? 12 : 0)),
    })
  }
  for (let n = int(0, 2 + size); n > 0 && room(); n--)
    signals.push({
      candidates: some(everyPin, int(2, pins)).map((pin) =>
        at(pin, { units: interruptUnit, channels: [firstInterrupt + (pin % 16)] }, 0),
      ),
    })
  for (let n = int(0, Math.max(2, Math.floor(pins * 0.5))); n > 0 && room(); n--)
    signals.push({ candidates: anywhere(0.85), load: chance(0.5) ? int(1, 20) : undefined })
  if (signals.length === 0) signals.push({ candidates: [at(0, plain, 1)] })
  for (const signal of some(signals, int(0, 3))) {
    const to = signal.candidates[int(0, Math.max(0, signal.candidates.length - 1))]
    if (to) signal.candidates = signal.candidates.filter((c) => c.pin === to.pin)
  }
  const budgets: PlanBudget[] = []
  for (let from = 0, n = int(0, 2); n > 0 && from < pins; n--) {
    const width = int(2, 10)
    const total = signals.reduce((sum, s) => sum + (s.load ?? 0), 0)
    budgets.push({ pins: everyPin.slice(from, from + width), limit: Math.ceil(total * (0.2 + random())) })
    from += width
  }
  return { pins, units, channels, signals, choices, budgets }
}

/**
 * Small and crowded: units with several lines that are alike and too few of them, pins that many want, equal loads on
 * groups of pins, equal bytes. What a larger instance shows now and then is the rule here.
 */
export const crowdedInstance = (seed: number): PlanProblem => {
  const random = seeded(seed)
  const int = (low: number, high: number) => low + Math.floor(random() * (high - low + 1))
  const chance = (share: number) => random() < share
  const pins = int(8, 14)
  const every = Array.from({ length: pins }, (_, i) => i)
  const cost = every.map(() => (chance(0.5) ? int(1, 9) : 0))
  const units = int(2, 3)
  let channels = 0
  const timers = Array.from({ length: units }, (_, unit) => ({
    unit,
    channels: Array.from({ length: int(1, 3) }, () => channels++),
    pins: every.filter(() => chance(0.7)),
  }))
  const plain = (pin: number, more = 0) => ({ pin, units: [-1], channels: [], cost: cost[pin]! + more })
  const rates = int(1, 2)
  const signals: PlanSignal[] = Array.from({ length: int(3, 6) }, () => {
    const own = timers.filter(() => chance(0.8))
    return {
      frequency: int(1, rates),
      candidates: own.flatMap((t) =>
        t.pins.flatMap((pin) =>
          t.channels.map((c) => ({ pin, units: [t.unit], channels: [c], cost: cost[pin]! + t.unit })),
        ),
      ),
    }
  })
  const load = int(2, 5)
  for (let n = int(0, 4); n > 0; n--)
    signals.push({ load: chance(0.8) ? load : load + 1, candidates: every.map((p) => plain(p)) })
  const choices: PlanChoice[] = []
  let options = 0
  const starts = every.slice(0, pins - 1).filter(() => chance(0.5))
  for (let n = int(0, 2); n > 0; n--) {
    const ids = [...starts, -1].map(() => options++)
    choices.push({ options: ids.map((id, i) => ({ id, cost: i === starts.length ? 4 : 0 })) })
    for (const bit of [0, 1])
      signals.push({
        candidates: [
          ...starts.map((s, i) => ({ ...plain(s + bit), option: ids[i]! })),
          ...every.map((p) => ({ ...plain(p), option: ids.at(-1)! })),
        ],
      })
  }
  const half = Math.floor(pins / 2)
  const budgets = [every.slice(0, half), every.slice(half)].map((of) => ({
    pins: of,
    limit: load * int(1, 2) + int(0, 1),
  }))
  return { pins, units, channels, signals, choices, budgets }
}
