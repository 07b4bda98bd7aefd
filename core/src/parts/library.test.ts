// The shipped library: references that lead somewhere, and values in the range that parts of their sort really have.

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { partFiles, shippedLibrary } from '../../test/files'
import { fullRange } from '../quantity'
import { findPart, type PartKind, partsOfKind, type Rated } from '.'

const library = shippedLibrary()
const all = <K extends PartKind>(kind: K) => partsOfKind(library, kind)
const inside = (rated: Rated, low: number, high: number): boolean => {
  const r = fullRange(rated)
  return r.min >= low && r.max <= high
}
const ascending = (values: number[]) => values.every((v, i) => i === 0 || v > values[i - 1]!)

test('a file is named after its part', () => {
  for (const { name, data } of partFiles())
    expect(name).toMatch(new RegExp(`(^|/)${(data as { id: string }).id}\\.json$`))
})

test('whatever a device refers to is there', () => {
  for (const device of all('device'))
    for (const wiring of device.wirings)
      for (const { electrical: e } of wiring.signals) {
        if (e.kind === 'led') expect(findPart(library, 'led', e.led)).toBeDefined()
        if (e.kind === 'switched') {
          expect(findPart(library, 'transistor', e.transistor)).toBeDefined()
          if (e.inductive) expect(findPart(library, 'diode', e.diode)).toBeDefined()
        }
      }
})

describe('chips', () => {
  test.each(all('chip').map((c) => [c.id, c] as const))('%s is physically sensible', (_, chip) => {
    const supply = fullRange(chip.supply.recommended)
    const absolute = fullRange(chip.supply.absolute)
    expect(absolute.min).toBeLessThan(0)
    expect(absolute.max).toBeGreaterThan(supply.max)
    expect(inside(chip.supply.recommended, 1.6, 5.5)).toBe(true)
    expect(ascending(chip.frequencyLimits.map((l) => l.supply))).toBe(true)
    expect(ascending(chip.frequencyLimits.map((l) => l.frequency))).toBe(true)
    expect(chip.io.inputLow.factor).toBeLessThan(chip.io.inputHigh.factor)
    expect(inside(chip.io.leakage, 0, 2e-6)).toBe(true)
    expect(inside(chip.io.capacitance, 1e-12, 20e-12)).toBe(true)
    expect(chip.io.pullUp && inside(chip.io.pullUp, 10e3, 200e3)).toBe(true)
    expect(fullRange(chip.limits.pinRecommended).max).toBeLessThan(fullRange(chip.limits.pinAbsolute).max)
    expect(fullRange(chip.limits.total).max).toBeLessThan(fullRange(chip.limits.totalAbsolute!).max)
    expect(chip.package.thermalResistance && inside(chip.package.thermalResistance, 20, 150)).toBe(true)
    // Driver resistance of a few to a hundred ohms, like any CMOS leg.
    for (const point of [...chip.io.outputHigh, ...chip.io.outputLow]) {
      const ohms = fullRange(point.drop).typ / point.current
      expect(ohms).toBeGreaterThan(5)
      expect(ohms).toBeLessThan(100)
    }
    const modes = Object.fromEntries(chip.modes.map((m) => [m.kind, fullRange(m.current).typ]))
    expect(modes.active!).toBeGreaterThan(modes.idle!)
    expect(modes.idle!).toBeGreaterThan(modes.sleep!)
    expect(chip.modes.find((m) => m.kind === 'sleep')!.wakes!.length).toBeGreaterThan(0)
  })
  test('a chip in a socket’s package has a socket that fits it', () => {
    for (const chip of all('chip').filter((c) => c.package.style === 'dip'))
      expect(all('connector').some((s) => s.sort === 'socket' && s.contacts === chip.package.legs)).toBe(true)
  })
  test('a header has room for each way of programming', () => {
    for (const chip of all('chip'))
      for (const way of chip.programming)
        expect(
          all('connector').some((c) => c.sort === 'programming header' && c.contacts >= way.contacts.length),
        ).toBe(true)
  })
  test('legs that program are marked on the leg as well', () => {
    for (const chip of all('chip').filter((c) => c.family === 'Thistledown TD8'))
      for (const contact of chip.programming[0]!.contacts) {
        const pin = chip.pins.find((p) => p.id === contact.at)
        if (!pin || contact.signal === 'RESET') continue
        expect(pin.attributes).toContainEqual(
          expect.objectContaining({ kind: 'programming', signal: contact.signal }),
        )
      }
  })
})

