// The capacitor at a converter's leg, by hand from the sheets: two capacitances share a charge, and one fills by e^(−t/RC).

import { shippedLibrary } from '../../test/files'
import { project, type Project } from '../../test/project'
import { analyse } from '../analysis'
import type { Stance } from '../design'
import type { Chip, Device, Library, Part } from '../parts'

const library = shippedLibrary()
const look = (
  p: Project,
  { stance = 'lean', shift, on = library }: { stance?: Stance; shift?: true; on?: Library } = {},
) => {
  const design = { ...project({ source: 'adapter-9v', ...p }), stance }
  const a = analyse(
    shift ? { ...design, pins: { ...design.pins, shifts: { 'd1.1.LVL': 'divider' } } } : design,
    on,
  )
  return { ...a, part: a.build.support.find((s) => s.key.startsWith('sampling:')) }
}
const light: Project = { chip: 'td8-28-dip', regulator: 'bl5-cool', devices: [['light-resistor', 'Light']] }
const gas: Project = {
  chip: 'mw2-module',
  source: 'usb-port',
  regulator: 'bl33-low',
  devices: [['gas-sensor-5v', 'Gas', undefined, { fedBy: 'source' }]],
}

// 1 MΩ beside 10 kΩ + 5 %: 10.391 kΩ, and the sheet reads through 10 kΩ. Left of the reading before: 2^(−11 · 10/10.391) = 0.0650 %, two thirds
// of a code of 1024. 14 pF · 2¹¹ = 28.67 nF, and 10 % more for the capacitor's tolerance: 31.86 nF.
test('a little too much: by the book alone, and a note where it is left out', () => {
  const { part } = look(light)
  expect(part).toMatchObject({
    asked: false,
    value: { value: 33e-9 },
    risk: { severity: 'notes', grade: 'outside the sheet' },
  })
  expect(look(light, { stance: 'by-the-book' }).part!.present).toBe(true)
  const [behind, needed, rate, leak] = part!.worked
  const most = 1 / (1 / 1e6 + 1 / 10.5e3)
  expect(behind!.value.max).toBeCloseTo(most, 6)
  // of each the end that is told is the one that decides
  expect(part!.worked.map((w) => w.counts)).toEqual(['max', 'max', 'min', 'max'])
  expect(needed!.value.max).toBeCloseTo(28.672e-9 / 0.9, 15)
  expect(rate!.value.min).toBeCloseTo(1 / (most * 28.672e-9), 6)
  expect(leak!.value.max).toBeCloseTo(most * 1e-6, 12)
  expect(part!.risk.facts[1]!.worked!.value.max).toBeCloseTo(6.5e-4, 6)
  expect(part!.legs.map((l) => l.net)).toEqual(['LIGHT', 'GND'])
})

// R_2 ten times the sensor's 5 kΩ, 47 kΩ; R_1 at least 47 kΩ · (5.25/2.6 − 1)/0.95 … = 50.4 kΩ, next 56 kΩ. (56 + 5 %) + 5 beside 47 + 5 % kΩ: 27.8 kΩ,
// and the sheet reads through 13 kΩ: 2^(−13 · 13/27.8) = 1.5 %, which is 61 codes of 4096. 10 pF · 2¹³ / 0.9 = 91.0 nF.
test('behind a divider that shifts a level: a risk, and fitted wherever care is taken', () => {
  expect(look(gas).part).toBeUndefined()
  const { part } = look(gas, { shift: true })
  expect(part).toMatchObject({ asked: true, value: { value: 100e-9 }, risk: { severity: 'risks' } })
  expect(part!.worked[0]!.value.max / 1e3).toBeCloseTo(1 / (1 / (56 * 1.05 + 5) + 1 / (47 * 1.05)), 3)
  const bare = look(gas, { shift: true, stance: 'bare-bones' })
  expect(bare.part!.present).toBe(false)
  expect(bare.findings.find((f) => f.id === 'build.left-out:sampling:d1.1.LVL')!.text).toMatch(
    /^Without the capacitor at the reading of Gas a reading of Gas may keep 1.5 % of what was read before it: 27.8 kΩ is behind the leg, and .* reads through 13 kΩ\.$/,
  )
})

// The sheet of the module reads through 13 kΩ at the most.
test.each([
  [13e3, false],
  [13.1e3, true],
])('behind exactly %d Ω: a capacitor %s', (ohms, asked) => {
  const sensor = library.parts['temperature-analog'] as Device
  const of = {
    ...sensor,
    wirings: sensor.wirings.map((w) => ({
      ...w,
      signals: w.signals.map((s) => ({
        ...s,
        electrical: { ...s.electrical, sourceResistance: { typ: ohms, max: ohms, kind: 'guaranteed' } },
      })),
    })),
  } as Device
  const { part } = look(
    { ...gas, devices: [[sensor.id, 'Heat']] },
    { on: { parts: { ...library.parts, [sensor.id]: of } } },
  )
  expect(part !== undefined).toBe(asked)
})

