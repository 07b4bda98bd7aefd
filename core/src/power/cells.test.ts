// How long cells last, against a discharge gone through in small steps of charge: its own reading of the curve in the file,
// its own sum of the time.

import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse, offersFor, sourcesOf } from '../analysis'
import { applyEdits } from '../design'
import { type FaultyFile, findPart, makeLibrary, readPart, type Source } from '../parts'
import { usedByVoltage } from '.'

const shipped = shippedLibrary()
interface File {
  capacity: Record<'min' | 'typ' | 'max', string>
  discharge: { used: number; voltage: Record<'min' | 'typ' | 'max', number> }[]
  selfDischarge: { typ: number; max: number }
}
const fileOf = (id: string) =>
  JSON.parse(readFileSync(join(__dirname, '../../../library/supply', `${id}.json`), 'utf8')) as File

/** Hours until the voltage at rest is below `stop`, in steps of a ten-thousandth of the charge. */
const goneThrough = (
  { discharge, capacity }: File,
  line: 'min' | 'typ' | 'max',
  amperes: number,
  stop: number,
  perYear: number,
): number => {
  const ampereHours = Number.parseFloat(capacity[line])
  const lost = (ampereHours * perYear) / (365.25 * 24)
  const steps = 10_000
  let hours = 0
  for (let n = 0; n < steps; n++) {
    const used = (n + 0.5) / steps
    const k = discharge.findIndex((p) => p.used >= used)
    const [a, b] = [discharge[k - 1]!, discharge[k]!]
    const volts =
      a.voltage[line] + ((used - a.used) / (b.used - a.used)) * (b.voltage[line] - a.voltage[line])
    if (volts < stop) break
    hours += ampereHours / steps / (amperes + lost)
  }
  return hours
}

test.each<[string, string | undefined, boolean, string?]>([
  // 3.3 V and the drop-out, or the 2.7 V of the amplifier, against the empty cells: three at 2.7 V, four at 3.6 V, two at 1.8 V.
  ['cells-3-aa', 'bl33-sparing', true],
  ['cells-3-nimh', 'bl33-sparing', true],
  ['cell-pouch-2ah', 'bl33-sparing', true],
  ['cells-4-aa', 'bl33-sparing', false],
  // Up to 400 mA through up to 1.2 Ω: only at the worst something stops before they are empty.
  ['cells-4-aa', 'bl33-sparing', true, 'mw2-module'],
  ['cell-iron', undefined, true],
  ['cells-2-aa', undefined, true],
])('%s with %s: at the usual, the worst and the best', (source, regulator, stops, chip = 'td8-28-dip') => {
  const design = applyEdits(
    project({ chip, radio: chip === 'mw2-module', source, devices: [['weight-amplifier', 'Scale']] }),
    [
      regulator
        ? { kind: 'chooseRegulator', part: regulator, name: '' }
        : { kind: 'chooseRegulator', part: null, name: '' },
      { kind: 'setLimit', limit: 'awake', value: 0.01 },
    ],
  )
  const { cells, average, through } = analyse(design, shipped).power
  expect(cells!.stop !== undefined).toBe(stops)
  // Straight from the cells the amplifier stops first: at 2.7 V and what is lost inside them.
  if (!regulator) {
    const R = findPart(shipped, 'source', source)!.resistance!.typ!
    expect(cells!.stop!.value.typ).toBeCloseTo(2.7 + through.value.typ * R, 9)
  }
  const file = fileOf(source)
  const of = (line: 'min' | 'typ' | 'max', current: number, stop: number, perYear: number) =>
    goneThrough(file, line, current, stop, perYear) * 3600
  // Where nothing stops before they are empty, all of it is used.
  const [I, V] = [average.value, cells!.stop?.value ?? { min: 0, typ: 0, max: 0 }]
  const self = file.selfDischarge
  const { min, typ, max } = cells!.runtime.value
  expect(typ / of('typ', I.typ, V.typ, self.typ)).toBeCloseTo(1, 3)
  // The weakest cells, the greatest current, the highest stop; and the other way round.
  expect(min / of('min', I.max, V.max, self.max)).toBeCloseTo(1, 3)
  expect(max / of('max', I.min, V.min, self.typ)).toBeCloseTo(1, 3)
})

