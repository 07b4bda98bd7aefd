import type { WorkedInput } from '../findings'
import type { Resistors } from '../parts'
import { within } from '../quantity'

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
