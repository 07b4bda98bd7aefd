// What no paper leaves the program without: what is not settled yet, and what can hurt.

import { type Caution as CautionName, cautionWords } from '@root-board/core/blocks'
import { useStage } from '../shared/analysis'

export const Warnings = () => {
  const { findings, build } = useStage().analysis
  const open = findings.filter((f) => f.severity !== 'notes')
  const cautions = [...new Set(build.steps.flatMap((s) => s.cautions))]
  return (
    <>
      {open.length > 0 && (
        <section>
          <h2>Not settled yet</h2>
          <ul>
            {open.map((f) => (
              <li key={f.id}>
                <b>{f.severity === 'stops' ? 'Stops: ' : 'Risk: '}</b>
                {f.text}
              </li>
            ))}
          </ul>
        </section>
      )}
      {cautions.length > 0 && (
        <section>
          <h2>Before you begin</h2>
          <ul>
            {cautions.map((c: CautionName) => (
              <li key={c}>{cautionWords[c]}</li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
}
