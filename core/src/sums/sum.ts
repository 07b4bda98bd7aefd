// A number and its formula as one thing: an expression over named inputs gives the value at every corner, the corner each
// extreme belongs to, the printed formula, and the line that a calculator evaluates to it.

import type { Corner, Worked, WorkedInput } from '../findings'
import type { Range, Unit } from '../quantity'
import { dimensionOf, dimensionText, sameDimension, scaleOf } from './dimension'
import { type Interval, plus, times } from './interval'
import { formulaOf, input, lineOf, type Spread, spreadOf, type Term, UnitError, valueOf } from './term'

/** What a sum is made of: stated quantities, and other sums. */
export type SumInput = Worked | WorkedInput

export interface SumMeta {
  label: string
  symbol: string
  unit: Unit
  note?: string
}

interface Made {
  term: Term
  inputs: [symbol: string, of: SumInput][]
  bySymbol: Map<string, SumInput>
}
const made = new WeakMap<Worked, Made>()

const isSum = (of: SumInput): of is Worked => 'formula' in of
/** The sum behind an input, where it is one and not a variable of its own. */
const behind = (of: SumInput): Worked | undefined =>
  isSum(of) ? of : of.origin.kind === 'worked' && of.variable === undefined ? of.origin.of : undefined

/** A stated quantity that varies. Each is one variable, however often and however deep it occurs. */
type Leaf = string
const numbers = new WeakMap<object, number>()
let count = 0
const numberOf = (of: object): number => {
  const known = numbers.get(of) ?? count++
  numbers.set(of, known)
  return known
}
const leafOf = (of: SumInput): Leaf => {
  if (isSum(of)) return `sum ${numberOf(of)}`
  const { origin, variable, value } = of
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
  variable: `sum ${numberOf(of)}`,
})

const leavesKnown = new WeakMap<Worked, Map<Leaf, Range>>()
const leavesOf = (of: Worked): Map<Leaf, Range> => {
  const before = leavesKnown.get(of)
  if (before) return before
  const range = new Map<Leaf, Range>()
  for (const [, i] of made.get(of)!.inputs) {
    const sum = behind(i)
    if (sum && made.has(sum)) {
      for (const [k, v] of leavesOf(sum)) range.set(k, v)
    } else if (i.value.min < i.value.max) range.set(leafOf(sum ?? i), i.value)
  }
  leavesKnown.set(of, range)
  return range
}

/** In SI, with each leaf where `at` has it. */
const evaluate = (of: Worked, at: ReadonlyMap<Leaf, number>, memo: Map<Worked, number>): number => {
  const before = memo.get(of)
  if (before !== undefined) return before
  const { term, bySymbol } = made.get(of)!
  const value = valueOf(term, (symbol) => inputAt(bySymbol.get(symbol)!, at, memo))
  memo.set(of, value)
  return value
}
const inputAt = (i: SumInput, at: ReadonlyMap<Leaf, number>, memo: Map<Worked, number>): number => {
  const sum = behind(i)
  if (sum && made.has(sum)) return evaluate(sum, at, memo)
  return (at.get(leafOf(sum ?? i)) ?? i.value.typ) * scaleOf(i.unit)
}

type Box = ReadonlyMap<Leaf, Interval>

/** What a sum can be with its leaves anywhere in a box, and how it changes with each of them. */
const spreadIn = (of: Worked, box: Box, memo: Map<Worked, Spread>): Spread => {
  const before = memo.get(of)
  if (before) return before
  const { term, inputs } = made.get(of)!
  const spreads = new Map<string, Spread>()
  for (const [symbol, i] of inputs) {
    const sum = behind(i)
    if (sum && made.has(sum)) {
      spreads.set(symbol, spreadIn(sum, box, memo))
      continue
    }
    const leaf = leafOf(sum ?? i)
    const scale = scaleOf(i.unit)
    const interval = box.get(leaf)
    spreads.set(
      symbol,
      interval
        ? {
            value: { lo: interval.lo * scale, hi: interval.hi * scale },
            slopes: new Map([[leaf, { lo: scale, hi: scale }]]),
          }
        : { value: { lo: i.value.typ * scale, hi: i.value.typ * scale }, slopes: new Map() },
    )
  }
  const { value, slopes } = spreadOf(term, (symbol) => spreads.get(symbol)!.value)
  const own = new Map<string, Interval>()
  for (const [symbol, slope] of slopes)
    for (const [leaf, s] of spreads.get(symbol)!.slopes) {
      const by = times(slope, s)
      const known = own.get(leaf)
      own.set(leaf, known ? plus(known, by) : by)
    }
  const spread = { value, slopes: own }
  memo.set(of, spread)
  return spread
}
const fullKnown = new WeakMap<Worked, Spread>()
/** With every leaf anywhere in its range. */
const fullSpread = (of: Worked): Spread => {
  const before = fullKnown.get(of)
  if (before) return before
  const memo = new Map<Worked, Spread>()
  for (const [, i] of made.get(of)!.inputs) {
    const sum = behind(i)
    if (sum && made.has(sum)) memo.set(sum, fullSpread(sum))
  }
  const box = new Map([...leavesOf(of)].map(([leaf, r]) => [leaf, { lo: r.min, hi: r.max }]))
  const spread = spreadIn(of, box, memo)
  fullKnown.set(of, spread)
  return spread
}

