// The Power stage on supplies that no project can be given yet: a second converter, a switching one. By hand.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse, proposalsFor, regulatorsOf } from '../analysis'
import type { Stages } from '../findings'
import { findPart, makeLibrary, type Regulator, type Source } from '../parts'
import { supplyOf, withOpen } from '../supply'
import { powerChecks } from './checks'
import { resolvePower } from './resolve'

const shipped = shippedLibrary()
const plain = findPart(shipped, 'regulator', 'bl5-cool')!
const td8 = { chip: 'td8-28-dip', source: 'adapter-12v', regulator: 'bl5-cool' }

/** A second converter from 5 V to 3.3 V, and the motion sensor on its rail. */
const withSecond = (change: Partial<Regulator> = {}) => {
  const design = project({ ...td8, devices: [['motion-sensor', 'Eye', undefined, { fedBy: 'feed' }]] })
  const a = analyse(design, shipped)
  const supply = supplyOf(design, shipped)
  const part = { ...findPart(shipped, 'regulator', 'bl33-low')!, ...change }
  const supplies = withOpen({
    ...supply,
    // First of the two, and behind the other all the same.
    converters: [{ id: 'second', part, from: 'rail', to: 'feed' }, ...supply.converters],
  })
  const power = resolvePower({ ...a, design, library: shipped, chip: a.chip.chip, supplies, around: [] })
  const stages = { ...a, design, library: shipped, power, regulators: () => [], fitting: () => undefined }
  const findings = powerChecks.flatMap((c) => c.run(stages as unknown as Stages))
  return { power, findings, ids: findings.map((f) => f.id), before: a.power }
}

test('what the second rail draws goes through both converters, with what each takes for itself', () => {
  const { power, before } = withSecond()
  const own = power.consumers.filter((c) => c.from === 'feed').reduce((sum, c) => sum + c.work.value.typ, 0)
  expect(own).toBeGreaterThan(0)
  const q = findPart(shipped, 'regulator', 'bl33-low')!.quiescent.typ!
  // Until it had a converter it hung on nothing, and counted nowhere.
  // The board’s own parts, of which the lamp draws, are left out here.
  const lamp = before.consumers.find((c) => c.id === 'power-lamp')!.work.value.typ
  expect(power.work.value.typ).toBeCloseTo(before.work.value.typ - lamp + own + q, 9)
  expect(power.fromSource.value.typ).toBeCloseTo(before.fromSource.value.typ - lamp + own + q, 9)
  const [second, first] = power.regulations
  // (5 V − 3.3 V) · I + 5 V · I_q
  expect(second!.regulation.dissipation.value.typ).toBeCloseTo(1.7 * own + 5 * q, 6)
  expect(first!.regulation.dissipation.value.max).toBeGreaterThan(before.regulation!.dissipation.value.max)
  expect(power.loads.rails.feed!.voltage!.value.typ).toBeCloseTo(3.3, 9)
  expect(power.regulation).toBe(first!.regulation)
})

test.each<[string, Partial<Regulator>, string]>([
  ['too hot', { junctionMax: { max: 30, kind: 'recommended' } }, 'power.regulator-too-hot:second'],
  [
    'too high an input',
    { inputRecommended: { max: 4.9, kind: 'recommended' } },
    'power.regulator-input:second',
  ],
  [
    'too much asked of it',
    { current: { max: 1e-6, kind: 'recommended' } },
    'power.regulator-overloaded:second',
  ],
  ['too little room', { output: { typ: 4.95, kind: 'typical' } }, 'power.dropout:second'],
])('a second converter with %s is told by itself', (_, change, id) => {
  expect(withSecond().ids.filter((x) => x.endsWith(':second'))).toEqual([])
  const { findings, ids } = withSecond(change)
  expect(ids.filter((x) => x.endsWith(':second'))).toEqual([id])
  expect(findings.find((f) => f.id === id)!.text).toContain('BL33 low drop 3.3 V')
})

