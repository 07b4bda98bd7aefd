// The whole way through, on the shipped demo: what the plan is, and each planted mistake found, explained and cleared.

import { demo, shippedLibrary } from '../../test/files'
import { numbersIn } from '../../test/numbers'
import { applyEdits, type Design, type Edit } from '../design'
import type { Finding, Worked } from '../findings'
import { pinHeader, textReport, wiringTableCells } from '../formats'
import { allChecks, analyse, offersFor, previewEdits, proposalsFor } from '.'

const library = shippedLibrary()
const timer = demo('darkroom-timer')
const clean = analyse(timer, library)
const kept = clean.pins.assignment

describe('the darkroom timer', () => {
  test('has nothing against it, and every signal on a leg of its own', () => {
    expect(clean.findings).toEqual([])
    expect(clean.pins.plan?.status).toBe('proven')
    expect(new Set(Object.values(kept)).size).toBe(clean.needs.signals.length)
  })
  test('its two-wire lines are on the only legs that have them; crystal, reset and programming legs stay free', () => {
    expect([kept['i2c.SDA'], kept['i2c.SCL']]).toEqual(['PA4', 'PA5'])
    for (const pin of ['PB0', 'PB1', 'RESET', 'PC3', 'PC4', 'PC5'])
      expect(Object.values(kept)).not.toContain(pin)
  })
  test('values a builder can check by hand', () => {
    const value = (key: string) => clean.build.support.find((s) => s.key === key)?.value?.marking
    // 2·(18 − 5) pF = 26 pF, nearest of E12; (5 − 0.134 − 1.85) V / 5 mA ≈ 602 Ω, next up; 5 V / 0.5 mA
    expect([value('load-capacitor:PB0'), value('led:d7.1.light'), value('pull:d3.1.contact')]).toEqual([
      '27p',
      '680R',
      '10k',
    ])
    expect(value('gate-pull-down:d5.1.drive')).toBe('100k')
    expect(value('decoupling:VCC')).toBe('100n')
  })
  test('sums are sums: the rail current is that of its consumers, corner by corner', () => {
    const { consumers, work } = clean.power
    for (const corner of ['min', 'typ', 'max'] as const)
      expect(work.value[corner]).toBeCloseTo(
        consumers.reduce((s, c) => s + c.work.value[corner], 0),
        12,
      )
  })
  test('every number can be followed to sheets, needs, decisions or rules', () => {
    const ends: string[] = []
    const follow = (w: Worked, depth = 0): void => {
      expect(depth).toBeLessThan(12)
      expect(w.value.min).toBeLessThanOrEqual(w.value.max)
      for (const i of w.inputs) {
        if (i.origin.kind === 'worked') follow(i.origin.of, depth + 1)
        else ends.push(i.origin.kind)
      }
    }
    clean.gauges.forEach((g) => g.worked && follow(g.worked))
    clean.build.support.forEach((s) => s.worked.forEach((w) => follow(w)))
    expect(ends.length).toBeGreaterThan(200)
    const kinds = numbersIn(clean).flatMap((w) => w.inputs.map((i) => i.origin.kind))
    expect([...new Set(kinds.map(String))].sort()).toEqual(['decision', 'part', 'rule', 'worked'])
  })
  test('the netlist joins every terminal once, and no net both rails', () => {
    const seen = clean.build.nets.flatMap((n) => n.nodes.map((x) => `${x.ref}.${x.terminal}`))
    expect(new Set(seen).size).toBe(seen.length)
    const wires = clean.build.nets.reduce((sum, n) => sum + n.nodes.length - 1, 0)
    expect(clean.build.wiring).toHaveLength(wires)
  })
  test('exports: wiring cells, C header, report', () => {
    expect(wiringTableCells(clean.build.wiring)).toContainEqual([
      'I2C_SDA',
      'U1 TD8-28 DIP',
      '5 PA4',
      'M1 Display',
      'SDA',
    ])
    const header = pinHeader('Timer */ x', 'TD8-28', clean.pins.plan!.wires)
    expect(header).toContain(
      '/* I2C SDA: leg 5, two-wire port SDA */\n#define I2C_SDA_PIN 4\n#define I2C_SDA_PORT A\n#define I2C_SDA_BIT 4',
    )
    expect(header.match(/\*\//g)).toHaveLength(clean.pins.plan!.wires.length + 1)
    expect(textReport(clean)).toContain('I2C SDA: leg 5 PA4')
  })
})

type Plant = [name: string, check: string, plant: Edit[], severity: 'stops' | 'risks' | 'notes']
const setLed = (value: number): Edit => ({ kind: 'setSetting', id: 'd7', setting: 'light.current', value })
const add = (part: string, name: string): Edit => ({
  kind: 'addDevices',
  devices: [{ part, name, count: 1 }],
})
const planted: Plant[] = [
  ['LED current over the leg’s limit', 'pins.led-over-limit', [setLed(0.03)], 'risks'],
  [
    'LED without resistor above the absolute maximum',
    'pins.led-over-limit',
    [{ kind: 'leaveOut', support: 'led:d7.1.light', name: 'r' }],
    'stops',
  ],
  [
    'signal moved to a pin that can’t serve it',
    'pins.cannot-serve',
    [{ kind: 'moveSignal', signal: 'd8.1.level', name: 'Paper light', pin: 'PC0', kept }],
    'stops',
  ],
  [
    'signal on the crystal’s leg',
    'pins.cannot-serve',
    [{ kind: 'moveSignal', signal: 'd3.1.contact', name: 'Start', pin: 'PB0', kept }],
    'stops',
  ],
  [
    'regulator too hot',
    'power.regulator-too-hot',
    [{ kind: 'chooseRegulator', part: 'bl5-low', name: '' }],
    'stops',
  ],
  [
    'drop-out at the source’s lowest voltage',
    'power.dropout',
    [
      { kind: 'chooseSource', part: 'adapter-7v5', name: '' },
      { kind: 'chooseRegulator', part: 'br5-plain', name: '' },
    ],
    'risks',
  ],
  [
    'source too weak',
    'power.source-too-weak',
    [add('servo-small', 'Servo'), { kind: 'chooseSource', part: 'adapter-9v', name: '' }],
    'risks',
  ],
  [
    'clock too fast for the supply',
    'clock.too-fast',
    [
      { kind: 'chooseRegulator', part: 'bl33-low', name: '' },
      { kind: 'chooseClock', name: '', clock: { source: 'crystal', frequency: 16e6, part: 'crystal-16mhz' } },
    ],
    'stops',
  ],
  [
    'device that fights the programmer',
    'pins.programming-fight',
    [
      add('pulse-sensor', 'Barrier'),
      { kind: 'moveSignal', signal: 'd9.1.OUT', name: 'Barrier', pin: 'PC5', kept },
    ],
    'stops',
  ],
  [
    'decoupling left out',
    'build.left-out',
    [{ kind: 'leaveOut', support: 'decoupling:VCC', name: 'c' }],
    'risks',
  ],
  [
    'gate without pull-down',
    'build.left-out',
    [{ kind: 'leaveOut', support: 'gate-pull-down:d5.1.drive', name: 'r' }],
    'risks',
  ],
  [
    'regulator input above its absolute maximum',
    'power.regulator-input',
    [{ kind: 'chooseRegulator', part: 'bl33-tiny', name: '' }],
    'stops',
  ],
  [
    'more current than the regulator gives',
    'power.regulator-overloaded',
    [{ kind: 'chooseRegulator', part: 'br5-small', name: '' }],
    'stops',
  ],
  [
    'chip on the wrong rail',
    'chip.supply-out-of-range',
    [{ kind: 'chooseChip', part: 'qm32-32', name: '' }],
    'stops',
  ],
  [
    'device on the wrong rail',
    'power.device-supply',
    [{ kind: 'chooseRegulator', part: 'bl33-low', name: '' }],
    'risks',
  ],
  [
    'over the current budget',
    'power.budget-exceeded',
    [{ kind: 'setLimit', limit: 'current', value: 0.1 }],
    'risks',
  ],
  [
    'over the price limit',
    'needs.price-over-limit',
    [{ kind: 'setLimit', limit: 'price', value: 10 }],
    'risks',
  ],
  ['more than the chip can serve', 'pins.clash', [{ kind: 'setCount', id: 'd8', count: 7 }], 'stops'],
  [
    'legs that carry too much together',
    'pins.leg-total',
    [setLed(0.018), { kind: 'setCount', id: 'd7', count: 9 }],
    'risks',
  ],
  [
    'code that does not fit',
    'chip.memory-short',
    [{ kind: 'chooseChip', part: 'td8-08-dip', name: '' }, add('card-reader', 'Card')],
    'stops',
  ],
]

/** What is proposed, in its order. Judged one by one: each is a way out that a builder could take, the nearest first. */
const proposed: Record<string, string[]> = {
  'LED current over the leg’s limit': ['Ask for 15 mA instead'],
  'LED without resistor above the absolute maximum': ['Ask for 15 mA instead', 'Put the resistor in'],
  'signal moved to a pin that can’t serve it': ['Move Paper light to PA0', 'Release the lock'],
  'signal on the crystal’s leg': ['Move Start to PA1', 'Release the lock'],
  'regulator too hot': [
    'Use BL5 cool 5 V',
    'Use BS5 drop-in 5 V',
    'Feed it from USB charger, 2 A (5 V), without a regulator',
    'Feed it from 7.5 V adapter (7.5 V)',
  ],
  'drop-out at the source’s lowest voltage': [
    'Use BL5 low drop 5 V',
    'Use BL5 cool 5 V',
    'Feed it from 9 V adapter (9 V)',
    'Feed it from USB charger, 2 A (5 V), without a regulator',
  ],
  'source too weak': [
    'Feed it from USB charger, 2 A (5 V), without a regulator',
    'Feed it from 5 V adapter, 2 A (5 V), without a regulator',
    'Feed it from USB-C charger, 3 A (5 V), without a regulator',
    'Do without Servo',
  ],
  'clock too fast for the supply': [
    'Clock at 8 MHz from crystal 8 MHz',
    'Raise the rail with BL5 cool 5 V',
    'Raise the rail with BS5 drop-in 5 V',
  ],
  'device that fights the programmer': [
    'Move Barrier to PB3',
    'Keep PC5 and the free legs of that kind free',
  ],
  'decoupling left out': ['Put in the decoupling capacitor at VCC'],
  'gate without pull-down': ['Put in the gate pull-down of Buzzer'],
  'regulator input above its absolute maximum': [
    'Use BL5 cool 5 V',
    'Use BS5 drop-in 5 V',
    'Feed it from USB charger, 2 A (5 V)',
    'Feed it from 5 V adapter, 2 A (5 V)',
  ],
  'more current than the regulator gives': ['Use BL5 cool 5 V', 'Use BS5 drop-in 5 V', 'Use BS5 strong 5 V'],
  'chip on the wrong rail': ['Choose TD8-28 flat'],
  'device on the wrong rail': [
    'Use BL5 cool 5 V',
    'Use BS5 drop-in 5 V',
    'Feed Display from a rail of its own, behind BR5 plain 5 V',
    'Feed Display from a second feed, USB port',
  ],
  'over the current budget': ['Leave out the power lamp', 'Raise the budget to 230 mA'],
  'over the price limit': ['Raise the limit to € 27'],
  'more than the chip can serve': ['Choose TD8-40 DIP', 'Do without all 7 of Paper light'],
  'legs that carry too much together': ['Ask for 14 mA for Safe light'],
  'code that does not fit': ['Choose TD8-28 flat'],
}

describe.each(planted)('planted: %s', (name, check, plant, severity) => {
  const spoilt = applyEdits(timer, plant)
  const found = analyse(spoilt, library).findings.filter((f) => f.check === check)

  test('is found, with a chain of facts and a number in its words', () => {
    expect(found.map((f) => f.severity)).toContain(severity)
    expect(found[0]!.because.length).toBeGreaterThanOrEqual(2)
    // Every fact is a sentence of its own, and says a number or names a thing.
    for (const fact of found[0]!.because) expect(fact.text).toMatch(/^\S+ .*\S$/)
  })
  test('what is proposed', () =>
    expect(proposalsFor(analyse(spoilt, library), library, found[0]!).map((f) => f.label)).toEqual(
      proposed[name],
    ))
  test('at least one fix is offered, which clears it and brings nothing as bad', () => {
    const before = analyse(spoilt, library)
    const { offers } = offersFor(before, library, found[0]!)
    expect(offers.length).toBeGreaterThanOrEqual(1)
    for (const { fix } of offers) {
      const after = analyse(applyEdits(spoilt, fix.edits), library).findings
      expect(after.map((f) => f.id)).not.toContain(found[0]!.id)
      const bad = (all: Finding[]) => all.filter((f) => f.severity === 'stops').length
      if (found[0]!.severity === 'stops') expect(bad(after)).toBeLessThan(bad(before.findings))
    }
  })
  test('and is silent on the clean project', () =>
    expect(clean.findings.some((f) => f.check === check)).toBe(false))
})

const strange = (part: string, chip?: string): Design => ({
  ...timer,
  needs: {
    ...timer.needs,
    devices: [...timer.needs.devices, { id: 'dx', part, name: 'Stranger', count: 1 }],
  },
  chip: chip ? { part: chip } : timer.chip,
})
test.each([
  ['needs.unknown-device', strange('nothing-like-it')],
  ['chip.unknown', strange('push-button', 'nothing-like-it')],
])('%s: what the library does not know is said', (check, design) => {
  const before = analyse(design, library)
  const found = before.findings.find((f) => f.check === check)!
  expect(found.severity).toBe('stops')
  const [fix] = proposalsFor(before, library, found)
  expect(analyse(applyEdits(design, fix!.edits), library).findings.some((f) => f.id === found.id)).toBe(false)
})

test('every check has been seen firing here', () => {
  const seen = new Set([...planted.map(([, check]) => check), 'needs.unknown-device', 'chip.unknown'])
  expect(allChecks.map((c) => c.id).filter((id) => !seen.has(id))).toEqual([
    // in traps.test.ts
    'chip.no-radio',
    // in own-part.test.ts
    'chip.too-warm',
    'chip.rests-on-assumptions',
    // in states/states.test.ts
    'states.overfull',
    'states.unknown-mode',
    'states.wake',
    // in clock.test.ts
    'clock.too-loose',
    // in planner.test.ts
    'pins.not-proven',
    'pins.lost-mark',
    // in pins/corners.test.ts
    'pins.led-rating',
    // in planner.test.ts again
    'pins.gives-up',
    'pins.reset-port',
    'pins.reference-joined',
    'pins.timer-fit',
    'pins.byte-scattered',
    // in traps.test.ts again
    'pins.level',
    // in pins/corners.test.ts again
    'pins.shift-too-slow',
    // in support/sampling.test.ts
    'pins.reading-unknown',
    // in traps.test.ts again
    'pins.radio-converter',
    'pins.loaded-design',
    'pins.address-clash',
    'pins.bus-speed',
    'pins.bus-too-strong',
    // in pins/corners.test.ts again
    'pins.bus-window',
    'pins.switch-rating',
    // in traps.test.ts again
    'pins.startup-twitch',
    'pins.strap-held',
    'pins.stack-overlap',
    'pins.stack-top',
    // in power/stage.test.ts
    // in power/tree.test.ts
    'power.collapses',
    'power.diode-rating',
    'power.sags',
    'power.usb-unasked',
    // in power/guard.test.ts
    'power.guard-transistor',
    // in power/cold.test.ts
    'power.cold-cells',
    // in power/joined.test.ts
    'power.cells-joined',
    // in budget.test.ts
    'power.over-limit',
    // in traps.test.ts again
    'power.board-input',
    // in power/rails.test.ts
    'power.unfed',
    'power.untapped',
    'power.feed-too-weak',
    // in power/leads.test.ts
    'power.wire-too-thin',
    'power.fuse-trips',
    'power.fuse-guards',
    'power.no-fuse',
    // in power/device-leads.test.ts
    'power.device-lead',
    // in power/bridges.test.ts
    'power.bridge',
    // in charging/charging.test.ts
    'power.in-the-dark',
    'power.lost-on-the-way',
    'power.not-reckoned',
    // in power/rank.test.ts
    'power.eats-charge',
    'power.cell-protection',
    // in power/measured.test.ts
    'power.measured-differs',
    // in charging/charging.test.ts
    'power.charging-safe',
    'power.charging-fed',
    'power.charging-ends',
    'power.charging-sun',
    // in power/stage.test.ts again
    'build.capacitor-esr',
    // in build/fitted-rating.test.ts
    'build.fitted-rating',
    // in latch/latch.test.ts
    'power.latch-fits',
    'power.latch-turns-on',
    'power.latch-stays-off',
    // in plugs/plugs.test.ts
    'power.plug-fits',
    'power.back-feed',
    'power.programmer-voltage',
  ])
})

test('a preview says what would change, and changes nothing', () => {
  const before = JSON.stringify(timer)
  const preview = previewEdits(clean, library, [{ kind: 'chooseRegulator', part: 'br5-plain', name: '' }])
  expect(preview.appearing.map((f) => f.check)).toEqual(['power.regulator-too-hot'])
  expect(preview.lines.join('; ')).toMatch(/hottest part: 106 °C becomes 127 °C/)
  expect(JSON.stringify(timer)).toBe(before)
})

describe('stances', () => {
  const parts = (stance: Design['stance']) => analyse({ ...timer, stance }, library)
  test('each asks for fewer parts than the one before, and says what is left out', () => {
    const counts = (['by-the-book', 'lean', 'bare-bones'] as const).map(
      (s) => parts(s).build.support.filter((x) => x.present).length,
    )
    expect(counts[0]).toBeGreaterThan(counts[1]!)
    expect(counts[1]).toBeGreaterThan(counts[2]!)
    expect(parts('bare-bones').findings.length).toBeGreaterThan(3)
    expect(
      parts('bare-bones').findings.filter((f) => f.severity === 'notes' && f.text.match(/\d/)).length,
    ).toBeGreaterThan(1)
  })
})
