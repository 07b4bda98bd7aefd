import fc from 'fast-check'
import { demo, shippedLibrary } from '../../test/files'
import { analyse } from '../analysis'
import { applyEdits, type Design, type Edit, emptyDesign } from '../design'
import { type OpenNeeds, resolveNeeds, type SignalNeed } from '../needs'
import { type Chip, findPart, partsOfKind } from '../parts'
import { findPins, legName, makeDemand, passport, planPins, reachOf, takenPins, waysToServe } from '.'
import { costContext, costsOf } from './costs'
import { busWindow } from './support'

const library = shippedLibrary()
const chipOf = (id: string): Chip => findPart(library, 'chip', id)!
const timer = demo('darkroom-timer')
const open = { locks: {}, excluded: [], kept: {} }

/** Signals of a few devices, by part id and count. */
const signalsOf = (...wanted: [part: string, count: number, wiring?: string][]): SignalNeed[] =>
  resolveNeeds(
    {
      ...emptyDesign('x'),
      needs: {
        limits: { ambient: 25 },
        devices: wanted.map(([part, count, wiring], i) => ({
          id: `d${i + 1}`,
          part,
          name: part,
          count,
          wiring,
        })),
      },
    },
    library,
  ).signals
const one = (part: string, wiring?: string, index = 0): SignalNeed => signalsOf([part, 1, wiring])[index]!

const silent = { on: false, answers: {} }
/** Signals whose wiring is settled, and no radio. */
const alone = (signals: SignalNeed[]): OpenNeeds => ({ signals, choices: [], bytes: [], radio: false })

const sda = one('temperature-two-wire')
const button = one('push-button')
const analog = one('temperature-analog')
const pwm = one('servo-small')
const edge = one('pulse-sensor', 'edge')
const lamp = one('lamp-red')
const [spiClock] = signalsOf(['card-reader', 1])
const [, serialOut] = signalsOf(['serial-link', 1])

describe('what a leg can do, from the part file', () => {
  test.each<[string, string, SignalNeed, string]>([
    // chip, pin, signal, the unit.line that serves it, `plain`, or the reason why not; read off the part files by hand
    ['td8-28-dip', 'PA4', sda, 'TWO.SDA'],
    ['td8-28-dip', 'PA5', sda, 'it has no I2C line SDA'],
    ['td8-28-dip', 'PC0', button, 'plain'],
    ['td8-28-dip', 'VCC', button, 'it is a supply leg'],
    ['td8-28-dip', 'GND1', lamp, 'it is a ground leg'],
    ['td8-28-dip', 'AREF', analog, 'it is the converter’s reference'],
    ['td8-28-dip', 'RESET', lamp, 'it is the reset leg'],
    ['td8-28-dip', 'PA3', analog, 'ADC.A3'],
    ['td8-28-dip', 'PC0', analog, 'it has no analog input'],
    ['td8-28-dip', 'PC1', pwm, 'T1.A'],
    ['td8-28-dip', 'PC0', pwm, 'it has no PWM output'],
    ['td8-28-dip', 'PB4', edge, 'INT.INT0'],
    ['td8-28-dip', 'PC5', spiClock!, 'SPI.SCK'],
    ['td8-28-dip', 'PB5', serialOut!, 'SER.RX'],
    ['td8-08-dip', 'PA3', sda, 'TWO.SDA'],
    ['td8-08-dip', 'PA3', pwm, 'T0.A'],
    ['td8-40-dip', 'PC0', sda, 'TWO.SDA'],
    ['qm32-32', 'PA10', sda, 'IC1.SDA@4'],
    ['qm32-32', 'PA12', sda, 'IC2.SDA@5'],
    ['qm32-32', 'PA8', pwm, 'TM1.CH1@1'],
    ['qm32-32', 'PA5', analog, 'ADC.IN5'],
    ['qm32-32', 'VDDA', analog, 'it is a supply leg'],
  ])('%s %s', (chipId, pinId, signal, expected) => {
    const chip = chipOf(chipId)
    const pin = chip.pins.find((p) => p.id === pinId)!
    const served = waysToServe(chip, pin, signal, takenPins(chip, { pins: [], source: undefined }))
    const words =
      'reason' in served
        ? served.reason
        : served.ways
            .map((w) =>
              w.unit ? `${w.unit}.${w.line}${w.select === undefined ? '' : `@${w.select}`}` : 'plain',
            )
            .join(' ')
    expect(words).toBe(expected)
  })

  test('a matrix brings any signal of its units to any of its pins, and nowhere else', () => {
    const base = chipOf('td8-28-dip')
    const chip: Chip = { ...base, matrix: [{ units: ['TWO'], pins: ['PC0', 'PC6'] }] }
    const can = chip.pins.filter((p) => 'ways' in waysToServe(chip, p, sda, {})).map((p) => p.id)
    expect(can).toEqual(['PA4', 'PC0', 'PC6'])
  })

  test.each([
    ['input-only', lamp, 'it can only be an input'],
    ['flash', button, 'it is wired to the flash memory'],
  ] as const)('a leg that is %s refuses', (kind, signal, reason) => {
    const chip = chipOf('td8-28-dip')
    const pin = { ...chip.pins.find((p) => p.id === 'PC0')!, attributes: [{ kind }] }
    expect(waysToServe(chip, pin, signal, {})).toEqual({ reason })
  })
})

