// Projects, line by line: opened, renamed, copied, put away; found by name, chip or what was written about them where there are many.

import type { Part } from '@root-board/core/parts'
import { Button, styled, TextField } from '@mui/material'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import type { ProjectLine } from '../api/client'
import { NameInput } from '../kit/NameInput'
import { Body, Cell, Columns, hidden, right, Row, Table } from '../kit/Table'
import { dayWords } from '../shared/day'

export interface ProjectDoes {
  copy: (line: ProjectLine) => void
  remove: (line: ProjectLine) => void
  rename: (line: ProjectLine, to: string) => void
}
interface TableProps {
  lines: readonly ProjectLine[]
  parts: readonly Part[] | undefined
  does: ProjectDoes
}

/** From so many on one looks for a project rather than over them. */
const many = 7

export const ProjectTable = ({ lines, parts, does }: TableProps) => {
  const [wanted, setWanted] = useState('')
  const chipOf = (line: ProjectLine) => parts?.find((part) => part.id === line.chip)?.name ?? line.chip
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean)
  const found = lines.filter((line) => {
    const text = `${line.name} ${chipOf(line) ?? ''} ${line.notes ?? ''}`.toLowerCase()
    return words.every((word) => text.includes(word))
  })
  // Where a project has been put away, its button is gone: one stays at the list.
  const list = useRef<HTMLDivElement>(null)
  const before = useRef(lines.length)
  useEffect(() => {
    if (lines.length < before.current && document.activeElement === document.body) list.current?.focus()
    before.current = lines.length
  }, [lines.length])
  return (
    <div ref={list} tabIndex={-1}>
      {lines.length >= many && (
        <TextField
          label="Find a project"
          value={wanted}
          onChange={(e) => setWanted(e.target.value)}
          helperText={
            words.length > 0 ? `${found.length} of ${lines.length}, by name, chip or notes` : undefined
          }
          sx={{ mb: 1 }}
        />
      )}
      {found.length > 0 && (
        <Projects>
          <Columns of={['Name', 'Chip', right('Devices'), 'Changed', hidden('Rename, copy, put away')]} />
          <Body>
            {found.map((line) => (
              <ProjectRow key={line.id} line={line} chip={chipOf(line)} does={does} />
            ))}
          </Body>
        </Projects>
      )}
    </div>
  )
}

/** What was written about a project takes the room that is left; on a phone its count and date give way. */
const Projects = styled(Table)({
  '& td:not(:first-of-type)': { whiteSpace: 'nowrap' },
  '@media (max-width: 599px)': {
    '& :is(td, th):is(:nth-of-type(3), :nth-of-type(4))': { display: 'none' },
    '& td:last-of-type': { whiteSpace: 'normal', width: 90 },
  },
})

const ProjectRow = ({ line, chip, does }: { line: ProjectLine; chip?: string; does: ProjectDoes }) => {
  const [renaming, setRenaming] = useState(false)
  const button = useRef<HTMLButtonElement>(null)
  return (
    <Row>
      <Cell>
        {renaming ? (
          <NameInput
            label={`New name of ${line.name}`}
            value={line.name}
            maxLength={120}
            autoFocus
            onRename={(to) => does.rename(line, to)}
            onLeave={() => {
              setRenaming(false)
              // Left by a key, and for nowhere else.
              requestAnimationFrame(() => {
                if (document.activeElement === document.body) button.current?.focus()
              })
            }}
          />
        ) : line.damaged ? (
          <>
            {line.name}
            <div className="risks">
              What is stored of it can’t be read.{' '}
              <a href={`/api/projects/${line.id}/raw`} download>
                What is left of it
              </a>
              ; <Link to="/copies">a copy</Link> may have it whole.
            </div>
          </>
        ) : (
          <Link to={`/projects/${line.id}/needs`}>{line.name}</Link>
        )}
        {line.notes && <div className="faint">{line.notes}</div>}
      </Cell>
      <Cell>{chip ?? <span className="faint">{line.damaged ? '' : 'none yet'}</span>}</Cell>
      <Cell align="right" className="mono">
        {line.damaged ? '' : line.devices}
      </Cell>
      <Cell>{dayWords(line.changedAt)}</Cell>
      <Cell align="right">
        {!line.damaged && (
          <>
            <Button ref={button} aria-label={`Rename ${line.name}`} onClick={() => setRenaming(true)}>
              Rename
            </Button>{' '}
            <Button aria-label={`Copy ${line.name}`} onClick={() => does.copy(line)}>
              Copy
            </Button>{' '}
          </>
        )}
        <Button aria-label={`Put ${line.name} away`} onClick={() => does.remove(line)}>
          Put away
        </Button>
      </Cell>
    </Row>
  )
}
