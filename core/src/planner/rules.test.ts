// What the planner knows of rules and says of itself: each point as a planted case with its chain and a fix that is
// offered, and silent without its cause. Expectations are from the part files by hand.

import { shippedLibrary } from '../../test/files'
import { project, type Project } from '../../test/project'
import { applyEdits, type Design, type Edit } from '../design'
import { textReport } from '../formats'
import { type Device, findPart, type Library, partsOfKind } from '../parts'
import { isPlanned } from '../legs'
import { legGrade, legLoads, loadSums, swapTo, swapWords } from '../pins'
import { steps } from '../patience'
import {
  analyse,
  candidateOf,
  compareAnalyses,
  offersFor,
  otherBoardsOf,
  previewEdits,
  reachIn,
  variantsOf,
} from '../analysis'

const library = shippedLibrary()
const found = (design: Design, check: string, from: Library = library) =>
  analyse(design, from).findings.filter((f) => f.check === check)
const offered = (design: Design, check: string, from: Library = library) => {
  const before = analyse(design, from)
  const finding = before.findings.find((f) => f.check === check)!
  return offersFor(before, from, finding).offers
}
const labels = (design: Design, check: string) => offered(design, check).map((o) => o.fix.label)

const many = (part: string, name: string, count: number, more = {}): Project['devices'][number] => [
  part,
  name,
  undefined,
  { count, ...more },
]
const dimmed = (name: string, count: number, frequency?: number): Project['devices'][number] => [
  'lamp-red',
  name,
  'dimmed',
  { count, ...(frequency ? { settings: { 'light.frequency': frequency } } : {}) },
]

describe('a search that is given up', () => {
  const design = project({
    chip: 'qm32-48',
    regulator: 'bl33-low',
    devices: [many('track-sensor', 'Edge', 9), ['glow-display', 'Screen'], ['colour-head', 'Head']],
  })
  test('is no plan: nothing fits, nothing is left over, no board is built, and that is said with what to do', () => {
    const given = analyse(design, library, steps(0))
    expect(given.pins.plan).toMatchObject({ status: 'undecided', wires: [] })
    const [finding] = given.findings.filter((f) => f.check === 'pins.not-proven')
    expect(finding).toMatchObject({ severity: 'stops', longer: true })
    expect(finding!.text).toMatch(/not decided in the time given/)
    expect(given.chip.own).toMatchObject({ fits: false, undecided: true, left: undefined })
    expect(given.gauges.find((g) => g.id === 'pins')).toMatchObject({
      worked: undefined,
      instead: 'not decided',
    })
    expect(given.build.missing).toContain('a plan in which every signal has a leg')
    expect(textReport(given)).toMatch(/Plan: not decided in the time given/)
    expect(candidateOf(design, library, 'qm32-64', steps(0))).toMatchObject({ fits: false, undecided: true })
    // As JSON, which has no infinity.
    expect(JSON.parse(JSON.stringify(given.pins.plan))).toMatchObject({ status: 'undecided', bound: 0 })
  })
  test('says nothing of what would change, of another board and of another version: each is told as not known', () => {
    const before = analyse(design, library)
    expect(before.pins.plan!.status).not.toBe('undecided')
    const faster: Edit[] = [
      { kind: 'addDevices', devices: [{ part: 'lamp-red', name: 'One more', count: 1 }] },
    ]
    expect([0, 1e6].map((n) => previewEdits(before, library, faster, steps(n)).undecided)).toEqual([
      true,
      undefined,
    ])
    // A stack of the same sort, on two boards; and a device of which there are versions.
    const both = {
      ...project({
        chip: 'trestle-32',
        source: 'adapter-9v',
        devices: [many('track-sensor', 'Edge', 7), ['glow-display', 'Screen']],
      }),
      chip: { part: 'trestle-32', also: ['trestle-plain'] },
    }
    expect([0, 1e6].map((n) => otherBoardsOf(both, library, steps(n)).map((b) => b.undecided))).toEqual([
      [true],
      [false],
    ])
    const part = partsOfKind(library, 'device').find((d) => (d.variants?.length ?? 0) > 0)!
    const met = {
      ...design,
      needs: {
        ...design.needs,
        devices: [...design.needs.devices, { id: 'd9', part: part.id, name: 'Met', count: 1 }],
      },
    }
    const verdicts = (d: Design, n: number) => variantsOf(d, library, steps(n)).map((v) => v.undecided)
    expect(new Set(verdicts(met, 0))).toEqual(new Set([true]))
    const calm = project({ chip: 'td8-28-dip', devices: [[part.id, 'Met']] })
    expect(verdicts(calm, 1e6)).toEqual(part.variants!.map(() => false))
  })
  test('with a plan in hand says how far below it another may lie', () => {
    const large = project({
      chip: 'qm32-48',
      regulator: 'bl33-low',
      devices: [many('line-display', 'Text', 3), ['glow-display', 'Screen'], many('track-sensor', 'Edge', 8)],
    })
    let given = analyse(large, library, steps(20))
    for (let n = 21; n < 100 && given.pins.plan!.status !== 'found'; n++)
      given = analyse(large, library, steps(n))
    const { plan } = given.pins
    expect(plan!.gap).toBe(plan!.cost - plan!.bound)
    expect(plan!.gap).toBeGreaterThan(0)
    const all = analyse(large, library).pins.plan!
    expect(all.status).toBe('proven')
    expect(all.cost).toBeGreaterThanOrEqual(plan!.bound)
    expect(all.cost).toBeLessThanOrEqual(plan!.cost)
    const [finding] = given.findings.filter((f) => f.check === 'pins.not-proven')
    expect(finding).toMatchObject({ severity: 'notes', longer: true })
    expect(finding!.text).toContain(`up to ${plan!.gap} points cheaper`)
    expect(textReport(given)).toMatch(new RegExp(`up to ${plan!.gap} points cheaper`))
    expect(given.chip.own!.but[0]).toContain(`${plan!.gap} points cheaper`)
    expect(found(design, 'pins.not-proven')).toEqual([])
    // Kept, the plan is found again where there was no time for any.
    const kept = applyEdits(large, [
      { kind: 'keepPlan', kept: all.wires.reduce((k, w) => ({ ...k, [w.signal.id]: w.pin.id }), {}) },
    ])
    const costs = (d: Design) =>
      Array.from({ length: 60 }, (_, n) => analyse(d, library, steps(n)).pins.plan!).map((p) =>
        isPlanned(p) ? p.cost : Infinity,
      )
    const soonest = (d: Design) => costs(d).findIndex((c) => c === all.cost)
    expect(soonest(kept)).toBeGreaterThan(0)
    const late = soonest(large)
    expect(late < 0 || late > soonest(kept)).toBe(true)
  })
})

