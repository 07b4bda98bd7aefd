// npm run deep: what takes longer than npm test may: referees and laws at full size, from fixed seeds. The last line says
// how many passed.

import { readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuilt } from './lib/build.mjs'
import { ensureChromium } from './lib/chromium.mjs'
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
    'power/rank.test',
    'power/streams.test',
    'intake/habits.test',
    'limits/habits.test',
    'server/src/requests.test',
  ],
  {
    env: { DEEP: '1' },
  },
)
const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(readFileSync(file, 'utf8'))
// The program ended in the middle of everything it does.
const tortured = await run('tsx', ['scripts/torture/run.ts'])
// Every page on a phone in both lights; a page left sixty times.
await ensureBuilt()
const seen = (await ensureChromium())
  ? await run('playwright', ['test', 'access', 'store'], { env: { DEEP: '1' } })
  : 1
console.log(
  `\n${numPassedTests} passed, ${numFailedTests + numRuntimeErrorTestSuites} failed; pages: ${seen === 0 ? 'passed' : 'failed'}; torture: ${tortured === 0 ? 'passed' : 'failed'}`,
)
process.exit(code || seen || tortured)
