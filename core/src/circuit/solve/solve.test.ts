// What the solver says, against closed forms, and against a solver written here that shares nothing with it.

import fc from 'fast-check'
import { deep, firstSeed } from '../../../test/share'
import { formOf, forms, type Element, type Model, transconductanceOf } from '../models'
import { limited } from '../models/curves'
import { afterChange, Contradiction, FloatingNet, operatingPoint, sensitivities, transient } from '.'

const seed = firstSeed('circuit', 9) % 2 ** 31
const times = deep ? 5 : 1

const between = (id: string, model: Model, ...nets: string[]): Element => ({
  id,
  role: '',
  model,
  terminals: Object.fromEntries(formOf(model).terminals.map((t, k) => [t, nets[k]!])),
})
const R = (id: string, resistance: number, a: string, b: string) =>
  between(id, { kind: 'resistor', resistance }, a, b)
const V = (id: string, voltage: number, plus: string, resistance = 0) =>
  between(id, { kind: 'source', voltage, resistance }, plus, 'GND')

/** Gauss's elimination with the largest pivot, as in any textbook. */
const gauss = (a: number[][], b: number[]): number[] => {
  const m = a.map((row, k) => [...row, b[k]!])
  for (let k = 0; k < m.length; k++) {
    const p = m
      .slice(k)
      .reduce((best, row, n) => (Math.abs(row[k]!) > Math.abs(m[best]![k]!) ? k + n : best), k)
    ;[m[k], m[p]] = [m[p]!, m[k]!]
    for (let r = 0; r < m.length; r++)
      if (r !== k) {
        const f = m[r]![k]! / m[k]![k]!
        for (let c = k; c <= m.length; c++) m[r]![c]! -= f * m[k]![c]!
      }
  }
  return m.map((row, k) => row[m.length]! / row[k]!)
}

const ohms = fc.double({ min: 0, max: 6, noNaN: true }).map((e) => 10 ** e)
const volts = fc.double({ min: -15, max: 15, noNaN: true })

test(`${300 * times} random networks of resistors, against node voltages by hand`, () => {
  const network = fc.integer({ min: 2, max: 12 }).chain((n) =>
    fc.record({
      n: fc.constant(n),
      // Each net hangs on an earlier one, so none floats; then any further resistors.
      tree: fc.array(fc.record({ to: fc.nat(), r: ohms }), { minLength: n, maxLength: n }),
      more: fc.array(fc.record({ a: fc.nat(n), b: fc.nat(n), r: ohms }), { maxLength: 2 * n }),
      feeds: fc.array(fc.record({ at: fc.integer({ min: 1, max: n }), u: volts, r: ohms }), {
        minLength: 1,
        maxLength: 4,
      }),
    }),
  )
  fc.assert(
    fc.property(network, ({ n, tree, more, feeds }) => {
      const net = (k: number) => (k === 0 ? 'GND' : `n${k}`)
      const g = Array.from({ length: n + 1 }, () => Array<number>(n + 1).fill(0))
      const i = Array<number>(n + 1).fill(0)
      const join = (a: number, b: number, r: number) => {
        g[a]![a]! += 1 / r
        g[b]![b]! += 1 / r
        g[a]![b]! -= 1 / r
        g[b]![a]! -= 1 / r
      }
      const elements: Element[] = []
      tree.forEach(({ to, r }, k) => {
        join(k + 1, to % (k + 1), r)
        elements.push(R(`t${k}`, r, net(k + 1), net(to % (k + 1))))
      })
      more.forEach(({ a, b, r }, k) => {
        if (a === b) return
        join(a, b, r)
        elements.push(R(`m${k}`, r, net(a), net(b)))
      })
      // A source with a resistance inside is a current into its net beside that resistance (Norton).
      feeds.forEach(({ at, u, r }, k) => {
        join(at, 0, r)
        i[at]! += u / r
        elements.push(V(`v${k}`, u, net(at), r))
      })
      const expected = gauss(
        g.slice(1).map((row) => row.slice(1)),
        i.slice(1),
      )
      const point = operatingPoint(elements)
      expected.forEach((u, k) => expect(point.voltage(net(k + 1))).toBeCloseTo(u, 6))
    }),
    { numRuns: 300 * times, seed },
  )
})

/** W e^W = x for x ≥ 0 by halving: Lambert's function. */
const lambert = (x: number): number => {
  let [lo, hi] = [0, Math.max(1, Math.log(x + 1))]
  for (let n = 0; n < 200; n++) {
    const w = (lo + hi) / 2
    if (w * Math.exp(w) < x) lo = w
    else hi = w
  }
  return (lo + hi) / 2
}

