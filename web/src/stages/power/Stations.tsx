// Pieces of the way from plug to load: what flows and what could, the heat that leaves, and what hangs on a rail.

import type { Shown } from '@root-board/core/findings'
import type { Station as StationOf, Streams } from '@root-board/core/power'
import { formatQuantity } from '@root-board/core/quantity'
import type { ReactNode } from 'react'
import { Num } from '../../kit/Num'

/** What hangs on a rail: each its own stream. */
export const Loads = ({
  of,
  own,
  width,
  label,
}: {
  of: Streams['loads']
  own: string
  width: (worked: Shown) => number
  label: string
}) => {
  // What takes nothing in this state is no stream.
  const flowing = of.filter((c) => c.current.value.max > 0)
  const still = of.filter((c) => !flowing.includes(c))
  return (
    <ul className="loads" aria-label={label}>
      {flowing.slice(0, 8).map((c) => (
        <li key={c.id}>
          <span className="stream" style={{ height: Math.min(18, width(c.current)) }} />
          <span className="load-name">
            {c.name}
            {c.from !== own && <span className="faint"> from the source</span>}
          </span>
          <Num worked={c.current} show="max" digits={2} />
        </li>
      ))}
      {flowing.length > 8 && <li className="faint more">and {flowing.length - 8} more below</li>}
      {still.length > 0 && (
        <li className="faint more">
          {still.length === 1 ? `${still[0]!.name} takes` : `${still.length} take`} nothing then
        </li>
      )}
    </ul>
  )
}

/** What flows at most, and what it could carry. */
export const Carries = ({ of }: { of: StationOf | undefined }) =>
  of ? (
    <span className="line">
      <Num worked={of.current} show="max" />{' '}
      {of.allowed === undefined || !of.left ? (
        <span className="faint">at most</span>
      ) : (
        <>
          <span className="faint">of {formatQuantity(of.allowed, 'A')},</span>{' '}
          <span className={of.left.value.min < 0 ? 'stops' : 'faint'}>
            {of.left.value.min < 0 ? 'too much' : <Num worked={of.left} digits={2} />}
            {of.left.value.min < 0 ? '' : ' left'}
          </span>
        </>
      )}
    </span>
  ) : (
    <span className="faint">…</span>
  )

export const HeatOf = ({ of: { heat }, children }: { of: StationOf; children?: ReactNode }) =>
  heat ? (
    <span className="line">
      <Heat watts={heat.value.max} /> <Num worked={heat} show="max" digits={2} />{' '}
      <span className="faint">of heat</span>
      {children}
    </span>
  ) : null

/** More strokes for more heat: one for each third of a watt. */
const Heat = ({ watts }: { watts: number }) => {
  const strokes = Math.max(1, Math.min(5, Math.round(watts * 3)))
  return (
    <svg className="heat" width={strokes * 8 + 4} height="16" aria-hidden="true">
      {Array.from({ length: strokes }, (_, i) => (
        <path
          key={i}
          d={`M${4 + i * 8} 0 q4 4 0 8 q-4 4 0 8`}
          fill="none"
          stroke="var(--clay)"
          strokeWidth="1.5"
        />
      ))}
    </svg>
  )
}
