// What each state pulls the source down by, and the capacitor that keeps that within a limit: a fall for a capacitor, a capacitor for a fall.

import type { Design } from '@root-board/core/design'
import { fallLimits, usualFall } from '@root-board/core/power'
import { formatQuantity } from '@root-board/core/quantity'
import { styled } from '@mui/material'
import { useCallback, useState } from 'react'
import { Num } from '../../kit/Num'
import { QuantityField } from '../../kit/QuantityField'
import { Body, Cell, Columns, right, Row, Table } from '../../kit/Table'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { questions } from '../../worker/client'

const none = <span className="faint">—</span>

export const Bursts = () => {
  const [allowed, setAllowed] = useState(usualFall)
  const ask = useCallback((design: Design) => questions.bursts(design, allowed), [allowed])
  const { answer, current, failed, again } = useAsked(ask)
  if (answer?.length === 0) return null
  return (
    <section aria-labelledby="bursts" aria-busy={!current}>
      <h2 id="bursts">Bursts, and a capacitor across the source</h2>
      <QuantityField
        label="It may fall by"
        unit="V"
        min={fallLimits.min}
        max={fallLimits.max}
        width={84}
        value={allowed}
        onChange={(v) => v !== null && setAllowed(v)}
      />
      {failed && <QuestionFailed why={failed} again={again} />}
      {!answer && !failed && <Waiting words="Reckoning what falls …" />}
      {answer && (
        <Spaced className="scroll-x">
          <Table aria-label="What each state pulls the source down by">
            <Columns
              of={[
                'State',
                right('Lasts'),
                right('Takes'),
                right('Falls'),
                'Capacitor for that',
                right('Still falls'),
                right('As it is put in'),
              ]}
            />
            <Body>
              {answer.map(({ state, lasts, current: takes, falls, needed, fitted, inrush }) => (
                <Row key={state.id}>
                  <Cell>{state.name}</Cell>
                  <Cell align="right" className="mono">
                    {formatQuantity(lasts, 's', 3)}
                  </Cell>
                  <Cell align="right" className="mono">
                    <Num worked={takes} show="max" />
                  </Cell>
                  <Cell align="right" className="mono">
                    {falls ? <Num worked={falls} show="max" digits={2} /> : 'not known'}
                  </Cell>
                  <Cell>
                    {!needed ? (
                      <span className="faint">none needed</span>
                    ) : (
                      <>
                        <Num worked={needed} show="max" digits={2} />
                        {fitted
                          ? `: ${fitted.count > 1 ? `${fitted.count} × ` : ''}${fitted.marking}`
                          : ': more than anybody fits; it lasts too long for a capacitor'}
                      </>
                    )}
                  </Cell>
                  <Cell align="right" className="mono">
                    {fitted ? <Num worked={fitted.left} show="max" digits={2} /> : none}
                  </Cell>
                  <Cell align="right" className="mono">
                    {inrush ? <Num worked={inrush} show="max" digits={2} /> : none}
                  </Cell>
                </Row>
              ))}
            </Body>
          </Table>
        </Spaced>
      )}
    </section>
  )
}

const Spaced = styled('div')({ margin: '10px 0 14px' })
