// Copies of everything: made, thinned out, looked at, brought back; a damaged file and going on from a copy; a file that
// was taken away under the running program; everything as one file.

import {
  copyFileSync,
  cpSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import type { Everything } from '@root-board/core/api'
import { emptyDesign } from '@root-board/core/design'
import { freshFolder, root } from '../../test/serve'
import { readLibraryFolder } from '../files'
import { Copies, staying } from './copies'
import { type Database, integrity, openDatabase } from './database'
import { DrawerStore } from './drawer'
import { EverythingStore } from './everything'
import { PartStore } from './parts'
import { DamagedProject, ProjectStore } from './projects'

const shipped = readLibraryFolder(root)
const led = JSON.parse(readFileSync(join(root, 'library/small/led-red.json'), 'utf8')) as Record<
  string,
  unknown
>
const own = (id: string, more: object = {}) => ({ ...led, id, ...more })

interface Opened {
  db: Database
  projects: ProjectStore
  parts: PartStore
  drawer: DrawerStore
  copies: Copies
  everything: EverythingStore
}
const opening: Database[] = []
const open = async (folder = freshFolder(), from?: string): Promise<Opened> => {
  const db = await openDatabase(folder, from)
  opening.push(db)
  const parts = new PartStore(db, shipped)
  return {
    db,
    parts,
    projects: new ProjectStore(db),
    drawer: new DrawerStore(db),
    copies: new Copies(db),
    everything: new EverythingStore(db, (id) => parts.sample(id) !== undefined),
  }
}
const close = async (db: Database) => {
  opening.splice(opening.indexOf(db), 1)
  await db.close()
}
afterEach(async () => {
  for (const db of opening.splice(0)) await db.close()
})
const names = async ({ projects }: Opened) => (await projects.list()).map((p) => p.name).sort()
const fileOf = (folder: string) => join(folder, 'root-board.sqlite')

describe('which copies stay', () => {
  const at = (made: string) => ({ name: made, made })
  test('the last ten, and the last of each of seven days', () => {
    // Twelve within one day, and one on each of nine days before it.
    const today = Array.from({ length: 12 }, (_, i) => at(`2026-03-20T${String(10 + i)}:00:00Z`))
    const before = Array.from({ length: 9 }, (_, i) => at(`2026-03-${String(11 + i)}T12:00:00Z`))
    const stay = [...staying([...before, ...today])].sort()
    expect(stay).toEqual(
      [
        // Of today the ten from 12 to 21 o'clock; of the six days before it one each; no more of the 11th to the 13th.
        ...today.slice(2),
        ...before.slice(3),
      ]
        .map((c) => c.name)
        .sort(),
    )
  })
  test('of a day the newest is kept, not the first', () => {
    const many = Array.from({ length: 11 }, (_, i) => at(`2026-04-02T00:00:${String(10 + i)}Z`))
    const stay = staying([...many, at('2026-04-01T08:00:00Z'), at('2026-04-01T20:00:00Z')])
    expect([stay.has('2026-04-01T20:00:00Z'), stay.has('2026-04-01T08:00:00Z')]).toEqual([true, false])
  })
})

test('a copy is made where something changed, and only there; it is whole', async () => {
  const folder = freshFolder()
  const { db, copies, projects } = await open(folder)
  await projects.create(emptyDesign('A'))
  await copies.makeIfChanged()
  await copies.makeIfChanged()
  expect(copies.list()).toHaveLength(1)
  await projects.create(emptyDesign('B'))
  await copies.makeIfChanged()
  expect(copies.list()).toHaveLength(2)
  expect(readdirSync(join(folder, 'copies')).filter((f) => f.includes('unfinished'))).toEqual([])
  const other = freshFolder()
  copyFileSync(join(folder, 'copies', copies.list()[0]!.name), fileOf(other))
  const copy = await open(other)
  expect([await names(copy), await integrity(copy.db), await integrity(db)]).toEqual([['A', 'B'], 'ok', 'ok'])
})

test('one is made at the start, and one an hour where something was changed', async () => {
  const { copies, projects } = await open()
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'setTimeout', 'nextTick', 'queueMicrotask', 'Date'] })
  try {
    const until = async (count: number) => {
      for (let i = 0; i < 500 && copies.list().length < count; i++)
        await new Promise((resolve) => setTimeout(resolve, 5))
      expect(copies.list()).toHaveLength(count)
    }
    await projects.create(emptyDesign('A'))
    copies.begin()
    await until(1)
    await projects.create(emptyDesign('B'))
    jest.advanceTimersByTime(59 * 60_000)
    expect(copies.list()).toHaveLength(1)
    jest.advanceTimersByTime(60_000)
    await until(2)
    jest.advanceTimersByTime(10 * 3_600_000)
    // By a copy of one's own what the timer would have begun is over as well.
    await copies.make()
    expect(copies.list()).toHaveLength(3)
    copies.end()
  } finally {
    jest.useRealTimers()
  }
})

