// What the needs add up to: signals by kind, current, memory; and the cautions that come with the devices.

import { Columns, right } from '../../shared/Columns'
import { useStage } from '../../shared/analysis'
import { Caution } from '../../shared/Caution'
import { Num } from '../../shared/Num'

export const Sum = () => {
  const { analysis } = useStage()
  const { needs, power } = analysis
  if (needs.instances.length === 0) return null
  const cautions = [...new Set(needs.instances.flatMap((i) => i.part.cautions ?? []))]
  return (
    <section className="sum" aria-labelledby="sum">
      <h2 id="sum">What this asks for</h2>
      <div className="sum-columns">
        <table className="ruled">
          <Columns of={['Signals', right('Legs'), 'Which']} />
          <tbody>
            {needs.asked.map((a) => (
              <tr key={a.kind}>
                <td>{a.kind}s</td>
                <td className="right mono">{a.count}</td>
                <td className="faint">{a.names.join(', ')}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <table className="ruled">
          <Columns of={['From the rail and the chip', right('Typical'), right('Up to')]} />
          <tbody>
            <tr>
              <td>Current, everything at rest</td>
              <td className="right">
                <Num worked={power.rest} />
              </td>
              <td className="right">
                <Num worked={power.rest} show="max" />
              </td>
            </tr>
            <tr>
              <td>Current, everything at work</td>
              <td className="right">
                <Num worked={power.work} />
              </td>
              <td className="right">
                <Num worked={power.work} show="max" />
              </td>
            </tr>
            <tr>
              <td>Program memory, bytes</td>
              <td className="right">
                <Num worked={needs.program} digits={6} />
              </td>
              <td />
            </tr>
            <tr>
              <td>Data memory, bytes</td>
              <td className="right">
                <Num worked={needs.data} digits={6} />
              </td>
              <td />
            </tr>
          </tbody>
        </table>
      </div>
      {cautions.map((c) => (
        <Caution key={c} name={c} />
      ))}
    </section>
  )
}
