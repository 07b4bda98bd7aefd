// Random pin problems for the tests and the benchmark, from a seed: chips with all three routings, timers with one
// frequency each, buses in one unit, locks.

import type { Candidate, PlanProblem, PlanSignal } from '../problem'

/** A small seeded generator (mulberry32): the same seed gives the same instances everywhere. */
export const seeded = (seed: number) => {
  let state = seed >>> 0
  return (): number => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

export interface Shape {
  pins: number
  signals: number
}

export const randomInstance = (seed: number, largest: Shape = { pins: 40, signals: 25 }): PlanProblem => {
  const random = seeded(seed)
  const int = (low: number, high: number) => low + Math.floor(random() * (high - low + 1))
  const some = <T>(from: T[], n: number): T[] => {
    const pool = [...from]
    return Array.from({ length: Math.min(n, pool.length) }, () => pool.splice(int(0, pool.length - 1), 1)[0]!)
  }
  const pins = int(Math.ceil(largest.pins / 5), largest.pins)
  const everyPin = Array.from({ length: pins }, (_, i) => i)
  const pinCost = everyPin.map(() => (random() < 0.4 ? int(1, 30) : 0))
  const routing = (['fixed', 'selected', 'matrix'] as const)[int(0, 2)]!
  let units = 0
  let channels = 0
  type Line = { unit: number; channel: number; pins: number[] }
  const unit = (lines: number, reach: number): Line[] => {
    const id = units++
    const spread = routing === 'matrix' ? some(everyPin, int(Math.min(4, pins), pins)) : undefined
    return Array.from({ length: lines }, () => ({
      unit: id,
      channel: channels++,
      pins: spread ?? some(everyPin, routing === 'fixed' ? (reach > 1 ? int(1, 3) : 1) : int(1, reach)),
    }))
  }
  const timers = Array.from({ length: int(1, 4) }, () => unit(int(2, 4), 3))
  const buses = { 2: [] as Line[][], 3: [] as Line[][] }
  for (const lines of [2, 3] as const) buses[lines] = Array.from({ length: int(1, 3) }, () => unit(lines, 3))
  const converter = unit(int(4, 8), 1)

  const signals: PlanSignal[] = []
  const room = () => signals.length < Math.min(largest.signals, pins + 1)
  const serve = (line: Line, cost = 0): Candidate[] =>
    line.pins.map((pin) => ({ pin, unit: line.unit, channel: line.channel, cost: pinCost[pin]! + cost }))
  let group = 0
  for (const lines of [2, 3] as const)
    for (let n = int(0, buses[lines].length - 1 + (random() < 0.3 ? 2 : 0)); n > 0 && room(); n--, group++)
      for (let line = 0; line < lines; line++)
        signals.push({ group, candidates: buses[lines].flatMap((u) => serve(u[line]!)) })
  const frequencies = int(1, 3)
  for (let n = int(0, 4); n > 0 && room(); n--)
    signals.push({
      frequency: int(1, frequencies),
      candidates: timers.flat().flatMap((l) => serve(l, int(0, 2))),
    })
  for (let n = int(0, 4); n > 0 && room(); n--)
    signals.push({ candidates: converter.flatMap((l) => serve(l)) })
  for (let n = int(0, Math.max(2, Math.floor(pins * 0.5))); n > 0 && room(); n--)
    signals.push({
      candidates: everyPin
        .filter(() => random() < 0.85)
        .map((pin) => ({ pin, unit: -1, channel: -1, cost: pinCost[pin]! + int(0, 3) })),
    })
  if (signals.length === 0) signals.push({ candidates: [{ pin: 0, unit: -1, channel: -1, cost: 1 }] })
  for (const signal of some(signals, int(0, 3))) {
    const to = signal.candidates[int(0, Math.max(0, signal.candidates.length - 1))]
    if (to) signal.candidates = signal.candidates.filter((c) => c.pin === to.pin)
  }
  return { pins, units, channels, signals }
}
