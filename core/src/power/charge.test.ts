// Where the charge goes, by hand: a scale on two cells straight on the rail, and the same behind a regulator that switches.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse, rhythmsOf } from '../analysis'
import { applyEdits, type StateChoice } from '../design'
import { findPart, makeLibrary, type Regulator } from '../parts'
import { chargeOf } from '.'

const shipped = shippedLibrary()
const states: StateChoice[] = [
  { id: 'weighs', name: 'weighing', lasts: 6, every: 600, modes: { d1: 'work' } },
  { id: 'asleep', name: 'asleep', chip: 'sleep', modes: { d1: 'rest' } },
]
const scale = (of: Partial<Parameters<typeof project>[0]> = {}, library = shipped) => {
  const design = applyEdits(
    project({ chip: 'td8-28-dip', source: 'cells-2-aa', devices: [['weight-amplifier', 'Scale']], ...of }),
    [{ kind: 'setStates', states }],
  )
  return { design, a: analyse(design, library) }
}

test('what each part takes in a day, what each state does, and both are all of it', () => {
  const { a } = scale()
  const charge = chargeOf(a.power)!
  const part = (id: string) => charge.parts.find((p) => p.id === id)!
  // Scale: 1.5 mA for 14.4 minutes a day, 1 µA for the rest: 0.24 h · 1.5 mA + 23.76 h · 1 µA = 383.76 µAh.
  expect(part('d1').day.value.typ * 1e6).toBeCloseTo(383.76, 3)
  // Chip at 1 MHz, tables 6 and 2: 0.84 mA and 0.2 µA: 201.6 + 4.752 µAh
  expect(part('chip').day.value.typ * 1e6).toBeCloseTo(206.352, 3)
  const together = (of: readonly { day: { value: { typ: number } }; part: { value: { typ: number } } }[]) => [
    of.reduce((q, s) => q + s.day.value.typ, 0),
    of.reduce((p, s) => p + s.part.value.typ, 0),
  ]
  for (const all of [charge.parts, charge.states]) {
    const [day, part] = together(all)
    expect(day).toBeCloseTo(charge.day.value.typ, 12)
    expect(part).toBeCloseTo(1, 9)
  }
  expect(charge.day.unit).toBe('Ah')
  // The worst first
  expect(charge.parts.map((p) => p.current.value.typ)).toEqual(
    charge.parts.map((p) => p.current.value.typ).toSorted((x, y) => y - x),
  )
  // At the least and the most against what is usual.
  const one = part('d1')
  expect(one.part.value.max).toBeCloseTo(one.day.value.max / charge.day.value.typ, 9)
})

test('behind a regulator that switches a part takes its share of what goes in, and the regulator its own', () => {
  const plain = findPart(shipped, 'regulator', 'bl33-low')!
  const sw: Regulator = {
    ...plain,
    id: 'sw33',
    name: 'Switcher',
    topology: 'switching',
    quiescent: { typ: 20e-6, kind: 'typical' },
    efficiency: [
      { current: 1e-6, share: 0.75 },
      { current: 1, share: 0.75 },
    ],
  }
  const library = makeLibrary([...Object.values(shipped.parts), sw])
  const { a } = scale({ source: 'adapter-9v', regulator: 'sw33' }, library)
  const charge = chargeOf(a.power)!
  const part = (id: string) => charge.parts.find((p) => p.id === id)!
  const own = a.power.consumers.find((c) => c.id === 'd1')!.average.value.typ
  // 3.3 V · I / (0.75 · 9 V): what it gives is 0.489 of what it takes, at the voltage that is left of the adapter’s.
  const V = a.power.input!.value.typ
  expect(part('d1').current.value.typ).toBeCloseTo((3.3 * own) / (0.75 * V), 7)
  expect(part('converter regulator').day.value.typ).toBeCloseTo(20e-6 * 24, 12)
  expect(charge.parts.reduce((p, s) => p + s.part.value.typ, 0)).toBeCloseTo(1, 9)
})

test('nothing to divide where no source is chosen', () => {
  expect(chargeOf(analyse({ ...scale().design, power: {} }, shipped).power)).toBeUndefined()
})

test('half as often lasts nearly twice as long; no state comes again before it is over', () => {
  const { a } = scale()
  const of = (state: string) => rhythmsOf(a, shipped, state)
  const all = of('weighs')!
  // From 37.5 s to 9600 s
  expect(all.map((r) => r.every)).toEqual([60, 120, 300, 600, 900, 1800, 3600, 7200])
  const at = (every: number) => all.find((r) => r.every === every)!.runtime!.value.typ
  expect(at(600)).toBe(a.power.runtime!.value.typ)
  for (let k = 1; k < all.length; k++)
    expect(all[k]!.runtime!.value.typ).toBeGreaterThan(all[k - 1]!.runtime!.value.typ)
  // What is there while it weighs, over what is there asleep: I = s·I_w + (1−s)·I_s, and the runtime goes with 1/I.
  const [w, s] = ['weighs', 'asleep'].map((id) => a.power.loads.sources[0]!.cycle[id]!.value.typ)
  const I = (share: number) => share * w! + (1 - share) * s!
  // Beside it 3 % of 2.3 Ah go by themselves in a year of 8766 h.
  const lost = (2.3 * 0.03) / 8766
  expect(at(300) / at(600)).toBeCloseTo((I(0.01) + lost) / (I(0.02) + lost), 9)
  expect(of('asleep')).toBeUndefined()
  const short = analyse(
    applyEdits(a.design, [{ kind: 'changeState', id: 'weighs', change: { every: 20, perDay: undefined } }]),
    shipped,
  )
  expect(rhythmsOf(short, shipped, 'weighs')!.map((r) => r.every)).toEqual([10, 15, 20, 30, 60, 120, 300])
})
