// Among plans of equal cost, one in which a device's plain signals lie side by side: shorter wires, fewer crossings.
// Only signals that need no unit move, and only where no leg's cost changes, so the plan stays an optimum.

import type { Offer } from './demand'

/**
 * How untidy a plan is, the weightiest first: how far the legs of each device's signals are spread, how many of them lie
 * in another order than at the device, and how high the legs are numbered.
 */
const untidiness = (chosen: Offer[]): [number, number, number] => {
  const legsOf = new Map<string, number[]>()
  let sum = 0
  for (const o of chosen) {
    const leg = o.chipPin.legs[0]!
    sum += leg
    for (const end of o.signal.ends) {
      const known = legsOf.get(end.instance.id)
      if (known) known.push(leg)
      else legsOf.set(end.instance.id, [leg])
    }
  }
  let spread = 0
  let turned = 0
  for (const legs of legsOf.values()) {
    spread += Math.max(...legs) - Math.min(...legs)
    for (let i = 1; i < legs.length; i++) if (legs[i]! < legs[i - 1]!) turned++
  }
  return [spread, turned, sum]
}
const isLess = (a: number[], b: number[]): boolean => {
  const i = a.findIndex((x, k) => x !== b[k])
  return i >= 0 && a[i]! < b[i]!
}

/**
 * `offers`: for each signal, in the order of `chosen`, everything it could take. `allowed` says whether a changed plan
 * still keeps the rules that look at several legs at once. Deterministic.
 */
export const tidy = (chosen: Offer[], offers: Offer[][], allowed: (plan: Offer[]) => boolean): Offer[] => {
  let best = [...chosen]
  let least = untidiness(best)
  const plain = best.flatMap((o, i) =>
    o.units.every((u) => u < 0) && o.option === undefined && offers[i]!.length > 1 ? [i] : [],
  )
  const accept = (next: Offer[]): boolean => {
    const now = untidiness(next)
    if (!isLess(now, least) || !allowed(next)) return false
    best = next
    least = now
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
