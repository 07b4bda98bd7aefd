// How long cells last, against a discharge gone through in small steps of charge: its own reading of the curve in the file,
// its own sum of the time.

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse, offersFor, sourcesOf } from '../analysis'
import { applyEdits } from '../design'
import { type FaultyFile, findPart, makeLibrary, readPart, type Source } from '../parts'
import { choosing } from '../supply'
import { usedByVoltage } from '.'

const shipped = shippedLibrary()
interface File {
  capacity: Record<'min' | 'typ' | 'max', string>
  discharge: { used: number; voltage: Record<'min' | 'typ' | 'max', number> }[]
  selfDischarge: { typ: number; max: number }
}
const fileOf = (id: string) =>
  JSON.parse(readFileSync(join(__dirname, '../../../library/supply', `${id}.json`), 'utf8')) as File

/** Hours until the voltage at rest is below `stop`, in steps of a ten-thousandth of the charge. */
const goneThrough = (
  { discharge, capacity }: File,
  line: 'min' | 'typ' | 'max',
  amperes: number,
  stop: number,
  perYear: number,
): number => {
  const ampereHours = Number.parseFloat(capacity[line])
  const lost = (ampereHours * perYear) / (365.25 * 24)
  const steps = 10_000
  let hours = 0
  for (let n = 0; n < steps; n++) {
    const used = (n + 0.5) / steps
    const k = discharge.findIndex((p) => p.used >= used)
    const [a, b] = [discharge[k - 1]!, discharge[k]!]
    const volts =
      a.voltage[line] + ((used - a.used) / (b.used - a.used)) * (b.voltage[line] - a.voltage[line])
    if (volts < stop) break
    hours += ampereHours / steps / (amperes + lost)
  }
  return hours
}

test.each<[string, string | undefined, boolean, string?]>([
  // 3.3 V and the drop-out, or the 2.7 V of the amplifier, against the empty cells: three at 2.7 V, four at 3.6 V, two at 1.8 V.
  ['cells-3-aa', 'bl33-sparing', true],
  ['cells-3-nimh', 'bl33-sparing', true],
  ['cell-pouch-2ah', 'bl33-sparing', true],
  ['cells-4-aa', 'bl33-sparing', false],
  // Up to 400 mA through up to 1.2 Ω: only at the worst something stops before they are empty.
  ['cells-4-aa', 'bl33-sparing', true, 'mw2-module'],
  ['cell-iron', undefined, true],
  ['cells-2-aa', undefined, true],
])('%s with %s: at the usual, the worst and the best', (source, regulator, stops, chip = 'td8-28-dip') => {
  const design = applyEdits(
    project({ chip, radio: chip === 'mw2-module', source, devices: [['weight-amplifier', 'Scale']] }),
    [
      regulator
        ? { kind: 'chooseRegulator', part: regulator, name: '' }
        : { kind: 'chooseRegulator', part: null, name: '' },
      { kind: 'setLimit', limit: 'awake', value: 0.01 },
    ],
  )
  const { cells, average, through } = analyse(design, shipped).power
  expect(cells!.stop !== undefined).toBe(stops)
  // Straight from the cells the amplifier stops first: at 2.7 V and what is lost inside them.
  if (!regulator) {
    const R = findPart(shipped, 'source', source)!.resistance!.typ!
    expect(cells!.stop!.value.typ).toBeCloseTo(2.7 + through.value.typ * R, 9)
  }
  const file = fileOf(source)
  const of = (line: 'min' | 'typ' | 'max', current: number, stop: number, perYear: number) =>
    goneThrough(file, line, current, stop, perYear) * 3600
  // Where nothing stops before they are empty, all of it is used.
  const [I, V] = [average.value, cells!.stop?.value ?? { min: 0, typ: 0, max: 0 }]
  const self = file.selfDischarge
  const { min, typ, max } = cells!.runtime.value
  expect(typ / of('typ', I.typ, V.typ, self.typ)).toBeCloseTo(1, 3)
  // The weakest cells, the greatest current, the highest stop; and the other way round.
  expect(min / of('min', I.max, V.max, self.max)).toBeCloseTo(1, 3)
  expect(max / of('max', I.min, V.min, self.typ)).toBeCloseTo(1, 3)
})

