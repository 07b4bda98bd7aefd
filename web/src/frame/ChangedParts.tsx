// Parts that the library knows differently than this project, or no more: nothing changes here until the builder says so.

import { changedParts } from '@root-board/core/design'
import type { Library } from '@root-board/core/parts'
import { Button } from '@mui/material'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, Problem } from '../api/client'
import { Differences } from '../parts/Differences'
import { Notice } from '../kit/layout'
import { PreviewedFix } from '../shared/PreviewedFix'
import { useStage } from '../shared/analysis'
import { useQueryClient } from '@tanstack/react-query'

/** One that was put away comes back, and says then what the project says. */
const addOrBringBack = async (part: unknown): Promise<void> => {
  try {
    await api.addPart(part)
  } catch (error) {
    if (!(error instanceof Problem) || !error.held?.away) throw error
    const { id, version } = await api.restorePart(error.held.id)
    await api.savePart(id, version, part)
  }
}

const ChangedParts = ({ shelf }: { shelf: Library }) => {
  const { design } = useStage()
  const [open, setOpen] = useState(false)
  const [failed, setFailed] = useState<string>()
  const queries = useQueryClient()
  const changed = changedParts(design, shelf)
  const newer = changed.filter((c) => c.now)
  const vanished = changed.filter((c) => !c.now)
  const names = (list: typeof changed) => list.map((c) => c.kept.name).join(', ')
  const putBack = async (part: unknown) => {
    try {
      await addOrBringBack(part)
      await queries.invalidateQueries({ queryKey: ['parts'] })
    } catch (error) {
      setFailed((error as Error).message)
    }
  }
  return (
    <Notice
      as="section"
      about="slate"
      sx={{ maxHeight: '46vh', overflow: 'auto' }}
      aria-label="Parts that changed in the library"
    >
      <p>
        {newer.length > 0 && (
          <>
            The library says something else now of <b>{names(newer)}</b>.{' '}
          </>
        )}
        {vanished.length > 0 && (
          <>
            The library has <b>{names(vanished)}</b> no more.{' '}
          </>
        )}
        This project goes on with the facts it was planned with.{' '}
        <Button onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? 'Close' : 'See what differs'}
        </Button>
      </p>
      {open && (
        <>
          {newer.map(({ kept, now }) => (
            <div key={kept.id}>
              <h3>
                <Link to={`/parts/${encodeURIComponent(kept.id)}`}>{now!.name}</Link>
              </h3>
              <Differences before={kept} after={now!} beforeName="this project" afterName="the library now" />
              <PreviewedFix
                fix={{ label: 'Take the new facts over', edits: [{ kind: 'takeFacts', part: now! }] }}
              />
            </div>
          ))}
          {vanished.map(({ kept }) => (
            <p key={kept.id}>
              {kept.name} (<span className="mono">{kept.id}</span>){' '}
              <Button onClick={() => void putBack(kept)}>
                Put it back into the library from this project
              </Button>
            </p>
          ))}
          {failed && <p className="stops">{failed}. Nothing was put back.</p>}
        </>
      )}
    </Notice>
  )
}

export default ChangedParts
