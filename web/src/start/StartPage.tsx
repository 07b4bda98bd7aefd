// The first page: one's projects, a new one, and bringing files in.

import { emptyDesign } from '@root-board/core/design'
import { Button, TextField } from '@mui/material'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { type DragEvent, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { Columns, hidden, right } from '../shared/Columns'
import { api, Problem } from '../api/client'
import { useMode } from '../look/mode'
import { importFile, type ImportFault } from './import-file'
import './start.css'

const StartPage = () => {
  const projects = useQuery({ queryKey: ['projects'], queryFn: api.projects })
  const parts = useQuery({ queryKey: ['parts'], queryFn: api.parts })
  const queries = useQueryClient()
  const navigate = useNavigate()
  const { enqueueSnackbar } = useSnackbar()
  const { mode, toggle } = useMode()
  const [name, setName] = useState('')
  const [fault, setFault] = useState<ImportFault>()
  const [over, setOver] = useState(false)
  const picker = useRef<HTMLInputElement>(null)

  const create = useMutation({
    mutationFn: (called: string) => api.create(emptyDesign(called)),
    onSuccess: async (made) => {
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
  const bring = async (files: FileList | null) => {
    setFault(undefined)
    for (const file of files ?? []) {
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

  return (
    <main
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
            if (name.trim()) create.mutate(name.trim())
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
        {projects.data?.length === 0 && (
          <p className="empty">None yet. Give one a name above, or drop a project file here.</p>
        )}
        {projects.data && projects.data.length > 0 && (
          <table className="ruled">
            <Columns of={['Name', 'Chip', right('Devices'), 'Changed', hidden('Put away')]} />
            <tbody>
              {projects.data.map((p) => (
                <tr key={p.id}>
                  <td>
                    <Link to={`/projects/${p.id}/needs`}>{p.name}</Link>
                    {p.sample && <span className="faint"> · sample</span>}
                  </td>
                  <td>
                    {parts.data?.find((part) => part.id === p.chip)?.name ?? p.chip ?? (
                      <span className="faint">none yet</span>
                    )}
                  </td>
                  <td className="right mono">{p.devices}</td>
                  <td>
                    {new Date(p.changedAt).toLocaleString('en-GB', {
                      dateStyle: 'medium',
                      timeStyle: 'short',
                    })}
                  </td>
                  <td className="right">
                    <Button aria-label={`Put ${p.name} away`} onClick={() => remove.mutate(p)}>
                      Put away
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>

      <section aria-labelledby="bring">
        <h2 id="bring">Bring a file in</h2>
        <p className="faint">
          A project file, or a part file of your own: drop it anywhere on this page, or{' '}
          <Button onClick={() => picker.current?.click()}>choose a file</Button>
          <input
            ref={picker}
            type="file"
            accept=".json,application/json"
            aria-label="Project or part file"
            className="visually-hidden"
            tabIndex={-1}
            onChange={(e) =>
              void bring(e.target.files).then(() => {
                e.target.value = ''
              })
            }
          />
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
          <Link to="/parts">The library</Link> holds {parts.data?.length ?? '…'} parts. Those that came with
          the program are made up for practice;{' '}
          <Link to="/parts/from-sheet">put in your own from its data sheet</Link>.
          {parts.error instanceof Problem && ` ${parts.error.message}`}
        </p>
      </section>
    </main>
  )
}

export default StartPage
