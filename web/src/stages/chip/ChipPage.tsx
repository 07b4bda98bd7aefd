// Chip: every chip of the library against this project, decided by the pin solver; two side by side; the clock.

import type { CandidateChip } from '@root-board/core/chip'
import { euro, formatQuantity, fullRange } from '@root-board/core/quantity'
import { Button } from '@mui/material'
import { useState } from 'react'
import { useStage } from '../../shared/analysis'
import { Num } from '../../shared/Num'
import { ClockPart } from './ClockPart'
import { Comparison } from './Comparison'
import './chip.css'

/** Bytes, in KiB where there are many. */
const Bytes = ({ count }: { count: number }) => {
  const size = Math.abs(count)
  const text = size >= 1024 ? `${Number((size / 1024).toPrecision(3))} KiB` : `${size} B`
  return (
    <span className="mono">
      {count < 0 && '−'}
      {text}
    </span>
  )
}

const ChipPage = () => {
  const { analysis, edit } = useStage()
  const { candidates } = analysis.chip
  const [picked, setPicked] = useState<string[]>([])
  const compare = picked
    .map((id) => candidates.find((c) => c.chip.id === id)?.chip)
    .filter((c) => c !== undefined)
  const pick = (id: string) =>
    setPicked((p) => (p.includes(id) ? p.filter((x) => x !== id) : [...p.slice(-1), id]))
  const choose = (c: CandidateChip) => edit({ kind: 'chooseChip', part: c.chip.id, name: c.chip.name })
  return (
    <div className="chip-page">
      <h1>Chip</h1>
      {analysis.needs.signals.length === 0 && (
        <p className="empty">
          No signals are asked for yet, so every chip fits. Add devices on the Needs page first.
        </p>
      )}
      <div className="scroll-x">
        <table className="ruled candidates">
          <thead>
            <tr>
              <th scope="col">Side by side</th>
              <th scope="col">Chip</th>
              <th scope="col">Does it fit?</th>
              <th scope="col" className="right">
                Legs left
              </th>
              <th scope="col">Supply</th>
              <th scope="col" className="right">
                Memory left
              </th>
              <th scope="col" className="right">
                Price
              </th>
              <th scope="col">
                <span className="visually-hidden">Choose</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {candidates.map((c) => (
              <tr
                key={c.chip.id}
                className={c.chosen ? 'chosen' : undefined}
                aria-current={c.chosen ? 'true' : undefined}
              >
                <td>
                  <input
                    type="checkbox"
                    checked={picked.includes(c.chip.id)}
                    onChange={() => pick(c.chip.id)}
                    aria-label={`Compare ${c.chip.name}`}
                  />
                </td>
                <td>
                  <b>{c.chip.name}</b>
                  <br />
                  <span className="faint">
                    {c.chip.package.name}, {c.chip.package.solder}
                  </span>
                </td>
                <td className="verdict">
                  {c.fits ? (
                    <span className="settled">fits</span>
                  ) : (
                    <>
                      <span className="stops">no:</span> {c.no.join('; ')}
                    </>
                  )}
                </td>
                <td className="right mono">
                  {c.status === 'clash' ? '—' : <Num worked={c.workings.left} />}
                </td>
                <td className="mono">
                  {fullRange(c.chip.supply.recommended).min} …{' '}
                  {formatQuantity(fullRange(c.chip.supply.recommended).max, 'V')}
                </td>
                <td className="right mono">
                  <Num worked={c.workings.program}>
                    <Bytes count={c.programLeft} />
                  </Num>
                  <br />
                  <span className="faint">
                    <Num worked={c.workings.data}>
                      <Bytes count={c.dataLeft} />
                    </Num>{' '}
                    data
                  </span>
                </td>
                <td className="right mono">{euro(c.chip.price)}</td>
                <td className="right">
                  {c.chosen ? (
                    <span className="settled">chosen</span>
                  ) : (
                    <Button onClick={() => choose(c)} aria-label={`Choose ${c.chip.name}`}>
                      Choose
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {compare.length === 1 && <p className="faint">Tick a second one to see the two side by side.</p>}
      {compare.length === 2 && <Comparison a={compare[0]!} b={compare[1]!} />}
      {analysis.chip.chip && <ClockPart />}
    </div>
  )
}

export default ChipPage
