// A thousand spoilt project and part files through the import: each is accepted or refused with a path, nothing crashes,
// and what is refused changes nothing.

import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import request from 'supertest'
import { seeded } from '../../core/test/seeded'
import { openApi, type TestApi } from '../test/api'
import { root } from '../test/serve'

const rounds = 1000

const library = join(root, 'library')
const originals = [
  ...readdirSync(library, { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.json'))
    .map((f) => ['parts', join(library, f)] as const),
  ...Array.from({ length: 60 }, () => ['projects', join(root, 'demo', 'darkroom-timer.json')] as const),
]

type Holder = Record<string, unknown> | unknown[]
const places = (value: unknown): { holder: Holder; key: string }[] =>
  typeof value === 'object' && value !== null
    ? Object.keys(value).flatMap((key) => [
        { holder: value as Holder, key },
        ...places((value as Record<string, unknown>)[key]),
      ])
    : []

const mutate = (data: unknown, random: () => number): void => {
  const all = places(data)
  const { holder, key } = all[Math.floor(random() * all.length)]!
  const at = holder as Record<string, unknown>
  const junk: unknown[] = [
    null,
    true,
    -1,
    1e308,
    '',
    'x'.repeat(500),
    '4k7',
    '\u0000',
    [],
    {},
    [[]],
    { kind: 'chip' },
    '__proto__',
    'constructor',
    NaN,
  ]
  const choice = Math.floor(random() * 5)
  if (choice === 0) Reflect.deleteProperty(at, key)
  else if (choice === 1) at[key] = junk[Math.floor(random() * junk.length)]
  else if (choice === 2) at[`${key}x`] = at[key]
  else if (choice === 3 && Array.isArray(at[key])) (at[key] as unknown[]).push(...(at[key] as unknown[]))
  else at[key] = structuredClone(all[Math.floor(random() * all.length)]!.holder)
}

const led: unknown = JSON.parse(readFileSync(join(library, 'small', 'led-red.json'), 'utf8'))

let api: TestApi
beforeAll(async () => {
  api = await openApi()
})
afterAll(() => api.close())

test(`${rounds} mutations`, async () => {
  const random = seeded(20260101)
  const counts = async () => {
    const { body } = await request(api.app).get('/api/health').expect(200)
    return body as { parts: number; projects: number }
  }
  let refused = 0
  let accepted = 0
  for (let i = 0; i < rounds; i++) {
    const [kind, path] = originals[Math.floor(random() * originals.length)]!
    const data = JSON.parse(readFileSync(path, 'utf8')) as Record<string, unknown>
    if (kind === 'parts') data.id = `own-${i}`
    for (let n = 1 + Math.floor(random() * 3); n > 0; n--) mutate(data, random)
    const before = await counts()
    // Every third part comes in a library, behind one that is whole: both are taken, or neither.
    const inLibrary = kind === 'parts' && i % 3 === 0
    const whole = { ...JSON.parse(JSON.stringify(led)), id: `whole-${i}` } as object
    const answer = await request(api.app)
      .post(inLibrary ? '/api/parts/library' : `/api/${kind}`)
      .set('Content-Type', 'application/json')
      .send(JSON.stringify(inLibrary ? { format: 1, parts: [whole, data] } : data))
    const after = await counts()
    if (answer.status === 201) {
      accepted++
      expect(after.parts + after.projects).toBeLessThanOrEqual(
        before.parts + before.projects + (inLibrary ? 2 : 1),
      )
    } else {
      refused++
      expect([i, [409, 422]]).toEqual([i, expect.arrayContaining([answer.status])])
      if (answer.status === 409) {
        expect(after).toEqual(before)
        continue
      }
      const { faults } = answer.body as { faults: { path: string; message: string }[] }
      expect(faults.length).toBeGreaterThan(0)
      expect(faults.every((f) => f.message.length > 0)).toBe(true)
      expect(after).toEqual(before)
    }
  }
  expect(refused).toBeGreaterThan(rounds / 3)
  expect(accepted).toBeGreaterThan(rounds / 50)
}, 180_000)
