import fc from 'fast-check'
import { demo, shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { alone, signalsOf } from '../../test/signals'
import { analyse, nextPlansOf } from '../analysis'
import { applyEdits, type Design, type Edit } from '../design'
import { resolveNeeds } from '../needs'
import { type Chip, findPart } from '../parts'
import { steps } from '../patience'
import { makeDemand, planPins, reachOf, takenPins } from '.'

const library = shippedLibrary()
const chipOf = (id: string): Chip => findPart(library, 'chip', id)!
const timer = demo('darkroom-timer')
const open = { locks: {}, excluded: [], kept: {} }

describe('the plan', () => {
  const needs = resolveNeeds(timer, library)
  const chip = chipOf('td8-28-dip')
  const taken = takenPins(chip, { pins: ['PB0', 'PB1'], source: chip.clockSources[1] })
  const plan = planPins({ chip, needs: needs.open, choices: open, taken })
  const assignment = Object.fromEntries(plan.wires.map((w) => [w.signal.id, w.pin.id]))

  test('locks hold, kept-free legs stay free', () => {
    const locked = planPins({
      chip,
      needs: needs.open,
      choices: { locks: { 'd3.1.contact': 'PC6' }, excluded: ['PC0', 'PC7'], kept: {} },
      taken,
    })
    const pins = locked.wires.map((w) => w.pin.id)
    expect(locked.wires.find((w) => w.signal.id === 'd3.1.contact')).toMatchObject({
      locked: true,
      pin: { id: 'PC6' },
    })
    expect(pins).not.toContain('PC0')
    expect(pins).not.toContain('PC7')
  })

  test('staying close to the old plan, a single move moves a single wire', () => {
    const moved = planPins({
      chip,
      needs: needs.open,
      choices: { locks: { 'd7.1.light': 'PC2' }, excluded: [], kept: assignment },
      taken,
    })
    const changed = moved.wires.filter((w) => assignment[w.signal.id] !== w.pin.id).map((w) => w.signal.id)
    expect(changed).toEqual(['d7.1.light'])
  })

  test('a wrong lock stays where it is, and everything else is planned around it', () => {
    const wrong = planPins({
      chip,
      needs: needs.open,
      choices: { locks: { 'd8.1.level': 'PC0' }, excluded: [], kept: {} },
      taken,
    })
    expect(wrong.status).toBe('proven')
    expect(wrong.wires.find((w) => w.signal.id === 'd8.1.level')?.impossible).toBe('it has no analog input')
    expect(wrong.wires.filter((w) => w.pin.id === 'PC0')).toHaveLength(1)
    // Listed where its device is, wrong or right.
    const listed = planPins({
      chip,
      needs: needs.open,
      choices: { locks: { [needs.open.signals[0]!.id]: 'VCC' }, excluded: [], kept: {} },
      taken,
    })
    expect(listed.wires[0]!.impossible).toBeDefined()
    expect(listed.wires.map((w) => w.signal.id)).toEqual(needs.open.signals.map((s) => s.id))
  })

  test('two locks on one leg: the second is the mistake', () => {
    const twice = planPins({
      chip,
      needs: needs.open,
      choices: { locks: { 'd3.1.contact': 'PC6', 'd4.1.contact': 'PC6' }, excluded: [], kept: {} },
      taken,
    })
    expect(twice.wires.filter((w) => w.impossible).map((w) => [w.signal.id, w.impossible])).toEqual([
      ['d4.1.contact', 'Start is locked there already'],
    ])
  })

  test.each<[string, Parameters<typeof signalsOf>, RegExp]>([
    [
      'td8-28-dip',
      [['light-resistor', 7]],
      /^7 analog inputs are asked for, and only 6 legs can serve them$/,
    ],
    ['td8-08-dip', [['servo-small', 3]], /^3 PWM outputs are asked for, and only 2 legs can serve them$/],
    ['td8-08-dip', [['serial-link', 1]], /^no leg can be a UART line for serial-link/],
    ['td8-28-dip', [['serial-link', 2]], /UART lines are asked for, and only \d legs? can serve/],
    [
      'td8-08-dip',
      [
        ['servo-small', 1],
        ['lamp-red', 1, 'dimmed'],
      ],
      /need 2 frequencies, and too few timers reach their legs$/,
    ],
  ])('%s: a clash in words', (id, wanted, words) => {
    const clash = planPins({ chip: chipOf(id), needs: alone(signalsOf(...wanted)), choices: open, taken: {} })
    expect(clash.status).toBe('clash')
    expect(clash.clashText).toMatch(words)
  })

  test('of legs that the builder keeps free the clash says so; else what else stands in the way', () => {
    // TD8-08: A0 to A2 are its only converter legs.
    const ask = (excluded: string[]) =>
      planPins({
        chip: chipOf('td8-08-dip'),
        needs: alone(signalsOf(['light-resistor', 1])),
        choices: { ...open, excluded },
        taken: {},
      })
    expect(ask(['PA0', 'PA1']).status).not.toBe('clash')
    expect(ask(['PA0', 'PA1', 'PA2']).clashText).toBe(
      'no leg can be an analog input for light-resistor (you keep it free)',
    )
  })

  test('servos and a dimmed lamp never share a timer', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 2 }), (servos, lamps) => {
        const p = planPins({
          chip: chipOf('td8-40-dip'),
          needs: alone(signalsOf(['servo-small', servos], ['lamp-red', lamps, 'dimmed'])),
          choices: open,
          taken: {},
        })
        const frequencyOf = new Map<string, number>()
        return p.wires.every((w) => {
          const known = frequencyOf.get(w.unit!.id)
          frequencyOf.set(w.unit!.id, w.signal.frequency!)
          return known === undefined || known === w.signal.frequency
        })
      }),
      { numRuns: 12 },
    )
  })

  test('a device’s plain signals lie side by side where that costs nothing', () => {
    const legs = ['d2.1.A', 'd2.1.B', 'd2.1.SW']
      .map((s) => plan.wires.find((w) => w.signal.id === s)!.pin.legs[0]!)
      .sort((a, b) => a - b)
    expect(legs[2]! - legs[0]!).toBe(2)
  })

  test('the functions selected on a 32-bit chip come with their numbers', () => {
    const p = planPins({
      chip: chipOf('qm32-32'),
      needs: alone(signalsOf(['temperature-two-wire', 1], ['servo-small', 2], ['card-reader', 1])),
      choices: open,
      taken: {},
    })
    expect(p.status).toBe('proven')
    for (const wire of p.wires.filter(
      (w) => w.unit && w.unit.kind !== 'converter' && w.unit.kind !== 'interrupt',
    )) {
      const listed = wire.pin.functions?.find((f) => f.unit === wire.unit!.id && f.signal === wire.line)
      expect([wire.signal.id, wire.select]).toEqual([wire.signal.id, listed?.select])
    }
    const bus = p.wires.filter((w) => w.signal.bus?.kind === 'spi')
    expect(new Set(bus.map((w) => w.unit!.id)).size).toBe(1)
  })
})

