// A transistor in the plus against a source the wrong way round: by hand from its sheet, in the circuit, and in what is told.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse, proposalsFor, sourcesOf } from '../analysis'
import { applyEdits, type Design } from '../design'
import { findPart, makeLibrary, type Transistor } from '../parts'

const library = shippedLibrary()
const on = (guard: string | null, more: Partial<Parameters<typeof project>[0]> = {}): Design =>
  applyEdits(
    project({ chip: 'td8-28-dip', source: 'adapter-9v', regulator: 'bl5-cool', devices: [], ...more }),
    [{ kind: 'chooseGuard', part: guard, name: guard ?? '' }],
  )
const found = (d: Design, of = library) =>
  analyse(d, of)
    .findings.filter((f) => f.check === 'power.guard-transistor')
    .map((f) => [f.id.replace('power.guard-transistor:', ''), f.severity])
const with_ = (change: Partial<Transistor>) =>
  makeLibrary(
    Object.values(library.parts).map((p) =>
      p.id === 'pfet-strong' ? ({ ...p, ...change } as Transistor) : p,
    ),
  )

test('in the place of the diode: 0.018 Ω at the most instead of its volts; the plug’s net, the gate at ground, the drain at the plug', () => {
  const [diode, guarded] = [on(null), on('pfet-strong')].map((d) => analyse(d, library))
  expect(diode!.power.polarity).toBeDefined()
  expect(guarded!.power.polarity).toBeUndefined()
  const { through, input, source } = guarded!.power
  // Beyond the 4.5 V of its sheet as at 4.5 V: 0.012 to 0.018 Ω.
  const R = source!.resistance?.max ?? 0
  expect(input!.value.min).toBeCloseTo(source!.voltage.min! - through.value.max * (R + 0.018), 9)
  expect(input!.value.min).toBeGreaterThan(diode!.power.input!.value.min + 0.2)
  const part = guarded!.build.support.find((s) => s.role === 'polarity transistor')!
  expect(part.present).toBe(true)
  // Its sheet, table 1: gate 1, drain 2, source 3.
  expect(part.legs.map((l) => [l.name, l.net])).toEqual([
    ['1 gate', 'GND'],
    ['2 drain', 'VPLUG'],
    ['3 source', 'VIN'],
  ])
  const jack = guarded!.build.support.find((s) => s.role === 'entry')!
  expect(jack.legs.map((l) => l.net)).toContain('VPLUG')
  expect(guarded!.build.parts.map((p) => p.part)).toContain('pfet-strong')
  expect(guarded!.build.parts.map((p) => p.part)).not.toContain(diode!.power.polarity!.diode.id)
  // What could be the wrong way round is stopped: nothing is told of it.
  expect(guarded!.findings.map((f) => f.id).filter((f) => f.includes('unguarded'))).toEqual([])
})

test('cells too: 0.07 Ω up to 0.3 Ω, from 4.8 V down to 2.7 V at its gate', () => {
  const { power } = analyse(on('pfet-low', { source: 'cells-3-aa', regulator: undefined }), library)
  // Between 2.5 V (0.11 Ω) and 4.5 V (0.07 Ω): 0.106 Ω at 2.7 V; and 0.9 Ω inside.
  expect(power.railLoaded!.value.min).toBeCloseTo(2.7 - power.through.value.max * (0.9 + 0.106), 6)
})

test('another is offered where one breaks: 12.8 V at the gate, which stands 8 or 12 V; 20 V do', () => {
  const a = analyse(on('pfet-low', { source: 'adapter-12v' }), library)
  const broken = a.findings.find((f) => f.id === 'power.guard-transistor:gate')!
  const fixes = proposalsFor(a, library, broken)
  expect(fixes.map((f) => f.label)).toEqual(['Plain p-channel MOSFET in its place', 'Do without it'])
  expect(found(applyEdits(a.design, fixes[0]!.edits))).toEqual([])
})

test('before it is plugged in, the meter says which way round it is: its inner diode leads from the plug to the board', () => {
  const checks = (d: Design) =>
    analyse(d, library)
      .build.steps.flatMap((s) => s.checks)
      .filter((c) => c.where.includes('set to diodes'))
  expect(checks(on(null))).toEqual([])
  const [check] = checks(on('pfet-strong'))
  // A p-channel MOSFET’s inner diode has its anode at the drain, which lies at the plug.
  expect(check).toMatchObject({
    where: 'between VPLUG and VIN, red lead on VPLUG, the meter set to diodes',
    powered: false,
    expect: { min: 0.3, max: 0.9, unit: 'V' },
  })
  expect(check!.otherwise).toContain('exchanged')
  expect(checks(on('pfet-low', { source: 'cells-3-aa', regulator: undefined }))[0]!.where).toContain(
    'between VPLUG and VCC',
  )
})

