// What was understood of a table of limits: each fact with its kind and where it goes.

import type { FoundFact, LimitsOf, Place, UnderstoodLimits } from '@root-board/core/intake'
import { Body, Cell, Columns, Row } from '../../kit/Table'
import { formatQuantity } from '@root-board/core/quantity'
import { factText } from '../fact-text'
import { Flat } from '../../kit/Flat'
import { FoundTable } from './FoundTable'

interface Props {
  of: LimitsOf
  limits: UnderstoodLimits
  chosen: string | undefined
  choose: (key: string, places: Place[]) => void
}
interface Stated {
  kind?: string
  drop?: { kind?: string }
}
const kindOf = (fact: FoundFact): string => {
  const value = (typeof fact.value === 'object' ? fact.value : {}) as Stated
  return value.kind === 'absolute' ? 'absolute maximum' : (value.kind ?? value.drop?.kind ?? 'guaranteed')
}

/** Levels of a device’s lines are told as a chip’s; a share of its output has no place in a file. */
const valueText = (of: LimitsOf, { path, value }: FoundFact): string => {
  if (path === 'accuracy') return `± ${formatQuantity(Number(((value as number) * 100).toPrecision(6)), '%')}`
  if (path === 'address') return `0x${(value as number).toString(16)}`
  if (path === 'busSpeed') return factText('device', 'wirings[0].busSpeed', value)
  return factText(path.startsWith('io.') ? 'chip' : of, path.replace('[]', '[0]'), value)
}

export const FoundFacts = ({ of, limits, chosen, choose }: Props) => (
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
            <Cell className="mono">{valueText(of, fact)}</Cell>
            <Cell>
              {kindOf(fact)}
              {fact.at !== undefined && <span className="note faint"> at {fact.at}</span>}
              {fact.later !== undefined && (
                <span className="note risks"> line {fact.later} says otherwise, and is taken</span>
              )}
            </Cell>
          </Row>
        )
      })}
    </Body>
  </FoundTable>
)
