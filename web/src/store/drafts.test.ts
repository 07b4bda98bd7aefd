// What the page keeps until the server has confirmed it, in a database like a browser's; and what becomes of it.

import 'fake-indexeddb/auto'
import { deserialize, serialize } from 'node:v8'
Object.assign(globalThis, { structuredClone: (v: unknown) => deserialize(serialize(v)) as unknown })
import { emptyDesign } from '@root-board/core/design'
import { clear, entries, set } from 'idb-keyval'
import { type FakeServer, fakeServer, until } from '../../test/fake-server'
import { openProject, resolveConflict, startAutosave } from './autosave'
import { dropDraft, keepDraft, readDraft } from './drafts'
import { useProject } from './project'

const state = () => useProject.getState()
const call = (name: string) => state().edit({ kind: 'renameProject', name })
const design = (name: string) => emptyDesign(name)
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
const kept = async () =>
  (await entries<string, { design: { name: string }; version: number }>()).map(([, d]) => [
    d.design.name,
    d.version,
  ])

let server: FakeServer
let stop: (() => void) | undefined
beforeEach(async () => {
  await clear()
  server = fakeServer(design('First'))
})
afterEach(() => {
  stop?.()
  stop = undefined
  state().close()
})
const opened = async () => {
  await openProject('p1')
  stop = startAutosave()
}

describe('a draft', () => {
  test('is what was kept last, of one project', async () => {
    await keepDraft('p1', { design: design('A'), version: 3 })
    await keepDraft('p1', { design: design('B'), version: 4 })
    await keepDraft('p10', { design: design('Other'), version: 1 })
    expect(await readDraft('p1')).toMatchObject({ design: { name: 'B' }, version: 4 })
    await dropDraft('p1')
    expect(await readDraft('p1')).toBeUndefined()
    expect(await readDraft('p10')).toMatchObject({ version: 1 })
  })
  test('that another tab left behind is taken over, the newest first; one that is just being renewed is not', async () => {
    const now = Date.now()
    const draft = (name: string, age: number) => ({ design: design(name), version: 1, at: now - age })
    await set('draft:p1:older', draft('older', 60_000))
    await set('draft:p1:newer', draft('newer', 30_000))
    await set('draft:p1:open', draft('open', 1000))
    await set('draft:p2:other', draft('other', 90_000))
    expect(await readDraft('p1')).toMatchObject({ design: { name: 'newer' } })
    // It is this tab's now, and no longer the other's.
    expect((await entries()).map(([k]) => k).sort()).toEqual(
      expect.arrayContaining(['draft:p1:older', 'draft:p1:open', 'draft:p2:other']),
    )
    expect(await entries()).toHaveLength(4)
    expect(await readDraft('p1')).toMatchObject({ design: { name: 'newer' } })
  })
})

describe('while a project is open', () => {
  test('an edit is kept at once, with the version it was made from, and dropped when it is stored', async () => {
    server.version = 7
    await opened()
    expect(await kept()).toEqual([])
    call('A')
    await wait(50)
    expect(await kept()).toEqual([['A', 7]])
    await until(() => state().save.kind === 'saved')
    await wait(20)
    expect([await kept(), state().version]).toEqual([[], 8])
  })
  test('an edit made while saving is kept over the version just stored', async () => {
    server.delay = 150
    await opened()
    call('A')
    await until(() => state().save.kind === 'saving')
    call('B')
    await until(() => server.version === 2 && state().save.kind === 'waiting')
    await wait(20)
    expect(await kept()).toEqual([['B', 2]])
    await until(() => state().save.kind === 'saved')
  })
  test('opening and saving alone keep nothing', async () => {
    await opened()
    state().setSave({ kind: 'saved' })
    await wait(30)
    expect(await kept()).toEqual([])
  })
  test('what the page was closed with is opened again and saved, also while the server is away', async () => {
    await keepDraft('p1', { design: design('Kept'), version: 1 })
    server.away = true
    await opened()
    expect([state().design?.name, state().version]).toEqual(['Kept', 1])
    await until(() => state().save.kind === 'away')
    server.away = false
    window.dispatchEvent(new Event('online'))
    await until(() => state().save.kind === 'saved')
    expect([server.design.name, server.version, server.saves]).toEqual(['Kept', 2, 1])
  })
  test('without a draft and without a server it can’t be opened; a project that is gone can’t either, draft or not', async () => {
    server.away = true
    await expect(openProject('p1')).rejects.toThrow('The server does not answer')
    server.away = false
    server.refuses = { status: 404, title: 'There is no project p1.' }
    await keepDraft('p1', { design: design('Kept'), version: 1 })
    await expect(openProject('p1')).rejects.toThrow('There is no project p1.')
  })
})