describe('pigeonholes', () => {
  // One timer of eight channels: five outputs at 50 Hz, five at 1 kHz and one at 2.7 kHz need three timers.
  test('three frequencies on one timer are a clash by that rule, not a search without an end', () => {
    const design = project({
      chip: 'mw1-module',
      regulator: 'bl33-low',
      devices: [many('servo-small', 'Servo', 5), dimmed('Lamp', 5), ['buzzer-magnetic', 'Buzzer']],
    })
    const { plan } = analyse(design, library, steps(400)).pins
    expect(plan!.status).toBe('clash')
    expect(plan!.clashRules).toContain('frequencies')
  })
  // One timer of eight channels that any of nine legs can have: eight outputs of one frequency, and no more.
  test.each([
    [8, 'proven'],
    [9, 'clash'],
  ])('%d dimmed lamps on eight channels: %s', (count, status) => {
    const design = project({ chip: 'mw1-32', regulator: 'bl33-low', devices: [dimmed('Lamp', count)] })
    const { plan } = analyse(design, library).pins
    expect(plan!.status).toBe(status)
    const lines = plan!.wires.map((w) => w.line)
    expect(new Set(lines).size).toBe(lines.length)
  })
  // Fourteen edge inputs on sixteen interrupt lines and a two-wire bus: room for all without the two debug legs.
  test('fourteen edge sensors and a two-wire device leave the debug legs alone', () => {
    const design = project({
      chip: 'qm32-32',
      regulator: 'bl33-low',
      devices: [many('track-sensor', 'Edge', 14), ['temperature-two-wire', 'Heat']],
    })
    const { plan } = analyse(design, library).pins
    expect(plan!.status).toBe('proven')
    expect(plan!.wires.flatMap((w) => w.items.map((i) => i.name))).not.toContain('debug leg')
  })
  // TD8-28: two groups of 100 mA recommended, 150 mA absolute. 36 mA each: two to a group, so that five are too many.
  test.each([
    [4, 'proven'],
    [5, 'clash'],
  ])('%d lamps at 36 mA on two groups of 100 mA: %s', (count, status) => {
    const design = project({
      chip: 'td8-28-dip',
      regulator: 'bl5-cool',
      source: 'adapter-9v',
      devices: [many('lamp-red', 'Lamp', count, { settings: { 'light.current': 0.036 } })],
    })
    const { chip, pins } = analyse(design, library)
    expect(pins.plan!.status).toBe(status)
    if (status === 'clash') {
      expect(pins.plan!.clashRules).toEqual(['currents'])
      expect(pins.plan!.clashText).toMatch(/5 × 36 mA; .*100 mA/)
      // Three of five come to lie in one group: 100 mA / 3 is above the 20 mA of a leg; a fifth less than those, of E6.
      expect(labels(design, 'pins.clash')).toContain('Ask for 15 mA for each of them')
      return
    }
    for (const group of chip.chip!.limits.groups!)
      expect(pins.plan!.wires.filter((w) => group.pins.includes(w.pin.id)).length).toBeLessThanOrEqual(2)
  })
})

describe('bytes', () => {
  const display = { chip: 'qm32-48', regulator: 'bl33-low' }
  test('of two displays and of two wirings are told apart', () => {
    const design = project({ ...display, devices: [many('line-display', 'Text', 2, { wiring: 'byte' })] })
    const { bytes } = analyse(design, library).pins
    expect(bytes.map((b) => b.port !== undefined)).toEqual([true, true])
    const open = analyse(project({ ...display, devices: [['line-display', 'Text']] }), library).pins
    // Whichever wiring is chosen has its one byte, in order, and the other costs nothing.
    expect(open.bytes.map((b) => b.wires.length)).toEqual([open.plan!.wirings[0]!.wiring.byte!.length])
    expect(open.plan!.cost).toBeLessThan(8)
  })
  test('a bit locked where it can’t be is planned around: the others are no byte, and pay nothing for that', () => {
    const of = (byte: boolean) => {
      const part = structuredClone(library.parts['line-display']!) as Device
      if (!byte) for (const w of part.wirings) Reflect.deleteProperty(w, 'byte')
      return analyse(
        project({
          ...display,
          devices: [['line-display', 'Text', 'byte']],
          locks: { 'd1.1.D0': 'VDD1', 'd1.1.D1': 'PA3', 'd1.1.D7': 'PB3' },
        }),
        { parts: { ...library.parts, [part.id]: part } },
      ).pins.plan!
    }
    expect(of(true).wires.find((w) => w.impossible)?.signal.id).toBe('d1.1.D0')
    expect(of(true).cost).toBe(of(false).cost)
  })
  test('one that is scattered says its legs, bit by bit', () => {
    const design = project({
      ...display,
      devices: [['line-display', 'Text', 'byte']],
      locks: { 'd1.1.D0': 'PA3', 'd1.1.D7': 'PB3' },
    })
    const [finding] = found(design, 'pins.byte-scattered')
    expect(finding!.because[0]!.text).toMatch(/^Bit 0 to 7: PA3, .*PB3$/)
    expect(labels(design, 'pins.byte-scattered')).toContain('Release the locks of Text')
    expect(found({ ...design, pins: { ...design.pins, locks: {} } }, 'pins.byte-scattered')).toEqual([])
  })
})

