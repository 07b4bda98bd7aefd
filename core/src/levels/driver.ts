// How far a leg's output is from its rail at a current: along the maker's table where there is one, else along the points
// of the sheet.

import type { SheetCurve } from '../sums'
import type { Chip, ChipPin, LegDriver, Rated } from '../parts'
import { fullRange } from '../quantity'

type DriveTable = NonNullable<LegDriver['pullDown']>

/** Where a driver carries no more, whatever the voltage: so many volts for each ampere more, as good as none. */
const saturated = 1e6

/**
 * One line of a table (IBIS, ANSI/EIA-656, section 6b), voltages over currents: the smallest voltage at which it carries
 * each current. Rows that carry no more than an earlier one are passed over.
 */
const inverse = (table: DriveTable, column: 'min' | 'typ' | 'max'): [current: number, voltage: number][] => {
  const rising: [number, number][] = []
  for (const { voltage, current } of table) {
    const i = fullRange(current)[column]
    if (rising.length === 0 || i > rising.at(-1)![0]) rising.push([i, voltage])
  }
  const [i, v] = rising.at(-1)!
  const carriesMore = table.at(-1)!.voltage <= v
  return carriesMore ? rising : [...rising, [i + 1 / saturated, v + 1]]
}

/** On a line of points, and on with its last slope. */
const along = (line: readonly [number, number][], x: number): number => {
  const after = line.findIndex(([at]) => at >= x)
  if (after === 0 || line.length < 2) return line[0]![1]
  const k = after < 0 ? line.length - 1 : after
  const [[x0, y0], [x1, y1]] = [line[k - 1]!, line[k]!]
  return y0 + ((y1 - y0) / (x1 - x0)) * (x - x0)
}

/** Volts over amperes at every current that any line of the table names: weak drivers drop most. */
const pointsOfTable = (table: DriveTable, source?: string): { x: number; y: Rated }[] => {
  const [strong, typ, weak] = [inverse(table, 'max'), inverse(table, 'typ'), inverse(table, 'min')]
  const currents = [...new Set([...strong, ...typ, ...weak].map(([i]) => i))].sort((a, b) => a - b)
  return currents.map((x) => {
    const [min, usual, max] = [along(strong, x), along(typ, x), along(weak, x)]
    return { x, y: { min, typ: usual, max, kind: 'typical', source } }
  })
}

/** The sheet’s points, from nothing at no current on; beyond the last with the last slope. */
const pointsOfSheet = (points: Chip['io']['outputHigh']): { x: number; y: Rated }[] => [
  { x: 0, y: { ...points[0]!.drop, min: 0, typ: 0, max: 0 } },
  ...points.map((p) => ({ x: p.current, y: { source: p.source, ...p.drop } })),
]

/** Volts between the leg and its rail over the current that it gives (high) or takes (low). */
export const driverCurve = (chip: Chip, pin: ChipPin | undefined, side: 'high' | 'low'): SheetCurve => {
  const model = chip.io.drivers?.find((d) => d.id === pin?.driver)
  const table = side === 'high' ? model?.pullUp : model?.pullDown
  const which = side === 'high' ? 'outputHigh' : 'outputLow'
  return model && table
    ? {
        part: chip,
        field: `io.drivers.${model.id}`,
        specimen: side,
        points: pointsOfTable(table, model.source),
      }
    : { part: chip, field: `io.${which}`, points: pointsOfSheet(chip.io[which]) }
}

/**
 * Amperes at volts from the rail, the other way round: straight between the rows of one line, held beyond the last.
 * `line`: `min` the least current that the table states.
 */
export const tableCurrent = (table: DriveTable, voltage: number, line: 'min' | 'typ' | 'max'): number => {
  const rows = table.map((p): [number, number] => [p.voltage, fullRange(p.current)[line]])
  const [first, last] = [rows[0]!, rows.at(-1)!]
  return voltage <= first[0] ? first[1] : voltage >= last[0] ? last[1] : along(rows, voltage)
}
