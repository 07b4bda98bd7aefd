// Clocks by hand: load capacitors and what they do to a crystal, limits over supply, tolerances.

import { demo, shippedLibrary } from '../../test/files'
import { project, type Project } from '../../test/project'
import { analyse, proposalsFor as proposals } from '../analysis'
import { stockOf } from '../circuit'
import { type Chip, type Crystal, type Device, makeLibrary, type Part, type Resonator } from '../parts'
import { applyEdits, type ClockChoice, type Design } from '../design'
import { loadCapacitors, resolveClock } from '.'

const library = shippedLibrary()
const td8 = library.parts['td8-28-dip'] as Chip
const withParts = (...parts: Part[]) =>
  makeLibrary(Object.values({ ...library.parts, ...Object.fromEntries(parts.map((p) => [p.id, p])) }))

describe('crystal', () => {
  const of = (load: number, stray: number, more: Partial<Crystal> = {}, tolerance = 0) =>
    loadCapacitors(
      td8,
      {
        id: 'x',
        kind: 'crystal',
        name: 'x',
        min: 1e6,
        max: 2e7,
        strayCapacitance: { typ: stray, kind: 'typical' },
      },
      { ...(library.parts['crystal-8mhz'] as Crystal), loadCapacitance: load, ...more },
      { ...stockOf(library).ceramics!, tolerance },
    )
  test.each([
    // C = 2 · (C_L − C_stray): 18 pF with 5 pF stray, 12.5 pF with 3.5 pF, 8 pF with more stray than load
    [18e-12, 5e-12, 26e-12],
    [12.5e-12, 3.5e-12, 18e-12],
    [8e-12, 9e-12, 0],
  ])('load capacitors for %d F with %d F stray', (load, stray, each) =>
    expect(of(load, stray).wanted.value.typ).toBeCloseTo(each, 15),
  )
  test('27 pF each make 13.5 pF in series, 18.5 pF with 5 pF stray; at 10 % they are 24.3 to 29.7 pF', () => {
    // 26 pF wanted, 27 pF is the nearest of E12
    expect(of(18e-12, 5e-12).load.value.typ).toBeCloseTo(18.5e-12, 15)
    const loose = of(18e-12, 5e-12, {}, 0.1).load.value
    expect([loose.min, loose.max]).toEqual([expect.closeTo(17.15e-12, 15), expect.closeTo(19.85e-12, 15)])
  })
  test('pull by hand: C_1 12 fF, C_0 4 pF, 18.5 pF for 18 pF, and with 10 % capacitors', () => {
    const pull = (tolerance: number) =>
      of(18e-12, 5e-12, { motional: 12e-15, shunt: 4e-12 }, tolerance).pull!.value
    // 6e-15 · (1/22.5e-12 − 1/22e-12) = 6e-15 · (−1.0101e9) = −6.06 ppm
    expect(pull(0).typ).toBeCloseTo(-6.06, 2)
    // 6e-15 · (1/21.15e-12 − 1/22e-12) = 10.96 ppm; 6e-15 · (1/23.85e-12 − 1/22e-12) = −21.15 ppm
    expect(pull(0.1).max).toBeCloseTo(10.96, 2)
    expect(pull(0.1).min).toBeCloseTo(-21.15, 2)
  })
})

describe('off by', () => {
  const xtal: Crystal = {
    ...(library.parts['crystal-8mhz'] as Crystal),
    tolerance: 30e-6,
    temperature: 50e-6,
    ageing: 5e-6,
    motional: 12e-15,
    shunt: 4e-12,
  }
  const source = td8.clockSources.find((s) => s.kind === 'crystal')!
  const design = {
    ...project({ chip: td8.id, devices: [] }),
    chip: { part: td8.id, clock: { source: source.id, frequency: 8e6, part: xtal.id } },
  }
  const clock = resolveClock(design, withParts(xtal), td8, undefined)
  test('tolerance, temperature, ageing and the pull of the load add up: 30 + 50 + 5 ppm and the worse side of it', () => {
    const pull = clock.load!.pull!.value
    const worst = Math.max(Math.abs(pull.min), Math.abs(pull.max))
    expect(worst).toBeGreaterThan(5)
    expect(clock.deviation!.value.max).toBeCloseTo(85 + worst, 6)
  })
  test('the clock is that far on both sides of 8 MHz', () => {
    const ppm = clock.deviation!.value.max
    expect(clock.frequency.value.max).toBeCloseTo(8e6 * (1 + ppm * 1e-6), 3)
    expect(clock.frequency.value.min).toBeCloseTo(8e6 * (1 - ppm * 1e-6), 3)
    expect(clock.frequency.value.typ).toBe(8e6)
  })
})

