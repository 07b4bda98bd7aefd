// Moves among plans of equal cost, each by hand.

import { firstSeed } from '../../test/share'
import { seeded } from '../../test/seeded'
import type { Offer } from './demand'
import { tidy } from './tidy'

/** A plain signal of a device on a leg; `device`: none where it has no other signal. */
const on = (device: string, leg: number, cost = 0, unit = -1): Offer =>
  ({
    pin: leg,
    cost,
    units: [unit],
    chipPin: { legs: [leg] },
    signal: { ends: [{ instance: { id: device } }] },
  }) as unknown as Offer
const legs = (plan: Offer[]) => plan.map((o) => o.pin)
const always = () => true
/** Each signal may be on any of these legs. */
const tidied = (
  devices: string[],
  from: number[],
  free: number[],
  allowed: (p: Offer[]) => boolean = always,
) =>
  legs(
    tidy(
      from.map((leg, k) => on(devices[k]!, leg)),
      devices.map((d) => [...from, ...free].sort((a, b) => a - b).map((leg) => on(d, leg))),
      allowed,
    ),
  )

test.each<[string, string[], number[], number[], number[]]>([
  // what, the device of each signal, its leg, free legs, its leg then
  ['turned legs are turned back', ['A', 'A'], [5, 3], [], [3, 5]],
  ['legs far apart come together', ['A', 'A'], [2, 9], [3], [2, 3]],
  ['of places just as near the lower', ['A'], [9], [2, 4], [2]],
  // One alone would lie further off, or in front of the other.
  ['a row does not move', ['A', 'A'], [8, 9], [7], [8, 9]],
  // The first signal is asked first: on 2 it is nearer to its other one, and B has nothing to be near to.
  ['two change places where that brings a device together', ['A', 'A', 'B'], [1, 3, 2], [], [2, 3, 1]],
  ['what lies well stays', ['A', 'A'], [2, 3], [4, 9], [2, 3]],
])('%s', (_, devices, from, free, to) => expect(tidied(devices, from, free)).toEqual(to))

test('no leg’s cost changes, no unit moves, and no rule is broken', () => {
  const to = (offers: Offer[], allowed = always) => legs(tidy([on('A', 9)], [offers], allowed))
  expect(to([on('A', 2, 1), on('A', 9)])).toEqual([9])
  expect(to([on('A', 2), on('A', 9)])).toEqual([2])
  expect(to([on('A', 2), on('A', 9)], () => false)).toEqual([9])
  expect(legs(tidy([on('A', 9, 0, 3)], [[on('A', 2, 0, 3), on('A', 9, 0, 3)]], always))).toEqual([9])
})

test.each<[number[], number]>([
  // from 4 it would span 4 to 9, one more than now
  [[5, 9, 7], 4],
  // at 10 it would span 5 to 10
  [[9, 5, 7], 10],
])(
  'of three on %j, of which only the first can go, to %d, none goes: it would lie further apart',
  (from, free) => {
    const others = (plan: Offer[]) => plan[1]!.pin === from[1] && plan[2]!.pin === from[2]
    expect(tidied(['A', 'A', 'A'], from, [free], others)).toEqual(from)
  },
)

test('one that may not be moved yet is tried again once another has made room', () => {
  // 9 may go to 2 only when nobody is on 5 any more.
  const allowed = (plan: Offer[]) => !(legs(plan).includes(2) && legs(plan).includes(5))
  expect(tidied(['A', 'B'], [9, 5], [2, 3], allowed)).toEqual(expect.not.arrayContaining([9]))
})

test('300 random layouts, of devices that share lines too: no move and no exchange would be tidier, and nothing is lost', () => {
  const random = seeded(firstSeed('tidy', 5))
  const below = (n: number) => Math.floor(random() * n)
  // In this order: what the devices span, neighbours in another order than at the device, all legs, late signals on low ones.
  const measure = (devices: number[][], at: number[]): number[] => [
    devices.reduce(
      (sum, m) => sum + Math.max(...m.map((i) => at[i]!)) - Math.min(...m.map((i) => at[i]!)),
      0,
    ),
    devices.reduce((sum, m) => sum + m.filter((i, k) => k > 0 && at[i]! < at[m[k - 1]!]!).length, 0),
    at.reduce((sum, leg) => sum + leg, 0),
    -at.reduce((sum, leg, i) => sum + i * leg, 0),
  ]
  const isLess = (a: number[], b: number[]) => {
    const k = a.findIndex((x, n) => x !== b[n])
    return k >= 0 && a[k]! < b[k]!
  }
  for (let n = 0; n < 300; n++) {
    const count = 2 + below(7)
    const names = Array.from({ length: count }, () =>
      random() < 0.2 ? ['A', 'B'] : [['A', 'B', 'C'][below(3)]!],
    )
    const legsThere = Array.from({ length: count + below(5) }, (_, k) => k + 1).sort(() => random() - 0.5)
    const offer = (i: number, leg: number): Offer =>
      ({
        pin: leg,
        cost: 0,
        units: [-1],
        chipPin: { legs: [leg] },
        signal: { ends: names[i]!.map((id) => ({ instance: { id } })) },
      }) as unknown as Offer
    const from = legsThere.slice(0, count)
    const to = legs(
      tidy(
        from.map((leg, i) => offer(i, leg)),
        names.map((_, i) => legsThere.map((leg) => offer(i, leg))),
        always,
      ),
    )
    const devices = ['A', 'B', 'C']
      .map((d) => names.flatMap((own, i) => (own.includes(d) ? [i] : [])))
      .filter((m) => m.length > 1)
    const reached = measure(devices, to)
    expect(new Set(to).size).toBe(count)
    expect(isLess(measure(devices, from), reached)).toBe(false)
    for (let i = 0; i < count; i++)
      for (const leg of legsThere) {
        const moved = to.map((l, k) => (k === i ? leg : l === leg ? to[i]! : l))
        expect([n, from, moved, isLess(measure(devices, moved), reached)]).toEqual([n, from, moved, false])
      }
  }
})
