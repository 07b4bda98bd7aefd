// Leads: what copper, joints and fuses are by their standards, what is found of a lead that is not made for what flows, and what is said of
// every other wire and fuse against what is found once it has been chosen.

import { join } from 'node:path'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { shelf } from '../../test/referee/files'
import { randomProject } from '../../test/referee/projects'
import { deep, firstSeed } from '../../test/share'
import { analyse, leadsOf, offersFor, sourcesOf } from '../analysis'
import { applyEdits, type Design, type Lead, readDesign } from '../design'
import { findPart, type Fuse, makeLibrary, partsOfKind, type Source } from '../parts'
import { steps } from '../patience'
import { fullRange } from '../quantity'
import { fuseHolds, leadOf, leadResistance, shortCurrent, wireCarries } from '../supply'

const library = shippedLibrary()
const wire = (id: string) => findPart(library, 'wire', id)!
const fuse = (id: string) => findPart(library, 'fuse', id)!
const look = (d: Design, of = library) => analyse(d, of, steps(3000))

describe('copper', () => {
  // IEC 60228, table 3, class 5 of plain copper: the most that a conductor may have at 20 °C, Ω/km.
  test.each([
    ['wire-0-5', 39.0],
    ['wire-0-75', 26.0],
    ['wire-1-5', 13.3],
  ])('%s has what IEC 60228 allows', (id, perKilometre) => {
    expect(fullRange(wire(id).resistance).max).toBeCloseTo(perKilometre / 1000, 9)
  })
  // ASTM B258: 0.127 mm · 92^((36 − n)/39); ρ = 1.7241e-8 Ωm at 20 °C (IEC 60028).
  test.each([
    ['wire-jumper', 28],
    ['wire-24', 24],
    ['wire-22', 22],
  ])('%s is copper of its gauge', (id, gauge) => {
    const d = 0.127e-3 * 92 ** ((36 - gauge) / 39)
    const r = 1.7241e-8 / ((Math.PI / 4) * d * d)
    expect(fullRange(wire(id).resistance).typ / r).toBeCloseTo(1, 2)
    expect(wire(id).gauge).toContain(`${gauge} AWG`)
  })
  // IEC 60364-5-52, table B.52.14: what is left in air of other than 30 °C of the current of an insulation for 70 °C.
  test.each([
    [25, 1.06],
    [40, 0.87],
    [50, 0.71],
    [60, 0.5],
  ])('in air of %d °C it may carry %d of what it is rated for', (air, share) => {
    expect(wireCarries({ part: wire('wire-0-5') }, air).value.typ / 3).toBeCloseTo(share, 2)
  })
  test('in air that is warmer than its insulation stands, nothing', () => {
    expect(wireCarries({ part: wire('wire-0-5') }, 85).value.max).toBe(0)
  })
})

test('a lead in a row: wires there and back in warm copper, each joint, the fuse', () => {
  const lead = leadOf(
    {
      power: {
        feedLead: { wire: 'wire-0-5', length: 1.5, joint: 'terminal-screw', joints: 4, fuse: 'fuse-2' },
      },
      chip: {},
      needs: { devices: [], limits: { ambient: 30 } },
    },
    library,
    'feed',
  )!
  // 2 · 1.5 m of 37 to 39 mΩ/m: at 20 °C 111 mΩ; at 30 °C · 264.5/254.5; at 70 °C 117 mΩ · 304.5/254.5. Four joints of 3 mΩ, 10 at
  // most. The fuse 55 mΩ, 70 at most.
  const { min, typ, max } = leadResistance(lead).value
  expect(min).toBeCloseTo(0.111 + 0.012 + 0.055, 6)
  expect(typ).toBeCloseTo(0.115361 + 0.012 + 0.055, 6)
  expect(max).toBeCloseTo(0.139986 + 0.04 + 0.07, 6)
})

