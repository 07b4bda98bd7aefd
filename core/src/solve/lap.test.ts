// The assignment that is kept while rows come, go and change, against trying every placement.

import { seeded } from '../../test/seeded'
import { costOf, emptyLap, forbidden, release, scratchFor, settle } from './lap'

/** The least cost of placing rows on pins of their own, by trying all. */
const byTrying = (rows: number[], pins: number, cost: (row: number, pin: number) => number): number => {
  const from = (k: number, used: number): number => {
    if (k === rows.length) return 0
    let least = Infinity
    for (let p = 0; p < pins; p++)
      if (!(used & (1 << p))) least = Math.min(least, cost(rows[k]!, p) + from(k + 1, used | (1 << p)))
    return least
  }
  return from(0, 0)
}

test('kept assignments cost what the best of all placements costs', () => {
  const random = seeded(5)
  const int = (low: number, high: number) => low + Math.floor(random() * (high - low + 1))
  let infeasible = 0
  for (let run = 0; run < 150; run++) {
    const pins = int(2, 6)
    const rows = int(1, pins + 1)
    const costs = new Float64Array(rows * pins)
    const draw = (r: number) => {
      for (let p = 0; p < pins; p++) costs[r * pins + p] = random() < 0.15 ? forbidden : int(0, 9)
    }
    for (let r = 0; r < rows; r++) draw(r)
    const lap = emptyLap(rows, pins)
    const scratch = scratchFor(pins)
    const placed = new Set<number>()
    for (let step = 0; step < 12; step++) {
      const some = Array.from({ length: rows }, (_, r) => r).filter(() => random() < 0.5)
      let fits = true
      if (random() < 0.4) {
        release(lap, some, costs, scratch)
        for (const r of some) placed.delete(r)
      } else {
        // Candidates only ever go: costs rise.
        for (const r of some)
          for (let p = 0; p < pins; p++)
            if (random() < 0.3) costs[r * pins + p] = Math.min(forbidden, costs[r * pins + p]! + int(0, 4))
        fits = settle(lap, some, costs, scratch)
        for (const r of some) placed.add(r)
      }
      const best = byTrying([...placed], pins, (r, p) => costs[r * pins + p]!)
      if (!fits || best >= forbidden) {
        infeasible++
        expect([run, step, fits, best < forbidden]).toEqual([run, step, false, false])
        break
      }
      expect([run, step, costOf(lap, costs)]).toEqual([run, step, best])
    }
  }
  expect(infeasible).toBeGreaterThan(10)
  expect(infeasible).toBeLessThan(120)
})
