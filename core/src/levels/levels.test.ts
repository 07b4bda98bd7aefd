// Levels by hand: what is driven, read and stood at the corners of the supplies, and what joins two voltages.

import { shippedLibrary } from '../../test/files'
import { analyse } from '../analysis'
import { applyEdits, type Design, emptyDesign, type NeedDevice, shiftKinds } from '../design'
import { stockOf } from '../circuit'
import { carrierOf } from '../carrier'
import type { Chip, Device, Library } from '../parts'
import { shiftsFor } from './shift'

const library = shippedLibrary()
const project = (
  chip: string,
  devices: (Partial<NeedDevice> & { part: string })[],
  power: Design['power'] = { source: 'usb-port', regulator: 'bl33-low' },
): Design => {
  const empty = emptyDesign('Levels')
  return {
    ...empty,
    needs: {
      ...empty.needs,
      devices: devices.map((d, i) => ({ id: `d${i + 1}`, name: d.part, count: 1, ...d })),
    },
    chip: { part: chip },
    power,
  }
}
const levels = (d: Design) => analyse(d, library).pins.levels
const one = (d: Design, signal: RegExp) => levels(d).find((l) => signal.test(l.wire.signal.name))!

test('a 5 V level on a 3.3 V converter: the divider’s values and what is left, by hand', () => {
  const design = project('qm32-48', [{ part: 'gas-sensor-5v', fedBy: 'source' }])
  const before = one(design, /gas/)
  // bl33-low holds 3.3 V ± 2 %: 3.234 V at the least, and a leg stands 0.3 V above that; tolerance is for digital only
  expect([before.grade, before.severity]).toEqual(['outside the sheet', 'stops'])
  expect(before.stands.value.min).toBeCloseTo(3.234, 9)
  const after = analyse(
    applyEdits(design, [{ kind: 'fitShift', signal: before.wire.signal.id, name: '', shift: 'divider' }]),
    library,
  )
  // R_2: ten times the sensor's 5 kΩ, nearest of E12 47k; R_1 ≥ 47k · 1.05/0.95 · (5/3.234 − 1) = 28.4k → 33k
  const values = after.pins.support.map((s) => s.value?.marking)
  expect(values).toEqual(['33k', '47k'])
  const fitted = after.pins.levels[0]!
  expect([fitted.grade, fitted.severity]).toEqual(['guaranteed', undefined])
  // 5 · 49.35 / (31.35 + 49.35)
  expect(fitted.reaches.value.max).toBeCloseTo((5 * 49.35) / (31.35 + 49.35), 9)
  // The sensor is wired to the divider, not to the leg.
  const far = after.build.nets.find((n) => n.name.endsWith('_FAR'))!
  expect(far.nodes.map((n) => n.terminal)).toContain('LVL')
  expect(far.nodes).toHaveLength(2)
})

test('two-wire at two voltages is joined both ways, near side at the chip’s rail and far side at the device’s', () => {
  const design = project('mw2-module', [{ part: 'glow-display', wiring: 'i2c', fedBy: 'source' }])
  expect(levels(design).map((l) => [l.direction, l.severity])).toEqual([
    ['both ways', 'stops'],
    ['both ways', 'stops'],
  ])
  const finding = analyse(design, library).findings.find((f) => f.check === 'pins.level')!
  const joined = finding.fixes.filter((f) => f.edits.every((e) => e.kind === 'fitShift'))
  expect(joined).toHaveLength(1)
  const after = analyse(applyEdits(design, joined[0]!.edits), library)
  expect(after.pins.levels.every((l) => l.grade === 'guaranteed')).toBe(true)
  const fet = after.pins.support.find((s) => s.key === 'shift-transistor:i2c.SDA')!
  expect(Object.fromEntries(fet.legs.map((l) => [l.name.split(' ')[1], l.net]))).toEqual({
    gate: 'VCC',
    source: 'I2C_SDA',
    drain: 'I2C_SDA_FAR',
  })
})