describe('straps, held by what we fit ourselves', () => {
  const qm32 = { chip: 'qm32-32', regulator: 'bl33-low' }
  const strapPin = findPart(library, 'chip', 'qm32-32')!.pins.find((p) =>
    p.attributes?.some((a) => a.kind === 'strap'),
  )!.id
  const locked = (device: Project['devices'][number], signal: string): Design =>
    project({ ...qm32, devices: [device], locks: { [signal]: strapPin } })
  // The strap must be low; the chip pulls it down by 25 to 55 kΩ; our pull-up is 6.8 kΩ: V = 3.3 V · 40/(40 + 6.8).
  test('a button on a strap that must be low, held up by our own resistor, starts the loader', () => {
    const design = locked(['push-button', 'Go'], 'd1.1.contact')
    const [finding] = found(design, 'pins.strap-held')
    expect(finding).toMatchObject({ severity: 'stops', grade: 'impossible' })
    expect(finding!.text).toMatch(/^The pull-up of Go holds .* high at reset/)
    expect(labels(design, 'pins.strap-held').length).toBeGreaterThan(0)
  })
  test('without that resistor nothing holds it', () => {
    const design = applyEdits(locked(['push-button', 'Go'], 'd1.1.contact'), [
      { kind: 'leaveOut', support: 'pull:d1.1.contact', name: '' },
    ])
    expect(found(design, 'pins.strap-held')).toEqual([])
  })
  test('a sensor that drives either way leaves the start to chance', () => {
    const [finding] = found(locked(['pulse-sensor', 'Eye', 'plain'], 'd1.1.OUT'), 'pins.strap-held')
    expect(finding).toMatchObject({ severity: 'risks' })
    expect(finding!.text).toMatch(/starts only when it happens to be low/)
  })
  // MW2: P03 must be high at reset and is pulled up inside; a serial line rests high, a board's 1 kΩ to ground does not.
  test('a serial line that rests high is no fault on a strap that must be high', () => {
    const on = (device: Project['devices'][number], signal: string) =>
      project({ chip: 'mw2-module', regulator: 'bl33-low', devices: [device], locks: { [signal]: 'P03' } })
    expect(found(on(['serial-link', 'Link'], 'd1.1.TXD'), 'pins.strap-held')).toEqual([])
    expect(found(on(['pulse-sensor', 'Eye', 'plain'], 'd1.1.OUT'), 'pins.strap-held')).toHaveLength(1)
  })
  test.each([
    ['down', 1],
    ['up', 0],
  ] as const)('a pull-%s of the board on a strap that must be high: %d findings', (pull, count) => {
    const board = findPart(library, 'board', 'trestle-radio')!
    const load = { pin: 'P03', what: 'a resistor', pull, resistance: { typ: 1000, kind: 'typical' as const } }
    const with_: Library = {
      ...library,
      parts: { ...library.parts, [board.id]: { ...board, loads: [load] } },
    }
    const design = project({
      chip: board.id,
      source: 'adapter-9v',
      devices: [['push-button', 'Go']],
      locks: { 'd1.1.contact': 'P03' },
    })
    expect(found(design, 'pins.strap-held', with_)).toHaveLength(count)
  })
  test('an LED to ground pulls towards where the strap must be, and is no fault', () =>
    expect(found(locked(['lamp-red', 'Lamp'], 'd1.1.light'), 'pins.strap-held')).toEqual([]))
})

describe('programming, debug and download', () => {
  test('taking a debug leg is told, and another leg is offered', () => {
    const design = project({
      chip: 'qm32-32',
      regulator: 'bl33-low',
      devices: [['lamp-red', 'Lamp']],
      locks: { 'd1.1.light': 'PA13' },
    })
    const [finding] = found(design, 'pins.gives-up')
    // The only way to program it: a risk, not a remark.
    expect(finding).toMatchObject({ severity: 'risks' })
    expect(finding!.text).toMatch(/Lamp takes .*PA13/)
    expect(labels(design, 'pins.gives-up').some((l) => l.startsWith('Move Lamp to'))).toBe(true)
    expect(found({ ...design, pins: { ...design.pins, locks: {} } }, 'pins.gives-up')).toEqual([])
  })
  test('a device that drives what the chip drives while it is programmed fights it', () => {
    const design = project({
      chip: 'td8-28-dip',
      regulator: 'bl5-cool',
      source: 'adapter-9v',
      devices: [['pulse-sensor', 'Eye', 'plain']],
      locks: { 'd1.1.OUT': 'PC3' },
    })
    const [finding] = found(design, 'pins.programming-fight')
    expect(finding!.text).toMatch(/which the chip drives while it is programmed as MISO/)
    for (const { fix } of offered(design, 'pins.programming-fight'))
      expect(found(applyEdits(design, fix.edits), 'pins.programming-fight')).toEqual([])
  })
  // The card lets go of its output while its select is high; while a program is loaded only a pull-up holds it there.
  test('a card on the programming lines: held unselected by the book, a risk without the pull-up', () => {
    const design = {
      ...project({ chip: 'td8-28-dip', regulator: 'bl33-low', devices: [['card-reader', 'Card']] }),
      stance: 'by-the-book' as const,
    }
    expect(found(design, 'pins.programming-fight')).toEqual([])
    const lean = { ...design, stance: 'lean' as const }
    const [finding] = found(lean, 'pins.programming-fight')
    expect(finding).toMatchObject({ severity: 'risks' })
    expect(finding!.text).toMatch(/nothing holds its select high meanwhile/)
    expect(labels(lean, 'pins.programming-fight')).toContain('Put in the pull-up of Card CS')
  })
  test('the reset leg as a port gives one leg more, and says what becomes of programming', () => {
    const asked = project({
      chip: 'td8-08-dip',
      regulator: 'bl5-cool',
      source: 'adapter-9v',
      devices: [many('lamp-red', 'Lamp', 6)],
    })
    expect(analyse(asked, library).pins.plan!.status).toBe('clash')
    const design = applyEdits(asked, [{ kind: 'useReset', port: true }])
    const { pins, build, findings } = analyse(design, library)
    expect(pins.plan!.status).toBe('proven')
    expect(Object.values(pins.assignment)).toContain('RESET')
    const port = findings.find((f) => f.check === 'pins.reset-port')!
    expect(port).toMatchObject({ severity: 'risks', text: expect.stringContaining('can’t get in') as string })
    expect(port.because.map((f) => f.text).join()).toMatch(/in-circuit programming ends.*set the bit last/)
    expect(build.support.map((s) => s.key)).not.toContain('reset-pull-up')
    // A chip whose file offers no such choice keeps its reset.
    const other = applyEdits(design, [{ kind: 'chooseChip', part: 'td8-28-dip', name: '' }])
    expect(Object.values(analyse(other, library).pins.assignment)).not.toContain('RESET')
  })
})

describe('timers', () => {
  const td8 = (frequency: number, devices: Project['devices']): Design => ({
    ...project({ chip: 'td8-28-dip', regulator: 'bl5-cool', source: 'adapter-9v', devices }),
    chip: { part: 'td8-28-dip', clock: { source: 'internal', frequency } },
  })
  // 1 MHz, 8 bits: 50 Hz needs p ≥ 1e6 / 50 / 256 = 78.1, so p = 256 and one step is 256 µs: 3 in a servo's 1 ms.
  // The 16-bit timer has p = 1: 1 µs steps.
  test('a servo goes to the wide timer, and on the narrow one its steps are told', () => {
    const free = td8(1e6, [['servo-small', 'Points']])
    expect(analyse(free, library).pins.plan!.wires[0]!.unit!.id).toBe('T1')
    expect(found(free, 'pins.timer-fit')).toEqual([])
    const narrow = findPart(library, 'chip', 'td8-28-dip')!.pins.find((p) =>
      p.functions?.some((f) => f.unit === 'T0'),
    )!
    const design: Design = { ...free, pins: { ...free.pins, locks: { 'd1.1.PULSE': narrow.id } } }
    const lock = analyse(free, library).pins.plan!.wires[0]!.signal.id
    const locked = { ...design, pins: { ...design.pins, locks: { [lock]: narrow.id } } }
    const [finding] = found(locked, 'pins.timer-fit')
    expect(finding!.text).toMatch(/steps of 256 µs, 3 of them/)
    expect(offered(locked, 'pins.timer-fit').length).toBeGreaterThan(0)
  })
  // 8 MHz, 8 bits, p at most 1024: 8e6 / 1024 / 256 = 30.5 Hz is reached, 16 MHz would stop at 61 Hz.
  test('a frequency that the timer can’t reach stops', () => {
    const design = project({
      chip: 'stick-td8',
      source: 'usb-port',
      devices: [['servo-small', 'Points']],
    })
    const signal = analyse(design, library).pins.plan!.wires[0]!.signal.id
    const narrow = findPart(library, 'chip', 'td8-28-flat')!.pins.find((p) =>
      p.functions?.some((f) => f.unit === 'T0'),
    )!.id
    const [finding] = found(
      { ...design, pins: { ...design.pins, locks: { [signal]: narrow } } },
      'pins.timer-fit',
    )
    expect(finding).toMatchObject({ severity: 'stops', grade: 'impossible' })
    expect(finding!.text).toMatch(/can’t run at 50 Hz from a clock of 16 MHz/)
  })
  // One timer of eight channels, 200 Hz and 1 kHz; a lamp is good from 100 Hz to 20 kHz.
  test('a common frequency is offered where it clears a clash', () => {
    const design = project({
      chip: 'mw1-module',
      regulator: 'bl33-low',
      devices: [dimmed('Slow', 2, 200), dimmed('Fast', 2)],
    })
    expect(analyse(design, library).pins.plan!.clashRules).toEqual(['frequencies'])
    expect(labels(design, 'pins.clash').filter((l) => /at (200 Hz|1 kHz) as well$/.test(l))).toHaveLength(2)
  })
})

