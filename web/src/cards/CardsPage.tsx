// Cards for the bench: the chip with its signals, the way of the current, the stack, and every used leg in words. Printed
// one on a sheet, or taken along as pictures.

import { Button } from '@mui/material'
import { Link } from 'react-router'
import { Body, Cell, Columns, Row, Table } from '../kit/Table'
import { useStage } from '../shared/analysis'
import { Paper } from '../sheet/Paper'
import { Warnings } from '../sheet/Warnings'
import { ChipCard } from './ChipCard'
import { HeaderCard } from './HeaderCard'
import { PathCard } from './PathCard'
import { StackCard } from './StackCard'

const CardsPage = () => {
  const { analysis, design } = useStage()
  const { chip, pins } = analysis
  const wires = [...(pins.plan?.wires ?? [])].sort((a, b) => a.pin.legs[0]! - b.pin.legs[0]!)
  return (
    <Paper className="sheet">
      <p className="screen-only">
        <Button variant="contained" color="primary" disabled={!chip.chip} onClick={() => window.print()}>
          Print
        </Button>{' '}
        <Link to="../build">Back to Build</Link>
      </p>
      <h1>{design.name}: cards</h1>
      {!chip.chip ? (
        <p className="empty">
          Cards show where each signal goes, and that needs a chip first.{' '}
          <Link to="../chip">Choose a chip</Link>
        </p>
      ) : (
        <>
          <Warnings />
          {chip.chip.board ? <HeaderCard board={chip.chip.board} /> : <ChipCard />}
          <PathCard />
          <StackCard />
          <section className="card">
            <h2>Each leg that is used</h2>
            <Table>
              <Columns
                of={[chip.chip.board ? 'Position' : 'Leg', 'Port', 'Used for', 'As', 'Its other names']}
              />
              <Body>
                {wires.map((w) => (
                  <Row key={w.signal.id}>
                    <Cell className="mono">{w.pin.labels?.join('/') ?? w.pin.legs.join('/')}</Cell>
                    <Cell className="mono">{w.pin.id}</Cell>
                    <Cell>
                      {w.signal.name}
                      {w.impossible && <b className="stops"> — can’t work here: {w.impossible}</b>}
                    </Cell>
                    <Cell>{w.unit ? `${w.unit.name} ${w.line}` : 'plain'}</Cell>
                    <Cell className="mono">
                      {[
                        ...(w.pin.names ?? []).filter((n) => !w.pin.labels?.includes(n)),
                        ...(w.pin.functions ?? []).map((f) => `${f.unit} ${f.signal}`),
                      ].join(', ')}
                    </Cell>
                  </Row>
                ))}
              </Body>
            </Table>
          </section>
        </>
      )}
    </Paper>
  )
}

export default CardsPage
