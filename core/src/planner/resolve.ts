// The plan of a project, and what was spoken for before it.

import type { ClockResult } from '../clock'
import type { Design } from '../design'
import { fromRule, type Worked } from '../findings'
import type { NeedsResult } from '../needs'
import type { Chip } from '../parts'
import type { Patience } from '../patience'
import { sum } from '../sums'
import { planPins } from './plan'
import { isPlanned, type Plan } from '../legs'

export const takenPins = (
  chip: Chip,
  clock: Pick<ClockResult, 'pins' | 'source'>,
  resetAsPort = false,
): Record<string, string> => {
  const taken: Record<string, string> = {}
  for (const pin of clock.pins) taken[pin] = `the ${clock.source?.kind ?? 'clock'} is on it`
  for (const pin of chip.pins)
    if (pin.attributes?.some((a) => a.kind === 'reset' && !(resetAsPort && a.asPort !== undefined)))
      taken[pin.id] = 'it is the reset leg'
  return taken
}

/** Undefined while there is no plan: nothing is left over of what has not been found. */
export const legsLeft = (plan: Plan): Worked | undefined => {
  if (!isPlanned(plan)) return undefined
  const free = plan.free.length
  const used = plan.wires.length
  return sum(
    { label: 'Legs left over', symbol: 'n_left', unit: '' },
    {
      n_usable: fromRule(
        'n_usable',
        'legs that can carry a signal, less crystal and reset',
        free + used,
        '',
        'counted from the chip’s part file',
      ),
      n_used: fromRule('n_used', 'legs with a signal', used, '', 'counted from the plan'),
    },
    (i) => i.n_usable.minus(i.n_used),
  )
}

/** The plan, and what was spoken for before it. */
export interface Planned {
  taken: Record<string, string>
  /** Absent without a chip. */
  plan?: Plan
}

export const resolvePlan = (
  choices: Design['pins'],
  needs: NeedsResult,
  chip: Chip | undefined,
  clock: ClockResult,
  patience?: Patience,
): Planned => {
  if (!chip) return { taken: {} }
  const taken = takenPins(chip, clock, choices.resetAsPort)
  const plan = planPins(
    { chip, needs: needs.open, choices, taken, clock: clock.frequency.value.typ || undefined },
    { patience },
  )
  return { taken, plan }
}
