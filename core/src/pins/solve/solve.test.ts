import loadHighs from 'highs'
import type { Candidate, PlanProblem } from './problem'
import { smallestClash } from './explain'
import { solvePlan } from './solve'
import { integerProgramme, type IntegerProgrammeSolver } from './test/integer-programme'
import { randomInstance } from './test/instances'

const instances = 330

/** Every rule, checked from the problem alone. */
const brokenRules = ({ signals }: PlanProblem, chosen: Candidate[]): string[] => {
  const broken: string[] = []
  chosen.forEach((c, s) => {
    if (!signals[s]!.candidates.includes(c)) broken.push(`signal ${s} on a candidate that isn’t its own`)
    chosen.slice(0, s).forEach((d, t) => {
      const [a, b] = [signals[s]!, signals[t]!]
      if (c.pin === d.pin) broken.push(`pin ${c.pin} twice`)
      if (c.channel >= 0 && c.channel === d.channel) broken.push(`channel ${c.channel} twice`)
      if (a.group !== undefined && b.group !== undefined && (a.group === b.group) !== (c.unit === d.unit))
        broken.push(`groups ${a.group} and ${b.group}`)
      if (
        a.frequency !== undefined &&
        b.frequency !== undefined &&
        c.unit === d.unit &&
        a.frequency !== b.frequency
      )
        broken.push(`timer ${c.unit} with two frequencies`)
    })
  })
  return broken
}

test(`cost equals the optimum of an integer programme on ${instances} random instances, or both find none`, async () => {
  const highs = (await loadHighs()) as unknown as IntegerProgrammeSolver
  let infeasible = 0
  let clashes = 0
  for (let seed = 1; seed <= instances; seed++) {
    const problem = randomInstance(seed)
    const ours = solvePlan(problem)
    const theirs = highs.solve(integerProgramme(problem))
    const where = `seed ${seed}`
    expect(ours.status).not.toBe('stopped')
    if (ours.status !== 'optimal') {
      infeasible++
      expect([where, theirs.Status]).toEqual([where, 'Infeasible'])
      if (clashes++ < 40) {
        const clash = smallestClash(problem)
        const alone = (members: number[]) =>
          solvePlan({ ...problem, signals: members.map((i) => problem.signals[i]!) }).status
        expect(alone(clash)).toBe('infeasible')
        for (const one of clash)
          if (clash.length > 1)
            expect([where, alone(clash.filter((i) => i !== one))]).toEqual([where, 'optimal'])
      }
      continue
    }
    expect([where, theirs.Status, Math.round(theirs.ObjectiveValue)]).toEqual([where, 'Optimal', ours.cost])
    expect(brokenRules(problem, ours.chosen)).toEqual([])
    expect(ours.chosen.reduce((sum, c) => sum + c.cost, 0)).toBe(ours.cost)
  }
  expect(infeasible).toBeGreaterThan(instances / 20)
  expect(infeasible).toBeLessThan(instances / 2)
}, 300_000)

test('a node limit gives the best plan so far and a bound below it', () => {
  const cut = Array.from({ length: 200 }, (_, i) => ({ seed: i, all: solvePlan(randomInstance(i)) })).find(
    ({ all }) => all.status === 'optimal' && all.nodes > 6,
  )!
  const stopped = solvePlan(randomInstance(cut.seed), { maxNodes: 3 })
  expect(stopped.status).toBe('stopped')
  if (stopped.status === 'stopped' && cut.all.status === 'optimal')
    expect(stopped.bound).toBeLessThanOrEqual(cut.all.cost)
})
