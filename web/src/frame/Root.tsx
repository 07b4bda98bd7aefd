// The stages as one root growing downwards: thick where things are settled, thin where they are open.

import { styled } from '@mui/material'
import { NavLink } from 'react-router'
import { useStage } from '../shared/analysis'
import { Marks } from '../kit/Mark'
import { isSettled, stages } from './stages'

const step = 74
const top = 26

export const Root = () => {
  const { analysis } = useStage()
  const settled = stages.map((s) => isSettled(s, analysis))
  const reach = settled.findIndex((s) => !s)
  const grown = reach < 0 ? stages.length : reach
  return (
    <Stages aria-label="Stages">
      <svg width="44" height={top + step * stages.length} aria-hidden="true">
        {stages.map((s, i) => {
          const y = top + i * step
          const thick = settled[i] ? Math.max(3, 9 - i * 1.2) : 1.2
          const colour = settled[i] ? 'var(--green)' : 'var(--faint)'
          return (
            <g key={s.name} stroke={colour} fill="none" strokeLinecap="round">
              <path
                d={`M20 ${i === 0 ? 0 : y - step} C ${22 + (i % 2) * 4} ${y - step / 2}, ${16 - (i % 2) * 3} ${y - step / 3}, 20 ${y}`}
                strokeWidth={thick}
                strokeDasharray={settled[i] ? undefined : '3 4'}
              />
              <path d={`M20 ${y} q 8 1 20 -1`} strokeWidth={settled[i] ? 2.4 : 1} />
              {i >= grown && <circle cx="20" cy={y} r="3" fill="var(--paper)" strokeWidth="1.2" />}
            </g>
          )
        })}
      </svg>
      <ol>
        {stages.map((s, i) => {
          const own = analysis.findings.filter((f) => f.stage === s.name)
          return (
            <li key={s.name} style={{ top: top + i * step - 17 }}>
              <NavLink to={s.name}>
                <span className="stage-title">{s.title}</span>
                <span className="stage-state">
                  {own.length === 0 ? (
                    <span className="faint">{settled[i] ? 'settled' : 'open'}</span>
                  ) : (
                    <Marks findings={own} />
                  )}
                </span>
              </NavLink>
            </li>
          )
        })}
      </ol>
    </Stages>
  )
}

const Stages = styled('nav')({
  gridArea: 'root',
  position: 'relative',
  paddingLeft: 6,
  borderRight: '1px solid var(--line)',
  overflow: 'auto',
  '& ol': { listStyle: 'none', margin: 0, padding: 0 },
  '& li': { position: 'absolute', left: 46, right: 4 },
  '& a': {
    display: 'block',
    color: 'inherit',
    textDecoration: 'none',
    padding: '2px 5px',
    borderLeft: '3px solid transparent',
  },
  '& a.active': { borderLeftColor: 'var(--green)', background: 'var(--shade)' },
  '& .stage-title': { display: 'block', fontWeight: 650, fontSize: 15 },
  '& .stage-state': { fontSize: 12, display: 'flex', gap: 7 },
  '@media (max-width: 999px)': {
    overflowY: 'auto',
    '& > svg': { display: 'none' },
    '& li': { position: 'static', margin: '6px 0' },
  },
  '@media (max-width: 599px)': {
    borderRight: 0,
    borderBottom: '1px solid var(--line)',
    padding: '0 4px',
    '& ol': { display: 'flex', justifyContent: 'space-between' },
    '& li': { margin: 0 },
    '& .stage-state': { fontSize: 11 },
  },
})
