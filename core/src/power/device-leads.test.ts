// Leads from the board to a device: resistance of copper by IEC 60228, what is lost, gets warm and arrives, by hand.

import { shippedLibrary } from '../../test/files'
import { analyse, offersFor } from '../analysis'
import { applyEdits, type Design, type DeviceLead, readDesign } from '../design'
import type { Wire } from '../parts'
import { steps } from '../patience'
import { project } from '../../test/project'

const library = shippedLibrary()
const look = (d: Design) => analyse(d, library, steps(3000))
/** A pump of 1.7 A at most on an adapter of 12 V; a servo on one of 5 V. */
const led = (part: string, lead: DeviceLead | undefined, source: string, more = {}) =>
  look(
    project({
      chip: 'td8-28-dip',
      source,
      regulator: source === 'adapter-5v' ? undefined : 'bl5-low',
      devices: [
        [part, 'Far', undefined, { ...(source === 'adapter-5v' ? {} : { fedBy: 'source' }), lead, ...more }],
      ],
    }),
  )
const told = (a: ReturnType<typeof look>) => a.findings.filter((f) => f.check === 'power.device-lead')
const of = (a: ReturnType<typeof look>) => a.power.deviceLeads[0]!

describe('a pump of 1.7 A at the end of 2 m of 0.5 mm²', () => {
  const a = led(
    'pump-12v',
    { wire: 'wire-0-5', length: 2, joint: 'terminal-screw', joints: 4 },
    'adapter-12v-heavy',
  )
  test('39 Ω/km there and back, as warm as 1.7 A make it, and four joints', () => {
    const joint = library.parts['terminal-screw']!
    const each = joint.kind === 'connector' ? joint.resistance!.max! : NaN
    // Rated 3 A, which take it from 30 °C to 70 °C: 1.7 A add 40 K · (1.7/3)² = 12.84 K. Copper at −234.5 °C (IEC 60228, annex C).
    const warm = 30 + 40 * (1.7 / 3) ** 2
    const ohms = (4 * 0.039 * (234.5 + warm)) / 254.5 + 4 * each
    expect(a.design.needs.limits.ambient).toBe(30)
    expect(of(a).resistance.value.max).toBeCloseTo(ohms, 9)
    expect(of(a).current.value.max).toBeCloseTo(1.7, 12)
    expect(of(a).drop.value.max).toBeCloseTo(1.7 * ohms, 9)
    expect(of(a).heat.value.max).toBeCloseTo(1.7 ** 2 * ohms, 9)
    const near = a.power.loads.rails[a.power.supplies.fed.source]!.voltage!.value.min
    expect(of(a).arrives!.value.min).toBeCloseTo(near - 1.7 * ohms, 9)
  })
  test('what arrives is less than its sheet asks: told with a wire that would do, and gone with it', () => {
    const part = library.parts['pump-12v']!
    const least = part.kind === 'device' ? part.supply!.min! : NaN
    const near = a.power.loads.rails[a.power.supplies.fed.source]!.voltage!.value.min
    expect([near >= least, of(a).arrives!.value.min < least]).toEqual([true, true])
    expect(told(a).map((f) => [f.id, f.severity])).toEqual([['power.device-lead:low:d1', 'risks']])
    const { offers } = offersFor(a, library, told(a)[0]!)
    expect(offers.map((o) => o.fix.label)).toEqual(['Wire to Far: Cable 2 × 1.5 mm²'])
    expect(told(look(applyEdits(a.design, offers[0]!.fix.edits)))).toEqual([])
  })
  test('it loses only what lies in its own lead: the board’s voltages are as before', () => {
    const bare = led('pump-12v', undefined, 'adapter-12v-heavy')
    expect(a.power.fromSource.value).toEqual(bare.power.fromSource.value)
    expect(bare.power.deviceLeads).toEqual([])
  })
})

test('where too little is left at the board already, what arrives is told all the same; no wire cures that', () => {
  const a = led('pump-12v', { wire: 'wire-0-5', length: 5 }, 'adapter-12v')
  expect(of(a).given!.value.min).toBeLessThan(10.8)
  const [low] = told(a)
  expect(low!.id).toBe('power.device-lead:low:d1')
  expect(offersFor(a, library, low!).offers).toEqual([])
})

test('a thin wire gets hotter than it stands: a jumper for a pump', () => {
  const a = led('pump-12v', { wire: 'wire-jumper', length: 0.1 }, 'adapter-12v')
  const jumper = library.parts['wire-jumper']!
  expect(jumper.kind === 'wire' && jumper.current.max! < 1.7).toBe(true)
  expect(told(a).map((f) => [f.id, f.severity])).toContainEqual([
    'power.device-lead:wire-carries:d1',
    expect.stringMatching(/stops|risks/),
  ])
  // Overloaded it is reckoned as warm as its insulation stands, and no warmer.
  const { resistance, insulation } = jumper as Wire
  const ohms = (0.2 * resistance.max! * (234.5 + insulation.max!)) / 254.5
  expect(of(a).resistance.value.max).toBeCloseTo(ohms, 9)
})