describe('buses', () => {
  const twins = (chip: string): Design =>
    project({
      chip,
      regulator: 'bl33-low',
      devices: [
        ['glow-display', 'Left', 'i2c'],
        ['glow-display', 'Right', 'i2c'],
      ],
    })
  test('a second bus is offered where the chip has a unit for it, and clears the clash of addresses', () => {
    const design = twins('qm32-48')
    const offer = offered(design, 'pins.address-clash').find((o) => /second bus/.test(o.fix.label))!
    const after = analyse(applyEdits(design, offer.fix.edits), library)
    const units = new Map(
      after.pins.plan!.wires.filter((w) => w.signal.bus).map((w) => [w.signal.bus!.group, w.unit!.id]),
    )
    expect([...units.keys()].sort()).toEqual(['i2c', 'i2c2'])
    expect(new Set(units.values()).size).toBe(2)
    expect(labels(twins('mw1-module'), 'pins.address-clash').some((l) => /second bus/.test(l))).toBe(false)
  })
  // Part files: the humidity sensor keeps up with 100 kHz, the screen with 400 kHz; the chip has two I2C units.
  test('a device that doesn’t keep up slows the bus or has one of its own, at the edge of its speed', () => {
    const design = (speed: number, chip = 'qm32-48') => {
      const d = project({
        chip,
        regulator: 'bl33-low',
        devices: [
          ['glow-display', 'Screen', 'i2c'],
          ['humidity-two-wire', 'Damp'],
        ],
      })
      return applyEdits(d, [{ kind: 'setBusSpeed', speed }])
    }
    expect(found(design(100e3), 'pins.bus-speed')).toEqual([])
    const [finding, ...more] = found(design(400e3), 'pins.bus-speed')
    expect(more).toEqual([])
    expect(finding).toMatchObject({ severity: 'risks', grade: 'outside the sheet', about: { device: 'd2' } })
    expect(finding!.text).toBe('The I2C bus runs at 400 kHz; Damp keeps up with 100 kHz at most.')
    expect(labels(design(400e3), 'pins.bus-speed')).toEqual([
      'Run the I2C bus at 100 kHz',
      'Put Damp on a second bus of 100 kHz',
    ])
    const [, second] = offered(design(400e3), 'pins.bus-speed')
    const after = analyse(applyEdits(design(400e3), second!.fix.edits), library)
    const speeds = new Map(after.pins.plan!.wires.map((w) => [w.signal.bus?.group, w.signal.frequency]))
    expect(speeds).toEqual(new Map([['i2c', 400e3], ['i2c2', 100e3]])) // prettier-ignore
    // The radio module has one unit: there is no second bus to offer. At 1 MHz neither keeps up.
    expect(labels(design(400e3, 'mw1-module'), 'pins.bus-speed')).toEqual(['Run the I2C bus at 100 kHz'])
    expect(found(design(1e6), 'pins.bus-speed').map((f) => f.about!.device)).toEqual(['d1', 'd2'])
  })
  test('a device that needs a fast bus says so, and one that names no speed is not known beyond 100 kHz', () => {
    const display = findPart(library, 'device', 'glow-display')!
    const as = (busSpeed?: object): Library => ({
      ...library,
      parts: {
        ...library.parts,
        'glow-display': {
          ...display,
          wirings: display.wirings.map((w) => ({ ...w, busSpeed })),
        } as typeof display,
      },
    })
    const design = project({
      chip: 'qm32-48',
      regulator: 'bl33-low',
      devices: [['glow-display', 'Screen', 'i2c']],
    })
    const fast = applyEdits(design, [{ kind: 'setBusSpeed', speed: 400e3 }])
    const needy = as({ min: 400e3, max: 1e6 })
    expect(found(design, 'pins.bus-speed', needy)[0]).toMatchObject({
      severity: 'risks',
      text: 'Screen needs the I2C bus at 400 kHz or faster; it runs at 100 kHz.',
    })
    expect(offered(design, 'pins.bus-speed', needy).map((o) => o.fix.label)).toEqual([
      'Run the I2C bus at 1 MHz',
    ])
    expect(found(fast, 'pins.bus-speed', needy)).toEqual([])
    expect(found(fast, 'pins.bus-speed', as())[0]).toMatchObject({ severity: 'notes' })
    expect(found(design, 'pins.bus-speed', as())).toEqual([])
  })
  // Without the board's 2.2 kΩ the bus needs pull-ups of ours; with them the window of 100 kHz is met.
  test('pull-ups of the carrier count like ours', () => {
    const design = project({
      chip: 'trestle-32',
      source: 'adapter-9v',
      devices: [['temperature-two-wire', 'Heat']],
    })
    const pulls = (from: Library) =>
      analyse(design, from).build.support.filter((s) => s.key.startsWith('pull:i2c'))
    const board = findPart(library, 'board', 'trestle-32')!
    const legs = Object.values(analyse(design, library).pins.assignment)
    const loads = legs.map((pin) => ({
      pin,
      what: 'a pull-up',
      pull: 'up' as const,
      resistance: { typ: 2200, kind: 'typical' as const },
    }))
    const with_: Library = { ...library, parts: { ...library.parts, 'trestle-32': { ...board, loads } } }
    expect(pulls(library)).toHaveLength(2)
    expect(pulls(with_)).toHaveLength(0)
  })
  // Three in a chain: clock, data into the first and one take-over for all; data goes on from each into the next.
  test.each([
    ['three registers', 'output-register-8', 'spi', ['spi.SCK', 'spi.MOSI', 'd1.1.SHOW'], ['SOUT', 'SIN']],
    ['three strips', 'pixel-strip-8', 'data', ['d1.1.DIN'], ['DOUT', 'DIN']],
  ])(
    '%s in a chain take the legs of one, and are wired one into the next',
    (_, part, wiring, lines, [out, into]) => {
      const design = project({
        chip: 'qm32-48',
        regulator: 'bl33-low',
        devices: [[part, 'Row', wiring, { count: 3 }]],
      })
      const { needs, build, pins } = analyse(design, library)
      expect(needs.signals.map((s) => s.id)).toEqual(lines)
      expect(Object.keys(pins.assignment)).toHaveLength(lines.length)
      const refs = build.placed.filter((p) => p.name.startsWith('Row')).map((p) => p.ref)
      const netAt = (n: number, terminal: string) =>
        build.nets.find((net) => net.nodes.some((x) => x.ref === refs[n] && x.terminal === terminal))
      for (const n of [0, 1]) {
        const link = netAt(n, out!)!
        expect(link.nodes.map((x) => `${x.ref} ${x.terminal}`)).toEqual([
          `${refs[n]} ${out}`,
          `${refs[n + 1]} ${into}`,
        ])
      }
      // The chip’s leg, and the first alone; the last hands on to nobody.
      expect(netAt(0, into!)!.nodes.map((x) => x.ref)).toEqual(['U1', refs[0]])
      expect(netAt(2, out!)).toBeUndefined()
      // One by one each has its own lines, as many as they need.
      const alone = analyse(applyEdits(design, [{ kind: 'splitDevice', id: 'd1' }]), library)
      expect(alone.needs.signals.filter((s) => !s.bus)).toHaveLength(3)
    },
  )
  test('what a chain sends back comes from its last', () => {
    const register = findPart(library, 'device', 'output-register-8')!
    const [spi] = register.wirings
    const back = {
      id: 'SOUT',
      terminal: 'SOUT',
      kind: 'bus' as const,
      bus: 'spi' as const,
      line: 'MISO',
      electrical: { kind: 'logic-output' as const },
    }
    const from: Library = {
      ...library,
      parts: {
        ...library.parts,
        'output-register-8': { ...register, wirings: [{ ...spi!, signals: [...spi!.signals, back] }] },
      },
    }
    const design = project({
      chip: 'qm32-48',
      regulator: 'bl33-low',
      devices: [many('output-register-8', 'Row', 3)],
    })
    const { needs, build } = analyse(design, from)
    const ends = (id: string) => needs.signals.find((s) => s.id === id)!.ends.map((e) => e.instance.id)
    expect([ends('spi.MOSI'), ends('spi.SCK'), ends('d1.1.SHOW'), ends('spi.MISO')]).toEqual([
      ['d1.1'],
      ['d1.1', 'd1.2', 'd1.3'],
      ['d1.1', 'd1.2', 'd1.3'],
      ['d1.3'],
    ])
    const last = build.placed.find((p) => p.name === 'Row 3')!
    expect(last.legs.find((l) => l.name === 'SOUT')!.net).toBe('SPI_MISO')
  })
  // Sheets: a leg carries 8 mA; the board’s lamp on PC13 takes 3 mA. An LED of 6 mA draws up to 7.15 mA: alone it fits.
  test('the carrier’s lamp counts on its leg and in the sum, and the lower current that is offered leaves room for it', () => {
    const design = (chip: string, pin: string) =>
      project({
        chip,
        regulator: chip.startsWith('stick') ? undefined : 'bl33-low',
        devices: [['lamp-red', 'Red', 'switched', { settings: { 'light.current': 0.006 } }]],
        locks: { 'd1.1.light': pin },
      })
    const lamp = design('stick-qm32-48', 'PC13')
    const [finding] = found(lamp, 'pins.led-over-limit')
    expect(finding).toMatchObject({
      severity: 'risks',
      text: 'Red draws up to 10.1 mA; PC13 is good for 8 mA.',
    })
    expect(finding!.because.map((f) => f.text).join()).toMatch(/has a lamp through 1 kΩ: 3 mA more/)
    expect(labels(lamp, 'pins.led-over-limit')).toEqual(['Ask for 3.3 mA instead'])
    const { chip, pins } = analyse(lamp, library)
    // Each within the 8 mA of a leg, together outside it and within the 20 mA that it stands.
    expect(legGrade(chip.chip!, legLoads(chip.chip!, pins), 'PC13')).toBe('outside the sheet')
    const [all] = loadSums(chip.chip!, legLoads(chip.chip!, pins))
    expect(all!.sum.value.max - pins.leds['d1.1.light']!.current.value.max).toBeCloseTo(3e-3, 9)
    for (const elsewhere of [design('stick-qm32-48', 'PB1'), design('qm32-48', 'PC13')])
      expect(found(elsewhere, 'pins.led-over-limit')).toEqual([])
    // A leg that only listens doesn’t drive the lamp.
    const button = project({
      chip: 'stick-qm32-48',
      devices: [['push-button', 'Go']],
      locks: { 'd1.1.contact': 'PC13' },
    })
    const listening = analyse(button, library)
    expect(listening.pins.assignment).toEqual({ 'd1.1.contact': 'PC13' })
    expect(legLoads(listening.chip.chip!, listening.pins)).toEqual([])
  })
  test('a select rests high by a pull-up of its own, by the book', () => {
    const design = {
      ...project({ chip: 'qm32-48', regulator: 'bl33-low', devices: [['card-reader', 'Card']] }),
      stance: 'by-the-book' as const,
    }
    const pull = analyse(design, library).build.support.find((s) => s.key === 'select:d1.1.CS')
    expect(pull).toMatchObject({ present: true, value: { value: 10e3 } })
  })
})

