// The two load capacitors of a crystal at a chip's legs: what they should be, what is fitted, and how far that pulls it.

import { preferred, type Stock } from '../circuit'
import { fromPart, fromRule, type Worked, type WorkedInput } from '../findings'
import type { Capacitors, Chip, ClockSource, Crystal } from '../parts'
import { within } from '../quantity'
import { greatest, number, sum, dimensionOf } from '../sums'

export interface LoadCapacitors {
  wanted: Worked
  /** Of the drawer, each of the two. */
  fitted: ReturnType<typeof preferred>
  /** What the crystal sees with them. */
  load: Worked
  /** How far that load moves the frequency; absent where the crystal’s sheet doesn’t give what it takes. */
  pull?: Worked
  /** The same without any. */
  bare?: Worked
}

const fittedInput = (
  value: number,
  marking: string,
  { tolerance, id, name, sheet }: Capacitors,
): WorkedInput => ({
  symbol: 'C',
  label: 'each load capacitor, as fitted',
  value: within(value, tolerance),
  unit: 'F',
  origin: {
    kind: 'part',
    part: id,
    name: `${marking} of ${name}`,
    field: 'tolerance',
    sheet,
    limit: 'guaranteed',
  },
  variable: 'load capacitors',
})

/** Load that two equal capacitors in series and what is there anyway make: C_load = C / 2 + C_stray. */
const loadOf = (C: WorkedInput | undefined, C_stray: WorkedInput): Worked =>
  C
    ? sum({ label: 'Load with the fitted values', symbol: 'C_load', unit: 'F' }, { C, C_stray }, (i) =>
        i.C.over(2).plus(i.C_stray),
      )
    : sum({ label: 'Load without capacitors', symbol: 'C_load', unit: 'F' }, { C_stray }, (i) => i.C_stray)

/**
 * Frequency pull of a crystal by its load, first order of the series-resonant model:
 * Δf/f = C_1/2 · (1/(C_0 + C_load) − 1/(C_0 + C_L)).
 */
const pullOf = (crystal: Crystal, C_load: Worked, C_L: WorkedInput): Worked | undefined =>
  crystal.motional !== undefined && crystal.shunt !== undefined
    ? sum(
        { label: 'Frequency pulled by that load', symbol: 'Δf/f', unit: 'ppm' },
        {
          C_1: fromPart(
            'C_1',
            'motional capacitance',
            crystal,
            'motional',
            { typ: crystal.motional, kind: 'typical' },
            'F',
          ),
          C_0: fromPart(
            'C_0',
            'shunt capacitance',
            crystal,
            'shunt',
            { typ: crystal.shunt, kind: 'typical' },
            'F',
          ),
          C_load,
          C_L,
        },
        (i) =>
          i.C_1.over(2).times(
            number(1)
              .over(i.C_0.plus(i.C_load))
              .minus(number(1).over(i.C_0.plus(i.C_L))),
          ),
      )
    : undefined

export const loadCapacitors = (
  chip: Chip,
  source: ClockSource,
  crystal: Crystal,
  drawer: NonNullable<Stock['ceramics']>,
): LoadCapacitors => {
  const C_stray = source.strayCapacitance
    ? fromPart(
        'C_stray',
        'legs and traces',
        chip,
        `clockSources.${source.id}.strayCapacitance`,
        source.strayCapacitance,
        'F',
      )
    : fromRule('C_stray', 'legs and traces', 5e-12, 'F', 'usual for short traces')
  const C_L = fromPart(
    'C_L',
    'load capacitance the crystal is cut for',
    crystal,
    'loadCapacitance',
    { typ: crystal.loadCapacitance, kind: 'condition' },
    'F',
  )
  const wanted = sum(
    {
      label: 'Each load capacitor',
      symbol: 'C',
      unit: 'F',
      note: 'The two capacitors are in series as the crystal sees them, so each is twice the load. Fitted is the nearest preferred value.',
    },
    { C_L, C_stray },
    (i) => greatest(number(0, dimensionOf('F')), number(2).times(i.C_L.minus(i.C_stray))),
  )
  const fitted = preferred(drawer, wanted.value.typ, 'nearest')
  const load = loadOf(fittedInput(fitted.value, fitted.marking, drawer), C_stray)
  return {
    wanted,
    fitted,
    load,
    pull: pullOf(crystal, load, C_L),
    bare: pullOf(crystal, loadOf(undefined, C_stray), C_L),
  }
}
