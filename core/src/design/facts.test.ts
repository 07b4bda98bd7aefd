// A project goes on with the facts it was planned with: parts that change or vanish in the library change nothing in it
// until its builder takes the new facts over.

import { demo, shippedLibrary } from '../../test/files'
import { analyse, previewEdits } from '../analysis'
import { type Chip, findPart, type Library, makeLibrary, type Part } from '../parts'
import {
  applyEdits,
  changedParts,
  type Design,
  emptyDesign,
  libraryFor,
  partsNamed,
  readDesign,
  withFactsKept,
  withOwnFactsOnly,
} from '.'

const library = shippedLibrary()
const timer = withFactsKept(demo('darkroom-timer'), library)
const without = (id: string): Library => makeLibrary(Object.values(library.parts).filter((p) => p.id !== id))
const withPart = (part: Part): Library =>
  makeLibrary([...Object.values(library.parts).filter((p) => p.id !== part.id), part])
const chip = findPart(library, 'chip', 'td8-28-dip')!
/** The same chip on a new sheet: it stands less. */
const weaker: Chip = {
  ...chip,
  supply: { ...chip.supply, recommended: { min: 1.8, max: 3.6, kind: 'recommended' } },
}
const checksOf = (design: Design, shelf: Library) =>
  analyse(design, libraryFor(design, shelf)).findings.map((f) => f.check)

test('every part that a project names is kept, and every part that those speak of', () => {
  const kept = Object.keys(timer.parts!)
  expect(kept).toEqual(expect.arrayContaining(partsNamed(timer)))
  // The red lamp’s LED, the buzzer’s MOSFET and diode.
  expect(kept).toEqual(expect.arrayContaining(['led-red', 'nfet-small', 'diode-small']))
  expect(kept).not.toContain('led-white')
  expect(withFactsKept(timer, library)).toBe(timer)
  // What charges its cell and from where, and what switches a load in the place of what its file proposes.
  const door = applyEdits(demo('coop-door'), [
    { kind: 'setTransistor', id: 'd1', signal: 'drive', part: 'nfet-low', name: '' },
  ])
  expect(partsNamed(door)).toEqual(expect.arrayContaining(['bc42-sparing', 'usb-port', 'nfet-low']))
  // What its lead is made of.
  expect(partsNamed(demo('signal-cabin'))).toEqual(
    expect.arrayContaining(['wire-1-5', 'terminal-screw', 'fuse-4', 'adapter-5v-heavy']),
  )
})

test('facts come with an edit and go with it; undoing brings the same document back', () => {
  const added = applyEdits(timer, [
    { kind: 'addDevices', devices: [{ part: 'lamp-white', name: 'White', count: 1 }] },
  ])
  const now = withFactsKept(added, library)
  expect(Object.keys(now.parts!)).toEqual(expect.arrayContaining(['lamp-white', 'led-white']))
  const { id } = now.needs.devices.find((d) => d.part === 'lamp-white')!
  const gone = withFactsKept(applyEdits(now, [{ kind: 'removeDevice', id }]), library)
  expect(gone.parts).not.toHaveProperty('led-white')
})

test('as many facts as parts are not the same facts', () => {
  const swapped = applyEdits(timer, [{ kind: 'chooseRegulator', part: 'br5-plain', name: '' }])
  expect(Object.keys(swapped.parts!)).toContain('bl5-cool')
  const now = Object.keys(withFactsKept(swapped, library).parts!)
  expect(now).toContain('br5-plain')
  expect(now).not.toContain('bl5-cool')
})

test('what the library says later changes nothing here, and is told field by field', () => {
  const shelf = withPart(weaker)
  expect(checksOf(timer, shelf)).toEqual(checksOf(timer, library))
  expect(checksOf(demo('darkroom-timer'), shelf)).toContain('chip.supply-out-of-range')
  const [changed, ...others] = changedParts(timer, shelf)
  expect(others).toEqual([])
  expect(changed).toMatchObject({ kept: { id: 'td8-28-dip' }, now: { id: 'td8-28-dip' } })
  expect(changed!.differences.map((d) => [d.path, d.before, d.after])).toContainEqual([
    'supply.recommended.max',
    5.5,
    3.6,
  ])
  expect(changedParts(timer, library)).toEqual([])
})

test('taken over by choice, with a preview of what that does, and undone as any edit', () => {
  const shelf = withPart(weaker)
  const edit = { kind: 'takeFacts' as const, part: weaker }
  const known = libraryFor(timer, shelf)
  const preview = previewEdits(analyse(timer, known), known, [edit])
  expect(preview.appearing.map((f) => f.check)).toContain('chip.supply-out-of-range')
  const after = applyEdits(timer, [edit])
  expect(checksOf(after, shelf)).toContain('chip.supply-out-of-range')
  expect(changedParts(after, shelf)).toEqual([])
  expect(checksOf(timer, shelf)).not.toContain('chip.supply-out-of-range')
})

test('a vanished part goes on serving the project that has it', () => {
  const shelf = without('td8-28-dip')
  expect(checksOf(timer, shelf)).toEqual(checksOf(timer, library))
  expect(changedParts(timer, shelf)).toMatchObject([{ kept: { id: 'td8-28-dip' } }])
  expect(changedParts(timer, shelf)[0]).not.toHaveProperty('now')
  expect(checksOf(demo('darkroom-timer'), shelf)).toContain('chip.unknown')
})

test('a project file carries its facts to a bench without them; spoilt facts are refused by their place', () => {
  const brought = readDesign(JSON.parse(JSON.stringify(timer)), 'brought')
  expect(
    checksOf(brought, makeLibrary(Object.values(library.parts).filter((p) => !p.id.startsWith('td8')))),
  ).toEqual(checksOf(timer, library))
  const spoilt = JSON.parse(JSON.stringify(timer)) as { parts: Record<string, Record<string, unknown>> }
  spoilt.parts['led-red']!.current = '5 V'
  expect(() => readDesign(spoilt, 'x')).toThrow(/parts\.led-red\.current\.typ/)
  spoilt.parts['led-red'] = { ...spoilt.parts['led-green'], ...timer.parts!['led-red'], id: 'led-other' }
  expect(() => readDesign(spoilt, 'x')).toThrow(/must be led-red, not led-other/)
})

test('another thread is told only what it can’t know', () => {
  expect(withOwnFactsOnly(timer, library).parts).toBeUndefined()
  expect(Object.keys(withOwnFactsOnly(timer, withPart(weaker)).parts!)).toEqual(['td8-28-dip'])
  expect(libraryFor(emptyDesign('x'), library)).toBe(library)
})