// Two resistors of 5 % side by side, and nothing else: the sheet of the sensor says nothing of what is inside it.
test('behind a divider whose sensor states no resistance of its own', () => {
  const sensor = library.parts['gas-sensor-5v'] as Device
  const silent = {
    ...sensor,
    wirings: sensor.wirings.map((w) => ({
      ...w,
      signals: w.signals.map((s) => ({ ...s, electrical: { ...s.electrical, sourceResistance: undefined } })),
    })),
  } as Device
  const chip = library.parts['mw2-module'] as Chip
  const strict: Chip = {
    ...chip,
    units: chip.units.map((u) => ({ ...u, sourceResistance: { max: 1e3, kind: 'recommended' as const } })),
  }
  const { part, build } = look(gas, {
    shift: true,
    on: { parts: { ...library.parts, [sensor.id]: silent, [chip.id]: strict } },
  })
  const most = (role: string) => 1.05 * build.support.find((s) => s.role === role)!.value!.value
  const [upper, lower] = [most('shift upper'), most('shift lower')]
  expect(part!.worked[0]!.value.max).toBeCloseTo((upper * lower) / (upper + lower), 6)
})

test('what the sheet reads through is asked for nothing; a silent sheet is assumed to read through 10 kΩ, and said', () => {
  expect(look({ ...light, devices: [['sound-sensor', 'Sound']] }).part).toBeUndefined()
  const chip = library.parts['td8-28-dip'] as Chip
  const silent: Chip = {
    ...chip,
    units: chip.units.map((u) => ({ ...u, sourceResistance: undefined, samplingCapacitance: undefined })),
  }
  const { part } = look(light, { on: { parts: { ...library.parts, [chip.id]: silent } } })
  // 20 pF · 2¹¹ / 0.9 = 45.5 nF
  expect(part).toMatchObject({ value: { value: 47e-9 }, risk: { grade: 'typical' } })
  expect(JSON.stringify(part!.worked[1])).toContain('assumed: its sheet has not been read for this')
  const wide: Chip = {
    ...chip,
    units: chip.units.map((u) => ({ ...u, sourceResistance: { max: 10.4e3, kind: 'recommended' as const } })),
  }
  expect(look(light, { on: { parts: { ...library.parts, [chip.id]: wide } } }).part).toBeUndefined()
})

describe('what is not known is said', () => {
  const silent = (part: string, field: 'sourceResistance' | 'resolution'): Library => {
    const device = structuredClone(library.parts[part]) as Device | Chip
    if (device.kind === 'chip') for (const u of device.units) Reflect.deleteProperty(u, field)
    else for (const s of device.wirings[0]!.signals) Reflect.deleteProperty(s.electrical, field)
    return { parts: { ...library.parts, [part]: device } }
  }
  const told = (p: Project, on?: Library) =>
    look(p, { on }).findings.flatMap((f) => (f.check === 'pins.reading-unknown' ? [f.severity, f.text] : []))
  const sound: Project = { ...light, devices: [['sound-sensor', 'Ear']] }
  test('a sensor whose sheet names no resistance: a note, at its leg; one that names it: none', () => {
    const [severity, text] = told(sound, silent('sound-sensor', 'sourceResistance'))
    expect(severity).toBe('notes')
    expect(text).toMatch(
      /^Through how much resistance Ear is read is not stated: whether it needs a capacitor at leg \d+ \(P.\d\) is not decided\.$/,
    )
    expect(told(sound)).toEqual([])
  })
  test('beside its divider it can’t be more than that: 10.5 kΩ', () => {
    const on = silent('light-resistor', 'sourceResistance')
    expect(told(light, on)).toEqual([])
    expect(look(light, { on }).part!.worked[0]!.value.max).toBeCloseTo(10.5e3, 6)
  })
  // 14 pF · 2¹³ / 0.9 = 127 nF
  test('a converter of unknown fineness counts as one of 12 bits, and the working says that it is assumed', () => {
    const { part } = look(light, { on: silent('td8-28-dip', 'resolution') })
    expect(part!.value!.value).toBe(150e-9)
    expect(part!.worked[1]!.inputs.find((i) => i.symbol === 'n')!.origin).toEqual({
      kind: 'rule',
      source: 'assumed: its sheet has not been read for this',
    })
  })
  test('a drawer whose largest is not enough', () => {
    const small = { ...library.parts['capacitor-ceramic'], to: 22e-9 } as Part
    const { part } = look(light, { on: { parts: { ...library.parts, [small.id]: small } } })
    expect([part!.value!.marking, part!.why]).toEqual([
      '22n',
      'Light comes through up to 10.4 kΩ: the capacitor fills the converter for each reading; 22n is the drawer’s largest and not enough',
    ])
  })
})
