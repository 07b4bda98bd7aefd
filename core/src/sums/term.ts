// An expression over named inputs: what it is in, what it is at given values, how it changes with each input, and how it
// is written.

import {
  ampere,
  type Dimension,
  dimensionText,
  plain,
  product,
  quotient,
  root,
  sameDimension,
} from './dimension'
import * as I from './interval'
import type { Interval } from './interval'

type Call = 'sqrt' | 'ln' | 'exp' | 'exp2' | 'abs' | 'round'
type Node =
  | { op: 'input'; symbol: string; index: number }
  | { op: 'number'; value: number }
  | { op: 'add'; a: Term; b: Term; sign: 1 | -1 }
  | { op: 'multiply'; a: Term; b: Term }
  | { op: 'divide'; a: Term; b: Term }
  | { op: 'min' | 'max' | 'parallel'; of: Term[] }
  | { op: 'call'; name: Call; of: Term }
  | { op: 'curve'; name: string; curve: Curve; at: Term; band: Term }
  | { op: 'series'; voltage: Term; resistance: Term; of: { name: string; curve: Curve; band: Term }[] }

/** A point of a curve: at x the least, usual and greatest y. Points ascend in x. */
export type CurvePoint = readonly [x: number, min: number, typ: number, max: number]

/** Straight between its points, and on with the first and last slope; or held at the ends. */
export interface Curve {
  points: readonly CurvePoint[]
  held?: boolean
}

/** A unit that doesn't go with the operation. */
export class UnitError extends Error {
  override name = 'UnitError'
}

const asTerm = (x: Term | number): Term =>
  typeof x === 'number' ? new Term({ op: 'number', value: x }, plain) : x

const demand = (a: Dimension, b: Dimension, what: string): void => {
  if (!sameDimension(a, b))
    throw new UnitError(`${what}: ${dimensionText(a)} and ${dimensionText(b)} don’t go together`)
}

export class Term {
  constructor(
    readonly node: Node,
    readonly dimension: Dimension,
  ) {}
  plus(b: Term | number): Term {
    return add(this, asTerm(b), 1)
  }
  minus(b: Term | number): Term {
    return add(this, asTerm(b), -1)
  }
  times(b: Term | number): Term {
    const other = asTerm(b)
    return new Term({ op: 'multiply', a: this, b: other }, product(this.dimension, other.dimension))
  }
  over(b: Term | number): Term {
    const other = asTerm(b)
    return new Term({ op: 'divide', a: this, b: other }, quotient(this.dimension, other.dimension))
  }
}

const add = (a: Term, b: Term, sign: 1 | -1): Term => {
  demand(a.dimension, b.dimension, sign > 0 ? 'adding' : 'subtracting')
  return new Term({ op: 'add', a, b, sign }, a.dimension)
}
const several = (op: 'min' | 'max' | 'parallel', terms: (Term | number)[]): Term => {
  const of = terms.map(asTerm)
  for (const t of of) demand(of[0]!.dimension, t.dimension, op)
  return of.length === 1 ? of[0]! : new Term({ op, of }, of[0]!.dimension)
}

/** `index`: which of the inputs it is, counted from 0. */
export const input = (symbol: string, dimension: Dimension, index: number): Term =>
  new Term({ op: 'input', symbol, index }, dimension)
export const number = (value: number, dimension: Dimension = plain): Term =>
  new Term({ op: 'number', value }, dimension)
export const least = (...of: (Term | number)[]): Term => several('min', of)
export const greatest = (...of: (Term | number)[]): Term => several('max', of)
/** Resistances, or whatever adds by its reciprocals. */
export const parallel = (...of: Term[]): Term => several('parallel', of)
/** Sum of a list; of none, zero of this dimension. */
export const total = (of: Term[], dimension: Dimension): Term =>
  of.length === 0 ? number(0, dimension) : of.reduce((a, b) => a.plus(b))
