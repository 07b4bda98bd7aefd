// Loads on the outputs of a bridge: legs, what falls, heat, what is left and where it is joined, by hand from the figures of the files.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse, bridgesFor, gaugesOf, offersFor } from '../analysis'
import { applyEdit, applyEdits, type Design, readDesign } from '../design'
import type { Device, Library } from '../parts'
import { steps } from '../patience'

const library = shippedLibrary()
const look = (d: Design, from: Library = library) => analyse(d, from, steps(3000))
type Seen = ReturnType<typeof look>
const told = (a: Seen) => a.findings.filter((f) => f.check === 'power.bridge')
const ids = (a: Seen) =>
  told(a)
    .map((f) => `${f.severity} ${f.id.replace('power.bridge:', '')}`)
    .sort()

/** A pump of 12 V, 1.7 A stalled, on a bridge of its own at an adapter of 12 V. */
const pumping = (bridge: string) =>
  project({
    chip: 'td8-28-dip',
    source: 'adapter-12v-heavy',
    regulator: 'bl5-low',
    devices: [
      ['pump-12v', 'Pump', undefined, { fedBy: 'source', drivenBy: 'd2' }],
      [bridge, 'Bridge', undefined, { fedBy: 'source' }],
    ],
  })
/** Wheels of 3 V to 6 V, 0.8 A stalled, at 5 V. */
const wheels = (bridge: string, count: number, more = {}) =>
  project({
    chip: 'td8-28-dip',
    source: 'adapter-5v',
    devices: [
      ['wheel-motor', 'Wheel', undefined, { count, drivenBy: 'd2' }],
      [bridge, 'Bridge', undefined, more],
    ],
  })
const without = (d: Design): Design => ({
  ...d,
  needs: { ...d.needs, devices: d.needs.devices.slice(0, 1).map((n) => ({ ...n, drivenBy: undefined })) },
})
const altered = (id: string, by: (drives: NonNullable<Device['drives']>) => Device['drives']): Library => {
  const part = library.parts[id] as Device
  return { parts: { ...library.parts, [id]: { ...part, drives: by(part.drives!) } } }
}
const legs = (a: Seen, name: string) =>
  Object.fromEntries(a.build.placed.find((p) => p.name === name)!.legs.map((l) => [l.name, l.net]))

describe('a pump on a bridge', () => {
  const a = look(pumping('bridge-strong'))
  const [on] = a.power.bridges
  const near = a.power.loads.rails[a.power.supplies.fed.source]!.voltage!.value

  test('asks for no leg and no transistor; the bridge’s two lines are all that the chip has', () => {
    expect(a.needs.signals.map((s) => s.id)).toEqual(['d2.1.A1', 'd2.1.A2'])
    expect(a.build.support.some((s) => s.role === 'transistor' || s.role === 'flyback diode')).toBe(false)
    expect(look(without(pumping('bridge-strong'))).build.support.some((s) => s.role === 'transistor')).toBe(
      true,
    )
    expect(a.findings.filter((f) => f.severity === 'stops')).toEqual([])
  })
  test('lies between the two terminals of an output, plus at the first, and nowhere at the supply', () => {
    expect(legs(a, 'Pump')).toEqual({ '+': 'BRIDGE_OA1', '-': 'BRIDGE_OA2' })
    const bridge = legs(a, 'Bridge')
    expect([bridge.OA1, bridge.OA2, bridge.GND]).toEqual(['BRIDGE_OA1', 'BRIDGE_OA2', 'GND'])
    expect(a.build.steps.map((s) => s.title).filter((t) => /^(Pump|Bridge)$/.test(t))).toEqual([
      'Bridge',
      'Pump',
    ])
    // Where the pump’s plus is behind a transistor of its own.
    expect(bridge.VDD).toBe(legs(look(without(pumping('bridge-strong'))), 'Pump')['+'])
  })
  test('1.7 A through 130 mΩ, and 6 mA of its own', () => {
    const [load] = on!.loads
    expect(load!.lost!.value.max).toBeCloseTo(1.7 * 0.13, 12)
    expect(load!.arrives!.value.min).toBeCloseTo(near.min - 1.7 * 0.13, 9)
    // 1.7² · 0.13 W, and 6 mA at the highest that feeds it; 25 K/W above 30 °C.
    const watts = 1.7 ** 2 * 0.13 + 6e-3 * near.max
    expect(on!.heat!.value.max).toBeCloseTo(watts, 9)
    expect(on!.junction!.value.max).toBeCloseTo(30 + 25 * watts, 7)
    // 11 V at the least behind the adapter’s diode, and the pump runs on 10.8 V or more.
    expect([near.min > 10.8, near.min - 1.7 * 0.13 < 10.8, ids(a)]).toEqual([true, true, ['risks low:d1']])
  })
  test('draws what it draws behind a transistor, from where the bridge is fed', () => {
    const own = (id: string) => a.power.consumers.find((c) => c.id === id)!
    expect([own('d1').work.value.max, own('d2').work.value.max]).toEqual([1.7, 6e-3])
    expect(own('d1').from).toBe(own('d2').from)
  })
  test('at the end of a lead what is lost in the bridge is gone as well', () => {
    const d = pumping('bridge-strong')
    d.needs.devices[0]!.lead = { wire: 'wire-1-5', length: 2 }
    const led = look(d).power.deviceLeads[0]!
    expect(led.given!.value.min).toBeCloseTo(near.min - 1.7 * 0.13, 9)
  })
})

