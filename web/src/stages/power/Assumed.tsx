// What numbers stand on that no sheet states.

import { type Assumption, rangeText } from '@root-board/core/findings'

export const Assumed = ({ of }: { of: readonly Assumption[] }) =>
  of.length === 0 ? null : (
    <p className="faint">
      Assumed, since no sheet states it:{' '}
      {of
        .map(({ label, value, unit }) =>
          // A share is said in hundredths.
          label.startsWith('share ')
            ? `${label} ${rangeText({ min: 100 * value.min, typ: 100 * value.typ, max: 100 * value.max }, '', 2)} %`
            : `${label} ${rangeText(value, unit, 2)}`,
        )
        .join('; ')}
      .
    </p>
  )
