// What a meter said, against faults planted into the design itself: the project with one thing otherwise is analysed by itself, a
// meter is taken to say what that draws, and the guesses about the sound project must name it.

import { demo, shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import { applyEdits, type Design, type Measurement, type StateChoice } from '../design'
import { findPart, makeLibrary } from '../parts'
import { modesOf } from '../states'
import { wayTo } from '../supply'
import { measuredOf } from '.'
import { readMeter } from './measured'

const library = shippedLibrary()
const look = (d: Design) => analyse(d, library)
type Said = Omit<Measurement, 'id'>
const measured = (d: Design, said: Said) => {
  const a = look(applyEdits(d, [{ kind: 'addMeasurement', measurement: { id: 'm1', ...said } }]))
  return { ...measuredOf(a)[0]!, found: a.findings.filter((f) => f.check === 'power.measured-differs') }
}
const changed = (d: Design, id: string, change: Partial<StateChoice>) =>
  applyEdits(d, [{ kind: 'changeState', id, change }])
/** What the project draws in a state, as usual, by its own analysis. */
const draws = (d: Design, state: string, at: Said['at'] = 'source') => {
  const { supplies, loads } = look(d).power
  return loads.rails[at === 'rail' ? supplies.own : wayTo(supplies, supplies.own).head]!.cycle[state]!.value
    .typ
}

describe('faults planted into the hive scale: each is named, and with what the meter said', () => {
  const hive = demo('hive-scale')
  const { needs, chip } = look(hive)
  const asleep = hive.needs.states!.find((s) => s.lasts === undefined)!
  const plants: [string, string, Partial<StateChoice>][] = [
    ...hive.needs.devices.flatMap((d) => {
      const part = needs.instances.find((i) => i.need.id === d.id)!.part
      return modesOf(part)
        .filter((m) => m.id !== asleep.modes?.[d.id])
        .map((m): [string, string, Partial<StateChoice>] => [
          `${d.name} ${m.name}`,
          `mode ${d.id} ${m.id}`,
          { modes: { ...asleep.modes, [d.id]: m.id } },
        ])
    }),
    ...chip
      .chip!.modes.filter((m) => m.id !== asleep.chip)
      .map((m): [string, string, Partial<StateChoice>] => [
        m.name,
        `chip ${m.id}`,
        { chip: m.id, radio: false },
      ]),
    ['radio on', 'radio', { radio: true }],
  ]
  test.each((['source', 'rail'] as const).flatMap((at) => plants.map((p) => [at, ...p] as const)))(
    'at the %s: %s',
    (at, _, id, change) => {
      const reading = draws(changed(hive, asleep.id, change), asleep.id, at)
      const got = measured(hive, { state: asleep.id, at, reading })
      // Where the fault draws no more than is predicted at the most, nothing can be told.
      if (got.verdict === 'agrees') {
        expect(reading).toBeLessThan(got.predicted!.value.max * 1.02)
        return
      }
      expect(got.verdict).toBe('more')
      const named = got.suspects.find((s) => s.id === id)!
      expect([named.explains, got.suspects.indexOf(named) < 3]).toEqual([true, true])
      expect(named.then.value.typ / reading).toBeCloseTo(1, 3)
      expect(got.found.map((f) => f.severity)).toEqual(['notes'])
      // What explains all of it comes before what explains a part.
      const explain = got.suspects.map((s) => Number(s.explains))
      expect(explain).toEqual(explain.toSorted((a, b) => b - a))
    },
  )
  test('two of one thing exclude each other, whatever was read', () => {
    for (let mA = 0.002; mA < 60; mA *= 1.2)
      for (const s of measured(hive, { state: asleep.id, at: 'source', reading: mA / 1e3 }).suspects) {
        const of = s.id.split(' and ').map((id) => (id.startsWith('chip') ? 'chip' : id.split(' ')[1]))
        expect([mA, s.id, new Set(of).size]).toEqual([mA, s.id, of.length])
      }
  })
  test('nothing is pressed while one measures: pull-ups count from nothing to what is usual', () => {
    const { power } = look(hive)
    const at = (corner: 'min' | 'typ', but: string) =>
      power.consumers
        .filter((c) => !c.id.startsWith(but))
        .reduce((sum, c) => sum + c.cycle[asleep.id]!.value[corner], 0)
    const { typ: own } = findPart(library, 'regulator', 'bl33-sparing')!.quiescent
    const { predicted } = measured(hive, { state: asleep.id, at: 'source', reading: 1e-3 })
    expect(predicted!.value.min).toBeCloseTo(at('min', 'pull-ups') + own!, 12)
    expect(predicted!.value.typ).toBeCloseTo(at('typ', 'no such') + own!, 12)
    // A button held down all the time would be a hundred times what is usual.
    expect(predicted!.value.max).toBeLessThan(power.loads.rails.source!.cycle[asleep.id]!.value.max / 2)
  })
  test('through a switching regulator too', () => {
    const switched = applyEdits(hive, [{ kind: 'chooseRegulator', part: 'bs33-still', name: '' }])
    const display = hive.needs.devices.find((d) => d.part.includes('display'))!.id
    const on = changed(switched, asleep.id, { modes: { ...asleep.modes, [display]: 'work' } })
    const reading = draws(on, asleep.id)
    // Not what the rail gives.
    expect(Math.abs(reading / draws(on, asleep.id, 'rail') - 1)).toBeGreaterThan(0.03)
    const [first] = measured(switched, { state: asleep.id, at: 'source', reading }).suspects
    expect([first!.id, first!.explains]).toEqual([`mode ${display} work`, true])
  })
  test('two at once are found where neither is enough, and none where nothing is', () => {
    // 1.7 mA of the lamp that was left out and 1.5 mA of the scale
    const both = measured(hive, {
      state: asleep.id,
      at: 'source',
      reading: draws(hive, asleep.id) + 3.2e-3,
    })
    expect(both.suspects.every((s) => s.explains && s.what.text.includes('; also: '))).toBe(true)
    expect(both.suspects.map((s) => s.id)).toContain('with power-lamp and mode d1 work')
    const none = measured(hive, { state: asleep.id, at: 'source', reading: 7e-3 })
    expect(none.suspects.some((s) => s.explains)).toBe(false)
    // Nothing is dropped without a word.
    expect(none.leftOut).toBeGreaterThan(0)
    // The display takes 12 mA: it can't be a part of 7.
    expect(none.suspects.some((s) => s.what.text.includes('Display is working'))).toBe(false)
    expect(both.suspects.reduce((sum, s) => sum + s.weight, 0)).toBeCloseTo(1, 1)
  })
})

describe('a plain board that sleeps', () => {
  const states: StateChoice[] = [
    { id: 'w', name: 'reading', lasts: 1, every: 100 },
    { id: 'r', name: 'resting', chip: 'sleep' },
  ]
  const plain = applyEdits(
    project({ chip: 'trestle-plain', source: 'adapter-9v', devices: [['humidity-two-wire', 'Air']] }),
    [
      { kind: 'setStates', states },
      { kind: 'changeState', id: 'r', change: { modes: { d1: 'rest' } } },
    ],
  )
  // At the rail: in front of it the regulator’s own 5 to 10 mA cover the rest.
  const at = (reading: number, more: Partial<Said> = {}) =>
    measured(plain, { state: 'r', at: 'rail', reading, ...more })
  const sleeps = draws(plain, 'r', 'rail')

  // By its manual the bridge takes 8 mA awake and 0.5 mA asleep, the board’s lamp 3 mA and nothing.
  test.each([
    ['bridge', 7.5e-3, 'USB bridge'],
    ['lamp', 3e-3, 'lamp'],
  ])('a block that does not sleep: %s', (id, more) => {
    const { suspects } = at(sleeps + more)
    const named = suspects.find((s) => s.id === `block ${id}`)!
    expect([named.explains, named.change.value.typ]).toEqual([true, expect.closeTo(more, 9)])
    expect(named.test.text).toMatch(/^Feed the board behind its regulator/)
  })
  test('a line held low draws V / R through its pull-up', () => {
    // 10 kΩ on the sensor’s own board, from the 5 V of the rail.
    const { suspects } = at(sleeps + 5e-4, { accuracy: 0.001 })
    const held = suspects.filter((s) => s.id.startsWith('pull '))
    expect(held.map((s) => [s.explains, s.what.text])).toContainEqual([
      true,
      expect.stringMatching(/^The pull-up of \S+ SDA on Air draws all the time: its line is held low$/),
    ])
    expect(held[0]!.test.text).toMatch(/against ground: near 0 V if it is this/)
  })
  test('one device does one thing at a time: two of its modes are no explanation', () => {
    const air = findPart(library, 'device', 'humidity-two-wire')!
    const mode = (id: string, typ: number) => ({
      id,
      name: id,
      current: { typ, max: typ * 1.01, kind: 'typical' as const },
    })
    const slow = { ...air, modes: [air.modes[0]!, mode('slow', 2.3e-3), mode('fast', 3.7e-3)] }
    const parts = makeLibrary([...Object.values(library.parts).filter((p) => p.id !== air.id), slow])
    const said: Measurement = { id: 'm1', state: 'r', at: 'rail', reading: sleeps + 6e-3, accuracy: 0.001 }
    const [got] = measuredOf(
      analyse(applyEdits(plain, [{ kind: 'addMeasurement', measurement: said }]), parts),
    )
    expect(got!.suspects.map((s) => s.id)).not.toContain('mode d1 fast and mode d1 slow')
    expect(got!.suspects.length).toBeGreaterThan(0)
  })
  test('a sheet that states no most leaves room for more than typical', () => {
    // 2.4 mA of the blocks and 0.5 mA: 1.2 times; three times is the most that is believed.
    const vague = (more: number) =>
      at(sleeps + more, { accuracy: 0.001 }).suspects.find((s) => s.id === 'vague board')
    expect([vague(5e-4)?.explains, vague(5e-4)?.what.text]).toEqual([
      true,
      'Blocks of the board: 1.2 times what the sheet calls typical, which states no most',
    ])
    expect([vague(4.7e-3) !== undefined, vague(4.9e-3)]).toEqual([true, undefined])
  })
  test('less than predicted: what is not fed', () => {
    const { verdict, suspects } = at(sleeps * 0.6)
    expect(verdict).toBe('less')
    expect(suspects.every((s) => s.change.value.typ < 0)).toBe(true)
  })
  test('just within what the meter may be off it agrees, and nothing is looked for', () => {
    const { max } = at(sleeps).predicted!.value
    // 1.5 % of a usual meter
    const [just, beyond] = [at((max / 0.985) * 0.999), at((max / 0.985) * 1.001)]
    expect([just.verdict, just.suspects, just.found]).toEqual(['agrees', [], []])
    expect([beyond.verdict, beyond.found.length]).toEqual(['more', 1])
  })
  test('what was found out needs no looking for; a state that is gone is told as that', () => {
    expect(at(sleeps * 3, { found: 'a wet finger' }).found).toEqual([])
    const gone = measured(plain, { state: 'x', at: 'source', reading: 1 })
    expect([gone.state, gone.predicted, gone.verdict, gone.found]).toEqual([
      undefined,
      undefined,
      undefined,
      [],
    ])
  })
})

describe('the meter itself', () => {
  // 1 mA ± 1.5 % of a usual meter ± two counts of 2,000 in a range of 20 mA
  test.each<[Partial<Measurement>, [number, number]]>([
    [{}, [0.985e-3, 1.015e-3]],
    [{ accuracy: 0.005 }, [0.995e-3, 1.005e-3]],
    [{ range: 20e-3 }, [0.965e-3, 1.035e-3]],
  ])('%j', (more, [min, max]) => {
    const { value, note } = readMeter({ id: 'm', state: 's', at: 'source', reading: 1e-3, ...more })
    expect(value).toEqual({ min: expect.closeTo(min, 12), typ: 1e-3, max: expect.closeTo(max, 12) })
    expect(note?.includes('was not said')).toBe(more.accuracy === undefined ? true : undefined)
  })
  const hive = demo('hive-scale')
  const told = (more: Partial<Measurement>, state = 'sleeps', reading = 30e-6) =>
    measured(hive, { state, at: 'source', reading, ...more }).meter.map((m) => m.text)
  test('what it takes in its way is told, at this reading and at the most', () => {
    const most = look(hive).power.fromSource.value.max
    const said = told({ burden: 100 })
    expect(said).toHaveLength(1)
    // 100 Ω · 0.39 A = 39 V: nothing is left of three cells.
    expect(said[0]).toContain(`${(100 * most).toFixed(0)} V would fall across the meter`)
    // 30 µA through 10 kΩ: 0.3 V of 3.9 V.
    expect(told({ burden: 1e4 })[0]).toBe(
      'Across the meter 300 mV are lost: the project gets 3.6 V of 3.9 V, and draws otherwise than without it.',
    )
    // A twentieth of the usual 3.9 V, at the most that can be drawn: 0.195 V.
    expect([0.97, 1.03].map((of) => told({ burden: (of * 0.195) / most }).length)).toEqual([0, 1])
  })
  test('a range too high for the reading, one too low, and a state that is over before it is read', () => {
    expect(told({ range: 0.2 })).toEqual([
      'In its range of 200 mA the last digits alone are ±200 µA: take a lower one, once it sleeps.',
    ])
    expect(told({ range: 2e-6 })).toEqual([
      '30 µA are beyond its range of 2 µA: what it says then is no number.',
    ])
    expect(told({ range: 2e-4 })).toEqual([])
    expect(told({}, 'weighs', 0.04)[0]).toMatch(/^It lasts 1\.5 s each time: a meter shows a mean/)
  })
})
