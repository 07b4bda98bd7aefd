// Parts of the library in the place of the present one: does each do, and if not, why? Those that do come first; of the others the
// nearest, and the rest when they are asked for.

import { type ReactNode, useEffect, useRef, useState } from 'react'
import type { Design } from '@root-board/core/design'
import { Button, styled } from '@mui/material'
import { Body, Cell, Columns, Row, Table, hidden, right } from '../../kit/Table'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { NotPlanned } from './NotPlanned'

export interface RankedRow {
  id: string
  name: string
  /** What it is, in a few words below its name. */
  about: string
  no: readonly { text: string }[]
  /** What speaks neither for nor against it, since nobody knows. */
  unsure?: readonly { text: string }[]
  chosen: boolean
  cells: readonly ReactNode[]
  choose: () => void
}

interface RankingProps<T> {
  id: string
  title: string
  /** While it is worked out. */
  waiting: string
  /** What may be otherwise once the pins are planned. */
  unplanned: string
  note?: string
  /** A field that says of what. */
  which?: ReactNode
  ask: (design: Design) => Promise<{ ranked: T[]; undecided: boolean }>
  children: (ranked: T[]) => ReactNode
}

/** A section with its table, asked for and answered in the worker. */
export const Ranking = <T,>({
  id,
  title,
  waiting,
  unplanned,
  note,
  which,
  ask,
  children,
}: RankingProps<T>) => {
  const { answer, current, failed, again } = useAsked(ask)
  return (
    <section aria-labelledby={id} aria-busy={!current}>
      <h2 id={id}>{title}</h2>
      {which && <p>{which}</p>}
      {failed && <QuestionFailed why={failed} again={again} />}
      {!answer && !failed && <Waiting words={waiting} />}
      {answer?.undecided && <NotPlanned so={unplanned} />}
      {answer && note && <p className="faint">{note}</p>}
      {answer && children(answer.ranked)}
    </section>
  )
}

/** So many rows at least, where there are so many. */
const few = 4

export const RankedTable = ({
  label,
  what,
  heads,
  rows,
}: {
  label: string
  what: string
  /** Of `cells`. */
  heads: readonly string[]
  rows: readonly RankedRow[]
}) => {
  const [all, setAll] = useState(false)
  // The button is gone once its part is chosen: who pressed it stays in its row.
  const [pressed, setPressed] = useState<string>()
  const mark = useRef<HTMLSpanElement>(null)
  const done = rows.find((r) => r.chosen)?.id === pressed
  useEffect(() => {
    if (done && document.activeElement === document.body) mark.current?.focus()
  }, [done, pressed])
  const near = rows.filter((r, n) => n < few || r.no.length === 0 || r.chosen)
  const left = rows.length - near.length
  return (
    <div className="scroll-x">
      <Ranked aria-labelledby={label}>
        <Columns of={[what, 'Does it do?', ...heads.map((h) => right(h)), hidden('Choose')]} />
        <Body>
          {(all ? rows : near).map((r) => (
            <Row
              key={r.id}
              className={r.chosen ? 'chosen' : undefined}
              aria-current={r.chosen ? 'true' : undefined}
            >
              <Cell className="who">
                <b>{r.name}</b>
                <br />
                <span className="faint">{r.about}</span>
              </Cell>
              <Cell className="why">
                {r.no.length === 0 ? (
                  <>
                    <span className="settled">yes</span>
                    {r.unsure?.map((u) => `; ${u.text}`).join('')}
                  </>
                ) : (
                  <>
                    <span className="stops">no:</span> {r.no.map((n) => n.text).join('; ')}
                  </>
                )}
              </Cell>
              {r.cells.map((cell, n) => (
                <Cell key={heads[n]} align="right" className="mono number">
                  {cell}
                </Cell>
              ))}
              <Cell align="right">
                {r.chosen ? (
                  <span ref={r.id === pressed ? mark : undefined} tabIndex={-1} className="settled">
                    chosen
                  </span>
                ) : (
                  <Button
                    onClick={() => {
                      setPressed(r.id)
                      r.choose()
                    }}
                    aria-label={`Choose ${r.name}`}
                  >
                    Choose
                  </Button>
                )}
              </Cell>
            </Row>
          ))}
        </Body>
      </Ranked>
      {left > 0 && (
        <Button onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? 'Only those that come near' : `${left} more that don’t do, and why`}
        </Button>
      )}
    </div>
  )
}

const Ranked = styled(Table)({
  marginBottom: 6,
  '& .who': { minWidth: 150, maxWidth: 220 },
  '& .why': { minWidth: 180 },
  '& .number': { whiteSpace: 'nowrap' },
})