describe('closed forms', () => {
  test.each([
    [5, 1000, 1e-12, 1],
    [12, 47, 1e-9, 1.8],
    [0.3, 10_000, 1e-14, 1],
  ])('a diode behind a resistor: %d V, %d Ω, I_s %d, n = %d', (u, r, saturation, emission) => {
    // I = n V_T / R · W(I_s R / n V_T · e^((U + I_s R) / n V_T)) − I_s; V_T = 1.380649e-23 · 298.15 / 1.602176634e-19 V.
    const vt = (emission * 1.380649e-23 * 298.15) / 1.602176634e-19
    const x = ((saturation * r) / vt) * Math.exp((Math.min(u, 5) + saturation * r) / vt)
    // Beyond what a double holds, halving on the equation itself.
    let [lo, hi] = [0, u]
    for (let n = 0; n < 200; n++) {
      const d = (lo + hi) / 2
      if (saturation * Math.expm1(d / vt) < (u - d) / r) lo = d
      else hi = d
    }
    const current = Number.isFinite(x) && u <= 5 ? (vt / r) * lambert(x) - saturation : (u - lo) / r
    const point = operatingPoint([
      V('v', u, 'a'),
      R('r', r, 'a', 'b'),
      between('d', { kind: 'diode', saturation, emission }, 'b', 'GND'),
    ])
    // Beside it a teraohm, as across everything that can block.
    expect((point.current('d', 'anode') - 1e-12 * point.voltage('b')) / current).toBeCloseTo(1, 6)
    // The other way round it blocks: the whole voltage is across it.
    const blocked = operatingPoint([
      V('v', u, 'a'),
      R('r', r, 'a', 'b'),
      between('d', { kind: 'diode', saturation, emission }, 'GND', 'b'),
    ])
    expect(blocked.voltage('b')).toBeCloseTo(u, 3)
  })

  test('a diode by its sheet: at a point, between two, beyond the last, and blocking', () => {
    // 0.6 V at 1 mA, 0.7 V at 10 mA, 0.8 V at 30 mA.
    const model: Model = {
      kind: 'curve',
      points: [
        [1e-3, 0.6],
        [0.01, 0.7],
        [0.03, 0.8],
      ],
    }
    const at = (i: number) =>
      operatingPoint([
        between('i', { kind: 'current', current: i }, 'GND', 'a'),
        between('d', model, 'a', 'GND'),
      ]).voltage('a')
    expect(at(0.01)).toBeCloseTo(0.7, 6)
    expect(at(0.02)).toBeCloseTo(0.75, 6) // half way
    expect(at(0.05)).toBeCloseTo(0.9, 6) // 5 mV for each mA more
    const blocked = operatingPoint([V('v', -5, 'a'), R('r', 1000, 'a', 'b'), between('d', model, 'b', 'GND')])
    expect(blocked.voltage('b')).toBeCloseTo(-5, 6)
    // A leg's driver carries the other way as it does from nothing to its first point: 0.6 V for each mA.
    const driver = operatingPoint([
      between('i', { kind: 'current', current: -0.5e-3 }, 'GND', 'a'),
      between('d', { ...model, bothWays: true }, 'a', 'GND'),
    ])
    expect(driver.voltage('a')).toBeCloseTo(-0.3, 6)
  })

  test('a MOSFET: off, in its linear region, saturated; p-channel mirrored; its inner diode', () => {
    // k = 0.1 A/V², V_th = 2 V, 100 Ω in the drain from 10 V.
    const k = transconductanceOf(5, 4, 2) // 5 Ω at 4 V: 1 / (5 · 2)
    expect(k).toBeCloseTo(0.1, 12)
    const drain = (gate: number, r: number) =>
      operatingPoint([
        V('v', 10, 'd0'),
        V('g', gate, 'g'),
        R('r', r, 'd0', 'd'),
        between('q', { kind: 'mosfet', polarity: 'n', threshold: 2, transconductance: k }, 'g', 'd', 'GND'),
      ])
    expect(drain(1.5, 100).voltage('d')).toBeCloseTo(10, 6)
    // Saturated: k/2 · 1² = 50 mA; 10 − 100 · 0.05 = 5 V, above V_GS − V_th = 1 V.
    expect(drain(3, 100).voltage('d')).toBeCloseTo(5, 6)
    // Linear: 0.1 (3 − u/2) u = (10 − u) / 100 → 5 u² − 31 u + 10 = 0 → u = (31 − √(961 − 200)) / 10 = 0.341377 V.
    expect(drain(5, 100).voltage('d')).toBeCloseTo((31 - Math.sqrt(761)) / 10, 6)
    expect(drain(5, 100).current('q', 'gate')).toBe(0)
    // p: source at 10 V, gate 5 V below it, the same resistor to ground.
    const p = operatingPoint([
      V('v', 10, 's'),
      V('g', 5, 'g'),
      R('r', 100, 'd', 'GND'),
      between('q', { kind: 'mosfet', polarity: 'p', threshold: 2, transconductance: k }, 'g', 'd', 's'),
    ])
    expect(p.voltage('d')).toBeCloseTo(10 - (31 - Math.sqrt(761)) / 10, 6)
    // Drain and source exchanged: the inner diode carries although the gate is off; 0.5 to 0.8 V are left across it.
    const turned = operatingPoint([
      V('v', 10, 's0'),
      R('r', 100, 's0', 's'),
      between('q', { kind: 'mosfet', polarity: 'n', threshold: 2, transconductance: k }, 'GND', 'GND', 's'),
    ])
    expect(turned.voltage('s')).toBeGreaterThan(0.5)
    expect(turned.voltage('s')).toBeLessThan(0.8)
  })

  test('a bipolar transistor: gain while it has room, saturated where it has none', () => {
    const at = (rb: number, polarity: 'npn' | 'pnp') => {
      const s = polarity === 'npn' ? 1 : -1
      return operatingPoint([
        V('v', 5 * s, 'cc'),
        V('in', 3.3 * s, 'in'),
        R('rb', rb, 'in', 'b'),
        R('rc', 1000, 'cc', 'c'),
        between('q', { kind: 'bipolar', polarity, gain: 100, saturation: 1e-14 }, 'b', 'c', 'GND'),
      ])
    }
    for (const polarity of ['npn', 'pnp'] as const) {
      const active = at(330_000, polarity)
      expect(active.current('q', 'collector') / active.current('q', 'base')).toBeCloseTo(100, 3)
      // 5 V / 1 kΩ = 5 mA is all there is; 2.6 V / 1 kΩ = 2.6 mA of base are far more than 50 µA.
      const full = at(1000, polarity)
      expect(Math.abs(full.voltage('c'))).toBeLessThan(0.1)
      expect(Math.abs(full.current('q', 'collector'))).toBeGreaterThan(0.0049)
    }
    // Collector and emitter exchanged: as much gain as it has that way round.
    const turned = operatingPoint([
      V('v', 5, 'cc'),
      V('in', 3.3, 'in'),
      R('rb', 330_000, 'in', 'b'),
      R('rc', 1000, 'cc', 'e'),
      between(
        'q',
        { kind: 'bipolar', polarity: 'npn', gain: 100, reverseGain: 4, saturation: 1e-14 },
        'b',
        'GND',
        'e',
      ),
    ])
    expect(turned.current('q', 'emitter') / turned.current('q', 'base')).toBeCloseTo(4, 3)
  })

  const regulator: Model = {
    kind: 'linear regulator',
    output: 3.3,
    dropout: [
      [0, 0.1],
      [0.1, 0.5],
    ],
    quiescent: 1e-3,
  }
  test.each([
    ['in regulation', 5, 100, 3.3, 0.033 + 1e-3],
    // u = 3 − (0.1 + 4 u/100): 1.04 u = 2.9.
    ['in drop-out', 3, 100, 2.9 / 1.04, 2.9 / 104 + 1e-3],
    ['with less than it needs', 0.05, 100, 0, 1e-4],
    ['fed the wrong way round', -5, 100, 0, 0],
  ])('a regulator %s', (_, u, r, out, taken) => {
    const point = operatingPoint([
      V('v', u, 'in'),
      between('u', regulator, 'in', 'out', 'GND'),
      R('load', r, 'out', 'GND'),
    ])
    expect(point.voltage('out')).toBeCloseTo(out, 6)
    expect(point.current('u', 'in')).toBeCloseTo(taken, 6)
  })
  // 0.5 V at 100 mA, 1.4 V at 1 A, 1.9 V at 2 A: on with 1 V for each ampere below the first, 0.4 V at next to nothing.
  test('a regulator whose sheet begins at some load', () => {
    const point = operatingPoint([
      V('v', 3.5, 'in'),
      between(
        'u',
        {
          ...regulator,
          dropout: [
            [0.1, 0.5],
            [1, 1.4],
            [2, 1.9],
          ],
        },
        'in',
        'out',
        'GND',
      ),
      R('load', 1e6, 'out', 'GND'),
    ])
    expect(point.voltage('out')).toBeCloseTo(3.5 - 0.4, 4)
  })
  test('a regulator takes nothing back where another holds its output higher', () => {
    const point = operatingPoint([
      V('v', 5, 'in'),
      V('usb', 4.5, 'out'),
      between('u', regulator, 'in', 'out', 'GND'),
    ])
    expect(point.current('u', 'out')).toBeCloseTo(0, 6)
  })
  test('a switching regulator takes the power, not the current', () => {
    const point = operatingPoint([
      V('v', 12, 'in', 1),
      between(
        'u',
        { kind: 'switching regulator', output: 5, efficiency: 0.9, quiescent: 0, least: 6 },
        'in',
        'out',
        'GND',
      ),
      R('load', 10, 'out', 'GND'),
    ])
    // 2.5 W / 0.9 = 2.7778 W = (12 − i) i → i = 6 − √(36 − 2.7778).
    expect(-point.current('v', '+')).toBeCloseTo(6 - Math.sqrt(36 - 2.5 / 0.9), 6)
  })
  // Stepping up: 0.33 A · 3.3 V / 0.8 = 1.36125 W = (3 − i) i; and 6 V above its output: 6 V / (1 Ω + 10 Ω), all of it in and out.
  test.each([
    [3, 3.3, 1.5 - Math.sqrt(2.25 - (3.3 * 0.33) / 0.8)],
    [6, (6 * 10) / 11, 6 / 11],
  ])('one that steps up, on %d V: %f V at its load', (volts, out, taken) => {
    const point = operatingPoint([
      V('v', volts, 'in', 1),
      between(
        'u',
        {
          kind: 'switching regulator',
          output: 3.3,
          efficiency: 0.8,
          quiescent: 0,
          least: 0.9,
          up: true,
        },
        'in',
        'out',
        'GND',
      ),
      R('load', 10, 'out', 'GND'),
    ])
    expect(point.voltage('out')).toBeCloseTo(out, 6)
    expect(-point.current('v', '+')).toBeCloseTo(taken, 6)
  })
  test('cells with a resistance under load, and two sources that share', () => {
    // 4.5 V, 0.9 Ω, 15 Ω: 4.5 · 15 / 15.9.
    expect(operatingPoint([V('c', 4.5, 'p', 0.9), R('l', 15, 'p', 'GND')]).voltage('p')).toBeCloseTo(
      67.5 / 15.9,
      9,
    )
    // 5 V behind 1 Ω and 4 V behind 2 Ω into 10 Ω: (5 + 2) / (1 + 0.5 + 0.1) = 4.375 V; the weaker takes current back.
    const both = operatingPoint([V('a', 5, 'p', 1), V('b', 4, 'p', 2), R('l', 10, 'p', 'GND')])
    expect(both.voltage('p')).toBeCloseTo(4.375, 9)
    expect(both.current('b', '+')).toBeCloseTo(0.1875, 9)
  })
  test('a device draws what its sheet says while it is fed, and less below', () => {
    const at = (u: number) =>
      -operatingPoint([
        V('v', u, 'p'),
        between('m', { kind: 'load', current: 0.02, full: 3 }, 'p', 'GND'),
      ]).current('v', '+')
    expect([at(5), at(3), at(1.5), at(-5)].map((i) => Number(i.toFixed(6)))).toEqual([0.02, 0.02, 0.01, -0])
  })
})

