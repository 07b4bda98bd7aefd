import type { WorkedInput } from '../findings'
import type { Resistors } from '../parts'
import { within } from '../quantity'
import type { SupportPart } from './support'

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

/** Capacitors of ours beside one another, `C_1` on: each its value with the tolerance of its drawer; others are left out. */
export const fittedCapacitors = (parts: readonly SupportPart[]): WorkedInput[] =>
  parts
    .filter((s) => s.present && s.value?.unit === 'F' && s.part.kind === 'capacitors')
    .map((s, k) => ({
      symbol: `C_${k + 1}`,
      label: s.name,
      value: within(s.value!.value, s.part.kind === 'capacitors' ? s.part.tolerance : 0),
      unit: 'F',
      origin: { kind: 'rule', source: 'fitted value and its tolerance' },
      variable: s.key,
    }))
