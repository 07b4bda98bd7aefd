// What is plugged in and what flows back then: combinations counted by hand, currents by hand and against the circuit that they are, and
// what is found of it.

import fc from 'fast-check'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { deep, firstSeed } from '../../test/share'
import { analyse, offersFor, sourcesOf } from '../analysis'
import { applyEdits, type Design } from '../design'
import { type Chip, type Device, type Library, makeLibrary, type Source } from '../parts'
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
    // A programmer may feed 5.5 V, the regulator no more than 5.1 V.
    expect(rail.max).toBeLessThan(5.5)
    expect(way.current!.value.max).toBeCloseTo((5.5 - 0.3) / 20, 6)
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
  test('a servo fed apart: 260 mA where 1 mA is safe; offered is the rail', () => {
    const before = look(fedApart())
    const found = before.findings.find((f) => f.id === 'power.back-feed:out:feed')!
    expect([found.severity, found.grade]).toEqual(['risks', 'typical'])
    expect(found.text).toMatch(
      /^With .*9 V.* in, and .*5 V.* and programmer unplugged, the chip feeds Servo through its leg: up to 2\d\d\smA/,
    )
    // (5.5 − 0.3) V / 1 mA.
    expect(found.because.at(-1)!.text).toMatch(/^A resistor of 5\.2\skΩ or more in the line/)
    // The rail of 100 mA doesn’t carry it; a resistor helps.
    const { offers } = offersFor(before, library, found)
    expect(offers.map((o) => o.fix.label)).toEqual(['A resistor in the line'])
    expect(told(fedApart({ devices: [['servo-small', 'Servo']] }))).toEqual([])
    const after = look(applyEdits(fedApart(), offers[0]!.fix.edits))
    // 5.2 kΩ, a twentieth more 5.47 kΩ: 5.6 kΩ; and less than a milliampere flows, whoever feeds the rail.
    const fitted = after.build.support.find((s) => s.role === 'shift series')!
    expect([fitted.value!.marking, fitted.legs.map((l) => l.net.includes('FAR'))]).toEqual([
      '5k6',
      [true, false],
    ])
    // A programmer’s 5.5 V, and not only the rail’s 5.1 V or the feed’s 5.2 V, less 0.3 V at a milliampere.
    expect(fitted.worked.map((w) => Math.round(w.value.max))).toContain(5200)
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
    // A port straight on the rail, and a programmer of 5.5 V: two that feed it.
    const port = project({ chip: 'td8-08-dip', source: 'usb-port', devices: [] })
    expect(told(port)).toEqual([['joined', 'notes', 'typical']])
    expect(told({ ...port, build: { support: { 'programming-header': 'out' } } })).toEqual([])
  })
})

describe('a programmer’s 5.5 V, at a chip on 3.3 V that may be fed as much', () => {
  /** Ids after the check’s own, with other limits in the part files. */
  const told = (regulator: string, device: string, more: Record<string, object> = {}) => {
    const parts = Object.values(library.parts).map((p) => ({ ...p, ...more[p.id] }))
    const { findings } = analyse(
      project({
        chip: 'td8-28-dip',
        source: 'adapter-9v',
        regulator: 'bl33-low',
        rails: [{ id: 'rail2', regulator, from: 'rail' }],
        devices: [[device, 'Thing', undefined, { fedBy: 'rail2' }]],
      }),
      makeLibrary(parts),
    )
    return findings.flatMap((f) =>
      f.check === 'power.programmer-voltage' ? [[f.id.split(':')[1], f.severity]] : [],
    )
  }
  test('behind a linear regulator nobody sees it, be he made for 3.6 V', () => {
    expect(told('bl33-tiny', 'pressure-two-wire')).toEqual([])
  })
  test('the regulator on the rail stands 6 V; one that stood 5 V would break', () => {
    const absolute = { max: 5, kind: 'absolute' }
    expect(told('bu5-step', 'relay-module')).toEqual([])
    expect(told('bu5-step', 'relay-module', { 'bu5-step': { inputAbsolute: absolute } })).toEqual([
      ['rail2', 'risks'],
    ])
  })
  test('one that steps up lets it through: what hangs behind it gets more than its 5.1 V', () => {
    const stands = { 'relay-module': { supplyAbsolute: { max: 5.3, kind: 'absolute' } } }
    expect(told('bu5-step', 'relay-module', stands)).toEqual([['d1', 'risks']])
    // Behind its own of 5 V at the most 5.1 V, which it stands.
    expect(told('bl5-low', 'relay-module', stands)).toEqual([])
  })
})