describe('clock over supply', () => {
  const chip: Chip = {
    ...td8,
    frequencyLimits: [
      { supply: 1.8, frequency: 3e6 },
      { supply: 2.6, frequency: 8e6 },
      { supply: 4.2, frequency: 18e6 },
    ],
    clockSources: [
      { id: 'own', kind: 'internal', name: 'own', min: 1e6, max: 2e7, frequencies: [1e6], tolerance: 0 },
    ],
  }
  const shelf = (volts: number) =>
    withParts(chip, {
      ...(library.parts['adapter-5v'] as never as Part),
      voltage: { typ: volts, kind: 'guaranteed' },
    } as Part)
  const at = (volts: number, hertz: number) => {
    const design = {
      ...project({ chip: chip.id, source: 'adapter-5v', devices: [] }),
      chip: { part: chip.id, clock: { source: 'own', frequency: hertz } },
    }
    return analyse(design, shelf(volts)).clock
  }
  test.each([
    [1.7, 0],
    [1.8, 3e6],
    [2.2, 5.5e6],
    [3.4, 13e6],
    [5, 18e6],
  ])('at %d V', (supply, frequency) => expect(at(supply, 1e6).limit!.value.min).toBeCloseTo(frequency, 0))
  test.each([
    [1e6, 1.8],
    [13e6, 3.4],
    [18e6, 4.2],
  ])('%d Hz needs', (frequency, supply) =>
    expect(at(5, frequency).lowestSupply!.value.typ).toBeCloseTo(supply, 6),
  )
  test('above the last point nothing permits it', () => expect(at(5, 20e6).lowestSupply).toBeUndefined())
})

describe('what is said of a clock', () => {
  const said = (p: Project, resonator: Partial<Resonator>, check: string) => {
    const part = { ...(library.parts['resonator-16mhz'] as Resonator), ...resonator }
    const source = td8.clockSources.find((s) => s.kind === 'resonator')!
    const design = {
      ...project(p),
      chip: { part: td8.id, clock: { source: source.id, frequency: part.frequency, part: part.id } },
    }
    return analyse(design, withParts(part)).findings.find((f) => f.check === check)
  }
  const on5 = { chip: td8.id, source: 'adapter-12v', regulator: 'bl5-cool' }
  // The chip permits so much at 4.9 V, the least of the rail, from its own points.
  const most = analyse(project({ ...on5, devices: [] }), library).clock.limit!.value.min
  test.each([
    // a nominal clock at the limit, with tolerances that are and are not within what a limit is stated to
    [most, 0.0009, undefined],
    [most, 0.0011, 'risks'],
    [most * 1.0001, 0, 'stops'],
    [most * 0.99, 0.011, undefined],
    [most * 0.99, 0.012, 'risks'],
  ])('%d Hz, off by %d: %s', (frequency, tolerance, severity) =>
    expect(said({ ...on5, devices: [] }, { frequency, tolerance }, 'clock.too-fast')?.severity).toBe(
      severity,
    ),
  )
  test('a tolerance that no sheet states is told where a serial line hangs on it', () => {
    const silent = {
      ...td8,
      clockSources: td8.clockSources.map((s) => ({ ...s, tolerance: undefined })),
    } as Chip
    const found = analyse(project({ ...on5, devices: [['serial-link', 'Link']] }), withParts(silent)).findings
    expect(found.filter((f) => f.check === 'clock.too-loose').map((f) => f.severity)).toEqual(['notes'])
  })
  test.each([
    ['serial-link', 0.02, undefined],
    ['serial-link', 0.0201, 'risks'],
    ['can-link', 0.005, undefined],
    ['can-link', 0.0051, 'risks'],
    // What their sheets bear: pulses of an infrared frame 8 %, its carrier 4 %, bits of a light strip 12 %.
    ['remote-receiver', 0.08, undefined],
    ['remote-receiver', 0.0801, 'risks'],
    ['remote-sender', 0.04, undefined],
    ['remote-sender', 0.0401, 'risks'],
    ['pixel-strip-8', 0.12, undefined],
    ['pixel-strip-8', 0.1201, 'risks'],
  ])('%s on a clock off by %d: %s', (part, tolerance, severity) =>
    expect(
      said({ ...on5, devices: [[part, 'Link']] }, { frequency: 8e6, tolerance }, 'clock.too-loose')?.severity,
    ).toBe(severity),
  )
})

