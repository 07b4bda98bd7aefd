// The small sums by hand: converter steps, timers' divisions, bytes and their patterns, pull-up windows by speed.

import { shippedLibrary } from '../../test/files'
import { analyse } from '../analysis'
import { applyEdits, type Design, emptyDesign, type NeedDevice } from '../design'
import { fromRule } from '../findings'
import { currentInSeries } from '../sums'
import { bytePlans, patternBases, portValue, pwmFit, readPattern, writePattern } from '../legs'
import { topCode } from './sums'

const library = shippedLibrary()
const pinsOf = (
  chip: string,
  devices: (Partial<NeedDevice> & { part: string })[],
  more: Partial<Design> = {},
  power: Design['power'] = { source: 'usb-port', regulator: 'bl33-low' },
) => {
  const empty = emptyDesign('Sums')
  const design: Design = {
    ...empty,
    needs: {
      ...empty.needs,
      devices: devices.map((d, i) => ({ id: `d${i + 1}`, name: d.part, count: 1, ...d })),
    },
    chip: { part: chip },
    power,
    ...more,
  }
  return { design, pins: analyse(design, library).pins }
}

test.each([
  [8, 255],
  [10, 1023],
  [12, 4095],
])('%d bits end at %d', (bits, top) => expect(topCode(bits)).toBe(top))

test('a step and the top of the range, plain and through the divider, by hand', () => {
  const { design, pins } = pinsOf('qm32-48', [{ part: 'gas-sensor-5v', fedBy: 'source' }])
  // 12 bits on 3.3 V: 3.3 / 4096 = 0.80566 mV
  expect(pins.converters[0]!.step.value.typ).toBeCloseTo(3.3 / 4096, 12)
  expect(pins.converters[0]!.top.value.typ).toBe(4095)
  const divided = analyse(
    applyEdits(design, [
      { kind: 'fitShift', signal: pins.converters[0]!.wire.signal.id, name: '', shift: 'divider' },
    ]),
    library,
  ).pins.converters[0]!
  // 33k over 47k: 3.3 · 80/47 = 5.617 V at the sensor
  expect(divided.reaches.value.typ).toBeCloseTo((3.3 * 80) / 47, 9)
})

test.each([
  // clock, wanted, bits, prescalers → p, N, by hand
  [16e6, 50, 16, { prescalers: [1, 8, 64, 256, 1024] }, { prescaler: 8, steps: 40000, actual: 50 }],
  [8e6, 2700, 8, { prescalers: [1, 8, 64, 256, 1024] }, { prescaler: 64, steps: 46, actual: 8e6 / 64 / 46 }],
  [72e6, 20e3, 16, { prescalerUpTo: 65536 }, { prescaler: 1, steps: 3600, actual: 20e3 }],
  [72e6, 50, 16, { prescalerUpTo: 65536 }, { prescaler: 22, steps: 65455, actual: 72e6 / 22 / 65455 }],
  [1e6, 0.5, 8, { prescalers: [1, 8, 64, 256, 1024] }, undefined],
  [1e6, 900e3, 8, { prescalerUpTo: 1 }, undefined],
])('a timer of %d Hz for %d Hz with %d bits', (clock, wanted, bits, division, fit) => {
  const unit = { id: 'T', kind: 'timer' as const, name: 'T', signals: ['A'], resolution: bits, ...division }
  expect(pwmFit(clock, wanted, unit)).toEqual(fit)
})

test('of all divisions the one taken has the most steps that fit (tried one by one)', () => {
  for (const clock of [1e6, 8e6, 16e6, 48e6, 72e6])
    for (const wanted of [33, 50, 490, 1000, 2700, 20e3, 38e3]) {
      const unit = {
        id: 'T',
        kind: 'timer' as const,
        name: 'T',
        signals: ['A'],
        resolution: 8,
        prescalerUpTo: 4096,
      }
      const tried = Array.from({ length: 4096 }, (_, i) => Math.round(clock / wanted / (i + 1))).filter(
        (n) => n >= 2 && n <= 256,
      )
      const best = tried.length > 0 ? Math.max(...tried) : undefined
      expect(pwmFit(clock, wanted, unit)?.steps).toBe(best)
    }
})