// Five of the small chip's legs can serve a signal: any six of the eleven are a clash, and no fewer.
test('a clash that the patience did not suffice to narrow down is said to be one; with more of it it is as small as can be', () => {
  const design = project({
    chip: 'td8-08-dip',
    source: 'usb-port',
    regulator: 'bl5-low',
    devices: [
      ['lamp-red', 'Lamp', undefined, { count: 6 }],
      ['rotary-dial', 'Dial'],
      ['push-button', 'Button', undefined, { count: 2 }],
    ],
  })
  const within = (patience: number) => {
    const { pins, findings } = analyse(design, library, steps(patience))
    const told = findings.find((f) => f.check === 'pins.clash')
    return [pins.plan!.clash.length, told?.longer, told?.because.at(-1)!.text]
  }
  const unsure = 'Some of these may not matter: the clash was not narrowed down in the time given'
  expect(within(0)).toEqual([0, undefined, undefined])
  expect(within(1)).toEqual([expect.any(Number), true, unsure])
  expect(within(1)[0]).toBeGreaterThan(6)
  expect(within(1000)).toEqual([6, undefined, 'Without any one of these the others would fit'])
})

test('on a shared line is only what is wired by it: the colour head goes by serial, so the bus has the sensor alone', () => {
  const { plan } = analyse(
    project({
      chip: 'td8-28-dip',
      source: 'adapter-9v',
      regulator: 'bl5-low',
      devices: [
        ['temperature-two-wire', 'Air'],
        ['colour-head', 'Colour'],
      ],
    }),
    library,
  ).pins
  expect(plan!.wirings.map((w) => w.wiring.id)).toEqual(['serial'])
  const ends = (id: string) => plan!.wires.find((w) => w.signal.id === id)!.signal.ends
  for (const line of ['i2c.SDA', 'i2c.SCL']) expect(ends(line).map((e) => e.instance.name)).toEqual(['Air'])
})

