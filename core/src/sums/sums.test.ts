// Expectations from outside: by hand, by sampling the box, and by an evaluator of lines that shares nothing with the sums.

import fc from 'fast-check'
import { calculate } from '../../test/calculate'
import { deep } from '../../test/share'
import { fromDecision, type Worked, type WorkedInput, workingText } from '../findings'
import { exactly, type Range, type Unit } from '../quantity'
import {
  currentInSeries,
  exponential,
  greatest,
  least,
  logarithm,
  magnitude,
  number,
  parallel,
  powerOfTwo,
  readAt,
  rounded,
  spelled,
  squareRoot,
  sum,
  type Term,
  total,
  UnitError,
} from '.'
import { dimensionOf } from './dimension'

const given = (symbol: string, value: Range, unit: Unit, field = symbol): WorkedInput => ({
  symbol,
  label: symbol,
  value,
  unit,
  origin: { kind: 'part', part: 'p', name: 'P', field },
})
const range = (min: number, typ: number, max: number): Range => ({ min, typ, max })

// As a person writes them, and as a calculator takes them.
test.each<[string, (x: Term) => Term, string, string]>([
  ['root', squareRoot, '√(x)', 'sqrt(4)'],
  ['logarithm', logarithm, 'ln(x)', 'ln(4)'],
  ['exponential', exponential, 'exp(x)', 'exp(4)'],
  ['power of two', powerOfTwo, '2^x', '2^(4)'],
  ['power of a sum', (x) => powerOfTwo(x.plus(1)), '2^(x + 1)', '2^(4 + 1)'],
  ['magnitude', magnitude, '|x|', 'abs(4)'],
  ['rounded', rounded, 'round(x)', 'round(4)'],
  ['parallel', (x) => parallel(x, number(12)), 'x ∥ 12', '1 / (1 / 4 + 1 / 12)'],
  ['nothing', (x) => x.plus(number(0)), 'x + 0', '4 + 0'],
  ['below nothing', (x) => x.times(number(-2)), 'x · -2', '4 * (-2)'],
  ['least and greatest', (x) => least(3, greatest(x, 1)), 'min(3, max(x, 1))', 'min(3, max(4, 1))'],
])('%s: %#', (_, of, formula, line) => {
  const made = sum({ label: 'a', symbol: 'a', unit: '' }, { x: given('x', exactly(4), '') }, (i) => of(i.x))
  expect([made.formula, made.corners!.typ.line]).toEqual([formula, line])
  expect(calculate(line)).toBeCloseTo(made.value.typ, 12)
})

test('of a held curve beyond its end the line of the copy reads the end', () => {
  const I = given('I', range(1, 3, 5), 'A')
  const line: WorkedInput = { ...given('b', exactly(0), ''), curve: true }
  const points = [
    [0, 1, 1, 1],
    [2, 2, 2, 2],
  ] as const
  const made = sum({ label: 'V', symbol: 'V', unit: 'V' }, { I, b: line }, (i) =>
    readAt('V_F', { points, held: true }, i.I, dimensionOf('V'), i.b),
  )
  expect(made.value).toEqual(range(1.5, 2, 2))
  // 1 + 0.5 · (1 − 0); beyond the end the end, and not 3.
  expect(calculate(made.corners!.min.line)).toBeCloseTo(1.5, 12)
  expect(made.corners!.min.line).toContain('((1) - 0)')
  expect(made.corners!.typ.line).toContain('(2 - 0)')
  expect(made.corners!.typ.line).not.toContain('3')
})

// Each of x·y over −1 … 2 is −2 at its least and 4 at its most: more of them than can be searched through are found all the
// same, and said not to be proven.
test.each([2, 8, 12])('%d products whose factors change their sign', (pairs) => {
  const inputs = Object.fromEntries(
    Array.from({ length: pairs }, (_, k) => [`x${k}`, `y${k}`])
      .flat()
      .map((symbol) => [symbol, given(symbol, range(-1, 0.5, 2), '')]),
  )
  const made = sum({ label: 'a', symbol: 'a', unit: '' }, inputs, (i: Record<string, Term>) =>
    total(
      Array.from({ length: pairs }, (_, k) => i[`x${k}`]!.times(i[`y${k}`]!)),
      dimensionOf(''),
    ),
  )
  expect(made.value).toEqual(range(-2 * pairs, 0.25 * pairs, 4 * pairs))
  expect(made.unproven).toBe(pairs > 4 ? true : undefined)
  expect(calculate(made.corners!.min.line)).toBeCloseTo(-2 * pairs, 9)
})

