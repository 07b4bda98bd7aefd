// The supply as a graph: random trees against the circuit that they are, solved by its own means; and by hand what a tree can do that
// no project has yet.

import fc from 'fast-check'
import { firstSeed, deep } from '../../test/share'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { type Element, operatingPoint } from '../circuit'
import { fromDecision } from '../findings'
import { type Diode, findPart, type Regulator, type Source, type Wire } from '../parts'
import type { Range } from '../quantity'
import { asStated } from '../sums'
import {
  type Drawn,
  type Guard,
  fromTheSource,
  ownVoltage,
  railFor,
  type Supply,
  SupplyLoop,
  supplyOf,
  voltageFor,
  wayTo,
  withLoads,
  withOpen,
} from '.'

const library = shippedLibrary()
const typical = (typ: number) => ({ typ, kind: 'typical' as const })
const source = (name: string, voltage: number, resistance: number): Source => ({
  ...findPart(library, 'source', 'adapter-9v')!,
  id: name,
  name,
  voltage: typical(voltage),
  current: typical(10),
  resistance: typical(resistance),
})
const linear = (name: string, output: number, drop: number, quiescent: number): Regulator => ({
  ...findPart(library, 'regulator', 'bl5-cool')!,
  id: name,
  name,
  topology: 'linear',
  output: typical(output),
  // As much at no load as at any.
  dropout: [0, 10].map((current) => ({ current, voltage: typical(drop) })),
  quiescent: typical(quiescent),
})
const switching = (name: string, output: number, share: number, quiescent: number): Regulator => ({
  ...linear(name, output, 0, quiescent),
  topology: 'switching',
  efficiency: [{ current: 1, share }],
})
const curve: [number, number][] = [
  [0, 0],
  [0.05, 0.25],
  [1, 0.4],
]
/** 100 mΩ a metre at 20 °C. */
const thin: Wire = { ...findPart(library, 'wire', 'wire-24')!, resistance: typical(0.1) }
const diode: Diode = {
  ...findPart(library, 'diode', 'diode-polarity')!,
  forward: curve.map(([current, voltage]) => ({ current, voltage: typical(voltage) })),
}
const guard = (id: string, from: string, to: string, present = true): Guard => ({
  id,
  diode: { diode, present, asked: 'in', forced: false } as unknown as Guard['diode'],
  from,
  to,
})
const rail = (id: string) => ({ id, name: id, net: id.toUpperCase(), symbol: `V_${id}` })
const supplyWith = (of: Partial<Supply> & Pick<Supply, 'rails'>): Supply => ({
  sources: [],
  guards: [],
  converters: [],
  own: of.rails.at(-1)!.id,
  fed: { rail: of.rails.at(-1)!.id, source: of.rails[0]!.id, feed: of.rails[0]!.id },
  ...of,
})
const draw = (work: number, rest = work): Drawn => {
  const of = (typ: number) =>
    asStated('drawn', 'I', 'A', {
      symbol: 'I',
      label: 'drawn',
      value: { min: typ, typ, max: typ },
      unit: 'A',
      origin: { kind: 'rule', source: 'here' },
    })
  return {
    rest: of(rest),
    work: of(work),
    cycle: { a: of(rest), b: of(work) },
    average: of((rest + work) / 2),
  }
}
const loadsOf = (supply: Supply, draws: Record<string, Drawn>) => withLoads(withOpen(supply), draws)

