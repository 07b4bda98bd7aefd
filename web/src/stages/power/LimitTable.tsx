// Every limit on the way: what is used, what is allowed, what is left.

import type { Worked } from '@root-board/core/findings'
import { durationWords, fullRange, type Unit } from '@root-board/core/quantity'
import { useStage } from '../../shared/analysis'
import { Num, Quantity } from '../../shared/Num'

interface Line {
  what: string
  used: Worked
  show: 'min' | 'max'
  limit: number
  unit: Unit
  /** The used value must stay below the limit, or above it. */
  keep: 'below' | 'above'
}

export const LimitTable = () => {
  const { analysis, design } = useStage()
  const { power } = analysis
  const chip = analysis.chip.chip
  const lines: Line[] = []
  const below = (what: string, used: Worked | undefined, limit: number | undefined, unit: Unit) => {
    if (used && limit !== undefined) lines.push({ what, used, show: 'max', limit, unit, keep: 'below' })
  }
  below('Source', power.fromSource, power.source && fullRange(power.source.current).max, 'A')
  below('Current budget', power.fromSource, design.needs.limits.current, 'A')
  below('Regulator current', power.work, power.regulator && fullRange(power.regulator.current).max, 'A')
  below(
    'Regulator input, absolute',
    power.regulator && power.input,
    power.regulator && fullRange(power.regulator.inputAbsolute).max,
    'V',
  )
  below(
    'Regulator junction',
    power.regulation?.junction,
    power.regulator && fullRange(power.regulator.junctionMax).max,
    '°C',
  )
  if (power.regulation)
    lines.push({
      what: 'Drop-out margin',
      used: power.regulation.margin,
      show: 'min',
      limit: 0,
      unit: 'V',
      keep: 'above',
    })
  below('Chip supply, highest', power.rail, chip && fullRange(chip.supply.recommended).max, 'V')
  if (chip && power.rail)
    lines.push({
      what: 'Chip supply, lowest',
      used: power.rail,
      show: 'min',
      limit: fullRange(chip.supply.recommended).min,
      unit: 'V',
      keep: 'above',
    })
  return (
    <section aria-labelledby="power-limits">
      <h2 id="power-limits">Limits at the worst corner</h2>
      <table className="ruled">
        <thead>
          <tr>
            <th scope="col">Limit</th>
            <th scope="col" className="right">
              Used
            </th>
            <th scope="col" className="right">
              Allowed
            </th>
            <th scope="col" className="right">
              Left
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l) => {
            const value = l.used.value[l.show]
            const left = l.keep === 'below' ? l.limit - value : value - l.limit
            return (
              <tr key={l.what}>
                <td>{l.what}</td>
                <td className="right">
                  <Num worked={l.used} show={l.show} />
                </td>
                <td className="right">
                  {l.keep === 'above' && <span className="faint">at least </span>}
                  <Quantity value={l.limit} unit={l.unit} />
                </td>
                <td className={left < 0 ? 'right stops' : 'right settled'}>
                  <Quantity value={left} unit={l.unit} />
                </td>
              </tr>
            )
          })}
          {power.runtime && (
            <tr>
              <td>Runtime on one set of cells</td>
              <td className="right" colSpan={3}>
                <Num worked={power.runtime}>
                  <span className="mono">
                    {durationWords(power.runtime.value.min)} … {durationWords(power.runtime.value.max)}
                  </span>
                </Num>
              </td>
            </tr>
          )}
        </tbody>
      </table>
    </section>
  )
}
