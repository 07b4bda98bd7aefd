// Choosing what feeds the project: on the Needs page, and where the power comes in.

import { partsOfKind } from '@root-board/core/parts'
import { fullRange } from '@root-board/core/quantity'
import { choosing } from '@root-board/core/supply'
import { useStage } from './analysis'
import { PartChoice } from './PartChoice'

/** `feed`: the second one, which a project can do without. */
export const SourceSelect = ({ id, feed = false }: { id: string; feed?: boolean }) => {
  const { design, library, edit } = useStage()
  const sources = [...partsOfKind(library, 'source')].sort(
    (a, b) => fullRange(a.voltage).typ - fullRange(b.voltage).typ,
  )
  return (
    <PartChoice
      id={id}
      value={feed ? design.power.feed : design.power.source}
      parts={sources}
      {...(feed ? { none: 'none' } : { ask: 'choose …' })}
      onChosen={(source) => {
        if (source) edit(choosing(feed ? 'feed' : 'source', source, design, library))
        else if (feed) edit({ kind: 'chooseFeed', part: null, name: '' })
      }}
    />
  )
}