test('a self-healing fuse of 0.5 A holds 0.4025 A in air of 45 °C, and one of 4 A 3.92 A', () => {
  // Halfway between 0.85 and 0.76; between 23 °C and 50 °C the other goes from 1 to 0.93: 22 of 27 of that.
  expect(fuseHolds(fuse('fuse-heals-0-5'), 45).value.typ).toBeCloseTo(0.5 * 0.805, 6)
  expect(fuseHolds(fuse('fuse-4'), 45).value.typ).toBeCloseTo(4 * (1 - (0.07 * 22) / 27), 6)
  expect(fuseHolds(fuse('fuse-heals-0-5'), 95).value.typ).toBeCloseTo(0.5 * 0.44, 6)
})

/** Pixels straight from the feed: 64 take 0.9 A, up to 3.2 A; 8 take 120 mA, up to 400 mA. */
const fed = (feed: string, lead: Lead, ambient = 30, pixels = 'pixel-field-64'): Design =>
  applyEdits(
    project({
      chip: 'td8-28-dip',
      source: 'adapter-9v',
      regulator: 'bl5-cool',
      devices: [[pixels, 'Field']],
    }),
    [
      { kind: 'setLimit', limit: 'ambient', value: ambient },
      { kind: 'chooseFeed', part: feed, name: feed },
      { kind: 'setFedBy', id: 'd1', by: 'feed' },
      { kind: 'changeLead', of: 'feed', change: lead, what: 'made' },
    ],
  )

const about = [
  'power.wire-too-thin',
  'power.fuse-trips',
  'power.fuse-guards',
  'power.no-fuse',
  'power.lost-on-the-way',
]
const foundIn = (d: Design, of = library) =>
  look(d, of)
    .findings.filter((f) => about.includes(f.check))
    .map((f) => [f.id.replace('power.', ''), f.severity, f.text] as const)