test('a channel knows no drain from source: exchanged, the same current flows the other way, saturated too', () => {
  const model: Model = { kind: 'mosfet', polarity: 'n', threshold: 1, transconductance: 0.1, body: 0 }
  const into = (...v: number[]) => formOf(model).respond(model, { v, i: [], t: 0, share: 1 }).into
  // Gate 3 V, from 5 V to 0 V: saturated, 0.05 · 2² = 0.2 A. The other way round the same, out of the drain.
  expect(into(3, 5, 0)[1]).toBeCloseTo(0.2, 9)
  expect(into(3, 0, 5)[1]).toBeCloseTo(-0.2, 9)
  // Gate 0.5 V above the drain's −1 V is on there, though it is below the source.
  expect(into(0.5, -1, 1)[1]).toBeCloseTo(-0.05 * 0.5 ** 2, 9)
  expect(into(0.5, 1, -1)[1]).toBeCloseTo(0.05 * 0.5 ** 2, 9)
})

test('every slope is that of its answer, at random voltages', () => {
  const models: Model[] = [
    { kind: 'resistor', resistance: 47 },
    { kind: 'contact', closed: true },
    { kind: 'capacitor', capacitance: 1 },
    { kind: 'inductor', inductance: 1, resistance: 2 },
    { kind: 'source', voltage: 3, resistance: 2 },
    { kind: 'current', current: 1 },
    { kind: 'load', current: 0.1, full: 2 },
    { kind: 'diode', saturation: 1e-3 },
    {
      kind: 'curve',
      points: [
        [0.1, 0.3],
        [0.5, 0.4],
      ],
    },
    {
      kind: 'curve',
      points: [
        [0.1, 0.3],
        [0.5, 0.4],
      ],
      bothWays: true,
    },
    { kind: 'mosfet', polarity: 'n', threshold: 1, transconductance: 0.1, body: 1e-3 },
    { kind: 'mosfet', polarity: 'p', threshold: 1, transconductance: 0.1, body: 1e-3 },
    { kind: 'bipolar', polarity: 'npn', gain: 50, saturation: 1e-3 },
    { kind: 'bipolar', polarity: 'pnp', gain: 50, saturation: 1e-3 },
    {
      kind: 'linear regulator',
      output: 1,
      dropout: [
        [0, 0.1],
        [1, 0.5],
      ],
      quiescent: 0.01,
    },
    { kind: 'switching regulator', output: 1, efficiency: 0.8, quiescent: 0.01, least: 0.8 },
    { kind: 'switching regulator', output: 1, efficiency: 0.8, quiescent: 0.01, least: 0.4, up: true },
    { kind: 'limited regulator', output: 0.1, most: 1, dropout: 2, quiescent: 0.01, least: 0 },
    { kind: 'limited regulator', output: 0.1, most: 0.5, efficiency: 0.8, quiescent: 0.01, least: 0.01 },
    { kind: 'limited regulator', output: 0.1, most: 1, quiescent: 0.01, least: 0.05, up: true },
  ]
  expect(new Set(models.map((m) => m.kind)).size).toBe(Object.keys(forms).length)
  const one = fc.double({ min: -0.2, max: 0.2, noNaN: true })
  fc.assert(
    fc.property(
      fc.constantFrom(...models),
      fc.array(one, { minLength: 4, maxLength: 4 }),
      fc.double({ min: 0, max: 1.5, noNaN: true }),
      (model, x, up) => {
        const form = formOf(model)
        const n = form.terminals.length
        const at = [...x.slice(0, n), 0.3 + x[3]!].slice(0, n + (form.branches ?? 0))
        at[0]! += up
        for (const what of [form.respond, form.store]) {
          if (!what) continue
          const ask = (y: number[]) => {
            const a = what(model, { v: y.slice(0, n), i: y.slice(n), t: 0, share: 1 })
            return { values: [...a.into, ...a.rest], slopes: a.slopes }
          }
          const h = 1e-7
          at.forEach((_, c) => {
            const [lo, mid, hi] = [-h, 0, h].map((d) => ask(at.map((u, k) => (k === c ? u + d : u))))
            mid!.slopes.forEach((row, r) => {
              const [left, right] = [lo, hi].map(
                (e) => (e!.values[r]! - mid!.values[r]!) * (e === lo ? -1 : 1),
              )
              const bend = Math.abs(right! - left!) / h
              // At a bend the slope is one of its two sides.
              const centre = (hi!.values[r]! - lo!.values[r]!) / (2 * h)
              // What a double of the largest current cannot tell.
              const rounding = (4 * Number.EPSILON * Math.max(...mid!.values.map(Math.abs))) / h
              expect([
                model.kind,
                r,
                c,
                Math.abs(row[c]! - centre) <= 1e-4 * Math.abs(centre) + 1e-8 + bend + rounding,
              ]).toEqual([model.kind, r, c, true])
            })
          })
          // What goes in comes out.
          const into = ask(at).values.slice(0, n)
          const total = into.reduce((a, b) => a + b, 0)
          expect(Math.abs(total)).toBeLessThan(1e-9 + 4 * Number.EPSILON * Math.max(...into.map(Math.abs)))
        }
      },
    ),
    { numRuns: 800, seed },
  )
})

