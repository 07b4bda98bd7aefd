import { type Check, say } from '../../findings'
import { givesAtOnce } from '../../parts'
import { formatQuantity, fullRange } from '../../quantity'
import { choosing, sourcesFor } from '../../supply'

export const feedTooWeak: Check = {
  id: 'power.feed-too-weak',
  stage: 'power',
  looksFor: 'a second feed that can’t give what its loads draw together',
  rule: 'the source’s rated current',
  run: ({ design, library, power: { feed } }) => {
    if (!feed) return []
    const limit = fullRange(feed.source.current).max
    const most = feed.current.value.max
    if (most <= limit) return []
    const voltage = fullRange(feed.source.voltage)
    const stronger = sourcesFor('feed', design, library)
      .filter((s) => {
        const v = fullRange(s.voltage)
        return s.sort !== 'panel' && v.typ === voltage.typ && givesAtOnce(s) >= most
      })
      .sort((a, b) => a.price - b.price)[0]
    return [
      {
        id: 'power.feed-too-weak',
        severity: feed.current.value.typ > limit ? 'stops' : 'risks',
        grade: 'outside the sheet',
        ...say`${feed.source.name} gives ${formatQuantity(limit, 'A')}; all on it at once draw up to ${formatQuantity(most, 'A', 3)}.`,
        because: [
          { ...say`All on the second feed: ${formatQuantity(most, 'A', 3)}`, worked: feed.current },
          say`${feed.source.sheet}, ${feed.source.current.source ?? 'rating'}: ${formatQuantity(limit, 'A')}`,
        ],
        fixes: stronger
          ? [
              {
                label: `Second feed from ${stronger.name}`,
                edits: choosing('feed', stronger, design, library),
              },
            ]
          : [],
      },
    ]
  },
}
