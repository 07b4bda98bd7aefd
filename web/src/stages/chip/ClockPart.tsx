// The clock: where it comes from, and how fast it may be at this supply.

import { tooFast } from '@root-board/core/clock'
import { formatQuantity } from '@root-board/core/quantity'
import { lazy, Suspense } from 'react'
import { useStage } from '../../shared/analysis'
import { Num } from '../../shared/Num'

const FrequencyChart = lazy(() => import('./FrequencyChart'))

export const ClockPart = () => {
  const { analysis, design, edit } = useStage()
  const { clock } = analysis
  const chip = analysis.chip.chip!
  const keyOf = (source: string | undefined, frequency: number, part: string | undefined) =>
    `${source} ${frequency} ${part ?? ''}`
  // What was chosen shows at once, and not when it has been analysed: the next key acts on it.
  const { clock: asked } = design.chip
  const chosen = asked && keyOf(asked.source, asked.frequency, asked.part)
  const options = clock.choices.map((o) => ({ ...o, key: keyOf(o.source.id, o.frequency, o.part?.id) }))
  const current = options.some((o) => o.key === chosen)
    ? chosen
    : keyOf(clock.source?.id, clock.nominal.value.typ, clock.part?.id)
  const over = tooFast(clock) !== undefined
  return (
    <section className="clock-part" aria-labelledby="clock">
      <div>
        <h2 id="clock">Clock of {chip.name}</h2>
        <label htmlFor="clock-source">Runs from</label>{' '}
        <select
          id="clock-source"
          className="plain"
          value={current}
          onChange={(e) => {
            const option = options.find((o) => o.key === e.target.value)
            if (option)
              edit({
                kind: 'chooseClock',
                name: `${option.name} at ${formatQuantity(option.frequency, 'Hz')}`,
                clock: { source: option.source.id, frequency: option.frequency, part: option.part?.id },
              })
          }}
        >
          {options.map((o) => (
            <option key={o.key} value={o.key}>
              {formatQuantity(o.frequency, 'Hz')},{' '}
              {o.part ? `${o.source.name} on ${o.source.pins?.join(' and ')}` : o.name}
            </option>
          ))}
        </select>
        <table className="ruled">
          <tbody>
            <tr>
              <th scope="row">Clock</th>
              <td>
                <Num worked={clock.frequency} />
              </td>
            </tr>
            {clock.limit ? (
              <tr>
                <th scope="row">Permitted at the rail’s lowest</th>
                <td className={over ? 'stops' : undefined}>
                  <Num worked={clock.limit} show="min" />
                </td>
              </tr>
            ) : (
              <tr>
                <th scope="row">Permitted</th>
                <td className="faint">known when a source is chosen</td>
              </tr>
            )}
            {clock.lowestSupply && (
              <tr>
                <th scope="row">Lowest supply for this clock</th>
                <td>
                  <Num worked={clock.lowestSupply} />
                </td>
              </tr>
            )}
            <tr>
              <th scope="row">Off by at most</th>
              <td>
                {clock.deviation ? (
                  <Num worked={clock.deviation} show="max">
                    <span className="mono">
                      ±
                      {clock.deviation.value.max >= 1000
                        ? formatQuantity(clock.deviation.value.max / 1e4, '%', 3)
                        : formatQuantity(clock.deviation.value.max, 'ppm', 3)}
                    </span>
                  </Num>
                ) : (
                  <span className="faint">not in the sheet</span>
                )}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <Suspense fallback={<p className="faint">Drawing …</p>}>
        <FrequencyChart />
      </Suspense>
    </section>
  )
}
