// What numbers stand on that no sheet states.

import { type Assumption, rangeText } from '@root-board/core/findings'

export const Assumed = ({ of }: { of: readonly Assumption[] }) =>
  of.length === 0 ? null : (
    <p className="faint">
      Assumed, since no sheet states it:{' '}
      {of.map(({ label, value, unit }) => `${label} ${rangeText(value, unit, 2)}`).join('; ')}.
    </p>
  )
