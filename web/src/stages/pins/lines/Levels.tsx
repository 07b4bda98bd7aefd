import type { Worked } from '@root-board/core/findings'
import type { LineLevel } from '@root-board/core/levels'
import { shortPlace } from '@root-board/core/legs'
import { Button } from '@mui/material'
import { Body, Cell, Columns, Row, Table, right } from '../../../kit/Table'
import { useStage } from '../../../shared/analysis'
import { Num } from '../../../kit/Num'
import { GradeWord } from './GradeWord'

const joined = {
  divider: 'divider',
  clamp: 'clamp',
  mosfet: 'MOSFET, both ways',
  buffer: 'buffer',
  resistor: 'series resistor',
}
/** The margin that is nearest to nothing. */
/** What both ends share moves together: then the limit is the one that goes with the highest level. */
const standsAt = ({ reaches, stands, severity }: LineLevel): 'min' | 'max' =>
  reaches.value.max > stands.value.min && severity !== 'stops' && severity !== 'risks' ? 'max' : 'min'

const tightest = (margins: Worked[]): Worked | undefined =>
  [...margins].sort((a, b) => a.value.min - b.value.min)[0]

const arrows = { 'to the device': '→', 'to the chip': '←', 'both ways': '↔' } as const

export const Levels = () => {
  const { analysis, edit } = useStage()
  const { levels } = analysis.pins
  const plain = ({ wire }: LineLevel) =>
    edit({ kind: 'fitShift', signal: wire.signal.id, name: wire.signal.name, shift: null })
  return (
    <section aria-labelledby="levels">
      <h2 id="levels">Levels, over the whole range of the supplies</h2>
      <Table className="levels">
        <Columns
          of={[
            'Line',
            'Leg',
            'With',
            right('Highest at the leg'),
            right('Must stay below'),
            right('Least margin'),
            'Verdict',
            'Joined by',
          ]}
        />
        <Body>
          {levels.map((l) => {
            const margin = tightest(l.margins)
            return (
              <Row key={`${l.wire.signal.id} ${l.end.instance.id}`}>
                <Cell>{l.wire.signal.name}</Cell>
                <Cell className="mono">{shortPlace(l.wire.pin)}</Cell>
                <Cell className="with">
                  <span title={l.direction}>{arrows[l.direction]}</span>
                  <span className="visually-hidden">{l.direction}</span> {l.end.instance.name}
                </Cell>
                <Cell align="right">
                  <Num worked={l.reaches} show="max" />
                </Cell>
                <Cell align="right">
                  <Num worked={l.stands} show={standsAt(l)} />
                </Cell>
                <Cell align="right">{margin && <Num worked={margin} show="min" />}</Cell>
                <Cell>
                  <GradeWord grade={l.grade} stops={l.severity === 'stops'} />
                  {l.text && <span className="faint">: {l.text}</span>}
                </Cell>
                <Cell>
                  {l.shift && (
                    <>
                      {joined[l.shift]}{' '}
                      <Button onClick={() => plain(l)} aria-label={`Make ${l.wire.signal.name} plain again`}>
                        ×
                      </Button>
                    </>
                  )}
                </Cell>
              </Row>
            )
          })}
        </Body>
      </Table>
      <p className="faint">
        Guaranteed: by the sheets at every corner. Typical: at the usual values only. Outside the sheet: it
        may work on some benches. Impossible: it can’t. What joins two voltages is offered in the evidence.
      </p>
    </section>
  )
}
