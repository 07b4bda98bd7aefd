// The Power stage on the darkroom timer and its neighbours: every current by hand from the sheets.

import { demo, shippedLibrary } from '../../test/files'
import { analyse, proposalsFor, regulatorsOf, offersFor } from '../analysis'
import { project, type Project } from '../../test/project'
import { applyEdits, type Design, type Edit, emptyDesign } from '../design'
import { type Chip, type Device, findPart, type Library, makeLibrary } from '../parts'

// Cells fall evenly here and lose nothing by themselves, so that a hand can follow; with their curves: cells.test.ts.
const library = makeLibrary(
  Object.values(shippedLibrary().parts).map((p) =>
    p.kind === 'source' ? { ...p, discharge: undefined, selfDischarge: undefined } : p,
  ),
)
const timer = demo('darkroom-timer')
const power = (...edits: Edit[]) => analyse(applyEdits(timer, edits), library).power
const { consumers, ...rest } = power()
const ranked = regulatorsOf(analyse(timer, library), library)

const fast = 8e6 * (1 + analyse(timer, library).clock.deviation!.value.max * 1e-6)

/** A panel that would do for anything, were there always sun. */
const sunny: Library = {
  parts: {
    ...library.parts,
    'panel-5v': {
      ...findPart(library, 'source', 'panel-5v')!,
      price: 0.1,
      voltage: { min: 4.8, typ: 5, max: 5.2, kind: 'guaranteed' },
      current: { max: 5, kind: 'recommended' },
    },
  },
}

describe('consumers', () => {
  test.each<[string, 'rest' | 'work', number, number]>([
    // id, which, typical, greatest; amperes from the part files
    ['d1', 'rest', 0.6e-3, 1.2e-3],
    ['d1', 'work', 62e-3, 88e-3],
    ['d6', 'work', 71e-3, 80e-3],
    ['d5', 'work', 25e-3, 32e-3],
    // 0.4 mA + 8 MHz · 0.44 nA/Hz, 0.8 mA + 8 MHz · 0.7 nA/Hz
    // and the clock may be faster by what clock.test.ts derives
    ['chip', 'work', 0.4e-3 + 8e6 * 4.4e-10, 0.8e-3 + fast * 7e-10],
    ['chip', 'rest', 0.1e-3 + 8e6 * 1.1e-10, 0.3e-3 + fast * 2e-10],
    // five contacts at 10 kΩ and two bus lines at 8.2 kΩ on 5 V; 5.1 V at most, resistors 5 % below their value
    ['pull-ups', 'work', 5 / 2e3 + 10 / 8.2e3, (5.1 / 2e3 + 10.2 / 8.2e3) / 0.95],
  ])('%s at %s', (id, which, typ, max) => {
    const { value } = consumers.find((c) => c.id === id)![which]
    expect(value.typ).toBeCloseTo(typ, 9)
    expect(value.max).toBeCloseTo(max, 9)
  })
  test('at work a device does what takes most, in whatever order its sheet lists that', () => {
    const face = findPart(library, 'device', 'glow-display')!
    const turned = { ...face, modes: [...face.modes].reverse() } as Device
    const at = (device: Device) =>
      analyse(project({ chip: 'td8-28-dip', regulator: 'bl5-low', devices: [[face.id, 'Face']] }), {
        parts: { ...library.parts, [face.id]: device },
      }).power.consumers.find((c) => c.id === 'd1')!.work.value.max
    expect(at(turned)).toBe(at(face))
  })
  test('a cycle of which the sheet tells only a part is none: it counts as at work', () => {
    const horn = findPart(library, 'device', 'buzzer-magnetic')!
    const modes = horn.modes.map((m, n) => (n === 0 ? { ...m, share: undefined } : m))
    const { consumers: c } = analyse(timer, {
      parts: { ...library.parts, [horn.id]: { ...horn, modes } },
    }).power
    const own = c.find((x) => x.id === 'd5')!
    expect(own.average).toBe(own.work)
  })
  test('a rail of at most 5.1 V risks what stands just that, and breaks what stands 10 mV less', () => {
    const eye = findPart(library, 'device', 'motion-sensor')!
    const severity = (stands: number) =>
      analyse(
        project({
          chip: 'td8-28-dip',
          regulator: 'bl5-low',
          source: 'adapter-9v',
          devices: [['motion-sensor', 'Eye']],
        }),
        {
          parts: {
            ...library.parts,
            [eye.id]: {
              ...eye,
              supply: { min: 3, max: 4, kind: 'recommended' },
              supplyAbsolute: { max: stands, kind: 'absolute' },
            },
          },
        },
      ).findings.find((f) => f.check === 'power.device-supply')!.severity
    expect([severity(5.1), severity(5.09)]).toEqual(['risks', 'stops'])
  })
  test('the pull-up of a select line carries current while the line is low: 3.3 V / 10 kΩ, a twentieth of the time', () => {
    const { consumers: c } = analyse(
      project({
        chip: 'mw2-module',
        regulator: 'bl33-low',
        source: 'adapter-9v',
        devices: [['card-reader', 'Card']],
      }),
      library,
    ).power
    const pulls = c.find((x) => x.id === 'pull-ups')!
    expect([pulls.work.value.typ, pulls.average.value.typ]).toEqual([
      expect.closeTo(0.33e-3, 9),
      expect.closeTo(0.05 * 0.33e-3, 9),
    ])
  })
  test('a pull of the board’s own counts on the leg of a signal, and on no other', () => {
    const board = findPart(library, 'board', 'trestle-32')!
    const on = (pin: string) => {
      const load = { pin, what: 'a pull-up of 10 kΩ', pull: 'up', resistance: { typ: 10e3, kind: 'typical' } }
      const design = project({
        chip: board.id,
        source: 'adapter-9v',
        devices: [['push-button', 'Go']],
        locks: { 'd1.1.contact': 'PA4' },
      })
      const { power: p, pins } = analyse(design, {
        parts: { ...library.parts, [board.id]: { ...board, loads: [load] } as never },
      })
      expect(pins.assignment['d1.1.contact']).toBe('PA4')
      return p.consumers.find((x) => x.id === 'pull-ups')?.count ?? 0
    }
    expect(on('PA4') - on('PA5')).toBe(1)
  })
  test('a device counts as often as it is there', () => {
    const two = power({ kind: 'setCount', id: 'd6', count: 2 }).consumers.find((c) => c.id === 'd6')!
    expect(two.work.value.max).toBeCloseTo(160e-3, 12)
  })
  test('a device’s own cycle gives its average: the buzzer sounds 2 % of the time', () => {
    const { average } = consumers.find((c) => c.id === 'd5')!
    expect(average.value.typ).toBeCloseTo(0.02 * 25e-3, 9)
    // The two modes of its sheet, counted from one.
    expect(average.inputs.map((i) => i.symbol)).toEqual(['s_1', 'I_1', 's_2', 'I_2'])
  })
  test('of two, twice', () =>
    expect(
      power({ kind: 'setCount', id: 'd5', count: 2 }).consumers.find((c) => c.id === 'd5')!.average,
    ).toMatchObject({ label: 'Buzzer, average', value: { typ: expect.closeTo(2 * 0.02 * 25e-3, 9) } }))
  test('the source gives the rail’s current and the regulator’s own', () =>
    expect(rest.fromSource.value.max).toBeCloseTo(rest.work.value.max + 2.5e-3, 12))
})

describe('the way in', () => {
  test('the polarity diode takes its drop at the current that flows', () => {
    // between 0.38 V at 100 mA and 0.55 V at 1 A for 220 mA at most
    const drop = 0.38 + ((0.55 - 0.38) * (rest.fromSource.value.max - 0.1)) / 0.9
    expect(rest.input!.value.min).toBeCloseTo(11.4 - drop, 9)
  })
  test('left out, nothing is lost', () =>
    expect(power({ kind: 'leaveOut', support: 'polarity-diode', name: 'd' }).input!.value).toEqual({
      min: 11.4,
      typ: 12,
      max: 12.8,
    }))
  test('a USB plug can’t come reversed: no diode is asked for', () =>
    expect(power({ kind: 'chooseSource', part: 'usb-port', name: '' }).polarity).toBeUndefined())
})

