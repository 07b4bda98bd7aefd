// A number and its formula as one thing: an expression over named inputs gives the value at every corner, the corner each
// extreme belongs to, the printed formula, and the line that a calculator evaluates to it.

import { type Corner, fromWorked, type Worked, type WorkedInput } from '../findings'
import type { Range, Unit } from '../quantity'
import { dimensionOf, dimensionText, sameDimension, scaleOf } from './dimension'
import { type Interval, plus, point, times } from './interval'
import {
  curvesOver,
  formulaOf,
  input,
  lineOf,
  noSlope,
  ownSlope,
  spreadOf,
  type Term,
  UnitError,
  valueOf,
} from './term'

/** What a sum is made of: stated quantities, and other sums. */
export type SumInput = Worked | WorkedInput

export interface SumMeta {
  label: string
  symbol: string
  unit: Unit
  counts?: Worked['counts']
  note?: string
}

interface MadeInput {
  symbol: string
  of: SumInput
  /** What one of its unit is in SI. */
  scale: number
  /** The sum that it is, where that is one of ours and not a variable of its own. */
  sum?: Worked
  /** The stated quantity that it is, where that varies. */
  leaf?: Leaf
}
/** What is behind a number that a sum made. */
interface Made {
  id: number
  term: Term
  inputs: MadeInput[]
  leaves: Map<Leaf, Range>
  /** With every leaf anywhere in its range. */
  spread: Spread
  ends: Ends
  /** Its inputs in SI, for each of the three values. */
  si: Record<keyof Range, number[]>
  /** Of each leaf that a curve is over, once asked for. */
  bends?: ReadonlyMap<Leaf, readonly number[]>
}
/** Where each stated quantity stands. */
type At = (leaf: Leaf) => number
interface Ends {
  /** With these at their greatest it is least, where no search was needed. */
  falling: ReadonlySet<Leaf>
  /** Where a search has found the extremes. */
  found?: Record<'min' | 'max', ReadonlyMap<Leaf, number>>
  proven: boolean
}
/** What a sum can be, and how it changes with each stated quantity. */
interface Spread {
  value: Interval
  slopes: ReadonlyMap<Leaf, Interval>
}
/**
 * A number that a sum made. How it was worked out stays here: written when first asked for, and left behind where the
 * number is copied to another thread (`spelled` takes it along).
 */
class Summed implements Worked {
  declare label: string
  declare symbol: string
  declare value: Range
  declare unit: Unit
  declare counts?: Worked['counts']
  declare note?: string
  declare unproven?: true
  readonly #made: Made
  #formula?: string
  #inputs?: WorkedInput[]
  #corners?: Worked['corners']

  constructor(meta: SumMeta, made: Made) {
    this.label = meta.label
    this.symbol = meta.symbol
    this.unit = meta.unit
    if (meta.counts !== undefined) this.counts = meta.counts
    if (meta.note !== undefined) this.note = meta.note
    this.#made = made
  }
  static behind(of: SumInput): Made | undefined {
    return of instanceof Summed ? of.#made : undefined
  }
  get formula(): string {
    return (this.#formula ??= formulaOf(this.#made.term))
  }
  get inputs(): WorkedInput[] {
    return (this.#inputs ??= this.#made.inputs.map(({ symbol, of }) => ({
      ...(isSum(of) ? fromWorked(of) : of),
      symbol,
    })))
  }
  get corners(): Worked['corners'] {
    return (this.#corners ??= {
      min: cornerAt(this, 'min'),
      typ: cornerAt(this, 'typ'),
      max: cornerAt(this, 'max'),
    })
  }
  toJSON(): Worked {
    return { ...this, formula: this.formula, inputs: this.inputs, corners: this.corners }
  }
}
/** A copy in which every number carries how it was worked out, to be sent to another thread. Shared parts stay shared. */
export const spelled = <T>(of: T, done = new Map<unknown, unknown>()): T => {
  if (typeof of !== 'object' || of === null) return of
  const before = done.get(of)
  if (before !== undefined) return before as T
  const copy: unknown = Array.isArray(of) ? [] : of instanceof Map ? new Map() : {}
  done.set(of, copy)
  if (of instanceof Map) for (const [key, value] of of) (copy as typeof of).set(key, spelled(value, done))
  else
    for (const [key, value] of Object.entries(of instanceof Summed ? of.toJSON() : of))
      (copy as Record<string, unknown>)[key] = spelled(value, done)
  return copy as T
}
const madeOf = (of: SumInput): Made | undefined => Summed.behind(of)

