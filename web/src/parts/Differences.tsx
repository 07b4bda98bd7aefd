// Two versions of a part beside one another: only what differs.

import { type Difference, differencesOf, type Part } from '@root-board/core/parts'
import { Columns } from '../shared/Columns'
import { fieldWords } from './names'

const words = (path: string) =>
  path
    .split('.')
    .map((step) => {
      const [, name, index] = /^([^[]*)(?:\[(.*)\])?$/.exec(step) ?? []
      return `${fieldWords(name ?? step)}${index === undefined ? '' : ` ${/^\d+$/.test(index) ? Number(index) + 1 : index}`}`
    })
    .join(' · ')

const unimportant = (d: Difference) => d.path === 'id' || d.path === 'format' || d.path === 'copiedFrom'

export const Differences = ({
  before,
  after,
  beforeName,
  afterName,
}: {
  before: Part
  after: Part
  beforeName: string
  afterName: string
}) => {
  const found = differencesOf(before, after).filter((d) => !unimportant(d))
  if (found.length === 0) return <p className="settled">They say the same.</p>
  return (
    <table className="ruled differences">
      <Columns of={['Fact', beforeName, afterName]} />
      <tbody>
        {found.map((d) => (
          <tr key={d.path}>
            <td>{words(d.path)}</td>
            <td className="mono">{d.before ?? <span className="faint">not stated</span>}</td>
            <td className="mono">{d.after ?? <span className="faint">not stated</span>}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
