// Bursts: a fall and its capacitor by hand, and each the other’s inverse against a circuit run step by step.

import fc from 'fast-check'
import { demo, shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { firstSeed } from '../../test/share'
import { analyse } from '../analysis'
import { stockOf } from '../circuit'
import { applyEdits, type Design } from '../design'
import type { Library } from '../parts'
import { steps } from '../patience'
import { burstsOf } from '.'

const library = shippedLibrary()
const of = (d: Design, allowed: number, from: Library = library) =>
  burstsOf(analyse(d, from, steps(3000)), stockOf(from), allowed)
const blinking = (lasts: number, source: string) =>
  applyEdits(project({ chip: 'td8-08-dip', source, devices: [['buzzer-magnetic', 'Beep', 'switched']] }), [
    {
      kind: 'setStates',
      states: [
        { id: 'beeps', name: 'beeping', lasts, every: 60, modes: { d1: 'on' } },
        { id: 'rests', name: 'asleep', chip: 'sleep', modes: { d1: 'off' } },
      ],
    },
  ])

test('a beep on a coin cell: what falls is current times what is inside, and a capacitor of the drawer takes it', () => {
  const [beep, ...more] = of(blinking(0.01, 'cell-coin'), 0.1)
  expect(more).toEqual([])
  const [I, R] = [
    beep!.current.value.max,
    (library.parts['cell-coin'] as { resistance: { max: number } }).resistance.max,
  ]
  expect(beep!.falls!.value.max).toBeCloseTo(I * R, 9)
  // i R (1 − e^(−t / R C)) is 0.1 V with it.
  const C = beep!.needed!.value.max
  expect(I * R * (1 - Math.exp(-0.01 / R / C))).toBeCloseTo(0.1, 9)
  // A fifth more is fitted, and the weakest of those still keeps it.
  const { count, left } = beep!.fitted!
  expect(count).toBeGreaterThanOrEqual(1)
  expect(left.value.max).toBeLessThanOrEqual(0.1)
  expect(left.value.max).toBeGreaterThan(0.05)
})

test('what the sum says falls is what a circuit of source, resistance and capacitor does, step by step', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 2e-3, max: 0.03, noNaN: true }),
      fc.double({ min: 0.05, max: 0.3, noNaN: true }),
      (lasts, allowed) => {
        const [beep] = of(blinking(lasts, 'cell-coin'), allowed)
        if (!beep!.needed) return
        const [I, C] = [beep!.current.value.max, beep!.needed.value.max]
        const R = (library.parts['cell-coin'] as { resistance: { max: number } }).resistance.max
        let u = 0
        const n = 20_000
        // The middle of each step: what flows out of the capacitor is what the source doesn’t give.
        for (let k = 0; k < n; k++) {
          const slope = (v: number) => (I - v / R) / C
          u += (lasts / n) * slope(u + (lasts / n / 2) * slope(u))
        }
        expect(u / allowed).toBeCloseTo(1, 4)
      },
    ),
    { numRuns: 12, seed: firstSeed('bursts') },
  )
})

test('where nothing is known of the source it is as if that gave nothing: I t / ΔV', () => {
  const silent = { ...library.parts['cell-coin'], resistance: undefined } as never
  const [beep] = of(blinking(0.01, 'cell-coin'), 0.1, { parts: { ...library.parts, 'cell-coin': silent } })
  expect(beep!.falls).toBeUndefined()
  expect(beep!.inrush).toBeUndefined()
  expect(beep!.needed!.value.max).toBeCloseTo((beep!.current.value.max * 0.01) / 0.1, 12)
})

test('a burst of seconds is none for a capacitor, a small one needs none; without states there is nothing to say', () => {
  const [, moves] = of(demo('coop-door'), 0.1)
  expect([moves!.state.name, moves!.needed!.value.max > 1, moves!.fitted]).toEqual([
    'moving the door',
    true,
    undefined,
  ])
  const [looks] = of(demo('coop-door'), 0.1)
  expect([looks!.state.name, looks!.needed]).toEqual(['looking', undefined])
  // What falls, 0.12 V through the cell alone, is allowed.
  expect(of(demo('coop-door'), 1).map((b) => b.needed)).toEqual([undefined, undefined])
  expect(of(demo('darkroom-timer'), 0.1)).toEqual([])
})

test('as it is put in, only what is in source, lead and capacitor limits what flows', () => {
  const [beep] = of(blinking(0.01, 'cell-coin'), 0.1)
  const cell = library.parts['cell-coin'] as {
    voltage: { max: number }
    resistance: { min?: number; typ: number }
  }
  const least = cell.resistance.min ?? cell.resistance.typ
  // The drawer’s have 0.8 Ω usually and 2.5 Ω at the most; at the least nothing is stated.
  expect(beep!.inrush!.value.max).toBeLessThanOrEqual(cell.voltage.max / least + 1e-9)
  expect(beep!.inrush!.value.max).toBeGreaterThan(
    cell.voltage.max / (least + 2.5 / beep!.fitted!.count) - 1e-9,
  )
})
