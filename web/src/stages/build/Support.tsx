// Every support part, in or out: why it is there, its sums, and what leaving it out risks.

import { styled } from '@mui/material'
import type { SupportPart } from '@root-board/core/circuit'
import { Body, Cell, Columns, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Num } from '../../kit/Num'
import { Tick } from '../../kit/inputs'

export const Support = () => {
  const { analysis } = useStage()
  return (
    <SupportTable className="support">
      <Columns of={['On the board', 'Part', 'Value', 'Why; without it', 'Working']} />
      <Body>
        {analysis.build.support.map((s) => (
          <SupportRow key={s.key} part={s} />
        ))}
      </Body>
    </SupportTable>
  )
}

const SupportRow = ({ part }: { part: SupportPart }) => {
  const { edit, analysis, design } = useStage()
  // From the design, so that the tick follows the hand and not the analysis.
  const said = design.build.support[part.key]
  const ref = analysis.build.placed.find((p) => p.support?.key === part.key && !p.bridged)?.ref
  return (
    <Row className={part.present ? undefined : 'out'}>
      <Cell>
        {withLamp(part) ? (
          <span className="mono follows">{ref ?? 'out'}</span>
        ) : (
          <Tick
            checked={said ? said === 'in' : part.asked}
            label={`${part.name} on the board`}
            onChange={(on) =>
              edit(
                on
                  ? { kind: 'putIn', support: part.key, name: part.name }
                  : { kind: 'leaveOut', support: part.key, name: part.name },
              )
            }
          >
            <span className="mono">{ref ?? 'out'}</span>
          </Tick>
        )}
        {part.forced && (
          <div className="faint">{part.forced === 'out' ? 'against the stance' : 'beyond the stance'}</div>
        )}
      </Cell>
      <Cell>{part.name}</Cell>
      <Cell>{part.value ? <span className="mono">{part.value.marking}</span> : part.part.name}</Cell>
      <Cell>
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
      </Cell>
      <Cell>
        {part.worked.map((w, i) => (
          <span key={i} className="sum-of">
            <span className="mono faint">{w.symbol}</span> <Num worked={w} />
          </span>
        ))}
      </Cell>
    </Row>
  )
}

/** A lamp’s resistor comes and goes with the lamp. */
const withLamp = ({ role }: SupportPart): boolean => role === 'power lamp resistor'

const SupportTable = styled(Table)({
  '& td:first-of-type': { whiteSpace: 'nowrap' },
  // Beneath the others’ names, where they have their tick.
  '& .follows': { marginLeft: 22 },
  '& tr.out td': { color: 'var(--faint)' },
  '& .sum-of': { display: 'block', whiteSpace: 'nowrap' },
})