test('a source that breaks the transistor, or doesn’t turn it on, is ranked with that against it', () => {
  const no = (guard: string, id: string) =>
    sourcesOf(analyse(on(guard), library), library)
      .find((s) => s.source.id === id)!
      .no.map((n) => n.text)
      .filter((t) => t.includes('in the plus'))
  // 12.8 V at a gate that stands 12 V; 20 V do.
  expect(no('pfet-strong', 'adapter-12v')).toEqual([
    'strong p-channel MOSFET in the plus stands 12 V at its gate',
  ])
  expect(no('pfet-plain', 'adapter-12v')).toEqual([])
  // Two emptied cells have 1.8 V: it may need 4 V to begin.
  expect(no('pfet-plain', 'cells-2-aa')).toEqual(['1.8 V may not turn on plain p-channel MOSFET in the plus'])
})

describe('what is found', () => {
  const current = (amps: number) => ({ current: { max: amps, kind: 'recommended' as const } })
  const flows = analyse(on('pfet-strong'), library).power.through.value.max
  const highest = findPart(library, 'source', 'adapter-9v')!.voltage.max!
  const lowest = findPart(library, 'source', 'adapter-9v')!.voltage.min!
  const volts = (max: number) => ({ max, kind: 'absolute' as const })
  test.each<[string, Partial<Transistor>, string[][]]>([
    ['a gate that just stands the source', { gateVoltage: volts(highest) }, []],
    ['one that doesn’t', { gateVoltage: volts(highest - 0.01) }, [['gate', 'stops']]],
    ['one of which nothing is said', { gateVoltage: undefined }, [['gate unknown', 'notes']]],
    ['a transistor that just stands it the wrong way round', { voltage: volts(highest) }, []],
    ['one that doesn’t', { voltage: volts(highest - 0.01) }, [['voltage', 'stops']]],
    ['on at the lowest', { threshold: { max: lowest, kind: 'typical' } }, []],
    ['not on then', { threshold: { max: lowest + 0.01, kind: 'typical' } }, [['off', 'stops']]],
    [
      'a channel that is stated from the lowest on',
      { channel: [{ gate: lowest, resistance: { typ: 0.02, kind: 'typical' } }] },
      [],
    ],
    [
      'one that is stated from more on',
      { channel: [{ gate: lowest + 0.01, resistance: { typ: 0.02, kind: 'typical' } }] },
      [['weak', 'risks']],
    ],
    ['a channel of which nothing is said', { channel: undefined }, [['channel unknown', 'notes']]],
    ['as much as flows', current(flows * 1.000001), []],
    ['more flows', current(flows * 0.99), [['current', 'stops']]],
  ])('%s', (_, change, expected) => {
    expect(found(on('pfet-strong'), with_(change))).toEqual(expected)
  })
  test('what gets too hot: 30 °C and I² R · 62 K/W, from both sides of 125 °C', () => {
    const channel = (ohms: number) =>
      with_({ channel: [{ gate: 1, resistance: { typ: ohms, kind: 'typical' } }] })
    const heat = (ohms: number) => {
      const a = analyse(on('pfet-strong', { source: 'usb-charger', regulator: undefined }), channel(ohms))
      const I = a.power.through.value.max
      return { I, found: found(a.design, channel(ohms)), T: 30 + I * I * ohms * 62 }
    }
    const { I } = heat(0.001)
    const limit = 95 / 62 / (I * I)
    expect(heat(limit * 0.99).found).toEqual([])
    expect(heat(limit * 1.01).found).toEqual([['heat', 'risks']])
  })
  test.each<[string, Partial<Parameters<typeof project>[0]>, string]>([
    ['in front of a board', { chip: 'stick-td8', regulator: undefined }, 'a board has its own plug'],
    ['beside a latch', { devices: [['latch-button', 'Power', 'read']], source: 'cells-4-aa' }, 'the latch'],
  ])('one that can’t lie there, %s, is told and not counted', (_, more, why) => {
    const a = analyse(on('pfet-strong', more), library)
    const finding = a.findings.find((f) => f.check === 'power.guard-transistor')!
    expect([finding.severity, finding.text]).toEqual(['notes', expect.stringContaining(why)])
    expect(a.build.support.some((s) => s.role === 'polarity transistor')).toBe(false)
    expect(found(applyEdits(a.design, finding.fixes[0]!.edits))).toEqual([])
  })
  test('what is no p-channel MOSFET, and what is not in the library', () => {
    expect(found(on('nfet-low'))).toEqual([['not there', 'notes']])
    expect(found(on('gone'))).toEqual([['not there', 'notes']])
    expect(found({ ...on('pfet-strong'), power: { guard: 'pfet-strong' } })).toEqual([['not there', 'notes']])
    // The diode is there again.
    expect(analyse(on('nfet-low'), library).power.polarity).toBeDefined()
  })
})

test('where the volts of the diode are what is short, a transistor is offered in its place, and mends it', () => {
  // 7.5 V adapters have 7.1 V at the least; a regulator that needs 5.1 V and 1.3 V has enough but for the diode.
  const short = analyse(on(null, { source: 'adapter-7v5', regulator: 'br5-plain' }), library)
  const lacks = short.findings.find((f) => f.id === 'power.dropout')!
  const fix = proposalsFor(short, library, lacks).find((f) => f.label.includes('wrong way round'))
  expect(fix!.label).toMatch(/^Low-voltage|^Strong|^Plain/)
  const after = analyse(applyEdits(short.design, fix!.edits), library)
  expect(after.findings.map((f) => f.id)).not.toContain('power.dropout')
})
