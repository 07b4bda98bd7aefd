// Carriers side by side: what differs first, in words and numbers, and what that means for a project's needs.

import { type Design, sourceOf } from '../design'
import type { Worked } from '../findings'
import type { NeedsResult } from '../needs'
import { type Chip, knownPrice, type Library, priceWords, type UnitKind } from '../parts'
import { unitFor } from '../legs'
import { formatQuantity, fullRange } from '../quantity'
import { asleepOf } from './anatomy'

export interface ComparedFact {
  fact: string
  values: string[]
  /** The working of each value, where it is a sum. */
  worked?: (Worked | undefined)[]
  differs: boolean
  /** What each value means for these needs: less than they ask, or the best of those that are enough. */
  marks: (Mark | undefined)[]
}
export type Mark = 'short' | 'best'

/** What a project asks of its carrier, in numbers. */
export interface Asked {
  signals: number
  /** Amperes of the leg that carries the most. */
  legCurrent: number
  program: number
  data: number
  /** Signals (or buses) of each kind of unit. */
  units: Partial<Record<UnitKind, number>>
  radio: boolean
  /** It runs on cells, so that sleep counts. */
  cells: boolean
}

export const askedOf = (design: Design, library: Library, needs: NeedsResult): Asked => {
  const units: Asked['units'] = {}
  const groups = new Set<string>()
  for (const s of needs.signals) {
    const kind = s.bus?.kind ?? unitFor[s.kind]
    // A bus asks for one unit, whatever hangs on it.
    if (!kind || (s.bus && groups.has(s.bus.group))) continue
    if (s.bus) groups.add(s.bus.group)
    units[kind] = (units[kind] ?? 0) + 1
  }
  const currents = needs.signals.flatMap((s) =>
    s.ends.flatMap(({ instance, signal: { id, electrical } }) =>
      electrical.kind === 'led' ? [instance.need.settings?.[`${id}.current`] ?? electrical.current] : [],
    ),
  )
  return {
    signals: needs.signals.length,
    legCurrent: Math.max(0, ...currents),
    program: needs.program.value.max,
    data: needs.data.value.max,
    units,
    radio: design.needs.radio ?? false,
    cells: sourceOf(design, library)?.sort === 'cells',
  }
}

/** What counts in a row: how much there is, how much is asked, and whether less is better. Nothing asked: no mark. */
interface Measure {
  of: (c: Chip) => number | undefined
  asked?: (a: Asked) => number
  /** Less is better, and none is too much. */
  least?: (a: Asked) => boolean
}

const legsWith = (kind: UnitKind) => (c: Chip) => {
  const ids = new Set(c.units.filter((u) => u.kind === kind).map((u) => u.id))
  const routed = new Set(
    (c.matrix ?? []).filter((m) => m.units.some((u) => ids.has(u))).flatMap((m) => m.pins),
  )
  return c.pins.filter((p) => routed.has(p.id) || p.functions?.some((f) => ids.has(f.unit))).length
}
const buses = (kind: UnitKind): Measure => ({
  of: (c) => c.units.filter((u) => u.kind === kind).length,
  asked: (a) => a.units[kind] ?? 0,
})
const measures: Record<string, Measure> = {
  'Legs that can carry signals': {
    of: (c) => c.pins.filter((p) => ['io', 'input', 'output'].includes(p.type)).length,
    asked: (a) => a.signals,
  },
  'Recommended current of a leg': {
    of: (c) => fullRange(c.limits.pinRecommended).max,
    asked: (a) => a.legCurrent,
  },
  'Program memory': { of: (c) => c.memory.program - (c.memory.loader ?? 0), asked: (a) => a.program },
  'Data memory': { of: (c) => c.memory.data, asked: (a) => a.data },
  Converters: { of: legsWith('converter'), asked: (a) => a.units.converter ?? 0 },
  'Timers with PWM': { of: legsWith('timer'), asked: (a) => a.units.timer ?? 0 },
  UART: buses('uart'),
  I2C: buses('i2c'),
  SPI: buses('spi'),
  'Wake-up': { of: legsWith('wake'), asked: (a) => a.units.wake ?? 0 },
  Radio: { of: (c) => (c.radio ? 1 : 0), asked: (a) => Number(a.radio) },
  Asleep: { of: (c) => asleepOf(c)?.value.typ, least: (a) => a.cells },
  Price: { of: knownPrice, least: () => true },
}

const marksOf = (fact: string, chips: Chip[], asked: Asked): (Mark | undefined)[] => {
  const measure = measures[fact]
  const none = chips.map(() => undefined)
  if (!measure) return none
  const values = chips.map(measure.of)
  const known = values.filter((v) => v !== undefined)
  if (measure.least) {
    const best = Math.min(...known)
    return measure.least(asked) && known.length > 1
      ? values.map((v) => (v === best && values.some((o) => o !== v) ? 'best' : undefined))
      : none
  }
  const wanted = measure.asked!(asked)
  if (wanted === 0) return none
  const best = Math.max(...known)
  return values.map((v) =>
    v === undefined || v < wanted ? 'short' : v === best && values.some((o) => o !== v) ? 'best' : undefined,
  )
}

