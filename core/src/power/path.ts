// The way from the plug to the rail: source, polarity diode, regulator.

import { forwardOf, type PolarityDiode, polarityOf } from '../circuit'
import type { Design } from '../design'
import { fromPart, type Worked } from '../findings'
import { findPart, type Library, type Regulator, type Source } from '../parts'
import { dimensionOf, greatest, number, sum, type SumInput, type Term } from '../sums'

export interface Path {
  source?: Source
  regulator?: Regulator
  /** Where a plug can come reversed, the diode that would guard against it. */
  polarity?: PolarityDiode
}

export const pathOf = (design: Design, library: Library): Path => ({
  source: findPart(library, 'source', design.power.source),
  regulator: findPart(library, 'regulator', design.power.regulator),
  polarity: polarityOf(design, library),
})

/** Voltage at the regulator's input (or of the rail when there is none), with `current` flowing. */
export const inputVoltage = (path: Path, current: Worked): Worked | undefined => {
  const { source, polarity } = path
  if (!source) return undefined
  const V_source = fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V')
  const lost: Record<string, SumInput> = {
    ...(source.resistance && {
      I: current,
      R_i: fromPart('R_i', `inside ${source.name}`, source, 'resistance', source.resistance, 'Ω'),
    }),
    ...(polarity?.present && { V_F: forwardOf(polarity.diode, current) }),
  }
  return sum(
    {
      label: polarity?.present ? 'Voltage after the polarity diode' : 'Voltage after the plug',
      symbol: 'V_in',
      unit: 'V',
    },
    { V_source, ...lost } as Record<string, SumInput>,
    (i: Record<string, Term>) => {
      const inside = i.R_i ? i.V_source!.minus(i.I!.times(i.R_i)) : i.V_source!
      return i.V_F ? greatest(number(0, dimensionOf('V')), inside.minus(i.V_F)) : inside
    },
  )
}