describe('regulators ranked', () => {
  test('what fits first, then the cheapest; the chosen one is marked', () => {
    expect(ranked.filter((r) => r.no.length === 0).map((r) => r.regulator.id)).toEqual([
      'bl5-cool',
      'bs5-drop',
      'bs5-strong',
    ])
    expect(ranked.find((r) => r.chosen)?.regulator.id).toBe('bl5-cool')
    // What has least against it, the cheaper first: € 0.65 before 0.78 with one thing against each, 0.32 before 0.78 with two,
    // 0.55 before 1.35 with three. Those that step up stand no 12 V, and would let it through.
    expect(ranked.map((r) => [r.regulator.id, r.no.length])).toEqual([
      ['bl5-cool', 0],
      ['bs5-drop', 0],
      ['bs5-strong', 0],
      ['br5-plain', 1],
      ['bl5-low', 1],
      ['bs33-drop', 1],
      ['bs33-strong', 1],
      ['br5-small', 2],
      ['bl33-low', 2],
      ['bu33-step', 2],
      ['bu5-step', 2],
      ['bs33-still', 2],
      ['bu5-strong', 2],
      ['bl33-tiny', 3],
      ['bl33-sparing', 3],
    ])
  })
  test.each([
    ['br5-small', /gives 100 mA, and \d+ mA is asked/],
    ['bl33-tiny', /input may be at most 7 V, and gets up to 12.7 V/],
    ['bl33-low', /3.3 V suits neither/],
    ['bl5-low', /junction reaches \d+ °C, above 125 °C/],
  ])('%s: %s', (id, words) =>
    expect(
      ranked
        .find((r) => r.regulator.id === id)!
        .no.map((n) => n.text)
        .join('; '),
    ).toMatch(words),
  )
  test('a device that stands just what the regulator gives at its most, and one that takes just its least, can use it', () => {
    const out = findPart(library, 'regulator', 'bl5-low')!.output
    const said = (min: number, max: number) => {
      const parts = {
        ...library.parts,
        'pixel-strip-8': {
          ...library.parts['pixel-strip-8'],
          supply: { min, max, kind: 'recommended' },
        } as never,
      }
      const one = analyse(
        project({ chip: 'td8-28-dip', source: 'adapter-9v', devices: [['pixel-strip-8', 'Strip']] }),
        { parts },
      )
      return regulatorsOf(one, { parts })
        .find((r) => r.regulator.id === 'bl5-low')!
        .no.some((n) => /Strip/.test(n.text))
    }
    expect([
      said(out.min!, out.max!),
      said(out.min! + 0.01, out.max!),
      said(out.min!, out.max! - 0.01),
    ]).toEqual([false, true, true])
  })
  test('what one alone can’t use is told of it alone', () => {
    const alone = analyse(project({ chip: 'qm32-48', regulator: 'bl33-low', devices: [] }), library)
    const five = regulatorsOf(alone, library).find((r) => r.regulator.id === 'bl5-low')!
    expect(five.no[0]!.text).toBe(`its 5 V doesn’t suit ${alone.chip.chip!.name}`)
  })
  test('less load cools it down: without display and relay the plain one does as well', () => {
    const edits: Edit[] = [
      { kind: 'removeDevice', id: 'd1' },
      { kind: 'removeDevice', id: 'd6' },
    ]
    const light = regulatorsOf(analyse(applyEdits(timer, edits), library), library)
    expect(light.filter((r) => r.no.length === 0).map((r) => r.regulator.id)).toContain('br5-plain')
  })
})

test.each<[string, Partial<Project>]>([
  ['source', { source: undefined }],
  ['regulator', { regulator: undefined }],
  ['chip', { chip: '' }],
  ['device', { devices: [] }],
])('without a %s every check still gives findings, or none', (_, without) => {
  const whole = {
    chip: 'td8-28-dip',
    source: 'adapter-12v',
    regulator: 'bl5-cool',
    devices: [['relay-module', 'Lamp']],
  }
  const p = { ...whole, ...without } as Project
  const { findings } = analyse({ ...project(p), ...(p.chip ? {} : { chip: {} }) }, library)
  for (const { severity, text } of findings)
    expect([severity, text]).toEqual([expect.stringMatching(/^(stops|risks|notes)$/), expect.any(String)])
})

describe('cells', () => {
  const edits: Edit[] = [
    ...timer.needs.devices
      .filter((d) => d.id !== 'd3')
      .map((d): Edit => ({ kind: 'removeDevice', id: d.id })),
    { kind: 'setStance', stance: 'bare-bones' },
    { kind: 'chooseClock', name: '', clock: { source: 'internal', frequency: 1e6 } },
    { kind: 'chooseRegulator', part: null, name: '' },
    { kind: 'chooseSource', part: 'cells-2-aa', name: '' },
  ]
  const cells = power(...edits)
  test('the rail is the cells, from empty to fresh', () =>
    expect(cells.rail!.value).toEqual({ min: 1.8, typ: 2.6, max: 3.2 }))
  test('runtime is charge over current, weakest cells at the greatest current first', () => {
    // the oscillator of the chip is within 10 %
    const most = 0.8e-3 + 1.1e6 * 7e-10
    const usual = 0.4e-3 + 1e6 * 4.4e-10
    // down to 1.8 V at the chip; 0.3 to 0.6 Ω inside keep the last millivolt of the 1.4 V
    const all = (R: number, I: number) => 1 - (R * I) / 1.4
    expect(cells.runtime!.value.min).toBeCloseTo((1.8 / most) * 3600 * all(0.6, most), 3)
    expect(cells.runtime!.value.typ).toBeCloseTo((2.3 / usual) * 3600 * all(0.3, usual), 3)
  })
  test('without a regulator the chip is what gets warm, and hardly', () => {
    expect(cells.hottest!.label).toMatch(/TD8-28/)
    expect(cells.hottest!.value.max).toBeCloseTo(30 + 3.2 * (0.8e-3 + 1.1e6 * 7e-10) * 60, 6)
  })
  test('an adapter never runs down', () => expect(rest.runtime).toBeUndefined())
})

// Usual values of the files: 62 + 71 + 25 mA of devices, 3.92 mA of the chip, 4.48 mA of the safe light, 3.72 mA of
// pull-ups, 1.72 mA of the power lamp, 0.2 mA; into the
// relay’s input 5 V / 10 kΩ and 0.4 mA, a gate 5 V / 100 kΩ, 0.95 mA: 172.95 mA at work. The diode drops 0.32 V at 100 mA and 0.45 V at 1 A.
test('usual heat is at full work, least heat at rest, and both inputs are as they are then', () => {
  const heat = rest.regulation!.dissipation
  expect(heat.value.typ).toBeCloseTo((12 - 0.3306 - 5) * 0.17295 + 11.669 * 1.2e-3, 3)
  expect(heat.value.min).toBeLessThan(0.05)
  expect(rest.input!.value.typ).toBeCloseTo(12 - 0.3306, 3)
  expect(rest.input!.value.min).toBeGreaterThan(11.4 - 0.6)
})

// The diode carries what the regulator turns into heat: the least that falls there, 0.27 V at 100 mA and 0.38 V at 1 A, is read at that current.
test('the greatest heat is at the greatest current, and so is what falls in the diode then', () => {
  const I_out = rest.work.value.max
  const V_in = 12.8 - (0.27 + (0.11 * (I_out + 2.5e-3 - 0.1)) / 0.9)
  expect(rest.regulation!.dissipation.value.max).toBeCloseTo((V_in - 4.9) * I_out + V_in * 2.5e-3, 9)
})

// Cells that nothing empties have no runtime, which is not the same as a source that never runs down.
test.each([
  ['cells-3-aa', 'nothing draws current yet'],
  ['adapter-9v', 'no end: not on cells'],
  [undefined, 'no source yet'],
])('an empty project on %s: %s', (source, instead) => {
  const { gauges } = analyse({ ...emptyDesign('Empty'), stance: 'bare-bones', power: { source } }, library)
  expect(gauges.find((g) => g.id === 'runtime')).toMatchObject({ worked: undefined, instead })
})