test('looked at, a copy says what it has and what it lacks; brought back it is all there, and what was is a copy', async () => {
  const all = await open()
  const { copies, projects, parts, drawer } = all
  const kept = await projects.create(emptyDesign('Kept'))
  const changed = await projects.create(emptyDesign('Before'))
  await parts.add(own('own-one'), 'part')
  await drawer.set('led-red', 5, 'tin')
  await parts.add(own('own-away'), 'part')
  await parts.remove('own-away')
  const { name } = await copies.make()
  await projects.save(changed.id, 1, emptyDesign('After'))
  await projects.remove(kept.id)
  await projects.create(emptyDesign('New'))
  await parts.save('own-one', 1, own('own-one', { price: 9 }))
  await parts.add(own('own-two'), 'part')
  await drawer.set('led-red', 7, 'box')
  await drawer.set('led-green', 1, '')
  await projects.remove((await projects.create(emptyDesign('New, put away'))).id)
  const content = await copies.look(name)
  if (!content || 'damage' in content) throw new Error('no copy')
  expect(content.projects.map((p) => [p.name, p.now]).sort()).toEqual([
    ['Before', 'other'],
    ['Kept', 'none'],
  ])
  // Of the drawer one line is another and one is new; what was made since and put away is gone afterwards too.
  expect([content.parts, content.newer, content.drawer]).toEqual([
    [{ id: 'own-one', now: 'other' }],
    { projects: expect.arrayContaining(['New', 'New, put away']) as string[], parts: ['own-two'] },
    2,
  ])
  expect(content.newer.projects).toHaveLength(2)
  const done = await copies.bringBack(name)
  if (!done || 'damage' in done) throw new Error('not brought back')
  expect(await names(all)).toEqual(['Before', 'Kept'])
  expect((await parts.own()).map((p) => [p.id, p.part.price])).toEqual([['own-one', led.price]])
  expect((await drawer.list()).map((l) => [l.count, l.place])).toEqual([[5, 'tin']])
  // A page that still shows what was stored last, version 2, must not win over what was brought back.
  expect(await projects.save(changed.id, 2, emptyDesign('Stale'))).toMatchObject({ stale: { version: 3 } })
  const before = await copies.look(done.before.name)
  expect(before && 'projects' in before && before.projects.map((p) => p.name).sort()).toEqual([
    'After',
    'New',
  ])
})

test('what is saved while a copy is brought back is in the copy of before, or stays', async () => {
  const all = await open()
  const { name } = await all.copies.make()
  const answered: string[] = []
  let over = false
  const saving = (async () => {
    while (!over) {
      const some = [0, 1, 2].map((i) => `P${answered.length + i}`)
      answered.push(
        ...(await Promise.all(some.map((n) => all.projects.create(emptyDesign(n))))).map((p) => p.id),
      )
    }
  })()
  const done = await all.copies.bringBack(name)
  over = true
  await saving
  if (!done || 'damage' in done) throw new Error('not brought back')
  const before = await all.copies.look(done.before.name)
  if (!before || 'damage' in before) throw new Error('no copy')
  const found = new Set([...before.projects, ...(await all.projects.list())].map((p) => p.id))
  expect(answered.filter((id) => !found.has(id))).toEqual([])
  expect(answered.length).toBeGreaterThan(before.projects.length)
})

test('a copy that could not be made is told to who looks, until one is', async () => {
  const folder = freshFolder()
  const { db, copies } = await open(folder)
  // A file stands where the folder of copies should be.
  writeFileSync(join(folder, 'copies'), '')
  const said = new Promise((resolve) => {
    const failing = new Copies(db, () => resolve(failing.state().failed))
    failing.begin()
  })
  expect(await said).toMatch(/EEXIST|ENOTDIR|not a directory/)
  rmSync(join(folder, 'copies'))
  await copies.make()
  expect(copies.state()).toEqual({ copies: [expect.objectContaining({})], failed: undefined })
})

