// What a part costs, which a file need not say: an unknown price is not a price of nothing.

import { euro } from '../quantity'

interface Priced {
  id: string
  price: number
  /** Fields its file does not state. */
  assumed?: readonly string[]
}

/** Euro; undefined where the file does not say. */
export const knownPrice = (part: Priced): number | undefined =>
  part.assumed?.includes('price') ? undefined : part.price

export const noPrice = '€ ?'

export const priceWords = (part: Priced): string => {
  const price = knownPrice(part)
  return price === undefined ? noPrice : euro(price)
}

/** The cheaper first, and what has no price after all that have one. */
export const byPrice = (a: Priced, b: Priced): number => {
  const [x, y] = [knownPrice(a), knownPrice(b)]
  if (x === undefined || y === undefined) return Number(x === undefined) - Number(y === undefined)
  return x - y
}

/** How many lines have no price, in words; nothing where all have one. */
export const unpricedWords = (rows: readonly { unpriced: boolean }[]): string => {
  const n = rows.filter((r) => r.unpriced).length
  return n === 0 ? '' : `, ${n} without a price`
}
