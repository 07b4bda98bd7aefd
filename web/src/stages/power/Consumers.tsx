import { railOf } from '@root-board/core/supply'
import { Body, Cell, Columns, Row, Table, right } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'

/** Who draws how much, at rest and at work; the sums below. */
export const Consumers = () => {
  const { analysis } = useStage()
  const { power } = analysis
  const { supplies } = power
  const sorted = [...power.consumers].sort((a, b) => b.work.value.max - a.work.value.max)
  return (
    <section aria-labelledby="currents">
      <h2 id="currents">Currents</h2>
      <Table>
        <Columns of={['Who', right('Rest'), right('Work, typical'), right('Work, least … most')]} />
        <Body>
          {sorted.map((c) => (
            <Row key={c.id}>
              <Cell>
                {c.name}
                {c.count > 1 && <span className="faint"> × {c.count}</span>}
                {c.from !== supplies.own && (
                  <span className="faint">, from the {railOf(supplies, c.from).name}</span>
                )}
              </Cell>
              <Cell align="right">
                <Num worked={c.rest} digits={2} />
              </Cell>
              <Cell align="right">
                <Num worked={c.work} />
              </Cell>
              <Cell align="right">
                <Num worked={c.work} show="range" />
              </Cell>
            </Row>
          ))}
          <Row className="total">
            <Cell component="th" scope="row">
              All on the rail at once
            </Cell>
            <Cell align="right">
              <Num worked={power.rest} />
            </Cell>
            <Cell align="right">
              <Num worked={power.work} />
            </Cell>
            <Cell align="right">
              <Num worked={power.work} show="range" />
            </Cell>
          </Row>
        </Body>
      </Table>
    </section>
  )
}
