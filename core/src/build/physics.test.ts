// The circuit proves the wiring: what the stages foretell is what the netlist does when it is solved. And boards with one thing turned round
// each, which physics must notice.

import { join } from 'node:path'
import { demo, shippedLibrary } from '../../test/files'
import { prove } from '../../test/physics/prove'
import type { Placed } from '../../test/physics/board'
import { project } from '../../test/project'
import { withBridges, withOtherSwitches, withRails } from '../../test/rails'
import { shelf } from '../../test/referee/files'
import { randomProject } from '../../test/referee/projects'
import { deep, firstSeed } from '../../test/share'
import { type Analysis, analyse } from '../analysis'
import { applyEdits, readDesign } from '../design'
import { type Chip, partsOfKind } from '../parts'
import { steps } from '../patience'

const library = shippedLibrary()
const part = (id: string) => library.parts[id]
const demos = ['darkroom-timer', 'hive-scale', 'signal-cabin', 'window-lantern', 'coop-door']

test('guarded by a transistor: as foretold, and nothing flows the wrong way round', () => {
  for (const [source, regulator] of [
    ['cells-3-aa', undefined],
    ['adapter-5v', undefined],
    ['adapter-9v', 'bl5-cool'],
    ['cell-pouch-2ah', 'bl33-sparing'],
  ] as const) {
    const held: Record<string, number> = {}
    const d = project({
      chip: 'td8-28-dip',
      source,
      ...(regulator && { regulator }),
      devices: [['lamp-red', 'Lamp']],
    })
    const a = analyse({ ...d, power: { ...d.power, guard: 'pfet-strong' } }, library, steps(3000))
    expect([source, prove(a, part, undefined, held)]).toEqual([source, []])
    expect(held['reversed plug']).toBe(1)
  }
})

test.each(demos)('%s: rail, levels, lamps, loads as foretold', (name) => {
  expect(prove(analyse(demo(name), library), part)).toEqual([])
})

const sources = partsOfKind(library, 'source').map((s) => s.id)
const regulators = [...partsOfKind(library, 'regulator').map((r) => r.id), undefined]

/** A random project on this source and regulator, with further rails or other transistors. */
const drawn = (seed: number, source: string | undefined, regulator: string | undefined) => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  const random = randomProject(files, seed, { signals: [2, 16] }) as { power: object }
  const power = { ...random.power, source, regulator }
  const read = readDesign({ ...random, power }, `project ${seed}`)
  const by = [withRails, withOtherSwitches, withBridges][seed % 3]!
  const design = by(read, seed, library)
  return analyse(design, library, steps(3000))
}

test('a board on which the search for its voltages once went astray, and was taken for one that contradicts itself', () => {
  const d = project({
    chip: 'qm32-32',
    source: 'adapter-9v',
    regulator: 'br5-plain',
    feed: 'adapter-5v',
    devices: [
      ['shaker', 'Shaker', undefined, { transistors: { drive: 'pfet-low' } }],
      ['reed-contact', 'Reed'],
      ['lamp-white', 'Lamp', undefined, { settings: { 'light.current': 0.036 } }],
      ['rotary-encoder', 'Dial', undefined, { count: 2 }],
      ['remote-receiver', 'Remote', undefined, { count: 4 }],
      ['glow-display', 'Face', 'spi', { fedBy: 'feed' }],
    ],
  })
  const a = analyse(
    {
      ...d,
      stance: 'lean',
      pins: { ...d.pins, excluded: ['PA6', 'PA11'] },
      power: { ...d.power, guard: 'pfet-plain', lead: { fuse: 'fuse-0-5' } },
    },
    library,
    steps(3000),
  )
  expect(prove(a, part)).toEqual([])
})

const count = deep ? 200 : 12
test(`${count} random projects: as foretold too`, () => {
  const first = firstSeed('physics', 31)
  const held: Record<string, number> = {}
  const bad: string[] = []
  for (let seed = first; seed < first + count; seed++) {
    // Whatever can feed it, in turn: with a regulator and without.
    const source = sources[(seed - first) % sources.length]
    const regulator = regulators[((seed - first) * 7 + 3) % regulators.length]
    const a = drawn(seed, source, regulator)
    const wrong = prove(a, part, undefined, held)
    if (wrong.length) bad.push(`${seed} ${a.chip.chip?.id} ${source} ${regulator}: ${wrong.join(' | ')}`)
  }
  expect(bad).toEqual([])
  process.stdout.write(`physics: ${JSON.stringify(held)}\n`)
  expect(Object.keys(held).length).toBeGreaterThan(10)
})

