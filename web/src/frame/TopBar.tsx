// Project name, how saving stands, undo and redo by name, search, stance, light.

import { type Stance, stances } from '@root-board/core/design'
import { Button } from '@mui/material'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMode } from '../look/mode'
import { useStage } from '../shared/analysis'
import { download, fileName } from '../shared/words'
import { type SaveState, useProject } from '../store/project'
import { useFrame } from './frame-state'

const saveWords = (save: SaveState): string => {
  switch (save.kind) {
    case 'saved':
      return 'Saved'
    case 'waiting':
    case 'saving':
      return 'Saving …'
    case 'away':
      return 'Server away: kept in this browser'
    case 'conflict':
      return 'Changed elsewhere: choose below'
    case 'refused':
      return `Not saved: ${save.why}`
  }
}
const stanceWords: Record<Stance, string> = {
  'by-the-book': 'by the book',
  lean: 'lean',
  'bare-bones': 'bare bones',
}

export const TopBar = () => {
  const { design, edit } = useStage()
  const { done, undone, undo, redo, save } = useProject()
  const { mode, toggle } = useMode()
  const frame = useFrame()
  const [name, setName] = useState<string>()
  const rename = () => {
    if (name?.trim() && name.trim() !== design.name) edit({ kind: 'renameProject', name: name.trim() })
    setName(undefined)
  }
  return (
    <header className="top-bar">
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
      <input
        className="project-name"
        aria-label="Project name"
        value={name ?? design.name}
        onChange={(e) => setName(e.target.value)}
        onBlur={rename}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur()
          if (e.key === 'Escape') setName(undefined)
        }}
      />
      <span
        role="status"
        className={
          save.kind === 'saved'
            ? 'faint'
            : save.kind === 'away' || save.kind === 'conflict' || save.kind === 'refused'
              ? 'risks'
              : 'faint'
        }
      >
        {saveWords(save)}
      </span>
      <span className="spacer" />
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
        <select
          className="plain"
          value={design.stance}
          onChange={(e) => edit({ kind: 'setStance', stance: e.target.value as Stance })}
        >
          {stances.map((s) => (
            <option key={s} value={s}>
              {stanceWords[s]}
            </option>
          ))}
        </select>
      </label>
      <Button onClick={() => frame.set({ search: true })}>
        Find <kbd>/</kbd>
      </Button>
      <Button
        onClick={() =>
          download(fileName(design.name, '.json'), `${JSON.stringify(design, null, 2)}\n`, 'application/json')
        }
        title="The whole project as one file"
      >
        Project file
      </Button>
      <Button onClick={toggle} title="Light or lamp-lit">
        {mode === 'dark' ? 'Daylight' : 'Lamp light'}
      </Button>
      <Button onClick={() => frame.set({ evidence: !frame.evidence })} aria-pressed={frame.evidence}>
        Evidence
      </Button>
      <Button onClick={() => frame.set({ help: true })} aria-label="Keys">
        <kbd>?</kbd>
      </Button>
    </header>
  )
}