describe('explanations', () => {
  test('the radio, where it is what decides', () => {
    const design = project({
      chip: 'mw2-module',
      regulator: 'bl33-low',
      radio: true,
      devices: [many('temperature-analog', 'Probe', 9)],
    })
    const { plan } = analyse(design, library).pins
    expect(plan!.clashRules).toContain('radio')
    expect(plan!.clashText).toMatch(/while the radio is on/)
    expect(labels(design, 'pins.clash').some((l) => /radio/.test(l))).toBe(true)
  })
  test('the second board, and doing without it', () => {
    const design = {
      ...project({ chip: 'trestle-plain', source: 'adapter-9v', devices: [['serial-link', 'Link']] }),
      chip: { part: 'trestle-plain', also: ['trestle-32'] },
    }
    const { plan } = analyse(design, library).pins
    expect(plan!.clashRules).toContain('boards')
    expect(plan!.clashText).toMatch(/on Trestle plain and Trestle 32 at the same positions/)
    // Alone nothing clashes, and no rule decides anything.
    expect(analyse({ ...design, chip: { part: 'trestle-plain' } }, library).pins.plan).toMatchObject({
      clash: [],
      clashChoices: [],
      clashRules: [],
    })
    expect(labels(design, 'pins.clash')).toContain('Plan without Trestle 32')
  })
  test('doing without several says how many go', () => {
    const design = project({
      chip: 'td8-08-dip',
      regulator: 'bl5-cool',
      source: 'adapter-9v',
      devices: [many('push-button', 'Key', 7)],
    })
    expect(labels(design, 'pins.clash')).toContain('Do without all 7 of Key')
  })
})