test('where too little is left at the board already, what is left behind the bridge is told all the same', () => {
  const a = look({ ...pumping('bridge-strong'), power: { source: 'adapter-12v', regulator: 'bl5-low' } })
  expect(a.power.bridges[0]!.loads[0]!.given!.value.min).toBeLessThan(10.8)
  expect(ids(a)).toEqual(['risks low:d1'])
})

test('a bipolar bridge: 2.8 V fall in it, too little is left, and it gets too hot; a cool one is offered', () => {
  const a = look(wheels('bridge-two', 1))
  const [on] = a.power.bridges
  const near = a.power.railLoaded!.value
  expect(on!.loads[0]!.arrives!.value.min).toBeCloseTo(near.min - 2.8, 9)
  // 0.8 A · 2.8 V and 36 mA; 45 K/W.
  const watts = 0.8 * 2.8 + 36e-3 * near.max
  expect(on!.junction!.value.max).toBeCloseTo(30 + 45 * watts, 6)
  expect(30 + 45 * watts).toBeGreaterThan(125)
  expect(ids(a)).toEqual(['risks heat:d2.1', 'risks low:d1'])
  const { offers } = offersFor(
    a,
    library,
    told(a).find((f) => f.id.includes(':low:'))!,
  )
  expect(offers[0]!.fix.label).toBe('Hang Wheel on cool bridge for two motors')
  const after = look(applyEdits(a.design, offers[0]!.fix.edits))
  expect(legs(after, 'Wheel')['+']).toBe('COOL_BRIDGE_FOR_TWO_MOTORS_OA1')
  // It takes the place of the one on which nothing hangs now.
  expect(after.design.needs.devices.map((n) => n.part)).toEqual(['wheel-motor', 'bridge-cool'])
  expect(ids(after)).toEqual([])
})

test('two on two outputs, both at once warm it; a third has none', () => {
  const two = look(wheels('bridge-cool', 2))
  expect([legs(two, 'Wheel 1')['+'], legs(two, 'Wheel 2')['+']]).toEqual(['BRIDGE_OA1', 'BRIDGE_OB1'])
  // Twice 0.8² · 0.8 Ω, and 2 mA.
  const near = two.power.railLoaded!.value
  expect(two.power.bridges[0]!.heat!.value.max).toBeCloseTo(2 * 0.64 * 0.8 + 2e-3 * near.max, 9)
  expect(told(two)).toEqual([])
  const three = look(wheels('bridge-cool', 3))
  expect(ids(three)).toEqual(['stops full:d1'])
  expect(told(three)[0]!.text).toBe('Bridge has no output left for Wheel 3: 3 hang on 2.')
  const more = look(wheels('bridge-cool', 3, { count: 2 }))
  expect([legs(more, 'Wheel 3')['+'], legs(more, 'Bridge 2').OA1, ids(more)]).toEqual([
    'BRIDGE_2_OA1',
    'BRIDGE_2_OA1',
    [],
  ])
})

