// Whole projects drawn over the whole library, planned, and judged by an integer programme that was made from the project
// and part files alone. `npm run deep` takes 500 of them and 60 that were drawn to be hard.

import loadHighs from 'highs'
import { join } from 'node:path'
import { type IntegerProgrammeSolver, judge } from '../../test/lp'
import { shelf } from '../../test/referee/files'
import { programmeOf } from '../../test/referee/programme'
import { randomProject, type Sort } from '../../test/referee/projects'
import { deep, firstSeed } from '../../test/share'
import { shippedLibrary } from '../../test/files'
import { analyse } from '../analysis'
import { readDesign } from '../design'

const root = join(__dirname, '..', '..', '..')
const files = shelf(root)
const library = shippedLibrary()

const sorts: [name: string, count: number, sort: Sort][] = [
  ['ordinary', deep ? 500 : 24, { signals: [5, 60] }],
  ['hard', deep ? 60 : 8, { signals: [5, 60], hard: true }],
]

test.each(sorts)(
  '%s projects (%d): the same cost as the integer programme, or neither finds a plan; one in a hundred may be said to be unproven',
  async (name, count, sort) => {
    const highs = (await loadHighs()) as unknown as IntegerProgrammeSolver
    const seed = firstSeed(`referee, ${name}`)
    let planned = 0
    let unproven = 0
    for (let n = 0; n < count; n++) {
      const project: unknown = randomProject(files, seed + n, sort)
      const { plan } = analyse(readDesign(project, 'random'), library).pins
      const ours = {
        status:
          plan!.status === 'proven' ? 'Optimal' : plan!.status === 'clash' ? 'Infeasible' : plan!.status,
        cost: plan!.status === 'proven' ? plan!.cost : undefined,
      }
      const right = judge(highs, programmeOf(project, files), ours)
      if (plan!.status === 'found') {
        // Said to be unproven: a plan all the same, and none costs less than the best.
        unproven++
        expect(right.status).toBe('Optimal')
        expect(plan!.cost).toBeGreaterThanOrEqual(right.cost!)
      } else expect([seed + n, ours]).toEqual([seed + n, right])
      if (ours.status === 'Optimal') planned++
    }
    expect(unproven).toBeLessThanOrEqual(Math.max(1, count / 100))
    // Of a share a seed may draw few that can be planned; of all of them some must be.
    if (deep) expect(planned).toBeGreaterThan(count / 8)
  },
  5_400_000,
)
