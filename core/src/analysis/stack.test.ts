// Versions of devices, other boards of one header, a second feed, and every name of a pin, on whole projects.

import { demo, shippedLibrary } from '../../test/files'
import { project, type Project } from '../../test/project'
import { applyEdits, type Design } from '../design'
import { findPins, pinNames } from '../legs'
import { analyse, otherBoardsOf, variantsOf } from '.'

const library = shippedLibrary()

test('every version of a device is checked with the wires where they are', () => {
  const design = project({
    chip: 'trestle-radio',
    source: 'adapter-9v',
    devices: [
      ['display-deck', 'Screen'],
      ['push-button', 'Go'],
    ],
  })
  const [verdict, ...others] = variantsOf(design, library)
  expect(others).toEqual([])
  expect([verdict!.name, verdict!.variant, verdict!.tried]).toEqual(['Screen', 'b', false])
  expect(verdict!.findings.map((f) => f.check)).toEqual(['pins.strap-held'])
  // On the board whose position is no strap the same version holds; from it, so does the sheet's.
  const plain = { ...design, chip: { part: 'trestle-plain' } }
  expect(variantsOf(plain, library).map((v) => v.findings)).toEqual([[]])
  const met = applyEdits(plain, [{ kind: 'setVariant', id: 'd1', variant: 'b' }])
  expect(variantsOf(met, library).map((v) => [v.variant, v.findings])).toEqual([[undefined, []]])
})

test('another board is judged by itself, with each wire at its position', () => {
  const design = project({
    chip: 'trestle-32',
    source: 'adapter-9v',
    devices: [['relay-deck', 'Crane', 'inner', { fedBy: 'feed' }]],
    feed: 'adapter-5v',
  })
  const also = (part: string) =>
    otherBoardsOf(applyEdits(design, [{ kind: 'setAlso', part, name: '', on: true }]), library)
  expect(also('trestle-plain').map((b) => [b.name, b.findings])).toEqual([['Trestle plain', []]])
  const [radio] = also('trestle-radio')
  expect(radio!.findings.map((f) => f.check).sort()).toEqual(['pins.startup-twitch', 'pins.strap-held'])
  expect(otherBoardsOf(design, library)).toEqual([])
})

describe('a second feed', () => {
  const fed = project({
    chip: 'trestle-32',
    source: 'adapter-9v',
    feed: 'adapter-5v-heavy',
    devices: [
      ['servo-deck', 'Points', undefined, { fedBy: 'feed' }],
      ['push-button', 'Go'],
    ],
  })
  test('its loads are on it alone: 2.6 A there, none of it on the rail or the source', () => {
    const { power } = analyse(fed, library)
    expect(power.feed!.current.value.max).toBeCloseTo(2.6, 9)
    expect(power.work.value.max).toBeLessThan(0.2)
    expect(power.fromSource.value.max).toBeLessThan(0.2)
  })
  test('in the build its ground is joined and its plus is not, and its step comes before the loads', () => {
    const { build } = analyse(fed, library)
    const plus = build.nets.find((n) => n.name === 'VFEED')!
    const ground = build.nets.find((n) => n.name === 'GND')!
    const jack = build.placed.find((p) => p.support?.key === 'feed')!.ref
    expect(plus.nodes.map((n) => n.ref)).toContain(jack)
    expect(ground.nodes.map((n) => n.ref)).toContain(jack)
    expect(build.nets.find((n) => n.name === 'VCC')!.nodes.map((n) => n.ref)).not.toContain(jack)
    const titles = build.steps.map((s) => s.title)
    expect(titles.indexOf('Second feed')).toBeLessThan(titles.indexOf('Points'))
    expect(build.steps.find((s) => s.title === 'Second feed')!.cautions).toContain('joined-grounds')
    expect(build.parts.map((p) => p.part)).toContain('adapter-5v-heavy')
  })
  test('without it they go back to the rail, and what then is wrong is said', () => {
    const back = applyEdits(fed, [{ kind: 'chooseFeed', part: null, name: '' }])
    expect(back.needs.devices[0]!.fedBy).toBeUndefined()
    const findings = analyse(back, library).findings
    const supply = findings.find((f) => f.check === 'power.device-supply')!
    const fix = supply.fixes.find((f) => /second feed/.test(f.label))!
    expect(analyse(applyEdits(back, fix.edits), library).findings.map((f) => f.id)).not.toContain(supply.id)
  })
  test('in front of the regulator a load is on the source, not on the rail', () => {
    const d = project({
      chip: 'qm32-48',
      source: 'usb-port',
      regulator: 'bl33-low',
      devices: [['relay-module', 'Relay', undefined, { fedBy: 'source' }]],
    })
    const { power, build } = analyse(d, library)
    expect(power.fromSource.value.max - power.work.value.max).toBeGreaterThan(0.08)
    expect(build.nets.find((n) => n.name === 'VIN')!.nodes.map((n) => n.terminal)).toContain('VCC')
  })
})

