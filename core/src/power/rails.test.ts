// Rails beside the chip’s own, each behind its regulator: sums by hand from the part files’ usual values.

import { shippedLibrary } from '../../test/files'
import { project, type Project } from '../../test/project'
import { analyse, offersFor, proposalsFor, regulatorsOf } from '../analysis'
import { applyEdits, type Design, readDesign } from '../design'
import { FaultyFile } from '../parts'
import { chargeOf, streamsOf } from '.'

const library = shippedLibrary()
const look = (d: Design) => analyse(readDesign(JSON.parse(JSON.stringify(d)), 'here'), library)
/** 9 V; the chip at 3.3 V; a servo at 5 V, and a pressure sensor at 3.3 V behind that. */
const two: Project = {
  chip: 'qm32-32',
  source: 'adapter-9v',
  regulator: 'bl33-low',
  rails: [
    { id: 'rail2', regulator: 'bl5-low' },
    { id: 'rail3', regulator: 'bl33-tiny', from: 'rail2' },
  ],
  devices: [
    ['servo-small', 'Flap', undefined, { fedBy: 'rail2' }],
    ['pressure-two-wire', 'Depth', undefined, { fedBy: 'rail3' }],
  ],
}

describe('two further rails, one behind the other', () => {
  const a = look(project(two))
  const { power } = a
  const at = (rail: string) => power.loads.rails[rail]!

  // The sensor’s 0.7 mA, and what its board’s two pull-ups of 10 kΩ take while its lines are low.
  const I_3 = 0.7e-3 + (2 * 3.3) / 10e3
  // The servo’s 180 mA, and 1.6 µA of the regulator of the third rail for itself.
  const I_2 = 0.18 + I_3 + 1.6e-6
  test('what flows is added up from the last rail to the source, with what each regulator takes for itself', () => {
    expect(at('rail3').work.value.typ).toBeCloseTo(I_3, 9)
    expect(at('rail2').work.value.typ).toBeCloseTo(I_2, 9)
    expect(power.fromSource.value.typ).toBeCloseTo(power.work.value.typ + 5e-3 + I_2 + 5e-3, 9)
  })
  test('each is told with its volts, heat and room', () => {
    expect([at('rail2').voltage!.value.typ, at('rail3').voltage!.value.typ]).toEqual([5, 3.3])
    const [own, second, third] = power.regulations.map((r) => r.regulation)
    expect(own).toBe(power.regulation)
    const V_in = power.input!.value.typ
    expect(second!.dissipation.value.typ).toBeCloseTo((V_in - 5) * I_2 + V_in * 5e-3, 6)
    expect(third!.dissipation.value.typ).toBeCloseTo((5 - 3.3) * I_3 + 5 * 1.6e-6, 9)
    // The hottest of all: in air of 30 °C, 85 K/W.
    expect(power.hottest).toBe(second!.junction)
    expect(second!.junction.value.typ).toBeCloseTo(30 + 85 * ((V_in - 5) * I_2 + V_in * 5e-3), 4)
  })
  test('as streams: what each takes, gives and wastes', () => {
    const { further, lost, loads } = streamsOf({ design: a.design, power })
    expect(further.map((f) => [f.id, f.rail, f.from, f.name])).toEqual([
      ['rail2', 'second rail', 'source', 'BL5 low drop 5 V'],
      ['rail3', 'third rail', 'rail2', 'BL33 tiny 3.3 V'],
    ])
    const heats = power.regulations.reduce((sum, r) => sum + r.regulation.dissipation.value.typ, 0)
    expect(lost!.value.typ).toBeGreaterThan(heats)
    expect(further[1]!.left!.value.min).toBeCloseTo(0.25 - 1.1e-3 - (2 * 3.366) / 10e3, 9)
    expect(loads.find((l) => l.name === 'Depth')!.from).toBe('rail3')
  })
  test('what a day takes is divided among all of them, and nothing is left over', () => {
    const { parts, day } = chargeOf(power)!
    expect(parts.map((p) => p.name)).toEqual(
      expect.arrayContaining(['Flap', 'Depth', 'BL5 low drop 5 V itself', 'BL33 tiny 3.3 V itself']),
    )
    expect(parts.reduce((sum, p) => sum + p.day.value.typ, 0)).toBeCloseTo(day.value.typ, 6)
  })
  test('on the board: each regulator between its nets, with the capacitors of its sheet', () => {
    const nets = (key: string) => {
      const s = a.build.support.find((x) => x.key === key)!
      return [s.role, s.name, s.value?.marking, ...s.legs.map((l) => l.net)]
    }
    expect(nets('regulator-rail2')).toEqual([
      'regulator',
      'regulator of the second rail',
      undefined,
      'VIN',
      'GND',
      'VCC2',
    ])
    expect(nets('regulator-rail3').slice(3)).toEqual(['VCC2', 'GND', 'VCC3'])
    // 10 µF at each side of the one, 1 µF of the other: the next of the drawer.
    expect(nets('regulator-rail2-in').slice(2)).toEqual(['10u', 'VIN', 'GND'])
    expect(nets('regulator-rail2-out').slice(2)).toEqual(['10u', 'VCC2', 'GND'])
    expect(nets('regulator-rail3-in').slice(2)).toEqual(['1u', 'VCC2', 'GND'])
    expect(nets('regulator-rail3-out').slice(2)).toEqual(['1u', 'VCC3', 'GND'])
    const servo = a.build.placed.find((p) => p.name === 'Flap')!
    expect(servo.legs.find((l) => l.name.includes('VS'))!.net).toBe('VCC2')
  })
  test('in the steps: measured before anything hangs on them', () => {
    const steps = a.build.steps
    const step = steps.find((s) => s.title === 'The further rails')!
    expect(steps.indexOf(step)).toBeLessThan(steps.findIndex((s) => s.title === 'Flap'))
    expect(step.checks.map((c) => [c.where, c.powered, c.expect.min, c.expect.max])).toEqual([
      ['between VCC2 and GND, red lead on VCC2', false, 100, undefined],
      ['between VCC3 and GND, red lead on VCC3', false, 100, undefined],
      ['between VCC2 and VCC', false, 100, undefined],
      ['between VCC3 and VCC', false, 100, undefined],
      ['between VCC2 and GND', true, 4.9, 5.1],
      ['between VCC3 and GND', true, 3.234, 3.366],
    ])
    // 65 °C and more inside: it burns.
    expect(step.cautions).toContain('heat')
    // And once more when all is in.
    expect(steps.at(-1)!.checks.map((c) => c.where)).toEqual(
      expect.arrayContaining(['between VCC2 and GND, plugged in', 'between VCC3 and GND, plugged in']),
    )
  })
})

