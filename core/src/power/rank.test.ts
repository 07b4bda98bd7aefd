// What is said of another regulator or source, against what is found once it has been chosen. `npm run deep` takes 60 projects.

import { join } from 'node:path'
import { demo, shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { shelf } from '../../test/referee/files'
import { randomProject } from '../../test/referee/projects'
import { withRails } from '../../test/rails'
import { deep, firstSeed } from '../../test/share'
import { analyse, regulatorsOf, sourcesOf } from '../analysis'
import { applyEdits, type Design, type Edit, readDesign } from '../design'
import { findPart, makeLibrary, partsOfKind, type Regulator } from '../parts'
import { steps } from '../patience'
import { fullRange } from '../quantity'

const library = shippedLibrary()
const look = (d: Design) => analyse(d, library, steps(3000))

/** What is found of a supply that does not do. */
const ofTheSupply = [
  'power.regulator-input',
  'power.regulator-too-hot',
  'power.dropout',
  'power.collapses',
  'power.source-too-weak',
  'power.sags',
  'power.regulator-overloaded',
  'power.device-supply',
  'power.board-input',
  'power.eats-charge',
  'power.cell-protection',
  'power.wire-too-thin',
  'power.fuse-trips',
  'power.fuse-guards',
  'power.no-fuse',
  'power.lost-on-the-way',
  'power.plug-fits',
  'power.in-the-dark',
  'chip.supply-out-of-range',
]

test('a linear one in the place of one that steps down: what the load takes the source gives as well, and that is more than it can', () => {
  const ring = project({
    chip: 'td8-28-dip',
    source: 'usb-port',
    regulator: 'bs33-drop',
    devices: [['pixel-ring-12', 'Ring']],
  })
  const a = look(ring)
  const of = (id: string) => regulatorsOf(a, library).find((r) => r.regulator.id === id)!
  const { quiescent } = of('bl33-low').regulator
  // 600 mA of the ring and what the chip takes, at 3.3 V; a linear one adds its own.
  const milli = Math.round((a.power.work.value.max + fullRange(quiescent).max) * 1000)
  expect([milli > 600, milli < 620]).toEqual([true, true])
  expect(of('bl33-low').no.map((n) => n.text.replace(/\s/g, ' '))).toContain(
    `USB port gives 500 mA, and ${milli} mA is asked of it then`,
  )
  // What is there takes less than 500 mA at 4.75 V.
  expect(
    of('bs33-drop')
      .no.map((n) => n.text)
      .join(),
  ).not.toMatch(/asked of it then/)
  // Where it is too much already, that is the source’s.
  const linear = { ...ring, power: { ...ring.power, regulator: 'bl33-low' } }
  const said = regulatorsOf(look(linear), library).flatMap((r) => r.no.map((n) => n.text))
  expect(said.join()).not.toMatch(/asked of it then/)
})

test('a yes brings no finding of the supply when it is taken, a no brings one', () => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  const seed = firstSeed('ranked')
  const sources = partsOfKind(library, 'source')
  const regulators = partsOfKind(library, 'regulator')
  const counts = { yes: 0, no: 0 }
  const random = Array.from({ length: deep ? 60 : 5 }, (_, n) => {
    const drawn = randomProject(files, seed + n, { signals: [2, 12] }) as { power: object }
    const power = {
      source: sources[(seed + 5 * n) % sources.length]!.id,
      regulator: n % 5 === 4 ? undefined : regulators[(seed + n) % regulators.length]!.id,
    }
    return readDesign({ ...drawn, power: { ...drawn.power, ...power } }, 'random')
  })
  // A random project may suit no source at all: this one suits five.
  for (const [n, design] of [...random, demo('darkroom-timer')].entries()) {
    const { power } = design
    const chosen = findPart(library, 'regulator', power.regulator)
    const before = look(design)
    const check = (what: string, no: readonly { text: string }[], edits: readonly Edit[]) => {
      const after = edits.length > 0 ? look(applyEdits(design, edits)) : before
      const found = after.findings.filter(
        (f) =>
          // Of a guard whose channel its sheet doesn’t know at so few volts, nobody can say what it leaves.
          (ofTheSupply.includes(f.check) || f.id === 'power.guard-transistor:weak') &&
          // Of the source alone, whichever regulator stands behind it.
          !(
            edits[0]?.kind === 'chooseRegulator' &&
            /^power\.(plug-fits|in-the-dark|cell-protection:(none|no-cell|ends|lets))/.test(f.id)
          ) &&
          // A source that is too weak already is that with most regulators.
          !(
            edits[0]?.kind === 'chooseRegulator' &&
            f.id === 'power.source-too-weak' &&
            before.findings.some((b) => b.id === f.id)
          ) &&
          // What is left in a cell when its board opens is lost, and nothing else; a charger that never sees it full still fills it.
          !/cell-protection:(opens-early|cuts-off-charger)/.test(f.id) &&
          // What no sheet tells of a fuse speaks neither for nor against it.
          !f.id.endsWith(':fuse-stays') &&
          // A board without a jack takes any plug, with a jack in its lead.
          !(f.check === 'power.plug-fits' && f.severity === 'notes') &&
          !f.id.includes(':feed') &&
          // Of the second feed, which has nothing to do with it.
          !design.needs.devices.some((d) => d.fedBy === 'feed' && f.about?.device === d.id),
      )
      const where = `seed ${seed + n}, ${design.chip.part} on ${power.source}, ${power.regulator}, with ${what}`
      counts[no.length > 0 ? 'no' : 'yes']++
      expect([where, no.map((x) => x.text), found.map((f) => f.text)]).toEqual([
        where,
        no.length > 0 ? expect.arrayContaining([expect.any(String)]) : [],
        no.length > 0 ? expect.arrayContaining([expect.any(String)]) : [],
      ])
    }
    // Of the one that is there it is said how it does as it is, not in the pack that would do.
    for (const s of sourcesOf(before, library))
      check(s.source.id, s.no, s.source.id === power.source ? [] : s.edits)
    // Of one for another voltage what hangs on the rail would draw otherwise.
    const same = (r: Regulator) => JSON.stringify(r.output) === JSON.stringify(chosen?.output)
    if (chosen)
      for (const r of regulatorsOf(before, library).filter((x) => same(x.regulator)))
        check(r.regulator.id, r.no, [{ kind: 'chooseRegulator', part: r.regulator.id, name: '' }])
  }
  expect(Math.min(counts.yes, counts.no)).toBeGreaterThan(0)
}, 600_000)

