// Charging on the board: every sum by hand from the sheets’ numbers, the time against an integration step by step, and what is found of
// chargers that are too strong, too hot, never end, or belong to another cell.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse, gaugesOf, offersFor, sourcesOf } from '../analysis'
import { applyEdits, type Charging, type Design } from '../design'
import { cautionWords } from '../blocks'
import { findPart, type Library, makeLibrary, partsOfKind } from '../parts'
import { steps } from '../patience'

const library = shippedLibrary()
const charged = (
  charging: Partial<Charging> = {},
  more: Partial<Parameters<typeof project>[0]> & { ambient?: number } = {},
): Design => {
  const { ambient = 25, ...rest } = more
  return applyEdits(
    project({ chip: 'td8-08-dip', source: 'cell-pouch-2ah', regulator: 'bl33-tiny', devices: [], ...rest }),
    [
      { kind: 'setLimit', limit: 'ambient', value: ambient },
      { kind: 'setLimit', limit: 'coldest', value: 5 },
      { kind: 'changeCharging', change: { charger: 'bc42-single', from: 'usb-port', ...charging }, what: '' },
    ],
  )
}
const look = (d: Design, of: Library = library) => analyse(d, of, steps(3000))
const told = (d: Design, of: Library = library) =>
  look(d, of)
    .findings.filter((f) => f.check.startsWith('power.charging'))
    .map((f) => [f.id.replace('power.charging-', ''), f.severity, f.grade])
const usual = ['fed:unasked', 'notes', 'typical']

