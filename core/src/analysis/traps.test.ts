// The traps of choosing a carrier and planning its pins: each is found with its chain, and a fix clears it.

import { shippedLibrary } from '../../test/files'
import { project, type Project } from '../../test/project'
import { carrierOf } from '../carrier'
import { asleepOf } from '../chip'
import { type Design, applyEdits, type Edit } from '../design'
import { inWords } from '../findings'
import { pinHeader, textReport, wiringTableCells } from '../formats'
import { pinsAcross } from '../pins'
import {
  analyse,
  candidateOf,
  compareAnalyses,
  nextPlansOf,
  offersFor,
  previewEdits,
  proposalsFor,
  regulatorsOf,
} from '.'

const library = shippedLibrary()

const mw2 = { chip: 'mw2-module', regulator: 'bl33-low' }
const qm32 = { chip: 'qm32-48', regulator: 'bl33-low' }

/** `harmless`: the same without the cause, where that is not simply no locks and only the first device. */
const traps: [name: string, check: string, words: RegExp, built: Project, harmless?: Partial<Project>][] = [
  [
    'a converter that the radio stops',
    'pins.cannot-serve',
    /its converter CVB stops while the radio is on/,
    { ...mw2, radio: true, devices: [['sound-sensor', 'Ear']], locks: { 'd1.1.ENV': 'P12' } },
  ],
  [
    'a reading that can wait, on a converter that the radio stops',
    'pins.radio-converter',
    /must pause the radio while it reads Cells/,
    { ...mw2, radio: true, devices: [['cell-voltage', 'Cells']], locks: { 'd1.1.TAP': 'P12' } },
  ],
  [
    'two servos and a dimmed lamp on the timers of eight legs',
    'pins.clash',
    /need 2 frequencies|only \d legs can serve/,
    {
      chip: 'td8-08-dip',
      devices: [
        ['servo-small', 'Points A'],
        ['servo-small', 'Points B'],
        ['lamp-red', 'Dimmer', 'dimmed'],
      ],
    },
  ],
  [
    'two displays at one address',
    'pins.address-clash',
    /Left and Right both answer to 0x3C/,
    {
      ...qm32,
      devices: [
        ['glow-display', 'Left', 'i2c'],
        ['glow-display', 'Right', 'i2c'],
      ],
    },
  ],
  [
    'a device at the address of one on the board',
    'pins.address-clash',
    /status display, on the board and Screen both answer to 0x3C/,
    {
      chip: 'oxbow-board',
      devices: [['glow-display', 'Screen', 'i2c']],
      locks: { 'i2c.SDA': 'M5', 'i2c.SCL': 'M4' },
    },
    // The other I2C of the processor has nothing of the board's on it.
    { locks: { 'i2c.SDA': 'M7', 'i2c.SCL': 'M6' } },
  ],
  [
    'an input-only leg for a select',
    'pins.cannot-serve',
    /Card CS can’t be on leg \d+ \(P30\): it can only be an input/,
    { ...mw2, devices: [['card-reader', 'Card']], locks: { 'd1.1.CS': 'P30' } },
  ],
  [
    'one interrupt line for two legs of the same number',
    'pins.clash',
    /2 interrupt inputs can’t be served together with the locks as they are/,
    {
      ...qm32,
      devices: [
        ['track-sensor', 'East', 'edge'],
        ['track-sensor', 'West', 'edge'],
      ],
      locks: { 'd1.1.OUT': 'PA3', 'd2.1.OUT': 'PB3' },
    },
  ],
  [
    'a load on a leg that chatters at start-up',
    'pins.startup-twitch',
    /carries pulses before the program runs, and Siren/,
    { ...mw2, devices: [['buzzer-magnetic', 'Siren']], locks: { 'd1.1.drive': 'P15' } },
  ],
  [
    'four boards with pull-ups of 4.7 kΩ each on one bus',
    'pins.bus-too-strong',
    /together 1.18 kΩ.*1.6 kΩ|come to 1.18 kΩ/,
    {
      chip: 'td8-28-dip',
      regulator: 'bl5-low',
      source: 'adapter-9v',
      devices: [
        ['glow-display', 'Left', 'i2c'],
        ['glow-display', 'Right', 'i2c'],
        ['keeper-clock', 'Clock'],
        ['colour-head', 'Eye', 'i2c'],
      ],
    },
  ],
  [
    'a select on a leg that chatters at start-up',
    'pins.startup-twitch',
    /carries pulses before the program runs, and Card CS/,
    { ...mw2, devices: [['card-reader', 'Card']], locks: { 'd1.1.CS': 'P15' } },
  ],
  [
    'a display’s missing line, tied to ground, on the boot strap through three names',
    'pins.strap-held',
    /Screen holds D02 \(P03\) low at reset: the chip then waits for a download/,
    {
      chip: 'trestle-radio',
      source: 'adapter-9v',
      devices: [['display-deck', 'Screen', undefined, { variant: 'b' }]],
    },
    { devices: [['display-deck', 'Screen']] },
  ],
  [
    'a 5 V sensor on a 3.3 V converter',
    'pins.level',
    /Air: up to 5 V reaches leg \d+ \(PA\d\), which stands 3.53 V/,
    { ...qm32, devices: [['gas-sensor-5v', 'Air', undefined, { fedBy: 'source' }]] },
    { devices: [['temperature-analog', 'Air', undefined, {}]] },
  ],
  [
    'a 5 V display on the two lines of a 3.3 V bus',
    'pins.level',
    /I2C SDA and I2C SCL, Screen: up to 5.25 V reaches/,
    { ...mw2, devices: [['glow-display', 'Screen', 'i2c', { fedBy: 'source' }]] },
    { devices: [['glow-display', 'Screen', 'i2c']] },
  ],
  [
    'lamps at 5 V that don’t read a high of 3.3 V',
    'pins.level',
    /Pixels: as little as 3.23 V reaches Pixels, which reads high from 3.67 V/,
    { ...mw2, devices: [['pixel-strip-8', 'Pixels', undefined, { fedBy: 'source' }]] },
    {
      chip: 'td8-28-dip',
      regulator: 'bl5-low',
      source: 'adapter-9v',
      devices: [['pixel-strip-8', 'Pixels']],
    },
  ],
  [
    'more on the second feed than it gives',
    'power.feed-too-weak',
    /USB port gives 500 mA; all on it at once draw up to 2.6 A/,
    {
      chip: 'trestle-32',
      source: 'adapter-9v',
      feed: 'usb-port',
      devices: [['servo-deck', 'Points', undefined, { fedBy: 'feed' }]],
    },
    { feed: 'adapter-5v-heavy' },
  ],
  [
    'an overlap in a stack',
    'pins.stack-overlap',
    /Points and Crane both use T7 \(PA11\)/,
    {
      chip: 'trestle-32',
      source: 'adapter-9v',
      devices: [
        ['servo-deck', 'Points'],
        ['relay-deck', 'Crane', 'outer'],
      ],
    },
  ],
  [
    'two expansion boards that must both be on top',
    'pins.stack-top',
    /Screen and Second can’t be stacked/,
    {
      chip: 'trestle-32',
      source: 'adapter-9v',
      devices: [
        ['display-deck', 'Screen'],
        ['display-deck', 'Second', undefined, { address: 61 }],
      ],
    },
  ],
]

