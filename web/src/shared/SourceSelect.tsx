// Choosing what feeds the project: on the Needs page, and where the power comes in.

import { partsOfKind } from '@root-board/core/parts'
import { fullRange } from '@root-board/core/quantity'
import { useStage } from './analysis'

/** `feed`: the second one, which a project can do without. */
export const SourceSelect = ({ id, feed = false }: { id: string; feed?: boolean }) => {
  const { design, library, edit } = useStage()
  const sources = [...partsOfKind(library, 'source')].sort(
    (a, b) => fullRange(a.voltage).typ - fullRange(b.voltage).typ,
  )
  return (
    <select
      id={id}
      className="plain"
      value={(feed ? design.power.feed : design.power.source) ?? ''}
      onChange={(e) => {
        const source = sources.find((s) => s.id === e.target.value)
        if (feed) edit({ kind: 'chooseFeed', part: source?.id ?? null, name: source?.name ?? '' })
        else if (source) edit({ kind: 'chooseSource', part: source.id, name: source.name })
      }}
    >
      {feed ? <option value="">none</option> : !design.power.source && <option value="">choose …</option>}
      {sources.map((s) => (
        <option key={s.id} value={s.id}>
          {s.name}
        </option>
      ))}
    </select>
  )
}
