// What was understood of a table of legs: one row for each leg, linked to where it stands in the text.

import type { FoundLeg, Place, Understood } from '@root-board/core/intake'
import { Body, Cell, Columns, Row } from '../../kit/Table'
import { onArrowKeys } from '../../kit/arrow-list'
import { Flat } from '../../kit/Flat'
import { FoundTable } from './FoundTable'

interface Props {
  table: Understood
  chosen: string | undefined
  choose: (key: string, places: Place[]) => void
}

export const legKey = (leg: FoundLeg): string => `${leg.id} ${leg.legs.join()} ${leg.position ?? ''}`
export const placesOf = (leg: FoundLeg): Place[] => [...leg.places, ...leg.functions.map((f) => f.place)]

const typeWords: Record<FoundLeg['type'], string> = {
  io: 'in and out',
  input: 'input',
  output: 'output',
  supply: 'supply',
  ground: 'ground',
  reference: 'reference',
  radio: 'antenna',
  none: 'not connected',
}

export const FoundLegs = ({ table, chosen, choose }: Props) => {
  const legs = [...table.legs].sort((a, b) => (a.legs[0] ?? 0) - (b.legs[0] ?? 0))
  const stop = legs.some((l) => legKey(l) === chosen) ? chosen : legs[0] && legKey(legs[0])
  return (
    <FoundTable onKeyDown={onArrowKeys}>
      <Columns of={['Legs', 'Name', 'Type', 'Functions']} />
      <Body>
        {legs.map((leg) => {
          const key = legKey(leg)
          return (
            <Row key={key} className={key === chosen ? 'chosen' : ''} data-line={leg.places[0]?.line}>
              <Cell className="mono">{leg.position ?? (leg.legs.join(', ') || '—')}</Cell>
              <Cell>
                <Flat
                  className="mono"
                  data-item
                  tabIndex={key === stop ? 0 : -1}
                  aria-current={key === chosen}
                  onClick={() => choose(key, placesOf(leg))}
                  onFocus={() => choose(key, placesOf(leg))}
                >
                  {leg.label !== undefined && `${leg.label} · `}
                  {leg.id}
                </Flat>
              </Cell>
              <Cell>
                {typeWords[leg.type]}
                {leg.reset && ', reset'}
                {leg.oscillator && ', oscillator'}
                {leg.debug && ', debug'}
              </Cell>
              <Cell className="mono functions">
                {leg.functions.map((f, i) => (
                  <span key={i} className={f.by === 'nothing' ? 'open' : ''}>
                    {f.unit}.{f.signal}
                    {f.select !== undefined && <span className="faint">@{f.select}</span>}
                    {f.by === 'nothing' && '?'}
                  </span>
                ))}
                {leg.notes.map((n) => (
                  <span key={n} className="note">
                    {n}
                  </span>
                ))}
              </Cell>
            </Row>
          )
        })}
      </Body>
    </FoundTable>
  )
}
