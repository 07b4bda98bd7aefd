// What was put away, and throwing it out for good: asked twice, since nothing brings it back but a copy.

import { Button } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { api } from '../api/client'
import { Line } from '../kit/layout'

interface Away {
  id: string
  name: string
}

export const ThrownOut = () => {
  const projects = useQuery({ queryKey: ['projects', 'away'], queryFn: api.away })
  const parts = useQuery({ queryKey: ['parts', 'away'], queryFn: api.partsAway })
  return (
    <section aria-labelledby="away">
      <h2 id="away">Put away</h2>
      {projects.data?.length === 0 && parts.data?.length === 0 && (
        <p className="empty">Nothing is put away.</p>
      )}
      <List title="Projects" of={projects.data ?? []} bringBack={api.restore} throwOut={api.throwOut} />
      <List title="Parts" of={parts.data ?? []} bringBack={api.restorePart} throwOut={api.throwOutPart} />
    </section>
  )
}

interface ListProps {
  title: string
  of: readonly Away[]
  bringBack: (id: string) => Promise<unknown>
  throwOut: (id?: string) => Promise<unknown>
}
const List = ({ title, of, bringBack, throwOut }: ListProps) => {
  const queries = useQueryClient()
  const list = useRef<HTMLDivElement>(null)
  const [failed, setFailed] = useState<string>()
  const [asked, setAsked] = useState<string>()
  const then = async (work: Promise<unknown>) => {
    setAsked(undefined)
    setFailed(undefined)
    try {
      await work
    } catch (error) {
      setFailed((error as Error).message)
    }
    await queries.invalidateQueries()
    // The button that was pressed is gone: one stays at the list.
    list.current?.focus()
  }
  if (of.length === 0 && !failed) return <div ref={list} tabIndex={-1} />
  return (
    <div ref={list} tabIndex={-1}>
      <h3>{title}</h3>
      {failed && (
        <p className="stops" role="alert">
          {failed}.
        </p>
      )}
      <ul className="away">
        {of.map(({ id, name }) => (
          <li key={id}>
            {name}{' '}
            <Button aria-label={`Bring ${name} back`} onClick={() => void then(bringBack(id))}>
              Bring it back
            </Button>{' '}
            <Sure
              what={name}
              open={asked === id}
              ask={() => setAsked(id)}
              leave={() => setAsked(undefined)}
              sure={() => void then(throwOut(id))}
            />
          </li>
        ))}
      </ul>
      {of.length > 1 && (
        <Line>
          <Sure
            what={`all ${of.length}`}
            open={asked === ''}
            ask={() => setAsked('')}
            leave={() => setAsked(undefined)}
            sure={() => void then(throwOut())}
          />
        </Line>
      )}
    </div>
  )
}

interface SureProps {
  what: string
  open: boolean
  ask: () => void
  leave: () => void
  sure: () => void
}
const Sure = ({ what, open, ask, leave, sure }: SureProps) =>
  open ? (
    <span role="group" aria-label={`Throw ${what} out for good?`}>
      For good? Nothing brings it back then but a copy that has it.{' '}
      <Button color="error" autoFocus onClick={sure} aria-label={`Yes, throw ${what} out for good`}>
        Yes, throw out
      </Button>{' '}
      <Button onClick={leave} aria-label={`Keep ${what}`}>
        Keep
      </Button>
    </span>
  ) : (
    <Button onClick={ask} aria-label={`Throw ${what} out for good`}>
      {what.startsWith('all ') ? `Throw ${what} out for good` : 'Throw out for good'}
    </Button>
  )
