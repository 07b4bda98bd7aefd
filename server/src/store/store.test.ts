// The database by itself: migrations with a copy of the file, samples once, parts of one's own beside the shipped ones.

import { copyFileSync, mkdirSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { emptyDesign } from '@root-board/core/design'
import { QueryTypes } from 'sequelize'
import { freshFolder, root } from '../../test/serve'
import { readDemoFolder } from '../files'
import { type Database, integrity, openDatabase } from './database'
import { DrawerStore } from './drawer'
import { migrations } from './migrations'
import { ProjectStore } from './projects'

test('write-ahead log and full synchronisation are on', async () => {
  const db = await openDatabase(freshFolder())
  const pragma = async (name: string) =>
    Object.values(
      (await db.reader.query<Record<string, unknown>>(`PRAGMA ${name}`, { type: QueryTypes.SELECT }))[0]!,
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
  const columns = await copy.reader.query<{ name: string }>('PRAGMA table_info(marks)', {
    type: QueryTypes.SELECT,
  })
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
  const lines = async (db: Database) =>
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
      await db.reader.query<{ name: string; notnull: number; pk: number }>(`PRAGMA table_info(${table})`, {
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

describe('one writer, one after another', () => {
  test('what is written at once is all written, none refused as busy, and one save of a version wins', async () => {
    const db = await openDatabase(freshFolder())
    const store = new ProjectStore(db)
    const drawer = new DrawerStore(db)
    const made = await store.create(emptyDesign('Raced'))
    const results = await Promise.all(
      Array.from({ length: 60 }, async (_, i) => {
        await drawer.set(`part-${i}`, i + 1, '')
        await store.create(emptyDesign(`Other ${i}`))
        return store.save(made.id, 1, { ...emptyDesign('Raced'), notes: String(i) })
      }),
    )
    const won = results.flatMap((r) => (r !== 'gone' && 'saved' in r ? [r.saved] : []))
    expect(won).toHaveLength(1)
    // Each answer is of what that save stored, and each refusal shows what stands.
    expect((await store.find(made.id))?.design.notes).toBe(won[0]!.design.notes)
    expect(await store.list()).toHaveLength(61)
    expect(await drawer.list()).toHaveLength(60)
    expect(await integrity(db)).toBe('ok')
    await db.close()
  })
  test('what fails half-way leaves nothing, and the next is not held up', async () => {
    const db = await openDatabase(freshFolder())
    const drawer = new DrawerStore(db)
    await expect(
      db.write(async (w) => {
        await w.query("INSERT INTO drawer (part, count, place, since) VALUES ('a', 1, '', '')")
        throw new Error('stopped')
      }),
    ).rejects.toThrow('stopped')
    await drawer.set('b', 1, '')
    expect((await drawer.list()).map((l) => l.part)).toEqual(['b'])
    await db.close()
  })
  test('of what is written together one fails, and leaves nothing; the others are kept', async () => {
    const db = await openDatabase(freshFolder())
    const drawer = new DrawerStore(db)
    const fails = db.write(async (w) => {
      await w.query("INSERT INTO drawer (part, count, place, since) VALUES ('half', 1, '', '')")
      throw new Error('stopped')
    })
    const settled = await Promise.allSettled([drawer.set('a', 1, ''), fails, drawer.set('b', 1, '')])
    expect(settled.map((s) => s.status)).toEqual(['fulfilled', 'rejected', 'fulfilled'])
    expect((await drawer.list()).map((l) => l.part)).toEqual(['a', 'b'])
    await db.close()
  })
  test('held by another program, what waits is refused together: nobody waits for the others’ waiting', async () => {
    const folder = freshFolder()
    const [db, other] = [await openDatabase(folder), await openDatabase(folder)]
    await db.write((w) => w.query('PRAGMA busy_timeout = 1'))
    const asked = jest.spyOn(db['writer'], 'query')
    const work = () => Promise.resolve('done')
    await other.write(async () => {
      const settled = await Promise.allSettled([db.write(work), db.write(work), db.write(work)])
      expect(settled.map((s) => s.status)).toEqual(['rejected', 'rejected', 'rejected'])
      expect(asked.mock.calls.filter(([sql]) => sql === 'BEGIN IMMEDIATE')).toHaveLength(1)
    })
    await expect(db.write(work)).resolves.toBe('done')
    await other.close()
    await db.close()
  })
  test('questions can’t write', async () => {
    const db = await openDatabase(freshFolder())
    await expect(db.reader.query('DELETE FROM marks')).rejects.toThrow(/readonly|query_only|read/i)
    await db.close()
  })
})

describe('a step that is stopped half-way', () => {
  const broken = (fails: boolean) => ({
    name: '998-only-in-this-test',
    up: async ({ context }: { context: { sequelize: { query: (sql: string) => Promise<unknown> } } }) => {
      await context.sequelize.query('ALTER TABLE marks ADD COLUMN half TEXT')
      if (fails) throw new Error('out of power')
      await context.sequelize.query('ALTER TABLE marks ADD COLUMN whole TEXT')
    },
  })
  test('leaves the file as it was, with a copy that the next try doesn’t overwrite; then it is done', async () => {
    const folder = freshFolder()
    const before = await openDatabase(folder)
    await new ProjectStore(before).create(emptyDesign('Kept'))
    await before.close()
    const columns = async (db: Database) =>
      (await db.reader.query<{ name: string }>('PRAGMA table_info(marks)', { type: QueryTypes.SELECT })).map(
        (c) => c.name,
      )
    const withStep = async <T>(fails: boolean, then: () => Promise<T>): Promise<T> => {
      migrations.push(broken(fails))
      try {
        return await then()
      } finally {
        migrations.pop()
      }
    }
    await withStep(true, () => expect(openDatabase(folder)).rejects.toThrow(/out of power. It is as it was/))
    const still = await openDatabase(folder)
    expect(await columns(still)).toEqual(['name', 'value'])
    await still.close()
    await withStep(false, async () => {
      const after = await openDatabase(folder)
      expect(await columns(after)).toEqual(['name', 'value', 'half', 'whole'])
      expect((await new ProjectStore(after).list()).map((p) => p.name)).toEqual(['Kept'])
      await after.close()
    })
    expect(
      readdirSync(folder)
        .filter((f) => f.includes('before'))
        .sort(),
    ).toEqual([
      'root-board.sqlite.before-998-only-in-this-test',
      'root-board.sqlite.before-998-only-in-this-test-2',
    ])
  })
})

test('samples that fail half-way are none, and are put in whole the next time', async () => {
  const db = await openDatabase(freshFolder())
  let calls = 0
  const failing = new ProjectStore(db, (design) => {
    calls++
    return calls === 3 ? Promise.reject(new Error('stopped')) : Promise.resolve(design)
  })
  await expect(failing.addSamplesOnce(() => readDemoFolder(root))).rejects.toThrow('stopped')
  expect(await failing.list()).toEqual([])
  const store = new ProjectStore(db)
  await Promise.all([1, 2, 3].map(() => store.addSamplesOnce(() => readDemoFolder(root))))
  expect(await store.list()).toHaveLength(readDemoFolder(root).length)
  await db.close()
})
