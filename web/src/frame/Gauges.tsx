// The five numbers that decide the project, always in sight; each opens its working and says what the last edit did to it.

import { styled } from '@mui/material'
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
      // What has no value now is not changed by anything before.
      if (!gauge.worked) changes[gauge.id] = undefined
      if (!old?.worked || !gauge.worked) continue
      const difference = gauge.worked.value[gauge.corner] - old.worked.value[gauge.corner]
      if (
        Math.abs(difference) <= 1e-4 * Math.abs(old.worked.value[gauge.corner]) ||
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
    <Foot className="gauges" aria-label="Gauges" aria-busy={pending}>
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
    </Foot>
  )
}

const Foot = styled('footer')({
  gridArea: 'gauges',
  display: 'grid',
  gridTemplateColumns: 'repeat(5, minmax(0, 1fr))',
  borderTop: '1.5px solid var(--ink)',
  background: 'var(--sheet)',
  '& .gauge': {
    padding: '4px 14px 5px',
    borderLeft: '1px solid var(--line)',
    minWidth: 0,
    display: 'flex',
    alignItems: 'baseline',
    gap: 8,
    overflow: 'hidden',
  },
  '& .gauge:first-of-type': { borderLeft: 0 },
  '& .gauge-label': { fontSize: 12, color: 'var(--faint)', whiteSpace: 'nowrap' },
  '& .gauge-value': { fontSize: 15, whiteSpace: 'nowrap' },
  '& .gauge-change': {
    flex: 1,
    minWidth: 0,
    fontSize: 11.5,
    overflow: 'hidden',
    whiteSpace: 'nowrap',
    textOverflow: 'ellipsis',
  },
  '@media (max-width: 999px)': {
    '& .gauge': { padding: '4px 7px', flexDirection: 'column', gap: 0 },
    '& .gauge-value': { whiteSpace: 'normal', lineHeight: 1.2 },
    '& .gauge-change': { width: '100%' },
  },
  '@media (max-width: 599px)': {
    display: 'flex',
    overflowX: 'auto',
    '& .gauge': { flex: 'none', maxWidth: '46vw' },
    '& .gauge:has(.gauge-change)': { minWidth: '30vw' },
  },
})
