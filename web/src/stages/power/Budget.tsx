// The budget: each limit that the builder sets, what is used of it, and what could be given up to get back inside.

import {
  type BudgetLine,
  type BudgetName,
  budgetOf,
  type GiveUp,
  type Harm,
  harms,
} from '@root-board/core/analysis'
import type { Design } from '@root-board/core/design'
import { namesInWords } from '@root-board/core/quantity'
import { Button, styled } from '@mui/material'
import { useCallback, useState } from 'react'
import { Num } from '../../kit/Num'
import { QuantityField } from '../../kit/QuantityField'
import { Body, Cell, Columns, hidden, right, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { PreviewedFix } from '../../shared/PreviewedFix'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { questions } from '../../worker/client'
import { type Words, words } from './budget-words'
import { leftOf } from './left-of'
import { NotPlanned } from './NotPlanned'
import { Trend } from './Trend'

export const Budget = () => {
  const { analysis } = useStage()
  const undecided = analysis.pins.plan?.status === 'undecided'
  const [open, setOpen] = useState<BudgetName>()
  const lines = budgetOf(analysis)
  return (
    <section aria-labelledby="budget">
      <h2 id="budget">Budget</h2>
      {undecided && <NotPlanned so="More may be used than is reckoned with here." />}
      <div className="scroll-x">
        <Table aria-labelledby="budget">
          <Columns of={['What counts', right('Used'), 'Limit', right('Left'), hidden('What to give up')]} />
          <Body>
            {lines.map((line) => (
              <Limited
                key={line.name}
                line={line}
                open={open === line.name}
                toggle={() => setOpen(open === line.name ? undefined : line.name)}
              />
            ))}
          </Body>
        </Table>
      </div>
      {open && <GivingUpFor key={open} name={open} />}
      <Trend />
    </section>
  )
}

const Limited = ({ line, open, toggle }: { line: BudgetLine; open: boolean; toggle: () => void }) => {
  const { edit } = useStage()
  const { name, used, corner, limit, missing } = line
  const { title, field, unit, min, max, placeholder, none, say } = words[name]
  const left =
    used && limit !== undefined
      ? leftOf({
          what: title,
          used,
          show: corner,
          limit,
          unit: used.unit,
          keep: name === 'runtime' ? 'above' : 'below',
          origin: { kind: 'decision', what: 'set in the budget' },
        })
      : undefined
  const over = left !== undefined && left.value.min < 0
  return (
    <Row>
      <Cell>
        {name === 'heat' ? (used?.label ?? title) : title}
        {missing.length > 0 && <span className="faint">, without {namesInWords(missing)}</span>}
      </Cell>
      <Cell align="right">
        {used ? (
          <Num worked={used} show={corner}>
            <span className="mono">{say(used.value[corner])}</span>
          </Num>
        ) : (
          <span className="faint">{none}</span>
        )}
      </Cell>
      <Cell>
        <QuantityField
          label={field}
          hideLabel
          unit={unit}
          optional
          placeholder={placeholder}
          min={min}
          max={max}
          width={104}
          value={limit}
          onChange={(value) =>
            edit({
              kind: 'setLimit',
              limit: name,
              value: value !== null && name === 'parts' ? Math.round(value) : value,
            })
          }
        />
      </Cell>
      <Cell align="right" className={over ? 'stops' : 'settled'}>
        {left && (
          <Num worked={left}>
            <span className="mono">
              {over
                ? `${say(Math.abs(left.value.min))} ${name === 'runtime' ? 'too short' : 'too much'}`
                : say(left.value.min)}
            </span>
          </Num>
        )}
      </Cell>
      <Cell align="right">
        {used && (
          <Button onClick={toggle} aria-expanded={open} aria-label={`What to give up for: ${title}`}>
            What to give up
          </Button>
        )}
      </Cell>
    </Row>
  )
}

/** Two digits: by how much, and not what is left of it. */
const gained = (name: BudgetName, gain: number): string =>
  words[name].say(name === 'price' ? gain : Number(gain.toPrecision(2)))

const harmWords: Record<Harm, string> = {
  none: 'It does the same',
  weaker: 'It does the same, slower, dimmer, less often or less surely',
  less: 'It does less',
  without: 'It does without',
}

const GivingUpFor = ({ name }: { name: BudgetName }) => {
  const ask = useCallback((design: Design) => questions.giveUps(design, name), [name])
  const { answer, current, failed, again } = useAsked(ask)
  const { say, title } = words[name]
  return (
    <Given aria-label={`What could be given up for: ${title}`} aria-busy={!current}>
      {failed && <QuestionFailed why={failed} again={again} />}
      {!answer && !failed && <Waiting words="Trying everything that could be given up …" />}
      {answer && (
        <>
          {answer.together && (
            <p>
              Nothing alone is enough. Together these are: {say(answer.together.becomes)}.{' '}
              <PreviewedFix fix={answer.together} stale={!current} />
            </p>
          )}
          {answer.none && (
            <p className="risks">
              None of these is enough, and neither are several together as they were tried.
            </p>
          )}
          {harms.map((harm) => (
            <Ways
              key={harm}
              title={harmWords[harm]}
              name={name}
              ways={answer.ways.filter((w) => w.harm === harm)}
              say={say}
              stale={!current}
            />
          ))}
          <p className="faint">
            {answer.tried} things were tried; {answer.ways.length || 'none'} of them{' '}
            {answer.ways.length === 1 ? 'brings' : 'bring'} it nearer.
          </p>
          {answer.spoiling > 0 && (
            <p className="faint">
              {answer.spoiling} more would bring it nearer, and something that stops the project.
            </p>
          )}
          {answer.untried > 0 && (
            <p className="risks">{answer.untried} were not tried to the end in the time given.</p>
          )}
        </>
      )}
    </Given>
  )
}

const Given = styled('section')({ '& h3': { marginTop: 10 } })

/** So many are shown at first. */
const few = 5

const Ways = ({
  title,
  name,
  ways,
  say,
  stale,
}: {
  title: string
  name: BudgetName
  ways: readonly GiveUp[]
  say: Words['say']
  stale: boolean
}) => {
  const [all, setAll] = useState(false)
  if (ways.length === 0) return null
  return (
    <>
      <h3>{title}</h3>
      <List>
        {(all ? ways : ways.slice(0, few)).map((way) => (
          <li key={way.label}>
            <PreviewedFix fix={way} stale={stale} />{' '}
            <span className="mono">{way.becomes === undefined ? 'no end' : say(way.becomes)}</span>
            {Number.isFinite(way.gain) && (
              <span className="faint">
                , {gained(name, way.gain)} {name === 'runtime' ? 'more' : 'less'}
              </span>
            )}
            {way.enough && <span className="settled"> is enough</span>}
            {way.brings.length > 0 && (
              <span className="risks">; brings up: {way.brings.map((f) => f.text).join(' ')}</span>
            )}
          </li>
        ))}
      </List>
      {ways.length > few && (
        <Button onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? 'Only the first' : `${ways.length - few} more`}
        </Button>
      )}
    </>
  )
}

const List = styled('ul')({
  listStyle: 'none',
  padding: 0,
  margin: '4px 0',
  '& > li': { margin: '4px 0' },
})