describe('what feeds', () => {
  test.each(all('regulator').map((r) => [r.id, r] as const))('%s', (_, r) => {
    expect(inside(r.output, 1, 12)).toBe(true)
    expect(fullRange(r.inputRecommended).max).toBeLessThan(fullRange(r.inputAbsolute).max)
    expect(ascending(r.dropout.map((d) => d.current))).toBe(true)
    expect(ascending(r.dropout.map((d) => fullRange(d.voltage).max))).toBe(true)
    expect(inside(r.quiescent, 1e-6, 15e-3)).toBe(true)
    expect(inside(r.package.thermalResistance!, 30, 250)).toBe(true)
    expect(r.legs.map((l) => l.role).sort()).toEqual(['ground', 'in', 'out'])
  })
  test.each(all('source').map((s) => [s.id, s] as const))('%s', (_, s) => {
    expect(inside(s.voltage, s.joins ? 0.8 : 1, 24)).toBe(true)
    expect(inside(s.current, 0.01, 5)).toBe(true)
    expect(s.sort === 'cells').toBe(s.capacity !== undefined)
    // Cells give less the colder it is, through more resistance, and at 20 °C what their file states; with every charge less.
    expect(s.sort === 'cells').toBe(s.cold !== undefined)
    expect(s.rechargeable === true).toBe(s.worn !== undefined)
    if (s.cold) expect(s.cold.at(-1)).toMatchObject({ air: 20, charge: { typ: 1 }, resistance: { typ: 1 } })
    for (const [figure, way] of [
      [s.cold ?? [], 1],
      [s.worn ?? [], -1],
    ] as const)
      figure.slice(1).forEach((p, i) => {
        expect(way * (p.charge.typ! - figure[i]!.charge.typ!)).toBeGreaterThan(0)
        expect(way * (p.resistance.typ! - figure[i]!.resistance.typ!)).toBeLessThan(0)
      })
    if (s.sort === 'adapter') expect(s.cautions).toContain('mains')
  })
})

describe('small parts', () => {
  // Forward voltage at a few milliamperes by colour, as any LED table gives it.
  const colours: Record<string, [number, number]> = {
    red: [1.5, 2.4],
    'red segment': [1.5, 2.4],
    amber: [1.6, 2.5],
    yellow: [1.6, 2.6],
    green: [1.7, 2.7],
    white: [2.4, 3.7],
  }
  test.each(all('led').map((l) => [l.id, l] as const))('%s', (_, led) => {
    // A new colour is a line in the table above.
    expect(Object.keys(colours)).toContain(led.colour)
    const [low, high] = colours[led.colour]!
    for (const point of led.forward.filter((p) => p.current <= 20e-3))
      expect(inside(point.voltage, low, high)).toBe(true)
    expect(ascending(led.forward.map((p) => p.current))).toBe(true)
    expect(ascending(led.forward.map((p) => fullRange(p.voltage).typ))).toBe(true)
    expect(fullRange(led.current).max).toBeLessThan(fullRange(led.currentAbsolute).max)
  })
  test.each(all('crystal').map((c) => [c.id, c] as const))('%s', (_, c) => {
    expect(c.loadCapacitance).toBeGreaterThanOrEqual(6e-12)
    expect(c.loadCapacitance).toBeLessThanOrEqual(32e-12)
    expect(c.tolerance + c.temperature + c.ageing).toBeLessThan(200e-6)
    // A motional capacitance a few thousandths of the shunt one is what quartz has.
    expect(c.motional! / c.shunt!).toBeGreaterThan(1e-3)
    expect(c.motional! / c.shunt!).toBeLessThan(1e-2)
  })
  test('transistors have each leg once, and a threshold below each gate voltage of their sheet; of those that a leg drives below any logic level', () => {
    for (const t of all('transistor')) {
      expect(new Set(t.legs.map((l) => l.role)).size).toBe(3)
      if (t.sort === 'npn' || t.sort === 'pnp') {
        expect([t.id, t.gain!.min! > 10, t.saturation!.max! < 1]).toEqual([t.id, true, true])
        continue
      }
      // One is there that a leg can’t drive: its sheet knows its channel from 10 V on.
      if (t.sort === 'n-mosfet' && t.channel!.some((c) => c.gate <= 5))
        expect(fullRange(t.threshold!).max).toBeLessThan(2.5)
      // At a gate voltage that the sheet states a resistance for it carries for sure, and better the higher that is.
      const channel = [...t.channel!].sort((a, b) => a.gate - b.gate)
      expect(channel[0]!.gate).toBeGreaterThan(t.threshold!.typ!)
      expect(ascending(channel.map((c) => -c.resistance.max!))).toBe(true)
      if (t.drainCapacitance)
        expect(fullRange(t.drainCapacitance).max).toBeLessThan(fullRange(t.gateCapacitance!).typ)
    }
  })
})

