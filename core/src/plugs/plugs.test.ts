// What is plugged in and what flows back then: combinations counted by hand, currents by hand and against the circuit that they are, and
// what is found of it.

import fc from 'fast-check'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { deep, firstSeed } from '../../test/share'
import { analyse, offersFor } from '../analysis'
import { applyEdits, type Design } from '../design'
import type { Chip, Library } from '../parts'
import { steps } from '../patience'

const library = shippedLibrary()
const look = (d: Design, of: Library = library) => analyse(d, of, steps(3000))
const fedApart = (more: Partial<Parameters<typeof project>[0]> = {}) =>
  project({
    chip: 'td8-28-dip',
    source: 'adapter-9v',
    regulator: 'bl5-low',
    feed: 'adapter-5v',
    devices: [['servo-small', 'Servo', undefined, { fedBy: 'feed' }]],
    ...more,
  })
const told = (d: Design, of: Library = library) =>
  look(d, of)
    .findings.filter((f) => f.check === 'power.back-feed')
    .map((f) => [f.id.replace('power.back-feed:', ''), f.severity, f.grade])
const wayOf = (d: Design, id: string, of: Library = library) =>
  look(d, of).plugs.ways.find((w) => w.id.startsWith(id))

describe('combinations', () => {
  test('of three plugs seven, and what each of them feeds', () => {
    const { plugs, standings } = look(fedApart()).plugs
    expect(plugs.map((p) => p.id)).toEqual(['source', 'feed', 'programmer'])
    // The adapter is polarised: plug, input of the regulator, rail.
    expect(standings.map((s) => [s.id, s.fed.join(' ')])).toEqual([
      ['source', 'plug source rail'],
      ['feed', 'feed'],
      ['source+feed', 'plug source rail feed'],
      ['programmer', 'rail'],
      ['source+programmer', 'plug source rail'],
      ['feed+programmer', 'rail feed'],
      ['source+feed+programmer', 'plug source rail feed'],
    ])
  })
  test('a latch that is off counts besides, and feeds nothing', () => {
    const latched = project({
      chip: 'td8-08-dip',
      source: 'cells-2-aa',
      devices: [['latch-button', 'Power', 'hold']],
    })
    expect(look(latched).plugs.standings.map((s) => [s.id, s.fed.join(' ')])).toEqual([
      ['source', 'rail'],
      ['source, off', ''],
      ['programmer', 'rail'],
      ['source+programmer', 'rail'],
      ['source+programmer, off', 'rail'],
    ])
  })
  test('a board brings its own header: no programmer of ours', () => {
    expect(
      look(project({ chip: 'stick-td8', devices: [], feed: 'adapter-5v' })).plugs.plugs.map((p) => p.id),
    ).toEqual(['source', 'feed'])
  })
})

