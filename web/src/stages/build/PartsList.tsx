import { lineTotal } from '@root-board/core/build'
import { euro } from '@root-board/core/quantity'
import { useStage } from '../../shared/analysis'
import { Num } from '../../shared/Num'

/** Equal parts merged, with their references and prices. */
export const PartsList = () => {
  const { analysis } = useStage()
  const { parts, price } = analysis.build
  return (
    <table className="ruled">
      <thead>
        <tr>
          <th scope="col" className="right">
            Count
          </th>
          <th scope="col">Part</th>
          <th scope="col">Value</th>
          <th scope="col">References</th>
          <th scope="col" className="right">
            Each
          </th>
          <th scope="col" className="right">
            Together
          </th>
        </tr>
      </thead>
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