describe('what is found', () => {
  test.each<[string, Design, (readonly [string, string, RegExp])[]]>([
    [
      'a wire that is made for it, guarded by a fuse',
      fed('adapter-5v-heavy', { wire: 'wire-0-75', length: 0.2, fuse: 'fuse-4' }),
      // 8.4 A open it; the wire stands 1.45 · 6 A. The adapter gives 4 A: no sheet says what it gives into a short.
      [
        [
          'fuse-guards:feed:fuse-stays',
          'notes',
          /^In the lead of the second feed: 5 V adapter, 4 A gives 4 A, and Fuse 4 A opens surely only at 8\.4 A: whether a short opens it is not known/,
        ],
      ],
    ],
    [
      'a jumper wire',
      fed('adapter-5v-heavy', { wire: 'wire-jumper', length: 0.2 }),
      [
        [
          'wire-too-thin:feed:wire-carries',
          'stops',
          /Jumper wire may carry 600 mA in this air, and up to 3\.2 A flow through it/,
        ],
        ['no-fuse:feed:no-fuse', 'risks', /gives 4 A or more into a short; Jumper wire may carry 600 mA/],
        // 0.4 m of 235 mΩ, warm: 112 mΩ · 3.2 A leave 4.8 − 0.36 V.
        ['lost-on-the-way:feed', 'risks', /Field gets down to 4\.44 V, and needs 4\.5 V/],
      ],
    ],
    [
      'breadboard contacts',
      fed('adapter-5v-heavy', { joint: 'contact-breadboard', joints: 4 }),
      [
        ['wire-too-thin:feed:joint-carries', 'risks', /breadboard contact is made for 1 A/],
        // Four of 50 mΩ: 0.64 V of 4.8 V.
        ['lost-on-the-way:feed', 'risks', /gets down to 4\.16 V/],
      ],
    ],
    [
      'a fuse that opens in warm air',
      // 0.5 A · 0.76 at 50 °C; 400 mA flow at the most. Into a short the adapter gives 4 A and more.
      fed('adapter-5v-heavy', { fuse: 'fuse-heals-0-5' }, 50, 'pixel-strip-8'),
      [
        [
          'fuse-trips:feed:fuse-trips',
          'risks',
          /Self-healing fuse 0\.5 A holds 380 mA in air of 50 °C, and up to 400 mA flow with nothing wrong/,
        ],
      ],
    ],
    // 0.5 A · 0.85
    [
      'and in that of 40 °C does not',
      fed('adapter-5v-heavy', { fuse: 'fuse-heals-0-5' }, 40, 'pixel-strip-8'),
      [],
    ],
    [
      'a fuse that the usual current opens',
      fed('adapter-5v-heavy', { fuse: 'fuse-0-5' }),
      [
        ['fuse-trips:feed:fuse-trips', 'stops', /holds 491 mA in air of 30 °C/],
        // 0.5 Ω · 3.2 A; as usual 0.38 Ω · 0.9 A leave 4.66 V
        ['lost-on-the-way:feed', 'risks', /gets down to 3\.2 V/],
      ],
    ],
    [
      'a fuse that is too big for its wire',
      // 8.4 A > 1.45 · 3 A
      fed('adapter-5v-heavy', { wire: 'wire-0-5', length: 0.2, fuse: 'fuse-4' }),
      [
        ['wire-too-thin:feed:wire-carries', 'risks', /may carry 3 A/],
        [
          'fuse-guards:feed:fuse-too-big',
          'risks',
          /opens surely only at 8\.25 A in air of 30 °C; Cable 2 × 0\.5 mm² may carry 3 A then, and stands 4\.35 A for the while/,
        ],
        ['fuse-guards:feed:fuse-stays', 'notes', /not known/],
      ],
    ],
    [
      'a wire that its source can heat further than it stands, and nothing in the way',
      // 4 A > 3 A
      fed('adapter-5v-heavy', { wire: 'wire-0-5', length: 0.2 }, 30, 'pixel-strip-8'),
      [
        [
          'no-fuse:feed:no-fuse',
          'risks',
          /5 V adapter, 4 A gives 4 A or more into a short; Cable 2 × 0\.5 mm² may carry 3 A/,
        ],
      ],
    ],
    [
      'what is too low without any load is not the lead’s doing',
      fed('cells-3-aa', { wire: 'wire-1-5', length: 0.2, fuse: 'fuse-heals-0-5' }, 30, 'pixel-strip-8'),
      [],
    ],
    ['a lead of nothing', fed('adapter-5v-heavy', {}), []],
  ])('%s', (_, design, expected) => {
    const found = [...foundIn(design)].sort()
    expect(found).toEqual(
      [...expected].sort().map(([id, severity, text]) => [id, severity, expect.stringMatching(text)]),
    )
  })

  test('a lead battery without a fuse burns its wire; a fuse for 35 A can’t interrupt its short; one for 1000 A can', () => {
    const lead = { wire: 'wire-1-5', length: 0.5 }
    const of = (more: Lead) =>
      foundIn(
        applyEdits(
          project({ chip: 'td8-28-dip', source: 'battery-lead-12v', regulator: 'bl5-cool', devices: [] }),
          [{ kind: 'changeLead', of: 'source', change: { ...lead, ...more }, what: 'made' }],
        ),
      ).map(([id, severity]) => `${id} ${severity}`)
    expect(of({})).toEqual(['no-fuse:source:no-fuse risks'])
    // 12 V and more over its inner resistance and 13 mΩ of wire: by the part file.
    const battery = findPart(library, 'source', 'battery-lead-12v')!
    const R = fullRange(battery.resistance!)
    const most = shortCurrent({ part: battery }, undefined)!.value.max
    expect(most).toBeCloseTo(fullRange(battery.voltage).max / R.min, 6)
    expect(of({ fuse: 'fuse-4' })).toEqual(['fuse-guards:source:fuse-breaks risks'])
    expect(of({ fuse: 'fuse-4-strong' })).toEqual([])
  })
  test('cells that are too weak to open a fuse, and a source above what it can interrupt', () => {
    const on = (source: string, of: Lead, library_ = library) =>
      foundIn(
        applyEdits(project({ chip: 'td8-28-dip', source, devices: [] }), [
          { kind: 'changeLead', of: 'source', change: of, what: 'made' },
        ]),
        library_,
      )
    expect(on('cell-coin', { fuse: 'fuse-4' }).map(([id, s]) => `${id} ${s}`)).toContain(
      'fuse-guards:source:fuse-stays notes',
    )
    const high: Source = {
      ...findPart(library, 'source', 'adapter-12v')!,
      id: 'high',
      voltage: { typ: 36, max: 37, kind: 'guaranteed' },
    }
    const [found] = on(
      'high',
      { fuse: 'fuse-heals-0-5' },
      makeLibrary([...Object.values(library.parts), high]),
    ).filter(([id]) => id.includes('voltage'))
    expect(found?.[2]).toMatch(
      /interrupts up to 30 V, and 12 V adapter.* has up to 37 V: it may go on burning/,
    )
  })
  test('at the edges: a fuse for more than its wire that opens soon enough, and one that a usual short would not burst', () => {
    const [battery, thick] = [findPart(library, 'source', 'battery-lead-12v')!, wire('wire-1-5')]
    const of = (more: Partial<Fuse>, wireId: string) => {
      const odd: Fuse = { ...fuse('fuse-4-strong'), id: 'odd', name: 'Odd', ...more }
      return foundIn(
        applyEdits(project({ chip: 'td8-28-dip', source: battery.id, regulator: 'bl5-cool', devices: [] }), [
          {
            kind: 'changeLead',
            of: 'source',
            change: { wire: wireId, length: 1, fuse: 'odd' },
            what: 'made',
          },
        ]),
        makeLibrary([...Object.values(library.parts), odd]),
      ).map(([id]) => id)
    }
    const rated = (max: number) => ({ max, kind: 'recommended' as const })
    // 0.5 mm² may carry 3 A, and stands 4.35 A.
    expect(of({ current: rated(3.2), trips: rated(4) }, 'wire-0-5')).toEqual([
      'fuse-guards:source:fuse-too-big',
    ])
    expect(of({ current: rated(2.9), trips: rated(4) }, 'wire-0-5')).toEqual([])
    // As usual 12.24 V over 22 mΩ, 25.4 mΩ of wire and 22 mΩ of fuse, at most 12.95 V: 176 A, and up to 187 A.
    const R = 0.022 + 2 * fullRange(thick.resistance).typ + 0.022
    expect([12.24 / R < 180, 12.95 / R > 183]).toEqual([true, true])
    expect(of({ breaking: rated(181) }, 'wire-1-5')).toEqual(['fuse-guards:source:fuse-breaks'])
    expect(of({ breaking: rated(200) }, 'wire-1-5')).toEqual([])
  })
  test('what is offered against each is a wire or a fuse that does, and clears it', () => {
    const before = look(fed('adapter-5v-heavy', { wire: 'wire-jumper', length: 0.2 }))
    const offered = (check: string) =>
      offersFor(
        before,
        library,
        before.findings.find((f) => f.check === check)!,
        steps(3000),
      ).offers.map((o) => o.fix.label)
    // 6 A for 0.60 €, the cheapest that carries 3.2 A
    expect(offered('power.wire-too-thin')[0]).toBe('Wire of the lead of the second feed: Cable 2 × 0.75 mm²')
    expect(offered('power.lost-on-the-way').length).toBeGreaterThan(0)
  })
})

