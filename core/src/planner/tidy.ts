// Among plans of equal cost, one in which a device's plain signals lie side by side: shorter wires, fewer crossings.
// Only signals that need no unit move, and only where no leg's cost changes, so the plan stays an optimum.

import type { Offer } from './demand'

/** How untidy a device lies: by how far its legs are spread, then by how many lie in another order than at the device. */
interface Untidiness {
  spread: number
  turned: number
}
const untidiness = (members: readonly number[], legAt: (member: number) => number): Untidiness => {
  let low = Infinity
  let high = -Infinity
  let before = -Infinity
  let turned = 0
  for (const member of members) {
    const leg = legAt(member)
    if (leg < low) low = leg
    if (leg > high) high = leg
    if (leg < before) turned++
    before = leg
  }
  return { spread: high - low, turned }
}

/** The two lowest and the two highest legs of a device: what the others span when one goes elsewhere. */
interface Ends {
  low: number
  low2: number
  high: number
  high2: number
}
const endsOf = (members: readonly number[], legOf: readonly number[]): Ends => {
  const ends: Ends = { low: Infinity, low2: Infinity, high: -Infinity, high2: -Infinity }
  for (const member of members) {
    const leg = legOf[member]!
    if (leg < ends.low) [ends.low2, ends.low] = [ends.low, leg]
    else if (leg < ends.low2) ends.low2 = leg
    if (leg > ends.high) [ends.high2, ends.high] = [ends.high, leg]
    else if (leg > ends.high2) ends.high2 = leg
  }
  return ends
}
/** How far a device is spread once the member on one leg is on another. */
const spreadWith = ({ low, low2, high, high2 }: Ends, from: number, to: number): number =>
  Math.max(from === high ? high2 : high, to) - Math.min(from === low ? low2 : low, to)

const firstByPin = (offers: Offer[]): Map<number, Offer> => {
  const by = new Map<number, Offer>()
  for (const o of offers) if (!by.has(o.pin)) by.set(o.pin, o)
  return by
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

  const offersAt = offers.map((list, i) => (plain[i] ? firstByPin(list) : undefined))
  const offerAt = (i: number, pin: number) => offersAt[i]?.get(pin)

  // The one or two signals that would move, and their legs then.
  let [first, firstLeg, second, secondLeg] = [-1, 0, -1, 0]
  const now = (i: number) => legOf[i]!
  const then = (i: number) => (i === first ? firstLeg : i === second ? secondLeg : legOf[i]!)
  const lies = devices.map((m) => untidiness(m, now))
  const ends = devices.map((m) => endsOf(m, legOf))
  /** How much more the devices of those that would move are spread then; one with both of them is looked at as a whole. */
  const moreSpread = (): number => {
    let change = 0
    for (const d of devicesOf[first]!)
      change +=
        (second >= 0 && devicesOf[second]!.includes(d)
          ? untidiness(devices[d]!, then).spread
          : spreadWith(ends[d]!, legOf[first]!, firstLeg)) - lies[d]!.spread
    if (second >= 0)
      for (const d of devicesOf[second]!)
        if (!devicesOf[first]!.includes(d))
          change += spreadWith(ends[d]!, legOf[second]!, secondLeg) - lies[d]!.spread
    return change
  }
  const moreTurned = (): number => {
    let change = 0
    for (const d of devicesOf[first]!) change += untidiness(devices[d]!, then).turned - lies[d]!.turned
    if (second >= 0)
      for (const d of devicesOf[second]!)
        if (!devicesOf[first]!.includes(d)) change += untidiness(devices[d]!, then).turned - lies[d]!.turned
    return change
  }
  /** Whether the move makes the plan tidier: less spread, then fewer turned, then lower legs. */
  const isTidier = (): boolean => {
    const change = moreSpread() || moreTurned()
    if (change !== 0) return change < 0
    // Lower legs are used before higher ones, by the signals that come first.
    const rise = firstLeg - legOf[first]!
    const other = second < 0 ? 0 : secondLeg - legOf[second]!
    if (rise + other !== 0) return rise + other < 0
    return first * rise + second * other > 0
  }

  // When something last changed about a signal (its leg, its devices') and about who is on a leg, and when a signal was last tried
  // everywhere: what has not changed since is not asked again.
  let clock = 0
  const changed = best.map(() => 0)
  const moved = new Map<number, number>()
  const tried = best.map(() => -1)
  const put = (k: number, o: Offer): void => {
    best[k] = o
    legOf[k] = o.chipPin.legs[0]!
    at.set(o.pin, k)
    moved.set(o.pin, clock)
    changed[k] = clock
    for (const d of devicesOf[k]!) {
      lies[d] = untidiness(devices[d]!, now)
      ends[d] = endsOf(devices[d]!, legOf)
      for (const m of devices[d]!) changed[m] = clock
    }
  }

  for (let pass = 0, improved = true; improved && pass < 20; pass++) {
    improved = false
    for (let i = 0; i < best.length; i++) {
      if (!plain[i]) continue
      const began = ++clock
      let refused = false
      for (const offer of offers[i]!) {
        const there = at.get(offer.pin)
        if (there === i) continue
        const since = tried[i]!
        if (
          changed[i]! < since &&
          (moved.get(offer.pin) ?? 0) < since &&
          (there === undefined || changed[there]! < since)
        )
          continue
        const own = best[i]!
        ;[first, firstLeg, second] = [i, offer.chipPin.legs[0]!, -1]
        let back: Offer | undefined
        if (there !== undefined) {
          if (!plain[there]) continue
          back = offerAt(there, own.pin)
          if (!back || back.cost + offer.cost !== own.cost + best[there]!.cost) continue
          ;[second, secondLeg] = [there, own.chipPin.legs[0]!]
        } else if (offer.cost !== own.cost) continue
        if (!isTidier()) continue
        const changes: [number, Offer][] = [[i, offer]]
        if (back) changes.push([there!, back])
        const next = [...best]
        for (const [k, o] of changes) next[k] = o
        if (!allowed(next)) {
          // Another plan may allow it.
          refused = true
          continue
        }
        clock++
        at.delete(own.pin)
        moved.set(own.pin, clock)
        for (const [k, o] of changes) put(k, o)
        improved = true
      }
      tried[i] = refused ? -1 : began
    }
  }
  return best
}