const proposalsFor = (finding: string, design: Design) => {
  const analysis = analyse(design, library)
  return proposals(
    analysis,
    library,
    analysis.findings.find((f) => f.id === finding)!,
  )
}

test('three receivers of one need are told once, two needs each', () => {
  const found = (devices: Project['devices']) =>
    analyse(
      project({ chip: td8.id, source: 'adapter-9v', regulator: 'bl5-cool', devices }),
      library,
    ).findings.flatMap((f) => (f.check === 'clock.too-loose' ? [f.text] : []))
  // the chip’s own oscillator is off by 10 %
  expect(found([['remote-receiver', 'Remote', undefined, { count: 3 }]])).toEqual([
    'The clock may be off by 10 %; Remote bears 8 %.',
  ])
  expect(
    found([
      ['remote-receiver', 'Remote'],
      ['remote-sender', 'Beam'],
      ['pixel-strip-8', 'Strip', undefined, { count: 2 }],
    ]),
  ).toEqual([
    'The clock may be off by 10 %; Remote bears 8 %.',
    'The clock may be off by 10 %; Beam bears 4 %.',
  ])
})

test('of several lines of a device the one that bears the least counts', () => {
  const device = structuredClone(library.parts['remote-sender']) as Device
  const [wiring] = device.wirings
  wiring!.signals.unshift({
    ...wiring!.signals[0]!,
    id: 'IN2',
    terminal: 'IN',
    kind: 'digital-out',
    timing: 0.3,
  })
  const found = analyse(
    project({ chip: td8.id, source: 'adapter-9v', regulator: 'bl5-cool', devices: [[device.id, 'Beam']] }),
    { parts: { ...library.parts, [device.id]: device } },
  ).findings.find((f) => f.check === 'clock.too-loose')!
  expect(found.text).toBe('The clock may be off by 10 %; Beam bears 4 %.')
})