export const squareRoot = (of: Term): Term => new Term({ op: 'call', name: 'sqrt', of }, root(of.dimension))
export const magnitude = (of: Term): Term => new Term({ op: 'call', name: 'abs', of }, of.dimension)
const ofNumber = (name: Call, of: Term): Term => {
  demand(of.dimension, plain, name)
  return new Term({ op: 'call', name, of }, plain)
}
export const logarithm = (of: Term): Term => ofNumber('ln', of)
export const exponential = (of: Term): Term => ofNumber('exp', of)
/** To the nearest whole number. */
export const rounded = (of: Term): Term => ofNumber('round', of)
export const powerOfTwo = (of: Term): Term => ofNumber('exp2', of)
/**
 * A curve of a sheet, read at a value. `dimension`: of what is read. `band`: where between its least (−1) and greatest
 * (1) line the specimen lies.
 */
export const readAt = (
  name: string,
  curve: Curve,
  at: Term,
  dimension: Dimension,
  band: Term = number(0),
): Term => new Term({ op: 'curve', name, curve, at, band }, dimension)

/**
 * The current through a resistance and whatever drops a voltage by a curve over that current, all in series across a
 * voltage: I = (V − ΣU(I)) / R, nothing where the voltage is not enough. Curves never fall as the current grows.
 */
export const seriesCurrent = (
  voltage: Term,
  resistance: Term | undefined,
  of: { name: string; curve: Curve; band: Term }[],
): Term => {
  const ohm = quotient(voltage.dimension, ampere)
  const R = resistance ?? number(0, ohm)
  demand(R.dimension, ohm, 'a resistance in series')
  return new Term({ op: 'series', voltage, resistance: R, of }, ampere)
}

/** On the line of one specimen: y of a point. */
const on = ([, min, typ, max]: CurvePoint, band: number): number =>
  band < 0 ? typ + band * (typ - min) : typ + band * (max - typ)

interface Line {
  /** Where the straight piece would meet x = 0, and how steep it is. */
  start: number
  slope: number
}
/** Which straight piece x is on, by its upper point; the end ones go on beyond. */
const pieceOf = (points: readonly CurvePoint[], x: number): number => {
  let k = 1
  while (k < points.length - 1 && points[k]![0] < x) k++
  return Math.min(k, points.length - 1)
}
/** The straight piece of a specimen’s curve at x. */
const pieceAt = ({ points }: Curve, band: number, x: number): Line => {
  const k = pieceOf(points, x)
  const [a, b] = [points[Math.max(0, k - 1)]!, points[k]!]
  const slope = b[0] === a[0] ? 0 : (on(b, band) - on(a, band)) / (b[0] - a[0])
  return { start: on(a, band) - slope * a[0], slope }
}
const clamped = (points: readonly CurvePoint[], x: number) =>
  Math.min(Math.max(x, points[0]![0]), points.at(-1)![0])
const curveAt = (curve: Curve, band: number, at: number): number => {
  const { points, held } = curve
  const x = held ? clamped(points, at) : at
  const k = pieceOf(points, x)
  const [a, b] = [points[Math.max(0, k - 1)]!, points[k]!]
  const y = on(a, band)
  return b[0] === a[0] ? y : y + ((on(b, band) - y) / (b[0] - a[0])) * (x - a[0])
}

/** Of all curves in a row. */
const piecesAt = (of: { curve: Curve }[], bands: readonly number[], current: number): Line => {
  const pieces = of.map(({ curve }, k) => pieceAt(curve, bands[k]!, current))
  return {
    start: pieces.reduce((sum, p) => sum + p.start, 0),
    slope: pieces.reduce((sum, p) => sum + p.slope, 0),
  }
}
const knownKnees = new WeakMap<object, number[]>()
/** Where one of the curves bends, ascending. */
const kneesOf = (of: { curve: Curve }[]): number[] => {
  const known =
    knownKnees.get(of) ??
    [...new Set(of.flatMap(({ curve }) => curve.points.map(([x]) => x)))].sort((a, b) => a - b)
  knownKnees.set(of, known)
  return known
}
/** What is left for the resistance falls as the current grows: piece by piece until the current lies in its own. */
const currentThrough = (
  voltage: number,
  resistance: number,
  of: { curve: Curve }[],
  bands: readonly number[],
): number => {
  const knees = kneesOf(of)
  for (let k = 0; k <= knees.length; k++) {
    const knee = knees[k] ?? Infinity
    const inside = knee === Infinity ? (knees[k - 1] ?? 0) + 1 : (knee + (knees[k - 1] ?? knee)) / 2
    const { start, slope } = piecesAt(of, bands, inside)
    const current = Math.max(0, (voltage - start) / (resistance + slope))
    if (current <= knee) return current
  }
  return 0
}