describe('findings begin at the limit and not before', () => {
  const ids = (...e: Edit[]) => analyse(applyEdits(timer, e), library).findings.map((f) => f.check)
  const most = rest.fromSource.value.max
  test.each<[string, Edit, boolean]>([
    ['power.budget-exceeded', { kind: 'setLimit', limit: 'current', value: most * 1.0001 }, false],
    ['power.budget-exceeded', { kind: 'setLimit', limit: 'current', value: most * 0.9999 }, true],
    // 125 °C limit, 107 °C at 30 °C: silent up to 48 °C ambient
    [
      'power.regulator-too-hot',
      { kind: 'setLimit', limit: 'ambient', value: 30 + (125 - rest.hottest!.value.max) - 0.01 },
      false,
    ],
    [
      'power.regulator-too-hot',
      { kind: 'setLimit', limit: 'ambient', value: 30 + (125 - rest.hottest!.value.max) + 0.01 },
      true,
    ],
    ['needs.price-over-limit', { kind: 'setLimit', limit: 'price', value: 26.77 }, false],
    ['needs.price-over-limit', { kind: 'setLimit', limit: 'price', value: 26.76 }, true],
    ['pins.led-over-limit', { kind: 'setSetting', id: 'd7', setting: 'light.current', value: 0.015 }, false],
    ['pins.led-over-limit', { kind: 'setSetting', id: 'd7', setting: 'light.current', value: 0.022 }, true],
    [
      'clock.too-fast',
      { kind: 'chooseClock', name: '', clock: { source: 'crystal', frequency: 16e6, part: 'crystal-16mhz' } },
      false,
    ],
  ])('%s with %j: %s', (check, edit, fires) => expect(ids(edit).includes(check)).toBe(fires))
})

