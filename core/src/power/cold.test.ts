// Cells in the cold and after many charges, by hand from the figures of their sheets, which are read here anew.

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse, proposalsFor, sourcesOf } from '../analysis'
import { applyEdits, type Design, type Limits } from '../design'
import { type FaultyFile, findPart, makeLibrary, readPart, type Source } from '../parts'
import { fuseOpens, leadResistance } from '../supply'
import { burstsOf, streamsOf } from '.'
import { stockOf } from '../circuit'

const library = shippedLibrary()
const with_ = (design: Design, limits: Partial<Limits>): Design =>
  applyEdits(
    design,
    (Object.entries(limits) as [keyof Limits, number][]).map(([limit, value]) => ({
      kind: 'setLimit',
      limit,
      value,
    })),
  )
const fed = (source: string, limits: Partial<Limits> = {}) =>
  with_(project({ chip: 'td8-28-dip', source, devices: [['weight-amplifier', 'Scale']] }), {
    awake: 0.01,
    ...limits,
  })
const cellsOf = (d: Design, of = library) => analyse(d, of).power.cells!
const found = (d: Design, of = library) =>
  analyse(d, of)
    .findings.filter((f) => f.check === 'power.cold-cells')
    .map((f) => [f.id.replace('power.cold-cells:', ''), f.severity])

