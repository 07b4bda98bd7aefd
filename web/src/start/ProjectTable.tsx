// Projects, line by line: opened, renamed, copied, put away; found by name or chip where there are many.

import type { Part } from '@root-board/core/parts'
import { Button, TextField } from '@mui/material'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import type { ProjectLine } from '../api/client'
import { NameInput } from '../kit/NameInput'
import { Body, Cell, Columns, hidden, right, Row, Table } from '../kit/Table'
import { dayWords } from './day'

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
    const text = `${line.name} ${chipOf(line) ?? ''}`.toLowerCase()
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
          helperText={words.length > 0 ? `${found.length} of ${lines.length}, by name or chip` : undefined}
          sx={{ mb: 1 }}
        />
      )}
      {found.length > 0 && (
        <Table>
          <Columns of={['Name', 'Chip', right('Devices'), 'Changed', hidden('Rename, copy, put away')]} />
          <Body>
            {found.map((line) => (
              <ProjectRow key={line.id} line={line} chip={chipOf(line)} does={does} />
            ))}
          </Body>
        </Table>
      )}
    </div>
  )
}

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
        ) : (
          <Link to={`/projects/${line.id}/needs`}>{line.name}</Link>
        )}
      </Cell>
      <Cell>{chip ?? <span className="faint">none yet</span>}</Cell>
      <Cell align="right" className="mono">
        {line.devices}
      </Cell>
      <Cell>{dayWords(line.changedAt)}</Cell>
      <Cell align="right" className="one-line">
        <Button ref={button} aria-label={`Rename ${line.name}`} onClick={() => setRenaming(true)}>
          Rename
        </Button>{' '}
        <Button aria-label={`Copy ${line.name}`} onClick={() => does.copy(line)}>
          Copy
        </Button>{' '}
        <Button aria-label={`Put ${line.name} away`} onClick={() => does.remove(line)}>
          Put away
        </Button>
      </Cell>
    </Row>
  )
}
