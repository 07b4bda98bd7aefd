// Loads switched in their plus: parts, values, drive, time to let go, heat and faults by hand from the sheets.

import { shippedLibrary } from '../../test/files'
import { analyse, offersFor, switchesOf } from '../analysis'
import { applyEdits, type Edit } from '../design'
import type { Library, Transistor } from '../parts'
import { steps } from '../patience'
import { project, type Project } from '../../test/project'

const library = shippedLibrary()
/** A chip at 5 V; the load on an adapter of 12 V: 11.4 V to 12.6 V beside what its lead loses, more with little drawn. */
const board = (
  part: string,
  pass: string | undefined,
  {
    wiring,
    edits = [],
    of = library,
    ...more
  }: Partial<Project> & { wiring?: string; edits?: Edit[]; of?: Library } = {},
) => {
  const transistors = pass ? { transistors: { drive: pass } } : {}
  const d = project({
    chip: 'td8-28-dip',
    source: 'adapter-12v',
    regulator: 'bl5-low',
    devices: [[part, 'Spot', wiring, { fedBy: 'source', ...transistors }]],
    ...more,
  })
  return analyse(applyEdits(d, edits), of, steps(3000))
}
const signal = 'd1.1.drive'
type Look = ReturnType<typeof board>
const told = (a: Look) => a.findings.filter((f) => f.check === 'pins.switch-rating')
const fitted = (a: Look, role: string) => a.build.support.find((s) => s.role === role && s.signal === signal)
const legs = (a: Look, role: string) => fitted(a, role)?.legs.map((l) => `${l.name}: ${l.net}`)
const spoiltPart = (id: string, of: object): Library => ({
  parts: { ...library.parts, [id]: { ...library.parts[id]!, ...of } },
})
const row = (a: Look, id: string, of = library) => switchesOf(a, of)[0]!.ranked.find((r) => r.part.id === id)!

test('where nothing feeds it yet, or nothing pulls, a p-channel one is ranked with that, not left out', () => {
  const unfed = project({
    chip: 'td8-28-dip',
    source: 'adapter-5v',
    devices: [['spot-12v', 'Spot', undefined, { fedBy: 'feed', transistors: { drive: 'pfet-low' } }]],
  })
  const a = analyse(unfed, library, steps(3000))
  expect(told(a).map((f) => [f.id, f.severity])).toEqual([[`pins.switch-rating:unfed:${signal}`, 'notes']])
  expect(row(a, 'pfet-low').unsure.map((u) => u.text)).toEqual([
    expect.stringMatching(/^Nothing feeds Spot yet/),
  ])
  const only: Library = {
    parts: Object.fromEntries(
      Object.entries(library.parts).filter(([, p]) => p.kind !== 'transistor' || p.sort !== 'n-mosfet'),
    ),
  }
  const alone = board('spot-12v', 'pfet-plain', { of: only })
  expect(row(alone, 'pfet-low', only).no.map((n) => n.text)).toEqual([
    expect.stringMatching(/^Nothing in the library can pull the gate/),
  ])
})