// Heat as regulators make it: nothing while x is below y, and then the more the more flows. x to 10, y from 5: (10 − 5) · 10.
test('what takes part in a choice goes on taking part beyond it', () => {
  const inputs = { x: given('x', range(0, 5, 10), ''), y: given('y', range(5, 6, 8), '') }
  const meta = { label: 'a', symbol: 'a', unit: '' as const }
  const heat = sum(meta, inputs, (i) => greatest(number(0), i.x.minus(i.y)).times(i.x))
  expect(heat.value).toEqual({ min: 0, typ: 0, max: 50 })
  // the other way round: 0 where x is least, and −(8 − 0) · … at its most: y 8, x 4: −16 as x · (8 − x) is greatest at 4
  const lack = sum(meta, inputs, (i) => least(number(0), i.x.minus(i.y)).times(i.x))
  expect(lack.value.max).toBeCloseTo(0, 12)
  expect(lack.value.min).toBeCloseTo(-16, 4)
})

describe('by hand', () => {
  const V = given('V', range(4.75, 5, 5.25), 'V')
  const O = given('O', range(3.2, 3.3, 3.4), 'V')
  const I = given('I', range(0.01, 0.05, 0.1), 'A')
  // (5.25 − 3.2) · 0.1 = 0.205 W at most; (4.75 − 3.4) · 0.01 = 13.5 mW at least.
  test('heat: highest input, lowest output, most current', () => {
    const P = sum({ label: 'Heat', symbol: 'P', unit: 'W' }, { V, O, I }, (i) => i.V.minus(i.O).times(i.I))
    expect(P.value.min).toBeCloseTo(0.0135, 12)
    expect(P.value.typ).toBeCloseTo(0.085, 12)
    expect(P.value.max).toBeCloseTo(0.205, 12)
    expect(P.formula).toBe('(V − O) · I')
    expect(P.corners!.max).toEqual({
      at: [5.25, 3.2, 0.1],
      line: '(5.25 - 3.2) * 0.1',
      where: 'the highest V, the lowest O, the highest I',
    })
    expect(P.corners!.min.at).toEqual([4.75, 3.4, 0.01])
  })
  test('copied to another thread a number is what is shown; spelled, it brings its working, and what is shared stays so', () => {
    const half = sum({ label: 'Half', symbol: 'H', unit: 'V' }, { V }, (i) => i.V.over(2))
    const more = sum({ label: 'More', symbol: 'M', unit: 'V' }, { half, O }, (i) => i.half.plus(i.O))
    const shown = { label: 'Half', symbol: 'H', value: range(2.375, 2.5, 2.625), unit: 'V' }
    expect({ ...structuredClone(half) }).toEqual(shown)
    expect('formula' in structuredClone(half)).toBe(false)
    const copy = structuredClone(spelled({ list: [half, more], by: new Map([['half', half]]), none: null }))
    expect({ ...copy.list[0] }).toMatchObject({ ...shown, formula: 'V / 2', inputs: [V] })
    expect(copy.list[0]!.corners!.max.line).toBe('5.25 / 2')
    expect(copy.by.get('half')).toBe(copy.list[0])
    expect(copy.list[1]!.inputs[0]!.origin).toEqual({ kind: 'worked', of: copy.list[0] })
    expect(copy.none).toBe(null)
    expect(JSON.parse(JSON.stringify(half))).toMatchObject({ formula: 'V / 2', inputs: [{ symbol: 'V' }] })
  })
  test('a quantity that occurs twice, and twice over another sum, is the same each time', () => {
    const half = sum({ label: 'Half', symbol: 'H', unit: 'V' }, { V }, (i) => i.V.over(2))
    const rest = sum({ label: 'Rest', symbol: 'R', unit: 'V' }, { V, half }, (i) => i.V.minus(i.half))
    expect(rest.value).toEqual(range(2.375, 2.5, 2.625))
    const nothing = sum({ label: 'Nothing', symbol: 'N', unit: 'V' }, { V, half }, (i) =>
      i.half.times(2).minus(i.V),
    )
    expect(nothing.value).toEqual(exactly(0))
    // 10 − V/2 the other way round: least where V is highest, and a third sum on it again as the first
    const ten = given('T', exactly(10), 'V')
    const falls = sum({ label: 'F', symbol: 'F', unit: 'V' }, { ten, half }, (i) => i.ten.minus(i.half))
    expect(falls.value).toEqual(range(7.375, 7.5, 7.625))
    expect(falls.corners!.min).toMatchObject({ at: [10, 2.625], where: 'the highest half' })
    const back = sum({ label: 'B', symbol: 'B', unit: 'V' }, { ten, falls, V }, (i) =>
      i.ten.minus(i.falls).plus(i.V),
    )
    expect(back.value).toEqual(range(7.125, 7.5, 7.875))
    // The corner is that of the outer sum: the half as it is there, not at its own greatest.
    const share = sum({ label: 'Share', symbol: 's', unit: '' }, { half, V }, (i) => i.half.over(i.V))
    expect(share.value).toEqual(exactly(0.5))
    expect(share.corners!.max.at[0]).toBeCloseTo(share.corners!.max.at[1]! / 2, 12)
  })
  test('two of one drawer vary apart where they are told apart', () => {
    const r = range(950, 1000, 1050)
    const ratio = (a: WorkedInput, b: WorkedInput) =>
      sum({ label: 'Divider', symbol: 'k', unit: '' }, { R_1: a, R_2: b }, (i) =>
        i.R_2.over(i.R_1.plus(i.R_2)),
      ).value
    const one = { ...given('R', r, 'Ω'), variable: 'R1' }
    const two = { ...given('R', r, 'Ω'), variable: 'R2' }
    expect(ratio(one, two).max).toBeCloseTo(1050 / 2000, 12)
    expect(ratio(one, one)).toEqual(exactly(0.5))
  })
  // x · (5 − x) is greatest in the middle, 6.25, and 0 at both ends.
  test('an extreme inside the range is found', () => {
    const x = given('x', range(0, 1, 5), '')
    const hill = sum({ label: 'Hill', symbol: 'h', unit: '' }, { x }, (i) => i.x.times(i.x.times(-1).plus(5)))
    expect(hill.value.min).toBeCloseTo(0, 9)
    expect(hill.value.max).toBeCloseTo(6.25, 9)
  })
  test('where the search for an extreme ends before it is proven, that is said', () => {
    const x = given('x', range(0, 1, 5), '')
    const hill = (i: Record<string, Term>) => i.x!.times(i.x!.times(-1).plus(5))
    expect(sum({ label: 'Hill', symbol: 'h', unit: '' }, { x }, hill).unproven).toBeUndefined()
    // Nine hills in a row: more than are searched box by box.
    const many = Object.fromEntries(
      Array.from({ length: 9 }, (_, k) => [`x${k}`, given(`x${k}`, range(0, 1, 5), '')]),
    )
    const row = sum({ label: 'Row', symbol: 'r', unit: '' }, many, (i) =>
      total(
        Object.values(i).map((x) => hill({ x })),
        dimensionOf(''),
      ),
    )
    expect(row.unproven).toBe(true)
    expect(workingText(row)).toContain('not proven')
  })
  // (x + y)(5 − x − y) is 6.25 wherever x + y is 2.5, a whole ridge of it: found, and proven, since nothing better is left.
  test('a ridge is proven from both sides of it', () => {
    const [x, y] = [given('x', range(1, 1, 1.5), ''), given('y', range(1, 1, 1.5), '')]
    const ridge = sum({ label: 'Ridge', symbol: 'r', unit: '' }, { x, y }, (i) =>
      i.x.plus(i.y).times(i.x.plus(i.y).times(-1).plus(5)),
    )
    expect(ridge.value.max).toBeCloseTo(6.25, 6)
    // At 1 + 1, and at 1.5 + 1.5: 2 · 3
    expect(ridge.value.min).toBeCloseTo(6, 9)
    expect(ridge.unproven).toBeUndefined()
  })
  // What falls across a regulator, 0.2 V and 1 Ω, but never more than comes in, 3.22 V less 12 Ω; q is what it takes itself.
  // Most where the two are alike: 0.2 + I = 3.22 − 12 (I + q), at the least q: I = (3.02 − 12 · 2.2 µ) / 13 = 0.23230566 A and
  // (0.2 + I) · (I + q) = 0.43230566 · 0.23230786 = 0.10042800 W. There neither I nor q alone can be moved to better.
  test('a ridge across two quantities, one of which hardly counts, is proven', () => {
    const I = given('I', range(0.0009, 0.17, 0.388), 'A')
    const q = given('q', range(2.2e-6, 2.2e-6, 4.5e-6), 'A')
    const heat = sum({ label: 'Heat', symbol: 'P', unit: 'W' }, { I, q }, (i) => {
      const [V, Ω] = [(x: number) => number(x, dimensionOf('V')), (x: number) => number(x, dimensionOf('Ω'))]
      const left = greatest(V(0), V(3.22).minus(i.I.plus(i.q).times(Ω(12))))
      return least(V(0.2).plus(i.I.times(Ω(1))), left)
        .times(i.I)
        .plus(left.times(i.q))
    })
    expect(heat.value.max).toBeCloseTo(0.100428, 7)
    expect(heat.unproven).toBeUndefined()
  })
  // √x − x is 0.25 at most, at x = 0.25; where x begins its slope has no bound. Four of them, one worth a millionth of another.
  test('hills whose slopes have no bound at their foot are proven together, however little one counts', () => {
    const weights = [1, 1e-3, 1e-6, 1]
    const inputs = Object.fromEntries(weights.map((_, k) => [`x${k}`, given(`x${k}`, range(0, 0.5, 1), '')]))
    const hills = sum({ label: 'H', symbol: 'h', unit: '' }, inputs, (i) =>
      total(
        weights.map((w, k) => squareRoot(i[`x${k}`]!).minus(i[`x${k}`]!).times(w)),
        dimensionOf(''),
      ),
    )
    expect(hills.value.max / (0.25 * 2.001001)).toBeCloseTo(1, 5)
    expect(hills.unproven).toBeUndefined()
  })
  // Up from 1 to 2 V at 100 %, down to 0 V at 300 %. Two and a half times that less 1 V, at most 4 V: to the last digit.
  test('of a curve the extreme at a bend is met, through another sum and in percent too', () => {
    const share = given('s', range(30, 50, 290), '%')
    const points = [
      [0, 1, 1, 1],
      [1, 2, 2, 2],
      [3, 0, 0, 0],
    ] as const
    const V = sum({ label: 'V', symbol: 'V', unit: 'V' }, { share }, (i) =>
      readAt('V', { points }, i.share, dimensionOf('V')),
    )
    expect(V.value.max).toBe(2)
    const more = sum({ label: 'U', symbol: 'U', unit: 'V' }, { V, share }, (i) =>
      i.V.times(2.5).minus(number(1, dimensionOf('V'))),
    )
    expect(more.value.max).toBe(4)
  })
  // Twelve devices whose rest may draw more than their work: whatever share works, 12 · 9 mA at most, 12 · 1 mA at least.
  test('one slope without a sign among many is searched to the end', () => {
    const currents = (symbol: string, value: Range) =>
      sum(
        { label: symbol, symbol, unit: 'A' },
        Object.fromEntries(
          Array.from({ length: 12 }, (_, k) => [`${symbol}${k}`, given(`${symbol}${k}`, value, 'A')]),
        ),
        (i) => total(Object.values(i), dimensionOf('A')),
      )
    const s = given('s', range(0, 1, 1), '')
    const [R, W] = [currents('R', range(0.001, 0.002, 0.009)), currents('W', range(0.003, 0.004, 0.005))]
    const between = sum({ label: 'B', symbol: 'b', unit: 'A' }, { R, W, s }, (i) =>
      i.R.plus(i.s.times(i.W.minus(i.R))),
    )
    expect([between.value.min, between.value.typ, between.value.max]).toEqual([
      expect.closeTo(0.012, 12),
      expect.closeTo(0.048, 12),
      expect.closeTo(0.108, 12),
    ])
    expect(between.unproven).toBeUndefined()
  })
  test('a narrower view of a quantity is not taken for the whole of it', () => {
    const whole = given('R', range(45, 50, 60), 'Ω')
    const worst = { ...given('R', exactly(60), 'Ω') }
    const part = { ...given('R', range(50, 55, 60), 'Ω') }
    const of = (b: WorkedInput) =>
      sum({ label: 'D', symbol: 'd', unit: 'Ω' }, { a: whole, b }, (i) => i.a.minus(i.b)).value
    expect(of(worst)).toEqual(range(-15, -10, 0))
    expect(of(part)).toEqual(range(-15, -5, 10))
  })
  test('ampere-hours and percent are read and given in their own units', () => {
    const Q = given('Q', exactly(2), 'Ah')
    const load = fromDecision('I', 'load', 0.5, 'A', 'asked')
    const t = sum({ label: 'Runtime', symbol: 't', unit: 's' }, { Q, I: load }, (i) => i.Q.over(i.I))
    expect(t.value).toEqual(exactly(4 * 3600))
    const back = sum({ label: 'Charge', symbol: 'Q', unit: 'Ah' }, { t, I: load }, (i) => i.t.times(i.I))
    expect([back.value, calculate(back.corners!.typ.line)]).toEqual([exactly(2), 2])
  })
  test.each<[string, (i: Record<'V' | 'O' | 'I' | 'R', Term>) => Term, Unit]>([
    ['V in A', (i) => i.V, 'A'],
    ['V + I', (i) => i.V.plus(i.I), 'V'],
    ['V · I in V', (i) => i.V.times(i.I), 'V'],
    ['min(V, I)', (i) => least(i.V, i.I), 'V'],
    ['ln of volts', (i) => logarithm(i.V), ''],
    ['a number added to volts', (i) => i.V.plus(1), 'V'],
  ])('%s throws', (_, build, unit) => {
    const R = given('R', exactly(100), 'Ω')
    expect(() => sum({ label: 'Wrong', symbol: 'w', unit }, { V, O, I, R }, build)).toThrow(UnitError)
  })
  test('a wrong unit is told in the base units', () => {
    const made = (build: (i: Record<'V' | 'I', Term>) => Term, unit: Unit) => () =>
      sum({ label: 'Wrong', symbol: 'w', unit }, { V, I }, build)
    expect(made((i) => i.V.plus(i.I), 'V')).toThrow('adding: V and A don’t go together')
    expect(made((i) => i.V.over(i.I).over(i.I), 'Ω')).toThrow('Wrong: V / I / I is in V·A^-2, not in Ω')
    expect(made((i) => i.V.over(i.V), 'A')).toThrow('is in a plain number, not in A')
    expect(made((i) => i.V, '')).toThrow('is in V, not in plain numbers')
  })
  test('units: what an ohm, a farad, a henry, a watt are made of', () => {
    const one = (unit: Unit) => dimensionOf(unit)
    const make = (a: Unit, b: Unit, over: boolean) => {
      const [x, y] = [given('x', exactly(6), a), given('y', exactly(2), b)]
      return (unit: Unit) =>
        sum({ label: 'L', symbol: 'l', unit }, { x, y }, (i) => (over ? i.x.over(i.y) : i.x.times(i.y))).value
          .typ
    }
    expect(make('V', 'A', true)('Ω')).toBe(3)
    expect(make('Ω', 'F', false)('s')).toBe(12)
    expect(make('H', 'Ω', true)('s')).toBe(3)
    expect(make('V', 'A', false)('W')).toBe(12)
    expect(make('W', 'K/W', false)('°C')).toBe(12)
    expect(make('A', 'Hz', true)('A/Hz')).toBe(3)
    expect(make('s', 'Hz', false)('')).toBe(12)
    // hours are 3600 seconds, a percent a hundredth, a ppm a millionth
    expect(make('Ah', 'A', true)('s')).toBe(10800)
    expect(make('V', 'Ah', false)('Wh')).toBe(12)
    expect(make('V', '%', false)('V')).toBeCloseTo(0.12, 12)
    expect(make('Hz', 'ppm', false)('Hz')).toBeCloseTo(12e-6, 15)
    expect(one('m')).toEqual([0, 0, 0, 0, 1])
  })
  test('the usual corner stands nowhere in particular; the others say where', () => {
    const { corners } = sum({ label: 'P', symbol: 'P', unit: 'W' }, { V, I }, (i) => i.V.times(i.I))
    expect([corners!.min.where, corners!.typ.where, corners!.max.where]).toEqual([
      'the lowest V, the lowest I',
      '',
      'the highest V, the highest I',
    ])
    expect(corners!.typ.at).toEqual([5, 0.05])
  })
  // An extreme between the ends, from the derivative: e^x − 2x at ln 2, ln x − x/2 at 2, 2^x − 2x at log₂(2 / ln 2), √x − x/2 at 1.
  test.each<[string, (x: Term) => Term, [number, number], 'min' | 'max', number, number]>([
    ['e^x − 2x', (x) => exponential(x).minus(x.times(2)), [0, 1.5], 'min', Math.LN2, 2 - 2 * Math.LN2],
    ['ln x − x/2', (x) => logarithm(x).minus(x.over(2)), [1, 4], 'max', 2, Math.LN2 - 1],
    ['2^x − 2x', (x) => powerOfTwo(x).minus(x.times(2)), [0, 3], 'min', 1.5287663729448977, -0.1721426],
    ['√x − x/2', (x) => squareRoot(x).minus(x.over(2)), [0.1, 4], 'max', 1, 0.5],
    ['|x − 1|', (x) => magnitude(x.minus(1)), [0, 3], 'min', 1, 0],
    ['x · (3 − x)', (x) => x.times(number(3).minus(x)), [0, 3], 'max', 1.5, 2.25],
    ['x ∥ (3 − x)', (x) => parallel(x, number(3).minus(x)), [1, 2.5], 'max', 1.5, 0.75],
    ['x + 1/x', (x) => x.plus(number(1).over(x)), [0.5, 3], 'min', 1, 2],
  ])('%s has its extreme inside', (_, build, [low, high], which, at, value) => {
    const x = given('x', range(low, (low + high) / 2, high), '')
    const made = sum({ label: 'F', symbol: 'f', unit: '' }, { x }, (i) => build(i.x))
    expect(made.value[which]).toBeCloseTo(value, 5)
    expect(made.corners![which].at[0]).toBeCloseTo(at, 2)
    expect(made.corners![which].where).toBe('a middle x')
    expect(made.unproven).toBeUndefined()
  })
  test('a curve that falls is least where it is read furthest along; with three times x beside it still falls', () => {
    // 10 at 0, 4 at 1: 10 − 6x, and 10 − 3x
    const x = given('x', range(0.2, 0.5, 0.8), '')
    const points = [
      [0, 10, 10, 10],
      [1, 4, 4, 4],
    ] as const
    const of = (build: (x: Term) => Term) =>
      sum({ label: 'F', symbol: 'f', unit: '' }, { x }, (i) => build(i.x))
    const y = (x: Term) => readAt('y', { points }, x, dimensionOf(''))
    const near = (min: number, typ: number, max: number) => ({
      min: expect.closeTo(min, 12),
      typ: expect.closeTo(typ, 12),
      max: expect.closeTo(max, 12),
    })
    expect(of(y).value).toEqual(near(5.2, 7, 8.8))
    expect(of(y).corners!.max).toMatchObject({ at: [0.2], where: 'the lowest x' })
    expect(of((x) => y(x).plus(x.times(3))).value).toEqual(near(7.6, 8.5, 9.4))
    expect(of((x) => y(x).plus(x.times(9))).value).toEqual(near(10.6, 11.5, 12.4))
  })
  test('what has no finite value throws and names the sum', () => {
    const zero = given('Z', range(-1, 0.5, 1), '')
    expect(() =>
      sum({ label: 'Share', symbol: 's', unit: '' }, { zero }, (i) =>
        i.zero.minus(i.zero).over(i.zero.minus(i.zero)),
      ),
    ).toThrow(/Share/)
  })
  test.each<[string, string, (i: Record<'a' | 'b' | 'c', Term>) => Term]>([
    ['a − (b − c)', '2 - (3 - 5)', (i) => i.a.minus(i.b.minus(i.c))],
    ['a − b − c', '2 - 3 - 5', (i) => i.a.minus(i.b).minus(i.c)],
    ['a / (b · c)', '2 / (3 * 5)', (i) => i.a.over(i.b.times(i.c))],
    ['a / b / c', '2 / 3 / 5', (i) => i.a.over(i.b).over(i.c)],
    ['a · (b / c)', '2 * (3 / 5)', (i) => i.a.times(i.b.over(i.c))],
    ['(a + b) · c', '(2 + 3) * 5', (i) => i.a.plus(i.b).times(i.c)],
    ['a / (b ∥ c)', '2 / (1 / (1 / 3 + 1 / 5))', (i) => i.a.over(parallel(i.b, i.c))],
    ['min(a + b, c)', 'min(2 + 3, 5)', (i) => least(i.a.plus(i.b), i.c)],
    ['√(a) + 2^b', 'sqrt(2) + 2^(3)', (i) => squareRoot(i.a).plus(powerOfTwo(i.b))],
  ])('%s is written with the brackets that it needs', (formula, line, build) => {
    const [a, b, c] = [2, 3, 5].map((v, k) => given('abc'[k]!, exactly(v), ''))
    const made = sum({ label: 'L', symbol: 'l', unit: '' }, { a: a!, b: b!, c: c! }, build)
    expect([made.formula, made.corners!.typ.line]).toEqual([formula, line])
    expect(calculate(line)).toBeCloseTo(made.value.typ, 12)
  })
  // A curve of (1 mA, 1.7 V), (20 mA, 2.05 V), (40 mA, 2.6 V): at 10.5 mA half of 0.35 V more; beyond, the last slope.
  test('a curve is read straight between its points, and on with its last slope or held', () => {
    const points = [
      [0.001, 1.6, 1.7, 1.8],
      [0.02, 1.95, 2.05, 2.25],
      [0.04, 2.5, 2.6, 2.9],
    ] as const
    const at = (value: Range, held = false) =>
      sum({ label: 'F', symbol: 'V_F', unit: 'V' }, { I: given('I', value, 'A') }, (i) =>
        readAt('V_F', { points, held }, i.I, dimensionOf('V')),
      )
    expect(at(exactly(0.0105)).value.typ).toBeCloseTo(1.875, 12)
    expect(at(exactly(0.05)).value.typ).toBeCloseTo(2.875, 12)
    expect(at(exactly(0.05), true).value.typ).toBeCloseTo(2.6, 12)
    const spread = at(range(0.0105, 0.03, 0.05), true)
    expect([spread.value.min, spread.value.max]).toEqual([expect.closeTo(1.875, 12), expect.closeTo(2.6, 12)])
    for (const corner of Object.values(at(range(0.0005, 0.03, 0.05)).corners!))
      expect(calculate(corner.line)).toBeGreaterThan(1)
    expect(calculate(at(exactly(0.05)).corners!.typ.line)).toBeCloseTo(2.875, 9)
    // One specimen is on one line all along: at 10.5 mA 1.775 V to 2.025 V, and twice the same is no spread.
    const band = given('band', range(-1, 0, 1), '')
    const V = sum(
      { label: 'F', symbol: 'V_F', unit: 'V' },
      { I: given('I', exactly(0.0105), 'A'), band },
      (i) => readAt('V_F', { points }, i.I, dimensionOf('V'), i.band),
    )
    expect(V.value).toEqual({
      min: expect.closeTo(1.775, 12),
      typ: expect.closeTo(1.875, 12),
      max: expect.closeTo(2.025, 12),
    })
    for (const key of ['min', 'max'] as const)
      expect(calculate(V.corners![key].line)).toBeCloseTo(V.value[key], 9)
    expect(sum({ label: 'N', symbol: 'n', unit: 'V' }, { V }, (i) => i.V.minus(i.V)).value).toEqual(
      exactly(0),
    )
  })
})

