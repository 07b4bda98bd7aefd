// Latches: their sums by hand, their simulation against closed forms, the balance of energy and the sums, and what is found of those that
// don’t turn on or stay off.

import fc from 'fast-check'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { deep, firstSeed } from '../../test/share'
import { analyse, offersFor } from '../analysis'
import { transient } from '../circuit'
import { applyEdits, type Design, type Latch } from '../design'
import { type Library, partsOfKind } from '../parts'
import { endless, steps } from '../patience'
import { fullRange } from '../quantity'
import { runLatch } from '.'
import { latchElements, type LatchFacts } from './run'

const library = shippedLibrary()
const lantern = (latch: Latch = {}, more: Partial<Parameters<typeof project>[0]> = {}): Design =>
  applyEdits(
    project({
      chip: 'td8-08-dip',
      source: 'cells-2-aa',
      devices: [['latch-button', 'Power', 'read']],
      ...more,
    }),
    [{ kind: 'changeLatch', change: latch, what: 'as tried' }],
  )
const look = (d: Design, of: Library = library) => analyse(d, of, steps(3000))
const latchOf = (d: Design) => look(d).latch.latch!

describe('in the cold (figure 2 of the cells: at −10 °C five times the resistance, a quarter of the charge)', () => {
  const at = (coldest: number | null) =>
    latchOf(applyEdits(lantern(), [{ kind: 'setLimit', limit: 'coldest', value: coldest }]))
  const [warm, cold] = [at(null), at(-10)]
  test('what it fills it fills through 3 Ω and the channel, not through 0.6 Ω and the channel', () => {
    const way = (inside: number) => inside + warm.channel!.value.max
    expect(cold.rise!.value.max / warm.rise!.value.max).toBeCloseTo(way(3) / way(0.6), 1)
  })
  test('that nobody has said how cold it gets stands beside how long they lie', () => {
    expect(warm.shelf!.note).toContain('how cold it gets nobody has said')
    expect(cold.shelf!.note ?? '').not.toContain('nobody')
  })
  test('on the shelf: 1.8 Ah or 0.45 Ah, less what leaks and 5 % a year', () => {
    const hours = (l: typeof warm, Q: number) => Q / (l.standby.value.max + (Q * 0.05) / 8766)
    expect(warm.shelf!.value.min / 3600).toBeCloseTo(hours(warm, 1.8), 0)
    expect(cold.shelf!.value.min / 3600).toBeCloseTo(hours(cold, 0.45), 0)
  })
})

test('leads of 3 m there and back, 0.5 mm², are in the way too: 39 Ω/km at 20 °C (IEC 60228, class 5), as warm as they may get', () => {
  const d = lantern()
  const long = latchOf({ ...d, power: { ...d.power, lead: { wire: 'wire-0-5', length: 3 } } })
  const bare = latchOf(d)
  const R = long.rise!.inputs.find((i) => i.symbol === 'R_lead')!.value
  // Its insulation stands 70 °C: 304.5 / 254.5 times that (IEC 60228, annex C).
  expect(R.max).toBeCloseTo((6 * 0.039 * 304.5) / 254.5, 7)
  // All that fills: 12.11 µF, to 95 %.
  expect(long.rise!.value.max - bare.rise!.value.max).toBeCloseTo(R.max * 12.11e-6 * Math.log(20), 9)
})