/** By hand: how findings call what a further rail hangs on, up to its source. */
const inFront = ({ power }: Design, id: string): string[] => {
  const from = power.rails?.find((r) => r.id === id)?.from ?? 'source'
  if (from === 'source') return ['power.source-too-weak']
  if (from === 'feed') return ['power.feed-too-weak']
  if (from === 'rail')
    return ['power.regulator-too-hot', 'power.regulator-overloaded', ...inFront({ power } as Design, '')]
  return [`regulator-${from}`, ...inFront({ power } as Design, from)]
}

test('of a further rail too: a yes brings nothing against its regulator or what hangs on it, a no brings something', () => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  const seed = firstSeed('ranked further')
  const counts = { yes: 0, no: 0 }
  const fed = { source: 'adapter-12v', regulator: 'bs33-strong' }
  const random = Array.from({ length: deep ? 60 : 6 }, (_, n) => {
    const drawn = readDesign(randomProject(files, seed + n, { signals: [2, 12] }), 'random')
    return withRails({ ...drawn, power: { ...drawn.power, ...fed } }, seed + n, library)
  })
  // Of a few random ones all regulators may do, or none: of this one some.
  const servo = project({
    chip: 'td8-28-dip',
    ...fed,
    rails: [{ id: 'rail2', regulator: 'bs5-strong' }],
    devices: [['servo-small', 'Flap', undefined, { fedBy: 'rail2' }]],
  })
  for (const [n, design] of [...random, servo].entries()) {
    const before = look(design)
    for (const { id, regulator } of design.power.rails ?? []) {
      const output = JSON.stringify(findPart(library, 'regulator', regulator)!.output)
      for (const r of regulatorsOf(before, library, id)) {
        if (JSON.stringify(r.regulator.output) !== output) continue
        const change = { regulator: r.regulator.id }
        const after = look(applyEdits(design, [{ kind: 'changeRail', id, change, what: '' }]))
        const of = after.findings.filter((f) => [...ofTheSupply, 'power.feed-too-weak'].includes(f.check))
        const own = of.filter(
          (f) =>
            f.id.endsWith(`:regulator-${id}`) ||
            // What it takes from what is in front of it.
            inFront(design, id).some((b) => f.id === b || f.id.endsWith(`:${b}`)) ||
            design.needs.devices.some((d) => d.fedBy === id && f.about?.device === d.id),
        )
        const no = r.no.length > 0
        counts[no ? 'no' : 'yes']++
        const where = `seed ${seed + n}, ${id} behind ${r.regulator.id}`
        expect([where, no, no ? of.length > 0 : own.map((f) => f.text)]).toEqual([where, no, no ? true : []])
      }
    }
  }
  expect(Math.min(counts.yes, counts.no)).toBeGreaterThan(0)
}, 600_000)

