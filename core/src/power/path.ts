// The way from the plug to the rail: source, polarity diode, regulator.

import { careful, type Design, supportChoice, type SupportChoice } from '../design'
import { fromPart, type Worked } from '../findings'
import { type Diode, findPart, type Library, partsOfKind, type Regulator, type Source } from '../parts'
import { fullRange } from '../quantity'
import { asVariable, dimensionOf, greatest, number, readCurve, sum } from '../sums'

export const polarityKey = 'polarity-diode'

export interface Path {
  source?: Source
  regulator?: Regulator
  /** Where a plug can come reversed, the diode that would guard against it. */
  polarity?: SupportChoice & { diode: Diode }
}

/** A board brings its own plug: what guards it is the board’s, and no diode of ours. */
export const pathOf = (design: Design, library: Library, onBoard: boolean): Path => {
  const source = findPart(library, 'source', design.power.source)
  const regulator = findPart(library, 'regulator', design.power.regulator)
  const diode = partsOfKind(library, 'diode')
    .filter(
      (d) =>
        d.sort === 'schottky' && fullRange(d.reverse).max >= 2 * (source ? fullRange(source.voltage).max : 0),
    )
    .sort((a, b) => a.price - b.price)[0]
  // Without a regulator a diode's drop would be missing from the rail: then the plug is guarded by care alone.
  const canReverse = source?.sort === 'adapter' && regulator !== undefined && !onBoard
  return {
    source,
    regulator,
    polarity: canReverse && diode ? { ...supportChoice(design, polarityKey, careful), diode } : undefined,
  }
}

/** Voltage at the regulator's input (or of the rail when there is none), with `current` flowing. */
export const inputVoltage = (path: Path, current: Worked): Worked | undefined => {
  const { source, polarity } = path
  if (!source) return undefined
  const V_source = fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V')
  if (!polarity?.present)
    return sum(
      { label: 'Voltage after the plug', symbol: 'V_in', unit: 'V' },
      { V_source },
      (i) => i.V_source,
    )
  const { diode } = polarity
  const V_F = readCurve(
    { label: `Forward voltage of ${diode.name}`, symbol: 'V_F', unit: 'V' },
    { part: diode, field: 'forward', points: diode.forward.map((p) => ({ x: p.current, y: p.voltage })) },
    ['I', asVariable(current)],
  )
  return sum(
    { label: 'Voltage after the polarity diode', symbol: 'V_in', unit: 'V' },
    { V_source, V_F },
    (i) => greatest(number(0, dimensionOf('V')), i.V_source.minus(i.V_F)),
  )
}
