// Cells joined in a row and beside one another: by hand from the file of one, and against sets that are sold as one.

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse, proposalsFor, sourcesOf } from '../analysis'
import { applyEdits, type CellsChoice, type Design, joinCells } from '../design'
import { type FaultyFile, findPart, makeLibrary, readPart, type Source } from '../parts'
import { choosing, usualCells } from '../supply'

const library = shippedLibrary()
const of = (cells: CellsChoice, more: Partial<Parameters<typeof project>[0]> = {}): Design =>
  applyEdits(
    project({ chip: 'td8-28-dip', source: 'cell-aa', devices: [['weight-amplifier', 'Scale']], ...more }),
    [
      { kind: 'changeCells', of: 'source', change: cells, name: 'AA cell' },
      { kind: 'setLimit', limit: 'awake', value: 0.01 },
    ],
  )
const source = (d: Design) => analyse(d, library).power.source!
const found = (d: Design) =>
  analyse(d, library)
    .findings.filter((f) => f.check === 'power.cells-joined')
    .map((f) => [f.id.replace('power.cells-joined:', ''), f.severity, f.text])

test('three in a row, two beside one another: 3 · 0.9 to 1.6 V, 2 · 1.8 to 2.7 Ah, 2 · 0.7 A, 3/2 · 0.15 to 0.3 Ω, six of them to pay', () => {
  const s = source(of({ series: 3, parallel: 2 }))
  expect([s.voltage.min, s.voltage.typ, s.voltage.max].map((v) => v!.toFixed(6))).toEqual([
    '2.700000',
    '3.900000',
    '4.800000',
  ])
  expect([s.capacity!.min, s.capacity!.max].map((v) => v!.toFixed(6))).toEqual(['3.600000', '5.400000'])
  expect(s.current.max).toBeCloseTo(1.4, 9)
  expect([s.resistance!.typ, s.resistance!.max].map((v) => v!.toFixed(6))).toEqual(['0.225000', '0.450000'])
  expect(s.price).toBeCloseTo(6 * 0.6, 9)
  expect(s.name).toBe('AA cell, 3 in a row, 2 beside one another')
  // Where it comes from is said as it is.
  expect(s.voltage.source).toBe('label, times 3 in a row')
  // What a figure says of the cold, and what goes by itself, are shares.
  expect(s.cold).toBe(findPart(library, 'source', 'cell-aa')!.cold)
  expect(s.selfDischarge).toEqual(findPart(library, 'source', 'cell-aa')!.selfDischarge)
  expect(
    analyse(of({ series: 3, parallel: 2 }), library).build.parts.find((p) => p.part === 'cell-aa'),
  ).toMatchObject({
    name: 'AA cell, 3 in a row, 2 beside one another',
    total: expect.closeTo(3.6, 9) as number,
  })
})

test.each([2, 3, 4])(
  '%d in a row are the set of so many that is sold as one: as long, as low, as warm',
  (series) => {
    const [own, set] = [of({ series }), of({}, { source: `cells-${series}-aa` })].map(
      (d) => analyse(d, library).power,
    )
    for (const at of ['min', 'typ', 'max'] as const) {
      expect(own!.runtime!.value[at] / set!.runtime!.value[at]).toBeCloseTo(1, 6)
      expect(own!.railLoaded!.value[at]).toBeCloseTo(set!.railLoaded!.value[at], 6)
      expect(own!.cells!.stop?.value[at] ?? 0).toBeCloseTo(set!.cells!.stop?.value[at] ?? 0, 6)
    }
  },
)

test('two beside one another last twice as long where they sag no more, but for what goes by itself', () => {
  const t = (parallel: number) => analyse(of({ series: 3, parallel }), library).power.runtime!.value.typ
  expect(t(2) / t(1)).toBeGreaterThan(1.99)
  expect(t(2) / t(1)).toBeLessThan(2.01)
})

test.each<[string, Partial<Parameters<typeof project>[0]>, number]>([
  // (3.366 + 0.02) V over 0.9 V of an empty one: four; but its input takes 6 V, and four fresh ones have 6.4 V.
  ['BL33 sparing', { regulator: 'bl33-sparing' }, 3],
  // The same output, and an input up to 15 V: (3.366 + 0.2) V over 0.9 V.
  ['BL33 low drop', { regulator: 'bl33-low' }, 4],
  // Made to step up, from 1.8 V to 4.8 V.
  ['BU5', { regulator: 'bu5-step' }, 2],
  // 1.8 V of the chip, over 0.9 V.
  ['none', {}, 2],
  // (5.1 + 0.2) V over 0.9 V.
  ['BL5 low drop', { regulator: 'bl5-low' }, 6],
])('how many it takes, %s', (_, more, series) => {
  const design = project({ chip: 'td8-28-dip', devices: [], ...more })
  const cell = findPart(library, 'source', 'cell-aa')!
  expect(usualCells('source', cell, design, library)).toEqual({ series, parallel: 1 })
  const chosen = applyEdits(design, choosing('source', cell, design, library))
  expect(chosen.power.cells).toEqual({ series, parallel: 1 })
  // Another source takes the number with it.
  const next = applyEdits(
    chosen,
    choosing('source', findPart(library, 'source', 'usb-port')!, chosen, library),
  )
  expect(next.power).not.toHaveProperty('cells')
})