test('no copy, a name that leads elsewhere and a copy that is spoilt are not brought back, and nothing is changed', async () => {
  const folder = freshFolder()
  const all = await open(folder)
  await all.projects.create(emptyDesign('A'))
  const { name } = await all.copies.make()
  await all.projects.create(emptyDesign('B'))
  for (const wrong of ['2020-01-01T00-00-00-000.sqlite', '../root-board.sqlite', '..', ''])
    expect([await all.copies.look(wrong), await all.copies.bringBack(wrong)]).toEqual([undefined, undefined])
  truncateSync(join(folder, 'copies', name), 9000)
  expect(await all.copies.bringBack(name)).toEqual({ damage: expect.any(String) as string })
  expect(await names(all)).toEqual(['A', 'B'])
})

describe('a data file that is damaged', () => {
  const spoil: [string, (file: string) => void][] = [
    ['in its header', (file) => writeFileSync(file, 'no database at all, but a text of some length')],
    ['cut short', (file) => truncateSync(file, 9000)],
    [
      'in its pages',
      (file) => {
        const bytes = readFileSync(file)
        for (let at = 4096; at < bytes.length; at += 7) bytes[at] = 0xa5
        writeFileSync(file, bytes)
      },
    ],
  ]
  test.each(spoil)('%s: it says so, and what to go on from; it is kept', async (_, spoilIt) => {
    const folder = freshFolder()
    const first = await open(folder)
    await first.projects.create(emptyDesign('Good'))
    await first.copies.make()
    await first.projects.create(emptyDesign('Newest'))
    const { name } = await first.copies.make()
    await first.projects.create(emptyDesign('Later'))
    await close(first.db)
    spoilIt(fileOf(folder))
    const spoilt = readFileSync(fileOf(folder))
    await expect(openDatabase(folder)).rejects.toThrow(
      new RegExp(`is damaged .* nothing was changed.*ROOT_BOARD_FROM=${name} to go on from it`),
    )
    expect(readFileSync(fileOf(folder)).equals(spoilt)).toBe(true)
    const again = await open(folder, name)
    expect([await names(again), await integrity(again.db)]).toEqual([['Good', 'Newest'], 'ok'])
    expect(readFileSync(`${fileOf(folder)}.damaged`).equals(spoilt)).toBe(true)
    // Still said at the next start, it changes nothing: the file is whole now.
    await again.projects.create(emptyDesign('Further'))
    await close(again.db)
    const said: string[] = []
    await (await openDatabase(folder, name, (words) => said.push(words))).close()
    expect(said).toEqual([expect.stringMatching(/is whole, so ROOT_BOARD_FROM=.* changed nothing/)])
    expect(await names(await open(folder))).toEqual(['Further', 'Good', 'Newest'])
  })
  test('what its log still had is not read into the copy', async () => {
    const folder = freshFolder()
    const first = await open(folder)
    await first.projects.create(emptyDesign('Good'))
    const { name } = await first.copies.make()
    await close(first.db)
    const second = await open(folder)
    await second.projects.create(emptyDesign('In the log alone'))
    // As after a power cut: the log lies there, and has some pages of the file and not the others.
    const cut = freshFolder()
    cpSync(folder, cut, { recursive: true })
    expect(statSync(`${fileOf(cut)}-wal`).size).toBeGreaterThan(0)
    const bytes = readFileSync(fileOf(cut))
    for (let at = 4096; at < bytes.length; at += 7) bytes[at] = 0xa5
    writeFileSync(fileOf(cut), bytes)
    const again = await open(cut, name)
    expect([await names(again), await integrity(again.db)]).toEqual([['Good'], 'ok'])
    expect(statSync(`${fileOf(cut)}.damaged-wal`).size).toBeGreaterThan(0)
  })
  test('what was never finished is swept away, and nothing else', async () => {
    const folder = freshFolder()
    const first = await open(folder)
    const { name } = await first.copies.make()
    await close(first.db)
    const left = [
      'root-board.sqlite.coming',
      'root-board.sqlite.before-1.unfinished',
      `copies/${name}.unfinished-journal`,
    ]
    for (const f of [...left, 'notes.txt']) writeFileSync(join(folder, f), 'half')
    await open(folder)
    const there = [...readdirSync(folder), ...readdirSync(join(folder, 'copies')).map((f) => `copies/${f}`)]
    expect(left.filter((f) => there.includes(f))).toEqual([])
    expect(there).toEqual(expect.arrayContaining(['notes.txt', 'root-board.sqlite', `copies/${name}`]))
  })
  test('without a copy that is whole it says that there is none', async () => {
    const folder = freshFolder()
    mkdirSync(join(folder, 'copies'))
    for (const file of [fileOf(folder), join(folder, 'copies', '2026-01-01T00-00-00-000.sqlite')])
      writeFileSync(file, 'nothing that is a database, and long enough to be read as one'.repeat(20))
    await expect(openDatabase(folder)).rejects.toThrow(/there is no copy of it that is whole/)
    await expect(openDatabase(folder, 'elsewhere.sqlite')).rejects.toThrow(
      /There is no copy “elsewhere.sqlite”/,
    )
    await expect(openDatabase(folder, '2026-01-01T00-00-00-000.sqlite')).rejects.toThrow(/is damaged too/)
  })
})

