// The five numbers that decide the project, always in sight; each opens its working and says what the last edit did to it.

import { type Gauge, gaugeChange, gaugeText } from '@root-board/core/analysis'
import { useState } from 'react'
import { useStage } from '../shared/analysis'
import { Num, Quantity } from '../kit/Num'
import { useProject } from '../store/project'

interface Change {
  text: string
  label: string
}

/** For each gauge what the last edit did to it. */
const useChanges = (gauges: Gauge[]): Partial<Record<string, Change>> => {
  const label = useProject((s) => s.done.at(-1)?.label)
  const [state, setState] = useState<{ gauges: Gauge[]; changes: Partial<Record<string, Change>> }>({
    gauges,
    changes: {},
  })
  if (state.gauges !== gauges) {
    const changes = { ...state.changes }
    for (const gauge of gauges) {
      const old = state.gauges.find((g) => g.id === gauge.id)
      if (!old?.worked || !gauge.worked) continue
      const difference = gauge.worked.value[gauge.corner] - old.worked.value[gauge.corner]
      if (
        Math.abs(difference) <= 1e-9 * Math.abs(old.worked.value[gauge.corner]) ||
        !Number.isFinite(difference)
      )
        continue
      changes[gauge.id] = {
        text: gaugeChange(gauge, difference),
        label: label ?? 'the last change',
      }
    }
    setState({ gauges, changes })
  }
  return state.changes
}

export const Gauges = () => {
  const { analysis, pending } = useStage()
  const changes = useChanges(analysis.gauges)
  return (
    <footer className="gauges" aria-label="Gauges" aria-busy={pending}>
      {analysis.gauges.map((gauge) => {
        const value = gauge.worked?.value[gauge.corner]
        const over = gauge.limit !== undefined && value !== undefined && value > gauge.limit
        return (
          <div key={gauge.id} className="gauge">
            <span className="gauge-label">{gauge.label}</span>
            <span className={over ? 'gauge-value stops' : 'gauge-value'}>
              {gauge.worked && value !== undefined ? (
                <Num worked={gauge.worked} show={gauge.corner}>
                  {gauge.id === 'runtime' || gauge.id === 'price' ? (
                    <span className="mono">{gaugeText(gauge, value)}</span>
                  ) : (
                    <Quantity value={value} unit={gauge.worked.unit} />
                  )}
                </Num>
              ) : (
                <span className="faint">{gauge.instead}</span>
              )}
              {gauge.limit !== undefined && gauge.worked && (
                <span className="faint"> of {gaugeText(gauge, gauge.limit)}</span>
              )}
              {over && <span className="visually-hidden"> (over the limit)</span>}
            </span>
            {changes[gauge.id] && (
              <span className="gauge-change faint" title={`since: ${changes[gauge.id]!.label}`}>
                {changes[gauge.id]!.text} · {changes[gauge.id]!.label}
              </span>
            )}
          </div>
        )
      })}
    </footer>
  )
}
