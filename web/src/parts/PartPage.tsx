// One part: what it is, what its file states and from where, what it can serve, who uses it, how many lie in the drawer.

import { type Chip, knownPrice, type Part, partFormat, priceWords } from '@root-board/core/parts'
import { Box, Button, styled, Tab, Tabs } from '@mui/material'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { api, type StoredPart } from '../api/client'
import { Body, Cell, Columns, Row, Table } from '../kit/Table'
import { download } from '../shared/words'
import { Completeness } from './Completeness'
import { Differences } from './Differences'
import { Drawer } from './Drawer'
import { Facts } from './Facts'
import { kindWords } from './names'
import { PackageDrawing } from './PackageDrawing'
import { PartsBar } from './PartsBar'
import { Choice } from '../kit/inputs'
import { LibraryFrame, LibraryPage, Line, Notice } from '../kit/layout'

const views = ['facts', 'legs', 'complete', 'uses', 'compare'] as const
type View = (typeof views)[number]
const viewWords: Record<View, string> = {
  facts: 'Facts',
  legs: 'Legs',
  complete: 'What it serves',
  uses: 'Used by',
  compare: 'Compare',
}

const Legs = ({ chip }: { chip: Chip }) => (
  <Table className="facts">
    <Columns of={['Legs', 'Name', 'Type', 'Functions', 'What is special']} />
    <Body>
      {[...chip.pins]
        .sort((a, b) => a.legs[0]! - b.legs[0]!)
        .map((p) => (
          <Row key={p.id}>
            <Cell className="mono">{p.legs.join(', ')}</Cell>
            <Cell className="mono">{[p.id, ...(p.names ?? [])].join(', ')}</Cell>
            <Cell>{p.type}</Cell>
            <Cell className="mono">
              {(p.functions ?? [])
                .map((f) => `${f.unit}.${f.signal}${f.select === undefined ? '' : `@${f.select}`}`)
                .join(' ')}
            </Cell>
            <Cell>{(p.attributes ?? []).map((a) => a.reason ?? a.kind).join('; ')}</Cell>
          </Row>
        ))}
    </Body>
  </Table>
)

const Uses = ({ id }: { id: string }) => {
  const uses = useQuery({ queryKey: ['uses', id], queryFn: () => api.usesOf(id) })
  if (!uses.data) return <p className="faint">{uses.error ? uses.error.message : 'Asking …'}</p>
  const { projects, parts } = uses.data
  return (
    <>
      {projects.length === 0 && parts.length === 0 && (
        <p className="empty">No project and no other part uses it.</p>
      )}
      {projects.length > 0 && (
        <p>
          Projects:{' '}
          {projects.map((p, i) => (
            <span key={p.id}>
              {i > 0 && ', '}
              <Link to={`/projects/${p.id}/needs`}>{p.name}</Link>
            </span>
          ))}
        </p>
      )}
      {parts.length > 0 && (
        <p>
          Parts:{' '}
          {parts.map((p, i) => (
            <span key={p.id}>
              {i > 0 && ', '}
              <Link to={`/parts/${encodeURIComponent(p.id)}`}>{p.name}</Link>
            </span>
          ))}
        </p>
      )}
    </>
  )
}

const Compare = ({ part, all }: { part: Part; all: Part[] }) => {
  const others = all.filter((p) => p.kind === part.kind && p.id !== part.id)
  const [other, setOther] = useState(part.copiedFrom ?? others[0]?.id ?? '')
  const found = others.find((p) => p.id === other)
  return (
    <>
      <p>
        <label>
          Beside{' '}
          <Choice
            value={other}
            options={others.map((p) => ({
              value: p.id,
              label: p.id === part.copiedFrom ? `${p.name} (copied from it)` : p.name,
            }))}
            onChange={setOther}
          />
        </label>
      </p>
      {found ? (
        <Differences before={found} after={part} beforeName={found.name} afterName={part.name} />
      ) : (
        <p className="empty">There is no other part of this kind.</p>
      )}
    </>
  )
}

const PutAway = ({ own, close }: { own: StoredPart; close: () => void }) => {
  const uses = useQuery({ queryKey: ['uses', own.id], queryFn: () => api.usesOf(own.id) })
  const queries = useQueryClient()
  const navigate = useNavigate()
  const { enqueueSnackbar } = useSnackbar()
  const remove = useMutation({
    mutationFn: () => api.removePart(own.id),
    onSuccess: async () => {
      await queries.invalidateQueries()
      enqueueSnackbar(`${own.part.name} is put away.`, {
        action: (
          <Button onClick={() => void api.restorePart(own.id).then(() => queries.invalidateQueries())}>
            Bring it back
          </Button>
        ),
        autoHideDuration: 15_000,
      })
      await navigate('/parts')
    },
  })
  const projects = uses.data?.projects ?? []
  const parts = uses.data?.parts ?? []
  return (
    <Notice role="alertdialog" aria-label={`Put ${own.part.name} away`}>
      {!uses.data ? (
        <p className="faint">Asking who uses it …</p>
      ) : projects.length + parts.length === 0 ? (
        <p>Nobody uses it. It can be brought back.</p>
      ) : (
        <p>
          It is used by {[...projects, ...parts].map((p) => p.name).join(', ')}.{' '}
          {projects.length > 0 &&
            'Each project keeps the facts it was planned with and goes on working with them; in new projects it can’t be chosen any more. '}
          {parts.length > 0 && 'What speaks of it will find it missing in new projects.'}
        </p>
      )}
      <Button
        disabled={!uses.data || remove.isPending}
        onClick={() => remove.mutate()}
        color="error"
        autoFocus
      >
        Put it away
      </Button>{' '}
      <Button onClick={close}>Leave it</Button>
      {remove.error && <p className="stops">{remove.error.message}. Nothing was changed.</p>}
    </Notice>
  )
}

