// Spoilt requests over every route, from a seed: none is answered as the server's own fault, none takes a second, none
// leaves memory behind, and each refusal of what was sent names a place.

import { readFileSync } from 'node:fs'
import { Agent, request, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { emptyDesign } from '@root-board/core/design'
import { seeded } from '../../core/test/seeded'
import { deep, firstSeed } from '../../core/test/share'
import { openApi, type TestApi } from '../test/api'
import { root } from '../test/serve'

const rounds = deep ? 20_000 : 1200
const seed = firstSeed('spoilt requests', 20261129)

const file = (path: string) => JSON.parse(readFileSync(join(root, path), 'utf8')) as Record<string, unknown>
const led = { ...file('library/small/led-red.json'), id: 'own-led' }
const chip = { ...file('library/chips/td8-28-dip.json'), id: 'own-chip' }
const demo = file('demo/darkroom-timer.json')

interface Sent {
  method: string
  path: string
  headers: Record<string, string>
  body?: unknown
  /** Instead of the body as JSON. */
  raw?: Buffer
}
type Random = () => number
const one = <T>(of: readonly T[], random: Random): T => of[Math.floor(random() * of.length)]!

/** What a page of ours would send. `id` is of a project that is there. */
const honest = (id: string): Sent[] => {
  const json = { 'Content-Type': 'application/json' }
  const at = { ...json, 'If-Match': '"1"' }
  const get = (path: string): Sent => ({ method: 'GET', path, headers: {} })
  const send = (method: string, path: string, body: unknown, headers = json): Sent => ({
    method,
    path,
    headers,
    body,
  })
  return [
    ...['health', 'projects', 'projects/away', `projects/${id}`, `projects/${id}/raw`].map((p) =>
      get(`/api/${p}`),
    ),
    ...['parts', 'parts/own', 'parts/away', 'parts/own-led', 'parts/led-red/uses'].map((p) =>
      get(`/api/${p}`),
    ),
    ...['drawer', 'copies', 'copies/2026-01-01T00-00-00-000.sqlite', 'everything'].map((p) =>
      get(`/api/${p}`),
    ),
    send('POST', '/api/projects', demo),
    send('POST', '/api/projects', emptyDesign('New')),
    send('PUT', `/api/projects/${id}`, demo, at),
    send('POST', `/api/projects/${id}/restore`, undefined),
    send('DELETE', '/api/projects/nobody', undefined),
    send('DELETE', '/api/projects/away/nobody', undefined),
    send('POST', '/api/parts', led),
    send('POST', '/api/parts', chip),
    send('PUT', '/api/parts/own-led', led, at),
    send('DELETE', '/api/parts/nobody', undefined),
    send('DELETE', '/api/parts/away', undefined),
    send('POST', '/api/parts/own-led/restore', undefined),
    send('POST', '/api/parts/library', { format: 1, parts: [led, chip], choices: { 'own-led': 'mine' } }),
    send('PUT', '/api/drawer/led-red', { count: 3, place: 'tin' }),
    send('POST', '/api/copies/2026-01-01T00-00-00-000.sqlite/bring-back', undefined),
    send('POST', '/api/analyse', emptyDesign('Asked')),
    send('POST', '/api/everything', {
      format: 1,
      kind: 'everything',
      projects: [
        { id: 'brought', design: demo, sample: false, changedAt: '2026-01-01T00:00:00Z', away: false },
      ],
      parts: [{ file: led, changedAt: '2026-01-01T00:00:00Z', away: true }],
      damaged: ['spoilt'],
      drawer: [{ part: 'led-red', count: 1, place: '', since: '2026-01-01T00:00:00Z' }],
    }),
  ]
}

const nested = (levels: number, inList: boolean): unknown => {
  let value: unknown = 1
  for (let i = 0; i < levels; i++) value = inList ? [value] : { a: value }
  return value
}
const junk: ((random: Random) => unknown)[] = [
  () => null,
  (r) => r() < 0.5,
  (r) => one([0, -1, 1e308, -1e308, 5e-324, 2 ** 53, 0.1], r),
  (r) =>
    one(
      [
        '',
        ' ',
        '4k7',
        '1e999',
        '1e999 V',
        '-0',
        'NaN',
        '𝟛',
        '\u202e',
        '“',
        "'; DROP TABLE parts; --",
        '=1+1',
      ],
      r,
    ),
  (r) => one(['__proto__', 'constructor', 'toString', 'hasOwnProperty', 'prototype', 'length'], r),
  (r) => one(['\u0000', 'a\u0000b', '\ud800', 'a\udc00', '\u001b[31m'], r),
  (r) => 'x'.repeat(one([500, 20_001, 300_000], r)),
  (r) => one<unknown>([[], {}, [[]], [null], { kind: 'chip' }, { length: 5 }, { then: 1 }, { toJSON: 1 }], r),
  (r) =>
    JSON.parse(
      one(['{"__proto__":{"admin":true}}', '{"constructor":{"prototype":{}}}', '{"toString":"x"}'], r),
    ),
  (r) => nested(one([40, 800], r), r() < 0.5),
  (r) => Array.from({ length: one([201, 2001, 20_000], r) }, () => one<unknown>([{}, null, 'x', []], r)),
  (r) => Object.fromEntries(Array.from({ length: one([300, 3000], r) }, (_, i) => [`k${i}`, i])),
]
type Holder = Record<string, unknown>
const places = (value: unknown, into: { holder: Holder; key: string }[] = []) => {
  if (typeof value === 'object' && value !== null)
    for (const key of Object.keys(value).slice(0, 400)) {
      into.push({ holder: value as Holder, key })
      places((value as Holder)[key], into)
    }
  return into
}
const spoilBody = (body: unknown, random: Random): unknown => {
  if (body === undefined || random() < 0.05) return one(junk, random)(random)
  const copy = structuredClone(body)
  for (let n = 1 + Math.floor(random() * 3); n > 0; n--) {
    const all = places(copy)
    if (all.length === 0) return one(junk, random)(random)
    const { holder, key } = one(all, random)
    const how = random()
    if (how < 0.15) Reflect.deleteProperty(holder, key)
    else if (how < 0.75) holder[key] = one(junk, random)(random)
    else if (how < 0.85)
      Object.defineProperty(holder, one(['__proto__', 'constructor', `${key}x`], random), {
        value: holder[key],
        enumerable: true,
        configurable: true,
        writable: true,
      })
    else holder[key] = structuredClone(one(places(body), random).holder)
  }
  return copy
}
const spoilText = (text: string, random: Random): Buffer => {
  const at = Math.floor(random() * text.length)
  const how = random()
  if (how < 0.2) return Buffer.from(text.slice(0, at))
  if (how < 0.4) return Buffer.from(text.replace(/:\s*\d[\d.]*/, ':1e999'))
  if (how < 0.6)
    return Buffer.concat([
      Buffer.from(text.slice(0, at)),
      Buffer.from([0xff, 0xc0, 0]),
      Buffer.from(text.slice(at)),
    ])
  if (how < 0.8) return Buffer.from(`${'['.repeat(10_000)}${']'.repeat(10_000)}`)
  return Buffer.from(
    one(['', '"text"', '7', 'null', '{', '{"a":1,"a":2}', '{"__proto__":1}', '\ufeff{}'], random),
  )
}
const spoilt = (sent: Sent, random: Random): Sent => {
  const now = { ...sent, headers: { ...sent.headers } }
  const how = random()
  if (how < 0.15) {
    const steps = now.path.split('/')
    steps[2 + Math.floor(random() * (steps.length - 2))] = one(
      [
        '%00',
        'a%00b',
        '%ff',
        '%',
        '..%2f..',
        'x'.repeat(500),
        '__proto__',
        'constructor',
        '',
        '%ED%A0%80',
        "'%20OR%201=1",
        '%E2%80%AE',
        ':id',
        '*',
      ],
      random,
    )
    now.path = steps.join('/')
  } else if (how < 0.22)
    now.method = one(['GET', 'POST', 'PUT', 'DELETE', 'PATCH', 'OPTIONS', 'HEAD'], random)
  else if (how < 0.3)
    now.headers[
      one(
        ['If-Match', 'Content-Type', 'Content-Encoding', 'Accept', 'Range', 'If-None-Match', 'Origin'],
        random,
      )
    ] = one(
      [
        '',
        '*',
        '"0"',
        '"-1"',
        '"99999999999999999999"',
        'W/"1"',
        'gzip',
        'text/plain',
        'application/json; charset=utf-7',
        'bytes=0-1',
      ],
      random,
    )
  else if (how < 0.4) now.raw = spoilText(JSON.stringify(now.body ?? {}), random)
  else now.body = spoilBody(now.body, random)
  return now
}

let api: TestApi
let server: Server
beforeAll(async () => {
  api = await openApi()
  server = api.app.listen(0, '127.0.0.1')
  await new Promise((resolve) => server.once('listening', resolve))
})
afterAll(async () => {
  server.closeAllConnections()
  server.close()
  await api.close()
})
const agent = new Agent({ keepAlive: true })
afterAll(() => agent.destroy())

interface Answered {
  status: number
  text: string
  ms: number
}
const ask = (sent: Sent): Promise<Answered> => {
  const { method, path, headers, body, raw } = sent
  const { port } = server.address() as AddressInfo
  const payload = raw ?? (body === undefined ? undefined : Buffer.from(JSON.stringify(body)))
  return new Promise((resolve, reject) => {
    const begun = performance.now()
    const req = request(
      {
        port,
        agent,
        host: '127.0.0.1',
        method,
        path,
        headers: { ...headers, ...(payload ? { 'Content-Length': payload.length } : {}) },
      },
      (res) => {
        const chunks: Buffer[] = []
        res.on('data', (chunk: Buffer) => chunks.push(chunk))
        res.on('end', () =>
          resolve({
            status: res.statusCode!,
            text: Buffer.concat(chunks).toString(),
            ms: performance.now() - begun,
          }),
        )
      },
    )
    // A line that was kept open and idle may be closed just as it is used again: then it is asked on a new one.
    req.on('error', (error: NodeJS.ErrnoException) =>
      req.reusedSocket && error.code === 'ECONNRESET' ? resolve(ask(sent)) : reject(error),
    )
    req.end(payload)
  })
}
setFlagsFromString('--expose-gc')
const collect = runInNewContext('gc') as () => void
const heap = () => {
  collect()
  return process.memoryUsage().heapUsed / 2 ** 20
}

test(`${rounds} spoilt requests, seed ${seed}`, async () => {
  const random = seeded(seed)
  const { body } = await new Promise<{ body: { id: string } }>((resolve) => {
    void ask({
      method: 'POST',
      path: '/api/projects',
      headers: { 'Content-Type': 'application/json' },
      body: demo,
    }).then(({ text }) => resolve({ body: JSON.parse(text) as { id: string } }))
  })
  const all = honest(body.id)
  const writing = all.filter((s) => s.body !== undefined)
  // The thread is begun by the first who asks.
  await ask(all.find((s) => s.path === '/api/analyse')!)
  const wrong: unknown[] = []
  const counts = new Map<number, number>()
  let warm = 0
  for (let i = 0; i < rounds; i++) {
    if (i === Math.floor(rounds / 2)) warm = heap()
    const asked = one(random() < 0.2 ? all : writing, random)
    const sent = spoilt(asked, random)
    const answer = await ask(sent)
    // The next save is made from what is stored now.
    if (sent.method === 'PUT' && asked.headers['If-Match'] && [200, 412].includes(answer.status)) {
      const said = JSON.parse(answer.text) as { version?: number; stored?: { version: number } }
      asked.headers['If-Match'] = `"${said.version ?? said.stored?.version ?? 1}"`
    }
    counts.set(answer.status, (counts.get(answer.status) ?? 0) + 1)
    const note = (what: string) =>
      wrong.push([
        i,
        what,
        sent.method,
        sent.path,
        JSON.stringify(sent.headers),
        (sent.raw?.toString() ?? JSON.stringify(sent.body) ?? '').slice(0, 300),
        answer.text.slice(0, 300),
      ])
    if (answer.status >= 500) note(String(answer.status))
    if (answer.ms > 1000) note(`${Math.round(answer.ms)} ms`)
    if (answer.status === 422) {
      const { faults, title } = JSON.parse(answer.text) as {
        faults?: { path: string; message: string }[]
        title: string
      }
      if (!title || (faults && (faults.length === 0 || faults.some((f) => !f.message))))
        note('names no place')
      if ((faults?.length ?? 0) > 21) note('too many faults')
    }
    if (wrong.length > 5) break
    // The drawer, parts and projects that were taken go again, so that the next half is like the first.
    if (i % 300 === 299) {
      const projects = JSON.parse(
        (await ask({ method: 'GET', path: '/api/projects', headers: {} })).text,
      ) as { id: string }[]
      for (const { id } of projects)
        if (id !== body.id) await ask({ method: 'DELETE', path: `/api/projects/${id}`, headers: {} })
      await ask({ method: 'DELETE', path: '/api/projects/away', headers: {} })
      for (const { id } of (
        JSON.parse((await ask({ method: 'GET', path: '/api/parts/own', headers: {} })).text) as {
          parts: { id: string }[]
        }
      ).parts)
        await ask({ method: 'DELETE', path: `/api/parts/${encodeURIComponent(id)}`, headers: {} })
      await ask({ method: 'DELETE', path: '/api/parts/away', headers: {} })
    }
  }
  expect(wrong).toEqual([])
  // Both are refused and taken: the honest ones that are hardly spoilt.
  expect(counts.get(422) ?? 0).toBeGreaterThan(rounds / 5)
  expect((counts.get(200) ?? 0) + (counts.get(201) ?? 0)).toBeGreaterThan(rounds / 20)
  expect(heap() - warm).toBeLessThan(40)
  // Nothing that was sent has become a property of everything.
  expect(Object.keys(Object.prototype)).toEqual([])
}, 1_800_000)
