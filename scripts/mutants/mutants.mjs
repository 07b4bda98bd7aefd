// npm run mutants -- ROOM [--count N] [--seed N]: puts faults into a room, one at a time, and asks the tests about each.
// The last lines name those that no test noticed. Text and what is only logged are left out.

import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { ensureInstalled } from '../lib/install.mjs'
import { root } from '../lib/run.mjs'
import { caughtSoFar } from './caught.mjs'
import { keyOf } from './key.mjs'
import { roomOf } from '../lib/rooms.mjs'

await ensureInstalled()
const { Stryker } = await import('@stryker-mutator/core')
const { Instrumenter } = await import('@stryker-mutator/instrumenter')

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { count: { type: 'string' }, seed: { type: 'string' } },
})
if (positionals.length !== 1) {
  console.error('Usage: npm run mutants -- ROOM [--count N] [--seed N]')
  process.exit(2)
}
const { project, source, suites } = roomOf(positionals[0])
const seed = values.seed ? Number(values.seed) : Date.now() % 1_000_000

/** Words are for reading; what they must say is asserted where it matters. */
const excludedMutations = ['StringLiteral']

const quiet = new Proxy(
  {},
  { get: (_, name) => (String(name).startsWith('is') ? () => false : () => undefined) },
)
const { mutants } = await new Instrumenter(quiet).instrument(
  source.map((name) => ({
    name: join(root, name),
    content: readFileSync(join(root, name), 'utf8'),
    mutate: true,
  })),
  { excludedMutations, ignorers: [], plugins: null, noHeader: true },
)
const logged = (m) =>
  /\b(log|logger|console)\./.test(readFileSync(m.fileName, 'utf8').split('\n')[m.location.start.line])
const all = mutants.filter((m) => m.status === undefined && !logged(m))

/** A small, good generator (mulberry32): the same seed draws the same sample anywhere. */
const random = ((state) => () => {
  state = (state + 0x6d2b79f5) | 0
  let t = Math.imul(state ^ (state >>> 15), 1 | state)
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296
})(seed)
const count = Math.min(all.length, Number(values.count ?? (all.length > 1000 ? 100 : 40)))
for (let i = 0; i < count; i++) {
  const j = i + Math.floor(random() * (all.length - i))
  ;[all[i], all[j]] = [all[j], all[i]]
}
const sample = all.slice(0, count)
console.log(
  `${positionals[0]}: ${count} of ${all.length} mutants in ${source.length} files, ${suites.length} suites (--seed ${seed} draws them again)`,
)

const work = join(root, '.cache', 'mutants')
mkdirSync(work, { recursive: true })
process.env.SAMPLE = join(work, 'sample.json')
process.env.CAUGHT = join(work, 'caught.txt')
rmSync(process.env.CAUGHT, { force: true })
process.env.SUITES = suites.join(',')
process.env.SEED = String(seed)
writeFileSync(process.env.SAMPLE, JSON.stringify(sample.map(keyOf)))
const place = ({ fileName, location: { start, end } }) =>
  `${fileName.slice(root.length)}:${start.line + 1}:${start.column}-${end.line + 1}:${end.column}`

const started = Date.now()
process.chdir(root)
const results = await new Stryker({
  configFile: undefined,
  mutate: sample.map(place),
  mutator: { excludedMutations, plugins: null },
  testRunner: 'command',
  commandRunner: {
    command: `npx jest --bail --ci --runInBand --silent --selectProjects ${project} --testSequencer ${root}scripts/mutants/order.mjs --reporters default --reporters ${root}scripts/mutants/caught.mjs --runTestsByPath ${suites.join(' ')}`,
  },
  plugins: ['./scripts/mutants/only-the-sample.mjs'],
  checkers: ['only-the-sample'],
  concurrency: 2,
  timeoutMS: 20_000,
  // Other work on the machine must not pass for an endless loop.
  timeoutFactor: 6,
  dryRunTimeoutMinutes: 10,
  tempDirName: '.cache/mutants/sandbox',
  ignorePatterns: ['e2e', 'docs/screenshots', '**/dist', 'data', 'test-results', '.cache'],
  reporters: ['progress-append-only'],
  disableTypeChecks: false,
  allowEmpty: true,
  logLevel: 'warn',
  packageManager: 'npm',
}).runMutationTest()
const caughtBy = Object.entries(
  caughtSoFar().reduce((n, suite) => ({ ...n, [suite]: (n[suite] ?? 0) + 1 }), {}),
).sort((a, b) => b[1] - a[1])
for (const [suite, times] of caughtBy) console.log(`${times} caught by ${suite}`)
rmSync(work, { recursive: true, force: true })

const run = results.filter((m) => m.status !== 'CompileError' && m.status !== 'Ignored')
const missed = run.filter((m) => m.status === 'Survived' || m.status === 'NoCoverage')
for (const m of missed) {
  const lines = readFileSync(m.fileName, 'utf8').split('\n')
  // Stryker's results count lines and columns from 1.
  const { start, end } = m.location
  const line = lines[start.line - 1]
  const was =
    start.line === end.line
      ? line.slice(start.column - 1, end.column - 1)
      : `${line.slice(start.column - 1)} …`
  console.log(
    `\n${m.fileName.slice(root.length)}:${start.line}  ${m.mutatorName}\n  ${line.trim()}\n- ${was}\n+ ${m.replacement.replace(/\s+/g, ' ')}`,
  )
}
const endless = run.filter((m) => m.status === 'Timeout')
for (const m of endless)
  console.log(
    `\nNever ended, and counts as caught: ${m.fileName.slice(root.length)}:${m.location.start.line}  ${m.replacement.replace(/\s+/g, ' ')}`,
  )
console.log(
  `\n${positionals[0]}: ${run.length - missed.length} of ${run.length} caught (${((100 * (run.length - missed.length)) / run.length).toFixed(0)} %), seed ${seed}, ${((Date.now() - started) / 60_000).toFixed(1)} min`,
)