const isSum = (of: SumInput): of is Worked => !('origin' in of)
/** The sum behind an input, where it is one and not a variable of its own. */
const behind = (of: SumInput): Worked | undefined =>
  isSum(of) ? of : of.origin.kind === 'worked' && of.variable === undefined ? of.origin.of : undefined

/** A stated quantity that varies. Each is one variable, however often and however deep it occurs. */
type Leaf = string
const numbers = new WeakMap<object, number>()
let count = 0
const numberOf = (of: SumInput): number => {
  const made = isSum(of) ? madeOf(of) : undefined
  if (made) return made.id
  const known = numbers.get(of) ?? count++
  numbers.set(of, known)
  return known
}
/** How an input says that it is a sum as one variable. */
const asWhole = 'as a whole'
const leafOf = (of: SumInput): Leaf => {
  if (isSum(of)) return `sum ${numberOf(of)}`
  const { origin, variable, value } = of
  if (variable === asWhole && origin.kind === 'worked') return `sum ${numberOf(origin.of)}`
  const place = variable ?? (origin.kind === 'part' ? `${origin.part}.${origin.field}` : undefined)
  // A narrower view of a stated quantity is another variable: it can’t be where the wider one is.
  return place === undefined ? `input ${numberOf(of)}` : `${place} ${value.min} ${value.typ} ${value.max}`
}

/**
 * A sum as one variable: what is made of it sees its range and nothing of what it is made of. For one of many parts that
 * nothing else shares, where its parts would only be carried along.
 */
export const asVariable = (of: Worked): WorkedInput => ({
  symbol: of.symbol,
  label: of.label,
  value: of.value,
  unit: of.unit,
  origin: { kind: 'worked', of },
  variable: asWhole,
})

const madeInput = (symbol: string, of: SumInput): MadeInput => {
  const sum = behind(of)
  const scale = scaleOf(of.unit)
  if (sum && madeOf(sum)) return { symbol, of, scale, sum }
  return { symbol, of, scale, leaf: of.value.min < of.value.max ? leafOf(sum ?? of) : undefined }
}

const leavesIn = (inputs: MadeInput[]): Map<Leaf, Range> => {
  const range = new Map<Leaf, Range>()
  for (const i of inputs) {
    if (i.sum) for (const [k, v] of madeOf(i.sum)!.leaves) range.set(k, v)
    else if (i.leaf !== undefined) range.set(i.leaf, i.of.value)
  }
  return range
}

/** What hangs on nothing that a search moves: each such sum is a number. */
type Known = ReadonlyMap<Worked, number>
const nothingKnown: Known = new Map()

/** In SI, with each leaf where `at` has it. */
const evaluate = (of: Worked, at: At, memo: Map<Worked, number>, known = nothingKnown): number => {
  const before = memo.get(of) ?? known.get(of)
  if (before !== undefined) return before
  const { term, inputs } = madeOf(of)!
  const value = valueOf(
    term,
    inputs.map((i) => inputAt(i, at, memo, known)),
  )
  memo.set(of, value)
  return value
}
const inputAt = (i: MadeInput, at: At, memo: Map<Worked, number>, known = nothingKnown): number =>
  i.sum ? evaluate(i.sum, at, memo, known) : (i.leaf === undefined ? i.of.value.typ : at(i.leaf)) * i.scale

/** Of the leaves that a search moves. */
type Box = ReadonlyMap<Leaf, Interval>