describe('by hand', () => {
  test.each<[string, Partial<Limits>, [number, number, number]]>([
    // Figure 2 at −10 °C: 0.25 to 0.5 of 1.8 to 2.7 Ah; 20 °C is the usual, and the best.
    ['cells-3-aa', { coldest: -10, ambient: 30 }, [1.8 * 0.25, 2.3, 2.7]],
    // Halfway from −10 to 0 °C: (0.25 + 0.55) / 2. It never gets warmer than 0 °C: 0.65 and 0.75 of it.
    ['cells-3-aa', { coldest: -5, ambient: 0 }, [1.8 * 0.4, 2.3 * 0.65, 2.7 * 0.75]],
    // Never colder than 20 °C.
    ['cells-3-aa', { coldest: 25, ambient: 40 }, [1.8, 2.3, 2.7]],
    // Below the figure it is held at its end: 0.08.
    ['cells-3-aa', { coldest: -40, ambient: 30 }, [1.8 * 0.08, 2.3, 2.7]],
    // Figure 3: after 300 charges 0.75 to 0.9; half of them lie behind it usually: between 1 and 0.93 … 0.82 at 150: 0.9025.
    ['cell-pouch-2ah', { charges: 300 }, [1.9 * 0.75, 2 * (0.93 - (0.93 - 0.82) / 4), 2.05]],
    // Both: 0.78 at 0 °C, 0.88 after 100.
    ['cell-pouch-2ah', { charges: 100, coldest: 0, ambient: 30 }, [1.9 * 0.78 * 0.88, 2 * 0.965, 2.05]],
  ])('%s, %p: ampere-hours', (source, limits, [min, typ, max]) => {
    const { charge, runtime } = cellsOf(fed(source, limits))
    expect(charge!.value.min).toBeCloseTo(min, 9)
    expect(charge!.value.typ).toBeCloseTo(typ, 9)
    expect(charge!.value.max).toBeCloseTo(max, 9)
    const plain = cellsOf(fed(source, { ambient: limits.ambient ?? 30 }))
    expect(plain.charge).toBeUndefined()
    // No better than at 20 °C and new.
    expect(runtime.value.min).toBeLessThanOrEqual(plain.runtime.value.min)
  })

  test('a third of the charge is a third of the time, but for what they lose by themselves', () => {
    const [at20, cold] = [
      fed('cells-3-aa', { ambient: 25 }),
      fed('cells-3-aa', { ambient: 25, coldest: -10 }),
    ].map((d) => {
      const { power } = analyse(d, library)
      return {
        t: power.cells!.runtime.value.min,
        I: power.average.value.max,
        k: power.cells!.usable!.value.min,
      }
    })
    // 5 % a year of what there is at that time, 1.8 Ah and 0.45 Ah, beside what flows.
    const hours = (Q: number, I: number, k: number) => (Q * k) / (I + (Q * 0.05) / 8766)
    expect(at20!.t / 3600).toBeCloseTo(hours(1.8, at20!.I, at20!.k), 3)
    expect(cold!.t / 3600).toBeCloseTo(hours(0.45, cold!.I, cold!.k), 3)
  })

  test('what falls inside them: 0.9 Ω, five times that at −10 °C (figure 2), with all that is drawn', () => {
    const { power } = analyse(fed('cells-3-aa', { coldest: -10 }), library)
    const I = power.through.value.max
    // Fresh ones fall from no less than 2.7 V.
    expect(power.railLoaded!.value.min).toBeCloseTo(2.7 - I * 4.5, 6)
    expect(power.railLoaded!.value.typ).toBeCloseTo(3.9 - power.through.value.typ * 0.45, 6)
    // 2.7 V is what the amplifier needs.
    expect(power.cells!.stop!.value.max).toBeCloseTo(2.7 + I * 4.5, 6)
  })

  test('a burst: 0.9 Ω at 20 °C, 4.5 Ω at −10 °C', () => {
    const states = (limits: Partial<Limits>) =>
      applyEdits(with_(project({ chip: 'td8-28-dip', source: 'cells-3-aa', devices: [] }), limits), [
        {
          kind: 'setStates',
          states: [
            { id: 's1', name: 'at work', lasts: 1, every: 60 },
            { id: 's2', name: 'asleep' },
          ],
        },
      ])
    const falls = (limits: Partial<Limits>) => {
      const a = analyse(states(limits), library)
      const [burst] = burstsOf(a, stockOf(library), 0.001)
      return burst!.falls!.value.max / burst!.current.value.max
    }
    expect(falls({})).toBeCloseTo(0.9, 9)
    expect(falls({ coldest: -10 })).toBeCloseTo(4.5, 9)
  })

  test('heat inside them is I² R of so cold ones', () => {
    const a = analyse(fed('cells-3-aa', { coldest: -10 }), library)
    const { source } = streamsOf(a)
    expect(source!.heat!.value.max).toBeCloseTo(source!.current.value.max ** 2 * 4.5, 9)
  })

  test('sources are ranked where they will lie: the chosen one lasts as long there as the project says', () => {
    const a = analyse(fed('cells-3-aa', { coldest: -10 }), library)
    const own = sourcesOf(a, library).find((s) => s.chosen)!
    expect(own.cells!.runtime.value.min).toBeCloseTo(a.power.runtime!.value.min, 6)
  })

  test('cells that would sag in the cold are not offered for the regulator: four of them, 10.8 Ω at −20 °C (figure 2)', () => {
    // With nothing else to choose from.
    const few = makeLibrary(
      Object.values(library.parts).flatMap((p) =>
        p.id === 'cells-4-aa'
          ? [{ ...p, voltage: { min: 3.9, typ: 5.2, max: 5.4, kind: 'typical' as const } } as Source]
          : p.kind !== 'source' || p.id === 'cells-2-aa'
            ? [p]
            : [],
      ),
    )
    const offered = (limits: Partial<Limits>) => {
      const a = analyse(
        with_(
          project({
            chip: 'td8-28-dip',
            source: 'cells-2-aa',
            regulator: 'bl33-low',
            devices: ['A', 'B', 'C', 'D'].map((name) => ['lamp-red', name]),
          }),
          limits,
        ),
        few,
      )
      return proposalsFor(a, few, { id: 'power.dropout', check: 'power.dropout' })
        .map(({ label }) => label)
        .filter((label) => /four AA/.test(label))
    }
    expect(offered({})).toEqual(['Feed it from four AA cells (5.2 V)'])
    // 40 mA and more through 10.8 Ω leave too little for the regulator, and enough for the chip.
    expect(offered({ coldest: -20 })).toEqual(['Feed it from four AA cells (5.2 V), without a regulator'])
  })

  test('copper in the cold: as if it were none at −234.5 °C (IEC 60028), a metre there and back at −25 °C', () => {
    const wire = findPart(library, 'wire', 'wire-0-5')!
    const at = (coldest: number | undefined) =>
      leadResistance({
        wire: { part: wire, length: 1 },
        ambient: 30,
        ...(coldest !== undefined && { coldest }),
      }).value.min
    const r = wire.resistance.min ?? wire.resistance.typ ?? wire.resistance.max!
    expect(at(-25)).toBeCloseTo((2 * r * (234.5 - 25)) / 254.5, 9)
    expect(at(undefined)).toBeCloseTo(2 * r, 9)
  })

  test('a fuse in the cold needs more to open: 4.2 A · 1.12 at −25 °C, halfway to 23 °C half of that', () => {
    const fuse = findPart(library, 'fuse', 'fuse-2')!
    expect(fuseOpens(fuse, -25).value.max).toBeCloseTo(4.2 * 1.12, 9)
    expect(fuseOpens(fuse, -1).value.max).toBeCloseTo(4.2 * 1.06, 9)
    expect(fuseOpens(fuse, 23).value.max).toBeCloseTo(4.2, 9)
  })
})

