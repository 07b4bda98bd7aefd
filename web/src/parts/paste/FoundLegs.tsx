// What was understood of a table of legs: one row for each leg, linked to where it stands in the text.

import type { Answers, FoundLeg, Place, Understood } from '@root-board/core/intake'
import { useState } from 'react'
import { Body, Cell, Columns, hidden, Row } from '../../kit/Table'
import { onArrowKeys } from '../../kit/arrow-list'
import { Flat } from '../../kit/Flat'
import { FoundTable } from './FoundTable'
import { correctable, LegForm, spoken } from './LegForm'
import { typeWords } from './type-words'

interface Props {
  table: Understood
  chosen: string | undefined
  choose: (key: string, places: Place[]) => void
  answers: Answers
  answer: (answers: Answers) => void
  /** What legs were taken for, where they are no chip’s: then what a chip’s leg of that name could be says nothing. */
  says?: Record<string, string>
}

export const legKey = (leg: FoundLeg): string => `${leg.id} ${leg.legs.join()} ${leg.position ?? ''}`
export const placesOf = (leg: FoundLeg): Place[] => [...leg.places, ...leg.functions.map((f) => f.place)]

/** Whether the builder has written into this leg’s row. */
const isCorrected = (leg: FoundLeg, answers: Answers) =>
  correctable.some((f) => answers[`set:${leg.key}:${f}`] !== undefined)

export const FoundLegs = ({ table, chosen, choose, answers, answer, says }: Props) => {
  const [open, setOpen] = useState<string>()
  // Whoever closes a row goes on from it.
  const [left, setLeft] = useState<string>()
  const legs = [...table.legs].sort((a, b) => (a.legs[0] ?? 0) - (b.legs[0] ?? 0))
  const stop = legs.some((l) => legKey(l) === chosen) ? chosen : legs[0] && legKey(legs[0])
  return (
    <FoundTable onKeyDown={onArrowKeys}>
      <Columns
        of={['Legs', 'Name', ...(says ? ['What it is', 'Notes'] : ['Type', 'Functions']), hidden('Correct')]}
      />
      <Body>
        {legs.map((leg) => {
          const key = legKey(leg)
          const by = leg.key
          if (by !== undefined && open === by)
            return (
              <LegForm
                key={key}
                leg={leg}
                answers={answers}
                save={answer}
                close={() => {
                  setLeft(by)
                  setOpen(undefined)
                }}
              />
            )
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
                {says?.[leg.id] ?? typeWords[leg.type]}
                {!says && leg.reset && ', reset'}
                {!says && leg.oscillator && ', oscillator'}
                {!says && leg.debug && ', debug'}
              </Cell>
              <Cell className="mono functions">
                {(says ? [] : leg.functions).map((f, i) => (
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
                {(leg.unsure ?? []).map((why) => (
                  <span key={why} className="note risks">
                    {why}
                  </span>
                ))}
                {isCorrected(leg, answers) && <span className="note">corrected by you</span>}
              </Cell>
              <Cell>
                {by !== undefined && leg.position === undefined && (
                  <Flat
                    className="correct"
                    aria-label={`Correct ${spoken(leg)}`}
                    tabIndex={key === stop ? 0 : -1}
                    autoFocus={left === by}
                    onClick={() => {
                      choose(key, placesOf(leg))
                      setOpen(by)
                    }}
                  >
                    Correct
                  </Flat>
                )}
              </Cell>
            </Row>
          )
        })}
      </Body>
    </FoundTable>
  )
}