test(`${100 * times} random circuits of diodes and MOSFETs, against a solver of their own`, () => {
  // Written here once more, from the textbook: currents into each net, slopes by differences, steps that must lessen what is lacking.
  type Part =
    | { is: 'r'; a: number; b: number; r: number }
    | { is: 'd'; a: number; b: number; s: number }
    | { is: 'q'; g: number; d: number; s: number; k: number; th: number }
  const vt = (1.380649e-23 * 298.15) / 1.602176634e-19
  const currents = (
    parts: Part[],
    feeds: { at: number; u: number; r: number }[],
    u: number[],
    share: number,
  ) => {
    const out = u.map(() => 0)
    const flow = (a: number, b: number, i: number) => {
      out[a]! += i
      out[b]! -= i
    }
    const law = (s: number, x: number) => s * Math.expm1(Math.min(x / vt, 60)) + 1e-12 * x
    for (const p of parts) {
      if (p.is === 'r') flow(p.a, p.b, (u[p.a]! - u[p.b]!) / p.r)
      if (p.is === 'd') flow(p.a, p.b, law(p.s, u[p.a]! - u[p.b]!))
      if (p.is === 'q') {
        const [hi, lo] = u[p.d]! >= u[p.s]! ? [p.d, p.s] : [p.s, p.d]
        const over = Math.max(0, u[p.g]! - u[lo]! - p.th)
        const ds = u[hi]! - u[lo]!
        flow(hi, lo, 1e-12 * ds + (ds < over ? p.k * (over - ds / 2) * ds : (p.k / 2) * over * over))
        flow(p.s, p.d, law(1e-12, u[p.s]! - u[p.d]!))
      }
    }
    for (const f of feeds) out[f.at]! += (u[f.at]! - share * f.u) / f.r
    return out.slice(1)
  }
  const solve = (n: number, parts: Part[], feeds: { at: number; u: number; r: number }[]) => {
    let u = Array<number>(n + 1).fill(0)
    for (let share = 0.02; share < 1.001; share += 0.02) {
      for (let round = 0; round < 400; round++) {
        const f = currents(parts, feeds, u, share)
        const size = Math.hypot(...f)
        if (size < 1e-14) break
        const slopes = f.map(() => Array<number>(n).fill(0))
        for (let c = 1; c <= n; c++) {
          const h = 1e-7
          const up = currents(
            parts,
            feeds,
            u.map((x, k) => (k === c ? x + h : x)),
            share,
          )
          const down = currents(
            parts,
            feeds,
            u.map((x, k) => (k === c ? x - h : x)),
            share,
          )
          up.forEach((x, r) => (slopes[r]![c - 1] = (x - down[r]!) / (2 * h)))
        }
        const d = gauss(
          slopes,
          f.map((x) => -x),
        )
        let by = 1
        const moved = () => u.map((x, k) => (k === 0 ? 0 : x + by * d[k - 1]!))
        while (by > 1e-9 && Math.hypot(...currents(parts, feeds, moved(), share)) >= size) by /= 2
        if (by <= 1e-9) break
        u = moved()
      }
    }
    return { u, lacks: Math.hypot(...currents(parts, feeds, u, 1)) }
  }
  let compared = 0
  const net = (k: number) => (k === 0 ? 'GND' : `n${k}`)
  const kilo = fc.double({ min: 2, max: 5, noNaN: true }).map((e) => 10 ** e)
  const circuit = fc.integer({ min: 2, max: 6 }).chain((n) =>
    fc.record({
      n: fc.constant(n),
      tree: fc.array(fc.record({ to: fc.nat(), r: kilo }), { minLength: n, maxLength: n }),
      diodes: fc.array(fc.record({ a: fc.nat(n), b: fc.nat(n), s: fc.constantFrom(1e-14, 1e-12, 1e-9) }), {
        minLength: 1,
        maxLength: 4,
      }),
      fets: fc.array(
        fc.record({
          g: fc.nat(n),
          d: fc.nat(n),
          s: fc.nat(n),
          k: fc.constantFrom(0.01, 0.1, 1),
          th: fc.constantFrom(0.8, 1.5, 2.5),
        }),
        { maxLength: 3 },
      ),
      feeds: fc.array(
        fc.record({ at: fc.integer({ min: 1, max: n }), u: volts, r: kilo.map((r) => r / 10) }),
        { minLength: 1, maxLength: 3 },
      ),
    }),
  )
  fc.assert(
    fc.property(circuit, ({ n, tree, diodes, fets, feeds }) => {
      const parts: Part[] = [
        ...tree.map(({ to, r }, k): Part => ({ is: 'r', a: k + 1, b: to % (k + 1), r })),
        ...diodes.filter(({ a, b }) => a !== b).map((d): Part => ({ is: 'd', ...d })),
        ...fets.filter(({ d, s }) => d !== s).map((q): Part => ({ is: 'q', ...q })),
      ]
      const elements = [
        ...parts.map((p, k) =>
          p.is === 'r'
            ? R(`p${k}`, p.r, net(p.a), net(p.b))
            : p.is === 'd'
              ? between(`p${k}`, { kind: 'diode', saturation: p.s }, net(p.a), net(p.b))
              : between(
                  `p${k}`,
                  { kind: 'mosfet', polarity: 'n', threshold: p.th, transconductance: p.k },
                  net(p.g),
                  net(p.d),
                  net(p.s),
                ),
        ),
        ...feeds.map((f, k) => V(`v${k}`, f.u, net(f.at), f.r)),
      ]
      const point = operatingPoint(elements)
      const mine = Array.from({ length: n + 1 }, (_, k) => (k === 0 ? 0 : point.voltage(net(k))))
      // The currents of every net add up by the laws as they stand here.
      expect(Math.hypot(...currents(parts, feeds, mine, 1))).toBeLessThan(1e-9)
      const other = solve(n, parts, feeds)
      if (other.lacks > 1e-12) return
      compared++
      // A latch of two transistors has two answers that both hold; this compares where there is one.
      if (fets.length < 2) other.u.forEach((u, k) => expect(mine[k]).toBeCloseTo(u, 5))
    }),
    { numRuns: 100 * times, seed },
  )
  expect(compared).toBeGreaterThan(60 * times)
})

