import { demo, shippedLibrary } from '../../test/files'
import { analyse, candidateOf } from '../analysis'
import { project } from '../../test/project'
import { alike, carrierOf, seatsOf, settledBy, withTargets } from '../carrier'
import { applyEdits, type Design, type Edit } from '../design'
import { type Board, type Chip, findPart, partsOfKind } from '../parts'
import { resolveNeeds } from '../needs'
import {
  anatomyOf,
  asleepOf,
  askedOf,
  type CandidateChip,
  candidateOrder,
  compareChips,
  standaloneEdit,
} from '.'

const library = shippedLibrary()
const timer = demo('darkroom-timer')
const verdict = (id: string, ...edits: Edit[]) => candidateOf(applyEdits(timer, edits), library, id)!

describe('every chip against the darkroom timer', () => {
  test.each<[string, boolean, number | undefined, RegExp]>([
    // 22 legs that can carry signals: 22 of ports less none, reset apart; 11 signals; crystal takes 2 on the chosen one
    ['td8-28-dip', true, 22 - 2 - 11, /^$/],
    ['td8-28-flat', true, 22 - 11, /^$/],
    ['td8-40-dip', true, 32 - 11, /^$/],
    ['td8-08-dip', false, undefined, /only 5 legs can serve them/],
    ['qm32-32', false, 26 - 11, /runs on 2 V to 3.6 V, and the rail is 5 V/],
  ])('%s', (id, fits, left, why) => {
    const c = verdict(id)
    expect([c.fits, c.left]).toEqual([fits, left])
    expect(c.no.join('; ')).toMatch(why)
  })
  test('memory left is memory less what the devices’ code takes, by hand', () => {
    // display 1400, encoder 600, button 120 (once for both), buzzer 200, relay 80, lamp 60, light 260
    const code = 1400 + 600 + 120 + 200 + 80 + 60 + 260
    expect(verdict('td8-28-dip').programLeft).toBe(16384 - code)
    expect(verdict('td8-28-dip').dataLeft).toBe(1024 - (40 + 12 + 4 + 6 + 2 + 2 + 8))
  })
  test('code that does not fit is said in bytes', () => {
    const c = verdict('td8-08-dip', {
      kind: 'addDevices',
      devices: [{ part: 'card-reader', name: 'Card', count: 1 }],
    })
    expect(c.no.join('; ')).toMatch(/its program memory is 5824 bytes short/)
  })
  test('the wrong lock of the chosen chip counts for it alone', () => {
    const lock: Edit = { kind: 'lockSignal', signal: 'd8.1.level', name: 'Paper light', pin: 'PC0' }
    expect(verdict('td8-28-dip', lock).no).toEqual(['Paper light is locked on PC0: it has no analog input'])
    expect(verdict('td8-28-flat', lock).fits).toBe(true)
  })
  test('on a 3.3 V rail the 32-bit chip fits', () => {
    expect(verdict('qm32-32', { kind: 'chooseRegulator', part: 'bl33-low', name: '' }).fits).toBe(true)
  })
})

