import { railOf } from '@root-board/core/supply'
import { Columns, right } from '../../shared/Columns'
import { useStage } from '../../shared/analysis'
import { Num } from '../../shared/Num'

/** Who draws how much, at rest and at work; the sums below. */
export const Consumers = () => {
  const { analysis } = useStage()
  const { power } = analysis
  const { supplies } = power
  const sorted = [...power.consumers].sort((a, b) => b.work.value.max - a.work.value.max)
  return (
    <section aria-labelledby="currents">
      <h2 id="currents">Currents</h2>
      <table className="ruled">
        <Columns of={['Who', right('Rest'), right('Work, typical'), right('Work, least … most')]} />
        <tbody>
          {sorted.map((c) => (
            <tr key={c.id}>
              <td>
                {c.name}
                {c.count > 1 && <span className="faint"> × {c.count}</span>}
                {c.from !== supplies.own && (
                  <span className="faint">, from the {railOf(supplies, c.from).name}</span>
                )}
              </td>
              <td className="right">
                <Num worked={c.rest} digits={2} />
              </td>
              <td className="right">
                <Num worked={c.work} />
              </td>
              <td className="right">
                <Num worked={c.work} show="range" />
              </td>
            </tr>
          ))}
          <tr className="total">
            <th scope="row">All on the rail at once</th>
            <td className="right">
              <Num worked={power.rest} />
            </td>
            <td className="right">
              <Num worked={power.work} />
            </td>
            <td className="right">
              <Num worked={power.work} show="range" />
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  )
}