test(`${200 * times} strong transistors that pull down the supply that drives them, against halving`, () => {
  const drawn = fc.record({
    k: fc.double({ min: -1, max: 2.5, noNaN: true }).map((e) => 10 ** e),
    threshold: fc.double({ min: 0.7, max: 4, noNaN: true }),
    load: fc.double({ min: 0, max: 2, noNaN: true }).map((e) => 10 ** e),
    inside: fc.double({ min: -3, max: 1, noNaN: true }).map((e) => 10 ** e),
    feed: fc.double({ min: 3, max: 15, noNaN: true }),
    polarity: fc.constantFrom<('n' | 'p')[]>('n', 'p'),
    diode: fc.boolean(),
  })
  fc.assert(
    fc.property(drawn, ({ k, threshold, load, inside, feed, polarity, diode }) => {
      const sign = polarity === 'n' ? 1 : -1
      const across = (i: number) => (diode ? 0.05 * Math.log(1 + i / 1e-9) : 0)
      // What is left between supply and return at a current, less what the load takes of it.
      const supply = (i: number) => feed - i * inside - across(i)
      const channel = (i: number) => {
        const over = supply(i) - threshold
        const ds = supply(i) - i * load
        if (over <= 0 || ds <= 0) return -1
        return (ds < over ? k * (over - ds / 2) * ds : (k / 2) * over * over) - i
      }
      // More current leaves less for everything, so there is one answer.
      let [low, high] = [0, feed / load]
      for (let n = 0; n < 200; n++) {
        const middle = (low + high) / 2
        if (channel(middle) > 0) low = middle
        else high = middle
      }
      const point = operatingPoint([
        V('feed', sign * feed, 'plug', inside),
        diode
          ? sign > 0
            ? between('d', { kind: 'diode', saturation: 1e-9, emission: 0.05 / 0.0256926 }, 'plug', 's')
            : between('d', { kind: 'diode', saturation: 1e-9, emission: 0.05 / 0.0256926 }, 's', 'plug')
          : R('d', 1e-9, 'plug', 's'),
        R('load', load, 's', 'low'),
        between('q', { kind: 'mosfet', polarity, threshold, transconductance: k }, 's', 'low', 'GND'),
        R('gate', 1e9, 's', 'GND'),
      ])
      expect(Math.abs(sign * point.current('q', 'drain') - low)).toBeLessThan(1e-4 * low + 1e-7)
    }),
    { seed, numRuns: 200 * times },
  )
})