describe('what is said', () => {
  const note = (d: Design, of = library) => cellsOf(d, of).runtime.note
  const without = (field: 'cold' | 'worn', id: string) =>
    makeLibrary(Object.values(library.parts).map((p) => (p.id === id ? { ...p, [field]: undefined } : p)))
  test('that nobody said how cold it gets, or how often they are charged; not where somebody did', () => {
    expect(note(fed('cells-3-aa'))).toContain('how cold it gets nobody has said')
    expect(note(fed('cells-3-aa'))).not.toContain('charged')
    expect(note(fed('cells-3-aa', { coldest: 10 }))).not.toContain('cold')
    expect(note(fed('cell-pouch-2ah'))).toContain('how often they will have been charged')
    expect(note(fed('cell-pouch-2ah', { charges: 50 }))).not.toContain('how often')
    expect(found(fed('cells-3-aa'))).toEqual([])
  })
  test.each<[string, Design, typeof library | undefined, string[][]]>([
    ['at the end of the figure', fed('cells-3-aa', { coldest: -20 }), undefined, []],
    ['beyond it', fed('cells-3-aa', { coldest: -20.5 }), undefined, [['source cold', 'notes']]],
    ['no figure, warm', fed('cells-3-aa', { coldest: 20 }), without('cold', 'cells-3-aa'), []],
    [
      'no figure, cold',
      fed('cells-3-aa', { coldest: 19 }),
      without('cold', 'cells-3-aa'),
      [['source cold', 'notes']],
    ],
    ['as often as the figure goes', fed('cell-pouch-2ah', { charges: 300 }), undefined, []],
    ['more often', fed('cell-pouch-2ah', { charges: 301 }), undefined, [['source age', 'notes']]],
    [
      'no figure of age',
      fed('cell-pouch-2ah', { charges: 2 }),
      without('worn', 'cell-pouch-2ah'),
      [['source age', 'notes']],
    ],
    ['never charged', fed('cells-3-aa', { charges: 2 }), undefined, []],
    ['a plug', fed('usb-charger', { coldest: -40, charges: 900 }), undefined, []],
  ])('%s', (_, design, of, expected) => {
    expect(found(design, of)).toEqual(expected)
  })
  test('colder than the warmest: what is offered turns it round', () => {
    const design = fed('cells-3-aa', { ambient: 10, coldest: 25 })
    expect(found(design)).toEqual([['turned round', 'notes']])
    const { fixes } = analyse(design, library).findings.find((f) => f.check === 'power.cold-cells')!
    const after = applyEdits(design, fixes[0]!.edits)
    expect([after.needs.limits.ambient, after.needs.limits.coldest]).toEqual([25, 10])
    expect(found(after)).toEqual([])
    // Until then everything lies at 10 °C: 0.8 … 0.95 of the charge (figure 2).
    expect(cellsOf(design).charge!.value.min).toBeCloseTo(1.8 * 0.8, 9)
    expect(cellsOf(design).charge!.value.max).toBeCloseTo(2.7 * 0.95, 9)
  })
  test('a chip that is not made for so cold, from both sides', () => {
    const cold = (coldest: number) =>
      analyse(fed('cells-3-aa', { coldest }), library).findings.find((f) => f.id === 'chip.too-warm:cold')
    const { min } = findPart(library, 'chip', 'td8-28-dip')!.temperature!
    expect(cold(min!)).toBeUndefined()
    expect(cold(min! - 1)).toMatchObject({ severity: 'risks', grade: 'outside the sheet' })
    expect(cold(min! - 1)!.text).toMatch(/down to −41 °C; .* at least −40 °C/)
  })
})

test.each<[string, (s: Source) => void, string]>([
  ['goes back', (s) => (s.cold![1]!.air = -30), 'cold[1].air'],
  ['has less than nothing', (s) => (s.cold![0]!.charge.min = -0.1), 'cold[0].charge'],
  ['has no resistance', (s) => (s.cold![2]!.resistance = { typ: 0, kind: 'typical' }), 'cold[2].resistance'],
  ['gets younger', (s) => (s.worn![1]!.charges = 50), 'worn[1].charges'],
])('a figure that %s is refused where it does', (_, spoil, path) => {
  const file = JSON.parse(
    readFileSync(join(__dirname, '../../../library/supply/cell-pouch-2ah.json'), 'utf8'),
  ) as Source
  spoil(file)
  try {
    readPart(file, 'x')
    expect('read').toBe('refused')
  } catch (error) {
    expect((error as FaultyFile).faults?.map((f) => f.path)).toEqual([path])
  }
})
