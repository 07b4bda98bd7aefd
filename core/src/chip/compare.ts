// Two chips side by side: what differs first, in words and numbers.

import type { Chip } from '../parts'
import { formatQuantity, fullRange } from '../quantity'

export interface ComparedFact {
  fact: string
  a: string
  b: string
  differs: boolean
}

const volts = (c: Chip) =>
  `${fullRange(c.supply.recommended).min} V to ${formatQuantity(fullRange(c.supply.recommended).max, 'V')}`
const unitsOf = (kind: string) => (c: Chip) => {
  const units = c.units.filter((u) => u.kind === kind)
  const legs = c.pins.filter((p) => p.functions?.some((f) => units.some((u) => u.id === f.unit))).length
  return units.length === 0 ? 'none' : `${units.length} (on ${legs} legs)`
}
const bytes = (n: number) => (n >= 1024 ? `${n / 1024} KiB` : `${n} B`)
const rows: [string, (c: Chip) => string][] = [
  ['Package', (c) => `${c.package.name}, ${c.package.solder}`],
  [
    'Legs that can carry signals',
    (c) => String(c.pins.filter((p) => ['io', 'input', 'output'].includes(p.type)).length),
  ],
  ['Supply', volts],
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
  ['Functions', (c) => (c.routing === 'fixed' ? 'fixed to their legs' : 'selected per leg')],
  [
    'Pull-ups inside',
    (c) =>
      c.io.pullUp
        ? `${formatQuantity(fullRange(c.io.pullUp).min, 'Ω')} to ${formatQuantity(fullRange(c.io.pullUp).max, 'Ω')}`
        : 'none',
  ],
  ['Pull-downs inside', (c) => (c.io.pullDown ? 'yes' : 'none')],
  ['Programmed by', (c) => c.programming.map((p) => p.name).join(', ')],
  ['Price', (c) => `€ ${c.price.toFixed(2)}`],
]

export const compareChips = (a: Chip, b: Chip): ComparedFact[] =>
  rows
    .map(([fact, of]) => ({ fact, a: of(a), b: of(b), differs: of(a) !== of(b) }))
    .sort((x, y) => Number(y.differs) - Number(x.differs))
