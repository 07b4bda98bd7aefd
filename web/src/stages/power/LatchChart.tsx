// What a latch does over time: the voltages at its source, its gate, the rail and the two legs, with what happens when.

import type { LatchRun } from '@root-board/core/latch'
import { formatQuantity, namesInWords } from '@root-board/core/quantity'
import {
  CartesianGrid,
  Legend,
  Line,
  LineChart,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts'
import { useStage } from '../../shared/analysis'
import { Figure, useChartLook } from '../../shared/chart'

/** One of a few that are easily told: 1, 2 or 5 times a power of ten. */
const stepFor = (span: number): number => {
  const rough = span / 6
  const power = 10 ** Math.floor(Math.log10(rough))
  return [1, 2, 5, 10].map((m) => m * power).find((s) => s >= rough)!
}

interface Drawn {
  key: 'source' | 'gate' | 'rail' | 'hold' | 'key'
  name: string
  colour: string
  dash?: string
}

const LatchChart = ({ run }: { run: LatchRun }) => {
  const { leftOut = [] } = useStage().analysis.latch
  const { palette, grid, axis } = useChartLook()
  const lines: Drawn[] = [
    { key: 'source', name: 'source', colour: palette.text.secondary, dash: '2 3' },
    { key: 'gate', name: 'gate', colour: palette.warning.main, dash: '6 3' },
    { key: 'rail', name: 'rail', colour: palette.text.primary, dash: undefined },
    { key: 'hold', name: 'leg that holds', colour: palette.info.main, dash: undefined },
    ...(run.key
      ? [{ key: 'key' as const, name: 'leg that reads', colour: palette.success.main, dash: '4 2 1 2' }]
      : []),
  ]
  const points = run.times.map((time, k) => ({
    time,
    ...Object.fromEntries(lines.map((l) => [l.key, run[l.key]?.[k]])),
  }))
  const end = run.times.at(-1)!
  const step = stepFor(end)
  const highest = Math.max(...run.source, ...run.rail)
  const volt = stepFor(highest)
  // A gate that is coupled to one that jumps is below ground for some microseconds: nothing that could be seen here.
  const top = Math.ceil((highest * 1.02) / volt) * volt
  return (
    <Figure>
      <ResponsiveContainer width="100%" height={230}>
        <LineChart data={points} margin={{ top: 8, right: 24, bottom: 4, left: 0 }}>
          <CartesianGrid {...grid} />
          <XAxis
            dataKey="time"
            type="number"
            domain={[0, end]}
            ticks={Array.from({ length: Math.floor(end / step) + 1 }, (_, n) => n * step)}
            {...axis}
            tickFormatter={(t: number) => (t === 0 ? '0' : formatQuantity(Number(t.toPrecision(3)), 's'))}
          />
          <YAxis
            domain={[0, top]}
            ticks={Array.from({ length: Math.floor(top / volt + 0.01) + 1 }, (_, n) => n * volt)}
            allowDataOverflow
            {...axis}
            width={56}
            tickFormatter={(v: number) => formatQuantity(Number(v.toPrecision(3)), 'V')}
          />
          <Legend verticalAlign="top" height={24} />
          {run.events.map(({ at, what }) => (
            <ReferenceLine key={what} x={at} stroke={palette.divider} />
          ))}
          {lines.map((l) => (
            <Line
              key={l.key}
              dataKey={l.key}
              name={l.name}
              stroke={l.colour}
              strokeWidth={l.key === 'rail' ? 2 : 1.3}
              strokeDasharray={l.dash}
              dot={false}
              isAnimationActive={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
      <figcaption className="faint">
        At usual values, the chip at its slowest start; the upright lines are what the table says.
        {leftOut.length > 0 &&
          ` Not in it: ${namesInWords(leftOut)}, in front of the regulator; what they take, and fill as they start, comes on top.`}
      </figcaption>
    </Figure>
  )
}

export default LatchChart
