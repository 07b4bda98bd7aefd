// What the legs carry: each LED and each base with and without its resistor, and the sums per group of legs and per chip.

import { fittedFor } from '../circuit'
import { fromPart, type Grade, type Worked } from '../findings'
import type { Chip, Rated } from '../parts'
import { add, fullRange } from '../quantity'
import { asStated, dimensionOf, sum, type Term, total } from '../sums'
import type { PinsResult } from './resolve'
import { type Wire, isOutput } from '../legs'

export interface LegLoad {
  wire: Wire
  /** As it is fitted. */
  current: Worked
  /** Of the carrier’s own, and not of the project: “a lamp through 1 kΩ”. */
  onBoard?: string
}

export interface LoadSum {
  /** `all`, or the group’s id. */
  id: string
  name: string
  loads: LegLoad[]
  sum: Worked
  /** Amperes, recommended. */
  limit: number
  rated: Rated
  grade: Grade
}

/** How sure it is that a current stays within what is recommended, and within what breaks. */
const driveGrade = (current: Pick<Worked, 'value'>, recommended: number, absolute: number): Grade =>
  current.value.max <= recommended
    ? 'guaranteed'
    : current.value.typ <= recommended
      ? 'typical'
      : current.value.min <= absolute
        ? 'outside the sheet'
        : 'impossible'

/** What the carrier itself has on a leg that the chip drives. */
export const boardLoads = (chip: Chip, wire: Wire): LegLoad[] =>
  (isOutput(wire.signal) ? (chip.board?.loads ?? []) : []).flatMap((l) =>
    l.pin === wire.pin.id && l.current
      ? [
          {
            wire,
            onBoard: l.what,
            current: asStated(
              `${l.what} on ${wire.pin.id}`,
              'I_board',
              'A',
              fromPart(
                'I_sheet',
                l.what,
                chip.board!,
                `loads.${l.pin}.current`,
                { ...l.current, source: l.source },
                'A',
              ),
            ),
          },
        ]
      : [],
  )

export const legLoads = (
  chip: Chip,
  { plan, leds, bases, support }: Pick<PinsResult, 'plan' | 'leds' | 'bases' | 'support'>,
): LegLoad[] =>
  (plan?.wires ?? []).flatMap((wire) => {
    const on = leds[wire.signal.id]
    const fitted = fittedFor(support, 'lamp resistor', wire.signal.id)
    const base = bases[wire.signal.id]
    const limited = fittedFor(support, 'base resistor', wire.signal.id)
    return [
      ...(on ? [{ wire, current: fitted ? on.current : on.bare }] : []),
      ...(base ? [{ wire, current: limited ? base.current : base.bare }] : []),
      ...boardLoads(chip, wire),
    ]
  })

/** How sure it is that a leg stands all that it carries: an LED or a base of ours and what the carrier has there together. */
export const legGrade = (chip: Chip, loads: LegLoad[], pin: string): Grade =>
  driveGrade(
    { value: add(...loads.filter((l) => l.wire.pin.id === pin).map((l) => l.current.value)) },
    fullRange(chip.limits.pinRecommended).max,
    fullRange(chip.limits.pinAbsolute).max,
  )

/** All legs together, and each group whose sheet recommends a limit. */
export const loadSums = (chip: Chip, loads: LegLoad[]): LoadSum[] => {
  const of = (
    id: string,
    name: string,
    pins: readonly string[] | undefined,
    rated: Rated,
    absolute?: Rated,
  ) => {
    const here = loads.filter((l) => !pins || pins.includes(l.wire.pin.id))
    const all = sum(
      { label: `Current of ${name}`, symbol: 'ΣI', unit: 'A' },
      Object.fromEntries(here.map((l, i) => [`I_${i + 1}`, l.current])),
      (i: Record<string, Term>) => total(Object.values(i), dimensionOf('A')),
    )
    const limit = fullRange(rated).max
    const grade = driveGrade(all, limit, absolute ? fullRange(absolute).max : limit)
    return { id, name, loads: here, sum: all, limit, rated, grade }
  }
  return [
    of('all', 'all legs', undefined, chip.limits.total, chip.limits.totalAbsolute),
    ...(chip.limits.groups ?? []).flatMap((g) =>
      g.recommended ? [of(g.id, g.name, g.pins, g.recommended, g.absolute)] : [],
    ),
  ]
}