test('a plug of the other polarity hits what hangs on the second feed, a regulator too', () => {
  const told = analyse(
    project({
      chip: 'qm32-32',
      source: 'adapter-9v',
      regulator: 'bl33-low',
      feed: 'adapter-12v',
      rails: [{ id: 'rail2', regulator: 'bs5-drop', from: 'feed' }],
      devices: [['servo-small', 'Flap', undefined, { fedBy: 'rail2' }]],
    }),
    library,
  ).findings.find((f) => f.id === 'power.plug-fits:unguarded:feed')!
  expect(told.text).toMatch(/^Another plug .* that puts −13 V on BS5 drop-in 5 V, and nothing stops it\./)
})

test('two adapters of a kind are told apart', () => {
  const { plugs } = analyse(
    project({
      chip: 'td8-28-dip',
      source: 'adapter-5v',
      feed: 'adapter-5v',
      devices: [['servo-small', 'Flap', undefined, { fedBy: 'feed' }]],
    }),
    library,
  )
  expect(plugs.plugs.map((p) => p.name).slice(0, 2)).toEqual([
    '5 V adapter, 2 A',
    '5 V adapter, 2 A of the second feed',
  ])
})

test('a latch that is off: a programmer of 5.5 V less 0.3 V in its diode, into cells that never have less than 5.2 V', () => {
  const latched = project({
    chip: 'td8-08-dip',
    source: 'cells-2-aa',
    devices: [['latch-button', 'Power', 'hold']],
  })
  const stopped = (least: number) => {
    const cells = structuredClone(library.parts['cells-2-aa']) as Source
    cells.voltage = { ...cells.voltage, min: least, typ: 6, max: 6.4 }
    return wayOf(latched, 'latch', { parts: { ...library.parts, 'cells-2-aa': cells } })!.stopped?.text
  }
  expect(stopped(5.19)).toBeUndefined()
  expect(stopped(5.21)).toMatch(/^what the diodes leave is less than/)
})

describe('a programmer’s voltage on what hangs on the rail', () => {
  const at33 = (devices: string[], more: Partial<Parameters<typeof project>[0]> = {}) =>
    project({
      chip: 'td8-28-dip',
      source: 'adapter-9v',
      regulator: 'bl33-low',
      devices: devices.map((d) => [d, d]),
      ...more,
    })
  const found = (d: Design, of: Library = library) =>
    look(d, of).findings.filter((f) => f.check === 'power.programmer-voltage')
  const withTop = (id: string, volts: number): Library => {
    const part = structuredClone(library.parts[id]) as Device
    part.supplyAbsolute!.max = volts
    return { parts: { ...library.parts, [id]: part } }
  }
  // The header of this chip may give 2.7 V to 5.5 V (its sheet, section 19).
  test('5.5 V on a sensor that breaks from 3.6 V, and on one whose sheet says only what it runs on', () => {
    const all = found(at33(['distance-two-wire', 'tilt-sensor', 'motion-two-wire']))
    expect(all.map((f) => [f.id, f.severity, f.grade])).toEqual([
      ['power.programmer-voltage:d1', 'risks', 'outside the sheet'],
      ['power.programmer-voltage:d2', 'risks', 'outside the sheet'],
    ])
    expect(all.map((f) => f.text.replace(/\s/g, ' '))).toEqual([
      'A programmer may feed the rail with up to 5.5 V; distance-two-wire breaks from 3.6 V. Set it to 3.5 V or less, or leave the header’s supply contact open and feed the board from its own source.',
      'A programmer may feed the rail with up to 5.5 V; tilt-sensor runs on 3.6 V at the most, and no sheet says what it stands. Set it to that or less, or leave the header’s supply contact open and feed the board from its own source.',
    ])
  })
  test('from just above what it stands, and nothing where no programmer feeds it', () => {
    const one = at33(['distance-two-wire'])
    expect(found(one, withTop('distance-two-wire', 5.49))).toHaveLength(1)
    expect(found(one, withTop('distance-two-wire', 5.5))).toEqual([])
    expect(found({ ...one, build: { support: { 'programming-header': 'out' } } })).toEqual([])
    // A rail that is just what it runs on at the most is no fault of the rail.
    const top = look(one).power.rail!.value.max
    const just = structuredClone(library.parts['distance-two-wire']) as Device
    just.supply!.max = top
    expect(found(one, { parts: { ...library.parts, [just.id]: just } })).toHaveLength(1)
    // On a rail of 5 V the rail itself is what is told of it.
    expect(found({ ...one, power: { ...one.power, regulator: 'bl5-low' } })).toEqual([])
    // A chip of 3.6 V is not programmed with more.
    expect(found(at33(['pressure-two-wire'], { chip: 'qm32-48' }))).toEqual([])
    // On a feed of its own no programmer feeds it.
    expect(
      found(
        at33([], { feed: 'cells-2-aa', devices: [['distance-two-wire', 'D', undefined, { fedBy: 'feed' }]] }),
      ),
    ).toEqual([])
  })
})