/** How bad it is, and what is proposed, in its order. Judged one by one. */
const told: Record<string, [severity: string, grade: string | undefined, proposed: string[]]> = {
  'a converter that the radio stops': [
    'stops',
    'impossible',
    [
      'Move Ear to P04',
      'Pause the radio to read Ear',
      'Accept that Ear fails while the radio is on',
      'Release the lock',
    ],
  ],
  'a reading that can wait, on a converter that the radio stops': ['notes', undefined, ['Move Cells to P04']],
  'two servos and a dimmed lamp on the timers of eight legs': [
    'stops',
    'impossible',
    ['Choose TD8-28 flat', 'Do without Points B', 'Do without Dimmer'],
  ],
  'two displays at one address': [
    'stops',
    'impossible',
    [
      'Give Left address 0x3D',
      'Wire Left by SPI bus',
      'Put Left on a second bus',
      'Give Right address 0x3D',
      'Wire Right by SPI bus',
      'Put Right on a second bus',
    ],
  ],
  'a device at the address of one on the board': [
    'stops',
    'impossible',
    ['Give Screen address 0x3D', 'Wire Screen by SPI bus', 'Put Screen on a second bus'],
  ],
  'an input-only leg for a select': ['stops', 'impossible', ['Move Card CS to P06', 'Release the lock']],
  'one interrupt line for two legs of the same number': [
    'stops',
    'impossible',
    ['Release all locks', 'Choose QM32-20', 'Do without East', 'Do without West'],
  ],
  'a load on a leg that chatters at start-up': ['stops', undefined, ['Move Siren to P00']],
  'four boards with pull-ups of 4.7 kΩ each on one bus': [
    'risks',
    'outside the sheet',
    ['Wire Left by SPI bus', 'Wire Right by SPI bus', 'Do without Clock', 'Wire Eye by serial lines'],
  ],
  'a select on a leg that chatters at start-up': ['stops', undefined, ['Move Card CS to P06']],
  'a display’s missing line, tied to ground, on the boot strap through three names': [
    'stops',
    'impossible',
    ['Use Screen as in the sheet', 'Choose Trestle 32', 'Do without Screen'],
  ],
  'a 5 V sensor on a 3.3 V converter': [
    'stops',
    'outside the sheet',
    ['Fit into Air: a divider of 33k over 47k, up to 1.6 MHz'],
  ],
  'a 5 V display on the two lines of a 3.3 V bus': [
    'stops',
    'outside the sheet',
    [
      'Feed Screen from the rail',
      'Fit into I2C SDA and I2C SCL: a MOSFET with a 4k7 pull-up on each side, both ways, up to 280 kHz',
    ],
  ],
  'lamps at 5 V that don’t read a high of 3.3 V': [
    'risks',
    'outside the sheet',
    [
      'Fit into Pixels: a buffer, one way, up to 40 MHz',
      'Fit into Pixels: a MOSFET with a 2k7 pull-up on each side, both ways, up to 940 kHz',
    ],
  ],
  'more on the second feed than it gives': [
    'stops',
    'outside the sheet',
    ['Second feed from USB-C charger, 3 A'],
  ],
  'an overlap in a stack': [
    'stops',
    'impossible',
    ['Set Crane: relays at R3 and R4', 'Do without Points', 'Do without Crane'],
  ],
  'two expansion boards that must both be on top': [
    'stops',
    'impossible',
    ['Do without Screen', 'Do without Second'],
  ],
}

