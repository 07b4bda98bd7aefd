import { Button } from '@mui/material'
import { resolveConflict } from '../store/autosave'
import { useProject } from '../store/project'

/** Two versions of one project: neither is lost, the builder says which goes on here. */
export const Conflict = () => {
  const save = useProject((s) => s.save)
  if (save.kind !== 'conflict') return null
  return (
    <section className="conflict" role="alert" aria-label="Two versions">
      <p>
        <b className="risks">This project was changed elsewhere</b> since you opened it (last at{' '}
        {new Date(save.stored.changedAt).toLocaleTimeString('en-GB')}). Both versions are kept: choose which
        goes on here, and the other becomes a project of its own.
      </p>
      <Button onClick={() => void resolveConflict('mine')}>Go on with mine</Button>{' '}
      <Button onClick={() => void resolveConflict('theirs')}>Go on with the other</Button>
    </section>
  )
}