test('what comes from another supply is planned onto legs that stand it, where there are such legs', () => {
  const five = { part: 'track-sensor', wiring: 'plain', fedBy: 'source' as const, count: 8 }
  const on = (chip: string) => analyse(project(chip, [five, { part: 'lamp-red', count: 4 }]), library)
  const { pins, findings } = on('qm32-20')
  const tolerant = new Set(
    pins.chip!.pins.filter((p) => p.attributes?.some((a) => a.kind === 'tolerant')).map((p) => p.id),
  )
  const legs = pins.plan!.wires.map((w) => [w.signal.reaches !== undefined, tolerant.has(w.pin.id)])
  expect(legs.filter(([five]) => five)).toHaveLength(8)
  expect(legs.filter(([five, stands]) => five && !stands)).toEqual([])
  // Some legs of the chip do not stand it, so this was a choice.
  expect(pins.chip!.pins.some((p) => p.type === 'io' && !tolerant.has(p.id))).toBe(true)
  expect(findings.map((f) => f.check)).not.toContain('pins.level')
  // A chip without such legs pays for each, and says so; with a shift in the line it no longer does.
  const bare = on('mw2-module').pins.plan!.wires.filter((w) => w.signal.reaches)
  expect(bare.every((w) => w.items.some((i) => i.name === 'above what it stands'))).toBe(true)
  const d = project('mw2-module', [{ ...five, count: 1 }])
  const fitted = applyEdits(d, [{ kind: 'fitShift', signal: 'd1.1.OUT', name: '', shift: 'divider' }])
  expect(analyse(fitted, library).pins.plan!.wires[0]!.items).toEqual([])
})

test('of both ends of a bus the worse is told, and every margin of both is kept', () => {
  // 5 V at the chip, two cells of 1.8 V to 3.2 V at the sensor, whose own pull-ups go there: the chip may not read a high (a risk),
  // and 5.1 V reach what stands 1.8 V + 0.3 V (a stop).
  const [sda] = levels(
    project('td8-28-dip', [{ part: 'humidity-two-wire', name: 'Air', fedBy: 'feed' }], {
      source: 'adapter-9v',
      regulator: 'bl5-cool',
      feed: 'cells-2-aa',
    }),
  )
  expect([sda!.severity, sda!.text]).toEqual(['stops', 'up to 5.1 V reaches Air, which stands 2.1 V'])
  expect(sda!.margins.map((m) => m.symbol)).toEqual(['NM_H', 'NM_L', 'NM_H', 'NM_L', 'M_top'])
  expect(sda!.margins[4]!.value.min).toBeCloseTo(1.8 + 0.3 - 5.1, 9)
  expect(sda!.margins.slice(0, 2).map((m) => m.formula)).toEqual(['V_OH − V_IH', 'V_IL − V_OL'])
  // A bus whose lower supply is below 2 V is low within a fifth of that, and never above 0.4 V: the chip reads low up to a
  // quarter of 3.234 V.
  const lowMargin = (min: number, max: number) => {
    const feed = {
      ...library.parts['cells-2-aa'],
      resistance: undefined,
      voltage: { min, typ: min, max, kind: 'guaranteed' },
    }
    const power = { source: 'usb-port', regulator: 'bl33-low', feed: 'cells-2-aa' }
    const design = project('mw2-module', [{ part: 'temperature-two-wire', fedBy: 'feed' }], power)
    const [line] = analyse(design, { parts: { ...library.parts, 'cells-2-aa': feed as never } }).pins.levels
    return line!.margins[1]!.value.min
  }
  expect(lowMargin(1.8, 1.8)).toBeCloseTo(0.25 * 3.234 - 0.2 * 1.8, 9)
  expect(lowMargin(1.8, 3.2)).toBeCloseTo(0.25 * 3.234 - 0.4, 9)
  expect(lowMargin(2.01, 3.2)).toBeCloseTo(0.25 * 3.234 - 0.4, 9)
  // Without pull-ups of its own a sensor at 5 V hears 3.234 V and wants 0.7 · 5.25 V: its end alone is told.
  const [lone] = levels(
    project('mw2-module', [{ part: 'temperature-two-wire', name: 'Heat', fedBy: 'source' }]),
  )
  expect([lone!.severity, lone!.text]).toEqual([
    'risks',
    'as little as 3.23 V reaches Heat, which reads high from 3.67 V',
  ])
})

test('a reference above the supply is told where the supply is lowest, and stops where the leg doesn’t stand it', () => {
  // 2.505 V at most; two cells go down to 1.8 V, and the leg stands 0.5 V more
  const on = (source: string, regulator?: string) =>
    levels(project('td8-28-dip', [{ part: 'reference-2v5', name: 'Ref' }], { source, regulator }))[0]!
  const cells = on('cells-2-aa')
  expect([cells.severity, cells.text]).toEqual([
    'stops',
    'up to 2.5 V reaches leg 27 (AREF), which stands 2.3 V',
  ])
  expect(cells.margins[0]!.value.min).toBeCloseTo(1.8 - 2.505, 9)
  expect(cells.facts.map((f) => f.text)).toEqual([
    'Ref gives up to 2.5 V',
    'The supply is 1.8 V to 3.2 V',
    'leg 27 (AREF) stands 2.3 V',
  ])
  // three cells: 2.7 V are enough
  const three = on('cells-3-aa')
  expect([three.severity, three.margins[0]!.value.min.toFixed(3)]).toEqual([undefined, '0.195'])
  expect(three.facts).toHaveLength(3)
})

