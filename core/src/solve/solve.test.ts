import loadHighs from 'highs'
import type { Candidate, PlanProblem, PlanResult, Solution } from './problem'
import { type Clash, smallestClash, solvableAlone } from './explain'
import { deep, firstSeed } from '../../test/share'
import { type ClassOf, nextPlans } from './next'
import { steps } from '../patience'
import { solveAt } from './at'
import { solvePlan } from './solve'
import { type IntegerProgrammeSolver, judge } from '../../test/lp'
import { integerProgramme } from './test/integer-programme'
import { crowdedInstance, randomInstance, type Shape } from './test/instances'

/** How many random instances of each size. */
const sizes: [number, Shape][] = [
  [deep ? 320 : 80, { pins: 40, signals: 25 }],
  [deep ? 110 : 25, { pins: 80, signals: 40 }],
  [deep ? 70 : 15, { pins: 144, signals: 60 }],
]

/** Every rule, checked from the problem alone. */
const brokenRules = (problem: PlanProblem, { chosen, options, cost }: Solution): string[] => {
  const { signals, choices = [], budgets = [] } = problem
  const broken: string[] = []
  const taken = new Set(options)
  choices.forEach((choice, i) => {
    if (!choice.options.some((o) => o.id === options[i])) broken.push(`choice ${i} on an option not its own`)
  })
  chosen.forEach((c, s) => {
    const wanted = signals[s]!.when?.some((o) => taken.has(o)) ?? true
    if (wanted !== (c !== undefined)) broken.push(`signal ${s} wanted ${wanted}, placed ${c !== undefined}`)
    if (!c) return
    if (!signals[s]!.candidates.includes(c)) broken.push(`signal ${s} on a candidate that isn’t its own`)
    if (c.option !== undefined && !taken.has(c.option)) broken.push(`signal ${s} under option ${c.option}`)
    chosen.slice(0, s).forEach((d, t) => {
      if (!d) return
      const [a, b] = [signals[s]!, signals[t]!]
      if (c.pin === d.pin) broken.push(`pin ${c.pin} twice`)
      if (c.channels.some((x) => d.channels.includes(x))) broken.push(`channel of ${s} and ${t} twice`)
      c.units.forEach((unit, target) => {
        const shared = unit === d.units[target]
        if (a.group !== undefined && b.group !== undefined && (a.group === b.group) !== shared)
          broken.push(`groups ${a.group} and ${b.group}`)
        if (a.frequency !== undefined && b.frequency !== undefined && shared && a.frequency !== b.frequency)
          broken.push(`timer ${unit} with two frequencies`)
      })
    })
  })
  for (const { pins, limit } of budgets) {
    const load = chosen.reduce(
      (sum, c, s) => sum + (c && pins.includes(c.pin) ? (signals[s]!.load ?? 0) : 0),
      0,
    )
    if (load > limit) broken.push(`pins ${pins.join()} carry ${load} of ${limit}`)
  }
  const optionCost = choices.flatMap((c) => c.options).filter((o) => taken.has(o.id))
  const sum = [...chosen, ...optionCost].reduce((total, c) => total + (c?.cost ?? 0), 0)
  if (sum !== cost) broken.push(`cost ${cost} is ${sum}`)
  return broken
}

const without = (clash: Clash, member: number): Clash => ({
  signals: clash.signals.filter((_, i) => i !== member),
  choices: clash.choices.filter((_, i) => i !== member - clash.signals.length),
})

/** A result in the words of the integer programme’s solver. */
const said = (r: PlanResult) =>
  r.status === 'proven'
    ? { status: 'Optimal', cost: r.cost }
    : { status: r.status === 'infeasible' ? 'Infeasible' : r.status, cost: undefined }