/** With the leaves anywhere in a box, and all others where they are settled: those have no slope. */
const spreadIn = (of: Worked, box: Box, memo: Map<Worked, Spread>, { at, known }: Settled): Spread => {
  const before = memo.get(of)
  if (before) return before
  const number = known.get(of)
  const spread =
    number === undefined
      ? spreadOver(
          madeOf(of)!,
          (leaf) => box.get(leaf) ?? at.get(leaf)!,
          (sum) => spreadIn(sum, box, memo, { at, known }),
        )
      : { value: point(number), slopes: still }
  memo.set(of, spread)
  return spread
}
const spreadOver = (
  { term, inputs }: Pick<Made, 'term' | 'inputs'>,
  /** A number where it stands still, and has no slope. */
  within: (leaf: Leaf) => Interval | number,
  inside: (sum: Worked) => Spread,
): Spread => {
  const spreads = inputs.map(({ sum }) => sum && inside(sum))
  const places = inputs.map(({ leaf, of }, k) =>
    spreads[k] ? undefined : leaf === undefined ? of.value.typ : within(leaf),
  )
  const values = inputs.map(({ scale }, k): Interval => {
    const spread = spreads[k]
    if (spread) return spread.value
    const place = places[k]!
    return typeof place === 'number'
      ? point(place * scale)
      : scale === 1
        ? place
        : { lo: place.lo * scale, hi: place.hi * scale }
  })
  const { value, slopes: own } = spreadOf(
    term,
    values,
    inputs.map((_, k) => {
      const spread = spreads[k]
      return (spread ? spread.slopes.size > 0 : typeof places[k] !== 'number') ? ownSlope(k) : noSlope
    }),
  )
  const slopes = new Map<Leaf, Interval>()
  const add = (leaf: Leaf, slope: Interval) => {
    const known = slopes.get(leaf)
    slopes.set(leaf, known ? plus(known, slope) : slope)
  }
  for (const [k, { leaf, scale }] of inputs.entries()) {
    const slope = own[k]
    if (!slope) continue
    const spread = spreads[k]
    if (spread) for (const [below, s] of spread.slopes) add(below, times(slope, s))
    else add(leaf!, scale === 1 ? slope : times(slope, { lo: scale, hi: scale }))
  }
  return { value, slopes }
}

/** The same where nothing varies. */
const atOne = (term: Term, inputs: MadeInput[]): Spread => {
  const value = valueOf(
    term,
    inputs.map(({ of, scale }) => of.value.typ * scale),
  )
  return { value: { lo: value, hi: value }, slopes: still }
}
const still: ReadonlyMap<Leaf, Interval> = new Map()

/** Where a search begins, and how many boxes it looks at. */
interface Effort {
  boxes: number
  starts: readonly (keyof Range)[]
}
/** By how many slopes have no one sign: of few, halving boxes gets there by itself; of many it leads nowhere. */
const effortFor = (unsure: number): Effort =>
  unsure <= 4
    ? { boxes: 1000, starts: ['typ'] }
    : { boxes: unsure <= 8 ? 200 : 0, starts: ['typ', 'min', 'max'] }

/** As near to the true extreme as a search goes: a share of it. */
const near = 1e-6
/** A search that ends before has proven its extreme all the same if no better one is further off than this share. */
const enough = 1e-4

const from =
  (at: ReadonlyMap<Leaf, number>): At =>
  (leaf) =>
    at.get(leaf)!

/** From a point to better ones, every leaf at the end that its slope there points to, until nothing changes. */
const climb = (
  of: Worked,
  ranges: Map<Leaf, Range>,
  sign: 1 | -1,
  start: keyof Range,
  settled: Settled,
): { at: Map<Leaf, number>; value: number } => {
  let at = new Map([...ranges].map(([leaf, r]) => [leaf, r[start]]))
  const valueAt = (where: Map<Leaf, number>) =>
    sign * evaluate(of, among(where, settled), new Map(), settled.known)
  let value = valueAt(at)
  for (let n = 0; n < 6; n++) {
    const here = new Map([...at].map(([leaf, x]) => [leaf, point(x)]))
    const { slopes } = spreadIn(of, here, new Map(), settled)
    const next = new Map(at)
    for (const [leaf, { min, max }] of ranges) {
      const { lo, hi } = slopes.get(leaf) ?? { lo: 0, hi: 0 }
      if (sign * (lo + hi) !== 0) next.set(leaf, sign * (lo + hi) > 0 ? max : min)
    }
    const better = valueAt(next)
    if (!(better > value)) break
    ;[at, value] = [next, better]
  }
  return { at, value }
}