test('each line of the sheet turned round gives back its own points', () => {
  const discharge = findPart(shipped, 'source', 'cell-coin')!.discharge!
  const turned = usedByVoltage(discharge)
  expect(turned.map((p) => p.x)).toEqual(turned.map((p) => p.x).toSorted((a, b) => a - b))
  for (const line of ['min', 'typ', 'max'] as const)
    for (const { used, voltage } of discharge)
      expect(turned.find((p) => p.x === voltage[line])!.y[line]).toBeCloseTo(used, 12)
})

test('without a curve they fall evenly, and it is said; without what they lose, that is said', () => {
  const aa = findPart(shipped, 'source', 'cells-2-aa')!
  const library = makeLibrary([
    ...Object.values(shipped.parts).filter((p) => p.id !== aa.id),
    { ...aa, discharge: undefined, selfDischarge: undefined },
  ])
  const { cells, average } = analyse(
    project({ chip: 'td8-28-dip', source: 'cells-2-aa', devices: [] }),
    library,
  ).power
  const V = cells!.stop!.value.typ
  // From 3.2 V to 1.8 V in a straight line
  expect(cells!.usable!.value.typ).toBeCloseTo(Math.min(1, (3.2 - V) / 1.4), 9)
  expect(cells!.usable!.note).toContain('evenly')
  expect(cells!.runtime.note).toContain('What they lose by themselves is not in their file')
  expect(cells!.runtime.value.typ).toBeCloseTo((2.3 * 3600 * cells!.usable!.value.typ) / average.value.typ, 3)
})

test.each<[string, (s: Source) => void, string]>([
  ['begins with some of it used', (s) => (s.discharge![0]!.used = 0.02), 'discharge[0].used'],
  ['ends before it is empty', (s) => (s.discharge!.at(-1)!.used = 0.99), 'discharge[8].used'],
  ['goes back', (s) => (s.discharge![3]!.used = 0.1), 'discharge[3].used'],
  ['rises', (s) => (s.discharge![3]!.voltage.max = 4.7), 'discharge[3].voltage'],
])('a curve that %s is refused where it does', (_, spoil, path) => {
  const file = fileOf('cells-3-aa') as unknown as Source
  spoil(file)
  try {
    readPart(file, 'x')
    expect('read').toBe('refused')
  } catch (error) {
    expect((error as FaultyFile).faults?.map((f) => f.path)).toEqual([path])
  }
})