describe('plugs and jacks', () => {
  const found = (d: Design, of: Library = library) =>
    look(d, of)
      .findings.filter((f) => f.check === 'power.plug-fits')
      .map((f) => [f.id.replace('power.plug-fits:', ''), f.severity, f.text.replace(/\s/g, ' ')] as const)
  const kinds = (d: Design, of?: Library) => found(d, of).map(([id, severity]) => [id, severity])
  const on = (source: string, chip = 'trestle-plain') => project({ chip, source, devices: [] })
  /** The adapter of 9 V with another plug. */
  const plug = (outer: number, bore: number): Library => {
    const part = structuredClone(library.parts['adapter-9v']) as Source
    part.barrel = { outer: outer * 1e-3, bore: bore * 1e-3 }
    return { parts: { ...library.parts, 'adapter-9v': part } }
  }

  test('an adapter with its minus in the centre, on a board whose jack wants plus there', () => {
    expect(found(on('adapter-9v'))).toEqual([])
    const all = found(on('adapter-9v-stage'))
    expect(all).toEqual([
      [
        'reversed:source',
        'stops',
        '9 V stage adapter feeds Trestle plain the wrong way round: it is centre negative, and the board’s jack centre positive. That puts −9.4 V on its input.',
      ],
    ])
    const before = look(on('adapter-9v-stage'))
    const of = before.findings.find((f) => f.id === 'power.plug-fits:reversed:source')!
    // Both plugs as their sheets have them, and what the adapter gives at the most.
    expect(of.because.map((b) => b.text.replace(/\s/g, ' '))).toEqual([
      '2.1 mm barrel plug, centre negative',
      'the board’s jack takes 5.5 mm, on a pin of 2.1 mm, centre positive',
      'It gives up to 9.4 V',
    ])
    expect(of.because[2]!.worked!.value.max).toBeCloseTo(9.4, 6)
    const { offers } = offersFor(before, library, of)
    expect(offers[0]!.fix.label).toMatch(/^Feed it from/)
    // None of the sources that are offered or ranked first is the wrong way round itself.
    for (const { fix } of offers) expect(kinds(applyEdits(on('adapter-9v-stage'), fix.edits))).toEqual([])
    const ranked = sourcesOf(before, library)
    expect(ranked.find((r) => r.source.id === 'adapter-9v-stage')!.no.map((n) => n.text)).toContain(
      'it is centre negative, and the board’s jack centre positive',
    )
  })
  // A jack for 5.5 mm with a pin of 2.1 mm. What is sold is 1.65, 2.1 and 2.5 mm; 3.5, 4.0 and 5.5 mm.
  test.each<[number, number, (readonly [string, string])[]]>([
    [5.5, 2.1, []],
    [5.5, 2.5, [['loose:source', 'risks']]],
    [5.5, 1.65, [['shut:source', 'stops']]],
    [6.3, 2.1, [['shut:source', 'stops']]],
    [4.0, 2.1, [['loose:source', 'risks']]],
    [4.0, 1.65, [['shut:source', 'stops']]],
    [5.6, 2.0, []],
  ])('a plug of %p × %p mm', (outer, bore, expected) => {
    expect(kinds(on('adapter-9v'), plug(outer, bore))).toEqual(expected)
  })
  test('what isn’t known is said: no sizes, or no jack', () => {
    const { barrel, ...bare } = structuredClone(library.parts['adapter-9v']) as Source
    expect(barrel).toEqual({ outer: 5.5e-3, bore: 2.1e-3 })
    expect(kinds(on('adapter-9v'), { parts: { ...library.parts, 'adapter-9v': bare } })).toEqual([
      ['unknown:source', 'notes'],
    ])
    expect(found(on('adapter-9v', 'stick-td8'))).toEqual([
      ['no-jack:source', 'notes', expect.stringMatching(/^Bramble stick T has no jack for a hollow plug/)],
    ])
    expect(found(on('usb-port', 'stick-qm32-48'))).toEqual([])
  })
  test('one’s own board: a jack of the plug’s size, its pin the plug’s centre; none in the library is said', () => {
    const jack = (source: string) => {
      const part = look(
        project({ chip: 'td8-28-dip', source, regulator: 'bl5-low', devices: [] }),
      ).build.support.find((s) => s.key === 'entry')!
      return [part.part.id, ...part.legs.map((l) => `${l.name} ${l.net}`)]
    }
    expect(jack('adapter-9v')).toEqual(['jack-barrel', 'pin + VPLUG', 'sleeve − GND'])
    expect(jack('adapter-12v-heavy')).toEqual(['jack-barrel-wide', 'pin + VPLUG', 'sleeve − GND'])
    expect(jack('adapter-9v-stage')).toEqual(['jack-barrel', 'pin − GND', 'sleeve + VPLUG'])
    const own = project({ chip: 'td8-28-dip', source: 'adapter-9v', regulator: 'bl5-low', devices: [] })
    expect(kinds(own)).toEqual([])
    expect(kinds(own, plug(4.0, 1.65))).toEqual([['none:source', 'stops']])
    const without = look(own, plug(4.0, 1.65))
    expect(
      without.findings
        .find((f) => f.id === 'power.plug-fits:none:source')!
        .because.map((b) => [b.text, b.origin?.kind]),
    ).toEqual([['2.1 mm barrel plug, centre positive', 'part']])
    expect(without.build.support.some((s) => s.key === 'entry')).toBe(false)
    expect(
      sourcesOf(without, plug(4.0, 1.65))
        .find((r) => r.source.id === 'adapter-9v')!
        .no.map((n) => n.text),
    ).toContain('no jack of the library takes its plug')
  })
  test('a plug of the other polarity: said where no diode can guard, and where one could', () => {
    const straight = project({
      chip: 'td8-28-dip',
      source: 'adapter-5v',
      devices: [
        ['push-button', 'Go'],
        ['gas-sensor-5v', 'Light'],
      ],
    })
    expect(found(straight)).toEqual([
      [
        'unguarded:source',
        'notes',
        'Another plug that fits the jack of 5 V adapter, 2 A may be the other way round: that puts −5.2 V on TD8-28 DIP and Light, and nothing stops it. Mark the jack “5 V, centre positive”, and measure before it is joined.',
      ],
    ])
    expect(kinds(fedApart())).toEqual([['unguarded:feed', 'notes']])
    const why = (d: Design) =>
      look(d)
        .findings.find((f) => f.check === 'power.plug-fits')!
        .because.at(-1)!.text
    expect(why(straight)).toBe(
      'A diode would take its voltage from the rail, and there is no regulator that makes up for it',
    )
    expect(why(fedApart())).toBe('No diode is planned there')
    const guarded = project({
      chip: 'td8-28-dip',
      source: 'adapter-9v',
      regulator: 'bl5-low',
      devices: [],
    })
    expect(kinds(guarded)).toEqual([])
    const left = look({ ...guarded, build: { support: { 'polarity-diode': 'out' } } }).findings
    expect(left.map((f) => f.text.replace(/\s/g, ' '))).toContain(
      'A plug of the other polarity puts −9 V on a board that stands −500 mV.',
    )
  })
})
