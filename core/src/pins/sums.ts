// The small sums of each line that is measured or pulsed: what one step of a converter is, and what a timer makes of a
// wanted frequency.

import { pwmFit, type Wire } from '../legs'
import type { ClockResult } from '../clock'
import { fromDecision, fromPart, fromRule, type Worked } from '../findings'
import type { Chip, ChipUnit } from '../parts'
import { asStated, number, powerOfTwo, rounded, sum, type SumInput, type Term } from '../sums'
import { converterRange, type LineLevel } from '../levels'

export interface ConverterSum {
  wire: Wire
  /** Volts of one step at the leg. */
  step: Worked
  /** The highest code. */
  top: Worked
  /** What the highest code stands for at the device, in front of its divider where there is one. */
  reaches: Worked
  /** Which way the reading goes, where the sensor is a resistance. */
  towards?: string
}

export interface PwmSum {
  wire: Wire
  wanted: number
  /** Undefined where no division comes near. */
  prescaler?: Worked
  steps?: Worked
  /** One step of the duty, as a share. */
  duty?: Worked
  actual?: Worked
  /** How much time one step is. */
  stepTime?: Worked
}

/** Codes of n bits end at 2ⁿ − 1. */
export const topCode = (bits: number): number => 2 ** bits - 1

const bitsOf = (chip: Chip, unit: ChipUnit) =>
  fromPart(
    'n',
    `bits of ${unit.name}`,
    chip,
    `units.${unit.id}.resolution`,
    { typ: unit.resolution!, kind: 'guaranteed', source: unit.source },
    '',
  )

export const converterSum = (
  wire: Wire,
  chip: Chip,
  rail: Worked,
  level: LineLevel | undefined,
  reference?: Worked,
): ConverterSum | undefined => {
  const { unit } = wire
  if (unit?.kind !== 'converter' || !unit.resolution) return undefined
  const range = converterRange(chip, wire, rail, reference)
  const n = bitsOf(chip, unit)
  const top = sum({ label: `Highest code of ${wire.signal.name}`, symbol: 'N_top', unit: '' }, { n }, (i) =>
    powerOfTwo(i.n).minus(1),
  )
  const ends = wire.signal.ends.map((e) => e.signal.electrical)
  const resistance = ends.find((e) => e.kind === 'analog' && e.dividerTo)
  const behind: Record<string, SumInput> = {
    V_ref: range,
    ...(level?.divider && { R_1: level.divider.top, R_2: level.divider.bottom }),
  }
  return {
    wire,
    top,
    step: sum(
      { label: `One step of ${wire.signal.name}`, symbol: 'V_step', unit: 'V' },
      { V_ref: range, n },
      (i) => i.V_ref.over(powerOfTwo(i.n)),
    ),
    reaches: sum(
      {
        label: `What the highest code stands for, at ${wire.signal.ends[0]!.instance.name}`,
        symbol: 'V_full',
        unit: 'V',
        note: 'A threshold as a code is N = V / V_full · 2ⁿ, rounded down.',
      },
      behind,
      // A divider of a level shift, seen from the sensor: the inverse of what it leaves.
      (i: Record<string, Term>) =>
        i.R_1 && i.R_2 ? i.V_ref!.times(number(1).plus(i.R_1.over(i.R_2))) : i.V_ref!,
    ),
    towards:
      resistance?.kind === 'analog'
        ? resistance.dividerTo === 'ground'
          ? 'the reading rises as the sensor’s resistance falls'
          : 'the reading falls as the sensor’s resistance falls'
        : undefined,
  }
}

export const pwmSum = (
  wire: Wire,
  chip: Chip,
  { nominal, frequency }: Pick<ClockResult, 'nominal' | 'frequency'>,
): PwmSum | undefined => {
  const { unit, signal } = wire
  if (unit?.kind !== 'timer' || !signal.frequency || !unit.resolution) return undefined
  const wanted = signal.frequency
  const clock = nominal.value.typ
  const fit = clock > 0 ? pwmFit(clock, wanted, unit) : undefined
  if (!fit) return { wire, wanted }
  const sheet = unit.source ? `${chip.sheet}, ${unit.source}` : chip.sheet
  const prescaler = asStated(
    `Prescaler of ${unit.name} for ${signal.name}`,
    'p',
    '',
    fromRule('p_least', 'the least of its divisions with which N ≤ 2ⁿ', fit.prescaler, '', sheet),
  )
  const f = fromDecision('f', 'wanted frequency', wanted, 'Hz', 'the device or the Needs page')
  const count = sum(
    {
      label: `Steps of ${signal.name}`,
      symbol: 'N',
      unit: '',
      note: `The timer’s top is one less, ${fit.steps - 1}.`,
    },
    { f_0: nominal, p: prescaler, f },
    (i) => rounded(i.f_0.over(i.p.times(i.f))),
  )
  return {
    wire,
    wanted,
    prescaler,
    steps: count,
    duty: sum({ label: `One step of the duty of ${signal.name}`, symbol: 'd', unit: '' }, { N: count }, (i) =>
      number(1).over(i.N),
    ),
    actual: sum(
      { label: `Frequency reached by ${signal.name}`, symbol: 'f_actual', unit: 'Hz' },
      { f_clock: frequency, p: prescaler, N: count },
      (i) => i.f_clock.over(i.p.times(i.N)),
    ),
    stepTime: sum(
      { label: `One step of ${signal.name} in time`, symbol: 't_step', unit: 's' },
      { p: prescaler, f_clock: frequency },
      (i) => i.p.over(i.f_clock),
    ),
  }
}
