// One line to type wishes into; what was understood stands below it before anything is added.

import { readTypedDevices, type TypedDevice } from '@root-board/core/needs'
import { type Device, partsOfKind } from '@root-board/core/parts'
import { capital } from '@root-board/core/quantity'
import { Button, styled } from '@mui/material'
import { lazy, Suspense, useId, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { Body, Cell, Columns, Row, Table, hidden } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Choice, TextInput } from '../../kit/inputs'

const SketchForm = lazy(() => import('./SketchForm').then((m) => ({ default: m.SketchForm })))

export const AddLine = () => {
  const { design, library, edit } = useStage()
  const [line, setLine] = useState('')
  const [chosen, setChosen] = useState<Record<string, string>>({})
  const [all, setAll] = useState(false)
  const [sketching, setSketching] = useState<TypedDevice>()
  const id = useId()
  const field = useRef<HTMLInputElement>(null)
  const devices = useMemo(
    () =>
      [...partsOfKind(library, 'device')].sort(
        (a, b) => a.group.localeCompare(b.group) || a.name.localeCompare(b.name),
      ),
    [library],
  )
  const read = useMemo(() => readTypedDevices(line, devices), [line, devices])
  const known = read.flatMap((r) => {
    const part = r.matches.find((m) => m.id === chosen[r.text]) ?? r.matches[0]
    return part ? [{ ...r, part }] : []
  })
  const add = () => {
    // Where nothing of it is in the library, the way on is to sketch the first.
    if (known.length === 0) return setSketching(read[0])
    edit({
      kind: 'addDevices',
      devices: known.map((k) => ({ part: k.part.id, name: capital(k.part.name), count: k.count })),
    })
    // What was not understood stays, so that it is not lost.
    setLine(
      read
        .filter((r) => r.matches.length === 0)
        .map((r) => r.text)
        .join(', '),
    )
  }
  return (
    <section aria-label="Add devices">
      <label htmlFor={id}>What does it have?</label>
      <TypedLine>
        <TextInput
          id={id}
          ref={field}
          value={line}
          placeholder="3 buttons, 1 buzzer, relay module, 4-digit display"
          onChange={setLine}
          onKeyDown={(e) => {
            if (e.key !== 'Enter') return
            // The same key would send off the form that it opens.
            e.preventDefault()
            add()
          }}
          describedBy={`${id}-read`}
          autoFocus={design.needs.devices.length === 0}
        />
        <Button variant="contained" color="primary" onClick={add} disabled={known.length === 0}>
          Add
        </Button>
        <Button onClick={() => setAll(!all)} aria-expanded={all}>
          Look through all
        </Button>
      </TypedLine>
      <ReadSoFar id={`${id}-read`} aria-live="polite">
        {read.map((r, i) => (
          <li key={i}>
            {r.matches.length === 0 ? (
              <>
                <span className="risks">“{r.text}”: nothing like that in the library.</span>{' '}
                <Button onClick={() => setSketching(r)}>Sketch it</Button>{' '}
                <Link to="/parts/from-sheet">Paste its characteristics</Link>,{' '}
                <Link to="/parts">copy something like it</Link>
              </>
            ) : r.matches.length === 1 ? (
              <span>
                <span className="mono">{r.count} ×</span> {r.matches[0]!.name}
              </span>
            ) : (
              <label>
                <span className="mono">{r.count} ×</span>{' '}
                <Choice
                  value={chosen[r.text] ?? r.matches[0]!.id}
                  options={r.matches.map((m) => ({ value: m.id, label: m.name }))}
                  onChange={(id) => setChosen({ ...chosen, [r.text]: id })}
                  label={`Which one for “${r.text}”`}
                />
              </label>
            )}
          </li>
        ))}
      </ReadSoFar>
      {sketching && (
        <Suspense fallback={null}>
          <SketchForm
            line={sketching.count > 1 ? oneOf(sketching.what) : sketching.what}
            taken={(part) => library.parts[part] !== undefined}
            done={(made) => {
              setSketching(undefined)
              // The next one is typed where this one was, once the form is gone.
              requestAnimationFrame(() => field.current?.focus())
              if (!made) return
              edit({
                kind: 'addDevices',
                devices: [{ part: made.id, name: made.name, count: sketching.count }],
              })
              setLine(
                read
                  .filter((r) => r.text !== sketching.text)
                  .map((r) => r.text)
                  .join(', '),
              )
            }}
          />
        </Suspense>
      )}
      {all && (
        <AllDevices
          devices={devices}
          add={(part) =>
            edit({ kind: 'addDevices', devices: [{ part: part.id, name: capital(part.name), count: 1 }] })
          }
        />
      )}
    </section>
  )
}

/** “pumps: motor 12 V” of several: each is a pump. */
const oneOf = (what: string) => what.replace(/^([^:]*[^s:])s(?=:|$)/, '$1')

const AllDevices = ({ devices, add }: { devices: Device[]; add: (part: Device) => void }) => (
  <DeviceList>
    <Columns of={['Sort', 'Device', 'Wiring', hidden('Add')]} />
    <Body>
      {devices.map((d) => (
        <Row key={d.id}>
          <Cell className="faint">{d.group}</Cell>
          <Cell>{d.name}</Cell>
          <Cell>
            {d.wirings
              .map((w) => `${w.name} (${w.signals.length} signal${w.signals.length > 1 ? 's' : ''})`)
              .join(' or ')}
          </Cell>
          <Cell align="right">
            <Button onClick={() => add(d)} aria-label={`Add ${d.name}`}>
              Add
            </Button>
          </Cell>
        </Row>
      ))}
    </Body>
  </DeviceList>
)

const TypedLine = styled('div')({
  display: 'flex',
  gap: 6,
  '& .MuiInputBase-root': { flex: 1, minWidth: 0 },
  '& .MuiButton-root': { whiteSpace: 'nowrap' },
  '@media (max-width: 599px)': {
    flexWrap: 'wrap',
    '& .MuiInputBase-root': { flexBasis: '100%' },
  },
})

const ReadSoFar = styled('ul')({
  listStyle: 'none',
  padding: 0,
  margin: '5px 0 12px',
  display: 'flex',
  flexWrap: 'wrap',
  gap: '4px 14px',
  minHeight: 20,
})

const DeviceList = styled(Table)({
  marginBottom: 14,
})