/** How many boxes are looked at, by how many slopes have no one sign: with many, halving boxes leads nowhere. */
const boxesFor = (unsure: number): number => (unsure <= 4 ? 1000 : unsure <= 8 ? 200 : 0)

/** As near to the true extreme as a search goes: a share of it. */
const near = 1e-6

/** From a point to better ones, every leaf at the end that its slope there points to, until nothing changes. */
const climb = (
  of: Worked,
  ranges: Map<Leaf, Range>,
  sign: 1 | -1,
  start: (r: Range) => number,
): { at: Map<Leaf, number>; value: number } => {
  let at = new Map([...ranges].map(([leaf, r]) => [leaf, start(r)]))
  let value = sign * evaluate(of, at, new Map())
  for (let n = 0; n < 6; n++) {
    const here = new Map([...at].map(([leaf, x]) => [leaf, { lo: x, hi: x }]))
    const { slopes } = spreadIn(of, here, new Map())
    const next = new Map(at)
    for (const [leaf, { min, max }] of ranges) {
      const { lo, hi } = slopes.get(leaf) ?? { lo: 0, hi: 0 }
      if (sign * (lo + hi) !== 0) next.set(leaf, sign * (lo + hi) > 0 ? max : min)
    }
    const better = sign * evaluate(of, next, new Map())
    if (!(better > value)) break
    ;[at, value] = [next, better]
  }
  return { at, value }
}

/**
 * Where the sum is greatest (`sign` 1) or least (−1), where slopes have no one sign: by climbing from the middle and the
 * ends, then by halving the box until slopes have a sign or the bound says that nothing better is left.
 */
const extreme = (
  of: Worked,
  ranges: Map<Leaf, Range>,
  sign: 1 | -1,
  boxes: number,
): { at: Map<Leaf, number>; proven: boolean } => {
  const starts = [(r: Range) => r.typ, (r: Range) => r.min, (r: Range) => r.max]
  const climbed = starts.map((start) => climb(of, ranges, sign, start))
  let { at: best, value: reached } = climbed.reduce((a, b) => (b.value > a.value ? b : a))
  const open: { box: Map<Leaf, Interval>; bound: number }[] = [
    { box: new Map([...ranges].map(([leaf, r]) => [leaf, { lo: r.min, hi: r.max }])), bound: Infinity },
  ]
  for (let n = 0; n < boxes && open.length > 0; n++) {
    open.sort((a, b) => b.bound - a.bound)
    const { box, bound } = open.shift()!
    if (bound <= reached + near * Math.abs(reached)) return { at: best, proven: true }
    const { slopes } = n === 0 ? fullSpread(of) : spreadIn(of, box, new Map())
    const at = new Map<Leaf, number>()
    let unsure: Leaf | undefined
    let widest = 0
    for (const [leaf, { lo, hi }] of box) {
      const slope = slopes.get(leaf) ?? { lo: 0, hi: 0 }
      const rises = sign * slope.lo >= 0 && sign * slope.hi >= 0
      const falls = sign * slope.lo <= 0 && sign * slope.hi <= 0
      at.set(leaf, rises ? hi : falls ? lo : (lo + hi) / 2)
      if (rises || falls || hi <= lo) continue
      const { min, max } = ranges.get(leaf)!
      const width = (hi - lo) / (max - min)
      if (width > widest) [unsure, widest] = [leaf, width]
    }
    const value = sign * evaluate(of, at, new Map())
    if (!(value <= reached)) [best, reached] = [at, value]
    if (unsure === undefined || widest < 1e-9) continue
    // Ends of what is unsure are worth a look: an extreme is most often at one.
    const { lo, hi } = box.get(unsure)!
    for (const end of [lo, hi]) {
      const there = new Map(at).set(unsure, end)
      const v = sign * evaluate(of, there, new Map())
      if (v > reached) [best, reached] = [there, v]
    }
    const middle = (lo + hi) / 2
    for (const half of [
      { lo, hi: middle },
      { lo: middle, hi },
    ]) {
      const part = new Map(box)
      for (const [leaf, x] of at) {
        const slope = slopes.get(leaf) ?? { lo: 0, hi: 0 }
        if (slope.lo * slope.hi >= 0) part.set(leaf, { lo: x, hi: x })
      }
      part.set(unsure, half)
      const { value: v } = spreadIn(of, part, new Map())
      open.push({ box: part, bound: sign > 0 ? v.hi : -v.lo })
    }
  }
  return { at: best, proven: open.length === 0 }
}