test('a lead battery is told without a fuse, though nothing is said of its lead; and no wire does until there is one', () => {
  const battery = project({
    chip: 'td8-28-dip',
    source: 'battery-lead-12v',
    regulator: 'bl5-cool',
    devices: [],
  })
  // 12.95 V over 22 mΩ
  expect(foundIn(battery)).toEqual([
    [
      'no-fuse:source:no-fuse',
      'risks',
      'In the lead from the source: lead battery, 12 V 7 Ah drives up to 589 A into a short, and there is no fuse: whatever wire there is burns.',
    ],
  ])
  const before = look(battery)
  const offers = offersFor(
    before,
    library,
    before.findings.find((f) => f.check === 'power.no-fuse')!,
    steps(3000),
  )
  expect(offers.offers.map((o) => o.fix.label)).toEqual([
    // Its 0.38 Ω leave 32 A of a short, and it interrupts 35 A.
    'Fuse of the lead from the source: Fuse 0.5 A',
    'Fuse of the lead from the source: Fuse 4 A, for lead batteries',
  ])
  const led = (more: Lead) =>
    leadsOf(
      look(
        applyEdits(battery, [{ kind: 'changeLead', of: 'source', change: { length: 1, ...more }, what: '' }]),
      ),
      library,
    )[0]!.wires.filter((w) => w.no.length === 0)
  expect(led({})).toEqual([])
  // 8.4 A open it: 5.8 A and more the wire must carry; 8 A, and 16 A do, at the price.
  expect(led({ fuse: 'fuse-4-strong' }).map((w) => w.wire.id)).toEqual([
    'wire-0-75',
    'wire-1-5',
    'wire-0-5-warm',
  ])
})