describe('a spot lamp of 0.95 A whose minus lies on its bracket', () => {
  test('below it no transistor does: told, with those that can lie in its plus', () => {
    const a = board('spot-12v', undefined)
    expect(told(a).map((f) => [f.id, f.severity])).toEqual([
      [`pins.switch-rating:grounded:${signal}`, 'risks'],
    ])
    const { offers } = offersFor(a, library, told(a)[0]!)
    expect(offers.map((o) => o.fix.label)).toEqual([
      'Switch it with plain p-channel MOSFET',
      'Switch it with low-voltage p-channel MOSFET',
    ])
    const after = analyse(applyEdits(a.design, offers[0]!.fix.edits), library, steps(3000))
    expect(told(after)).toEqual([])
    for (const id of ['nfet-strong', 'npn-strong']) expect(row(after, id).no.length).toBeGreaterThan(0)
  })
  const a = board('spot-12v', 'pfet-plain')
  test('source to what feeds it, drain to its plus, its minus to ground; the leg drives the one that pulls', () => {
    expect(legs(a, 'transistor')).toEqual(['1 gate: SPOT_PASS', '2 drain: SPOT_HIGH', '3 source: VIN'])
    expect(legs(a, 'pulling transistor')).toEqual([
      '2 gate: SPOT_GATE',
      '3 drain: SPOT_PASS',
      '1 source: GND',
    ])
    expect(legs(a, 'gate pull-up')).toEqual(['1: VIN', '2: SPOT_PASS'])
    expect(legs(a, 'gate pull-down')).toEqual(['1: SPOT_GATE', '2: GND'])
    expect(legs(a, 'gate resistor')).toEqual(['1: SPOT', '2: SPOT_GATE'])
    expect([fitted(a, 'gate divider'), fitted(a, 'flyback diode')]).toEqual([undefined, undefined])
    const lamp = a.build.placed.find((p) => p.kind === 'device')!
    expect(lamp.legs).toEqual([
      { name: '+', net: 'SPOT_HIGH' },
      { name: '-', net: 'GND' },
    ])
  })
  test('its gate stands all of the supply, its channel as the sheet says from 10 V on', () => {
    const { drive, heat, junction, no, price, with: pull } = row(a, 'pfet-plain')
    expect([no, pull?.id]).toEqual([[], 'nfet-small'])
    expect(price).toBeCloseTo(library.parts['pfet-plain']!.price + library.parts['nfet-small']!.price, 12)
    // What feeds it, less some 3 Ω of 10 kΩ.
    const supply = a.power.loads.rails[a.power.supplies.fed.source]!.voltage!.value
    expect(drive!.value.min).toBeLessThan(supply.min)
    expect(drive!.value.min).toBeGreaterThan(supply.min * (1 - 3.5 / 9500))
    // 0.95² A² · 0.2 Ω; 62 K/W.
    expect(heat!.value.max).toBeCloseTo(0.95 ** 2 * 0.2, 9)
    expect(junction!.value.max).toBeCloseTo(a.design.needs.limits.ambient + 0.95 ** 2 * 0.2 * 62, 6)
  })
  test('the largest resistor, and how soon the gate lets go', () => {
    const [largest, off] = fitted(a, 'gate pull-up')!.worked
    // 2 V over twice 0.1 µA of the gate and 1 µA of what pulls it.
    const leak = (library.parts['nfet-small'] as Transistor).leakage
    expect(largest!.value.min).toBeCloseTo(2 / (2 * (0.1e-6 + (leak?.max ?? 1e-6))), 0)
    // 10.5 kΩ · (0.95 nF · ln(V_GS/2 V) + 90 pF · V_S/2 V), at the highest supply.
    const top = a.power.supplies.open[a.power.supplies.fed.source]!.value.max
    const most = 10.5e3 * (0.95e-9 * Math.log(top / 2) + (90e-12 * top) / 2)
    expect(off!.value.max).toBeLessThanOrEqual(most * 1.0001)
    expect(off!.value.max).toBeGreaterThan(most * 0.99)
  })
  test('its resistor takes current from the lamp’s supply while it is on, and none from the chip’s', () => {
    const drawn = a.power.consumers.find((c) => c.id === `inputs.${a.power.supplies.fed.source}`)!
    const top = a.power.supplies.open[a.power.supplies.fed.source]!.value.max
    expect(drawn.work.value.max).toBeCloseTo(top / 9500, 8)
    expect(board('spot-12v', undefined).power.consumers.some((c) => c.id === drawn.id)).toBe(false)
  })
  test('a gate of 8 V is spared by a divider at every corner, and still gets more than its sheet asks', () => {
    const low = board('spot-12v', 'pfet-low')
    const top = low.power.supplies.open[low.power.supplies.fed.source]!.value.max
    const down = fitted(low, 'gate divider')!
    expect(legs(low, 'gate divider')).toEqual(['1: SPOT_PASS', '2: SPOT_PULL'])
    expect(legs(low, 'pulling transistor')![1]).toBe('3 drain: SPOT_PULL')
    const worst = (ohms: number) => (top * 10.5e3) / (10.5e3 + 0.95 * ohms)
    expect(worst(down.value!.value)).toBeLessThanOrEqual(8)
    // The next smaller one of E12 would let more through.
    expect([down.value!.marking, worst(5.6e3) > 8]).toEqual(['6k8', true])
    expect(told(low)).toEqual([])
    expect(row(low, 'pfet-low').drive!.value.min).toBeGreaterThan(4.5)
    // 12 V of gate: 680 Ω would do with both resistors as marked, and not with both 5 % off.
    const strong = board('spot-12v', 'pfet-strong')
    expect([worst(680) > 12, (top * 10) / 10.68 < 12]).toEqual([true, true])
    expect(fitted(strong, 'gate divider')!.value!.marking).toBe('820R')
    const key = down.key
    const bare = board('spot-12v', 'pfet-low', { edits: [{ kind: 'leaveOut', support: key, name: '' }] })
    expect(bare.build.support.find((s) => s.key === key)!.risk.severity).toBe('stops')
  })
  test('a supply that hardly turns it on is told: 5 V at a gate whose sheet begins at 6 V', () => {
    const weak = board('spot-12v', 'pfet-plain', { source: 'adapter-5v', regulator: undefined })
    expect(told(weak).map((f) => [f.id, f.severity])).toEqual([
      [`pins.switch-rating:weak:${signal}`, 'risks'],
    ])
    expect(told(weak)[0]!.text).toMatch(/^The gate in the plus of Spot gets as little as 4\.\d+\sV;/)
  })
  test('what its sheet leaves open is said; where nothing pulls, that stops', () => {
    const silent = spoiltPart('pfet-plain', { gateVoltage: undefined })
    const quiet = board('spot-12v', 'pfet-plain', { of: silent })
    expect(told(quiet).map((f) => [f.id, f.severity])).toEqual([
      [`pins.switch-rating:unknown:${signal}`, 'notes'],
    ])
    const only = Object.fromEntries(
      Object.entries(library.parts).filter(([, p]) => p.kind !== 'transistor' || p.sort !== 'n-mosfet'),
    )
    const alone = board('spot-12v', 'pfet-plain', { of: { parts: only } })
    expect(told(alone).map((f) => [f.id, f.severity])).toEqual([
      [`pins.switch-rating:none:${signal}`, 'stops'],
    ])
  })
})