describe('what sits on a lithium cell', () => {
  const fed = (source: string, more: { regulator?: string; feed?: string } = {}) =>
    applyEdits(project({ chip: 'td8-28-dip', source, devices: [['weight-amplifier', 'Scale']], ...more }), [
      { kind: 'setLimit', limit: 'awake', value: 0.01 },
    ])
  const rated = (of: { min?: number; typ: number; max?: number }) => ({ ...of, kind: 'typical' as const })
  const withProtection = (protection: Source['protection']) => {
    const cell = structuredClone(findPart(shipped, 'source', 'cell-pouch-2ah')!)
    return { parts: { ...shipped.parts, [cell.id]: { ...cell, protection } } }
  }
  const found = (of: ReturnType<typeof fed>, library: Parameters<typeof analyse>[1] = shipped) =>
    analyse(of, library)
      .findings.filter((f) => f.check === 'power.cell-protection')
      .map((f) => [f.id.replace('power.cell-protection:', ''), f.severity, f.grade])

  test('a bare one is a risk, as a source and as a second feed; one with a board on it is offered', () => {
    expect(found(fed('cell-pouch-bare', { regulator: 'bl33-sparing' }))).toEqual([
      ['none:source', 'risks', 'typical'],
    ])
    expect(found(fed('usb-port', { feed: 'cell-pouch-bare' }))).toEqual([['none:feed', 'risks', 'typical']])
    const bare = fed('cell-pouch-bare', { regulator: 'bl33-sparing' })
    const before = analyse(bare, shipped)
    const of = before.findings.find((f) => f.check === 'power.cell-protection')!
    // Empty at 3.0 V, table 1 of its sheet.
    expect(of.text).toMatch(/emptied below 3\sV: .*may catch fire/)
    const { offers } = offersFor(before, shipped, of)
    // A board that stands between: of those for 4.2 V the cheapest first; one that opens at 3.85 V would end charging early.
    expect(offers.map((o) => o.fix.label)).toEqual([
      'Put CG42 cell guard between it and all else',
      'Put CG42 strong cell guard between it and all else',
      'Take lithium pouch cell, 2 Ah',
    ])
    for (const { fix } of offers)
      expect([fix.label, found(applyEdits(bare, fix.edits))]).toEqual([fix.label, []])
    // Neither what is not lithium, nor what is not charged again.
    for (const other of ['cells-3-nimh', 'cells-3-aa', 'cell-coin', 'usb-port'])
      expect([other, found(fed(other))]).toEqual([other, []])
    const ranked = sourcesOf(before, shipped).filter((r) => r.source.id.startsWith('cell-'))
    for (const { source, no } of ranked)
      expect([
        source.id,
        no.some((n) => n.text === 'nothing on it keeps it from being emptied too far'),
      ]).toEqual([source.id, ['cell-pouch-bare', 'cell-iron'].includes(source.id)])
  })

  const fiveMotors = () =>
    analyse(
      project({
        chip: 'td8-28-dip',
        source: 'cell-pouch-2ah',
        regulator: 'bl33-sparing',
        devices: Array.from(
          { length: 5 },
          (_, n) => ['wheel-motor', `M${n}`, undefined, { fedBy: 'source' }] as const,
        ).map((d) => [...d]),
      }),
      shipped,
    )

  test('one that opens at what is drawn: from its least on a risk, usually a stop', () => {
    const { value } = analyse(fed('cell-pouch-2ah', { regulator: 'bl33-sparing' }), shipped).power.fromSource
    const opensAt = (min: number, typ: number) =>
      found(
        fed('cell-pouch-2ah', { regulator: 'bl33-sparing' }),
        withProtection({ voltage: rated({ typ: 2.5 }), current: rated({ min, typ, max: 2 * typ }) }),
      )
    expect(value.max).toBeGreaterThan(value.typ)
    expect(opensAt(value.max * 1.001, value.max * 2)).toEqual([])
    expect(opensAt(value.max * 0.999, value.max * 2)).toEqual([
      ['opens:source', 'risks', 'outside the sheet'],
    ])
    // 3 A at the least, table 3 of its sheet; five motors of 0.8 A, stalled.
    expect(fiveMotors().findings.find((f) => f.check === 'power.cell-protection')!.text).toMatch(
      /may open at 3\sA, and up to 4\sA are drawn: all goes dark/,
    )
    expect(opensAt(value.typ * 0.5, value.typ * 0.999)).toEqual([['opens:source', 'stops', 'typical']])
  })

  test('one that opens at 3.6 V ends it there, whatever the regulator could still do', () => {
    // 3.3 V and the drop-out, lower than 3.6 V; what is lost inside the cell comes on top: 80 mΩ usually.
    const of = (protection: Source['protection']) =>
      analyse(fed('cell-pouch-2ah', { regulator: 'bl33-sparing' }), withProtection(protection)).power
    const [low, high] = [2.5, 3.6].map((typ) => of({ voltage: rated({ typ }), current: rated({ typ: 4 }) }))
    expect(low!.cells!.stop!.value.typ).toBeLessThan(3.6)
    expect(high!.cells!.stop!.value.typ).toBeCloseTo(3.6 + high!.through.value.typ * 0.08, 9)
    expect(high!.runtime!.value.typ).toBeCloseTo(
      goneThrough(
        fileOf('cell-pouch-2ah'),
        'typ',
        high!.average.value.typ,
        high!.cells!.stop!.value.typ,
        0.25,
      ) * 3600,
      -4,
    )
    expect(high!.runtime!.value.typ).toBeLessThan(low!.runtime!.value.typ)
  })

  describe('a board beside the cell', () => {
    const beside = (source: string, board: string, more: Partial<Parameters<typeof project>[0]> = {}) =>
      applyEdits(fed(source, { regulator: 'bl33-sparing', ...more }), [
        { kind: 'changeLead', of: 'source', change: { protection: board }, what: board },
      ])
    const bare = analyse(fed('cell-pouch-bare', { regulator: 'bl33-sparing' }), shipped)
    const guarded = analyse(beside('cell-pouch-bare', 'cg42-single'), shipped)

    test('45 to 70 mΩ in the minus, and 3 to 6 µA out of the cell all the time', () => {
      const [lead] = guarded.power.leads
      expect(lead!.resistance.value).toEqual({ min: 0.045, typ: 0.045, max: 0.07 })
      const I = guarded.power.fromSource.value
      expect(I.typ).toBeCloseTo(bare.power.fromSource.value.typ + 3e-6, 12)
      expect(I.max).toBeCloseTo(bare.power.fromSource.value.max + 6e-6, 12)
      expect(lead!.drop.value.max).toBeCloseTo(I.max * 0.07, 12)
      expect(guarded.power.average.value.typ).toBeCloseTo(bare.power.average.value.typ + 3e-6, 12)
      const own = guarded.power.consumers.find((c) => c.name === 'CG42 cell guard')!
      expect([own.rest.value.max, own.work.value.max, own.from]).toEqual([6e-6, 6e-6, 'source'])
      // 80 mΩ of the cell and 45 of the board.
      expect(guarded.power.input!.value.typ).toBeCloseTo(3.7 - guarded.power.through.value.typ * 0.125, 9)
    })

    // Two guards in a row, and the first to open decides; the cell is empty at 3 V, and 3.3 V with the drop-out are below 3.7 V.
    test.each([
      [3.7, 3.75, 3.75],
      [3.75, 3.7, 3.75],
    ])('%d V of the cell’s own and %d V of the board: it ends at %d V', (own, board, ends) => {
      const library = withProtection({ voltage: rated({ typ: own }), current: rated({ typ: 4 }) })
      const guard = findPart(shipped, 'protection', 'cg42-strong')!
      const { power } = analyse(beside('cell-pouch-2ah', guard.id), {
        parts: { ...library.parts, [guard.id]: { ...guard, voltage: rated({ typ: board }) } },
      })
      // 80 mΩ of the cell and 16 of the board.
      expect(power.cells!.stop!.value.typ).toBeCloseTo(ends + power.through.value.typ * 0.096, 9)
    })

    // What the cells are charged to and stand: pouch 4.15 to 4.25 V, empty at 3 V; iron 3.5 to 3.65 V, empty at 2.5 V.
    test.each<[string, string, string[][]]>([
      ['cell-pouch-bare', 'cg42-single', []],
      // Opens at 2.88 V at the most, full at 4.305 V at the most: within 0.1 V of 4.25 V.
      ['cell-pouch-bare', 'cg42-strong', []],
      ['cell-pouch-bare', 'cg36-iron', [['ends-charging-early:source', 'risks', 'outside the sheet']]],
      ['cell-iron', 'cg36-iron', []],
      [
        'cell-iron',
        'cg42-single',
        [
          ['lets-it-be-overcharged:source', 'stops', 'outside the sheet'],
          ['opens-early:source', 'notes', 'outside the sheet'],
        ],
      ],
      ['cells-3-aa', 'cg42-single', [['no-cell:source', 'risks', 'typical']]],
      ['usb-port', 'cg36-iron', [['no-cell:source', 'risks', 'typical']]],
    ])('%s behind %s', (source, board, told) => {
      expect(found(beside(source, board))).toEqual(told)
    })

    test('ends of ranges count: one that may end charging early, one that may open early; what is offered is another', () => {
      const guard = findPart(shipped, 'protection', 'cg42-single')!
      const behind = (more: object) =>
        analyse(beside('cell-pouch-bare', guard.id), {
          parts: { ...shipped.parts, [guard.id]: { ...guard, ...more } },
        }).findings.find((f) => f.check === 'power.cell-protection')
      // Full from 4.15 V on, empty at 3 V.
      expect(behind({ full: rated({ min: 4.14, typ: 4.2, max: 4.25 }) })!.id).toMatch(/ends-charging-early/)
      expect(behind({ full: rated({ min: 4.15, typ: 4.2, max: 4.25 }) })).toBeUndefined()
      const early = behind({ voltage: rated({ min: 2.8, typ: 2.9, max: 3.05 }) })!
      expect(early.text).toMatch(/may open at 3\.05\sV, while .* is empty at 3\sV/)
      expect(early.fixes.map((f) => f.label)).toEqual(['Take CG42 strong cell guard'])
    })

    // BC42 brings a cell to 4.158 to 4.242 V.
    test.each([
      [4.24, true],
      [4.242, false],
    ])('a board that may end charging at %d V before a charger of 4.242 V at the most: %s', (min, told) => {
      const guard = findPart(shipped, 'protection', 'cg42-single')!
      const of = analyse(
        applyEdits(beside('cell-pouch-bare', guard.id), [
          { kind: 'changeCharging', change: { charger: 'bc42-single', from: 'usb-port' }, what: '' },
        ]),
        { parts: { ...shipped.parts, [guard.id]: { ...guard, full: rated({ min, typ: 4.28, max: 4.31 }) } } },
      ).findings.find((f) => f.check === 'power.cell-protection')
      expect([of?.id, of?.severity]).toEqual(
        told ? ['power.cell-protection:cuts-off-charger:source', 'notes'] : [undefined, undefined],
      )
      if (told) expect(of!.fixes.map((f) => f.label)).toEqual(['Take CG42 strong cell guard'])
    })

    test('what is made for another cell is exchanged, or left out where there is none to guard', () => {
      const before = analyse(beside('cell-iron', 'cg42-single'), shipped)
      const of = before.findings.find((f) => f.id.includes('overcharged'))!
      expect(of.text).toMatch(/charged up to 4\.31\sV, and .* stands 3\.65\sV: .*may burn/)
      const { offers } = offersFor(before, shipped, of)
      expect(offers.map((o) => o.fix.label)).toEqual(['Take CG36 iron-cell guard'])
      expect(found(applyEdits(before.design, offers[0]!.fix.edits))).toEqual([])
      const needless = analyse(beside('cells-3-aa', 'cg42-single'), shipped)
      const { offers: out } = offersFor(
        needless,
        shipped,
        needless.findings.find((f) => f.check === 'power.cell-protection')!,
      )
      expect(out.map((o) => o.fix.label)).toEqual(['Leave CG42 cell guard out'])
    })

    // 2.5 A at the least, 3.2 A usually; five motors stalled take 4 A.
    test('one that opens at what is drawn is told by its name, with one that stands it', () => {
      const motors = analyse(
        applyEdits(
          { ...fiveMotors().design, power: { source: 'cell-pouch-bare', regulator: 'bl33-sparing' } },
          [{ kind: 'changeLead', of: 'source', change: { protection: 'cg42-single' }, what: '' }],
        ),
        shipped,
      )
      const of = motors.findings.find((f) => f.id === 'power.cell-protection:board-opens:source')!
      expect(of.text).toMatch(/^CG42 cell guard may open at 2\.5\sA, and up to 4\sA are drawn/)
      expect(of.fixes.map((f) => f.label)).toEqual(['Take CG42 strong cell guard'])
    })

    test('ranked sources: a bare cell that it guards is no longer refused for that; other cells and adapters are', () => {
      const why = (id: string) =>
        sourcesOf(guarded, shipped)
          .find((r) => r.source.id === id)!
          .no.map((n) => n.text)
          .filter((t) => /guard|emptied/.test(t))
      expect(why('cell-pouch-bare')).toEqual([])
      expect(why('cell-pouch-2ah')).toEqual([])
      expect(why('cell-iron')).toEqual(['CG42 cell guard is made for another cell'])
      // What is no lithium cell is tried without it, and chosen without it.
      const charger = sourcesOf(guarded, shipped).find((r) => r.source.id === 'usb-charger')!
      expect([charger.no, charger.unsure.map((u) => u.text)]).toEqual([
        [],
        ['CG42 cell guard goes, there is no cell to guard'],
      ])
      const plugged = applyEdits(guarded.design, charger.edits)
      expect([plugged.power.source, plugged.power.lead, found(plugged)]).toEqual([
        'usb-charger',
        undefined,
        [],
      ])
    })

    // 4.22 V / 80 mΩ = 52.8 A into a short of the cell alone; the wire carries some amperes.
    test.each([
      [
        'cell-pouch-2ah',
        undefined,
        /the protection of lithium pouch cell, 2 Ah is made to guard the cell.*may burn$/,
      ],
      [
        'cell-pouch-bare',
        'cg42-single',
        /CG42 cell guard is made to guard the cell, and no fuse guards the wire: it may burn$/,
      ],
      ['cell-pouch-bare', undefined, /and without a fuse nothing stops it: it burns$/],
    ])(
      'a wire without a fuse behind %s and %s: what guards a cell is no fuse',
      (source, protection, words) => {
        const a = analyse(
          applyEdits(fed(source, { regulator: 'bl33-sparing' }), [
            {
              kind: 'changeLead',
              of: 'source',
              change: { wire: 'wire-0-5', length: 0.2, protection },
              what: '',
            },
          ]),
          shipped,
        )
        expect(a.findings.find((f) => f.check === 'power.no-fuse')!.text.replace(/\.$/, '')).toMatch(words)
      },
    )

    // On every way of choosing: what is no lithium cell is chosen without it.
    test('whatever offers another source takes the board out with the cell', () => {
      const weak = analyse(
        applyEdits(guarded.design, [{ kind: 'chooseSource', part: 'usb3-port', name: '' }]),
        {
          parts: {
            ...shipped.parts,
            'usb3-port': {
              ...findPart(shipped, 'source', 'usb3-port')!,
              unasked: { max: 1e-3, kind: 'recommended' },
            },
          },
        },
      )
      const of = weak.findings.find((f) => f.check === 'power.usb-unasked')!
      expect(of.fixes.length).toBeGreaterThan(0)
      for (const fix of of.fixes)
        expect([fix.label, applyEdits(weak.design, fix.edits).power.lead]).toEqual([fix.label, undefined])
    })

    test('the one of the second feed goes with the second feed, and not with the source', () => {
      const led = { wire: 'wire-0-5', length: 0.2 }
      const behind = { ...led, protection: 'cg42-single' }
      const charger = findPart(shipped, 'source', 'usb-charger')!
      const power = { source: 'cell-pouch-bare', feed: 'cell-pouch-bare', lead: led, feedLead: behind }
      const after = (of: 'source' | 'feed') => {
        const design = { ...guarded.design, power }
        return applyEdits(design, choosing(of, charger, design, shipped)).power
      }
      expect([after('source').lead, after('source').feedLead]).toEqual([led, behind])
      expect([after('feed').lead, after('feed').feedLead]).toEqual([led, led])
    })

    // A diode has one current, and so one voltage: what is no cell and has one is not tapped in front of it.
    test('before an adapter it draws behind the diode of the plug', () => {
      const { power } = analyse(beside('adapter-9v', 'cg42-single'), shipped)
      expect(power.polarity?.present).toBe(true)
      expect(power.consumers.find((c) => c.id === 'protection.source')!.from).toBe('source')
      expect(power.through).toBe(power.loads.rails.source!.loaded)
    })

    test('built: bought once, put between cell and lead, and not measured through without a cell', () => {
      const led = analyse(
        applyEdits(beside('cell-pouch-bare', 'cg42-single'), [
          { kind: 'changeLead', of: 'source', change: { wire: 'wire-0-75', length: 0.2 }, what: '' },
        ]),
        shipped,
      )
      expect(led.build.parts.filter((r) => r.part === 'cg42-single').map((r) => [r.count, r.total])).toEqual([
        [1, 0.9],
      ])
      const step = (a: typeof led) => a.build.steps.find((s) => s.title === 'Lead from the source')!
      expect(step(led).does.join(' ')).toMatch(
        /CG42 cell guard between lithium pouch cell, 2 Ah, bare and all else: .*minus before plus.*never to the cell itself/,
      )
      // The wire alone, and 1 Ω of the meter; 70 mΩ of the board are not in it.
      const wire = led.power.leads[0]!.resistance.value.max - 0.07
      expect(step(led).checks[0]!.expect.max).toBeCloseTo(1 + wire, 9)
      expect(step(led).checks[0]!.where).toMatch(/CG42 cell guard not yet in/)
      // Alone there is nothing to measure before the cell is in.
      expect(step(guarded).checks.map((c) => c.powered)).toEqual([true])
      expect(step(guarded).cautions).toContain('lithium')
    })
  })
})