// Table 13 of the module: its converter reads from 0.1 V to 2.6 V; the cell gives 1.65 V, the sound 3.3 V and 2 % more.
test.each([
  ['cell-voltage', 'notes', 'all below 100 mV reads as nothing: the converter’s range begins there'],
  ['sound-sensor', 'risks', 'it goes up to 3.37 V, and all above 2.6 V reads as the top code'],
])('a converter whose range does not begin at ground: %s %s', (part, severity, text) => {
  const [level] = levels(project('mw2-module', [{ part }]))
  expect([level!.severity, level!.text]).toEqual([severity, text])
  expect(level!.facts.map((f) => f.text)).toContain(
    'The converter’s range is 100 mV to 2.6 V: what is below reads as nothing',
  )
})

test('a meter that stands 4 V has that and not its supply to keep below', () => {
  const dial = levels(
    project('qm32-64', [{ part: 'pointer-meter', name: 'Dial' }], { regulator: 'bl33-low' }),
  )[0]!
  // 3.3 V ± 2 %: 4 V less 3.366 V
  expect(dial.margins[0]!.value.min).toBeCloseTo(4 - 3.366, 9)
  expect(dial.facts[1]!.text).toBe('Dial stands 4 V')
})

test('what a sheet states of a high is no more than the device is fed with, but for what feeds itself', () => {
  const eye = library.parts['motion-sensor'] as Device
  const high = { min: 4, typ: 4.5, max: 5, kind: 'guaranteed' as const }
  const giving = (terminals: Device['terminals']): Library => ({
    parts: {
      ...library.parts,
      [eye.id]: {
        ...eye,
        supply: undefined,
        terminals,
        wirings: eye.wirings.map((w) => ({
          ...w,
          signals: w.signals.map((s) => ({ ...s, electrical: { kind: 'logic-output' as const, high } })),
        })),
      },
    },
  })
  const reaches = (on: Library) =>
    analyse(project('qm32-48', [{ part: eye.id }]), on).pins.levels[0]!.reaches.value.max
  expect(reaches(giving(eye.terminals))).toBeCloseTo(3.366, 9)
  expect(reaches(giving(eye.terminals.filter((t) => t.role !== 'supply')))).toBe(5)
})

test('which of the two levels is told: the one that is worse', () => {
  // a chip that reads low below 0.05 of 5 V hears 0.4 V as no low; one that reads high from 1.02 of it hears no high
  const chip = library.parts['td8-28-dip'] as Chip
  const text = (low: number, high: number) => {
    const io = { ...chip.io, inputLow: { factor: low, offset: 0 }, inputHigh: { factor: high, offset: 0 } }
    const on = { parts: { ...library.parts, [chip.id]: { ...chip, io } } }
    return analyse(
      project(
        chip.id,
        [
          { part: 'sound-sensor', wiring: 'plain' },
          { part: 'track-sensor', wiring: 'plain' },
        ],
        { source: 'adapter-9v', regulator: 'bl5-cool' },
      ),
      on,
    ).pins.levels.find((l) => l.end.instance.part.id === 'track-sensor')!.text
  }
  expect(text(0.05, 0.5)).toMatch(/^a low of up to \d+ mV reaches leg .*, which reads low below 245 mV$/)
  expect(text(0.3, 1.02)).toMatch(/^as little as .* reaches leg .*, which reads high from 5.2 V$/)
})

test.each([
  // TTL thresholds read 3.3 V; 0.7 · 5 V does not
  ['relay-module', 'guaranteed'],
  ['servo-small', 'guaranteed'],
  ['pixel-strip-8', 'outside the sheet'],
])('%s at 5 V behind a 3.3 V leg: %s', (part, grade) => {
  const d = project('mw2-module', [{ part, fedBy: 'source' }])
  expect(levels(d)[0]!.grade).toBe(grade)
})

