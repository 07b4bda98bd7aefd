// Transistors for a load, ranked by what the leg really gives: drive, channel, heat and base current by hand from the sheets.

import { demo, shippedLibrary } from '../../test/files'
import { analyse, offersFor, switchesOf } from '../analysis'
import { applyEdits, type Design, type Edit } from '../design'
import type { Library, Transistor } from '../parts'
import { steps } from '../patience'
import { project, type Project } from '../../test/project'
import { legLoads } from './drive'

const library = shippedLibrary()
const look = (d: Design, of: Library = library) => analyse(d, of, steps(3000))
const by = (part: string) => (d: Design) =>
  applyEdits(d, [{ kind: 'setTransistor', id: 'd1', signal: 'drive', part, name: part }])
const door = () => demo('coop-door')
const ranked = (d: Design, of: Library = library) => switchesOf(look(d, of), of)[0]!.ranked
const of = (id: string, d = door(), from: Library = library) => ranked(d, from).find((r) => r.part.id === id)!
const nos = (id: string, d = door(), from: Library = library) => of(id, d, from).no.map((n) => n.text)

test('behind 3.3 V: the channel between two rows of the sheet, its heat and its junction', () => {
  // The cell may leave less than 3.3 V: the rail of 3.234 V at the least is what a fed one has.
  const d = { ...door(), power: { ...door().power, source: 'usb-port', charging: undefined } }
  const { drive, heat, junction, chosen, no } = of('nfet-strong', d)
  expect([chosen, no]).toEqual([true, []])
  const least = drive!.value.min
  expect(least).toBeGreaterThan(3.2)
  // 80 mΩ at 2.7 V, 35 mΩ at 4.5 V; 0.8 A.
  const ohms = 0.08 - ((least - 2.7) / 1.8) * 0.045
  expect(heat!.value.max).toBeCloseTo(0.64 * ohms, 6)
  const theta = (library.parts['nfet-strong'] as Transistor).package.thermalResistance!
  expect(junction!.value.max).toBeCloseTo(35 + 0.64 * ohms * (theta.max ?? theta.typ!), 4)
})

test('why others don’t: threshold, current; a bipolar one runs hot, and takes from the leg what it doesn’t have', () => {
  expect(nos('nfet-plain')[0]).toMatch(/may need 4\sV to begin to conduct$/)
  // Its sheet knows its channel from 10 V on: what it would turn to heat here nobody knows.
  expect([of('nfet-plain').heat, of('nfet-plain').junction]).toEqual([undefined, undefined])
  expect(nos('nfet-small')).toEqual([
    expect.stringMatching(
      /^Door motor draws up to 800\smA through small n-channel MOSFET, which is made for 400\smA$/,
    ),
    // 0.64 A² · 3.3 Ω · 350 K/W are more than 700 K.
    expect.stringMatching(/^The transistor of Door motor reaches 7\d\d °C/),
  ])
  const strong = of('npn-strong')
  // A tenth of 0.8 A is 80 mA, and the leg is spared with 150 Ω: 3.2 V − 1.3 V through that are 10 mA, 80 times less than 0.8 A.
  expect(strong.no.map((n) => n.text)).toEqual([
    expect.stringMatching(
      /^The base of strong NPN transistor gets as little as .* [78]\d times less than its load draws; its gain may be only 40: it is not switched on/,
    ),
  ])
  // Unsaturated nobody knows how hot it gets.
  expect([strong.heat, strong.junction]).toEqual([undefined, undefined])
  expect(
    nos('npn-small').some((n) =>
      /draws up to 800\smA through small NPN transistor, which is made for 200\smA$/.test(n),
    ),
  ).toBe(true)
})

test('those that do come first, the cheapest first; a sheet without a channel is no reason against, and said', () => {
  const all = ranked(door())
  const count = all.map((r) => r.no.length)
  expect(count).toEqual([...count].sort((a, b) => a - b))
  const able = all.filter((r) => r.no.length === 0).map((r) => r.part.price)
  expect(able).toEqual([...able].sort((a, b) => a - b))
  expect(all.filter((r) => r.chosen).map((r) => r.part.id)).toEqual(['nfet-strong'])
  const bare: Library = {
    parts: {
      ...library.parts,
      'nfet-strong': { ...(library.parts['nfet-strong'] as Transistor), channel: undefined },
    },
  }
  const unknown = of('nfet-strong', door(), bare)
  expect([unknown.no, unknown.unsure.length, unknown.heat]).toEqual([[], 1, undefined])
})