describe('side by side', () => {
  const chip = (id: string) => findPart(library, 'chip', id)!
  const asked = askedOf(timer, library, resolveNeeds(timer, library))
  const rows = compareChips([chip('td8-28-dip'), chip('qm32-32')], asked)
  test.each([
    ['Supply of the chip', '1.8 V to 5.5 V', '2 V to 3.6 V'],
    ['Recommended current of a leg', '20 mA', '8 mA'],
    ['Highest clock', '18 MHz', '48 MHz'],
    ['Program memory', '16 KiB', '64 KiB'],
    ['I2C', '1 (on 2 legs)', '2 (on 6 legs)'],
    ['Pull-downs inside', 'none', 'yes'],
    ['Functions', 'fixed to their legs', 'selected per leg'],
  ])('%s', (fact, a, b) =>
    expect(rows.find((r) => r.fact === fact)).toMatchObject({ values: [a, b], differs: true }),
  )
  test('marks say what a value means for these needs, not in itself', () => {
    const marks = (chips: string[], of: typeof asked) =>
      Object.fromEntries(compareChips(chips.map(chip), of).map((r) => [r.fact, r.marks]))
    // The timer asks 5 mA of a leg, two-wire, one PWM, one analog input; 2720 bytes of program.
    expect(asked).toMatchObject({ legCurrent: 5e-3, units: { i2c: 1, timer: 1, converter: 1 }, cells: false })
    const two = marks(['td8-28-dip', 'qm32-32'], asked)
    expect(two['Recommended current of a leg']).toEqual(['best', undefined])
    expect(two.Price).toContain('best')
    // Nobody asks for SPI or for sleep, so more of it is no better.
    expect([two.SPI, two.Asleep]).toEqual([
      [undefined, undefined],
      [undefined, undefined],
    ])
    const hungry = { ...asked, legCurrent: 12e-3, signals: 30, cells: true, radio: true }
    const short = marks(['td8-28-dip', 'qm32-32', 'mw2-module'], hungry)
    expect(short['Recommended current of a leg']).toEqual(['best', 'short', undefined])
    expect(short['Legs that can carry signals']![0]).toBe('short')
    expect(short.Radio).toEqual(['short', 'short', 'best'])
    expect(short.Asleep!.filter((m) => m === 'best')).toHaveLength(1)
  })
  test('the most of what is asked is best, where it is enough and not the same everywhere', () => {
    const of = (fact: string, chips: Chip[], more: Partial<typeof asked>) =>
      compareChips(chips, { ...asked, ...more }).find((r) => r.fact === fact)!.marks
    const [td8, mw2] = [chip('td8-28-dip'), chip('mw2-module')]
    // converters on 6 legs and, by the matrix and by themselves, on 16
    expect(of('Converters', [td8, mw2], { units: { converter: 6 } })).toEqual([undefined, 'best'])
    expect(of('Converters', [td8, mw2], { units: { converter: 7 } })).toEqual(['short', 'best'])
    expect(of('Converters', [td8, td8], { units: { converter: 7 } })).toEqual(['short', 'short'])
    expect(of('Converters', [td8, td8], { units: { converter: 6 } })).toEqual([undefined, undefined])
    expect(of('Timers with PWM', [td8, mw2], { units: { timer: 6 } })).toEqual(['short', 'best'])
    // 0.2 µA against 9 µA; of one that is known nothing is the best
    expect(of('Asleep', [mw2, td8], { cells: true })).toEqual([undefined, 'best'])
    const awake = { ...td8, modes: td8.modes.filter((m) => m.kind !== 'sleep') }
    expect(of('Asleep', [mw2, awake], { cells: true })).toEqual([undefined, undefined])
    expect(of('Price', [mw2, td8], {})).toEqual([undefined, 'best'])
    expect(of('Program memory', [td8, mw2], { program: 16384 })).toEqual([undefined, 'best'])
    expect(of('Program memory', [td8, mw2], { program: 3145728 - 65536 + 1 })).toEqual(['short', 'short'])
  })
  test('functions that a matrix brings to a leg count for it', () => {
    // mw2-module: 24 legs that are no flash leg and no input-only leg; converters on 6 + 2 legs and 8
    const matrix = compareChips([chip('mw2-module'), chip('td8-28-dip')], asked)
    const of = (fact: string) => matrix.find((r) => r.fact === fact)?.values[0]
    expect([of('I2C'), of('Converters'), of('Functions')]).toEqual([
      '2 (on 24 legs)',
      '2 (on 16 legs)',
      'almost any on almost any leg',
    ])
  })
  test('what differs comes first, and a chip differs from itself in nothing', () => {
    const flags = rows.map((r) => r.differs)
    expect(flags.lastIndexOf(true)).toBeLessThan(flags.includes(false) ? flags.indexOf(false) : flags.length)
    for (const c of partsOfKind(library, 'chip'))
      expect(compareChips([c, c], asked).some((r) => r.differs)).toBe(false)
  })
})