test(`${200 * times} random boards: plug either way round, diode, regulator, loads behind strong transistors`, () => {
  const drawn = fc.record({
    feed: fc.double({ min: 3, max: 15, noNaN: true }),
    reversed: fc.boolean(),
    points: fc.constantFrom<[number, number][][]>(
      [
        [0.01, 0.25],
        [0.1, 0.32],
        [1, 0.45],
      ],
      [
        [0.1, 0.68],
        [3, 0.92],
      ],
    ),
    chip: fc.double({ min: 0, max: 0.3, noNaN: true }),
    listening: fc.constantFrom(1e5, 1e9, 1e12),
    loads: fc.array(
      fc.record({
        fed: fc.constantFrom('in', 'out'),
        ohms: fc.double({ min: 0.5, max: 2, noNaN: true }).map((e) => 10 ** e),
        k: fc.double({ min: -0.5, max: 2, noNaN: true }).map((e) => 10 ** e),
        threshold: fc.double({ min: 0.8, max: 2.5, noNaN: true }),
        on: fc.boolean(),
        leg: fc.double({ min: 5, max: 60, noNaN: true }),
      }),
      { maxLength: 5 },
    ),
  })
  const dropout: [number, number][] = [
    [0, 0],
    [0.01, 0.1],
    [0.8, 1],
  ]
  fc.assert(
    fc.property(drawn, ({ feed, reversed, points, chip, listening, loads }) => {
      const elements = [
        V('feed', reversed ? -feed : feed, 'plug', 1e-3),
        between('d', { kind: 'curve', points }, 'plug', 'in'),
        between('u', { kind: 'linear regulator', output: 5, dropout, quiescent: 5e-3 }, 'in', 'out', 'GND'),
        between('chip', { kind: 'load', current: chip, full: 1 }, 'out', 'GND'),
        R('hangs', listening, 'out', 'line'),
        R('air', 1e12, 'line', 'GND'),
        ...loads.flatMap(({ fed, ohms, k, threshold, on, leg }, n) => [
          R(`load ${n}`, ohms, fed, `low ${n}`),
          between(
            `q ${n}`,
            { kind: 'mosfet', polarity: 'n', threshold, transconductance: k },
            `gate ${n}`,
            `low ${n}`,
            'GND',
          ),
          R(`gate ${n}`, listening, `gate ${n}`, 'GND'),
          ...(on
            ? [
                between(
                  `leg ${n}`,
                  { kind: 'curve', points: [[0.01, 0.01 * leg]], bothWays: true },
                  'out',
                  `gate ${n}`,
                ),
              ]
            : []),
        ]),
      ]
      const point = operatingPoint(elements)
      // Kirchhoff, at every net: what flows in flows out, but for what is left when voltages move by less than 1e-10 V.
      const into = new Map<string, number>()
      let most = 0
      for (const { id, model, terminals } of elements)
        for (const terminal of formOf(model).terminals) {
          const i = point.current(id, terminal)
          most = Math.max(most, Math.abs(i))
          into.set(terminals[terminal]!, (into.get(terminals[terminal]!) ?? 0) + i)
        }
      for (const [net, sum] of into)
        if (net !== 'GND') expect(Math.abs(sum)).toBeLessThan(1e-6 * most + 1e-11)
      const given = -point.current('feed', '+')
      if (reversed) expect(Math.abs(given)).toBeLessThan(1e-9)
      else expect(given).toBeGreaterThan(0)
      // A rail is never above what it should hold, nor above what feeds it (to the millivolt: hardly anything holds one that is not fed).
      expect(point.voltage('out')).toBeLessThan(Math.min(5, Math.max(0, point.voltage('in'))) + 1e-3)
    }),
    { seed, numRuns: 200 * times },
  )
})