describe('by hand', () => {
  const { charging, power, build } = look(charged())
  const c = charging.charging!
  test('the resistor: 1.07 kV / (0.5 − 0.0005) A = 2.142 kΩ, a twentieth more is 2.255 kΩ: 2.7 kΩ', () => {
    expect(c.set.marking).toBe('2k7')
    // 930 / 2.835 kΩ, 1000 / 2.7 kΩ, 1070 / 2.565 kΩ.
    expect(c.current.value.min).toBeCloseTo(0.328042, 6)
    expect(c.current.value.typ).toBeCloseTo(0.37037, 5)
    expect(c.current.value.max).toBeCloseTo(0.417154, 6)
    // 0.07 and 0.13 of it.
    expect(c.ends.value.min).toBeCloseTo(0.022963, 6)
    expect(c.ends.value.max).toBeCloseTo(0.05423, 5)
  })
  test('from the port: 0.5 mA more; 4.75 − 4.242 − 0.25 V left; (5.25 − 3.0) V · 0.417 A, and 60 K/W', () => {
    expect(c.input!.value.max).toBeCloseTo(0.417654, 6)
    expect(c.room!.value.min).toBeCloseTo(0.258, 9)
    expect(c.heat!.value.max).toBeCloseTo(0.938597, 5)
    expect(c.junction!.value.max).toBeCloseTo(25 + 56.3158, 3)
    // Never less than nothing, with a fresh cell at a port’s lowest.
    expect(c.heat!.value.min).toBeGreaterThanOrEqual(0)
  })
  test('it is the hottest part of the project, and shown as that', () => {
    const a = look(charged())
    expect(gaugesOf(a).find((g) => g.id === 'hottest')!.worked).toBe(a.charging.charging!.junction)
    expect(a.power.hottest!.value.max).toBeLessThan(40)
    // 25 °C + 56.3 K: the limit is of the hottest.
    const limited = (value: number) =>
      look(applyEdits(charged(), [{ kind: 'setLimit', limit: 'heat', value }])).findings.map((f) => f.id)
    expect(limited(81)).toContain('power.over-limit:heat')
    expect(limited(82)).not.toContain('power.over-limit:heat')
  })
  test('the time is what an exponential’s steps add up to, at the worst and usually', () => {
    const stepped = (Q: number, I: number, s: number, k: number) => {
      const flat = ((1 - s) * Q) / I
      // i = I e^(−t/τ) down to k I brings I τ (1 − k), which is to be s Q.
      const tau = (s * Q) / (I * (1 - k))
      let [brought, t] = [0, 0]
      const dt = tau / 20_000
      while (brought < s * Q) {
        brought += I * Math.exp(-(t + dt / 2) / tau) * dt
        t += dt
      }
      return flat + t
    }
    const takes = power.average.value
    const worst = stepped(2.05 * 3600, 0.328042 - takes.max, 0.35, 0.07)
    const typ = stepped(2 * 3600, 0.37037 - takes.typ, 0.15, 0.1)
    expect(c.time!.value.max / worst).toBeCloseTo(1, 3)
    expect(c.time!.value.typ / typ).toBeCloseTo(1, 3)
  })
  test('what leaks back is drawn all the time, from the cell and not through the regulator', () => {
    const without = look({ ...charged(), power: { ...charged().power, charging: undefined } })
    const more = power.average.value.typ - without.power.average.value.typ
    expect(more).toBeCloseTo(1e-6, 9)
    expect(power.rest.value).toEqual(without.power.rest.value)
    expect(power.consumers.find((x) => x.id === 'charger')!.work.value.max).toBe(3e-6)
  })
  test('its parts: charger, resistor, two capacitors of 4.7 µF and more, the jack; measured as they go in', () => {
    const own = build.placed.filter((p) => p.support?.key.startsWith('charger'))
    expect(own.map((p) => [p.support!.key, p.legs.map((l) => l.net).join(' ')])).toEqual([
      ['charger-entry', 'VCHARGE GND'],
      ['charger', 'CHARGE_SET GND VCHARGE VIN'],
      ['charger-set', 'CHARGE_SET GND'],
      ['charger-in', 'VCHARGE GND'],
      ['charger-out', 'VIN GND'],
    ])
    // A fifth less than its marking still is 4.7 µF: 5.9 µF, the next of its series.
    for (const p of own.slice(3)) expect(p.support!.value!.value).toBeGreaterThanOrEqual(4.7e-6 / 0.8)
    const step = build.steps.find((s) => s.title === 'Charger')!
    expect(step.checks.map((x) => [x.powered, x.expect.unit])).toEqual([
      [false, 'Ω'],
      [true, 'V'],
      [true, 'A'],
    ])
    expect(step.checks[2]!.expect.max).toBeCloseTo(0.417154, 6)
    expect(step.cautions).toEqual(expect.arrayContaining(['charging', 'lithium', 'meter']))
    // What every lithium cell’s sheet allows: none of them is to be charged below 0 °C or above 45 °C.
    const allowed = partsOfKind(library, 'source').flatMap((s) => s.charging?.temperature ?? [])
    expect(allowed.length).toBeGreaterThan(2)
    expect([Math.max(...allowed.map((t) => t.min!)), Math.min(...allowed.map((t) => t.max!))]).toEqual([
      0, 45,
    ])
    expect(cautionWords.charging).toMatch(/only while somebody is there.* between 0 and 45\s°C/)
  })
  test('with a latch it charges the cell itself, in front of the transistor', () => {
    const { build: b } = look(applyEdits(charged({}, { devices: [['latch-button', 'Power', 'hold']] }), []))
    const legs = b.placed.find((p) => p.support?.key === 'charger')!.legs
    expect(legs.map((l) => l.net)).toContain('VCELL')
  })
})

test('left to be computed, no limit is passed: its own heat in warm air, the cell, the charger, the port', () => {
  // 60 K / (125 K/W · 2.25 V) = 213 mA; 205 V / 213 mA / 0.95 = 1.01 kΩ: 1.2 kΩ.
  expect(look(charged({ charger: 'bc42-sparing' }, { ambient: 65 })).charging.charging!.set.marking).toBe(
    '1k2',
  )
  for (const charger of ['bc42-single', 'bc42-sparing', 'bc36-iron'])
    for (const from of ['usb-port', 'adapter-5v', 'adapter-5v-heavy'])
      for (const source of ['cell-pouch-2ah', 'cell-iron'])
        for (const ambient of [20, 60, 90]) {
          const design = charged({ charger, from }, { ambient, source })
          const ids = told(design).map(([id]) => id)
          expect([
            charger,
            from,
            source,
            ambient,
            ids.filter((i) => /hot|fed:source|range|current/.test(`${i}`)),
          ]).toEqual([charger, from, source, ambient, []])
        }
})

