// The order of building, a check after each step, cautions beside the step they belong to.

import { Columns } from '../../shared/Columns'
import { useStage } from '../../shared/analysis'
import { Caution } from '../../shared/Caution'
import { Expectation } from '../../shared/Expectation'

export const Steps = () => {
  const { steps } = useStage().analysis.build
  const seen = new Set<string>()
  return (
    <ol className="steps">
      {steps.map((step, i) => {
        // Iron and eyes are said once, at the first step; what can do lasting harm is said each time.
        const cautions = step.cautions.filter((c) => !((c === 'iron' || c === 'eyes') && seen.has(c)))
        cautions.forEach((c) => seen.add(c))
        return (
          <li key={i}>
            <h2>{step.title}</h2>
            {cautions.map((c) => (
              <Caution key={c} name={c} />
            ))}
            <ul>
              {step.does.map((d) => (
                <li key={d}>{d}</li>
              ))}
            </ul>
            {step.checks.length > 0 && (
              <table className="ruled checks">
                <Columns of={['Check', 'With power', 'Expect', 'Otherwise']} />
                <tbody>
                  {step.checks.map((c) => (
                    <tr key={c.where}>
                      <td>{c.where}</td>
                      <td>{c.powered ? 'on' : 'off'}</td>
                      <td>
                        <Expectation check={c} />
                      </td>
                      <td className="faint">{c.otherwise}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </li>
        )
      })}
    </ol>
  )
}
