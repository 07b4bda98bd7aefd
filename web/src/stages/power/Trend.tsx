// The budget through the last edits: what each of them has changed, as numbers and drawn.

import { type BudgetAt, type BudgetName, budgets } from '@root-board/core/analysis'
import type { Design } from '@root-board/core/design'
import { styled } from '@mui/material'
import { lazy, Suspense, useCallback, useState } from 'react'
import { Fold } from '../../kit/Fold'
import { Choice } from '../../kit/inputs'
import { Captioned } from '../../kit/layout'
import { Body, Cell, Columns, right, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { useProject } from '../../store/project'
import { questions } from '../../worker/client'
import { words } from './budget-words'

const TrendChart = lazy(() => import('./TrendChart'))

/** So many of the last edits are gone through. */
const steps = 8
/** A change of less than this share is none. */
const noticed = 1e-6

export const Trend = () => {
  const [open, setOpen] = useState(false)
  const done = useProject((s) => s.done)
  if (done.length === 0) return null
  return (
    <Fold
      title={done.length === 1 ? 'What the last edit has changed' : 'Through the last edits'}
      open={open}
      onOpen={setOpen}
    >
      <Edits />
    </Fold>
  )
}

const Edits = () => {
  const done = useProject((s) => s.done)
  const ask = useCallback(
    (design: Design) => questions.trend([...done.slice(-steps).map((s) => s.before), design]),
    [done],
  )
  const { answer, current, failed, again } = useAsked(ask)
  const { design } = useStage()
  const [drawn, setDrawn] = useState<BudgetName>('current')
  if (failed) return <QuestionFailed why={failed} again={again} />
  if (!answer) return <Waiting words="Going through the last edits …" />
  const labels = ['before', ...done.slice(-steps).map((s) => s.label)]
  const rows = answer.map((at, n) => ({
    at,
    before: n > 0 ? answer[n - 1] : undefined,
    label: labels[n] ?? '',
  }))
  const there = budgets.filter((name) => answer.some((at) => at?.used[name] !== undefined))
  const points = rows.map(({ at, label }, n) => ({ n, label, value: at?.used[drawn] }))
  return (
    <Spaced aria-busy={!current}>
      <div className="scroll-x">
        <Table aria-label="The budget through the last edits">
          <Columns of={['After', ...there.map((name) => right(words[name].short))]} />
          <Body>
            {[...rows].reverse().map(({ at, before, label }, n) => (
              <Row key={rows.length - n}>
                <Cell>
                  {label}
                  {at?.undecided && <span className="faint">, its legs not planned</span>}
                </Cell>
                {there.map((name) => (
                  <Cell key={name} align="right" className="mono" sx={{ whiteSpace: 'nowrap' }}>
                    <Then name={name} at={at} before={before} limit={design.needs.limits[name]} />
                  </Cell>
                ))}
              </Row>
            ))}
          </Body>
        </Table>
      </div>
      {answer.includes(undefined) && (
        <p className="risks">Not all of them were worked out in the time given.</p>
      )}
      {there.length > 0 && points.length > 1 && (
        <>
          <Captioned>
            <label htmlFor="trend-drawn">Drawn</label>
            <Choice
              id="trend-drawn"
              value={drawn}
              options={there.map((name) => ({ value: name, label: words[name].title }))}
              onChange={(name) => setDrawn(name)}
            />
          </Captioned>
          <Suspense fallback={null}>
            <TrendChart points={points} name={drawn} limit={design.needs.limits[drawn]} />
          </Suspense>
        </>
      )}
    </Spaced>
  )
}

interface ThenProps {
  name: BudgetName
  at: BudgetAt | undefined
  before: BudgetAt | undefined
  limit: number | undefined
}
/** The value, and by how much it is another than before. */
const Then = ({ name, at, before, limit }: ThenProps) => {
  const value = at?.used[name]
  const was = before?.used[name]
  if (value === undefined) return <span className="faint">—</span>
  const over = limit !== undefined && (name === 'runtime' ? value < limit : value > limit)
  const change = was === undefined ? 0 : value - was
  return (
    <>
      <span className={over ? 'stops' : undefined}>{words[name].say(value)}</span>
      {Math.abs(change) > noticed * Math.abs(value) && (
        <div className="faint">
          {change > 0 ? '+' : '−'}
          {words[name].change(Math.abs(change))}
        </div>
      )}
    </>
  )
}

const Spaced = styled('div')({ margin: '4px 0 10px' })