describe.each(traps)('%s', (name, check, words, built, harmless) => {
  const design = project(built)
  const analysis = analyse(design, library)
  const found = analysis.findings.filter((f) => f.check === check)
  test('is as bad as it is, and what is proposed', () => {
    const one = found.find((f) => words.test(f.text))!
    expect([one.severity, one.grade, proposalsFor(analysis, library, one).map((f) => f.label)]).toEqual(
      told[name],
    )
  })
  test('is found with its chain', () => {
    expect(found.map((f) => f.text).join('\n')).toMatch(words)
    expect(found[0]!.because.length).toBeGreaterThanOrEqual(2)
    for (const { text, says } of found.flatMap((f) => [f, ...f.because]))
      expect(says && inWords(says)).toBe(text)
  })
  test('is cleared by a fix that is offered', () => {
    const { offers } = offersFor(analyse(design, library), library, found[0]!)
    expect(offers.length).toBeGreaterThan(0)
  })
  test('is not there without its cause', () => {
    const clean = project({ ...built, locks: {}, devices: built.devices.slice(0, 1), ...harmless })
    expect(analyse(clean, library).findings.map((f) => f.check)).not.toContain(check)
  })
})

test('the chain of a strap held low goes through the names of display, deck, header and chip', () => {
  const design = project({
    chip: 'trestle-radio',
    source: 'adapter-9v',
    devices: [['display-deck', 'Screen', undefined, { variant: 'b' }]],
  })
  const found = analyse(design, library).findings.find((f) => f.check === 'pins.strap-held')!
  expect(found.grade).toBe('impossible')
  expect(found.because.map((f) => f.text).join('; ')).toMatch(
    /no RES here.*tied to ground.*; .*is Q2; Q2 sits on the header’s D02; D02 is P03 of the chip; P03 is sampled at reset and must be high/,
  )
})

test('of two overlaps only the one that no link clears is told', () => {
  const design = project({
    chip: 'trestle-32',
    source: 'adapter-9v',
    devices: [
      ['servo-deck', 'Points'],
      ['relay-deck', 'Crane'],
      ['display-deck', 'Screen'],
    ],
  })
  const found = analyse(design, library).findings.filter((f) => f.stage === 'pins')
  expect(found.map((f) => f.text)).toEqual(['Points and Screen both use T2 (PA6).'])
})

