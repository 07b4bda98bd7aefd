// The clock: where it comes from, and how fast it may be at this supply.

import { styled } from '@mui/material'
import { tooFast } from '@root-board/core/clock'
import { formatQuantity } from '@root-board/core/quantity'
import { lazy, Suspense } from 'react'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'
import { Body, Cell, Row, Table } from '../../kit/Table'
import { Choice } from '../../kit/inputs'

const FrequencyChart = lazy(() => import('./FrequencyChart'))

export const ClockPart = () => {
  const { analysis, design, edit } = useStage()
  const { clock } = analysis
  const chip = analysis.chip.chip!
  const keyOf = (source: string | undefined, frequency: number, part: string | undefined) =>
    `${source} ${frequency} ${part ?? ''}`
  // What was chosen shows at once, and not when it has been analysed: the next key acts on it.
  const { clock: asked } = design.chip
  const chosen = asked && keyOf(asked.source, asked.frequency, asked.part)
  const options = clock.choices.map((o) => ({ ...o, key: keyOf(o.source.id, o.frequency, o.part?.id) }))
  const current = options.some((o) => o.key === chosen)
    ? chosen
    : keyOf(clock.source?.id, clock.nominal.value.typ, clock.part?.id)
  const over = tooFast(clock) !== undefined
  return (
    <Clock className="clock-part" aria-labelledby="clock">
      <div>
        <h2 id="clock">Clock of {chip.name}</h2>
        <label htmlFor="clock-source">Runs from</label>{' '}
        <Choice
          id="clock-source"
          value={current ?? ''}
          options={[
            ...(current ? [] : [{ value: '', label: 'choose …' }]),
            ...options.map((o) => ({
              value: o.key,
              label: `${formatQuantity(o.frequency, 'Hz')}, ${
                o.part ? `${o.source.name} on ${o.source.pins?.join(' and ')}` : o.name
              }`,
            })),
          ]}
          onChange={(key) => {
            const option = options.find((o) => o.key === key)
            if (option)
              edit({
                kind: 'chooseClock',
                name: `${option.name} at ${formatQuantity(option.frequency, 'Hz')}`,
                clock: { source: option.source.id, frequency: option.frequency, part: option.part?.id },
              })
          }}
        />
        <Table>
          <Body>
            <Row>
              <Cell component="th" scope="row">
                Clock
              </Cell>
              <Cell>
                <Num worked={clock.frequency} />
              </Cell>
            </Row>
            {clock.limit ? (
              <Row>
                <Cell component="th" scope="row">
                  Permitted at the rail’s lowest
                </Cell>
                <Cell className={over ? 'stops' : undefined}>
                  <Num worked={clock.limit} show="min" />
                </Cell>
              </Row>
            ) : (
              <Row>
                <Cell component="th" scope="row">
                  Permitted
                </Cell>
                <Cell className="faint">known when a source is chosen</Cell>
              </Row>
            )}
            {clock.lowestSupply && (
              <Row>
                <Cell component="th" scope="row">
                  Lowest supply for this clock
                </Cell>
                <Cell>
                  <Num worked={clock.lowestSupply} />
                </Cell>
              </Row>
            )}
            <Row>
              <Cell component="th" scope="row">
                Off by at most
              </Cell>
              <Cell>
                {clock.deviation ? (
                  <Num worked={clock.deviation} show="max">
                    <span className="mono">
                      ±
                      {clock.deviation.value.max >= 1000
                        ? formatQuantity(clock.deviation.value.max / 1e4, '%', 3)
                        : formatQuantity(clock.deviation.value.max, 'ppm', 3)}
                    </span>
                  </Num>
                ) : (
                  <span className="faint">not in the sheet</span>
                )}
              </Cell>
            </Row>
          </Body>
        </Table>
      </div>
      <Suspense fallback={<p className="faint">Drawing …</p>}>
        <FrequencyChart />
      </Suspense>
    </Clock>
  )
}

const Clock = styled('section')({
  display: 'grid',
  gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)',
  gap: 24,
  '& table': { marginTop: 8 },
  '& table th': { borderBottom: '1px solid var(--line)', color: 'var(--ink)', fontWeight: 400 },
  '& .MuiNativeSelect-root': { marginTop: 6 },
  '@media (max-width: 999px)': {
    gridTemplateColumns: '1fr',
  },
})