test('beside a board it hangs on the board’s own input, and is tried when the board is joined', () => {
  const { build, findings } = look(
    project({
      chip: 'stick-qm32-32',
      source: 'adapter-9v',
      rails: [{ id: 'rail2', regulator: 'bs5-drop' }],
      devices: [['servo-small', 'Flap', undefined, { fedBy: 'rail2' }]],
    }),
  )
  const board = build.placed[0]!
  expect(board.legs.filter((l) => l.net === 'VIN')).toHaveLength(1)
  expect(build.support.find((s) => s.key === 'regulator-rail2')!.legs[0]!.net).toBe('VIN')
  const step = build.steps.find((s) => s.title === 'The second rail')!
  expect(step.checks.filter((c) => c.powered)).toEqual([])
  const joined = build.steps.find((s) => s.title.endsWith('is joined'))!
  expect(joined.checks.map((c) => c.where)).toContain('between VCC2 and GND, plugged in')
  expect(findings.map((f) => f.id)).not.toContain('power.device-supply:d1')
})

test('a board that brings its input out nowhere: the wire begins in front of its plug, and that is said', () => {
  const on = (chip: string, source = 'adapter-9v') =>
    look(
      project({
        chip,
        source,
        rails: [{ id: 'rail2', regulator: 'bs5-drop' }],
        devices: [
          ['servo-small', 'Flap', undefined, { fedBy: 'rail2' }],
          ['flow-meter', 'Flow', undefined, { fedBy: 'source' }],
        ],
      }),
    ).findings.find((f) => f.id === 'power.untapped')
  expect(on('oxbow-board')).toMatchObject({
    severity: 'risks',
    text: expect.stringMatching(
      /^Flow and the second rail hang on the source, and .* brings what its plug gets out nowhere: the wire VIN begins in the lead of 9 V adapter, in front of that plug\.$/,
    ) as string,
  })
  // One on the second feed has its own jack.
  const apart = project({
    chip: 'oxbow-board',
    source: 'adapter-9v',
    feed: 'adapter-9v',
    rails: [{ id: 'rail2', regulator: 'bs5-drop', from: 'feed' }],
    devices: [['servo-small', 'Flap', undefined, { fedBy: 'rail2' }]],
  })
  expect(look(apart).findings.map((f) => f.id)).not.toContain('power.untapped')
  // This one has a position for it; a bare chip has no plug of its own.
  expect([on('stick-qm32-32'), on('qm32-32')]).toEqual([undefined, undefined])
})