describe('every way that current takes, by hand', () => {
  const of = (p: Project, ...edits: Edit[]) => analyse(applyEdits(project(p), edits), library).power
  const td8 = { chip: 'td8-28-dip', source: 'adapter-12v', regulator: 'bl5-cool' }
  const work = (p: ReturnType<typeof of>, id: string) => p.consumers.find((c) => c.id === id)!.work.value
  test('into an input: its pull-down at the greatest rail, and its leakage', () => {
    const power = of({ ...td8, devices: [['relay-module', 'Lamp']] })
    expect(work(power, 'inputs').max).toBeCloseTo(5.1 / 8200 + 0.4e-3, 9)
    expect(power.consumers.find((c) => c.id === 'inputs')!.rest.value.max).toBe(0)
  })
  test('a pull-up inside an input draws from what feeds its device, while the line is low: 5.25 V / 8.2 kΩ', () => {
    const relay = structuredClone(library.parts['relay-module']!) as Device
    const { electrical } = relay.wirings[0]!.signals[0]!
    Object.assign(electrical, { pull: 'up', pullResistance: { min: 8200, typ: 10e3, kind: 'typical' } })
    const { consumers: c } = analyse(
      project({
        chip: 'mw2-module',
        source: 'usb-port',
        regulator: 'bl33-low',
        devices: [['relay-module', 'Lamp', undefined, { fedBy: 'source' }]],
      }),
      { parts: { ...library.parts, 'relay-module': relay } },
    ).power
    expect(c.find((x) => x.id === 'pull-ups.source')!.work.value.max).toBeCloseTo(5.25 / 8200, 9)
    expect(c.map((x) => x.id)).not.toContain('pull-ups')
  })
  test('ways of several resistors are numbered way by way, resistor by resistor', () => {
    const { consumers: c } = of(
      {
        chip: 'mw2-module',
        source: 'usb-port',
        regulator: 'bl33-low',
        devices: [
          ['track-sensor', 'Near', 'plain', { fedBy: 'source' }],
          ['track-sensor', 'Far', 'plain', { fedBy: 'source' }],
        ],
      },
      { kind: 'fitShift', signal: 'd1.1.OUT', name: '', shift: 'divider' },
      { kind: 'fitShift', signal: 'd2.1.OUT', name: '', shift: 'divider' },
    )
    const { inputs } = c.find((x) => x.id === 'inputs.source')!.work
    expect(inputs.flatMap(({ symbol }) => (symbol.startsWith('R') ? [symbol] : []))).toEqual([
      'R_1,1',
      'R_1,2',
      'R_2,1',
      'R_2,2',
    ])
  })
  test('pull-ups on a board take current like ours: two lines of 4.7 kΩ', () => {
    expect(work(of({ ...td8, devices: [['glow-display', 'Face', 'i2c']] }), 'pull-ups').max).toBeCloseTo(
      (2 * 5.1) / 4700,
      9,
    )
  })
  test('they are fed from where their device is: 5 V in front of a regulator of 3.3 V', () => {
    const power = of({
      chip: 'mw2-module',
      source: 'usb-port',
      regulator: 'bl33-low',
      devices: [['glow-display', 'Face', 'i2c', { fedBy: 'source' }]],
    })
    expect(work(power, 'pull-ups.source').max).toBeCloseTo((2 * 5.25) / 4700, 9)
  })
  test('a sensor’s divider counts once: by its sheet, 0.5 mA, or else 5.1 V / (9.5 kΩ + 2 kΩ) at all times', () => {
    const p = project({ ...td8, devices: [['light-resistor', 'Light']] })
    const stated = analyse(p, library).power
    expect(stated.consumers.map((c) => c.id)).not.toContain('inputs')
    expect(work(stated, 'd1').max).toBeCloseTo(0.5e-3, 9)
    const silent = { ...library.parts['light-resistor'], modes: [] } as never
    const power = analyse(p, { parts: { ...library.parts, 'light-resistor': silent } }).power
    expect(work(power, 'inputs').max).toBeCloseTo(5.1 / (9.5e3 + 2e3), 9)
    expect(power.consumers.find((c) => c.id === 'inputs')!.rest.value.max).toBeCloseTo(5.1 / 11.5e3, 9)
  })
  test('a divider of what is measured draws at all times, whatever the program does', () => {
    const qm32 = { chip: 'mw2-module', source: 'usb-port', regulator: 'bl33-low' }
    const throughDivider = (part: string, signal: string) =>
      of(
        { ...qm32, devices: [[part, 'Air', undefined, { fedBy: 'source' }]] },
        { kind: 'fitShift', signal, name: '', shift: 'divider' },
      ).consumers.find((c) => c.id === 'inputs.source')!
    // 5 V, 5.25 V at most, over 56 kΩ and 47 kΩ, 5 % less at least
    const measured = throughDivider('gas-sensor-5v', 'd1.1.LVL')
    for (const which of ['rest', 'work', 'average'] as const) {
      expect(measured[which].value.typ).toBeCloseTo(5 / 103e3, 9)
      expect(measured[which].value.max).toBeCloseTo(5.25 / 103e3 / 0.95, 9)
    }
    // One of a line that is driven draws only while that is high.
    const driven = throughDivider('track-sensor', 'd1.1.OUT')
    expect(driven.rest.value.max).toBe(0)
    expect(driven.work.value.max).toBeGreaterThan(0)
  })
  test('a MOSFET between two voltages: each side’s pull-up from its own supply, while the line is low', () => {
    const shifted = (signal: string, ...device: Project['devices'][number]) =>
      analyse(
        applyEdits(
          project({
            chip: 'mw2-module',
            source: 'usb-port',
            regulator: 'bl33-low',
            devices: [device],
          }),
          [{ kind: 'fitShift', signal, name: '', shift: 'mosfet' }],
        ),
        library,
      )
    const a = shifted('d1.1.OUT', 'track-sensor', 'Gate', 'plain', { fedBy: 'source' })
    const ohms = (role: 'shift near' | 'shift far') =>
      a.build.support.find((s) => s.role === role)!.value!.value
    const draws = (id: string) => a.power.consumers.find((c) => c.id === id)!
    // 3.366 V and 5.25 V at most, over a resistor that is 5 % small.
    expect(draws('pull-ups').work.value.max).toBeCloseTo(3.366 / (0.95 * ohms('shift near')), 9)
    expect(draws('pull-ups.source').work.value.max).toBeCloseTo(5.25 / (0.95 * ohms('shift far')), 9)
    expect([draws('pull-ups').from, draws('pull-ups.source').from]).toEqual(['rail', 'source'])
    expect(draws('pull-ups.source').rest.value.max).toBe(0)
    // On a bus the chip's side has the bus's own; the far side's adds to the two of 4.7 kΩ on the display.
    const bus = shifted('i2c.SDA', 'glow-display', 'Face', 'i2c', { fedBy: 'source' })
    const far = bus.build.support.find((s) => s.role === 'shift far')!.value!.value
    expect(work(bus.power, 'pull-ups.source').max).toBeCloseTo(5.25 / (0.95 * far) + (2 * 5.25) / 4700, 9)
  })
  test('a contact is not closed at all times: its average is usually a hundredth, and all of it at the most', () => {
    const { average, work: closed } = of({ ...td8, devices: [['push-button', 'Go']] }).consumers.find(
      (c) => c.id === 'pull-ups',
    )!
    expect(average.value.typ).toBeCloseTo(closed.value.typ / 100, 12)
    expect(average.value.max).toBeCloseTo(closed.value.max, 12)
  })
  test('what hangs in front of the regulator sits behind the diode: 11.4 V − 0.55 V at 1 A to 12.8 V, since nothing falls where nothing flows', () => {
    const { source } = of({ ...td8, devices: [] }).supplies.open
    expect(source!.value.max).toBe(12.8)
    expect(source!.value.min).toBeCloseTo(11.4 - 0.55, 9)
    const bare = of({ ...td8, devices: [] }, { kind: 'leaveOut', support: 'polarity-diode', name: '' })
      .supplies.open
    expect(bare.source!.value).toEqual({ min: 11.4, typ: 12, max: 12.8 })
  })
  test('cells sag by what is inside them: 2.7 V less 0.9 Ω times the current', () => {
    const power = of({ chip: 'td8-28-dip', source: 'cells-3-aa', devices: [['lamp-red', 'Lamp']] })
    expect(power.input!.value.min).toBeCloseTo(2.7 - 0.9 * power.through.value.max, 9)
    expect(power.through.value.max).toBeGreaterThan(5e-3)
  })
  test('cells last until the chip stops at 2.0 V under load: (3.2 − 2.0 − 0.6 Ω · I) / (3.2 − 1.8) of the charge', () => {
    const { runtime, average, through } = of({ chip: 'qm32-48', source: 'cells-2-aa', devices: [] })
    const share = (1.2 - 0.6 * through.value.max) / 1.4
    expect(runtime!.value.min).toBeCloseTo((1.8 * share * 3600) / average.value.max, 3)
    // a chip that runs to 1.8 V empties them but for what is lost inside them
    const whole = of({ chip: 'td8-28-dip', source: 'cells-2-aa', devices: [] })
    const left = 1 - (0.6 * whole.through.value.max) / 1.4
    expect(left).toBeLessThan(1)
    expect(whole.runtime!.value.min).toBeCloseTo((1.8 * left * 3600) / whole.average.value.max, 3)
  })
  test('a clock that needs more than the chip itself stops first: 8 MHz at 2.6 V', () => {
    const { runtime, average, through } = of(
      { chip: 'td8-28-dip', source: 'cells-2-aa', devices: [] },
      { kind: 'chooseClock', name: '', clock: { source: 'internal', frequency: 8e6 } },
    )
    const share = (3.2 - 2.6 - 0.6 * through.value.max) / 1.4
    expect(runtime!.value.min).toBeCloseTo((1.8 * share * 3600) / average.value.max, 3)
  })
  describe('a rail straight from cells', () => {
    const told = (count: number, change: object = {}, more: Partial<Project> = {}) => {
      const cells = { ...library.parts['cells-2-aa'], ...change } as never
      const design = project({
        chip: 'td8-28-dip',
        source: 'cells-2-aa',
        devices: count > 0 ? [['lamp-red', 'Lamp', undefined, { count }]] : [],
        ...more,
      })
      return analyse(design, { parts: { ...library.parts, 'cells-2-aa': cells } }).findings.find(
        (f) => f.check === 'power.sags',
      )
    }
    test('sags by 0.6 Ω · I; below the chip’s 1.8 V it is told, with the part that empty cells play', () => {
      const { input, through } = of({
        chip: 'td8-28-dip',
        source: 'cells-2-aa',
        devices: [['lamp-red', 'Lamp', undefined, { count: 4 }]],
      })
      expect(input!.value.min).toBeCloseTo(1.8 - 0.6 * through.value.max, 9)
      const found = told(4)!
      expect(found.severity).toBe('notes')
      expect(found.text).toMatch(/the rail sags to 1\.77\d V, below the 1\.8 V that TD8-28 DIP needs/)
      expect(found.because.map((f) => f.text)).toEqual([
        expect.stringMatching(/^All together draw up to 3\d\.?\d* mA$/),
        expect.stringMatching(/^Inside two AA cells are up to 600 mΩ, so that 1\.8 V become 1\.77\d V$/),
        'TD8-28 DIP needs 1.8 V',
      ])
      // 0.6 Ω · 1.6 mA is 1 mV; cells of 1.85 V are not that low at 0.6 Ω · 40 mA
      expect(told(0)).toBeUndefined()
      expect(told(4, { voltage: { min: 1.85, typ: 2.6, max: 3.2 } })).toBeUndefined()
      // Cells of 1.79 V are too low for it without any load: that is not the load’s doing, and told elsewhere.
      expect(told(4, { voltage: { min: 1.79, typ: 2.6, max: 3.2 } })).toBeUndefined()
      // Nothing is known inside: nothing is lost there, and nothing is told of it.
      expect(told(40, { resistance: undefined })).toBeUndefined()
    })
    test('with more inside than usual cells it is no longer a matter of the last hours', () =>
      // 2.6 V − 60 Ω · 20 mA or so
      expect(told(4, { resistance: { typ: 60, max: 60 } })!.severity).toBe('risks'))
    test('a board without a regulator is fed straight too', () => {
      const board = { ...library.parts['stick-mw2'], regulator: undefined } as never
      const design = project({ chip: 'stick-mw2', source: 'cells-3-aa', devices: [] })
      const { rail, railLoaded, through } = analyse(design, {
        parts: { ...library.parts, 'stick-mw2': board },
      }).power
      expect(rail!.value.min).toBe(2.7)
      expect(railLoaded!.value.min).toBeCloseTo(2.7 - 0.9 * through.value.max, 9)
    })
    test('behind a regulator it is for the regulator to say', () =>
      expect(told(4, {}, { regulator: 'bl33-low' })).toBeUndefined())
    test('what a device needs counts as well: 2.21 V less 0.6 Ω · 20 mA or more is below 2.2 V', () => {
      const voltage = { min: 2.21, typ: 2.6, max: 3.2 }
      const devices: Project['devices'] = [
        ['lamp-red', 'Lamp', undefined, { count: 4 }],
        ['humidity-two-wire', 'Air'],
      ]
      expect(told(0, { voltage }, { devices })!.text).toMatch(/below the 2\.2 V that Air needs/)
      // Far down, below the chip's 1.8 V too, it is still the one that needs most.
      const far = told(
        0,
        { resistance: { typ: 60, max: 60 }, voltage: { min: 2.5, typ: 2.8, max: 3.2 } },
        { devices },
      )!
      expect(far.text).toMatch(/below the 2\.2 V that Air needs/)
    })
  })
  test('a chip that sleeps draws its least for the rest of the time: 1 % of 0.4 mA + 0.44 mA, 99 % of its deepest sleep', () => {
    const td8 = { chip: 'td8-28-dip', source: 'cells-2-aa', devices: [] }
    const sleep = findPart(library, 'chip', 'td8-28-dip')!
      .modes.filter((m) => m.kind === 'sleep')
      .at(-1)!
    const rarely = of(td8, { kind: 'setLimit', limit: 'awake', value: 0.01 })
    const usual = (p: typeof rarely) => p.consumers.find((c) => c.id === 'chip')!
    const awake = 0.4e-3 + 1e6 * 4.4e-10
    expect(usual(rarely).work.value.typ).toBeCloseTo(awake, 12)
    expect(usual(rarely).average.value.typ).toBeCloseTo(0.01 * awake + 0.99 * sleep.current.typ!, 12)
    const [always, never] = [of(td8), of(td8, { kind: 'setLimit', limit: 'awake', value: 0 })]
    expect(usual(always).average).toEqual(usual(always).work)
    expect(usual(never).average.value.max).toBeCloseTo(sleep.current.max!, 12)
    expect(rarely.runtime!.value.typ).toBeGreaterThan(30 * always.runtime!.value.typ)
    // Who counts as always at work is said; the chip no longer where the builder has said how much.
    const note = (p: typeof rarely) =>
      / At work all the time, since nothing says otherwise: (.*)\.$/.exec(p.runtime!.note!)?.[1]
    expect([note(always), note(rarely)]).toEqual([
      'TD8-28 DIP (“Time the chip is awake” on the Needs page)',
      undefined,
    ])
    const lamp = of(
      {
        ...td8,
        devices: [
          ['lamp-red', 'Lamp'],
          ['buzzer-magnetic', 'Horn'],
        ],
      },
      { kind: 'setLimit', limit: 'awake', value: 0.01 },
    )
    // The buzzer's sheet gives its share of the time, the lamp has none.
    expect(note(lamp)).toBe('Lamp')
    // A board's blocks work and sleep with the chip: named once, as the chip.
    expect(note(of({ chip: 'stick-mw2', source: 'cells-3-aa', devices: [] }))).toBe(
      'Chip on the board (“Time the chip is awake” on the Needs page)',
    )
  })
  test('of two sleeps the deeper counts: the sheets list the deepest last', () => {
    const chip = library.parts['td8-28-dip'] as Chip
    const [nap, deep] = [
      { id: 'nap', name: 'nap', kind: 'sleep' as const, current: { typ: 9e-6, max: 2e-5 } },
      { id: 'deep', name: 'deep', kind: 'sleep' as const, current: { typ: 1e-7, max: 3e-7 } },
    ]
    const two = { ...chip, modes: [...chip.modes.filter((m) => m.kind !== 'sleep'), nap, deep] } as Chip
    const design = applyEdits(project({ chip: chip.id, source: 'cells-2-aa', devices: [] }), [
      { kind: 'setLimit', limit: 'awake', value: 0 },
    ])
    const { consumers } = analyse(design, { parts: { ...library.parts, [chip.id]: two } }).power
    expect(consumers.find((c) => c.id === 'chip')!.average.value.max).toBeCloseTo(3e-7, 15)
  })
  test('a board’s blocks sleep with its chip', () => {
    const on = { chip: 'stick-mw2', source: 'usb-port', devices: [] }
    const blocks = (p: ReturnType<typeof of>) => p.consumers.find((c) => c.id === 'board')!
    const half = blocks(of(on, { kind: 'setLimit', limit: 'awake', value: 0.5 }))
    expect(half.average.value.typ).toBeCloseTo((half.work.value.typ + half.rest.value.typ) / 2, 12)
    expect(blocks(of(on)).average.value).toEqual(half.work.value)
  })
  test('or until the regulator has no room: fewer hours than to the last volt', () => {
    const { runtime, average, regulation } = of({
      chip: 'qm32-48',
      source: 'cells-3-aa',
      regulator: 'bl33-low',
      devices: [],
    })
    const most = regulation!.least.value.max
    const share = (4.8 - most) / (4.8 - 2.7)
    const charge = findPart(library, 'source', 'cells-3-aa')!.capacity!
    // the least: what falls in the cells themselves at their greatest current is left out of this bound
    expect(runtime!.value.min).toBeLessThanOrEqual(
      ((charge.min! * share) / average.value.max) * 3600 * 1.0001,
    )
    expect(runtime!.value.min).toBeGreaterThan(((charge.min! * share) / average.value.max) * 3600 * 0.9)
  })
})

