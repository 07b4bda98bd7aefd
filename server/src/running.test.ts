// The server as a whole, in this process: where it says it is, whom it answers, why it doesn't start, how it stops.

import { cpSync, mkdirSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { type AddressInfo, connect } from 'node:net'
import { networkInterfaces } from 'node:os'
import { join } from 'node:path'
import { freshFolder, root, thread } from '../test/serve'
import { type Config, StartFailure } from './config'
import { startServer } from './start'

const config = (more: Partial<Config> = {}): Config => ({
  host: '127.0.0.1',
  port: 0,
  data: freshFolder(),
  root,
  thread,
  ...more,
})
const get = async (url: string, path: string, headers: Record<string, string> = {}) => {
  // The fetch of this Node sets Host itself: spoken by hand.
  const { hostname, port } = new URL(url)
  return new Promise<number>((resolve, reject) => {
    const socket = connect(Number(port), hostname)
    const lines = Object.entries({ Host: `${hostname}:${port}`, Connection: 'close', ...headers })
    socket.on('error', reject)
    socket.once('data', (chunk) => {
      resolve(Number(String(chunk).split(' ')[1]))
      socket.destroy()
    })
    socket.write(`GET ${path} HTTP/1.1\r\n${lines.map(([k, v]) => `${k}: ${v}\r\n`).join('')}\r\n`)
  })
}
const refused = async (c: Config): Promise<Error> => {
  try {
    await (await startServer(c)).stop()
    return new Error('it started')
  } catch (error) {
    return error as Error
  }
}
/** A copy of what is shipped with one file of our own in it. */
const shippedWith = (file: string, text: string): string => {
  const copy = freshFolder()
  for (const folder of ['library', 'demo', 'package.json'])
    cpSync(join(root, folder), join(copy, folder), { recursive: true })
  writeFileSync(join(copy, file), text)
  return copy
}

test('says an address that answers, with the samples in it once; stops, and answers no more', async () => {
  const c = config()
  const running = await startServer(c)
  expect(running.address).toMatch(/^http:\/\/127\.0\.0\.1:\d+$/)
  const health = await (await fetch(`${running.address}/api/health`)).json()
  expect(health).toMatchObject({ status: 'ok', projects: 5, version: expect.any(String) as string })
  await running.stop()
  await expect(fetch(`${running.address}/api/health`)).rejects.toThrow()
  // The samples are there once, however often it starts.
  const again = await startServer(c)
  const listed = (await (await fetch(`${again.address}/api/projects`)).json()) as { id: string }[]
  expect(listed).toHaveLength(5)
  await again.stop()
}, 30_000)

test.each<[string, string, string, number]>([
  ['127.0.0.1', '127.0.0.1', 'localhost', 200],
  ['127.0.0.1', '127.0.0.1', 'bench.example', 421],
  // The name it was told to listen on; for every address at once no name is added.
  ['localhost', 'localhost', 'localhost', 200],
  ['0.0.0.0', '127.0.0.1', '127.0.0.1', 200],
  ['0.0.0.0', '127.0.0.1', '0.0.0.0', 421],
])('listening on %s, asked at %s as %s: %d', async (host, at, name, status) => {
  const running = await startServer(config({ host }))
  const { port } = new URL(running.address)
  expect(await get(`http://${at}:${port}`, '/api/health', { Host: `${name}:${port}` })).toBe(status)
  await running.stop()
})

// An address of every machine is none that a browser opens; one of version 6 stands in brackets.
test.each([
  ['::1', /^http:\/\/\[::1\]:\d+$/],
  ['::', /^http:\/\/localhost:\d+$/],
  ['0.0.0.0', /^http:\/\/localhost:\d+$/],
])('what it says it is at, listening on %s, is what one opens', async (host, address) => {
  const running = await startServer(config({ host }))
  expect(running.address).toMatch(address)
  expect((await fetch(`${running.address}/api/health`)).status).toBe(200)
  // By the addresses of this machine too, where it listens on all of them; by no other name.
  const { port } = new URL(running.address)
  const own = Object.values(networkInterfaces())
    .flatMap((net) => net ?? [])
    .find((n) => n.family === 'IPv4' && !n.internal)
  if (own && host !== '::1')
    expect(await get(`http://127.0.0.1:${port}`, '/api/health', { Host: `${own.address}:${port}` })).toBe(200)
  await running.stop()
})

test('a connection that is held open does not hold up the end', async () => {
  const running = await startServer(config())
  const { port } = new URL(running.address)
  const idle = connect(Number(port), '127.0.0.1')
  idle.on('error', () => undefined)
  await new Promise((resolve) => idle.once('connect', resolve))
  idle.write('GET /api/health HTTP/1.1\r\n') // and never the rest
  const gone = new Promise((resolve) => idle.once('close', () => resolve('closed')))
  await running.stop()
  expect(await gone).toBe('closed')
}, 10_000)

test('why it doesn’t start: in one sentence that names the way out', async () => {
  const other = createServer().listen(0, '127.0.0.1')
  await new Promise((resolve) => other.once('listening', resolve))
  const { port } = other.address() as AddressInfo
  const busy = await refused(config({ port }))
  other.close()
  expect([busy instanceof StartFailure, busy.message]).toEqual([
    true,
    `Port ${port} on 127.0.0.1 is in use; set PORT to another one, or stop what is using it.`,
  ])
  // An address for documentation: of no machine.
  const elsewhere = await refused(config({ host: '192.0.2.1' }))
  expect([elsewhere instanceof StartFailure, elsewhere.message]).toEqual([
    true,
    '192.0.2.1 is not an address of this machine; set HOST to one that is.',
  ])
})

test.each([
  ['library/chips/broken.json', '{', /library\/chips\/broken\.json: .*is not JSON/],
  ['library/chips/odd.json', '{"kind": "spoon"}', /^library\/chips\/odd\.json: kind: must be one of/],
  ['demo/odd.json', '{"format": 1}', /^demo\/odd\.json: /],
])('%s among what is shipped is named, with its place', async (file, text, words) => {
  const failure = await refused(config({ root: shippedWith(file, text) }))
  expect([failure instanceof StartFailure, failure.message]).toEqual([
    true,
    expect.stringMatching(words) as unknown,
  ])
  expect(failure.message.endsWith('.')).toBe(true)
})

test('a page that was built is served, and any address of it leads to it', async () => {
  const copy = shippedWith('library/README.txt', 'no part')
  const dist = join(copy, 'web', 'dist')
  mkdirSync(dist, { recursive: true })
  writeFileSync(join(dist, 'index.html'), '<p>the page</p>')
  const running = await startServer(config({ root: copy }))
  const page = await fetch(`${running.address}/projects/1/pins`)
  expect([page.status, await page.text(), page.headers.get('cache-control')]).toEqual([
    200,
    '<p>the page</p>',
    'no-cache',
  ])
  // What the page has nothing to show at is not found, and the page says so.
  const statuses = await Promise.all(
    ['/', '/parts/own.led', '/copies', '/nothing', '/projectsx', '/robots.txt', '/assets/none.js'].map(
      async (path) => (await fetch(`${running.address}${path}`)).status,
    ),
  )
  expect(statuses).toEqual([200, 200, 200, 404, 404, 404, 404])
  await running.stop()
})
