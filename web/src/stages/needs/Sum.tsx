// What the needs add up to: signals by kind, current, memory; and the cautions that come with the devices.

import { styled } from '@mui/material'
import { Body, Cell, Columns, Row, Table, right } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Caution } from '../../kit/Caution'
import { Num } from '../../kit/Num'

export const Sum = () => {
  const { analysis } = useStage()
  const { needs, power } = analysis
  if (needs.instances.length === 0) return null
  const cautions = [...new Set(needs.instances.flatMap((i) => i.part.cautions ?? []))]
  return (
    <Together className="sum" aria-labelledby="sum">
      <h2 id="sum">What this asks for</h2>
      <div className="sum-columns">
        <Table>
          <Columns of={['Signals', right('Legs'), 'Which']} />
          <Body>
            {needs.asked.map((a) => (
              <Row key={a.kind}>
                <Cell>{a.kind}s</Cell>
                <Cell align="right" className="mono">
                  {a.count}
                </Cell>
                <Cell className="faint">{a.names.join(', ')}</Cell>
              </Row>
            ))}
          </Body>
        </Table>
        <Table>
          <Columns of={['From the rail and the chip', right('Typical'), right('Up to')]} />
          <Body>
            <Row>
              <Cell>Current, everything at rest</Cell>
              <Cell align="right">
                <Num worked={power.rest} />
              </Cell>
              <Cell align="right">
                <Num worked={power.rest} show="max" />
              </Cell>
            </Row>
            <Row>
              <Cell>Current, everything at work</Cell>
              <Cell align="right">
                <Num worked={power.work} />
              </Cell>
              <Cell align="right">
                <Num worked={power.work} show="max" />
              </Cell>
            </Row>
            <Row>
              <Cell>Program memory, bytes</Cell>
              <Cell align="right">
                <Num worked={needs.program} digits={6} />
              </Cell>
              <Cell />
            </Row>
            <Row>
              <Cell>Data memory, bytes</Cell>
              <Cell align="right">
                <Num worked={needs.data} digits={6} />
              </Cell>
              <Cell />
            </Row>
          </Body>
        </Table>
      </div>
      {cautions.map((c) => (
        <Caution key={c} name={c} />
      ))}
    </Together>
  )
}

const Together = styled('section')({
  gridColumn: '1 / -1',
  marginTop: 16,
  '& .sum-columns': { display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 22, marginTop: 4 },
  '@media (max-width: 999px)': {
    '& .sum-columns': { gridTemplateColumns: '1fr' },
  },
})