test.each(sizes)(
  'cost equals the optimum of an integer programme on %d random instances up to %o, or both find none',
  async (count, shape) => {
    const highs = (await loadHighs()) as unknown as IntegerProgrammeSolver
    const from = firstSeed(`random instances of ${shape.pins} pins`)
    for (let seed = from; seed < from + count; seed++) {
      const problem = randomInstance(seed, shape)
      const ours = solvePlan(problem)
      const where = `seed ${seed}`
      expect([where, said(ours)]).toEqual([where, judge(highs, integerProgramme(problem), said(ours))])
      if (ours.status === 'proven') {
        expect([where, brokenRules(problem, ours)]).toEqual([where, []])
        continue
      }
      const clash = smallestClash(problem)!
      expect([where, solvableAlone(problem, clash)]).toEqual([where, false])
      const members = clash.signals.length + clash.choices.length
      for (let m = 0; m < members; m++)
        expect([where, solvableAlone(problem, without(clash, m))]).toEqual([where, true])
    }
  },
  300_000,
)

test('crowded small instances: the same optimum as the integer programme, or neither', async () => {
  const highs = (await loadHighs()) as unknown as IntegerProgrammeSolver
  const from = firstSeed('crowded instances')
  let planned = 0
  const count = deep ? 3000 : 400
  for (let seed = from; seed < from + count; seed++) {
    const problem = crowdedInstance(seed)
    const ours = solvePlan(problem)
    expect([seed, said(ours)]).toEqual([seed, judge(highs, integerProgramme(problem), said(ours))])
    if (ours.status !== 'proven') continue
    planned++
    expect([seed, brokenRules(problem, ours)]).toEqual([seed, []])
  }
  expect(planned).toBeGreaterThan(count / 5)
  expect(planned).toBeLessThan(count * 0.95)
}, 600_000)

// Two wirings: with the first, 17 for its own line on pin 1, 3 for the last signal on pin 2; with the second, 3 for itself, its line takes
// pin 2 for nothing, and the last signal is left with pin 1 for 18. Of the loads 16, 17 and 7 on pins that carry 29 the first must go to
// pin 12, for 1. So 17 + 3 + 1 = 21 and 3 + 18 + 1 = 22. What stays there is 24, and no sum of loads comes nearer to 29: used up to the last.
test('a budget that is used up to the last bit has no price that would forbid a plan', () => {
  const on = (pin: number, cost: number): Candidate => ({ pin, cost, units: [], channels: [] })
  const problem: PlanProblem = {
    pins: 22,
    units: 0,
    channels: 0,
    signals: [
      { when: [3], candidates: [on(1, 17)] },
      { when: [4], candidates: [on(2, 0)] },
      { candidates: [on(5, 0), on(12, 1)], load: 16 },
      { candidates: [on(3, 0)], load: 17 },
      { candidates: [on(1, 18), on(2, 3)], load: 7 },
    ],
    choices: [
      { options: [0, 6, 0].map((cost, id) => ({ id, cost })) },
      {
        options: [
          { id: 3, cost: 0 },
          { id: 4, cost: 3 },
        ],
      },
    ],
    budgets: [{ pins: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9], limit: 29 }],
  }
  expect(solvePlan(problem)).toMatchObject({ status: 'proven', cost: 21 })
})

test('with budgets at sums of loads: the same optimum as the integer programme, or neither', async () => {
  const highs = (await loadHighs()) as unknown as IntegerProgrammeSolver
  const from = firstSeed('budgets used up')
  const count = deep ? 3000 : 300
  let planned = 0
  for (let seed = from; seed < from + count; seed++) {
    const whole = randomInstance(seed, { pins: 14 + (seed % 20), signals: 6 + (seed % 13) })
    const problem: PlanProblem = {
      ...whole,
      budgets: whole.budgets?.map(({ pins, limit }) => ({
        pins,
        limit: whole.signals.reduce((sum, { load = 0 }) => (sum + load <= limit ? sum + load : sum), 0),
      })),
    }
    const ours = solvePlan(problem)
    expect([seed, said(ours)]).toEqual([seed, judge(highs, integerProgramme(problem), said(ours))])
    if (ours.status === 'proven') planned++
  }
  expect(planned).toBeGreaterThan(count / 5)
}, 600_000)

