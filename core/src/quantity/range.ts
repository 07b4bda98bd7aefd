// A number as a data sheet gives it: a lowest, a usual and a highest value. Every computed value is one too,
// so that a result can say which corner it comes from.

export interface Range {
  min: number
  typ: number
  max: number
}

export const exactly = (value: number): Range => ({ min: value, typ: value, max: value })

/** A nominal value with a symmetric relative tolerance: `within(1000, 0.05)` is 950…1050. */
export const within = (value: number, tolerance: number): Range =>
  value >= 0
    ? { min: value * (1 - tolerance), typ: value, max: value * (1 + tolerance) }
    : { min: value * (1 + tolerance), typ: value, max: value * (1 - tolerance) }

export const add = (...terms: Range[]): Range =>
  terms.reduce((a, b) => ({ min: a.min + b.min, typ: a.typ + b.typ, max: a.max + b.max }), exactly(0))

export const isExact = (a: Range): boolean => a.min === a.max

/** Fills what a sheet leaves open: a missing `typ` lies in the middle, a missing end is the one that is given. */
export const fullRange = (given: { min?: number; typ?: number; max?: number }): Range => {
  const min = given.min ?? given.typ ?? given.max
  if (min === undefined) throw new RangeError('a range needs at least one of min, typ, max')
  const max = given.max ?? given.typ ?? min
  return { min, typ: given.typ ?? (min + max) / 2, max }
}
