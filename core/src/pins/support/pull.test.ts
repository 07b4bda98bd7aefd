// Pull-ups by hand: how large one may be against what leaks, and which fits into a window beside those on the boards.

import { shippedLibrary } from '../../../test/files'
import { project } from '../../../test/project'
import { analyse } from '../../analysis'
import { stockOf } from '../../circuit'
import type { Chip } from '../../parts'
import { type BusWindow, ourPullUp } from './pull'

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
