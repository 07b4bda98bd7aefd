import { demo, shippedLibrary } from '../../test/files'
import { candidateOf } from '../analysis'
import { applyEdits, type Edit } from '../design'
import { findPart, partsOfKind } from '../parts'
import { resolveNeeds } from '../needs'
import { askedOf, candidateOrder, carriers, compareChips } from '.'

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
  test('what fits comes first, the cheaper before the dearer', () => {
    const order = carriers(library)
      .map((c) => verdict(c.id))
      .sort(candidateOrder)
      .map((c) => [c.fits, c.but.length > 0, c.chip.price] as const)
    const sorted = [...order].sort(
      (a, b) => Number(b[0]) - Number(a[0]) || Number(a[1]) - Number(b[1]) || a[2] - b[2],
    )
    expect(order).toEqual(sorted)
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
