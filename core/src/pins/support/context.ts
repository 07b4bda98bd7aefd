import type { Design } from '../../design'
import type { Worked, WorkedInput } from '../../findings'
import type { Chip, Library, Resistors } from '../../parts'
import type { Stock, SupportPart } from '../../circuit'
import type { OpenSupply } from '../../supply'
import { within } from '../../quantity'
import type { Wire } from '../wires'

export interface SignalSupportContext {
  design: Design
  library: Library
  chip: Chip
  rail: Worked
  supplies: OpenSupply
  stock: Stock
  /** What is wired to the converter’s reference leg. */
  reference?: Worked
}

/** The support parts that one wire needs. */
export type SignalSupport = (wire: Wire, context: SignalSupportContext) => SupportPart[]

/** The name of the net at the chip's leg: `DISPLAY_SDA`. */
export const netOf = (name: string): string =>
  name
    .toUpperCase()
    .replace(/[^A-Z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')

/** A resistor of ours in a line: its value with the tolerance of its drawer, each one by itself. */
export const fittedResistor = (
  symbol: string,
  label: string,
  part: Resistors,
  { value, marking }: { value: number; marking: string },
  key: string,
): WorkedInput => ({
  symbol,
  label,
  value: within(value, part.tolerance),
  unit: 'Ω',
  origin: {
    kind: 'part',
    part: part.id,
    name: `${marking} of ${part.name}`,
    field: 'tolerance',
    sheet: part.sheet,
    limit: 'guaranteed',
  },
  variable: key,
})

/** A resistor from the supply to a line: what all pull-ups have in common. */
export const pullUp = (
  kind: 'pull' | 'select',
  { signal }: Wire,
  part: Resistors,
  value: NonNullable<SupportPart['value']>,
): Pick<SupportPart, 'key' | 'role' | 'name' | 'part' | 'value' | 'legs' | 'signal'> => ({
  key: `${kind}:${signal.id}`,
  role: kind === 'pull' ? 'line pull-up' : 'select pull-up',
  name: `pull-up of ${signal.name}`,
  part,
  value,
  legs: [
    { name: '1', net: 'VCC' },
    { name: '2', net: netOf(signal.name) },
  ],
  signal: signal.id,
})
