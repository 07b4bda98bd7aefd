import { fromDecision, fromPart, type SheetPart, type Worked } from '../findings'
import type { Rated } from '../parts'
import { sum, type SumInput } from './sum'

interface Packaged extends SheetPart {
  package: { thermalResistance?: Rated }
}
/** Where else a part’s file says how the heat leaves it. */
interface HeatWay {
  field: string
  value: Rated | undefined
}

/** How warm a part gets inside, °C, in air of so many °C; undefined where its package’s way for the heat isn’t known. */
export const junctionOf = (
  label: string,
  part: Packaged | (SheetPart & { way: HeatWay }),
  ambient: number,
  P: SumInput,
): Worked | undefined => {
  const { field, value } =
    'way' in part ? part.way : { field: 'package.thermalResistance', value: part.package.thermalResistance }
  return (
    value &&
    sum(
      { label, symbol: 'T_J', unit: '°C', counts: 'max' },
      {
        T_A: fromDecision('T_A', 'ambient', ambient, '°C', 'set on the Needs page'),
        P,
        θ_JA: fromPart('θ_JA', 'junction to ambient', part, field, value, 'K/W'),
      },
      (i) => i.T_A.plus(i.P.times(i.θ_JA)),
    )
  )
}
