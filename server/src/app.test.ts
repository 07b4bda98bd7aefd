import { readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { emptyDesign } from '@root-board/core/design'
import request from 'supertest'
import { openApi, type TestApi } from '../test/api'
import { freshFolder, root } from '../test/serve'
import { readDemoFolder } from './files'
import { openDatabase } from './store/database'

let api: TestApi
beforeAll(async () => {
  api = await openApi()
})
afterAll(() => api.close())

const file = (path: string) => JSON.parse(readFileSync(join(root, path), 'utf8')) as Record<string, unknown>
const http = () => request(api.app)
const make = async (name: string) =>
  (await http().post('/api/projects').send(emptyDesign(name)).expect(201)).body as {
    id: string
    version: number
  }

test('health tells version and counts', async () => {
  const { body } = await http().get('/api/health').expect(200)
  expect(body).toMatchObject({ status: 'ok', version: 'test', projects: readDemoFolder(root).length })
  expect((body as { parts: number }).parts).toBeGreaterThan(50)
})

test('a save over the stored version is taken; over a stale one it is refused, and both versions are there', async () => {
  const { id } = await make('Two tabs')
  const mine = { ...emptyDesign('Two tabs'), notes: 'mine' }
  const theirs = { ...emptyDesign('Two tabs'), notes: 'theirs' }
  const saved = await http().put(`/api/projects/${id}`).set('If-Match', '"1"').send(theirs).expect(200)
  expect(saved.headers.etag).toBe('"2"')
  const refused = await http().put(`/api/projects/${id}`).set('If-Match', '"1"').send(mine).expect(412)
  expect(refused.headers['content-type']).toMatch('application/problem+json')
  expect(refused.body).toMatchObject({ status: 412, stored: { version: 2, design: { notes: 'theirs' } } })
  expect((await http().get(`/api/projects/${id}`)).body).toMatchObject({
    version: 2,
    design: { notes: 'theirs' },
  })
})

test('of two saves at once over one version exactly one wins', async () => {
  const { id } = await make('Race')
  const answers = await Promise.all(
    Array.from({ length: 8 }, (_, i) =>
      http()
        .put(`/api/projects/${id}`)
        .set('If-Match', '"1"')
        .send({ ...emptyDesign('Race'), notes: `from ${i}` }),
    ),
  )
  expect(answers.map((a) => a.status).sort()).toEqual([200, 412, 412, 412, 412, 412, 412, 412])
})

test.each([
  ['no If-Match', {}, 428],
  ['a malformed one', { 'If-Match': 'two' }, 428],
])('a save with %s is refused', async (_, headers, status) => {
  const { id } = await make('No tag')
  await http().put(`/api/projects/${id}`).set(headers).send(emptyDesign('x')).expect(status)
})

test('a faulty project names each path and stores nothing', async () => {
  const before = ((await http().get('/api/projects')).body as unknown[]).length
  const { body } = await http()
    .post('/api/projects')
    .send({ ...emptyDesign('x'), stance: 'reckless', colour: 'blue' })
    .expect(422)
  expect((body as { faults: { path: string }[] }).faults.map((f) => f.path)).toContain('stance')
  expect(((await http().get('/api/projects')).body as unknown[]).length).toBe(before)
})

test('the list says of each what one chooses it by', async () => {
  const design = { ...emptyDesign('Pond pump'), notes: 'Under the willow.', chip: { part: 'td8-08-dip' } }
  const { body } = await http().post('/api/projects').send(design).expect(201)
  const { id } = body as { id: string }
  const list = (await http().get('/api/projects').expect(200)).body as { id: string; changedAt: string }[]
  const line = list.find((p) => p.id === id)!
  expect(line).toEqual({
    id,
    name: 'Pond pump',
    notes: 'Under the willow.',
    chip: 'td8-08-dip',
    devices: 0,
    sample: false,
    changedAt: line.changedAt,
  })
  expect(Math.abs(Date.now() - Date.parse(line.changedAt))).toBeLessThan(60_000)
})

test('put away and brought back', async () => {
  const { id } = await make('Away')
  await http().delete(`/api/projects/${id}`).expect(204)
  await http().get(`/api/projects/${id}`).expect(404)
  // In one list or in the other, and the one put away last comes first.
  const later = await make('Away too')
  await http().delete(`/api/projects/${later.id}`).expect(204)
  const names = async (path: string) =>
    ((await http().get(path).expect(200)).body as { name: string }[]).map((p) => p.name)
  expect((await names('/api/projects/away')).slice(0, 2)).toEqual(['Away too', 'Away'])
  expect(await names('/api/projects')).not.toContain('Away')
  await http().post(`/api/projects/${id}/restore`).expect(200)
  await http().get(`/api/projects/${id}`).expect(200)
  expect(await names('/api/projects/away')).not.toContain('Away')
  expect(await names('/api/projects')).toContain('Away')
})

test('a part of one’s own is taken; a sample part can’t be overwritten', async () => {
  const led = file('library/small/led-red.json')
  await http().post('/api/parts').send(led).expect(422)
  await http()
    .post('/api/parts')
    .send({ ...led, id: 'my-led' })
    .expect(201)
  expect(((await http().get('/api/parts')).body as { id: string }[]).some((p) => p.id === 'my-led')).toBe(
    true,
  )
})

test('an answer that refuses a part says why, and brings what is stored', async () => {
  const mine = { ...file('library/small/led-red.json'), id: 'told-led', name: 'Told' }
  await http().post('/api/parts').send(mine).expect(201)
  expect((await http().post('/api/parts').send(mine).expect(409)).body).toMatchObject({
    title: 'You have a part “told-led” already',
    status: 409,
    stored: { id: 'told-led', version: 1 },
  })
  const save = (version: string, name: string) =>
    http()
      .put('/api/parts/told-led')
      .set('If-Match', version)
      .send({ ...mine, name })
  await save('"1"', 'Second').expect(200)
  expect((await save('"1"', 'Third').expect(412)).body).toMatchObject({
    title: 'The part was changed elsewhere in the meantime',
    stored: { version: 2, part: { name: 'Second' } },
  })
  const none = await http()
    .put('/api/parts/no-such')
    .set('If-Match', '"1"')
    .send({ ...mine, id: 'no-such' })
  expect([none.status, (none.body as { title: string }).title]).toEqual([
    404,
    'There is no such part of your own',
  ])
})

test('of two parts of one id both are kept, under the first number that nobody has', async () => {
  const led = { ...file('library/small/led-red.json'), id: 'twin' }
  const library = (parts: object[], choices?: object) =>
    http().post('/api/parts/library').send({ format: 1, parts, choices })
  await library([led, { ...led, id: 'twin-2', name: 'Already second' }]).expect(201)
  await library(
    [
      { ...led, name: 'Other' },
      { ...led, id: 'twin-3', name: 'Comes along' },
    ],
    { twin: 'both' },
  ).expect(201)
  const named = ((await http().get('/api/parts')).body as { id: string; name: string }[])
    .filter((p) => p.id.startsWith('twin'))
    .map((p) => [p.id, p.name])
    .sort()
  expect(named).toEqual([
    ['twin', (led as { name?: unknown }).name],
    ['twin-2', 'Already second'],
    ['twin-3', 'Comes along'],
    ['twin-4', 'Other'],
  ])
})

test('parts over the API: who uses one, the drawer, a library of one file', async () => {
  const uses = await http().get('/api/parts/led-red/uses').expect(200)
  expect(uses.body).toMatchObject({
    projects: expect.arrayContaining([expect.objectContaining({ name: 'Darkroom timer' })]) as unknown,
    parts: expect.arrayContaining([expect.objectContaining({ id: 'lamp-red' })]) as unknown,
  })
  await http().put('/api/drawer/led-red').send({ count: 5, place: 'tin' }).expect(200)
  await http().put('/api/drawer/led-red').send({ count: -5, place: 'tin' }).expect(422)
  const led = { ...file('library/small/led-red.json'), id: 'brought-led' }
  await http()
    .post('/api/parts/library')
    .send({ format: 1, parts: [led] })
    .expect(201)
  const clash = { format: 1, parts: [{ ...led, name: 'Other' }] }
  expect((await http().post('/api/parts/library').send(clash).expect(409)).body).toMatchObject({
    clashes: [{ id: 'brought-led' }],
  })
  await http().post('/api/parts/library').send({ parts: [] }).expect(422)
  await http().put('/api/parts/brought-led').send(led).expect(428)
  await http()
    .put('/api/parts/brought-led')
    .set('If-Match', '"1"')
    .send({ ...led, name: 'N' })
    .expect(200)
  await http().put('/api/parts/brought-led').set('If-Match', '"1"').send(led).expect(412)
  await http().delete('/api/parts/brought-led').expect(204)
  await http().get('/api/parts/brought-led').expect(404)
  await http().post('/api/parts/brought-led/restore').expect(200)
})

test('a project made here holds the facts it uses, and is analysed with them', async () => {
  const { body } = await http().post('/api/projects').send(file('demo/darkroom-timer.json')).expect(201)
  const { design } = body as { design: { parts: Record<string, { supply?: unknown }> } }
  expect(Object.keys(design.parts)).toEqual(expect.arrayContaining(['td8-28-dip', 'led-red', 'crystal-8mhz']))
  const spoilt = structuredClone(design)
  spoilt.parts['td8-28-dip']!.supply = { recommended: { min: 1, max: 2 }, absolute: { max: 3 } }
  const analysis = await http().post('/api/analyse').send(spoilt).expect(200)
  expect((analysis.body as { findings: { check: string }[] }).findings.map((f) => f.check)).toContain(
    'chip.supply-out-of-range',
  )
})

test('the analysis is that of the core', async () => {
  const { body } = await http().post('/api/analyse').send(file('demo/darkroom-timer.json')).expect(200)
  expect(body).toMatchObject({ findings: [], pins: { assignment: { 'i2c.SDA': 'PA4' } } })
})

// A page elsewhere may have its name point at this machine, and may name itself anything that begins or ends like ours.
test.each([
  'elsewhere.example',
  'localhost.elsewhere.example',
  'elsewhere.example.localhost',
  'xlocalhost',
  '127.0.0.1.elsewhere.example',
  '127.0.0.1.elsewhere.example:4870',
  '127.0.0.10',
  '127.0.0.1:80:80',
  '0.0.0.0',
  '2130706433',
  '0x7f.1',
  'localhost@elsewhere.example',
  'localhost:4870@elsewhere.example',
  'localhost#elsewhere.example',
  'localhost,elsewhere.example',
  '[::2]',
  '[::1].elsewhere.example',
  '::1',
  'localhost:port',
])('the host %s is not served', (Host) => http().get('/api/health').set({ Host }).expect(421))
test.each(['127.0.0.1', '127.0.0.1:4870', 'localhost', 'localhost:65535', '[::1]', '[::1]:4870'])(
  'the host %s is served, to a page from there and from nowhere else',
  async (Host) => {
    await http().get('/api/health').set({ Host }).expect(200)
    await http()
      .get('/api/health')
      .set({ Host, Origin: `http://${Host}` })
      .expect(200)
    for (const Origin of [
      'null',
      '',
      Host,
      `https://${Host}`,
      `http://${Host}/`,
      `http://${Host}.elsewhere.example`,
      `http://elsewhere.example`,
      `http://user@${Host}`,
      `http://${Host.replace(/(:\d+)?$/, ':1')}`,
    ])
      await http().get('/api/health').set({ Host, Origin }).expect(403)
  },
)

test('the page’s policy allows no inline script and nothing from elsewhere; no header tells what it runs on', async () => {
  const { headers } = await http().get('/api/health')
  const policy = headers['content-security-policy']!
  for (const part of ["script-src 'self'", "default-src 'none'", "frame-ancestors 'none'", "base-uri 'none'"])
    expect(policy).toContain(part)
  expect(policy).not.toMatch(/script-src[^;]*unsafe/)
  expect(headers).toMatchObject({ 'referrer-policy': 'no-referrer', 'x-content-type-options': 'nosniff' })
  expect(Object.keys(headers)).not.toEqual(
    expect.arrayContaining([expect.stringMatching(/^(x-powered-by|server|access-control-allow-origin)$/)]),
  )
})

test.each([
  ['too large', Buffer.alloc(5 * 2 ** 20, 32), 413],
  ['not JSON', Buffer.from('{ "a": '), 400],
])('a body that is %s is refused in words', async (_, body, status) => {
  const answer = await http()
    .post('/api/projects')
    .set('Content-Type', 'application/json')
    .send(body.toString())
    .expect(status)
  expect(answer.headers['content-type']).toMatch('application/problem+json')
})

test('an address that isn’t there', () => http().get('/api/nothing').expect(404))

describe('a data file that can’t be written says so, and keeps what it had', () => {
  test('a full disk is 507; what was answered before is still there, and goes on when there is room', async () => {
    const own = await openApi()
    const post = (design: object) => request(own.app).post('/api/projects').send(design)
    const { body: kept } = (await post(emptyDesign('Before')).expect(201)) as { body: { id: string } }
    // As many pages as there are: SQLite refuses the next one as it does on a full disk.
    await own.db.write(async (w) => {
      const [[pages]] = (await w.query('PRAGMA page_count')) as [[{ page_count: number }], unknown]
      await w.query(`PRAGMA max_page_count = ${pages.page_count}`)
    })
    const long = { ...emptyDesign('Too much'), notes: 'x'.repeat(1500) }
    const answers = []
    // A page that has room still takes one or two.
    while (answers.length < 9 && answers.at(-1)?.status !== 507) answers.push(await post(long))
    expect(answers.at(-1)).toMatchObject({
      status: 507,
      body: { title: 'The disk is full; nothing was saved' },
    })
    const { body: lines } = (await request(own.app).get('/api/projects').expect(200)) as {
      body: { name: string }[]
    }
    expect(lines.filter((l) => l.name === 'Too much')).toHaveLength(answers.length - 1)
    await request(own.app).get(`/api/projects/${kept.id}`).expect(200)
    await own.db.write((w) => w.query('PRAGMA max_page_count = 1000000'))
    await post(long).expect(201)
    await own.db.close()
  })
  test('one that another program holds is 503, and is told when to ask again', async () => {
    const folder = freshFolder()
    const own = await openApi(folder)
    const other = await openDatabase(folder)
    await own.db.write((w) => w.query('PRAGMA busy_timeout = 50'))
    let release: () => void = () => undefined
    const held = other.write(() => new Promise<void>((resolve) => (release = resolve)))
    await new Promise((resolve) => setTimeout(resolve, 100))
    const refused = await request(own.app).post('/api/projects').send(emptyDesign('Now')).expect(503)
    expect(refused.headers['retry-after']).toBe('1')
    expect(refused.body).toMatchObject({ title: 'Another program has the data file; nothing was saved' })
    // Questions are answered all the while.
    await request(own.app).get('/api/projects').expect(200)
    release()
    await held
    await request(own.app).post('/api/projects').send(emptyDesign('Now')).expect(201)
    await other.close()
    await own.db.close()
  })
})

describe('the door', () => {
  test('what the API answers is kept by nobody on the way, and shown by no browser as a page', async () => {
    for (const path of ['/api/health', '/api/projects', '/api/nowhere'])
      expect([path, (await http().get(path)).headers]).toEqual([
        path,
        expect.objectContaining({
          'cache-control': 'no-store',
          'content-disposition': 'attachment; filename="api.json"',
          'x-content-type-options': 'nosniff',
        }),
      ])
  })
  test.each(['/api/projects/%00', '/api/parts/a%00b', '/api/projects/%ff', `/api/parts/${'x'.repeat(500)}`])(
    'nothing is at %s',
    async (path) => {
      await http().get(path).expect(404)
      await http().delete(path).expect(404)
    },
  )
  test('an id that was put away is not given to another without a word', async () => {
    const led = { ...file('library/small/led-red.json'), id: 'own-away' }
    await http().post('/api/parts').send(led).expect(201)
    await http().delete('/api/parts/own-away').expect(204)
    const { body } = await http().post('/api/parts').send(led).expect(409)
    expect(body).toMatchObject({
      title: 'A part “own-away” was put away: bring it back, throw it out for good, or take another id',
      held: { id: 'own-away', away: true },
    })
    expect((await http().get('/api/parts/away')).body).toEqual([{ id: 'own-away', name: 'red LED, 5 mm' }])
    await http().delete('/api/parts/away/own-away').expect(204)
    await http().delete('/api/parts/away/own-away').expect(404)
    await http().post('/api/parts').send(led).expect(201)
  })
  test('choices of a brought library are checked before anything is taken', async () => {
    const led = { ...file('library/small/led-red.json'), id: 'own-choice' }
    for (const [choices, path] of [
      ['mine', 'choices'],
      [[], 'choices'],
      [{ 'own-choice': 'ours' }, 'choices.own-choice'],
      [{ 'own-choice': 1 }, 'choices.own-choice'],
    ] as const) {
      const { body } = await http()
        .post('/api/parts/library')
        .send({ format: 1, parts: [led], choices })
        .expect(422)
      expect((body as { faults: { path: string }[] }).faults[0]!.path).toBe(path)
    }
    await http().get('/api/parts/own-choice').expect(404)
  })
  test('a line of the drawer says its place, and is of something that can be a part', async () => {
    await http().put('/api/drawer/led-red').send({ count: 3 }).expect(422)
    await http().put('/api/drawer/no%20part').send({ count: 3, place: '' }).expect(404)
    await http().put('/api/drawer/led-red').send({ count: 3, place: '' }).expect(200)
  })
  test('a project whose row is spoilt says so, and what is left of it can be had', async () => {
    const { id } = await make('Spoilt')
    await api.db.write((w) => w.query(`UPDATE projects SET design = '{"na' WHERE id = '${id}'`))
    expect((await http().get(`/api/projects/${id}`).expect(422)).body).toMatchObject({ damaged: id })
    const raw = await http().get(`/api/projects/${id}/raw`).expect(200)
    expect([raw.text, raw.headers['content-disposition']]).toEqual([
      '{"na',
      'attachment; filename="project.txt"',
    ])
    await http().delete(`/api/projects/${id}`).expect(204)
    await http().delete(`/api/projects/away/${id}`).expect(204)
    await http().post(`/api/projects/${id}/restore`).expect(404)
  })
  test('a data file that is taken away: nothing is answered any more, and why is said', async () => {
    const folder = freshFolder()
    const own = await openApi(folder)
    try {
      rmSync(join(folder, 'root-board.sqlite'))
      for (const ask of [
        request(own.app).get('/api/health'),
        request(own.app).get('/api/projects'),
        request(own.app).post('/api/projects').send(emptyDesign('Lost')),
      ]) {
        const { body, headers } = await ask.expect(503)
        expect([(body as { title: string }).title, headers['retry-after']]).toEqual([
          expect.stringMatching(
            /^The data file was deleted, replaced or written by another program .*Stop the program and start it again$/,
          ),
          '1',
        ])
      }
    } finally {
      await own.close()
    }
  })
})
