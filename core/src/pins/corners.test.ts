// Lines at their corners, each number by hand from the sheets: what once was paired wrongly, left out or not looked at.

import fc from 'fast-check'
import { shippedLibrary } from '../../test/files'
import { project, type Project } from '../../test/project'
import { analyse } from '../analysis'
import { applyEdits, type Edit } from '../design'
import { type Device, makeLibrary, type Part, type Transistor } from '../parts'

const shipped = shippedLibrary()
const on = (p: Project, ...edits: Edit[]) => analyse(applyEdits(project(p), edits), shipped)
/** A part of the library with something else in it. */
const changed = (id: string, change: (part: never) => void): Part => {
  const part = structuredClone(shipped.parts[id]!)
  change(part as never)
  return part
}
const withParts = (...parts: Part[]) =>
  makeLibrary([...Object.values({ ...shipped.parts, ...Object.fromEntries(parts.map((p) => [p.id, p])) })])
const td8 = { chip: 'td8-28-dip', source: 'adapter-12v', regulator: 'bl5-cool' }
const qm32 = { chip: 'qm32-48', regulator: 'bl33-low' }
const ids = (a: ReturnType<typeof analyse>) => a.findings.map((f) => f.id)

describe('levels', () => {
  test('a low does not follow the supply: 0.3 · 4.9 V − 0.4 V = 1.07 V are left, not 1.47 V', () => {
    const { pins } = on({ ...td8, devices: [['weight-amplifier', 'Scale']] })
    const line = pins.levels.find((l) => l.direction === 'to the chip')!
    const low = line.margins.find((m) => m.symbol === 'NM_L')!
    expect(low.value.min).toBeCloseTo(1.07, 9)
    // Its high is its own supply, which is the chip’s: (1 − 0.6) · 4.9 V
    expect(line.margins.find((m) => m.symbol === 'NM_H')!.value.min).toBeCloseTo(1.96, 9)
    // Both ends on one rail: what a side stands is above what reaches it by the same 0.5 V at every corner, so nothing is said.
    expect(line.margins.map((m) => m.symbol)).toEqual(['NM_H', 'NM_L'])
  })
  test('a pull-down of the device is against the high only: 5.1 V / 8.2 kΩ + 0.4 mA through 0.22 V / 5 mA', () => {
    const { pins } = on({ ...td8, devices: [['relay-module', 'Lamp']] })
    const line = pins.levels.find((l) => l.direction === 'to the device')!
    const [high, low] = ['NM_H', 'NM_L'].map((s) => line.margins.find((m) => m.symbol === s)!)
    // high at 4.9 V with the weakest driver: 4.9 − (4.9/8200 + 0.4 mA)·44 Ω − 2.5 V
    expect(high!.value.min).toBeCloseTo(4.9 - (4.9 / 8200 + 0.4e-3) * 44 - 2.5, 9)
    // low: leakage alone through 0.2 V / 5 mA
    expect(low!.value.min).toBeCloseTo(0.8 - 0.4e-3 * 40, 9)
  })
  test('a device that feeds itself gives what its sheet says, above a rail of 2 V too', () => {
    const { pins } = on({ chip: 'td8-28-dip', source: 'cells-2-aa', devices: [['serial-link', 'Link']] })
    const line = pins.levels.find(
      (l) => /TXD|RXD|TX|RX/.test(l.wire.signal.name) && l.direction === 'to the chip',
    )!
    expect(line.reaches.value).toEqual({ min: 2.9, typ: 3.2, max: 3.4 })
    // 3.4 V on a leg that stands 1.8 + 0.5 V
    expect(line.severity).toBe('stops')
  })
  test('a resistance divides what feeds it: from 12.8 V at most, open at the other side, onto a leg that stands 4.9 + 0.5 V', () => {
    const light: Project['devices'] = [['light-resistor', 'Dusk', undefined, { fedBy: 'source' }]]
    const far = on({ ...td8, devices: light })
    const [line] = far.pins.levels
    expect(line!.reaches.value.max).toBeCloseTo(12.8, 9)
    expect(line!.stands.value.min).toBeCloseTo(4.9, 9) // the converter's range ends below what the leg stands
    expect(line!.severity).toBe('stops')
    const finding = far.findings.find((f) => f.check === 'pins.level')!
    expect(finding.text).toMatch(/up to 12\.8 V reaches .*, which stands 5\.4 V/)
    expect(finding.fixes.map((f) => f.label)).toContain('Feed Dusk from the rail')
    // On the rail it can give no more than the rail.
    expect(on({ ...td8, devices: [['light-resistor', 'Dusk']] }).pins.levels[0]!.severity).toBeUndefined()
  })
  test('fed from the source where there is no regulator: that is the rail, and nothing stops', () => {
    const devices: Project['devices'] = [['track-sensor', 'Gate', 'plain', { fedBy: 'source' }]]
    const { pins } = on({ chip: 'td8-28-dip', source: 'adapter-5v', devices })
    expect(pins.levels.map((l) => [l.grade, l.severity])).toEqual([['guaranteed', undefined]])
  })
  test('a high of 2.9 V on a leg that reads it from 0.6 · 5.1 V: typical, and a risk', () => {
    const { pins, findings } = on({ ...td8, devices: [['serial-link', 'Link']] })
    const line = pins.levels.find((l) => l.direction === 'to the chip')!
    // usual 3.2 V − 3.0 V = 0.2 V, at the worst 2.9 V − 3.06 V
    expect([line.grade, line.severity]).toEqual(['typical', 'risks'])
    expect(line.margins.find((m) => m.symbol === 'NM_H')!.value.min).toBeCloseTo(-0.16, 9)
    expect(findings.find((f) => f.check === 'pins.level')?.severity).toBe('risks')
  })
  test('a sensor that is a resistance gives up to the rail: 3.366 V on a converter that ends at 2.6 V', () => {
    const { pins } = on({ chip: 'mw2-module', regulator: 'bl33-low', devices: [['light-resistor', 'Light']] })
    const line = pins.levels[0]!
    expect([line.severity, line.grade]).toEqual(['risks', 'outside the sheet'])
    expect(line.margins.find((m) => m.symbol === 'M_range')!.value.min).toBeCloseTo(2.6 - 3.366, 9)
    // On a chip whose range is the supply it reads all of it.
    expect(on({ ...qm32, devices: [['light-resistor', 'Light']] }).pins.levels[0]!.severity).toBeUndefined()
  })
  test('below where a converter’s range begins, 0.1 V, nothing is read: a note', () => {
    const { pins } = on({
      chip: 'mw2-module',
      regulator: 'bl33-low',
      devices: [['temperature-analog', 'Air']],
    })
    expect([pins.levels[0]!.severity, pins.levels[0]!.text]).toEqual([
      'notes',
      expect.stringContaining('below 100 mV'),
    ])
  })
  test('a bus on two empty cells: a low is a fifth of the supply, 0.36 V at 1.8 V, not 0.4 V', () => {
    const { pins } = on({
      chip: 'td8-28-dip',
      source: 'cells-2-aa',
      devices: [['temperature-two-wire', 'Air']],
    })
    const line = pins.levels.find((l) => l.direction === 'both ways')!
    // (0.3 − 0.2) · 1.8 V at both ends
    expect(line.margins.filter((m) => m.symbol === 'NM_L').map((m) => m.value.min)).toEqual([
      expect.closeTo(0.18, 9),
      expect.closeTo(0.18, 9),
    ])
  })
})