test('the reach of a signal asks a locked neighbour to leave, and says where it would go', () => {
  const design = project({
    chip: 'td8-28-dip',
    regulator: 'bl5-cool',
    source: 'adapter-9v',
    devices: [
      ['push-button', 'Go'],
      ['lamp-red', 'Lamp'],
    ],
    locks: { 'd1.1.contact': 'PC6' },
  })
  const there = reachIn(design, library, 'd2.1.light').find((e) => e.pin === 'PC6')!
  expect(there.extra).toBeGreaterThanOrEqual(0)
  expect(there.moves.map((m) => m.name)).toEqual(['Go'])
})

describe('swaps', () => {
  const board = project({
    chip: 'trestle-plain',
    source: 'adapter-9v',
    devices: [
      ['lamp-red', 'Lamp'],
      ['push-button', 'Go'],
    ],
    locks: { 'd1.1.light': 'PB2' },
  })
  const swapped = (design: Design, to: string) => {
    const before = analyse(design, library)
    const other = candidateOf(design, library, to)!.chip
    const { edits, dropped } = swapTo({ ...before, design }, library, other)
    const after = applyEdits(design, edits)
    return { after, dropped, preview: compareAnalyses(before, analyse(after, library)) }
  }
  test('a lock and a soldered wire keep their header position, and are not called moved', () => {
    const soldered = applyEdits(board, [{ kind: 'solder', signal: 'd2.1.contact', name: 'Go', pin: 'PB3' }])
    const { after, dropped, preview } = swapped(soldered, 'trestle-32')
    expect(dropped).toEqual([])
    const place = (chip: string, pin: string) =>
      candidateOf(soldered, library, chip)!.chip.pins.find((p) => p.id === pin)!.places
    expect(place('trestle-32', after.pins.locks['d1.1.light']!)).toEqual(place('trestle-plain', 'PB2'))
    expect(place('trestle-32', after.pins.soldered!['d2.1.contact']!)).toEqual(place('trestle-plain', 'PB3'))
    expect(preview.lines.filter((l) => /moves from/.test(l))).toEqual([])
  })
  // Board files: the plain board’s PA4 is at “sense” 5 and at “bus” 1; the deck has its data line at “bus” 1.
  test('a line at one of two positions of its leg keeps the one that its deck is at', () => {
    const design = project({
      chip: 'trestle-plain',
      source: 'adapter-9v',
      devices: [['display-deck', 'Top']],
      locks: { 'i2c.SDA': 'PA4' },
    })
    const { after, dropped, preview } = swapped(design, 'trestle-32')
    const { chip, pins } = analyse(after, library)
    const { places } = chip.chip!.pins.find((p) => p.id === after.pins.locks['i2c.SDA'])!
    expect([dropped, places]).toEqual([[], ['trestle bus.1']])
    expect(pins.plan!.wires.filter((w) => w.impossible)).toEqual([])
    expect(preview.lines.filter((l) => /moves from/.test(l))).toEqual([])
  })
  test('what has no place there is listed', () => {
    const { dropped } = swapped(board, 'mw1-module')
    expect(dropped.join()).toMatch(/the lock of Lamp on .*PB2/)
    const small = applyEdits(
      project({
        chip: 'td8-08-dip',
        regulator: 'bl5-cool',
        source: 'adapter-9v',
        devices: [['lamp-red', 'Lamp']],
      }),
      [{ kind: 'useReset', port: true }],
    )
    expect(swapped(small, 'td8-28-dip').dropped).toEqual(['the reset leg as a port'])
  })
  test('the regulator that goes with it is in its words', () => {
    const other = candidateOf(board, library, 'mw1-module')!.chip
    const swap = swapTo({ ...analyse(board, library), design: board }, library, other)
    const { name } = findPart(library, 'regulator', applyEdits(board, swap.edits).power.regulator)!
    expect(swapWords(other, swap)).toContain(
      `Choose ${other.name}, fed through ${name}; dropped: the lock of Lamp`,
    )
  })
  test('from a board to a bare chip a regulator that it stands goes with it', () => {
    const { after, preview } = swapped(board, 'qm32-48')
    const regulator = findPart(library, 'regulator', after.power.regulator)!
    expect(regulator.output.typ ?? regulator.output.max).toBeLessThanOrEqual(3.6)
    expect(preview.appearing.filter((f) => f.check === 'chip.supply-out-of-range')).toEqual([])
  })
  // From the part files alone: what goes with a bare chip is meant for the source, and gives what the chip runs on.
  test('whatever the source, a regulator that goes with a chip stands it and suits the chip', () => {
    const top = (r: { min?: number; typ?: number; max?: number }) => r.max ?? r.typ ?? r.min!
    let regulators = 0
    for (const source of partsOfKind(library, 'source'))
      for (const chip of partsOfKind(library, 'chip')) {
        const design = { ...board, power: { source: source.id } }
        const other = candidateOf(design, library, chip.id)!.chip
        const { edits, feed } = swapTo({ ...analyse(design, library), design }, library, other)
        const after = applyEdits(design, edits)
        const regulator = findPart(library, 'regulator', after.power.regulator)
        const where = [source.id, chip.id]
        if (!regulator) {
          const suits = top(source.voltage) <= top(chip.supply.recommended)
          expect([...where, suits || /no regulator/.test(feed ?? '')]).toEqual([...where, true])
          continue
        }
        regulators++
        expect([...where, top(source.voltage) <= top(regulator.inputRecommended)]).toEqual([...where, true])
        expect([...where, top(regulator.output) <= top(chip.supply.recommended)]).toEqual([...where, true])
      }
    expect(regulators).toBeGreaterThan(20)
  })
  test('a soldered wire stays whatever it costs; a lock of another there is a mistake', () => {
    const dear = applyEdits(board, [{ kind: 'solder', signal: 'd2.1.contact', name: 'Go', pin: 'PC5' }])
    const { pins } = analyse(dear, library)
    expect(pins.assignment['d2.1.contact']).toBe('PC5')
    expect(pins.plan!.wires.find((w) => w.signal.id === 'd2.1.contact')).toMatchObject({ soldered: true })
    const rival = analyse(
      applyEdits(dear, [{ kind: 'lockSignal', signal: 'd1.1.light', name: 'Lamp', pin: 'PC5' }]),
      library,
    )
    expect(rival.findings.map((f) => f.check)).toContain('pins.cannot-serve')
  })
})

