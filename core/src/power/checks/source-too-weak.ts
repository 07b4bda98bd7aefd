import { type Check, say } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { hungriest } from './hungriest'
import { eachItsVoltage, otherSources, withoutHungriest } from './ways-out'

export const sourceTooWeak: Check = {
  id: 'power.source-too-weak',
  stage: 'power',
  looksFor: 'a source that can’t give what everything together draws',
  rule: 'the source’s rated current',
  run: (stages) => {
    const { power } = stages
    if (!power.source) return []
    const limit = fullRange(power.source.current).max
    const most = power.fromSource.value.max
    if (most <= limit) return []
    const [first] = hungriest(power)
    return [
      {
        id: 'power.source-too-weak',
        severity: power.fromSource.value.typ > limit ? 'stops' : 'risks',
        grade: 'outside the sheet',
        ...say`${power.source.name} gives ${formatQuantity(limit, 'A')}; everything at once draws up to ${formatQuantity(most, 'A', 3)}.`,
        because: [
          ...(first
            ? [
                {
                  ...say`${first.name} alone draws up to ${formatQuantity(first.work.value.max, 'A', 3)}`,
                  worked: first.work,
                },
              ]
            : []),
          { ...say`All together: ${formatQuantity(most, 'A', 3)}`, worked: power.fromSource },
          say`${power.source.sheet}, ${power.source.current.source ?? 'rating'}: ${formatQuantity(limit, 'A')}`,
        ],
        fixes: [...otherSources(stages), ...eachItsVoltage(stages), ...withoutHungriest(stages)],
      },
    ]
  },
}
