// Among plans of equal cost, one in which a device's plain signals lie side by side: shorter wires, fewer crossings.
// Only signals that need no unit move, and only where no leg's cost changes, so the plan stays an optimum.

import type { Offer } from './demand'

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
    else ends.low2 = Math.min(ends.low2, leg)
    if (leg > ends.high) [ends.high2, ends.high] = [ends.high, leg]
    else ends.high2 = Math.max(ends.high2, leg)
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

/** Whether a changed plan still keeps the rules that look at several legs at once. */
type Allowed = (plan: Offer[]) => boolean

/** Which of a device’s signals one is, counted from 0 in the order at the device. */
interface Membership {
  device: number
  at: number
}

class Layout {
  private readonly best: Offer[]
  private readonly legOf: number[]
  /** Signals of each device that has several, and devices of each signal. */
  private readonly devices: number[][]
  private readonly devicesOf: Membership[][]
  private readonly ends: Ends[]
  /** Signals that may move at all, and what each could take on which pin. */
  private readonly plain: boolean[]
  private readonly offersAt: (Map<number, Offer> | undefined)[]
  /** Who is on a pin. */
  private readonly at: Map<number, number>
  // The one or two signals that would move, and their legs then.
  private first = -1
  private firstLeg = 0
  private second = -1
  private secondLeg = 0

  constructor(
    chosen: Offer[],
    private readonly offers: Offer[][],
    private readonly allowed: Allowed,
  ) {
    const best = (this.best = [...chosen])
    this.legOf = best.map((o) => o.chipPin.legs[0]!)
    const members = new Map<string, number[]>()
    best.forEach((o, i) => {
      for (const { instance } of o.signal.ends)
        members.set(instance.id, [...(members.get(instance.id) ?? []), i])
    })
    this.devices = [...members.values()].filter((m) => m.length > 1)
    this.devicesOf = best.map(() => [])
    this.devices.forEach((m, device) => m.forEach((i, at) => this.devicesOf[i]!.push({ device, at })))
    this.ends = this.devices.map((m) => endsOf(m, this.legOf))
    this.plain = best.map((o) => o.units.every((u) => u < 0) && o.option === undefined)
    this.offersAt = offers.map((list, i) => (this.plain[i] ? firstByPin(list) : undefined))
    this.at = new Map(best.map((o, i) => [o.pin, i]))
  }

  /** Each move makes the plan tidier, so there is an end. */
  tidied(): Offer[] {
    while (this.pass());
    return this.best
  }

  /** Every signal once. Whether one has moved. */
  private pass(): boolean {
    return this.best.map((_, i) => this.plain[i]! && this.improve(i)).includes(true)
  }

  /** One signal to wherever it makes the plan tidier. Whether it has moved. */
  private improve(i: number): boolean {
    let improved = false
    for (const offer of this.offers[i]!) {
      if (this.at.get(offer.pin) === i) continue
      const back = this.considered(i, offer)
      if (back === undefined || !this.isTidier()) continue
      const next = [...this.best]
      next[i] = offer
      if (back) next[this.second] = back
      if (!this.allowed(next)) continue
      this.move(i, offer, back)
      improved = true
    }
    return improved
  }

  /**
   * Takes note of the move to an offer. What whoever is there would take in exchange, null where nobody is; undefined
   * where that can’t be, or changes what the legs cost.
   */
  private considered(i: number, offer: Offer): Offer | null | undefined {
    const own = this.best[i]!
    const there = this.at.get(offer.pin)
    this.first = i
    this.firstLeg = offer.chipPin.legs[0]!
    this.second = -1
    if (there === undefined) return offer.cost === own.cost ? null : undefined
    const back = this.plain[there] ? this.offersAt[there]?.get(own.pin) : undefined
    if (!back || back.cost + offer.cost !== own.cost + this.best[there]!.cost) return undefined
    this.second = there
    this.secondLeg = own.chipPin.legs[0]!
    return back
  }

  private readonly then = (i: number) =>
    i === this.first ? this.firstLeg : i === this.second ? this.secondLeg : this.legOf[i]!

  /** Whether the move makes the plan tidier: less spread, then fewer turned, then lower legs. */
  private isTidier(): boolean {
    const change = this.moreSpread() || this.moreTurned()
    if (change !== 0) return change < 0
    // Lower legs are used before higher ones, by the signals that come first.
    const rise = this.firstLeg - this.legOf[this.first]!
    const other = this.second < 0 ? 0 : this.secondLeg - this.legOf[this.second]!
    if (rise + other !== 0) return rise + other < 0
    return this.first * rise + this.second * other > 0
  }
  /** How much more the devices of those that would move are spread then. Two of one device that change places leave it as it is. */
  private moreSpread(): number {
    const { first, second, firstLeg, secondLeg } = this
    let change = 0
    for (const { device } of this.devicesOf[first]!)
      if (this.placeIn(device, second) < 0) change += this.spreadMore(device, first, firstLeg)
    if (second >= 0)
      for (const { device } of this.devicesOf[second]!)
        if (this.placeIn(device, first) < 0) change += this.spreadMore(device, second, secondLeg)
    return change
  }
  private spreadMore(device: number, member: number, leg: number): number {
    const ends = this.ends[device]!
    return spreadWith(ends, this.legOf[member]!, leg) - (ends.high - ends.low)
  }
  /** How many more lie in another order than at the device. */
  private moreTurned(): number {
    let change = 0
    for (const { device, at } of this.devicesOf[this.first]!)
      change += this.turnedMore(device, at) + this.turnedMore(device, at + 1)
    if (this.second >= 0)
      for (const { device, at } of this.devicesOf[this.second]!) {
        const other = this.placeIn(device, this.first)
        // What lies between two neighbours that both move is counted with the first.
        if (other !== at - 1) change += this.turnedMore(device, at)
        if (other !== at + 1) change += this.turnedMore(device, at + 1)
      }
    return change
  }
  /** Of one of a device’s signals and the one before it. */
  private turnedMore(device: number, at: number): number {
    const members = this.devices[device]!
    if (at < 1 || at >= members.length) return 0
    const [before, after] = [members[at - 1]!, members[at]!]
    return Number(this.then(after) < this.then(before)) - Number(this.legOf[after]! < this.legOf[before]!)
  }
  /** Which of a device’s signals one is; −1 where it is none. */
  private placeIn(device: number, signal: number): number {
    return signal < 0 ? -1 : (this.devicesOf[signal]!.find((m) => m.device === device)?.at ?? -1)
  }

  private move(i: number, offer: Offer, back: Offer | null): void {
    const own = this.best[i]!
    this.at.delete(own.pin)
    this.put(i, offer)
    if (back) this.put(this.second, back)
  }
  private put(k: number, offer: Offer): void {
    this.best[k] = offer
    this.legOf[k] = offer.chipPin.legs[0]!
    this.at.set(offer.pin, k)
    for (const { device } of this.devicesOf[k]!) this.ends[device] = endsOf(this.devices[device]!, this.legOf)
  }
}

/**
 * `offers`: for each signal, in the order of `chosen`, everything it could take. `allowed` says whether a changed plan
 * still keeps the rules that look at several legs at once. Deterministic.
 */
export const tidy = (chosen: Offer[], offers: Offer[][], allowed: Allowed): Offer[] =>
  new Layout(chosen, offers, allowed).tidied()
