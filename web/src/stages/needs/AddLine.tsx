// One line to type wishes into; what was understood stands below it before anything is added.

import { readTypedDevices } from '@root-board/core/needs'
import { type Device, partsOfKind } from '@root-board/core/parts'
import { Button } from '@mui/material'
import { useId, useMemo, useState } from 'react'
import { Columns, hidden } from '../../shared/Columns'
import { useStage } from '../../shared/analysis'

export const AddLine = () => {
  const { library, edit } = useStage()
  const [line, setLine] = useState('')
  const [chosen, setChosen] = useState<Record<string, string>>({})
  const [all, setAll] = useState(false)
  const id = useId()
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
    if (known.length === 0) return
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
    <section aria-label="Add devices" className="add-line">
      <label htmlFor={id}>What does it have?</label>
      <div className="add-row">
        <input
          id={id}
          className="plain"
          value={line}
          placeholder="3 buttons, 1 buzzer, relay module, 4-digit display"
          autoComplete="off"
          onChange={(e) => setLine(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && add()}
          aria-describedby={`${id}-read`}
        />
        <Button variant="contained" color="primary" onClick={add} disabled={known.length === 0}>
          Add
        </Button>
        <Button onClick={() => setAll(!all)} aria-expanded={all}>
          Look through all
        </Button>
      </div>
      <ul id={`${id}-read`} className="read" aria-live="polite">
        {read.map((r, i) => (
          <li key={i}>
            {r.matches.length === 0 ? (
              <span className="risks">“{r.text}”: nothing like that in the library</span>
            ) : r.matches.length === 1 ? (
              <span>
                <span className="mono">{r.count} ×</span> {r.matches[0]!.name}
              </span>
            ) : (
              <label>
                <span className="mono">{r.count} ×</span>{' '}
                <select
                  className="plain"
                  value={chosen[r.text] ?? r.matches[0]!.id}
                  onChange={(e) => setChosen({ ...chosen, [r.text]: e.target.value })}
                  aria-label={`Which one for “${r.text}”`}
                >
                  {r.matches.map((m) => (
                    <option key={m.id} value={m.id}>
                      {m.name}
                    </option>
                  ))}
                </select>
              </label>
            )}
          </li>
        ))}
      </ul>
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

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

const AllDevices = ({ devices, add }: { devices: Device[]; add: (part: Device) => void }) => (
  <table className="ruled all-devices">
    <Columns of={['Sort', 'Device', 'Wiring', hidden('Add')]} />
    <tbody>
      {devices.map((d) => (
        <tr key={d.id}>
          <td className="faint">{d.group}</td>
          <td>{d.name}</td>
          <td>
            {d.wirings
              .map((w) => `${w.name} (${w.signals.length} signal${w.signals.length > 1 ? 's' : ''})`)
              .join(' or ')}
          </td>
          <td className="right">
            <Button onClick={() => add(d)} aria-label={`Add ${d.name}`}>
              Add
            </Button>
          </td>
        </tr>
      ))}
    </tbody>
  </table>
)