describe('what a leg costs', () => {
  const cost = (chipId: string, pinId: string, signal: SignalNeed, kept: Record<string, string> = {}) => {
    const chip = chipOf(chipId)
    const pin = chip.pins.find((p) => p.id === pinId)!
    return costsOf(signal, pin, {}, costContext({ chip, signals: [signal], kept, radio: silent })).map(
      (c) => [c.name, c.points],
    )
  }
  const driver = one('pulse-sensor')
  test.each<[string, string, SignalNeed, [string, number][]]>([
    ['td8-28-dip', 'PC0', button, []],
    [
      'td8-28-dip',
      'PC4',
      driver,
      [
        ['programming leg', 60],
        ['scarce ability spent', 1],
      ],
    ],
    [
      'td8-28-dip',
      'PC4',
      button,
      [
        ['programming leg', 9],
        ['scarce ability spent', 1],
      ],
    ],
    ['td8-28-dip', 'PC5', spiClock!, [['programming leg', 6]]],
    ['td8-28-dip', 'PB0', button, [['crystal leg', 4]]],
    ['td8-28-dip', 'PA4', button, [['scarce ability spent', 2]]],
    ['qm32-32', 'PA13', button, [['debug leg', 30]]],
    ['qm32-32', 'PB8', button, [['start-up strap', 25]]],
  ])('%s %s for %j', (chip, pin, signal, items) => expect(cost(chip, pin, signal)).toEqual(items))

  test('a wire that would move costs, one that stays does not', () => {
    expect(cost('td8-28-dip', 'PC0', button, { [button.id]: 'PC7' })).toEqual([['moves a wire', 4]])
    expect(cost('td8-28-dip', 'PC0', button, { [button.id]: 'PC0' })).toEqual([])
  })
  test('a leg that twitches at start-up costs what must stay quiet, and nothing else', () => {
    const chip = chipOf('td8-28-dip')
    const pin = {
      ...chip.pins.find((p) => p.id === 'PC0')!,
      attributes: [{ kind: 'startup' as const, state: 'chatter' as const }],
    }
    const names = (s: SignalNeed) =>
      costsOf(s, pin, {}, costContext({ chip, signals: [s], kept: {}, radio: silent })).map((c) => c.name)
    expect(names(one('relay-module'))).toEqual(['start-up twitch'])
    expect(names(lamp)).toEqual([])
  })
})

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
  })
  test('a leg whose signal has nowhere else to go says so', () => {
    const entries = reachOf(
      { chip, needs: clean.needs.open, choices: timer.pins, taken: clean.pins.taken },
      'd7.1.light',
      current,
    )
    expect(entries.find((e) => e.pin === 'PA4')?.reason).toBe('I2C SDA has no other leg')
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

describe('names', () => {
  const chip = chipOf('td8-28-dip')
  test.each([
    ['5', 'PA4'],
    ['leg 5', 'PA4'],
    ['pa4', 'PA4'],
    ['XIN', 'PB0'],
    ['sda', 'PA4'],
    ['TWO.SDA', 'PA4'],
    ['ADC A0', 'PA0'],
    ['INT1', 'PB7'],
    ['pd0', 'RESET'],
  ])('“%s” finds %s first', (text, pin) => expect(findPins(chip, text)[0]?.id).toBe(pin))
  test('nothing is found by nothing, or by nonsense', () => {
    expect(findPins(chip, ' ')).toEqual([])
    expect(findPins(chip, 'zzz')).toEqual([])
  })
  test('every pin of every chip is found by each of its legs and by its own name', () => {
    for (const c of partsOfKind(library, 'chip'))
      for (const pin of c.pins) {
        expect(findPins(c, pin.id)[0]?.id).toBe(pin.id)
        for (const leg of pin.legs) expect(findPins(c, String(leg)).map((p) => p.id)).toContain(pin.id)
      }
  })
  test('a passport tells all names and abilities', () => {
    const pin = chip.pins.find((p) => p.id === 'PA4')!
    expect(passport(chip, pin)).toMatchObject({
      place: 'leg 5',
      names: ['PA4', 'number 4'],
      abilities: ['analog ADC A4', 'TWO SDA'],
    })
    expect(legName(pin)).toBe('leg 5 (PA4)')
  })
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

describe('the window for an I2C line’s pull-ups, by hand from the I2C-bus specification', () => {
  // Rail 5 V ± 2 % (BL5): R_min = (5.1 − 0.4) V / 3 mA = 1566.7 Ω whatever the speed. The TD8's leg and one sensor:
  // C_b = 10 pF + 10 pF or as the files say; R_max = t_r / (0.8473 · C_b) with t_r = 1000, 300 and 120 ns.
  const rail = analyse(timer, library).power.rail!
  const chip = chipOf('td8-28-dip')
  const plan = planPins({
    chip,
    needs: alone(signalsOf(['temperature-two-wire', 1])),
    choices: open,
    taken: {},
  })
  const line = plan.wires.find((w) => w.signal.id === 'i2c.SDA')!
  const load = 10e-12 + chip.io.capacitance.max!
  test.each([
    [100e3, 1000e-9],
    [400e3, 300e-9],
    [1e6, 120e-9],
  ])('%d Hz', (frequency, rise) => {
    const window = busWindow({ ...line, signal: { ...line.signal, frequency } }, chip, rail)!
    expect(window.smallest.value.max).toBeCloseTo((5.1 - 0.4) / 3e-3, 6)
    expect(window.largest.value.min).toBeCloseTo(rise / (0.8473 * load), 6)
  })
})
