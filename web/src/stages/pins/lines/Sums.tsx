import { shortPlace } from '@root-board/core/legs'
import { Body, Cell, Columns, Row, Table, right } from '../../../kit/Table'
import { useStage } from '../../../shared/analysis'
import { Num, Quantity } from '../../../kit/Num'

/** What a reading means: steps, codes, and the range in front of a divider. */
export const Converters = () => {
  const { converters } = useStage().analysis.pins
  if (converters.length === 0) return null
  return (
    <section aria-labelledby="converters">
      <h2 id="converters">Readings</h2>
      <Table>
        <Columns
          of={[
            'Line',
            'Leg, converter',
            right('One step'),
            right('Highest code'),
            right('It stands for'),
            'Which way',
          ]}
        />
        <Body>
          {converters.map((c) => (
            <Row key={c.wire.signal.id}>
              <Cell>{c.wire.signal.name}</Cell>
              <Cell>
                <span className="mono">{shortPlace(c.wire.pin)}</span>, {c.wire.unit!.name} {c.wire.line}
              </Cell>
              <Cell align="right">
                <Num worked={c.step} />
              </Cell>
              <Cell align="right">
                <Num worked={c.top} digits={8} />
              </Cell>
              <Cell align="right">
                <Num worked={c.reaches} show="range" />
              </Cell>
              <Cell className="faint">{c.towards ?? 'a higher voltage reads higher'}</Cell>
            </Row>
          ))}
        </Body>
      </Table>
    </section>
  )
}

/** What a timer makes of a wanted frequency. */
export const Pulses = () => {
  const { pwms } = useStage().analysis.pins
  if (pwms.length === 0) return null
  return (
    <section aria-labelledby="pulses">
      <h2 id="pulses">Pulses</h2>
      <Table>
        <Columns
          of={[
            'Line',
            'Leg, timer',
            right('Wanted'),
            right('Reached'),
            right('Prescaler'),
            right('Steps of the duty'),
            right('One step'),
          ]}
        />
        <Body>
          {pwms.map((p) => (
            <Row key={p.wire.signal.id}>
              <Cell>{p.wire.signal.name}</Cell>
              <Cell>
                <span className="mono">{shortPlace(p.wire.pin)}</span>, {p.wire.unit!.name} {p.wire.line}
              </Cell>
              <Cell align="right">
                <Quantity value={p.wanted} unit="Hz" />
              </Cell>
              {p.actual && p.prescaler && p.steps && p.stepTime ? (
                <>
                  <Cell align="right">
                    <Num worked={p.actual} digits={4} />
                  </Cell>
                  <Cell align="right">
                    <Num worked={p.prescaler} digits={8} />
                  </Cell>
                  <Cell align="right">
                    <Num worked={p.steps} digits={8} />
                  </Cell>
                  <Cell align="right">
                    <Num worked={p.stepTime} />
                  </Cell>
                </>
              ) : (
                <Cell colSpan={4} className="stops">
                  no division of this clock reaches it
                </Cell>
              )}
            </Row>
          ))}
        </Body>
      </Table>
    </section>
  )
}
