// Pull-ups by hand: how large one may be against what leaks, and which fits into a window beside those on the boards.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import { stockOf } from '../circuit'
import { applyEdits, type Edit } from '../design'
import type { Chip, Device } from '../parts'
import type { Wire } from '../legs/wires'
import { boardPulls, type BusWindow, ourPullUp } from './pull'

const library = shippedLibrary()
const td8 = library.parts['td8-28-dip'] as Chip
const button = (leakage: number) => {
  const chip: Chip = { ...td8, io: { ...td8.io, leakage: { max: leakage, kind: 'guaranteed' } } }
  const { pins, build } = analyse(
    project({ chip: td8.id, source: 'adapter-9v', regulator: 'bl5-cool', devices: [['push-button', 'Go']] }),
    { parts: { ...library.parts, [td8.id]: chip } },
  )
  return {
    largest: pins.windows[0]!.largest.value.min,
    grade: build.support.find((s) => s.key === 'pull:d1.1.contact')!.risk.grade,
    marking: build.support.find((s) => s.key === 'pull:d1.1.contact')!.value!.marking,
  }
}

// At 4.9 V it reads high from 0.6 of that: 1.96 V are left, for what leaks into the leg and 0.1 µA through the contact.
test('what leaks through the open contact counts beside the leg', () =>
  expect(button(1e-6).largest / 1e6).toBeCloseTo(1.96 / 1.1, 6))
// The leg’s own pull-up is 20 kΩ to 50 kΩ: 1.96 V / 39.1 µA = 50.1 kΩ, 1.96 V / 39.3 µA = 49.9 kΩ.
test.each([
  [39.0e-6, 'guaranteed'],
  [39.2e-6, 'typical'],
])('the leg’s own pull-up against %d A: %s', (leakage, grade) => expect(button(leakage).grade).toBe(grade))

describe('ours beside those on the boards', () => {
  const { resistors } = stockOf(library)
  const ours = (least: number, most: number, boards?: [number, number]) => {
    const value = (min: number, max: number) => ({ value: { min, typ: (min + max) / 2, max } })
    const window = {
      smallest: value(least, least),
      largest: value(most, most),
      fitted: boards && value(...boards),
    } as BusWindow
    const made = ourPullUp(window, resistors!)
    return made && [made.value.marking, made.empty]
  }
  test.each<[string, number, number, [number, number] | undefined, [string, boolean] | undefined]>([
    // Resistors of 5 % from E12. √(1.5 kΩ/0.95 · 6 kΩ/1.05) = 3.00 kΩ: 2.7k or 3.3k, and 3.3k is nearer by its logarithm.
    ['the middle', 1500, 6000, undefined, ['3k3', false]],
    // 1.9 kΩ to 2.1 kΩ: between 1.8k and 2.2k there is none; the next up can still be pulled low.
    ['no value in the window', 1900 * 0.95, 2100 * 1.05, undefined, ['2k2', true]],
    // 2.15 kΩ to 2.65 kΩ, middle 2.39 kΩ: 2k2 is nearest and inside.
    ['just inside', 2150 * 0.95, 2650 * 1.05, undefined, ['2k2', false]],
    // 1.75 kΩ to 2.05 kΩ: 1k8 inside.
    ['just inside from above', 1750 * 0.95, 2050 * 1.05, undefined, ['1k8', false]],
    ['the boards’ do', 1000, 5000, [4000, 4900], undefined],
    // The boards’ together are already smaller than what can be pulled low: nothing beside them helps: the drawer’s largest, and no window.
    ['the boards’ are too strong', 1000, 3000, [900, 3100], ['10M', true]],
    // Together 1 kΩ to 2 kΩ beside 4 kΩ: 1/(1/1000 − 1/4000) = 1333 Ω, 1/(1/2000 − 1/4000) = 4000 Ω; √(1333/0.95 · 4000/1.05) = 2.31 kΩ.
    ['beside 4 kΩ', 1000, 2000, [4000, 4000], ['2k2', false]],
  ])('%s', (_, least, most, boards, expected) => expect(ours(least, most, boards)).toEqual(expected))
})

// 1.96 V / 390.1 µA = 5.02 kΩ at most; with 5 % on top of it 4.78 kΩ: 4k7, and not the 5k6 that is nearest to 5.02 kΩ / 0.95.
test('a pull-up that leakage limits stays below with its tolerance', () =>
  expect(button(390e-6).marking).toBe('4k7'))

