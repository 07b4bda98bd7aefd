// What was understood of a table of limits: each fact with its kind and where it goes.

import type { FoundFact, Place, UnderstoodLimits } from '@root-board/core/intake'
import { Body, Cell, Columns, Row } from '../../kit/Table'
import { factText } from '../fact-text'
import { Flat } from '../../kit/Flat'
import { FoundTable } from './FoundTable'

interface Props {
  limits: UnderstoodLimits
  chosen: string | undefined
  choose: (key: string, places: Place[]) => void
}
const kindOf = (fact: FoundFact): string => {
  const value = fact.value as { kind?: string; drop?: { kind?: string }; current?: { kind?: string } }
  return value.kind === 'absolute' ? 'absolute maximum' : (value.kind ?? value.drop?.kind ?? 'guaranteed')
}

export const FoundFacts = ({ limits, chosen, choose }: Props) => (
  <FoundTable>
    <Columns of={['Fact', 'Value', 'Kind']} />
    <Body>
      {limits.facts.map((fact, i) => {
        const key = String(fact.line)
        return (
          <Row key={`${key} ${i}`} className={key === chosen ? 'chosen' : ''}>
            <Cell>
              <Flat onClick={() => choose(key, [fact.place])} onFocus={() => choose(key, [fact.place])}>
                {fact.words}
              </Flat>
            </Cell>
            <Cell className="mono">{factText('chip', fact.path.replace('[]', '[0]'), fact.value)}</Cell>
            <Cell>{kindOf(fact)}</Cell>
          </Row>
        )
      })}
    </Body>
  </FoundTable>
)