test('each line of the sheet turned round gives back its own points', () => {
  const discharge = findPart(shipped, 'source', 'cell-coin')!.discharge!
  const turned = usedByVoltage(discharge)
  expect(turned.map((p) => p.x)).toEqual(turned.map((p) => p.x).toSorted((a, b) => a - b))
  for (const line of ['min', 'typ', 'max'] as const)
    for (const { used, voltage } of discharge)
      expect(turned.find((p) => p.x === voltage[line])!.y[line]).toBeCloseTo(used, 12)
})

test('without a curve they fall evenly, and it is said; without what they lose, that is said', () => {
  const aa = findPart(shipped, 'source', 'cells-2-aa')!
  const library = makeLibrary([
    ...Object.values(shipped.parts).filter((p) => p.id !== aa.id),
    { ...aa, discharge: undefined, selfDischarge: undefined },
  ])
  const { cells, average } = analyse(
    project({ chip: 'td8-28-dip', source: 'cells-2-aa', devices: [] }),
    library,
  ).power
  const V = cells!.stop!.value.typ
  // From 3.2 V to 1.8 V in a straight line
  expect(cells!.usable!.value.typ).toBeCloseTo(Math.min(1, (3.2 - V) / 1.4), 9)
  expect(cells!.usable!.note).toContain('evenly')
  expect(cells!.runtime.note).toContain('What they lose by themselves is not in their file')
  expect(cells!.runtime.value.typ).toBeCloseTo((2.3 * 3600 * cells!.usable!.value.typ) / average.value.typ, 3)
})

test.each<[string, (s: Source) => void, string]>([
  ['begins with some of it used', (s) => (s.discharge![0]!.used = 0.02), 'discharge[0].used'],
  ['ends before it is empty', (s) => (s.discharge!.at(-1)!.used = 0.99), 'discharge[8].used'],
  ['goes back', (s) => (s.discharge![3]!.used = 0.1), 'discharge[3].used'],
  ['rises', (s) => (s.discharge![3]!.voltage.max = 4.7), 'discharge[3].voltage'],
])('a curve that %s is refused where it does', (_, spoil, path) => {
  const file = fileOf('cells-3-aa') as unknown as Source
  spoil(file)
  try {
    readPart(file, 'x')
    expect('read').toBe('refused')
  } catch (error) {
    expect((error as FaultyFile).faults?.map((f) => f.path)).toEqual([path])
  }
})