test('what no sheet tells is said: a joint without a rating, and a fuse in warmer air than its curve knows', () => {
  const screw = findPart(library, 'connector', 'terminal-screw')!
  const bare = makeLibrary([
    ...Object.values(library.parts),
    { ...screw, id: 'unrated', name: 'Old terminal', current: undefined },
  ])
  expect(foundIn(fed('adapter-5v-heavy', { joint: 'unrated', joints: 1 }), bare)).toEqual([
    [
      'wire-too-thin:feed:joint-carries',
      'notes',
      'In the lead of the second feed: no sheet says what Old terminal may carry, and up to 3.2 A flow through it.',
    ],
  ])
  const at = (air: number) =>
    foundIn(fed('adapter-5v-heavy', { fuse: 'fuse-heals-1-1' }, air, 'pixel-strip-8')).map(
      ([id, severity]) => `${id} ${severity}`,
    )
  // Its curve ends at 85 °C: 1.1 A · 0.44 = 484 mA.
  expect([at(85), at(86)]).toEqual([[], ['fuse-trips:feed:fuse-curve risks']])
})

test('what is named and in no sum is said: parts that are not there, and a lead that is said by half', () => {
  const of = (power: Partial<Design['power']>) =>
    look({ ...fed('adapter-5v-heavy', {}), power: { source: 'adapter-9v', regulator: 'bl5-cool', ...power } })
      .findings.filter((f) => f.check === 'power.not-reckoned')
      .map((f) => `${f.severity}: ${f.text}`)
      .sort()
  const gone = (what: string, id: string) =>
    `stops: The ${what} is “${id}”, which is not in the library: nothing about it is computed.`
  expect(of({})).toEqual([])
  expect(of({ source: 'a', regulator: 'b', feed: 'c' })).toEqual([
    gone('regulator', 'b'),
    gone('second feed', 'c'),
    gone('source', 'a'),
  ])
  expect(of({ lead: { wire: 'd', length: 1, joint: 'e', joints: 1, fuse: 'f' } })).toEqual([
    gone('fuse of the lead from the source', 'f'),
    gone('joint of the lead from the source', 'e'),
    gone('wire of the lead from the source', 'd'),
  ])
  expect(of({ lead: { wire: 'wire-24', joint: 'terminal-screw' } })).toEqual([
    'risks: In the lead from the source the joints are left out of every sum: nothing says how many there are.',
    'risks: In the lead from the source the wires are left out of every sum: nothing says how long they are.',
  ])
  // Of a second feed that there is not nothing is asked.
  expect(of({ feedLead: { wire: 'wire-24' } })).toEqual([])
})

test('a source is no good for a lead whose fuse can’t interrupt its short', () => {
  const of = (fuseId: string) =>
    look(
      applyEdits(
        project({
          chip: 'td8-28-dip',
          source: 'adapter-12v',
          regulator: 'bs5-drop',
          devices: [['fan-5v', 'Fan']],
        }),
        [{ kind: 'changeLead', of: 'source', change: { fuse: fuseId }, what: 'made' }],
      ),
    )
  const batteryWith = (fuseId: string) =>
    sourcesOf(of(fuseId), library)
      .find((s) => s.source.id === 'battery-lead-12v')!
      .no.map((n) => n.text)
  // 12.95 V over 22 mΩ, and the fuse: hundreds of amperes.
  expect(batteryWith('fuse-4')).toEqual([
    expect.stringMatching(
      /^a short draws up to \d+ A from .*, and Fuse 4 A can interrupt 40 A: it may burst/,
    ),
  ])
  expect(batteryWith('fuse-4-strong')).toEqual([])
})

