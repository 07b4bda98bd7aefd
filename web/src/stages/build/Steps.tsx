// The order of building, a check after each step, cautions beside the step they belong to.

import { styled } from '@mui/material'
import { cautionsBeside } from '@root-board/core/build'
import { Body, Cell, Columns, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Caution } from '../../kit/Caution'
import { Expectation } from '../../kit/Expectation'

export const Steps = () => {
  const { steps } = useStage().analysis.build
  const beside = cautionsBeside(steps)
  return (
    <StepList className="steps">
      {steps.map((step, i) => {
        return (
          <li key={i}>
            <h2>{step.title}</h2>
            {beside[i]!.map((c) => (
              <Caution key={c} name={c} />
            ))}
            <ul>
              {step.does.map((d) => (
                <li key={d}>{d}</li>
              ))}
            </ul>
            {step.checks.length > 0 && (
              <Table className="checks">
                <Columns of={['Check', 'With power', 'Expect', 'Otherwise']} />
                <Body>
                  {step.checks.map((c) => (
                    <Row key={c.where}>
                      <Cell>{c.where}</Cell>
                      <Cell>{c.powered ? 'on' : 'off'}</Cell>
                      <Cell>
                        <Expectation check={c} />
                      </Cell>
                      <Cell className="faint">{c.otherwise}</Cell>
                    </Row>
                  ))}
                </Body>
              </Table>
            )}
          </li>
        )
      })}
    </StepList>
  )
}

const StepList = styled('ol')({
  paddingLeft: 24,
  margin: 0,
  '& > li': { marginBottom: 18 },
  '& > li::marker': { fontWeight: 650, color: 'var(--green)', fontSize: 16 },
  '& ul': { margin: '4px 0 6px', paddingLeft: 18 },
  '& .checks td:nth-child(3)': { whiteSpace: 'nowrap' },
})
