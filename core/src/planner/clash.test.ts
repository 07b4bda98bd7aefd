// The words of a clash, by hand: who, what of, and why not.

import type { SignalNeed, WiringChoice } from '../needs'
import type { ClashRule } from '../legs'
import { clashWords } from './clash'
import type { Demand } from './demand'

const signal = (id: string, name: string, kind: string, place?: string): SignalNeed =>
  ({
    id,
    name,
    kind,
    ends: [],
    ...(place && { at: [{ place, instance: { name: `deck of ${name}` } }] }),
  }) as unknown as SignalNeed
const demand = (signals: SignalNeed[], pins: number[][], places: string[] = []) =>
  ({
    chip: {
      name: 'Chip',
      limits: {},
      matrix: [],
      units: [],
      pins: places.map((at, n) => ({ id: `P${n}`, legs: [n + 1], places: [at], type: 'io' })),
      board: { headers: [{ footprint: 'row' }] },
    },
    signals,
    reasons: signals.map(() => [undefined]),
    problem: { signals: pins.map((of) => ({ candidates: of.map((pin) => ({ pin })) })) },
  }) as unknown as Demand
const choice = (name: string) => ({ need: { name } }) as WiringChoice
const [a, b, c] = [
  signal('a', 'Dial', 'analog-in'),
  signal('b', 'Probe', 'analog-in'),
  signal('c', 'Lamp', 'digital-out'),
]

const pulses = (id: string, frequency: number) => ({ ...signal(id, id, 'pwm'), frequency }) as SignalNeed

test.each<[string, SignalNeed[], WiringChoice[], number[][], string]>([
  ['two for one leg', [a, b], [], [[1], [1]], '2 analog inputs are asked for, and only 1 leg can serve them'],
  [
    'legs enough, and no units',
    [a, c],
    [],
    [[1], [2]],
    '1 analog input and 1 output are asked for together, and no unit and legs serve them all at once',
  ],
  [
    'a device in any of its wirings, and a signal',
    [c],
    [choice('Face')],
    [[1]],
    'Face in any of its wirings and Lamp can’t be served together',
  ],
  [
    'two frequencies, and legs enough',
    [pulses('d', 50), pulses('e', 1000)],
    [],
    [[1], [2]],
    '2 PWM outputs need 2 frequencies, and too few timers reach their legs',
  ],
  [
    'one frequency for both is not what is in the way',
    [pulses('d', 50), pulses('e', 50)],
    [],
    [[1], [2]],
    '2 PWM outputs are asked for together, and no unit and legs serve them all at once',
  ],
  [
    'three devices in any of their wirings',
    [],
    [choice('Face'), choice('Hand'), choice('Bell')],
    [],
    'Face in any of its wirings, Hand in any of its wirings and Bell in any of its wirings can’t be served together',
  ],
  ['a device alone', [], [choice('Face')], [], 'Face in any of its wirings can’t be served at all'],
])('%s', (_, clash, choices, pins, words) =>
  expect(clashWords(demand(clash, pins), clash, choices, [])).toBe(words),
)

// Two groups of 100 mA, a second board; LEDs as the builder set them.
test.each<[ClashRule[], string]>([
  [[], '2 outputs are asked for together, and no unit and legs serve them all at once'],
  [['radio'], '2 outputs can’t be served together while the radio is on'],
  [['boards'], '2 outputs can’t be served together on Chip and Other at the same positions'],
  [
    ['currents'],
    '2 outputs can’t be served together within what groups of legs may carry (20 mA and 5 mA; left 100 mA and right 80 mA)',
  ],
  [['locks'], '2 outputs can’t be served together with the locks as they are'],
  [['kept-free'], '2 outputs can’t be served together with the legs kept free'],
  [
    ['locks', 'kept-free'],
    '2 outputs can’t be served together with the locks as they are, or with the legs kept free',
  ],
])('%j: %s', (rules, words) => {
  const lamp = (id: string, settings: object) =>
    ({
      ...signal(id, id, 'digital-out'),
      ends: [
        {
          instance: { need: { settings } },
          signal: { id: 'light', electrical: { kind: 'led', current: 5e-3 } },
        },
      ],
    }) as unknown as SignalNeed
  const lamps = [lamp('x', { 'light.current': 20e-3 }), lamp('y', {})]
  const asked = demand(lamps, [[1], [2]])
  const chip = {
    ...asked.chip,
    alsoOn: [{ name: 'Other' }],
    limits: {
      groups: [
        // What is recommended counts before what it stands.
        { name: 'left', pins: [], recommended: { max: 0.1 }, absolute: { max: 0.2 } },
        { name: 'right', pins: [], absolute: { max: 0.08 } },
      ],
    },
  } as unknown as Demand['chip']
  expect(clashWords({ ...asked, chip }, lamps, [], rules)).toBe(words)
})
test('three of a load are counted, and one signal is not served at all', () => {
  const led = (id: string) =>
    ({
      ...signal(id, id, 'digital-out'),
      ends: [{ instance: { need: {} }, signal: { id: 'light', electrical: { kind: 'led', current: 5e-3 } } }],
    }) as unknown as SignalNeed
  const three = ['p', 'q', 'r'].map(led)
  const groups = { groups: [{ name: 'all', pins: [], absolute: { max: 0.01 } }] }
  const of = (clash: SignalNeed[]) => {
    const asked = demand(
      clash,
      clash.map((_, n) => [n]),
    )
    return clashWords({ ...asked, chip: { ...asked.chip, limits: groups as never } }, clash, [], ['currents'])
  }
  expect(of(three)).toBe(
    '3 outputs can’t be served together within what groups of legs may carry (3 × 5 mA; all 10 mA)',
  )
  expect(of([three[0]!])).toBe(
    '1 output can’t be served at all within what groups of legs may carry (5 mA; all 10 mA)',
  )
})

test('boards that sit on one another: which two, and on what header', () => {
  const [x, y, z] = [
    signal('x', 'Deck OUT', 'digital-out', 'row main.3'),
    signal('y', 'Panel IN', 'digital-in', 'row main.3'),
    signal('z', 'Other IN', 'digital-in', 'row main.4'),
  ]
  const of = (...clash: SignalNeed[]) =>
    clashWords(
      demand(
        clash,
        clash.map((_, n) => [n]),
        ['row main.3', 'row main.4'],
      ),
      clash,
      [],
      [],
    )
  expect(of(z, x, y)).toBe('Deck OUT and Panel IN sit on the same position')
  expect(of(x, z)).not.toContain('same position')
  expect(of(signal('q', 'Far', 'digital-out', 'block main.1'))).toBe(
    'deck of Far needs a block header, and there is none',
  )
})
