// Highest clock against supply, with this project's point.

import { fullRange } from '@root-board/core/quantity'
import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceArea,
  ReferenceDot,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts'
import { useStage } from '../../shared/analysis'
import { Figure, useChartLook } from '../../shared/chart'

const FrequencyChart = () => {
  const { palette, label, grid, axis, usual } = useChartLook()
  const { analysis } = useStage()
  const chip = analysis.chip.chip!
  const { clock, power } = analysis
  const supply = fullRange(chip.supply.recommended)
  const points = [...chip.frequencyLimits]
    .sort((a, b) => a.supply - b.supply)
    .map((p) => ({ supply: p.supply, megahertz: p.frequency / 1e6 }))
  const last = points.at(-1)!
  if (last.supply < supply.max) points.push({ supply: supply.max, megahertz: last.megahertz })
  const rail = power.rail?.value
  const [low, high] = [Math.floor(supply.min), Math.ceil(supply.max)]
  const volts = Array.from({ length: high - low + 1 }, (_, i) => low + i)
  return (
    <Figure>
      <ResponsiveContainer width="100%" height={190}>
        <LineChart data={points} margin={{ top: 8, right: 16, bottom: 18, left: 0 }}>
          <CartesianGrid {...grid} />
          <XAxis
            dataKey="supply"
            type="number"
            domain={[low, high]}
            ticks={volts}
            {...axis}
            label={{ value: 'supply, V', position: 'insideBottom', offset: -8, ...label }}
          />
          <YAxis
            {...axis}
            width={44}
            label={{ value: 'clock, MHz', angle: -90, position: 'insideLeft', offset: 14, ...label }}
          />
          {rail && (
            <ReferenceArea
              x1={rail.min}
              x2={rail.max}
              fill={palette.info.main}
              fillOpacity={0.16}
              ifOverflow="extendDomain"
            />
          )}
          <Line dataKey="megahertz" {...usual} />
          {rail && (
            <ReferenceDot
              x={rail.typ}
              y={clock.frequency.value.typ / 1e6}
              r={5}
              fill={
                clock.limit && clock.frequency.value.max > clock.limit.value.min
                  ? palette.error.main
                  : palette.success.main
              }
              stroke={palette.text.primary}
              ifOverflow="extendDomain"
            />
          )}
        </LineChart>
      </ResponsiveContainer>
      <figcaption className="faint">
        Below the line the chip keeps up.{' '}
        {rail
          ? 'The band is the rail from its lowest to its highest; the dot is this project.'
          : 'Choose a source to see this project on it.'}
      </figcaption>
    </Figure>
  )
}

export default FrequencyChart