describe('a scale that sleeps nearly always', () => {
  // 1 % of the time awake, on three cells
  const asleep = applyEdits(project({ chip: 'qm32-32', source: 'cells-3-aa', devices: [] }), [
    { kind: 'setLimit', limit: 'awake', value: 0.01 },
  ])
  const on = (regulator: string) =>
    look(applyEdits(asleep, [{ kind: 'chooseRegulator', part: regulator, name: '' }]))
  test('a regulator that takes 5 mA for itself is told, with what it takes; one of 2.2 µA is not', () => {
    const greedy = on('bl33-low')
    const found = greedy.findings.find((f) => f.id === 'power.eats-charge')!
    const share = Math.round((5e-3 / greedy.power.average.value.typ) * 100)
    expect([found.severity, found.text]).toEqual([
      'risks',
      `BL33 low drop 3.3 V takes 5 mA for itself, day and night: ${share} % of all that the cells give.`,
    ])
    expect(found.because.map((f) => f.worked?.value.typ)).toEqual([
      greedy.power.average.value.typ,
      expect.closeTo(5e-3 / greedy.power.average.value.typ, 12),
    ])
    expect(on('bl33-sparing').findings.some((f) => f.id === 'power.eats-charge')).toBe(false)
    expect(
      regulatorsOf(on('bl33-sparing'), library)
        .find((r) => r.regulator.id === 'bl33-low')!
        .no.map((n) => n.text)
        .at(-1),
    ).toBe(`it takes 5 mA for itself, ${share} % of all that the cells give`)
  })
  test('from a plug nobody counts it, and cells in its place are told of it', () => {
    const plugged = applyEdits(asleep, [{ kind: 'chooseSource', part: 'usb-port', name: '' }])
    const greedy = applyEdits(plugged, [{ kind: 'chooseRegulator', part: 'bl33-low', name: '' }])
    const { no } = sourcesOf(look(greedy), library).find((s) => s.source.id === 'cells-4-aa')!
    expect(no.map((n) => n.text)).toContainEqual(
      expect.stringMatching(/^it takes 5 mA for itself, \d+ % of all that the cells give$/),
    )
    expect(
      look(applyEdits(plugged, [{ kind: 'chooseRegulator', part: 'bl33-low', name: '' }])).findings.some(
        (f) => f.id === 'power.eats-charge',
      ),
    ).toBe(false)
  })
})

test('a source is asked for the most, not for what is usual', () => {
  // The darkroom timer takes 178 mA as usual and up to 221 mA.
  const adapter = findPart(library, 'source', 'adapter-12v')!
  const of = (max: number) => {
    const weak = makeLibrary([
      ...Object.values(library.parts),
      { ...adapter, id: 'weak', name: 'weak', current: { max, kind: 'recommended' } },
    ])
    return sourcesOf(analyse(demo('darkroom-timer'), weak), weak)
      .find((s) => s.source.id === 'weak')!
      .no.map((n) => n.text)
  }
  expect([of(0.2), of(0.23)]).toEqual([['it gives 200 mA, and 221 mA is asked'], []])
})