describe('when the server says no', () => {
  test('to what is sent: said, with each place, and not tried again', async () => {
    await opened()
    server.refuses = {
      status: 422,
      title: 'It is faulty.',
      faults: [{ path: 'needs', message: 'is missing' }],
    }
    call('A')
    await until(() => state().save.kind === 'refused')
    expect(state().save).toMatchObject({ why: 'It is faulty. needs: is missing' })
    server.refuses = undefined
    await wait(500)
    expect([state().save.kind, server.design.name]).toEqual(['refused', 'First'])
  })
  test('because of itself: it counts as away, and is tried again by itself', async () => {
    await opened()
    server.refuses = { status: 500, title: 'broken' }
    call('A')
    await until(() => state().save.kind === 'away')
    server.refuses = undefined
    await wait(1500)
    expect(server.design.name).toBe('First')
    await until(() => state().save.kind === 'saved')
    expect(server.design.name).toBe('A')
  }, 10_000)
})

describe('the end', () => {
  test('what still waits is saved at once, and nothing after', async () => {
    await opened()
    call('A')
    stop!()
    stop = undefined
    await wait(100)
    expect(server.design.name).toBe('A')
    call('B')
    window.dispatchEvent(new Event('online'))
    await wait(500)
    expect(server.design.name).toBe('A')
  })
  test('with nothing open nothing is sent', async () => {
    stop = startAutosave()
    state().setSave({ kind: 'waiting' })
    await wait(450)
    expect(server.saves).toBe(0)
  })
  test('a project that was left while it was saved doesn’t speak into the next', async () => {
    server.delay = 150
    await opened()
    call('A')
    await until(() => state().save.kind === 'saving')
    state().open('p2', design('Second'), 40, { kind: 'saved' })
    await wait(300)
    expect([state().id, state().version, state().save.kind]).toEqual(['p2', 40, 'saved'])
  })
  test('steps to undo belong to the project that is open', async () => {
    await opened()
    call('A')
    call('B')
    state().undo()
    state().open('p2', design('Second'), 1, { kind: 'saved' })
    expect([state().done, state().undone]).toEqual([[], []])
    call('C')
    state().close()
    expect([state().done, state().undone, state().design]).toEqual([[], [], undefined])
  })
})

describe('a page that is left right after an edit', () => {
  const leave = () => {
    stop!()
    state().close()
  }
  const noConflict = () => until(() => state().save.kind === 'saved' || state().save.kind === 'conflict')
  test('is saved, and opened again without a word of a conflict', async () => {
    await opened()
    call('A')
    leave()
    await until(() => server.version === 2)
    await wait(30)
    expect(await kept()).toEqual([])
    await opened()
    expect([state().design?.name, state().version, state().save.kind]).toEqual(['A', 2, 'saved'])
  })
  test('so is what was changed while a save was under way', async () => {
    await opened()
    server.delay = 40
    call('A')
    await until(() => state().save.kind === 'saving')
    call('B')
    leave()
    await until(() => server.version === 2)
    await wait(60)
    expect(await kept()).toEqual([['B', 2]])
    await opened()
    await noConflict()
    expect([state().save.kind, server.design.name, server.version]).toEqual(['saved', 'B', 3])
  })
  test('opened again before the answer is there, it is the same project and no other’s', async () => {
    await opened()
    server.delay = 40
    call('A')
    leave()
    await opened()
    await noConflict()
    expect([state().save.kind, state().design?.name, server.design.name]).toEqual(['saved', 'A', 'A'])
    expect(state().version).toBe(server.version)
  })
})

