// Copies of everything: made by themselves, looked at and brought back; everything as one file; and throwing out for good
// what was put away.

import { Button, styled } from '@mui/material'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { api, type CopyContent, type CopyLine, Problem } from '../api/client'
import { FileButton } from '../kit/FileButton'
import { Line, Notice, PlainPage } from '../kit/layout'
import { Body, Cell, Columns, hidden, right, Row, Table } from '../kit/Table'
import { momentWords } from '../shared/day'
import { broughtWords } from '../shared/brought'
import { faultWords } from './words'
import { ThrownOut } from './ThrownOut'

const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`

const CopiesPage = () => {
  const copies = useQuery({ queryKey: ['copies'], queryFn: api.copies })
  const queries = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const [looked, setLooked] = useState<string>()
  // Where what one looked at is gone, one stays at the list.
  const list = useRef<HTMLElement>(null)
  const leave = () => {
    setLooked(undefined)
    list.current?.focus()
  }
  const make = useMutation({
    mutationFn: api.makeCopy,
    onSuccess: async (copy) => {
      await queries.invalidateQueries({ queryKey: ['copies'] })
      enqueueSnackbar(`All that is stored is in the copy of ${momentWords(copy.made)}.`)
    },
  })
  const bringBack = useMutation({
    mutationFn: (copy: CopyLine) => api.bringCopyBack(copy.name),
    onSuccess: async ({ before }, copy) => {
      leave()
      await queries.invalidateQueries()
      enqueueSnackbar(
        `All is as it was on ${momentWords(copy.made)}. What was stored until now is the copy of ${momentWords(before.made)}.`,
      )
    },
  })
  useEffect(() => {
    document.title = 'Copies · Root Board'
  }, [])
  return (
    <Page>
      <Link to="/">Projects</Link>
      <h1>Copies</h1>
      <p className="faint">
        All that is stored is copied when the program starts, and every hour in which something was changed:
        the last ten copies are kept, and one a day for a week. They lie in the folder “copies” beside the
        data file. A copy on the same disk helps against mistakes; against the loss of the disk only one
        elsewhere does.
      </p>
      <section aria-labelledby="made" ref={list} tabIndex={-1}>
        <h2 id="made">What there is</h2>
        <p>
          <Button onClick={() => make.mutate()} disabled={make.isPending}>
            Make a copy now
          </Button>
        </p>
        {[copies.error, make.error, bringBack.error].map(
          (error, i) =>
            error && (
              <p key={i} className="stops" role="alert">
                {error.message}. Nothing was changed.
              </p>
            ),
        )}
        {copies.isPending && <p className="faint">Fetching …</p>}
        {copies.data?.failed && (
          <p className="stops" role="alert">
            The last copy that was due could not be made: {copies.data.failed}. It is tried again within the
            hour, or now.
          </p>
        )}
        {copies.data?.copies.length === 0 && (
          <p className="empty">No copy yet: one is made when something is stored.</p>
        )}
        {copies.data && copies.data.copies.length > 0 && (
          <Table>
            <Columns of={['Made', right('Size'), hidden('Look at it')]} />
            <Body>
              {copies.data.copies.map((copy) => (
                <Row key={copy.name}>
                  <Cell>{momentWords(copy.made)}</Cell>
                  <Cell align="right" className="mono">
                    {megabytes(copy.size)}
                  </Cell>
                  <Cell align="right">
                    <Button
                      aria-label={`Look at the copy of ${momentWords(copy.made)}`}
                      aria-expanded={looked === copy.name}
                      onClick={() => setLooked(looked === copy.name ? undefined : copy.name)}
                    >
                      Look at it
                    </Button>
                  </Cell>
                </Row>
              ))}
            </Body>
          </Table>
        )}
        {looked && (
          <Looked
            key={looked}
            name={looked}
            busy={bringBack.isPending}
            bringBack={bringBack.mutate}
            close={leave}
          />
        )}
      </section>
      <AsOneFile />
      <ThrownOut />
    </Page>
  )
}
export default CopiesPage

const Page = styled(PlainPage)({
  '& section': { marginTop: 26 },
  '& h1': { margin: '4px 0 0' },
  '& h3': { margin: '8px 0 4px' },
  '& td': { verticalAlign: 'middle' },
})

const kinds = [
  ['same', 'as it is now', 'as they are now'],
  ['other', 'as it was, and not as it is now', 'as they were, and not as they are now'],
  ['none', 'that is not there now', 'that are not there now'],
] as const

/** What one finds in a copy, before it is brought back. */
const Looked = ({
  name,
  busy,
  bringBack,
  close,
}: {
  name: string
  busy: boolean
  bringBack: (copy: CopyLine) => void
  close: () => void
}) => {
  const copy = useQuery({
    queryKey: ['copies', name],
    queryFn: () => api.copy(name),
    retry: false,
    gcTime: 0,
  })
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (copy.data) box.current?.focus()
  }, [copy.data])
  if (copy.error)
    return (
      <p className="stops" role="alert">
        {copy.error.message}.
      </p>
    )
  if (!copy.data) return <p className="faint">Looking …</p>
  const { made, projects, parts, drawer, newer } = copy.data
  const lost = newer.projects.length + newer.parts.length
  return (
    <Notice
      ref={box}
      tabIndex={-1}
      about="slate"
      role="region"
      aria-label={`The copy of ${momentWords(made)}`}
    >
      <h3>The copy of {momentWords(made)}</h3>
      <Has what="project" of={projects.map((p) => ({ name: p.name, now: p.now }))} />
      <Has
        what="part of your own"
        many="parts of your own"
        of={parts.map((p) => ({ name: p.id, now: p.now }))}
      />
      {drawer > 0 && (
        <p>
          {drawer} {drawer === 1 ? 'line of your drawer is' : 'lines of your drawer are'} as then, and not as
          now.
        </p>
      )}
      {lost > 0 && (
        <p className="risks">
          Not in it, and gone when it is brought back: {[...newer.projects, ...newer.parts].join(', ')}.
        </p>
      )}
      <p>
        Brought back, it takes the place of all that is stored now. That is copied first, so that you can go
        back.
      </p>
      <Line>
        <Button variant="contained" color="primary" disabled={busy} onClick={() => bringBack(copy.data)}>
          Bring this copy back
        </Button>
        <Button onClick={close}>Leave all as it is</Button>
      </Line>
    </Notice>
  )
}

const Has = ({
  what,
  many = `${what}s`,
  of,
}: {
  what: string
  many?: string
  of: { name: string; now: CopyContent['projects'][number]['now'] }[]
}) => {
  if (of.length === 0) return <p>No {what}.</p>
  return (
    <>
      {kinds.map(([now, one, more]) => {
        const those = of.filter((o) => o.now === now)
        if (those.length === 0) return null
        return (
          <p key={now}>
            {those.length} {those.length === 1 ? `${what} ${one}` : `${many} ${more}`}:{' '}
            <span className={now === 'same' ? 'faint' : undefined}>
              {those.map((o) => o.name).join(', ')}
            </span>
          </p>
        )
      })}
    </>
  )
}

/** What can’t be read is in no file of everything. */
const useDamaged = (): number => {
  const projects = useQuery({ queryKey: ['projects'], queryFn: api.projects })
  const parts = useQuery({ queryKey: ['parts', 'own'], queryFn: api.ownParts })
  return (projects.data ?? []).filter((p) => p.damaged).length + (parts.data?.unreadable.length ?? 0)
}

const AsOneFile = () => {
  const queries = useQueryClient()
  const damaged = useDamaged()
  const [said, setSaid] = useState<string>()
  const bring = useMutation({
    mutationFn: async (file: File) => {
      const text = await file.text()
      let data: unknown
      try {
        data = JSON.parse(text)
      } catch {
        throw new Error(`${file.name} is no file of everything: it is not JSON`)
      }
      return api.bringEverything(data)
    },
    onMutate: () => setSaid(undefined),
    onSuccess: async (brought) => {
      setSaid(broughtWords(brought))
      await queries.invalidateQueries()
    },
  })
  return (
    <section aria-labelledby="one-file">
      <h2 id="one-file">Everything as one file</h2>
      <p className="faint">
        Projects, your own parts and your drawer, to keep elsewhere or to take to another machine. Bringing
        such a file changes nothing that is here: what is here already and says something else stays, and the
        other comes in beside it.
      </p>
      {damaged > 0 && (
        <p className="risks">
          {damaged} {damaged === 1 ? 'thing' : 'things'} that can’t be read will not be in it; the copies
          above have {damaged === 1 ? 'it' : 'them'}.
        </p>
      )}
      <Line>
        <Button href="/api/everything" download="root-board-everything.json">
          Take everything as one file
        </Button>
        <FileButton
          accept=".json,application/json"
          label="File of everything"
          onFile={(file) => bring.mutate(file)}
        >
          Bring such a file
        </FileButton>
      </Line>
      {bring.isPending && <p className="faint">Bringing …</p>}
      {said && <p role="status">{said}</p>}
      {bring.error && (
        <div role="alert" className="stops">
          <p>{bring.error.message}. Nothing was changed.</p>
          {bring.error instanceof Problem && bring.error.faults.length > 0 && (
            <Faults>
              {bring.error.faults.map((f, i) => (
                <li key={i}>{faultWords(f)}</li>
              ))}
            </Faults>
          )}
        </div>
      )}
    </section>
  )
}

const Faults = styled('ul')({ margin: '4px 0', paddingLeft: 18 })
