// How far a file may go: what is beyond is refused at once, with its place; what only comes near is read.

import { readDesign } from '../design'
import { emptyDesign } from '../design'
import { withinBounds } from './bounds'
import { FaultyFile } from './faults'
import { readPart } from './read'

const faultsOf = (read: () => unknown): { path: string; message: string }[] => {
  try {
    read()
  } catch (error) {
    if (error instanceof FaultyFile) return error.faults
    throw error
  }
  return []
}
const beyond = (data: unknown) => faultsOf(() => withinBounds(data, 'file'))
const nested = (levels: number): unknown => {
  let value: unknown = 'deepest'
  for (let i = 0; i < levels; i++) value = { a: [value] }
  return value
}

test.each<[string, unknown, string, RegExp]>([
  ['deeper than any file', nested(10_000), 'a[0].a[0].a[0].a[0].a[0].a[0]', /more than 32 levels deep/],
  ['a list too long', { pins: Array(2001).fill(1) }, 'pins', /has 2001 entries; at most 2000/],
  [
    'an object of too many',
    { x: Object.fromEntries(Array.from({ length: 2001 }, (_, i) => [i, 1])) },
    'x',
    /2001 entries/,
  ],
  ['a text too long', { a: { name: 'x'.repeat(20_001) } }, 'a.name', /20001 characters; at most 20000/],
  ['a number JSON has no end for', JSON.parse('{"a": [1, 1e999]}'), 'a[1]', /too large/],
  ['a character of none', { name: 'a\u0000' }, 'name', /can’t be written/],
  ['half a character', { list: ['ok', 'a\ud83d'] }, 'list[1]', /can’t be written/],
  ['a name that every object has', JSON.parse('{"a": {"__proto__": 1}}'), 'a', /“__proto__” as a name/],
  ['another', { toString: 'x' }, '', /“toString” as a name/],
  ['a name that can’t be one', { a: { ['k'.repeat(401)]: 1 } }, 'a', /can’t be one/],
  ['more than there can be', { a: Array(600).fill(Array(600).fill(0)) }, '', /more than 300000 values/],
])('%s', (_, data, path, message) => {
  expect(beyond(data)[0]).toEqual({ path, message: expect.stringMatching(message) as string })
})

test('what comes near is read: whole characters, line ends, zero, 2000 entries, 32 levels', () => {
  expect(
    beyond({
      name: 'a😀\n\tb',
      n: -0,
      list: Array(2000).fill(1),
      text: 'x'.repeat(20_000),
      deep: nested(15),
    }),
  ).toEqual([])
})

test('twenty places are told, and that there are more', () => {
  const design = { ...emptyDesign('A'), pins: { locks: {}, excluded: Array(60).fill('P A'), kept: {} } }
  const faults = faultsOf(() => readDesign(design, 'project'))
  // Sixty ids with a space in them: twenty with their places, and how many more.
  expect([faults.length, faults[0]!.path, faults[20]]).toEqual([
    21,
    'pins.excluded[0]',
    { path: '', message: 'has 40 more faults, told when these are mended' },
  ])
})

test.each([
  [
    'needs.devices',
    { needs: { devices: Array(201).fill({}), limits: { ambient: 25 } } },
    /201 devices; at most 200/,
  ],
  [
    'parts',
    { parts: Object.fromEntries(Array.from({ length: 401 }, (_, i) => [`p${i}`, {}])) },
    /401 parts; at most 400/,
  ],
  ['pins.locks', { pins: { locks: 'PA1', excluded: [], kept: {} } }, /must be an object/],
  ['pins.kept', { pins: { locks: {}, excluded: [], kept: ['PA1'] } }, /must be an object/],
])('%s is refused before each of its entries is looked at', (path, part, message) => {
  const faults = faultsOf(() => readDesign({ ...emptyDesign('A'), ...part }, 'project'))
  expect(faults).toEqual([{ path, message: expect.stringMatching(message) as string }])
})

test.each(['constructor', 'toString', 'valueOf'])('no part and no chosen id is called %s', (id) => {
  expect(faultsOf(() => readPart({ format: 2, kind: 'led', id }, 'part'))).toContainEqual({
    path: 'id',
    message: `can’t be “${id}”: take another name`,
  })
  const design = { ...emptyDesign('A'), chip: { part: id } }
  expect(faultsOf(() => readDesign(design, 'project'))).toEqual([
    { path: 'chip.part', message: `can’t be “${id}”: take another name` },
  ])
})
