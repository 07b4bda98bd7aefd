// The examples in CONTRIBUTING.md are files here: each is quoted as it is, and each works.

import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { bleeder } from '../test/examples/bleeder'
import { noButton } from '../test/examples/no-button'
import { powerLoad } from '../test/examples/power-load'
import { warmthStage } from '../test/examples/warmth-stage'
import { demo, shippedLibrary } from '../test/files'
import { project } from '../test/project'
import { allChecks, analyse } from './analysis'
import { stagesInTurn } from './analysis/stages'
import { stockOf } from './circuit'
import { applyEdits } from './design'
import { inTurn, runChecks, runStages, type Stages } from './findings'
import { readPart } from './parts'
import { steps } from './patience'

const library = shippedLibrary()
const folder = join(__dirname, '..', 'test', 'examples')
const read = (name: string) => readFileSync(join(folder, name), 'utf8')

test('each example is quoted as it stands', () => {
  const text = readFileSync(join(__dirname, '..', '..', 'CONTRIBUTING.md'), 'utf8')
  // Beside the room they import from '..'; here from where the room is.
  const beside = (code: string) =>
    code.replace(/'\.\.\/\.\.\/src\/circuit\/models\//g, "'./").replace(/'\.\.\/\.\.\/src\/blocks\//g, "'./")
  for (const name of readdirSync(folder)) {
    const here = name.startsWith('no-') ? '../../' : '../'
    const quoted = beside(read(name)).replace(/\.\.\/\.\.\/src\//g, here)
    expect([name, text.includes(`\n${quoted}\`\`\``)]).toEqual([name, true])
  }
})

test('the part is read', () => {
  const part = readPart(JSON.parse(read('led-amber.json')), 'led-amber.json')
  expect(part).toMatchObject({ kind: 'led', currentAbsolute: { max: 0.03 } })
})

test('the check fires, its fix clears it, and it is silent where there is a button', () => {
  expect(allChecks.some((c) => c.id === noButton.id)).toBe(false)
  const told = (design: ReturnType<typeof project>) =>
    runChecks([noButton], analyse(design, library) as unknown as Stages)
  const bare = project({ chip: 'td8-08-dip', devices: [['lamp-red', 'Lamp', 'to-ground']] })
  const [finding] = told(bare)
  expect(finding).toMatchObject({ check: 'needs.no-button', stage: 'needs', severity: 'notes' })
  expect(told(applyEdits(bare, finding!.fixes[0]!.edits))).toEqual([])
})

test('the stage takes its place behind what it stands on', () => {
  const all = inTurn([warmthStage, ...stagesInTurn])
  const at = (name: string) => all.findIndex((s) => s.name === name)
  expect(at('warmth')).toBeGreaterThan(at('power'))
  const design = demo('darkroom-timer')
  const given = { design, library, patience: steps(20_000) }
  const { warmth, power } = runStages(all, given, []).results
  const [u, i] = [power.supplies.open.source!.value, power.fromSource.value]
  expect(warmth!.value.typ).toBeCloseTo(u.typ * i.typ, 9)
})

test('the support part is in by the book, and says what it draws', () => {
  const design = { ...demo('darkroom-timer'), stance: 'by-the-book' as const }
  const { power, clock, pins, chip } = analyse(design, library)
  const [rail, stock, supplies] = [power.rail!, stockOf(library), power.supplies]
  const parts = bleeder.parts!({ design, library, stock, chip: chip.chip!, clock, pins, rail, supplies })
  expect(parts).toMatchObject([{ key: 'bleeder', present: true, value: { value: 10_000 } }])
  // 5 V at 10 kΩ, all the time, in the rail’s current.
  expect(parts[0]!.draws!.value.typ).toBeCloseTo(0.5e-3, 9)
})

test('the element model: twice the voltage, half the current; and its slope', () => {
  const at = (u: number) => powerLoad.respond({ power: 2, full: 4 }, { v: [u, 0], i: [], t: 0, share: 1 })
  expect([at(5).into[0], at(10).into[0], at(2).into[0]]).toEqual([0.4, 0.2, 0.25])
  expect(at(5).slopes[0]![0]).toBeCloseTo((at(5 + 1e-6).into[0]! - at(5 - 1e-6).into[0]!) / 2e-6, 6)
})