test('current: for a moment, not at all, not for long', () => {
  const moment = look(pumping('bridge-two'))
  // Its sheet says what falls at 1 A, and up to 1.2 A: stalled at 1.7 A it is more than is reckoned.
  expect(ids(moment)).toEqual(['notes moment:d1', 'notes steeper:d1', 'risks heat:d2.1', 'risks low:d1'])
  const weak = (more: object) =>
    look(
      wheels('bridge-cool', 1),
      altered('bridge-cool', (d) => ({ ...d, ...more })),
    )
  const amps = (max: number) => ({ max, kind: 'recommended' as const })
  // 0.8 A stalled, 0.16 A as usual.
  expect(ids(weak({ current: amps(0.5), peak: amps(0.79) }))).toEqual(['stops beyond:d1'])
  expect(ids(weak({ current: amps(0.5), peak: undefined }))).toEqual(['stops beyond:d1'])
  expect(ids(weak({ current: amps(0.5), peak: amps(0.8) }))).toEqual(['notes moment:d1'])
  expect(ids(weak({ current: amps(0.15), peak: amps(0.8) }))).toEqual(['risks lasting:d1'])
  expect(ids(weak({ current: amps(0.8), peak: undefined }))).toEqual([])
})

test('what a sheet doesn’t say is said: no diodes, nothing of what falls', () => {
  const a = look(
    wheels('bridge-cool', 1),
    altered('bridge-cool', (d) => ({ ...d, clamped: undefined, resistance: undefined })),
  )
  expect(ids(a)).toEqual(['notes unstated:d1', 'risks coil:d1'])
  expect([a.power.bridges[0]!.heat, a.power.bridges[0]!.loads[0]!.arrives]).toEqual([undefined, undefined])
})

test('a sheet that says nothing of how heat leaves: told, with the watts', () => {
  const a = look(
    wheels('bridge-cool', 1),
    altered('bridge-cool', (d) => ({ ...d, thermalResistance: undefined })),
  )
  expect(ids(a)).toEqual(['notes unstated:d2.1'])
  expect([a.power.bridges[0]!.heat !== undefined, a.power.bridges[0]!.junction]).toEqual([true, undefined])
})

test('the hottest part of a project may be its bridge', () => {
  const a = look(wheels('bridge-two', 1))
  const hottest = gaugesOf(a).find((g) => g.id === 'hottest')!.worked!.value.max
  // 0.8 A · 2.8 V and 36 mA at 5.2 V, 45 K/W above 30 °C: 139 °C; the chip stays below 40 °C.
  expect(hottest).toBeCloseTo(30 + 45 * (0.8 * 2.8 + 36e-3 * a.power.railLoaded!.value.max), 6)
})

test('what can’t hang there stays on its transistor, and that is told', () => {
  const on = (part: string, bridge: string) =>
    look(
      project({
        chip: 'td8-28-dip',
        source: 'adapter-12v-heavy',
        regulator: 'bl5-low',
        devices: [
          [part, 'Load', undefined, { fedBy: 'source', drivenBy: 'd2' }],
          [bridge, 'Other', undefined, { fedBy: 'source' }],
        ],
      }),
    )
  const none = on('pump-12v', 'valve-12v')
  expect(ids(none)).toEqual(['stops unable:d1'])
  expect(none.build.support.filter((s) => s.role === 'transistor')).toHaveLength(2)
  // Its minus lies on its housing: a bridge would put the supply on that.
  const lamp = on('spot-12v', 'bridge-strong')
  expect(ids(lamp)).toEqual(['notes idle:d2', 'stops unable:d1'])
  expect(told(lamp)[0]!.text).toMatch(/minus lies on its housing/)
})

