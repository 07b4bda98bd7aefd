// The command line: JSON, report, faults by path, usage.

import { spawnSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { freshFolder, root } from '../../test/serve'

const analyse = (...args: string[]) =>
  spawnSync(
    process.execPath,
    ['--import', 'tsx', join(root, 'server', 'src', 'commands', 'analyse.ts'), ...args],
    { cwd: root, encoding: 'utf8', maxBuffer: 2 ** 26 },
  )
const demo = join(root, 'demo', 'darkroom-timer.json')

test('a project file as JSON, the same as everywhere', () => {
  const { status, stdout } = analyse(demo)
  expect(status).toBe(0)
  expect(JSON.parse(stdout)).toMatchObject({ findings: [], pins: { assignment: { 'i2c.SDA': 'PA4' } } })
}, 30_000)

test('as a report to read', () => {
  const { status, stdout } = analyse(demo, '--text')
  expect([status, stdout.split('\n')[0]]).toEqual([0, 'Darkroom timer'])
}, 30_000)

test('a faulty file names file and path and ends with 1', () => {
  const file = join(freshFolder(), 'odd.json')
  const design = JSON.parse(readFileSync(demo, 'utf8')) as {
    stance: string
    needs: { devices: { count: unknown }[] }
  }
  design.stance = 'bold'
  design.needs.devices[2]!.count = 'many'
  writeFileSync(file, JSON.stringify(design))
  const { status, stderr, stdout } = analyse(file)
  expect([status, stdout]).toEqual([1, ''])
  expect(stderr).toMatch(/odd\.json: stance: /)
  expect(stderr).toMatch(/odd\.json: needs\.devices\[2\]\.count: /)
}, 30_000)

test.each([[[]], [['--html', demo]]])(
  'usage with %j',
  (args) => {
    const { status, stderr } = analyse(...args)
    expect([status, stderr]).toEqual([2, expect.stringMatching(/^Usage/)])
  },
  30_000,
)

test('what installing prints never gets into what a command prints', () => {
  const noisy = (options: string) =>
    spawnSync(
      process.execPath,
      [
        '--input-type=module',
        '-e',
        `import { run } from './scripts/lib/run.mjs'; await run('node', ['-e', 'console.log("added 824 packages")'], ${options})`,
      ],
      { cwd: root, encoding: 'utf8' },
    )
  const kept = noisy('{ toStderr: true }')
  expect([kept.stdout, kept.stderr.includes('added 824 packages')]).toEqual(['', true])
  expect(noisy('{}').stdout).toContain('added 824 packages')
  const install = readFileSync(join(root, 'scripts', 'lib', 'install.mjs'), 'utf8')
  expect([install.includes('console.log'), install.includes('toStderr: true')]).toEqual([false, true])
})