describe('pull-ups of a bus', () => {
  const parallel = (...ohms: number[]) => 1 / ohms.reduce((sum, r) => sum + 1 / r, 0)
  test('ours goes beside those on the boards, and all together stay in the window', () => {
    // At 400 kHz: two displays’ worth of load, so that one board’s 10 kΩ is not enough.
    const devices: Project['devices'] = [
      ['humidity-two-wire', 'Air'],
      ['digit-display-4', 'Digits'],
      ['temperature-two-wire', 'Wall'],
    ]
    const { pins } = on({ ...td8, devices }, { kind: 'setBusSpeed', speed: 400e3 })
    const sda = pins.windows.find((w) => w.used && w.wire.signal.id === 'i2c.SDA')!
    // C = 10 + 10 + 20 + 10 pF; R_max = 300 ns / (0.8473 · 50 pF) = 7081 Ω; R_min = (5.1 − 0.4) V / 3 mA = 1567 Ω
    expect(sda.largest.value.min).toBeCloseTo(300e-9 / (0.8473 * 50e-12), 3)
    const all = [0.95, 1.05].map((t) => parallel(10e3, sda.fitted! * t))
    expect(all[0]).toBeGreaterThan(4.7 / 3e-3)
    expect(all[1]).toBeLessThan(300e-9 / (0.8473 * 50e-12))
  })
  test('by hand: 10 kΩ on a board and 100 pF at 400 kHz, all together 1567 Ω to 3541 Ω: ours 1858 Ω to 5480 Ω', () => {
    const heavy = changed('humidity-two-wire', (d: Device) => {
      for (const w of d.wirings)
        for (const s of w.signals)
          if (s.electrical.kind === 'open-drain')
            s.electrical.capacitance = { typ: 90e-12, kind: 'guaranteed' }
      d.wirings[0]!.busSpeed = { max: 400e3, kind: 'recommended' }
    })
    const design = applyEdits(project({ ...td8, devices: [['humidity-two-wire', 'Air']] }), [
      { kind: 'setBusSpeed', speed: 400e3 },
    ])
    const { pins, findings } = analyse(design, withParts(heavy))
    const ours = pins.support.find((s) => s.key === 'pull:i2c.SDA')!.value!.value
    // 1/1567 − 1/10k → 1858 Ω, 5 % more: 1956 Ω; 1/3541 − 1/10k → 5482 Ω, 5 % less: 5221 Ω; the middle 3196 Ω, E12 3.3 kΩ
    expect(ours).toBe(3300)
    expect(findings.map((f) => f.check)).not.toContain('pins.bus-window')
  })
  test('where no pull-up serves, that is said, with a slower bus as a way out', () => {
    const heavy = changed('digit-display-4', (d: Device) => {
      for (const s of d.wirings[0]!.signals)
        if (s.electrical.kind === 'open-drain')
          s.electrical.capacitance = { typ: 300e-12, kind: 'guaranteed' }
      d.wirings[0]!.busSpeed = { max: 400e3, kind: 'recommended' }
    })
    const library = withParts(heavy)
    const design = applyEdits(project({ ...td8, devices: [['digit-display-4', 'Digits']] }), [
      { kind: 'setBusSpeed', speed: 400e3 },
    ])
    // 310 pF: at 400 kHz at most 1142 Ω, while 1567 Ω are the least; at 100 kHz up to 3807 Ω
    const found = analyse(design, library).findings.find((f) => f.id === 'pins.bus-window:i2c.SDA')!
    expect([found.severity, found.grade]).toEqual(['risks', 'outside the sheet'])
    expect(found.text).toMatch(/below 1\.57 kΩ .* above 1\.14 kΩ/)
    const after = analyse(applyEdits(design, found.fixes[0]!.edits), library)
    expect(ids(after)).not.toContain(found.id)
  })
  test('more than 400 pF on a line is more than the specification allows', () => {
    const load = (pF: number) => {
      const part = changed('digit-display-4', (d: Device) => {
        for (const s of d.wirings[0]!.signals)
          if (s.electrical.kind === 'open-drain')
            s.electrical.capacitance = { typ: pF * 1e-12, kind: 'guaranteed' }
      })
      return ids(analyse(project({ ...td8, devices: [['digit-display-4', 'Digits']] }), withParts(part)))
    }
    // with the leg’s 10 pF
    expect(load(390)).not.toContain('pins.bus-window:i2c.SDA')
    expect(load(391)).toContain('pins.bus-window:i2c.SDA')
  })
})