test('on a second feed that isn’t there nothing is fed, and each has a way out', () => {
  const a = look(
    project({
      ...two,
      rails: [{ id: 'rail2', regulator: 'bs5-drop', from: 'feed' }],
      devices: [
        ['servo-small', 'Flap', undefined, { fedBy: 'rail2' }],
        ['relay-module', 'Valve', undefined, { fedBy: 'feed' }],
      ],
    }),
  )
  const told = a.findings.find((f) => f.id === 'power.unfed')!
  expect([told.severity, told.text]).toEqual([
    'stops',
    'Valve and the second rail hang on a second feed, and none is chosen: nothing feeds them.',
  ])
  const after = look(
    applyEdits(
      a.design,
      told.fixes.flatMap((f) => f.edits),
    ),
  )
  expect(after.findings.map((f) => f.id)).not.toContain('power.unfed')
  expect(after.power.loads.rails.rail2!.voltage!.value.typ).toBe(5)
  expect(
    look({ ...a.design, power: { ...a.design.power, feed: 'adapter-9v' } }).findings.map((f) => f.id),
  ).not.toContain('power.unfed')
})

test('a rail above the chip’s own, stepped up from it: 71 mA of a relay at 5 V out of 3.3 V', () => {
  const { design, power, build } = look(
    project({
      chip: 'qm32-32',
      source: 'cells-4-aa',
      regulator: 'bl33-low',
      rails: [{ id: 'rail2', regulator: 'bu5-step', from: 'rail' }],
      devices: [['relay-module', 'Valve', undefined, { fedBy: 'rail2' }]],
    }),
  )
  const beside = power.consumers
    .filter((c) => c.from === 'rail')
    .reduce((sum, c) => sum + c.work.value.typ, 0)
  // η of figure 5 between 1 mA and 100 mA.
  const η = 0.72 + ((0.9 - 0.72) * 70) / 99
  const taken = (5 * 71e-3) / (η * 3.3) + 35e-6
  expect(power.work.value.typ - beside).toBeCloseTo(taken, 5)
  const [stream] = streamsOf({ design, power }).further
  expect([stream!.taken.value.typ, stream!.current.value.typ, stream!.from]).toEqual([
    expect.closeTo(taken - 35e-6, 5),
    expect.closeTo(71e-3, 9),
    'rail',
  ])
  expect(build.support.find((s) => s.key === 'regulator-rail2')!.legs.map((l) => l.net)).toEqual([
    'VCC',
    'GND',
    'VCC2',
  ])
  // Between it and VCC, from which it steps up, a meter shows what lies in it.
  const step = build.steps.find((s) => s.title === 'The second rail')!
  expect(step.checks.map((c) => c.where)).toEqual([
    'between VCC2 and GND, red lead on VCC2',
    'between VCC2 and GND',
  ])
})

