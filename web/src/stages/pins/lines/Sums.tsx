import { shortPlace } from '@root-board/core/legs'
import { Columns, right } from '../../../shared/Columns'
import { useStage } from '../../../shared/analysis'
import { Num, Quantity } from '../../../shared/Num'

/** What a reading means: steps, codes, and the range in front of a divider. */
export const Converters = () => {
  const { converters } = useStage().analysis.pins
  if (converters.length === 0) return null
  return (
    <section aria-labelledby="converters">
      <h2 id="converters">Readings</h2>
      <table className="ruled">
        <Columns
          of={[
            'Line',
            'Leg, converter',
            right('One step'),
            right('Highest code'),
            right('It stands for'),
            'Which way',
          ]}
        />
        <tbody>
          {converters.map((c) => (
            <tr key={c.wire.signal.id}>
              <td>{c.wire.signal.name}</td>
              <td>
                <span className="mono">{shortPlace(c.wire.pin)}</span>, {c.wire.unit!.name} {c.wire.line}
              </td>
              <td className="right">
                <Num worked={c.step} />
              </td>
              <td className="right">
                <Num worked={c.top} digits={8} />
              </td>
              <td className="right">
                <Num worked={c.reaches} show="range" />
              </td>
              <td className="faint">{c.towards ?? 'a higher voltage reads higher'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

/** What a timer makes of a wanted frequency. */
export const Pulses = () => {
  const { pwms } = useStage().analysis.pins
  if (pwms.length === 0) return null
  return (
    <section aria-labelledby="pulses">
      <h2 id="pulses">Pulses</h2>
      <table className="ruled">
        <Columns
          of={[
            'Line',
            'Leg, timer',
            right('Wanted'),
            right('Reached'),
            right('Prescaler'),
            right('Steps of the duty'),
            right('One step'),
          ]}
        />
        <tbody>
          {pwms.map((p) => (
            <tr key={p.wire.signal.id}>
              <td>{p.wire.signal.name}</td>
              <td>
                <span className="mono">{shortPlace(p.wire.pin)}</span>, {p.wire.unit!.name} {p.wire.line}
              </td>
              <td className="right">
                <Quantity value={p.wanted} unit="Hz" />
              </td>
              {p.actual && p.prescaler && p.steps && p.stepTime ? (
                <>
                  <td className="right">
                    <Num worked={p.actual} digits={4} />
                  </td>
                  <td className="right">
                    <Num worked={p.prescaler} digits={8} />
                  </td>
                  <td className="right">
                    <Num worked={p.steps} digits={8} />
                  </td>
                  <td className="right">
                    <Num worked={p.stepTime} />
                  </td>
                </>
              ) : (
                <td colSpan={4} className="stops">
                  no division of this clock reaches it
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
