// States by hand: the shares of the time, what each part takes in each, and the average over all of them.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import { applyEdits, type StateChoice } from '../design'
import { cycleWithin, modesOf, proposedStates, wakingsOf } from '.'
import { findPart, makeLibrary } from '../parts'

const library = shippedLibrary()
const look = (states: StateChoice[], of: Partial<Parameters<typeof project>[0]> = {}) =>
  analyse(
    applyEdits(
      project({
        chip: 'td8-28-dip',
        source: 'cells-2-aa',
        devices: [['weight-amplifier', 'Scale']],
        ...of,
      }),
      [{ kind: 'setStates', states }],
    ),
    library,
  )
const rest: StateChoice = { id: 'asleep', name: 'asleep', chip: 'sleep' }

describe('a scale that weighs 96 times a day and waits for half a minute every ten', () => {
  const { power, states } = look([
    { id: 'weighs', name: 'weighing', lasts: 0.5, perDay: 96, modes: { d1: 'work' } },
    { id: 'waits', name: 'waiting', lasts: 30, every: 600, chip: 'idle', modes: { d1: 'rest' } },
    { ...rest, modes: { d1: 'rest' } },
  ])
  // 96 · 0.5 s of 86,400 s; 30 s of 600 s; what is left
  const shares = [48 / 86400, 0.05, 1 - 0.05 - 48 / 86400]
  test('shares of the time', () => {
    states.forEach((s, n) => expect(s.share.value.typ).toBeCloseTo(shares[n]!, 12))
    expect(states.map((s) => [s.id, s.asleep])).toEqual([
      ['weighs', false],
      ['waits', false],
      ['asleep', true],
    ])
  })
  test('the mode of each in each, and the average', () => {
    // Tables 6 and 2: 0.4 mA and 440 pA a hertz, 0.1 mA and 110 pA a hertz, 0.2 µA; at 1 MHz. 1.5 mA and 1 µA.
    const chip = [0.4e-3 + 0.44e-3, 0.1e-3 + 0.11e-3, 0.2e-6]
    const scale = [1.5e-3, 1e-6, 1e-6]
    const average = (of: number[]) => of.reduce((sum, current, n) => sum + current * shares[n]!, 0)
    for (const [id, of] of [
      ['chip', chip],
      ['d1', scale],
    ] as const) {
      const c = power.consumers.find((x) => x.id === id)!
      expect(states.map((s) => c.cycle[s.id]!.value.typ)).toEqual(of.map((x) => expect.closeTo(x, 12)))
      expect(c.average.value.typ).toBeCloseTo(average(of), 12)
      expect(c.average.label).toBe(`${c.name}, over time`)
    }
    const others = power.consumers.filter((c) => !['chip', 'd1'].includes(c.id))
    const beside = others.reduce((sum, c) => sum + c.average.value.typ, 0)
    expect(power.average.value.typ).toBeCloseTo(average(chip) + average(scale) + beside, 12)
  })
  test('who says nothing goes through its own cycle, and the chip works', () => {
    const { power: p } = look([
      { id: 'weighs', name: 'weighing', lasts: 1, every: 4 },
      { id: 'asleep', name: 'asleep', chip: 'sleep', modes: { d1: 'rest' } },
    ])
    const [chip, scale] = ['chip', 'd1'].map((id) => p.consumers.find((c) => c.id === id)!)
    expect(chip!.cycle.weighs).toBe(chip!.work)
    // A twentieth of the time at 1.5 mA
    expect(scale!.cycle.weighs!.value.typ).toBeCloseTo(0.95e-6 + 0.05 * 1.5e-3, 12)
    expect(scale!.cycle.asleep!.value.typ).toBeCloseTo(1e-6, 15)
    expect(p.runtime!.note).not.toContain('At work all the time')
  })
  test('who is said to work in every state is no assumption', () => {
    const { power: p } = look([
      { id: 'weighs', name: 'weighing', lasts: 1, every: 4, modes: { d1: 'work' } },
      { id: 'asleep', name: 'asleep', chip: 'sleep', modes: { d1: 'work' } },
    ])
    const scale = p.consumers.find((c) => c.id === 'd1')!
    expect(scale.average.value.typ).toBeCloseTo(scale.work.value.typ, 12)
    expect(p.runtime!.note).not.toContain('At work all the time')
  })
})

