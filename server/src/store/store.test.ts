// The database by itself: migrations with a copy of the file, samples once, parts of one's own beside the shipped ones.

import { copyFileSync, mkdirSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { emptyDesign } from '@root-board/core/design'
import { QueryTypes, type Sequelize } from 'sequelize'
import { freshFolder, root } from '../../test/serve'
import { readDemoFolder } from '../files'
import { integrity, openDatabase } from './database'
import { DrawerStore } from './drawer'
import { migrations } from './migrations'
import { ProjectStore } from './projects'

test('write-ahead log and full synchronisation are on', async () => {
  const db = await openDatabase(freshFolder())
  const pragma = async (name: string) =>
    Object.values(
      (await db.query<Record<string, unknown>>(`PRAGMA ${name}`, { type: QueryTypes.SELECT }))[0]!,
    )[0]
  expect([await pragma('journal_mode'), await pragma('synchronous'), await integrity(db)]).toEqual([
    'wal',
    2,
    'ok',
  ])
  await db.close()
})

test('a migration of an existing file leaves a copy from before it, with what was saved last', async () => {
  const folder = freshFolder()
  // Not closed, as after a crash: what was saved last is in the write-ahead log alone.
  const db = await openDatabase(folder)
  await new ProjectStore(db).create(emptyDesign('Old'))
  expect(statSync(join(folder, 'root-board.sqlite-wal')).size).toBeGreaterThan(0)
  migrations.push({
    name: '998-only-in-this-test',
    up: async ({ context }) => context.addColumn('marks', 'extra', { type: 'TEXT' }),
  })
  try {
    const again = await openDatabase(folder)
    expect((await new ProjectStore(again).list()).map((p) => p.name)).toEqual(['Old'])
    await again.close()
  } finally {
    migrations.pop()
  }
  await db.close()
  const other = freshFolder()
  mkdirSync(other, { recursive: true })
  copyFileSync(
    join(folder, 'root-board.sqlite.before-998-only-in-this-test'),
    join(other, 'root-board.sqlite'),
  )
  const copy = await openDatabase(other)
  expect((await new ProjectStore(copy).list()).map((p) => p.name)).toEqual(['Old'])
  const columns = await copy.query<{ name: string }>('PRAGMA table_info(marks)', { type: QueryTypes.SELECT })
  expect(columns.map((c) => c.name)).not.toContain('extra')
  await copy.close()
})

test('a fresh file needs no copy', async () => {
  const folder = freshFolder()
  await (await openDatabase(folder)).close()
  expect(readdirSync(folder).filter((f) => f.includes('before'))).toEqual([])
})

test('samples are put in once, and stay away when put away', async () => {
  const folder = freshFolder()
  let db = await openDatabase(folder)
  let store = new ProjectStore(db)
  await store.addSamplesOnce(() => readDemoFolder(root))
  const samples = await store.list()
  const names = readDemoFolder(root).map((d) => d.name)
  expect(samples.map((s) => s.name).sort()).toEqual([...names].sort())
  const sample = samples.find((s) => s.name === 'Darkroom timer')
  expect(sample).toMatchObject({ sample: true, devices: 8 })
  await store.remove(sample!.id)
  await db.close()
  db = await openDatabase(folder)
  store = new ProjectStore(db)
  await store.addSamplesOnce(() => readDemoFolder(root))
  expect((await store.list()).map((s) => s.name).sort()).toEqual(
    names.filter((n) => n !== 'Darkroom timer').sort(),
  )
  await db.close()
})

test('saving what is gone says so, and a save is what is read back', async () => {
  const db = await openDatabase(freshFolder())
  const store = new ProjectStore(db)
  const made = await store.create(emptyDesign('A'))
  expect(await store.save('nobody', 1, emptyDesign('A'))).toBe('gone')
  const result = await store.save(made.id, 1, { ...emptyDesign('A'), notes: '“quotes”, ; -- \u2028 and 😀' })
  expect(result).toMatchObject({ saved: { version: 2 } })
  expect((await store.find(made.id))?.design.notes).toBe('“quotes”, ; -- \u2028 and 😀')
  await store.remove(made.id)
  expect(await store.save(made.id, 2, emptyDesign('A'))).toBe('gone')
  expect(await store.remove(made.id)).toBe(false)
  await db.close()
})

describe('the drawer', () => {
  const lines = async (db: Sequelize) =>
    (await new DrawerStore(db).list()).map((l) => [l.part, l.count, l.place])
  test('a line goes when there is none of it and nowhere; a place or a number keeps it', async () => {
    const db = await openDatabase(freshFolder())
    const drawer = new DrawerStore(db)
    await drawer.set('led-red', 5, 'tin')
    await drawer.set('led-green', 0, 'box 2')
    await drawer.set('led-blue', 3, '')
    expect(await lines(db)).toEqual([
      ['led-blue', 3, ''],
      ['led-green', 0, 'box 2'],
      ['led-red', 5, 'tin'],
    ])
    await drawer.set('led-red', 6, 'tin')
    await drawer.set('led-green', 0, '')
    await drawer.set('led-blue', 0, '')
    expect(await lines(db)).toEqual([['led-red', 6, 'tin']])
    await db.close()
  })
})

test('the tables, column by column: what must be there and what may be empty', async () => {
  const db = await openDatabase(freshFolder())
  const columns = async (table: string) =>
    (
      await db.query<{ name: string; notnull: number; pk: number }>(`PRAGMA table_info(${table})`, {
        type: QueryTypes.SELECT,
      })
    ).map((c) => `${c.name}${c.pk ? ' key' : c.notnull ? '' : ' or none'}`)
  expect(await columns('projects')).toEqual([
    'id key',
    'design',
    'version',
    'sample',
    'changedAt',
    'deletedAt or none',
  ])
  expect((await columns('parts')).sort()).toEqual([
    'changedAt',
    'deletedAt or none',
    'id key',
    'part',
    'version',
  ])
  expect(await columns('marks')).toEqual(['name key', 'value'])
  expect(await columns('drawer')).toEqual(['part key', 'count', 'place', 'since'])
  await db.close()
})
