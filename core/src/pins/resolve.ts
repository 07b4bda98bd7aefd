// The Pins stage: plan, support parts of the signals, current of every leg.

import { type SupportPart, stockOf } from '../circuit'
import type { ClockResult } from '../clock'
import type { Design } from '../design'
import type { Worked } from '../findings'
import type { NeedsResult } from '../needs'
import { type Chip, findPart, type Library } from '../parts'
import type { Carrier } from '../carrier'
import { type OpenSupply, ownVoltage, voltageFor } from '../supply'
import { fittedShift, levelsOf, type LineLevel, referenceOf } from '../levels'
import { type BytePlan, bytePlans, endsOf, type Plan } from '../legs'
import { legsLeft, type Planned } from '../planner'
import { type ConverterSum, converterSum, type PwmSum, pwmSum } from './sums'
import { type PullWindow, pullWindows } from './windows'
import {
  type BaseOnLeg,
  baseOnLeg,
  ledOnLeg,
  type LedOnLeg,
  type PlusOnLeg,
  plusOnLeg,
  supportOf,
} from '../support'

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
  /** By signal id: of a load that a bipolar transistor switches. */
  bases: Record<string, BaseOnLeg>
  /** What lies in the plus of a load, by its line. */
  pluses: Record<string, PlusOnLeg>
  /** signal → pin, of the plan. */
  assignment: Record<string, string>
  /** Absent while there is no plan. */
  left?: Worked
}

/** What the stage stands on. */
interface Ready {
  design: Design
  library: Library
  asked: NeedsResult
  carrier: Carrier
  clock: ClockResult
  supplies: OpenSupply
  planned: Planned
}

const unplanned: PinsResult = {
  taken: {},
  support: [],
  levels: [],
  converters: [],
  pwms: [],
  windows: [],
  bytes: [],
  leds: {},
  bases: {},
  pluses: {},
  assignment: {},
}

export const resolvePins = ({
  design,
  library,
  asked,
  carrier: { chip },
  clock,
  supplies,
  planned: { taken, plan },
}: Ready): PinsResult => {
  if (!chip || !plan) return unplanned
  const rail = ownVoltage(supplies)
  const reference = referenceOf(plan.wires)
  const context = rail && { design, library, chip, rail, supplies, stock: stockOf(library), reference }
  const support = context ? supportOf(plan.wires, context) : []
  const levels = context
    ? levelsOf(plan.wires, {
        ...context,
        shiftOf: (wire, end) => {
          const shift = fittedShift(wire, end, context)
          return shift?.kind === 'resistor' ? undefined : shift
        },
      })
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
    bytes: bytePlans(asked.open, plan),
    leds: context
      ? Object.fromEntries(
          plan.wires.flatMap((w) => {
            const on = ledOnLeg(w, context)
            return on ? [[w.signal.id, on] as const] : []
          }),
        )
      : {},
    bases: context
      ? Object.fromEntries(
          plan.wires.flatMap((w) => {
            const [switched] = endsOf(w, 'switched')
            const part = findPart(library, 'transistor', switched?.electrical.transistor)
            const on = part?.sort === 'npn' ? baseOnLeg(w, part, context) : undefined
            return on ? [[w.signal.id, on] as const] : []
          }),
        )
      : {},
    pluses: context
      ? Object.fromEntries(
          plan.wires.flatMap((w) => {
            const [switched] = endsOf(w, 'switched')
            const part = findPart(library, 'transistor', switched?.electrical.transistor)
            const { ambient } = design.needs.limits
            const supply = switched && voltageFor(supplies, switched.end.instance.need)
            const on =
              part && switched?.electrical.plus && plusOnLeg(w, part, supply, { ...context, ambient })
            return on ? [[w.signal.id, on] as const] : []
          }),
        )
      : {},
    assignment: Object.fromEntries(plan.wires.map((w) => [w.signal.id, w.pin.id])),
    left: legsLeft(plan),
  }
}