describe('sums, by hand', () => {
  // Two cells have 1.8, 2.6, 3.2 V; the MOSFET switches from 0.4, 0.7, 1.0 V, its gate has 600 and 800 pF, 90 and 130 pF of them to the
  // drain; the small one has 8 and 12 pF there. Resistors are good for 5 %.
  const latch = latchOf(lantern())
  test('what leaks: 0.1 µA into the gate, 0.5 through the small MOSFET, 0.1 through the button, 2 through the diode', () => {
    expect(latch.leak.value.max).toBeCloseTo(2.7e-6, 12)
    // 0.4 V / (2 · 2.7 µA) = 74.07 kΩ; less 5 % is 70.5 kΩ, and 68 kΩ the next below.
    expect(latch.largest.value.min).toBeCloseTo(74074, 0)
    expect(latch.pullUp.value).toBe(68e3)
    // 2.7 µA · 68 kΩ · 1.05
    expect(latch.off.value.max).toBeCloseTo(0.19278, 6)
  })
  test('the gate while it is on: all of the cells’ voltage, and pressed that less what falls in the diode', () => {
    // What the chip draws sags the cells by some millivolts.
    expect(latch.held.value.max).toBeCloseTo(3.2, 2)
    expect(latch.held.value.min).toBeLessThan(1.8)
    expect(latch.held.value.min).toBeGreaterThan(1.78)
    // At 3.2 V / 64.6 kΩ = 50 µA up to 0.25 V, as at the first point of its curve.
    expect(latch.held.value.min - latch.pressed.value.min).toBeCloseTo(0.25, 6)
  })
  test('the leg that reads it: 3.2 V / (5.6 kΩ − 5 %) = 0.6015 mA through the diode, and a low is 0.3 of 1.8 V', () => {
    // 0.25 V at 0.1 mA, 0.32 V at 1 mA: 0.25 + 0.5015 / 0.9 · 0.07 = 0.28901 V
    expect(latch.low!.value.max).toBeCloseTo(0.289006, 5)
    expect(latch.margin!.value.min).toBeCloseTo(0.54 - 0.289006, 5)
    // With the leg’s own pull-up of 20 kΩ and more it is 0.16 mA: 0.25 + 0.06 / 0.9 · 0.07 = 0.25467 V.
    const own = latchOf({ ...lantern(), stance: 'bare-bones' })
    expect(own.low!.value.max).toBeCloseTo(0.254667, 5)
  })
  test('off again: 71.4 kΩ · 912 pF · ln (3.2 V / 0.4 V), 100 pF of it tracks', () => {
    expect(latch.release.value.max).toBeCloseTo(71.4e3 * 912e-12 * Math.log(8), 9)
    // Usual: 68 kΩ · 628 pF · ln (2.6 / 0.7)
    expect(latch.release.value.typ).toBeCloseTo(68e3 * 628e-12 * Math.log(2.6 / 0.7), 9)
  })
  test('as the cells are put in: 3.2 V · 112 pF / 712 pF, until 0.4 V are left of it', () => {
    expect(latch.jump.value.max).toBeCloseTo((3.2 * 112) / 712, 6)
    expect(latch.blink.value.max).toBeCloseTo(71.4e3 * 912e-12 * Math.log((3.2 * 112) / 712 / 0.4), 9)
    expect(latch.blink.value.min).toBe(0)
  })
  // In front of the latch nothing is ever off: 0.1 µA back into the charger, 6 µA into what guards the cell. The meter in the plus
  // lies between guard and latch, and sees the charger alone.
  test('what draws in front of it is in what flows while all is off, and in what lies empty first', () => {
    const bare = lantern({}, { source: 'cell-pouch-bare', regulator: 'bl33-sparing' })
    const kept = applyEdits(bare, [
      { kind: 'changeLead', of: 'source', change: { protection: 'cg42-single' }, what: '' },
      { kind: 'changeCharging', change: { charger: 'bc42-sparing', from: 'usb-port' }, what: '' },
    ])
    const [without, all] = [look(bare), look(kept)]
    const off = (a: typeof all) => a.latch.latch!.standby.value.max
    expect(off(all) - off(without)).toBeCloseTo(6.1e-6, 12)
    // 1 / t = I / Q + s, of 1.9 Ah at the least.
    const share = (a: typeof all) => 1 / a.latch.latch!.shelf!.value.min
    expect((share(all) - share(without)) * 1.9 * 3600).toBeCloseTo(6.1e-6, 12)
    const metered = (a: typeof all) =>
      a.build.steps
        .find((s) => s.title === 'Latch')!
        .checks.find((c) => c.where.startsWith('in the plus of'))!.expect.max!
    expect(metered(all) - metered(without)).toBeCloseTo(0.1e-6, 12)
  })
  test('a finger: 71.4 kΩ · 2.8 V / 0.4 V; off 1 µA + 2.7 µA, and 5 % of 1.8 Ah go by themselves in a year', () => {
    expect(latch.touch.value.max).toBeCloseTo(499_800, 0)
    expect(latch.standby.value.max).toBeCloseTo(3.7e-6, 12)
    // 1.8 Ah / (3.7 µA + 0.09 Ah / 8766 h)
    expect(latch.shelf!.value.min / 3600).toBeCloseTo(1.8 / (3.7e-6 + 0.09 / 8766), 0)
    expect(latch.holding.value.max).toBeCloseTo(3.2 / 64.6e3, 9)
  })
  test('pressed until the rail is up, the chip runs after at most 66 ms, and holds after 5 ms', () => {
    expect(latch.press.value.max - latch.rise!.value.max).toBeCloseTo(0.071, 9)
    // 0.6 Ω inside the cells, 0.243 Ω in the channel at 1.8 V between 2.5 V (0.11 Ω) and 1.5 V (0.3 Ω); 10 µF of 20 % and 100 nF of 10 %; ln 20.
    expect(latch.channel!.value.max).toBeCloseTo(0.3 - 0.3 * 0.19, 6)
    expect(latch.rise!.value.max).toBeCloseTo(0.843 * 12.11e-6 * Math.log(20), 9)
    expect(latchOf(lantern({ setUp: 0.2 })).press.value.max - latch.press.value.max).toBeCloseTo(0.195, 9)
  })
  test('behind a regulator: its 0.8 A, less what is drawn, fill what is behind it; off, what is in front of it lasts as well', () => {
    const {
      latch: fed,
      power,
      build,
    } = (({ latch: l, ...rest }) => ({ ...rest, latch: l.latch! }))(
      look(lantern({}, { source: 'cells-4-aa', regulator: 'bl33-low' })),
    )
    const on = (net: string) =>
      build.support
        .filter((s) => s.present && s.value?.unit === 'F' && s.legs.some((l) => l.net === net))
        .reduce((sum, s) => sum + s.value!.value * (1 + (s.part as { tolerance: number }).tolerance), 0)
    const [front, back] = [on('VIN'), on('VCC')]
    // 0.1 Ω to 1.2 Ω inside four cells, and the channel at 3.6 V between 2.5 V (0.11 Ω) and 4.5 V (0.07 Ω): 0.088 Ω.
    const inside = fullRange(fed.source.resistance!).max
    const amps = power.loaded.value.max
    const rise = (inside + 0.088) * (front + back) * Math.log(20)
    expect(fed.rise!.value.max).toBeCloseTo(rise + (back * power.rail!.value.max) / (0.8 - amps), 6)
    const least = power.loaded.value.min
    expect(fed.fall!.value.max).toBeCloseTo(
      (back * (power.rail!.value.max - 1.8) + front * (power.input!.value.max - 1.8)) / least,
      3,
    )
  })
  test('what lies in the plus is in the way of everything behind it', () => {
    const bare = look(lantern({}, { devices: [] })).power
    const { power } = look(lantern())
    const lost = bare.railLoaded!.value.min - power.railLoaded!.value.min
    // Some milliamperes through 0.243 Ω more, and 50 µA of its own.
    const amps = power.fromSource.value.max
    expect(lost).toBeCloseTo(0.243 * amps + 0.6 * (amps - bare.fromSource.value.max), 5)
    expect(power.fromSource.value.max - bare.fromSource.value.max).toBeGreaterThanOrEqual(49e-6)
  })
})