// Usually within it, if only just, is a matter of the worst case; usually beyond it is one of every day.
describe('usually just at a limit, and a little beyond', () => {
  const design = project({
    chip: 'td8-28-dip',
    source: 'adapter-12v',
    regulator: 'bl5-cool',
    feed: 'adapter-5v',
    devices: [
      ['relay-module', 'Lamp'],
      ['pixel-strip-8', 'Strip', undefined, { fedBy: 'feed' }],
    ],
  })
  const { power: p } = analyse(design, library)
  test.each<[string, string, string, number, [string, string][]]>([
    // check, part, limit, usual value, [severity, grade] at and beyond
    [
      'power.source-too-weak',
      'adapter-12v',
      'current',
      p.fromSource.value.typ,
      [
        ['risks', 'outside the sheet'],
        ['stops', 'outside the sheet'],
      ],
    ],
    [
      'power.feed-too-weak',
      'adapter-5v',
      'current',
      p.feed!.current.value.typ,
      [
        ['risks', 'outside the sheet'],
        ['stops', 'outside the sheet'],
      ],
    ],
    [
      'power.regulator-overloaded',
      'bl5-cool',
      'current',
      p.work.value.typ,
      [
        ['risks', 'outside the sheet'],
        ['stops', 'outside the sheet'],
      ],
    ],
    [
      'power.regulator-too-hot',
      'bl5-cool',
      'junctionMax',
      p.regulation!.junction.value.typ,
      [
        ['stops', 'outside the sheet'],
        ['stops', 'impossible'],
      ],
    ],
  ])('%s', (check, part, limit, usual, expected) => {
    const at = (max: number) => {
      const changed = { ...library.parts[part]!, [limit]: { max, kind: 'recommended' } } as never
      const { findings } = analyse(design, { parts: { ...library.parts, [part]: changed } })
      const found = findings.find((f) => f.check === check)!
      expect(found.because.some((fact) => fact.worked)).toBe(true)
      // Who draws the most from it is named: the relay’s coil, not the chip, nor the strip that has a feed of its own.
      if (check === 'power.source-too-weak') expect(found.because[0]!.text).toMatch(/^Lamp alone draws/)
      // The limit is told with the place it stands at.
      if (check === 'power.feed-too-weak')
        expect(found.because[1]!.text).toMatch(/^5 V adapter, 2 A label, rating: \d/)
      return [found.severity, found.grade]
    }
    expect([at(usual), at(usual * 0.999)]).toEqual(expected)
  })
})

