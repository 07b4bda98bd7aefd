import { demo, shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import { applyEdits, type Design, type Edit, stances } from '../design'
import { partsTable } from '../formats'
import { byPrice, type Library, type Part, partsOfKind, priceWords } from '../parts'
import { cautionWords } from '../blocks'
import { cautionsBeside, drawerKey, type PartsRow, priceToGet, stillToGet } from '.'

const library = shippedLibrary()
const timer = demo('darkroom-timer')
const built = (...edits: Edit[]) => analyse(applyEdits(timer, edits), library)
const keysOf = (design: Design) =>
  analyse(design, library)
    .build.support.filter((s) => s.present)
    .map((s) => s.key)

describe('the net of a leg', () => {
  const netsAt = (a: ReturnType<typeof analyse>, part: RegExp, leg: RegExp) =>
    a.build.placed
      .filter((p) => part.test(p.name))
      .flatMap((p) => p.legs.filter((l) => leg.test(l.name)).map((l) => l.net))

  test('of two signals that are said to be on it, the one that is soldered there', () => {
    const locked = project({
      chip: 'qm32-32',
      regulator: 'bl33-low',
      devices: [
        ['lamp-red', 'Lamp'],
        ['push-button', 'Go'],
      ],
      locks: { 'd1.1.light': 'PA3' },
    })
    const a = analyse(
      applyEdits(locked, [{ kind: 'solder', signal: 'd2.1.contact', name: 'Go', pin: 'PA3' }]),
      library,
    )
    expect([netsAt(a, /^QM32/, / PA3$/), netsAt(a, /^Go$/, /1$/)]).toEqual([['GO'], ['GO']])
  })
  test('a reference locked onto a programming leg: header, leg and reference are on one net, whatever else is wrong', () => {
    const a = analyse(
      project({
        chip: 'td8-28-dip',
        source: 'adapter-5v',
        devices: [['reference-2v5', 'Ref']],
        locks: { 'd1.1.OUT': 'PC3' },
      }),
      library,
    )
    const nets = [
      netsAt(a, /^TD8/, / PC3$/),
      netsAt(a, /programming header/, /MISO/),
      netsAt(a, /^Ref$/, /OUT/),
    ].flat()
    expect(nets).toHaveLength(3)
    expect(new Set(nets).size).toBe(1)
    expect(a.findings.map((f) => f.text)).toContainEqual(
      expect.stringMatching(/^Ref can’t be on leg 20 \(PC3\)/),
    )
  })
})

describe('which support parts each stance asks for, as the design says', () => {
  const always = [
    'entry',
    'regulator',
    'crystal',
    'programming-header',
    'pull:i2c.SDA',
    'pull:i2c.SCL',
    'transistor:d5.1.drive',
    'divider:d8.1.level',
  ]
  const lean = [
    'polarity-diode',
    'regulator-in',
    'regulator-out',
    'bulk',
    'socket',
    'decoupling:VCC',
    'reset-pull-up',
    'load-capacitor:PB0',
    'load-capacitor:PB1',
    'led:d7.1.light',
    'gate-pull-down:d5.1.drive',
    'flyback:d5.1.drive',
  ]
  const book = [
    'power-lamp',
    'power-lamp-resistor',
    'decoupling:AVCC',
    'decoupling:AREF',
    'reset-button',
    'gate-series:d5.1.drive',
    'pull:d2.1.A',
    'pull:d2.1.B',
    'pull:d2.1.SW',
    'pull:d3.1.contact',
    'pull:d4.1.contact',
    // 1 MΩ beside 10.5 kΩ are more than the 10 kΩ of table 13, if little
    'sampling:d8.1.level',
  ]
  test.each([
    ['bare-bones', always],
    ['lean', [...always, ...lean]],
    ['by-the-book', [...always, ...lean, ...book]],
  ] as const)('%s', (stance, expected) =>
    expect(keysOf({ ...timer, stance }).sort()).toEqual([...expected].sort()),
  )
})

describe('values and their reasons', () => {
  test.each<[string, string, Edit[]]>([
    ['crystal', '', []],
    ['load-capacitor:PB0', '27p', []],
    // 2·(20 − 5) pF = 30 pF lies between 27 and 33; 30/27 = 1.111 > 33/30 = 1.100, so 33 is nearer
    [
      'load-capacitor:PB0',
      '33p',
      [{ kind: 'chooseClock', name: '', clock: { source: 'crystal', frequency: 4e6, part: 'crystal-4mhz' } }],
    ],
    ['reset-pull-up', '10k', []],
    // (5 − 0.47 − 2.02) V / 18 mA ≈ 139 Ω, next up
    ['led:d7.1.light', '150R', [{ kind: 'setSetting', id: 'd7', setting: 'light.current', value: 0.018 }]],
    ['gate-series:d5.1.drive', '270R', []],
    // the regulator asks for at least 22 µF
    ['regulator-out', '22u', []],
    ['regulator-out', '100n', [{ kind: 'chooseRegulator', part: 'br5-plain', name: '' }]],
  ])('%s is %s', (key, marking, edits) => {
    const part = built(...edits).build.support.find((s) => s.key === key)!
    expect(part.value?.marking ?? '').toBe(marking)
    expect(part.why.length).toBeGreaterThan(10)
    expect(part.risk.text.length).toBeGreaterThan(10)
    expect(part.risk.facts.length).toBeGreaterThan(0)
  })
  test('the internal oscillator needs no parts and gives its legs back', () => {
    const own = built({ kind: 'chooseClock', name: '', clock: { source: 'internal', frequency: 8e6 } })
    expect(own.build.support.filter((s) => /crystal|load-capacitor/.test(s.key))).toEqual([])
    expect(own.pins.left!.value.typ).toBe(built().pins.left!.value.typ + 2)
  })
  test('a resonator has its capacitors inside', () => {
    const r = built({
      kind: 'chooseClock',
      name: '',
      clock: { source: 'resonator', frequency: 8e6, part: 'resonator-8mhz' },
    })
    expect(r.build.support.find((s) => s.key === 'crystal')?.part.kind).toBe('resonator')
    expect(r.build.support.some((s) => s.key.startsWith('load-capacitor'))).toBe(false)
  })
})

// Each part with its value, the numbers that it stands on, and what leaving it out risks; judged one by one, values by hand where
// they are not the sheet's: 10 kΩ is 5 V / 0.5 mA; 8k2 the middle of 1.65 kΩ to 37.5 kΩ; 680R the next above 602 Ω; 27p the nearest to 26 pF.
type Row = [
  key: string,
  value: string | undefined,
  numbers: string,
  severity: string,
  grade: string,
  text: string,
]
const rowsOf = (design: Design): Row[] =>
  analyse(design, library).build.support.map((s): Row => [
    s.key,
    s.value?.marking ?? s.part?.id,
    s.worked.map((w) => w.symbol).join(' '),
    s.risk.severity,
    s.risk.grade,
    s.risk.text,
  ])
const ofTimer: Row[] = [
  ['entry', 'jack-barrel', '', 'stops', 'impossible', 'Nothing brings the supply onto the board.'],
  [
    'polarity-diode',
    'diode-polarity',
    'V_in',
    'risks',
    'outside the sheet',
    'A plug of the other polarity puts −12 V on a board that stands −500 mV.',
  ],
  ['regulator', 'bl5-cool', 'P T_J V_margin', 'stops', 'impossible', 'Without it nothing feeds the rail.'],
  [
    'regulator-in',
    '10u',
    'C',
    'risks',
    'outside the sheet',
    'The regulator may oscillate with less than 10 µF at its input.',
  ],
  [
    'regulator-out',
    '22u',
    'C',
    'risks',
    'outside the sheet',
    'Its output may ring or oscillate with less than 22 µF.',
  ],
  [
    'bulk',
    '33u',
    'C',
    'risks',
    'typical',
    'A step of 220 mA would sag the rail by up to 5.1 V before the supply follows.',
  ],
  [
    'socket',
    'socket-28',
    '',
    'notes',
    'guaranteed',
    'The chip is soldered in by 28 legs and can’t be taken out whole.',
  ],
  [
    'decoupling:VCC',
    '100n',
    'C ΔV',
    'risks',
    'outside the sheet',
    'Without it the supply at VCC dips by about 400 mV at each clock edge; the chip may reset or misread at random.',
  ],
  [
    'decoupling:AVCC',
    '100n',
    'C ΔV',
    'risks',
    'outside the sheet',
    'Without it the supply at AVCC dips by about 400 mV at each clock edge; the chip may reset or misread at random.',
  ],
  [
    'decoupling:AREF',
    '100n',
    'C ΔV',
    'risks',
    'outside the sheet',
    'Without it the supply at AREF dips by about 400 mV at each clock edge; the chip may reset or misread at random.',
  ],
  [
    'power-lamp',
    'led-green',
    'I_lamp',
    'notes',
    'guaranteed',
    'Nothing shows that the rail is up; 1.7 mA is saved.',
  ],
  [
    'power-lamp-resistor',
    '1k8',
    'R',
    'notes',
    'guaranteed',
    'Nothing shows that the rail is up; 1.7 mA is saved.',
  ],
  [
    'reset-pull-up',
    '10k',
    'R',
    'notes',
    'typical',
    'Only the chip’s own 30 kΩ to 60 kΩ hold reset high: near a motor or relay it may restart by itself.',
  ],
  [
    'reset-button',
    'switch-push',
    '',
    'notes',
    'guaranteed',
    'To restart the program, the plug must be pulled.',
  ],
  [
    'crystal',
    'crystal-8mhz',
    'f',
    'stops',
    'impossible',
    'The chip is set to run from it and stays dead without it, to the programmer too.',
  ],
  [
    'load-capacitor:PB0',
    '27p',
    'C C_load Δf/f',
    'risks',
    'outside the sheet',
    'Without load capacitors the crystal runs 390 ppm fast, if it starts at all.',
  ],
  [
    'load-capacitor:PB1',
    '27p',
    'C',
    'risks',
    'outside the sheet',
    'Without load capacitors the crystal runs 390 ppm fast, if it starts at all.',
  ],
  [
    'programming-header',
    'header-6',
    '',
    'risks',
    'guaranteed',
    'To load a program the chip must come out of the board.',
  ],
  [
    'pull:i2c.SDA',
    '8k2',
    'R_min R_max',
    'stops',
    'impossible',
    'Without a pull-up below 39.3 kΩ I2C SDA can’t rise in time.',
  ],
  [
    'pull:i2c.SCL',
    '8k2',
    'R_min R_max',
    'stops',
    'impossible',
    'Without a pull-up below 39.3 kΩ I2C SCL can’t rise in time.',
  ],
  [
    'pull:d2.1.A',
    '10k',
    'R R_max',
    'notes',
    'guaranteed',
    'The program must switch on the leg’s own pull-up of 20 kΩ to 50 kΩ; until then Dial A floats.',
  ],
  [
    'pull:d2.1.B',
    '10k',
    'R R_max',
    'notes',
    'guaranteed',
    'The program must switch on the leg’s own pull-up of 20 kΩ to 50 kΩ; until then Dial B floats.',
  ],
  [
    'pull:d2.1.SW',
    '10k',
    'R R_max',
    'notes',
    'guaranteed',
    'The program must switch on the leg’s own pull-up of 20 kΩ to 50 kΩ; until then Dial SW floats.',
  ],
  [
    'pull:d3.1.contact',
    '10k',
    'R R_max',
    'notes',
    'guaranteed',
    'The program must switch on the leg’s own pull-up of 20 kΩ to 50 kΩ; until then Start floats.',
  ],
  [
    'pull:d4.1.contact',
    '10k',
    'R R_max',
    'notes',
    'guaranteed',
    'The program must switch on the leg’s own pull-up of 20 kΩ to 50 kΩ; until then Focus floats.',
  ],
  [
    'transistor:d5.1.drive',
    'nfet-small',
    '',
    'stops',
    'impossible',
    'Without the transistor nothing switches Buzzer.',
  ],
  [
    'gate-series:d5.1.drive',
    '270R',
    'R_G',
    'notes',
    'typical',
    'Each edge draws a short pulse above 20 mA from the leg.',
  ],
  [
    'gate-pull-down:d5.1.drive',
    '100k',
    'R_max t',
    'risks',
    'outside the sheet',
    'From power-up until the program drives PB2, the gate floats: leakage can switch Buzzer on after 37 µs.',
  ],
  [
    'flyback:d5.1.drive',
    'diode-small',
    '',
    'risks',
    'outside the sheet',
    'When it switches off, the coil’s 32 mA pulls the transistor beyond its 50 V.',
  ],
  [
    'led:d7.1.light',
    '680R',
    'R I_LED P_R',
    'stops',
    'outside the sheet',
    'Without it Safe light draws up to 115 mA, limited only by the leg’s driver.',
  ],
  [
    'divider:d8.1.level',
    '10k',
    'R',
    'stops',
    'impossible',
    'Without it Paper light reads the same, whatever Paper light sees.',
  ],
  // 14 pF · 2¹¹ / 0.9 = 31.9 nF; left of the reading before: 2^(−11 · 10/10.39) = 0.065 %
  [
    'sampling:d8.1.level',
    '33n',
    'R_behind C f V_leak',
    'notes',
    'outside the sheet',
    'Without it a reading of Paper light may keep 0.065 % of what was read before it: 10.4 kΩ is behind the leg, and TD8-28 DIP reads through 10 kΩ.',
  ],
]
test('the darkroom timer: what each part is, stands on and prevents', () =>
  expect(rowsOf(timer)).toEqual(ofTimer))
test('a radio module with a card, a sensor and a relay: what is different there', () => {
  const design = project({
    chip: 'mw2-module',
    source: 'usb-port',
    regulator: 'bl33-low',
    devices: [
      ['card-reader', 'Card'],
      ['light-resistor', 'Light'],
      ['relay-module', 'Pump'],
    ],
  })
  const same = new Set(ofTimer.map(String))
  expect(rowsOf(design).filter((r) => !same.has(String(r)))).toEqual([
    ['entry', 'jack-usb', '', 'stops', 'impossible', 'Nothing brings the supply onto the board.'],
    ['regulator', 'bl33-low', 'P T_J V_margin', 'stops', 'impossible', 'Without it nothing feeds the rail.'],
    [
      'regulator-out',
      '10u',
      'C',
      'risks',
      'outside the sheet',
      'Its output may ring or oscillate with less than 10 µF.',
    ],
    [
      'bulk',
      '33u',
      'C',
      'risks',
      'typical',
      'A step of 220 mA would sag the rail by up to 3.4 V before the supply follows.',
    ],
    [
      'decoupling:V33A',
      '100n',
      'C ΔV',
      'risks',
      'outside the sheet',
      'Without it the supply at V33A dips by about 400 mV at each clock edge; the chip may reset or misread at random.',
    ],
    [
      'power-lamp-resistor',
      '820R',
      'R',
      'notes',
      'guaranteed',
      'Nothing shows that the rail is up; 1.7 mA is saved.',
    ],
    [
      'reset-pull-up',
      '10k',
      'R',
      'risks',
      'outside the sheet',
      'Reset floats: the chip may restart at any touch.',
    ],
    [
      'select:d1.1.CS',
      '10k',
      'R_max',
      'notes',
      'typical',
      'Until the program drives Card CS, 100 nA of leakage decides whether Card is selected.',
    ],
    [
      'divider:d2.1.level',
      '10k',
      'R',
      'stops',
      'impossible',
      'Without it Light reads the same, whatever Light sees.',
    ],
  ])
})

describe('over every chip, source, regulator and stance', () => {
  const cases = partsOfKind(library, 'chip').flatMap((chip) =>
    stances.flatMap((stance) =>
      (['adapter-12v', 'usb-port', 'cells-3-aa'] as const).map((source): [string, Design] => [
        `${chip.id} ${stance} ${source}`,
        {
          ...timer,
          stance,
          chip: { part: chip.id },
          power:
            source === 'adapter-12v'
              ? { source, regulator: chip.id.startsWith('qm') ? 'bl33-low' : 'bl5-cool' }
              : { source },
        },
      ]),
    ),
  )
  test.each(cases)('%s: the netlist, lists and steps hold together', (_, design) => {
    const { build, pins, needs } = analyse(design, library)
    const nets = new Map(build.nets.map((n) => [n.name, n.nodes.map((x) => `${x.ref} ${x.terminal}`)]))
    // No terminal is on two nets: nothing is shorted by the plan itself.
    const all = [...nets.values()].flat()
    expect(new Set(all).size).toBe(all.length)
    // Everything on the board is in the parts list, once.
    const onBoard = build.placed.filter((p) => !p.bridged)
    expect(build.parts.flatMap((r) => r.refs).sort()).toEqual(onBoard.map((p) => p.ref).sort())
    expect(build.price.value.typ).toBeCloseTo(
      build.parts.reduce((s, r) => s + r.count * r.each, 0),
      2,
    )
    // Every part says why it is there and what follows from leaving it out.
    for (const { why, risk } of build.support)
      expect([why.length > 10, risk.facts.length > 0, risk.text.endsWith('.')]).toEqual([true, true, true])
    // Every part is soldered in exactly one step.
    const soldered = build.steps.flatMap((s) => s.refs)
    expect(soldered.sort()).toEqual(onBoard.map((p) => p.ref).sort())
    // Every supply leg of the chip is on VCC, every ground leg on GND.
    const chip = build.placed[0]!
    if (chip.part.kind !== 'chip') throw new Error('the chip comes first')
    for (const pin of chip.part.pins)
      for (const leg of pin.legs) {
        if (pin.type === 'supply') expect(nets.get('VCC')).toContain(`U1 ${leg} ${pin.id}`)
        if (pin.type === 'ground') expect(nets.get('GND')).toContain(`U1 ${leg} ${pin.id}`)
      }
    // Every signal that has a leg reaches every device that hangs on it, through at most one series part.
    if (pins.plan?.status === 'proven')
      for (const wire of pins.plan.wires)
        for (const end of wire.signal.ends) {
          const device = build.placed.find((p) => p.instance?.id === end.instance.id)!
          expect(all).toContain(`${device.ref} ${end.signal.terminal}`)
        }
    // Checks are in order and every caution has its words.
    for (const step of build.steps) {
      step.cautions.forEach((c) => expect(cautionWords[c].length).toBeGreaterThan(20))
      for (const c of step.checks)
        expect(c.expect.min ?? -Infinity).toBeLessThanOrEqual(c.expect.max ?? Infinity)
    }
    expect(needs.unknown).toEqual([])
  })
})

describe('leaving out', () => {
  test('a series part that is left out is a wire: its two nets are one', () => {
    const { build } = built({ kind: 'leaveOut', support: 'led:d7.1.light', name: 'r' })
    const net = build.nets.find((n) => n.nodes.some((x) => x.terminal === 'anode' && x.ref === 'M7'))!
    expect(net.nodes.map((n) => `${n.ref} ${n.terminal}`)).toContain('U1 26 PC7')
  })
  test('a part between line and ground that is left out is gone, and the line stays', () => {
    const { build } = built({ kind: 'leaveOut', support: 'gate-pull-down:d5.1.drive', name: 'r' })
    expect(build.nets.find((n) => n.name === 'BUZZER_GATE')!.nodes).toHaveLength(2)
  })
  test('who left it out is said: the stance, or the builder against it', () => {
    const why = (design: Design) =>
      analyse(design, library).findings.find((f) => f.id === 'build.left-out:decoupling:VCC')!.because[0]!
        .text
    expect(why({ ...timer, stance: 'bare-bones' })).toBe(
      'The decoupling capacitor at VCC is left out by the stance',
    )
    expect(why(applyEdits(timer, [{ kind: 'leaveOut', support: 'decoupling:VCC', name: '' }]))).toBe(
      'The decoupling capacitor at VCC is left out, against the stance',
    )
  })
  test('putting in what the stance leaves out is remembered as the builder’s word', () => {
    const { build } = analyse(
      applyEdits({ ...timer, stance: 'lean' }, [{ kind: 'putIn', support: 'reset-button', name: 'b' }]),
      library,
    )
    expect(build.support.find((s) => s.key === 'reset-button')).toMatchObject({
      present: true,
      asked: false,
      forced: 'in',
    })
  })
  test('without chip or source there is no board, and it says what is missing', () => {
    const bare = analyse({ ...timer, chip: {}, power: {} }, library).build
    expect([bare.missing, bare.parts, bare.steps]).toEqual([['a chip', 'a source'], [], []])
    expect(built().build.missing).toEqual([])
  })
  test('a crystal that no library has is no part of the board, and nothing else goes with it', () => {
    const parts = Object.fromEntries(
      Object.entries(library.parts).filter(([, p]) => p.kind !== 'crystal' && p.kind !== 'resonator'),
    )
    const without = analyse(timer, { parts }).build.support.map((s) => s.key)
    const lost = keysOf({ ...timer, stance: 'by-the-book' }).filter((key) => !without.includes(key))
    expect(lost.sort()).toEqual(['crystal', 'load-capacitor:PB0', 'load-capacitor:PB1'])
  })
  test('a reset leg that serves as a port has neither pull-up nor button; without a port there both stay', () => {
    const reset = (part: string, resetAsPort: boolean) => {
      const design = project({ chip: part, devices: [] })
      return keysOf({ ...design, stance: 'by-the-book', pins: { ...design.pins, resetAsPort } }).filter(
        (key) => key.startsWith('reset'),
      )
    }
    const both = ['reset-pull-up', 'reset-button']
    expect([reset('td8-08-dip', true), reset('td8-08-dip', false), reset('td8-28-dip', true)]).toEqual([
      [],
      both,
      both,
    ])
  })
  test('whatever is left out, there is a chain of facts that says why it matters', () =>
    expect(built().build.support.filter((s) => s.risk.facts.length === 0)).toEqual([]))
})

describe('steps of the darkroom timer', () => {
  const { steps } = built().build
  const rows = (of: typeof steps) =>
    of.map((s) => [
      s.title,
      s.cautions.join(' '),
      ...s.checks.map(({ where, powered, expect: { min, max, unit } }) =>
        [
          where,
          powered ? 'plugged in' : 'unplugged',
          min === undefined ? '' : Number(min.toPrecision(4)),
          max === undefined ? '' : Number(max.toPrecision(4)),
          unit,
        ].join(' | '),
      ),
    ])
  // Judged one by one. A joint reads at most 1 Ω, an open gap at least 1 MΩ, a rail without a short at least 100 Ω; resistors within their 5 %.
  // In front of the regulator 11.4 V − 0.55 V to 12.8 V, the rail 4.9 V to 5.1 V; the lamp 1.52 mA to 1.94 mA (0.1 V and 0.2 V about its 1.9 V);
  // the finished rail no less than 4.9 V / 219 mA; the supply lead no more than the current from the source.
  test('in the order of building, the chip last; what is measured, plugged in or not, and what belongs to each of caution', () =>
    expect(rows(steps)).toEqual([
      [
        'Supply and regulator',
        'iron eyes reversed mains heat',
        'between VCC and GND, red lead on VCC | unplugged | 100 |  | Ω',
        'between VIN and GND | plugged in | 10.85 | 12.8 | V',
        'between VCC and GND | plugged in | 4.9 | 5.1 | V',
      ],
      [
        'Chip’s place, decoupling and rails',
        'iron eyes',
        'leg 7 (AVCC) against GND, before the chip goes in | plugged in | 4.9 | 5.1 | V',
        'leg 24 (VCC) against GND, before the chip goes in | plugged in | 4.9 | 5.1 | V',
        'leg 8 (GND1) to the plug’s negative | unplugged |  | 1 | Ω',
        'leg 23 (GND2) to the plug’s negative | unplugged |  | 1 | Ω',
      ],
      ['Power lamp', 'iron', 'lamp, powered | plugged in | 0.001517 | 0.001938 | A'],
      [
        'Reset',
        'iron',
        'between RESET and VCC, chip out | unplugged | 9500 | 10500 | Ω',
        'between RESET and GND, button pressed | unplugged |  | 1 | Ω',
      ],
      ['Clock', 'iron', 'between PB0 and PB1, chip out | unplugged | 1000000 |  | Ω'],
      [
        'Programming header',
        'iron two-supplies',
        'contact 2 MOSI to leg 21 (PC4) | unplugged |  | 1 | Ω',
        'contact 3 RESET to leg 28 (RESET) | unplugged |  | 1 | Ω',
        'contact 4 MISO to leg 20 (PC3) | unplugged |  | 1 | Ω',
        'contact 5 SCK to leg 22 (PC5) | unplugged |  | 1 | Ω',
      ],
      [
        'Display',
        'iron',
        'R3: between VCC and I2C_SDA, chip out, Display not yet joined | unplugged | 7790 | 8610 | Ω',
        'R4: between VCC and I2C_SCL, chip out, Display not yet joined | unplugged | 7790 | 8610 | Ω',
      ],
      [
        'Dial',
        'iron',
        'R5: between VCC and DIAL_A, chip out, Dial not yet joined | unplugged | 9500 | 10500 | Ω',
        'R6: between VCC and DIAL_B, chip out, Dial not yet joined | unplugged | 9500 | 10500 | Ω',
        'R7: between VCC and DIAL_SW, chip out, Dial not yet joined | unplugged | 9500 | 10500 | Ω',
      ],
      [
        'Start',
        'iron',
        'R8: between VCC and START, chip out, Start not yet joined | unplugged | 9500 | 10500 | Ω',
      ],
      [
        'Focus',
        'iron',
        'R9: between VCC and FOCUS, chip out, Focus not yet joined | unplugged | 9500 | 10500 | Ω',
      ],
      [
        'Buzzer',
        'iron',
        'R10: between BUZZER and BUZZER_GATE, chip out, Buzzer not yet joined | unplugged | 256.5 | 283.5 | Ω',
        'R11: between BUZZER_GATE and GND, chip out, Buzzer not yet joined | unplugged | 95000 | 105000 | Ω',
      ],
      ['Lamp relay', 'iron mains'],
      [
        'Safe light',
        'iron',
        'R12: between SAFE_LIGHT and SAFE_LIGHT_LED, chip out, Safe light not yet joined | unplugged | 646 | 714 | Ω',
      ],
      [
        'Paper light',
        'iron',
        'R13: between PAPER_LIGHT and GND, chip out, Paper light not yet joined | unplugged | 9500 | 10500 | Ω',
      ],
      [
        'TD8-28 DIP goes in',
        'reversed',
        'between VCC and GND, unplugged | unplugged | 22 |  | Ω',
        'between VCC and GND, plugged in | plugged in | 4.9 | 5.1 | V',
        'in the supply lead, no program yet | plugged in |  | 0.2215 | A',
      ],
    ]))
  test('a board is tried alone; a second feed before anything hangs on it; a deck goes onto its header', () => {
    const design = project({
      chip: 'trestle-32',
      source: 'adapter-9v',
      feed: 'adapter-5v',
      devices: [
        ['relay-deck', 'Deck'],
        ['pixel-strip-8', 'Strip', undefined, { fedBy: 'feed' }],
        ['lamp-red', 'Red'],
      ],
    })
    const own = analyse(design, library).build.steps
    expect(rows(own).slice(0, 5)).toEqual([
      [
        'Trestle 32 alone',
        'reversed mains',
        'on the board, V33 against GND | plugged in | 3.234 | 3.366 | V',
      ],
      [
        'Second feed',
        'iron eyes joined-grounds reversed mains',
        'between VFEED and VCC, unplugged | unplugged | 1000000 |  | Ω',
        'between VFEED and GND | plugged in | 4.8 | 5.2 | V',
      ],
      ['Deck', 'iron mains'],
      ['Strip', 'iron'],
      [
        'Red',
        'iron',
        'R1: between RED and RED_LED, board not joined, Red not yet joined | unplugged | 256.5 | 283.5 | Ω',
      ],
    ])
    expect(own.map((s) => s.does)).toEqual([
      ['Feed Trestle 32 from 9 V adapter at its own input, with nothing else joined to it.'],
      [
        'J1, jack for the second feed, 5 V adapter, 2 A: pin + to VFEED, sleeve − to GND',
        'Join its ground to the board’s ground; its plus goes to its loads alone.',
      ],
      [
        'M1, Deck, goes onto the trestle header: each of its pins in the position of the same place, none beside.',
      ],
      ['M2, Strip: VDD to VFEED, GND to GND, DIN to STRIP'],
      [
        'R1, series resistor of Red 270R: 1 to RED, 2 to RED_LED',
        'M3, Red: anode to RED_LED, cathode to GND',
      ],
      [
        'Unplug. Touch ground, then join the board: each of its positions to the net that the wiring table names, ground first.',
      ],
    ])
  })
  test('what is soldered is named with its value and where each leg goes; what has no leg is named alone', () => {
    expect(steps[0]!.does.slice(0, 3)).toEqual([
      'J1, jack for 12 V adapter: pin + to VPLUG, sleeve − to GND',
      'D1, polarity diode: anode to VPLUG, cathode to VIN',
      'U2, regulator: 1 IN to VIN, 2 GND to GND, 3 OUT to VCC',
    ])
    expect(steps[1]!.does).toEqual([
      'C3, bulk capacitor of the rail 33u: + to VCC, − to GND',
      'J2, socket of the chip',
      'C4, decoupling capacitor at VCC 100n: 1 to VCC, 2 to GND',
      'C5, decoupling capacitor at AVCC 100n: 1 to VCC, 2 to GND',
      'C6, decoupling capacitor at AREF 100n: 1 to AREF, 2 to GND',
      'Wire leg 7, leg 24 to VCC and leg 8, leg 23 to GND. The chip stays out.',
    ])
    expect(steps.at(-1)!.checks.at(-1)!.otherwise).toBe(
      'more than 221 mA: unplug at once; something is reversed or shorted',
    )
    expect(steps.flatMap((s) => s.checks).filter((c) => c.otherwise.length < 10)).toEqual([])
  })
  test('without a regulator nothing is said of one', () => {
    const [supply] = analyse(project({ chip: 'td8-28-dip', source: 'adapter-5v', devices: [] }), library)
      .build.steps
    expect([supply!.title, supply!.cautions, supply!.checks.map((c) => c.where)]).toEqual([
      'Supply',
      ['iron', 'eyes', 'reversed', 'mains'],
      ['between VCC and GND'],
    ])
    expect(supply!.checks[0]!.otherwise).toMatch(/^nothing, or negative: the source is the other way round/)
    expect(JSON.stringify(supply!.checks[0]!.otherwise)).not.toMatch(/regulator/)
  })
  test('nothing soldered, no step: no reset, clock, header or lamp where they are left out', () => {
    const bare = built(
      ...[
        'reset-pull-up',
        'reset-button',
        'crystal',
        'load-capacitor:PB0',
        'load-capacitor:PB1',
        'programming-header',
        'power-lamp',
        'power-lamp-resistor',
      ].map((support): Edit => ({ kind: 'leaveOut', support, name: support })),
    ).build.steps.map((s) => s.title)
    expect(bare.slice(0, 3)).toEqual([
      'Supply and regulator',
      'Chip’s place, decoupling and rails',
      'Display',
    ])
  })
  test('jacks, socket and header are numbered in the order in which they are fitted, a second feed behind the first', () => {
    const { support, placed, steps } = built({ kind: 'chooseFeed', part: 'adapter-5v', name: '' }).build
    const refs = ['entry', 'feed entry', 'socket', 'programming header'].map(
      (role) => placed.find((p) => p.support && p.support === support.find((s) => s.role === role))?.ref,
    )
    expect(refs).toEqual(['J1', 'J2', 'J3', 'J4'])
    expect(steps.slice(0, 3).map((s) => [s.title, s.refs[0]])).toEqual([
      ['Supply and regulator', 'J1'],
      ['Second feed', 'J2'],
      ['Chip’s place, decoupling and rails', 'C3'],
    ])
  })
  test('the chip’s supply legs are wired and measured though nothing is fitted around it', () => {
    const around = ['socket', 'bulk', 'decoupling:VCC', 'decoupling:AVCC', 'decoupling:AREF']
    const { steps } = built(
      ...around.map((support): Edit => ({ kind: 'leaveOut', support, name: support })),
    ).build
    const place = steps.find((s) => s.title === 'Chip’s place, decoupling and rails')!
    expect([place.refs, place.checks.length]).toEqual([[], 4])
    expect(place.does).toEqual(['Wire leg 7, leg 24 to VCC and leg 8, leg 23 to GND. The chip stays out.'])
  })
  test('an adapter’s own caution of mains stands where it is plugged in; cells have none', () => {
    expect(steps[0]!.cautions).toContain('mains')
    const cells = built(
      { kind: 'chooseSource', part: 'cells-3-aa', name: '' },
      { kind: 'chooseRegulator', part: null, name: '' },
    ).build.steps
    expect(cells[0]!.cautions).not.toContain('mains')
  })
  test('a resistor reads within the tolerance of its own drawer: 1 % of 10 kΩ', () => {
    const fine = { ...library.parts['resistor-film']!, tolerance: 0.01 } as Part
    const own = analyse(timer, { parts: { ...library.parts, 'resistor-film': fine } }).build.steps
    const { expect: read } = own
      .flatMap((s) => s.checks)
      .find((c) => c.where === 'between RESET and VCC, chip out')!
    expect([read.min, read.max]).toEqual([expect.closeTo(9900, 6), expect.closeTo(10100, 6)])
  })
  test('what holds a step of the load without the bulk capacitor is what is fitted of the small ones', () => {
    const sag = (...edits: Edit[]) =>
      built(...edits)
        .build.support.find((s) => s.key === 'bulk')!
        .risk.facts.find((f) => f.worked?.symbol === 'ΔV')!.worked!
    const small = built().build.support.filter((s) => s.key.startsWith('decoupling:'))
    expect(sag().inputs.filter((i) => i.symbol.startsWith('C_'))).toHaveLength(small.length)
    const [first] = small
    expect(
      sag({ kind: 'leaveOut', support: first!.key, name: '' }).inputs.filter((i) =>
        i.symbol.startsWith('C_'),
      ),
    ).toHaveLength(small.length - 1)
  })
})

test('every expectation of every step can show its working', () => {
  expect(
    built()
      .build.steps.flatMap((s) => s.checks)
      .filter((c) => !c.worked),
  ).toEqual([])
})

test.each([
  // Lead: hundreds of amperes into a short. Lithium: fire; a coin cell can be swallowed as well. Alkaline and nickel: none of these.
  ['battery-lead-12v', ['short']],
  ['cell-pouch-2ah', ['lithium']],
  ['cell-iron', ['lithium']],
  ['cell-coin', ['lithium', 'children']],
  ['cells-4-aa', []],
  ['cells-3-nimh', []],
])('what %s can do is said where it comes in', (source, cautions) => {
  const regulator = source === 'battery-lead-12v' ? 'bl5-cool' : undefined
  const { steps } = analyse(project({ chip: 'td8-28-dip', source, regulator, devices: [] }), library).build
  const all = cautionsBeside(steps).flat()
  const kinds = ['mains', 'lithium', 'short', 'children'] as const
  expect(kinds.filter((k) => all.includes(k)).toSorted()).toEqual(cautions.toSorted())
  if (cautions.includes('short')) expect(cautionWords.short).toMatch(/fuse.*flames/i)
})

test('a chip whose file gives no price is counted, told and put after all that have one; it is not one that costs nothing', () => {
  const [dear, cheap, unknown] = [
    { id: 'a', price: 3 },
    { id: 'b', price: 2.1 },
    { id: 'c', price: 0, assumed: ['package.style', 'price'] },
  ]
  expect([unknown, dear, cheap].sort(byPrice).map((p) => p.id)).toEqual(['b', 'a', 'c'])
  expect([dear, unknown].map(priceWords)).toEqual(['€ 3.00', '€ ?'])
  const silent = { ...library.parts['td8-28-dip']!, price: 0, assumed: ['price'] } as Part
  const lamp = (parts: Library['parts']) =>
    analyse(
      project({ chip: 'td8-28-dip', source: 'cells-3-aa', devices: [['lamp-red', 'Lamp', 'to-ground']] }),
      { ...library, parts },
    )
  const [told, untold] = [lamp(library.parts), lamp({ ...library.parts, 'td8-28-dip': silent })]
  const chipRow = untold.build.parts.filter((r) => r.unpriced)
  expect(chipRow.map((r) => [r.part, r.total])).toEqual([['td8-28-dip', 0]])
  expect([told, untold].map((a) => a.gauges.find((g) => g.id === 'price')!.label)).toEqual([
    'Parts',
    'Parts, 1 without a price',
  ])
  // In the list that goes to a shop the cells are empty.
  expect(
    partsTable(untold.build.parts)
      .find((r) => r[1]!.startsWith('TD8'))!
      .slice(4),
  ).toEqual(['', ''])
})

test('the list against the drawer: lines of one part share what lies there, values of a series have drawers of their own', () => {
  const row = (part: string, value: string, count: number, each: number): PartsRow => ({
    part,
    name: part,
    value,
    refs: [],
    count,
    each,
    total: count * each,
    unpriced: false,
  })
  const rows = [
    row('resistor', '10k', 7, 0.02),
    row('resistor', '1k', 2, 0.02),
    row('lamp', '', 2, 0.5),
    row('lamp', '', 2, 0.5),
  ]
  expect(rows.map(drawerKey)).toEqual(['resistor 10k', 'resistor 1k', 'lamp', 'lamp'])
  const list = stillToGet(rows, { 'resistor 10k': 20, lamp: 3 })
  expect(list.map((r) => [r.have, r.get])).toEqual([
    [7, 0],
    [0, 2],
    [2, 0],
    [1, 1],
  ])
  // Two resistors at 2 cents and one lamp at 50.
  expect(priceToGet(list).value.typ).toBe(0.54)
  expect(priceToGet(list).inputs.map((i) => i.label)).toEqual(['resistor 1k', 'lamp'])
})

test('beside each step what can do lasting harm is said each time; iron and eyes once, at the first', () => {
  const { steps } = analyse(
    project({
      chip: 'td8-28-dip',
      source: 'adapter-12v',
      regulator: 'bl5-cool',
      devices: [
        ['pump-12v', 'Pump'],
        ['heat-mat-12v', 'Mat'],
        ['lamp-red', 'Lamp'],
      ],
    }),
    library,
  ).build
  const beside = cautionsBeside(steps)
  expect(beside).toHaveLength(steps.length)
  const times = (c: string, of: readonly (readonly string[])[]) =>
    of.filter((step) => step.includes(c)).length
  const all = steps.map((s) => s.cautions)
  for (const c of ['mains', 'reversed', 'motor', 'heat']) {
    expect([c, times(c, all) > 0]).toEqual([c, true])
    expect([c, times(c, beside)]).toEqual([c, times(c, all)])
  }
  expect(times('iron', all)).toBeGreaterThan(1)
  expect(times('iron', beside)).toBe(1)
  const step = (title: RegExp) => steps.findIndex((s) => title.test(s.title))
  expect([beside[step(/Pump/)]!.includes('motor'), beside[step(/Mat/)]!.includes('heat')]).toEqual([
    true,
    true,
  ])
})