const PartPage = () => {
  const { id = '' } = useParams()
  const [query, setQuery] = useSearchParams()
  const [leaving, setLeaving] = useState(false)
  const navigate = useNavigate()
  const parts = useQuery({ queryKey: ['parts'], queryFn: api.parts })
  const own = useQuery({ queryKey: ['own'], queryFn: api.ownParts })
  const part = parts.data?.find((p) => p.id === id)
  const mine = own.data?.parts.find((p) => p.id === id)
  if (!part)
    return (
      <LibraryFrame>
        <PartsBar title="Part" />
        <LibraryPage>
          {parts.isPending ? (
            <p className="faint">Fetching …</p>
          ) : (
            <p className="empty">
              {parts.error ? parts.error.message : <>There is no part “{id}” in the library.</>}{' '}
              <Link to="/parts">All parts</Link>
            </p>
          )}
        </LibraryPage>
      </LibraryFrame>
    )
  const shown = views.filter((v) => v !== 'legs' || part.kind === 'chip')
  const view = shown.find((v) => v === query.get('view')) ?? 'facts'
  const file = mine?.file ?? { ...part, format: partFormat }
  return (
    <LibraryFrame>
      <PartsBar title={part.name} />
      <LibraryPage>
        <PartHead>
          <div>
            <p>
              {kindWords[part.kind]}
              {part.maker && ` by ${part.maker}`}
              {part.description && `: ${part.description}`}
            </p>
            <p className="faint">
              <span className="mono">{part.id}</span> · from {part.sheet} ·{' '}
              {knownPrice(part) === undefined ? 'price not known' : priceWords(part)} ·{' '}
              {mine ? 'yours' : 'a sample part: it stays as it is'}
              {part.copiedFrom && (
                <>
                  {' '}
                  · copied from{' '}
                  <Link to={`/parts/${encodeURIComponent(part.copiedFrom)}`}>{part.copiedFrom}</Link>
                </>
              )}
            </p>
            <Line sx={{ mb: 1.25 }}>
              {mine && (
                <Button
                  variant="contained"
                  color="primary"
                  component={Link}
                  to={`/parts/${encodeURIComponent(id)}/edit`}
                >
                  Change
                </Button>
              )}
              <Button component={Link} to={`/parts/${encodeURIComponent(id)}/edit?copy=1`}>
                Copy and change
              </Button>
              <Button
                onClick={() =>
                  download(`${part.id}.json`, `${JSON.stringify(file, null, 2)}\n`, 'application/json')
                }
              >
                Its file
              </Button>
              {mine && <Button onClick={() => setLeaving(true)}>Put away</Button>}
            </Line>
            <Drawer part={part} />
          </div>
          {'package' in part && <PackageDrawing package={part.package} name={part.name} />}
        </PartHead>
        {leaving && mine && <PutAway own={mine} close={() => setLeaving(false)} />}
        <Tabs
          value={view}
          onChange={(_, v: View) => setQuery({ view: v }, { replace: true })}
          aria-label="About this part"
        >
          {shown.map((v) => (
            <Tab key={v} value={v} label={viewWords[v]} />
          ))}
        </Tabs>
        <Box component="section" className="part-view" sx={{ pt: 1 }} aria-label={viewWords[view]}>
          {view === 'facts' && <Facts part={part} />}
          {view === 'legs' && part.kind === 'chip' && <Legs chip={part} />}
          {view === 'complete' && (
            <>
              <Completeness part={part} />
              {mine && part.kind === 'chip' && (
                <Button onClick={() => void navigate(`/parts/${encodeURIComponent(id)}/edit`)}>
                  Fill in what is missing
                </Button>
              )}
            </>
          )}
          {view === 'uses' && <Uses id={id} />}
          {view === 'compare' && <Compare part={part} all={parts.data ?? []} />}
        </Box>
      </LibraryPage>
    </LibraryFrame>
  )
}

export default PartPage

const PartHead = styled('div')({
  display: 'grid',
  gridTemplateColumns: 'minmax(0, 1fr) minmax(200px, 340px)',
  gap: 24,
  alignItems: 'start',
  '& p': { margin: '0 0 6px' },
  '@media (max-width: 900px)': {
    gridTemplateColumns: 'minmax(0, 1fr)',
  },
})
