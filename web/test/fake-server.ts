// The server's part in saving, in memory: versions, refusals, absence. For tests of the page's side only.

import type { Design } from '@root-board/core/design'

export interface FakeServer {
  version: number
  design: Design
  away: boolean
  /** It stores what is sent, and its answers get lost. */
  mute?: boolean
  /** What it answers to every save and question instead. */
  refuses?: { status: number; title: string; faults?: { path: string; message: string }[] }
  /** Projects made besides. */
  made: { name: string }[]
  saves: number
  /** Milliseconds until an answer. */
  delay: number
}

export const fakeServer = (design: Design): FakeServer => {
  const server: FakeServer = { version: 1, design, away: false, made: [], saves: 0, delay: 0 }
  const answer = (status: number, body: unknown) => ({
    ok: status < 300,
    status,
    json: () => Promise.resolve(body),
  })
  const stored = () => ({
    id: 'p1',
    design: server.design,
    version: server.version,
    sample: false,
    changedAt: '2026-01-01T00:00:00Z',
  })
  globalThis.fetch = (async (path: string, init: RequestInit = {}) => {
    await new Promise((resolve) => setTimeout(resolve, server.delay))
    if (server.away) throw new TypeError('no route')
    if (server.refuses) return answer(server.refuses.status, server.refuses)
    const body = init.body ? (JSON.parse(init.body as string) as Design & { kind?: string }) : undefined
    if (init.method === 'PUT') {
      server.saves++
      const from = Number(/"(\d+)"/.exec((init.headers as Record<string, string>)['If-Match']!)![1])
      if (from !== server.version) return answer(412, { title: 'changed', stored: stored() })
      server.version++
      // As the real one does, it writes the names of an object in an order of its own.
      server.design = Object.fromEntries(Object.entries(body!).reverse()) as unknown as Design
      if (server.mute) throw new TypeError('the line is cut')
      return answer(200, stored())
    }
    if (init.method === 'POST' && path === '/api/parts')
      return (body as unknown as { id: string }).id === 'taken'
        ? answer(422, { title: 'faults', faults: [{ path: 'id', message: 'is a sample part' }] })
        : answer(201, body)
    if (init.method === 'POST' && path === '/api/everything')
      return answer(201, { projects: ['A', 'B'], parts: ['own-led'], drawer: 1, there: 3, damaged: 2 })
    if (init.method === 'POST') {
      server.made.push({ name: body!.name })
      return answer(201, { ...stored(), id: 'p2' })
    }
    return answer(200, stored())
  }) as typeof fetch
  return server
}

export const until = async (holds: () => boolean): Promise<void> => {
  for (let i = 0; i < 400 && !holds(); i++) await new Promise((resolve) => setTimeout(resolve, 10))
  if (!holds()) throw new Error('it never came true')
}