describe('bytes', () => {
  test.each([
    [42, 8, '00101010', '2A', '42'],
    [255, 8, '11111111', 'FF', '255'],
    [5, 4, '0101', '5', '5'],
    [0, 8, '00000000', '00', '0'],
  ])('%d of %d bits', (value, bits, ...written) => {
    expect(patternBases.map((b) => writePattern(value, bits, b))).toEqual(written)
    expect(patternBases.map((b, i) => readPattern(written[i]!, bits, b))).toEqual([value, value, value])
  })
  test('every pattern of eight bits reads back, and what is none is refused', () => {
    for (let v = 0; v < 256; v++)
      for (const b of patternBases) expect(readPattern(writePattern(v, 8, b), 8, b)).toBe(v)
    expect(readPattern('0b0010_1010', 8, 'binary')).toBe(42)
    expect(readPattern('0x2a', 8, 'hexadecimal')).toBe(42)
    for (const [text, base] of [
      ['102', 'binary'],
      ['fg', 'hexadecimal'],
      ['256', 'decimal'],
      ['', 'decimal'],
      ['-1', 'decimal'],
    ] as const)
      expect(readPattern(text, 8, base)).toBeUndefined()
  })
  test('in order on a port one write sets it: value and mask, shifted; bit by bit the same legs', () => {
    const { pins } = pinsOf('qm32-48', [{ part: 'line-display', wiring: 'byte', name: 'Text' }])
    const byte = pins.bytes[0]!
    expect(byte.wires.map((w) => w.signal.name)).toEqual(Array.from({ length: 8 }, (_, i) => `Text D${i}`))
    const { shift, name } = byte.port!
    expect(portValue(byte, 0x2a)).toEqual({ mask: 0xff * 2 ** shift, value: 0x2a * 2 ** shift })
    byte.wires.forEach((w, i) => expect(w.pin.id).toBe(`${name}${shift + i}`))
    expect(
      bytePlans({ bytes: [{ id: 'd1', name: 'x', signals: ['none'] }] }, { wires: [], wirings: [] }),
    ).toEqual([])
  })
})

describe('the I2C window by hand from the I2C-bus specification, at three speeds', () => {
  const { pins } = pinsOf('qm32-48', [{ part: 'temperature-two-wire' }, { part: 'keeper-clock' }])
  const sda = pins.windows.filter((w) => w.wire.signal.id === 'i2c.SDA')
  const ends = sda[0]!.wire.signal.ends.map((e) => e.signal.electrical)
  const farads =
    ends.reduce((sum, e) => sum + (e.kind === 'open-drain' ? (e.capacitance.max ?? 0) : 0), 0) +
    (pins.chip!.io.capacitance.max ?? 0)
  test.each([
    ['100 kHz', 1000e-9],
    ['400 kHz', 300e-9],
    ['1 MHz', 120e-9],
  ])('%s: R_max = t_r / (0.8473 · C_b), R_min = (3.366 − 0.4) V / 3 mA', (what, rise) => {
    const window = sda.find((w) => w.what === what)!
    expect(window.largest.value.min).toBeCloseTo(rise / (0.8473 * farads), 3)
    expect(window.smallest.value.max).toBeCloseTo((3.3 * 1.02 - 0.4) / 3e-3, 6)
  })
  test('a faster bus gets a smaller pull-up, within its own window', () => {
    const of = (speed: number) => {
      const { design, pins: slow } = pinsOf('qm32-48', [{ part: 'temperature-two-wire' }])
      expect(slow.plan!.status).toBe('proven')
      const { windows } = analyse(applyEdits(design, [{ kind: 'setBusSpeed', speed }]), library).pins
      return windows.find((w) => w.used && w.wire.signal.id === 'i2c.SDA')!
    }
    const [slow, fast] = [of(100e3), of(1e6)]
    expect(fast.fitted!).toBeLessThan(slow.fitted!)
    for (const w of [slow, fast]) {
      expect(w.fitted!).toBeGreaterThanOrEqual(w.smallest.value.max)
      expect(w.fitted!).toBeLessThanOrEqual(w.largest.value.min)
    }
  })
})

describe('an LED behind a resistance against an independent solution', () => {
  // Walking the current up in steps of a microampere until drop and forward voltage use up the supply.
  const walked = (supply: number, ohms: number, points: (readonly [number, number])[]): number => {
    // The last segment that begins at or below i; it goes on beyond the curve, the first one before it.
    const at = (i: number) => {
      const k = points.slice(0, -1).reduce((last, [x], n) => (x <= i ? n : last), 0)
      const [[x0, y0], [x1, y1]] = [points[k]!, points[k + 1]!]
      return y0 + ((i - x0) / (x1 - x0)) * (y1 - y0)
    }
    for (let i = 0; i < 0.3; i += 1e-6) if (i * ohms + at(i) >= supply) return i
    return Infinity
  }
  const given = (symbol: string, value: number, unit: 'V' | 'Ω') =>
    fromRule(symbol, symbol, value, unit, 'test')
  const colours = ['led-red', 'led-yellow', 'led-green', 'led-white']
  test.each(colours.flatMap((c) => [3, 3.3, 5].flatMap((v) => [22, 35, 80].map((r) => [c, v, r] as const))))(
    '%s on %d V behind %d Ω',
    (id, supply, ohms) => {
      const led = library.parts[id]!
      if (led.kind !== 'led') throw new Error(id)
      const curve = {
        part: led,
        field: 'forward',
        points: led.forward.map((f) => ({ x: f.current, y: f.voltage })),
      }
      const current = currentInSeries(
        { label: 'LED', symbol: 'I' },
        ['V', given('V', supply, 'V')],
        ['R', given('R', ohms, 'Ω')],
        [{ symbol: 'V_F', label: 'LED', curve }],
      ).value.typ
      const points = led.forward.map((f) => [f.current, f.voltage.typ!] as const)
      expect(Math.abs(current - walked(supply, ohms, points))).toBeLessThan(2e-6)
    },
  )
})