/** The same as parts between nets. */
const circuitOf = (supply: Supply, draws: Record<string, Drawn>): Element[] => [
  ...supply.sources.flatMap((s): Element[] => [
    {
      id: s.id,
      role: 'source',
      model: { kind: 'source', voltage: s.part.voltage.typ!, resistance: s.part.resistance!.typ! },
      terminals: { '+': s.lead ? 'far end' : s.to, '−': 'GND' },
    },
    ...(s.lead
      ? [
          {
            id: 'lead',
            role: 'lead',
            // Copper by its coefficient at 20 °C (IEC 60028), two conductors.
            model: {
              kind: 'resistor' as const,
              resistance: 2 * s.lead.wire!.length * 0.1 * (1 + 3.93e-3 * 10),
            },
            terminals: { 1: 'far end', 2: s.to },
          },
        ]
      : []),
  ]),
  ...supply.guards.map((g): Element => ({
    id: g.id,
    role: 'guard',
    model: { kind: 'curve', points: curve },
    terminals: { anode: g.from, cathode: g.to },
  })),
  ...supply.converters.map((c): Element => ({
    id: c.id,
    role: 'converter',
    model:
      c.part.topology === 'linear'
        ? {
            kind: 'linear regulator',
            output: c.part.output.typ!,
            dropout: [[0, c.part.dropout[0]!.voltage.typ!]],
            quiescent: c.part.quiescent.typ!,
          }
        : {
            kind: 'switching regulator',
            output: c.part.output.typ!,
            efficiency: c.part.efficiency![0]!.share,
            quiescent: c.part.quiescent.typ!,
            least: 0.5,
          },
    terminals: { in: c.from, out: c.to, ground: 'GND' },
  })),
  ...Object.entries(draws).map(([id, d]): Element => ({
    id: `load of ${id}`,
    role: 'load',
    model: { kind: 'load', current: d.work.value.typ, full: 0.2 },
    terminals: { '+': id, '−': 'GND' },
  })),
]

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })
/** One source, maybe behind a diode; each further rail hangs on one before it, with room enough for its regulator. */
const trees = fc
  .record({
    volts: between(9, 15),
    ohms: between(0.01, 0.5),
    guarded: fc.boolean(),
    meters: between(0.01, 2),
    led: fc.boolean(),
    more: fc.array(
      fc.record({
        on: fc.nat(10),
        down: between(0.45, 0.97),
        drop: between(0.05, 0.9),
        q: between(1e-4, 8e-3),
        share: between(0.7, 0.95),
        switching: fc.boolean(),
        amperes: between(1e-3, 0.12),
      }),
      { minLength: 1, maxLength: 5 },
    ),
    amperes: between(1e-3, 0.1),
    atPlug: between(0, 0.1),
  })
  .map(({ volts, ohms, guarded, meters, led, more, amperes, atPlug }) => {
    const first = guarded ? 'behind' : 'plug'
    const rails = [...(guarded ? [rail('plug')] : []), rail(first)]
    const held = new Map([[first, volts]])
    const draws: Record<string, Drawn> = { ...(guarded && { plug: draw(atPlug) }), [first]: draw(amperes) }
    const converters = more.map((m, k) => {
      const from = [...held.keys()][m.on % held.size]!
      const to = `r${k}`
      const output = held.get(from)! * (m.switching ? Math.min(m.down, 0.9) : m.down)
      // A linear one without room gives less; the circuit’s switching one holds whatever comes in, so it is to have room.
      held.set(to, m.switching ? output : Math.min(output, held.get(from)! - m.drop))
      rails.push(rail(to))
      draws[to] = draw(m.amperes)
      const part = m.switching
        ? switching(`S${k}`, output, m.share, m.q)
        : linear(`L${k}`, output, m.drop, m.q)
      return { id: `c${k}`, part, from, to }
    })
    return {
      supply: supplyWith({
        rails,
        sources: [
          {
            id: 'source',
            part: source('adapter', volts, ohms),
            to: 'plug',
            ...(led && { lead: { wire: { part: thin, length: meters }, ambient: 30 } }),
          },
        ],
        guards: guarded ? [guard('guard', 'plug', 'behind')] : [],
        converters,
      }),
      draws,
    }
  })