describe('an answer that is lost', () => {
  test('the page goes on from what was stored of its own, also when it was changed since', async () => {
    await opened()
    server.mute = true
    call('A')
    await until(() => state().save.kind === 'away')
    expect([server.design.name, server.version, state().version]).toEqual(['A', 2, 1])
    call('B')
    server.mute = false
    window.dispatchEvent(new Event('online'))
    await until(() => state().save.kind === 'saved' || state().save.kind === 'conflict')
    expect([state().save.kind, server.design.name, server.version]).toEqual(['saved', 'B', 3])
  })
  test.each([
    ['with nothing changed since', 'A', 2],
    ['changed since', 'B', 3],
  ])('so does the next page after one that was closed then, %s', async (_, last, version) => {
    await opened()
    server.mute = true
    call('A')
    await until(() => state().save.kind === 'away')
    if (last === 'B') call('B')
    await wait(50)
    server.away = true
    stop!()
    state().close()
    await wait(50)
    server.away = false
    server.mute = false
    await opened()
    await until(() => state().save.kind === 'saved' || state().save.kind === 'conflict')
    expect([state().save.kind, server.design.name, server.version]).toEqual(['saved', last, version])
    await wait(30)
    expect(await kept()).toEqual([])
  })
  test('what another has stored meanwhile is a conflict all the same', async () => {
    await opened()
    server.mute = true
    call('A')
    await until(() => state().save.kind === 'away')
    server.mute = false
    server.design = design('Theirs')
    server.version = 7
    window.dispatchEvent(new Event('online'))
    await until(() => state().save.kind === 'conflict')
    expect(server.design.name).toBe('Theirs')
  })
})

test('a save that waits is sent when the page is left, in a request that outlives it', async () => {
  await opened()
  const alive: unknown[] = []
  const fetched = globalThis.fetch
  globalThis.fetch = ((path: string, init?: RequestInit) => {
    if (init?.method === 'PUT') alive.push(init.keepalive)
    return fetched(path, init)
  }) as typeof fetch
  call('A')
  window.dispatchEvent(new Event('pagehide'))
  // At once, not after the pause in which more may come.
  expect([state().save.kind, alive]).toEqual(['saving', [true]])
  await until(() => server.version === 2)
})

test('a draft that a tab still has is renewed: no other takes it for one left behind', async () => {
  await opened()
  server.away = true
  call('A')
  await until(() => state().save.kind === 'away')
  const at = async () => (await entries<string, { at: number }>())[0]![1].at
  const first = await at()
  await wait(2300)
  expect((await at()) - first).toBeGreaterThan(1500)
}, 10_000)

test('why it is not stored is said in the server’s words, and whether this browser keeps it', async () => {
  await opened()
  server.refuses = { status: 507, title: 'The disk is full; nothing was saved' }
  call('A')
  await until(() => state().save.kind === 'away')
  expect(state().save).toEqual({ kind: 'away', why: 'The disk is full; nothing was saved', kept: true })
  const put = jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError')
  })
  call('B')
  await wait(30)
  server.refuses = undefined
  server.away = true
  window.dispatchEvent(new Event('online'))
  await until(() => state().save.kind === 'away' && !(state().save as { kept: boolean }).kept)
  expect(state().save).toEqual({ kind: 'away', why: undefined, kept: false })
  // Whoever closes the page now is asked whether that is meant.
  const leaving = new Event('beforeunload', { cancelable: true })
  window.dispatchEvent(leaving)
  expect(leaving.defaultPrevented).toBe(true)
  put.mockRestore()
})

test('a conflict ends with the draft of mine over the version that is stored, or with none', async () => {
  const clash = async () => {
    await clear()
    server = fakeServer(design('Theirs'))
    server.version = 5
    await opened()
    server.version = 9
    call('Mine')
    await until(() => state().save.kind === 'conflict')
    stop!()
    stop = undefined
  }
  await clash()
  await resolveConflict('mine')
  expect([await kept(), state().version, state().save.kind]).toEqual([[['Mine', 9]], 9, 'waiting'])
  await clash()
  await resolveConflict('theirs')
  expect([await kept(), state().version, state().save.kind]).toEqual([[], 9, 'saved'])
})

test('where nothing is in conflict, there is nothing to end', async () => {
  await opened()
  await resolveConflict('mine')
  await resolveConflict('theirs')
  expect([server.made, server.design.name, state().save.kind]).toEqual([[], 'First', 'saved'])
  state().close()
  await resolveConflict('mine')
  expect(server.made).toEqual([])
})