test('where the links of expansion boards are left to the plan it sets them so that they don’t overlap', () => {
  const design = project({
    chip: 'trestle-32',
    source: 'adapter-9v',
    devices: [
      ['servo-deck', 'Points'],
      ['relay-deck', 'Crane'],
      ['push-button', 'Bell'],
    ],
  })
  const { plan } = analyse(design, library).pins
  expect(plan!.wirings.map((w) => [w.name, w.wiring.id, w.links.map((l) => l.to)])).toEqual([
    ['Crane', 'inner', ['relays at R3 and R4']],
  ])
  const at = (name: string) => plan!.wires.find((w) => w.signal.name === name)!.pin.labels![0]
  expect(['Points S3', 'Points S4', 'Crane K1', 'Crane K2'].map(at)).toEqual(['T7', 'T8', 'T4', 'T5'])
  expect(at('Bell')).not.toMatch(/^T[234578]$/)
  // A bare chip has no header to plug them on.
  expect(candidateOf(design, library, 'qm32-64')!.no.join()).toMatch(/needs a trestle header/)
  expect(candidateOf(design, library, 'trestle-plain')!.no).toEqual([])
})

test('a converter that the radio stops is used once the builder says pause or accept', () => {
  const design = project({
    ...mw2,
    radio: true,
    devices: [['sound-sensor', 'Ear']],
    locks: { 'd1.1.ENV': 'P12' },
  })
  for (const [answer, severity] of [
    ['pause', 'notes'],
    ['accept', 'risks'],
  ] as const) {
    const said: Edit = { kind: 'answerRadio', signal: 'd1.1.ENV', name: 'Ear', answer }
    const { findings } = analyse(applyEdits(design, [said]), library)
    expect(findings.filter((f) => f.stage === 'pins').map((f) => [f.check, f.severity])).toEqual([
      // It gives up to its supply, 3.366 V, and this converter’s range ends at 2.6 V.
      ['pins.level', 'risks'],
      ['pins.radio-converter', severity],
    ])
  }
})

test('a board with less current a leg: the lamp that the plain board fed is too much for the 32-bit one', () => {
  const plain = applyEdits(
    project({ chip: 'trestle-plain', source: 'adapter-9v', devices: [['lamp-red', 'Lamp']] }),
    [{ kind: 'setSetting', id: 'd1', setting: 'light.current', value: 0.01 }],
  )
  const over = (d: Design) => analyse(d, library).findings.filter((f) => f.check === 'pins.led-over-limit')
  expect(over(plain)).toEqual([])
  const moved = applyEdits(plain, [{ kind: 'chooseChip', part: 'trestle-32', name: 'Trestle 32' }])
  const [finding] = over(moved)
  expect(finding!.text).toMatch(/good for 6 mA/)
  expect(over(applyEdits(moved, finding!.fixes[0]!.edits))).toEqual([])
})

test('legs of programmable logic are collected for the design that must connect them', () => {
  const design = project({
    chip: 'oxbow-board',
    devices: [
      ['servo-small', 'Arm'],
      ['fan-tacho', 'Fan'],
    ],
  })
  const found = analyse(design, library).findings.find((f) => f.check === 'pins.loaded-design')!
  expect(found.text).toMatch(/must connect 2 legs/)
  expect(found.because.map((b) => b.text).join()).toMatch(/from pulse block \d in the design/)
})

describe('wirings that the plan chooses', () => {
  const head = project({ ...qm32, devices: [['colour-head', 'Eye']] })
  const plan = (d: Design) => analyse(d, library).pins.plan!
  test('the factory’s setting costs nothing and is taken, its links untouched', () => {
    expect(plan(head).wirings.map((w) => [w.wiring.id, w.links])).toEqual([['serial', []]])
  })
  test('where the serial lines are taken another wiring is chosen, with the links that follow', () => {
    const busy = project({
      ...qm32,
      devices: [
        ['colour-head', 'Eye'],
        ...Array.from({ length: 3 }, (_, i) => ['serial-link', `Link ${i}`] as [string, string]),
      ],
    })
    const [chosen] = plan(busy).wirings
    expect(chosen!.wiring.id).not.toBe('serial')
    expect(chosen!.links.length).toBe(1)
    expect(analyse(busy, library).needs.instances[0]!.wiring.id).toBe(chosen!.wiring.id)
  })
  test('the builder’s word stands', () => {
    const said = applyEdits(head, [{ kind: 'setWiring', id: 'd1', wiring: 'spi' }])
    expect(plan(said).wirings).toEqual([])
    expect(plan(said).wires.map((w) => w.signal.name)).toContain('SPI SCK')
  })
  test('the next best plans name the other wirings and what they cost more', () => {
    const { plans: next, complete } = nextPlansOf(head, library)
    expect(complete).toBe(true)
    expect(next.map((n) => n.extra)).toEqual([...next.map((n) => n.extra)].sort((a, b) => a - b))
    expect(next.some((n) => n.wirings[0]?.wiring.id !== 'serial')).toBe(true)
  })
})

