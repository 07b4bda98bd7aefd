// Intervals: what a quantity can be over a range of others. Outward, never too narrow.

export interface Interval {
  lo: number
  hi: number
}

export const point = (value: number): Interval => ({ lo: value, hi: value })
export const zero = point(0)
export const one = point(1)
export const minusOne = point(-1)

export const plus = (a: Interval, b: Interval): Interval => ({ lo: a.lo + b.lo, hi: a.hi + b.hi })
export const minus = (a: Interval, b: Interval): Interval => ({ lo: a.lo - b.hi, hi: a.hi - b.lo })
/** 0 · ∞ is 0 here: a slope that is not there, times one that is not bounded. */
const by = (a: number, b: number): number => (a === 0 || b === 0 ? 0 : a * b)
export const times = (a: Interval, b: Interval): Interval => {
  const [p, q, r, s] = [by(a.lo, b.lo), by(a.lo, b.hi), by(a.hi, b.lo), by(a.hi, b.hi)]
  return { lo: Math.min(p, q, r, s), hi: Math.max(p, q, r, s) }
}
/** Unbounded where the divisor can be zero. */
export const over = (a: Interval, b: Interval): Interval =>
  b.lo > 0 || b.hi < 0
    ? times(a, { lo: 1 / b.hi, hi: 1 / b.lo })
    : b.lo === 0 && b.hi > 0
      ? times(a, { lo: 1 / b.hi, hi: Infinity })
      : { lo: -Infinity, hi: Infinity }
export const hull = (a: Interval, b: Interval): Interval => ({
  lo: Math.min(a.lo, b.lo),
  hi: Math.max(a.hi, b.hi),
})
/** Of a function that only rises. */
export const rising = (f: (x: number) => number, a: Interval): Interval => ({ lo: f(a.lo), hi: f(a.hi) })
