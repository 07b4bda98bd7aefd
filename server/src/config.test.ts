// What the environment says, and what every sort of failure is answered with.

import { FaultyFile } from '@root-board/core/parts'
import express from 'express'
import { join } from 'node:path'
import supertest from 'supertest'
import { object, string } from 'yup'
import { readConfig } from './config'
import { handleErrors } from './problems'
import { savedFrom } from './routes/version'

test.each<[NodeJS.ProcessEnv, object]>([
  [{}, { host: '127.0.0.1', port: 4870, data: join('/r', 'data') }],
  [
    { PORT: '', HOST: '', ROOT_BOARD_DATA: '' },
    { host: '127.0.0.1', port: 4870, data: join('/r', 'data') },
  ],
  [{ PORT: '0' }, { port: 0 }],
  [
    { PORT: '65535', HOST: '::1', ROOT_BOARD_DATA: '/d' },
    { host: '::1', port: 65535, data: '/d' },
  ],
])('from %o', (env, config) =>
  expect(readConfig(env, '/r', 'thread.js')).toMatchObject({ root: '/r', ...config }),
)

test.each(['65536', '-1', '80.5', 'eighty', ' x'])('port %s is none', (PORT) =>
  expect(() => readConfig({ PORT }, '/r', 'thread.js')).toThrow(`PORT is “${PORT}”`),
)

describe('a failure', () => {
  const logged: unknown[] = []
  const answered = async (error: unknown) => {
    logged.length = 0
    const app = express()
    app.get('/', () => {
      throw error
    })
    app.use(handleErrors((e) => logged.push(e)))
    const { status, body, type } = await supertest(app).get('/')
    return { status, title: (body as { title: string }).title, body: body as object, type }
  }
  const invalid = () => {
    try {
      object({ a: string().required(), b: string().required() }).validateSync({}, { abortEarly: false })
    } catch (error) {
      return error
    }
    return undefined
  }
  const single = () => {
    try {
      object({ a: string().required() }).validateSync({})
    } catch (error) {
      return error
    }
    return undefined
  }
  test.each<[string, unknown, number, RegExp, number]>([
    ['of a file', new FaultyFile('x.json', [{ path: 'a', message: 'is missing' }]), 422, /has faults/, 0],
    ['of what was sent', invalid(), 422, /Not understood/, 0],
    [
      'too large',
      Object.assign(new Error(), { type: 'entity.too.large', status: 413 }),
      413,
      /at most 4 MB/,
      0,
    ],
    ['no JSON', Object.assign(new Error(), { type: 'entity.parse.failed', status: 400 }), 400, /not JSON/, 0],
    ['refused', Object.assign(new Error(), { status: 415 }), 415, /Refused/, 0],
    ['the first that is the asker’s', Object.assign(new Error(), { status: 400 }), 400, /Refused/, 0],
    ['the first that is not', Object.assign(new Error(), { status: 500 }), 500, /nothing was changed/, 1],
    ['none that is a failure', Object.assign(new Error(), { status: 200 }), 500, /nothing was changed/, 1],
    ['of our own', new Error('secret'), 500, /nothing was changed/, 1],
  ])('%s', async (_, error, status, title, logs) => {
    const told = await answered(error)
    expect([told.status, told.type, logged.length]).toEqual([status, 'application/problem+json', logs])
    expect(told.title).toMatch(title)
    expect(JSON.stringify(told.body)).not.toContain('secret')
  })
  test('names each place', async () => {
    const paths = async (error: unknown) =>
      ((await answered(error)).body as { faults: { path: string }[] }).faults.map((f) => f.path)
    expect(await paths(invalid())).toEqual(['a', 'b'])
    expect(await paths(single())).toEqual(['a'])
    expect(await paths(new FaultyFile('x', [{ path: 'p[0]', message: 'm' }]))).toEqual(['p[0]'])
  })
})

test.each([
  ['"7"', 200, 7],
  ['"0"', 200, 0],
  ['7', 428, undefined],
  ['W/"7"', 428, undefined],
  ['"7", "8"', 428, undefined],
  ['"7"x', 428, undefined],
  ['x"7"', 428, undefined],
  ['""', 428, undefined],
  [undefined, 428, undefined],
])('a save from If-Match %s', async (header, status, version) => {
  const app = express()
  app.get('/', (req, res) => {
    const from = savedFrom(req, res)
    if (from !== undefined) res.json({ from })
  })
  const ask = supertest(app).get('/')
  const answer = await (header === undefined ? ask : ask.set('If-Match', header))
  expect([answer.status, (answer.body as { from?: number }).from]).toEqual([status, version])
})
