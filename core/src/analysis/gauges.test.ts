// The five numbers, what a change is said to do, what is offered, and questions asked by themselves: by hand.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { applyEdits, type Edit, emptyDesign } from '../design'
import { carrierOf } from '../carrier'
import type { Finding, Severity } from '../findings'
import type { Device } from '../parts'
import { steps } from '../patience'
import {
  analyse,
  type Analysis,
  candidateOf,
  compareAnalyses,
  gaugeChange,
  gaugeText,
  isBetter,
  nextPlansOf,
  offersFor,
  otherBoardsOf,
  type Preview,
  previewEdits,
  proposalsFor,
  reachIn,
  variantsOf,
} from '.'

const library = shippedLibrary()
const gauges = (a: Analysis) =>
  a.gauges.map((g) => [g.id, g.label, g.corner, g.limit, g.worked ? 'a number' : g.instead])

test('of an empty project there is nothing to compute, and each gauge says why', () => {
  expect(gauges(analyse(emptyDesign('Empty'), library))).toEqual([
    ['budget', 'Peak current', 'max', undefined, 'nothing draws yet'],
    ['runtime', 'Runtime', 'min', undefined, 'no source yet'],
    ['hottest', 'Hottest part', 'max', undefined, 'no source yet'],
    ['pins', 'Legs left', 'typ', undefined, 'no chip yet'],
    ['price', 'Parts', 'typ', undefined, 'no board yet'],
  ])
})

const lamp = () =>
  project({ chip: 'td8-08-dip', source: 'cells-3-aa', devices: [['lamp-red', 'Lamp', 'to-ground']] })
const withLimits = (current?: number, price?: number) => {
  const d = lamp()
  return { ...d, needs: { ...d.needs, limits: { ...d.needs.limits, current, price } } }
}

test('of a lamp on three cells: the highest current, the shortest runtime, the legs, the price; limits where there are any', () => {
  expect(gauges(analyse(withLimits(0.05, 20), library))).toEqual([
    ['budget', 'Budget used', 'max', 0.05, 'a number'],
    ['runtime', 'Runtime', 'min', undefined, 'a number'],
    // The chip and the lamp’s resistor get warm, if hardly.
    ['hottest', 'Hottest part', 'max', undefined, 'a number'],
    ['pins', 'Legs left', 'typ', undefined, 'a number'],
    ['price', 'Parts', 'typ', 20, 'a number'],
  ])
})

test('what runs on a plug has no end; cells from which nothing draws neither', () => {
  const runtime = (a: Analysis) => a.gauges.find((g) => g.id === 'runtime')!
  const onPlugged = analyse(project({ chip: 'td8-08-dip', devices: [] }), library)
  const onPlug = runtime(onPlugged)
  expect([onPlug.worked, onPlug.instead]).toEqual([undefined, 'no end: not on cells'])
  const idle = { ...emptyDesign('Idle'), power: { source: 'cells-3-aa' } }
  const alone = analyse(idle, library)
  expect(runtime(alone).instead).toBe('nothing draws current yet')
  expect(alone.gauges.find((g) => g.id === 'hottest')!.instead).toBe('no heat to speak of')
})

test('legs: none counted while there is no plan, and whether that is known', () => {
  const legs = (a: Analysis) => {
    const g = a.gauges.find((x) => x.id === 'pins')!
    return g.worked?.value.typ ?? g.instead
  }
  // Eight legs: two for the supply, one for reset. Five are left, the lamp takes one.
  expect(legs(analyse(lamp(), library))).toBe(4)
  const many = project({ chip: 'td8-08-dip', devices: [['lamp-red', 'Lamps', 'to-ground', { count: 6 }]] })
  expect(legs(analyse(many, library))).toBe('no plan')
  const large = project({
    chip: 'td8-28-dip',
    devices: [
      ['lamp-red', 'Lamps', 'dimmed', { count: 5 }],
      ['glow-display', 'Display'],
      ['servo', 'Servo'],
    ].filter(([part]) => library.parts[part as string]) as never,
  })
  expect(legs(analyse(large, library, steps(0)))).toBe('not decided')
})