test('of the random instances some can be planned and some not, at every size', () => {
  for (const [, shape] of sizes) {
    const count = 40
    const all = Array.from({ length: count }, (_, i) => solvePlan(randomInstance(i + 1, shape)).status)
    const infeasible = all.filter((s) => s === 'infeasible').length
    expect([shape, infeasible > count / 20, infeasible < count * 0.6]).toEqual([shape, true, true])
  }
})

test('the random instances have every feature', () => {
  const all = Array.from({ length: 60 }, (_, seed) => randomInstance(seed))
  const features: Record<string, (p: PlanProblem) => boolean> = {
    'two wirings': (p) => p.signals.some((s) => s.when),
    bytes: (p) => p.signals.some((s) => s.candidates.some((c) => c.option !== undefined)),
    'two targets': (p) => p.signals.some((s) => s.candidates.some((c) => c.units.length === 2)),
    'one frequency a timer': (p) => p.signals.filter((s) => s.frequency !== undefined).length > 1,
    'current budgets': (p) => p.budgets!.length > 0,
    'shared interrupt lines': (p) =>
      p.signals.some((s) => s.candidates.length > 16 && s.candidates.every((c) => c.channels.length > 0)),
  }
  for (const [name, has] of Object.entries(features))
    expect([name, all.some(has), all.every(has)]).toEqual([name, true, false])
})

test('given up early: never called infeasible, the bound is one, and a plan is a plan', () => {
  const seen = { found: 0, undecided: 0 }
  for (let seed = 0; seed < 300; seed++) {
    const problem = randomInstance(seed, { pins: 40, signals: 25 })
    const all = solvePlan(problem)
    for (const patience of [0, 1, 3, 6]) {
      const cut = solvePlan(problem, { patience: steps(patience) })
      const where = `seed ${seed}, ${patience} steps`
      if (cut.status === 'infeasible') expect([where, all.status]).toEqual([where, 'infeasible'])
      if (cut.status === 'proven') expect([where, all]).toMatchObject([where, { cost: cut.cost }])
      if (cut.status !== 'found' && cut.status !== 'undecided') continue
      seen[cut.status]++
      if (cut.status === 'found') {
        expect([where, brokenRules(problem, cut)]).toEqual([where, []])
        expect(cut.bound).toBeLessThan(cut.cost)
      }
      if (all.status === 'proven') {
        expect(cut.bound).toBeLessThanOrEqual(all.cost)
        if (cut.status === 'found') expect(cut.cost).toBeGreaterThanOrEqual(all.cost)
      }
    }
  }
  expect(seen.found).toBeGreaterThan(20)
  expect(seen.undecided).toBeGreaterThan(100)
})

test('all pins of a signal in one go are what each is by itself', () => {
  let pinsTried = 0
  for (let seed = 1; seed <= 120; seed++) {
    const problem = randomInstance(seed, { pins: 24, signals: 16 })
    const signal = problem.signals.findIndex((s) => s.when === undefined && s.candidates.length > 1)
    if (signal < 0) continue
    const pins = [...new Set(problem.signals[signal]!.candidates.map((c) => c.pin))]
    const together = solveAt(problem, signal, pins)
    pins.forEach((pin, i) => {
      pinsTried++
      const alone = solvePlan(problem, { only: (s, c) => s !== signal || c.pin === pin })
      const cost = (r: PlanResult) => (r.status === 'proven' ? r.cost : r.status)
      expect([seed, pin, cost(together[i]!)]).toEqual([seed, pin, cost(alone)])
      if (together[i]!.status === 'proven') {
        expect([seed, pin, brokenRules(problem, together[i] as Solution)]).toEqual([seed, pin, []])
        expect((together[i] as Solution).chosen[signal]!.pin).toBe(pin)
      }
    })
  }
  expect(pinsTried).toBeGreaterThan(500)
})

