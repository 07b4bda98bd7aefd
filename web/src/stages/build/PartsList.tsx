import { lineTotal } from '@root-board/core/build'
import { euro } from '@root-board/core/quantity'
import { Columns, right } from '../../shared/Columns'
import { useStage } from '../../shared/analysis'
import { Num } from '../../shared/Num'

/** Equal parts merged, with their references and prices. */
export const PartsList = () => {
  const { analysis } = useStage()
  const { parts, price } = analysis.build
  return (
    <table className="ruled">
      <Columns of={[right('Count'), 'Part', 'Value', 'References', right('Each'), right('Together')]} />
      <tbody>
        {parts.map((r) => (
          <tr key={`${r.part} ${r.value}`}>
            <td className="right mono">{r.count}</td>
            <td>{r.name}</td>
            <td className="mono">{r.value}</td>
            <td className="mono">{r.refs.join(' ')}</td>
            <td className="right mono">{euro(r.each)}</td>
            <td className="right">
              <Num worked={lineTotal(r)}>
                <span className="mono">{euro(r.total)}</span>
              </Num>
            </td>
          </tr>
        ))}
        <tr className="total">
          <th scope="row" colSpan={5}>
            All parts
          </th>
          <td className="right">
            <Num worked={price}>
              <span className="mono">{euro(price.value.typ)}</span>
            </Num>
          </td>
        </tr>
      </tbody>
    </table>
  )
}