test('a runtime in hours and days, a price in euro, the rest with three digits and its unit', () => {
  const a = analyse(withLimits(), library)
  const g = (id: string) => a.gauges.find((x) => x.id === id)!
  expect(gaugeText(g('runtime'), 3 * 86_400)).toBe('3 days')
  expect(gaugeText(g('price'), 3.1)).toBe('€ 3.10')
  expect(gaugeText(g('budget'), 0.012345)).toBe('12.3 mA')
  expect(gaugeText(g('hottest'), 106.4)).toBe('106 °C')
  // Nothing lives to be that hot: the sum goes on, the words don’t.
  expect(gaugeText(g('hottest'), 6290)).toBe('far more than 300 °C')
  expect([6000, -6000, 12, -12].map((by) => gaugeChange(g('hottest'), by))).toEqual([
    'far hotter',
    'far cooler',
    '+12 °C',
    '−12 °C',
  ])
  expect(gaugeChange(g('budget'), -0.5)).toBe('−500 mA')
})

describe('what a change does', () => {
  const before = analyse(withLimits(), library)
  const does = (...edits: Edit[]) => previewEdits(before, library, edits)

  test('nothing, where nothing changes', () => {
    const nothing = compareAnalyses(before, before)
    expect(nothing).toEqual({ lines: [], cleared: [], appearing: [] })
  })

  test('a lamp more: its resistor comes, a leg goes, current and price rise', () => {
    const { lines } = does({ kind: 'addDevices', devices: [{ part: 'lamp-red', name: 'Second', count: 1 }] })
    // The same red lamp at 5 mA as the first, so the same resistor.
    const marking = before.build.support.find((s) => s.key === 'led:d1.1.light')!.value!.marking
    expect(lines).toContain(`adds the series resistor of Second ${marking}`)
    expect(lines).toContain('legs left: 4 becomes 3')
    expect(lines.some((l) => /^peak current: [\d.]+ mA becomes [\d.]+ mA$/.test(l))).toBe(true)
    expect(lines.filter((l) => l.startsWith('parts: € '))).toHaveLength(1)
    expect(lines.some((l) => l.includes('moves') || l.startsWith('removes'))).toBe(false)
  })

  test('the lamp gone: its resistor goes', () => {
    const { lines } = does({ kind: 'removeDevice', id: 'd1' })
    const marking = before.build.support.find((s) => s.key === 'led:d1.1.light')!.value!.marking
    expect(lines).toContain(`removes the series resistor of Lamp ${marking}`)
    expect(lines).toContain('legs left: 4 becomes 5')
  })

  test('a darker lamp: another value in the same place', () => {
    const { lines } = does({ kind: 'setSetting', id: 'd1', setting: 'light.current', value: 1e-3 })
    const marking = before.build.support.find((s) => s.key === 'led:d1.1.light')!.value!.marking
    const line = lines.find((l) => l.includes('becomes') && l.startsWith('series resistor'))
    expect(line).toMatch(new RegExp(`^series resistor of Lamp ${marking} becomes \\S+$`))
    expect(lines.some((l) => l.startsWith('adds') || l.startsWith('removes'))).toBe(false)
  })

  test('another part in the same place, by its name', () => {
    const on9 = project({ chip: 'td8-28-dip', source: 'adapter-9v', regulator: 'br5-small', devices: [] })
    const { lines } = previewEdits(analyse(on9, library), library, [
      { kind: 'chooseRegulator', part: 'bl5-cool', name: 'BL5 cool 5 V' },
    ])
    expect(lines).toContain('regulator: BR5 small 5 V becomes BL5 cool 5 V')
  })

  test('a wire put elsewhere: from where to where', () => {
    const at = before.pins.assignment['d1.1.light']!
    const other = before.pins.plan!.free.map((f) => f.id).find((id) => id !== at)!
    const { lines } = does({ kind: 'lockSignal', signal: 'd1.1.light', name: 'Lamp', pin: other })
    expect(lines[0]).toBe(`Lamp moves from ${at} to ${other}`)
    expect(lines.filter((l) => l.includes('moves'))).toHaveLength(1)
  })

  test('findings that clear, come, or become worse', () => {
    const six = analyse(
      project({
        chip: 'td8-08-dip',
        source: 'cells-3-aa',
        devices: [['lamp-red', 'Lamp', 'to-ground', { count: 6 }]],
      }),
      library,
    )
    const clash = compareAnalyses(before, six).appearing.filter((f) => f.severity === 'stops')
    expect(clash.length).toBeGreaterThan(0)
    expect(compareAnalyses(six, before).cleared).toEqual(expect.arrayContaining(clash))
    // The same finding, milder: the one clears, the other appears.
    const [stop] = clash
    const milder: Analysis = {
      ...six,
      findings: six.findings.map((f) => (f === stop ? { ...f, severity: 'risks' } : f)),
    }
    const step = compareAnalyses(six, milder)
    expect(step.cleared).toEqual([stop])
    expect(step.appearing.map((f) => [f.id, f.severity])).toEqual([[stop!.id, 'risks']])
  })
})

