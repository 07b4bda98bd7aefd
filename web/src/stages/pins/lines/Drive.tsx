// What the legs carry: each LED with and without its resistor, and the sums against the chip's limits.

import { legGrade, legLoads, loadSums } from '@root-board/core/pins'
import { shortPlace } from '@root-board/core/legs'
import { fullRange } from '@root-board/core/quantity'
import { Columns, right } from '../../../shared/Columns'
import { useStage } from '../../../shared/analysis'
import { Num, Quantity } from '../../../shared/Num'
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
      <table className="ruled">
        <Columns
          of={[
            'Line',
            'Leg, colour',
            'Resistor',
            right('With it'),
            right('Without it'),
            right('A leg is good for'),
            'Verdict',
          ]}
        />
        <tbody>
          {loads.map(({ wire, current, onBoard }) => {
            const led = onBoard ? undefined : pins.leds[wire.signal.id]!
            return (
              <tr key={`${wire.signal.id} ${onBoard ?? ''}`}>
                <td>{wire.signal.name}</td>
                <td>
                  <span className="mono">{shortPlace(wire.pin)}</span>, {onBoard ?? led!.led.colour}
                </td>
                <td className="mono">
                  {led ? (current === led.bare ? 'left out' : led.resistor.marking) : 'the board’s own'}
                </td>
                <td className="right">
                  <Num worked={led?.current ?? current} show="range" />
                </td>
                <td className="right">{led && <Num worked={led.bare} show="range" />}</td>
                <td className="right">
                  <Quantity value={recommended} unit="A" />
                </td>
                <td>
                  <GradeWord grade={legGrade(chip, loads, wire.pin.id)} />
                </td>
              </tr>
            )
          })}
          {loadSums(chip, loads).map((s) => (
            <tr key={s.id} className="total">
              <th scope="row" colSpan={3}>
                {s.name.replace(/^./, (c) => c.toUpperCase())} together, typical and at most
              </th>
              <td className="right">
                <Num worked={s.sum} />
              </td>
              <td className="right">
                <Num worked={s.sum} show="max" />
              </td>
              <td className="right">
                <Quantity value={s.limit} unit="A" />
              </td>
              <td>
                <GradeWord grade={s.grade} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
