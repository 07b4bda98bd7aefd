// A board’s headers, one beside the other, each in the order of its sheet. Where a header lies on the board, and which way it
// runs, is not in a board’s file: so it is not drawn as a package, and has no other side.

import { wireOn } from '@root-board/core/legs'
import { seatsOf } from '@root-board/core/carrier'
import type { Board } from '@root-board/core/parts'
import { useStage } from '../shared/analysis'
import { useLegWords } from './use-leg-words'
import { fit, ink, pencil } from './ink'
import { Picture } from './Picture'

const row = 17
const column = 300

export const HeaderCard = ({ board }: { board: Board }) => {
  const { analysis, design } = useStage()
  const wordsOn = useLegWords()
  const chip = analysis.chip.chip!
  const seats = seatsOf(board)
  const headers = [...new Set(seats.map((s) => s.header))].map((name) => ({
    name,
    seats: seats.filter((s) => s.header === name),
  }))
  const rows = Math.max(...headers.map((h) => h.seats.length))
  return (
    <Picture
      project={design.name}
      title={`${chip.name}, header by header`}
      file="legs"
      width={headers.length * column + 20}
      height={(rows + 3) * row}
      note="Each in the order of its sheet; look on the board for where it lies and which way it runs."
    >
      {headers.map((header, n) => (
        <g key={header.name} transform={`translate(${10 + n * column} 0)`}>
          <text y={row} fontWeight="650" fill={ink}>
            {header.name}
          </text>
          {header.seats.map((seat, i) => {
            const pin = chip.pins.find((p) => p.legs.includes(seat.number))!
            const y = (i + 2.5) * row
            const wire = wireOn(analysis.pins.plan?.wires ?? [], pin)
            return (
              <g key={seat.number} data-leg={seat.number}>
                <rect x="0" y={y - 12} width="46" height={row - 1} fill="none" stroke={ink} />
                <text x="23" y={y} textAnchor="middle" fontSize="11" fill={ink}>
                  {seat.label}
                </text>
                <text x="54" y={y} fontSize="11" fill={pencil}>
                  {pin.id === seat.label ? '' : pin.id}
                </text>
                <text x="98" y={y} fill={wire ? ink : pencil} fontWeight={wire ? 600 : 400}>
                  {fit(wordsOn(pin), 28)}
                </text>
              </g>
            )
          })}
        </g>
      ))}
    </Picture>
  )
}