describe('what the builder said and the planner can’t keep', () => {
  const lamp = project({ chip: 'qm32-32', regulator: 'bl33-low', devices: [['lamp-red', 'Lamp']] })
  const with_ = (pins: Partial<Design['pins']>): Design => ({ ...lamp, pins: { ...lamp.pins, ...pins } })
  test.each<[Partial<Design['pins']>, RegExp, string]>([
    [
      { locks: { 'd1.1.light': 'PZ9' } },
      /The lock of Lamp on PZ9 has no effect: QM32-32 has no leg PZ9/,
      'notes',
    ],
    [{ locks: { 'd9.1.OUT': 'PA0' } }, /nothing asks for that signal/, 'notes'],
    [{ soldered: { 'd1.1.light': 'PZ9' } }, /marked as soldered to PZ9/, 'risks'],
    [{ excluded: ['PZ9'] }, /Leg PZ9 is to be kept free/, 'notes'],
  ])('%o is said, and can be taken away', (pins, words, severity) => {
    const design = with_(pins)
    const [finding] = found(design, 'pins.lost-mark')
    expect(finding).toMatchObject({ severity })
    expect(finding!.text).toMatch(words)
    const [offer] = offered(design, 'pins.lost-mark')
    expect(found(applyEdits(design, offer!.fix.edits), 'pins.lost-mark')).toEqual([])
    expect(found(lamp, 'pins.lost-mark')).toEqual([])
  })
  test('of two signals on one leg the soldered one was there first, whichever comes first in the list', () => {
    const design = project({
      chip: 'qm32-32',
      regulator: 'bl33-low',
      devices: [
        ['lamp-red', 'Lamp'],
        ['push-button', 'Go'],
      ],
      locks: { 'd1.1.light': 'PA3' },
    })
    const soldered = applyEdits(design, [{ kind: 'solder', signal: 'd2.1.contact', name: 'Go', pin: 'PA3' }])
    const { pins, findings } = analyse(soldered, library)
    expect(pins.plan!.wires.filter((w) => w.impossible).map((w) => [w.signal.name, w.impossible])).toEqual([
      ['Lamp', 'Go is soldered there already'],
    ])
    expect(findings.map((f) => f.text).join()).toMatch(/Lamp can’t be on .*PA3/)
    // Moved by hand it is soldered there no longer.
    const moved = applyEdits(soldered, [
      { kind: 'moveSignal', signal: 'd2.1.contact', name: 'Go', pin: 'PA4', kept: {} },
    ])
    expect(moved.pins.soldered).toBeUndefined()
    expect(analyse(moved, library).pins.assignment).toMatchObject({
      'd1.1.light': 'PA3',
      'd2.1.contact': 'PA4',
    })
  })
})

test('several of one device, one by one: each keeps its lock and may have its own address', () => {
  const design = project({
    chip: 'qm32-48',
    regulator: 'bl33-low',
    devices: [many('push-button', 'Key', 3)],
    locks: { 'd1.2.contact': 'PB5' },
  })
  const split = applyEdits(design, [{ kind: 'splitDevice', id: 'd1' }])
  expect(split.needs.devices.map((d) => [d.id, d.name, d.count])).toEqual([
    ['d1', 'Key 1', 1],
    ['d2', 'Key 2', 1],
    ['d3', 'Key 3', 1],
  ])
  expect(split.pins.locks).toEqual({ 'd2.1.contact': 'PB5' })
  expect(analyse(split, library).pins.plan!.cost).toBe(analyse(design, library).pins.plan!.cost)
})

describe('no false alarms', () => {
  test('a deck’s line locked where the plan has it is no mistake', () => {
    const design = project({ chip: 'trestle-32', source: 'adapter-9v', devices: [['relay-deck', 'Crane']] })
    const { plan } = analyse(design, library).pins
    for (const w of plan!.wires) {
      const locked = applyEdits(design, [
        { kind: 'lockSignal', signal: w.signal.id, name: w.signal.name, pin: w.pin.id },
      ])
      expect(found(locked, 'pins.cannot-serve')).toEqual([])
      expect(analyse(locked, library).pins.plan!.status).toBe('proven')
    }
  })
  test('an interrupt input pays nothing for being on a leg that has one', () => {
    const design = project({
      chip: 'td8-28-dip',
      regulator: 'bl5-cool',
      source: 'adapter-9v',
      devices: [['pulse-sensor', 'Eye', 'edge']],
    })
    const [wire] = analyse(design, library).pins.plan!.wires
    expect(wire!.items.filter((i) => /interrupt/.test(i.reason))).toEqual([])
  })
})