describe('shifts and their lines', () => {
  const devices: Project['devices'] = [['glow-display', 'Face', 'i2c', { fedBy: 'source' }]]
  const fit: Edit[] = ['SDA', 'SCL'].map((l) => ({
    kind: 'fitShift',
    signal: `i2c.${l}`,
    name: l,
    shift: 'mosfet',
  }))
  test('a MOSFET at 100 kHz: 0.1 / (0.8473 · 4.935 kΩ · (5 + 70 + 10) pF) = 281 kHz', () => {
    const { pins, findings } = on({ chip: 'mw2-module', regulator: 'bl33-low', devices }, ...fit)
    const rate = pins.support
      .find((s) => s.key === 'shift-far:i2c.SDA')!
      .worked.find((w) => w.symbol === 'f_max')!
    expect(rate.value.min).toBeCloseTo(0.1 / (0.8473 * 4700 * 1.05 * 85e-12), 0)
    expect(findings.map((f) => f.check)).not.toContain('pins.shift-too-slow')
  })
  // 3.3 V at the chip, 5 V at the device, and two cells of 1.8 V at least for something else: the gate is at the lower of its own two.
  test('its gate is on the lower of the two supplies that it joins, whatever else there is', () => {
    const { pins } = on({ chip: 'mw2-module', regulator: 'bl33-low', feed: 'cells-2-aa', devices }, ...fit)
    const { legs } = pins.support.find((s) => s.key === 'shift-transistor:i2c.SDA')!
    const net = (role: string) => legs.find((l) => l.name.endsWith(role))!.net
    expect([net('gate'), net('source'), net('drain')]).toEqual(['VCC', 'I2C_SDA', 'I2C_SDA_FAR'])
  })
  test('what is left out of it says why it was there, with the working', () => {
    const { findings } = on({ chip: 'mw2-module', regulator: 'bl33-low', devices }, ...fit, {
      kind: 'leaveOut',
      support: 'shift-transistor:i2c.SDA',
      name: '',
    })
    const told = findings.find((f) => f.id.endsWith('shift-transistor:i2c.SDA'))!
    expect(told.severity).toBe('stops')
    expect(told.because.map((f) => [f.text, f.worked?.symbol])).toEqual([
      ['The level transistor, I2C SDA is left out, against the stance', undefined],
      ['The MOSFET was fitted because of the levels', 'f_max'],
    ])
  })
  test('a MOSFET whose two pull-ups are more than the device can pull low is not offered', () => {
    const weak = (mA: number) =>
      changed('glow-display', (d: Device) => {
        for (const w of d.wirings)
          for (const s of w.signals)
            if (s.electrical.kind === 'open-drain')
              s.electrical.sinkCurrent = { min: mA * 1e-3, kind: 'guaranteed' }
      })
    // (5.25 − 0.4) V and (3.366 − 0.4) V, each over 4465 Ω: 1.75 mA
    const kinds = (mA: number) => {
      const library = withParts(weak(mA))
      const design = project({ chip: 'mw2-module', regulator: 'bl33-low', devices })
      return analyse(design, library)
        .findings.filter((f) => f.check === 'pins.level')
        .flatMap((f) => f.fixes.map((x) => x.label))
        .some((l) => l.includes('MOSFET'))
    }
    expect([kinds(1.76), kinds(1.74)]).toEqual([true, false])
  })
  // 10 kΩ below, above it 10.5 kΩ / 0.95 · (5.25 V / 3.234 V − 1) = 6.9 kΩ, so 8.2 kΩ; both 5 % high they are 4731 Ω in
  // parallel, into 5 pF: 1 / (4.4 · 4731 Ω · 5 pF) = 9.608 MHz
  test.each([
    [9.6e6, undefined],
    [9.62e6, 'risks'],
  ])('a divider on a line of %d bits a second: %s', (hertz, severity) => {
    const needing = changed('track-sensor', (d: Device) => {
      for (const w of d.wirings) for (const s of w.signals) s.rate = hertz
    })
    const gate: Project['devices'] = [['track-sensor', 'Gate', 'plain', { fedBy: 'source' }]]
    const design = applyEdits(project({ chip: 'mw2-module', regulator: 'bl33-low', devices: gate }), [
      { kind: 'fitShift', signal: 'd1.1.OUT', name: 'Gate', shift: 'divider' },
    ])
    const found = analyse(design, withParts(needing)).findings.find((f) => f.check === 'pins.shift-too-slow')
    expect(found?.severity).toBe(severity)
    // A clamp’s 2.2 kΩ pass it: 1 / (4.4 · 2310 Ω · 5 pF) = 19.7 MHz. A MOSFET would need 270 Ω on each side: 30 mA.
    if (found) expect(found.fixes.map((f) => f.label)).toEqual(['Fit a clamp instead'])
  })
})

