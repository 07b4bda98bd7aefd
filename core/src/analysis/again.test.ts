// An analysis that takes over what an edit left alone says what one from nothing says: over random projects and edits.

import { join } from 'node:path'
import { serialize } from 'node:v8'
import { demo, shippedLibrary } from '../../test/files'
import { shelf } from '../../test/referee/files'
import { randomProject } from '../../test/referee/projects'
import { seeded } from '../../test/seeded'
import { deep, firstSeed } from '../../test/share'
import { applyEdits, type Design, type Edit, libraryFor, readDesign, sharing } from '../design'
import { runStages } from '../findings'
import { partsOfKind } from '../parts'
import { steps } from '../patience'
import { spelled } from '../sums'
import { type Analysis, analyse } from '.'
import { stagesInTurn } from './stages'

const library = shippedLibrary()
const sources = partsOfKind(library, 'source').map((s) => s.id)
const regulators = [...partsOfKind(library, 'regulator').map((r) => r.id), null]

/** Anything that a builder might do next. */
const anyEdit = (a: Analysis, random: () => number): Edit => {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!
  const wire = a.pins.plan?.wires.length ? pick(a.pins.plan.wires) : undefined
  const device = a.design.needs.devices.length ? pick(a.design.needs.devices) : undefined
  const free = a.pins.plan?.free.length ? pick(a.pins.plan.free) : undefined
  const part = a.build.support.length ? pick(a.build.support) : undefined
  const edits: (Edit | undefined)[] = [
    { kind: 'renameProject', name: `Project ${Math.floor(random() * 1000)}` },
    { kind: 'setStance', stance: pick(['by-the-book', 'lean', 'bare-bones']) },
    { kind: 'setLimit', limit: 'ambient', value: 10 + Math.floor(random() * 50) },
    { kind: 'setLimit', limit: 'price', value: 5 + Math.floor(random() * 50) },
    { kind: 'chooseSource', part: pick(sources), name: '' },
    { kind: 'chooseRegulator', part: pick(regulators), name: '' },
    {
      kind: 'addDevices',
      devices: [{ part: pick(['lamp-red', 'push-button', 'light-resistor']), name: 'More', count: 1 }],
    },
    device && { kind: 'removeDevice', id: device.id },
    wire && free && { kind: 'lockSignal', signal: wire.signal.id, name: '', pin: free.id },
    part && { kind: pick(['leaveOut', 'putIn'] as const), support: part.key, name: '' },
  ]
  return pick(edits.filter((e) => e !== undefined))
}

test('random edits of random projects', () => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  const first = firstSeed('again', 51)
  let [kept, made] = [0, 0]
  for (let seed = first; seed < first + (deep ? 60 : 3); seed++) {
    const random = seeded(seed)
    let design: Design = readDesign(randomProject(files, seed, { signals: [2, 12] }), 'random')
    let before = analyse(design, library, steps(3000))
    for (let n = 0; n < 6; n++) {
      const edited = applyEdits(design, [anyEdit(before, random)])
      // As it comes to a worker: nothing of it is the same object, until it is made so.
      const sent = structuredClone(edited)
      const shared = sharing(sent, before.design)
      expect(shared).toEqual(edited)
      const after = analyse(shared, libraryFor(shared, library), steps(3000), before)
      const anew = analyse(edited, libraryFor(edited, library), steps(3000))
      expect([seed, n, spelled(after)]).toEqual([seed, n, spelled(anew)])
      // And it can be told to a page.
      expect(() => structuredClone(spelled(after))).not.toThrow()
      for (const stage of ['clock', 'pins', 'chip', 'needs', 'power', 'build'] as const)
        if (after[stage] === before[stage]) kept++
        else made++
      design = edited
      before = after
    }
  }
  // Something was kept, and something was made.
  expect(kept).toBeGreaterThan(made / 10)
  expect(made).toBeGreaterThan(kept / 10)
})

test('no stage keeps what it looks at the design through: all that it makes can be told to another thread', () => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  for (const name of [
    'darkroom-timer',
    'hive-scale',
    'signal-cabin',
    'window-lantern',
    'coop-door',
    7,
    8,
    9,
  ]) {
    const design =
      typeof name === 'string'
        ? demo(name)
        : readDesign(randomProject(files, name, { signals: [4, 12] }), 'x')
    const given = { design, library, patience: steps(3000) }
    for (const [stage, { made }] of runStages(stagesInTurn, given, []).remembered.stages)
      expect(() => serialize({ stage, made })).not.toThrow()
  }
})

test('what was given up for want of patience is tried again', () => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  const design = readDesign(randomProject(files, 77, { signals: [10, 16] }), 'random')
  const hurried = analyse(design, library, steps(0))
  expect(hurried.pins.plan?.status).not.toBe('proven')
  const calm = analyse(design, library, steps(20_000), hurried)
  expect(calm.pins.plan?.status).toBe(analyse(design, library, steps(20_000)).pins.plan?.status)
})

test('another library is another analysis', () => {
  const design = readDesign(
    randomProject(shelf(join(__dirname, '..', '..', '..')), 78, { signals: [2, 6] }),
    'random',
  )
  const before = analyse(design, library)
  const again = analyse(design, library, undefined, before)
  expect(again.build).toBe(before.build)
  const other = { parts: { ...library.parts } }
  expect(analyse(design, other, undefined, before).build).not.toBe(before.build)
})