describe('cells last until the first rail stops', () => {
  const of = (change: Partial<Project>) =>
    look(
      project({ chip: 'qm32-32', source: 'cells-4-aa', regulator: 'bl33-sparing', devices: [], ...change }),
    ).power.cells!.stop
  const display: Project['devices'][number] = ['line-display', 'Face', undefined, { fedBy: 'rail2' }]
  const rails: Project['rails'] = [{ id: 'rail2', regulator: 'bl5-low' }]
  test('a 5 V rail behind a linear regulator stops long before the chip’s 3.3 V', () => {
    // At 3.3 V and a little the cells are empty anyway: from 3.6 V on.
    expect(of({ devices: [] })).toBeUndefined()
    const both = of({ rails, devices: [display] })!
    expect(both.label).toBe('Cells below which the first rail or part stops')
    // 5 V, and 0.1 V + 0.9 V · 15 / 790 of drop-out at 25 mA, or what the source loses before.
    const drop = 0.1 + (0.9 * 15) / 790
    expect(both.value.typ).toBeGreaterThan(5 + drop)
    expect(both.value.typ).toBeLessThan(5 + drop + 0.6 * 0.2)
  })
  test('what hangs straight on the cells counts as well', () => {
    const straight = of({ devices: [['line-display', 'Face', undefined, { fedBy: 'source' }]] })!
    // 4.5 V of its sheet.
    expect(straight.value.typ).toBeGreaterThan(4.5)
    expect(straight.value.typ).toBeLessThan(4.5 + 0.6 * 0.2)
  })
  test('a rail that the chip’s own feeds is no nearer to the end than that: what it needs it gets from there', () => {
    // 2.7 V of the one that steps up; behind its 5 V the other needs 3.4 V and its drop-out.
    const stop = (more: Partial<Project>) =>
      of({ chip: 'td8-28-dip', source: 'cells-3-aa', regulator: 'bu5-strong', ...more })!.value.typ
    expect(stop({ rails: [{ id: 'rail2', regulator: 'bl33-low', from: 'rail' }] }) - stop({})).toBeLessThan(
      0.1,
    )
  })
  test('a rail behind the chip’s own can’t stop before that', () => {
    expect(
      of({ rails: [{ id: 'rail2', regulator: 'bu5-step', from: 'rail' }], devices: [display] }),
    ).toBeUndefined()
  })
})

test('a latch’s simulation says what it leaves out: what hangs in front of the chip’s regulator', () => {
  const { latch } = look(
    project({
      chip: 'td8-28-dip',
      source: 'cells-4-aa',
      regulator: 'bl33-sparing',
      rails: [
        { id: 'rail2', regulator: 'bl33-tiny' },
        { id: 'rail3', regulator: 'bu5-step', from: 'rail' },
      ],
      devices: [
        ['latch-button', 'Power', 'hold'],
        ['flow-meter', 'Flow', undefined, { fedBy: 'source' }],
      ],
    }),
  )
  expect(latch.latch).toBeDefined()
  // The third rail hangs on the chip’s own, and its current is in that.
  expect(latch.leftOut).toEqual(['Flow', 'the second rail'])
})