describe('kinds of need', () => {
  const referred = (
    chip = 'td8-28-dip',
    supply: Partial<Project> = { source: 'adapter-9v', regulator: 'bl5-low' },
  ) =>
    project({
      chip,
      ...supply,
      devices: [
        ['reference-2v5', 'Standard'],
        ['light-resistor', 'Light'],
      ],
    })
  // 2.5 V over 1024 codes: 2.44 mV a step. The rail of 5 V would make it 4.88 mV.
  test('a reference of one’s own is on the reference leg and no other, and the converter measures against it', () => {
    const { pins, build, findings } = analyse(referred(), library)
    expect(pins.assignment['d1.1.OUT']).toBe('AREF')
    expect(pins.converters[0]!.step.value).toEqual({ min: 2.495 / 1024, typ: 2.5 / 1024, max: 2.505 / 1024 })
    // Its capacitor stays on the same net.
    const net = build.nets.find((n) => n.nodes.some((x) => x.terminal === 'OUT'))!
    expect(net.nodes.map((x) => x.ref.replace(/\d+/, ''))).toEqual(expect.arrayContaining(['U', 'C', 'M']))
    const joined = findings.find((f) => f.check === 'pins.reference-joined')!
    expect(joined).toMatchObject({ severity: 'notes', about: { pin: 'AREF' } })
    expect(joined.because.map((f) => f.text).join()).toMatch(/work against each other/)
    // The light’s divider goes up to the rail: above the reference all reads as the top code.
    const level = findings.find((f) => f.id === 'pins.level:d2.1.level:d2.1')!
    expect(level).toMatchObject({ severity: 'risks', grade: 'outside the sheet' })
    expect(level.text).toMatch(/reads as the top code/)
    // Both are on one rail: nothing is said of two supplies.
    expect(level.because.map((f) => f.text).join()).not.toMatch(/the chip on/)
    expect(labels(referred(), 'pins.level')).toContain('Do without Standard')
    expect(analyse(referred('td8-08-dip'), library).pins.plan!.status).toBe('clash')
    const without = analyse(project({ chip: 'td8-28-dip', devices: [['light-resistor', 'Light']] }), library)
    expect(without.findings.filter((f) => f.check === 'pins.reference-joined')).toEqual([])
  })
  // Two empty cells give 1.8 V, less than the 2.495 V of the reference.
  test('a reference above the supply is told', () => {
    const low = analyse(referred('td8-28-dip', { source: 'cells-2-aa' }), library)
    const level = low.findings.find((f) => f.id === 'pins.level:d1.1.OUT:d1.1')!
    expect(level.text).toMatch(/reaches .*AREF.*, which stands/)
    expect(level.severity).toBe('stops')
    const atReference = (from: Library) =>
      analyse(referred(), from).findings.filter((f) => f.id === 'pins.level:d1.1.OUT:d1.1')
    expect(atReference(library)).toEqual([])
    // 5.0 to 5.1 V against a rail of 4.9 to 5.1 V: now and then above it, never by more than the leg stands.
    const high = structuredClone(library)
    const part = findPart(high, 'device', 'reference-2v5')!
    part.wirings[0]!.signals[0]!.electrical = {
      kind: 'reference',
      voltage: { min: 5, typ: 5.05, max: 5.1, kind: 'guaranteed' },
    }
    expect(atReference(high)).toMatchObject([{ severity: 'risks', grade: 'outside the sheet' }])
    // The leg stands 0.5 V above the lowest supply, 5.4 V: a reference that may give more does harm, now and then or not.
    part.wirings[0]!.signals[0]!.electrical = {
      kind: 'reference',
      voltage: { min: 5.3, typ: 5.35, max: 5.45, kind: 'guaranteed' },
    }
    expect(atReference(high)).toMatchObject([{ severity: 'stops' }])
  })
  // QM32-64, section 13: outputs 1 and 2 are on PA4 and PA5, and there is no third.
  test('an analog output is on a leg that has one, one line each', () => {
    const meters = (count: number) =>
      project({ chip: 'qm32-64', regulator: 'bl33-low', devices: [many('pointer-meter', 'Dial', count)] })
    const { pins, power, findings } = analyse(meters(2), library)
    expect(Object.values(pins.assignment).sort()).toEqual(['PA4', 'PA5'])
    expect(new Set(pins.plan!.wires.map((w) => `${w.unit!.id}.${w.line}`))).toEqual(
      new Set(['DA1.OUT1', 'DA1.OUT2']),
    )
    expect(findings.filter((f) => f.check === 'pins.level')).toEqual([])
    expect(analyse(meters(3), library).pins.plan!.status).toBe('clash')
    // Two meters at full scale: 2 · 3.3 V / 30 kΩ.
    const load = power.consumers.find((c) => c.id === 'd1.load')!
    expect(load.work.value.typ).toBeCloseTo((2 * 3.3) / 30e3, 9)
  })
  // It stands 4 V, whatever it is fed: a leg at 5 V gives up to 5.1.
  test('a voltage that the device doesn’t stand is for the program to keep below', () => {
    const chip = findPart(library, 'chip', 'qm32-64')!
    const from: Library = {
      ...library,
      parts: {
        ...library.parts,
        'qm32-64': {
          ...chip,
          supply: { ...chip.supply, recommended: { ...chip.supply.recommended, max: 5.5 } },
        },
      },
    }
    const design = project({
      chip: 'qm32-64',
      regulator: 'bl5-low',
      source: 'adapter-9v',
      devices: [['pointer-meter', 'Dial']],
    })
    const [level] = found(design, 'pins.level', from)
    expect(level).toMatchObject({ severity: 'risks' })
    expect(level!.text).toMatch(/which stands 4 V: the program must keep below it/)
  })
  const on = (chip: string, devices: Project['devices']): Design =>
    project({ chip, regulator: 'bl33-low', devices })
  test('an encoder that a timer counts has its lines on the first two channels of a timer of its own', () => {
    const design = on('qm32-32', [
      ['rotary-encoder', 'Dial', 'counted'],
      ['servo-small', 'Points'],
      ['lamp-red', 'Dimmer', 'dimmed'],
    ])
    // Two timers: one counts, so two frequencies are one too many.
    expect(analyse(design, library).pins.plan!.status).toBe('clash')
    const { wires } = analyse(
      on(
        'qm32-32',
        design.needs.devices.slice(0, 2).map((d) => [d.part, d.name, d.wiring]),
      ),
      library,
    ).pins.plan!
    const lines = new Map(wires.map((w) => [w.signal.name, w]))
    expect([lines.get('Dial A')!.line, lines.get('Dial B')!.line]).toEqual(['CH1', 'CH2'])
    expect(lines.get('Dial A')!.unit!.id).toBe(lines.get('Dial B')!.unit!.id)
    expect(lines.get('Points')!.unit!.id).not.toBe(lines.get('Dial A')!.unit!.id)
  })
  test('a timer measures only where its file says so, and not beside a frequency', () => {
    const fan = on('td8-28-dip', [['fan-tacho', 'Fan', 'measured']])
    const wires = analyse(fan, library).pins.plan!.wires
    expect(wires.find((w) => w.signal.kind === 'capture')!.unit!.id).toBe('T1')
    expect(wires.find((w) => w.signal.kind === 'pwm')!.unit!.id).not.toBe('T1')
    expect(analyse(on('mw2-module', [['fan-tacho', 'Fan', 'measured']]), library).pins.plan!.status).toBe(
      'clash',
    )
    // 50 Hz, 1 kHz and 2.7 kHz take its three timers, and T1 is the only one that measures.
    const three: Project['devices'] = [
      ['servo-small', 'Rudder'],
      dimmed('Beacon', 1, 1e3),
      ['buzzer-magnetic', 'Horn'],
    ]
    const receiver: Project['devices'][number] = ['remote-receiver', 'Receiver']
    const status = (devices: Project['devices']) =>
      analyse(on('td8-28-dip', devices), library).pins.plan!.status
    expect([status(three), status([...three.slice(1), receiver]), status([...three, receiver])]).toEqual([
      'proven',
      'proven',
      'clash',
    ])
  })
  test('a line that both ends pull down never lies on an input-only leg', () => {
    const { plan } = analyse(on('mw2-module', [many('soil-probe', 'Probe', 20)]), library).pins
    expect(plan!.status).toBe('proven')
    const inputOnly = (w: { pin: { type: string; attributes?: { kind: string }[] } }) =>
      w.pin.type === 'input' || w.pin.attributes?.some((a) => a.kind === 'input-only')
    expect(plan!.wires.filter(inputOnly)).toEqual([])
  })
})