describe('an LED on a leg', () => {
  const lamp = (mA: number) => {
    const { pins } = on(
      { ...td8, devices: [['lamp-red', 'Lamp']] },
      {
        kind: 'setSetting',
        id: 'd1',
        setting: 'light.current',
        value: mA * 1e-3,
      },
    )
    return pins.leds['d1.1.light']!
  }
  test.each([
    // asked, and R by hand: the drop of the leg from nothing over 0.14 V at 5 mA to 0.58 V at 20 mA, the LED’s curve
    [3, (5 - 0.084 - 1.775) / 3e-3, 1200],
    [5, (5 - 0.14 - 1.85) / 5e-3, 680],
    [10, (5 - (0.14 + (0.44 * 5) / 15) - (1.85 + 0.2 / 3)) / 10e-3, 330],
  ])('%d mA: R by hand, the next preferred value up, and no more than was asked', (mA, ohms, fitted) => {
    const on = lamp(mA)
    expect(on.resistance.value.typ).toBeCloseTo(ohms, 6)
    expect(on.resistor.value).toBe(fitted)
    expect(on.current.value.typ).toBeLessThanOrEqual(mA * 1e-3)
  })
  test('whatever is asked, a typical current is never above it, and current and its parts add up to the rail', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 20, noNaN: true }), (mA) => {
        const { current, resistor } = lamp(mA)
        const I = current.value.typ
        expect(I).toBeLessThanOrEqual(mA * 1e-3 * (1 + 1e-9))
        // The same by bisection over the sheet’s points.
        const between = (x: number, points: [number, number][]) => {
          const k = Math.max(
            1,
            points.findIndex(([at]) => at >= x) < 0 ? points.length - 1 : points.findIndex(([at]) => at >= x),
          )
          const [[x0, y0], [x1, y1]] = [points[k - 1]!, points[k]!]
          return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0)
        }
        const led = (i: number) =>
          between(i, [
            [1e-3, 1.7],
            [5e-3, 1.85],
            [20e-3, 2.05],
            [50e-3, 2.4],
          ])
        const leg = (i: number) =>
          between(i, [
            [0, 0],
            [5e-3, 0.14],
            [20e-3, 0.58],
          ])
        let [low, high] = [0, 0.1]
        for (let n = 0; n < 80; n++) {
          const middle = (low + high) / 2
          if (5 - leg(middle) - led(middle) - middle * resistor.value > 0) low = middle
          else high = middle
        }
        expect(I).toBeCloseTo(low, 9)
      }),
      { numRuns: 40 },
    )
  })
  test('12 mA through an LED made for 5 mA is told, by its severity and boundary; so is a resistor too hot', () => {
    const small = (most: number, breaks: number) =>
      changed('led-red', (l: { current: unknown; currentAbsolute: unknown }) => {
        l.current = { max: most, kind: 'recommended' }
        l.currentAbsolute = { max: breaks, kind: 'absolute' }
      })
    const design = applyEdits(project({ ...td8, devices: [['lamp-red', 'Lamp']] }), [
      { kind: 'setSetting', id: 'd1', setting: 'light.current', value: 12e-3 },
    ])
    const most = analyse(design, shipped).pins.leds['d1.1.light']!.current.value.max
    const found = (a: number, b: number) =>
      analyse(design, withParts(small(a, b))).findings.find((f) => f.check === 'pins.led-rating')
    expect(found(most * 1.0001, 1)).toBeUndefined()
    expect(found(most * 0.9999, 1)?.severity).toBe('risks')
    expect(found(5e-3, most * 0.9999)?.severity).toBe('stops')
    const fix = found(5e-3, 1)!.fixes[0]!
    const after = analyse(applyEdits(design, fix.edits), withParts(small(5e-3, 1)))
    expect(after.findings.map((f) => f.check)).not.toContain('pins.led-rating')
    const weak = changed('resistor-film', (r: { power: number }) => {
      r.power = 0.02
    })
    // 12 mA or a little less through some 220 Ω: about 30 mW
    expect(
      analyse(design, withParts(weak)).findings.find((f) => f.check === 'pins.led-rating')?.text,
    ).toMatch(/made for 20 mW/)
  })
  test('its resistor’s heat is of one resistor: not the greatest current with the greatest resistance', () => {
    const { current, power, resistor } = lamp(10)
    const small = resistor.value * 0.95
    expect(power.value.max).toBeGreaterThanOrEqual(current.value.max ** 2 * small * (1 - 1e-9))
    expect(power.value.max).toBeLessThan(current.value.max ** 2 * resistor.value * 1.05)
  })
})

