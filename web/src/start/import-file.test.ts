import { emptyDesign } from '@root-board/core/design'
import { fakeServer } from '../../test/fake-server'
import { importFile } from './import-file'

const file = (name: string, content: unknown) => {
  const text = typeof content === 'string' ? content : JSON.stringify(content)
  // jsdom’s File has no text(); everything else of it is used as it is.
  return Object.assign(new File([text], name), { text: () => Promise.resolve(text) })
}
const led = {
  format: 1,
  kind: 'led',
  id: 'my-led',
  name: 'My LED',
  sheet: 'bag',
  price: 0.1,
  colour: 'red',
  forward: [{ current: '5 mA', voltage: 1.9 }],
  current: '20 mA',
  currentAbsolute: '30 mA',
}

let server: ReturnType<typeof fakeServer>
beforeEach(() => {
  server = fakeServer(emptyDesign('x'))
})

test('a project file becomes a project, a part file a part', async () => {
  expect(await importFile(file('a.json', emptyDesign('Brought')))).toEqual({
    words: '“Brought” is here.',
    project: 'p2',
  })
  expect(await importFile(file('b.json', led))).toEqual({ words: 'My LED is in the library.' })
  expect(server.made).toEqual([{ name: 'Brought' }])
})

test.each<[string, unknown, string, RegExp]>([
  ['no JSON', '{', '', /is not JSON/],
  ['a list', [], '', /one JSON object/],
  ['a wrong unit in a part', { ...led, current: '20 V' }, 'current.typ', /in A/],
  ['an unknown kind of part', { ...led, kind: 'lamp' }, 'kind', /must be one of/],
  ['an unknown field in a project', { ...emptyDesign('x'), stance: 'bold' }, 'stance', /one of/],
  ['a part whose id is taken', { ...led, id: 'taken' }, 'id', /sample part/],
])('%s is refused with its place, and nothing is made', async (_, content, path, words) => {
  const result = await importFile(file('bad.json', content))
  if (!('fault' in result)) throw new Error('it was taken')
  expect(result.fault.file).toBe('bad.json')
  expect(result.fault.faults.map((f) => f.path)).toContain(path)
  expect(result.fault.faults.map((f) => f.message).join(' ')).toMatch(words)
  expect(server.made).toEqual([])
})

test('a file that is too large is not even read; one of a project may have 4 MB', async () => {
  const big = Object.assign(new File(['x'], 'big.json'), { text: () => Promise.reject(new Error('read')) })
  Object.defineProperty(big, 'size', { value: 65 * 2 ** 20 })
  const project = file('project.json', emptyDesign('Large'))
  Object.defineProperty(project, 'size', { value: 5 * 2 ** 20 })
  for (const [of, limit] of [
    [big, '64 MB'],
    [project, '4 MB'],
  ] as const)
    expect(await importFile(of)).toMatchObject({
      fault: { faults: [{ message: expect.stringMatching(limit) as string }] },
    })
  expect(server.made).toEqual([])
})

test('a file of everything says what came in and what was there', async () => {
  const everything = file('all.json', { format: 1, kind: 'everything', projects: [], parts: [], drawer: [] })
  Object.defineProperty(everything, 'size', { value: 30 * 2 ** 20 })
  expect(await importFile(everything)).toEqual({
    words:
      'Brought projects: A, B; parts: own-led; 1 line of the drawer. 3 were there already. 2 were left out when it was made, since they could not be read.',
  })
})

test('a server that is away is said', async () => {
  server.away = true
  expect(await importFile(file('a.json', emptyDesign('x')))).toMatchObject({
    fault: { faults: [{ message: expect.stringMatching('does not answer') as string }] },
  })
})