describe('a switching regulator', () => {
  const part: Regulator = {
    ...plain,
    id: 'sw5',
    name: 'Switcher 5 V',
    topology: 'switching',
    output: { typ: 5, kind: 'typical' },
    quiescent: { typ: 2e-3, kind: 'typical' },
    efficiency: [
      { current: 1e-3, share: 0.6 },
      { current: 1, share: 0.9 },
    ],
  }
  const of = (more: Partial<Regulator> = {}, source = 'adapter-12v') =>
    analyse(
      project({ ...td8, source, regulator: 'sw5', devices: [['pixel-strip-8', 'Strip']] }),
      makeLibrary([...Object.values(shipped.parts), { ...part, ...more }]),
    )
  test('takes power at its efficiency at that load, and its heat is what does not come out', () => {
    const { power } = of()
    const I = power.work.value.typ
    const η = 0.6 + ((0.9 - 0.6) * (I - 1e-3)) / 0.999
    const V = power.input!.value.typ
    expect(power.fromSource.value.typ).toBeCloseTo((5 * I) / (η * V) + 2e-3, 5)
    // V_in · I_in = V_out · I_out + heat
    const heat = power.regulation!.dissipation.value.typ
    expect(V * power.through.value.typ).toBeCloseTo(5 * I + heat, 4)
    expect(power.regulation!.loadLimit).toBeUndefined()
    // A linear one would take all of the current: the switching one less.
    expect(power.fromSource.value.typ).toBeLessThan(I)
  })
  test('is compared with the linear ones, by what it would be in their place', () => {
    // At the very output of the linear one, so that what hangs on it draws the same.
    const { output } = findPart(shipped, 'regulator', 'bl5-cool')!
    const library = makeLibrary([...Object.values(shipped.parts), { ...part, output }])
    const linear = analyse(
      project({
        ...td8,
        source: 'adapter-12v',
        regulator: 'bl5-cool',
        devices: [['pixel-strip-8', 'Strip']],
      }),
      library,
    )
    const ranked = regulatorsOf(linear, library).find((r) => r.regulator.id === 'sw5')!
    const { regulation } = of({ output }).power
    // Just what choosing it says then: also that less flows through diode and plug, so that its input is higher.
    for (const key of ['junction', 'margin', 'taken', 'input'] as const)
      expect([key, ranked[key]!.value]).toEqual([key, regulation![key]!.value])
  })
  test('needs the lowest input of its sheet, or its output and drop-out where that is more', () => {
    const room = (min: number) => {
      const { margin, input, least } = of({
        inputRecommended: { min, max: 25, kind: 'recommended' },
        dropout: [{ current: 1e-3, voltage: { typ: 1.5, kind: 'typical' } }],
      }).power.regulation!
      return [least.value.typ, input.value.typ - margin.value.typ]
    }
    // 5 V + 1.5 V
    expect([room(8), room(6)]).toEqual([
      [8, expect.closeTo(8, 9)],
      [6.5, expect.closeTo(6.5, 9)],
    ])
  })
  test('without a word of its efficiency four fifths are assumed', () => {
    const { power } = of({ efficiency: undefined })
    expect(power.fromSource.value.typ).toBeCloseTo(
      (5 * power.work.value.typ) / (0.8 * power.input!.value.typ) + 2e-3,
      5,
    )
  })
  test('more than the source can give at any voltage stops, and is told', () => {
    const ids = (a: ReturnType<typeof of>) => a.findings.map((f) => [f.id, f.severity])
    expect(ids(of())).not.toContainEqual(['power.collapses:regulator', 'stops'])
    const weak = makeLibrary([
      ...Object.values(shipped.parts),
      part,
      {
        ...findPart(shipped, 'source', 'adapter-9v')!,
        id: 'thin',
        name: 'thin wires',
        resistance: { typ: 60, kind: 'typical' },
      },
    ])
    const a = analyse(
      project({ ...td8, source: 'thin', regulator: 'sw5', devices: [['pixel-strip-8', 'Strip']] }),
      weak,
    )
    expect(ids(a)).toContainEqual(['power.collapses:regulator', 'stops'])
    for (const { value } of [a.power.input!, a.power.through])
      expect([value.min, value.typ, value.max].every(Number.isFinite)).toBe(true)
  })
})

// Usually short, or only at the end of its charge: 5 V − 5 V − 0.1 V, and 3.9 V − 3.3 V − 0.1 V with 2.7 V at the end.
test.each([
  ['usb-port', 'bl5-low', 'stops'],
  ['cells-3-aa', 'bl33-low', 'risks'],
])('%s on %s: %s', (source, regulator, severity) => {
  const { findings } = analyse(project({ ...td8, source, regulator, devices: [] }), shipped)
  expect(findings.find((f) => f.id === 'power.dropout')!.severity).toBe(severity)
})

// 5.5 V less 5.1 V and 0.15 V leave room, and with the diode’s 0.2 V or more at its plug they don’t.
test.each([
  [5.5, false],
  [6.2, true],
])('an adapter of %d V at least instead of cells, with the diode that comes with it', (min, proposed) => {
  const adapter: Source = {
    ...findPart(shipped, 'source', 'adapter-9v')!,
    id: 'made-here',
    name: 'adapter made here',
    price: 0.1,
    voltage: { min, typ: min + 0.1, max: min + 0.2, kind: 'guaranteed' },
  }
  // USB ports cost nothing, and would come first.
  const library = makeLibrary([
    ...Object.values(shipped.parts).filter((p) => !/^usb.*port$/.test(p.id)),
    adapter,
  ])
  const a = analyse(project({ ...td8, source: 'cells-2-aa', devices: [] }), library)
  const labels = proposalsFor(
    a,
    library,
    a.findings.find((f) => f.id === 'power.dropout')!,
  ).map((f) => f.label)
  expect(labels.some((l) => l.includes('adapter made here'))).toBe(proposed)
})

test('a regulator that has no room says what it is made to hold, and which rail sags', () => {
  const a = analyse(project({ ...td8, source: 'cells-2-aa', regulator: 'bl5-low', devices: [] }), shipped)
  expect(a.build.support.find((s) => s.role === 'regulator')!.why).toBe('holds the rail at 5 V')
  const told = a.findings.find((f) => f.id === 'power.dropout')!
  expect([told.severity, told.text.split(': ').at(-1)]).toEqual(['stops', 'the rail sags.'])
  expect(told.text).toMatch(/leaves BL5 low drop 5 V short by 3\.\d V: /)
  // 1.6 V, below the 1.8 V at which its sheet begins.
  expect(a.findings.find((f) => f.id === 'clock.too-fast')!.text).toMatch(
    / is too fast for this supply: at 1\.6 V TD8-28 DIP is good for no clock at all\.$/,
  )
  // The rail is what two cells leave of 2.6 V, and so is the lamp’s current and the chip’s clock.
  expect(a.power.rail!.value.typ).toBeCloseTo(2.5, 9)
})