describe('the polarity diode', () => {
  const design = project({
    chip: 'td8-28-dip',
    source: 'adapter-12v',
    regulator: 'bl5-cool',
    devices: [['relay-module', 'Lamp']],
  })
  const most = analyse(design, library).power.through.value.max
  const withDiode = (change: object): Library => ({
    parts: {
      ...Object.fromEntries(
        Object.entries(library.parts).filter(([id]) => !['diode-polarity-strong', 'diode-key'].includes(id)),
      ),
      'diode-polarity': { ...library.parts['diode-polarity'], ...change } as never,
    },
  })
  const told = (change: object) =>
    analyse(design, withDiode(change)).findings.filter((f) => f.check === 'power.diode-rating')
  test('more than it is made for is told, and taken back by a fix', () => {
    expect(told({ current: { max: most * 1.001 } })).toEqual([])
    expect(told({ current: { max: most } })).toEqual([])
    const [found] = told({ current: { max: most * 0.999 } })
    expect([found!.severity, found!.grade]).toEqual(['risks', 'outside the sheet'])
    // The current that flows, worked out, and the sheet’s.
    expect(found!.because.map((f) => [f.worked?.value.max, f.origin?.kind])).toEqual([
      [most, undefined],
      [undefined, 'part'],
    ])
    const after = analyse(
      applyEdits(design, found!.fixes[0]!.edits),
      withDiode({ current: { max: most * 0.999 } }),
    )
    expect(after.findings.map((f) => f.check)).not.toContain('power.diode-rating')
  })
  test('why it is that one: the strongest there is, or enough for what the source gives', () => {
    const [weak] = told({ current: { max: most * 0.999 } })
    expect(weak!.text).toMatch(/; no other of the library carries more\.$/)
    // The adapter gives 1 A, so the diode of 1 A was taken; a pump and a mat draw 2.65 A through it, and one of 5 A lies in the library.
    const heavy = project({
      chip: 'td8-28-dip',
      source: 'adapter-12v',
      regulator: 'bl5-cool',
      devices: [
        ['pump-12v', 'Pump', undefined, { fedBy: 'source' }],
        ['heat-mat-12v', 'Mat', undefined, { fedBy: 'source' }],
      ],
    })
    const [found] = analyse(heavy, library).findings.filter((f) => f.check === 'power.diode-rating')
    expect(found!.text).toMatch(/made for 1 A; it was chosen for the 1 A that 12 V adapter gives\.$/)
  })
  test('its heat: V_F · I at the most, by the way of its package, up to 125 °C', () => {
    const { input, through } = analyse(design, library).power
    const drop = input!.inputs.find((i) => i.symbol === 'V_F')!.value.max
    const limit = (125 - design.needs.limits.ambient) / (drop * through.value.max)
    const hot = (kelvin: number) => {
      const package_ = {
        ...findPart(library, 'diode', 'diode-polarity')!.package,
        thermalResistance: { typ: kelvin },
      }
      return told({ package: package_ }).map((f) => f.severity)
    }
    expect([hot(limit * 0.99), hot(limit * 1.01)]).toEqual([[], ['risks']])
  })
  test('what a sheet says nothing of is told where it can be felt: 0.25 W', () => {
    const package_ = {
      ...findPart(library, 'diode', 'diode-polarity')!.package,
      thermalResistance: undefined,
    }
    const dropping = (volts: number) => {
      const forward = [{ current: 0.1, voltage: { typ: volts, kind: 'typical' } }]
      return told({ package: package_, forward }).map((f) => f.severity)
    }
    // the drop lowers what the regulator gets, and not what flows
    expect([dropping(0.249 / most), dropping(0.251 / most)]).toEqual([[], ['notes']])
  })
  test('one that carries all the source gives is taken before a cheaper one that does not', () => {
    const weak = { ...library.parts['diode-polarity'], id: 'weak', price: 0.01, current: { max: 0.2 } }
    const { polarity } = analyse(design, { parts: { ...library.parts, weak: weak as never } }).power
    expect(polarity!.diode.id).toBe('diode-polarity')
  })
})

describe('what the source and the capacitor are asked', () => {
  /** Nothing but a device that takes so much from a source, A. */
  const taking = (amperes: number, source: string) => {
    const eater = {
      ...library.parts['relay-module']!,
      id: 'eater',
      modes: [{ id: 'on', name: 'on', current: { typ: amperes, kind: 'guaranteed' } }],
      wirings: [{ id: 'none', name: 'none', signals: [] }],
    } as never as Device
    const open = { ...project({ chip: '', source, devices: [['eater', 'Eater']] }), chip: {} }
    const design = applyEdits(open, [{ kind: 'leaveOut', support: 'power-lamp', name: 'lamp' }])
    const unasked = (of: Design, more: Library['parts'] = {}) =>
      analyse(of, { parts: { ...library.parts, eater, ...more } }).findings.find(
        (f) => f.check === 'power.usb-unasked',
      )
    return { design, unasked }
  }
  // 100 mA of a port (USB 2.0, 7.2.1), 150 mA of a newer one (USB 3.2, 11.4.1), all of its 2 A of a charger.
  test.each<[number, string, boolean]>([
    [0.0999, 'usb-port', false],
    [0.1001, 'usb-port', true],
    [0.1499, 'usb3-port', false],
    [0.1501, 'usb3-port', true],
    [1.9, 'usb-charger', false],
  ])('%d A that nobody asks for, from %s: %s', (amperes, source, told) => {
    const { design, unasked } = taking(amperes, source)
    const found = unasked(design)
    expect([found?.id, found?.severity]).toEqual(
      told ? ['power.usb-unasked', 'notes'] : [undefined, undefined],
    )
    if (!found) return
    expect(found.text).toMatch(source === 'usb-port' ? /USB port gives 100\smA/ : /USB 3 port gives 150\smA/)
    const charger = found.fixes.find((f) => f.label === 'Feed it from USB charger, 2 A')!
    expect(unasked(applyEdits(design, charger.edits))).toBeUndefined()
    // As the second feed too.
    const devices = design.needs.devices.map((d) => ({ ...d, fedBy: 'feed' as const }))
    const apart = { ...design, needs: { ...design.needs, devices } }
    const feed = unasked({ ...apart, power: { source: 'adapter-5v', feed: source } })!
    expect([feed.id, feed.fixes.at(-1)!.edits[0]!.kind]).toEqual(['power.usb-unasked:feed', 'chooseFeed'])
  })
  test.each([
    [0.0999, undefined],
    [0.1001, /; a computer’s USB port gives 100\smA until/],
  ])('%d A from a port whose file says nothing of it: what any port gives', (amperes, words) => {
    const { design, unasked } = taking(amperes, 'usb-port')
    const silent = { ...library.parts['usb-port'], unasked: undefined } as never
    const text = unasked(design, { 'usb-port': silent })?.text
    expect(text).toEqual(words && expect.stringMatching(words))
  })
  test.each([
    // the regulator’s sheet asks for 50 mΩ to 5 Ω
    [{ min: 0.05, max: 5 }, undefined],
    [{ min: 0.049, max: 5 }, 'risks'],
    [{ min: 0.05, max: 5.1 }, 'risks'],
    [undefined, 'notes'],
  ])('an output capacitor with %j inside', (esr, severity) => {
    const parts = { ...library.parts }
    for (const id of ['capacitor-electrolytic', 'capacitor-ceramic'])
      parts[id] = { ...parts[id], esr } as never
    const design = project({ chip: 'qm32-48', regulator: 'bl33-low', devices: [] })
    const found = analyse(design, { parts }).findings.find((f) => f.check === 'build.capacitor-esr')
    expect(found?.severity).toBe(severity)
  })
})

test('who draws: the chip, what has a supply, lamps, a meter’s coil, pull-ups, inputs, the power lamp, each once', () => {
  // d2 to d4 are contacts, d8 a divider whose sheet gives its currents
  expect(consumers.map((c) => c.id)).toEqual([
    'chip',
    'd1',
    'd5',
    'd6',
    'd7.light',
    'd8',
    'pull-ups',
    'inputs',
    'power-lamp',
  ])
  const meter = analyse(
    project({
      chip: 'qm32-48',
      source: 'adapter-5v',
      regulator: 'bl33-low',
      devices: [['pointer-meter', 'Needle', undefined, { count: 2 }]],
    }),
    library,
  ).power.consumers.find((c) => c.id === 'd1.load')!
  // two coils of 28 kΩ to 32 kΩ at 3.234 V to 3.366 V, each by itself
  expect(meter.work.value.max).toBeCloseTo((2 * 3.366) / 28e3, 12)
  expect(meter.work.value.typ).toBeCloseTo((2 * 3.3) / 30e3, 12)
})

// Nothing of the charge is lost at the end: 1.8 Ah at the least over the greatest current.
test('cells that hold their voltage to the end', () => {
  const cells = findPart(library, 'source', 'cells-2-aa')!
  const flat = { ...cells, resistance: undefined, voltage: { min: 3, typ: 3, max: 3, kind: 'guaranteed' } }
  const design = project({ chip: 'td8-28-dip', source: 'cells-2-aa', devices: [] })
  const { power: p } = analyse(
    { ...design, power: { source: 'cells-2-aa' } },
    { parts: { ...library.parts, 'cells-2-aa': flat as never } },
  )
  expect(p.runtime!.value.min).toBeCloseTo((1.8 * 3600) / p.average.value.max, 0)
})

