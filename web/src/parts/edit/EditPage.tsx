// Changing a part of one's own, or a copy of any part: every field of its schema, faults beside the field they belong
// to, and what differs from the original.

import { type Fault, FaultyFile, type Part, partFormat, pathText, readPart } from '@root-board/core/parts'
import { Button, styled } from '@mui/material'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useEffect, useMemo, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { api, Problem, type StoredPart } from '../../api/client'
import { Differences } from '../Differences'
import { kindWords, pathWords } from '../names'
import { PartsBar } from '../PartsBar'
import { type Json, stated, withValue } from './data'
import { FileBeside } from './FileBeside'
import { SheetForm } from './SheetForm'
import { LibraryFoot, LibraryFrame, LibraryPage, Spacer, unseen } from '../../kit/layout'

const read = (data: Json): { part?: Part; faults: Fault[] } => {
  try {
    return { part: readPart(data, 'part'), faults: [] }
  } catch (error) {
    if (error instanceof FaultyFile) return { faults: error.faults }
    throw error
  }
}

const freeId = (id: string, taken: (id: string) => boolean): string => {
  for (let n = 1; ; n++) {
    const candidate = `${id}-mine${n > 1 ? `-${n}` : ''}`
    if (!taken(candidate)) return candidate
  }
}

const Editor = ({ original, own, parts }: { original: Part; own: StoredPart | undefined; parts: Part[] }) => {
  const [first] = useState<Json>(() => {
    const plain = JSON.parse(JSON.stringify(original)) as Json
    return own
      ? { ...plain, format: partFormat }
      : {
          ...plain,
          format: partFormat,
          id: freeId(original.id, (id) => parts.some((p) => p.id === id)),
          name: `${original.name}, my copy`,
          copiedFrom: original.id,
        }
  })
  const [steps, setSteps] = useState<Json[]>([first])
  const [at, setAt] = useState(0)
  const data = steps[at]!
  const { part, faults } = useMemo(() => read(data), [data])
  const [comparing, setComparing] = useState(false)
  const [file, setFile] = useState(false)
  const queries = useQueryClient()
  const navigate = useNavigate()
  const { enqueueSnackbar } = useSnackbar()
  const uses = useQuery({
    queryKey: ['uses', own?.id],
    queryFn: () => api.usesOf(own!.id),
    enabled: own !== undefined,
  })
  const put = (next: Json) => {
    setSteps([...steps.slice(Math.max(0, at - 200), at + 1), next])
    setAt(Math.min(at, 200) + 1)
  }
  useEffect(() => {
    const warn = (e: BeforeUnloadEvent) => {
      if (at > 0) e.preventDefault()
    }
    window.addEventListener('beforeunload', warn)
    return () => window.removeEventListener('beforeunload', warn)
  }, [at])
  const save = useMutation({
    mutationFn: () => (own ? api.savePart(own.id, own.version, data) : api.addPart(data)),
    onSuccess: async (made) => {
      await queries.invalidateQueries()
      enqueueSnackbar(`${made.part.name} is saved.`)
      await navigate(`/parts/${encodeURIComponent(made.id)}`)
    },
  })
  const renamed = own && data.id !== own.id
  const using = [...(uses.data?.projects ?? []), ...(uses.data?.parts ?? [])]
  const conflict = save.error instanceof Problem && save.error.status === 412
  return (
    <>
      <Form sx={file ? { '@media (min-width: 1000px)': { pr: '450px' } } : undefined}>
        <p className="faint">
          A {kindWords[original.kind]}.{' '}
          {own
            ? 'Yours: changes hold for new projects, and are offered to those that use it.'
            : `A copy of ${original.name}, which stays as it is.`}{' '}
          Quantities as you write them: 4k7, 20 mA, 16 MHz. * must be stated.
        </p>
        {renamed && using.length > 0 && (
          <p className="risks" role="status">
            {using.map((u) => u.name).join(', ')} {using.length > 1 ? 'use' : 'uses'} it under the id “
            {own.id}”. Projects keep the facts they were planned with under the old id; parts that speak of it
            need the new one. Leave the id and change only the name, and nothing is affected.{' '}
            <Button onClick={() => put({ ...data, id: own.id })}>Keep the id</Button>
          </p>
        )}
        {comparing && part && (
          <section aria-label="Difference to the original" className="edit-differences">
            <h2>What differs from {own ? 'what is saved' : original.name}</h2>
            <Differences
              before={original}
              after={part}
              beforeName={own ? 'saved' : original.name}
              afterName="now"
            />
          </section>
        )}
        <SheetForm
          editing={{
            kind: original.kind,
            data,
            faults,
            change: (path, value) => put(stated(withValue(data, path, value) as Json, pathText(path))),
          }}
        />
        {file && <FileBeside kind={original.kind} data={data} close={() => setFile(false)} />}
      </Form>
      <LibraryFoot>
        <span>
          {faults.length === 0 ? (
            <span className="settled">A valid part</span>
          ) : (
            <span className="stops">
              {faults.length} fault{faults.length > 1 ? 's' : ''}; the first:{' '}
              <b>{pathWords(faults[0]!.path)}</b> {faults[0]!.message.replace(faults[0]!.path, '').trim()}
            </span>
          )}
        </span>
        {save.error && (
          <span className="stops" role="alert">
            {save.error.message}.{' '}
            {conflict ? (
              <Button onClick={() => void queries.invalidateQueries().then(() => window.location.reload())}>
                See what it is now
              </Button>
            ) : (
              'Nothing was saved.'
            )}
          </span>
        )}
        <Spacer />
        <Button disabled={at === 0} onClick={() => setAt(at - 1)}>
          Undo
        </Button>
        <Button disabled={at === steps.length - 1} onClick={() => setAt(at + 1)}>
          Redo
        </Button>
        <Button disabled={!part} aria-pressed={comparing} onClick={() => setComparing(!comparing)}>
          What differs
        </Button>
        <Button aria-pressed={file} onClick={() => setFile(!file)}>
          The file
        </Button>
        <Button component={Link} to={`/parts/${encodeURIComponent(original.id)}`}>
          Leave it
        </Button>
        <Button
          variant="contained"
          color="primary"
          disabled={!part || save.isPending}
          onClick={() => save.mutate()}
        >
          Save
        </Button>
      </LibraryFoot>
    </>
  )
}