const calls: Record<Call, (x: number) => number> = {
  sqrt: Math.sqrt,
  ln: Math.log,
  exp: Math.exp,
  exp2: (x) => 2 ** x,
  abs: Math.abs,
  round: Math.round,
}

/** The value with these inputs, by index. */
export const valueOf = ({ node }: Term, at: readonly number[]): number => {
  switch (node.op) {
    case 'input':
      return at[node.index]!
    case 'number':
      return node.value
    case 'add':
      return valueOf(node.a, at) + node.sign * valueOf(node.b, at)
    case 'multiply':
      return valueOf(node.a, at) * valueOf(node.b, at)
    case 'divide':
      return valueOf(node.a, at) / valueOf(node.b, at)
    case 'min':
      return Math.min(...node.of.map((t) => valueOf(t, at)))
    case 'max':
      return Math.max(...node.of.map((t) => valueOf(t, at)))
    case 'parallel':
      return 1 / node.of.reduce((sum, t) => sum + 1 / valueOf(t, at), 0)
    case 'call':
      return calls[node.name](valueOf(node.of, at))
    case 'curve':
      return curveAt(node.curve, valueOf(node.band, at), valueOf(node.at, at))
    case 'series':
      return currentThrough(
        valueOf(node.voltage, at),
        valueOf(node.resistance, at),
        node.of,
        node.of.map(({ band }) => valueOf(band, at)),
      )
  }
}

/** What it can be, and by how much it changes with each input, while the inputs are anywhere in theirs. */
export interface Spread {
  value: Interval
  /** By index of the input; a hole where it doesn’t depend on it. */
  slopes: Slopes
}
type Slopes = readonly (Interval | undefined)[]

const none: Slopes = []

/** How something changes that changes with `of` by `slope`. */
const through = (slope: Interval, of: Slopes): Slopes => {
  if (of.length === 0 || slope === I.one) return of
  return of.map((s) => s && I.times(slope, s))
}
const both = (a: Slopes, b: Slopes): Slopes => {
  if (a.length === 0) return b
  if (b.length === 0) return a
  const [long, short] = a.length >= b.length ? [a, b] : [b, a]
  return long.map((s, k) => {
    const other = short[k]
    return s && other ? I.plus(s, other) : (s ?? other)
  })
}

const spreadOfCall = (name: Call, of: Spread): Spread => {
  const { lo, hi } = of.value
  const f = calls[name]
  if (name === 'abs') {
    const value = lo >= 0 ? of.value : hi <= 0 ? { lo: -hi, hi: -lo } : { lo: 0, hi: Math.max(-lo, hi) }
    return { value, slopes: through(lo >= 0 ? I.one : hi <= 0 ? I.minusOne : { lo: -1, hi: 1 }, of.slopes) }
  }
  const slope: Interval =
    name === 'sqrt'
      ? { lo: 1 / (2 * Math.sqrt(hi)), hi: 1 / (2 * Math.sqrt(Math.max(lo, 0))) }
      : name === 'round'
        ? { lo: 0, hi: Infinity }
        : name === 'ln'
          ? I.over(I.one, of.value)
          : I.rising((x) => f(x) * (name === 'exp2' ? Math.LN2 : 1), of.value)
  return { value: I.rising(f, of.value), slopes: through(slope, of.slopes) }
}

