// The next best plans side by side: what moves, what each spares and what it gives up.

import type { Design, Edit } from '@root-board/core/design'
import type { NextPlan } from '@root-board/core/planner'
import { Button } from '@mui/material'
import { useState } from 'react'
import { Body, Cell, Columns, Row, Table, hidden } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { PreviewedFix } from '../../shared/PreviewedFix'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { questions } from '../../worker/client'

/** Locks what the plan places elsewhere, and fixes the wirings it chose. */
const editsOf = ({ differs, wirings }: NextPlan): Edit[] => [
  ...wirings.map((w): Edit => ({ kind: 'setWiring', id: w.need, wiring: w.wiring.id })),
  ...differs.flatMap((d): Edit[] =>
    d.to === undefined ? [] : [{ kind: 'lockSignal', signal: d.signal, name: d.name, pin: d.to }],
  ),
]
const move = ({ name, from, to }: NextPlan['differs'][number]) =>
  from === undefined ? `${name} on ${to}` : to === undefined ? `no ${name}` : `${name}: ${from} to ${to}`

const ask = (design: Design) => questions.nextPlans(design)

export const NextPlans = () => {
  const { analysis } = useStage()
  const wiredBy = new Map(analysis.pins.plan?.wirings.map((w) => [w.need, w.wiring.id]))
  const [asked, setAsked] = useState(false)
  const { answer, current, failed, again } = useAsked(asked ? ask : undefined)
  const found = current ? answer : undefined
  const plans = found?.plans
  if (!asked) return <Button onClick={() => setAsked(true)}>Next best plans</Button>
  return (
    <section className="plan-notes next-plans" aria-labelledby="next-plans">
      <h2 id="next-plans">Next best plans</h2>
      {failed && <QuestionFailed why={failed} again={again} />}
      {plans === undefined && !failed && <Waiting words="Working them out …" />}
      {plans?.length === 0 && found?.complete && (
        <p className="faint">
          There is no other plan that differs in more than which equal leg a plain signal has.
        </p>
      )}
      {found && !found.complete && (
        <p className="risks">Not all were looked through in the time given: there may be more of them.</p>
      )}
      {plans && plans.length > 0 && (
        <Table>
          <Columns
            of={['Plan', 'What lies elsewhere', 'What it gives up', 'What it spares', hidden('Take it')]}
          />
          <Body>
            {plans.map((p, i) => (
              <Row key={i}>
                <Cell component="th" scope="row">
                  Plan {i + 2}
                  <br />
                  <span className="faint">{p.extra === 0 ? 'as good' : `${p.extra} points more`}</span>
                </Cell>
                <Cell>
                  {p.differs.map(move).join('; ')}
                  {p.wirings
                    .filter((w) => w.wiring.id !== wiredBy.get(w.need))
                    .map((w) => `; ${w.name} by ${w.wiring.name}`)}
                </Cell>
                <Cell>{p.givesUp.join('; ') || 'nothing'}</Cell>
                <Cell>{p.spares.join('; ') || 'nothing'}</Cell>
                <Cell>
                  <PreviewedFix ask="Take it" fix={{ label: `Take plan ${i + 2}`, edits: editsOf(p) }} />
                </Cell>
              </Row>
            ))}
          </Body>
        </Table>
      )}
      <Button onClick={() => setAsked(false)}>Close</Button>
    </section>
  )
}