describe.each([
  ['deleted', (folder: string) => renameSync(fileOf(folder), `${fileOf(folder)}.taken`)],
  [
    'replaced by another',
    (folder: string) => {
      renameSync(fileOf(folder), `${fileOf(folder)}.taken`)
      writeFileSync(fileOf(folder), 'another')
    },
  ],
])('the file is %s while the program runs', (_, take) => {
  test('nothing is answered as kept; what was in it is beside it', async () => {
    const folder = freshFolder()
    const { projects, db } = await open(folder)
    await projects.create(emptyDesign('Rescued'))
    take(folder)
    await expect(projects.create(emptyDesign('Lost'))).rejects.toThrow(
      /was deleted, replaced or written by another program while this one ran, and nothing more is kept. What was in it is in root-board.sqlite.rescued/,
    )
    await expect(db.mustBeThere()).rejects.toThrow(/Stop the program/)
    const other = freshFolder()
    copyFileSync(`${fileOf(folder)}.rescued`, fileOf(other))
    expect(await names(await open(other))).toEqual(['Rescued'])
    // What lies there again is what is left of it: nothing more is answered until the start.
    rmSync(fileOf(folder), { force: true })
    renameSync(`${fileOf(folder)}.taken`, fileOf(folder))
    await expect(db.mustBeThere()).rejects.toThrow(/Stop the program/)
    expect(readdirSync(folder).filter((f) => f.includes('rescued'))).toHaveLength(1)
  })
})

describe.each([
  ['another of the program’s', (file: string, other: string) => copyFileSync(other, file)],
  ['half of itself', (file: string) => truncateSync(file, 4096)],
])('the file has %s written into it while the program runs', (_, overwrite) => {
  const running = async () => {
    const other = await open()
    await other.projects.create(emptyDesign('Other'))
    await close(other.db)
    const folder = freshFolder()
    const first = await open(folder)
    await first.projects.create(emptyDesign('First'))
    await close(first.db)
    const all = await open(folder)
    await all.projects.create(emptyDesign('In the log'))
    overwrite(fileOf(folder), fileOf(other.db.folder))
    return { ...all, folder, put: readFileSync(fileOf(folder)) }
  }
  test('nothing is answered as kept, nothing is written into it, and what the log had is beside it', async () => {
    const { projects, db, folder, put } = await running()
    await expect(projects.create(emptyDesign('Lost'))).rejects.toThrow(
      /written by another program while this one ran, and nothing more is kept. Of what was in it there are the copies/,
    )
    await expect(db.mustBeThere()).rejects.toThrow(/Stop the program/)
    await close(db)
    expect(readFileSync(fileOf(folder)).equals(put)).toBe(true)
    expect(statSync(`${fileOf(folder)}.rescued-wal`).size).toBeGreaterThan(0)
  })
  test('stopped before it was noticed, it is as it was put there, and is opened as that', async () => {
    const { db, folder, put } = await running()
    await close(db)
    expect(readFileSync(fileOf(folder)).equals(put)).toBe(true)
    if (put.length > 4096) expect(await names(await open(folder))).toEqual(['Other'])
    else await expect(openDatabase(folder)).rejects.toThrow(/is damaged/)
  })
})