const EditPage = () => {
  const { id = '' } = useParams()
  const [query] = useSearchParams()
  const parts = useQuery({ queryKey: ['parts'], queryFn: api.parts })
  const own = useQuery({ queryKey: ['own'], queryFn: api.ownParts })
  const original = parts.data?.find((p) => p.id === id)
  const mine = query.get('copy') ? undefined : own.data?.parts.find((p) => p.id === id)
  return (
    <LibraryFrame>
      <PartsBar
        title={original ? `${mine ? 'Change' : 'Copy and change'} ${original.name}` : 'Change a part'}
      />
      {original && own.data ? (
        <Editor key={`${id} ${mine?.version}`} original={original} own={mine} parts={parts.data!} />
      ) : (
        <LibraryPage>
          <p className="empty">
            {parts.isPending || own.isPending
              ? 'Fetching …'
              : (parts.error?.message ?? `There is no part “${id}”.`)}{' '}
            <Link to="/parts">All parts</Link>
          </p>
        </LibraryPage>
      )}
    </LibraryFrame>
  )
}

export default EditPage

const Form = styled(LibraryPage)({
  '& .fields': { display: 'flex', flexWrap: 'wrap', gap: '8px 16px', alignItems: 'flex-end' },
  '& .fields.group, & .group.absent, & .rated, & .fields > .MuiAccordion-root': { flexBasis: '100%' },
  '& .rated .MuiInputBase-root': { maxWidth: 142 },
  '& td .MuiButton-root': { minWidth: 0, padding: '2px 9px' },
  '& .fields.group': { borderLeft: '2px solid var(--line)', padding: '4px 0 4px 12px' },
  '& .fields h3': { flexBasis: '100%' },
  '& .serves': { color: 'var(--faint)', fontWeight: 400, fontSize: 12.5 },
  // In a table the head names the column.
  '& td.bare label:not(.MuiFormControlLabel-root), & td.bare .MuiFormControlLabel-label': unseen,
  '& td.bare > span': { minWidth: 0, width: '100%' },
  '& .rated': {
    border: 0,
    borderLeft: '2px solid var(--line)',
    margin: 0,
    padding: '2px 0 2px 12px',
    display: 'flex',
    flexWrap: 'wrap',
    gap: '6px 12px',
    alignItems: 'flex-end',
  },
  '& .rated legend': { fontWeight: 600, padding: 0 },
  '& .rated .other-source': { flexBasis: '100%', display: 'flex', gap: 8, alignItems: 'flex-end' },
  '& .field-fault': { fontSize: 12.5, maxWidth: '46ch' },
  '& .edit-differences': {
    border: '1px solid var(--line)',
    padding: 10,
    marginBottom: 14,
    maxHeight: '40vh',
    overflow: 'auto',
  },
})