describe('currents', () => {
  test('out of a leg: rail less a diode, over 0.14 V / 5 mA of its output', () => {
    const { plugs, power } = look(fedApart())
    const way = plugs.ways.find((w) => w.kind === 'out')!
    const rail = power.rail!.value
    expect(way.standings).toEqual(['source', 'programmer', 'source+programmer'])
    // 100 mV / 5 mA = 20 Ω, 28 Ω, 220 mV / 5 mA = 44 Ω; 0.3, 0.6 and 0.9 V.
    expect(way.current!.value.max).toBeCloseTo((rail.max - 0.3) / 20, 6)
    expect(way.current!.value.typ).toBeCloseTo((rail.typ - 0.6) / 28, 6)
    expect(way.current!.value.min).toBeCloseTo((rail.min - 0.9) / 44, 6)
  })
  test('into a leg: what drives an echo gives 20 Ω to 200 Ω, and a bus on 5 V its pull-ups of 10 kΩ', () => {
    const echo = fedApart({ devices: [['distance-echo', 'Echo', 'asked', { fedBy: 'feed' }]] })
    const way = wayOf(echo, 'in:')!
    const feed = look(echo).power.supplies.open.feed!.value
    expect(way.standings).toEqual(['feed'])
    expect(way.current!.value.max).toBeCloseTo((feed.max - 0.3) / 20, 6)
    const bus = fedApart({ devices: [['memory-two-wire', 'Memory', undefined, { fedBy: 'feed' }]] })
    expect(wayOf(bus, 'in:')!.current!.value.typ).toBeCloseTo((feed.typ - 0.6) / 10e3, 9)
  })
  test('two boards’ pull-ups lie beside one another; a sensor gives what its resistance lets through; each rail is another way', () => {
    const memory = (more: object = {}): Partial<Parameters<typeof project>[0]> => ({
      devices: [
        ['memory-two-wire', 'Memory', undefined, { fedBy: 'feed' }],
        ['humidity-two-wire', 'Air', undefined, { ...more }],
      ],
    })
    const current = (d: Design) =>
      look(d).plugs.ways.find((w) => w.kind === 'in' && w.line!.rail === 'feed')!.current!
    const feed = look(fedApart(memory())).power.supplies.open.feed!.value
    expect(current(fedApart(memory())).value.typ).toBeCloseTo((feed.typ - 0.6) / 10e3, 9)
    // 10 kΩ on each: 5 kΩ.
    expect(current(fedApart(memory({ fedBy: 'feed' }))).value.typ).toBeCloseTo((feed.typ - 0.6) / 5e3, 9)
    // A line to two displays: from the leg into each, when a programmer alone feeds the rail.
    const both = look(
      fedApart({
        devices: [
          ['glow-display', 'Left', 'spi', { fedBy: 'feed' }],
          ['glow-display', 'Right', 'spi', { fedBy: 'source' }],
        ],
        source: 'adapter-5v',
        regulator: 'bl33-low',
      }),
    )
    const clock = both.plugs.ways.filter((w) => w.kind === 'out' && /SCK/.test(w.id))
    expect(clock.map((w) => [w.line!.rail, w.standings.length])).toEqual([
      ['source', 2],
      ['feed', 3],
    ])
    const light = fedApart({ devices: [['light-resistor', 'Light', undefined, { fedBy: 'feed' }]] })
    // 2 kΩ in full light.
    expect(current(light).value.max).toBeCloseTo((feed.max - 0.3) / 2e3, 9)
  })
  test('a regulator backwards leaves what a programmer may feed, 5.5 V, less a diode; one that blocks, and one that steps up, nothing', () => {
    const way = wayOf(fedApart(), 'converter')!
    expect(way.standings).toEqual(['programmer', 'feed+programmer'])
    expect(way.voltage!.value.max).toBeCloseTo(5.2, 9)
    const blocks = wayOf(fedApart({ regulator: 'bl33-sparing', source: 'adapter-5v' }), 'converter')!
    expect([blocks.voltage, blocks.stopped!.text]).toEqual([
      undefined,
      'BL33 sparing 3.3 V lets nothing back',
    ])
    const up = wayOf(fedApart({ regulator: 'bu5-step', source: 'cells-2-aa' }), 'converter')!
    expect(up.stopped!.text).toMatch(/diode of BU5 step.* lies the other way round$/)
  })
  test('a diode against a reversed plug lets nothing into the adapter', () => {
    expect(wayOf(fedApart(), 'joined')!.stopped!.text).toMatch(/lets nothing back$/)
    const bare = { ...fedApart(), build: { support: { 'polarity-diode': 'out' as const } } }
    // 8.6 V at the least, and a programmer feeds 5.5 V.
    expect(wayOf(bare, 'joined')!.stopped!.text).toMatch(/never has less than a programmer/)
  })
  test('random lines lie where their sum says: a silicon diode’s own law, found by halving', () => {
    const seed = firstSeed('lines that feed back')
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 5.5, noNaN: true }),
        fc.double({ min: 20, max: 44, noNaN: true }),
        // From 1 fA to 100 pA of saturation, at 25 °C.
        fc.double({ min: -15, max: -10, noNaN: true }),
        (volts, ohms, exponent) => {
          const law = (u: number) => 10 ** exponent * Math.expm1(u / 0.025693)
          let [low, high] = [0, 1]
          for (let k = 0; k < 60; k++) {
            const u = (low + high) / 2
            if (law(u) < (volts - u) / ohms) low = u
            else high = u
          }
          const flows = (volts - low) / ohms
          expect([flows >= (volts - 0.9) / ohms, flows <= (volts - 0.3) / ohms]).toEqual([true, true])
        },
      ),
      { numRuns: deep ? 5000 : 200, seed },
    )
  })
})