test('ranked as many as it takes, and chosen so; the present ones as they are', () => {
  const design = of({ series: 3 }, { regulator: 'bl33-sparing' })
  const ranked = sourcesOf(analyse(design, library), library)
  expect(ranked.find((s) => s.chosen)!.source.joined).toEqual({ series: 3, parallel: 1 })
  const four = ranked.find((s) => s.source.id === 'cell-nimh')!
  // (3.366 + 0.02) V over 0.95 V: four, of 1.45 V when they are fresh.
  expect(four.source.joined).toEqual({ series: 4, parallel: 1 })
  const after = analyse(applyEdits(design, four.edits), library)
  expect(after.power.source!.name).toBe('rechargeable AA cell, 4 in a row')
  expect(four.edits[0]).toMatchObject({ name: 'rechargeable AA cell, 4 in a row' })
  expect(four.input!.value.typ).toBeCloseTo(after.power.input!.value.typ, 9)
  expect(after.power.runtime!.value.typ / four.cells!.runtime.value.typ).toBeCloseTo(1, 6)
})

test('offered as many as it takes, and offered only where so many do', () => {
  const few = makeLibrary(
    Object.values(library.parts).filter(
      (p) => p.kind !== 'source' || ['cells-2-aa', 'cell-aa'].includes(p.id),
    ),
  )
  const a = analyse(
    project({ chip: 'td8-28-dip', source: 'cells-2-aa', regulator: 'bl33-low', devices: [] }),
    few,
  )
  const offered = proposalsFor(a, few, { id: 'power.dropout', check: 'power.dropout' })
  const fix = offered.find(({ label }) => /AA cell,/.test(label))!
  expect(fix.label).toBe('Feed it from AA cell, 4 in a row (5.2 V)')
  const after = analyse(applyEdits(a.design, fix.edits), few)
  expect(after.power.source!.voltage.min).toBeCloseTo(3.6, 9)
  expect(after.findings.map((f) => f.id)).not.toContain('power.dropout')
})

test('the transistor of a latch has the voltage of all of them at its gate', () => {
  const lantern = (source: string) =>
    analyse(
      of({ series: 2 }, { chip: 'td8-08-dip', source, devices: [['latch-button', 'Power', 'read']] }),
      library,
    ).power.leads[0]!.resistance
  const set = analyse(
    project({ chip: 'td8-08-dip', source: 'cells-2-aa', devices: [['latch-button', 'Power', 'read']] }),
    library,
  ).power.leads[0]!.resistance
  expect(lantern('cell-aa').value.max).toBeCloseTo(set.value.max, 9)
  expect(lantern('cell-aa').value.min).toBeCloseTo(set.value.min, 9)
})

test('more than the sheet lets be joined, from both sides, each way; several of what can’t be', () => {
  expect(found(of({ series: 8, parallel: 3 }))).toEqual([])
  expect(found(of({ series: 9 }))).toEqual([
    ['source series', 'risks', expect.stringMatching(/^AA cell, 9 in a row: its sheet lets 8 be joined so/)],
  ])
  expect(found(of({ parallel: 4 })).map(([id]) => id)).toEqual(['source parallel'])
  const plug = of({ series: 2 }, { source: 'usb-port' })
  expect(found(plug).map(([id, severity]) => [id, severity])).toEqual([['source', 'notes']])
  expect(source(plug).voltage).toEqual(findPart(library, 'source', 'usb-port')!.voltage)
  for (const design of [of({ series: 9 }), of({ parallel: 4 }), plug]) {
    const a = analyse(design, library)
    const { id, check } = a.findings.find((f) => f.check === 'power.cells-joined')!
    const [fix] = proposalsFor(a, library, { id, check })
    expect(found(applyEdits(design, fix!.edits))).toEqual([])
  }
})

test('of the second feed too, by itself', () => {
  const design = applyEdits(
    project({ chip: 'td8-28-dip', source: 'usb-port', devices: [['servo-small', 'Arm']] }),
    [{ kind: 'chooseFeed', part: 'cell-aa', name: 'AA cell', cells: { series: 4 } }],
  )
  const { power } = analyse(design, library)
  expect(power.feed!.source.voltage.typ).toBeCloseTo(5.2, 9)
  expect(power.source!.id).toBe('usb-port')
})

test('joined cells come with a caution, one alone does not', () => {
  const cautions = (d: Design) => analyse(d, library).build.steps.flatMap((s) => s.cautions)
  expect(cautions(of({ series: 2 }))).toContain('joined')
  expect(cautions(of({ parallel: 2 }))).toContain('joined')
  expect(cautions(of({ series: 1 }))).not.toContain('joined')
})

test('joined of what can’t be joined is that itself', () => {
  const pouch = findPart(library, 'source', 'cell-pouch-2ah')!
  expect(joinCells(pouch, { series: 3, parallel: 2 })).toBe(pouch)
})

test.each<[string, string, (s: Source) => void]>([
  ['a plug', 'usb-port', (s) => (s.joins = { series: 2, parallel: 1 })],
  ['a cell that is charged on the board', 'cell-pouch-2ah', (s) => (s.joins = { series: 2, parallel: 1 })],
])('a file that lets %s be joined is refused', (_, id, spoil) => {
  const file = JSON.parse(
    readFileSync(join(__dirname, '../../../library/supply', `${id}.json`), 'utf8'),
  ) as Source
  spoil(file)
  try {
    readPart(file, 'x')
    expect('read').toBe('refused')
  } catch (error) {
    expect((error as FaultyFile).faults?.map((f) => f.path)).toEqual(['joins'])
  }
})