const spreadOfChoice = (op: 'min' | 'max', of: Spread[]): Spread => {
  const pick = op === 'min' ? Math.min : Math.max
  const value = { lo: pick(...of.map((s) => s.value.lo)), hi: pick(...of.map((s) => s.value.hi)) }
  // Those that can be the one that counts.
  const can = of.filter((s) => (op === 'min' ? s.value.lo <= value.hi : s.value.hi >= value.lo))
  const count = Math.max(...can.map((s) => s.slopes.length))
  const slopes = Array.from({ length: count }, (_, k) =>
    can.some((s) => s.slopes[k]) ? can.map((s) => s.slopes[k] ?? I.zero).reduce(I.hull) : undefined,
  )
  return { value, slopes }
}

const spreadOfCurve = (curve: Curve, of: Spread, band: Spread): Spread => {
  const { lo, hi } = of.value
  const { points, held } = curve
  const last = points.length - 1
  let value: Interval | undefined
  let [least, most] = [Infinity, -Infinity]
  const along = (slope: number) => {
    least = Math.min(least, slope)
    most = Math.max(most, slope)
  }
  const reach = (y: number) => {
    value = value ? { lo: Math.min(value.lo, y), hi: Math.max(value.hi, y) } : I.point(y)
  }
  const { lo: low, hi: high } = band.value
  for (const b of low < 0 && high > 0 ? [low, high, 0] : [low, high]) {
    reach(curveAt(curve, b, lo))
    reach(curveAt(curve, b, hi))
    for (const p of points) if (p[0] > lo && p[0] < hi) reach(on(p, b))
    for (let n = 1; n <= last; n++) {
      const [p, q] = [points[n - 1]!, points[n]!]
      const reaches = (n === 1 || p[0] <= hi) && (n === last || q[0] >= lo)
      if (reaches && q[0] > p[0]) along((on(q, b) - on(p, b)) / (q[0] - p[0]))
    }
  }
  if (least > most || (held && (lo < points[0]![0] || hi > points[last]![0]))) along(0)
  // From line to line: by how far they are apart, here at least and at most.
  let [near, far] = [Infinity, -Infinity]
  const apart = (x: number) => {
    const middle = curveAt(curve, 0, x)
    const [below, above] = [middle - curveAt(curve, -1, x), curveAt(curve, 1, x) - middle]
    near = Math.min(near, below, above)
    far = Math.max(far, below, above)
  }
  apart(lo)
  apart(hi)
  for (const [x] of points) if (x > lo && x < hi) apart(x)
  return {
    value: value!,
    slopes: both(through({ lo: least, hi: most }, of.slopes), through({ lo: near, hi: far }, band.slopes)),
  }
}

/** `at`: what each input can be, by index; `own`: its slope, that of an input by itself. */
const spreadOfSeries = (of: { curve: Curve }[], V: Spread, R: Spread, bands: Spread[]): Spread => {
  const least = currentThrough(
    V.value.lo,
    R.value.hi,
    of,
    bands.map((b) => b.value.hi),
  )
  const most = currentThrough(
    V.value.hi,
    R.value.lo,
    of,
    bands.map((b) => b.value.lo),
  )
  const value = { lo: least, hi: most }
  // dI/dV = 1 / (R + dU/dI); none where nothing flows.
  const along = of.map(({ curve }, k) =>
    spreadOfCurve(curve, { value, slopes: ownSlope(0) }, { ...bands[k]!, slopes: none }),
  )
  const steep = along.map((a) => a.slopes[0] ?? I.zero).reduce(I.plus, R.value)
  const inverse = I.over(I.one, steep)
  const byVoltage = least > 0 ? inverse : { lo: 0, hi: inverse.hi }
  const falls = I.times(I.minusOne, byVoltage)
  return {
    value,
    slopes: bands
      .map((band, k) => {
        const across = spreadOfCurve(
          of[k]!.curve,
          { value, slopes: none },
          { value: band.value, slopes: ownSlope(0) },
        )
        return through(I.times(falls, across.slopes[0] ?? I.zero), band.slopes)
      })
      .reduce(both, both(through(byVoltage, V.slopes), through(I.times(falls, value), R.slopes))),
  }
}