describe('what is offered', () => {
  const finding = (id: string, severity: Severity) => ({ id, severity }) as Finding
  const preview = (cleared: Finding[], appearing: Finding[]): Preview => ({ lines: [], cleared, appearing })

  // What helps clears what it is for, and brings nothing as bad; against a note another note is no harm.
  test.each<[Severity, Severity | undefined, boolean]>([
    ['stops', undefined, true],
    ['stops', 'stops', false],
    ['stops', 'risks', true],
    ['stops', 'notes', true],
    ['risks', 'stops', false],
    ['risks', 'risks', false],
    ['risks', 'notes', true],
    ['notes', 'stops', false],
    ['notes', 'risks', false],
    ['notes', 'notes', true],
  ])('against what %s, bringing what %s: %s', (against, brings, helps) => {
    const it = finding('it', against)
    const appearing = brings ? [finding('other', brings)] : []
    expect(isBetter(it, preview([it], appearing))).toBe(helps)
    expect(isBetter(it, preview([], appearing))).toBe(false)
    expect(isBetter(it, preview([finding('another', against)], appearing))).toBe(false)
  })

  const tooMany = analyse(
    project({ chip: 'td8-08-dip', devices: [['lamp-red', 'Lamp', 'to-ground', { count: 6 }]] }),
    library,
  )
  const clash = tooMany.findings.find((f) => f.check === 'pins.clash')!

  test('what could not be tried in the time given is named, and not offered', () => {
    const proposed = proposalsFor(tooMany, library, clash).map((f) => f.label)
    expect(proposed.length).toBeGreaterThan(0)
    const none = offersFor(tooMany, library, clash, steps(0))
    expect(none.offers).toEqual([])
    const all = offersFor(tooMany, library, clash)
    expect(all.untried).toEqual([])
    expect(all.offers.length).toBeGreaterThan(0)
    for (const { fix, preview: shown } of all.offers) {
      expect(proposed).toContain(fix.label)
      expect(shown.cleared.map((f) => f.id)).toContain(clash.id)
    }
  })

  test('a finding that is not there, or whose rule there is not, has no proposals', () => {
    expect(proposalsFor(tooMany, library, { id: 'none', check: 'pins.clash' })).toEqual([])
    expect(proposalsFor(tooMany, library, { id: clash.id, check: 'no.such' })).toEqual([])
  })
})

describe('questions about a project that has little', () => {
  const empty = analyse(emptyDesign('Empty'), library)
  test('a chip put into an empty project: nothing has moved', () => {
    const { lines } = previewEdits(empty, library, [{ kind: 'chooseChip', part: 'td8-08-dip', name: '' }])
    expect(lines.filter((l) => l.includes('moves'))).toEqual([])
    expect(lines.filter((l) => l.startsWith('removes'))).toEqual([])
  })
  test('without a chip there are no further plans, and nobody says that these are all', () => {
    expect(nextPlansOf(emptyDesign('Empty'), library)).toEqual({ plans: [], complete: false })
    expect(reachIn(emptyDesign('Empty'), library, 'd1.1.light')).toEqual([])
    expect(candidateOf(emptyDesign('Empty'), library, 'no-such')).toBeUndefined()
  })
  test('of a device as some maker has it, the sheet’s own version is another; what has no versions has no verdict', () => {
    const part = Object.values(library.parts).find(
      (p) => p.kind === 'device' && (p.variants?.length ?? 0) > 0,
    ) as Device
    const [chosen] = part.variants!
    const verdicts = variantsOf(
      project({
        chip: 'td8-28-dip',
        devices: [
          [part.id, 'One', undefined, { variant: chosen!.id }],
          ['lamp-red', 'Lamp'],
        ],
      }),
      library,
    )
    expect(verdicts).toHaveLength(part.variants!.length)
    expect(verdicts[0]).toMatchObject({
      need: 'd1',
      name: 'One',
      variant: undefined,
      label: 'as in the sheet',
      tried: true,
    })
    expect(verdicts.some((v) => v.variant === chosen!.id || v.need === 'd2')).toBe(false)
  })
  test('of two findings of one rule each has its own proposals', () => {
    const two = analyse(
      project({
        chip: 'mw2-module',
        regulator: 'bl33-low',
        devices: [
          ['track-sensor', 'Left', 'plain', { fedBy: 'source' }],
          ['track-sensor', 'Right', 'plain', { fedBy: 'source' }],
        ],
      }),
      library,
    )
    const levels = two.findings.filter((f) => f.check === 'pins.level')
    expect(levels).toHaveLength(2)
    const edits = levels.map((f) => JSON.stringify(proposalsFor(two, library, f).map((x) => x.edits)))
    expect(edits[0]).toMatch(/d1\.1\.OUT/)
    expect(edits[1]).toMatch(/d2\.1\.OUT/)
    expect(edits[1]).not.toMatch(/d1\.1\.OUT/)
  })
})

