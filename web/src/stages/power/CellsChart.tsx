// The voltage of the cells over the time that they last, and where the first thing on the way stops.

import type { CellsUse } from '@root-board/core/power'
import type { Source } from '@root-board/core/parts'
import { fullRange } from '@root-board/core/quantity'
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts'
import { Figure, useChartLook } from '../../shared/chart'

const hour = 3600

const CellsChart = ({ source, cells }: { source: Source; cells: CellsUse }) => {
  const { palette, label, grid, axis, usual, band } = useChartLook()
  const runtime = cells.runtime.value.typ
  const whole = runtime / (cells.usable?.value.typ ?? 1)
  const inDays = whole > 72 * hour
  const scale = inDays ? 24 * hour : hour
  if (!source.discharge || !Number.isFinite(whole)) return null
  const points = source.discharge.map(({ used, voltage }) => {
    const { min, typ, max } = fullRange(voltage)
    return { time: (used * whole) / scale, volts: typ, between: [min, max] }
  })
  const all = points.flatMap((p) => p.between)
  // Half volts.
  const [low, high] = [Math.floor(Math.min(...all) * 2) / 2, Math.ceil(Math.max(...all) * 2) / 2]
  return (
    <Figure>
      <ResponsiveContainer width="100%" height={190}>
        <ComposedChart data={points} margin={{ top: 8, right: 24, bottom: 18, left: 0 }}>
          <CartesianGrid {...grid} />
          <XAxis
            dataKey="time"
            type="number"
            domain={[0, 'dataMax']}
            {...axis}
            tickFormatter={(t: number) => String(Number(t.toPrecision(3)))}
            label={{ value: inDays ? 'days' : 'hours', position: 'insideBottom', offset: -8, ...label }}
          />
          <YAxis
            type="number"
            domain={[low, high]}
            ticks={Array.from({ length: Math.round((high - low) * 2) + 1 }, (_, i) => low + i / 2)}
            {...axis}
            width={56}
            label={{ value: 'cells, V', angle: -90, position: 'insideLeft', offset: 14, ...label }}
          />
          {cells.stop && (
            <ReferenceArea
              y1={cells.stop.value.min}
              y2={cells.stop.value.max}
              fill={palette.error.main}
              fillOpacity={0.14}
              ifOverflow="hidden"
            />
          )}
          <Area dataKey="between" {...band} />
          <Line dataKey="volts" {...usual} />
          {cells.usable && (
            <ReferenceLine x={runtime / scale} stroke={palette.error.main} strokeDasharray="4 3" />
          )}
        </ComposedChart>
      </ResponsiveContainer>
      <figcaption className="faint">
        Voltage of the cells at rest as its sheet draws it, at the usual current.
        {cells.stop && ' In the coloured band something stops; the upright line is when, usually.'}
      </figcaption>
    </Figure>
  )
}

export default CellsChart
