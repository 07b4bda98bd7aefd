// The budget: what is used, what is over, and what could be given up, each against the project in which it has been given up.

import { join } from 'node:path'
import { demo, shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { shelf } from '../../test/referee/files'
import { randomProject } from '../../test/referee/projects'
import { deep, firstSeed } from '../../test/share'
import { applyEdits, type Design, type Edit, emptyDesign, type LimitName, readDesign } from '../design'
import { findPart, makeLibrary } from '../parts'
import { steps, usualPatience } from '../patience'
import {
  type Analysis,
  analyse,
  type BudgetName,
  budgetOf,
  budgets,
  type GivingUp,
  giveUps,
  harms,
  trendOf,
} from '.'

const library = shippedLibrary()
const look = (d: Design) => analyse(d, library, steps(20_000))
const limited = (d: Design, limit: LimitName, value: number) =>
  applyEdits(d, [{ kind: 'setLimit', limit, value }])
const lineOf = (a: Analysis, name: BudgetName) => budgetOf(a).find((l) => l.name === name)!
/** At the corner that counts: the shortest runtime, the most of all else. */
const valueIn = (a: Analysis, name: BudgetName) => {
  const { used } = lineOf(a, name)
  return name === 'runtime' ? (used?.value.min ?? Infinity) : (used?.value.max ?? 0)
}

describe('what is used', () => {
  test('a day’s energy is what flows, at the voltages of what it flows from, for 24 hours: of the second feed too', () => {
    const bare = project({ chip: 'td8-28-dip', source: 'adapter-5v', devices: [] })
    const fan = (feed: boolean) =>
      look(
        applyEdits(project({ chip: 'td8-28-dip', source: 'adapter-5v', devices: [['fan-5v', 'Fan']] }), [
          ...(feed
            ? ([
                { kind: 'chooseFeed', part: 'adapter-5v-heavy', name: '' },
                { kind: 'setFedBy', id: 'd1', by: 'feed' },
              ] satisfies Edit[])
            : []),
        ]),
      )
    const without = look(bare).power.energy!.value.max
    const [one, other] = [fan(false), fan(true)]
    // What the fan takes on average, by its own line among the consumers; at 5.2 V at the most.
    for (const a of [one, other]) {
      const average = a.power.consumers.find((c) => c.id === 'd1')!.average.value.max
      expect(average).toBeGreaterThan(0.05)
      expect((a.power.energy!.value.max - without) / (average * 5.2 * 24)).toBeCloseTo(1, 3)
    }
  })
  test('pieces are chip, what is around it, and devices; a wire in the place of a part is none', () => {
    const a = look(demo('window-lantern'))
    const placed = a.build.placed.filter((p) => !p.bridged)
    // By hand from the lantern’s parts list: eight legs, holder, lamp and its resistor, button and pull-up or not, divider, capacitor.
    expect(valueIn(a, 'parts')).toBe(placed.length)
    const out = look(applyEdits(a.design, [{ kind: 'leaveOut', support: 'led:d1.1.light', name: '' }]))
    expect(valueIn(out, 'parts')).toBe(placed.length - 1)
  })
  test('a board: what parts cover by hand, twice to four times; a board that is bought as it is; what has no size is said', () => {
    // DIP-8: 9.6 mm × 7.62 mm from row to row. Holder, capacitor and two standing resistors: 6 mm × 2.5 mm each. Header of
    // two rows of three: 6 mm × 2.54 mm.
    const parts = (9.6 * 7.62 + 4 * 6 * 2.5 + 6 * 2.54) / 100
    const { area, unsized } = look(demo('window-lantern')).build
    expect([area.value.min, area.value.typ, area.value.max].map((x) => x / parts)).toEqual(
      [2, 3, 4].map((x) => expect.closeTo(x, 9) as number),
    )
    expect(unsized).toEqual([])
    // Trestle 32: 68 mm × 53 mm; beside it the second feed’s jack and three resistors.
    const cabin = look(demo('signal-cabin')).build.area.value
    expect(cabin.max).toBeCloseTo(6.8 * 5.3 + (4 * 4 * 6 * 2.5) / 100, 9)
    const timer = look(limited(demo('darkroom-timer'), 'area', 10))
    expect(lineOf(timer, 'area').missing).toEqual(['power lamp'])
    expect(timer.findings.find((f) => f.id === 'power.over-limit:area')!.because.at(-1)!.text).toBe(
      'Not counted, since their files give no size: power lamp',
    )
    const told = (limit: number) =>
      look(limited(demo('window-lantern'), 'area', limit)).findings.filter(
        (f) => f.id === 'power.over-limit:area',
      )
    expect(told(area.value.max * 1.001)).toEqual([])
    const [over] = told(area.value.max * 0.999)
    expect([over!.severity, over!.text.replace(/\s/g, ' ')]).toEqual([
      'risks',
      'The board takes up to 5.9 cm² with room between its parts, and 5.93 cm² is the limit.',
    ])
  })
  test('what has no end, and what nothing is computed of, is no number', () => {
    const plugged = look(project({ chip: 'td8-28-dip', source: 'usb-port', devices: [] }))
    expect(lineOf(plugged, 'runtime').used).toBeUndefined()
    expect(limited(plugged.design, 'runtime', 1e9)).toBeDefined()
    expect(look(limited(plugged.design, 'runtime', 1e9)).findings.map((f) => f.check)).not.toContain(
      'power.over-limit',
    )
  })
})

describe('what is over its limit is told, with what it would have to be; at the limit it is not', () => {
  const timer = demo('darkroom-timer')
  const hive = demo('hive-scale')
  test.each<[BudgetName, Design, RegExp]>([
    // 106 °C by hand in e2e/darkroom: 12.8 V in, 5 V out, 221 mA, 50 K/W
    ['heat', timer, /^Junction of BL5 cool 5 V gets up to 106 °C, and .* is the limit\.$/],
    ['energy', timer, /^A day takes up to 58\.4 Wh, and .* is the limit\.$/],
    ['parts', timer, /^There are 41 pieces to fit and to join, and 40 is the limit\.$/],
    // A thousandth of 26 days is 37 min.
    ['runtime', hive, /^One set of cells may last 3[678] min less than the 26 days that are asked for\.$/],
  ])('%s', (name, design, text) => {
    const used = valueIn(look(design), name)
    const of = (limit: number) =>
      look(limited(design, name, limit)).findings.filter((f) => f.check === 'power.over-limit')
    const step = name === 'parts' ? 1 : used / 1000
    const [found] = of(name === 'runtime' ? used + step : used - step)
    expect([found?.id, found?.severity, found?.text]).toEqual([
      `power.over-limit:${name}`,
      'risks',
      expect.stringMatching(text),
    ])
    expect(of(used)).toEqual([])
    // Its own fix is enough.
    const after = look(
      applyEdits(
        limited(design, name, name === 'runtime' ? used + step : used - step),
        found!.fixes[0]!.edits,
      ),
    )
    expect(after.findings.map((f) => f.check)).not.toContain('power.over-limit')
  })
  test('a day’s energy: all that flows on average, at the 12.8 V that the adapter may have', () => {
    const { average } = look(timer).power
    expect(valueIn(look(timer), 'energy')).toBeCloseTo(average.value.max * 12.8 * 24, 6)
  })
})

/** Each way done by itself, from nothing. */
const prove = (before: Analysis, { name, ways, together }: GivingUp, where: string) => {
  const now = valueIn(before, name)
  const limit = before.design.needs.limits[name]!
  const inside = (v: number) => (name === 'runtime' ? v >= limit : v <= limit)
  const severe = (a: Analysis) =>
    a.findings.filter((f) => f.severity !== 'notes').map((f) => `${f.severity} ${f.id}`)
  const had = severe(before)
  for (const way of ways) {
    const after = analyse(applyEdits(before.design, way.edits), library, steps(20_000))
    const value = valueIn(after, name)
    const what = `${where}, ${name}: ${way.label}`
    const gain = name === 'runtime' ? value - now : now - value
    expect([what, way.becomes ?? Infinity, way.enough, gain > 0]).toEqual([
      what,
      Number.isFinite(value) ? expect.closeTo(value, 6) : Infinity,
      inside(value),
      true,
    ])
    if (Number.isFinite(gain)) expect([what, way.gain / gain]).toEqual([what, expect.closeTo(1, 6)])
    expect([what, way.brings.map((f) => `${f.severity} ${f.id}`).sort()]).toEqual([
      what,
      severe(after)
        .filter((f) => !had.includes(f))
        .sort(),
    ])
    expect([what, way.brings.some((f) => f.severity === 'stops')]).toEqual([what, false])
  }
  const order = ways.map((w) => harms.indexOf(w.harm))
  expect([where, order]).toEqual([where, [...order].sort((a, b) => a - b)])
  if (!together) return
  expect([where, inside(now), ways.some((w) => w.enough)]).toEqual([where, false, false])
  const done = analyse(applyEdits(before.design, together.edits), library, steps(20_000))
  expect([where, valueIn(done, name)]).toEqual([where, expect.closeTo(together.becomes, 6)])
  expect([where, inside(valueIn(done, name))]).toEqual([where, true])
  // None of them is there for nothing.
  expect(together.edits.length).toBeLessThanOrEqual(8)
  for (const edit of together.edits) {
    const less = analyse(
      applyEdits(
        before.design,
        together.edits.filter((e) => e !== edit),
      ),
      library,
      steps(20_000),
    )
    expect([where, together.label, edit, inside(valueIn(less, name))]).toEqual([
      where,
      together.label,
      edit,
      false,
    ])
  }
}

test('whatever could be given up does what is said of it, over demos and random projects', () => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  const seed = firstSeed('given up')
  let [tried, added] = [0, 0]
  const designs = [
    ...(['hive-scale', 'darkroom-timer', 'window-lantern', 'signal-cabin', 'coop-door'] as const).map((d) =>
      demo(d),
    ),
    ...Array.from({ length: deep ? 20 : 2 }, (_, n) =>
      readDesign(
        {
          ...randomProject(files, seed + n, { signals: [2, 8] }),
          power: {
            source: ['cells-3-aa', 'adapter-9v'][n % 2],
            regulator: ['bl33-sparing', 'bl5-low'][n % 2],
          },
        },
        'random',
      ),
    ),
  ]
  for (const [k, design] of designs.entries())
    for (const name of deep
      ? budgets
      : [budgets[(seed + k) % budgets.length]!, budgets[(seed + k + 3) % budgets.length]!]) {
      const bare = look(design)
      const used = valueIn(bare, name)
      if (!Number.isFinite(used) || used === 0 || bare.pins.plan?.status === 'undecided') continue
      // A seventh too much.
      const limit =
        name === 'parts' ? Math.max(1, Math.floor(used * 0.85)) : used * (name === 'runtime' ? 1.15 : 0.85)
      const before = look(limited(design, name, name === 'price' ? Math.round(limit * 100) / 100 : limit))
      const answer = giveUps(before, library, name, usualPatience())
      prove(before, answer, `seed ${seed}, project ${k}`)
      tried += answer.ways.length
      if (answer.together) added++
    }
  expect(tried).toBeGreaterThan(10)
  if (deep) expect(added).toBeGreaterThan(2)
}, 900_000)