// A servo of 650 mA at the most: a port of USB 3 gives 0.9 A, but 150 mA until it is asked; a charger gives 2 A at once.
test('a port that must be asked for it is told so, and a charger is not; nor before a board, which asks', () => {
  const unsure = (chip: string) => {
    const a = analyse(project({ chip, devices: [['servo-small', 'Flap']] }), library)
    const of = (id: string) => sourcesOf(a, library).find((r) => r.source.id === id)!
    return ['usb-port', 'usb3-port', 'usb-charger'].map((id) =>
      of(id).unsure.map((u) => u.text.replace(/\s/g, ' ')),
    )
  }
  expect(unsure('td8-28-dip')).toEqual([
    ['100 mA until it is asked for more, and nothing here asks'],
    ['150 mA until it is asked for more, and nothing here asks'],
    [],
  ])
  expect(unsure('stick-td8')).toEqual([[], [], []])
})

describe('one that steps up', () => {
  const up = findPart(library, 'regulator', 'bu33-step')!
  const of = (source: string, more: Partial<Regulator> = {}, devices: [string, string][] = []) =>
    analyse(
      project({ chip: 'qm32-32', source, regulator: 'bu33-step', devices }),
      makeLibrary([...Object.values(library.parts).filter((p) => p.id !== up.id), { ...up, ...more }]),
    )
  test('holds more than it gets, and takes the more for it', () => {
    const { power } = of('cells-2-aa')
    // 3.3 V ± 2 %
    expect(power.rail!.value).toEqual({ min: 3.234, typ: 3.3, max: 3.366 })
    const I = power.work.value.typ
    // Between 50 mA (0.88) and 250 mA (0.80), or between 1 mA (0.75) and 50 mA, a straight line.
    const η = I > 0.05 ? 0.88 - (0.08 * (I - 0.05)) / 0.2 : 0.75 + (0.13 * (I - 1e-3)) / 0.049
    const V = power.input!.value.typ
    expect(power.fromSource.value.typ).toBeCloseTo((3.3 * I) / (η * V) + 22e-6, 6)
    expect(power.fromSource.value.typ).toBeGreaterThan(I)
    // Down to 0.9 V at its input, so that the cells are used to their 1.8 V: nothing stops before.
    expect([power.regulation!.margin.value.typ, power.cells!.stop]).toEqual([
      expect.closeTo(V - 0.9, 9),
      undefined,
    ])
  })
  test('an input above its output comes straight through, and is told', () => {
    const { power, findings } = of('adapter-5v')
    expect(power.rail!.value.max).toBeGreaterThan(4.5)
    expect(power.rail!.inputs[0]!.label).toBe('Output of the regulator, or what comes through it')
    expect(findings.map((f) => f.id)).toEqual(
      expect.arrayContaining(['power.regulator-input', 'chip.supply-out-of-range']),
    )
  })
  test('fresh cells above its output come through, though their usual voltage is below it', () => {
    // 2.5 V to 3.62 V, usually 3.28 V, against 3.234 V to 3.366 V
    expect(of('cell-iron').power.rail!.value).toEqual({ min: 3.234, typ: 3.3, max: 3.62 })
  })
  test('more at its input than it is made for is told, though its output is within its rating', () => {
    const told = (max: number) =>
      of('cells-2-aa', { inputCurrent: { max, kind: 'recommended', source: 'table 2' } }).findings.find(
        (f) => f.id === 'power.regulator-overloaded',
      )
    const taken = of('cells-2-aa').power.regulation!.taken!.value
    expect(told(taken.max * 1.01)).toBeUndefined()
    expect([told(taken.max * 0.99)?.severity, told(taken.typ * 0.99)?.severity]).toEqual(['risks', 'stops'])
    expect(told(taken.max * 0.99)!.text).toMatch(/ takes up to [\d.]+ mA at its input; it is made for /)
  })
  test('below the lowest input of its sheet it fails', () => {
    const found = of('cells-2-aa', {
      inputRecommended: { min: 2.9, max: 3.2, kind: 'recommended' },
    }).findings.find((f) => f.id === 'power.dropout')!
    expect([found.severity, found.text]).toEqual([
      'stops',
      expect.stringMatching(/ needs 2\.9 V at its input and gets as little as [\d.]+ V: the rail fails\.$/),
    ])
  })
})