/** Where between two ends a value is greatest, if it has one hill there: by the golden section. */
const topBetween = (lo: number, hi: number, valueAt: (x: number) => number): number => {
  let [a, b] = [lo, hi]
  let [x, y] = [b - golden * (b - a), a + golden * (b - a)]
  let [u, v] = [valueAt(x), valueAt(y)]
  for (let n = 0; n < 40; n++)
    if (u > v) {
      ;[b, y, v] = [y, x, u]
      x = b - golden * (b - a)
      u = valueAt(x)
    } else {
      ;[a, x, u] = [x, y, v]
      y = a + golden * (b - a)
      v = valueAt(y)
    }
  return (a + b) / 2
}
const golden = (Math.sqrt(5) - 1) / 2

/** From a point to better ones, one leaf after the other at its better end or between, until nothing changes. */
const oneByOne = (
  of: Worked,
  ranges: Map<Leaf, Range>,
  sign: 1 | -1,
  start: At,
  settled: Settled,
): { at: Map<Leaf, number>; value: number } => {
  const at = new Map([...ranges.keys()].map((leaf) => [leaf, start(leaf)]))
  const now = () => sign * evaluate(of, among(at, settled), new Map(), settled.known)
  let value = now()
  for (let pass = 0, better = true; better && pass < 20; pass++) {
    better = false
    for (const [leaf, { min, max }] of ranges) {
      const valueAt = (x: number) => {
        at.set(leaf, x)
        return now()
      }
      const was = at.get(leaf)!
      let best = was
      for (const x of [min, max, topBetween(min, max, valueAt)]) {
        const there = valueAt(x)
        if (there > value) [value, best] = [there, x]
      }
      at.set(leaf, best)
      if (best !== was) better = true
    }
  }
  return { at, value }
}

/**
 * No value in the box is above this: the interval’s own end, or what the slopes there allow from the middle on (mean value
 * theorem), which near a hill falls with the square of the box’s width.
 */
const boundIn = (
  of: Worked,
  box: Box,
  sign: 1 | -1,
  settled: Settled,
): { bound: number; slopes: Spread['slopes'] } => {
  const { value, slopes } = spreadIn(of, box, new Map(), settled)
  const middle = new Map([...box].map(([leaf, { lo, hi }]) => [leaf, (lo + hi) / 2]))
  let reach = sign * evaluate(of, among(middle, settled), new Map(), settled.known)
  for (const [leaf, { lo, hi }] of slopes) {
    const width = box.get(leaf)!.hi - box.get(leaf)!.lo
    if (width > 0) reach += (Math.max(-lo, hi) * width) / 2
  }
  const natural = sign > 0 ? value.hi : -value.lo
  return { bound: reach < natural ? reach : natural, slopes }
}

/**
 * Where the sum is greatest (`sign` 1) or least (−1), where slopes have no one sign: by climbing from the middle and the
 * ends, then by halving the box until slopes have a sign or the bound says that nothing better is left.
 */
const extreme = (
  of: Worked,
  leaves: Map<Leaf, Range>,
  sign: 1 | -1,
  effort: Effort,
): { at: ReadonlyMap<Leaf, number>; proven: boolean } => {
  const settled = settledIn(of, leaves, sign)
  const moved = new Map([...leaves].filter(([leaf]) => !settled.at.has(leaf)))
  const { at, proven } = searched(of, moved, sign, effort, settled)
  return { at: new Map([...settled.at, ...at]), proven }
}