const found = (d: Design, of = library) =>
  look(d, of)
    .findings.filter((f) => f.check.startsWith('power.latch'))
    .map((f) => [f.id.replace('power.latch-', ''), f.severity, f.grade] as const)
const usual = [
  ['stays-off:programmer', 'notes', 'typical'],
  ['stays-off:touched', 'notes', 'typical'],
  ['turns-on:reset', 'notes', 'typical'],
]
const beside = (d: Design, of?: Library) => found(d, of).filter(([id]) => !usual.some(([u]) => u === id))

describe('what is found', () => {
  test('nothing that must be mended of one that holds; what nobody can mend is noted', () => {
    expect(found(lantern())).toEqual(usual)
    // With 10 kΩ it takes less than a damp finger’s 100 kΩ: 10.5 kΩ · 7 = 73.5 kΩ.
    expect(found(lantern({ pullUp: 10e3 })).map(([id]) => id)).toEqual([
      'stays-off:programmer',
      'turns-on:reset',
    ])
  })
  test.each<[string, Design, string, string, string | undefined]>([
    ['it needs 2 to 4 V', lantern({ pass: 'pfet-plain' }), 'turns-on:off:held', 'stops', 'outside the sheet'],
    [
      'its sheet begins at 2.5 V',
      lantern({ pass: 'pfet-strong' }),
      'turns-on:weak:held',
      'risks',
      'outside the sheet',
    ],
    // 0.55 to 0.7 V; a low is below 0.54 V on empty cells, 0.78 V usually.
    [
      'a silicon diode on two cells',
      lantern({ diode: 'diode-small' }),
      'turns-on:unread',
      'risks',
      'typical',
    ],
    ['two seconds of set-up', lantern({ setUp: 2 }), 'turns-on:long', 'notes', 'typical'],
    // 2.7 µA · 1.05 MΩ are 2.8 V, 0.505 µA · 1 MΩ 0.5 V; it begins at 0.4 V, usually at 0.7 V.
    ['1 MΩ', lantern({ pullUp: 1e6 }), 'stays-off:leaks', 'risks', 'outside the sheet'],
    // 0.505 µA · 2.2 MΩ are 1.1 V.
    ['2.2 MΩ', lantern({ pullUp: 2.2e6 }), 'stays-off:leaks', 'stops', 'outside the sheet'],
    ['an n-channel one', lantern({ pass: 'nfet-low' }), 'fits:pass', 'stops', 'impossible'],
    ['one that isn’t there', lantern({ pass: 'gone' }), 'fits:pass', 'stops', 'impossible'],
    ['a diode that isn’t there', lantern({ diode: 'gone' }), 'fits:diode', 'stops', 'impossible'],
    [
      'two of them',
      lantern(
        {},
        {
          devices: [
            ['latch-button', 'Power', 'hold'],
            ['latch-button', 'Other', 'hold'],
          ],
        },
      ),
      'fits:one:d2',
      'stops',
      'impossible',
    ],
    ['a board', lantern({}, { chip: 'stick-td8', source: 'usb-port' }), 'fits:board', 'stops', 'impossible'],
  ])('%s', (_, design, id, severity, grade) => {
    expect(beside(design)).toContainEqual([id, severity, grade])
  })
  const weaker = (id: string, change: object): Library => ({
    parts: { ...library.parts, [id]: { ...library.parts[id], ...change } as never },
  })
  test('it is the worst that counts: the least threshold against leakage, the greatest against what the gate gets', () => {
    // 2.7 µA · 126 kΩ = 0.34 V and · 157.5 kΩ = 0.425 V, against 0.4 V.
    expect(beside(lantern({ pullUp: 120e3 }))).toEqual([])
    expect(beside(lantern({ pullUp: 150e3 }))).toEqual([['stays-off:leaks', 'risks', 'outside the sheet']])
    // Held it gets 1.79 V on empty cells, and pressed 0.25 V less.
    const needs = (max: number) =>
      weaker('pfet-low', { threshold: { min: 0.4, typ: 0.7, max, kind: 'guaranteed' } })
    expect(beside(lantern(), needs(1.53))).toEqual([])
    expect(beside(lantern(), needs(1.55))).toEqual([['turns-on:off:pressed', 'stops', 'outside the sheet']])
    expect(beside(lantern(), needs(1.8))).toEqual([['turns-on:off:held', 'stops', 'outside the sheet']])
  })
  test('parts that stand less than the cells have, carry less than flows, or get too hot', () => {
    const stands = (max: number) => ({ voltage: { max, kind: 'absolute' } })
    expect(beside(lantern(), weaker('pfet-low', stands(3.1)))).toEqual([
      ['fits:voltage:pfet-low', 'stops', 'outside the sheet'],
    ])
    expect(beside(lantern(), weaker('nfet-low', stands(3.1)))).toContainEqual([
      'fits:voltage:nfet-low',
      'stops',
      'outside the sheet',
    ])
    expect(beside(lantern(), weaker('pfet-low', stands(3.2)))).toEqual([])
    const most = look(lantern()).power.through.value
    const carries = (max: number) => ({ current: { max, kind: 'recommended' } })
    expect(beside(lantern(), weaker('pfet-low', carries(most.max * 1.0001)))).toEqual([])
    expect(beside(lantern(), weaker('pfet-low', carries(most.max * 0.999)))).toEqual([
      ['fits:current', 'risks', 'outside the sheet'],
    ])
    expect(beside(lantern(), weaker('pfet-low', carries(most.typ * 0.999)))).toEqual([
      ['fits:current', 'stops', 'outside the sheet'],
    ])
    // Some ten microwatts at 25 thousand million kelvin a watt.
    const { package: made } = partsOfKind(library, 'transistor').find((t) => t.id === 'pfet-low')!
    const hot = { package: { ...made, thermalResistance: { typ: 25e9, kind: 'typical' } } }
    expect(beside(lantern(), weaker('pfet-low', hot)).map(([id]) => id)).toEqual(['fits:heat'])
    expect(beside(lantern(), weaker('pfet-low', { channel: undefined })).map(([id]) => id)).toEqual([
      'turns-on:unknown',
    ])
  })
  test('no resistor to hold it off: said, and left out', () => {
    const parts = Object.fromEntries(
      Object.entries(library.parts).filter(([, p]) => p.kind !== 'resistors'),
    ) as Library['parts']
    expect(beside(lantern(), { parts })).toContainEqual(['fits:resistors', 'stops', 'impossible'])
    expect(beside(lantern()).map(([id]) => id)).not.toContain('fits:resistors')
  })
  test('what no sheet states is listed once: the start of a chip without one, a gate without its capacitance', () => {
    const assumed = (of: Library) =>
      look(lantern(), of).latch.latch!.assumed.map((a) => [a.label.replace(/ .*/, ''), a.value.max])
    expect(assumed(library)).toEqual([['settings', 5e-3]])
    const bare = weaker('pfet-low', { gateCapacitance: undefined })
    // Every chip of ours takes 100 ms at the most where its sheet is silent; a small MOSFET's gate has 1 nF.
    const silent = { ...bare.parts['td8-08-dip'], startUp: undefined } as never
    expect(assumed({ parts: { ...bare.parts, 'td8-08-dip': silent } })).toEqual([
      ['start', 0.1],
      ['settings', 5e-3],
      ['gate', 1e-9],
    ])
  })
  test('a chip that starts sooner than the gate has followed the cells: 10.5 MΩ · 912 pF · ln (0.503 / 0.4) = 2.2 ms', () => {
    const soon = (ms: number) =>
      weaker('td8-08-dip', { startUp: { typ: ms * 1e-3, max: 0.01, kind: 'typical' } })
    const slow = lantern({ pullUp: 10e6, setUp: 0 })
    const plugged = ['stays-off:plugged', 'risks', 'outside the sheet']
    expect(beside(slow, soon(2.1))).toContainEqual(plugged)
    expect(beside(slow, soon(2.3))).not.toContainEqual(plugged)
  })
  test('a gate that stands 8 V, on 12 V: one that stands 20 V is offered', () => {
    const on12 = lantern({}, { source: 'adapter-12v', regulator: 'bl5-low' })
    expect(beside(on12)).toEqual([['fits:gate', 'stops', 'outside the sheet']])
    const before = look(on12)
    const { offers } = offersFor(
      before,
      library,
      before.findings.find((f) => f.check === 'power.latch-fits')!,
    )
    expect(offers.map((o) => o.fix.label)).toEqual(['plain p-channel MOSFET in the latch'])
    expect(beside(lantern({}, { source: 'cells-4-aa' }))).toEqual([])
    expect(
      beside(lantern(), weaker('pfet-low', { gateVoltage: { max: 3.19, kind: 'absolute' } })).map(
        ([id]) => id,
      ),
    ).toEqual(['fits:gate'])
    expect(beside(lantern(), weaker('pfet-low', { gateVoltage: undefined }))).toEqual([
      ['fits:gate-unknown', 'notes', undefined],
    ])
  })
  test('behind a regulator a programmer’s current doesn’t come back; a second feed stays on', () => {
    const fed = found(lantern({}, { source: 'cells-4-aa', regulator: 'bl33-low', feed: 'adapter-5v' }))
    expect(fed.map(([id]) => id)).toEqual(['stays-off:feed', 'stays-off:touched', 'turns-on:reset'])
  })
  test('what is offered mends it', () => {
    for (const [latch, id, label] of [
      [{ pass: 'pfet-plain' }, 'power.latch-turns-on:off:held', 'low-voltage p-channel MOSFET in the latch'],
      [{ diode: 'diode-small' }, 'power.latch-turns-on:unread', 'small Schottky diode in the latch'],
      [{ pullUp: 1e6 }, 'power.latch-stays-off:leaks', 'The resistor that holds it for sure'],
    ] as const) {
      const before = look(lantern(latch))
      const { offers } = offersFor(
        before,
        library,
        before.findings.find((f) => f.id === id)!,
        steps(3000),
      )
      const fix = offers.find((f) => f.fix.label === label)
      expect([id, fix?.fix.label]).toEqual([id, label])
      expect(look(applyEdits(lantern(latch), fix!.fix.edits)).findings.some((f) => f.id === id)).toBe(false)
    }
  })
})