/** Expressions of plain numbers over up to four leaves that vary, some used twice. */
const names = ['a', 'b', 'c', 'd'] as const
type Names = Record<(typeof names)[number], Term>
type Build = (i: Names) => Term
const leaf: fc.Arbitrary<Build> = fc.oneof(
  fc.constantFrom(...names).map(
    (n): Build =>
      (i) =>
        i[n],
  ),
  fc.integer({ min: 1, max: 9 }).map(
    (n): Build =>
      (i) =>
        i.a.minus(i.a).plus(n),
  ),
)
const expression: fc.Arbitrary<Build> = fc.letrec<{ any: Build }>((tie) => ({
  any: fc.oneof(
    { maxDepth: deep ? 3 : 2, depthSize: 'max', withCrossShrink: true },
    leaf,
    fc.tuple(tie('any'), tie('any')).map(
      ([x, y]): Build =>
        (i) =>
          x(i).plus(y(i)),
    ),
    fc.tuple(tie('any'), tie('any')).map(
      ([x, y]): Build =>
        (i) =>
          x(i).minus(y(i)),
    ),
    fc.tuple(tie('any'), tie('any')).map(
      ([x, y]): Build =>
        (i) =>
          x(i).times(y(i)),
    ),
    fc.tuple(tie('any'), tie('any')).map(
      ([x, y]): Build =>
        (i) =>
          x(i).over(magnitude(y(i)).plus(1)),
    ),
    fc.tuple(tie('any'), tie('any')).map(
      ([x, y]): Build =>
        (i) =>
          least(x(i), y(i)),
    ),
    fc.tuple(tie('any'), tie('any')).map(
      ([x, y]): Build =>
        (i) =>
          greatest(x(i), y(i)),
    ),
    tie('any').map(
      (x): Build =>
        (i) =>
          squareRoot(magnitude(x(i)).plus(1)),
    ),
    tie('any').map(
      (x): Build =>
        (i) =>
          logarithm(magnitude(x(i)).plus(1)),
    ),
    tie('any').map(
      (x): Build =>
        (i) =>
          exponential(least(x(i), i.b.minus(i.b))),
    ),
    tie('any').map(
      (x): Build =>
        (i) =>
          parallel(magnitude(x(i)).plus(1), i.c),
    ),
    tie('any').map((x): Build => (i) => readAt('f', { points: [[-2, 2, 3, 4], [1, -2, -1, 0], [4, 6, 7, 9]] }, x(i), dimensionOf(''), i.d.minus(2).over(5))), // prettier-ignore
  ),
})).any
const leaves = fc.tuple(
  ...names.map(() =>
    fc.tuple(
      fc.integer({ min: 5, max: 40 }).map((n) => n / 10),
      fc.integer({ min: 0, max: 30 }).map((n) => n / 10),
    ),
  ),
)
const madeOf = (build: Build, spans: [number, number][]): { made: Worked; values: Range[] } => {
  const values = spans.map(([low, width]) => range(low, low + width / 3, low + width))
  const inputs = Object.fromEntries(names.map((n, k) => [n, given(n, values[k]!, '')])) as Record<
    keyof Names,
    WorkedInput
  >
  return { made: sum({ label: 'S', symbol: 's', unit: '' }, inputs, build), values }
}

