// A plug that gives nothing until it finds its two resistors: USB Type-C, 5.1 kΩ ± 20 % from each of CC1 and CC2 to ground.

import { shippedLibrary } from '../../test/files'
import { project, type Project } from '../../test/project'
import { analyse } from '../analysis'
import { applyEdits } from '../design'
import type { Library } from '../parts'
import { steps } from '../patience'

const library = shippedLibrary()
const look = (more: Partial<Project> = {}, of: Library = library) =>
  analyse(project({ chip: 'td8-28-dip', source: 'usb-c-charger', devices: [], ...more }), of, steps(3000))
const asking = (a: ReturnType<typeof look>) => a.build.support.filter((s) => s.role === 'asking resistor')
const told = (a: ReturnType<typeof look>) =>
  a.findings.filter((f) => f.check === 'power.plug-fits').map((f) => [f.id, f.severity])
const without = (ids: string[], change: Library['parts'] = {}): Library => ({
  parts: {
    ...Object.fromEntries(Object.entries(library.parts).filter(([id]) => !ids.includes(id))),
    ...change,
  },
})

test('one resistor for each way round its plug goes in, each on a contact of its own, never one for both', () => {
  const a = look()
  // 4.7 kΩ of E12 is the nearest to 5.1 kΩ; 5 % off it is 4.47 kΩ to 4.94 kΩ, within 4.08 kΩ to 6.12 kΩ.
  expect(asking(a).map((s) => [s.value!.marking, s.part.kind, s.present])).toEqual([
    ['4k7', 'resistors', true],
    ['4k7', 'resistors', true],
  ])
  const nets = asking(a).map((s) => s.legs.map((l) => l.net))
  expect(nets.map((n) => n[1])).toEqual(['GND', 'GND'])
  expect(nets[0]![0]).not.toBe(nets[1]![0])
  const jack = a.build.support.find((s) => s.role === 'entry')!
  expect(jack.part.id).toBe('jack-usb-c')
  expect(jack.legs.map((l) => l.name)).toEqual(['+', '−', 'CC1', 'CC2'])
  expect(jack.legs.slice(2).map((l) => l.net)).toEqual(nets.map((n) => n[0]))
  // Nothing else hangs there.
  for (const [net] of nets)
    expect(a.build.placed.flatMap((p) => p.legs).filter((l) => l.net === net)).toHaveLength(2)
  expect(told(a)).toEqual([])
  const [first] = asking(a)
  const out = applyEdits(a.design, [{ kind: 'leaveOut', support: first!.key, name: first!.name }])
  const bare = analyse(out, library, steps(3000))
  expect(bare.findings.some((f) => f.severity === 'stops' && f.text.includes('gives nothing'))).toBe(true)
})

test('before anything is plugged in each is measured by itself: 4.7 kΩ of 5 %, and half of it where both are on one contact', () => {
  for (const [a, title] of [
    [look(), 'Supply'],
    [look({ source: 'adapter-9v', regulator: 'bl5-low', feed: 'usb-c-charger' }), 'Second feed'],
  ] as const) {
    const checks = a.build.steps
      .find((s) => s.title === title)!
      .checks.filter((c) => c.where.includes('_ASK'))
    expect(checks.map((c) => [c.powered, c.expect.min, c.expect.max])).toEqual([
      [false, 4465, 4935],
      [false, 4465, 4935],
    ])
    expect(checks[0]!.otherwise).toMatch(/half of it: both resistors are on one contact/)
  }
})

test('a second feed asks by itself; an older plug needs none', () => {
  const both = look({ source: 'adapter-9v', regulator: 'bl5-low', feed: 'usb-c-charger' })
  expect(asking(both).map((s) => s.legs[0]!.net)).toEqual(['VFEED_ASK1', 'VFEED_ASK2'])
  const old = look({ source: 'usb-charger' })
  expect([asking(old), old.build.support.find((s) => s.role === 'entry')!.part.id]).toEqual([[], 'jack-usb'])
})

test('a jack that has them gets no more', () => {
  const jack = library.parts['jack-usb-c']!
  const a = look({}, without([], { 'jack-usb-c': { ...jack, asks: true } as typeof jack }))
  expect(asking(a)).toEqual([])
  // Nor does the drawer matter then.
  const film = library.parts['resistor-film']!
  const coarse = without([], {
    'jack-usb-c': { ...jack, asks: true } as typeof jack,
    'resistor-film': { ...film, tolerance: 0.2 } as typeof film,
  })
  expect(told(look({}, coarse))).toEqual([])
  expect(a.build.support.find((s) => s.role === 'entry')!.legs).toHaveLength(2)
})

test('without a jack for it that stops; what isn’t known of a board, or not in the drawer, is said', () => {
  expect(told(look({}, without(['jack-usb-c'])))).toEqual([['power.plug-fits:none:source', 'stops']])
  expect(told(look({ chip: 'stick-td8' }))).toContainEqual(['power.plug-fits:waits:source', 'notes'])
  const film = library.parts['resistor-film']!
  // 20 % off 4.7 kΩ is 3.76 kΩ.
  const coarse = without([], { 'resistor-film': { ...film, tolerance: 0.2 } as typeof film })
  expect(told(look({}, coarse))).toContainEqual(['power.plug-fits:asking:source', 'risks'])
})