test('a clash that could not be narrowed down in time says so, and is still one', () => {
  let unsure = 0
  for (let seed = 0; seed < 120; seed++) {
    const problem = randomInstance(seed, { pins: 40, signals: 25 })
    if (solvePlan(problem).status !== 'infeasible') continue
    const clash = smallestClash(problem, { known: true, patience: steps(8) })!
    expect(solvableAlone(problem, clash)).toBe(false)
    if (clash.unsure) unsure++
  }
  expect(unsure).toBeGreaterThan(3)
})

/** Every plan there is, by trying all. */
const allPlans = (problem: PlanProblem): Solution[] => {
  const plans: Solution[] = []
  const choices = problem.choices ?? []
  const place = (options: number[], chosen: (Candidate | undefined)[], cost: number): void => {
    if (options.length < choices.length)
      return choices[options.length]!.options.forEach((o) => place([...options, o.id], chosen, cost + o.cost))
    const s = chosen.length
    if (s === problem.signals.length) {
      if (brokenRules(problem, { chosen, options, cost }).length > 0) return
      plans.push({ chosen, options, cost })
      return
    }
    const { when, candidates } = problem.signals[s]!
    if (when && !when.some((o) => options.includes(o))) place(options, [...chosen, undefined], cost)
    else
      for (const c of candidates)
        if (!chosen.some((d) => d?.pin === c.pin)) place(options, [...chosen, c], cost + c.cost)
  }
  place([], [], 0)
  return plans
}
/** What makes a plan: options and classes, those of the first `equal` signals in any order. */
const keyOf = ({ chosen, options }: Solution, classOf: ClassOf = (c) => c.pin, equal = 0) => {
  const classes = chosen.map((c, s) => c && classOf(c, s))
  return JSON.stringify([options, classes.slice(0, equal).sort(), classes.slice(equal)])
}

/** Three classes of pins, and on a bus the unit. */
const coarse =
  ({ signals }: PlanProblem): ClassOf =>
  (c, s) =>
    signals[s]!.group === undefined ? c.pin % 3 : `${c.pin % 2} ${c.units.join()}`

/** Small enough to try all plans; with a second signal like the first where it can be had. */
const smallInstance = (seed: number): { problem: PlanProblem; equal: number } => {
  const problem = randomInstance(seed, seed % 2 ? { pins: 6, signals: 4 } : { pins: 8, signals: 8 })
  const isPlain = ({ group, when, candidates }: PlanProblem['signals'][number]) =>
    group === undefined && when === undefined && candidates.every((c) => c.option === undefined)
  const plain = problem.signals.find(isPlain)
  if (seed % 3 === 0 || !plain) return { problem, equal: 0 }
  const others = problem.signals.filter((s) => s !== plain)
  return { problem: { ...problem, signals: [plain, plain, ...others] }, equal: 2 }
}

test('the next best plans are the next of all plans, tried one by one, whatever makes them differ', () => {
  let compared = 0
  let withChoices = 0
  let withEqual = 0
  for (let seed = 1; seed <= 6000 && compared < 150; seed++) {
    const { problem, equal } = smallInstance(seed)
    const ways = problem.signals.reduce((n, s) => n * Math.max(1, s.candidates.length), 1)
    if (ways > 200_000 || solvePlan(problem).status !== 'proven') continue
    if (problem.choices!.length > 0) withChoices++
    if (equal > 0) withEqual++
    const classOf = seed % 4 < 2 ? undefined : coarse(problem)
    const cheapest = new Map<string, number>()
    for (const plan of allPlans(problem)) {
      const key = keyOf(plan, classOf, equal)
      cheapest.set(key, Math.min(plan.cost, cheapest.get(key) ?? Infinity))
    }
    const kindOf = (s: number) => (s < equal ? 0 : undefined)
    const { plans: next, complete } = nextPlans(problem, 6, { classOf, kindOf })
    const expected = [...cheapest.values()].sort((a, b) => a - b).slice(1, 7)
    expect([seed, next.map((n) => n.cost), complete]).toEqual([seed, expected, true])
    expect(new Set(next.map((n) => keyOf(n, classOf, equal))).size).toBe(next.length)
    for (const plan of next) expect([seed, brokenRules(problem, plan)]).toEqual([seed, []])
    compared++
  }
  expect(compared).toBe(150)
  expect(withChoices).toBeGreaterThan(10)
  expect(withEqual).toBeGreaterThan(15)
})