test('order: what fits, what may fit, what is no trouble, the cheaper, the name', () => {
  const of = (id: string, price: number, fits: boolean, undecided = false, but: string[] = []) =>
    ({ chip: { id, price }, fits, undecided, but }) as CandidateChip
  const inOrder = [
    of('h', 9, true),
    of('a', 10, true),
    of('b', 10, true),
    of('c', 1, true, false, ['a strap']),
    of('d', 0.5, false, true),
    of('e', 0.1, false),
    of('f', 0.2, false),
    of('g', 0.05, false, false, ['a strap']),
  ]
  expect([...inOrder].reverse().sort(candidateOrder)).toEqual(inOrder)
})

describe('what speaks against a carrier', () => {
  const of = (id: string, design: Design) => candidateOf(design, library, id)!
  const nine = project({ chip: 'td8-28-dip', source: 'adapter-9v', regulator: 'bl5-cool', devices: [] })
  test.each<[string, Design, RegExp]>([
    ['stick-td8', nine, /^$/],
    // it takes 4 V to 6 V
    ['stick-qm32-48', nine, /^its input takes 4 V to 6 V, and 9 V adapter gives 9 V$/],
    // 4.75 V to 5.25 V, and the adapter gives 4.8 V to 5.2 V
    ['oxbow-board', { ...nine, power: { source: 'adapter-5v' } }, /^$/],
    ['oxbow-board', nine, /^its input takes 4.75 V to 5.25 V, and 9 V adapter gives 9 V$/],
    [
      'mw2-module',
      { ...nine, needs: { ...nine.needs, radio: true } },
      /^it runs on 3 V to 3.6 V, and the rail is 5 V$/,
    ],
    ['td8-40-dip', { ...nine, needs: { ...nine.needs, radio: true } }, /^it has no radio$/],
  ])('%s', (id, design, why) => {
    const c = of(id, design)
    expect(c.no.join('; ')).toMatch(why)
    expect(c.fits).toBe(c.no.length === 0)
  })
  test('data memory to the byte: 1024 bytes of a TD8, a card reader’s driver takes what it takes', () => {
    const chip = findPart(library, 'chip', 'td8-28-dip')!
    const design = {
      ...nine,
      needs: { ...nine.needs, devices: [{ id: 'd1', part: 'push-button', name: 'Go', count: 1 }] },
    }
    const { data } = findPart(library, 'device', 'push-button')!.memory
    const withData = (bytes: number) =>
      candidateOf(
        design,
        { parts: { ...library.parts, [chip.id]: { ...chip, memory: { ...chip.memory, data: bytes } } } },
        chip.id,
      )!.no
    expect(withData(data)).toEqual([])
    expect(withData(data - 1)).toEqual(['its data memory is 1 bytes short of what the devices’ code takes'])
  })
  test('a loader’s share of the program memory is not there for the program', () => {
    // 3 MiB less 64 KiB
    expect(of('mw2-module', { ...nine, needs: { ...nine.needs, devices: [] } }).programLeft).toBe(
      3145728 - 65536,
    )
  })
  test('a rail that just reaches the end of the supply’s range is inside it', () => {
    const chip = findPart(library, 'chip', 'td8-28-dip')!
    const upTo = (max: number, min = 1.8) => {
      const supply = { ...chip.supply, recommended: { min, max, kind: 'recommended' as const } }
      return candidateOf(nine, { parts: { ...library.parts, [chip.id]: { ...chip, supply } } }, chip.id)!.fits
    }
    // 4.9 V to 5.1 V
    expect([upTo(5.1), upTo(5.09), upTo(5.5, 4.9), upTo(5.5, 4.91)]).toEqual([true, false, true, false])
  })
  test('the reset leg of the chosen chip counts where it serves as a port', () => {
    // five legs and the reset: six buttons need it
    const design = project({ chip: 'td8-08-dip', devices: [['push-button', 'Go', undefined, { count: 6 }]] })
    expect(of('td8-08-dip', design).fits).toBe(false)
    const asPort = { ...design, pins: { ...design.pins, resetAsPort: true } }
    expect(of('td8-08-dip', asPort)).toMatchObject({ fits: true, left: 0 })
    expect(of('td8-08-dip', { ...asPort, chip: { part: 'td8-28-dip' } }).fits).toBe(false)
  })
  test('what its plan gives up, the worst first', () => {
    const design = project({
      chip: 'mw2-module',
      source: 'usb-port',
      regulator: 'bl33-low',
      devices: [
        ['push-button', 'One'],
        ['push-button', 'Two'],
        ['push-button', 'Three'],
      ],
      locks: { 'd1.1.contact': 'P01', 'd2.1.contact': 'P03', 'd3.1.contact': 'P05' },
    })
    const { but } = of('mw2-module', design)
    expect(but.map((b) => b.slice(0, 4))).toEqual(['P03:', 'P01:'])
    expect(but[1]).toBe('P01: shared with the line that programs are loaded over')
  })
  test('devices that a board’s logic can’t feed are trouble, and no more', () => {
    // the strip wants 4.5 V to 5.5 V, the board gives 3.234 V to 3.366 V
    const design = project({
      chip: 'trestle-32',
      source: 'adapter-9v',
      devices: [['pixel-strip-8', 'Strip']],
    })
    expect(of('trestle-32', design)).toMatchObject({ no: [], but: ['Strip can’t run from its 3.3 V'] })
    expect(of('trestle-plain', design).but).toEqual([])
  })
})