test('the least harm first, however much it brings', () => {
  // Once drawn at random; two pumps and three horns on a small board without a source that feeds them.
  const empty = emptyDesign('Two pumps, three horns')
  const bare: Design = {
    ...empty,
    stance: 'lean',
    needs: {
      ...empty.needs,
      devices: [
        { id: 'd1', part: 'pump-6v', name: 'Thing 1', count: 2 },
        { id: 'd2', part: 'horn-12v', name: 'Thing 2', count: 3 },
      ],
      limits: { ambient: 30 },
    },
    chip: { part: 'stick-mw2' },
    pins: { ...empty.pins, excluded: ['P13'], kept: { 'd2.3.drive': 'P14' } },
    power: { source: 'cells-3-aa', regulator: 'bl33-sparing' },
  }
  const pieces = valueIn(look(bare), 'parts')
  const { ways } = giveUps(
    look(limited(bare, 'parts', Math.floor(pieces * 0.85))),
    library,
    'parts',
    usualPatience(),
  )
  // One fewer of something brings two findings here, doing without something else none.
  expect(ways.some((w) => w.harm === 'less' && w.brings.length >= 2)).toBe(true)
  expect(ways.some((w) => w.harm === 'without' && w.brings.length === 0)).toBe(true)
  const order = ways.map((w) => harms.indexOf(w.harm))
  expect(order).toEqual([...order].sort((a, b) => a - b))
})