test('the radio is on where the program uses it, the chip is awake and nobody says no; a board’s blocks sleep with it', () => {
  const of = (radio: boolean) =>
    look(
      [
        { id: 'sends', name: 'sending', lasts: 1, every: 100 },
        { id: 'reads', name: 'reading', lasts: 1, every: 50, radio: false },
        { id: 'listens', name: 'listening', lasts: 1, every: 100, chip: 'light', radio: true },
        { id: 'sleeps', name: 'asleep', chip: 'deep' },
      ],
      { chip: 'stick-mw2', source: 'usb-port', devices: [], radio },
    ).power.consumers
  const [chip, board] = ['chip', 'board'].map((id) => of(true).find((c) => c.id === id)!)
  const [sends, reads, sleeps] = ['sends', 'reads', 'sleeps'].map((id) => chip!.cycle[id]!.value.typ)
  expect(sends).toBe(chip!.work.value.typ)
  // The radio takes the same whatever the chip does beside it.
  const listens = chip!.cycle.listens!.value.typ - chip!.rest.value.typ
  expect(listens).toBeCloseTo(sends! - reads!, 9)
  expect(chip!.rest.value.typ).toBeLessThan(reads!)
  const without = of(false).find((c) => c.id === 'chip')!
  expect(without.cycle.sends!.value.typ).toBeCloseTo(reads!, 12)
  expect(reads).toBeLessThan(sends! / 2)
  expect(sleeps).toBeLessThan(reads! / 100)
  expect(board!.cycle.sleeps).toEqual(board!.rest)
  expect(board!.cycle.reads).toEqual(board!.work)
})

test('with nothing said it is always at work; a share of the time makes two states', () => {
  const plain = project({ chip: 'td8-28-dip', source: 'cells-2-aa', devices: [] })
  const of = (awake: number | null) =>
    analyse(applyEdits(plain, [{ kind: 'setLimit', limit: 'awake', value: awake }]), library).states.map(
      (s) => [s.name, s.mode!.id, s.share.value.typ],
    )
  expect(of(null)).toEqual([['at work', 'active', 1]])
  expect(of(0.25)).toEqual([
    ['at work', 'active', 0.25],
    ['asleep', 'sleep', 0.75],
  ])
})

test.each([
  [12, []],
  [12.01, ['stops']],
])('two states of twelve hours each and of %d hours: %j', (hours, severities) => {
  const { findings, states } = look([
    { id: 'a', name: 'by day', lasts: 12 * 3600, perDay: 1 },
    { id: 'b', name: 'by night', lasts: hours * 3600, every: 86400 },
    rest,
  ])
  const told = findings.filter((f) => f.check === 'states.overfull')
  expect(told.map((f) => f.severity)).toEqual(severities)
  for (const f of told) {
    // 12 h and 12.01 h of 24
    expect(f.text).toBe('by day, by night: together they take 100.04 % of the time.')
    expect(f.because[0]!.text).toBe('by day takes 50 %, 12 h 0 min a day')
    expect(f.fixes).toEqual([])
  }
  expect(states[2]!.share.value.typ).toBe(0)
})

