// One box that finds everything: a leg by any of its names, a part, a net, a need, a finding, a stage, something to do.

import { Dialog } from '@mui/material'
import { lazy, Suspense, useState } from 'react'
import { Boundary } from './Boundary'
import { useFrame } from './frame-state'

const SearchField = lazy(() => import('./SearchField'))

export const SearchBox = () => {
  const open = useFrame((s) => s.search)
  const set = useFrame((s) => s.set)
  const close = () => set({ search: false })
  return (
    <Dialog
      open={open}
      onClose={close}
      fullWidth
      maxWidth="sm"
      slotProps={{
        paper: { 'aria-label': 'Find', sx: { position: 'fixed', top: 56, m: 0, overflow: 'visible' } },
      }}
    >
      {open && <Find close={close} />}
    </Dialog>
  )
}

/** What is typed before the field is there is not lost. */
const Find = ({ close }: { close: () => void }) => {
  const [typed, setTyped] = useState('')
  return (
    <Boundary what="The search">
      <Suspense
        fallback={
          <input
            style={{ margin: 16, padding: '9px 14px', font: 'inherit' }}
            aria-label="Find"
            autoFocus
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
          />
        }
      >
        <SearchField close={close} typed={typed} />
      </Suspense>
    </Boundary>
  )
}
