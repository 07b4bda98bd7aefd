import { exactly } from '../quantity'
import {
  fromDecision,
  fromPart,
  fromRule,
  fromWorked,
  linesOf,
  type Origin,
  originText,
  rangeText,
  substituted,
  unprovenText,
  type Worked,
  workingText,
} from '.'

const heat: Worked = {
  label: 'Heat',
  symbol: 'P',
  value: { min: 0.1, typ: 0.2, max: 0.3 },
  unit: 'W',
  formula: '(V_in − V_out) · I',
  inputs: [
    fromRule('V_in', 'input', 12, 'V', 'sheet'),
    fromRule('V_out', 'output', 5, 'V', 'sheet'),
    fromRule('I', 'load', 0.03, 'A', 'sheet'),
  ],
}

test('values take the place of whole symbols only', () =>
  expect(substituted(heat)).toBe('(12 V − 5 V) · 30 mA'))
test('a symbol inside another is left alone', () =>
  expect(substituted({ ...heat, formula: 'I_q + I', inputs: [fromRule('I', 'x', 1, 'A', 'y')] })).toBe(
    'I_q + 1 A',
  ))
test('of two symbols of which one begins as the other the longer is meant', () =>
  expect(
    substituted({
      ...heat,
      formula: 'I_q,1 + I_q',
      inputs: [fromRule('I_q', 'x', 1, 'A', 'y'), fromRule('I_q,1', 'x', 2, 'A', 'y')],
    }),
  ).toBe('2 A + 1 A'))
test('ranges say their corners, exact values once', () => {
  expect(rangeText(heat.value, 'W')).toBe('100 mW … 200 mW … 300 mW')
  expect([rangeText(exactly(5), 'V'), rangeText(exactly(7200), 'V')]).toEqual(['5 V', '7.2 kV'])
  expect([rangeText(exactly(3599), 's'), rangeText(exactly(3600), 's')]).toEqual(['3.599 ks', '1 h 0 min'])
  // 166 300 s are 46 h 11 min 40 s
  expect(rangeText({ min: 30, typ: 166_300, max: 10 * 86_400 }, 's')).toBe('30 s … 46 h 12 min … 10 days')
})
test('a value between its ends is said, one at an end is not said twice', () =>
  expect([
    rangeText({ min: 1, typ: 1, max: 2 }, 'V'),
    rangeText({ min: 1, typ: 2, max: 2 }, 'V'),
    rangeText({ min: 1, typ: 1.5, max: 2 }, 'V', 2),
  ]).toEqual(['1 V … 2 V', '1 V … 2 V', '1 V … 1.5 V … 2 V']))

test.each<[Origin, string]>([
  [
    {
      kind: 'part',
      part: 'x',
      name: 'X',
      field: 'f',
      sheet: 'X sheet',
      place: 'table 2',
      limit: 'guaranteed',
    },
    'X sheet, table 2 (guaranteed)',
  ],
  [
    { kind: 'part', part: 'x', name: 'X', field: 'f', sheet: 'X sheet', limit: 'absolute' },
    'X sheet (absolute maximum)',
  ],
  [{ kind: 'part', part: 'x', name: 'X', field: 'f', limit: 'assumed' }, 'X (assumed, from no sheet)'],
  [
    { kind: 'part', part: 'x', name: 'X', field: 'f', place: 'table 2', limit: 'recommended' },
    'table 2 (recommended)',
  ],
  [{ kind: 'part', part: 'x', name: 'X', field: 'f', limit: 'typical' }, 'X (typical)'],
  [{ kind: 'part', part: 'x', name: 'X', field: 'f', limit: 'condition' }, 'X (test condition)'],
  [{ kind: 'part', part: 'x', name: 'X', field: 'f', limit: 'measured' }, 'X (measured)'],
  [{ kind: 'part', part: 'x', name: 'X', field: 'f' }, 'X'],
  [{ kind: 'need', what: 'a lamp' }, 'need: a lamp'],
  [{ kind: 'decision', what: 'set on the Needs page' }, 'set on the Needs page'],
  [{ kind: 'rule', source: 'rule of thumb' }, 'rule of thumb'],
  [{ kind: 'worked', of: heat }, 'worked out'],
])('where a value came from: %#', (origin, words) => expect(originText(origin)).toBe(words))

const junction: Worked = {
  label: 'Junction',
  symbol: 'T',
  value: { min: 35, typ: 40, max: 45 },
  unit: '°C',
  formula: 'P · θ(P) + T_A',
  inputs: [
    { ...fromWorked(heat), value: { min: 0.1, typ: 0.2, max: 0.3 } },
    { ...fromRule('θ(P)', 'way for the heat', 50, 'K/W', 'curve'), curve: true },
    fromDecision('T_A', 'ambient', 30, '°C', 'set on the Needs page'),
  ],
  corners: {
    min: { at: [0.1, -1, 30], line: '0.1 W · 50 + 30', where: 'least load' },
    typ: { at: [0.2, 0, 30], line: '0.2 W · 50 + 30', where: '' },
    max: { at: [0.3, 1, 30], line: '0.3 W · 50 + 30', where: 'greatest load' },
  },
  unproven: true,
  note: 'In still air.',
}
test('the whole working, line by line, with the workings it stands on', () => {
  expect(workingText(junction).split('\n')).toEqual([
    'Junction: T = 35 °C … 40 °C … 45 °C',
    '  T = P · θ(P) + T_A',
    '  least: 0.1 W · 50 + 30  (least load)',
    '  usual: 0.2 W · 50 + 30',
    '  greatest: 0.3 W · 50 + 30  (greatest load)',
    '  P = 100 mW … 200 mW … 300 mW  Heat [worked out]',
    '    Heat: P = 100 mW … 200 mW … 300 mW',
    '      P = (V_in − V_out) · I',
    '      V_in = 12 V  input [sheet]',
    '      V_out = 5 V  output [sheet]',
    '      I = 30 mA  load [sheet]',
    '  θ(P) = read from its curve  way for the heat [curve]',
    '  T_A = 30 °C  ambient [set on the Needs page]',
    `  ${unprovenText}`,
    '  In still air.',
  ])
  const exact = { ...junction, value: exactly(40) }
  expect(linesOf(exact).map((l) => [l.corner, l.word, l.line])).toEqual([['typ', 'usual', '0.2 W · 50 + 30']])
  expect(linesOf(heat)).toEqual([])
})
test('the values of the corner that is asked for; what is read from a curve keeps its name', () => {
  expect(substituted(junction, 'max')).toBe('300 mW · θ(300 mW) + 30 °C')
  expect(substituted(junction, 'min')).toBe('100 mW · θ(100 mW) + 30 °C')
  expect(substituted({ ...junction, corners: undefined }, 'max')).toBe('300 mW · θ(300 mW) + 30 °C')
  expect(substituted({ ...heat, inputs: [] })).toBe(heat.formula)
})

test('a rated value of a part keeps its place and how sure it is', () =>
  expect(
    fromPart(
      'V',
      'supply',
      { id: 'x', name: 'X', sheet: 'X sheet' },
      'supply',
      { min: 1, max: 3, kind: 'absolute', source: 'table 1' },
      'V',
    ),
  ).toEqual({
    symbol: 'V',
    label: 'supply',
    value: { min: 1, typ: 2, max: 3 },
    unit: 'V',
    origin: {
      kind: 'part',
      part: 'x',
      name: 'X',
      field: 'supply',
      sheet: 'X sheet',
      place: 'table 1',
      limit: 'absolute',
    },
  }))
