// How many of a part lie in one's own drawer, and where.

import type { Part } from '@root-board/core/parts'
import { Button } from '@mui/material'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, type DrawerLine } from '../api/client'
import { TextInput } from '../kit/inputs'
import { Line } from '../kit/layout'

export const Drawer = ({ part }: { part: Part }) => {
  const drawer = useQuery({ queryKey: ['drawer'], queryFn: api.drawer })
  const line = drawer.data?.find((d) => d.part === part.id)
  return drawer.data ? <DrawerForm key={`${part.id} ${line?.since}`} part={part} line={line} /> : null
}

const DrawerForm = ({ part, line }: { part: Part; line: DrawerLine | undefined }) => {
  const [count, setCount] = useState(String(line?.count ?? ''))
  const [place, setPlace] = useState(line?.place ?? '')
  const queries = useQueryClient()
  const save = useMutation({
    mutationFn: () => api.setDrawer(part.id, Number(count || 0), place.trim()),
    onSuccess: (lines) => queries.setQueryData(['drawer'], lines),
  })
  const valid = /^\d{0,6}$/.test(count.trim())
  const changed = count.trim() !== String(line?.count ?? '') || place.trim() !== (line?.place ?? '')
  return (
    <form
      aria-label="In my drawer"
      onSubmit={(e) => {
        e.preventDefault()
        if (valid && changed) save.mutate()
      }}
    >
      <Line className="drawer">
        <label>
          In my drawer{' '}
          <TextInput mono inputMode="numeric" width={60} value={count} wrong={!valid} onChange={setCount} />
        </label>
        <label>
          where <TextInput width={130} value={place} maxLength={200} onChange={setPlace} />
        </label>
        <Button type="submit" disabled={!valid || !changed || save.isPending}>
          Note it
        </Button>
        <span className={valid ? 'faint' : 'stops'}>
          {!valid
            ? 'a whole number'
            : save.error
              ? `${save.error.message}. Not noted.`
              : line
                ? `since ${new Date(line.since).toLocaleDateString('en-GB', { dateStyle: 'medium' })}`
                : ''}
        </span>
      </Line>
    </form>
  )
}
