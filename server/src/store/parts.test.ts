// Parts of the builder's own: ids that clash, versions, whole libraries at once, what is put away, what can't be read.

import { FaultyFile } from '@root-board/core/parts'
import { freshFolder, root } from '../../test/serve'
import { readLibraryFolder } from '../files'
import { type Database, openDatabase } from './database'
import { DrawerStore } from './drawer'
import { PartStore } from './parts'

const shipped = readLibraryFolder(root)
const own = {
  format: 2,
  kind: 'switch',
  id: 'my-switch',
  name: 'Mine',
  sheet: 'drawer',
  price: 1,
  sort: 'push',
  current: 0.05,
  package: { name: 'x', style: 'radial', legs: 2, pitch: 0.00254, solder: 'through-hole' },
}
let db: Database
let store: PartStore
beforeEach(async () => {
  db = await openDatabase(freshFolder())
  store = new PartStore(db, shipped)
})
afterEach(() => db.close())
const names = async () => (await store.own()).map((p) => [p.id, p.part.name])

test('an id of one’s own that is taken is shown, not overwritten; a sample’s id is refused', async () => {
  expect(await store.add(own, 'a')).toMatchObject({ saved: { version: 1 } })
  expect(await store.add({ ...own, name: 'Another' }, 'b')).toMatchObject({
    taken: { part: { name: 'Mine' } },
  })
  await expect(store.add({ ...own, id: shipped[0]!.id }, 'c')).rejects.toThrow(FaultyFile)
  expect(await names()).toEqual([['my-switch', 'Mine']])
})

test('the same part put in at once is put in once', async () => {
  const answers = await Promise.all(
    Array.from({ length: 50 }, (_, i) => store.add({ ...own, name: `Try ${i}` }, 'a')),
  )
  const saved = answers.flatMap((a) => (typeof a === 'object' && 'saved' in a ? [a.saved] : []))
  expect(saved).toHaveLength(1)
  expect(await names()).toEqual([['my-switch', saved[0]!.part.name]])
  expect(saved[0]!.version).toBe(1)
})

test('a save names its version; a new id moves the part, but never over another', async () => {
  await store.add(own, 'a')
  await store.add({ ...own, id: 'other' }, 'b')
  expect(await store.save('my-switch', 7, own)).toMatchObject({ stale: { version: 1 } })
  expect(await store.save('my-switch', 1, { ...own, id: 'other' })).toMatchObject({ taken: { id: 'other' } })
  expect(await store.save('my-switch', 1, { ...own, id: 'renamed', name: 'New' })).toHaveProperty('saved')
  expect(await names()).toEqual([
    ['other', 'Mine'],
    ['renamed', 'New'],
  ])
  expect(await store.save('my-switch', 1, own)).toBe('gone')
})

test('put away and brought back as it was', async () => {
  await store.add(own, 'a')
  expect(await store.remove('my-switch')).toBe(true)
  expect(await names()).toEqual([])
  expect(await store.restore('my-switch')).toMatchObject({ part: { name: 'Mine' } })
  expect(await store.remove('nothing-like-it')).toBe(false)
})

describe('a whole library', () => {
  const theirs = [
    { ...own, name: 'Theirs' },
    { ...own, id: 'second', name: 'Second' },
  ]
  test.each<['mine' | 'theirs' | 'both', string[][]]>([
    [
      'mine',
      [
        ['my-switch', 'Mine'],
        ['second', 'Second'],
      ],
    ],
    [
      'theirs',
      [
        ['my-switch', 'Theirs'],
        ['second', 'Second'],
      ],
    ],
    [
      'both',
      [
        ['my-switch', 'Mine'],
        ['my-switch-2', 'Theirs'],
        ['second', 'Second'],
      ],
    ],
  ])('an id that both have is asked about, and “%s” is kept', async (choice, after) => {
    await store.add(own, 'a')
    expect(await store.take(theirs, {})).toMatchObject({ clashes: [{ id: 'my-switch' }] })
    expect(await names()).toEqual([['my-switch', 'Mine']])
    await store.take(theirs, { 'my-switch': choice })
    expect(await names()).toEqual(after)
    // Brought once more, there is nothing left to take or to ask.
    if (choice === 'theirs') expect(await store.take(theirs, {})).toEqual({ taken: [] })
  })
  test('one faulty part, and nothing of it is taken; the place is named', async () => {
    const faulty = [theirs[1], { ...own, id: 'third', current: '5 V' }]
    await expect(store.take(faulty, {})).rejects.toMatchObject({
      faults: expect.arrayContaining([expect.objectContaining({ path: 'parts[1].current.typ' })]) as unknown,
    })
    await expect(store.take([theirs[1], theirs[1]], {})).rejects.toThrow(/twice/)
    expect(await names()).toEqual([])
  })
  test('changed sample parts come in under an id of their own, unchanged ones not at all', async () => {
    const sample = shipped.find((p) => p.kind === 'led')!
    expect(await store.take([sample, { ...sample, name: 'Repainted' }].slice(0, 1), {})).toEqual({
      taken: [],
    })
    expect(await store.take([{ ...sample, name: 'Repainted' }], {})).toEqual({ taken: [`${sample.id}-2`] })
  })
})

test('what can’t be read is kept and named; the rest of the library goes on', async () => {
  await store.add(own, 'a')
  await db.write((w) =>
    w.query(
      `INSERT INTO parts (id, part, changedAt) VALUES ('later', '{"format":9,"kind":"switch"}', '2026-01-01')`,
    ),
  )
  expect(await names()).toEqual([['my-switch', 'Mine']])
  const [broken] = await store.unreadable()
  expect(broken).toMatchObject({ id: 'later', file: { format: 9 } })
  expect(broken!.faults[0]!.message).toMatch(/newer version/)
})

test('a file of format 1 is read as one of today', async () => {
  expect(await store.add({ ...own, format: 1 }, 'a')).toMatchObject({ saved: { part: { format: 2 } } })
})

test('the drawer: how many, where, since when; none of it nowhere is no line', async () => {
  const drawer = new DrawerStore(db)
  await drawer.set('led-red', 12, 'box 3')
  await drawer.set('led-red', 11, 'box 3')
  const [line] = await drawer.list()
  expect(line).toMatchObject({ part: 'led-red', count: 11, place: 'box 3' })
  expect(Date.now() - Date.parse(line!.since)).toBeLessThan(60_000)
  await drawer.set('led-red', 0, '')
  expect(await drawer.list()).toEqual([])
})