test('a mode that is not there is told, and counts as the most that it can be', () => {
  const a = look([
    { id: 'x', name: 'singing', lasts: 1, every: 2, chip: 'karaoke', modes: { d1: 'loud' } },
    rest,
  ])
  const told = a.findings.filter((f) => f.check === 'states.unknown-mode')
  expect(told.map((f) => [f.severity, f.text])).toEqual([
    [
      'risks',
      'singing: TD8-28 DIP has no mode karaoke, only “running”, “waiting, clock on”, “stopped”. It counts as working.',
    ],
    ['risks', 'singing: Scale has no mode loud, only “at rest”, “working”. It goes through its own cycle.'],
  ])
  const radio = (chip: string, used: boolean) =>
    look(
      [
        { id: 'x', name: 'calling', lasts: 1, every: 2, radio: true },
        { id: 'y', name: 'else' },
      ],
      {
        chip,
        devices: [],
        source: 'usb-port',
        radio: used,
      },
    )
  const words = (x: ReturnType<typeof radio>) =>
    x.findings.filter((f) => f.check === 'states.unknown-mode').map((f) => f.text)
  expect(words(radio('stick-mw2', true))).toEqual([])
  expect(words(radio('stick-mw2', false))).toEqual([
    'calling: the radio is to be on, and the Needs page says that the program uses none. It counts as on here.',
  ])
  // The careful side: the radio’s current is in the peak and in that state.
  const own = (x: ReturnType<typeof radio>) => x.power.consumers.find((c) => c.id === 'chip')!
  expect(own(radio('stick-mw2', false)).work.value).toEqual(own(radio('stick-mw2', true)).work.value)
  expect(words(radio('td8-28-dip', false))).toEqual([
    'calling: the radio is to be on, and TD8-28 DIP has none.',
  ])
  expect(told[0]!.because[0]!.text).toBe('“singing” has 50 % of the time')
  const chip = a.power.consumers.find((c) => c.id === 'chip')!
  expect(chip.cycle.x).toBe(chip.work)
  expect(look([rest]).findings.filter((f) => f.check.startsWith('states.'))).toEqual([])
  const known = look([{ id: 'x', name: 'busy', lasts: 1, every: 2, modes: { d1: 'work' } }, rest])
  expect(known.findings.filter((f) => f.check === 'states.unknown-mode')).toEqual([])
})

describe('what follows what, to be drawn', () => {
  const lit: StateChoice = { id: 'lit', name: 'lit', lasts: 2, every: 10 }
  const ring: StateChoice = { id: 'ring', name: 'ring', lasts: 3, perDay: 4800 }
  const drawn = (states: StateChoice[], window: number, most?: number) =>
    cycleWithin(states, window, most)?.map(({ from, to, state }) => `${from}–${to} ${state}`)
  test('each at its time, one after the other; what is left over is the rest', () => {
    // 4800 a day: every 18 s, from second 2 on.
    expect(drawn([lit, ring, rest], 24)).toEqual([
      '0–2 lit',
      '2–5 ring',
      '5–10 asleep',
      '10–12 lit',
      '12–20 asleep',
      '20–22 lit',
      '22–24 ring',
    ])
  })
  test('one that would begin while another lasts waits for it', () => {
    const long: StateChoice = { id: 'long', name: 'long', lasts: 9, every: 40 }
    expect(drawn([lit, long, rest], 22)).toEqual([
      '0–2 lit',
      '2–11 long',
      '11–13 lit',
      '13–20 asleep',
      '20–22 lit',
    ])
  })
  test('more than can be drawn is not drawn; what never comes is not there', () => {
    expect(drawn([lit, rest], 100, 19)).toBeUndefined()
    expect(drawn([lit, rest], 100, 20)).toHaveLength(20)
    expect(drawn([{ ...lit, every: undefined, perDay: 0 }, rest], 5)).toEqual(['0–5 asleep'])
  })
})

describe('a lamp that a leg lights', () => {
  test('is on, or off where a state says so or has its device at rest', () => {
    const { power } = look(
      [
        { id: 'on', name: 'lit', lasts: 1, every: 4, modes: { d1: 'on' } },
        { id: 'off', name: 'dark', lasts: 1, every: 4, modes: { d1: 'off' } },
        rest,
      ],
      { devices: [['lamp-green', 'Lamp']] },
    )
    const light = power.consumers.find((c) => c.id === 'd1.light')!
    expect(light.work.value.typ).toBeGreaterThan(1e-3)
    expect(['on', 'off', 'asleep'].map((s) => light.cycle[s]!.value.max)).toEqual([
      light.work.value.max,
      0,
      // Nobody said that it goes out when the chip sleeps: a leg that is driven stays so.
      light.work.value.max,
    ])
    // A quarter and a half of the time
    expect(light.average.value.typ).toBeCloseTo(0.75 * light.work.value.typ, 12)
  })
  test('what can be said of a device', () => {
    const of = (id: string) => modesOf(findPart(library, 'device', id)!).map((m) => m.id)
    // One that a leg lights in one of its wirings can be told to be off.
    const lamp = findPart(library, 'device', 'lamp-green')!
    const button = findPart(library, 'device', 'push-button')!
    const either = { ...lamp, wirings: [...button.wirings, ...lamp.wirings] }
    expect(modesOf(either).map((m) => m.id)).toEqual(['off', 'on'])
    expect([of('lamp-green'), of('weight-amplifier'), of('push-button')]).toEqual([
      ['off', 'on'],
      ['rest', 'work'],
      [],
    ])
  })
})