test('a log that has grown is brought into the file, and that is no writing by another', async () => {
  const folder = freshFolder()
  const all = await open(folder)
  const notes = 'x'.repeat(900_000)
  for (let i = 0; i < 22; i++) await all.projects.create({ ...emptyDesign(`P${i}`), notes })
  // 22 of 0.9 MB are 20 MB: brought over once, at 16 MB; what is left in the log is what came after that.
  expect(statSync(fileOf(folder)).size).toBeGreaterThan(16e6)
  expect(statSync(`${fileOf(folder)}-wal`).size).toBeLessThan(6e6)
  expect([(await names(all)).length, await integrity(all.db)]).toEqual([22, 'ok'])
})

test('a file that is taken away while something is written to it: that was not kept either', async () => {
  const folder = freshFolder()
  const { db } = await open(folder)
  await expect(
    db.write(async (w) => {
      await w.query("INSERT INTO drawer (part, count, place, since) VALUES ('a', 1, '', '')")
      rmSync(fileOf(folder))
    }),
  ).rejects.toThrow(/was deleted, replaced/)
})

test('one row that is spoilt is named; the others are there, and what it says can be fetched', async () => {
  const all = await open()
  const { projects, parts, db, everything } = all
  const { id } = await projects.create(emptyDesign('Spoilt'))
  const { id: half } = await projects.create(emptyDesign('Half'))
  await projects.create(emptyDesign('Whole'))
  await parts.add(own('own-spoilt'), 'part')
  await db.write(async (w) => {
    await w.query(`UPDATE projects SET design = '{"name": "Spo' WHERE id = '${id}'`)
    const frame = '{"name": "Half", "needs": {}, "chip": {}, "pins": {}, "power": {}, "build": {}}'
    await w.query(`UPDATE projects SET design = '${frame}' WHERE id = '${half}'`)
    await w.query(`UPDATE parts SET part = 'gone {' WHERE id = 'own-spoilt'`)
  })
  expect((await projects.list()).map((p) => [p.name, p.damaged]).sort()).toEqual(
    [
      [`A project that can’t be read (${id.slice(0, 8)})`, true],
      ['Half, damaged', true],
      ['Whole', undefined],
    ].sort(),
  )
  for (const spoilt of [id, half]) await expect(projects.find(spoilt)).rejects.toThrow(DamagedProject)
  expect(await projects.raw(id)).toBe('{"name": "Spo')
  expect((await projects.designs()).map((p) => p.design.name)).toEqual(['Whole'])
  expect([await parts.own(), await parts.unreadable()]).toEqual([
    [],
    [{ id: 'own-spoilt', file: 'gone {', faults: [expect.objectContaining({ path: '' })] }],
  ])
  // Its id is not given to another, and it is not written over.
  expect(await parts.add(own('own-spoilt'), 'part')).toEqual({ held: { id: 'own-spoilt', away: false } })
  // One file of everything has what could be brought in again, and names the rest.
  const file = await everything.all()
  expect(file.projects.map((p) => (p.design as { name: string }).name)).toEqual(['Whole'])
  expect(file.damaged.sort()).toEqual([id, half, 'own-spoilt'].sort())
  const other = await open()
  expect(await other.everything.bring(JSON.parse(JSON.stringify(file)))).toMatchObject({
    projects: ['Whole'],
    damaged: 3,
  })
})

describe('put away', () => {
  test('an id is not given to another; thrown out for good it is free', async () => {
    const { parts } = await open()
    await parts.add(own('own-one', { price: 1 }), 'part')
    await parts.remove('own-one')
    expect(await parts.add(own('own-one', { price: 2 }), 'part')).toEqual({
      held: { id: 'own-one', away: true },
    })
    expect(await parts.take([own('own-one', { price: 3 })], {})).toEqual({ taken: ['own-one-2'] })
    expect((await parts.restore('own-one'))?.part.price).toBe(1)
    await parts.remove('own-one')
    expect(await parts.away()).toEqual([{ id: 'own-one', name: led.name }])
    expect([await parts.empty('own-two'), await parts.empty('own-one'), await parts.away()]).toEqual([
      0,
      1,
      [],
    ])
    expect(await parts.add(own('own-one', { price: 2 }), 'part')).toHaveProperty('saved')
  })
  test('thrown out are those put away, and no others', async () => {
    const all = await open()
    const made = await Promise.all(['A', 'B', 'C'].map((n) => all.projects.create(emptyDesign(n))))
    await all.projects.remove(made[0]!.id)
    await all.projects.remove(made[1]!.id)
    expect(await all.projects.empty(made[2]!.id)).toBe(0)
    expect([await all.projects.empty(made[0]!.id), await all.projects.empty(), await names(all)]).toEqual([
      1,
      1,
      ['C'],
    ])
    expect(await all.projects.list(true)).toEqual([])
  })
})