// By hand from the board’s file: 5 positions of power, 6 of sense, 14 of main, 2 of the bus.
describe('a board as a carrier', () => {
  const board = findPart(library, 'board', 'trestle-32')!
  const bare = findPart(library, 'chip', 'qm32-64')!
  const carrier = carrierOf(library, 'trestle-32')!
  const pin = (id: string, of: Chip = carrier) => of.pins.find((p) => p.id === id)
  test('positions are counted through, header by header', () => {
    const places = seatsOf(board)
    expect(places).toHaveLength(27)
    expect(places[0]).toEqual({
      number: 1,
      at: 'trestle power.1',
      header: 'power row',
      label: 'IN',
      pin: undefined,
      rail: 'IN',
      program: undefined,
    })
    expect(places[11]).toMatchObject({
      number: 12,
      at: 'trestle main.1',
      label: 'T0',
      pin: 'PA4',
      program: 0,
    })
    expect(places[26]).toMatchObject({
      number: 27,
      at: 'trestle bus.2',
      label: 'CL',
      pin: 'PB12',
      program: 31,
    })
    const own = findPart(library, 'board', 'stick-td8')!
    expect(seatsOf(own)[0]!.at).toBe('stick-td8 left.1')
  })
  test('rails by what they are; two positions of one rail are one pin', () => {
    expect(pin('GND')).toMatchObject({
      type: 'ground',
      legs: [2, 3],
      labels: ['GND', 'GND'],
      places: ['trestle power.2', 'trestle power.3'],
    })
    expect([pin('V33'), pin('IN'), pin('RST')].map((p) => [p!.type, p!.rail, p!.legs])).toEqual([
      ['supply', 'LOGIC', [4]],
      ['none', 'IN', [1]],
      ['none', undefined, [5]],
    ])
  })
  test('a leg has its label, its number in the program, and what the board hangs on it', () => {
    const lamp = pin('PB5')!
    expect([lamp.legs, lamp.labels, lamp.number, lamp.names![0]]).toEqual([[25], ['T13'], 13, 'T13'])
    expect(lamp.attributes!.filter((a) => a.kind === 'on-board-lamp')).toEqual([
      { kind: 'on-board-lamp', reason: 'a lamp through 1 kΩ, 3 mA, on the board', source: 'section 4' },
    ])
    expect(pin('PB4')!.attributes!.filter((a) => a.kind === 'on-board-lamp')).toEqual([])
    expect(pin('PB6')).toBeUndefined()
    expect(carrier.pins.some((p) => p.attributes?.some((a) => a.kind === 'oscillator'))).toBe(false)
  })
  test('a pull of the board is no lamp; two positions of one pin are one leg', () => {
    const changed: Board = {
      ...board,
      loads: [{ pin: 'PB4', what: 'a pull-up', pull: 'up' }],
      headers: board.headers.map((h): Board['headers'][number] =>
        h.id === 'bus' ? { ...h, positions: [...h.positions, { label: 'T13 again', pin: 'PB5' }] } : h,
      ),
    }
    const again = carrierOf({ parts: { ...library.parts, [board.id]: changed } }, board.id)!
    expect(pin('PB4', again)!.attributes!.filter((a) => a.kind === 'on-board-lamp')).toEqual([])
    expect(pin('PB5', again)).toMatchObject({ legs: [25, 28], labels: ['T13', 'T13 again'] })
  })
  test('what the board settles: package, the weaker current, no header and no support of the chip’s', () => {
    expect(carrier).toMatchObject({
      id: 'trestle-32',
      price: 19,
      package: { name: 'board with 4 headers', style: 'two-sided', legs: 27, solder: 'through-hole' },
      programming: [],
      support: { decoupling: [], bulk: undefined, reset: undefined },
    })
    // 6 mA of the board against 8 mA of the chip; a board that promises more changes nothing
    expect(carrier.limits.pinRecommended.max).toBe(6e-3)
    const generous = { ...board, pinCurrent: { max: 9e-3, kind: 'recommended' as const } }
    const parts = { ...library.parts, [board.id]: generous }
    expect(carrierOf({ parts }, board.id)!.limits).toBe(bare.limits)
  })
  test('it settles clock and regulator, whatever was decided before; on a bare chip the builder does', () => {
    const decided = { clock: { source: 'internal', frequency: 1e6 }, regulator: 'bl5-low' }
    const on = (part: string) =>
      settledBy({ chip: { part, clock: decided.clock }, power: { regulator: decided.regulator } }, library)
    expect(on('trestle-32')).toEqual({
      clock: { source: 'crystal', frequency: 8e6, part: 'crystal-8mhz' },
      regulator: 'bl33-low',
    })
    expect(on('td8-28-dip')).toEqual(decided)
  })
  test('boards of the same header are alike, and a plan may have to hold on them', () => {
    const ids = (chips: Chip[]) => chips.map((c) => c.id).sort()
    expect(ids(alike(carrier, library))).toEqual(['trestle-plain', 'trestle-radio'])
    expect(alike(carrierOf(library, 'stick-td8')!, library)).toEqual([])
    expect(alike(bare, library)).toEqual([])
    expect(ids(withTargets(carrier, ['trestle-radio', 'stick-td8'], library).alsoOn!)).toEqual([
      'trestle-radio',
    ])
    expect(withTargets(carrier, ['stick-td8'], library)).toBe(carrier)
  })
  test('what is copied asleep is what a board of one’s own draws; a chip without a sleep has no such current', () => {
    // the module 60 mA, copied; regulator and fan are chosen anew
    expect(
      anatomyOf(findPart(library, 'board', 'oxbow-board')!, library).standaloneAsleep.value.typ,
    ).toBeCloseTo(60e-3, 12)
    const awake = { ...bare, modes: bare.modes.filter((m) => m.kind !== 'sleep') }
    expect(asleepOf(awake)).toBeUndefined()
    expect(anatomyOf(board, { parts: {} })).toMatchObject({
      bare: undefined,
      chipAsleep: undefined,
      hidden: [],
    })
  })
  test('its anatomy: regulator 5 mA, power lamp 1.9 mA, bridge 0.5 and 8 mA, lamp 3 mA, crystal 0.4 mA', () => {
    const anatomy = anatomyOf(board, library)
    expect(anatomy.asleep.value.typ).toBeCloseTo(7.4e-3, 12)
    expect(anatomy.awake.value.typ).toBeCloseTo(18.3e-3, 12)
    // reset, crystal and capacitors are copied, and draw nothing asleep
    expect(anatomy.standaloneAsleep.value.typ).toBe(0)
    expect(anatomy.chipAsleep!.value).toEqual({ min: 2e-6, typ: 2e-6, max: 9e-6 })
    expect(asleepOf(carrier)!.value.typ).toBeCloseTo(7.402e-3, 12)
    expect(asleepOf(bare)!.value.max).toBe(9e-6)
    // 55 legs that carry signals, 22 of them at the headers
    expect(anatomy.hidden).toHaveLength(55 - 22)
    expect(anatomy.hidden).toContain('PB6')
    const design = project({ chip: 'trestle-32', devices: [] })
    expect(standaloneEdit(design, anatomy, { a: 'PA0' })).toEqual({
      kind: 'makeStandalone',
      part: 'qm32-64',
      name: bare.name,
      kept: { a: 'PA0' },
      clock: board.clock,
      regulator: 'bl33-low',
    })
    expect(standaloneEdit(timer, anatomy, {})).toBeUndefined()
  })
})

