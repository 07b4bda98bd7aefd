// What a meter should show: “4.8 … 5.2 V”, “more than 1 MΩ”.

import type { StepCheck } from '@root-board/core/build'
import { printQuantity } from '@root-board/core/quantity'
import { Num } from './Num'

const One = ({ value, unit }: { value: number; unit: StepCheck['expect']['unit'] }) => {
  const p = printQuantity(value, unit, 3)
  return (
    <span className="mono">
      {p.number}
      <span className="unit">{p.unit}</span>
    </span>
  )
}

export const Expectation = ({ check }: { check: StepCheck }) => {
  const { min, max, unit } = check.expect
  const words =
    min !== undefined && max !== undefined ? (
      <>
        <One value={min} unit={unit} /> to <One value={max} unit={unit} />
      </>
    ) : min !== undefined ? (
      <>
        more than <One value={min} unit={unit} />
      </>
    ) : (
      <>
        less than <One value={max ?? 0} unit={unit} />
      </>
    )
  return check.worked ? <Num worked={check.worked}>{words}</Num> : words
}