test('in the build an expansion board is set, plugged on, and fed by its own terminals; what it prints is in the table', () => {
  const { build } = analyse(demo('signal-cabin'), library)
  const crane = build.steps.find((s) => s.title === 'Crane')!
  expect(crane.does).toEqual([
    'Set shunts R of Crane: relays at R3 and R4.',
    expect.stringMatching(/^M2, Crane, goes onto the trestle header/),
    'Its own supply terminals: V to VFEED, ground to GND.',
  ])
  expect(crane.cautions).toContain('mains')
  const panel = build.steps.find((s) => s.title === 'Panel')!
  expect(panel.does.some((d) => d.includes('own supply'))).toBe(false)
  const ends = build.wiring.filter((r) => r.net === 'CRANE_K1').map((r) => [r.from.terminal, r.to.terminal])
  expect(ends).toEqual([['T4 PA8', 'R3 K1']])
})

test('every name of a pin: package, port, boards, expansion board, terminal', () => {
  const { chip, needs, pins } = analyse(demo('signal-cabin'), library)
  const names = pinNames(chip.chip!, library, needs.instances, pins.plan!.wires)
  const said = names.get('PA6')!.map((n) => `${n.by}: ${n.name}`)
  for (const name of [
    'QM32-64: leg 13',
    'port: PA6',
    'Trestle 32: T2',
    'Trestle plain: T2',
    'port on Trestle plain: PB2',
    'Points: P1',
    'Points, terminal: S1',
  ])
    expect(said).toContain(name)
  for (const text of ['P1', 'leg 13', 'Points S1'])
    expect(findPins(chip.chip!, text, names).map((p) => p.id)).toContain('PA6')
})

describe('two boards of one header', () => {
  const devices: Project['devices'] = [
    ['servo-small', 'Points', undefined, { fedBy: 'feed' }],
    ['temperature-analog', 'Heat'],
    ['push-button', 'Bell'],
    ['humidity-two-wire', 'Air'],
    ['track-sensor', 'Track', 'edge'],
  ]
  const both = (chip: string, also: string[]): Design => {
    const d = project({ chip, source: 'adapter-9v', feed: 'adapter-5v', devices })
    return { ...d, chip: { ...d.chip, also } }
  }
  const design = both('trestle-plain', ['trestle-radio', 'trestle-32'])
  const { plan } = analyse(design, library).pins
  test('the plan holds on each of them: locked by position it is a plan of every board alone', () => {
    expect(plan!.status).toBe('proven')
    for (const [i, id] of ['trestle-32', 'trestle-radio'].entries()) {
      const other = plan!.wires.map((w) => w.others!.find((o) => o.chip.id === id)!)
      expect(other.every((o) => o !== undefined)).toBe(true)
      const locks = Object.fromEntries(plan!.wires.map((w, n) => [w.signal.id, other[n]!.pin.id]))
      const alone = { ...both(id, []), pins: { ...design.pins, locks } }
      const there = analyse(alone, library).pins.plan!
      expect([i, there.status, there.wires.filter((w) => w.impossible).length]).toEqual([i, 'proven', 0])
      // The same hole of the header, under another name.
      for (const [n, w] of plan!.wires.entries()) expect(w.pin.places).toContain(other[n]!.place)
    }
  })
  test('it costs no less than either board alone, and a position that one of them can’t use is not used', () => {
    const alone = analyse(both('trestle-plain', []), library).pins.plan!
    expect(plan!.cost).toBeGreaterThanOrEqual(alone.cost)
    const air = plan!.wires.find((w) => w.signal.id === 'i2c.SDA')!
    // The 32-bit board has its two-wire lines on the bus pair only.
    expect(air.others!.map((o) => o.place)).toEqual(['trestle bus.1', 'trestle bus.1'])
  })
  test('a board of another header is no second target', () => {
    const other = both('trestle-plain', ['stick-mw2'])
    expect(analyse(other, library).pins.plan!.wires[0]!.others).toBeUndefined()
  })
})