test('pulses: a gate that a resistor lets go is too slow for them, told with both times', () => {
  const a = board('bulb-12v', 'pfet-strong', { wiring: 'dimmed' })
  expect(told(a).map((f) => [f.id, f.severity])).toEqual([[`pins.switch-rating:slow:${signal}`, 'risks']])
  // A hundredth of 2.5 ms over 2.9 nF are 8.6 kΩ: 8.2 kΩ of E12.
  expect(fitted(a, 'gate pull-up')!.value!.marking).toBe('8k2')
  // 0.95 nF let go in 20 µs of 2.5 ms.
  expect(told(board('bulb-12v', 'pfet-plain', { wiring: 'dimmed' })).map((f) => f.id)).toEqual([
    `pins.switch-rating:heat:${signal}`,
  ])
})

test('a coil’s diode lies across it: cathode at its plus behind the transistor, anode at ground', () => {
  const a = board('pump-12v', 'pfet-plain')
  expect(legs(a, 'flyback diode')).toEqual(['cathode: SPOT_HIGH', 'anode: GND'])
  expect(told(a)).toEqual([])
})

test('two loads on one plus: neither can be switched there', () => {
  const spot = library.parts['spot-12v']!
  if (spot.kind !== 'device') throw new Error('not a device')
  const two = {
    ...spot,
    terminals: [...spot.terminals, { id: 'B', role: 'passive' as const }],
    wirings: spot.wirings.map((w) => ({
      ...w,
      signals: [...w.signals, { ...w.signals[0]!, id: 'second', terminal: 'B' }],
    })),
  }
  const a = board('spot-12v', 'pfet-plain', { of: { parts: { ...library.parts, 'spot-12v': two } } })
  expect(told(a).find((f) => f.id === `pins.switch-rating:shared:${signal}`)?.text).toBe(
    'Spot can’t be switched in its plus: its plus serves 2 loads at once.',
  )
})

test('a plus that serves several loads can’t be switched for one of them; a latch is held from below', () => {
  const lamps = project({ chip: 'td8-40-dip', devices: [['digit-display-bare', 'Digits']] })
  const part = library.parts['digit-display-bare']!
  if (part.kind !== 'device') throw new Error('not a device')
  const switched = part.wirings[0]!.signals.filter((s) => s.electrical.kind === 'switched')
  expect(switched.length).toBeGreaterThan(1)
  const a = analyse(
    applyEdits(lamps, [
      { kind: 'setTransistor', id: 'd1', signal: switched[0]!.id, part: 'pfet-low', name: '' },
    ]),
    library,
    steps(30000),
  )
  expect(told(a).map((f) => f.id)).toContain(`pins.switch-rating:shared:d1.1.${switched[0]!.id}`)
})
