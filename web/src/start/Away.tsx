// Projects that were put away, folded until one looks for them; thrown out is only what one throws out elsewhere.

import { Button } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { api } from '../api/client'
import { Fold } from '../kit/Fold'
import { dayWords } from '../shared/day'

export const Away = ({ bringBack }: { bringBack: (id: string) => unknown }) => {
  const away = useQuery({ queryKey: ['projects', 'away'], queryFn: api.away })
  const [open, setOpen] = useState(false)
  if (away.error)
    return (
      <p className="faint">
        What is put away could not be asked for: {away.error.message}.{' '}
        <Button onClick={() => void away.refetch()}>Ask again</Button>
      </p>
    )
  if (!away.data || away.data.length === 0) return null
  return (
    <Fold title={`Put away: ${away.data.length}`} open={open} onOpen={setOpen}>
      <ul className="away">
        {away.data.map((line) => (
          <li key={line.id}>
            {line.name} <span className="faint">last changed {dayWords(line.changedAt)}</span>{' '}
            <Button aria-label={`Bring ${line.name} back`} onClick={() => void bringBack(line.id)}>
              Bring it back
            </Button>
          </li>
        ))}
      </ul>
      <p className="faint">
        <Link to="/copies#away">Throw some out for good</Link>
      </p>
    </Fold>
  )
}
