// Every number that is made by a sum, in every demo and in random projects: the line that is copied evaluates to the value
// that is shown, at the corner that is named.

import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { calculate } from '../../test/calculate'
import { numbersIn } from '../../test/numbers'
import { demo, shippedLibrary } from '../../test/files'
import { begin, demos, formulaTable } from '../../test/formula-table'
import { shelf } from '../../test/referee/files'
import { randomProject } from '../../test/referee/projects'
import { deep, firstSeed } from '../../test/share'
import { readDesign } from '../design'
import { type Analysis, analyse } from '.'

const library = shippedLibrary()

/** What is said not to be proven, on the page too. */
const unproven: string[] = []

/** Checks those made by sums; says how many they are. */
const check = (where: string, analysis: Analysis): number => {
  let made = 0
  for (const worked of numbersIn(analysis)) {
    made++
    expect([where, worked.label, worked.corners !== undefined]).toEqual([where, worked.label, true])
    if (!worked.corners) continue
    const { min, typ, max } = worked.value
    const what = `${where}: ${worked.label} = ${worked.formula}`
    expect([what, min <= typ && typ <= max, [min, typ, max].every(Number.isFinite)]).toEqual([
      what,
      true,
      true,
    ])
    if (worked.unproven) unproven.push(what)
    const largest = Math.max(Math.abs(min), Math.abs(max))
    for (const corner of ['min', 'typ', 'max'] as const) {
      const { line, at } = worked.corners[corner]
      const off = Math.abs(calculate(line) - worked.value[corner])
      // A line of twelve digits does not come out at nothing.
      const nothing = largest === 0 ? 1e-12 : 0
      expect([what, line, off <= 1e-3 * Math.abs(worked.value[corner]) + 1e-9 * largest + nothing]).toEqual([
        what,
        line,
        true,
      ])
      // The inputs are where they can be, and what the formula shows them at.
      worked.inputs.forEach((input, k) => {
        const slack = 1e-9 * (1 + Math.abs(input.value.min) + Math.abs(input.value.max))
        const inside = at[k]! >= input.value.min - slack && at[k]! <= input.value.max + slack
        expect([what, input.symbol, inside]).toEqual([what, input.symbol, true])
      })
    }
  }
  return made
}

test.each(demos)('%s: each copied line evaluates to its number', (name) => {
  const made = check(name, analyse(demo(name), library))
  expect(made).toBeGreaterThan(20)
  expect(unproven).toEqual([])
})

test('random projects: each copied line evaluates to its number', () => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  const seed = firstSeed('formulas')
  let made = 0
  for (let n = 0; n < (deep ? 300 : 100); n++) {
    const project = randomProject(files, seed + n, { signals: [5, 40] }) as { power: object }
    const power = {
      source: ['adapter-9v', 'usb-port', 'cells-3-aa', 'adapter-5v'][n % 4],
      regulator: ['bl5-low', 'bl33-low', undefined][n % 3],
    }
    made += check(
      `seed ${seed + n}`,
      analyse(readDesign({ ...project, power: { ...project.power, ...power } }, 'random'), library),
    )
  }
  expect(made).toBeGreaterThan(400)
  // Of a regulator that its lead leaves no room the search for the furthest may be given up, and of nothing else.
  expect(unproven.filter((u) => !u.includes('min(V_DO, V_in)'))).toEqual([])
  expect(unproven.length).toBeLessThan(made / 1000)
})

// A formula written as a string beside a number is held to it by nothing. In core and page there is none: the only formulas
// are the expressions that sums are made of.
test('no formula is written beside its number', () => {
  const root = join(__dirname, '..', '..', '..')
  const beside = ['core/src', 'web/src', 'server/src'].flatMap((folder) =>
    readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
      .filter(
        (f) =>
          /\.tsx?$/.test(f) && !/\.test\.tsx?$/.test(f) && !(folder === 'core/src' && f.startsWith('sums')),
      )
      .flatMap((f) => readFileSync(join(root, folder, f), 'utf8').match(/^\s*formula(: .*|,)$/gm) ?? [])
      .filter((line) => line.trim() !== 'formula: string'),
  )
  expect(beside).toEqual([])
})

// Written by scripts/formulas.ts out of the sums themselves.
test('docs/formulas.md lists every formula, and none that is not', () => {
  const rows = (text: string) =>
    text
      .split('\n')
      .filter((l) => l.startsWith('| '))
      .map((l) => l.replace(/\s+/g, ' ').trim())
      .slice(2)
  const document = readFileSync(join(__dirname, '..', '..', '..', 'docs', 'formulas.md'), 'utf8').split(
    begin,
  )[1]
  expect(rows(document!)).toEqual(rows(formulaTable()))
})
