// A part file or a whole library brought in: checked first, then asked about wherever one's own part has the same id.

import { FaultyFile, readPart } from '@root-board/core/parts'
import { Button } from '@mui/material'
import { useEffect, useState } from 'react'
import { api, Problem, type StoredPart, type Take } from '../api/client'
import { Choice } from '../kit/inputs'
import { Notice } from '../kit/layout'

interface Props {
  file: File
  done: (words?: string, id?: string) => void
}
type State =
  | { is: 'reading' }
  | { is: 'faulty'; faults: { path: string; message: string }[] }
  | { is: 'clashing'; parts: unknown[]; clashes: StoredPart[] }

const takes: { id: Take; label: string }[] = [
  { id: 'mine', label: 'keep mine' },
  { id: 'theirs', label: 'take theirs in its place' },
  { id: 'both', label: 'keep both, theirs under a new id' },
]
const largest = 4 * 2 ** 20

/** The parts in a file: one part, or a library with a list of them. Throws FaultyFile. */
export const partsIn = (text: string, name: string): unknown[] => {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch (error) {
    throw new FaultyFile(name, [{ path: '', message: `is not JSON: ${(error as Error).message}` }])
  }
  if (typeof data === 'object' && data !== null && 'parts' in data && Array.isArray(data.parts))
    return data.parts
  readPart(data, name)
  return [data]
}

export const BringLibrary = ({ file, done }: Props) => {
  const [state, setState] = useState<State>({ is: 'reading' })
  const [choices, setChoices] = useState<Record<string, Take>>({})

  const take = async (parts: unknown[], chosen: Record<string, Take>) => {
    try {
      const { taken } = await api.takeLibrary(parts, chosen)
      const old = parts.filter((p) => (p as { format?: unknown }).format === 1).length
      const words =
        taken.length === 0
          ? 'Everything in it is here already.'
          : `${taken.length} part${taken.length > 1 ? 's are' : ' is'} in the library.`
      done(
        old > 0
          ? `${words} ${old} in part format 1 ${old > 1 ? 'were' : 'was'} read as today’s; the file itself is as it was.`
          : words,
        taken.length === 1 ? taken[0] : undefined,
      )
    } catch (error) {
      if (error instanceof Problem && error.clashes.length > 0)
        setState({ is: 'clashing', parts, clashes: error.clashes })
      else if (error instanceof Problem)
        setState({
          is: 'faulty',
          faults: error.faults.length > 0 ? error.faults : [{ path: '', message: error.message }],
        })
      else setState({ is: 'faulty', faults: [{ path: '', message: (error as Error).message }] })
    }
  }
  useEffect(() => {
    const read = async () => {
      if (file.size > largest)
        return setState({
          is: 'faulty',
          faults: [{ path: '', message: 'is larger than 4 MB: no library file is' }],
        })
      try {
        await take(partsIn(await file.text(), file.name), {})
      } catch (error) {
        if (!(error instanceof FaultyFile)) throw error
        setState({ is: 'faulty', faults: error.faults })
      }
    }
    void read()
    // A file is brought once.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [file])

  if (state.is === 'reading') return <p className="faint">Reading {file.name} …</p>
  if (state.is === 'faulty')
    return (
      <Notice role="alert" className="fault">
        <p className="stops">
          <b>{file.name}</b> was not taken; nothing was changed.
        </p>
        <ul>
          {state.faults.slice(0, 8).map((f, i) => (
            <li key={i}>
              {f.path && <span className="mono">{f.path}: </span>}
              {f.message.startsWith(f.path) ? f.message.slice(f.path.length) : f.message}
            </li>
          ))}
          {state.faults.length > 8 && <li>and {state.faults.length - 8} more</li>}
        </ul>
        <Button onClick={() => done()}>Close</Button>
      </Notice>
    )
  const open = state.clashes.filter((c) => !choices[c.id])
  return (
    <Notice
      as="form"
      aria-label="Parts of the same id"
      onSubmit={(e) => {
        e.preventDefault()
        void take(state.parts, choices)
      }}
    >
      <p>
        <b>{file.name}</b>:{' '}
        {state.clashes.length === 1 ? 'one part has' : `${state.clashes.length} parts have`} the id of a part
        of yours and say something else. Nothing has been taken yet.
      </p>
      {state.clashes.map((c) => (
        <p key={c.id}>
          <span className="mono">{c.id}</span> (yours: {c.part.name}){' '}
          <Choice<Take | ''>
            label={`What to do with ${c.id}`}
            value={choices[c.id] ?? ''}
            options={[
              ...(choices[c.id] ? [] : [{ value: '' as const, label: 'choose …' }]),
              ...takes.map((t) => ({ value: t.id, label: t.label })),
            ]}
            onChange={(take) => take && setChoices({ ...choices, [c.id]: take })}
          />
        </p>
      ))}
      <Button type="submit" variant="contained" color="primary" disabled={open.length > 0}>
        Take it so
      </Button>{' '}
      <Button onClick={() => done()}>Take nothing</Button>
    </Notice>
  )
}
