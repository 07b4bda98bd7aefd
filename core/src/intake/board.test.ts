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
