import fc from 'fast-check'
import { demo, demoFile } from '../../test/files'
import { FaultyFile } from '../parts'
import { applyEdits, type Edit, editLabel, emptyDesign, readDesign } from '.'

const timer = demo('darkroom-timer')
const ids = fc.constantFrom(...timer.needs.devices.map((d) => d.id), 'd99')
const pins = fc.constantFrom('PA0', 'PA4', 'PC0', 'PC5')
const signals = fc.constantFrom('d3.1.contact', 'i2c.SDA', 'd8.1.level')
const kept = fc.constant({ 'i2c.SDA': 'PA4', 'd3.1.contact': 'PA1' })
const edit: fc.Arbitrary<Edit> = fc.oneof(
  fc.record({ kind: fc.constant('setCount' as const), id: ids, count: fc.integer({ min: 1, max: 9 }) }),
  fc.record({ kind: fc.constant('removeDevice' as const), id: ids }),
  fc.record({ kind: fc.constant('renameDevice' as const), id: ids, name: fc.constantFrom('A', 'B') }),
  fc.record({
    kind: fc.constant('addDevices' as const),
    devices: fc.constant<{ part: string; name: string; count: number }[]>([
      { part: 'push-button', name: 'Button', count: 2 },
    ]),
  }),
  fc.record({
    kind: fc.constant('moveSignal' as const),
    signal: signals,
    name: fc.constant('x'),
    pin: pins,
    kept,
  }),
  fc.record({
    kind: fc.constant('swapSignals' as const),
    a: fc.constant('i2c.SDA'),
    b: fc.constant('d3.1.contact'),
    nameA: fc.constant('a'),
    nameB: fc.constant('b'),
    kept,
  }),
  fc.record({ kind: fc.constant('unlockSignal' as const), signal: signals, name: fc.constant('x') }),
  fc.record({ kind: fc.constant('excludePin' as const), pin: pins, kept }),
  fc.record({
    kind: fc.constant('setSetting' as const),
    id: ids,
    setting: fc.constant('light.current'),
    value: fc.constantFrom(null, 0.01),
  }),
  fc.record({
    kind: fc.constant('leaveOut' as const),
    support: fc.constant('bulk'),
    name: fc.constant('bulk'),
  }),
  fc.record({
    kind: fc.constant('chooseRegulator' as const),
    part: fc.constantFrom(null, 'br5-plain'),
    name: fc.constant('r'),
  }),
  fc.record({
    kind: fc.constant('setLimit' as const),
    limit: fc.constantFrom('current' as const, 'ambient' as const),
    value: fc.constantFrom(null, 0.5),
  }),
)

test('whatever is edited stays a design that can be written and read, and the old one is untouched', () => {
  const frozen = JSON.stringify(timer)
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 12 }), (edits) => {
      const after = applyEdits(timer, edits)
      expect(readDesign(JSON.parse(JSON.stringify(after)), 'x')).toEqual(JSON.parse(JSON.stringify(after)))
      for (const e of edits) expect(editLabel(e, after).length).toBeGreaterThan(3)
      // No edit locks two signals on one leg.
      const locked = Object.values(after.pins.locks)
      return locked.length === new Set(locked).size && JSON.stringify(timer) === frozen
    }),
  )
})

test('removing a device forgets its locks and choices, and only its own', () => {
  const busy = applyEdits(timer, [
    { kind: 'lockSignal', signal: 'd3.1.contact', name: 'Start', pin: 'PA1' },
    { kind: 'lockSignal', signal: 'd4.1.contact', name: 'Focus', pin: 'PA2' },
    { kind: 'leaveOut', support: 'pull:d3.1.contact', name: 'pull-up' },
    { kind: 'leaveOut', support: 'bulk', name: 'bulk' },
    { kind: 'removeDevice', id: 'd3' },
  ])
  expect(busy.pins.locks).toEqual({ 'd4.1.contact': 'PA2' })
  expect(busy.build.support).toEqual({ bulk: 'out' })
})

test('another chip begins without the old one’s pins; a name is never given twice', () => {
  const moved = applyEdits(timer, [
    { kind: 'lockSignal', signal: 'd3.1.contact', name: 'Start', pin: 'PA1' },
    { kind: 'chooseChip', part: 'td8-40-dip', name: 'TD8-40' },
    { kind: 'addDevices', devices: [{ part: 'push-button', name: 'Start', count: 1 }] },
  ])
  expect([moved.pins.locks, moved.chip]).toEqual([{}, { part: 'td8-40-dip' }])
  expect(moved.needs.devices.at(-1)).toMatchObject({ id: 'd9', name: 'Start 2' })
})

test.each<[string, unknown, string]>([
  ['a newer format', { ...(demoFile('darkroom-timer') as object), format: 7 }, 'format'],
  ['an unknown field', { ...emptyDesign('x'), colour: 1 }, ''],
  [
    'a device twice',
    { ...timer, needs: { ...timer.needs, devices: [timer.needs.devices[0], timer.needs.devices[0]] } },
    'needs.devices[1].id',
  ],
  [
    'a count of zero',
    { ...timer, needs: { ...timer.needs, devices: [{ ...timer.needs.devices[0], count: 0 }] } },
    'needs.devices[0].count',
  ],
  ['a lock that is no name', { ...timer, pins: { ...timer.pins, locks: { a: 5 } } }, 'pins.locks.a'],
  ['a list', [], ''],
])('%s is refused by its path', (_, data, path) => {
  let paths: string[] | undefined
  try {
    readDesign(data, 'x')
  } catch (error) {
    paths = error instanceof FaultyFile ? error.faults.map((f) => f.path) : undefined
  }
  expect(paths).toContain(path)
})
