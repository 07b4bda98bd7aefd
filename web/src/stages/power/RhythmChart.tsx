// How long cells last against how often a state comes: both by decades.

import type { Shown } from '@root-board/core/findings'
import { timeWords } from '@root-board/core/quantity'
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts'
import { Figure, useChartLook } from '../../shared/chart'

const day = 86400

const RhythmChart = ({ rows, now }: { rows: { every: number; runtime: Shown }[]; now: number }) => {
  const { palette, label, grid, axis, usual, band } = useChartLook()
  const points = rows.map(({ every, runtime: { value } }) => ({
    every,
    days: value.typ / day,
    between: [value.min / day, value.max / day],
  }))
  const all = points.flatMap((p) => p.between)
  const [low, high] = [Math.min(...all), Math.max(...all)]
  return (
    <Figure>
      <ResponsiveContainer width="100%" height={190}>
        <ComposedChart data={points} margin={{ top: 8, right: 24, bottom: 18, left: 0 }}>
          <CartesianGrid {...grid} />
          <XAxis
            dataKey="every"
            type="number"
            scale="log"
            domain={['dataMin', 'dataMax']}
            ticks={points.filter((_, i) => (points.length - 1 - i) % 3 === 0).map((p) => p.every)}
            {...axis}
            tickFormatter={(t: number) => timeWords(t)}
          />
          <YAxis
            type="number"
            scale="log"
            domain={[low * 0.9, high * 1.1]}
            {...axis}
            width={56}
            tickFormatter={(d: number) => String(Number(d.toPrecision(2)))}
            label={{ value: 'days', angle: -90, position: 'insideLeft', offset: 14, ...label }}
          />
          <Area dataKey="between" {...band} />
          <Line dataKey="days" {...usual} />
          <ReferenceLine x={now} stroke={palette.success.main} strokeDasharray="4 3" />
        </ComposedChart>
      </ResponsiveContainer>
      <figcaption className="faint">
        Days on one set of cells; the band from the worst to the best, the upright line is now.
      </figcaption>
    </Figure>
  )
}

export default RhythmChart