describe('which part, and what is proposed', () => {
  const clocked = (clock: ClockChoice, p: Partial<Project> = {}) => ({
    ...project({ chip: td8.id, source: 'adapter-12v', regulator: 'bl5-cool', devices: [], ...p }),
    chip: { part: td8.id, clock },
  })
  test.each([
    ['crystal', 12e6, 'crystal-12mhz'],
    ['crystal', 8e6, 'crystal-8mhz'],
    ['resonator', 16e6, 'resonator-16mhz'],
    ['resonator', 8e6, 'resonator-8mhz'],
    ['internal', 8e6, undefined],
    ['crystal', 5e6, undefined],
  ])('a %s of %d Hz: of its kind and of its frequency', (source, frequency, id) =>
    expect(resolveClock(clocked({ source, frequency }), library, td8, undefined).part?.id).toBe(id),
  )
  test('without its load capacitors a resonator, which has none to be pulled by, is off by its tolerance', () => {
    const design = applyEdits(clocked({ source: 'resonator', frequency: 8e6 }), [
      { kind: 'leaveOut', support: 'load-capacitor:PB0', name: '' },
    ])
    expect(resolveClock(design, library, td8, undefined).deviation!.value.max).toBeCloseTo(5000, 9)
  })
  // 3.234 V permits 8 MHz + 10 MHz · 0.634 V / 1.6 V = 11.96 MHz: of 4, 8 and 12 MHz the crystal of 8. 16 MHz needs
  // 2.6 V + 1.6 V · 8/10 = 3.88 V: a regulator of 5 V: of the linear ones only one stays cool enough at 12 V,
  // and then the cheaper of those that step down.
  test('too fast at 3.3 V: the fastest crystal that is not, or a rail that permits it', () => {
    const design = applyEdits(demo('darkroom-timer'), [
      { kind: 'chooseRegulator', part: 'bl33-low', name: '' },
      { kind: 'chooseClock', name: '', clock: { source: 'crystal', frequency: 16e6, part: 'crystal-16mhz' } },
    ])
    const found = analyse(design, library).findings.find((f) => f.check === 'clock.too-fast')!
    expect(found.text).toBe('16 MHz is too fast for this supply: at 3.23 V TD8-28 DIP is good for 11.96 MHz.')
    const fixes = proposalsFor(found.id, design)
    expect(fixes).toEqual([
      {
        label: 'Clock at 8 MHz from crystal 8 MHz',
        edits: [
          {
            kind: 'chooseClock',
            name: 'crystal 8 MHz',
            clock: { source: 'crystal', frequency: 8e6, part: 'crystal-8mhz' },
          },
        ],
      },
      {
        label: 'Raise the rail with BL5 cool 5 V',
        edits: [{ kind: 'chooseRegulator', part: 'bl5-cool', name: 'BL5 cool 5 V' }],
      },
      {
        label: 'Raise the rail with BS5 drop-in 5 V',
        edits: [{ kind: 'chooseRegulator', part: 'bs5-drop', name: 'BS5 drop-in 5 V' }],
      },
    ])
  })
  // The internal one of 8 MHz is off by 10 %; nearest to it are what has 8 MHz and is tight enough, the cheaper first.
  test('too loose for a serial line: the nearest clocks that are not', () => {
    const design = clocked({ source: 'internal', frequency: 8e6 }, { devices: [['serial-link', 'Link']] })
    const [first, second, ...more] = proposalsFor('clock.too-loose:uart', design)
    expect(more).toEqual([])
    expect([first, second].map((f) => f!.edits)).toEqual(
      [
        { source: 'resonator', frequency: 8e6, part: 'resonator-8mhz' },
        { source: 'crystal', frequency: 8e6, part: 'crystal-8mhz' },
      ].map((clock) => [{ kind: 'chooseClock', name: expect.any(String) as string, clock }]),
    )
  })
  // With 27 pF of no tolerance and 5 to 5.5 pF of stray: 6e-15 · (1/22.5e-12 − 1/22e-12) = −6.06 ppm to 6e-15 · (1/23e-12 − 1/22e-12) = −11.86 ppm.
  test.each([
    [{ min: 5e-12, typ: 5e-12, max: 5.5e-12 }, 6.06, 11.86],
    // 3 pF: 6e-15 · (1/20.5e-12 − 1/22e-12) = 19.96 ppm, and at −6.06 on the other side; in between it is not pulled at all.
    [{ min: 3e-12, typ: 5e-12, max: 5e-12 }, 0, 19.96],
  ])('pulled by %j: the size of it counts', (stray, least, most) => {
    const chip: Chip = {
      ...td8,
      clockSources: td8.clockSources.map((s) =>
        s.kind === 'crystal' ? { ...s, strayCapacitance: { ...stray, kind: 'typical' as const } } : s,
      ),
    }
    const crystal: Crystal = {
      ...(library.parts['crystal-8mhz'] as Crystal),
      loadCapacitance: 18e-12,
      tolerance: 0,
      temperature: 0,
      ageing: 0,
      motional: 12e-15,
      shunt: 4e-12,
    }
    const ceramics = { ...stockOf(library).ceramics!, tolerance: 0 }
    const { deviation } = resolveClock(
      clocked({ source: 'crystal', frequency: 8e6, part: crystal.id }),
      withParts(chip, crystal, ceramics),
      chip,
      undefined,
    )
    expect(deviation!.value.min).toBeCloseTo(least, 2)
    expect(deviation!.value.typ).toBeCloseTo(6.06, 2)
    expect(deviation!.value.max).toBeCloseTo(most, 2)
  })
})
