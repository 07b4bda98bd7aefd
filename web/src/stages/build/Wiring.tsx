import type { WireRow } from '@root-board/core/build'
import { type GrowingColumn, GrowingTable } from '../../kit/GrowingTable'
import { useStage } from '../../shared/analysis'

const End = ({ end }: { end: WireRow['from'] }) => (
  <>
    <span className="mono">{end.ref}</span> {end.name}, <span className="mono">{end.terminal}</span>
  </>
)
const text = (end: WireRow['from']) => `${end.ref} ${end.name}, ${end.terminal}`

const columns: GrowingColumn<WireRow>[] = [
  {
    id: 'net',
    name: 'Net',
    of: (w) => w.net,
    mono: true,
    // Rows of one net stand together, and it is named once.
    cell: (w, before) =>
      w.net === before?.net ? <span className="visually-hidden">{w.net}</span> : <b>{w.net}</b>,
  },
  { id: 'from', name: 'From', of: (w) => text(w.from), cell: (w) => <End end={w.from} /> },
  { id: 'to', name: 'To', of: (w) => text(w.to), cell: (w) => <End end={w.to} /> },
]

/** One row a wire. */
export const Wiring = () => {
  const { wiring } = useStage().analysis.build
  return (
    <GrowingTable
      label="Wiring table"
      rows={wiring}
      columns={columns}
      keyOf={(w) => `${w.net} ${text(w.from)} ${text(w.to)}`}
    />
  )
}