describe('what is found', () => {
  test('nothing but a port that was not asked', () => {
    expect(told(charged())).toEqual([usual])
    expect(told(charged({ from: 'adapter-5v' }))).toEqual([])
  })
  test.each<[string, Design, string, string, string | undefined]>([
    [
      'cells that are not made for it',
      charged({}, { source: 'cells-3-aa' }),
      'safe:primary',
      'stops',
      'outside the sheet',
    ],
    [
      'a sheet that is silent on it',
      charged({}, { source: 'cells-3-nimh' }),
      'safe:primary',
      'stops',
      'outside the sheet',
    ],
    // 4.242 V against 3.65 V.
    [
      '4.2 V into an iron cell',
      charged({}, { source: 'cell-iron' }),
      'safe:voltage',
      'stops',
      'outside the sheet',
    ],
    ['3.6 V into one of 4.2 V', charged({ charger: 'bc36-iron' }), 'safe:never-full', 'notes', undefined],
    // 1 kV / 820 Ω = 1.22 A: more than the cell, the charger and the port.
    ['1.2 A', charged({ current: 1.2 }), 'safe:current', 'stops', 'outside the sheet'],
    ['1.2 A, the charger', charged({ current: 1.2 }), 'fed:range', 'stops', 'outside the sheet'],
    ['1.2 A, the port', charged({ current: 1.2 }), 'fed:source', 'stops', 'outside the sheet'],
    // 1 kV / 2.2 kΩ = 0.455 A usually, up to 0.512 A.
    ['0.45 A, the port', charged({ current: 0.45 }), 'fed:source', 'risks', 'outside the sheet'],
    ['9 V', charged({ from: 'adapter-9v' }), 'fed:too-much', 'stops', 'outside the sheet'],
    ['nobody said from what', charged({ from: undefined }), 'fed:nowhere', 'notes', undefined],
    ['46 °C', charged({}, { ambient: 46 }), 'safe:warm', 'risks', 'outside the sheet'],
    // 65 °C + 2.25 V · 0.2158 A · 125 K/W = 125.7 °C; usually 1.3 V · 0.2 A · 105 K/W are 92 °C.
    [
      '65 °C',
      charged({ charger: 'bc42-sparing', current: 0.2 }, { ambient: 65 }),
      'fed:hot',
      'risks',
      'outside the sheet',
    ],
    ['a charger that isn’t there', charged({ charger: 'gone' }), 'safe:nothing', 'stops', 'impossible'],
    ['no cell', charged({}, { source: 'adapter-5v' }), 'safe:nothing', 'stops', 'impossible'],
    ['a board', charged({}, { chip: 'stick-td8' }), 'safe:nothing', 'stops', 'impossible'],
  ])('%s', (_, design, ...found) => {
    expect(told(design)).toContainEqual(found)
    for (const f of look(design).findings.filter((x) => x.check.startsWith('power.charging')))
      expect([f.id, f.because.length > 0, f.because.every((b) => b.text.length > 10)]).toEqual([
        f.id,
        true,
        true,
      ])
  })
  const withPort = (more: object): Library => ({
    parts: { ...library.parts, 'usb-port': { ...library.parts['usb-port'], ...more } as never },
  })
  const volts = (min: number) => withPort({ voltage: { min, typ: 5, max: 5.25, kind: 'guaranteed' } })
  // Made for 4.4 V and more, but a full cell of 4.242 V and 0.25 V on top are 4.492 V.
  test.each([
    [4.45, [['fed:too-little', 'risks', 'outside the sheet'], usual]],
    [4.5, [usual]],
  ])('a port of %d V at the least', (min, found) => {
    expect(told(charged(), volts(min))).toEqual(found)
  })
  // 1.07 kV / (2.7 kΩ · 0.95) = 417.2 mA, and 0.5 mA of its own: a port of 417.5 mA is short of that, one of 417.7 mA is not.
  test.each([
    [0.4175, '3k3'],
    [0.4177, '2k7'],
  ])('a port of %d A: %s', (max, marking) => {
    expect(
      look(charged(), withPort({ current: { max, kind: 'recommended' } })).charging.charging!.set.marking,
    ).toBe(marking)
  })
  test('of chargers that fit no more than three are offered', () => {
    const iron = library.parts['bc36-iron']!
    const more = Object.fromEntries([1, 2, 3].map((n) => [`iron-${n}`, { ...iron, id: `iron-${n}` }]))
    const [found] = look(charged({}, { source: 'cell-iron' }), {
      parts: { ...library.parts, ...more },
    }).findings.filter((f) => f.id === 'power.charging-safe:voltage')
    expect(found!.fixes.filter((f) => f.label.startsWith('Charge it with'))).toHaveLength(3)
  })
  test('each limit from both sides', () => {
    const not = (id: string, d: Design) => expect(told(d).map(([found]) => found)).not.toContain(id)
    not('safe:warm', charged({}, { ambient: 45 }))
    // 64 °C + 60.7 K = 124.7 °C.
    not('fed:hot', charged({ charger: 'bc42-sparing', current: 0.2 }, { ambient: 64 }))
    not('fed:source', charged({ current: 0.37 }))
    not('safe:voltage', charged({ charger: 'bc36-iron' }, { source: 'cell-iron' }))
    // 80 mA: 1070 / (12 kΩ · 0.95) = 94 mA, and 0.5 mA, are below 100 mA.
    not('fed:unasked', charged({ current: 0.083 }))
    const stands = (max: number): Library => ({
      parts: {
        ...library.parts,
        'cell-pouch-2ah': {
          ...library.parts['cell-pouch-2ah'],
          charging: {
            voltage: { min: 4.15, max, kind: 'absolute' },
            current: { max: 1, kind: 'recommended' },
            temperature: { min: 0, max: 45, kind: 'recommended' },
          },
        } as never,
      },
    })
    expect(told(charged(), stands(4.242))).toEqual([usual])
    expect(told(charged(), stands(4.241)).map(([id]) => id)).toContain('safe:voltage')
  })
  test('how cold it gets where it is charged, from both sides; and where nobody has said, or the sheet doesn’t', () => {
    const at = (value: number | null) =>
      applyEdits(charged(), [{ kind: 'setLimit', limit: 'coldest', value }])
    const cold = (d: Design, of?: Library) =>
      look(d, of).findings.filter((f) => /charging-safe:(how )?cold/.test(f.id))
    // Its sheet, section 4: from 0 °C on.
    expect(cold(at(0))).toEqual([])
    const [below] = cold(at(-1))
    expect([below!.severity, below!.grade]).toEqual(['risks', 'outside the sheet'])
    expect(below!.text).toMatch(/down to −1 °C, and .* from 0 °C on: charged colder, metal grows inside/)
    const [unsaid] = cold(at(null))
    expect([unsaid!.severity, unsaid!.text]).toEqual(['notes', expect.stringContaining('nobody has said')])
    expect(cold(applyEdits(at(null), unsaid!.fixes[0]!.edits))).toEqual([])
    const cell = findPart(library, 'source', 'cell-pouch-2ah')!
    const silent = makeLibrary([
      ...Object.values(library.parts).filter((p) => p.id !== 'cell-pouch-2ah'),
      {
        ...cell,
        charging: { ...cell.charging!, temperature: { max: 45, kind: 'recommended' } },
      },
    ])
    expect(cold(at(-30), silent).map((f) => [f.severity, f.text])).toEqual([
      ['notes', expect.stringContaining('its sheet doesn’t say')],
    ])
  })
  test('a project that takes what comes: never full, or emptied though it is plugged in', () => {
    const busy = (current: number) => charged({ current, from: 'adapter-5v' })
    const takes = look(busy(0.37)).power.average.value
    // The weakest end is 0.07 · 0.93 / 1.05 = 0.062 of what is asked for usually, and that up to 12 % less by the nearest of E12.
    expect(told(busy(takes.max / 0.062 / 0.88))).toEqual([])
    expect(told(busy(takes.typ / 0.1 / 2))).toContainEqual(['ends:never', 'risks', 'typical'])
    expect(told(busy(takes.typ / 2)).find(([id]) => id === 'ends:empties')).toEqual([
      'ends:empties',
      'stops',
      'typical',
    ])
    expect(look(busy(takes.typ / 2)).charging.charging!.time).toBeUndefined()
  })
  test('what is offered mends it', () => {
    for (const [design, id, label] of [
      [charged({}, { source: 'cell-iron' }), 'safe:voltage', 'Charge it with BC36 iron-cell charger'],
      [charged({ current: 1.2 }), 'safe:current', 'The current that all of them stand'],
      // 1.07 kV / 99.5 mA / 0.95 = 11.3 kΩ: 12 kΩ, 83.3 mA.
      [charged(), 'fed:unasked', 'Charge with 83.3 mA'],
      [
        charged({ charger: 'bc42-sparing', current: 0.2 }, { ambient: 65 }),
        'fed:hot',
        'The current that all of them stand',
      ],
    ] as const) {
      const before = look(design)
      const finding = before.findings.find((f) => f.id === `power.charging-${id}`)!
      const offer = offersFor(before, library, finding).offers.find((o) => o.fix.label === label)!
      expect([id, offer?.fix.label]).toEqual([id, label])
      const after = look(applyEdits(design, offer.fix.edits))
      expect(after.findings.map((f) => f.id)).not.toContain(finding.id)
    }
  })
})