test('whatever is offered clears the finding, passes the line’s rate and is wired in', () => {
  const parts = [
    'gas-sensor-5v',
    'glow-display',
    'pixel-strip-8',
    'track-sensor',
    'keeper-clock',
    'card-reader',
  ]
  let offered = 0
  for (const chip of ['mw2-module', 'qm32-48'])
    for (const part of parts) {
      const design = project(chip, [{ part, fedBy: 'source' }])
      for (const finding of analyse(design, library).findings.filter((f) => f.check === 'pins.level'))
        for (const fix of finding.fixes) {
          const after = analyse(applyEdits(design, fix.edits), library)
          offered++
          expect(after.findings.map((f) => f.id)).not.toContain(finding.id)
          for (const s of after.pins.support.filter((x) => x.key.startsWith('shift-')))
            for (const leg of s.legs) expect(after.build.nets.map((n) => n.name)).toContain(leg.net)
        }
    }
  expect(offered).toBeGreaterThan(10)
  expect(shiftKinds.length).toBe(5)
})

// A chip on exactly 3.3 V that reads high from 0.75 of it, 2.475 V, low up to a quarter, 0.825 V, and stands 0.3 V more, 3.6 V.
describe('at each boundary, and a millivolt beyond', () => {
  const exact = { ...library.parts['bl33-low'], output: { min: 3.3, typ: 3.3, max: 3.3, kind: 'guaranteed' } }
  const chip = library.parts['mw2-module'] as Chip
  const eye = library.parts['track-sensor'] as Device
  const meter = library.parts['pointer-meter'] as Device
  type Electrical = Device['wirings'][number]['signals'][number]['electrical']
  /** The one line of a device whose signals are so. */
  const line = (
    part: Device,
    electrical: Electrical,
    { io, ...more }: Partial<NeedDevice> & { io?: Partial<Chip['io']> } = {},
    edits: Parameters<typeof applyEdits>[1] = [],
  ) => {
    const wirings = part.wirings.map((w) => ({
      ...w,
      signals: w.signals.map((s) => ({ ...s, electrical })),
    }))
    const parts = {
      ...library.parts,
      'bl33-low': exact as never,
      [chip.id]: { ...chip, io: { ...chip.io, ...io } },
      [part.id]: { ...part, wirings },
    }
    const design = applyEdits(project(chip.id, [{ part: part.id, wiring: 'plain', ...more }]), edits)
    return analyse(design, { parts }).pins.levels[0]!
  }
  const output = (min: number, typ: number, max: number): Electrical => ({
    kind: 'logic-output',
    high: { min, typ, max, kind: 'guaranteed' },
  })
  const fed: Partial<NeedDevice> = { fedBy: 'source' }

  test.each<[string, Electrical, Partial<NeedDevice>, string | undefined, string | undefined]>([
    ['a high that is always enough', output(2.475, 3, 3.3), {}, 'guaranteed', undefined],
    ['usually', output(2.474, 2.475, 3.3), {}, 'typical', 'risks'],
    ['at best', output(2.4, 2.474, 2.475), {}, 'outside the sheet', 'risks'],
    ['never', output(2.4, 2.45, 2.474), {}, 'impossible', 'stops'],
    ['just what the leg stands', output(3, 3.3, 3.6), fed, 'guaranteed', undefined],
    ['more than that', output(3, 3.3, 3.601), fed, 'outside the sheet', 'stops'],
  ])('into the chip: %s', (_, electrical, more, grade, severity) => {
    const { grade: g, severity: s, margins } = line(eye, electrical, more)
    expect([g, s]).toEqual([grade, severity])
    // What it stands is a margin of its own where that is too little.
    expect(margins.map((m) => m.symbol)).toEqual(
      electrical.kind === 'logic-output' && electrical.high!.max! > 3.6
        ? ['NM_H', 'NM_L', 'M_top']
        : ['NM_H', 'NM_L'],
    )
  })
  test.each([
    // 0.4 V of an output whose sheet says nothing, usually 0.2 V
    [0.4, 'guaranteed', undefined],
    [0.399, 'typical', 'risks'],
    [0.2, 'typical', 'risks'],
    [0.199, 'outside the sheet', 'risks'],
  ])('into the chip: a low, read up to %d V: %s', (low, grade, severity) => {
    const io = { inputLow: { factor: 0, offset: low } }
    const found = line(eye, output(3.3, 3.3, 3.3), { io })
    expect([found.grade, found.severity]).toEqual([grade, severity])
    expect(found.text).toMatch(
      severity ? /^a low of up to 400 mV reaches .*, which reads low below \d+ mV$/ : /^$/,
    )
  })
  test.each([
    [3.3, undefined, ''],
    [3.299, 'risks', 'up to 3.3 V reaches Dial, which stands 3.3 V: the program must keep below it'],
  ])('a meter at a voltage of the chip, that stands %d V', (max, severity, text) => {
    const wirings = meter.wirings.map((w) => ({
      ...w,
      signals: w.signals.map((s) => ({ ...s, electrical: { ...s.electrical, max } })),
    }))
    const parts = {
      ...library.parts,
      'bl33-low': exact as never,
      [meter.id]: { ...meter, wirings } as Device,
    }
    const design = project('qm32-64', [{ part: meter.id, name: 'Dial' }])
    const [dial] = analyse(design, { parts }).pins.levels
    expect([dial!.severity, dial!.text]).toEqual([severity, text])
  })
  // Its sheet: 4.5 V to 5.5 V, reads 3.3 V as high from 2 V on.
  test.each([
    [4.5, true],
    [4.499, false],
    [5.5, true],
    [5.501, false],
  ])('a buffer fed with %d V: %s', (volts, fits) => {
    const feed = {
      ...library.parts['adapter-5v'],
      voltage: { min: volts, typ: volts, max: volts, kind: 'guaranteed' },
    }
    const parts = { ...library.parts, 'bl33-low': exact as never, 'adapter-5v': feed as never }
    const power = { source: 'usb-port', regulator: 'bl33-low', feed: 'adapter-5v' }
    const design = project(chip.id, [{ part: 'pixel-strip-8', fedBy: 'feed' }], power)
    const { pins } = analyse(design, { parts })
    const id = pins.levels[0]!.wire.signal.id
    const after = analyse(applyEdits(design, [{ kind: 'fitShift', signal: id, name: '', shift: 'buffer' }]), {
      parts,
    })
    expect(after.pins.support.some((x) => x.role === 'shift buffer')).toBe(fits)
    // Behind it the strip hears its own supply.
    if (fits) expect(after.pins.levels[0]!.margins[0]!.value.min).toBeCloseTo(0.3 * volts, 9)
  })
  // A clamp's table: 2 mA at 1 V above the supply, 5 mA at most at 1.5 V. 5.25 V of the plug are 1.95 V above 3.3 V.
  test('what the leg’s clamp takes is told where more comes than it stands, and only there', () => {
    const drivers = [
      {
        id: 'usual',
        powerClamp: [
          { voltage: 0, current: { min: 0, typ: 0, max: 0, kind: 'guaranteed' as const } },
          { voltage: 1, current: { min: 1e-3, typ: 2e-3, max: 4e-3, kind: 'guaranteed' as const } },
          { voltage: 3, current: { min: 5e-3, typ: 8e-3, max: 14e-3, kind: 'guaranteed' as const } },
        ],
      },
    ] as Chip['io']['drivers']
    const pins = chip.pins.map((p) => ({ ...p, driver: 'usual' }))
    const told = (high: number) => {
      const wirings = eye.wirings.map((w) => ({
        ...w,
        signals: w.signals.map((s) => ({ ...s, electrical: output(high, high, high) })),
      }))
      const parts = {
        ...library.parts,
        'bl33-low': exact as never,
        [chip.id]: { ...chip, pins, io: { ...chip.io, drivers } },
        [eye.id]: { ...eye, wirings },
      }
      const design = project(chip.id, [{ part: eye.id, wiring: 'plain', fedBy: 'source' }])
      return analyse(design, { parts }).pins.levels[0]!.facts.map((f) => f.text)
    }
    expect(told(3.6)).toHaveLength(3)
    // 1.5 V above: 4 mA and a quarter of the 10 mA to the next point
    expect(told(4.8).slice(3)).toEqual([
      expect.stringMatching(
        /^1\.5 V above the rail, the clamp of leg .* takes up to 6\.5 mA, if what drives it can give as much$/,
      ),
    ])
  })
  // What a shift lets through: the rail and the diode’s volts, the far supply, the rail.
  test.each<[string, Partial<NeedDevice> & { part: string }, 'clamp' | 'mosfet' | 'buffer', number, number]>([
    ['to the chip', { part: 'track-sensor', wiring: 'plain', ...fed }, 'clamp', 3.3, 3.6],
    ['to the chip', { part: 'track-sensor', wiring: 'plain', ...fed }, 'mosfet', 3.3, 3.3],
  ])('%s through what is fitted: %j, %s', (direction, device, shift, least, most) => {
    const found = line(eye, { kind: 'logic-output' }, device, [
      { kind: 'fitShift', signal: 'd1.1.OUT', name: '', shift },
    ])
    expect([found.direction, found.severity, found.shift]).toEqual([direction, undefined, shift])
    expect(found.reaches.value.min).toBeGreaterThanOrEqual(least)
    expect(found.reaches.value.max).toBeLessThanOrEqual(most)
  })
})