describe('how it is built', () => {
  const a = look(lantern())
  const part = (role: string) => a.build.placed.filter((p) => p.support?.role === role)
  const legs = (role: string) =>
    part(role).map((p) => Object.fromEntries(p.legs.map((l) => [l.name.split(' ').at(-1)!, l.net])))
  test('the MOSFET’s source is at the cells and its drain at the rail: the diode inside it would carry else', () => {
    const gate = 'POWER_HOLD_LOW'
    expect(legs('latch transistor')).toEqual([{ source: 'VCELL', gate, drain: 'VCC' }])
    expect(legs('latch pull-up')).toEqual([{ 1: 'VCELL', 2: gate }])
    expect(legs('latch diode')).toEqual([
      { anode: gate, cathode: 'POWER_KEY_BUTTON' },
      { anode: 'POWER_KEY', cathode: 'POWER_KEY_BUTTON' },
    ])
    expect(legs('entry')).toEqual([{ '+': 'VCELL', '−': 'GND' }])
    // What pulls the gate down, and holds its own gate down until the program drives it, in every stance.
    expect(legs('transistor')).toEqual([{ source: 'GND', gate: `POWER_HOLD_GATE`, drain: gate }])
    expect(
      look({ ...lantern(), stance: 'bare-bones' }).build.support.find((s) => s.role === 'gate pull-down')!
        .present,
    ).toBe(true)
  })
  test('without a way to read it the button is on the gate, and there are no diodes', () => {
    const only = look(lantern({}, { devices: [['latch-button', 'Power', 'hold']] }))
    expect(only.build.support.some((s) => s.role === 'latch diode')).toBe(false)
    const button = only.build.placed.find((p) => p.kind === 'device')!
    expect(button.legs.find((l) => l.name === '1')!.net).toBe('POWER_LOW')
    expect(only.latch.latch!.pressed.value).toEqual(only.latch.latch!.held.value)
  })
  test('behind a jack it lies before the diode and the regulator', () => {
    const fed = look(lantern({}, { source: 'adapter-9v', regulator: 'bl5-cool' }))
    const pass = fed.build.placed.find((p) => p.support?.role === 'latch transistor')!
    expect(pass.legs.map((l) => l.net).sort()).toEqual(['POWER_HOLD_LOW', 'VCELL', 'VPLUG'])
    expect(fed.build.steps.find((s) => s.title === 'Supply and regulator')!.does).toContainEqual(
      'A wire from VCELL to VPLUG for now, in the place of the latch: that is fitted last.',
    )
  })
  test('it is fitted last, with what to measure: apart, off, on while pressed, on while it holds', () => {
    const last = a.build.steps.at(-1)!
    expect(last.title).toBe('Latch')
    expect(last.checks.map((c) => [c.powered, c.expect.unit])).toEqual([
      [false, 'Ω'],
      [true, 'A'],
      [true, 'V'],
      [true, 'V'],
    ])
    // The diode inside carries from VCC to VCELL: with the red lead on VCELL it blocks.
    expect(last.checks[0]!.where).toBe('between VCELL and VCC, red lead on VCELL, unplugged')
    expect(last.checks[0]!.expect).toEqual({ min: 1e6, unit: 'Ω' })
    expect(last.checks[1]!.expect.max).toBeCloseTo(3.7e-6, 12)
    expect(last.cautions).toEqual(['iron', 'two-supplies', 'meter'])
    // What a cell can do is said where it is measured.
    const onLithium = look(lantern({}, { source: 'cell-pouch-2ah', regulator: 'bl33-tiny' }))
    expect(onLithium.build.steps.at(-1)!.cautions).toContain('lithium')
    expect(a.build.steps.find((s) => s.title === 'Supply')!.does).toContainEqual(
      'A wire from VCELL to VCC for now, in the place of the latch: that is fitted last.',
    )
  })
})