test('what is built: the lead first, its parts in the list, and what a meter says at its end', () => {
  const { build } = look(
    fed('adapter-5v-heavy', {
      wire: 'wire-0-75',
      length: 1.2,
      joint: 'terminal-screw',
      joints: 3,
      fuse: 'fuse-4',
    }),
  )
  const step = build.steps[0]!
  expect([step.title, step.does]).toEqual([
    'Lead of the second feed',
    [
      'Two conductors of 1.2 m, Cable 2 × 0.75 mm²: plus and minus, told apart by colour or a knot.',
      'Fuse 4 A goes into the plus, as near to 5 V adapter, 4 A as can be.',
      'screw terminal, 3 contacts in all: pull at each wire, none may slip.',
    ],
  ])
  expect(step.checks.map((c) => [c.powered, c.expect.unit])).toEqual([
    [false, 'Ω'],
    [false, 'Ω'],
    [true, 'V'],
  ])
  expect([step.checks[2]!.expect.min, step.checks[2]!.expect.max]).toEqual([4.8, 5.2])
  expect(step.cautions).toContain('mains')
  // 2.4 m are three whole metres; three contacts are two terminals of two.
  expect(
    build.parts.filter((p) => /^(wire|fuse|terminal)/.test(p.part)).map((p) => [p.part, p.count, p.total]),
  ).toEqual([
    ['fuse-4', 1, 0.4],
    ['terminal-screw', 2, 0.9],
    ['wire-0-75', 3, expect.closeTo(1.8, 9)],
  ])
})

test('a yes brings no finding of the lead when it is taken, a no brings one', () => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  const seed = firstSeed('leads')
  const counts = { yes: 0, no: 0 }
  const wrong: string[] = []
  for (let n = 0; n < (deep ? 60 : 6); n++) {
    const drawn = randomProject(files, seed + n, { signals: [2, 10] }) as { power: object }
    const sources = partsOfKind(library, 'source')
    const regulators = partsOfKind(library, 'regulator')
    const power = {
      source: sources[(seed + 5 * n) % sources.length]!.id,
      regulator: n % 3 === 2 ? undefined : regulators[(seed + n) % regulators.length]!.id,
      // With nothing that a wire or a fuse could be blamed for.
      lead: { length: [0.1, 0.5, 2, 10][n % 4]! },
    }
    const design = readDesign({ ...drawn, power: { ...drawn.power, ...power } }, 'random')
    const ofSupply = ['power.sags', 'power.dropout', 'power.collapses', 'power.lost-on-the-way']
    const before = look(design)
    const was = before.findings.map((f) => f.id)
    const worse = (now: Design, fields: string[]) => {
      return look(now)
        .findings.filter((f) => f.severity !== 'notes' || ofSupply.includes(f.check))
        .filter(
          (f) => fields.some((x) => f.id.includes(x)) || (ofSupply.includes(f.check) && !was.includes(f.id)),
        )
        .filter((f) => !f.id.includes(':feed'))
        .map((f) => f.id)
    }
    for (const { of, wires, fuses } of leadsOf(before, library)) {
      if (of === 'feed') continue
      const tried = [
        ...wires.map((w) => ({
          no: w.no,
          change: { wire: w.wire.id },
          about: ['wire-carries', 'fuse-too-big', 'no-fuse'],
        })),
        ...fuses.map((f) => ({ no: f.no, change: { fuse: f.fuse.id }, about: ['fuse-'] })),
      ]
      for (const { no, change, about: fields } of tried) {
        const found = worse(applyEdits(design, [{ kind: 'changeLead', of, change, what: 'tried' }]), fields)
        counts[no.length > 0 ? 'no' : 'yes']++
        if (no.length > 0 !== found.length > 0)
          wrong.push(
            `seed ${seed + n}, ${power.source}, ${power.regulator}, ${JSON.stringify(change)}: said ${no.map((x) => x.text).join('; ') || 'yes'}, found ${found.join(', ') || 'nothing'}`,
          )
      }
    }
  }
  expect(wrong).toEqual([])
  expect(Math.min(counts.yes, counts.no)).toBeGreaterThan(0)
}, 600_000)
