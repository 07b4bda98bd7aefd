// The chip from above as two columns of legs, in physical order: down the left side, up the right.

import type { SignalNeed } from '@root-board/core/needs'
import type { Chip, ChipPin } from '@root-board/core/parts'
import { attributeOf, wireOn } from '@root-board/core/pins'
import { useStage } from '../../shared/analysis'
import { onArrowKeys } from '../../shared/arrow-list'
import type { Reach } from './use-reach'

interface Props {
  chip: Chip
  signal: SignalNeed | undefined
  reach: Reach | undefined
  chosen: string | undefined
  choose: (pin: string) => void
}

export const ChipDrawing = (props: Props) => {
  const { chip, chosen } = props
  const legs = chip.pins.flatMap((pin) => pin.legs.map((leg) => ({ leg, pin }))).sort((a, b) => a.leg - b.leg)
  const half = Math.ceil(legs.length / 2)
  const left = legs.slice(0, half)
  const right = legs.slice(half).reverse()
  const stop = chosen ?? legs[0]?.pin.id
  return (
    <section
      className={`chip-drawing ${props.signal ? 'reaching' : ''} ${chip.board ? 'board' : ''}`}
      aria-label={`${chip.name} from above`}
      style={{ '--rows': half } as React.CSSProperties}
    >
      <div role="group" className="legs left" aria-label="Left side, downwards" onKeyDown={onArrowKeys}>
        {left.map(({ leg, pin }) => (
          <Leg key={leg} leg={leg} pin={pin} side="left" stop={pin.id === stop} {...props} />
        ))}
      </div>
      <div className="body" aria-hidden="true">
        <span className="notch" />
        <span className="body-name">{chip.name}</span>
      </div>
      <div role="group" className="legs right" aria-label="Right side, upwards" onKeyDown={onArrowKeys}>
        {right.map(({ leg, pin }, i) => (
          <Leg
            key={leg}
            leg={leg}
            pin={pin}
            side="right"
            stop={pin.id === stop || (!left.some((l) => l.pin.id === stop) && i === 0)}
            {...props}
          />
        ))}
      </div>
    </section>
  )
}

const typeWords: Partial<Record<ChipPin['type'], string>> = {
  supply: 'supply',
  ground: 'ground',
  reference: 'reference',
  radio: 'antenna',
  none: 'not connected',
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
}: Props & { leg: number; pin: ChipPin; side: 'left' | 'right'; stop: boolean }) => {
  const { analysis, design } = useStage()
  const wire = wireOn(analysis.pins.plan?.wires ?? [], pin)
  const taken = analysis.pins.taken[pin.id]
  const place = pin.labels?.[pin.legs.indexOf(leg)] ?? leg
  const entry = signal && reach?.get(pin.id)
  const here = signal && wire?.signal.id === signal.id
  const excluded = design.pins.excluded.includes(pin.id)
  const programming = attributeOf(pin, 'programming')
  const use = wire
    ? wire.signal.name
    : excluded
      ? 'kept free'
      : ((pin.labels && pin.type === 'none' ? 'no signal' : undefined) ??
        typeWords[pin.type] ??
        (taken ? (attributeOf(pin, 'reset') ? 'reset' : (analysis.clock.source?.kind ?? 'clock')) : ''))
  const state = here ? 'here' : wire ? (wire.impossible ? 'wrong' : 'used') : use ? 'fixed' : 'free'
  return (
    <button
      type="button"
      data-item
      tabIndex={stop ? 0 : -1}
      className={`plain-button leg ${state} ${chosen === pin.id ? 'chosen' : ''}`}
      aria-pressed={chosen === pin.id}
      aria-label={`${pin.labels ? place : `leg ${leg}`}, ${pin.id}, ${use || 'free'}${entry ? (entry.reason ? `, can’t serve ${signal.name}: ${entry.reason}` : `, costs ${entry.extra} more`) : ''}`}
      onClick={() => choose(pin.id)}
    >
      <span className="outer">
        {signal && entry && !here ? (
          entry.reason ? (
            <span className="no-reach">{entry.reason}</span>
          ) : (
            <span className="reach">
              <span className="reach-bar" style={{ width: `${Math.min(56, 3 + (entry.extra ?? 0))}px` }} />
              <span className="mono">{entry.extra === 0 ? 'as good' : `+${entry.extra}`}</span>
              {wire && <span className="faint occupant">{wire.signal.name}</span>}
            </span>
          )
        ) : (
          <span className="use">{use}</span>
        )}
        {wire?.locked && <span aria-hidden="true">⊢</span>}
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
    </button>
  )
}