describe('one thing turned round', () => {
  const timer = analyse(demo('darkroom-timer'), library)
  const lantern = analyse(demo('window-lantern'), library)
  const guarded = (source: string) =>
    analyse(
      readDesign(
        { ...project({ chip: 'td8-28-dip', source, devices: [] }), power: { source, guard: 'pfet-low' } },
        'guarded',
      ),
      library,
    )
  const above = analyse(
    project({
      chip: 'td8-28-dip',
      source: 'adapter-12v-heavy',
      regulator: 'bl5-low',
      devices: [['pump-12v', 'Pump', undefined, { fedBy: 'source', transistors: { drive: 'pfet-plain' } }]],
    }),
    library,
  )
  const [plugged, onCells] = [guarded('adapter-5v'), guarded('cells-3-aa')]
  /** The board with one part's legs on other nets. */
  const spoilt = (a: Analysis, which: (p: Placed) => boolean, nets: (at: string[]) => string[]) => {
    const found = a.build.placed.filter(which)
    expect(found).toHaveLength(1)
    return a.build.placed.map((p) => {
      if (p !== found[0]) return p
      const next = nets(p.legs.map((l) => l.net))
      return { ...p, legs: p.legs.map((l, k) => ({ ...l, net: next[k]! })) }
    })
  }
  const key = (k: string) => (p: Placed) => p.support?.key === k
  const named = (n: string) => (p: Placed) => p.name === n
  const chip = (p: Placed) => p.part.kind === 'chip'
  const turned = (at: string[]) => [...at].reverse()
  const with_ = (from: string, to: string) => (at: string[]) => at.map((n) => (n === from ? to : n))
  const exchanged = (a: string, b: string) => (at: string[]) => at.map((n) => (n === a ? b : n === b ? a : n))

  test.each<[string, Analysis, (p: Placed) => boolean, (at: string[]) => string[], RegExp]>([
    ['the plug', timer, key('entry'), turned, /rail at rest/],
    ['the polarity diode', timer, key('polarity-diode'), turned, /rail at rest/],
    [
      'the transistor against a turned plug',
      plugged,
      key('polarity-transistor'),
      exchanged('VPLUG', 'VCC'),
      /reversed plug/,
    ],
    ['the same on cells', onCells, key('polarity-transistor'), exchanged('VPLUG', 'VCC'), /reversed plug/],
    [
      'its gate on the plus',
      plugged,
      key('polarity-transistor'),
      with_('GND', 'VPLUG'),
      /rail at rest|reversed plug|supply legs/,
    ],
    ['the jack of a guarded plug', plugged, key('entry'), turned, /rail at rest/],
    ['regulator: in and out', timer, key('regulator'), exchanged('VIN', 'VCC'), /rail at rest/],
    ['regulator: in and ground', timer, key('regulator'), exchanged('VIN', 'GND'), /rail at rest/],
    ['regulator: ground and out', timer, key('regulator'), exchanged('GND', 'VCC'), /rail at rest/],
    ['the capacitor in front of it', timer, key('regulator-in'), turned, /capacitors/],
    ['the capacitor behind it', timer, key('regulator-out'), turned, /capacitors/],
    ['the bulk capacitor', timer, key('bulk'), turned, /capacitors/],
    ['the power lamp', timer, key('power-lamp'), turned, /power lamp/],
    ['its resistor to ground', timer, key('power-lamp-resistor'), with_('VCC', 'GND'), /power lamp/],
    ['the lamp', timer, named('Safe light'), turned, /lamps/],
    ['the lamp’s resistor to ground', timer, key('led:d7.1.light'), with_('SAFE_LIGHT', 'GND'), /lamps/],
    ['the pull-up of a bus line', timer, key('pull:i2c.SDA'), with_('VCC', 'GND'), /lines rest high/],
    ['the reset pull-up', timer, key('reset-pull-up'), with_('VCC', 'GND'), /reset rests high/],
    ['the reset button to the supply', timer, key('reset-button'), with_('GND', 'VCC'), /reset pressed/],
    [
      'the header, one contact on',
      timer,
      key('programming-header'),
      (at) => [at.at(-1)!, ...at.slice(0, -1)],
      /header/,
    ],
    ['the header, mirrored', timer, key('programming-header'), turned, /header/],
    [
      'the header, rows exchanged',
      timer,
      key('programming-header'),
      ([a, b, c, d, e, f]) => [b!, a!, d!, c!, f!, e!],
      /header/,
    ],
    [
      'transistor: drain and source',
      timer,
      key('transistor:d5.1.drive'),
      exchanged('BUZZER_LOW', 'GND'),
      /loads/,
    ],
    [
      'transistor: gate and drain',
      timer,
      key('transistor:d5.1.drive'),
      exchanged('BUZZER_GATE', 'BUZZER_LOW'),
      /loads/,
    ],
    [
      'in the plus: drain and source',
      above,
      key('transistor:d1.1.drive'),
      exchanged('VIN', 'PUMP_HIGH'),
      /loads rest/,
    ],
    [
      'in the plus: its gate’s resistor to ground',
      above,
      key('gate-pull-up:d1.1.drive'),
      with_('VIN', 'GND'),
      /loads rest/,
    ],
    [
      'in the plus: what pulls its gate',
      above,
      key('pulling:d1.1.drive'),
      exchanged('PUMP_PASS', 'GND'),
      /loads|burns/,
    ],
    ['in the plus: the coil’s diode', above, key('flyback:d1.1.drive'), turned, /loads|burns|rail/],
    ['the flyback diode', timer, key('flyback:d5.1.drive'), turned, /loads|burns|rail/],
    [
      'the gate’s pull-down to the supply',
      timer,
      key('gate-pull-down:d5.1.drive'),
      with_('GND', 'VCC'),
      /loads rest/,
    ],
    ['the divider to the supply', timer, key('divider:d8.1.level'), with_('GND', 'VCC'), /dividers/],
    ['a device’s supply and ground', timer, named('Lamp relay'), exchanged('VCC', 'GND'), /devices/],
    [
      'a button to the supply',
      timer,
      (p) => p.name === 'Start',
      with_('GND', 'VCC'),
      /contacts closed|devices/,
    ],
    // The far side of a package numbered from the wrong end: legs 15 to 28 the other way round.
    ['the chip’s far side', timer, chip, (at) => at, /lamps.*header/],
    ['the cells', lantern, key('entry'), turned, /rail/],
  ])('%s', (what, a, which, nets, told) => {
    const legs = (p: Placed) => (what === 'the chip’s far side' ? farSide(p) : undefined)
    const placed = spoilt(a, which, nets).map((p) => (which(p) ? (legs(p) ?? p) : p))
    expect(prove(a, part, placed).join(' | ')).toMatch(told)
  })

  // A sensor at 5 V on a chip at 3.3 V.
  const fitted = (shift: 'clamp' | 'divider' | 'mosfet') =>
    analyse(
      applyEdits(
        project({
          chip: 'mw2-module',
          regulator: 'bl33-low',
          devices: [['track-sensor', 'Far', 'plain', { fedBy: 'source' }]],
        }),
        [{ kind: 'fitShift', signal: 'd1.1.OUT', name: '', shift }],
      ),
      library,
    )
  test.each<['clamp' | 'divider' | 'mosfet', string, (at: string[]) => string[]]>([
    ['clamp', 'shift-diode', turned],
    ['clamp', 'shift-diode', with_('VCC', 'GND')],
    ['divider', 'shift-lower', with_('GND', 'FAR_FAR')],
    ['divider', 'shift-upper', with_('FAR', 'GND')],
    ['mosfet', 'shift-transistor', exchanged('FAR', 'FAR_FAR')],
    ['mosfet', 'shift-transistor', exchanged('VCC', 'FAR')],
    ['mosfet', 'shift-near', with_('VCC', 'GND')],
  ])('%s: %s', (shift, which, nets) => {
    const a = fitted(shift)
    const held = {}
    expect(prove(a, part, undefined, held)).toEqual([])
    expect(held).toMatchObject({ 'shifts high': 1, 'shifts low': 1 })
    expect(prove(a, part, spoilt(a, key(`${which}:d1.1.OUT`), nets)).join(' | ')).toMatch(/shifts/)
  })

  /** Each leg of the far side gets the net of the one opposite in its row. */
  const farSide = (p: Placed): Placed => {
    const all = (p.part as Chip).package.legs
    const number = (name: string) => Number(name.split(' ')[0])
    const net = new Map(p.legs.map((l) => [number(l.name), l.net]))
    const mirror = (n: number) => (n > all / 2 ? all + all / 2 + 1 - n : n)
    return {
      ...p,
      legs: (p.part as Chip).pins
        .flatMap((pin) => pin.legs.map((n) => ({ name: `${n} ${pin.id}`, net: net.get(mirror(n)) })))
        .filter((l): l is { name: string; net: string } => l.net !== undefined),
    }
  }
})
