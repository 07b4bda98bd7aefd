// Tables that nobody has seen: a made-up chip written out by random habits.

import type { TableCase } from '../expected'
import { expectedOf, type HabitChip, makeChip } from './chip'
import { type Layout, layouts } from './layouts'
import { dice } from './random'
import { makeSheet } from './sheet'

export interface HabitTable extends TableCase {
  /** The layout’s name: figures are printed by it. */
  class: string
  chip: HabitChip
}

const write = (layout: Layout, seed: number): HabitTable => {
  const d = dice(seed)
  const chip = makeChip(d, layout.selected ?? 0)
  const sheet = makeSheet(d, chip)
  // Writing may change what the chip can do: it comes first.
  const text = layout.write(sheet)
  return {
    name: `${layout.id}, seed ${seed}`,
    class: layout.id,
    chip,
    text,
    options: {},
    expected: expectedOf(chip),
    answers: {},
    marked: chip.legs.filter((l) => l.reset).map((l) => [l.name.toUpperCase(), 'reset']),
    units: chip.units,
  }
}

/** So many tables, every layout in turn. */
export const habitTables = (count: number, seed: number): HabitTable[] =>
  Array.from({ length: count }, (_, i) => write(layouts[i % layouts.length]!, seed * 10_000 + i))
export { layouts }
