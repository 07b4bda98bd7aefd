// npm run deep: what takes longer than npm test may: referees and laws at full size, from fixed seeds. The last line says
// how many passed.

import { readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureInstalled } from './lib/install.mjs'
import { root, run } from './lib/run.mjs'

await ensureInstalled()
const file = join(root, 'node_modules', '.cache', 'deep-result.json')
rmSync(file, { force: true })
const code = await run(
  'jest',
  [
    '--json',
    `--outputFile=${file}`,
    'referee.test',
    'offers.test',
    'solve.test',
    'laws.test',
    'formulas.test',
    'sums/sums.test',
    'physics.test',
    'again.test',
    'supply.test',
  ],
  {
    env: { DEEP: '1' },
  },
)
const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(readFileSync(file, 'utf8'))
console.log(`\n${numPassedTests} passed, ${numFailedTests + numRuntimeErrorTestSuites} failed`)
process.exit(code)