// Four equal signals on six pins that cost 0, 1, 2 and three times 5: which of them lies where is no matter, so that a
// plan is how many are at each cost. By hand: {0,1,2,5} 8, the best; two at 5: {0,1} 11, {0,2} 12, {1,2} 13; three at 5
// and one at 0, 1 or 2: 15, 16, 17.
test('exchanging equal signals makes no other plan', () => {
  const candidates = [0, 1, 2, 5, 5, 5].map((cost, pin) => ({ pin, cost, units: [-1], channels: [] }))
  const problem: PlanProblem = {
    pins: 6,
    units: 0,
    channels: 0,
    signals: Array.from({ length: 4 }, () => ({ candidates })),
  }
  const classOf: ClassOf = (c) => c.cost
  const { plans, complete } = nextPlans(problem, 9, { classOf, kindOf: () => 0 })
  expect([plans.map((p) => p.cost), complete]).toEqual([[11, 12, 13, 15, 16, 17], true])
  for (const plan of plans) expect(brokenRules(problem, plan)).toEqual([])
  // Told apart, each exchange is another plan: 4! of the best alone.
  expect(nextPlans(problem, 23, { classOf }).plans.map((p) => p.cost)).toEqual(Array(23).fill(8))
})

// Two equal bytes of two bits on six pins: three runs each, or scattered for 2 points. Which byte takes which run makes
// another plan, though the bytes themselves can be exchanged.
test('equal bytes are told apart once a plan is split at one of them', () => {
  for (let seed = 1; seed <= 12; seed++) {
    const costs = Array.from({ length: 6 }, (_, pin) => (seed * (pin + 3) * 7) % 4)
    const bit = (byte: number, b: number): Candidate[] =>
      costs.flatMap((cost, pin) => {
        const at = { pin, cost, units: [-1], channels: [] }
        const scattered = { ...at, option: 4 * byte + 3 }
        return pin % 2 === b ? [{ ...at, option: 4 * byte + (pin >> 1) }, scattered] : [scattered]
      })
    const problem: PlanProblem = {
      pins: 6,
      units: 0,
      channels: 0,
      signals: [0, 1].flatMap((byte) => [0, 1].map((b) => ({ candidates: bit(byte, b) }))),
      choices: [0, 1].map((byte) => ({
        options: [0, 1, 2, 3].map((o) => ({ id: 4 * byte + o, cost: o === 3 ? 2 : 0 })),
      })),
    }
    const cheapest = new Map<string, number>()
    for (const plan of allPlans(problem))
      cheapest.set(keyOf(plan), Math.min(plan.cost, cheapest.get(keyOf(plan)) ?? Infinity))
    const expected = [...cheapest.values()].sort((a, b) => a - b).slice(1, 26)
    expect([seed, nextPlans(problem, 25).plans.map((n) => n.cost)]).toEqual([seed, expected])
  }
})

test('two ways on one pin that differ to the builder are two plans; plans that don’t count are no end', () => {
  const candidates = [0, 3].map((cost) => ({ pin: 0, cost, units: [-1], channels: [] }))
  const problem: PlanProblem = { pins: 1, units: 0, channels: 0, signals: [{ candidates }] }
  const classOf: ClassOf = (c) => c.cost
  const { plans, complete } = nextPlans(problem, 3, { classOf })
  expect([plans.map((n) => n.cost), complete]).toEqual([[3], true])
  const many: PlanProblem = {
    pins: 8,
    units: 0,
    channels: 0,
    signals: [
      { candidates: Array.from({ length: 8 }, (_, pin) => ({ pin, cost: pin, units: [-1], channels: [] })) },
    ],
  }
  expect(nextPlans(many, 1, { counts: () => false })).toEqual({ plans: [], complete: false })
  expect(nextPlans(many, 9, { counts: () => false })).toEqual({ plans: [], complete: true })
})