describe('over time', () => {
  const worst = (times: number[], got: number[], exact: (t: number) => number, span: number) =>
    Math.max(...times.map((t, k) => Math.abs(got[k]! - exact(t)) / span))

  test('a switching regulator that is asleep gives nothing: what pulls its output below ground takes it there', () => {
    // 1 V in, and it works from 2.7 V on: −1 V behind 1 kΩ draw nothing out of it, and nothing goes in but its own leak.
    for (const input of [1, -5]) {
      const point = operatingPoint([
        V('v', input, 'in'),
        between(
          'u',
          { kind: 'switching regulator', output: 5, efficiency: 0.7, quiescent: 0, least: 2.7, up: true },
          'in',
          'out',
          'GND',
        ),
        V('b', -1, 'below'),
        R('r', 1000, 'below', 'out'),
      ])
      expect(point.voltage('out')).toBeCloseTo(-1, 6)
      expect(Math.abs(point.current('u', 'in'))).toBeLessThan(1e-9)
    }
  })
  test('a regulator that starts: its most into an empty output, then held; with too little in it gives what is left; one that takes power', () => {
    const at = (model: Extract<Model, { kind: 'limited regulator' }>, input: number, load: Element) =>
      operatingPoint([V('v', input, 'in'), between('u', model, 'in', 'out', 'GND'), load])
    const draws = (current: number) => between('i', { kind: 'current', current }, 'out', 'GND')
    const linear = {
      kind: 'limited regulator',
      output: 5,
      most: 0.8,
      dropout: 1.25,
      quiescent: 5e-3,
      least: 0,
    } as const
    // 5 V, and what falls in 50 mΩ at 3 mA and half a milliampere of rounding: 175 µV.
    const held = at(linear, 12, draws(3e-3))
    expect(held.voltage('out')).toBeCloseTo(5 - 0.175e-3, 6)
    expect(held.current('u', 'in')).toBeCloseTo(3e-3 + 5e-3, 9)
    // 4 V less 1.25 Ω · 100 mA.
    expect(at(linear, 4, draws(0.1)).voltage('out')).toBeCloseTo(4 - 1.25 * 0.1, 6)
    // Shorted by 0.1 Ω it gives its most, and nothing back into an input that is lower.
    expect(at(linear, 12, R('r', 0.1, 'out', 'GND')).voltage('out') / 0.1).toBeCloseTo(0.8, 2)
    const back = operatingPoint([V('v', 1, 'in'), V('b', 3, 'out'), between('u', linear, 'in', 'out', 'GND')])
    expect(Math.abs(back.current('u', 'out'))).toBeLessThan(1e-9)
    // 5 V · 10 mA / (0.8 · 3 V) = 20.83 mA; the rounding’s half a milliampere takes nothing.
    const up = {
      kind: 'limited regulator',
      output: 5,
      most: 0.5,
      efficiency: 0.8,
      quiescent: 0,
      least: 0.9,
      up: true,
    } as const
    expect(at(up, 3, draws(0.01)).current('u', 'in')).toBeCloseTo(0.0208333, 5)
    // Below its least it sleeps: what comes through coil and diode is left, 0.8 V − 0.3 V less 0.3 Ω · 1.5 mA.
    expect(at(up, 0.8, draws(1e-3)).voltage('out')).toBeCloseTo(0.5 - 0.3 * 1.5e-3, 5)
    expect(at({ ...up, up: undefined }, 0.8, R('r', 1000, 'out', 'GND')).voltage('out')).toBeCloseTo(0, 6)
  })
  test('RC, RL and RLC against their closed forms, under 0.1 %', () => {
    // 10 kΩ, 1 µF: τ = 10 ms.
    const rc = transient(
      [
        V('v', 5, 'a'),
        R('r', 10_000, 'a', 'b'),
        between('c', { kind: 'capacitor', capacitance: 1e-6 }, 'b', 'GND'),
      ],
      { until: 0.05, from: 'empty' },
    )
    expect([rc.times.at(-1), rc.stopped]).toEqual([0.05, undefined])
    expect(worst(rc.times, rc.voltage('b'), (t) => 5 * (1 - Math.exp(-t / 0.01)), 5)).toBeLessThan(1e-3)
    // As many steps as the error asks for and no more. With x = t / τ a step of the trapezoidal rule errs by h³/12 of the third
    // derivative: 1e-5 of the capacitor’s voltage allows h = τ ∛(12e-5 (eˣ − 1)), and no step is longer than a fiftieth of all, 0.1 τ.
    // ∫ dx / h over five τ is 72 steps (midpoints, 200,000 of them); a tenth for safety, and from 1e-8 of the longest on it takes some
    // 25 doublings to get going. What the source gives follows from that voltage and asks for none.
    expect(rc.times.length).toBeGreaterThan(72)
    expect(rc.times.length).toBeLessThan(110)
    // 1 H, 100 Ω: τ = 10 ms; the current shows as the voltage across the resistor.
    const rl = transient(
      [V('v', 10, 'a'), between('l', { kind: 'inductor', inductance: 1 }, 'a', 'b'), R('r', 100, 'b', 'GND')],
      { until: 0.05, from: 'empty' },
    )
    expect(worst(rl.times, rl.voltage('b'), (t) => 10 * (1 - Math.exp(-t / 0.01)), 10)).toBeLessThan(1e-3)
    // 10 mH, 1 µF, 20 Ω in a row: α = R/2L = 1000 /s, ω0 = 10 000 /s, ωd = √(1e8 − 1e6); ten and more swings.
    const [alpha, wd] = [1000, Math.sqrt(1e8 - 1e6)]
    const rlc = transient(
      [
        V('v', 1, 'a'),
        R('r', 20, 'a', 'b'),
        between('l', { kind: 'inductor', inductance: 0.01 }, 'b', 'c'),
        between('c', { kind: 'capacitor', capacitance: 1e-6 }, 'c', 'GND'),
      ],
      { until: 0.007, from: 'empty', precision: 1e-7 },
    )
    const swing = (t: number) =>
      1 - Math.exp(-alpha * t) * (Math.cos(wd * t) + (alpha / wd) * Math.sin(wd * t))
    expect(worst(rlc.times, rlc.voltage('c'), swing, 1)).toBeLessThan(1e-3)
  })

  test('from rest nothing moves until a contact closes; then the capacitor empties into the resistor', () => {
    const run = transient(
      [
        V('v', 5, 'a'),
        R('r', 1000, 'a', 'b'),
        between('c', { kind: 'capacitor', capacitance: 1e-6 }, 'b', 'GND'),
        between(
          's',
          {
            kind: 'contact',
            closed: [
              [0, false],
              [0.01, true],
            ],
            resistance: 1,
          },
          'b',
          'd',
        ),
        R('d', 999, 'd', 'GND'),
      ],
      { until: 0.02 },
    )
    const b = run.voltage('b')
    // From 5 V to 2.5 V (1 kΩ and 1 kΩ) with τ = 500 Ω · 1 µF.
    const exact = (t: number) => (t <= 0.01 ? 5 : 2.5 + 2.5 * Math.exp(-(t - 0.01) / 5e-4))
    expect(worst(run.times, b, exact, 5)).toBeLessThan(1e-3)
    expect(run.times).toContain(0.01)
  })

  test('a contact is open until it is first said to close; one that never moves makes no step of its own', () => {
    const over = (closed: true | [number, boolean][]) =>
      transient(
        [V('v', 5, 'a'), between('s', { kind: 'contact', closed }, 'a', 'b'), R('r', 1000, 'b', 'GND')],
        {
          until: 0.02,
        },
      )
    const late = over([[0.01, true]])
    // 1 kΩ behind the contact's 0.1 Ω
    late.voltage('b').forEach((u, k) => expect(u).toBeCloseTo(late.times[k]! <= 0.01 ? 0 : 5 / 1.0001, 6))
    const still = over(true)
    expect(still.times.every((t) => t >= 0 && t <= 0.02)).toBe(true)
    still.voltage('b').forEach((u) => expect(u).toBeCloseTo(5 / 1.0001, 6))
  })

  test('energy: what the source gives is burnt or stored', () => {
    // A ramp into a diode, a resistor, a coil and a capacitor.
    const elements = [
      between(
        'v',
        {
          kind: 'source',
          voltage: [
            [0, 0],
            [0.001, 5],
          ],
        },
        'a',
        'GND',
      ),
      R('r', 100, 'a', 'b'),
      between('d', { kind: 'diode', saturation: 1e-12 }, 'b', 'c'),
      between('l', { kind: 'inductor', inductance: 0.01 }, 'c', 'd'),
      between('c', { kind: 'capacitor', capacitance: 1e-6 }, 'd', 'GND'),
      R('q', 1000, 'd', 'GND'),
    ] as Element[]
    const run = transient(elements, { until: 0.004, precision: 1e-7 })
    const points = run.times.map((_, k) => run.at(k))
    const over = (power: (k: number) => number) =>
      run.times.slice(1).reduce((sum, t, k) => sum + ((t - run.times[k]!) * (power(k) + power(k + 1))) / 2, 0)
    const given = -over((k) => points[k]!.power('v'))
    const burnt = ['r', 'd', 'q'].reduce((sum, id) => sum + over((k) => points[k]!.power(id)), 0)
    const end = points.at(-1)!
    const kept = 0.5 * 1e-6 * end.voltage('d') ** 2 + 0.5 * 0.01 * end.current('l', '1') ** 2
    expect(given).toBeGreaterThan(1e-5)
    expect((burnt + kept) / given).toBeCloseTo(1, 3)
  })

  test('it can be stopped, and then gives what it has', () => {
    const elements = [
      V('v', 5, 'a'),
      R('r', 1e4, 'a', 'b'),
      between('c', { kind: 'capacitor', capacitance: 1e-6 }, 'b', 'GND'),
    ]
    const run = transient(elements, { until: 0.05, from: 'empty', stop: (share) => share > 0.5 })
    expect(run.times.at(-1)).toBeGreaterThan(0.025)
    expect(run.times.at(-1)).toBeLessThan(0.05)
    expect(run.stopped).toBe(true)
  })
})

