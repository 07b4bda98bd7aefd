import { type Check, say } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { convertersOf } from './converters'
import { otherRegulators } from '../../pins'
import { eachItsVoltage } from './ways-out'

export const regulatorOverloaded: Check = {
  id: 'power.regulator-overloaded',
  stage: 'power',
  looksFor: 'more current through the regulator than it is made for',
  rule: 'the regulator’s rated output current',
  run: (stages) => {
    return convertersOf(stages).flatMap(({ regulator, out: { rail, work }, tail }) => {
      const limit = fullRange(regulator.current).max
      if (work.value.max <= limit) return []
      return [
        {
          id: `power.regulator-overloaded${tail}`,
          severity: work.value.typ > limit ? ('stops' as const) : ('risks' as const),
          grade: 'outside the sheet' as const,
          ...say`${regulator.name} gives ${formatQuantity(limit, 'A')}; the ${rail.name} draws up to ${formatQuantity(work.value.max, 'A', 3)}.`,
          because: [
            { ...say`The ${rail.name} draws up to ${formatQuantity(work.value.max, 'A', 3)}`, worked: work },
            say`${regulator.sheet}, ${regulator.current.source ?? 'rating'}: ${formatQuantity(limit, 'A')}`,
          ],
          fixes: [...otherRegulators(stages), ...eachItsVoltage(stages)],
        },
      ]
    })
  },
}