describe('kept by a panel', () => {
  const sunny = (sun: number | undefined, awake = 1, from = 'panel-5v') =>
    applyEdits(charged({ from, sun }), [{ kind: 'setLimit', limit: 'awake', value: awake }])
  const sun = (d: Design) => told(d).filter(([id]) => /^sun/.test(String(id)))

  test('a day: 2.5 h of full sun at the smaller of charger and panel, against 24 h of what is drawn', () => {
    const { charging, power } = look(sunny(2.5))
    const c = charging.charging!
    // 1.07 kV / 0.1995 A and 5 % more: 5.65 kΩ, so 6.8 kΩ: 130 mA to 166 mA.
    expect(c.set.marking).toBe('6k8')
    // 0.6 of 200 mA are less than 130 mA; all of 200 mA more than 166 mA.
    expect(c.day!.gained.value.min).toBeCloseTo(2.5 * 0.12, 9)
    expect(c.day!.gained.value.max).toBeCloseTo((2.5 * 1070) / 6460, 9)
    const drawn = power.average.value
    expect(c.day!.drawn.value.max).toBeCloseTo(24 * drawn.max, 9)
    expect(c.day!.left.value.min).toBeCloseTo(2.5 * 0.12 - 24 * drawn.max, 9)
    expect(c.day!.dark).toBe(power.runtime)
    // What dust leaves is assumed, and said.
    expect(c.assumed.map((a) => a.label)).toContain('share left by dust, age and how the panel stands')
  })
  test('too little for sure, perhaps too little, enough', () => {
    // Awake all day some milliamperes: 24 h of them against 2.5 h of sun.
    const { average } = look(sunny(2.5)).power
    const hours = (amperes: number, current: number) => (24 * amperes) / current
    const [never, perhaps, enough] = [
      0.9 * hours(average.value.min, 1070 / 6460),
      0.95 * hours(average.value.max, 0.12),
      1.05 * hours(average.value.max, 0.12),
    ]
    expect(sun(sunny(never))).toEqual([['sun:too-little', 'stops', 'impossible']])
    expect(sun(sunny(perhaps))).toEqual([['sun:too-little', 'risks', 'outside the sheet']])
    expect(sun(sunny(enough))).toEqual([])
    // Less awake, less sun is enough.
    expect(sun(sunny(perhaps, 0.1))).toEqual([])
  })
  test('hours that nobody has said are asked for; without a panel nothing is', () => {
    expect(sun(sunny(undefined))).toEqual([['sun:unsaid', 'notes', 'typical']])
    expect(sun(sunny(undefined, 1, 'usb-port'))).toEqual([])
    expect(look(sunny(2.5, 1, 'usb-port')).charging.charging!.day).toBeUndefined()
  })
  test('6 V panel: cold and with nothing drawn it gives 7.6 V, more than the charger’s 7 V', () => {
    expect(told(sunny(2.5, 1, 'panel-6v'))).toContainEqual(['fed:too-much', 'stops', 'outside the sheet'])
    expect(told(sunny(2.5)).map(([id]) => id)).not.toContain('fed:too-much')
  })
  test('by itself it is off in the dark: told, and never among what does', () => {
    const a = look(project({ chip: 'td8-08-dip', source: 'panel-5v', regulator: 'bl33-tiny', devices: [] }))
    const dark = a.findings.filter((f) => f.check === 'power.in-the-dark')
    expect(dark.map((f) => [f.id, f.severity])).toEqual([['power.in-the-dark:source', 'risks']])
    const rows = sourcesOf(a, library).filter((r) => r.source.sort === 'panel')
    expect(rows.map((r) => r.no[0]!.text)).toEqual(
      rows.map(() => 'it gives that in full sun alone, and nothing in the dark'),
    )
    expect(rows).toHaveLength(2)
    // Its plug could be mistaken for another as any hollow one: the jack, its diode and the caution are an adapter’s.
    expect(a.build.support.some((s) => s.role === 'polarity diode')).toBe(true)
    expect(a.build.steps[0]!.cautions).toContain('reversed')
  })
})
