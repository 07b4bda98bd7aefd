import type { Design } from '../../design'
import type { Worked } from '../../findings'
import type { Chip, Library } from '../../parts'
import type { Stock, Supplies, SupportPart } from '../../circuit'
import { fullRange, type Range } from '../../quantity'
import type { Wire } from '../plan'

export interface SignalSupportContext {
  design: Design
  library: Library
  chip: Chip
  rail: Worked
  supplies: Supplies
  stock: Stock
}

/** The support parts that one wire needs. */
export type SignalSupport = (wire: Wire, context: SignalSupportContext) => SupportPart[]

/** The name of the net at the chip's leg: `DISPLAY_SDA`. */
export const netOf = (name: string): string =>
  name
    .toUpperCase()
    .replace(/[^A-Z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')

/** Resistance of the chip's own output, from the first sheet point: drop / current, ohms. */
export const outputResistance = (chip: Chip, side: 'high' | 'low'): Range => {
  const point = (side === 'high' ? chip.io.outputHigh : chip.io.outputLow)[0]!
  const drop = fullRange(point.drop)
  return { min: drop.min / point.current, typ: drop.typ / point.current, max: drop.max / point.current }
}