describe('what was given up on the way says nothing for sure', () => {
  const lamps = project({ chip: 'td8-08-dip', devices: [['lamp-red', 'Lamp', 'to-ground', { count: 6 }]] })
  const before = analyse(lamps, library)
  const clash = before.findings.find((f) => f.check === 'pins.clash')!
  test('a change whose plan was not found out is not offered, whatever else it clears', () => {
    const whole = offersFor(before, library, clash).offers.map((o) => o.fix.label)
    expect(whole.length).toBeGreaterThan(0)
    // Enough to make the proposals, and for nothing after that.
    let asked = 0
    const counting = { spent: () => (asked++, false) }
    proposalsFor(before, library, clash, counting)
    const hurried = offersFor(before, library, clash, steps(asked + 2))
    expect(hurried.untried.length).toBeGreaterThan(0)
    for (const label of hurried.untried) expect(hurried.offers.map((o) => o.fix.label)).not.toContain(label)
    expect(
      new Set([...hurried.untried, ...hurried.offers.map((o) => o.fix.label)]).size,
    ).toBeGreaterThanOrEqual(whole.length)
  })
  test('further plans end with the patience, and say that they are not all', () => {
    const d = project({
      chip: 'td8-28-dip',
      devices: [
        ['lamp-red', 'Lamps', 'to-ground', { count: 4 }],
        ['push-button', 'Buttons', 'to-ground', { count: 3 }],
      ],
    })
    const analysis = analyse(d, library)
    expect(analysis.pins.plan?.status).toBe('proven')
    const all = nextPlansOf(d, library, undefined, analysis)
    const none = nextPlansOf(d, library, steps(0), analysis)
    expect(all.plans.length).toBeGreaterThan(0)
    expect(none.plans.length).toBeLessThan(all.plans.length)
    expect(none.complete).toBe(false)
  })
})

test('on another board each wire is judged where its position lies there', () => {
  const held = (locks: Record<string, string>) => {
    const d = project({ chip: 'trestle-32', source: 'adapter-9v', devices: [['push-button', 'Go']], locks })
    const both = applyEdits(d, [
      { kind: 'setAlso', part: 'trestle-plain', name: '', on: true },
      { kind: 'setAlso', part: 'trestle-radio', name: '', on: true },
    ])
    return Object.fromEntries(
      otherBoardsOf(both, library).map((b) => [b.id, b.findings.some((f) => f.check === 'pins.strap-held')]),
    )
  }
  // The header position whose leg on the radio board must be low at start: a button with a pull-up holds it high.
  const radio = carrierOf(library, 'trestle-radio')!
  const strap = radio.pins.find((p) =>
    p.attributes?.some((a) => a.kind === 'strap' && a.needs === 'low' && p.places),
  )!
  const here = carrierOf(library, 'trestle-32')!.pins.find((p) => p.places?.includes(strap.places![0]!))!
  expect(held({ 'd1.1.contact': here.id })).toEqual({ 'trestle-plain': false, 'trestle-radio': true })
  // Left to the planner it lies elsewhere, on all three.
  expect(held({})).toEqual({ 'trestle-plain': false, 'trestle-radio': false })
})