const volts = (c: Chip) =>
  `${fullRange(c.supply.recommended).min} V to ${formatQuantity(fullRange(c.supply.recommended).max, 'V')}`
const unitsOf = (kind: string) => (c: Chip) => {
  const units = c.units.filter((u) => u.kind === kind)
  const ids = new Set(units.map((u) => u.id))
  const routed = new Set(
    (c.matrix ?? []).filter((m) => m.units.some((u) => ids.has(u))).flatMap((m) => m.pins),
  )
  const legs = c.pins.filter((p) => routed.has(p.id) || p.functions?.some((f) => ids.has(f.unit))).length
  return units.length === 0 ? 'none' : `${units.length} (on ${legs} legs)`
}
const bytes = (n: number) => (n >= 1024 ? `${n / 1024} KiB` : `${n} B`)
const rangeText = (w: Worked | undefined) => (w ? formatQuantity(w.value.typ, 'A', 3) : 'never')
const rows: [fact: string, of: (c: Chip) => string, worked?: (c: Chip) => Worked | undefined][] = [
  ['Package', (c) => `${c.package.name}, ${c.package.solder}`],
  [
    'Legs that can carry signals',
    (c) => String(c.pins.filter((p) => ['io', 'input', 'output'].includes(p.type)).length),
  ],
  ['Supply of the chip', volts],
  ['Highest clock', (c) => formatQuantity(Math.max(...c.frequencyLimits.map((l) => l.frequency)), 'Hz')],
  ['Recommended current of a leg', (c) => formatQuantity(fullRange(c.limits.pinRecommended).max, 'A')],
  ['All legs together', (c) => formatQuantity(fullRange(c.limits.total).max, 'A')],
  [
    'Program memory',
    (c) =>
      bytes(c.memory.program) + (c.memory.loader ? `, ${bytes(c.memory.loader)} of it the loader’s` : ''),
  ],
  ['Data memory', (c) => bytes(c.memory.data)],
  ['Stored data', (c) => bytes(c.memory.stored)],
  ['Converters', unitsOf('converter')],
  ['Timers with PWM', unitsOf('timer')],
  ['UART', unitsOf('uart')],
  ['I2C', unitsOf('i2c')],
  ['SPI', unitsOf('spi')],
  [
    'Functions',
    (c) =>
      c.routing === 'fixed'
        ? 'fixed to their legs'
        : c.matrix && c.matrix.length > 0
          ? 'almost any on almost any leg'
          : 'selected per leg',
  ],
  [
    'Pull-ups inside',
    (c) =>
      c.io.pullUp
        ? `${formatQuantity(fullRange(c.io.pullUp).min, 'Ω')} to ${formatQuantity(fullRange(c.io.pullUp).max, 'Ω')}`
        : 'none',
  ],
  ['Pull-downs inside', (c) => (c.io.pullDown ? 'yes' : 'none')],
  ['Programmed by', (c) => (c.board ? 'its own bridge' : c.programming.map((p) => p.name).join(', '))],
  ['Radio', (c) => (c.radio ? c.radio.name : 'none')],
  ['Wake-up', (c) => [...new Set(c.modes.flatMap((m) => m.wakes ?? []))].join(', ') || 'none'],
  [
    'Input range of converters',
    (c) => {
      const ranges = c.units
        .filter((u) => u.kind === 'converter')
        .map((u) =>
          u.range
            ? `${fullRange(u.range).min} V to ${formatQuantity(fullRange(u.range).max, 'V')}`
            : 'ground to supply',
        )
      return [...new Set(ranges)].join('; ') || 'none'
    },
  ],
  [
    'Input',
    (c) =>
      c.board
        ? `${formatQuantity(fullRange(c.board.input).min, 'V')} to ${formatQuantity(fullRange(c.board.input).max, 'V')}`
        : 'the rail itself',
  ],
  ['Headers', (c) => c.board?.headers.map((h) => `${h.name} (${h.positions.length})`).join(', ') ?? 'none'],
  ['Asleep', (c) => rangeText(asleepOf(c)), asleepOf],
  ['Price', priceWords],
]

/** Two to four carriers side by side, what differs first. */
export const compareChips = (chips: Chip[], asked: Asked): ComparedFact[] =>
  rows
    .map(([fact, of, worked]) => {
      const values = chips.map(of)
      const differs = values.some((v) => v !== values[0])
      const marks = marksOf(fact, chips, asked)
      return { fact, values, differs, marks, ...(worked && { worked: chips.map(worked) }) }
    })
    .sort((x, y) => Number(y.differs) - Number(x.differs))
