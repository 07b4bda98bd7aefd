// How long cells last against how often a state comes: both by decades.

import type { Shown } from '@root-board/core/findings'
import { timeWords } from '@root-board/core/quantity'
import { useTheme, styled } from '@mui/material'
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

const day = 86400

const RhythmChart = ({ rows, now }: { rows: { every: number; runtime: Shown }[]; now: number }) => {
  const { palette } = useTheme()
  const label = { fill: palette.text.secondary, fontSize: 12 }
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
          <CartesianGrid stroke={palette.divider} strokeDasharray="2 4" />
          <XAxis
            dataKey="every"
            type="number"
            scale="log"
            domain={['dataMin', 'dataMax']}
            ticks={points.filter((_, i) => (points.length - 1 - i) % 3 === 0).map((p) => p.every)}
            tick={label}
            stroke={palette.text.secondary}
            tickFormatter={(t: number) => timeWords(t)}
          />
          <YAxis
            type="number"
            scale="log"
            domain={[low * 0.9, high * 1.1]}
            tick={label}
            stroke={palette.text.secondary}
            width={56}
            tickFormatter={(d: number) => String(Number(d.toPrecision(2)))}
            label={{ value: 'days', angle: -90, position: 'insideLeft', offset: 14, ...label }}
          />
          <Area
            dataKey="between"
            stroke="none"
            fill={palette.info.main}
            fillOpacity={0.16}
            isAnimationActive={false}
          />
          <Line
            dataKey="days"
            stroke={palette.text.primary}
            strokeWidth={1.6}
            dot={{ r: 2.5, fill: palette.text.primary }}
            isAnimationActive={false}
          />
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

const Figure = styled('figure')({ margin: 0, '& figcaption': { fontSize: 12.5 } })
