import type { Design } from '@root-board/core/design'
import { euro, formatQuantity, fullRange } from '@root-board/core/quantity'
import { Button } from '@mui/material'
import { Body, Cell, Columns, Row, Table, hidden, right } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { questions } from '../../worker/client'
import { Num } from '../../kit/Num'
import { NotPlanned } from './NotPlanned'

const ask = (design: Design) => questions.regulators(design)

/** Every linear regulator of the library at this input and this load. */
export const Regulators = () => {
  const { edit } = useStage()
  const { answer, current, failed, again } = useAsked(ask)
  const ranked = answer?.ranked
  return (
    <section aria-labelledby="regulators">
      <h2 id="regulators">Regulators for this load</h2>
      {failed && <QuestionFailed why={failed} again={again} />}
      {!ranked && !failed && <Waiting words="Trying every regulator at this load …" />}
      {answer?.undecided && <NotPlanned so="A regulator that does here may be too small." />}
      <div className="scroll-x" hidden={!ranked} aria-busy={!current}>
        <Table>
          <Columns
            of={[
              'Regulator',
              'Does it do?',
              right('Junction'),
              right('Margin'),
              right('Good up to'),
              right('Price'),
              hidden('Choose'),
            ]}
          />
          <Body>
            {(ranked ?? []).map((r) => (
              <Row
                key={r.regulator.id}
                className={r.chosen ? 'chosen' : undefined}
                aria-current={r.chosen ? 'true' : undefined}
              >
                <Cell>
                  <b>{r.regulator.name}</b>
                  <br />
                  <span className="faint">
                    {r.regulator.package.name}, {formatQuantity(fullRange(r.regulator.current).max, 'A')}
                  </span>
                </Cell>
                <Cell className="verdict">
                  {r.no.length === 0 ? (
                    <span className="settled">yes</span>
                  ) : (
                    <>
                      <span className="stops">no:</span> {r.no.map((n) => n.text).join('; ')}
                    </>
                  )}
                </Cell>
                <Cell align="right">
                  <Num worked={r.junction} show="max" />
                </Cell>
                <Cell align="right">
                  <Num worked={r.margin} show="min" digits={2} />
                </Cell>
                <Cell align="right">
                  {r.loadLimit ? <Num worked={r.loadLimit} digits={2} /> : <span className="faint">—</span>}
                </Cell>
                <Cell align="right" className="mono">
                  {euro(r.regulator.price)}
                </Cell>
                <Cell align="right">
                  {r.chosen ? (
                    <span className="settled">chosen</span>
                  ) : (
                    <Button
                      onClick={() =>
                        edit({ kind: 'chooseRegulator', part: r.regulator.id, name: r.regulator.name })
                      }
                      aria-label={`Choose ${r.regulator.name}`}
                    >
                      Choose
                    </Button>
                  )}
                </Cell>
              </Row>
            ))}
          </Body>
        </Table>
      </div>
    </section>
  )
}