interface Settled {
  /** Leaves whose slope has one sign everywhere, at their better end. */
  at: ReadonlyMap<Leaf, number>
  known: Known
}
const settledIn = (of: Worked, leaves: ReadonlyMap<Leaf, Range>, sign: 1 | -1): Settled => {
  const { slopes } = madeOf(of)!.spread
  const at = new Map<Leaf, number>()
  for (const [leaf, { min, max }] of leaves) {
    const { lo, hi } = slopes.get(leaf) ?? { lo: 0, hi: 0 }
    if (lo >= 0 || hi <= 0) at.set(leaf, sign * (lo + hi) >= 0 ? max : min)
  }
  const known = new Map<Worked, number>()
  const look = (sum: Worked): void => {
    if (known.has(sum)) return
    const made = madeOf(sum)!
    if ([...made.leaves.keys()].every((leaf) => at.has(leaf)))
      known.set(sum, evaluate(sum, from(at), new Map()))
    else for (const i of made.inputs) if (i.sum) look(i.sum)
  }
  for (const i of madeOf(of)!.inputs) if (i.sum) look(i.sum)
  return { at, known }
}
/** Where it is moved to, or else settled. */
const among =
  (moved: ReadonlyMap<Leaf, number>, { at }: Settled): At =>
  (leaf) =>
    moved.get(leaf) ?? at.get(leaf)!

/** Where a curve over a leaf bends, in the leaf’s own unit: of these an extreme is most often one. */
const bendsIn = (of: Worked): ReadonlyMap<Leaf, readonly number[]> => {
  const made = madeOf(of)!
  if (made.bends) return made.bends
  const bends = new Map<Leaf, number[]>()
  const add = (leaf: Leaf, at: readonly number[]) => bends.set(leaf, [...(bends.get(leaf) ?? []), ...at])
  for (const { of: at, curve } of curvesOver(made.term)) {
    const { leaf, scale } = made.inputs[at]!
    if (leaf !== undefined)
      add(
        leaf,
        curve.points.map(([x]) => x / scale),
      )
  }
  for (const { sum } of made.inputs) if (sum) for (const [leaf, at] of bendsIn(sum)) add(leaf, at)
  return (made.bends = bends)
}
/** Where a part of a leaf’s range is best cut in two: at the bend nearest its middle, or there. */
const cutOf = (bends: readonly number[] | undefined, { lo, hi }: Interval): number => {
  const middle = (lo + hi) / 2
  const off = (x: number) => Math.abs(x - middle)
  const inside = bends?.filter((x) => x > lo && x < hi) ?? []
  return inside.length > 0 ? inside.reduce((a, b) => (off(b) < off(a) ? b : a)) : middle
}

