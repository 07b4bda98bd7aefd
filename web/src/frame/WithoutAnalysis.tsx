// A project that is open and not worked out: still being computed, stopped, or failed. What the builder decided is there
// and can be changed, so that nobody is locked out of a project by what it takes to compute it.

import type { Design } from '@root-board/core/design'
import type { Library } from '@root-board/core/parts'
import { Button, styled } from '@mui/material'
import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { Line, Notice, PlainPage, Spacer } from '../kit/layout'
import { Body, Cell, Columns, hidden, right, Row, Table } from '../kit/Table'
import { useProject } from '../store/project'
import { Conflict } from './Conflict'
import { analysisBegan } from '../worker/client'
import { KeptNowhere, ProjectFile, ProjectName, SaveStatus } from './ProjectBits'

interface Props {
  design: Design
  /** Absent while it is fetched. */
  library: Library | undefined
  /** Why there is no analysis; absent: it is being computed. */
  why: string | undefined
  stop: () => void
  again: () => void
}

const WithoutAnalysis = ({ design, library, why, stop, again }: Props) => {
  const { edit, done, undone, undo, redo } = useProject()
  const nameOf = (id: string) => (library && Object.hasOwn(library.parts, id) ? library.parts[id]!.name : id)
  return (
    <Page>
      <Line>
        <Link to="/">All projects</Link>
        <ProjectName />
        <SaveStatus />
        <Spacer />
        <Button onClick={undo} disabled={done.length === 0}>
          Undo{done.length > 0 && `: ${done.at(-1)!.label}`}
        </Button>
        <Button onClick={redo} disabled={undone.length === 0}>
          Redo
        </Button>
        <ProjectFile />
      </Line>
      <Conflict />
      <KeptNowhere />
      <h1>{why === undefined ? 'Being worked out' : 'Not worked out'}</h1>
      <Notice about={why === undefined ? 'slate' : 'ochre'}>
        {why === undefined ? (
          <Working stop={stop} />
        ) : (
          <p role="alert">
            This project could not be worked out: {why}. Nothing of it is lost; no number of it is known. Take
            out what may be too much, or <Button onClick={again}>try again</Button>
          </p>
        )}
      </Notice>
      <h2>What it is to do</h2>
      {design.needs.devices.length === 0 ? (
        <p className="faint">No devices yet.</p>
      ) : (
        <Wide>
          <Columns of={['Device', 'Part', right('How many'), hidden('Take it out')]} />
          <Body>
            {design.needs.devices.map((d) => (
              <Row key={d.id}>
                <Cell>{d.name}</Cell>
                <Cell>{nameOf(d.part)}</Cell>
                <Cell align="right" className="mono">
                  {d.count}
                </Cell>
                <Cell align="right">
                  <Button
                    aria-label={`Take out ${d.name}`}
                    onClick={() => edit({ kind: 'removeDevice', id: d.id }, `Remove ${d.name}`)}
                  >
                    Take out
                  </Button>
                </Cell>
              </Row>
            ))}
          </Body>
        </Wide>
      )}
      <h2>What it is made with</h2>
      <p>
        Chip or board: {design.chip.part ? nameOf(design.chip.part) : <span className="faint">none yet</span>}
      </p>
    </Page>
  )
}

export default WithoutAnalysis

const sinceThen = () => Math.round((performance.now() - analysisBegan()) / 1000)
/** How long it has taken so far, by the second. */
const Working = ({ stop }: { stop: () => void }) => {
  const [seconds, setSeconds] = useState(sinceThen)
  useEffect(() => {
    const timer = setInterval(() => setSeconds(sinceThen()), 1000)
    return () => clearInterval(timer)
  }, [])
  return (
    <p>
      This project is being worked out: {seconds} s so far. It can be changed meanwhile.{' '}
      <Button onClick={stop}>Stop working it out</Button>
    </p>
  )
}

const Page = styled(PlainPage)({ '& h1': { margin: '22px 0 8px' }, '& h2': { margin: '26px 0 6px' } })
const Wide = styled(Table)({ width: '100%' })
