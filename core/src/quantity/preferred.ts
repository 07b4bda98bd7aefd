// Preferred values of resistors and capacitors, IEC 60063. E6, E12 and E24 are irregular and stand as tables;
// E48 and E96 are the rounded geometric series of the standard.

export type Series = 'E6' | 'E12' | 'E24' | 'E48' | 'E96'

const e24 = [
  1, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2, 2.2, 2.4, 2.7, 3, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2,
  9.1,
]
const geometric = (n: number): number[] =>
  Array.from({ length: n }, (_, i) => Math.round(10 ** (i / n) * 100) / 100)

export const seriesValues: Record<Series, readonly number[]> = {
  E6: e24.filter((_, i) => i % 4 === 0),
  E12: e24.filter((_, i) => i % 2 === 0),
  E24: e24,
  E48: geometric(48),
  E96: geometric(96),
}

/** `1.5 · 10^exponent` without the rounding error of a product. */
const atDecade = (mantissa: number, exponent: number): number => Number(`${mantissa}e${exponent}`)

/** The values from the decade below a value's to the one above it, made once for each. */
const ladders = new Map<string, number[]>()
const ladderAround = (exponent: number, series: Series): number[] => {
  const key = `${series} ${exponent}`
  const known =
    ladders.get(key) ??
    [exponent - 1, exponent, exponent + 1].flatMap((e) => seriesValues[series].map((m) => atDecade(m, e)))
  ladders.set(key, known)
  return known
}

const around = (value: number, series: Series): { below: number; above: number } => {
  if (!(value > 0) || !Number.isFinite(value)) throw new RangeError(`no preferred value for ${value}`)
  const ladder = ladderAround(Math.floor(Math.log10(value)), series)
  const slack = value * 1e-9
  return {
    below: ladder.findLast((v) => v <= value + slack)!,
    above: ladder.find((v) => v >= value - slack)!,
  }
}

/** The smallest preferred value not below `value`. */
export const nextUp = (value: number, series: Series): number => around(value, series).above

/** The largest preferred value not above `value`. */
export const nextDown = (value: number, series: Series): number => around(value, series).below

/** The preferred value with the least relative error; the smaller of two equally far. */
export const nearest = (value: number, series: Series): number => {
  const { below, above } = around(value, series)
  return value / below <= above / value ? below : above
}
