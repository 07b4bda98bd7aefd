// What a meter should show: “4.8 … 5.2 V”, “more than 1 MΩ”.

import type { StepCheck } from '@root-board/core/blocks'
import { Num, Quantity } from './Num'

export const Expectation = ({ check }: { check: StepCheck }) => {
  const { min, max, unit } = check.expect
  const words =
    min !== undefined && max !== undefined ? (
      <>
        <Quantity value={min} unit={unit} /> to <Quantity value={max} unit={unit} />
      </>
    ) : min !== undefined ? (
      <>
        more than <Quantity value={min} unit={unit} />
      </>
    ) : (
      <>
        less than <Quantity value={max ?? 0} unit={unit} />
      </>
    )
  return check.worked ? <Num worked={check.worked}>{words}</Num> : words
}