test('states to begin with: asleep with all at rest, at work, and calling where there is a radio', () => {
  const of = (awake: number | undefined, radio: boolean, chip: string) => {
    const design = project({
      chip,
      source: 'cells-2-aa',
      devices: [
        ['lamp-green', 'Lamp'],
        ['weight-amplifier', 'Scale'],
      ],
      radio,
    })
    const slow =
      awake === undefined ? design : applyEdits(design, [{ kind: 'setLimit', limit: 'awake', value: awake }])
    return proposedStates(slow, library, analyse(slow, library).chip.chip)
  }
  const [still, busy] = [
    { d1: 'off', d2: 'rest' },
    { d1: 'on', d2: 'work' },
  ]
  expect(of(undefined, false, 'td8-28-dip')).toEqual([
    { id: 'work', name: 'at work', lasts: 2, every: 600, modes: busy },
    { id: 'rest', name: 'asleep', chip: 'sleep', modes: still },
  ])
  // An eightieth of ten minutes
  expect(of(0.0125, false, 'td8-28-dip')[0]).toMatchObject({ lasts: 7.5, every: 600 })
  expect(of(undefined, true, 'mw2-module')).toEqual([
    { id: 'work', name: 'at work', lasts: 2, every: 600, radio: false, modes: busy },
    { id: 'call', name: 'calling', lasts: 4, every: 3600, radio: true, modes: still },
    { id: 'rest', name: 'asleep', chip: 'deep', modes: still },
  ])
  // A radio that this chip hasn’t got calls nobody.
  expect(of(undefined, true, 'td8-28-dip')).toHaveLength(2)
})