test('fed elsewhere than its bridge it would count in the wrong place: told, and mended', () => {
  const d = pumping('bridge-strong')
  d.needs.devices[0]!.fedBy = undefined
  const a = look(d)
  expect(ids(a)).toContain('risks fed:d1')
  const [fix] = told(a).find((f) => f.id.includes(':fed:'))!.fixes
  expect(applyEdits(d, fix!.edits)).toEqual(pumping('bridge-strong'))
})

test('a plug of the other polarity reaches the bridge, and what hangs on it only through that', () => {
  const said = look(wheels('bridge-cool', 1)).findings.find((f) =>
    f.id.startsWith('power.plug-fits:unguarded'),
  )!
  expect(said.text).toContain('Bridge')
  expect(said.text).not.toContain('Wheel')
})

describe('edits', () => {
  const d = pumping('bridge-strong')
  test('what feeds one feeds both; without the bridge its transistor is back', () => {
    const moved = applyEdit(d, { kind: 'setFedBy', id: 'd1', by: 'rail' })
    expect(moved.needs.devices.map((n) => n.fedBy)).toEqual([undefined, undefined])
    expect(
      applyEdit(moved, { kind: 'setFedBy', id: 'd2', by: 'source' }).needs.devices.map((n) => n.fedBy),
    ).toEqual(['source', 'source'])
    const alone = applyEdit(d, { kind: 'removeDevice', id: 'd2' })
    expect(alone.needs.devices[0]!.drivenBy).toBeUndefined()
    expect(look(alone).build.support.some((s) => s.role === 'transistor')).toBe(true)
  })
  test('another in the place of one that others hang on too is added beside it; nothing of one that goes is left', () => {
    const shared: Design = {
      ...d,
      needs: {
        ...d.needs,
        devices: [
          ...d.needs.devices,
          { id: 'd3', part: 'pump-12v', name: 'Other', count: 1, drivenBy: 'd2', fedBy: 'source' },
        ],
      },
    }
    const other = { kind: 'addBridge', id: 'd1', part: 'bridge-two', name: 'bridge' } as const
    expect(applyEdit(shared, other).needs.devices.map((n) => [n.id, n.drivenBy])).toEqual([
      ['d1', 'd4'],
      ['d2', undefined],
      ['d3', 'd2'],
      ['d4', undefined],
    ])
    const locked = { ...d, pins: { ...d.pins, locks: { 'd2.1.A1': 'PB2', 'd9.1.x': 'PB3' } } }
    const { needs, pins } = applyEdit(locked, other)
    expect([needs.devices.map((n) => n.part), pins.locks]).toEqual([
      ['pump-12v', 'bridge-two'],
      { 'd9.1.x': 'PB3' },
    ])
  })
  test('a bridge with nothing on it: a motor is offered to it, or doing without', () => {
    const idle = {
      ...d,
      needs: { ...d.needs, devices: d.needs.devices.map((n) => ({ ...n, drivenBy: undefined })) },
    }
    const a = look(idle)
    expect(ids(a)).toEqual(['notes idle:d2'])
    expect(told(a)[0]!.fixes.map((f) => f.label)).toEqual(['Hang Pump on it', 'Do without Bridge'])
    expect(applyEdits(idle, told(a)[0]!.fixes[0]!.edits)).toEqual(d)
  })
  test('kept with the project, and read again', () => {
    expect(readDesign(JSON.parse(JSON.stringify(d)), 'kept')).toEqual(d)
  })
})