export const spreadOf = ({ node }: Term, at: readonly Interval[], own: readonly Slopes[]): Spread => {
  switch (node.op) {
    case 'input':
      return { value: at[node.index]!, slopes: own[node.index]! }
    case 'number':
      return { value: I.point(node.value), slopes: none }
    case 'add': {
      const [a, b] = [spreadOf(node.a, at, own), spreadOf(node.b, at, own)]
      return node.sign > 0
        ? { value: I.plus(a.value, b.value), slopes: both(a.slopes, b.slopes) }
        : { value: I.minus(a.value, b.value), slopes: both(a.slopes, through(I.minusOne, b.slopes)) }
    }
    case 'multiply': {
      const [a, b] = [spreadOf(node.a, at, own), spreadOf(node.b, at, own)]
      return {
        value: I.times(a.value, b.value),
        slopes: both(through(b.value, a.slopes), through(a.value, b.slopes)),
      }
    }
    case 'divide': {
      const [a, b] = [spreadOf(node.a, at, own), spreadOf(node.b, at, own)]
      const inverse = I.over(I.one, b.value)
      const value = I.times(a.value, inverse)
      const down =
        b.slopes.length === 0 ? none : through(I.times(value, I.times(I.minusOne, inverse)), b.slopes)
      return { value, slopes: both(through(inverse, a.slopes), down) }
    }
    case 'min':
    case 'max':
      return spreadOfChoice(
        node.op,
        node.of.map((t) => spreadOf(t, at, own)),
      )
    case 'parallel': {
      const of = node.of.map((t) => spreadOf(t, at, own))
      const sum = of.map((s) => I.over(I.one, s.value)).reduce(I.plus)
      const value = I.over(I.one, sum)
      // d(1/Σ 1/R) / dR = (value / R)²
      const slopes = of.map((s) => {
        const share = I.over(value, s.value)
        return through(I.times(share, share), s.slopes)
      })
      return { value, slopes: slopes.reduce(both) }
    }
    case 'call':
      return spreadOfCall(node.name, spreadOf(node.of, at, own))
    case 'curve':
      return spreadOfCurve(node.curve, spreadOf(node.at, at, own), spreadOf(node.band, at, own))
    case 'series':
      return spreadOfSeries(
        node.of,
        spreadOf(node.voltage, at, own),
        spreadOf(node.resistance, at, own),
        node.of.map(({ band }) => spreadOf(band, at, own)),
      )
  }
}

/** The curves in it that are over an input by itself, with the input’s index. */
export const curvesOver = ({ node }: Term): { of: number; curve: Curve }[] => {
  switch (node.op) {
    case 'input':
    case 'number':
      return []
    case 'add':
    case 'multiply':
    case 'divide':
      return [...curvesOver(node.a), ...curvesOver(node.b)]
    case 'min':
    case 'max':
    case 'parallel':
      return node.of.flatMap(curvesOver)
    case 'call':
      return curvesOver(node.of)
    case 'curve':
      return node.at.node.op === 'input'
        ? [{ of: node.at.node.index, curve: node.curve }]
        : curvesOver(node.at)
    case 'series':
      return [...curvesOver(node.voltage), ...curvesOver(node.resistance)]
  }
}

const unitSlopes: Slopes[] = []
/** The slope of an input by itself. */
export const ownSlope = (index: number): Slopes =>
  (unitSlopes[index] ??= [...new Array<undefined>(index).fill(undefined), I.one])
/** Of one that doesn’t vary. */
export const noSlope = none

interface Style {
  input: (symbol: string, index: number) => string
  number: (value: number) => string
  minus: string
  times: string
  call: Record<Call, (of: string) => string>
  parallel: (of: string[]) => string
  curve: (node: Node & { op: 'curve' }, at: string) => string
  series: (node: Node & { op: 'series' }, voltage: string, resistance: string) => string
}

/** How tightly it binds: 1 a sum, 2 a product, 3 anything else. */
const bindingOf = ({ node }: Term): 1 | 2 | 3 =>
  node.op === 'add' ? 1 : ['multiply', 'divide', 'parallel', 'series'].includes(node.op) ? 2 : 3