// Every row of the comparison, from the three files.
test.each<[string, string, string, string]>([
  [
    'Package',
    'DIP-28, through-hole',
    'module with castellated edges, surface by hand',
    'board with 4 headers, through-hole',
  ],
  ['Legs that can carry signals', '23', '31', '22'],
  ['Supply of the chip', '1.8 V to 5.5 V', '3 V to 3.6 V', '2 V to 3.6 V'],
  ['Highest clock', '18 MHz', '160 MHz', '120 MHz'],
  ['Recommended current of a leg', '20 mA', '12 mA', '6 mA'],
  ['All legs together', '150 mA', '400 mA', '120 mA'],
  ['Program memory', '16 KiB', '3072 KiB, 64 KiB of it the loader’s', '256 KiB'],
  ['Data memory', '1 KiB', '320 KiB', '64 KiB'],
  ['Stored data', '512 B', '0 B', '0 B'],
  ['Converters', '1 (on 6 legs)', '2 (on 16 legs)', '2 (on 10 legs)'],
  ['UART', '1 (on 2 legs)', '3 (on 24 legs)', '4 (on 7 legs)'],
  ['Functions', 'fixed to their legs', 'almost any on almost any leg', 'selected per leg'],
  ['Pull-ups inside', '20 kΩ to 50 kΩ', '30 kΩ to 80 kΩ', '25 kΩ to 55 kΩ'],
  ['Pull-downs inside', 'none', 'yes', 'yes'],
  ['Programmed by', 'in-circuit serial, six-way header', 'serial loader header', 'its own bridge'],
  ['Radio', 'none', '2.4 GHz radio', 'none'],
  ['Wake-up', 'edge on INT0 or INT1, watchdog', 'timer, touch, wake-up leg', 'timer, wake-up leg'],
  ['Input range of converters', 'ground to supply', '0.1 V to 2.6 V', 'ground to supply'],
  ['Input', 'the rail itself', 'the rail itself', '6.5 V to 15 V'],
  ['Headers', 'none', 'none', 'power row (5), sense row (6), main row (14), bus pair (2)'],
  ['Asleep', '200 nA', '9 µA', '7.4 mA'],
  ['Price', '€ 2.10', '€ 5.40', '€ 19.00'],
])('compared: %s', (fact, ...values) => {
  const three = ['td8-28-dip', 'mw2-module', 'trestle-32'].map((id) => carrierOf(library, id)!)
  const asked = askedOf(timer, library, resolveNeeds(timer, library))
  expect(compareChips(three, asked).find((r) => r.fact === fact)!.values).toEqual(values)
})

test('as warm as the chip is made for is no finding, a degree more is, and says what to do', () => {
  const found = (ambient: number) =>
    analyse(
      { ...timer, needs: { ...timer.needs, limits: { ...timer.needs.limits, ambient } } },
      library,
    ).findings.find((f) => f.check === 'chip.too-warm')
  // TD8-28: up to 85 °C
  expect(found(85)).toBeUndefined()
  expect(found(86)).toMatchObject({ severity: 'risks', grade: 'outside the sheet' })
  expect(found(86)!.text).toBe('The air reaches 86 °C; TD8-28 DIP is made for at most 85 °C.')
})