describe('what is found', () => {
  test('a servo fed apart: 240 mA where 1 mA is safe; offered is the rail', () => {
    const before = look(fedApart())
    const found = before.findings.find((f) => f.id === 'power.back-feed:out:feed')!
    expect([found.severity, found.grade]).toEqual(['risks', 'typical'])
    expect(found.text).toMatch(
      /^With .*9 V.* in, and .*5 V.* and programmer out, the chip feeds Servo through its leg: up to 2\d\d\smA/,
    )
    // (5.1 − 0.3) V / 1 mA.
    expect(found.because.at(-1)!.text).toMatch(/^A resistor of 4\.[5-9]\skΩ or more in the line/)
    // The rail of 100 mA doesn’t carry it; a resistor helps.
    const { offers } = offersFor(before, library, found)
    expect(offers.map((o) => o.fix.label)).toEqual(['A resistor in the line'])
    expect(told(fedApart({ devices: [['servo-small', 'Servo']] }))).toEqual([])
    const after = look(applyEdits(fedApart(), offers[0]!.fix.edits))
    // 5.1 V and more less 0.3 V make 4.8 kΩ and more, a twentieth more 5.1 kΩ: 5.6 kΩ; and less than a milliampere flows.
    const fitted = after.build.support.find((s) => s.role === 'shift series')!
    expect([fitted.value!.marking, fitted.legs.map((l) => l.net.includes('FAR'))]).toEqual([
      '5k6',
      [true, false],
    ])
    const left = after.plugs.ways.find((w) => w.kind === 'out')!.current!.value.max
    expect([left > 0.8e-3, left < 1e-3]).toEqual([true, true])
    expect(after.findings.map((f) => f.id)).not.toContain('pins.shift-too-slow:d1.1.PULSE')
    // The levels are what they were.
    const margins = (a: typeof after) => a.pins.levels.map((l) => [l.severity, l.shift])
    expect(margins(after)).toEqual(margins(before))
  })
  test.each<[string, Design, string, string]>([
    [
      'an echo',
      fedApart({ devices: [['distance-echo', 'Echo', 'asked', { fedBy: 'feed' }]] }),
      'in:feed',
      'risks',
    ],
    // 0.5 mA.
    [
      'a bus’s pull-ups',
      fedApart({ devices: [['memory-two-wire', 'Memory', undefined, { fedBy: 'feed' }]] }),
      'in:feed',
      'notes',
    ],
    [
      'two cells and a programmer',
      project({ chip: 'td8-08-dip', source: 'cells-2-aa', devices: [] }),
      'cells',
      'risks',
    ],
    [
      'a servo in front of the regulator, a programmer alone',
      fedApart({
        source: 'adapter-7v5',
        devices: [['servo-small', 'Servo', undefined, { fedBy: 'source' }]],
      }),
      'converter:regulator',
      'notes',
    ],
    [
      'a charger without its cell',
      applyEdits(
        project({ chip: 'td8-08-dip', source: 'cell-pouch-2ah', regulator: 'bl33-tiny', devices: [] }),
        [{ kind: 'changeCharging', change: { charger: 'bc42-single', from: 'usb-port' }, what: '' }],
      ),
      'no-cell',
      'notes',
    ],
  ])('%s', (_, design, id, severity) => {
    expect(told(design)).toContainEqual([id, severity, 'typical'])
  })
  test.each<[string, string, RegExp]>([
    ['cells-2-aa', '', /not made to be charged: it may leak or burst/],
    ['cell-iron', '', /overcharged lithium cell catches fire/],
    ['cells-3-nimh', '', /nothing limits it/],
  ])('what a programmer does to %s is said in its own words', (source, _, words) => {
    const found = look(project({ chip: 'td8-08-dip', source, devices: [] })).findings
    expect(found.find((f) => f.id === 'power.back-feed:cells')!.text).toMatch(words)
  })
  test('a programmer of 5.5 V through a regulator into a cell of 3 V; one that blocks is offered, and ends it', () => {
    const cell = project({
      chip: 'td8-08-dip',
      source: 'cell-pouch-2ah',
      regulator: 'bl33-tiny',
      devices: [],
    })
    const before = look(cell)
    const found = before.findings.find((f) => f.id === 'power.back-feed:cells')!
    expect(found.text).toMatch(
      /^A programmer may feed the rail with up to 5\.5\sV, and drive current backwards through BL33 tiny/,
    )
    const { offers } = offersFor(before, library, found)
    expect(offers.map((o) => o.fix.label)).toContain('Regulate with BL33 sparing 3.3 V')
    expect(told(applyEdits(cell, offers[0]!.fix.edits))).toEqual([])
    // Three volts at the least, and a diode’s 0.3 V: from 3.3 V on something may flow.
    const programmed = (max: number): Library => ({
      parts: {
        ...library.parts,
        'td8-08-dip': {
          ...library.parts['td8-08-dip'],
          programming: [
            {
              ...(library.parts['td8-08-dip'] as Chip).programming[0]!,
              voltage: { min: 2.7, max, kind: 'recommended' },
            },
          ],
        } as Chip,
      },
    })
    expect(told(cell, programmed(3.31)).map(([id]) => id)).toEqual(['cells'])
    expect(told(cell, programmed(3.29))).toEqual([])
  })
  test('a board whose USB plug nothing keeps apart from the source: told; one that blocks, and one alone, not', () => {
    const on = (chip: string, source?: string) =>
      project({ chip, source: source ?? 'adapter-5v', devices: [] })
    const small = look(on('stick-qm32-small'))
    // Source, USB plug: three combinations; both feed the input, and what is behind it.
    expect(small.plugs.standings.map((s) => [s.id, s.fed.join(' ')])).toEqual([
      ['source', 'source rail'],
      ['board', 'source rail'],
      ['source+board', 'source rail'],
    ])
    expect(told(on('stick-qm32-small'))).toEqual([['usb', 'risks', 'typical']])
    expect(told(on('stick-mw2'))).toEqual([])
    expect(wayOf(on('stick-mw2'), 'usb')!.stopped!.text).toMatch(/lets nothing back$/)
    expect(told({ ...on('stick-qm32-small'), power: {} })).toEqual([])
    // Its sheet doesn’t say.
    expect(wayOf(on('stick-td8'), 'usb')).toBeUndefined()
  })
  test('nothing where a header has no supply, and nothing from what feeds a single rail', () => {
    const alone = project({ chip: 'td8-08-dip', source: 'cells-2-aa', devices: [] })
    expect(told({ ...alone, build: { support: { 'programming-header': 'out' } } })).toEqual([])
    expect(told(project({ chip: 'td8-08-dip', source: 'usb-port', devices: [] }))).toEqual([])
  })
})