const searched = (
  of: Worked,
  ranges: Map<Leaf, Range>,
  sign: 1 | -1,
  { boxes, starts }: Effort,
  settled: Settled,
): { at: Map<Leaf, number>; proven: boolean } => {
  const valueAt = (at: ReadonlyMap<Leaf, number>) =>
    sign * evaluate(of, among(at, settled), new Map(), settled.known)
  const climbed = starts.map((start) => climb(of, ranges, sign, start, settled))
  let { at: best, value: reached } = climbed.reduce((a, b) => (b.value > a.value ? b : a))
  const open: { box: Map<Leaf, Interval>; bound: number; slopes: Spread['slopes'] }[] = [
    {
      box: new Map([...ranges].map(([leaf, r]) => [leaf, { lo: r.min, hi: r.max }])),
      bound: Infinity,
      slopes: madeOf(of)!.spread.slopes,
    },
  ]
  const bends = bendsIn(of)
  for (let n = 0; n < boxes && open.length > 0; n++) {
    open.sort((a, b) => b.bound - a.bound)
    const { box, bound, slopes } = open.shift()!
    if (bound <= reached + near * Math.abs(reached)) return { at: best, proven: true }
    const at = new Map<Leaf, number>()
    let unsure: Leaf | undefined
    let farthest = 0
    for (const [leaf, { lo, hi }] of box) {
      const slope = slopes.get(leaf) ?? { lo: 0, hi: 0 }
      const rises = sign * slope.lo >= 0 && sign * slope.hi >= 0
      const falls = sign * slope.lo <= 0 && sign * slope.hi <= 0
      at.set(leaf, rises ? hi : falls ? lo : (lo + hi) / 2)
      if (rises || falls) continue
      const { min, max } = ranges.get(leaf)!
      const width = (hi - lo) / (max - min)
      // Halved is what can change the value most; what is as narrow as numbers go is not.
      const reach = Math.max(-slope.lo, slope.hi) * (hi - lo)
      if (width > 1e-9 && (unsure === undefined || reach > farthest)) [unsure, farthest] = [leaf, reach]
    }
    const value = valueAt(at)
    if (!(value <= reached)) [best, reached] = [at, value]
    if (unsure === undefined) continue
    // Ends of what is unsure are worth a look: an extreme is most often at one.
    const { lo, hi } = box.get(unsure)!
    const cut = cutOf(bends.get(unsure), { lo, hi })
    for (const end of [lo, hi]) {
      const there = new Map(at).set(unsure, end)
      const v = valueAt(there)
      if (v > reached) [best, reached] = [there, v]
    }
    for (const half of [
      { lo, hi: cut },
      { lo: cut, hi },
    ]) {
      const part = new Map(box)
      for (const [leaf, x] of at) {
        const slope = slopes.get(leaf) ?? { lo: 0, hi: 0 }
        if (slope.lo * slope.hi >= 0) part.set(leaf, { lo: x, hi: x })
      }
      part.set(unsure, half)
      const inside = boundIn(of, part, sign, settled)
      // What can’t be better than what is reached needs no look.
      if (!(inside.bound <= reached)) open.push({ box: part, ...inside })
    }
  }
  if (open.length === 0) return { at: best, proven: true }
  // Not there yet: at least no single quantity at its other end makes it more, from wherever one begins.
  for (const start of [
    (leaf: Leaf) => best.get(leaf)!,
    ...starts.map((start) => (leaf: Leaf) => ranges.get(leaf)![start]),
  ]) {
    const found = oneByOne(of, ranges, sign, start, settled)
    if (found.value > reached) [best, reached] = [found.at, found.value]
  }
  const above = Math.max(...open.map((o) => o.bound))
  return { at: best, proven: above <= reached + enough * Math.abs(reached) }
}

/** “the lowest V_in, the highest V_out”: the ends at which the inputs that vary stand. */
const whereText = (inputs: Made['inputs'], at: number[]): string =>
  inputs
    .flatMap(({ symbol, of }, k) => {
      const { value } = of
      const span = value.max - value.min
      if (!(span > 0)) return []
      const name = 'curve' in of && of.curve ? `line of ${symbol}` : symbol
      const isAt = (end: number) => Math.abs(at[k]! - end) <= 1e-9 * span
      return [`${isAt(value.max) ? 'the highest' : isAt(value.min) ? 'the lowest' : 'a middle'} ${name}`]
    })
    .join(', ')

const cornerAt = (of: Worked, key: keyof Range): Corner => {
  const { term, inputs, si } = madeOf(of)!
  const at = si[key].map((x, k) => x / inputs[k]!.scale)
  const line = lineOf(term, si[key])
  const scale = scaleOf(of.unit)
  return {
    at,
    line: scale === 1 ? line : `(${line}) / ${scale}`,
    where: key === 'typ' ? '' : whereText(inputs, at),
  }
}

const nothing: ReadonlySet<Leaf> = new Set()
/** Where what varies stands for each of the three values: by the sign of each slope, by search where one has none. */
const endsOf = (of: Worked): Ends => {
  const { leaves, spread } = madeOf(of)!
  let falling: Set<Leaf> | undefined
  let unsure = 0
  for (const [leaf, { lo, hi }] of spread.slopes) {
    if (lo < 0) (falling ??= new Set()).add(leaf)
    if (lo < 0 && hi > 0) unsure++
  }
  if (unsure === 0) return { falling: falling ?? nothing, proven: true }
  const [least, greatest] = ([-1, 1] as const).map((sign) => extreme(of, leaves, sign, effortFor(unsure)))
  return {
    falling: nothing,
    found: { min: least!.at, max: greatest!.at },
    proven: least!.proven && greatest!.proven,
  }
}
const standing = (leaves: ReadonlyMap<Leaf, Range>, { falling, found }: Ends, key: keyof Range): At => {
  if (key === 'typ') return (leaf) => leaves.get(leaf)!.typ
  if (found) return from(found[key])
  const other = key === 'min' ? 'max' : 'min'
  return (leaf) => leaves.get(leaf)![falling.has(leaf) ? other : key]
}

