// Which leg of which part lies on which net, by hand: from what each part is for and from the legs in its sheet. A part
// turned round here is a part that burns.

import { demo, shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import { applyEdits } from '../design'
import type { Chip } from '../parts'

const library = shippedLibrary()
const legsOf = (a: ReturnType<typeof analyse>, key: string) =>
  a.build.support.find((s) => s.key === key)?.legs.map((l) => `${l.name}: ${l.net}`)

describe('the darkroom timer', () => {
  const timer = analyse(demo('darkroom-timer'), library)
  test.each([
    // The jack’s plus goes to the diode, and through it to the regulator: current flows from anode to cathode.
    ['entry', ['pin +: VPLUG', 'sleeve −: GND']],
    ['polarity-diode', ['anode: VPLUG', 'cathode: VIN']],
    // BL5 cool, legs from the front: 1 IN, 2 GND, 3 OUT
    ['regulator', ['1 IN: VIN', '2 GND: GND', '3 OUT: VCC']],
    // Electrolytics burst the wrong way round: plus at the higher voltage.
    ['regulator-in', ['+: VIN', '−: GND']],
    ['regulator-out', ['+: VCC', '−: GND']],
    ['bulk', ['+: VCC', '−: GND']],
    ['power-lamp-resistor', ['1: VCC', '2: LAMP']],
    ['power-lamp', ['anode: LAMP', 'cathode: GND']],
    // Section 6.3 asks for one at each of the two supply legs, section 15.4 for one at the reference.
    ['decoupling:VCC', ['1: VCC', '2: GND']],
    ['decoupling:AVCC', ['1: VCC', '2: GND']],
    ['decoupling:AREF', ['1: AREF', '2: GND']],
    ['reset-pull-up', ['1: VCC', '2: RESET']],
    ['reset-button', ['1: RESET', '2: GND']],
    ['crystal', ['1: PB0', '2: PB1']],
    ['load-capacitor:PB0', ['1: PB0', '2: GND']],
    ['load-capacitor:PB1', ['1: PB1', '2: GND']],
    // Section 19, contact by contact, counted from 1.
    [
      'programming-header',
      ['1 VCC: VCC', '2 MOSI: PC4', '3 RESET: RESET', '4 MISO: PC3', '5 SCK: PC5', '6 GND: GND'],
    ],
    ['pull:i2c.SDA', ['1: VCC', '2: I2C_SDA']],
    ['pull:d3.1.contact', ['1: VCC', '2: START']],
    // A load switched on its ground side: source to ground, drain to the load. Legs 1 source, 2 gate, 3 drain.
    ['transistor:d5.1.drive', ['2 gate: BUZZER_GATE', '3 drain: BUZZER_LOW', '1 source: GND']],
    ['gate-series:d5.1.drive', ['1: BUZZER', '2: BUZZER_GATE']],
    ['gate-pull-down:d5.1.drive', ['1: BUZZER_GATE', '2: GND']],
    // Across the coil and blocking while it is on: the cathode at the supply.
    ['flyback:d5.1.drive', ['cathode: VCC', 'anode: BUZZER_LOW']],
    ['led:d7.1.light', ['1: SAFE_LIGHT', '2: SAFE_LIGHT_LED']],
    ['divider:d8.1.level', ['1: PAPER_LIGHT', '2: GND']],
    ['sampling:d8.1.level', ['1: PAPER_LIGHT', '2: GND']],
  ])('%s', (key, legs) => expect(legsOf(timer, key)).toEqual(legs))
  test('nothing is left out of this list', () => {
    const keys = timer.build.support.filter((s) => s.legs.length > 0).map((s) => s.key.split(':')[0])
    expect([...new Set(keys)].sort()).toEqual([
      'bulk',
      'crystal',
      'decoupling',
      'divider',
      'entry',
      'flyback',
      'gate-pull-down',
      'gate-series',
      'led',
      'load-capacitor',
      'polarity-diode',
      'power-lamp',
      'power-lamp-resistor',
      'programming-header',
      'pull',
      'regulator',
      'regulator-in',
      'regulator-out',
      'reset-button',
      'reset-pull-up',
      'sampling',
      'transistor',
    ])
  })
  test.each([
    ['Buzzer', ['+: VCC', '-: BUZZER_LOW']],
    ['Safe light', ['anode: SAFE_LIGHT_LED', 'cathode: GND']],
    ['Lamp relay', ['VCC: VCC', 'GND: GND', 'IN: LAMP_RELAY']],
  ])('%s is joined by its own terminals', (name, legs) =>
    expect(timer.build.placed.find((p) => p.name === name)!.legs.map((l) => `${l.name}: ${l.net}`)).toEqual(
      legs,
    ),
  )
})

// What is soldered in which step, by hand: nothing that a check needs comes after it, and nothing is left for the end.
test.each([
  ['Supply and regulator', ['entry', 'polarity-diode', 'regulator', 'regulator-in', 'regulator-out']],
  [
    'Chip’s place, decoupling and rails',
    ['bulk', 'socket', 'decoupling:VCC', 'decoupling:AVCC', 'decoupling:AREF'],
  ],
  ['Power lamp', ['power-lamp', 'power-lamp-resistor']],
  ['Reset', ['reset-pull-up', 'reset-button']],
  ['Clock', ['crystal', 'load-capacitor:PB0', 'load-capacitor:PB1']],
  ['Programming header', ['programming-header']],
])('the step “%s” solders %j', (title, keys) => {
  const { steps, placed } = analyse(demo('darkroom-timer'), library).build
  const refs = keys.map((key) => placed.find((p) => p.support?.key === key)!.ref)
  expect([...steps.find((s) => s.title === title)!.refs].sort()).toEqual(refs.sort())
})

describe('two voltages in one line, the device at 5 V and the chip at 3.3 V', () => {
  const fitted = (shift: 'clamp' | 'divider' | 'mosfet', part: string, wiring: string, signals: string[]) =>
    analyse(
      applyEdits(
        project({
          chip: 'mw2-module',
          regulator: 'bl33-low',
          devices: [[part, 'Far', wiring, { fedBy: 'source' }]],
        }),
        signals.map((signal) => ({ kind: 'fitShift', signal, name: '', shift })),
      ),
      library,
    )
  test('the shift belongs to the far device, though a near one is on the line before it', () => {
    const design = project({
      chip: 'mw2-module',
      regulator: 'bl33-low',
      devices: [
        ['temperature-two-wire', 'Near'],
        ['glow-display', 'Far', 'i2c', { fedBy: 'source' }],
      ],
    })
    const a = analyse(
      applyEdits(design, [{ kind: 'fitShift', signal: 'i2c.SDA', name: '', shift: 'mosfet' }]),
      library,
    )
    expect(legsOf(a, 'shift-transistor:i2c.SDA')).toEqual([
      '1 source: I2C_SDA',
      '2 gate: VCC',
      '3 drain: I2C_SDA_FAR',
    ])
  })
  test('a clamp lets out into the rail what is above it: cathode at the rail', () => {
    const a = fitted('clamp', 'track-sensor', 'plain', ['d1.1.OUT'])
    expect(legsOf(a, 'shift-diode:d1.1.OUT')).toEqual(['cathode: VCC', 'anode: FAR'])
    expect(legsOf(a, 'shift-series:d1.1.OUT')).toEqual(['1: FAR_FAR', '2: FAR'])
  })
  test('a divider: from the far side to the leg, from the leg to ground', () => {
    const a = fitted('divider', 'track-sensor', 'plain', ['d1.1.OUT'])
    expect(legsOf(a, 'shift-upper:d1.1.OUT')).toEqual(['1: FAR_FAR', '2: FAR'])
    expect(legsOf(a, 'shift-lower:d1.1.OUT')).toEqual(['1: FAR', '2: GND'])
  })
  test('a MOSFET: gate at the lower supply, source at its side, so that its body diode points to the higher', () => {
    const a = fitted('mosfet', 'glow-display', 'i2c', ['i2c.SDA', 'i2c.SCL'])
    expect(legsOf(a, 'shift-transistor:i2c.SDA')).toEqual([
      '1 source: I2C_SDA',
      '2 gate: VCC',
      '3 drain: I2C_SDA_FAR',
    ])
    expect(legsOf(a, 'shift-far:i2c.SDA')).toEqual(['1: VIN', '2: I2C_SDA_FAR'])
    // A bus has its own pull-up at the chip; a plain line gets one on each side. The display’s own pull-ups are beyond.
    expect(legsOf(a, 'pull:i2c.SDA')).toEqual(['1: VCC', '2: I2C_SDA'])
    expect(legsOf(a, 'shift-near:i2c.SDA')).toBeUndefined()
    const plain = fitted('mosfet', 'track-sensor', 'plain', ['d1.1.OUT'])
    expect(legsOf(plain, 'shift-near:d1.1.OUT')).toEqual(['1: VCC', '2: FAR'])
    expect(legsOf(plain, 'shift-far:d1.1.OUT')).toEqual(['1: VIN', '2: FAR_FAR'])
  })
})

// Each strip hands on what is left: out of one into the next, and out of the last into nothing.
test('a chain of three: the chip’s line ends at the first', () => {
  const { nets, placed } = analyse(
    project({ chip: 'td8-28-dip', devices: [['pixel-strip-8', 'Strip', undefined, { count: 3 }]] }),
    library,
  ).build
  const strips = placed.filter((p) => p.part.id === 'pixel-strip-8').map((p) => p.ref)
  const on = (name: string) =>
    nets
      .find((n) => n.name === name)
      ?.nodes.flatMap((n) => (strips.includes(n.ref) ? `${strips.indexOf(n.ref) + 1} ${n.terminal}` : []))
  expect(strips).toHaveLength(3)
  expect(['STRIP', 'STRIP_LINK_1', 'STRIP_LINK_2', 'STRIP_LINK_3'].map(on)).toEqual([
    ['1 DIN'],
    ['1 DOUT', '2 DIN'],
    ['2 DOUT', '3 DIN'],
    undefined,
  ])
})

describe('what a drawer or a carrier has not', () => {
  const without = (kind: string, sort?: string) => ({
    parts: Object.fromEntries(
      Object.entries(library.parts).filter(
        ([, p]) => p.kind !== kind || (sort !== undefined && (p as { sort?: string }).sort !== sort),
      ),
    ),
  })
  // Every demo is still built, without parts of that kind, and nothing is joined to what is not there.
  test.each([
    ['resistors', undefined],
    ['capacitors', undefined],
    ['capacitors', 'ceramic'],
    ['capacitors', 'electrolytic'],
    ['connector', undefined],
    ['switch', undefined],
    ['diode', undefined],
  ])('no %s %s', (kind, sort) => {
    for (const name of ['darkroom-timer', 'hive-scale', 'window-lantern', 'coop-door']) {
      const { build } = analyse(demo(name), without(kind, sort))
      const of = build.support.filter(
        (s) => s.part.kind === kind && (sort === undefined || (s.part as { sort?: string }).sort === sort),
      )
      // What the project keeps of its own facts may still be there.
      expect([name, of.map((s) => s.key)]).toEqual([name, []])
      expect(build.placed.length).toBeGreaterThan(1)
    }
  })
  const socketOf = (style: 'dip' | 'two-sided') => {
    const chip = structuredClone(library.parts['td8-28-dip']!) as Chip
    chip.package.style = style
    const a = analyse(demo('darkroom-timer'), { parts: { ...library.parts, [chip.id]: chip } })
    return a.build.support.some((s) => s.key === 'socket')
  }
  test('a socket is for a chip that fits into one', () => {
    expect([socketOf('dip'), socketOf('two-sided')]).toEqual([true, false])
  })
  test('a board has its leg for the source joined, and is tried alone only with a source', () => {
    const steps = (source?: string) => {
      const d = project({ chip: 'trestle-32', devices: [['push-button', 'Go']] })
      return analyse({ ...d, power: { source } }, library).build
    }
    const fed = steps('adapter-9v')
    expect(fed.placed[0]!.legs.filter((l) => l.net === 'VIN')).toHaveLength(1)
    expect(fed.steps.filter((s) => s.title.endsWith(' alone'))).toHaveLength(1)
    expect(steps().steps.filter((s) => s.title.endsWith(' alone'))).toEqual([])
  })
})
