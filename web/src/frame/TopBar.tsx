// Project name, how saving stands, undo and redo by name, search, stance, light.

import { type Stance, stances } from '@root-board/core/design'
import { Button, styled } from '@mui/material'
import { Link } from 'react-router'
import { useMode } from '../kit/mode'
import { useStage } from '../shared/analysis'
import { useProject } from '../store/project'
import { Marks } from '../kit/Mark'
import { useFrame } from './frame-state'
import { ProjectFile, ProjectName, SaveStatus } from './ProjectBits'
import { useEvidence } from './use-evidence'
import { Choice } from '../kit/inputs'
import { Spacer } from '../kit/layout'

const stanceWords: Record<Stance, string> = {
  'by-the-book': 'by the book',
  lean: 'lean',
  'bare-bones': 'bare bones',
}

export const TopBar = () => {
  const { analysis, design, edit } = useStage()
  const { done, undone, undo, redo } = useProject()
  const { mode, toggle } = useMode()
  const frame = useFrame()
  const evidence = useEvidence(analysis.findings)
  return (
    <Bar className="top-bar">
      <Link to="/" aria-label="All projects" title="All projects">
        <svg width="22" height="26" viewBox="0 0 40 60" aria-hidden="true">
          <path
            d="M20 2v26M20 28c0 12-13 12-15 28M20 28c0 12 13 12 15 28M20 28v30"
            fill="none"
            stroke="var(--green)"
            strokeWidth="5"
            strokeLinecap="round"
          />
        </svg>
      </Link>
      <ProjectName />
      <SaveStatus />
      <Spacer />
      <Button
        onClick={undo}
        disabled={done.length === 0}
        aria-label={done.length > 0 ? `Undo: ${done.at(-1)!.label}` : 'Undo'}
        title={done.at(-1) ? `Undo: ${done.at(-1)!.label}` : 'Nothing to undo'}
      >
        Undo{done.length > 0 && <span className="what">: {done.at(-1)!.label}</span>}
      </Button>
      <Button
        onClick={redo}
        disabled={undone.length === 0}
        aria-label={undone.length > 0 ? `Redo: ${undone.at(-1)!.label}` : 'Redo'}
        title={undone.at(-1) ? `Redo: ${undone.at(-1)!.label}` : 'Nothing to redo'}
      >
        Redo
      </Button>
      <label className="stance">
        Stance{' '}
        <Choice
          value={design.stance}
          options={stances.map((s) => ({ value: s, label: stanceWords[s] }))}
          onChange={(stance) => edit({ kind: 'setStance', stance })}
        />
      </label>
      <Button onClick={() => frame.set({ search: true })}>
        Find <kbd>/</kbd>
      </Button>
      <ProjectFile />
      <Button onClick={toggle} title="Light or lamp-lit">
        {mode === 'dark' ? 'Daylight' : 'Lamp light'}
      </Button>
      <Button onClick={() => frame.set({ evidence: !evidence })} aria-pressed={evidence}>
        Evidence
        <ItsMarks>
          <Marks findings={analysis.findings} />
        </ItsMarks>
      </Button>
      <Button onClick={() => frame.set({ help: true })} aria-label="Keys">
        <kbd>?</kbd>
      </Button>
    </Bar>
  )
}

const Bar = styled('header')({
  gridArea: 'top',
  display: 'flex',
  alignItems: 'center',
  gap: 8,
  padding: '0 14px',
  borderBottom: '1.5px solid var(--ink)',
  minWidth: 0,
  '& .project-name': {
    font: 'inherit',
    fontSize: 17,
    fontWeight: 650,
    color: 'inherit',
    background: 'none',
    border: 0,
    borderBottom: '1px solid transparent',
    width: 190,
    padding: '2px 4px',
    textOverflow: 'ellipsis',
  },
  '& .project-name:hover, & .project-name.Mui-focused': { borderBottomColor: 'var(--line)' },
  '& .what': {
    maxWidth: 'clamp(100px, 18vw, 240px)',
    overflow: 'hidden',
    textOverflow: 'ellipsis',
    whiteSpace: 'nowrap',
  },
  "& [role='status']": {
    whiteSpace: 'nowrap',
    fontSize: 13,
    maxWidth: 230,
    overflow: 'hidden',
    textOverflow: 'ellipsis',
  },
  '& .MuiButton-root': { padding: '2px 8px', minWidth: 0, borderColor: 'var(--line)', whiteSpace: 'nowrap' },
  '& .stance': { fontSize: 13, whiteSpace: 'nowrap' },
  '@media (max-width: 999px)': {
    flexWrap: 'wrap',
    padding: '6px 10px',
  },
})

const ItsMarks = styled('span')({
  display: 'flex',
  gap: 6,
  marginLeft: 6,
  '&:empty': { display: 'none' },
})