// Neither can the charge be split where cells do not fall: what a regulator of 3.3 V lacks is told by itself.
test('cells that never fall, and never reach what the regulator needs', () => {
  const cells = findPart(library, 'source', 'cells-2-aa')!
  const flat = { ...cells, voltage: { min: 3, typ: 3, max: 3, kind: 'guaranteed' } }
  const { power: p, findings } = analyse(
    project({ chip: 'qm32-48', source: 'cells-2-aa', regulator: 'bl33-low', devices: [] }),
    { parts: { ...library.parts, 'cells-2-aa': flat as never } },
  )
  expect(findings.map((f) => f.check)).toContain('power.dropout')
  expect(p.runtime!.value.min).toBeCloseTo((1.8 * 3600) / p.average.value.max, 0)
})

test('cells without a chip run down all the same', () => {
  const { runtime, average } = analyse(
    {
      ...emptyDesign('Bare'),
      power: { source: 'cells-3-aa' },
      needs: {
        ...emptyDesign('x').needs,
        devices: [{ id: 'd1', part: 'motion-sensor', name: 'Eye', count: 1 }],
      },
    },
    library,
  ).power
  const cells = findPart(library, 'source', 'cells-3-aa')!
  expect(average.value.max).toBeGreaterThan(0)
  expect(runtime!.value.min).toBeCloseTo((cells.capacity!.min! * 3600) / average.value.max, 0)
})

