import { Columns } from '../../shared/Columns'
import { useStage } from '../../shared/analysis'

/** One row a wire. Rows of one net stand together. */
export const Wiring = () => {
  const { wiring } = useStage().analysis.build
  return (
    <table className="ruled wiring">
      <Columns of={['Net', 'From', 'To']} />
      <tbody>
        {wiring.map((w, i) => (
          <tr key={i}>
            <td className="mono">
              {w.net === wiring[i - 1]?.net ? (
                <span className="visually-hidden">{w.net}</span>
              ) : (
                <b>{w.net}</b>
              )}
            </td>
            <td>
              <span className="mono">{w.from.ref}</span> {w.from.name},{' '}
              <span className="mono">{w.from.terminal}</span>
            </td>
            <td>
              <span className="mono">{w.to.ref}</span> {w.to.name},{' '}
              <span className="mono">{w.to.terminal}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