test('an insulation that stands 180 °C doesn’t make a wire that hot', () => {
  const a = led('pump-12v', { wire: 'wire-0-5-warm', length: 2 }, 'adapter-12v-heavy')
  // 8 A take it from 30 °C to 180 °C: 1.7 A to 36.8 °C, and not the 63 % more that 180 °C would be.
  const ohms = (4 * 0.0401 * (234.5 + 30 + 150 * (1.7 / 8) ** 2)) / 254.5
  expect(of(a).resistance.value.max).toBeCloseTo(ohms, 9)
})

test('three of a kind have a lead each: the current of one', () => {
  const a = led('pump-12v', { wire: 'wire-1-5', length: 1 }, 'adapter-12v-heavy', { count: 3 })
  expect(a.power.deviceLeads).toHaveLength(1)
  expect(of(a).current.value.max).toBeCloseTo(1.7, 12)
})

test('a servo’s own minus is lifted, and its line with it: noted above 50 mV, not below', () => {
  // 0.039 Ω/m: ten metres there and back are 0.39 Ω at 20 °C; the servo’s stall current makes half of that its ground’s shift.
  const long = led('servo-small', { wire: 'wire-0-5', length: 5 }, 'adapter-5v')
  const amps = of(long).current.value.max
  expect((amps * 10 * 0.039) / 2).toBeGreaterThan(0.05)
  expect(told(long).map((f) => f.id)).toContain('power.device-lead:ground:d1')
  const short = led('servo-small', { wire: 'wire-0-5', length: 0.3 }, 'adapter-5v')
  expect(of(short).drop.value.max / 2).toBeLessThan(0.05)
  expect(told(short)).toEqual([])
})

test('what is built: its wire and joints are in the list for each of them, and made and measured before it is joined', () => {
  const lead = { wire: 'wire-0-5', length: 2.3, joint: 'terminal-screw', joints: 4 }
  const { build } = led('pump-12v', lead, 'adapter-12v-heavy', { count: 2 })
  // Twice 4.6 m are ten whole metres; four contacts are two terminals of two, for each.
  expect(build.parts.filter((p) => /^(wire|terminal)/.test(p.part)).map((p) => [p.part, p.count])).toEqual([
    ['terminal-screw', 4],
    ['wire-0-5', 10],
  ])
  const steps = build.steps.filter((s) => s.title.startsWith('Far'))
  expect(steps).toHaveLength(2)
  for (const s of steps) {
    expect(s.does.slice(-4, -1)).toEqual([
      'Its lead, between board and device:',
      'Two conductors of 2.3 m, Cable 2 × 0.5 mm²: plus and minus, told apart by colour or a knot.',
      'screw terminal, 4 contacts in all: pull at each wire, none may slip.',
    ])
    const [through, over] = s.checks.slice(-2)
    // An ohm of the meter’s own, 4.6 m at 70 °C, four joints of 10 mΩ.
    expect(through!.expect.max).toBeCloseTo(1 + (4.6 * 0.039 * 304.5) / 254.5 + 4 * 0.01, 6)
    expect([through!.powered, over!.powered]).toEqual([false, false])
    expect(over!.where).toBe(`the lead to ${s.title}: between plus and minus, nothing joined`)
  }
  const bare = led('pump-12v', undefined, 'adapter-12v-heavy', { count: 2 })
  expect(bare.build.steps.flatMap((s) => s.does).join(' ')).not.toContain('lead')
  const price = (a: typeof bare.build) => a.price.value.typ
  const of = (id: string) => library.parts[id]!.price
  expect(price(build) - price(bare.build)).toBeCloseTo(10 * of('wire-0-5') + 4 * of('terminal-screw'), 9)
})

test('to a device whose sheet states no currents it is in no sum, and that is said', () => {
  const pump = library.parts['pump-12v']!
  if (pump.kind !== 'device') throw new Error('not a device')
  const silent = { ...pump, modes: [], wirings: [{ ...pump.wirings[0]!, signals: [] }] }
  const { design } = led('pump-12v', { wire: 'wire-0-5', length: 2 }, 'adapter-12v')
  const a = analyse(design, { parts: { ...library.parts, 'pump-12v': silent } }, steps(3000))
  expect(a.power.deviceLeads).toEqual([])
  expect(a.findings.find((f) => f.check === 'power.not-reckoned')?.text).toBe(
    'In the lead to Far the wires and joints are left out of every sum: its sheet states no currents.',
  )
})

test('said by half, or gone from the library, it is left out, and said', () => {
  const a = led('pump-12v', { wire: 'gone', length: 1, joint: 'terminal-screw' }, 'adapter-12v')
  expect(a.power.deviceLeads).toEqual([])
  const ids = a.findings.filter((f) => f.check === 'power.not-reckoned').map((f) => f.text)
  expect(ids).toHaveLength(2)
  expect(ids.join(' ')).toMatch(
    /^The wire of the lead to Far is “gone”.*In the lead to Far the joints are left out/,
  )
})

test('it is kept with the project, and read again', () => {
  const { design } = led('pump-12v', { wire: 'wire-0-5', length: 5 }, 'adapter-12v')
  expect(readDesign(JSON.parse(JSON.stringify(design)), 'kept')).toEqual(design)
  expect(() =>
    readDesign(
      {
        ...design,
        needs: { ...design.needs, devices: [{ ...design.needs.devices[0]!, lead: { length: 500 } }] },
      },
      'too long',
    ),
  ).toThrow(/lead\.length/)
})