describe('a switched load', () => {
  const buzzer: Project['devices'] = [['buzzer-magnetic', 'Horn']]
  const told = (part: Part | undefined, p: Partial<Project> = {}) =>
    analyse(project({ ...td8, devices: buzzer, ...p }), part ? withParts(part) : shipped)
      .findings.filter((f) => f.check === 'pins.switch-rating')
      .map((f) => [f.id.split(':')[1], f.severity])
  const fet = (
    change: (t: {
      threshold: unknown
      channel: unknown
      current: unknown
      package: { thermalResistance?: unknown }
    }) => void,
  ) => changed('nfet-small', change)
  // Half the threshold over 10 µA of the gate and 1 µA of the leg: 48.2 and 49.5 kΩ at most; a 47 kΩ can be 49.35 kΩ.
  test.each([
    [1.06, 39e3],
    [1.09, 47e3],
  ])('the pull-down is small enough for what leaks, 5 %% high too: from %d V it conducts', (min, ohms) => {
    const leaky = withParts(
      changed('nfet-small', (t: Transistor) => {
        t.threshold = { min, max: 2, kind: 'guaranteed' }
        t.gateLeakage = { max: 10e-6, kind: 'guaranteed' }
      }),
    )
    const { support } = analyse(project({ ...td8, devices: buzzer }), leaky).build
    expect(support.find((s) => s.role === 'gate pull-down')?.value?.value).toBe(ohms)
  })
  test('its flyback diode leads to what feeds it', () => {
    const cathode = (more: object, p: Partial<Project> = {}) =>
      on({ ...td8, devices: [['buzzer-magnetic', 'Horn', undefined, more]], ...p })
        .build.support.find((s) => s.role === 'flyback diode')!
        .legs.find((l) => l.name === 'cathode')!.net
    expect([cathode({}), cathode({ fedBy: 'source' })]).toEqual(['VCC', 'VIN'])
    expect(cathode({ fedBy: 'feed' }, { feed: 'adapter-5v-heavy' })).toBe('VFEED')
    // Without a regulator the source is the rail.
    expect(cathode({ fedBy: 'source' }, { source: 'usb-port', regulator: undefined })).toBe('VCC')
  })
  test('at 5 V with 32 mA nothing speaks against it', () => expect(told(undefined)).toEqual([]))
  test('on two empty cells the leg gives 1.8 V: below the 2.0 V at which it may begin to conduct', () =>
    expect(told(undefined, { source: 'cells-2-aa', regulator: undefined })).toEqual([['off', 'stops']]))
  test.each([
    [4.9, []],
    [4.91, [['weak', 'risks']]],
  ])('the leg gives 4.9 V; a channel that the sheet states from %d V on', (gate, expected) =>
    expect(
      told(fet((t) => (t.channel = [{ gate, resistance: { typ: 1, max: 2, kind: 'guaranteed' } }]))),
    ).toEqual(expected),
  )
  test('a sheet that says nothing of the channel is told, and no voltage is made up', () => {
    const silent = fet((t) => (t.channel = undefined))
    expect(told(silent)).toEqual([['unknown', 'notes']])
  })
  test.each([
    [31e-3, [['current', 'stops']]],
    [32e-3, []],
  ])('made for %d A and loaded with 32 mA', (max, expected) =>
    expect(told(fet((t) => (t.current = { max, kind: 'recommended' })))).toEqual(expected),
  )
  test('its heat: 32 mA through 1.6 Ω is 1.64 mW; so many K/W that 125 °C are reached, and a little less', () => {
    const at = (kelvinPerWatt: number) =>
      told(fet((t) => (t.package.thermalResistance = { typ: kelvinPerWatt, kind: 'typical' })))
    // At the drive of 4.9 V and above the channel is as at the sheet’s 4.5 V: 0.032² · 1.6 = 1.638 mW
    const limit = (125 - project({ ...td8, devices: [] }).needs.limits.ambient) / (0.032 ** 2 * 1.6)
    expect(at(limit * 0.99)).toEqual([])
    expect(at(limit * 1.01)).toEqual([['heat', 'risks']])
  })
  test.each([
    ['current', { current: { max: 31e-3, kind: 'recommended' } }, [['diode', 'risks']]],
    ['reverse', { reverse: { max: 5, kind: 'absolute' } }, [['reverse', 'stops']]],
    ['reverse', { reverse: { max: 5.2, kind: 'absolute' } }, []],
  ])('its diode’s %s rating', (_, change, expected) =>
    expect(told(changed('diode-small', (d: object) => Object.assign(d, change)))).toEqual(expected),
  )
  // While it is off: 5.1 V of the rail, and 1 V that the sheet’s last point of the diode drops. A heater has no diode.
  test.each([
    [6.09, [['drain', 'stops']]],
    [6.11, []],
  ])('a transistor that stands %d V, under a coil', (max, expected) =>
    expect(told(changed('nfet-small', (t: Transistor) => (t.voltage = { max, kind: 'absolute' })))).toEqual(
      expected,
    ),
  )
  test.each([
    [5.09, ['drain']],
    [5.11, []],
  ])('a transistor that stands %d V, under a plain load', (max, expected) => {
    const strong = changed('nfet-strong', (t: Transistor) => (t.voltage = { max, kind: 'absolute' }))
    const mat: Project['devices'] = [['heat-mat-12v', 'Mat']]
    expect(told(strong, { devices: mat }).flatMap(([what]) => (what === 'drain' ? [what] : []))).toEqual(
      expected,
    )
  })
  test('across a load on another supply the diode stands that one', () => {
    const diode = changed('diode-small', (d: object) =>
      Object.assign(d, { reverse: { max: 12, kind: 'absolute' } }),
    )
    const fed = (more: object) => told(diode, { devices: [['buzzer-magnetic', 'Horn', undefined, more]] })
    // 5.1 V on the rail, 12.8 V in front of the regulator.
    expect(fed({}).filter(([what]) => what === 'reverse')).toEqual([])
    expect(fed({ fedBy: 'source' })).toContainEqual(['reverse', 'stops'])
  })
})

test('on a leg without a converter pausing the radio helps nothing, and is not proposed', () => {
  const proposed = (pin: string) =>
    on({
      chip: 'mw2-module',
      regulator: 'bl33-low',
      radio: true,
      devices: [['sound-sensor', 'Ear']],
      locks: { 'd1.1.ENV': pin },
    })
      .findings.find((f) => f.check === 'pins.cannot-serve')!
      .fixes.map((f) => f.label)
  // P12 is read by the converter that the radio stops, P00 by none.
  expect(proposed('P12')).toContain('Pause the radio to read Ear')
  expect(proposed('P00').filter((l) => l.includes('radio'))).toEqual([])
})
