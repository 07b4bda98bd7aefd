import fc from 'fast-check'
import { demo, demoFile } from '../../test/files'
import { FaultyFile } from '../parts'
import {
  applyEdits,
  busSpeedOf,
  busSpeeds,
  type Edit,
  emptyDesign,
  feeders,
  readDesign,
  sharing,
  shiftKinds,
} from '.'

const timer = demo('darkroom-timer')
const ids = fc.constantFrom(...timer.needs.devices.map((d) => d.id), 'd99')
const pins = fc.constantFrom('PA0', 'PA4', 'PC0', 'PC5')
const signals = fc.constantFrom('d3.1.contact', 'i2c.SDA', 'd8.1.level')
const kept = fc.constant({ 'i2c.SDA': 'PA4', 'd3.1.contact': 'PA1' })
const rails = ['rail2', 'rail3', 'rail4'] as const
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
    kind: fc.constant('fitShift' as const),
    signal: signals,
    name: fc.constant('x'),
    shift: fc.constantFrom(null, ...shiftKinds),
  }),
  fc.record({ kind: fc.constant('setFedBy' as const), id: ids, by: fc.constantFrom(...feeders, ...rails) }),
  fc.record({
    kind: fc.constant('addRail' as const),
    rail: fc.record({ id: fc.constantFrom(...rails), regulator: fc.constant('bl33-low') }),
    name: fc.constant('r'),
  }),
  fc.record({
    kind: fc.constant('changeRail' as const),
    id: fc.constantFrom(...rails),
    change: fc.oneof(
      fc.record({ from: fc.constantFrom(...feeders, ...rails) }),
      fc.record({ regulator: fc.constant('bu5-step') }),
    ),
    what: fc.constant('x'),
  }),
  fc.record({ kind: fc.constant('removeRail' as const), id: fc.constantFrom(...rails) }),
  fc.record({
    kind: fc.constant('chooseFeed' as const),
    part: fc.constantFrom(null, 'adapter-5v'),
    name: fc.constant('f'),
  }),
  fc.record({
    kind: fc.constant('changeLead' as const),
    of: fc.constantFrom('source' as const, 'feed' as const),
    change: fc.constantFrom({ wire: 'wire-24' }, { length: 2 }, { wire: undefined, length: undefined }),
    what: fc.constant('x'),
  }),
  fc.record({
    kind: fc.constant('setAlso' as const),
    part: fc.constantFrom('trestle-plain', 'trestle-32'),
    name: fc.constant('t'),
    on: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant('setBusSpeed' as const),
    speed: fc.constantFrom(...busSpeeds),
    bus: fc.constantFrom(undefined, 2, 4),
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

describe('what feeds, what joins, where else', () => {
  const after = (...edits: Edit[]) => applyEdits(timer, edits)
  test.each<[string, Edit[], (d: typeof timer) => unknown, unknown]>([
    [
      'a device on the second feed goes back to the rail when that is gone',
      [
        { kind: 'chooseFeed', part: 'adapter-5v', name: '' },
        { kind: 'setFedBy', id: 'd1', by: 'feed' },
        { kind: 'setFedBy', id: 'd6', by: 'source' },
        { kind: 'chooseFeed', part: null, name: '' },
      ],
      (d) => [d.power.feed, d.needs.devices.map((x) => x.fedBy).filter(Boolean)],
      [undefined, ['source']],
    ],
    [
      'another feed keeps what hangs on it',
      [
        { kind: 'chooseFeed', part: 'adapter-5v', name: '' },
        { kind: 'setFedBy', id: 'd1', by: 'feed' },
        { kind: 'chooseFeed', part: 'adapter-5v-heavy', name: '' },
      ],
      (d) => [d.power.feed, d.needs.devices[0]!.fedBy],
      ['adapter-5v-heavy', 'feed'],
    ],
    [
      'leaving the regulator out keeps source and feed',
      [
        { kind: 'chooseFeed', part: 'adapter-5v', name: '' },
        { kind: 'chooseRegulator', part: null, name: '' },
      ],
      (d) => d.power,
      { source: timer.power.source, regulator: undefined, feed: 'adapter-5v' },
    ],
    [
      'a shift goes with its device',
      [
        { kind: 'fitShift', signal: 'd8.1.level', name: '', shift: 'divider' },
        { kind: 'removeDevice', id: 'd8' },
      ],
      (d) => d.pins.shifts,
      {},
    ],
    [
      'a shift taken out leaves the others',
      [
        { kind: 'fitShift', signal: 'a', name: '', shift: 'divider' },
        { kind: 'fitShift', signal: 'b', name: '', shift: 'mosfet' },
        { kind: 'fitShift', signal: 'a', name: '', shift: null },
      ],
      (d) => d.pins.shifts,
      { b: 'mosfet' },
    ],
    [
      'a second target is there once, and another chip has none',
      [
        { kind: 'setAlso', part: 'trestle-32', name: '', on: true },
        { kind: 'setAlso', part: 'trestle-32', name: '', on: true },
      ],
      (d) => [d.chip.also, applyEdits(d, [{ kind: 'chooseChip', part: 'qm32-48', name: '' }]).chip.also],
      [['trestle-32'], undefined],
    ],
    [
      'the usual speed of the bus is no decision',
      [
        { kind: 'setBusSpeed', speed: 1e6 },
        { kind: 'setBusSpeed', speed: 100e3 },
      ],
      (d) => d.needs.busSpeed,
      undefined,
    ],
    [
      'a further bus runs as the first one until it has a speed of its own',
      [
        { kind: 'setBusSpeed', speed: 400e3 },
        { kind: 'setBusSpeed', speed: 100e3, bus: 3 },
      ],
      (d) => [1, 2, 3].map((bus) => busSpeedOf(d, bus)),
      [400e3, 400e3, 100e3],
    ],
  ])('%s', (_, edits, of, expected) => expect(of(after(...edits))).toEqual(expected))

  const a = { id: 'a', name: 'lit', lasts: 1, every: 10 }
  const b = { id: 'b', name: 'dark' }
  test('states are read as they are written', () => {
    const data = structuredClone(demoFile('darkroom-timer')) as { needs: { states?: unknown } }
    data.needs.states = [{ ...a, chip: 'idle', radio: false, modes: { d1: 'on' } }, b]
    expect(readDesign(data, 'x').needs.states).toEqual(data.needs.states)
  })
  test.each<[string, (d: Record<string, Record<string, unknown>>) => void, string]>([
    ['a shift of no kind', (d) => (d.pins!.shifts = { x: 'magic' }), 'pins.shifts.x'],
    [
      'awake more than all the time',
      (d) => ((d.needs!.limits as Record<string, unknown>).awake = 1.01),
      'needs.limits.awake',
    ],
    ['a speed the bus has not', (d) => (d.needs!.busSpeed = 123), 'needs.busSpeed'],
    ['a speed of a bus there is not', (d) => (d.needs!.busSpeeds = { 5: 100e3 }), 'needs.busSpeeds'],
    [
      'fed by nothing there is',
      (d) => ((d.needs!.devices as { fedBy: string }[])[0]!.fedBy = 'wall'),
      'needs.devices[0].fedBy',
    ],
    ['states none of which has the rest of the time', (d) => (d.needs!.states = [a]), 'needs.states'],
    ['states two of which have it', (d) => (d.needs!.states = [b, { ...b, id: 'c' }]), 'needs.states'],
    ['two states of one id', (d) => (d.needs!.states = [a, { ...b, id: 'a' }]), 'needs.states[1].id'],
    [
      'a state that lasts and never comes',
      (d) => (d.needs!.states = [{ ...a, every: undefined }, b]),
      'needs.states[0].every',
    ],
    [
      'one that comes in two ways',
      (d) => (d.needs!.states = [{ ...a, perDay: 3 }, b]),
      'needs.states[0].perDay',
    ],
    [
      'one that comes and has no length',
      (d) =>
        (d.needs!.states = [
          { ...a, lasts: undefined },
          { ...b, lasts: 1, every: 2 },
        ]),
      'needs.states[0].lasts',
    ],
    [
      'a mode of a device that is not there',
      (d) => (d.needs!.states = [a, { ...b, modes: { d99: 'on' } }]),
      'needs.states[1].modes.d99',
    ],
    [
      'a state begun by a device that is not there',
      (d) => (d.needs!.states = [{ ...a, begins: 'd99' }, b]),
      'needs.states[0].begins',
    ],
    [
      'states and a share of the time awake',
      (d) => {
        d.needs!.states = [a, b]
        ;(d.needs!.limits as Record<string, unknown>).awake = 0.5
      },
      'needs.limits.awake',
    ],
    ['too many boards at once', (d) => (d.chip!.also = ['a', 'b', 'c', 'd']), 'chip.also'],
  ])('%s is refused by its path', (_, spoil, path) => {
    const data = structuredClone(demoFile('darkroom-timer')) as Record<string, Record<string, unknown>>
    spoil(data)
    try {
      readDesign(data, 'x')
      throw new Error('was read')
    } catch (error) {
      expect((error as FaultyFile).faults.map((f) => f.path)).toContain(path)
    }
  })
})

test.each<[string, unknown]>([
  ['format', '1'],
  ['name', 7],
  ['stance', 1],
  ['needs.limits.price', '26'],
  ['needs.limits.awake', '1'],
  ['needs.radio', 'true'],
  ['needs.devices[0].count', '2'],
  ['pins.resetAsPort', 'true'],
])('%s: %j is refused, and not taken for what it looks like', (path, value) => {
  const file = structuredClone(demoFile('darkroom-timer')) as Record<string, never>
  const steps = path.split(/[.[\]]+/).filter(Boolean)
  const last = steps.pop()!
  let at: Record<string, unknown> = file
  for (const step of steps) at = at[step] as Record<string, unknown>
  at[last] = value
  expect(() => readDesign(file, 'x')).toThrow(FaultyFile)
  try {
    readDesign(file, 'x')
  } catch (error) {
    expect((error as FaultyFile).faults.map((f) => f.path)).toContain(path)
  }
})

test('the next device comes after the highest number, and nothing else is a number', () => {
  const [first] = timer.needs.devices
  const design = {
    ...timer,
    needs: {
      ...timer.needs,
      devices: [
        { ...first!, id: 'd12' },
        { ...first!, id: 'bed40' },
      ],
    },
  }
  const more = [1, 2].map((n) => ({ part: 'push-button', name: `Button ${n}`, count: 1 }))
  expect(applyEdits(design, [{ kind: 'addDevices', devices: more }]).needs.devices.map((d) => d.id)).toEqual([
    'd12',
    'bed40',
    'd13',
    'd14',
  ])
})

test('of two designs that say nearly the same, what says the same is the same object, two levels deep', () => {
  const other = structuredClone(timer)
  const edited = applyEdits(other, [{ kind: 'setLimit', limit: 'ambient', value: 41 }])
  const shared = sharing(edited, timer)
  expect(shared).toEqual(edited)
  expect(shared.needs.devices).toBe(timer.needs.devices)
  expect(shared.needs).not.toBe(timer.needs)
  expect([shared.pins === timer.pins, shared.power === timer.power]).toEqual([true, true])
  expect(shared.needs.limits.ambient).toBe(41)
  expect(sharing(other, timer)).toBe(timer)
  expect(sharing(other, undefined)).toBe(other)
  // What went is gone.
  const silent = structuredClone(emptyDesign('Silent'))
  expect(sharing(silent, { ...silent, notes: 'once' })).toEqual(silent)
})
