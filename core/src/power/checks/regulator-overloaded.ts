import type { Check } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { otherRegulators } from './ways-out'

export const regulatorOverloaded: Check = {
  id: 'power.regulator-overloaded',
  stage: 'power',
  looksFor: 'more current through the regulator than it is made for',
  rule: 'the regulator’s rated output current',
  run: (stages) => {
    const { regulator, work } = stages.power
    if (!regulator) return []
    const limit = fullRange(regulator.current).max
    if (work.value.max <= limit) return []
    return [
      {
        id: 'power.regulator-overloaded',
        severity: work.value.typ > limit ? 'stops' : 'risks',
        grade: 'outside the sheet',
        text: `${regulator.name} gives ${formatQuantity(limit, 'A')}; the rail draws up to ${formatQuantity(work.value.max, 'A', 3)}.`,
        because: [
          { text: `The rail draws up to ${formatQuantity(work.value.max, 'A', 3)}`, worked: work },
          {
            text: `${regulator.sheet}, ${regulator.current.source ?? 'rating'}: ${formatQuantity(limit, 'A')}`,
          },
        ],
        fixes: otherRegulators(stages),
      },
    ]
  },
}
