// Signals grouped by device, each with the leg it has.

import { styled } from '@mui/material'
import { askedWord, type SignalNeed } from '@root-board/core/needs'
import { Link } from 'react-router'
import { useStage } from '../../shared/analysis'
import { onArrowKeys } from '../../kit/arrow-list'
import { ListLine } from './ListLine'

/** Devices in a chain go by the name that they have together. */
const ownerName = ({ chain, need, name }: SignalNeed['ends'][number]['instance']): string =>
  chain ? `${need.name} (${chain.of} in a chain)` : name

const groupName = (s: SignalNeed): string =>
  s.bus && s.ends.length > 0 && !s.id.startsWith('d')
    ? `Bus: ${[...new Set(s.ends.map((e) => ownerName(e.instance)))].join(', ')}`
    : ownerName(s.ends[0]!.instance)

export const SignalList = ({
  chosen,
  choose,
}: {
  chosen: string | undefined
  choose: (id: string) => void
}) => {
  const { analysis, design } = useStage()
  const { signals } = analysis.needs
  if (signals.length === 0)
    return (
      <p className="empty">
        No signals yet. <Link to="../needs">Add devices on the Needs page.</Link>
      </p>
    )
  const groups = new Map<string, SignalNeed[]>()
  for (const s of signals) groups.set(groupName(s), [...(groups.get(groupName(s)) ?? []), s])
  const wireOf = new Map(analysis.pins.plan?.wires.map((w) => [w.signal.id, w]))
  const clash = new Set(analysis.pins.plan?.clash.map((s) => s.id))
  const tabStop = chosen ?? signals[0]!.id
  return (
    <Signals className="signals" aria-label="Signals" onKeyDown={onArrowKeys}>
      {[...groups].map(([group, list]) => (
        <section key={group}>
          {(list.length > 1 || list[0]!.name !== group) && <h2>{group}</h2>}
          <ul>
            {list.map((s) => {
              const wire = wireOf.get(s.id)
              return (
                <li key={s.id}>
                  <ListLine
                    data-item
                    className={`signal ${s.id === chosen ? 'chosen' : ''}`}
                    aria-pressed={s.id === chosen}
                    tabIndex={s.id === tabStop ? 0 : -1}
                    onClick={() => choose(s.id)}
                  >
                    <span className="signal-name">
                      {list.length > 1 ? s.name.replace(`${group} `, '') : s.name}
                      <span className="faint"> {askedWord(s)}</span>
                    </span>
                    <span className={`mono ${wire?.impossible || clash.has(s.id) ? 'stops' : ''}`}>
                      {wire?.pin.labels && wire.pin.labels[0] !== wire.pin.id && (
                        <span className="faint">{wire.pin.labels[0]} </span>
                      )}
                      {wire ? wire.pin.id : clash.has(s.id) ? 'clash' : '—'}
                      {wire?.soldered ? (
                        <span title="soldered"> ⊨</span>
                      ) : (
                        design.pins.locks[s.id] && <span title="locked"> ⊢</span>
                      )}
                      {(wire?.soldered ?? design.pins.locks[s.id]) && (
                        <span className="visually-hidden">{wire?.soldered ? 'soldered' : 'locked'}</span>
                      )}
                    </span>
                  </ListLine>
                </li>
              )
            })}
          </ul>
        </section>
      ))}
    </Signals>
  )
}

const Signals = styled('nav')({
  '& ul': { listStyle: 'none', margin: 0, padding: 0 },
  '& h2': { fontSize: 12.5, color: 'var(--faint)', fontWeight: 600, marginTop: 5 },
  '& .signal-name .faint': { fontSize: 12 },
  '& section:has(h2) + section:not(:has(h2))': { marginTop: 8 },
})