describe('found, and mended', () => {
  // (12.8 V − 4.9 V) · 0.65 A is 5 W in a case of 92 K/W at worst.
  const hot = () =>
    look(
      project({
        ...two,
        source: 'adapter-12v',
        rails: [{ id: 'rail2', regulator: 'bl5-low' }],
        devices: [['servo-small', 'Flap', undefined, { fedBy: 'rail2' }]],
      }),
    )
  test('too hot: another regulator for that rail, and it is cool', () => {
    const a = hot()
    const told = a.findings.find((f) => f.id === 'power.regulator-too-hot:regulator-rail2')!
    expect(told.severity).toBe('stops')
    expect(a.findings.map((f) => f.id)).not.toContain('power.regulator-too-hot')
    const fixes = proposalsFor(a, library, told)
    const use = fixes.find((f) => f.label === 'Use BS5 drop-in 5 V for it')!
    const after = look(applyEdits(a.design, use.edits))
    expect(after.findings.filter((f) => f.id.endsWith(':regulator-rail2'))).toEqual([])
    expect(after.design.power.rails).toEqual([{ id: 'rail2', regulator: 'bs5-drop' }])
    expect(after.design.power.regulator).toBe('bl33-low')
  })
  test('ranked as choosing it makes it, by the load of that rail', () => {
    const a = hot()
    const ranked = regulatorsOf(a, library, 'rail2')
    expect(ranked.find((r) => r.chosen)!.regulator.id).toBe('bl5-low')
    const one = ranked.find((r) => r.regulator.id === 'bs5-drop')!
    expect(one.no).toEqual([])
    const after = look(
      applyEdits(a.design, [
        { kind: 'changeRail', id: 'rail2', change: { regulator: 'bs5-drop' }, what: '' },
      ]),
    )
    const chosen = after.power.regulations.find((r) => r.converter.to === 'rail2')!.regulation
    for (const key of ['junction', 'margin', 'taken', 'input'] as const)
      expect([key, one[key]!.value]).toEqual([key, chosen[key]!.value])
    // 3.3 V is below the 4.5 V of the servo; its name is said.
    const low = ranked.find((r) => r.regulator.id === 'bs33-strong')!
    expect(low.no.map((n) => n.text)).toContain('its 3.3 V doesn’t suit Flap')
    // For the chip’s rail nothing is said of the other one’s loads.
    const own = regulatorsOf(a, library).find((r) => r.regulator.id === 'bs33-drop')!
    expect(own.no).toEqual([])
  })
  test('a device that no rail suits: one of its own is offered, and suits it', () => {
    const a = look(
      project({ ...two, source: 'adapter-12v', rails: undefined, devices: [['relay-module', 'Valve']] }),
    )
    const told = a.findings.find((f) => f.id === 'power.device-supply:d1')!
    const fix = proposalsFor(a, library, told).find((f) => f.label.includes('rail of its own'))!
    expect(fix.label).toMatch(/^Feed Valve from a rail of its own, behind B[A-Z]5 /)
    const after = look(applyEdits(a.design, fix.edits))
    expect(after.findings.map((f) => f.id)).not.toContain('power.device-supply:d1')
    expect(after.power.consumers.find((c) => c.id === 'd1')!.from).toBe('rail2')
    expect(after.findings.filter((f) => f.id.endsWith(':regulator-rail2'))).toEqual([])
  })
  test('a source that it would be cool on is proposed where it hangs on that, and not where it hangs on the second feed', () => {
    // (12.6 V − 4.9 V) · 240 mA are 1.9 W; from 7.5 V 0.7 W.
    const feeds = (from?: 'feed') => {
      const a = look(
        project({
          ...two,
          source: 'adapter-12v',
          feed: 'adapter-12v',
          rails: [{ id: 'rail2', regulator: 'bl5-low', ...(from && { from }) }],
          devices: [['relay-module', 'Valve', undefined, { count: 3, fedBy: 'rail2' }]],
        }),
      )
      const told = a.findings.find((f) => f.id === 'power.regulator-too-hot:regulator-rail2')!
      return proposalsFor(a, library, told).some((f) => f.label.startsWith('Feed it from 7.5 V adapter'))
    }
    expect([feeds(), feeds('feed')]).toEqual([true, false])
  })
  test('no source is proposed that a further rail’s regulator doesn’t stand', () => {
    const weak = (rails?: Project['rails']) => {
      const a = look(
        project({
          chip: 'qm32-32',
          source: 'cells-3-aa',
          regulator: 'bl33-sparing',
          feed: 'adapter-5v',
          rails,
          devices: [['servo-small', 'Flap', undefined, { count: 2, fedBy: rails ? 'rail2' : 'source' }]],
        }),
      )
      const told = a.findings.find((f) => f.id === 'power.source-too-weak')!
      return proposalsFor(a, library, told).filter((f) => f.label.startsWith('Feed it from 5 V adapter'))
    }
    // The chip’s stands 5 V; one that steps up from as much as 4.8 V doesn’t.
    expect(weak().length).toBeGreaterThan(0)
    expect(weak([{ id: 'rail2', regulator: 'bu5-strong' }])).toEqual([])
  })
  test('a regulator of the chip’s rail is judged by what hangs on that rail too', () => {
    const a = look(
      project({
        chip: 'td8-28-dip',
        source: 'adapter-9v',
        regulator: 'bl33-low',
        rails: [{ id: 'rail2', regulator: 'bu5-step', from: 'rail' }],
        devices: [['relay-module', 'Valve', undefined, { fedBy: 'rail2' }]],
      }),
    )
    const no = regulatorsOf(a, library)
      .find((r) => r.regulator.id === 'bl5-low')!
      .no.map((n) => n.text)
    expect(no).toContainEqual(
      expect.stringMatching(/^BU5 step 5 V: it is made for up to 4\.8\sV, and gets up to 5\.1\sV$/),
    )
  })
  test('a programmer on the rail reaches the source backwards, and what hangs there behind another regulator', () => {
    const { findings } = look(
      project({ ...two, rails: [{ id: 'rail2', regulator: 'bl5-low' }], devices: [two.devices[0]!] }),
    )
    const told = findings.find((f) => f.id === 'power.back-feed:converter:regulator')!
    expect(told.text).toMatch(/, Flap gets up to 3\.3\sV backwards through BL33 low drop 3\.3 V/)
  })
  test('with a programmer in the chip would feed a servo that is off through its line: offered is one with a resistor there', () => {
    const a = look(
      project({ ...two, source: 'adapter-12v', rails: undefined, devices: [['servo-small', 'Flap']] }),
    )
    const told = a.findings.find((f) => f.id === 'power.device-supply:d1')!
    const [offer, ...others] = offersFor(a, library, told).offers
    expect([offer!.fix.label, others]).toEqual([
      'Feed Flap from a rail of its own, behind BS5 drop-in 5 V, with a resistor in its line',
      [],
    ])
    const after = look(applyEdits(a.design, offer!.fix.edits))
    expect(after.design.pins.shifts).toEqual({ 'd1.1.PULSE': 'resistor' })
    expect(after.findings.filter((f) => f.severity !== 'notes')).toEqual([])
  })
  test('a regulator that is not in the library', () => {
    const design = project({
      ...two,
      rails: [{ id: 'rail2', regulator: 'gone' }],
      devices: [two.devices[0]!],
    })
    const a = analyse(design, library)
    expect(a.findings.find((f) => f.check === 'power.not-reckoned')).toMatchObject({
      severity: 'stops',
      text: 'The regulator of the second rail is “gone”, which is not in the library: nothing about it is computed.',
    })
    expect(a.power.supplies.open.rail2).toBeUndefined()
  })
  test.each<[string, Partial<Design['power']>, string, string]>([
    [
      'a ring',
      {
        rails: [
          { id: 'rail2', regulator: 'a', from: 'rail3' },
          { id: 'rail3', regulator: 'a', from: 'rail2' },
        ],
      },
      'power.rails',
      'rail2, rail3 feed one another',
    ],
    [
      'one that is not there',
      { rails: [{ id: 'rail2', regulator: 'a', from: 'rail9' }] },
      'power.rails[0].from',
      'must be one of rail, feed, rail2, or left out: source',
    ],
    [
      'one twice',
      {
        rails: [
          { id: 'rail2', regulator: 'a' },
          { id: 'rail2', regulator: 'a' },
        ],
      },
      'power.rails[1].id',
      'rail2 is there twice',
    ],
  ])('a file with %s names the place', (_, power, path, message) => {
    const design = project({ ...two, devices: [] })
    const read = () => readDesign({ ...design, power: { ...design.power, ...power } }, 'file')
    expect(read).toThrow(FaultyFile)
    try {
      read()
    } catch (error) {
      expect((error as FaultyFile).faults).toContainEqual({ path, message })
    }
  })
})
