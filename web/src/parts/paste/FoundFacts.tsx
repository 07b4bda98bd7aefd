// What was understood of a table of limits: each fact with its kind and where it goes.

import type { FoundFact, Place, UnderstoodLimits } from '@root-board/core/intake'
import { Columns } from '../../shared/Columns'
import { factText } from '../fact-text'

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
  <table className="ruled found-legs">
    <Columns of={['Fact', 'Value', 'Kind']} />
    <tbody>
      {limits.facts.map((fact, i) => {
        const key = String(fact.line)
        return (
          <tr key={`${key} ${i}`} className={key === chosen ? 'chosen' : ''}>
            <td>
              <button
                type="button"
                className="plain-button"
                onClick={() => choose(key, [fact.place])}
                onFocus={() => choose(key, [fact.place])}
              >
                {fact.words}
              </button>
            </td>
            <td className="mono">{factText('chip', fact.path.replace('[]', '[0]'), fact.value)}</td>
            <td>{kindOf(fact)}</td>
          </tr>
        )
      })}
    </tbody>
  </table>
)
