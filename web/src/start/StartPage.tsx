// The first page: one's projects, a new one, and bringing files in.

import { emptyDesign } from '@root-board/core/design'
import { Button, TextField, styled } from '@mui/material'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { type DragEvent, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { api, Problem, type ProjectLine } from '../api/client'
import { useMode } from '../kit/mode'
import { importFile, type ImportFault } from './import-file'
import { FileButton } from '../kit/FileButton'
import { useGuided } from '../guide/guided'
import { Away } from './Away'
import { type ProjectDoes, ProjectTable } from './ProjectTable'

const StartPage = () => {
  const projects = useQuery({ queryKey: ['projects'], queryFn: api.projects })
  const parts = useQuery({ queryKey: ['parts'], queryFn: api.parts })
  const queries = useQueryClient()
  const navigate = useNavigate()
  const { enqueueSnackbar } = useSnackbar()
  const { mode, toggle } = useMode()
  const begin = useGuided((s) => s.begin)
  const [name, setName] = useState('')
  const [fault, setFault] = useState<ImportFault>()
  const [over, setOver] = useState(false)

  const create = useMutation({
    mutationFn: ({ called }: { called: string; guided?: boolean }) => api.create(emptyDesign(called)),
    onSuccess: async (made, { guided }) => {
      if (guided) begin(made.id)
      await queries.invalidateQueries({ queryKey: ['projects'] })
      await navigate(`/projects/${made.id}/needs`)
    },
  })
  const say = (error: unknown) => enqueueSnackbar(`${(error as Error).message}. Nothing was changed.`)
  const restore = (id: string) =>
    api.restore(id).then(() => queries.invalidateQueries({ queryKey: ['projects'] }), say)
  const remove = useMutation({
    mutationFn: (line: { id: string; name: string }) => api.remove(line.id),
    onError: say,
    onSuccess: async (_, line) => {
      await queries.invalidateQueries({ queryKey: ['projects'] })
      enqueueSnackbar(`“${line.name}” is put away.`, {
        action: <Button onClick={() => void restore(line.id)}>Bring it back</Button>,
        autoHideDuration: 15_000,
      })
    },
  })
  const bring = async (files: Iterable<File>) => {
    setFault(undefined)
    for (const file of files) {
      const result = await importFile(file)
      if ('fault' in result) {
        setFault(result.fault)
        return
      }
      await queries.invalidateQueries()
      enqueueSnackbar(result.words)
      if (result.project) await navigate(`/projects/${result.project}/needs`)
    }
  }
  const drop = (event: DragEvent) => {
    event.preventDefault()
    setOver(false)
    void bring(event.dataTransfer.files)
  }

  const copy = useMutation({
    mutationFn: async ({ id }: ProjectLine) => {
      const { design } = await api.project(id)
      return api.create({ ...design, name: `${design.name.slice(0, 112)}, a copy` })
    },
    onError: say,
    onSuccess: async (made) => {
      await queries.invalidateQueries({ queryKey: ['projects'] })
      await navigate(`/projects/${made.id}/needs`)
    },
  })
  const rename = useMutation({
    mutationFn: async ({ id, to }: { id: string; to: string }) => {
      const { design, version } = await api.project(id)
      return api.save(id, version, { ...design, name: to })
    },
    onError: say,
    onSuccess: () => queries.invalidateQueries({ queryKey: ['projects'] }),
  })
  const does: ProjectDoes = {
    copy: copy.mutate,
    remove: remove.mutate,
    rename: (line, to) => rename.mutate({ id: line.id, to }),
  }
  const [own, samples] = [false, true].map((sample) =>
    (projects.data ?? []).filter((p) => p.sample === sample),
  ) as [ProjectLine[], ProjectLine[]]

  return (
    <Page
      className={over ? 'start over' : 'start'}
      onDragOver={(e) => {
        e.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <header>
        <svg width="40" height="60" viewBox="0 0 40 60" aria-hidden="true">
          <path
            d="M20 2v26M20 28c0 12-13 12-15 28M20 28c0 12 13 12 15 28M20 28v30"
            fill="none"
            stroke="var(--green)"
            strokeWidth="3.5"
            strokeLinecap="round"
          />
        </svg>
        <div>
          <h1>Root Board</h1>
          <p className="faint">
            From a list of needs to a board one can solder: pins, power, support circuit, and what would go
            wrong, before the iron is hot.
          </p>
        </div>
        <Button onClick={toggle}>{mode === 'dark' ? 'Daylight' : 'Lamp light'}</Button>
      </header>

      <section aria-labelledby="new">
        <h2 id="new">A new project</h2>
        <form
          onSubmit={(e) => {
            e.preventDefault()
            if (name.trim()) create.mutate({ called: name.trim() })
          }}
        >
          <TextField
            label="What will it be called?"
            value={name}
            onChange={(e) => setName(e.target.value)}
            autoFocus
            fullWidth
            slotProps={{ htmlInput: { maxLength: 120 } }}
          />
          <Button
            type="submit"
            variant="contained"
            color="primary"
            disabled={!name.trim() || create.isPending}
          >
            Begin
          </Button>
        </form>
        <p className="faint">
          The first time?{' '}
          <Button
            disabled={create.isPending}
            onClick={() => create.mutate({ called: 'A first board', guided: true })}
          >
            Build a first board step by step
          </Button>{' '}
          A lamp and a button, in five steps; you can leave them at any time.
        </p>
        {create.error && (
          <p className="stops" role="alert">
            {create.error.message}. Nothing was made; try again.
          </p>
        )}
      </section>

      <section aria-labelledby="projects">
        <h2 id="projects">Your projects</h2>
        {projects.isPending && <p className="faint">Fetching …</p>}
        {projects.error && (
          <p className="stops" role="alert">
            {projects.error.message}. <Button onClick={() => void projects.refetch()}>Ask again</Button>
          </p>
        )}
        {projects.data && own.length === 0 && (
          <p className="empty">
            None yet. Give one a name above, drop a project file here, or take a copy of a sample.
          </p>
        )}
        {own.length > 0 && <ProjectTable lines={own} parts={parts.data} does={does} />}
        <Away bringBack={restore} />
      </section>
      {samples.length > 0 && (
        <section aria-labelledby="samples">
          <h2 id="samples">Samples</h2>
          <p className="faint">To look around in. What is changed in a copy leaves the sample as it is.</p>
          <ProjectTable lines={samples} parts={parts.data} does={does} />
        </section>
      )}

      <section aria-labelledby="bring">
        <h2 id="bring">Bring a file in</h2>
        <p className="faint">
          A project file, a part file of your own, or a file of everything: drop it anywhere on this page, or{' '}
          <FileButton
            accept=".json,application/json"
            label="Project or part file"
            onFile={(file) => void bring([file])}
          >
            choose a file
          </FileButton>
        </p>
        {fault && (
          <div role="alert" className="fault">
            <p className="stops">
              <b>{fault.file}</b> was not taken; nothing was changed.
            </p>
            <ul>
              {fault.faults.slice(0, 12).map((f, i) => (
                <li key={i}>
                  {f.path && <span className="mono">{f.path}: </span>}
                  {f.message.startsWith(f.path) ? f.message.slice(f.path.length) : f.message}
                </li>
              ))}
              {fault.faults.length > 12 && <li>and {fault.faults.length - 12} more</li>}
            </ul>
          </div>
        )}
        <p className="faint">
          All that is stored is copied by itself, every hour that something changes: look at{' '}
          <Link to="/copies">the copies</Link>, or take everything as one file.
        </p>
        <p className="faint">
          <Link to="/parts">The library</Link> holds {parts.data?.length ?? '…'} parts. Those that came with
          the program are made up for practice;{' '}
          <Link to="/parts/from-sheet">put in your own from its data sheet</Link>.
          {parts.error instanceof Problem && ` ${parts.error.message}`}
        </p>
      </section>
    </Page>
  )
}

export default StartPage

const Page = styled('main')({
  minHeight: '100%',
  maxWidth: 860,
  margin: '0 auto',
  padding: '28px 24px 60px',
  '&.over': { outline: '3px dashed var(--green)', outlineOffset: -12 },
  '& header': { display: 'flex', gap: 18, alignItems: 'flex-start', marginBottom: 26 },
  '& header div': { flex: 1 },
  '& header h1': { fontSize: 30 },
  '& header p': { margin: '4px 0 0', maxWidth: '56ch' },
  '& section': { margin: '0 0 30px' },
  '& h2': { marginBottom: 10 },
  '& form': { display: 'flex', gap: 10, alignItems: 'stretch' },
  '& .fault': { borderLeft: '3px solid var(--clay)', paddingLeft: 12 },
  '& .fault ul': { margin: '4px 0', paddingLeft: 18 },
  '& .away': { margin: '4px 0', padding: 0, listStyle: 'none' },
})
