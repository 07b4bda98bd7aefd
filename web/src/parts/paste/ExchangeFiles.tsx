// Files that makers publish for other programs: they know legs, directions and drivers, and begin a part that pasted
// tables complete.

import { Button } from '@mui/material'
import { useRef, useState } from 'react'
import { ask, stopReading } from '../../worker/intake-client'
import { Columns } from '../../shared/Columns'
import { usePaste } from './draft'

const largest = 16 * 2 ** 20

export const ExchangeFiles = () => {
  const { exchange, set } = usePaste()
  const picker = useRef<HTMLInputElement>(null)
  const [reading, setReading] = useState<{ name: string; lines: number }>()
  const [fault, setFault] = useState<{ file: string; faults: { path: string; message: string }[] }>()
  const bring = async (file: File) => {
    setFault(undefined)
    const refuse = (message: string) => setFault({ file: file.name, faults: [{ path: '', message }] })
    if (file.size > largest) return refuse('is larger than 16 MB: no exchange file of one chip is')
    try {
      const text = await file.text()
      setReading({ name: file.name, lines: text.split('\n').length })
      const read = await ask((w) => w.exchange(text, file.name))
      const found = read.exchange
      if (found)
        set({ exchange: [...exchange.filter((e) => e.kind !== found.kind), { ...found, chosen: 0 }] })
      else setFault({ file: file.name, faults: read.faults })
    } catch (error) {
      refuse((error as Error).name === 'Stopped' ? 'reading was stopped' : (error as Error).message)
    } finally {
      setReading(undefined)
    }
  }
  return (
    <section aria-label="Exchange files" className="paste-result">
      <p className="faint">
        A boundary-scan description (BSDL) names the legs of each package; an IBIS file says how strongly they
        drive and how their inputs clamp. Bring either or both; tables pasted under Legs and Limits complete
        them.
      </p>
      <p>
        <Button onClick={() => picker.current?.click()}>Bring an exchange file</Button>
        <input
          ref={picker}
          type="file"
          className="visually-hidden"
          tabIndex={-1}
          aria-label="Boundary-scan or IBIS file"
          onChange={(e) => {
            const file = e.target.files?.[0]
            e.target.value = ''
            if (file) void bring(file)
          }}
        />
      </p>
      {reading && (
        <p role="status">
          Reading {reading.name}, {reading.lines.toLocaleString('en')} lines …{' '}
          <Button onClick={stopReading}>Stop</Button>
        </p>
      )}
      {fault && (
        <div role="alert" className="brought">
          <p className="stops">
            <b>{fault.file}</b> was not taken; nothing was changed.
          </p>
          <ul>
            {fault.faults.map((f, i) => (
              <li key={i}>
                {f.path && <b>{f.path}: </b>}
                {f.message}
              </li>
            ))}
          </ul>
        </div>
      )}
      {exchange.length === 0 && !fault && <p className="empty">No exchange file has been brought yet.</p>}
      {exchange.length > 0 && (
        <table className="ruled">
          <Columns of={['File', 'What it is', 'Taken from it', 'Legs', 'Drivers', '']} />
          <tbody>
            {exchange.map((e, i) => {
              const start = e.starts[e.chosen]?.start
              return (
                <tr key={e.kind}>
                  <td>{e.file}</td>
                  <td>{e.kind}</td>
                  <td>
                    <select
                      className="plain"
                      aria-label={`Taken from ${e.file}`}
                      value={e.chosen}
                      onChange={(event) =>
                        set({
                          exchange: exchange.map((x, n) =>
                            n === i ? { ...x, chosen: Number(event.target.value) } : x,
                          ),
                        })
                      }
                    >
                      {e.starts.map((s, n) => (
                        <option key={s.name} value={n}>
                          {s.name}
                        </option>
                      ))}
                    </select>
                  </td>
                  <td className="mono">{start?.legs.reduce((n, l) => n + l.legs.length, 0)}</td>
                  <td className="mono">{start?.drivers.length}</td>
                  <td>
                    <Button onClick={() => set({ exchange: exchange.filter((_, n) => n !== i) })}>
                      Leave it out
                    </Button>
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
      {exchange
        .flatMap((e) => e.starts[e.chosen]?.start.left ?? [])
        .map((l) => (
          <p key={l} className="risks">
            {l}.
          </p>
        ))}
    </section>
  )
}
