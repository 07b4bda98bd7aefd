// What the legs carry: each LED and each base with and without its resistor, and the sums against the chip's limits.

import { legGrade, legLoads, loadSums } from '@root-board/core/pins'
import { shortPlace } from '@root-board/core/legs'
import { fullRange } from '@root-board/core/quantity'
import { Body, Cell, Columns, Row, Table, right } from '../../../kit/Table'
import { useStage } from '../../../shared/analysis'
import { Num, Quantity } from '../../../kit/Num'
import { GradeWord } from './GradeWord'

export const Drive = () => {
  const { analysis } = useStage()
  const chip = analysis.chip.chip!
  const { pins } = analysis
  const loads = legLoads(chip, pins)
  if (loads.length === 0) return null
  const recommended = fullRange(chip.limits.pinRecommended).max
  return (
    <section aria-labelledby="drive">
      <h2 id="drive">What the legs carry</h2>
      <Table>
        <Columns
          of={[
            'Line',
            'Leg, colour of an LED',
            'Resistor',
            right('With it'),
            right('Without it'),
            right('A leg is good for'),
            'Verdict',
          ]}
        />
        <Body>
          {loads.map(({ wire, current, onBoard }) => {
            const led = onBoard ? undefined : pins.leds[wire.signal.id]
            const on = onBoard ? undefined : (led ?? pins.bases[wire.signal.id])
            return (
              <Row key={`${wire.signal.id} ${onBoard ?? ''}`}>
                <Cell>{wire.signal.name}</Cell>
                <Cell>
                  <span className="mono">{shortPlace(wire.pin)}</span>,{' '}
                  {onBoard ?? led?.led.colour ?? 'into a base'}
                </Cell>
                <Cell className="mono">
                  {on ? (current === on.bare ? 'left out' : on.resistor.marking) : 'the board’s own'}
                </Cell>
                <Cell align="right">
                  <Num worked={on?.current ?? current} show="range" />
                </Cell>
                <Cell align="right">{on && <Num worked={on.bare} show="range" />}</Cell>
                <Cell align="right">
                  <Quantity value={recommended} unit="A" />
                </Cell>
                <Cell>
                  <GradeWord grade={legGrade(chip, loads, wire.pin.id)} />
                </Cell>
              </Row>
            )
          })}
          {loadSums(chip, loads).map((s) => (
            <Row key={s.id} className="total">
              <Cell component="th" scope="row" colSpan={3}>
                {s.name.replace(/^./, (c) => c.toUpperCase())} together, typical and at most
              </Cell>
              <Cell align="right">
                <Num worked={s.sum} />
              </Cell>
              <Cell align="right">
                <Num worked={s.sum} show="max" />
              </Cell>
              <Cell align="right">
                <Quantity value={s.limit} unit="A" />
              </Cell>
              <Cell>
                <GradeWord grade={s.grade} />
              </Cell>
            </Row>
          ))}
        </Body>
      </Table>
    </section>
  )
}