test('a leg without a pull-up of its own says so, and its contact needs ours', () => {
  const pins = td8.pins.map((p) => ({
    ...p,
    attributes: [...(p.attributes ?? []), { kind: 'no-pull-up' as const }],
  }))
  const a = analyse(project({ chip: td8.id, devices: [['push-button', 'Go']] }), {
    parts: { ...library.parts, [td8.id]: { ...td8, pins } },
  })
  const pull = a.build.support.find((s) => s.role === 'line pull-up')!
  expect([pull.present, pull.risk.severity]).toEqual([true, 'stops'])
  const leg = a.pins.assignment['d1.1.contact']!
  expect(pull.risk.facts.map((f) => f.text)).toEqual([
    `${leg} has no pull-up of its own`,
    'A contact drives the line only while it is closed',
  ])
})

describe('what the carrier has on its legs', () => {
  const load = (pin: string, pull: 'up' | 'down' | undefined, resistance?: number) => ({
    pin,
    what: 'a resistor',
    pull,
    resistance: resistance === undefined ? undefined : { typ: resistance, kind: 'guaranteed' },
  })
  const on = (...loads: object[]) => ({ ...td8, board: { loads } }) as unknown as Chip
  const wire = { pin: { id: 'PC4' } } as Wire
  test('only pull-ups of that very leg, with a value', () => {
    const pulls = boardPulls(
      wire,
      on(
        load('PC4', 'up', 4700),
        load('PC4', 'down', 1000),
        load('PC5', 'up', 2200),
        load('PC4', 'up'),
        load('PC4', undefined, 1),
      ),
    )
    expect(pulls.map((l) => (l.resistance as { typ: number }).typ)).toEqual([4700])
    expect(boardPulls(wire, td8)).toEqual([])
  })
})

test('a load whose transistor the library does not have gets none, and the rest is planned', () => {
  const parts = Object.fromEntries(Object.entries(library.parts).filter(([id]) => id !== 'nfet-small'))
  const a = analyse(
    project({
      chip: td8.id,
      devices: [
        ['buzzer-magnetic', 'Buzzer'],
        ['push-button', 'Go'],
      ],
    }),
    { parts },
  )
  expect(a.build.support.filter((s) => ['transistor', 'gate pull-down'].includes(s.role))).toEqual([])
  expect(Object.keys(a.pins.assignment)).toHaveLength(2)
})

// A sensor at the chip's own 3.3 V with 10 kΩ on its board, a display at 5 V with 10 kΩ on its: the MOSFET stands between, and only the
// sensor's counts on the chip's side.
test('behind a MOSFET the pull-ups of the far side don’t count, those of the near side do', () => {
  const bus = (withNear: boolean) => {
    const d = project({
      chip: 'mw2-module',
      regulator: 'bl33-low',
      devices: [
        ['glow-display', 'Display', 'i2c', { fedBy: 'source' }],
        ...(withNear ? ([['humidity-two-wire', 'Air']] as [string, string][]) : []),
      ],
    })
    const fitted = applyEdits(d, [{ kind: 'fitShift', signal: 'i2c.SDA', name: '', shift: 'mosfet' }])
    return analyse(fitted, library)
  }
  const ours = (withNear: boolean) =>
    bus(withNear).build.support.find((s) => s.key === 'pull:i2c.SDA')?.value?.marking
  // The display's are beyond: the chip's side needs one. 10 kΩ of the sensor are between (3.366 − 0.4) V / 3 mA = 989 Ω and what 1 µs allows.
  expect(ours(false)).toBeDefined()
  expect(ours(true)).toBeUndefined()
})

// 5.1 V − 0.4 V at 3 mA: 1567 Ω at least. Two boards of 3.3 kΩ are 1650 Ω and can be pulled low; anything below 31 kΩ beside them makes it too little.
test('ours beside those on the boards can make it more than a device pulls low', () => {
  const parts = structuredClone(library.parts)
  for (const id of ['glow-display', 'keeper-clock'])
    for (const w of (parts[id] as Device).wirings)
      for (const s of w.signals)
        if (s.electrical.kind === 'open-drain') s.electrical.fitted = { typ: 3300, kind: 'guaranteed' }
  const told = (...edits: Edit[]) => {
    const d = project({
      chip: td8.id,
      source: 'adapter-12v',
      regulator: 'bl5-cool',
      devices: [
        ['glow-display', 'A', 'i2c'],
        ['keeper-clock', 'B'],
      ],
    })
    return analyse(applyEdits(d, edits), { parts }).findings.some(
      (f) => f.id === 'pins.bus-too-strong:i2c.SDA',
    )
  }
  expect(told()).toBe(false)
  expect(told({ kind: 'putIn', support: 'pull:i2c.SDA', name: '' })).toBe(true)
})
