// The build sheet: everything the bench needs on paper, without the program around it.

import { type Caution as CautionName, cautionWords } from '@root-board/core/blocks'
import { durationWords, euro, formatQuantity } from '@root-board/core/quantity'
import { Button } from '@mui/material'
import { Link } from 'react-router'
import { useStage } from '../shared/analysis'
import { Expectation } from '../shared/Expectation'
import './sheet.css'

const BuildSheet = () => {
  const { analysis, design } = useStage()
  const { build, chip, power, pins } = analysis
  if (build.parts.length === 0)
    return (
      <main className="sheet">
        <h1>{design.name}</h1>
        <p className="empty">
          There is no board to print yet: it needs {build.missing.join(' and ')}.{' '}
          <Link to="../build">Back to Build</Link>
        </p>
      </main>
    )
  const stops = analysis.findings.filter((f) => f.severity !== 'notes')
  const cautions = [...new Set(build.steps.flatMap((s) => s.cautions))]
  return (
    <main className="sheet">
      <p className="screen-only">
        <Button variant="contained" color="primary" onClick={() => window.print()}>
          Print
        </Button>{' '}
        <Link to="../build">Back to Build</Link>
      </p>
      <header>
        <h1>{design.name}</h1>
        <p>
          {chip.chip?.name} at {formatQuantity(analysis.clock.frequency.value.typ, 'Hz')}, fed from{' '}
          {power.source?.name}
          {power.regulator ? ` through ${power.regulator.name}` : ''}. Up to{' '}
          {formatQuantity(power.fromSource.value.max, 'A', 3)}.
          {power.runtime ? ` Runs ${durationWords(power.runtime.value.min)} or longer.` : ''} Parts{' '}
          {euro(build.price.value.typ)}.
        </p>
        {design.notes && <p>{design.notes}</p>}
      </header>
      {stops.length > 0 && (
        <section>
          <h2>Not settled yet</h2>
          <ul>
            {stops.map((f) => (
              <li key={f.id}>
                <b>{f.severity === 'stops' ? 'Stops: ' : 'Risk: '}</b>
                {f.text}
              </li>
            ))}
          </ul>
        </section>
      )}
      <section>
        <h2>Before you begin</h2>
        <ul>
          {cautions.map((c: CautionName) => (
            <li key={c}>{cautionWords[c]}</li>
          ))}
        </ul>
      </section>
      <section>
        <h2>Legs</h2>
        <table className="ruled">
          <thead>
            <tr>
              <th>{analysis.chip.chip?.board ? 'Position' : 'Leg'}</th>
              <th>Port</th>
              <th>Signal</th>
              <th>Through</th>
            </tr>
          </thead>
          <tbody>
            {(pins.plan?.wires ?? []).map((w) => (
              <tr key={w.signal.id}>
                <td className="mono">{w.pin.labels?.join('/') ?? w.pin.legs.join('/')}</td>
                <td className="mono">{w.pin.id}</td>
                <td>{w.signal.name}</td>
                <td>{w.unit ? `${w.unit.name} ${w.line}` : 'plain'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section>
        <h2>Parts</h2>
        <table className="ruled">
          <thead>
            <tr>
              <th>Count</th>
              <th>Part</th>
              <th>Value</th>
              <th>References</th>
              <th>In hand</th>
            </tr>
          </thead>
          <tbody>
            {build.parts.map((r) => (
              <tr key={`${r.part} ${r.value}`}>
                <td className="mono">{r.count}</td>
                <td>{r.name}</td>
                <td className="mono">{r.value}</td>
                <td className="mono">{r.refs.join(' ')}</td>
                <td>☐</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section>
        <h2>Steps</h2>
        <ol>
          {build.steps.map((s, i) => (
            <li key={i}>
              <h3>{s.title}</h3>
              {s.cautions
                .filter((c) => c === 'mains' || c === 'reversed' || c === 'lithium')
                .map((c) => (
                  <p key={c} className="caution">
                    <b>Caution.</b> {cautionWords[c]}
                  </p>
                ))}
              <ul>
                {s.does.map((d) => (
                  <li key={d}>☐ {d}</li>
                ))}
              </ul>
              {s.checks.length > 0 && (
                <table className="ruled">
                  <tbody>
                    {s.checks.map((c) => (
                      <tr key={c.where}>
                        <td>
                          {c.where} ({c.powered ? 'power on' : 'power off'})
                        </td>
                        <td>
                          <Expectation check={c} />
                        </td>
                        <td className="measured">measured:</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              )}
            </li>
          ))}
        </ol>
      </section>
      <section>
        <h2>Wiring</h2>
        <table className="ruled">
          <thead>
            <tr>
              <th>Net</th>
              <th>From</th>
              <th>To</th>
              <th>Done</th>
            </tr>
          </thead>
          <tbody>
            {build.wiring.map((w, i) => (
              <tr key={i}>
                <td className="mono">{w.net}</td>
                <td>
                  {w.from.ref} {w.from.name}, {w.from.terminal}
                </td>
                <td>
                  {w.to.ref} {w.to.name}, {w.to.terminal}
                </td>
                <td>☐</td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </main>
  )
}

export default BuildSheet
