// Files that makers publish for other programs: they know legs, directions and drivers, and begin a part that pasted
// tables complete.

import { Button } from '@mui/material'
import { useState } from 'react'
import { ask, stopReading } from '../../worker/intake-client'
import { Body, Cell, Columns, Row, Table } from '../../kit/Table'
import { usePaste } from './draft'
import { Choice } from '../../kit/inputs'
import { FileButton } from '../../kit/FileButton'
import { Notice } from '../../kit/layout'

const largest = 16 * 2 ** 20

export const ExchangeFiles = () => {
  const { exchange, set } = usePaste()
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
    <section aria-label="Exchange files" style={{ padding: '10px 0' }}>
      <p className="faint">
        A boundary-scan description (BSDL) names the legs of each package; an IBIS file says how strongly they
        drive and how their inputs clamp. Bring either or both; tables pasted under Legs and Limits complete
        them.
      </p>
      <p>
        <FileButton label="Boundary-scan or IBIS file" onFile={(file) => void bring(file)}>
          Bring an exchange file
        </FileButton>
      </p>
      {reading && (
        <p role="status">
          Reading {reading.name}, {reading.lines.toLocaleString('en')} lines …{' '}
          <Button onClick={stopReading}>Stop</Button>
        </p>
      )}
      {fault && (
        <Notice role="alert">
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
        </Notice>
      )}
      {exchange.length === 0 && !fault && <p className="empty">No exchange file has been brought yet.</p>}
      {exchange.length > 0 && (
        <Table>
          <Columns of={['File', 'What it is', 'Taken from it', 'Legs', 'Drivers', '']} />
          <Body>
            {exchange.map((e, i) => {
              const start = e.starts[e.chosen]?.start
              return (
                <Row key={e.kind}>
                  <Cell>{e.file}</Cell>
                  <Cell>{e.kind}</Cell>
                  <Cell>
                    <Choice
                      label={`Taken from ${e.file}`}
                      value={e.chosen}
                      options={e.starts.map((s, n) => ({ value: n, label: s.name }))}
                      onChange={(chosen) =>
                        set({ exchange: exchange.map((x, n) => (n === i ? { ...x, chosen } : x)) })
                      }
                    />
                  </Cell>
                  <Cell className="mono">{start?.legs.reduce((n, l) => n + l.legs.length, 0)}</Cell>
                  <Cell className="mono">{start?.drivers.length}</Cell>
                  <Cell>
                    <Button onClick={() => set({ exchange: exchange.filter((_, n) => n !== i) })}>
                      Leave it out
                    </Button>
                  </Cell>
                </Row>
              )
            })}
          </Body>
        </Table>
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