describe('a current through parts in a row', () => {
  const red = [
    { x: 1e-3, y: { min: 1.6, typ: 1.7, max: 1.8, kind: 'guaranteed' as const } },
    { x: 20e-3, y: { min: 1.85, typ: 2.05, max: 2.4, kind: 'guaranteed' as const } },
  ]
  const part = { id: 'p', name: 'p', sheet: 'p' }
  const through = (V: Range, R: Range, points = red) =>
    currentInSeries(
      { label: 'Current', symbol: 'I' },
      ['V', given('V', V, 'V')],
      ['R', given('R', R, 'Ω')],
      [{ symbol: 'V_F', label: 'LED', curve: { part, field: 'f', points } }],
    )
  test('by hand: 330 Ω on 5 V, V_F = 1.7 V + (I − 1 mA) · 18.42 Ω', () => {
    const I = through(exactly(5), exactly(330))
    // 5 = 330·I + 1.7 + (I − 1e-3)·(0.35 / 19e-3)
    expect(I.value.typ).toBeCloseTo((3.3 + 0.35 / 19) / (330 + 0.35 / 19e-3), 12)
    expect(I.formula).toBe('(V − V_F(I)) / R')
  })
  test('nothing flows where the voltage is not enough', () =>
    expect(through(exactly(1.5), exactly(100)).value.typ).toBe(0))
  test('whatever the corners: most where V is high, R small and V_F low, by bisection; lines evaluate to it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 9, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 1, max: 2000, noNaN: true }),
        fc.double({ min: 0, max: 0.3, noNaN: true }),
        (v, dv, r, dr) => {
          const [V, R] = [range(v - dv, v, v + dv), range(r * (1 - dr), r, r * (1 + dr))]
          const I = through(V, R)
          const solved = (volts: number, ohms: number, key: 'min' | 'typ' | 'max') => {
            const [[x0, y0], [x1, y1]] = red.map((p) => [p.x, p.y[key]]) as [
              [number, number],
              [number, number],
            ]
            let [low, high] = [0, 20]
            const left = (i: number) => volts - i * ohms - y0 - ((y1 - y0) / (x1 - x0)) * (i - x0)
            if (left(0) <= 0) return 0
            for (let n = 0; n < 90; n++) {
              const middle = (low + high) / 2
              if (left(middle) > 0) low = middle
              else high = middle
            }
            return low
          }
          expect(I.value.min).toBeCloseTo(solved(V.min, R.max, 'max'), 9)
          expect(I.value.typ).toBeCloseTo(solved(V.typ, R.typ, 'typ'), 9)
          expect(I.value.max).toBeCloseTo(solved(V.max, R.min, 'min'), 9)
          for (const key of ['min', 'typ', 'max'] as const)
            expect(calculate(I.corners![key].line)).toBeCloseTo(I.value[key], 9)
        },
      ),
      { numRuns: deep ? 1000 : 100 },
    )
  })
})