describe('what can join a line, by hand', () => {
  const offers = (chip: string, device: Partial<NeedDevice> & { part: string }, power?: Design['power']) => {
    const design = project(chip, [device], power)
    const a = analyse(design, library)
    const level = a.pins.levels[0]!
    const { rail, supplies } = a.power
    return shiftsFor(level.wire, level.end, level.direction, {
      design,
      library,
      chip: a.chip.chip!,
      rail: rail!,
      supplies,
      stock: stockOf(library),
    })
  }
  test('clamp: (5.25 − 3.234 − 0.02) V / 1 mA = 1.996 kΩ, next up 2.2 kΩ; the diode holds the leg within 0.3 V', () => {
    const clamp = offers('mw2-module', { part: 'track-sensor', wiring: 'plain', fedBy: 'source' }).find(
      (s) => s.kind === 'clamp',
    )!
    // the diode’s least at 1 mA, on the line from nothing to 0.2 V at 10 mA: 0.02 V
    expect(clamp.resistors[0]!.worked.value.max).toBeCloseTo(1996, 6)
    expect(clamp.resistors[0]!.value.value).toBe(2200)
    expect(clamp.part!.id).toBe('diode-polarity')
  })
  test.each([
    ['diode-polarity', 'track-sensor', 'plain', 'clamp'],
    ['nfet-small', 'glow-display', 'i2c', 'mosfet'],
    ['buffer-single', 'pixel-strip-8', undefined, 'buffer'],
  ])(
    'of several like %s that serve the cheapest is taken, whichever the library has first',
    (of, part, wiring, kind) => {
      for (const id of ['a-cheap', 'z-cheap']) {
        const shelf = {
          parts: { ...library.parts, [id]: { ...library.parts[of]!, id, price: 0.001 } },
        }
        const design = project('mw2-module', [{ part, wiring, fedBy: 'source' }])
        const a = analyse(design, shelf)
        const [level] = a.pins.levels
        const { rail, supplies } = a.power
        const made = shiftsFor(level!.wire, level!.end, level!.direction, {
          design,
          library: shelf,
          chip: a.chip.chip!,
          rail: rail!,
          supplies,
          stock: stockOf(shelf),
        })
        expect(made.find((s) => s.kind === kind)!.part!.id).toBe(id)
      }
    },
  )
  test('an analog level is divided only; a line both ways gets what works both ways', () => {
    const kinds = (part: string, wiring?: string) =>
      offers('mw2-module', { part, wiring, fedBy: 'source' }).map((s) => s.kind)
    expect(kinds('gas-sensor-5v')).toEqual(['divider'])
    expect(kinds('glow-display', 'i2c')).toEqual(['mosfet'])
    expect(kinds('pixel-strip-8')[0]).toBe('buffer')
    expect(kinds('pixel-strip-8')).not.toContain('divider')
  })
  test('a MOSFET needs its threshold below the lower supply less 0.4 V: on two empty cells the cheapest has not, and a low one has', () => {
    // 2.0 V of threshold at most, and 1.0 V; two cells are down to 1.8 V.
    const low = offers(
      'td8-28-dip',
      { part: 'glow-display', wiring: 'i2c', fedBy: 'feed' },
      { source: 'cells-2-aa', feed: 'adapter-5v' },
    )
    expect(low.filter((s) => s.kind === 'mosfet').map((s) => s.part!.id)).toEqual(['nfet-low'])
  })
  test('the rate is that of what is fitted into the leg: 33k ∥ 47k and the leg’s capacitance', () => {
    const [divider] = offers('qm32-48', { part: 'gas-sensor-5v', fedBy: 'source' })
    const farads = carrierOf(library, 'qm32-48')!.io.capacitance.max!
    // both 5 % high
    const ohms = (1.05 * 33e3 * 47e3) / 80e3
    expect(divider!.rate.value.min).toBeCloseTo(1 / (2 * 2.2 * ohms * farads), -2)
  })
})
