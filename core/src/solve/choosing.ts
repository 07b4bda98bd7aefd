// What can be left out at a node, and which choice is made next.

import { forbidden } from './lap'
import type { liftsOf } from './narrow'
import { dropped, type Frame, isOpen, type Node, pricedCost, undecided } from './state'
import { tiny } from './tiny'

type PlanOption = Frame['choices'][number]['options'][number]

/** Candidates that alone would push the bound over the best plan known. */
export const unaffordable = (frame: Frame, node: Node, bound: number, limit: number): Set<number> => {
  const { small } = frame
  const rows = new Set<number>()
  if (limit === Infinity) return rows
  const spare = limit - 1 - bound + tiny
  const { lap } = node
  for (let r = 0; r < frame.problem.signals.length; r++) {
    const slot = lap.slotOf[r]!
    if (slot < 0) continue
    const price = lap.slotPrice[slot]!
    for (let i = small.from[r]!; i < small.from[r + 1]!; i++)
      if (node.alive[i] && pricedCost(frame, node, i) - price - lap.pinPrice[small.pin[i]!]! > spare) {
        node.alive[i] = 0
        rows.add(r)
      }
  }
  return rows
}

/** The open choice to make next: the one with the fewest options left; of equal ones the first. */
export const nextChoice = (frame: Frame, node: Node): number => {
  const { choices, likeChoice } = frame
  let at = -1
  let fewest = Infinity
  for (let c = 0; c < choices.length; c++) {
    if (!isOpen(frame, node, c)) continue
    if (choices.some((_, k) => k < c && likeChoice[k] === likeChoice[c] && isOpen(frame, node, k))) continue
    const left = choices[c]!.options.filter((o) => node.option[o.id] === undecided).length
    if (left < fewest) {
      fewest = left
      at = c
    }
  }
  return at
}

/** Drops options of bytes that alone would push the bound over the best plan known. */
export const dropDear = (
  { small, choices }: Frame,
  node: Node,
  { total, least, lift }: ReturnType<typeof liftsOf>,
  bound: number,
  limit: number,
): Set<number> => {
  const rows = new Set<number>()
  const gone = new Set<number>()
  for (const [c, min] of least)
    for (const o of choices[c]!.options) {
      const own = lift[o.id]!
      if (own >= 0 && Math.ceil(bound + total - min + own - tiny) >= limit) {
        node.option[o.id] = dropped
        gone.add(o.id)
      }
    }
  if (gone.size > 0)
    for (let i = 0; i < small.option.length; i++)
      if (node.alive[i] && gone.has(small.option[i]!)) {
        node.alive[i] = 0
        rows.add(small.row[i]!)
      }
  return rows
}

/** The options of a choice, the one that the assignment already agrees with most first. */
export const orderedOptions = (
  { small, choices, asks }: Frame,
  node: Node,
  c: number,
  chosen: Int32Array,
  lift: Float64Array,
): PlanOption[] => {
  const left = choices[c]!.options.filter((o) => node.option[o.id] === undecided)
  const price = new Map<number, number>()
  for (const o of left) {
    let sum = lift[o.id]! < 0 ? o.cost : lift[o.id]!
    for (const r of asks[o.id]!) {
      let least = forbidden
      for (let p = 0; p < small.pins; p++) least = Math.min(least, node.costs[r * small.pins + p]!)
      sum += least
    }
    price.set(o.id, sum)
  }
  const agrees = new Map<number, number>()
  for (let i = 0; i < small.option.length; i++) {
    const o = small.option[i]!
    const row = small.row[i]!
    if (o >= 0 && node.alive[i] && chosen[row]! >= 0 && small.pin[chosen[row]!] === small.pin[i])
      agrees.set(o, (agrees.get(o) ?? 0) + 1)
  }
  return left.sort(
    (a, b) => price.get(a.id)! - price.get(b.id)! || (agrees.get(b.id) ?? 0) - (agrees.get(a.id) ?? 0),
  )
}
