import { exactly } from '../quantity'
import { fromRule, fromWorked, rangeText, substituted, type Worked, workingText } from '.'

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
test('ranges say their corners, exact values once', () => {
  expect(rangeText(heat.value, 'W')).toBe('100 mW … 200 mW … 300 mW')
  expect(rangeText(exactly(5), 'V')).toBe('5 V')
  expect([rangeText(exactly(3599), 's'), rangeText(exactly(3600), 's')]).toEqual(['3.599 ks', '1 h 0 min'])
  // 166 300 s are 46 h 11 min 40 s
  expect(rangeText({ min: 30, typ: 166_300, max: 10 * 86_400 }, 's')).toBe('30 s … 46 h 12 min … 10 days')
})
test('the working is copied with the workings it stands on', () => {
  const text = workingText({
    ...heat,
    label: 'Junction',
    symbol: 'T',
    unit: '°C',
    formula: 'P · 50',
    inputs: [fromWorked(heat)],
  })
  expect(text).toContain('T = P · 50')
  expect(text).toContain('V_in = 12 V  input [sheet]')
})
