// Choosing what feeds the project: on the Needs page, and where the power comes in.

import { partsOfKind } from '@root-board/core/parts'
import { fullRange } from '@root-board/core/quantity'
import { useStage } from './analysis'

export const SourceSelect = ({ id }: { id: string }) => {
  const { design, library, edit } = useStage()
  const sources = partsOfKind(library, 'source').sort(
    (a, b) => fullRange(a.voltage).typ - fullRange(b.voltage).typ,
  )
  return (
    <select
      id={id}
      className="plain"
      value={design.power.source ?? ''}
      onChange={(e) => {
        const source = sources.find((s) => s.id === e.target.value)
        if (source) edit({ kind: 'chooseSource', part: source.id, name: source.name })
      }}
    >
      {!design.power.source && <option value="">choose …</option>}
      {sources.map((s) => (
        <option key={s.id} value={s.id}>
          {s.name}
        </option>
      ))}
    </select>
  )
}