test('random trees: every rail and every source as the circuit says', () => {
  const seed = firstSeed('supply')
  let sags = 0
  fc.assert(
    fc.property(trees, ({ supply, draws }) => {
      const solved = operatingPoint(circuitOf(supply, draws))
      const { rails, sources, collapsing } = loadsOf(supply, draws)
      expect(collapsing).toEqual([])
      for (const { id } of supply.rails) {
        const [ours, theirs] = [rails[id]!.voltage!.value.typ, solved.voltage(id)]
        expect([id, Math.abs(ours - theirs) < 1e-3 * theirs]).toEqual([id, true])
      }
      const [ours, theirs] = [sources[0]!.work.value.typ, -solved.current('source', '+')]
      expect(Math.abs(ours - theirs)).toBeLessThan(1e-3 * theirs)
      for (const c of supply.converters.filter((x) => x.part.topology === 'linear'))
        if (rails[c.to]!.voltage!.value.typ < c.part.output.typ! - 1e-6) sags++
    }),
    { seed, numRuns: deep ? 1500 : 150 },
  )
  // Some of them have no room for a regulator: those are told too.
  console.info(`supply: ${sags} rails out of regulation`)
})

describe('by hand', () => {
  const near = (v: Range, min: number, typ: number, max: number) =>
    [v.min, v.typ, v.max].forEach((x, i) => expect(x).toBeCloseTo([min, typ, max][i]!, 3))

  test('a switching regulator takes power: 3.3 V · 1 A / 0.9 out of 5 V through 1 Ω is 0.8926 A at 4.107 V', () => {
    const of = (ohms: number) =>
      loadsOf(
        supplyWith({
          rails: [rail('plug'), rail('own')],
          sources: [{ id: 's', part: source('adapter', 5, ohms), to: 'plug' }],
          converters: [{ id: 'c', part: switching('S', 3.3, 0.9, 0), from: 'plug', to: 'own' }],
        }),
        { own: draw(1) },
      )
    // V = (5 + √(25 − 4 · 1 Ω · 3.667 W)) / 2
    const { rails, sources } = of(1)
    expect(rails.plug!.voltage!.value.typ).toBeCloseTo(4.1074, 3)
    expect(sources[0]!.work.value.typ).toBeCloseTo(0.8926, 3)
    // At 2 Ω it is more than the source can give at all: 25 V² / (4 · 2 Ω) = 3.125 W.
    expect(of(2).collapsing.map((c) => c.id)).toEqual(['c'])
    expect(of(1.7).collapsing.map((c) => c.id)).toEqual([])
  })

  // Of the 6.25 W that 5 V gives through 1 Ω at the most, at 2.5 V: V = 2.5 V · (1 + √(1 − share)), up to where there is none.
  test.each([0.3, 0.7, 0.9, 0.97, 1.03])(
    '%d of all that a source gives, by one switching regulator or two',
    (share) => {
      const amperes = (share * 6.25 * 0.9) / 3.3
      for (const parts of [[1], [0.5, 0.5], [0.8, 0.2]]) {
        const { rails, collapsing } = loadsOf(
          supplyWith({
            rails: [rail('plug'), ...parts.map((_, k) => rail(`r${k}`))],
            sources: [{ id: 's', part: source('adapter', 5, 1), to: 'plug' }],
            converters: parts.map((_, k) => ({
              id: `c${k}`,
              part: switching(`S${k}`, 3.3, 0.9, 0),
              from: 'plug',
              to: `r${k}`,
            })),
          }),
          Object.fromEntries(parts.map((part, k) => [`r${k}`, draw(part * amperes)])),
        )
        expect(collapsing.length > 0).toBe(share > 1)
        if (share < 1)
          expect(Math.abs(rails.plug!.voltage!.value.min - 2.5 * (1 + Math.sqrt(1 - share)))).toBeLessThan(
            0.002,
          )
      }
    },
  )

  test('two sources through a diode each: the higher holds the rail, and either may have to give all', () => {
    const { rails, sources } = loadsOf(
      supplyWith({
        rails: [rail('usb'), rail('cells'), rail('own')],
        sources: [
          { id: 'a', part: source('USB', 5, 0.1), to: 'usb' },
          { id: 'b', part: source('cells', 4.2, 0.5), to: 'cells' },
        ],
        guards: [guard('ga', 'usb', 'own'), guard('gb', 'cells', 'own')],
      }),
      { own: draw(0.05) },
    )
    expect(rails.own!.voltage!.value.typ).toBeCloseTo(5 - 0.05 * 0.1 - 0.25, 9)
    expect(rails.own!.voltage!.formula).toBe('max(V_1, V_2)')
    expect(sources.map((s) => s.work.value.typ)).toEqual([0.05, 0.05])
  })

  test('behind a diode anything may flow that its own source gives: 0.5 A of the cells, 4.2 V less 0.32 V', () => {
    const cells = { ...source('cells', 4.2, 0.5), current: typical(0.5) }
    const { open } = withOpen(
      supplyWith({
        rails: [rail('usb'), rail('cells'), rail('own')],
        sources: [
          { id: 'a', part: source('USB', 5, 0.1), to: 'usb' },
          { id: 'b', part: cells, to: 'cells' },
        ],
        guards: [guard('gb', 'cells', 'own')],
      }),
    )
    const most = 0.25 + ((0.4 - 0.25) * 0.45) / 0.95
    near(open.own!.value, 4.2 - most, 4.2 - 0.25, 4.2)
    expect(open.own!.label).toBe('Voltage of cells behind the diode')
  })

  test('a switching regulator behind wires that may have no resistance, or 1 Ω: each corner to its end', () => {
    const wires = {
      ...source('adapter', 5, 0),
      resistance: { min: 0, typ: 0, max: 1, kind: 'typical' as const },
    }
    const { rails, sources } = loadsOf(
      supplyWith({
        rails: [rail('plug'), rail('own')],
        sources: [{ id: 's', part: wires, to: 'plug' }],
        converters: [{ id: 'c', part: switching('S', 3.3, 0.9, 0), from: 'plug', to: 'own' }],
      }),
      { own: draw(1) },
    )
    near(rails.plug!.voltage!.value, 4.1074, 5, 5)
    near(sources[0]!.work.value, 3.3 / 4.5, 3.3 / 4.5, 0.8926)
  })

  test('a linear regulator takes no more the lower its input: far down it sags, and does not collapse', () => {
    const { rails, collapsing } = loadsOf(
      supplyWith({
        rails: [rail('plug'), rail('own')],
        sources: [{ id: 's', part: source('adapter', 5, 10), to: 'plug' }],
        converters: [{ id: 'c', part: linear('L', 3.3, 0.3, 0), from: 'plug', to: 'own' }],
      }),
      { own: draw(0.3) },
    )
    expect(collapsing).toEqual([])
    expect(rails.own!.voltage!.value.typ).toBeCloseTo(5 - 10 * 0.3 - 0.3, 9)
    expect(rails.own!.voltage!.label).toBe('Voltage of the own under load')
  })

  test('a source gives what hangs at its plug too: 9 V less 1 Ω · 150 mA, less the diode’s 0.25 V at 50 mA', () => {
    const { rails, sources } = loadsOf(
      supplyWith({
        rails: [rail('plug'), rail('own')],
        sources: [{ id: 's', part: source('adapter', 9, 1), to: 'plug' }],
        guards: [guard('g', 'plug', 'own')],
      }),
      { plug: draw(0.1), own: draw(0.05) },
    )
    expect(sources[0]!.work.value.typ).toBeCloseTo(0.15, 9)
    expect(rails.plug!.voltage!.value.typ).toBeCloseTo(8.85, 9)
    expect(rails.own!.voltage!.value.typ).toBeCloseTo(8.6, 9)
  })

  test('the way to a rail ends at the first source on it', () => {
    const supply = supplyWith({
      rails: [rail('plug'), rail('own')],
      sources: [
        { id: 'a', part: source('adapter', 9, 0), to: 'plug' },
        { id: 'b', part: source('bench', 5, 0), to: 'own' },
      ],
      converters: [{ id: 'c', part: linear('L', 5, 0.3, 0), from: 'plug', to: 'own' }],
    })
    const { head, source: first, converter } = wayTo(supply, 'own')
    expect([head, first?.id, converter?.id]).toEqual(['own', 'b', undefined])
    expect(wayTo(supply, 'plug')).toMatchObject({ head: 'plug', source: { id: 'a' } })
  })

  test('a diode that is left out takes nothing away; one behind a regulator takes its own', () => {
    const chain = (present: boolean) =>
      loadsOf(
        supplyWith({
          rails: [rail('plug'), rail('mid'), rail('own')],
          sources: [{ id: 's', part: source('adapter', 9, 0), to: 'plug' }],
          converters: [{ id: 'c', part: linear('L', 5, 1, 5e-3), from: 'plug', to: 'mid' }],
          guards: [guard('g', 'mid', 'own', present)],
        }),
        { own: draw(0.05), mid: draw(0.1) },
      )
    expect(chain(true).rails.own!.voltage!.value.typ).toBeCloseTo(4.75, 9)
    expect(chain(false).rails.own!.voltage!.value.typ).toBeCloseTo(5, 9)
    // 50 mA beyond, 100 mA of its own, 5 mA of the regulator.
    expect(chain(true).rails.mid!.work.value.typ).toBeCloseTo(0.15, 9)
    expect(chain(true).sources[0]!.work.value.typ).toBeCloseTo(0.155, 9)
  })

  test('from rest to work everything in between flows; the average is of the averages', () => {
    const { rails, sources } = loadsOf(
      supplyWith({
        rails: [rail('plug'), rail('own')],
        sources: [{ id: 's', part: source('cells', 6, 2), to: 'plug' }],
        converters: [{ id: 'c', part: linear('L', 3.3, 0.3, 2e-3), from: 'plug', to: 'own' }],
      }),
      { own: draw(0.2, 0.01) },
    )
    near(rails.plug!.loaded.value, 0.012, 0.202, 0.202)
    near(rails.plug!.voltage!.value, 6 - 2 * 0.202, 6 - 2 * 0.202, 6 - 2 * 0.012)
    expect(sources[0]!.average.value.typ).toBeCloseTo(0.105 + 2e-3, 9)
    expect(sources[0]!.rest.value.typ).toBeCloseTo(0.012, 9)
    const { rest, work, average, loaded } = rails.plug!
    expect([rest, work, average, loaded].map((w) => [w.label, w.symbol, w.formula])).toEqual([
      ['Current from the plug, everything at rest', 'I_rest,plug', 'I_own + I_q'],
      ['Current from the plug, everything working at once', 'I_plug', 'I_own + I_q'],
      ['Current from the plug, on average', 'I_avg,plug', 'I_own + I_q'],
      ['Current through the plug, from rest to full work', 'I', 'I_own + I_q'],
    ])
    expect(work.note).toBe('A linear regulator passes the load’s current on, volt or no volt.')
  })

  test('a source that can’t give so much gives nothing, and not less: 5 V less 2 Ω · 3 A', () => {
    const supply = supplyWith({
      rails: [rail('own')],
      sources: [{ id: 's', part: source('weak', 5, 2), to: 'own' }],
    })
    // Somewhere between rest and work, 2 A of it, it gives 5 V − 2 Ω · 2 A = 1 V.
    expect(loadsOf(supply, { own: draw(3, 2) }).rails.own!.voltage!.value).toEqual({ min: 0, typ: 0, max: 1 })
    expect(loadsOf(supply, { own: draw(2.5) }).rails.own!.voltage!.value.min).toBeCloseTo(0, 12)
  })
  test('where its sheet says nothing of it, a switching regulator passes four fifths, and says that this is assumed', () => {
    const silent = { ...switching('S', 5, 1, 0), efficiency: undefined }
    const supply = supplyWith({
      rails: [rail('plug'), rail('own')],
      sources: [{ id: 's', part: source('adapter', 10, 0), to: 'plug' }],
      converters: [{ id: 'c', part: silent, from: 'plug', to: 'own' }],
    })
    // 5 V · 0.8 A / (0.8 · 10 V)
    const { work } = loadsOf(supply, { own: draw(0.8) }).rails.plug!
    expect(work.value.typ).toBeCloseTo(0.5, 9)
    expect(JSON.stringify(work)).toContain('assumed: its sheet says nothing of it')
  })
  test('of several states a switching regulator takes each at its own load, not at the average', () => {
    const part = {
      ...switching('S', 5, 0.5, 0),
      efficiency: [
        { current: 0.01, share: 0.5 },
        { current: 0.5, share: 0.9 },
      ],
    }
    const supply = supplyWith({
      rails: [rail('plug'), rail('own')],
      sources: [{ id: 's', part: source('adapter', 10, 0), to: 'plug' }],
      converters: [{ id: 'c', part, from: 'plug', to: 'own' }],
    })
    const period = (id: string, typ: number) => ({
      id,
      name: id,
      symbol: id,
      share: asStated('Share', `s_${id}`, '', fromDecision(`s_${id}`, 'share', typ, '', 'here')),
    })
    const { average, cycle } = withLoads(withOpen(supply), { own: draw(0.5, 0.01) }, [
      period('a', 0.9),
      period('b', 0.1),
    ]).rails.plug!
    // 5 V · 10 mA / (0.5 · 10 V), 5 V · 500 mA / (0.9 · 10 V); nine tenths of the time the first.
    expect(cycle.a!.value.typ).toBeCloseTo(0.01, 9)
    expect(cycle.b!.value.typ).toBeCloseTo(0.277778, 6)
    expect(average.value.typ).toBeCloseTo(0.9 * 0.01 + 0.1 * 0.277778, 6)
  })
  test('without room a linear regulator gives what comes in, less its own', () => {
    const of = (volts: number) =>
      loadsOf(
        supplyWith({
          rails: [rail('plug'), rail('own')],
          sources: [{ id: 's', part: source('cells', volts, 0), to: 'plug' }],
          converters: [{ id: 'c', part: linear('L', 5, 0.4, 0), from: 'plug', to: 'own' }],
        }),
        { own: draw(0.1) },
      ).rails.own!.voltage!.value.typ
    expect(of(6)).toBe(5)
    expect(of(5.4)).toBeCloseTo(5, 9)
    expect(of(5.2)).toBeCloseTo(4.8, 9)
    expect(of(0.3)).toBe(0)
  })

  test('with room as usual and none at its lowest it sags there', () => {
    const cells = {
      ...source('cells', 6, 0),
      voltage: { min: 5, typ: 6, max: 7, kind: 'guaranteed' as const },
    }
    const { rails } = loadsOf(
      supplyWith({
        rails: [rail('plug'), rail('own')],
        sources: [{ id: 's', part: cells, to: 'plug' }],
        converters: [{ id: 'c', part: linear('L', 5, 0.4, 0), from: 'plug', to: 'own' }],
      }),
      { own: draw(0.1) },
    )
    near(rails.own!.voltage!.value, 4.6, 5, 5)
  })

  test('rails that feed one another, and a rail that is not there, are named', () => {
    const rails = [rail('a'), rail('b'), rail('c')]
    const part = linear('L', 3, 0, 0)
    const loop = supplyWith({
      rails,
      converters: [
        { id: 'x', part, from: 'a', to: 'b' },
        { id: 'y', part, from: 'b', to: 'a' },
      ],
    })
    expect(() => withOpen(loop)).toThrow(SupplyLoop)
    expect(() => withOpen(loop)).toThrow('These rails feed one another: a, b.')
    expect(() => wayTo(loop, 'a')).toThrow(SupplyLoop)
    const lost = supplyWith({ rails, converters: [{ id: 'x', part, from: 'a', to: 'd' }] })
    expect(() => fromTheSource(lost)).toThrow('x is on d, which is no rail.')
    const plug = supplyWith({ rails, sources: [{ id: 's', part: source('s', 5, 0), to: 'd' }] })
    expect(() => fromTheSource(plug)).toThrow('s is on d, which is no rail.')
  })
})

