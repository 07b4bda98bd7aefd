// The prices of scarce channels and of leg groups: raised while the bound gains by it, and taken off what is not used up.

import { forbidden } from './lap'
import { boundOf, excess, update } from './narrow'
import { picksFor } from './picks'
import { copyNode, type Frame, type Node } from './state'
import { tiny } from './tiny'

/** What raising prices looks at. */
export interface Pricing {
  frame: Frame
  /** Signals whose candidates have a price. */
  priced: Set<number>
  /** What the best plan known costs. */
  limit: () => number
  isSpent: () => boolean
}
/** A node at its prices. */
export interface Priced {
  node: Node
  bound: number
  price: number
  chosen: Int32Array
}
type Excess = ReturnType<typeof excess>

/** The square of all that is over its room, or under it at a price; what is under it without one is set to nothing. */
const squareOf = (node: Node, { channel, budget }: Excess): number => {
  let square = 0
  for (let c = 0; c < channel.length; c++)
    if (channel[c]! > 0 || node.channelPrice[c]! > 0) square += channel[c]! ** 2
    else channel[c] = 0
  for (let b = 0; b < budget.length; b++)
    if (budget[b]! > 0 || node.budgetPrice[b]! > 0) square += budget[b]! ** 2
    else budget[b] = 0
  return square
}
/** No price is higher: with it, whatever uses several at once stays far below what is forbidden. */
const dearest = forbidden / 1000

/** The same node with its prices a step further. */
const between = (price: number) => Math.min(dearest, Math.max(0, price))
const moved = (node: Node, { channel, budget }: Excess, step: number): Node => {
  const next = copyNode(node)
  for (let c = 0; c < channel.length; c++)
    if (channel[c] !== 0) next.channelPrice[c] = between(next.channelPrice[c]! + step * channel[c]!)
  for (let b = 0; b < budget.length; b++)
    if (budget[b] !== 0) next.budgetPrice[b] = between(next.budgetPrice[b]! + step * budget[b]!)
  return next
}

/** Raises prices of what is over its room and lowers those of what is under it, while the bound gains by it. */
export const raise = ({ frame, priced, limit, isSpent }: Pricing, from: Priced, times: number): Priced => {
  let kept = from
  let current = kept
  let pace = 1
  let idle = 0
  for (let n = 0; n < times && !isSpent(); n++) {
    const { channel, budget } = excess(frame, current.chosen)
    const square = squareOf(current.node, { channel, budget })
    if (square === 0) break
    const aim = limit() < Infinity ? limit() : kept.bound + Math.max(4, 0.1 * Math.abs(kept.bound))
    const step = (pace * Math.max(0.5, aim - current.bound)) / square
    const next = moved(current.node, { channel, budget }, step)
    const updated = update(frame, next, priced)
    // Prices forbid nothing: where there is an assignment without them there is one with them.
    if (!updated) break
    const bound = boundOf(frame, next, updated.price)
    current = { node: next, bound, price: updated.price, chosen: picksFor(frame, next) }
    if (bound > kept.bound + 0.05) idle = 0
    else if (++idle % 3 === 0) pace /= 2
    if (bound > kept.bound) kept = current
    if (Math.ceil(kept.bound - tiny) >= limit()) break
    if (idle > 9) break
  }
  return kept
}

/** Prices of what is not used up hide a gap: without them the bound says what the assignment costs. Whether there were any. */
export const slacken = (node: Node, { channel, budget }: Excess): boolean => {
  let slack = false
  for (let c = 0; c < channel.length; c++)
    if (node.channelPrice[c]! > 0 && channel[c]! < 0) {
      node.channelPrice[c] = 0
      slack = true
    }
  for (let b = 0; b < budget.length; b++)
    if (node.budgetPrice[b]! > 0 && budget[b]! < -1e-12) {
      node.budgetPrice[b] = 0
      slack = true
    }
  return slack
}
