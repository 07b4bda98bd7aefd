// The level of a line that several things pull on, by hand.

import type { SupportPart } from '../circuit'
import type { Chip } from '../parts'
import { unsaid } from '../findings'
import { exactly } from '../quantity'
import { asStated } from '../sums'
import { heldLevel as worked, type Hold, holdsOf } from './holds'
import type { Wire } from '../legs/wires'

const hold = (to: Hold['to'], resistance: Hold['resistance'], offset = exactly(0)): Hold => ({
  to,
  resistance,
  offset,
  ...unsaid,
})
const given = (symbol: string, value: Hold['resistance'], unit: 'V' | 'Ω') => ({
  symbol,
  label: symbol,
  value,
  unit,
  origin: { kind: 'rule' as const, source: 'test' },
})
const supply = asStated('Rail', 'V_DD', 'V', given('V_out', { min: 3.2, typ: 3.3, max: 3.4 }, 'V'))
const own = { to: 'low' as const, input: given('R_own', { min: 25e3, typ: 40e3, max: 55e3 }, 'Ω') }
const heldLevel = (...of: Parameters<typeof worked>) => worked(...of)?.value
const up = hold('high', { min: 6460, typ: 6800, max: 7140 })

test('a pull-up against the leg’s own pull-down: least where the one is weakest and the other strongest', () => {
  const level = heldLevel(supply, [up], own)!
  // 3.2 · 25 / (25 + 7.14), 3.3 · 40 / (40 + 6.8), 3.4 · 55 / (55 + 6.46)
  expect(level.min).toBeCloseTo(2.489, 3)
  expect(level.typ).toBeCloseTo(2.8205, 4)
  expect(level.max).toBeCloseTo(3.0426, 4)
})
test('two pull-ups are one of both in parallel', () => {
  const two = heldLevel(supply, [hold('high', exactly(10e3)), hold('high', exactly(10e3))], own)!
  const one = heldLevel(supply, [hold('high', exactly(5e3))], own)!
  expect(two.min).toBeCloseTo(one.min, 12)
  expect(two.max).toBeCloseTo(one.max, 12)
})
test('what is tied wins; what nothing holds has no level; an LED stops it at its forward voltage', () => {
  expect(heldLevel(supply, [hold('low', exactly(0)), up], own)).toEqual(exactly(0))
  expect(heldLevel(supply, [], undefined)).toBeUndefined()
  const led = hold('low', exactly(0), { min: 1.6, typ: 1.8, max: 2 })
  expect(heldLevel(supply, [up, led], undefined)).toEqual({ min: 1.6, typ: 1.8, max: 2 })
  // To the supply it holds no lower than the supply less its forward voltage.
  const above = hold('high', exactly(0), { min: 1.6, typ: 1.8, max: 2 })
  const low = heldLevel(supply, [above], own)!
  expect(low.min).toBeCloseTo(1.2, 9)
  expect(low.max).toBeCloseTo(1.8, 9)
})

describe('what of ours holds a line before the program runs', () => {
  const wire = { signal: { id: 's', ends: [] }, pin: { id: 'PA0' } } as unknown as Wire
  const part = (role: SupportPart['role'], more: Partial<SupportPart> = {}) =>
    ({
      role,
      name: 'resistor',
      part: { kind: 'resistors', tolerance: 0.05 },
      value: { value: 10e3, unit: 'Ω', marking: '10k' },
      present: true,
      signal: 's',
      ...more,
    }) as unknown as SupportPart
  const held = (p: SupportPart) =>
    holdsOf(wire, {} as Chip, [p], { parts: {} }).holds.map((h) => [h.to, h.resistance.min, h.resistance.max])
  // From the supply: high. From the gate to ground: low. What lies in the line or across a load holds nothing.
  test.each<[SupportPart['role'], string | undefined]>([
    ['line pull-up', 'high'],
    ['select pull-up', 'high'],
    ['gate pull-down', 'low'],
    ['gate resistor', undefined],
    ['lamp resistor', undefined],
    ['sensor divider', undefined],
    ['shift series', undefined],
  ])('%s: %s', (role, to) => expect(held(part(role))).toEqual(to ? [[to, 9500, 10500]] : []))
  test('not what is left out, nor what another signal has', () => {
    expect(held(part('line pull-up', { present: false }))).toEqual([])
    expect(held(part('line pull-up', { signal: 'other' }))).toEqual([])
  })
})