describe('ways out, by hand', () => {
  const offers = (p: Partial<Project>, check: string, on: Library = library, ...edits: Edit[]) => {
    const design = applyEdits(project({ chip: 'td8-28-dip', source: 'usb-port', devices: [], ...p }), edits)
    const analysis = analyse(design, on)
    return proposalsFor(
      analysis,
      on,
      analysis.findings.find((f) => f.check === check)!,
    ).map((f) => f.label)
  }
  const withDevice = (id: string, more: Partial<Device>): Library => ({
    parts: { ...library.parts, [id]: { ...findPart(library, 'device', id)!, ...more } },
  })
  const strip = (min: number, max: number) =>
    withDevice('pixel-strip-8', { supply: { min, max, kind: 'recommended' } })
  const on33: Partial<Project> = {
    chip: 'qm32-48',
    regulator: 'bl33-low',
    devices: [['pixel-strip-8', 'Strip']],
  }
  // Valve 0.4 A and horn 0.2 A take the 11.4 V to 12.8 V of the adapter, 1 A, as they are. What stays on the rail is
  // the relay’s 80 mA and the chip, near 0.1 A: over BR5 small (173 K/W) 0.8 W, 138 K; over BR5 plain (54 K/W) 43 K for
  // € 0.65, over BL5 low drop (92 K/W) 73 K for € 0.78.
  test('where some want 12 V and the rest 5 V: all of them at once, and a regulator for what is left', () => {
    const mixed: Partial<Project> = {
      source: 'adapter-12v',
      regulator: 'br5-small',
      devices: [
        ['relay-module', 'Relay'],
        ['valve-12v', 'Valve'],
        ['horn-12v', 'Horn'],
      ],
    }
    const each = (from: string, through: string, who = 'Valve and Horn') =>
      `Feed ${who} straight from ${from}, the rest through ${through}`
    for (const check of ['power.device-supply', 'power.regulator-overloaded', 'power.regulator-too-hot'])
      expect(offers(mixed, check).filter((o) => o.includes('the rest'))).toEqual([
        each('12 V adapter', 'BR5 plain 5 V'),
        each('12 V adapter, 5 A', 'BR5 plain 5 V'),
      ])
    // It is a way out of all of it: tried, each of them clears what it is offered against.
    const before = analyse(project({ chip: 'td8-28-dip', ...mixed } as Project), library)
    const stopped = before.findings.find((f) => f.check === 'power.regulator-too-hot')!
    expect(offersFor(before, library, stopped).offers.map((o) => o.fix.label)).toContain(
      each('12 V adapter', 'BR5 plain 5 V'),
    )
    // A pump of 1.7 A more is too much for 1 A: only the stronger one.
    const more = { ...mixed, devices: [...mixed.devices!, ['pump-12v', 'Pump'] as [string, string]] }
    expect(offers(more, 'power.source-too-weak').filter((o) => o.includes('the rest'))[0]).toBe(
      each('12 V adapter, 5 A', 'BR5 plain 5 V', 'Valve, Horn and Pump'),
    )
    // A board has its regulator: its input takes the 12 V, and what wants them hangs beside it.
    const onBoard = { ...more, chip: 'stick-td8', regulator: undefined }
    expect(offers(onBoard, 'power.source-too-weak').filter((o) => o.includes('straight'))).toEqual([
      'Feed Valve, Horn and Pump straight from 12 V adapter, 5 A',
      'Feed Valve, Horn and Pump straight from lead battery, 12 V 7 Ah',
    ])
    // A rail of 3.3 V stays one, though BR5 plain is cheaper; BL33 tiny stands 7 V at its input, BL33 low drop 20 V.
    const on33V = { ...mixed, chip: 'qm32-48', regulator: 'bl33-tiny', devices: mixed.devices!.slice(1) }
    expect(offers(on33V, 'power.device-supply').filter((o) => o.includes('straight'))[0]).toBe(
      each('12 V adapter', 'BL33 low drop 3.3 V'),
    )
    // A chip of 3.6 V at most that hangs on 5 V now is not left there.
    const over = {
      ...on33V,
      source: 'usb-port',
      regulator: undefined,
      devices: [['valve-12v', 'Valve'] as [string, string]],
    }
    expect(offers(over, 'power.device-supply').filter((o) => o.includes('straight'))).toEqual([
      each('12 V adapter', 'BL33 low drop 3.3 V', 'Valve'),
      each('12 V adapter, 5 A', 'BL33 low drop 3.3 V', 'Valve'),
    ])
    // What has its feed already stays on it.
    const fed: Edit[] = [
      { kind: 'chooseFeed', part: 'adapter-12v', name: '' },
      { kind: 'setFedBy', id: 'd2', by: 'feed' },
    ]
    expect(
      offers(mixed, 'power.device-supply', library, ...fed).filter((o) => o.includes('the rest'))[0],
    ).toBe(each('12 V adapter', 'BR5 plain 5 V', 'Horn'))
    // Where none of them stays cool, none is named: 120 °C of air leave 5 K.
    const hot: Edit = { kind: 'setLimit', limit: 'ambient', value: 120 }
    expect(
      offers(mixed, 'power.regulator-too-hot', library, hot).filter((o) => o.includes('straight')),
    ).toEqual([])
    // Nothing wants another voltage: nothing of it.
    const plain = { ...mixed, devices: [['relay-module', 'Relay'] as [string, string]] }
    expect(offers(plain, 'power.regulator-too-hot').filter((o) => o.includes('the rest'))).toEqual([])
  })
  // USB gives 4.75 V to 5.25 V, the adapter 4.8 V to 5.2 V
  test('a device that the rail can’t feed: the source where it just suits, else a second feed that does', () => {
    expect(offers(on33, 'power.device-supply', strip(4.75, 5.25))).toContain('Feed Strip from the source')
    expect(offers(on33, 'power.device-supply', strip(4.76, 5.25))).toContain(
      'Feed Strip from a second feed, 5 V adapter, 2 A',
    )
    expect(offers(on33, 'power.device-supply', strip(4.75, 5.24))).not.toContain('Feed Strip from the source')
    expect(offers({ ...on33, feed: 'adapter-5v' }, 'power.device-supply', strip(4.8, 5.2))).toContain(
      'Feed Strip from the second feed',
    )
  })
  test('one whose sheet gives no currents is offered the cheapest feed; what it runs on now is named', () => {
    const silent = withDevice('pixel-strip-8', {
      supply: { min: 4.76, max: 5.25, kind: 'recommended' },
      modes: [],
    })
    expect(offers(on33, 'power.device-supply', silent)).toContain(
      'Feed Strip from a second feed, 5 V adapter, 2 A',
    )
    // qm32-48 behind 3.3 V ± 2 %; the adapter gives 8.5 V to 9.5 V or so
    const said = (fedBy?: 'source' | 'feed') =>
      analyse(
        project({
          chip: 'qm32-48',
          source: 'usb-port',
          regulator: 'bl33-low',
          feed: 'adapter-9v',
          devices: [['pixel-strip-8', 'Strip', undefined, fedBy && { fedBy }]],
        }),
        withDevice('pixel-strip-8', { supply: { min: 6, max: 7, kind: 'recommended' } }),
      ).findings.find((f) => f.check === 'power.device-supply')!.text
    expect(said()).toBe('Strip runs on 6 V to 7 V; its rail is 3.23 V to 3.37 V.')
    expect(said('source')).toBe('Strip runs on 6 V to 7 V; its source is 4.75 V to 5.25 V.')
    expect(said('feed')).toMatch(/^Strip runs on 6 V to 7 V; its feed is 8\.\d+ V to 9\.\d+ V\.$/)
  })
  test('a second feed for a device gives what that device takes, not the chip beside it', () => {
    const hungry = (max: number) =>
      withDevice('pixel-strip-8', {
        supply: { min: 4.76, max: 5.25, kind: 'recommended' },
        modes: [{ id: 'on', name: 'on', current: { max, kind: 'recommended' } }],
      })
    const label = (amperes: number) => `Feed Strip from a second feed, 5 V adapter, ${amperes} A`
    expect(offers(on33, 'power.device-supply', hungry(2))).toContain(label(2))
    // A panel of the same voltage, cheaper and stronger, is none: it is nothing in the dark.
    const bright = {
      parts: { ...hungry(2).parts, ...sunny.parts, 'pixel-strip-8': hungry(2).parts['pixel-strip-8']! },
    }
    expect(offers(on33, 'power.device-supply', bright)).toContain(label(2))
    expect(offers(on33, 'power.device-supply', hungry(2.001))).toContain(label(4))
  })
  // The adapter of 7.5 V gives 7.1 V to 8 V.
  test('for a board only what its input takes, from end to end', () => {
    const board = findPart(library, 'board', 'trestle-32')!
    const weak = { ...findPart(library, 'source', 'adapter-9v')!, current: { max: 5e-3, kind: 'guaranteed' } }
    const with_ = (min: number, max: number): Library => ({
      parts: {
        ...library.parts,
        'adapter-9v': weak as never,
        [board.id]: { ...board, input: { min, max, kind: 'recommended' } },
      },
    })
    const offered = (min: number, max: number) =>
      offers({ chip: board.id, source: 'adapter-9v' }, 'power.source-too-weak', with_(min, max)).includes(
        'Feed it from 7.5 V adapter (7.5 V)',
      )
    expect([offered(7.1, 8), offered(7.11, 8), offered(7.1, 7.99)]).toEqual([true, false, false])
  })
  // 3 · 71 mA from 12 V heat its regulator beyond what it stands; the board’s 3.3 V are not to be fed from outside all the same.
  test('no source feeds a board’s rail past its regulator', () => {
    const weak = { ...findPart(library, 'source', 'adapter-9v')!, current: { max: 5e-3, kind: 'guaranteed' } }
    const labels = offers(
      {
        chip: 'trestle-32',
        source: 'adapter-9v',
        devices: [['relay-module', 'Relay', undefined, { count: 3 }]],
      },
      'power.source-too-weak',
      { parts: { ...library.parts, 'adapter-9v': weak as never } },
    )
    expect(labels.filter((l) => /12 V adapter|without a regulator/.test(l))).toEqual([])
  })
  test('without a regulator only where chip and devices stand all of the source’s range', () => {
    const chip = findPart(library, 'chip', 'td8-28-dip')!
    const upFrom = (min: number): Library => ({
      parts: {
        ...library.parts,
        [chip.id]: {
          ...chip,
          supply: { ...chip.supply, recommended: { min, max: 5.5, kind: 'recommended' } },
        },
      },
    })
    const hot: Partial<Project> = {
      source: 'adapter-12v',
      regulator: 'br5-plain',
      devices: [
        ['relay-module', 'Relay', undefined, { count: 2 }],
        ['digit-display-4', 'Face'],
      ],
    }
    // A port is no way out of what takes 200 mA and more: it gives 100 mA, one of USB 3 150, until it is asked.
    const label = 'Feed it from USB charger, 2 A (5 V), without a regulator'
    expect(offers(hot, 'power.regulator-too-hot', upFrom(4.75))).toContain(label)
    expect(offers(hot, 'power.regulator-too-hot', upFrom(4.76))).not.toContain(label)
    const on = upFrom(4.75)
    const analysis = analyse(project({ chip: chip.id, devices: [], ...hot }), on)
    const found = analysis.findings.find((f) => f.check === 'power.regulator-too-hot')!
    const { edits } = proposalsFor(analysis, on, found).find((f) => f.label === label)!
    const { power: fed } = applyEdits(project({ chip: chip.id, devices: [], ...hot }), edits)
    expect([fed.source, fed.regulator]).toEqual(['usb-charger', undefined])
  })
  test('three cells, 2.7 to 4.8 V: too little for a regulator of 5 V, and nothing that the chip could not live on as they are', () => {
    const cells: Partial<Project> = {
      source: 'cells-3-aa',
      regulator: 'br5-small',
      devices: [
        ['push-button', 'Go'],
        ['lamp-green', 'Lamp'],
      ],
    }
    const label = 'Feed the rail straight from three AA cells'
    for (const check of ['power.dropout', 'chip.supply-out-of-range'])
      expect(offers(cells, check)).toContain(label)
    // 12 V are more than the chip stands; where there is no regulator there is none to leave out.
    expect(
      offers(
        {
          ...cells,
          source: 'adapter-12v',
          regulator: 'br5-plain',
          devices: [['relay-module', 'Relay', undefined, { count: 4 }]],
        },
        'power.regulator-too-hot',
      ),
    ).not.toContain('Feed the rail straight from 12 V adapter')
    expect(
      offers(
        { ...cells, source: 'cells-2-aa', regulator: undefined, chip: 'mw2-48' },
        'chip.supply-out-of-range',
      ).filter((l) => /straight/.test(l)),
    ).toEqual([])
  })
  test('doing without the hungriest device, and never without the chip', () => {
    const weak: Library = {
      parts: {
        ...library.parts,
        'usb-port': {
          ...findPart(library, 'source', 'usb-port')!,
          current: { max: 5e-3, kind: 'guaranteed' },
        },
      },
    }
    const labels = offers(
      {
        devices: [
          ['lamp-red', 'Red'],
          ['motion-sensor', 'Eye'],
        ],
      },
      'power.source-too-weak',
      weak,
    )
    expect(labels.filter((l) => l.startsWith('Do without'))).toEqual(['Do without Eye'])
    // What is fed from elsewhere would change nothing.
    const elsewhere = offers(
      {
        feed: 'adapter-5v',
        devices: [
          ['lamp-red', 'Red'],
          ['motion-sensor', 'Eye'],
          ['pixel-strip-8', 'Strip', undefined, { fedBy: 'feed' }],
        ],
      },
      'power.source-too-weak',
      weak,
    )
    expect(elsewhere.filter((l) => l.startsWith('Do without'))).toEqual(['Do without Eye'])
  })
  test('a second feed that is too weak: the cheapest that is strong enough', () => {
    const heavy = findPart(library, 'source', 'adapter-5v-heavy')!
    const p: Partial<Project> = {
      feed: 'usb-port',
      devices: [['pixel-strip-8', 'Strip', undefined, { count: 4, fedBy: 'feed' }]],
    }
    expect(offers(p, 'power.feed-too-weak')).toEqual(['Second feed from USB charger, 2 A'])
    expect(
      offers(p, 'power.feed-too-weak', { parts: { ...library.parts, [heavy.id]: { ...heavy, price: 1 } } }),
    ).toEqual(['Second feed from 5 V adapter, 4 A'])
    // However strong in full sun and cheap: not one that is nothing in the dark.
    expect(offers(p, 'power.feed-too-weak', sunny)).toEqual(['Second feed from USB charger, 2 A'])
  })
})
