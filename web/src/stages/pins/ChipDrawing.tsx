// The chip from above as two columns of legs, in physical order: down the left side, up the right.

import type { SignalNeed } from '@root-board/core/needs'
import type { Chip, ChipPin } from '@root-board/core/parts'
import { attributeOf, wireOn } from '@root-board/core/legs'
import { useStage } from '../../shared/analysis'
import { wordsOfLeg } from '../../shared/leg-use'
import { onArrowKeys } from '../../kit/arrow-list'
import type { Reach } from './use-reach'
import { Flat } from '../../kit/Flat'

interface Props {
  chip: Chip
  signal: SignalNeed | undefined
  reach: Reach | undefined
  chosen: string | undefined
  choose: (pin: string) => void
}

interface Side {
  label: string
  /** Which way the names face. */
  side: 'left' | 'right'
  legs: { leg: number; pin: ChipPin }[]
}

/** Up to so many legs are drawn on two sides; more need four columns to fit on a screen. */
const twoSided = 64

/** Down the left side and up the right, as counted from the notch; with many legs, all four sides beside one another. */
const sidesOf = (legs: Side['legs']): Side[] => {
  if (legs.length <= twoSided) {
    const half = Math.ceil(legs.length / 2)
    return [
      { label: 'Left side, downwards', side: 'left', legs: legs.slice(0, half) },
      { label: 'Right side, upwards', side: 'right', legs: legs.slice(half).reverse() },
    ]
  }
  const quarter = Math.ceil(legs.length / 4)
  const part = (n: number) => legs.slice(n * quarter, (n + 1) * quarter)
  return [
    { label: 'Left side, downwards', side: 'left', legs: part(0) },
    { label: 'Lower side, from the left', side: 'left', legs: part(1) },
    { label: 'Upper side, from the left', side: 'right', legs: part(3).reverse() },
    { label: 'Right side, upwards', side: 'right', legs: part(2).reverse() },
  ]
}

export const ChipDrawing = (props: Props) => {
  const { chip, chosen } = props
  const legs = chip.pins.flatMap((pin) => pin.legs.map((leg) => ({ leg, pin }))).sort((a, b) => a.leg - b.leg)
  const sides = sidesOf(legs)
  const many = sides.length > 2
  return (
    <section
      className={`chip-drawing ${props.signal ? 'reaching' : ''} ${chip.board ? 'board' : ''} ${many ? 'many' : ''}`}
      aria-label={chip.board ? `Header positions of ${chip.name}` : `${chip.name} from above`}
      style={{ '--rows': sides[0]!.legs.length } as React.CSSProperties}
    >
      {sides.map((s, n) => {
        // Where the headers of a board lie, and which way they run, is not in its file.
        const label = chip.board ? `${placeOf(s.legs[0])} to ${placeOf(s.legs.at(-1))}` : s.label
        const stop = s.legs.some((l) => l.pin.id === chosen) ? chosen : s.legs[0]?.pin.id
        return [
          n === sides.length / 2 && (
            <div className="body" aria-hidden="true" key="body">
              <span className="notch" />
              <span className="body-name">{chip.name}</span>
            </div>
          ),
          <div role="group" className={`legs ${s.side}`} aria-label={label} onKeyDown={onArrowKeys} key={n}>
            {many && (
              <div className="side-name faint" aria-hidden="true">
                {label}
              </div>
            )}
            {s.legs.map(({ leg, pin }, i) => (
              <Leg
                key={leg}
                leg={leg}
                pin={pin}
                side={s.side}
                terse={many}
                stop={pin.id === stop && s.legs.findIndex((l) => l.pin.id === stop) === i}
                {...props}
              />
            ))}
          </div>,
        ]
      })}
    </section>
  )
}

/** The first of what a leg is called or can do, and how much more there is. */
const shortNames = (pin: ChipPin): string => {
  if (pin.type !== 'io') return ''
  const all = [
    ...(pin.names ?? []).filter((n) => !pin.labels?.includes(n)),
    ...(pin.functions ?? []).map((f) => (f.unit.length > 3 ? f.signal : `${f.unit} ${f.signal}`)),
  ]
  return all.length > 1 ? `${all[0]} +${all.length - 1}` : (all[0] ?? '')
}

/** Cut in the middle where there is no room: what tells “Moisture probe 1” from its like is the end. */
const EndKept = ({ text }: { text: string }) => {
  const [, head, end] = /^(.*)( \S{1,5})$/.exec(text) ?? [undefined, text, '']
  return (
    <span className="end-kept">
      <span>{head}</span>
      <span>{end}</span>
    </span>
  )
}

/** What is printed beside a header position, or the number of a leg. */
const placeOf = (at: Side['legs'][number] | undefined): string | number =>
  at ? (at.pin.labels?.[at.pin.legs.indexOf(at.leg)] ?? at.leg) : ''

const Leg = ({
  leg,
  pin,
  side,
  signal,
  reach,
  chosen,
  choose,
  stop,
  chip,
  terse,
}: Props & { leg: number; pin: ChipPin; side: 'left' | 'right'; stop: boolean; terse: boolean }) => {
  const { analysis, design } = useStage()
  const wire = wireOn(analysis.pins.plan?.wires ?? [], pin)
  const place = placeOf({ leg, pin })
  const entry = signal && reach?.get(pin.id)
  const here = signal && wire?.signal.id === signal.id
  const programming = attributeOf(pin, 'programming')
  const use = wordsOfLeg(analysis, design, pin)
  const state = here ? 'here' : wire ? (wire.impossible ? 'wrong' : 'used') : use ? 'fixed' : 'free'
  return (
    <Flat
      data-item
      tabIndex={stop ? 0 : -1}
      className={`leg ${state} ${chosen === pin.id ? 'chosen' : ''}`}
      aria-pressed={chosen === pin.id}
      aria-label={`${pin.labels ? place : `leg ${leg}`}, ${pin.id}, ${use || 'free'}${entry ? (entry.reason ? `, can’t serve ${signal.name}: ${entry.reason}` : entry.extra === undefined ? ', not decided in the time given' : `, costs ${entry.unsure ? 'up to ' : ''}${entry.extra} more`) : ''}`}
      onClick={() => choose(pin.id)}
    >
      <span className="outer">
        {signal && entry && !here ? (
          entry.reason ? (
            <span className="no-reach" title={entry.reason}>
              {terse ? 'no' : entry.reason}
            </span>
          ) : entry.extra === undefined ? (
            <span className="no-reach" title="Not decided in the time given">
              {terse ? '?' : 'not decided'}
            </span>
          ) : (
            <span className="reach">
              <span className="reach-bar" style={{ width: `${Math.min(56, 3 + (entry.extra ?? 0))}px` }} />
              <span className="mono">
                {entry.extra === 0 && !terse ? 'as good' : `${entry.unsure ? '≤' : ''}+${entry.extra}`}
              </span>
              {wire && !terse && (
                <span className="faint occupant">
                  <EndKept text={wire.signal.name} />
                </span>
              )}
            </span>
          )
        ) : (
          <span className="use">{terse ? use : <EndKept text={use} />}</span>
        )}
        {wire?.locked && <span aria-hidden="true">{wire.soldered ? '⊨' : '⊢'}</span>}
      </span>
      <span className={wire ? 'lead wired' : 'lead'} />
      <span className="names mono">
        <b>{chip.board && place === pin.id ? '' : pin.id}</b>
        <span className="faint"> {programming ? programming.signal : shortNames(pin)}</span>
      </span>
      <span className="number mono">{place}</span>
      <span className="visually-hidden">
        {side} of {chip.name}
      </span>
    </Flat>
  )
}
