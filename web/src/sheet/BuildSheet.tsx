// The build sheet: everything the bench needs on paper, without the program around it.

import { cautionsBeside } from '@root-board/core/build'
import { unpricedWords } from '@root-board/core/parts'
import { railOf } from '@root-board/core/supply'
import { durationWords, euro, formatQuantity } from '@root-board/core/quantity'
import { Button } from '@mui/material'
import { Link } from 'react-router'
import { useStage } from '../shared/analysis'
import { Caution } from '../kit/Caution'
import { Expectation } from '../kit/Expectation'
import { Paper } from './Paper'
import { Warnings } from './Warnings'
import { Body, Cell, Columns, Row, Table } from '../kit/Table'

const BuildSheet = () => {
  const { analysis, design } = useStage()
  const { build, chip, power, pins } = analysis
  if (build.parts.length === 0)
    return (
      <Paper className="sheet">
        <h1>{design.name}</h1>
        <p className="empty">
          There is no board to print yet: it needs {build.missing.join(' and ')}.{' '}
          <Link to="../build">Back to Build</Link>
        </p>
      </Paper>
    )
  const beside = cautionsBeside(build.steps)
  return (
    <Paper className="sheet">
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
          {power.regulator ? ` through ${power.regulator.name}` : ''}
          {power.supplies.converters
            .filter((c) => c.to !== power.supplies.own)
            .map((c) => `, the ${railOf(power.supplies, c.to).name} through ${c.part.name}`)}
          . Up to {formatQuantity(power.fromSource.value.max, 'A', 3)}.
          {power.runtime ? ` Runs ${durationWords(power.runtime.value.min)} or longer.` : ''} Parts{' '}
          {euro(build.price.value.typ)}
          {unpricedWords(build.parts)}.
        </p>
        {design.notes && <p>{design.notes}</p>}
      </header>
      <Warnings />
      <section>
        <h2>Legs</h2>
        <Table>
          <Columns of={[analysis.chip.chip?.board ? 'Position' : 'Leg', 'Port', 'Signal', 'Through']} />
          <Body>
            {(pins.plan?.wires ?? []).map((w) => (
              <Row key={w.signal.id}>
                <Cell className="mono">{w.pin.labels?.join('/') ?? w.pin.legs.join('/')}</Cell>
                <Cell className="mono">{w.pin.id}</Cell>
                <Cell>{w.signal.name}</Cell>
                <Cell>{w.unit ? `${w.unit.name} ${w.line}` : 'plain'}</Cell>
              </Row>
            ))}
          </Body>
        </Table>
      </section>
      <section>
        <h2>Parts</h2>
        <Table>
          <Columns of={['Count', 'Part', 'Value', 'References', 'In hand']} />
          <Body>
            {build.parts.map((r) => (
              <Row key={`${r.part} ${r.value}`}>
                <Cell className="mono">{r.count}</Cell>
                <Cell>{r.name}</Cell>
                <Cell className="mono">{r.value}</Cell>
                <Cell className="mono">{r.refs.join(' ')}</Cell>
                <Cell>☐</Cell>
              </Row>
            ))}
          </Body>
        </Table>
      </section>
      <section>
        <h2>Steps</h2>
        <ol>
          {build.steps.map((s, i) => (
            <li key={i}>
              <h3>{s.title}</h3>
              {beside[i]!.map((c) => (
                <Caution key={c} name={c} />
              ))}
              <ul>
                {s.does.map((d) => (
                  <li key={d}>☐ {d}</li>
                ))}
              </ul>
              {s.checks.length > 0 && (
                <Table>
                  <Body>
                    {s.checks.map((c) => (
                      <Row key={c.where}>
                        <Cell>
                          {c.where} ({c.powered ? 'power on' : 'power off'})
                        </Cell>
                        <Cell>
                          <Expectation check={c} />
                        </Cell>
                        <Cell className="measured">measured:</Cell>
                      </Row>
                    ))}
                  </Body>
                </Table>
              )}
            </li>
          ))}
        </ol>
      </section>
      <section>
        <h2>Wiring</h2>
        <Table>
          <Columns of={['Net', 'From', 'To', 'Done']} />
          <Body>
            {build.wiring.map((w, i) => (
              <Row key={i}>
                <Cell className="mono">{w.net}</Cell>
                <Cell>
                  {w.from.ref} {w.from.name}, {w.from.terminal}
                </Cell>
                <Cell>
                  {w.to.ref} {w.to.name}, {w.to.terminal}
                </Cell>
                <Cell>☐</Cell>
              </Row>
            ))}
          </Body>
        </Table>
      </section>
    </Paper>
  )
}

export default BuildSheet
