// The stack on a card: position by position, what each board does with it.

import { useStage } from '../shared/analysis'
import { boardsOf, labelAt, stackRows } from '../shared/stack-rows'
import { fit, ink, pencil } from './ink'
import { Picture } from './Picture'

const row = 18
const [label, pin, board] = [56, 60, 190]

export const StackCard = () => {
  const { analysis, design } = useStage()
  const boards = boardsOf(analysis)
  const rows = stackRows(analysis)
  if (boards.length === 0 || rows.length === 0) return null
  const columns = [...boards.map((b) => b.name), 'by hand']
  const width = 20 + label + pin + board * columns.length
  const left = (column: number) => 10 + label + pin + board * column
  return (
    <Picture
      project={design.name}
      title={`The stack on ${analysis.chip.chip!.name}`}
      file="stack"
      width={width}
      height={(rows.length + 2) * row}
    >
      {columns.map((name, i) => (
        <text key={i} x={left(i)} y={row} fontWeight="650" fill={ink}>
          {fit(name, 28)}
        </text>
      ))}
      <line x1="10" x2={width - 10} y1={row + 5} y2={row + 5} stroke={ink} strokeWidth="1.5" />
      {rows.map(({ place, here, over, loose }, i) => {
        const y = (i + 2) * row
        const uses = boards.map((b) => {
          const own = here.find((c) => c.seat.instance.id === b.id)
          if (!own) return labelAt(b, place.at) ? '–' : ''
          return `${own.signal.name.replace(`${b.name} `, '')}${over ? ', taken twice' : ''}`
        })
        return (
          <g key={place.number}>
            <text x="10" y={y + 4} fontWeight="600" fill={ink}>
              {place.label}
            </text>
            <text x={10 + label} y={y + 4} fill={pencil}>
              {place.pin}
            </text>
            {[...uses, loose.join(', ')].map((use, n) => (
              <text key={n} x={left(n)} y={y + 4} fill={ink} fontWeight={over ? 700 : 400}>
                {fit(use, 30)}
              </text>
            ))}
            <line x1="10" x2={width - 10} y1={y + 8} y2={y + 8} stroke="#cdc2ac" strokeWidth="0.7" />
          </g>
        )
      })}
    </Picture>
  )
}
