// One box that finds everything: a leg by any of its names, a part, a net, a need, a finding, a stage, something to do.

import { Dialog } from '@mui/material'
import { lazy, Suspense, useState } from 'react'
import { Boundary } from './Boundary'
import { useFrame } from './frame-state'
import { TextInput } from '../kit/inputs'

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
          <div style={{ padding: 16 }}>
            <TextInput label="Find" width="100%" autoFocus value={typed} onChange={setTyped} />
          </div>
        }
      >
        <SearchField close={close} typed={typed} />
      </Suspense>
    </Boundary>
  )
}