test('chosen by hand it is fitted, judged, and mended by what is offered', () => {
  const plain = by('nfet-plain')(door())
  const before = look(plain)
  expect(before.build.support.find((s) => s.role === 'transistor')!.part.id).toBe('nfet-plain')
  const found = before.findings.find((f) => f.id === 'pins.switch-rating:off:d1.1.drive')!
  expect([found.severity, found.grade]).toEqual(['stops', 'impossible'])
  const { offers } = offersFor(before, library, found)
  expect(offers.map((o) => o.fix.label)).toContain('Switch it with strong n-channel MOSFET')
  const after = look(applyEdits(plain, offers[0]!.fix.edits))
  expect(after.findings.map((f) => f.check)).not.toContain('pins.switch-rating')
  // Taken back it is what the file proposes.
  const back = applyEdits(plain, [{ kind: 'setTransistor', id: 'd1', signal: 'drive', part: null, name: '' }])
  expect(back).toEqual(door())
})

test('one that isn’t there, and one of another kind, are told: nothing switches the motor', () => {
  const pnp = { ...(library.parts['npn-small'] as Transistor), id: 'pnp-small', sort: 'pnp' as const }
  const shelf: Library = { parts: { ...library.parts, [pnp.id]: pnp } }
  for (const [part, words] of [
    [
      'gone',
      /^The transistor of Door motor is “gone”, which is not in the library: nothing switches Door motor\.$/,
    ],
    [
      'pnp-small',
      /n-channel MOSFET, its gate on the leg, an NPN transistor, or a p-channel MOSFET in its plus\.$/,
    ],
  ] as const) {
    const design = by(part)(door())
    const before = look(design, shelf)
    const found = before.findings.filter((f) => f.check === 'pins.switch-rating')
    expect(found.map((f) => [f.id, f.severity, f.grade])).toEqual([
      ['pins.switch-rating:none:d1.1.drive', 'stops', 'impossible'],
    ])
    expect(found[0]!.text).toMatch(words)
    const { offers } = offersFor(before, shelf, found[0]!)
    expect(offers.length).toBeGreaterThan(0)
  }
})

