// Tables of every shape, each against what it must be understood as.

import { join } from 'node:path'
import { readTable } from '.'
import { printed, readAsking, scoreOf, tableCases } from './test/cases'

const cases = tableCases(join(__dirname, 'test', 'tables'))
const byLeg = <T extends { legs: number[]; functions: string[] }>(legs: T[]) =>
  [...legs]
    .map((l) => ({ ...l, legs: [...l.legs].sort((a, b) => a - b), functions: [...l.functions].sort() }))
    .sort((a, b) => a.legs[0]! - b.legs[0]!)

describe.each(cases.map((c) => [c.name, c] as const))('%s', (_, one) => {
  const answered = readTable(one.text, { ...one.options, answers: one.answers })
  test('every leg, name, type and function', () => {
    const wanted = byLeg(one.expected)
    const found = byLeg(printed(answered))
    for (const leg of wanted) expect(found.find((f) => f.id === leg.id)).toEqual(leg)
    expect(found.filter((f) => f.id !== 'NC')).toHaveLength(wanted.length)
  })
  test('units and marks', () => {
    const kinds = answered.units.map((u) => [u.id, u.kind])
    for (const unit of one.units) expect(kinds).toContainEqual(unit)
    const marks = answered.legs.flatMap((l) => [
      ...(l.reset ? [`${l.id} reset`] : []),
      ...(l.oscillator ? [`${l.id} oscillator`] : []),
      ...(l.debug ? [`${l.id} debug`] : []),
      ...(l.notes.some((n) => /tolerant/.test(n)) ? [`${l.id} tolerant`] : []),
    ])
    for (const [id, mark] of one.marked) expect(marks).toContain(`${id} ${mark}`)
  })
  test('contradictions, and where each leg stands in the text', () => {
    const lines = one.text.replace(/\r/g, '').split('\n')
    for (const f of answered.legs.flatMap((l) => l.functions)) {
      const shown = lines[f.place.line - 1]!.slice(f.place.from, f.place.to)
      expect(shown.length).toBeGreaterThan(0)
    }
    const before = readTable(one.text, one.options)
    if (one.faults) expect(before.faults.map((f) => `${f.path}: ${f.message}`)).toEqual(one.faults)
  })
})

test('nine tenths without a question, all with three', () => {
  const share = (questions: number) => {
    const scores = cases.map((c) => scoreOf(c, readAsking(c, questions, readTable)))
    const sum = (key: 'right' | 'all') => scores.reduce((s, x) => s + x[key], 0)
    return sum('right') / sum('all')
  }
  expect(share(0)).toBeGreaterThanOrEqual(0.9)
  expect(share(1)).toBeGreaterThanOrEqual(0.97)
  expect(share(3)).toBe(1)
})
