// A header's table joined with the chip on the board, and used for a plan.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import { findPart, makeLibrary, readPart } from '../parts'
import { type BoardHead, boardFileFrom, joinBoard, readTable } from '.'

const library = shippedLibrary()
const chip = findPart(library, 'chip', 'mw1-32')!
const ports = chip.pins.filter((p) => p.type === 'io').map((p) => p.id)
const prefix = /^(.*?)\d+$/.exec(ports[0]!)![1]!
const numbers = ports.map((id) => id.slice(prefix.length)).slice(0, 8)
const head: BoardHead = {
  id: 'bench-stick',
  name: 'Bench stick',
  sheet: 'its picture',
  chip,
  logic: 3.3,
  input: { min: 4.5, max: 5.5 },
}
const text = [
  'Position\tPrinted\tPort\tNumber in the program',
  'L-1\t3V3\t3V3\t',
  ...numbers.map((n, i) => `L-${i + 2}\tX${i}\tIO${n}\t${n}`),
  'R-2\t5V\t5V\t',
  'R-1\tG\tGND\t',
].join('\n')

test('positions, labels and numbers; the chip’s pins by a rule learned from one answer', () => {
  const table = readTable(text, { board: true })
  const asked = joinBoard(table, head, {})
  expect(asked.questions.map((q) => [q.id, q.guess, q.value])).toEqual([
    ['prefix:IO', prefix, numbers.length],
  ])
  const joined = joinBoard(table, head, { 'prefix:IO': prefix })
  expect(joined).toMatchObject({ questions: [], unknown: [] })
  expect(joined.headers).toMatchObject([
    {
      id: 'l',
      positions: [
        { label: '3V3', rail: 'LOGIC' },
        ...numbers.map((n, i) => ({ label: `X${i}`, pin: `${prefix}${n}`, number: Number(n) })),
      ],
    },
    {
      id: 'r',
      positions: [
        { label: 'G', rail: 'GND' },
        { label: '5V', rail: '5V' },
      ],
    },
  ])
  expect(joinBoard(table, head, { 'prefix:IO': 'none' }).unknown).toHaveLength(numbers.length)
})

test('the board is valid, and a project is planned on its positions', () => {
  const joined = joinBoard(readTable(text, { board: true }), head, { 'prefix:IO': prefix })
  const board = readPart(boardFileFrom(joined, head), 'x')
  const with_ = makeLibrary([...Object.values(library.parts), board])
  const { pins } = analyse(project({ chip: 'bench-stick', devices: [['push-button', 'Start']] }), with_)
  expect(pins.plan?.status).toBe('proven')
  expect(ports.slice(0, 8)).toContain(Object.values(pins.assignment)[0])
})

describe('a board told by its two sides', () => {
  const seats = (text: string, answers = {}) =>
    readTable(text, { board: true, answers }).legs.map((l) => `${l.position ?? l.legs.join()}: ${l.id}`)
  const left = ['left 1: 3V3', 'left 2: GND', 'left 3: IO0', 'left 4: IO1']
  const right = ['right 1: 5V', 'right 2: GND', 'right 3: IO15', 'right 4: IO14']
  test('as two columns without numbers; they may be what is printed and the chip’s leg all the same', () => {
    const text = '3V3 | 5V\nGND | GND\nIO0 | IO15\nIO1 | IO14'
    expect(seats(text).sort()).toEqual([...left, ...right])
    expect(readTable(text, { board: true }).questions.map((q) => q.id)).toEqual(['column:1'])
    const said = readTable(text, { board: true, answers: { 'column:1': 'label' } })
    expect(said.legs.map((l) => [l.id, l.label])).toContainEqual(['IO0', 'IO15'])
  })
  test('as two lists, each under its side', () => {
    const text = 'Left side\n3V3\nGND\nIO0\nIO1\nRight side\n5V\nGND\nIO15\nIO14'
    expect(seats(text)).toEqual([...left, ...right])
  })
  test('as two headers beside one another, each with its own numbers', () => {
    const text =
      'J1 pin  Signal   J2 pin  Signal\n1       3V3      1       5V\n2       GND      2       GND\n3       IO0      3       IO15'
    expect(seats(text).sort()).toEqual([
      'j1 1: 3V3',
      'j1 2: GND',
      'j1 3: IO0',
      'j2 1: 5V',
      'j2 2: GND',
      'j2 3: IO15',
    ])
    const { headers } = joinBoard(readTable(text, { board: true }), head, {})
    expect(headers.map((h) => [h.id, (h.positions as unknown[]).length])).toEqual([
      ['j1', 3],
      ['j2', 3],
    ])
  })
  test('as a drawing seen from above', () => {
    const text = '3V3 1 |--USB--| 8 5V\nGND 2 |       | 7 GND\nIO0 3 |       | 6 IO15\nIO1 4 |       | 5 IO14'
    expect(seats(text)).toEqual(['1: 3V3', '2,7: GND', '3: IO0', '4: IO1', '5: IO14', '6: IO15', '8: 5V'])
  })
})
