// Every support part, in or out: why it is there, its sums, and what leaving it out risks.

import type { SupportPart } from '@root-board/core/circuit'
import { Columns } from '../../shared/Columns'
import { useStage } from '../../shared/analysis'
import { Num } from '../../shared/Num'

export const Support = () => {
  const { analysis } = useStage()
  // A lamp's resistor comes and goes with the lamp.
  const shown = analysis.build.support.filter((s) => s.key !== 'power-lamp-resistor')
  return (
    <table className="ruled support">
      <Columns of={['On the board', 'Part', 'Value', 'Why; without it', 'Working']} />
      <tbody>
        {shown.map((s) => (
          <SupportRow key={s.key} part={s} />
        ))}
      </tbody>
    </table>
  )
}

const SupportRow = ({ part }: { part: SupportPart }) => {
  const { edit, analysis, design } = useStage()
  // From the design, so that the tick follows the hand and not the analysis.
  const said = design.build.support[part.key]
  const ref = analysis.build.placed.find((p) => p.support?.key === part.key && !p.bridged)?.ref
  return (
    <tr className={part.present ? undefined : 'out'}>
      <td>
        <label>
          <input
            type="checkbox"
            checked={said ? said === 'in' : part.asked}
            aria-label={`${part.name} on the board`}
            onChange={(e) =>
              edit(
                e.target.checked
                  ? { kind: 'putIn', support: part.key, name: part.name }
                  : { kind: 'leaveOut', support: part.key, name: part.name },
              )
            }
          />{' '}
          <span className="mono">{ref ?? 'out'}</span>
        </label>
        {part.forced && (
          <div className="faint">{part.forced === 'out' ? 'against the stance' : 'beyond the stance'}</div>
        )}
      </td>
      <td>{part.name}</td>
      <td>{part.value ? <span className="mono">{part.value.marking}</span> : part.part.name}</td>
      <td>
        {part.present ? (
          part.why
        ) : (
          <span
            className={part.forced === 'out' || part.risk.severity === 'stops' ? part.risk.severity : 'faint'}
          >
            {part.risk.text}
          </span>
        )}
        {!part.present &&
          part.risk.facts.map(
            (f, i) =>
              f.worked && (
                <span key={i}>
                  {' '}
                  (<Num worked={f.worked} digits={2} />)
                </span>
              ),
          )}
      </td>
      <td>
        {part.worked.map((w, i) => (
          <span key={i} className="sum-of">
            <span className="mono faint">{w.symbol}</span> <Num worked={w} />
          </span>
        ))}
      </td>
    </tr>
  )
}