// Nagel's limit. I_s = 10 fA at V_T = 25.85 mV: the knee is V_T · ln(V_T / √2 I_s) = 729.8 mV. From 0.6 V asked for 2 V:
// 0.6 V + V_T · ln(1 + 1.4 / V_T) = 703.7 mV; from below nothing V_T · ln(2 / V_T) = 112.4 mV; below the knee it goes where it is asked.
test.each([
  [2, 0.6, 0.7037],
  [2, -1, 0.1124],
  [0.72, 0.3, 0.72],
  [0.8, 0.78, 0.8],
])('a junction asked for %d V at %d V goes to %d V', (now, last, to) => {
  expect(limited(1e-14, 0.02585, now, last)).toBeCloseTo(to, 4)
})

// Each way for direct current by itself: a wire of resistance to nowhere hangs on what is held.
test.each<[string, Model, number]>([
  ['a source', { kind: 'source', voltage: 3 }, 3],
  ['a source that changes', { kind: 'source', voltage: [[0, 3]] }, 3],
  ['a coil', { kind: 'inductor', inductance: 1, resistance: 1 }, 0],
  ['a load', { kind: 'load', current: 1e-3, full: 2 }, 0],
  ['a closed contact', { kind: 'contact', closed: true }, 0],
])('what %s holds does not float, though nothing else hangs on it', (_, model, volts) => {
  const solved = operatingPoint([between('m', model, 'a', 'GND'), R('r', 1e3, 'a', 'b')])
  expect(solved.voltage('b')).toBeCloseTo(volts, 6)
})
test('what regulators hold neither', () => {
  const regulators: Model[] = [
    { kind: 'linear regulator', output: 5, dropout: [[0, 0.5]], quiescent: 0 },
    { kind: 'switching regulator', output: 5, efficiency: 0.9, quiescent: 0, least: 2 },
  ]
  for (const model of regulators) {
    const solved = operatingPoint([
      V('v', 9, 'in'),
      between('r', model, 'in', 'out', 'GND'),
      between('c', { kind: 'capacitor', capacitance: 1e-6 }, 'out', 'GND'),
    ])
    expect(solved.voltage('out')).toBeCloseTo(5, 6)
  }
})

describe('what can’t be solved is said', () => {
  test('nets that float are named: a gate without a pull, two ends of a capacitor', () => {
    const gate = () =>
      operatingPoint([
        V('v', 5, 'vcc'),
        R('r', 100, 'vcc', 'drain'),
        between(
          'q',
          { kind: 'mosfet', polarity: 'n', threshold: 2, transconductance: 0.1 },
          'gate',
          'drain',
          'GND',
        ),
      ])
    expect(gate).toThrow(FloatingNet)
    expect(gate).toThrow(/^gate: no way for a direct current/)
    expect(() =>
      operatingPoint([
        V('v', 5, 'a'),
        between('c', { kind: 'capacitor', capacitance: 1 }, 'a', 'b'),
        R('r', 1, 'b', 'c'),
      ]),
    ).toThrow(/^b, c: /)
    // An open contact leads nowhere.
    const contact = (closed: boolean) =>
      operatingPoint([V('v', 5, 'a'), between('s', { kind: 'contact', closed }, 'a', 'b')])
    expect(() => contact(false)).toThrow(FloatingNet)
    expect(contact(true).voltage('b')).toBeCloseTo(5, 9)
  })
  test('two ideal sources side by side contradict one another; they are named', () => {
    const twice = () =>
      operatingPoint([V('one', 5, 'a'), V('two', 3, 'a'), R('r', 1, 'a', 'b'), R('s', 1, 'b', 'GND')])
    expect(twice).toThrow(Contradiction)
    expect(twice).toThrow(/one|two/)
  })
  test('a terminal on no net, a net and an element that are not there', () => {
    expect(() =>
      operatingPoint([
        { id: 'r', role: '', model: { kind: 'resistor', resistance: 1 }, terminals: { 1: 'a' } },
      ]),
    ).toThrow(/^r: its terminal 2/)
    expect(() => operatingPoint([V('v', 5, 'a'), R('v', 1, 'a', 'GND')])).toThrow(/^v: there are two/)
    const point = operatingPoint([V('v', 5, 'a')])
    expect(() => point.voltage('b')).toThrow('There is no net b.')
    expect(() => point.current('w', '+')).toThrow('There is no element w.')
    expect(() => point.current('v', 'x')).toThrow('v has no terminal x.')
  })
})

test('sensitivities of a divider, and a resistor added without solving anew', () => {
  // 10 V over 1 kΩ and 3 kΩ: V = 7.5 V. dV/dR1 = −10 · 3k / 4k² = −1.875 mV/Ω; dV/dR2 = 10 · 1k / 4k² = 0.625 mV/Ω.
  const elements = [V('v', 10, 'a'), R('r1', 1000, 'a', 'b'), R('r2', 3000, 'b', 'GND')]
  const solved = operatingPoint(elements)
  const s = sensitivities(solved, 'b', 'resistance')
  expect(s.r1).toBeCloseTo(-1.875e-3, 9)
  expect(s.r2).toBeCloseTo(0.625e-3, 9)
  expect(sensitivities(solved, 'b', 'voltage').v).toBeCloseTo(0.75, 9)
  // 6 kΩ beside the 3 kΩ: 2 kΩ, 6.667 V; and from a to b: 1k beside 6k.
  expect(afterChange(solved, ['b', 'GND'], 1 / 6000)('b')).toBeCloseTo(20 / 3, 9)
  const bridged = afterChange(solved, ['a', 'b'], 1 / 6000)
  expect(bridged('b')).toBeCloseTo((10 * 3000) / (3000 + 6000 / 7), 9)
  expect(bridged('a')).toBeCloseTo(10, 9)
})