test('a byte lies on one port in order where it can, and costs what being scattered costs where it can’t', () => {
  const plan = (excluded: string[]) => {
    const d = project({ ...qm32, devices: [['line-display', 'Text', 'byte']] })
    return analyse({ ...d, pins: { ...d.pins, excluded } }, library).pins.plan!
  }
  const bits = (p: ReturnType<typeof plan>) =>
    p.wires.filter((w) => /^Text D\d$/.test(w.signal.name)).map((w) => w.pin.id)
  const numbers = bits(plan([])).map((id) => Number(id.slice(2)))
  expect(new Set(bits(plan([])).map((id) => id.slice(0, 2))).size).toBe(1)
  numbers.forEach((n, i) => expect(n).toBe(numbers[0]! + i))
  const holes = ['PA3', 'PA8', 'PA11', 'PB3', 'PB8', 'PB12']
  expect(plan(holes).cost).toBeGreaterThanOrEqual(plan([]).cost + 8)
})

const without = (design: Design, check: string) => {
  const before = analyse(design, library)
  const found = before.findings.find((f) => f.check === check)!
  const fixes = proposalsFor(before, library, found)
  const left = fixes.filter(
    (fix) => !analyse(applyEdits(design, fix.edits), library).findings.some((f) => f.id === found.id),
  )
  return { found, cleared: left.length, fixes: fixes.length }
}
test('a source above what a board’s input takes stops it; every way out that is offered clears it', () => {
  const high = without(
    project({ chip: 'stick-mw2', source: 'adapter-12v', devices: [['push-button', 'Go']] }),
    'power.board-input',
  )
  expect(high.found.severity).toBe('stops')
  expect(high.found.text).toMatch(/gives up to 12.8 V; the input of Fenwick stick R takes 6 V/)
  expect(high.cleared).toBe(high.fixes)
  const low = without(
    project({ chip: 'stick-mw2', source: 'cells-3-aa', devices: [['push-button', 'Go']] }),
    'power.board-input',
  )
  expect(low.found.severity).toBe('risks')
  expect(low.cleared).toBe(low.fixes)
})
test('a program with radio on a chip without: another carrier, or no radio', () => {
  const { cleared, fixes } = without(project({ ...qm32, radio: true, devices: [] }), 'chip.no-radio')
  expect([cleared, fixes]).toEqual([2, 2])
})