describe('a bipolar one: a buzzer of 25 mA, 32 mA at the most, on a leg at 5 V', () => {
  const small = (more: Partial<Project> = {}, edits: Edit[] = []) =>
    look(
      applyEdits(
        project({
          chip: 'td8-28-dip',
          source: 'adapter-9v',
          regulator: 'bl5-low',
          devices: [['buzzer-magnetic', 'Alarm', undefined, { transistors: { drive: 'npn-small' } }]],
          ...more,
        }),
        edits,
      ),
    )
  const a = small()
  const signal = 'd1.1.drive'
  const base = a.pins.bases[signal]!
  test('its base gets a tenth of that at every corner, through the largest preferred resistor that gives it', () => {
    expect(base.asked.value).toMatchObject({
      typ: expect.closeTo(2.5e-3, 12),
      max: expect.closeTo(3.2e-3, 12),
    })
    // 4.9 V − 0.95 V, less what falls in the driver at 3.2 mA: nothing at none, 0.22 V at 5 mA.
    const drop = (3.2e-3 * 0.22) / 5e-3
    expect(base.resistance.value.min).toBeCloseTo((4.9 - 0.95 - drop) / 3.2e-3, 3)
    // 1190 Ω; of E12 with 5 % at most 1134 Ω.
    expect(base.resistor.marking).toBe('1k')
    // The driver as a line: 44 Ω at its worst, 20 Ω at its best.
    const least = (4.9 - 0.95) / (1000 * 1.05 + 0.22 / 5e-3)
    const most = (5.1 - 0.65) / (1000 * 0.95 + 0.1 / 5e-3)
    expect(base.current.value.min).toBeCloseTo(least, 8)
    expect(base.current.value.max).toBeCloseTo(most, 8)
    expect(base.ratio.value.max).toBeCloseTo(32e-3 / least, 6)
    expect(base.ratio.value.max).toBeLessThan(10)
    // Before the program: 1 µA of the leg, times 400.
    expect(base.creep!.value.max).toBeCloseTo(400e-6, 12)
    expect(a.findings.filter((f) => f.check === 'pins.switch-rating')).toEqual([])
  })
  test('its resistor’s own tolerance counts: 560 Ω of 560.4 Ω would be too much with 5 % more', () => {
    // 3.234 V − 1.3 V, less 0.141 V in the driver, over 3.2 mA.
    const of = small({
      regulator: 'bl33-low',
      devices: [['buzzer-magnetic', 'Alarm', undefined, { transistors: { drive: 'npn-strong' } }]],
    }).pins.bases[signal]!
    expect(of.resistance.value.min).toBeCloseTo((3.234 - 1.3 - (3.2e-3 * 0.22) / 5e-3) / 3.2e-3, 3)
    expect(of.resistor.marking).toBe('470R')
    expect(of.current.value.min).toBeGreaterThan(3.2e-3)
  })
  test('fitted with its resistor and the coil’s diode, without a gate’s pull-down', () => {
    const parts = a.build.support.filter((s) => s.signal === signal)
    expect(parts.map((s) => [s.role, s.part.id, ...s.legs.map((l) => `${l.name}: ${l.net}`)])).toEqual([
      [
        'transistor',
        'npn-small',
        expect.stringMatching(/ base: ALARM_BASE$/),
        expect.stringMatching(/ collector: ALARM_LOW$/),
        expect.stringMatching(/ emitter: GND$/),
      ],
      ['base resistor', parts[1]!.part.id, '1: ALARM', '2: ALARM_BASE'],
      ['flyback diode', 'diode-small', 'cathode: VCC', 'anode: ALARM_LOW'],
    ])
    // Where each leg is: emitter, base, collector as its sheet counts them.
    const { legs } = library.parts['npn-small'] as Transistor
    for (const role of ['base', 'collector', 'emitter'] as const)
      expect(parts[0]!.legs.find((l) => l.name.endsWith(role))!.name).toBe(
        `${legs.find((l) => l.role === role)!.leg} ${role}`,
      )
  })
  test('its heat: what falls in it, and in its base; it is drawn from the rail while the line is high', () => {
    const row = switchesOf(a, library)[0]!.ranked.find((r) => r.part.id === 'npn-small')!
    expect([row.chosen, row.no]).toEqual([true, []])
    const I_B = base.current.value.max
    // 0.3 V · 32 mA + 0.65 V · I_B, or with 0.95 V at another corner: no more than both at once.
    expect(row.heat!.value.max).toBeLessThanOrEqual(0.3 * 32e-3 + 0.95 * I_B)
    expect(row.heat!.value.max).toBeGreaterThanOrEqual(0.3 * 32e-3 + 0.65 * I_B)
    const drawn = a.power.consumers.find((c) => c.name === 'Bases of transistors')!
    expect([drawn.from, drawn.work.value.max]).toEqual(['rail', expect.closeTo(I_B, 12)])
    expect(
      small({ devices: [['buzzer-magnetic', 'Alarm']] }).power.consumers.map((c) => c.name),
    ).not.toContain('Bases of transistors')
  })
  test('the leg carries it, alone and with the others: without the resistor it breaks', () => {
    const loads = legLoads(a.chip.chip!, a.pins)
    expect(loads.find((l) => l.wire.signal.id === signal)!.current.value.max).toBeCloseTo(
      base.current.value.max,
      12,
    )
    const key = a.build.support.find((s) => s.role === 'base resistor')!.key
    const bare = small({}, [{ kind: 'leaveOut', support: key, name: '' }])
    const open = legLoads(bare.chip.chip!, bare.pins).find((l) => l.wire.signal.id === signal)!.current
    // (5.1 V − 0.65 V − 0.1 V + 5 mA · 21.3 Ω) / 21.3 Ω: 0.2 A out of a leg that breaks above 40 mA.
    expect(open.value.max).toBeCloseTo((5.1 - 0.65 - 0.1 + 5e-3 * (0.32 / 15e-3)) / (0.32 / 15e-3 + 0.01), 4)
    expect(bare.build.support.find((s) => s.key === key)!.risk.severity).toBe('stops')
    const told = bare.findings.find((f) => f.id === `pins.switch-rating:base:${signal}`)!
    expect(told.severity).toBe('stops')
    const [offer] = offersFor(bare, library, told).offers
    expect([
      offer!.fix.label,
      look(applyEdits(bare.design, offer!.fix.edits)).findings.map((f) => f.check),
    ]).toEqual(['Put the resistor in', expect.not.arrayContaining(['pins.switch-rating'])])
  })
  test('a leg that gives less than it asks for is told, with a MOSFET as the way out', () => {
    const motor = small({ devices: [['fan-5v', 'Fan', undefined, { transistors: { drive: 'npn-strong' } }]] })
    // A tenth of 0.35 A is 35 mA, and a leg is good for 20 mA: it is spared by (5.1 V − 0.7 V) / 20 mA = 220 Ω and 5 %, 270 Ω of E12.
    const on = motor.pins.bases[signal]!
    expect(on.resistor.marking).toBe('270R')
    expect(on.current.value.max).toBeLessThan(20e-3)
    // 4.9 V − 1.3 V at the least, less the driver: 0.22 V at 5 mA and 45.3 Ω more, through 270 Ω and 5 %.
    const slope = (0.9 - 0.22) / 15e-3
    const least = (4.9 - 1.3 - 0.22 + 5e-3 * slope) / (270 * 1.05 + slope)
    expect(on.ratio.value.max).toBeCloseTo(0.35 / least, 4)
    // 32 times; its gain is 40 or more.
    const told = motor.findings.filter((f) => f.check === 'pins.switch-rating')
    expect(told.map((f) => [f.id, f.severity])).toEqual([[`pins.switch-rating:weak:${signal}`, 'risks']])
    const { offers } = offersFor(motor, library, told[0]!)
    expect(offers.map((o) => o.fix.label)).toContain('Switch it with small n-channel MOSFET')
  })
  test('what its sheet leaves open is said, in the finding and where it is ranked', () => {
    const npn = library.parts['npn-small'] as Transistor
    const silent: Library = {
      parts: {
        ...library.parts,
        'npn-small': { ...npn, gain: undefined, saturation: undefined, baseEmitter: undefined },
      },
    }
    const quiet = look(a.design, silent)
    const [told, ...more] = quiet.findings.filter((f) => f.check === 'pins.switch-rating')
    expect([told!.severity, more]).toEqual(['notes', []])
    expect(told!.text).toBe(
      'The sheet of small NPN transistor, which switches Alarm, states no gain: whether it is switched on at all is not known; not what falls in it: how hot it gets is not known; not what lies between base and emitter: 0.6 V to 1.2 V are assumed.',
    )
    // 4.9 V − 1.2 V, less 0.141 V in the leg, over 3.2 mA.
    expect(quiet.pins.bases[signal]!.resistance.value.min).toBeCloseTo(
      (4.9 - 1.2 - (3.2e-3 * 0.22) / 5e-3) / 3.2e-3,
      3,
    )
    const row = switchesOf(quiet, silent)[0]!.ranked.find((r) => r.part.id === 'npn-small')!
    expect([row.no, row.unsure.length, row.heat]).toEqual([[], 1, undefined])
  })
  test('a weak one of a gain of 3 is not switched on', () => {
    const npn = library.parts['npn-small'] as Transistor
    const weak: Library = {
      parts: {
        ...library.parts,
        'npn-small': { ...npn, gain: { min: 3, typ: 5, max: 9, kind: 'guaranteed' } },
      },
    }
    const told = look(a.design, weak).findings.filter((f) => f.check === 'pins.switch-rating')
    expect(told.map((f) => [f.id, f.severity])).toEqual([[`pins.switch-rating:off:${signal}`, 'stops']])
  })
})

test('a latch is held by a MOSFET: a bipolar one is told, and not offered', () => {
  const d = project({
    chip: 'td8-28-dip',
    source: 'cells-3-aa',
    devices: [['latch-button', 'Power', 'hold']],
  })
  const spoilt = look(
    applyEdits(d, [{ kind: 'setTransistor', id: 'd1', signal: 'hold', part: 'npn-small', name: '' }]),
  )
  const told = spoilt.findings.find((f) => f.id.startsWith('pins.switch-rating:none'))!
  expect(told.text).toMatch(
    /small NPN transistor can’t switch .* that takes an n-channel MOSFET, its gate on the leg\.$/,
  )
  const row = switchesOf(look(d), library)
    .find((r) => r.load.need === 'd1')!
    .ranked.find((r) => r.part.id === 'npn-small')!
  expect(row.no.map((n) => n.text)).toContain('a latch is held by an n-channel MOSFET here')
})

test('a project without such loads ranks nothing', () => {
  const d = door()
  expect(
    switchesOf(
      look({ ...d, needs: { ...d.needs, states: undefined, devices: d.needs.devices.slice(1) } }),
      library,
    ),
  ).toEqual([])
})
