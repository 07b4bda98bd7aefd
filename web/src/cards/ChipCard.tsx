// A bare chip or module with its signals beside its legs, from above or, for the iron, from below.

import { wireOn } from '@root-board/core/legs'
import { useState } from 'react'
import { Choice } from '../kit/inputs'
import { useStage } from '../shared/analysis'
import { fit, ink, pencil } from './ink'
import { type Seat, seatsAround } from './layout'
import { Picture } from './Picture'
import { useLegWords } from './use-leg-words'

const row = 17
/** For a port’s name and its signal, outside of the body. */
const words = 260

export const ChipCard = () => {
  const { analysis, design } = useStage()
  const wordsOn = useLegWords()
  const [from, setFrom] = useState<'above' | 'below'>('above')
  const chip = analysis.chip.chip!
  const legs = chip.pins.flatMap((pin) => pin.legs.map((leg) => ({ leg, pin })))
  legs.sort((a, b) => a.leg - b.leg)
  const sides = chip.package.style === 'four-sided' ? 4 : 2
  const seats = seatsAround(legs.length, sides, from)
  const each = Math.ceil(legs.length / sides)
  /** So that at a corner the numbers of two sides stand apart. */
  const pad = sides === 4 ? 26 : 10
  const height = each * row + 2 * pad
  const across = sides === 4 ? height : 120
  const edge = sides === 4 ? words : 20
  const picture = { width: across + 2 * words, height: height + 2 * edge }
  /** Centre of a leg’s number, just inside of the body. */
  const centre = ({ side, at }: Seat) => {
    const along = pad + (at + 0.5) * row
    if (side === 'left') return { x: words + 16, y: edge + along }
    if (side === 'right') return { x: words + across - 16, y: edge + along }
    return { x: words + along, y: side === 'top' ? edge + 16 : edge + height - 16 }
  }
  const notched = chip.package.style === 'dip' || chip.package.style === 'two-sided'
  /** At leg 1. */
  const mark = seats[0]?.side === 'left' ? words + 7 : words + across - 7
  return (
    <Picture
      project={design.name}
      title={`${chip.name} from ${from}`}
      file="legs"
      {...picture}
      tools={
        <label>
          Seen from{' '}
          <Choice
            value={from}
            options={[
              { value: 'above', label: 'above' },
              { value: 'below', label: 'below, where it is soldered' },
            ]}
            onChange={setFrom}
          />{' '}
        </label>
      }
    >
      <rect x={words} y={edge} width={across} height={height} fill="none" stroke={ink} strokeWidth="1.5" />
      {notched ? (
        <path
          d={`M${words + across / 2 - 9} ${edge} a9 9 0 0 0 18 0`}
          fill="none"
          stroke={ink}
          strokeWidth="1.5"
        />
      ) : (
        <circle cx={mark} cy={edge + 7} r="3" fill="none" stroke={ink} />
      )}
      <text
        x={words + across / 2}
        y={edge + height / 2}
        textAnchor="middle"
        fontWeight="700"
        transform={sides === 2 ? `rotate(90 ${words + across / 2} ${edge + height / 2})` : undefined}
      >
        {chip.name}
      </text>
      {legs.map(({ leg, pin }, i) => {
        const seat = seats[i]!
        const { x, y } = centre(seat)
        const wire = wireOn(analysis.pins.plan?.wires ?? [], pin)
        const use = wordsOn(pin)
        const upright = seat.side === 'top' || seat.side === 'bottom'
        // Drawn as if on the right, and turned to where the leg is.
        const turn = { right: 0, left: 0, top: -90, bottom: 90 }[seat.side]
        const out = seat.side === 'left' ? -1 : 1
        const anchor = seat.side === 'left' ? 'end' : 'start'
        const text = (dx: number) => x + out * dx
        return (
          <g key={leg} data-leg={leg} transform={upright ? `rotate(${turn} ${x} ${y})` : undefined}>
            <text x={x} y={y + 4} textAnchor="middle" fontSize="11" fill={pencil}>
              {leg}
            </text>
            <line
              x1={text(16)}
              x2={text(28)}
              y1={y}
              y2={y}
              stroke={ink}
              strokeWidth={wire ? 2.2 : 1}
              strokeDasharray={use ? undefined : '2 2'}
            />
            <text x={text(32)} y={y + 4} textAnchor={anchor} fontSize="11" fill={pencil}>
              {pin.id}
            </text>
            <text
              x={text(76)}
              y={y + 4}
              textAnchor={anchor}
              fill={wire ? ink : pencil}
              fontWeight={wire ? 600 : 400}
            >
              {fit(use, 28)}
            </text>
          </g>
        )
      })}
    </Picture>
  )
}
