// One line of the budget after each of the last edits, with its limit.

import type { BudgetName } from '@root-board/core/analysis'
import { CartesianGrid, LineChart, Line, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import { Figure, useChartLook } from '../../shared/chart'
import { words } from './budget-words'

interface Props {
  points: { n: number; label: string; value?: number }[]
  name: BudgetName
  limit?: number
}

const TrendChart = ({ points, name, limit }: Props) => {
  const { palette, grid, axis, usual } = useChartLook()
  const { say, title } = words[name]
  const all = [...points.flatMap((p) => p.value ?? []), ...(limit === undefined ? [] : [limit])]
  const [low, high] = [Math.min(...all), Math.max(...all)]
  // Wide enough for its ticks to differ in the three digits that they are said with.
  const room = Math.max((high - low) * 0.1, Math.abs(high) * 0.04, 1e-9)
  return (
    <Figure>
      <ResponsiveContainer width="100%" height={170}>
        <LineChart data={points} margin={{ top: 8, right: 24, bottom: 4, left: 0 }}>
          <CartesianGrid {...grid} />
          <XAxis
            dataKey="n"
            type="number"
            domain={[0, points.length - 1]}
            ticks={points.map((p) => p.n)}
            {...axis}
            tickFormatter={(n: number) => (n === 0 ? 'before' : n === points.length - 1 ? 'now' : String(n))}
          />
          <YAxis
            type="number"
            domain={[low - room < 0 && low >= 0 ? 0 : low - room, high + room]}
            {...axis}
            width={84}
            tickFormatter={(v: number) => say(Number(v.toPrecision(3)))}
          />
          <Line dataKey="value" type="stepAfter" {...usual} />
          {limit !== undefined && (
            <ReferenceLine y={limit} stroke={palette.error.main} strokeDasharray="4 3" />
          )}
        </LineChart>
      </ResponsiveContainer>
      <figcaption className="faint">
        {title}, after each of the last edits{limit === undefined ? '' : '; dashed: the limit'}.
      </figcaption>
    </Figure>
  )
}

export default TrendChart
