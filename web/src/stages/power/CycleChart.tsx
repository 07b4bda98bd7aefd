// How the states follow one another, and the current from the source in each: the time to scale, the current by decades.

import type { StateChoice } from '@root-board/core/design'
import { formatQuantity, timeWords } from '@root-board/core/quantity'
import { cycleWithin, periodOf } from '@root-board/core/states'
import { railOf } from '@root-board/core/supply'
import { useState } from 'react'
import { CartesianGrid, Legend, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import { Choice } from '../../kit/inputs'
import { useStage } from '../../shared/analysis'
import { Figure, useChartLook } from '../../shared/chart'

const day = 86400
/** What takes nothing has no place among decades. */
const least = 1e-9

const CycleChart = ({ states }: { states: StateChoice[] }) => {
  const { palette, grid, axis } = useChartLook()
  const { analysis } = useStage()
  const { supplies, loads } = analysis.power
  const busy = states.reduce((sum, s) => sum + (s.lasts ?? 0), 0)
  const periods = states.map(periodOf).filter((p) => p !== undefined)
  const all = [...new Set([busy * 1.25, ...periods, day])].filter((w) => w > 0).sort((a, b) => a - b)
  const windows = all.filter((w) => cycleWithin(states, w) !== undefined)
  const [chosen, setChosen] = useState<number>()
  const window = chosen !== undefined && windows.includes(chosen) ? chosen : (windows[0] ?? day)
  const segments = cycleWithin(states, window) ?? []
  const source = loads.sources.find((s) => s.source.to !== supplies.fed.feed)
  const lines = [
    ...(source
      ? [
          {
            key: 'source',
            name: 'from the source',
            of: source.cycle,
            colour: palette.text.primary,
            dash: undefined,
          },
        ]
      : []),
    ...Object.values(loads.rails)
      // Where that is another current: a switching regulator takes another than it gives.
      .filter(
        (r) =>
          supplies.converters.some((c) => c.to === r.rail.id && c.to !== supplies.own) ||
          (r.rail.id === supplies.own &&
            states.some(({ id }) => {
              const [given, taken] = [r.cycle[id]?.value.typ ?? 0, source?.cycle[id]?.value.typ ?? 0]
              return Math.abs(given - taken) > 0.1 * taken
            })),
      )
      .map((r, k) => ({
        key: r.rail.id,
        name: `on the ${railOf(supplies, r.rail.id).name}`,
        of: r.cycle,
        colour: r.rail.id === supplies.own ? palette.info.main : palette.text.secondary,
        // Told apart by their dashes too.
        dash: ['5 3', '2 3', '8 3 2 3', '1 4', '10 3', '6 2 1 2'][k],
      })),
  ]
  const at = (time: number, state: string) => ({
    time,
    ...Object.fromEntries(lines.map((l) => [l.key, Math.max(least, l.of[state]?.value.typ ?? least)])),
  })
  const points = segments.flatMap((s) => [at(s.from, s.state), at(s.to, s.state)])
  const currents = lines.flatMap((l) => states.map((s) => Math.max(least, l.of[s.id]?.value.typ ?? least)))
  if (windows.length === 0 || currents.length === 0) return null
  const low = 10 ** Math.floor(Math.log10(Math.min(...currents)))
  const high = 10 ** Math.ceil(Math.log10(Math.max(...currents) * 1.0001))
  const decades = Array.from({ length: Math.round(Math.log10(high / low)) + 1 }, (_, i) => low * 10 ** i)
  return (
    <Figure>
      <label>
        Drawn:{' '}
        <Choice
          value={String(window)}
          options={windows.map((w, i) => ({
            value: String(w),
            label: i === 0 && w === busy * 1.25 ? `what it does, ${timeWords(Math.round(w))}` : timeWords(w),
          }))}
          onChange={(w) => setChosen(Number(w))}
        />
      </label>
      <ResponsiveContainer width="100%" height={190}>
        <LineChart data={points} margin={{ top: 8, right: 16, bottom: 18, left: 8 }}>
          <CartesianGrid {...grid} />
          <XAxis
            dataKey="time"
            type="number"
            domain={[0, window]}
            {...axis}
            tickFormatter={(t: number) => timeWords(Number(t.toPrecision(3)))}
          />
          <YAxis
            scale="log"
            domain={[low, high]}
            ticks={decades}
            allowDataOverflow
            {...axis}
            width={64}
            tickFormatter={(a: number) => formatQuantity(Number(a.toPrecision(3)), 'A')}
          />
          {lines.length > 1 && <Legend verticalAlign="top" height={22} />}
          {lines.map((l) => (
            <Line
              key={l.key}
              dataKey={l.key}
              name={l.name}
              stroke={l.colour}
              strokeWidth={l.key === 'source' ? 1.6 : 1.2}
              strokeDasharray={l.dash}
              dot={false}
              isAnimationActive={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
      <figcaption className="faint">
        Typical current from the source, each state at its time. When exactly each begins is not known: here
        one after the other, and the currents’ numbers are in the table above.
        {windows.length < all.length && ' Longer times have too many changes to be drawn.'}
      </figcaption>
    </Figure>
  )
}

export default CycleChart
