import { follow, pathTo } from './path'

const x = { is: 'looked for' }
const answer = { list: [{ deep: { deeper: x } }, { of: x }], own: { constructor: undefined } }

test('the shortest way to an object, and what lies there', () => {
  expect(pathTo(answer, x)).toEqual(['list', '1', 'of'])
  expect(follow(answer, ['list', '1', 'of'])).toBe(x)
  expect(pathTo(answer, answer)).toEqual([])
})
test('no way to what only looks alike; nothing lies where nothing is, nor where every object has something', () => {
  expect(pathTo(answer, { is: 'looked for' })).toBeUndefined()
  expect(follow(answer, ['list', 7, 'of'])).toBeUndefined()
  expect(follow(answer, ['own', 'toString'])).toBeUndefined()
  expect(follow(undefined, ['own'])).toBeUndefined()
})