test('several together: the hive scale for 90 days; each of them is needed, and nothing is done without', () => {
  const before = look(limited(demo('hive-scale'), 'runtime', 90 * 86_400))
  const { together, ways } = giveUps(before, library, 'runtime', usualPatience())
  prove(
    before,
    { name: 'runtime', tried: 0, ways: [], ...(together && { together }), spoiling: 0, untried: 0 },
    'hive scale',
  )
  const edits = together!.edits
  expect(edits.length).toBeGreaterThan(1)
  expect(edits.some((e) => e.kind === 'removeDevice')).toBe(false)
  expect(ways.map((w) => w.label)).toEqual(
    expect.arrayContaining(['Sending 4 times a day', 'Do without Display']),
  )
})

test('where little things would be too many, the two that bring the most', () => {
  // 26.77 € less 6.77 €: display 4.24 €, relay 3.10 €.
  const timer = look(limited(demo('darkroom-timer'), 'price', 20))
  const answer = giveUps(timer, library, 'price', usualPatience())
  expect(answer.together?.label).toBe('Do without Display; Do without Lamp relay')
  prove(timer, { ...answer, ways: [] }, 'timer')
})

test('what was taken on the way and is not needed in the end is not given up', () => {
  // Thirteen pieces to nine: the panel and the stop lamp with a part around each are four; before these the pull-up and one of three
  // sensors had been taken, a piece each.
  const cabin = look(limited(demo('signal-cabin'), 'parts', 9))
  const answer = giveUps(cabin, library, 'parts', usualPatience())
  expect(answer.together!.edits.length).toBeLessThanOrEqual(3)
  prove(cabin, { ...answer, ways: [] }, 'cabin')
})

