// Transistors for a load, ranked by what the leg really gives: drive, channel, heat and base current by hand from the sheets.

import { demo, shippedLibrary } from '../../test/files'
import { analyse, offersFor, switchesOf } from '../analysis'
import { applyEdits, type Design } from '../design'
import type { Library, Transistor } from '../parts'
import { steps } from '../patience'

const library = shippedLibrary()
const look = (d: Design, of: Library = library) => analyse(d, of, steps(3000))
const by = (part: string) => (d: Design) =>
  applyEdits(d, [{ kind: 'setTransistor', id: 'd1', signal: 'drive', part, name: part }])
const door = () => demo('coop-door')
const ranked = (d: Design, of: Library = library) => switchesOf(look(d, of), of)[0]!.ranked
const of = (id: string, d = door(), from: Library = library) => ranked(d, from).find((r) => r.part.id === id)!
const nos = (id: string, d = door(), from: Library = library) => of(id, d, from).no.map((n) => n.text)

test('behind 3.3 V: the channel between two rows of the sheet, its heat and its junction', () => {
  // The cell may leave less than 3.3 V: the rail of 3.234 V at the least is what a fed one has.
  const d = { ...door(), power: { ...door().power, source: 'usb-port', charging: undefined } }
  const { drive, heat, junction, chosen, no } = of('nfet-strong', d)
  expect([chosen, no]).toEqual([true, []])
  const least = drive.value.min
  expect(least).toBeGreaterThan(3.2)
  // 80 mΩ at 2.7 V, 35 mΩ at 4.5 V; 0.8 A.
  const ohms = 0.08 - ((least - 2.7) / 1.8) * 0.045
  expect(heat!.value.max).toBeCloseTo(0.64 * ohms, 6)
  const theta = (library.parts['nfet-strong'] as Transistor).package.thermalResistance!
  expect(junction!.value.max).toBeCloseTo(35 + 0.64 * ohms * (theta.max ?? theta.typ!), 4)
})

test('why others don’t: threshold, current; a bipolar one runs hot, and takes from the leg what it doesn’t have', () => {
  expect(nos('nfet-plain')[0]).toMatch(/may need 4\sV to begin to conduct$/)
  // Its sheet knows its channel from 10 V on: what it would turn to heat here nobody knows.
  expect([of('nfet-plain').heat, of('nfet-plain').junction]).toEqual([undefined, undefined])
  expect(nos('nfet-small')).toEqual([
    expect.stringMatching(
      /^Door motor draws up to 800\smA through small n-channel MOSFET, which is made for 400\smA$/,
    ),
    // 0.64 A² · 3.3 Ω · 350 K/W are more than 700 K.
    expect.stringMatching(/^The transistor of Door motor reaches 7\d\d °C/),
  ])
  const strong = of('npn-strong')
  // A tenth of 0.8 A; 0.8 V · 0.8 A, where the MOSFET turns 0.05 W to heat.
  expect([strong.drive.value.max, strong.heat!.value.max]).toEqual([
    expect.closeTo(0.08, 9),
    expect.closeTo(0.64, 9),
  ])
  expect(strong.no.map((n) => n.text)).toEqual([
    expect.stringMatching(/^its base takes up to 80\smA all the while, and a leg is good for 20\smA$/),
    'what is fitted here drives a gate, not a base',
  ])
  expect(nos('npn-small')[1]).toMatch(/draws up to 800\smA, and it is made for 200\smA$/)
})

test('those that do come first, the cheapest first; a sheet without a channel is no reason against, and said', () => {
  const all = ranked(door())
  const count = all.map((r) => r.no.length)
  expect(count).toEqual([...count].sort((a, b) => a - b))
  const able = all.filter((r) => r.no.length === 0).map((r) => r.part.price)
  expect(able).toEqual([...able].sort((a, b) => a - b))
  expect(all.filter((r) => r.chosen).map((r) => r.part.id)).toEqual(['nfet-strong'])
  const bare: Library = {
    parts: {
      ...library.parts,
      'nfet-strong': { ...(library.parts['nfet-strong'] as Transistor), channel: undefined },
    },
  }
  const unknown = of('nfet-strong', door(), bare)
  expect([unknown.no, unknown.unsure.length, unknown.heat]).toEqual([[], 1, undefined])
})

test('chosen by hand it is fitted, judged, and mended by what is offered', () => {
  const plain = by('nfet-plain')(door())
  const before = look(plain)
  expect(before.build.support.find((s) => s.role === 'transistor')!.part.id).toBe('nfet-plain')
  const found = before.findings.find((f) => f.id === 'pins.switch-rating:off:d1.1.drive')!
  expect([found.severity, found.grade]).toEqual(['stops', 'impossible'])
  const { offers } = offersFor(before, library, found)
  expect(offers.map((o) => o.fix.label)).toContain('Switch it with strong n-channel MOSFET')
  const after = look(applyEdits(plain, offers[0]!.fix.edits))
  expect(after.findings.map((f) => f.check)).not.toContain('pins.switch-rating')
  // Taken back it is what the file proposes.
  const back = applyEdits(plain, [{ kind: 'setTransistor', id: 'd1', signal: 'drive', part: null, name: '' }])
  expect(back).toEqual(door())
})

test('one that isn’t there, and a bipolar one, are told: nothing switches the motor', () => {
  for (const [part, words] of [
    [
      'gone',
      /^The transistor of Door motor is “gone”, which is not in the library: nothing switches Door motor\.$/,
    ],
    ['npn-strong', /^strong NPN transistor can’t switch Door motor as it is fitted here/],
    ['pfet-low', /n-channel MOSFET, its gate on the leg\.$/],
  ] as const) {
    const design = by(part)(door())
    const before = look(design)
    const found = before.findings.filter((f) => f.check === 'pins.switch-rating')
    expect(found.map((f) => [f.id, f.severity, f.grade])).toEqual([
      ['pins.switch-rating:none:d1.1.drive', 'stops', 'impossible'],
    ])
    expect(found[0]!.text).toMatch(words)
    const { offers } = offersFor(before, library, found[0]!)
    expect(offers.length).toBeGreaterThan(0)
  }
})

test('a project without such loads ranks nothing', () => {
  const d = door()
  expect(
    switchesOf(
      look({ ...d, needs: { ...d.needs, states: undefined, devices: d.needs.devices.slice(1) } }),
      library,
    ),
  ).toEqual([])
})