test('next best plans: one rare ability spent is no other plan, two are, a crystal’s leg and a programmer’s too', () => {
  // One button on 28 legs, at best on one that costs nothing. By the prices of the costs: two rare abilities 2 points, a leg
  // that a crystal may want 4, a programmer’s leg 9 with one rare ability.
  const d = project({ chip: 'td8-28-dip', source: 'usb-port', devices: [['push-button', 'Go']] })
  const { plan } = analyse(d, library).pins
  expect(plan!.cost).toBe(0)
  const { plans } = nextPlansOf(d, library)
  expect(plans.map((p) => p.extra)).toEqual([2, 4, 10])
  expect(plans.map((p) => p.givesUp.join())).toEqual([
    expect.stringMatching(/it could be .*, of which there are few/),
    expect.stringMatching(/a crystal can be fitted later/),
    expect.stringMatching(/loads the programmer’s/),
  ])
})

test('next best plans: of two equal devices either may be the one that gives way, and that is one plan', () => {
  const next = (second: string) =>
    nextPlansOf(
      project({
        chip: 'td8-28-dip',
        source: 'usb-port',
        devices: [
          ['push-button', 'Go'],
          [second, 'Stop'],
        ],
      }),
      library,
    ).plans
  // One of them on a leg with two rare abilities, both of them, one on a crystal’s leg: 2, 2 + 2, 4 points.
  const plans = next('push-button')
  expect(plans.map((p) => p.extra)).toEqual([2, 4, 4])
  expect(
    new Set(
      plans.map((p) =>
        p.givesUp
          .map((g) => g.replace(/^\w+: /, ''))
          .sort()
          .join(),
      ),
    ).size,
  ).toBe(3)
  // A button and a foot switch are not the same, and which of them gives way is a choice.
  expect(next('foot-switch').map((p) => p.extra)).toEqual([2, 2, 4])
})