test('a sleep from which nothing wakes it is counted, and not offered; one from which something does is', () => {
  const light = applyEdits(demo('hive-scale'), [
    { kind: 'changeState', id: 'sleeps', change: { chip: 'light' } },
  ])
  const of = (wakes: boolean) => {
    const chip = findPart(library, 'chip', 'mw2-module')!
    const deaf = makeLibrary([
      ...Object.values(library.parts).filter((p) => p.id !== chip.id),
      {
        ...chip,
        modes: chip.modes.map((m) => (m.id === 'deep' && !wakes ? { ...m, wakes: [], wakeUps: [] } : m)),
      },
    ])
    const { ways, spoiling } = giveUps(analyse(light, deaf), deaf, 'runtime', usualPatience())
    return [spoiling, ways.filter((w) => /deep/.test(w.label)).map((w) => [w.label, w.harm])]
  }
  expect(of(true)).toEqual([0, [['The chip in deep sleep, asleep', 'none']]])
  expect(of(false)).toEqual([1, []])
})

test('where nothing is enough, together neither, that is said; and not where nothing is over', () => {
  const of = (limit: number) => {
    const lantern = look(limited(demo('window-lantern'), 'price', limit))
    const { none, together, ways } = giveUps(lantern, library, 'price', usualPatience())
    return [none, together, ways.length > 0]
  }
  // The lantern is 3.81 €: chip and cells alone are more than one.
  expect(of(1)).toEqual([true, undefined, true])
  expect(of(8)).toEqual([undefined, undefined, true])
})

test('cells are not exchanged for a plug, and nothing is claimed that was not tried', () => {
  const hive = look(demo('hive-scale'))
  const labels = giveUps(hive, library, 'price', usualPatience()).ways.map((w) => w.label)
  expect(labels.filter((l) => /adapter|USB/.test(l))).toEqual([])
  const none = giveUps(look(demo('signal-cabin')), library, 'price', steps(0))
  expect([none.tried, none.ways, none.together, none.untried > 5]).toEqual([0, [], undefined, true])
})

describe('through the last edits', () => {
  const bare = project({ chip: 'td8-28-dip', source: 'cells-4-aa', devices: [] })
  const motor = project({
    chip: 'td8-28-dip',
    source: 'cells-4-aa',
    devices: [['wheel-motor', 'M', undefined, { fedBy: 'source' }]],
  })
  test('each design as it was: a motor takes 0.8 A at the most (its sheet, table 2), shortens what the cells last, and costs', () => {
    const [one, two, three] = trendOf([bare, motor, bare], library, steps(20_000))
    expect([one!.undecided, two!.undecided]).toEqual([false, false])
    // And 6.4 V of fresh cells over its gate’s pull-down, 100 kΩ less 5 %.
    expect(two!.used.current! - one!.used.current!).toBeCloseTo(0.8 + 6.4 / 95e3, 9)
    // The least that they last, and the most of all else.
    expect(two!.used.runtime!).toBeLessThan(one!.used.runtime!)
    for (const name of budgets) expect([name, two!.used[name]]).toEqual([name, valueIn(look(motor), name)])
    expect(three).toEqual(one)
  })
  test('what has no end is no number, and what there was no time for is nothing', () => {
    const plugged = project({ chip: 'td8-28-dip', source: 'usb-port', devices: [] })
    const [at] = trendOf([plugged], library, steps(20_000))
    expect(Object.keys(at!.used)).not.toContain('runtime')
    expect(trendOf([bare, motor], library, { ...steps(0), spent: () => true })).toEqual([
      undefined,
      undefined,
    ])
    expect(trendOf([], library, steps(10))).toEqual([])
  })
})
