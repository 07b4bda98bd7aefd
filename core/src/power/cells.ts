// How long cells last: until the first thing on the way stops, by the curve of their sheet, with what they lose by themselves.

import { fromPart, fromRule, type Worked } from '../findings'
import type { Source } from '../parts'
import { fullRange, type Range } from '../quantity'
import { chargeOf, notCounted, type Wear } from '../supply'
import { asVariable, dimensionOf, greatest, least, number, readCurve, sum, type SumInput } from '../sums'

export interface CellsUse {
  /** Below this voltage of the cells something stops. */
  stop?: Worked
  /** How much of the charge has flowed by then, 0 to 1; absent: all of it. */
  usable?: Worked
  /** Of full ones, Ah, where cold and age count. */
  charge?: Worked
  /** s. */
  runtime: Worked
}

type Point = readonly [voltage: number, used: number]

/** Between two points a straight line; beyond the ends the end. `points` by rising voltage. */
const usedAt = (points: readonly Point[], voltage: number): number => {
  const above = points.findIndex(([v]) => v >= voltage)
  if (above === -1) return points.at(-1)![1]
  if (above === 0) return points[0]![1]
  const [[v0, u0], [v1, u1]] = [points[above - 1]!, points[above]!]
  return u0 + ((voltage - v0) / (v1 - v0)) * (u1 - u0)
}

/**
 * The share of the charge that has flowed when the cells have come down to a voltage, as a curve over that voltage, rising. The
 * sheet gives the voltage over the share; its least, usual and greatest voltage are three lines, each turned round by itself.
 */
export const usedByVoltage = (
  discharge: NonNullable<Source['discharge']>,
): { x: number; y: { min: number; typ: number; max: number; kind: 'typical' } }[] => {
  const line = (of: keyof Range): Point[] =>
    discharge.map(({ used, voltage }): Point => [fullRange(voltage)[of], used]).sort((a, b) => a[0] - b[0])
  const [min, typ, max] = [line('min'), line('typ'), line('max')]
  const voltages = [...new Set([...min, ...typ, ...max].map(([v]) => v))].sort((a, b) => a - b)
  return voltages.map((x) => ({
    x,
    y: { min: usedAt(min, x), typ: usedAt(typ, x), max: usedAt(max, x), kind: 'typical' },
  }))
}

const year = number(365.25 * 86400, dimensionOf('s'))

/** From fresh to the voltage at which something stops. Undefined where the source doesn’t run down, or nothing runs it down. */
export const cellsUse = (
  source: Source | undefined,
  wear: Wear,
  I_average: Worked,
  stop: Worked | undefined,
  /** Who counts as at work all the time, since nothing says otherwise. */
  always: readonly string[],
): CellsUse | undefined => {
  const Q = source && chargeOf(source, wear)
  if (!Q || I_average.value.min <= 0) return undefined
  const { min: empty, max: fresh } = fullRange(source.voltage)
  const { discharge, selfDischarge } = source
  const stops = stop && stop.value.max > empty && fresh > empty ? stop : undefined
  const usable =
    stops &&
    (discharge
      ? readCurve(
          { label: 'Share of the charge until then', symbol: 'k', unit: '' },
          { part: source, field: 'discharge', points: usedByVoltage(discharge), held: true },
          ['V_stop', asVariable(stops)],
        )
      : sum(
          {
            label: 'Share of the charge until then',
            symbol: 'k',
            unit: '',
            note: 'Its file has no curve: cells are taken to fall evenly from fresh to empty.',
          },
          {
            V_fresh: fromRule('V_fresh', 'fresh cells', fresh, 'V', source.sheet),
            V_empty: fromRule('V_empty', 'empty cells', empty, 'V', source.sheet),
            V_stop: asVariable(stops),
          },
          (i) => least(1, greatest(0, i.V_fresh.minus(i.V_stop).over(i.V_fresh.minus(i.V_empty)))),
        ))
  const inputs: Record<string, SumInput> = {
    Q,
    ...(usable && { k: usable }),
    I_average,
    ...(selfDischarge && {
      d: fromPart(
        'd',
        'share that they lose by themselves in a year',
        source,
        'selfDischarge',
        selfDischarge,
        '',
      ),
    }),
  }
  const runtime = sum(
    {
      label: 'Runtime on one set of cells',
      symbol: 't',
      unit: 's',
      note: `Pessimistic: weakest cells at the greatest current. Optimistic: the other way round.${
        selfDischarge ? '' : ' What they lose by themselves is not in their file, and not counted.'
      }${notCounted(source, wear)
        .map(({ text }) => ` ${text}`)
        .join('')}${
        always.length > 0 ? ` At work all the time, since nothing says otherwise: ${always.join(', ')}.` : ''
      }`,
    },
    inputs,
    (i) => {
      const charge = i.k ? i.Q!.times(i.k) : i.Q!
      return charge.over(i.d ? i.I_average!.plus(i.Q!.times(i.d).over(year)) : i.I_average!)
    },
  )
  return {
    ...(stops && { stop: stops }),
    ...(usable && { usable }),
    ...('formula' in Q && { charge: Q }),
    runtime,
  }
}