/** Two cells, 68 kΩ, a chip of 7 mA with 10 µF. */
const facts: LatchFacts = {
  source: { voltage: 2.6, resistance: 0.3 },
  pass: { threshold: 0.7, transconductance: 7.8, gate: 600e-12, drain: 0 },
  pull: { threshold: 0.75, transconductance: 2.7, gate: 40e-12, drain: 0 },
  pullUp: 68e3,
  stray: 0,
  diode: [
    [1e-4, 0.2],
    [1e-3, 0.26],
    [0.03, 0.43],
  ],
  keyPullUp: 33e3,
  gateResistor: 180,
  gatePullDown: 100e3,
  driver: 28,
  input: 0,
  rail: 10e-6,
  load: { current: 7e-3, full: 1.8 },
  least: 1.8,
  startUp: 0.066,
  setUp: 0.005,
}
const never = [[0, false]] as const

describe('the simulation', () => {
  test('a gate that is let go rises by R C: 68 kΩ · 600 pF · ln (2.6 / 0.7), to 0.1 %', () => {
    const run = transient(
      latchElements(
        { ...facts, source: { voltage: 2.6, resistance: 1e-3 } },
        {
          voltage: 2.6,
          button: [...never, [1e-3, true], [3e-3, false]],
          high: [...never, [2e-3, true], [5e-3, false]],
          low: [...never, [5e-3, true]],
        },
      ),
      { until: 6e-3, precision: 1e-4, nothing: 1e-6 },
    )
    const gate = run.voltage('GATE')
    // Held, next to nothing is left of it.
    const held = run.times.findIndex((t) => t >= 4.9e-3)
    expect(gate[held]!).toBeLessThan(1e-3)
    const level = 2.6 - 0.7
    const k = run.times.findIndex((t, n) => t > 5e-3 && gate[n]! >= level)
    const [t0, t1, v0, v1] = [run.times[k - 1]!, run.times[k]!, gate[k - 1]!, gate[k]!]
    const at = t0 + ((t1 - t0) * (level - v0)) / (v1 - v0) - 5e-3
    const closed = 68e3 * 600e-12 * Math.log(2.6 / 0.7)
    expect(Math.abs(at / closed - 1)).toBeLessThan(1e-3)
  })
  test('a rail that is left alone falls by I / C: 7 mA / 10 µF = 700 V/s, to 0.1 %', () => {
    const run = runLatch(facts, { does: 'press', press: 0.2, letGo: 0.3 }, endless)
    const off = run.events.find((e) => e.what === 'off')!.at
    const inFall = run.times.flatMap((t, k) =>
      t < off && run.rail[k]! < 2.4 && run.rail[k]! > 1.85 && t > 0.25 ? [k] : [],
    )
    const [a, b] = [inFall[0]!, inFall.at(-1)!]
    const slope = (run.rail[a]! - run.rail[b]!) / (run.times[b]! - run.times[a]!)
    expect(Math.abs(slope / 700 - 1)).toBeLessThan(1e-3)
  })
  test('pressed, started, held, let go, off: in turn, at the times of its parts', () => {
    const run = runLatch(facts, { does: 'press', press: 0.2, letGo: 0.4 }, endless)
    expect(run.events.map((e) => e.what)).toEqual([
      'pressed',
      'rail up',
      'runs',
      'holds',
      'released',
      'lets go',
      'off',
    ])
    const at = (what: string) => run.events.find((e) => e.what === what)!.at
    // Where the rail crosses is found anew with the program: to a tenth of a microsecond the same.
    expect(at('runs') - at('rail up')).toBeCloseTo(0.066, 5)
    expect(at('holds') - at('runs')).toBeCloseTo(0.005, 9)
    expect([run.held, run.tooShort]).toEqual([true, false])
    // While it holds and nobody presses the leg that reads is high, and pressed it is what falls in the diode: some 0.2 V.
    const key = (t: number) => run.key![run.times.findIndex((x) => x >= t)]!
    expect(key(0.15)).toBeLessThan(0.26)
    expect(key(0.3)).toBeGreaterThan(2.5)
    // Off, nothing is left of the rail: a leg that is off holds nothing.
    expect(run.rail.at(-1)!).toBeLessThan(0.1)
  })
  test('let go after 50 ms it is off again, after 80 ms it holds; the cells put in it stays off', () => {
    const short = runLatch(facts, { does: 'press', press: 0.05, letGo: 0.4 }, endless)
    expect([short.held, short.tooShort]).toEqual([false, true])
    expect(short.events.map((e) => e.what)).toEqual(['pressed', 'rail up', 'released', 'off'])
    expect(runLatch(facts, { does: 'press', press: 0.08, letGo: 0.4 }, endless).held).toBe(true)
    const plugged = runLatch(facts, { does: 'plug', press: 0, letGo: 0.4 }, endless)
    expect([plugged.held, plugged.events.map((e) => e.what)]).toEqual([false, ['plugged']])
  })
  test('a rail that is kept up for long: the program holds though the button is let go before', () => {
    // 10 mF at 7 mA last 10 mF · 0.8 V / 7 mA = 1.14 s.
    const run = runLatch({ ...facts, rail: 10e-3 }, { does: 'press', press: 0.03, letGo: 0.4 }, endless)
    expect(run.held).toBe(true)
    const at = (what: string) => run.events.find((e) => e.what === what)!.at
    expect(at('holds')).toBeGreaterThan(at('released'))
  })
  test('a gate that lags as the cells are put in: with much to ground and 10 MΩ it switches itself on', () => {
    const slow = {
      ...facts,
      pass: { ...facts.pass, gate: 400e-12 },
      stray: 400e-12,
      pullUp: 10e6,
      startUp: 1e-3,
      setUp: 0,
    }
    // 1.3 V at first, down to 0.7 V after 10 MΩ · 0.8 nF · ln (1.3 / 0.7) = 5 ms.
    expect(runLatch(slow, { does: 'plug', press: 0, letGo: 0.1 }, endless).held).toBe(true)
    expect(runLatch({ ...slow, startUp: 20e-3 }, { does: 'plug', press: 0, letGo: 0.1 }, endless).held).toBe(
      false,
    )
  })
  test('stopped, it says so', () => {
    expect(runLatch(facts, { does: 'press', press: 0.2, letGo: 0.4 }, steps(40)).stopped).toBe(true)
  })

  const seed = firstSeed('latches', 5) % 2 ** 31
  const decades = (from: number, to: number) =>
    fc.double({ min: Math.log10(from), max: Math.log10(to), noNaN: true }).map((e) => 10 ** e)
  const random: fc.Arbitrary<LatchFacts> = fc
    .record({
      source: fc.record({
        voltage: fc.double({ min: 1.8, max: 12, noNaN: true }),
        resistance: decades(0.05, 3),
      }),
      pass: fc.record({
        threshold: fc.double({ min: 0.4, max: 1.2, noNaN: true }),
        transconductance: decades(1, 50),
        gate: decades(1e-10, 3e-9),
        drain: decades(1e-11, 4e-10),
      }),
      pull: fc.record({
        threshold: fc.double({ min: 0.5, max: 1, noNaN: true }),
        transconductance: decades(0.5, 5),
        gate: decades(2e-11, 2e-10),
        drain: decades(5e-12, 5e-11),
      }),
      pullUp: decades(10e3, 1e6),
      stray: decades(1e-12, 1e-10),
      diode: fc.constantFrom(undefined, facts.diode),
      keyPullUp: decades(10e3, 100e3),
      gateResistor: decades(1, 1e3),
      gatePullDown: decades(50e3, 1e6),
      driver: decades(10, 100),
      input: fc.constant(0),
      rail: decades(100e-9, 100e-6),
      load: fc.record({ current: decades(1e-4, 0.05), full: fc.constant(1.5) }),
      least: fc.constant(1.5),
      startUp: decades(1e-3, 0.1),
      setUp: decades(1e-4, 0.02),
    })
    .map(({ diode, ...f }) => (diode ? { ...f, diode } : f))

  test('energy: what the source gives is what the parts turn to heat and what the capacitors keep, whatever they are', () => {
    fc.assert(
      fc.property(random, (f) => {
        const elements = latchElements(f, {
          voltage: f.source.voltage,
          button: [...never, [1e-3, true], [60e-3, false]],
          high: [...never, [40e-3, true], [80e-3, false]],
          low: [...never, [80e-3, true]],
        })
        const run = transient(elements, { until: 0.1, precision: 1e-4, nothing: 1e-6 })
        const points = run.times.map((_, k) => run.at(k))
        const kept = (k: number) =>
          elements.reduce((sum, { model, terminals }) => {
            if (model.kind !== 'capacitor') return sum
            const u = points[k]!.voltage(terminals['+']!) - points[k]!.voltage(terminals['−']!)
            return sum + (model.capacitance * u * u) / 2
          }, 0)
        const powers = points.map((p) =>
          elements.reduce(
            (of, { id, model }) => {
              if (model.kind === 'capacitor') return of
              // What is lost inside the source is among what it gives already.
              const w = p.power(id)
              return w < 0 ? { ...of, given: of.given - w } : { ...of, used: of.used + w }
            },
            { given: 0, used: 0 },
          ),
        )
        const total = (of: 'given' | 'used') =>
          run.times
            .slice(1)
            .reduce((sum, t, k) => sum + ((t - run.times[k]!) * (powers[k]![of] + powers[k + 1]![of])) / 2, 0)
        const [given, used] = [total('given'), total('used')]
        expect(Math.abs((used + kept(points.length - 1) - kept(0)) / given - 1)).toBeLessThan(5e-3)
      }),
      { numRuns: deep ? 200 : 15, seed },
    )
  })
  test('a press that holds holds when it is longer; shorter than the start of the chip it never does', () => {
    fc.assert(
      fc.property(random, fc.double({ min: 0.005, max: 0.3, noNaN: true }), (f, press) => {
        const held = (seconds: number) =>
          runLatch(f, { does: 'press', press: seconds, letGo: 1 }, endless).held
        const first = held(press)
        if (first) expect(held(press * 1.5)).toBe(true)
        // A rail whose capacitors would carry it on may hold though.
        const alone =
          (f.rail * (f.source.voltage - f.least)) / (f.load.current * (f.least / f.source.voltage))
        const needed = f.startUp + f.setUp
        if (press + alone + 0.02 < needed) expect(first).toBe(false)
        if (press > needed * 1.02 + 5 * f.rail * (f.source.resistance + 1)) expect(first).toBe(true)
      }),
      { numRuns: deep ? 200 : 15, seed },
    )
  })
  test('the sums and the simulation agree on how long to press, whatever feeds it', () => {
    let tried = 0
    const feeds = partsOfKind(library, 'source').flatMap((source) =>
      [undefined, 'bl5-low', 'bl33-low', 'bu5-step'].map((regulator) => ({ source: source.id, regulator })),
    )
    // Every eighth, another one each time.
    for (const feed of feeds.filter((_, n) => deep || (n + seed) % 8 === 0)) {
      const { latch, facts: of } = look(lantern({}, feed)).latch
      if (!latch || !of || latch.held.value.typ < latch.threshold.value.max + 0.5) continue
      const run = (press: number) => runLatch(of, { does: 'press', press, letGo: 0.3 }, endless)
      const long = run(latch.press.value.max * 1.02)
      // What never is enough for the chip never starts.
      if (long.events.every((e) => e.what !== 'rail up')) continue
      tried++
      expect([feed, long.held]).toEqual([feed, true])
      // Its capacitors would carry the rail on for a while: usual ones, with the least that is drawn.
      const keeps = ((of.rail + of.input) * of.source.voltage) / of.load.current
      if (keeps < 0.1 * of.startUp)
        expect([feed, run((of.startUp + of.setUp) * 0.85).tooShort]).toEqual([feed, true])
    }
    expect(tried).toBeGreaterThan(deep ? 60 : 3)
  })
})
