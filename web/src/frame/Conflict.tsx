import { Button, styled } from '@mui/material'
import { useState } from 'react'
import { resolveConflict } from '../store/autosave'
import { useProject } from '../store/project'

/** Two versions of one project: neither is lost, the builder says which goes on here. */
export const Conflict = () => {
  const save = useProject((s) => s.save)
  const [failure, setFailure] = useState<string>()
  const choose = (side: 'mine' | 'theirs') => {
    setFailure(undefined)
    resolveConflict(side).catch((error: unknown) => setFailure((error as Error).message))
  }
  if (save.kind !== 'conflict') return null
  return (
    <Framed role="alert" aria-label="Two versions">
      <p>
        <b className="risks">This project was changed elsewhere</b> since you opened it (last at{' '}
        {new Date(save.stored.changedAt).toLocaleTimeString('en-GB')}). Both versions are kept: choose which
        goes on here, and the other becomes a project of its own.
      </p>
      <Button onClick={() => choose('mine')}>Go on with mine</Button>{' '}
      <Button onClick={() => choose('theirs')}>Go on with the other</Button>
      {failure && <p className="stops">{failure}. Both versions are still there; try again.</p>}
    </Framed>
  )
}

const Framed = styled('section')({
  border: '1.5px solid var(--ochre)',
  padding: '8px 14px 12px',
  marginBottom: 14,
})
