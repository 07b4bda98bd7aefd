import { emptyDesign } from '@root-board/core/design'
import { type FakeServer, fakeServer, until } from '../../test/fake-server'
import { openProject, resolveConflict, startAutosave } from './autosave'
import { useProject } from './project'

const state = () => useProject.getState()
const call = (name: string) => state().edit({ kind: 'renameProject', name })
let server: FakeServer
let stop: () => void

beforeEach(async () => {
  server = fakeServer(emptyDesign('First'))
  await openProject('p1')
  stop = startAutosave()
})
afterEach(() => stop())

test('an edit is saved without being asked, several soon after one another at once', async () => {
  call('A')
  call('B')
  expect(state().save.kind).toBe('waiting')
  await until(() => state().save.kind === 'saved')
  expect([server.design.name, server.version, state().version, server.saves]).toEqual(['B', 2, 2, 1])
})

test('an edit made while saving is saved next, over the version just answered', async () => {
  server.delay = 60
  call('A')
  await until(() => server.saves === 0 && state().save.kind === 'saving')
  call('B')
  await until(() => state().save.kind === 'saved')
  expect([server.design.name, server.version]).toEqual(['B', 3])
})

test('while the server is away edits stay in the page, and go when it is back', async () => {
  server.away = true
  call('A')
  await until(() => state().save.kind === 'away')
  call('B')
  await until(() => state().save.kind === 'away')
  server.away = false
  window.dispatchEvent(new Event('online'))
  await until(() => state().save.kind === 'saved')
  expect(server.design.name).toBe('B')
})

describe('changed elsewhere', () => {
  beforeEach(async () => {
    server.design = { ...server.design, notes: 'from the other tab' }
    server.version = 5
    call('Mine')
    await until(() => state().save.kind === 'conflict')
  })
  test('the server’s version is untouched until the builder chooses', () => {
    expect(server.design).toMatchObject({ name: 'First', notes: 'from the other tab' })
    call('Mine, further')
    expect(state().save.kind).toBe('conflict')
  })
  test('going on with mine keeps the other as a project', async () => {
    await resolveConflict('mine')
    await until(() => state().save.kind === 'saved')
    expect([server.design.name, server.version]).toEqual(['Mine', 6])
    expect(server.made).toEqual([{ name: 'First (the other version)' }])
  })
  test('going on with the other keeps mine as a project', async () => {
    await resolveConflict('theirs')
    expect([state().design?.notes, state().version, state().save.kind]).toEqual([
      'from the other tab',
      5,
      'saved',
    ])
    expect(server.made).toEqual([{ name: 'Mine (my version)' }])
  })
})
