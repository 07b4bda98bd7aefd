// Carriers side by side: what differs first, in words and numbers.

import type { Worked } from '../findings'
import type { Chip } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { asleepOf } from './anatomy'

export interface ComparedFact {
  fact: string
  values: string[]
  /** The working of each value, where it is a sum. */
  worked?: (Worked | undefined)[]
  differs: boolean
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
  ['Program memory', (c) => bytes(c.memory.program)],
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
  ['Price', (c) => `€ ${c.price.toFixed(2)}`],
]

/** Two to four carriers side by side, what differs first. */
export const compareChips = (chips: Chip[]): ComparedFact[] =>
  rows
    .map(([fact, of, worked]) => {
      const values = chips.map(of)
      const differs = values.some((v) => v !== values[0])
      return { fact, values, differs, ...(worked && { worked: chips.map(worked) }) }
    })
    .sort((x, y) => Number(y.differs) - Number(x.differs))
