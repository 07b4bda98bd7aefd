// Among plans of equal cost, one in which a device's plain signals lie side by side: shorter wires, fewer crossings.
// Only signals that need no unit move, and only where no leg's cost changes, so the plan stays an optimum.

import type { Offer } from './demand'

/** Legs of one device: how far they are spread, and how many lie in another order than at the device. */
const measure = (legs: number[]): { spread: number; turned: number } => {
  let low = Infinity
  let high = -Infinity
  let turned = 0
  for (let i = 0; i < legs.length; i++) {
    const leg = legs[i]!
    if (leg < low) low = leg
    if (leg > high) high = leg
    if (i > 0 && leg < legs[i - 1]!) turned++
  }
  return { spread: high - low, turned }
}

/**
 * `offers`: for each signal, in the order of `chosen`, everything it could take. `allowed` says whether a changed plan
 * still keeps the rules that look at several legs at once. Deterministic.
 */
export const tidy = (chosen: Offer[], offers: Offer[][], allowed: (plan: Offer[]) => boolean): Offer[] => {
  const best = [...chosen]
  const legOf = best.map((o) => o.chipPin.legs[0]!)
  const members = new Map<string, number[]>()
  best.forEach((o, i) => {
    for (const { instance } of o.signal.ends)
      members.set(instance.id, [...(members.get(instance.id) ?? []), i])
  })
  const devices = [...members.values()].filter((m) => m.length > 1)
  const devicesOf: number[][] = best.map(() => [])
  devices.forEach((m, d) => m.forEach((i) => devicesOf[i]!.push(d)))
  const plain = best.map(
    (o, i) => o.units.every((u) => u < 0) && o.option === undefined && offers[i]!.length > 1,
  )
  const at = new Map(best.map((o, i) => [o.pin, i]))

  /** Whether moving these signals makes the plan tidier: less spread, then fewer turned, then lower legs. */
  const isTidier = (moves: [index: number, leg: number][]): boolean => {
    const touched = new Set(moves.flatMap(([i]) => devicesOf[i]!))
    const moved = new Map(moves)
    let spread = 0
    let turned = 0
    for (const d of touched) {
      const before = measure(devices[d]!.map((i) => legOf[i]!))
      const after = measure(devices[d]!.map((i) => moved.get(i) ?? legOf[i]!))
      spread += after.spread - before.spread
      turned += after.turned - before.turned
    }
    if (spread !== 0) return spread < 0
    if (turned !== 0) return turned < 0
    // Lower legs are used before higher ones, by the signals that come first.
    const sum = moves.reduce((n, [i, leg]) => n + leg - legOf[i]!, 0)
    if (sum !== 0) return sum < 0
    return moves.reduce((n, [i, leg]) => n + i * (leg - legOf[i]!), 0) > 0
  }

  for (let pass = 0, improved = true; improved && pass < 20; pass++) {
    improved = false
    for (let i = 0; i < best.length; i++) {
      if (!plain[i]) continue
      for (const offer of offers[i]!) {
        const there = at.get(offer.pin)
        if (there === i) continue
        const own = best[i]!
        const changes: [number, Offer][] = [[i, offer]]
        if (there !== undefined) {
          if (!plain[there]) continue
          const back = offers[there]!.find((o) => o.pin === own.pin)
          if (!back || back.cost + offer.cost !== own.cost + best[there]!.cost) continue
          changes.push([there, back])
        } else if (offer.cost !== own.cost) continue
        if (!isTidier(changes.map(([k, o]) => [k, o.chipPin.legs[0]!]))) continue
        const next = [...best]
        for (const [k, o] of changes) next[k] = o
        if (!allowed(next)) continue
        at.delete(own.pin)
        for (const [k, o] of changes) {
          best[k] = o
          legOf[k] = o.chipPin.legs[0]!
          at.set(o.pin, k)
        }
        improved = true
      }
    }
  }
  return best
}
