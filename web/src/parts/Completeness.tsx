// Which checks a part can serve, what they rest on, and what is missing.

import { completenessOf, type Part, unitsWithoutPin } from '@root-board/core/parts'
import { Body, Cell, Columns, Row, Table } from '../kit/Table'

export const Completeness = ({ part }: { part: Part }) => {
  const checks = completenessOf(part)
  if (checks.length === 0) return <p className="faint">A part of this kind has nothing to miss.</p>
  const lost = unitsWithoutPin(part)
  return (
    <>
      {lost.length > 0 && (
        <p className="risks">
          The file names units that no leg carries: <span className="mono">{lost.join(', ')}</span>. Their
          functions are missing from its table of legs.
        </p>
      )}
      <Table>
        <Columns of={['Serves', 'Stated', 'Assumed until its sheet says', 'Missing']} />
        <Body>
          {checks.map((c) => (
            <Row key={c.serves}>
              <Cell component="th" scope="row" className="one-line">
                {c.serves}{' '}
                {c.missing.length + c.assumed.length === 0 ? (
                  <span className="settled">✓ complete</span>
                ) : (
                  <span className="risks">{c.stated.length === 0 ? '○ open' : '◐ in part'}</span>
                )}
              </Cell>
              <Cell>{c.stated.join(', ') || '—'}</Cell>
              <Cell>{c.assumed.map((a) => a.words).join(', ') || '—'}</Cell>
              <Cell>{c.missing.join(', ') || '—'}</Cell>
            </Row>
          ))}
        </Body>
      </Table>
    </>
  )
}
