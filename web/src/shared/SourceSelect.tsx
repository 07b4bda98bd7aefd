// Choosing what feeds the project: on the Needs page, and where the power comes in.

import { partsOfKind } from '@root-board/core/parts'
import { fullRange } from '@root-board/core/quantity'
import { useStage } from './analysis'
import { Choice } from '../kit/inputs'

/** `feed`: the second one, which a project can do without. */
export const SourceSelect = ({ id, feed = false }: { id: string; feed?: boolean }) => {
  const { design, library, edit } = useStage()
  const sources = [...partsOfKind(library, 'source')].sort(
    (a, b) => fullRange(a.voltage).typ - fullRange(b.voltage).typ,
  )
  return (
    <Choice
      id={id}
      value={(feed ? design.power.feed : design.power.source) ?? ''}
      options={[
        ...(feed ? [{ value: '', label: 'none' }] : []),
        ...(!feed && !design.power.source ? [{ value: '', label: 'choose …' }] : []),
        ...sources.map((s) => ({ value: s.id, label: s.name })),
      ]}
      onChange={(chosen) => {
        const source = sources.find((s) => s.id === chosen)
        if (feed) edit({ kind: 'chooseFeed', part: source?.id ?? null, name: source?.name ?? '' })
        else if (source) edit({ kind: 'chooseSource', part: source.id, name: source.name })
      }}
    />
  )
}