describe('ranked', () => {
  const d = without(wheels('bridge-cool', 2))
  const rows = (of: Design) => bridgesFor(look(of), library)[0]!.ranked

  test('those that do first; of the others why not', () => {
    const [cool, two, strong] = rows(d)
    expect([cool!.part.id, cool!.no, cool!.chosen, cool!.lines]).toEqual(['bridge-cool', [], false, 4])
    expect(two!.part.id).toBe('bridge-two')
    expect(two!.no.map((n) => n.text)).toEqual([
      expect.stringMatching(/^behind it as little as .* are left for Wheel, /),
      expect.stringMatching(/^it reaches .* °C inside/),
    ])
    // It asks for 5.5 V, and has one output for two.
    expect(strong!.no.map((n) => n.text)).toEqual([
      expect.stringMatching(/^it runs on 5\.5\sV to 24\sV/),
      '2 of them hang on its one output',
    ])
  })
  test('two on one bridge warm it together; what its lines ask for is compared with the rail at its lowest', () => {
    const [cool] = rows(d)
    const near = look(d).power.railLoaded!.value
    // 2 · 0.8² · 0.8 Ω, and 2 mA; 65 K/W.
    expect(cool!.junction!.value.max).toBeCloseTo(30 + 65 * (2 * 0.512 + 2e-3 * near.max), 6)
    const rail = look(d).power.rail!.value
    const asking = (volts: number) => {
      const part = library.parts['bridge-cool'] as Device
      const [wiring] = part.wirings
      const signals = wiring!.signals.map((x) => ({
        ...x,
        electrical: {
          kind: 'logic-input',
          high: { factor: 0, offset: volts },
          low: { factor: 0, offset: 0.6 },
        } as const,
      }))
      const from = {
        parts: { ...library.parts, 'bridge-cool': { ...part, wirings: [{ ...wiring!, signals }] } },
      }
      return bridgesFor(look(d), from)[0]!
        .ranked.find((r) => r.part.id === 'bridge-cool')!
        .no.map((n) => n.text)
    }
    expect(asking(rail.min - 0.01)).toEqual([])
    expect(asking(rail.min + 0.01)).toEqual([expect.stringMatching(/^its lines ask for/)])
  })
  test('one that is fed otherwise is not taken for it', () => {
    const both = pumping('bridge-strong')
    const apart: Design = {
      ...both,
      needs: {
        ...both.needs,
        devices: [
          { ...both.needs.devices[0]!, drivenBy: undefined, fedBy: 'source' },
          { ...both.needs.devices[1]!, fedBy: undefined },
        ],
      },
    }
    const strong = (of: Design) => rows(of).find((r) => r.part.id === 'bridge-strong')!.edit
    expect(strong(apart)).toMatchObject({ kind: 'addBridge' })
    expect(
      strong({
        ...apart,
        needs: {
          ...apart.needs,
          devices: apart.needs.devices.map((n) => ({ ...n, fedBy: 'source' as const })),
        },
      }),
    ).toEqual({ kind: 'hangOn', id: 'd1', bridge: 'd2' })
  })
  test('chosen with one edit: added, fed as the load is; one that is there and free is used', () => {
    const [cool] = rows(d)
    const chosen = applyEdit(d, cool!.edit)
    expect(chosen.needs.devices.map((n) => [n.part, n.drivenBy])).toEqual([
      ['wheel-motor', 'd2'],
      ['bridge-cool', undefined],
    ])
    expect(rows(chosen)[0]).toMatchObject({ chosen: true })
    const beside = (count: number): Design => ({
      ...chosen,
      needs: {
        ...chosen.needs,
        devices: [
          { ...chosen.needs.devices[0]!, count },
          chosen.needs.devices[1]!,
          { id: 'd3', part: 'wheel-motor', name: 'Arm', count: 1 },
        ],
      },
    })
    const arm = (of: Design) => bridgesFor(look(of), library)[1]!.ranked[0]!.edit
    expect(arm(beside(1))).toEqual({ kind: 'hangOn', id: 'd3', bridge: 'd2' })
    expect(arm(beside(2))).toMatchObject({ kind: 'addBridge', part: 'bridge-cool' })
  })
})
