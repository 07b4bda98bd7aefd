// Where the charge goes, part by part, and how long cells last if a state came more or less often.

import type { Design } from '@root-board/core/design'
import type { Charge, Spent } from '@root-board/core/power'
import { capital, durationWords, formatQuantity, fullRange, timeWords } from '@root-board/core/quantity'
import { periodOf } from '@root-board/core/states'
import { notCounted, wearOf } from '@root-board/core/supply'
import { styled } from '@mui/material'
import { lazy, Suspense, useCallback, useState } from 'react'
import { Link } from 'react-router'
import { type GrowingColumn, GrowingTable } from '../../kit/GrowingTable'
import { Choice } from '../../kit/inputs'
import { Num } from '../../kit/Num'
import { QuantityField } from '../../kit/QuantityField'
import { Body, Cell, Columns, right, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { questions } from '../../worker/client'
import { percent } from './States'

const CellsChart = lazy(() => import('./CellsChart'))
const RhythmChart = lazy(() => import('./RhythmChart'))

export const ChargeTable = ({ charge }: { charge: Charge }) => {
  const columns: GrowingColumn<Spent>[] = [
    { id: 'who', name: 'Who', of: (p) => p.name, foot: 'All of it' },
    {
      id: 'current',
      name: 'Over time',
      unit: 'A',
      of: (p) => p.current.value.typ,
      cell: (p) => <Num worked={p.current} />,
      right: true,
    },
    {
      id: 'day',
      name: 'In a day',
      unit: 'Ah',
      of: (p) => p.day.value.typ,
      cell: (p) => <Num worked={p.day} />,
      right: true,
      foot: <Num worked={charge.day} />,
    },
    {
      id: 'range',
      name: 'Least … most',
      unit: 'Ah',
      of: (p) => p.day.value.max,
      cell: (p) => <Num worked={p.day} show="range" />,
      right: true,
      foot: <Num worked={charge.day} show="range" />,
    },
    {
      id: 'part',
      name: 'Of all',
      of: (p) => p.part.value.typ,
      cell: (p) => (
        <>
          <Bar style={{ width: `${Math.min(60, p.part.value.typ * 60)}px` }} aria-hidden="true" />{' '}
          <Num worked={p.part}>{percent(p.part.value.typ)}</Num>
        </>
      ),
      right: true,
    },
  ]
  return (
    <section aria-labelledby="charge">
      <GrowingTable
        label="Where the charge goes"
        tools={<h2 id="charge">Where the charge goes</h2>}
        findFrom={30}
        rows={[...charge.parts]}
        columns={columns}
        keyOf={(p) => p.id}
      />
    </section>
  )
}

/** Only where cells run down and a state has a time of its own. */
export const Rhythms = () => {
  const { design } = useStage()
  const timed = (design.needs.states ?? []).filter((s) => periodOf(s) !== undefined)
  const [chosen, setChosen] = useState<string>()
  const state = timed.find((s) => s.id === chosen) ?? timed[0]
  return (
    state && (
      <section aria-labelledby="rhythms">
        <h2 id="rhythms">Were it more often, or less</h2>
        {timed.length > 1 && (
          <label>
            State{' '}
            <Choice
              value={state.id}
              options={timed.map((s) => ({ value: s.id, label: s.name }))}
              onChange={setChosen}
            />
          </label>
        )}
        <RhythmOf id={state.id} name={state.name} now={periodOf(state)!} />
      </section>
    )
  )
}

const RhythmOf = ({ id, name, now }: { id: string; name: string; now: number }) => {
  // Six digits of it are kept.
  const isNow = (every: number) => Math.abs(every / now - 1) < 1e-5
  const ask = useCallback((of: Design) => questions.rhythms(of, id), [id])
  const { answer, current, failed, again } = useAsked(ask)
  const rows = (answer ?? []).flatMap(({ every, runtime }) => (runtime ? [{ every, runtime }] : []))
  return (
    <>
      {failed && <QuestionFailed why={failed} again={again} />}
      {!answer && !failed && <Waiting words="Trying other times …" />}
      {rows.length > 0 && (
        <Beside aria-busy={!current}>
          <Suspense fallback={<p className="faint">Drawing …</p>}>
            <RhythmChart rows={rows} now={now} />
          </Suspense>
          <Table aria-labelledby="rhythms">
            <Columns of={[name, right('Cells last'), right('At the worst'), right('At the best')]} />
            <Body>
              {rows.map(({ every, runtime }) => (
                <Row
                  key={every}
                  className={isNow(every) ? 'chosen' : undefined}
                  aria-current={isNow(every) ? 'true' : undefined}
                >
                  <Cell>every {timeWords(every)}</Cell>
                  <Cell align="right">
                    <Num worked={runtime}>{durationWords(runtime.value.typ)}</Num>
                  </Cell>
                  <Cell align="right" className="faint">
                    {durationWords(runtime.value.min)}
                  </Cell>
                  <Cell align="right" className="faint">
                    {durationWords(runtime.value.max)}
                  </Cell>
                </Row>
              ))}
            </Body>
          </Table>
        </Beside>
      )}
    </>
  )
}

/** What the cells hold against what a day takes, in a sentence and as a curve. */
export const Cells = ({ charge }: { charge: Charge }) => {
  const { analysis, edit } = useStage()
  const { source, cells } = analysis.power
  if (!source?.capacity || !cells) return null
  const { runtime, stop, usable, charge: counted } = cells
  const { limits } = analysis.design.needs
  const uncounted = notCounted(source, wearOf(limits))
  return (
    <section aria-labelledby="cells">
      <h2 id="cells">How long the cells last</h2>
      <p>
        {capital(source.name)} hold{' '}
        <span className="mono">{formatQuantity(fullRange(source.capacity).typ, 'Ah')}</span>
        {counted && (
          <>
            {' '}
            new and at 20 °C, here from{' '}
            <Num worked={counted} show="min">
              {formatQuantity(counted.value.min, 'Ah', 3)}
            </Num>{' '}
            to {formatQuantity(counted.value.max, 'Ah', 3)}
          </>
        )}
        {usable && stop && (
          <>
            , <Num worked={usable}>{percent(usable.value.typ)}</Num> of it until they are down to{' '}
            <Num worked={stop} />, where the first thing stops
          </>
        )}
        ; a day takes <Num worked={charge.day} />: they last{' '}
        <Num worked={runtime}>{durationWords(runtime.value.typ)}</Num>, from{' '}
        {durationWords(runtime.value.min)} at the worst to {durationWords(runtime.value.max)} at the best.
      </p>
      {!source.discharge && (
        <p className="faint">
          Its file has no curve of their voltage: they are taken to fall evenly from fresh to empty.
        </p>
      )}
      {!source.selfDischarge && (
        <p className="faint">What they lose by themselves is not in its file, and not counted.</p>
      )}
      <Wear>
        {source.rechargeable && (
          <QuantityField
            label="Charged so often, until others take their place"
            unit=""
            optional
            placeholder="not said"
            min={1}
            max={100_000}
            value={limits.charges}
            onChange={(value) =>
              edit({ kind: 'setLimit', limit: 'charges', value: value === null ? null : Math.round(value) })
            }
          />
        )}
        {uncounted.length > 0 && (
          <p className="faint">
            {uncounted.map(({ of, unsaid, text }) => (
              <span key={of}>
                {text} {of === 'cold' && unsaid && <Link to="../needs">Say it on the Needs page.</Link>}{' '}
              </span>
            ))}
          </p>
        )}
      </Wear>
      <Suspense fallback={<p className="faint">Drawing …</p>}>
        <CellsChart source={source} cells={cells} />
      </Suspense>
    </section>
  )
}

const Wear = styled('div')({
  '& .quantity-field': { marginBottom: 6 },
})
const Beside = styled('div')({
  display: 'grid',
  gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)',
  gap: 24,
  alignItems: 'start',
  '@media (max-width: 999px)': { gridTemplateColumns: 'minmax(0, 1fr)' },
})
const Bar = styled('span')({
  display: 'inline-block',
  height: 9,
  minWidth: 1,
  background: 'var(--slate)',
  verticalAlign: 'baseline',
})