describe('of a design', () => {
  const of = (p: Parameters<typeof project>[0]) => supplyOf(project(p), library)
  const td8 = { chip: 'td8-28-dip', devices: [] as never[] }
  test('plug, diode, regulator, rail and a second feed', () => {
    const supply = of({ ...td8, source: 'adapter-12v', regulator: 'bl5-cool', feed: 'adapter-5v-heavy' })
    expect(fromTheSource(supply).map((r) => [r.id, r.net])).toEqual([
      ['plug', 'VPLUG'],
      ['source', 'VIN'],
      ['rail', 'VCC'],
      ['feed', 'VFEED'],
    ])
    const { head, source: s, guard: g, converter } = wayTo(supply, supply.own)
    expect([head, s?.part.id, g?.diode.diode.id, converter?.part.id]).toEqual([
      'plug',
      'adapter-12v',
      'diode-polarity',
      'bl5-cool',
    ])
    expect(ownVoltage(supply)!.value.typ).toBe(5)
    expect(voltageFor(supply, { fedBy: 'feed' })!.value.typ).toBe(5)
    expect(voltageFor(supply, { fedBy: 'source' })!.value.max).toBe(12.8)
  })
  test('without a regulator the source is the rail, whatever a device says', () => {
    const supply = of({ ...td8, source: 'cells-2-aa', regulator: undefined })
    expect(railFor(supply, { fedBy: 'source' })).toBe(railFor(supply, {}))
    expect(supply.guards).toEqual([])
    expect(voltageFor(supply, { fedBy: 'source' })!.value).toEqual({ min: 1.8, typ: 2.6, max: 3.2 })
  })
  test('with nothing chosen there is a rail, and no voltage on it', () => {
    const bare = project({ ...td8, regulator: undefined })
    const supply = supplyOf({ ...bare, power: {} }, library)
    expect(ownVoltage(supply)).toBeUndefined()
    expect(railFor(supply, { fedBy: 'feed' }).net).toBe('VFEED')
    expect(voltageFor(supply, { fedBy: 'feed' })).toBeUndefined()
  })
  test('a regulator that its source usually leaves no room for gives no more than comes in', () => {
    // Two cells are 1.8, 2.6, 3.2 V; 0.1 V falls across it at 10 mA as usual, 0.2 V at most, at nothing nothing.
    const none = ownVoltage(of({ ...td8, source: 'cells-2-aa', regulator: 'bl5-low' }))!.value
    expect([none.min, none.typ, none.max].map((x) => x.toFixed(6))).toEqual([
      '1.600000',
      '2.500000',
      '3.200000',
    ])
    // Of two cells’ 2.6 V a drop-out of 1.5 V leaves 1.1 V; of 1.8 V one of 1.8 V leaves nothing: a tenth is taken.
    const hardly = ownVoltage(of({ ...td8, source: 'cells-2-aa', regulator: 'br5-plain' }))!.value
    expect([hardly.min, hardly.typ].map((x) => x.toFixed(6))).toEqual(['0.180000', '1.100000'])
    // 5 V of a port are no room for 5 V and 1.5 V of drop-out: 3.5 V as usual.
    const port = ownVoltage(of({ ...td8, source: 'usb-port', regulator: 'br5-plain' }))!.value
    expect(port.typ).toBeCloseTo(3.5, 9)
    expect(port.min).toBeCloseTo(4.75 - 1.8, 9)
    // 5 V of a port less 0.1 V are below 5 V as usual, though at its highest there is room: 4.55, 4.9, 5.1 V.
    const tight = ownVoltage(of({ ...td8, source: 'usb-port', regulator: 'bl5-low' }))!.value
    expect([tight.min, tight.typ, tight.max].map((x) => x.toFixed(6))).toEqual([
      '4.550000',
      '4.900000',
      '5.100000',
    ])
    // Three cells are above 3.3 V as usual: it holds, and that it won’t to the end is told by itself.
    expect(ownVoltage(of({ ...td8, source: 'cells-3-aa', regulator: 'bl33-low' }))!.value.typ).toBe(3.3)
    // Not chosen yet: what it is made for.
    const unplugged = { ...project({ ...td8 }), power: { regulator: 'bl5-low' } }
    expect(ownVoltage(supplyOf(unplugged, library))!.value.typ).toBe(5)
  })
})
