// Among plans of equal cost, one in which a device's plain signals lie side by side: shorter wires, fewer crossings.
// Only signals that need no unit move, and only where no leg's cost changes, so the plan stays an optimum.

import type { Offer } from './demand'

/** How far the legs of each device's signals are spread, summed. */
const spread = (chosen: Offer[]): number => {
  const ends = new Map<string, { low: number; high: number }>()
  for (const o of chosen)
    for (const end of o.signal.ends) {
      const leg = o.chipPin.legs[0]!
      const known = ends.get(end.instance.id)
      ends.set(end.instance.id, {
        low: Math.min(known?.low ?? leg, leg),
        high: Math.max(known?.high ?? leg, leg),
      })
    }
  return [...ends.values()].reduce((sum, e) => sum + e.high - e.low, 0)
}

/**
 * `offers`: for each signal, in the order of `chosen`, everything it could take. `allowed` says whether a changed plan
 * still keeps the rules that look at several legs at once. Deterministic.
 */
export const tidy = (chosen: Offer[], offers: Offer[][], allowed: (plan: Offer[]) => boolean): Offer[] => {
  let best = [...chosen]
  let width = spread(best)
  const plain = best.flatMap((o, i) =>
    o.units.every((u) => u < 0) && o.option === undefined && offers[i]!.length > 1 ? [i] : [],
  )
  const accept = (next: Offer[]): boolean => {
    const w = spread(next)
    if (w >= width || !allowed(next)) return false
    best = next
    width = w
    return true
  }
  for (let pass = 0, improved = true; improved && pass < 20; pass++) {
    improved = false
    for (const i of plain)
      for (const offer of offers[i]!) {
        const there = best.findIndex((o) => o.pin === offer.pin)
        if (there === i) continue
        const next = [...best]
        next[i] = offer
        if (there >= 0) {
          if (!plain.includes(there)) continue
          const back = offers[there]!.find((o) => o.pin === best[i]!.pin)
          if (!back || back.cost + offer.cost !== best[i]!.cost + best[there]!.cost) continue
          next[there] = back
        } else if (offer.cost !== best[i]!.cost) continue
        if (accept(next)) improved = true
      }
  }
  return best
}