describe('everything as one file', () => {
  const filled = async () => {
    const all = await open()
    await all.projects.create({ ...emptyDesign('A'), notes: 'first' })
    const away = await all.projects.create(emptyDesign('Away'))
    await all.projects.remove(away.id)
    await all.parts.add(own('own-one'), 'part')
    await all.drawer.set('led-red', 5, 'tin')
    return all
  }
  const sent = async ({ everything }: Opened) =>
    JSON.parse(JSON.stringify(await everything.all())) as Everything
  test('brought into an empty one it is all there; brought again nothing is doubled', async () => {
    const file = await sent(await filled())
    const other = await open()
    const brought = await other.everything.bring(file)
    expect({ ...brought, projects: brought.projects.sort() }).toEqual({
      projects: ['A', 'Away'],
      parts: ['own-one'],
      drawer: 1,
      there: 0,
      damaged: 0,
    })
    const again = await sent(other)
    expect({ ...again, projects: new Set(again.projects) }).toEqual({
      ...file,
      projects: new Set(file.projects),
    })
    expect(await other.everything.bring(file)).toEqual({
      projects: [],
      parts: [],
      drawer: 0,
      there: 4,
      damaged: 0,
    })
    expect(await names(other)).toEqual(['A'])
  })
  test('what is there and says something else stays, and the other comes in beside it, once', async () => {
    const all = await filled()
    const file = await sent(all)
    const [line] = await all.projects.list()
    await all.projects.save(line!.id, 1, { ...emptyDesign('A'), notes: 'second' })
    await all.parts.save('own-one', 1, own('own-one', { price: 8 }))
    await all.drawer.set('led-red', 9, 'box')
    const brought = { projects: ['A'], parts: ['own-one-2'], drawer: 0, there: 2, damaged: 0 }
    expect(await all.everything.bring(file)).toEqual(brought)
    expect(await all.everything.bring(file)).toEqual({
      projects: [],
      parts: [],
      drawer: 0,
      there: 4,
      damaged: 0,
    })
    expect((await all.projects.list()).map((p) => p.notes).sort()).toEqual(['first', 'second'])
    expect((await all.parts.own()).map((p) => [p.id, p.part.price])).toEqual([
      ['own-one', 8],
      ['own-one-2', led.price],
    ])
    expect((await all.drawer.list()).map((l) => l.count)).toEqual([9])
  })
  test('the same part twice in it comes in once; one of a name that came with the program gets another', async () => {
    const file = await sent(await filled())
    const shippedOnce = { file: own('led-red', { price: 8 }), changedAt: 'x', away: false }
    const doubled = { ...file, parts: [...file.parts, ...file.parts, shippedOnce] }
    const other = await open()
    expect((await other.everything.bring(doubled)).parts).toEqual(['own-one', 'led-red-2'])
  })
  test('one fault, and nothing of it comes in; the place is named', async () => {
    const file = await sent(await filled())
    const other = await open()
    file.parts.push({ file: { kind: 'spoon' }, changedAt: 'x', away: false })
    await expect(other.everything.bring(file)).rejects.toMatchObject({
      faults: [{ path: 'parts[1].file.kind', message: expect.stringMatching('must be one of') as string }],
    })
    await expect(other.everything.bring({ ...file, format: 2 })).rejects.toThrow(/format must be 1/)
    expect([await names(other), await other.parts.own()]).toEqual([[], []])
  })
})

test('a part of one’s own is read once, and anew when it was saved', async () => {
  const { parts } = await open()
  await parts.add(own('own-one'), 'part')
  const [first] = await parts.own()
  expect((await parts.own())[0]!.part).toBe(first!.part)
  await parts.save('own-one', 1, own('own-one', { price: 8 }))
  expect((await parts.own()).map((p) => [p.version, p.part.price])).toEqual([[2, 8]])
})
