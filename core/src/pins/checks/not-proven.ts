import type { NeedDevice } from '../../design'
import { type Check, type Fix, type Stages, say } from '../../findings'
import { doWithout } from './fixes'

/** Who asks for the most legs: leaving one of them out makes the question smaller. */
const greediest = ({ needs }: Stages): Fix[] => {
  const asked = new Map<string, { need: NeedDevice; signals: number }>()
  for (const s of needs.open.signals)
    for (const { instance } of s.ends) {
      const { need } = instance
      asked.set(need.id, { need, signals: (asked.get(need.id)?.signals ?? 0) + 1 })
    }
  return [...asked.values()]
    .sort((a, b) => b.signals - a.signals)
    .slice(0, 2)
    .map(({ need }) => doWithout(need))
}

export const notProven: Check = {
  id: 'pins.not-proven',
  stage: 'pins',
  looksFor: 'a plan that the search had no time to prove, or did not find at all',
  rule: 'a search that was given up is no proof',
  run: (stages) => {
    const {
      chip: { chip },
      pins: { plan },
    } = stages
    if (!chip || !plan) return []
    if (plan.status === 'found')
      return [
        {
          id: 'pins.not-proven',
          severity: 'notes',
          ...say`The plan is the best found in the time given: one up to ${plan.gap} points cheaper may exist.`,
          because: [
            say`This plan costs ${plan.cost} points`,
            say`No plan costs less than ${plan.bound}; what lies between was not looked through`,
            say`Looking longer, or locking signals that may stay where they are, settles it`,
          ],
          fixes: [],
          longer: true,
        },
      ]
    if (plan.status === 'undecided')
      return [
        {
          id: 'pins.not-proven',
          severity: 'stops',
          ...say`Whether ${chip.name} can serve everything was not decided in the time given.`,
          because: [
            say`The search found no plan, and did not get through all there are: there may be one`,
            say`Looking longer may settle it; so does locking some signals, or leaving something out`,
          ],
          fixes: greediest(stages),
          longer: true,
        },
      ]
    if (plan.status === 'clash' && plan.clashUnsure)
      return [
        {
          id: 'pins.not-proven',
          severity: 'notes',
          ...say`That there is no plan is proven; which needs are in each other’s way was not narrowed down in the time given.`,
          because: [say`${plan.clash.length} signals are left of which some may not matter`],
          fixes: [],
          longer: true,
        },
      ]
    return []
  },
}
