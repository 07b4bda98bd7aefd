// Starting, refusing to start, and losing nothing when killed.

import { mkdirSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { emptyDesign } from '@root-board/core/design'
import { freshFolder, serve, type Served } from '../test/serve'
import { integrity, openDatabase } from './store/database'

const end = async (env: Record<string, string>) => {
  try {
    const served = await serve(env)
    served.child.kill()
    return { code: 0, output: 'it started' }
  } catch (error) {
    return error as { code: number; output: string }
  }
}

test('a busy port: one sentence, exit code 1', async () => {
  const other = createServer().listen(0, '127.0.0.1')
  await new Promise((resolve) => other.once('listening', resolve))
  const { port } = other.address() as AddressInfo
  const { code, output } = await end({ PORT: String(port), ROOT_BOARD_DATA: freshFolder() })
  other.close()
  expect([code, output.trim().split('\n')]).toEqual([
    1,
    [expect.stringMatching(`Port ${port} on 127.0.0.1 is in use`)],
  ])
}, 30_000)

test('a folder that can’t be written', async () => {
  const file = join(freshFolder(), 'file')
  writeFileSync(file, '')
  const { code, output } = await end({ ROOT_BOARD_DATA: join(file, 'data') })
  expect([code, output]).toEqual([1, expect.stringMatching(/^The data folder .* can’t be written/)])
}, 30_000)

test('a database from a newer version', async () => {
  const folder = join(freshFolder(), 'data')
  mkdirSync(folder)
  const db = await openDatabase(folder)
  await db.write((w) => w.query("INSERT INTO SequelizeMeta (name) VALUES ('999-from-the-future')"))
  await db.close()
  const { code, output } = await end({ ROOT_BOARD_DATA: folder })
  expect([code, output]).toEqual([1, expect.stringMatching(/written by a newer version/)])
}, 30_000)

test('a nonsense port', async () => {
  expect(await end({ PORT: 'many', ROOT_BOARD_DATA: freshFolder() })).toMatchObject({
    code: 1,
    output: expect.stringMatching('PORT is “many”') as string,
  })
}, 30_000)

test('SIGTERM ends it cleanly', async () => {
  const served = await serve({ ROOT_BOARD_DATA: freshFolder() })
  served.child.kill('SIGTERM')
  expect((await served.ended).code).toBe(0)
}, 30_000)

const kills = 20
test(`killed ${kills} times in the middle of saving, every answered save is found again`, async () => {
  const data = freshFolder()
  let random = 12345
  const next = () => (random = (Math.imul(random, 1103515245) + 12345) & 0x7fffffff) / 0x7fffffff
  let served: Served = await serve({ ROOT_BOARD_DATA: data })
  const made = await fetch(`${served.url}/api/projects`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(emptyDesign('Killed')),
  })
  const { id } = (await made.json()) as { id: string }
  let answered = { version: 1, notes: undefined as string | undefined }
  let saves = 0
  for (let round = 0; round < kills; round++) {
    const doomed = served
    setTimeout(() => doomed.child.kill('SIGKILL'), 40 + next() * 260)
    for (let alive = true; alive;) {
      const notes = `save ${++saves}`
      try {
        const answer = await fetch(`${doomed.url}/api/projects/${id}`, {
          method: 'PUT',
          headers: { 'Content-Type': 'application/json', 'If-Match': `"${answered.version}"` },
          body: JSON.stringify({ ...emptyDesign('Killed'), notes }),
        })
        const body = (await answer.json()) as { version: number; design: { notes?: string } }
        expect(answer.status).toBe(200)
        answered = { version: body.version, notes }
      } catch (error) {
        if (error instanceof Error && error.name === 'JestAssertionError') throw error
        alive = false
      }
    }
    await doomed.ended
    served = await serve({ ROOT_BOARD_DATA: data })
    const stored = (await (await fetch(`${served.url}/api/projects/${id}`)).json()) as {
      version: number
      design: { notes?: string }
    }
    // The last save may have been written though its answer was lost; nothing answered may be missing.
    expect(stored.version - answered.version).toBeGreaterThanOrEqual(0)
    expect(stored.version - answered.version).toBeLessThanOrEqual(1)
    if (stored.version === answered.version) expect(stored.design.notes).toBe(answered.notes)
    answered = { version: stored.version, notes: stored.design.notes }
  }
  served.child.kill('SIGTERM')
  await served.ended
  const db = await openDatabase(data)
  expect(await integrity(db)).toBe('ok')
  await db.close()
  expect(saves).toBeGreaterThan(kills * 2)
}, 300_000)
