// What a timer makes of a wanted frequency: whether it reaches it at all, and in how many steps.

import { say, type Sentence } from '../findings'
import type { SignalNeed } from '../needs'
import type { Chip, ChipUnit } from '../parts'
import { formatQuantity } from '../quantity'

/** Divisors of a timer's clock, least first, as the part file gives them; plain division by one where it doesn't. */
const leastPrescaler = (unit: ChipUnit, needed: number): number | undefined => {
  if (unit.prescalers) return [...unit.prescalers].sort((a, b) => a - b).find((p) => p >= needed)
  const least = Math.max(1, Math.ceil(needed))
  return least <= (unit.prescalerUpTo ?? 1) ? least : undefined
}

/**
 * The finest duty that a timer has at a frequency: the least prescaler p with N = round(f_clock / (p · f)) ≤ 2ⁿ.
 */
export const pwmFit = (
  clock: number,
  wanted: number,
  unit: ChipUnit,
): { prescaler: number; steps: number; actual: number } | undefined => {
  const most = 2 ** (unit.resolution ?? 8)
  const prescaler = leastPrescaler(unit, clock / wanted / (most + 0.5))
  if (prescaler === undefined) return undefined
  const steps = Math.round(clock / wanted / prescaler)
  return steps >= 2 && steps <= most ? { prescaler, steps, actual: clock / prescaler / steps } : undefined
}

/** Fewer settings than this between least and most are seen, heard or felt as steps: five bits. */
const fewestSteps = 32

export interface CoarseTimer {
  /** It runs at the frequency, though in few steps. */
  reaches: boolean
  text: string
  says: Sentence
}

/** What is wrong with a signal on a timer; undefined when nothing is, or nothing is known of the timer. */
export const timerFit = (
  chip: Chip,
  signal: SignalNeed,
  unitId: string | undefined,
  clock: number | undefined,
): CoarseTimer | undefined => {
  if (signal.kind !== 'pwm' || !signal.frequency || !clock || unitId === undefined) return undefined
  const unit = chip.units.find((u) => u.id === unitId)
  if (unit?.kind !== 'timer' || !unit.resolution) return undefined
  const wanted = formatQuantity(signal.frequency, 'Hz')
  const fit = pwmFit(clock, signal.frequency, unit)
  if (!fit)
    return {
      reaches: false,
      ...say`${signal.name}: ${unit.name} can’t run at ${wanted} from a clock of ${formatQuantity(clock, 'Hz')}`,
    }
  const stepTime = fit.prescaler / clock
  const pulse = signal.ends.find((e) => e.signal.pulse)?.signal.pulse
  const useful = pulse ? Math.floor((pulse.longest - pulse.shortest) / stepTime + 1e-9) : fit.steps
  return useful >= fewestSteps
    ? undefined
    : {
        reaches: true,
        ...say`${signal.name}: ${unit.name} sets it in steps of ${formatQuantity(stepTime, 's', 3)}, ${useful} of them between least and most`,
      }
}
