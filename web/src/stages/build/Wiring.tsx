import { Body, Cell, Columns, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'

/** One row a wire. Rows of one net stand together. */
export const Wiring = () => {
  const { wiring } = useStage().analysis.build
  return (
    <Table className="wiring">
      <Columns of={['Net', 'From', 'To']} />
      <Body>
        {wiring.map((w, i) => (
          <Row key={i}>
            <Cell className="mono">
              {w.net === wiring[i - 1]?.net ? (
                <span className="visually-hidden">{w.net}</span>
              ) : (
                <b>{w.net}</b>
              )}
            </Cell>
            <Cell>
              <span className="mono">{w.from.ref}</span> {w.from.name},{' '}
              <span className="mono">{w.from.terminal}</span>
            </Cell>
            <Cell>
              <span className="mono">{w.to.ref}</span> {w.to.name},{' '}
              <span className="mono">{w.to.terminal}</span>
            </Cell>
          </Row>
        ))}
      </Body>
    </Table>
  )
}