describe('devices', () => {
  test.each(all('device').map((d) => [d.id, d] as const))('%s', (_, d) => {
    const currents = d.modes.map((m) => fullRange(m.current).max)
    expect(ascending([-1, ...currents])).toBe(true)
    // A stalled motor takes most of an ampere, and a deck has four; 64 points of colour at 50 mA each take 3.2 A.
    expect(currents.every((c) => c <= 3.2)).toBe(true)
    if (d.modes.length > 0 && d.modes.every((m) => m.share !== undefined))
      expect(d.modes.reduce((sum, m) => sum + m.share!, 0)).toBeCloseTo(1, 9)
    expect(d.memory.program).toBeGreaterThan(0)
    for (const w of d.wirings) expect(new Set(w.signals.map((s) => s.id)).size).toBe(w.signals.length)
    if (d.supply && d.supplyAbsolute)
      expect(fullRange(d.supplyAbsolute).max).toBeGreaterThan(fullRange(d.supply).max)
  })
})

/** What a text names as code. */
const named = (text: string): Set<string> =>
  new Set([...text.matchAll(/`([^`]+)`/g)].flatMap(([, code]) => code!.match(/[A-Za-z]\w*/g) ?? []))

test('docs/formats.md names every field that the shipped files use, where its kind is described', () => {
  const text = readFileSync(join(__dirname, '..', '..', '..', 'docs', 'formats.md'), 'utf8')
  const section = (title: string) => text.split(/^## /m).find((s) => s.startsWith(`${title}\n`))!
  const everywhere = named(section('Quantities') + section('Every part'))
  // One item of the list for a kind, or for two or three that are alike.
  const others = section('The other kinds').split(/^- /m)
  const own = (kind: string): Set<string> =>
    named(
      kind === 'chip' || kind === 'device'
        ? section(kind)
        : others.filter((item) => item.includes(`**${kind}**`)).join('\n'),
    )
  const missing = new Set<string>()
  const collect = (value: unknown, kind: string): void => {
    if (Array.isArray(value)) value.forEach((v) => collect(v, kind))
    else if (typeof value === 'object' && value !== null)
      for (const [key, inner] of Object.entries(value)) {
        if (!everywhere.has(key) && !own(kind).has(key)) missing.add(`${kind}: ${key}`)
        // {link: position} is keyed by names that the file itself gives.
        if (key !== 'links' || Array.isArray(inner)) collect(inner, kind)
      }
  }
  for (const { data } of partFiles()) collect(data, (data as { kind: string }).kind)
  expect([...missing].sort()).toEqual([])
})