describe('what begins a state, while the chip sleeps', () => {
  const told = (states: StateChoice[], of: Partial<Parameters<typeof project>[0]> = {}) =>
    look(states, of)
      .findings.filter((f) => f.check === 'states.wake')
      .map((f) => [f.severity, f.text, f.fixes.map((x) => x.label)])
  const weighs: StateChoice = { id: 'w', name: 'weighing', lasts: 1, every: 600 }
  const shows: StateChoice = { id: 's', name: 'showing', lasts: 9, perDay: 4 }
  const buttons: Partial<Parameters<typeof project>[0]> = {
    devices: [
      ['wake-button', 'Look'],
      ['push-button', 'Plus'],
    ],
  }
  test('its time, where the chip has a clock that goes on: nothing to tell', () =>
    expect(told([weighs, rest])).toEqual([]))
  test('its time, and no clock goes on: it never begins; the chip may wait less deeply', () => {
    // The sheet of the OX7: any leg of the processor ends “off”, and nothing else.
    expect(
      told([weighs, { ...rest, chip: 'off' }], { chip: 'ox7-module', source: 'usb-port', devices: [] }),
    ).toEqual([
      [
        'stops',
        expect.stringMatching(/^Nothing in OX7.* keeps time in “.*”: weighing never begins\.$/),
        [expect.stringMatching(/^Let the chip wait in “.*” instead$/)],
      ],
    ])
  })
  test('by a wire: told once, and told as in the way where a signal has its leg', () => {
    const of = { chip: 'mw1-module', source: 'usb-port', regulator: 'bl33-low', devices: [] }
    const states = [weighs, { ...rest, chip: 'deep' }]
    expect(told(states, of)).toEqual([
      [
        'notes',
        'weighing begins by a wire from Q7 to EN, which resets the chip: put it in once the program is loaded.',
        [],
      ],
    ])
    const design = applyEdits(project({ ...of, devices: [['lamp-green', 'Lamp']] }), [
      { kind: 'setStates', states },
      { kind: 'lockSignal', signal: 'd1.1.light', name: 'Lamp', pin: 'Q7' },
    ])
    const [f] = analyse(design, library).findings.filter((x) => x.check === 'states.wake')
    expect([f!.severity, f!.text, f!.fixes.map((x) => x.label)]).toEqual([
      'stops',
      'weighing begins by a wire from Q7 to EN, and Q7 is taken by Lamp.',
      ['Keep Q7 free'],
    ])
  })
  test('a device, on a leg that wakes; and one that is on none', () => {
    expect(told([{ ...shows, begins: 'd1' }, rest], buttons)).toEqual([])
    expect(told([{ ...shows, begins: 'd2' }, rest], buttons)).toEqual([
      [
        'stops',
        'Plus can’t end “stopped”: it is on no leg that wakes TD8-28 DIP, and showing never begins.',
        ['Let the chip wait in “waiting, clock on” instead'],
      ],
    ])
    // Awake in between it needs no waking.
    expect(
      told(
        [
          { ...shows, begins: 'd2' },
          { ...rest, chip: 'idle' },
        ],
        buttons,
      ),
    ).toEqual([])
  })
  test('what ends its sleep is in no file: said, and no answer made up', () => {
    const silent = makeLibrary(
      Object.values(library.parts).map((p) =>
        p.kind === 'chip'
          ? { ...p, modes: p.modes.map((m) => ({ ...m, wakes: undefined, wakeUps: undefined })) }
          : p,
      ),
    )
    const of = (states: StateChoice[]) =>
      analyse(
        applyEdits(
          project({ chip: 'td8-28-dip', source: 'cells-2-aa', devices: [['wake-button', 'Look']] }),
          [{ kind: 'setStates', states }],
        ),
        silent,
      )
        .findings.filter((f) => f.check === 'states.wake')
        .map((f) => [f.severity, f.text, f.because[1]!.text, f.fixes])
    const why = 'its file does not say what ends “stopped”'
    expect(of([weighs, { ...shows, begins: 'd1' }, rest])).toEqual([
      ['risks', 'Whether Look can end “stopped” for showing is not known.', why, []],
      ['risks', 'Whether its time can end “stopped” for weighing is not known.', why, []],
    ])
  })
  test('by which legs a device wakes; none for its time, or where nobody said', () => {
    const a = look([weighs, { ...shows, begins: 'd1' }, { ...shows, id: 'x' }, rest], buttons)
    const leg = Object.entries(a.pins.assignment).find(([signal]) => signal.startsWith('d1.'))?.[1]
    expect(leg).toBeDefined()
    expect(wakingsOf(a).map((w) => [w.state.id, w.by, w.can, w.pins])).toEqual([
      ['w', 'clock', 'yes', []],
      ['s', 'device', 'yes', [leg]],
      ['x', 'unsaid', 'unknown', []],
    ])
    // Without a chip nothing sleeps yet.
    const bare = analyse({ ...a.design, chip: {} }, library)
    expect([wakingsOf(bare), bare.states.map((s) => s.asleep)]).toEqual([[], [false, false, false, false]])
  })
  test('nobody said what: told, with those who could', () =>
    expect(told([shows, rest], buttons)).toEqual([
      [
        'notes',
        'What begins showing is not said: asleep, the chip must be woken for it.',
        ['Look begins showing'],
      ],
    ]))
})

test('while the chip sleeps its buses rest high: their pull-ups take nothing then; awake a twentieth of V/R, each line', () => {
  const { power } = look(
    [
      { id: 'w', name: 'reading', lasts: 1, every: 4 },
      { id: 'i', name: 'waiting', lasts: 1, every: 4, chip: 'idle' },
      rest,
    ],
    { devices: [['humidity-two-wire', 'Air']] },
  )
  const pulls = power.consumers.find((c) => c.id === 'pull-ups')!
  // The sensor's own board pulls both lines up by 10 kΩ: 2 · 2.6 V / 10 kΩ, a twentieth of the time, as nobody has said more.
  const awake = 0.05 * 2 * 2.6e-4
  expect(['w', 'i', 'asleep'].map((s) => pulls.cycle[s]!.value.typ)).toEqual([
    expect.closeTo(awake, 9),
    expect.closeTo(awake, 9),
    0,
  ])
  // A contact is closed by who presses it, asleep or not: its leg's own pull-up goes on.
  const contact = look([{ id: 'w', name: 'reading', lasts: 1, every: 4 }, rest], {
    devices: [['push-button', 'Go']],
  }).power.consumers.find((c) => c.id === 'pull-ups')!
  expect(contact.cycle.asleep!.value.typ).toBeGreaterThan(0)
})