const written = (term: Term, style: Style): string => {
  const { node } = term
  const inside = (t: Term, binding: number) => {
    const text = written(t, style)
    return bindingOf(t) < binding ? `(${text})` : text
  }
  switch (node.op) {
    case 'input':
      return style.input(node.symbol, node.index)
    case 'number':
      return style.number(node.value)
    case 'add':
      return `${inside(node.a, 1)} ${node.sign > 0 ? '+' : style.minus} ${inside(node.b, node.sign > 0 ? 1 : 2)}`
    case 'multiply':
      return `${inside(node.a, 2)} ${style.times} ${inside(node.b, node.b.node.op === 'divide' ? 3 : 2)}`
    case 'divide':
      return `${inside(node.a, 2)} / ${inside(node.b, 3)}`
    case 'min':
    case 'max':
      return `${node.op}(${node.of.map((t) => written(t, style)).join(', ')})`
    case 'parallel':
      return style.parallel(node.of.map((t) => inside(t, 3)))
    case 'call':
      return style.call[node.name](written(node.of, style))
    case 'curve':
      return style.curve(node, written(node.at, style))
    case 'series':
      return style.series(node, inside(node.voltage, 1), inside(node.resistance, 1))
  }
}

/** Digits enough for the value, and none that only rounding made. */
const digits = (value: number): string => String(Number(value.toPrecision(12)))

const symbols: Style = {
  input: (symbol) => symbol,
  number: digits,
  minus: '−',
  times: '·',
  call: {
    sqrt: (x) => `√(${x})`,
    ln: (x) => `ln(${x})`,
    exp: (x) => `exp(${x})`,
    exp2: (x) => (/^\w+$/.test(x) ? `2^${x}` : `2^(${x})`),
    abs: (x) => `|${x}|`,
    round: (x) => `round(${x})`,
  },
  parallel: (of) => of.join(' ∥ '),
  curve: ({ name }, at) => `${name}(${at})`,
  series: ({ of, resistance }, v, r) => {
    const left = of.length > 0 ? `(${[v, ...of.map(({ name }) => `${name}(I)`)].join(' − ')})` : v
    return `${left} / ${bindingOf(resistance) < 3 ? `(${r})` : r}`
  },
}

/** As it is printed, in the field's symbols. */
export const formulaOf = (term: Term): string => written(term, symbols)

/** As a line that a calculator evaluates: `(5 - 2) / 0.01`. */
export const lineOf = (term: Term, at: readonly number[]): string => {
  const plainNumber = (value: number) => (value < 0 ? `(${digits(value)})` : digits(value))
  return written(term, {
    input: (_, index) => plainNumber(at[index]!),
    number: plainNumber,
    minus: '-',
    times: '*',
    call: {
      sqrt: (x) => `sqrt(${x})`,
      ln: (x) => `ln(${x})`,
      exp: (x) => `exp(${x})`,
      exp2: (x) => `2^(${x})`,
      abs: (x) => `abs(${x})`,
      round: (x) => `round(${x})`,
    },
    parallel: (of) => `1 / (${of.map((x) => `1 / ${x}`).join(' + ')})`,
    curve: ({ curve, band, at: x }, text) => {
      const value = valueOf(x, at)
      const { points, held } = curve
      const end = held ? clamped(points, value) : value
      const own = valueOf(band, at)
      const { slope } = pieceAt(curve, own, end)
      const from = points[Math.max(0, pieceOf(points, end) - 1)]!
      const read = end === value ? `(${text})` : plainNumber(end)
      return `(${plainNumber(on(from, own))} + ${plainNumber(slope)} * (${read} - ${plainNumber(from[0])}))`
    },
    series: (node, v, r) => {
      const bands = node.of.map(({ band }) => valueOf(band, at))
      const current = currentThrough(valueOf(node.voltage, at), valueOf(node.resistance, at), node.of, bands)
      const { start, slope } = piecesAt(node.of, bands, current)
      return `max(0, (${v} - ${plainNumber(start)}) / (${r} + ${plainNumber(slope)}))`
    },
  })
}