describe('boards', () => {
  const on = project({
    chip: 'trestle-plain',
    source: 'adapter-9v',
    devices: [
      ['lamp-red', 'Lamp'],
      ['push-button', 'Go'],
    ],
  })
  const whole = analyse(on, library)
  test('a preview says what applying does: off the board, its regulator and clock stay behind', () => {
    for (const edits of [
      [{ kind: 'chooseChip' as const, part: 'td8-28-dip', name: '' }],
      [{ kind: 'chooseSource' as const, part: 'adapter-5v', name: '' }],
    ]) {
      const said = previewEdits(whole, library, edits)
      const done = compareAnalyses(whole, analyse(applyEdits(on, edits), library))
      expect(said).toEqual(done)
    }
    // The bare chip has no regulator of ours yet: the 9 V go straight to it.
    const off = previewEdits(whole, library, [{ kind: 'chooseChip', part: 'td8-28-dip', name: '' }])
    expect(off.appearing.map((f) => [f.check, f.severity])).toContainEqual([
      'chip.supply-out-of-range',
      'stops',
    ])
  })
  test('power: the board’s own blocks are counted, its regulator once, and no lamp, diode or regulator of ours', () => {
    const { consumers, polarity, regulator } = whole.power
    expect([
      polarity,
      consumers.find((c) => c.id === 'power-lamp'),
      regulatorsOf(whole, library),
      regulator?.id,
    ]).toEqual([undefined, undefined, [], 'bl5-low'])
    // manual, blocks but for the regulator: lamp 1.9 mA and bridge 0.5 mA asleep; lamp 1.9, bridge 8, T13's lamp 3, clock 0.4 awake
    const own = consumers.find((c) => c.id === 'board')!
    expect(own.rest.value.max).toBeCloseTo(1.9e-3 + 0.5e-3, 9)
    expect(own.work.value.max).toBeCloseTo(1.9e-3 + 8e-3 + 3e-3 + 0.4e-3, 9)
  })
  test('build: wired by what is printed on it, each position once, fed and measured alone before anything is joined', () => {
    const [, ...rows] = wiringTableCells(whole.build.wiring)
    const board = rows.flat().filter((cell) => cell.includes('Trestle'))
    expect(board.length).toBeGreaterThan(3)
    expect(board.join('\n')).not.toMatch(/leg|GND GND|V5 V5/)
    expect(rows.every((cells) => cells.filter((c) => c.includes('Trestle')).length <= 1)).toBe(true)
    const { steps } = whole.build
    expect(steps[0]).toMatchObject({
      title: 'Trestle plain alone',
      cautions: expect.arrayContaining(['reversed']),
    })
    expect(steps[0]!.checks[0]).toMatchObject({ powered: true, where: 'on the board, V5 against GND' })
    expect(JSON.stringify(steps)).not.toMatch(/notch|chip out|The chip stays out/)
  })
  test('exports name positions, not hidden numbers', () => {
    const wire = whole.pins.plan!.wires[0]!
    expect(textReport(whole)).toContain(`${wire.signal.name}: ${wire.pin.labels![0]} ${wire.pin.id}`)
    expect(pinHeader('x', 'y', whole.pins.plan!.wires)).toContain(`: ${wire.pin.labels![0]}`)
  })
  test('asleep, a board is its chip and all its blocks', () => {
    const board = carrierOf(library, 'trestle-plain')!
    const [chip] = board.modes.filter((m) => m.kind === 'sleep').slice(-1)
    expect(asleepOf(board)!.value.typ).toBeCloseTo(chip!.current.typ! + 5e-3 + 1.9e-3 + 0.5e-3, 12)
    expect(asleepOf(carrierOf(library, 'td8-28-flat')!)!.value.typ).toBe(chip!.current.typ)
  })
  test('a position goes by its label and its pin; a position that shares a pin counts once', () => {
    const board = carrierOf(library, 'oxbow-board')!
    const shared = board.pins.find((p) => p.id === 'L0')!
    expect(shared.labels).toEqual(['JL1', 'JE1'])
    expect(shared.legs).toHaveLength(2)
  })
  test('between boards of one footprint a plan is carried over by position', () => {
    const [plain, radio] = [carrierOf(library, 'trestle-plain')!, carrierOf(library, 'trestle-radio')!]
    const across = pinsAcross(plain, radio)
    expect(['PA0', 'PB2'].map((p) => across(p))).toEqual([['P30'], ['P03']])
    // PA4 is at two positions, the fifth of “sense” and the first of “bus”; in use is the one it is wired at.
    const at = (place: string) => radio.pins.find((p) => p.places?.includes(`trestle ${place}`))!.id
    expect(across('PA4')).toEqual([at('sense.5'), at('bus.1')])
    expect(across('PA4', ['trestle bus.1'])).toEqual([at('bus.1'), at('sense.5')])
  })
  test('standalone: the bare chip of a board takes the plan leg by leg', () => {
    const on = project({
      chip: 'trestle-plain',
      source: 'adapter-9v',
      devices: [
        ['lamp-red', 'Lamp'],
        ['push-button', 'Go'],
      ],
    })
    const { assignment } = analyse(on, library).pins
    const bare = applyEdits(on, [
      { kind: 'makeStandalone', part: 'td8-28-flat', name: '', kept: assignment, regulator: 'bl5-low' },
    ])
    const after = analyse(bare, library)
    expect(after.pins.assignment).toEqual(assignment)
    expect(after.power.regulator?.id).toBe('bl5-low')
    expect(after.build.support.length).toBeGreaterThan(analyse(on, library).build.support.length)
  })
  test('what the source gives must be what the input takes', () => {
    const d = project({ chip: 'td8-28-dip', source: 'adapter-12v', devices: [] })
    expect(candidateOf(d, library, 'stick-mw2')!.no.join()).toMatch(/its input takes 4.5 V to 6 V/)
    expect(candidateOf(d, library, 'trestle-plain')!.fits).toBe(true)
    expect(candidateOf({ ...d, needs: { ...d.needs, radio: true } }, library, 'trestle-plain')!.no).toContain(
      'it has no radio',
    )
    expect(candidateOf(d, library, 'no such')).toBeUndefined()
  })
})