/**
 * What is known already of the sums that a sum is made of, at one of its ends: each is at its own usual value, or at its
 * own least or greatest where its leaves stand just so.
 */
const knownAt = (inputs: MadeInput[], ends: Ends, key: keyof Range): Map<Worked, number> => {
  const known = new Map<Worked, number>()
  for (const { sum, scale } of inputs) {
    if (!sum) continue
    const { leaves, ends: own } = madeOf(sum)!
    if (key === 'typ') known.set(sum, sum.value.typ * scale)
    else if (!ends.found && !own.found) {
      let [alike, opposite] = [true, true]
      for (const leaf of leaves.keys())
        if (own.falling.has(leaf) === ends.falling.has(leaf)) opposite = false
        else alike = false
      if (alike) known.set(sum, sum.value[key] * scale)
      else if (opposite) known.set(sum, sum.value[key === 'min' ? 'max' : 'min'] * scale)
    }
  }
  return known
}

/**
 * Makes a number from its formula. `inputs` by the symbols that the formula has them under. Throws UnitError when the
 * expression is not in the unit of the result, and RangeError where it has no finite value at some corner.
 */
export const sum = <K extends string>(
  meta: SumMeta,
  inputs: Record<K, SumInput>,
  build: (i: Record<K, Term>) => Term,
): Worked => {
  const list = Object.entries<SumInput>(inputs)
  const terms = Object.fromEntries(
    list.map(([symbol, i], index) => [symbol, input(symbol, dimensionOf(i.unit), index)]),
  )
  const term = build(terms as Record<K, Term>)
  if (!sameDimension(term.dimension, dimensionOf(meta.unit)))
    throw new UnitError(
      `${meta.label}: ${formulaOf(term)} is in ${dimensionText(term.dimension)}, not in ${meta.unit || 'plain numbers'}`,
    )
  const parts = list.map(([symbol, i]) => madeInput(symbol, i))
  const leaves = leavesIn(parts)
  const within = (leaf: Leaf): Interval => {
    const { min, max } = leaves.get(leaf)!
    return { lo: min, hi: max }
  }
  const fixed = leaves.size === 0
  const made = {
    id: count++,
    term,
    inputs: parts,
    leaves,
    spread: fixed
      ? atOne(term, parts)
      : spreadOver({ term, inputs: parts }, within, (of) => madeOf(of)!.spread),
  } as Made
  const worked = new Summed(meta, made)
  const ends = endsOf(worked)
  made.ends = ends
  const scale = scaleOf(meta.unit)
  const inputsAt = (key: keyof Range): number[] => {
    const known = knownAt(parts, ends, key)
    const at = standing(leaves, ends, key)
    return parts.map((i) => inputAt(i, at, known))
  }
  const usual = inputsAt('typ')
  made.si = fixed
    ? { min: usual, typ: usual, max: usual }
    : { min: inputsAt('min'), typ: usual, max: inputsAt('max') }
  const at = (key: keyof Range) => valueOf(term, made.si[key]) / scale
  const [low, typ, high] = [at('min'), at('typ'), at('max')]
  // An extreme that is the usual value is so to the last digit.
  const value = { min: Math.min(low, typ), typ, max: Math.max(high, typ) }
  worked.value = value
  if (!Number.isFinite(value.min + value.typ + value.max))
    throw new RangeError(`${meta.label}: ${formulaOf(term)} has no finite value at every corner`)
  if (!ends.proven) worked.unproven = true
  return worked
}

/** A value that is itself the result, under its own name. */
export const asStated = (label: string, symbol: string, unit: Unit, of: SumInput, note?: string): Worked =>
  sum({ label, symbol, unit, note }, { [of.symbol]: of }, (i: Record<string, Term>) => i[of.symbol]!)
