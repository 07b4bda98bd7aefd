// npm test: everything that must hold, in the order in which it fails fastest. The last line is what CI reads.

import { readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuilt } from './lib/build.mjs'
import { ensureChromium } from './lib/chromium.mjs'
import { ensureInstalled } from './lib/install.mjs'
import { must, root, run } from './lib/run.mjs'

await ensureInstalled()
const browser = await ensureChromium()

const step = async (what, command, ...args) => {
  console.log(`\n— ${what}`)
  await must(what, command, args)
}
await step('Format', 'npm', 'run', '--silent', 'format:check')
await step('Lint', 'npm', 'run', '--silent', 'lint')
await step('Types', 'npm', 'run', '--silent', 'types')
await step('Rooms', 'npm', 'run', '--silent', 'rooms')

const cache = join(root, 'node_modules', '.cache')
const results = { jest: join(cache, 'jest-result.json'), e2e: join(cache, 'playwright-result.json') }
for (const file of Object.values(results)) rmSync(file, { force: true })
const read = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'))
  } catch {
    return undefined
  }
}

console.log('\n— Jest')
const jestCode = await run('jest', ['--json', `--outputFile=${results.jest}`], {})
console.log('\n— Build')
await ensureBuilt()
console.log('\n— Torture, a small share')
const tortured = await run('tsx', ['scripts/torture/run.ts'], {
  env: { SHARE: '0.03', SEED: String(Date.now() % 1e9) },
})
console.log('\n— Playwright')
const e2eCode = browser
  ? await run('playwright', ['test'], { env: { PLAYWRIGHT_JSON_OUTPUT_NAME: results.e2e } })
  : 1

const jest = read(results.jest)
const e2e = read(results.e2e)?.stats
const passed =
  (jest?.numPassedTests ?? 0) + (tortured === 0 ? 1 : 0) + (e2e?.expected ?? 0) + (e2e?.flaky ?? 0)
const failed =
  (tortured === 0 ? 0 : 1) +
  (jest ? jest.numFailedTests + jest.numRuntimeErrorTestSuites : 1) +
  (e2e ? e2e.unexpected : 1)
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(jestCode === 0 && e2eCode === 0 && failed === 0 ? 0 : 1)