/** “lowest V_in, highest V_out”: the ends at which the inputs that vary stand. */
const whereText = (inputs: Made['inputs'], at: number[]): string =>
  inputs
    .flatMap(([symbol, { value, ...of }], k) => {
      const span = value.max - value.min
      if (!(span > 0)) return []
      const name = 'curve' in of && of.curve ? `line of ${symbol}` : symbol
      const isAt = (end: number) => Math.abs(at[k]! - end) <= 1e-9 * span
      return [`${isAt(value.max) ? 'highest' : isAt(value.min) ? 'lowest' : 'a middle'} ${name}`]
    })
    .join(', ')

const cornerAt = (of: Worked, at: ReadonlyMap<Leaf, number>, named: boolean): Corner => {
  const { term, inputs } = made.get(of)!
  const memo = new Map<Worked, number>()
  const si = new Map(inputs.map(([symbol, i]) => [symbol, inputAt(i, at, memo)]))
  const line = lineOf(term, (symbol) => si.get(symbol)!)
  const scale = scaleOf(of.unit)
  const own = inputs.map(([symbol, i]) => si.get(symbol)! / scaleOf(i.unit))
  return {
    at: own,
    line: scale === 1 ? line : `(${line}) / ${scale}`,
    where: named ? whereText(inputs, own) : '',
  }
}

interface Ends {
  at: Record<keyof Range, ReadonlyMap<Leaf, number>>
  proven: boolean
}

/** Where what varies stands for each of the three values: by the sign of each slope, by search where one has none. */
const endsOf = (of: Worked): Ends => {
  const range = leavesOf(of)
  const { slopes } = fullSpread(of)
  const [min, typ, max] = [new Map<Leaf, number>(), new Map<Leaf, number>(), new Map<Leaf, number>()]
  let unsure = 0
  for (const [leaf, r] of range) {
    const slope = slopes.get(leaf)
    const [low, high] = !slope || slope.lo >= 0 ? [r.min, r.max] : [r.max, r.min]
    if (slope && slope.lo < 0 && slope.hi > 0) unsure++
    min.set(leaf, low)
    typ.set(leaf, r.typ)
    max.set(leaf, high)
  }
  if (unsure === 0) return { at: { min, typ, max }, proven: true }
  const [least, greatest] = ([-1, 1] as const).map((sign) => extreme(of, range, sign, boxesFor(unsure)))
  return { at: { min: least!.at, typ, max: greatest!.at }, proven: least!.proven && greatest!.proven }
}

/** Worked out when it is first asked for, and then a plain property. */
const lazily = <K extends keyof Worked>(of: Worked, key: K, work: () => Worked[K]): void => {
  let known: Worked[K] | undefined
  Object.defineProperty(of, key, { enumerable: true, configurable: true, get: () => (known ??= work()) })
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
  const terms = Object.fromEntries(list.map(([symbol, i]) => [symbol, input(symbol, dimensionOf(i.unit))]))
  const term = build(terms as Record<K, Term>)
  if (!sameDimension(term.dimension, dimensionOf(meta.unit)))
    throw new UnitError(
      `${meta.label}: ${formulaOf(term)} is in ${dimensionText(term.dimension)}, not in ${meta.unit || 'plain numbers'}`,
    )
  const worked: Worked = {
    label: meta.label,
    symbol: meta.symbol,
    value: { min: 0, typ: 0, max: 0 },
    unit: meta.unit,
    formula: '',
    inputs: list.map(([symbol, i]) =>
      isSum(i)
        ? { symbol, label: i.label, value: i.value, unit: i.unit, origin: { kind: 'worked', of: i } }
        : { ...i, symbol },
    ),
    ...(meta.note === undefined ? {} : { note: meta.note }),
  }
  made.set(worked, { term, inputs: list, bySymbol: new Map(list) })
  const ends = endsOf(worked)
  const scale = scaleOf(meta.unit)
  const at = (key: keyof Range) => evaluate(worked, ends.at[key], new Map()) / scale
  worked.value = { min: at('min'), typ: at('typ'), max: at('max') }
  if (!Object.values(worked.value).every(Number.isFinite))
    throw new RangeError(`${meta.label}: ${formulaOf(term)} has no finite value at every corner`)
  if (!ends.proven) worked.unproven = true
  lazily(worked, 'formula', () => formulaOf(term))
  lazily(worked, 'corners', () => {
    const corner = (key: keyof Range) => cornerAt(worked, ends.at[key], key !== 'typ')
    return { min: corner('min'), typ: corner('typ'), max: corner('max') }
  })
  return worked
}
