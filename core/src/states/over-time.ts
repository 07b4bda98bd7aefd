import type { Worked } from '../findings'
import { dimensionOf, sum, type SumInput, type Term, total } from '../sums'
import type { Period } from './state'

/**
 * A current over all of the time: what each state takes, times its share. What is the same in all of them is itself. The charge
 * of a cycle is this times the length of the cycle.
 */
export const overTime = (
  meta: { label: string; symbol: string },
  periods: readonly Period[],
  of: (period: Period) => Worked,
): Worked => {
  const currents = periods.map(of)
  const [first] = currents
  if (first && currents.every((c) => c === first)) return first
  const inputs: Record<string, SumInput> = {}
  periods.forEach(({ symbol, share }, n) => {
    inputs[`s_${symbol}`] = share
    inputs[`I_${symbol}`] = currents[n]!
  })
  return sum({ ...meta, unit: 'A' }, inputs, (i: Record<string, Term>) =>
    total(
      periods.map(({ symbol }) => i[`s_${symbol}`]!.times(i[`I_${symbol}`]!)),
      dimensionOf('A'),
    ),
  )
}