describe('whatever the expression', () => {
  test('no point of the box is outside the range; each extreme is reached where it says, and its line evaluates to it', () => {
    let wide = 0
    fc.assert(
      fc.property(
        expression,
        leaves,
        fc.array(fc.tuple(...names.map(() => fc.double({ min: 0, max: 1, noNaN: true }))), {
          minLength: 30,
          maxLength: 30,
        }),
        (build, spans, samples) => {
          const { made, values } = madeOf(build, spans)
          const { min, typ, max } = made.value
          const slack = 1e-6 * (1 + Math.abs(min) + Math.abs(max))
          if (max - min > slack) wide++
          expect(min - slack <= typ && typ <= max + slack).toBe(true)
          for (const key of ['min', 'typ', 'max'] as const) {
            const { line, at } = made.corners![key]
            expect(Math.abs(calculate(line) - made.value[key])).toBeLessThan(slack)
            at.forEach((x, k) => expect(x >= values[k]!.min - 1e-9 && x <= values[k]!.max + 1e-9).toBe(true))
          }
          const ends = [0, 1].flatMap((a) =>
            [0, 1].flatMap((b) => [0, 1].flatMap((c) => [0, 1].map((d) => [a, b, c, d]))),
          )
          for (const sample of [...samples, ...ends]) {
            const fixed = values.map((v, k) => v.min + sample[k]! * (v.max - v.min))
            const there = madeOf(
              build,
              fixed.map((x) => [x, 0] as [number, number]),
            ).made.value.typ
            expect(there).toBeGreaterThanOrEqual(min - slack)
            expect(there).toBeLessThanOrEqual(max + slack)
          }
        },
      ),
      { numRuns: deep ? 1000 : 60 },
    )
    expect(wide).toBeGreaterThan(30)
  })
  test('a wider input never gives a narrower result', () => {
    fc.assert(
      fc.property(expression, leaves, fc.integer({ min: 0, max: 3 }), (build, spans, which) => {
        const narrow = madeOf(build, spans).made.value
        const wider = spans.map(
          ([low, width], k) => [low, k === which ? width + 1 : width] as [number, number],
        )
        const wide = madeOf(build, wider).made.value
        const slack = 1e-4 * (1 + Math.abs(wide.min) + Math.abs(wide.max))
        expect(wide.min).toBeLessThanOrEqual(narrow.min + slack)
        expect(wide.max).toBeGreaterThanOrEqual(narrow.max - slack)
      }),
      { numRuns: deep ? 1000 : 60 },
    )
  })
})

test('a list adds up, and of none it is nothing', () => {
  const inputs = Object.fromEntries(['I_1', 'I_2', 'I_3'].map((s, k) => [s, given(s, exactly(k + 1), 'A')]))
  const all = sum({ label: 'All', symbol: 'ΣI', unit: 'A' }, inputs, (i) =>
    total(Object.values(i), dimensionOf('A')),
  )
  expect([all.value.typ, all.formula]).toEqual([6, 'I_1 + I_2 + I_3'])
  const none = sum({ label: 'None', symbol: 'ΣI', unit: 'A' }, {}, () => total([], dimensionOf('A')))
  expect([none.value, none.formula]).toEqual([exactly(0), '0'])
})
