// The window of each pull-up on one scale: its two limits, what sits on the devices' boards, what the leg has inside.

import { busSpeedOf, busSpeeds } from '@root-board/core/design'
import type { PullWindow } from '@root-board/core/pins'
import { shortPlace } from '@root-board/core/legs'
import { formatQuantity } from '@root-board/core/quantity'
import { Body, Cell, Columns, Row, Table, right } from '../../../kit/Table'
import { useStage } from '../../../shared/analysis'
import { Num, Quantity } from '../../../kit/Num'
import { Choice } from '../../../kit/inputs'

const [low, high] = [100, 1e7]
const width = 250
const at = (ohms: number) =>
  (Math.log(Math.min(high, Math.max(low, ohms)) / low) / Math.log(high / low)) * width

export const Pulls = () => {
  const { analysis, edit, design } = useStage()
  const { windows } = analysis.pins
  if (windows.length === 0) return null
  const buses = [
    ...new Set(
      analysis.needs.instances.flatMap((i) =>
        i.wiring.signals.some((s) => s.bus === 'i2c') ? [i.need.bus ?? 1] : [],
      ),
    ),
  ].sort((a, b) => a - b)
  return (
    <section aria-labelledby="pulls">
      <h2 id="pulls">Pull-ups: the window, and what is in it</h2>
      {buses.map((bus) => (
        <p key={bus}>
          <label htmlFor={`bus-speed-${bus}`}>{bus > 1 ? `I2C bus ${bus} runs at` : 'I2C runs at'}</label>{' '}
          <Choice
            id={`bus-speed-${bus}`}
            value={busSpeedOf(design, bus)}
            options={busSpeeds.map((speed) => ({ value: speed, label: formatQuantity(speed, 'Hz') }))}
            onChange={(speed) => edit({ kind: 'setBusSpeed', speed, ...(bus > 1 ? { bus } : {}) })}
          />
        </p>
      ))}
      <Table className="pulls">
        <Columns of={['Line', 'Leg', 'For', right('Smallest'), <Scale />, right('Largest'), 'Fitted']} />
        <Body>
          {windows.map((w) => (
            <Row key={`${w.wire.signal.id} ${w.what}`} className={w.used ? undefined : 'faint'}>
              <Cell>{w.wire.signal.name}</Cell>
              <Cell className="mono">{shortPlace(w.wire.pin)}</Cell>
              <Cell>{w.what}</Cell>
              <Cell align="right">
                <Num worked={w.smallest} show={cornerOf(w)} />
              </Cell>
              <Cell>
                <Window window={w} />
              </Cell>
              <Cell align="right">
                <Num worked={w.largest} show="min" />
              </Cell>
              <Cell>
                <Fitted window={w} />
              </Cell>
            </Row>
          ))}
        </Body>
      </Table>
    </section>
  )
}

/** Of a contact the smallest is no limit: a smaller one only wastes more. */
const cornerOf = (w: PullWindow) => (w.what === 'contact' ? 'typ' : 'max')

const decades = [100, 1e3, 1e4, 1e5, 1e6, 1e7]
const names = ['100 Ω', '1 kΩ', '10 kΩ', '100 kΩ', '1 MΩ', '10 MΩ']

const Scale = () => (
  <svg width={width + 30} height="16" aria-label="Scale from 100 Ω to 10 MΩ" role="img">
    {decades.map((d, i) => (
      <text key={d} x={15 + at(d)} y="12" textAnchor="middle" fontSize="10" fill="var(--faint)">
        {names[i]}
      </text>
    ))}
  </svg>
)

const Window = ({ window: w }: { window: PullWindow }) => {
  const [a, b] = [at(w.smallest.value[cornerOf(w)]), at(w.largest.value.min)]
  const empty = w.largest.value.min < w.smallest.value[cornerOf(w)]
  return (
    <svg width={width + 30} height="18" aria-hidden="true">
      <g transform="translate(15 0)">
        {decades.map((d) => (
          <line key={d} x1={at(d)} x2={at(d)} y1="2" y2="16" stroke="var(--line)" />
        ))}
        {!empty && (
          <rect x={a} y="6" width={b - a} height="6" fill="none" stroke="var(--green)" strokeWidth="1.5" />
        )}
        {empty && <line x1={b} x2={a} y1="9" y2="9" stroke="var(--clay)" strokeDasharray="3 3" />}
        {w.inside && (
          <line
            x1={at(w.inside.min)}
            x2={at(w.inside.max)}
            y1="9"
            y2="9"
            stroke="var(--slate)"
            strokeWidth="3"
            strokeDasharray="2 2"
          />
        )}
        {w.onBoards && <path d={`M${at(w.onBoards.value.typ) - 4} 1h8l-4 7z`} fill="var(--slate)" />}
        {w.used && w.fitted !== undefined && (
          <line x1={at(w.fitted)} x2={at(w.fitted)} y1="2" y2="16" stroke="var(--ink)" strokeWidth="2.5" />
        )}
      </g>
    </svg>
  )
}

const Fitted = ({ window: w }: { window: PullWindow }) => {
  if (!w.used) return <>—</>
  const parts = [
    w.fitted !== undefined && (
      <span key="ours">
        <Quantity value={w.fitted} unit="Ω" /> of ours
      </span>
    ),
    w.onBoards && (
      <span key="boards">
        <Num worked={w.onBoards} /> on the devices’ boards
      </span>
    ),
    w.inside && w.fitted === undefined && (
      <span key="inside">
        the leg’s own, <Quantity value={w.inside.min} unit="Ω" digits={2} /> to{' '}
        <Quantity value={w.inside.max} unit="Ω" digits={2} />
      </span>
    ),
  ].filter(Boolean)
  return parts.length === 0 ? (
    <span className="stops">none: the line floats</span>
  ) : (
    <>{parts.map((p, i) => [i > 0 && ', ', p])}</>
  )
}
