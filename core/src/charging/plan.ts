// A cell charged on the board: by which charger, from what, with which current, and the resistor that sets it.

import { fittedResistor, preferred, type Stock } from '../circuit'
import { type Design, sourceOf } from '../design'
import { fromPart, type Worked, type WorkedInput } from '../findings'
import { type Charger, findPart, type Library, type Resistors, type Source } from '../parts'
import { fullRange } from '../quantity'
import { sum } from '../sums'

export interface ChargingPlan {
  charger: Charger
  cell: Source
  /** What it is charged from; absent while nobody has said. */
  from?: Source
  resistors: Resistors
  /** The resistor that sets the current, Ω. */
  set: ReturnType<typeof preferred>
  /** Into the cell and whatever it feeds meanwhile, A. */
  current: Worked
}

/** The part of the setting resistor, wherever it is spoken of. */
export const setKey = 'charger-set'

export const setResistor = ({ resistors, set }: Pick<ChargingPlan, 'resistors' | 'set'>): WorkedInput =>
  fittedResistor('R_set', 'resistor that sets the current', resistors, set, setKey)

/** With this current the hottest charger stays at its limit, an empty cell in it, A; undefined where that can’t be told. */
const coolest = ({ charger, cell, from }: Pair, ambient: number): number | undefined => {
  const theta = charger.package.thermalResistance
  const volts = from && fullRange(from.voltage).max - fullRange(cell.voltage).min
  return theta && volts !== undefined && volts > 0
    ? (fullRange(charger.junctionMax).max - ambient) / fullRange(theta).max / volts
    : undefined
}
type Pair = Pick<ChargingPlan, 'charger' | 'cell' | 'from'>

/** No charger is set lower, A. */
const faint = 1e-4

/** The most that cell, charger and what it is charged from all stand, A, in air of so many °C: each at the end that binds. */
export const mostCurrent = (of: Pair, ambient: number): number => {
  const { charger, cell, from } = of
  return Math.max(
    faint,
    Math.min(
      fullRange(charger.current).max,
      coolest(of, ambient) ?? Infinity,
      ...(cell.charging ? [fullRange(cell.charging.current).max] : []),
      ...(from ? [fullRange(from.current).max - fullRange(charger.quiescent).max] : []),
    ),
  )
}

/** The smallest of the drawer with which the strongest charger still stays below a current, A. */
export const resistorFor = (charger: Charger, resistors: Resistors, most: number) =>
  preferred(resistors, fullRange(charger.setting).max / most / (1 - resistors.tolerance), 'up')

/** Undefined where nothing is charged on the board, where it has no cell, and before a board, which has its own plug. */
export const planCharging = ({
  design,
  library,
  stock: { resistors },
}: {
  design: Pick<Design, 'chip' | 'power'> & { needs: Pick<Design['needs'], 'limits'> }
  library: Library
  stock: Stock
}): ChargingPlan | undefined => {
  const { charging } = design.power
  const charger = findPart(library, 'charger', charging?.charger)
  const cell = sourceOf(design, library)
  if (!charger || !cell || cell.sort !== 'cells' || !resistors) return undefined
  if (findPart(library, 'board', design.chip.part)) return undefined
  const from = findPart(library, 'source', charging?.from)
  const set =
    charging?.current === undefined
      ? resistorFor(charger, resistors, mostCurrent({ charger, cell, from }, design.needs.limits.ambient))
      : preferred(resistors, fullRange(charger.setting).typ / charging.current, 'nearest')
  const K = fromPart(
    'K_set',
    'volts over the resistor that make amperes',
    charger,
    'setting',
    charger.setting,
    'V',
  )
  return {
    charger,
    cell,
    ...(from && { from }),
    resistors,
    set,
    current: sum(
      { label: 'Current of the charger', symbol: 'I_charge', unit: 'A', counts: 'max' },
      { K_set: K, R_set: setResistor({ resistors, set }) },
      (i) => i.K_set.over(i.R_set),
    ),
  }
}
