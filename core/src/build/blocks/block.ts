// A block of the support circuit: one file each, all of this form, listed in index.ts.

import type { Stock, SupportPart } from '../../circuit'
import type { ClockResult } from '../../clock'
import type { Design } from '../../design'
import type { Worked } from '../../findings'
import type { Chip, Library } from '../../parts'
import type { PinsResult } from '../../pins'
import type { PowerResult } from '../../power'

export interface BlockContext {
  design: Design
  library: Library
  stock: Stock
  chip: Chip
  clock: ClockResult
  pins: PinsResult
  power: PowerResult
  rail: Worked
}

/** The parts a block asks for; none where it doesn't apply. */
export type SupportBlock = (context: BlockContext) => SupportPart[]

export const pinNet = (chip: Chip, id: string): string => {
  const pin = chip.pins.find((p) => p.id === id)
  if (!pin) return id
  if (pin.type === 'supply') return 'VCC'
  if (pin.type === 'ground') return 'GND'
  // Where a board is fed.
  if (pin.rail === 'IN') return 'VIN'
  return pin.id
}