describe('what sits on a lithium cell', () => {
  const fed = (source: string, more: { regulator?: string; feed?: string } = {}) =>
    applyEdits(project({ chip: 'td8-28-dip', source, devices: [['weight-amplifier', 'Scale']], ...more }), [
      { kind: 'setLimit', limit: 'awake', value: 0.01 },
    ])
  const rated = (of: { min?: number; typ: number; max?: number }) => ({ ...of, kind: 'typical' as const })
  const withProtection = (protection: Source['protection']) => {
    const cell = structuredClone(findPart(shipped, 'source', 'cell-pouch-2ah')!)
    return { parts: { ...shipped.parts, [cell.id]: { ...cell, protection } } }
  }
  const found = (of: ReturnType<typeof fed>, library: Parameters<typeof analyse>[1] = shipped) =>
    analyse(of, library)
      .findings.filter((f) => f.check === 'power.cell-protection')
      .map((f) => [f.id.replace('power.cell-protection:', ''), f.severity, f.grade])

  test('a bare one is a risk, as a source and as a second feed; one with a board on it is offered', () => {
    expect(found(fed('cell-pouch-bare', { regulator: 'bl33-sparing' }))).toEqual([
      ['none:source', 'risks', 'typical'],
    ])
    expect(found(fed('usb-port', { feed: 'cell-pouch-bare' }))).toEqual([['none:feed', 'risks', 'typical']])
    const bare = fed('cell-pouch-bare', { regulator: 'bl33-sparing' })
    const before = analyse(bare, shipped)
    const of = before.findings.find((f) => f.check === 'power.cell-protection')!
    // Empty at 3.0 V, table 1 of its sheet.
    expect(of.text).toMatch(/emptied below 3\sV: .*may catch fire/)
    const { offers } = offersFor(before, shipped, of)
    expect(offers.map((o) => o.fix.label)).toEqual(['Take lithium pouch cell, 2 Ah'])
    expect(found(applyEdits(bare, offers[0]!.fix.edits))).toEqual([])
    // Neither what is not lithium, nor what is not charged again.
    for (const other of ['cells-3-nimh', 'cells-3-aa', 'cell-coin', 'usb-port'])
      expect([other, found(fed(other))]).toEqual([other, []])
    const ranked = sourcesOf(before, shipped).filter((r) => r.source.id.startsWith('cell-'))
    for (const { source, no } of ranked)
      expect([
        source.id,
        no.some((n) => n.text === 'nothing on it keeps it from being emptied too far'),
      ]).toEqual([source.id, ['cell-pouch-bare', 'cell-iron'].includes(source.id)])
  })

  const fiveMotors = () =>
    analyse(
      project({
        chip: 'td8-28-dip',
        source: 'cell-pouch-2ah',
        regulator: 'bl33-sparing',
        devices: Array.from(
          { length: 5 },
          (_, n) => ['wheel-motor', `M${n}`, undefined, { fedBy: 'source' }] as const,
        ).map((d) => [...d]),
      }),
      shipped,
    )

  test('one that opens at what is drawn: from its least on a risk, usually a stop', () => {
    const { value } = analyse(fed('cell-pouch-2ah', { regulator: 'bl33-sparing' }), shipped).power.fromSource
    const opensAt = (min: number, typ: number) =>
      found(
        fed('cell-pouch-2ah', { regulator: 'bl33-sparing' }),
        withProtection({ voltage: rated({ typ: 2.5 }), current: rated({ min, typ, max: 2 * typ }) }),
      )
    expect(value.max).toBeGreaterThan(value.typ)
    expect(opensAt(value.max * 1.001, value.max * 2)).toEqual([])
    expect(opensAt(value.max * 0.999, value.max * 2)).toEqual([
      ['opens:source', 'risks', 'outside the sheet'],
    ])
    // 3 A at the least, table 3 of its sheet; five motors of 0.8 A, stalled.
    expect(fiveMotors().findings.find((f) => f.check === 'power.cell-protection')!.text).toMatch(
      /may open at 3\sA, and up to 4\sA are drawn: all goes dark/,
    )
    expect(opensAt(value.typ * 0.5, value.typ * 0.999)).toEqual([['opens:source', 'stops', 'typical']])
  })

  test('one that opens at 3.6 V ends it there, whatever the regulator could still do', () => {
    // 3.3 V and the drop-out, lower than 3.6 V; what is lost inside the cell comes on top: 80 mΩ usually.
    const of = (protection: Source['protection']) =>
      analyse(fed('cell-pouch-2ah', { regulator: 'bl33-sparing' }), withProtection(protection)).power
    const [low, high] = [2.5, 3.6].map((typ) => of({ voltage: rated({ typ }), current: rated({ typ: 4 }) }))
    expect(low!.cells!.stop!.value.typ).toBeLessThan(3.6)
    expect(high!.cells!.stop!.value.typ).toBeCloseTo(3.6 + high!.through.value.typ * 0.08, 9)
    expect(high!.runtime!.value.typ).toBeCloseTo(
      goneThrough(
        fileOf('cell-pouch-2ah'),
        'typ',
        high!.average.value.typ,
        high!.cells!.stop!.value.typ,
        0.25,
      ) * 3600,
      -4,
    )
    expect(high!.runtime!.value.typ).toBeLessThan(low!.runtime!.value.typ)
  })
})