describe('reach', () => {
  const clean = analyse(timer, library)
  const chip = clean.chip.chip!
  const current = clean.pins.assignment
  test.each(['d7.1.light', 'i2c.SDA', 'd8.1.level', 'd5.1.drive'])(
    'of %s: every leg’s cost is that of the best whole plan with it there',
    (signal) => {
      const entries = reachOf(
        { chip, needs: clean.needs.open, choices: timer.pins, taken: clean.pins.taken },
        signal,
        current,
      )
      expect(entries.map((e) => e.pin)).toEqual(chip.pins.map((p) => p.id))
      const kept = Object.fromEntries(Object.entries(current).filter(([s]) => s !== signal))
      const costAt = (pin: string) => {
        const p = planPins({
          chip,
          needs: clean.needs.open,
          choices: { locks: { [signal]: pin }, excluded: [], kept },
          taken: clean.pins.taken,
        })
        return p.status === 'proven' && !p.wires.some((w) => w.impossible) ? p.cost : undefined
      }
      const costs = chip.pins.map((p) => costAt(p.id))
      const best = Math.min(...costs.map((c) => c ?? Infinity))
      expect(entries.map((e) => e.extra)).toEqual(costs.map((c) => (c === undefined ? undefined : c - best)))
      expect(entries.every((e) => (e.extra === undefined) === (e.reason !== undefined))).toBe(true)
    },
  )
  test('where another signal sits, it says where that one would go', () => {
    const entries = reachOf(
      { chip, needs: clean.needs.open, choices: timer.pins, taken: clean.pins.taken },
      'd7.1.light',
      current,
    )
    const onStart = entries.find((e) => e.pin === current['d3.1.contact'])!
    expect(onStart.moves.map((m) => m.signal)).toEqual(['d3.1.contact'])
    // Where it can’t go, nothing is said to move for it.
    const never = entries.filter((e) => e.reason !== undefined)
    expect(never.length).toBeGreaterThan(0)
    expect(never.flatMap((e) => [...e.moves, ...e.items])).toEqual([])
  })
  test('a leg whose signal has nowhere else to go says so', () => {
    const entries = reachOf(
      { chip, needs: clean.needs.open, choices: timer.pins, taken: clean.pins.taken },
      'd7.1.light',
      current,
    )
    expect(entries.find((e) => e.pin === 'PA4')?.reason).toBe('I2C SDA has no other leg')
    expect(entries.find((e) => e.pin === 'PA5')?.reason).toBe('I2C SCL has no other leg')
  })
  test('of a line that only one of two wirings has: what that wiring costs with it there, on each leg', () => {
    const face = (wiring?: string) =>
      project({ chip: 'td8-28-dip', devices: [['glow-display', 'Face', wiring]] })
    const either = analyse(face(), library)
    expect(either.pins.plan!.wirings[0]!.wiring.id).toBe('i2c')
    const own = chipOf('td8-28-dip')
    const kept = either.pins.assignment
    const { taken } = either.pins
    const needs = resolveNeeds(face(), library).open
    const entries = reachOf({ chip: own, needs, choices: open, taken }, 'd1.1.CS', kept)
    const spi = resolveNeeds(face('spi'), library).open
    const costs = own.pins.map((p) => {
      const choices = { locks: { 'd1.1.CS': p.id }, excluded: [], kept }
      const there = planPins({ chip: own, needs: spi, choices, taken })
      return there.status === 'proven' && !there.wires.some((w) => w.impossible) ? there.cost : undefined
    })
    const best = Math.min(...costs.map((c) => c ?? Infinity))
    expect(entries.map((e) => e.extra)).toEqual(costs.map((c) => (c === undefined ? undefined : c - best)))
    expect(entries.filter((e) => e.extra !== undefined).length).toBeGreaterThan(10)
  })
  test('an unknown signal reaches nothing', () =>
    expect(
      reachOf(
        { chip, needs: clean.needs.open, choices: timer.pins, taken: clean.pins.taken },
        'nobody',
        current,
      ),
    ).toEqual([]))
})

describe('demand', () => {
  const chip = chipOf('td8-28-dip')
  test('every pin is a candidate or has its reason, never both', () => {
    const demand = makeDemand({
      chip,
      needs: resolveNeeds(timer, library).open,
      choices: open,
      taken: takenPins(chip, { pins: ['PB0', 'PB1'], source: chip.clockSources[1] }),
    })
    demand.problem.signals.forEach((s, i) =>
      chip.pins.forEach((pin, p) => {
        const offered = s.candidates.some((c) => c.pin === p)
        expect([pin.id, offered]).toEqual([pin.id, demand.reasons[i]![p] === undefined])
      }),
    )
  })
  test('edits of the plan and the plan agree', () => {
    const edits: Edit[] = [
      { kind: 'lockSignal', signal: 'd3.1.contact', name: 'Start', pin: 'PC6' },
      { kind: 'excludePin', pin: 'PC7', kept: {} },
    ]
    const design: Design = applyEdits(timer, edits)
    const { pins } = analyse(design, library)
    expect(pins.assignment['d3.1.contact']).toBe('PC6')
    expect(Object.values(pins.assignment)).not.toContain('PC7')
    expect(
      analyse(applyEdits(design, [{ kind: 'includePin', pin: 'PC7' }, { kind: 'replan' }]), library).pins.plan
        ?.status,
    ).toBe('proven')
  })
  test('swapping two signals swaps their legs', () => {
    const kept = analyse(timer, library).pins.assignment
    const swapped = analyse(
      applyEdits(timer, [
        {
          kind: 'swapSignals',
          a: 'd3.1.contact',
          b: 'd7.1.light',
          nameA: 'Start',
          nameB: 'Safe light',
          kept,
        },
      ]),
      library,
    ).pins.assignment
    expect([swapped['d3.1.contact'], swapped['d7.1.light']]).toEqual([
      kept['d7.1.light'],
      kept['d3.1.contact'],
    ])
  })
})
