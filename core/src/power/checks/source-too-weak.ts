import type { Check } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { otherSources, withoutHungriest } from './ways-out'

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
    const hungriest = [...power.consumers].sort((a, b) => b.work.value.max - a.work.value.max)[0]
    return [
      {
        id: 'power.source-too-weak',
        severity: power.fromSource.value.typ > limit ? 'stops' : 'risks',
        grade: 'outside the sheet',
        text: `${power.source.name} gives ${formatQuantity(limit, 'A')}; everything at once draws up to ${formatQuantity(most, 'A', 3)}.`,
        because: [
          ...(hungriest
            ? [
                {
                  text: `${hungriest.name} alone draws up to ${formatQuantity(hungriest.work.value.max, 'A', 3)}`,
                  worked: hungriest.work,
                },
              ]
            : []),
          { text: `All together: ${formatQuantity(most, 'A', 3)}`, worked: power.fromSource },
          {
            text: `${power.source.sheet}, ${power.source.current.source ?? 'rating'}: ${formatQuantity(limit, 'A')}`,
          },
        ],
        fixes: [...otherSources(stages), ...withoutHungriest(stages)],
      },
    ]
  },
}
