// The Pins stage: plan, support parts of the signals, current of every leg.

import type { SupportPart } from '../circuit'
import { stockOf } from '../circuit'
import type { ClockResult } from '../clock'
import type { Design } from '../design'
import { fromRule, type Worked } from '../findings'
import type { NeedsResult } from '../needs'
import type { Chip, Library } from '../parts'
import { sum } from '../sums'
import { type OpenSupply, ownVoltage } from '../supply'
import { fittedShift, levelsOf, type LineLevel, referenceOf } from './levels'
import { type BytePlan, bytePlans } from './byte'
import { planPins } from './plan'
import { isPlanned, type Plan } from './wires'
import type { Patience } from './solve'
import { type ConverterSum, converterSum, type PwmSum, pwmSum } from './sums'
import { type PullWindow, pullWindows } from './windows'
import { ledOnLeg, type LedOnLeg, supportOf } from './support'

export interface PinsResult {
  chip?: Chip
  plan?: Plan
  /** Pins that are spoken for before any signal: crystal, reset. */
  taken: Record<string, string>
  support: SupportPart[]
  /** Both directions of every line, end by end. */
  levels: LineLevel[]
  /** What is wired to the converter’s reference leg. */
  reference?: Worked
  converters: ConverterSum[]
  pwms: PwmSum[]
  windows: PullWindow[]
  bytes: BytePlan[]
  /** By signal id. */
  leds: Record<string, LedOnLeg>
  /** signal → pin, of the plan. */
  assignment: Record<string, string>
  /** Absent while there is no plan. */
  left?: Worked
}

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

export const resolvePins = (
  design: Design,
  library: Library,
  needs: NeedsResult,
  chip: Chip | undefined,
  clock: ClockResult,
  supplies: OpenSupply,
  { taken, plan }: Planned,
): PinsResult => {
  if (!chip || !plan)
    return {
      taken: {},
      support: [],
      levels: [],
      converters: [],
      pwms: [],
      windows: [],
      bytes: [],
      leds: {},
      assignment: {},
    }
  const rail = ownVoltage(supplies)
  const reference = referenceOf(plan.wires)
  const context = rail && { design, library, chip, rail, supplies, stock: stockOf(library), reference }
  const support = context ? supportOf(plan.wires, context) : []
  const levels = context
    ? levelsOf(plan.wires, { ...context, shiftOf: (wire, end) => fittedShift(wire, end, context) })
    : []
  return {
    chip,
    plan,
    taken,
    support,
    levels,
    reference,
    converters: rail
      ? plan.wires.flatMap(
          (w) =>
            converterSum(
              w,
              chip,
              rail,
              levels.find((l) => l.wire === w),
              reference,
            ) ?? [],
        )
      : [],
    pwms: plan.wires.flatMap((w) => pwmSum(w, chip, clock) ?? []),
    windows: rail ? pullWindows(plan.wires, chip, rail, support) : [],
    bytes: bytePlans(needs.open, plan),
    leds: context
      ? Object.fromEntries(
          plan.wires.flatMap((w) => {
            const on = ledOnLeg(w, context)
            return on ? [[w.signal.id, on] as const] : []
          }),
        )
      : {},
    assignment: Object.fromEntries(plan.wires.map((w) => [w.signal.id, w.pin.id])),
    left: legsLeft(plan),
  }
}
