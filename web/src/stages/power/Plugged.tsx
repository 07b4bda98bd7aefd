// What is fed with which plugs in and which out, and what flows back then.

import { capital } from '@root-board/core/quantity'
import { railName, type Standing, type Way } from '@root-board/core/plugs'
import { styled } from '@mui/material'
import { useState } from 'react'
import { Fold } from '../../kit/Fold'
import { Num } from '../../kit/Num'
import { Body, Cell, Columns, Row, Table } from '../../kit/Table'
import { useStage } from '../../shared/analysis'
import { Assumed } from './Assumed'

export const Plugged = () => {
  const { analysis } = useStage()
  const [open, setOpen] = useState(false)
  const { plugs, standings, ways, lineless, assumed } = analysis.plugs
  const { supplies } = analysis.power
  if (plugs.length < 2) return null
  const rails = supplies.rails.filter((r) => standings.some((s) => s.fed.includes(r.id)))
  const back = (standing: Standing) => ways.filter((w) => !w.stopped && w.standings.includes(standing.id))
  const stopped = ways.filter((w) => w.stopped)
  const inWords = ({ in: ids, off }: Standing) =>
    `${plugs
      .filter((p) => ids.includes(p.id))
      .map((p) => p.name)
      .join(' + ')}${off ? ', switched off' : ''}`
  return (
    <section aria-labelledby="plugged">
      <h2 id="plugged">Plugged and unplugged</h2>
      <Spaced className="scroll-x">
        <Table aria-label="What is fed with which plugs in, and what flows back">
          <Columns
            of={[
              'Plugged in',
              ...rails.map((r) => capital(railName(supplies, r.id))),
              'Flows where it isn’t meant to',
            ]}
          />
          <Body>
            {standings.map((s) => (
              <Row key={s.id}>
                <Cell>{inWords(s)}</Cell>
                {rails.map((r) => (
                  <Cell key={r.id} className={s.fed.includes(r.id) ? '' : 'faint'}>
                    {s.fed.includes(r.id) ? 'fed' : 'off'}
                  </Cell>
                ))}
                <Cell>
                  {back(s).length === 0 ? (
                    <span className="faint">nothing</span>
                  ) : (
                    alike(back(s)).map(([w, ...more]) => <Back key={w!.id} way={w!} more={more.length} />)
                  )}
                </Cell>
              </Row>
            ))}
          </Body>
        </Table>
      </Spaced>
      {stopped.length > 0 && (
        <Fold
          title={`${stopped.length === 1 ? 'One way is stopped' : `${stopped.length} ways are stopped`}, and by what`}
          open={open}
          onOpen={setOpen}
        >
          <ul>
            {stopped.map((w) => (
              <li key={w.id}>
                {capital(w.words.text)}: {w.stopped!.text}.
              </li>
            ))}
          </ul>
        </Fold>
      )}
      {lineless && (
        <p className="faint">
          The legs are not planned: the lines to the devices, through which current can flow too, are not
          among these.
        </p>
      )}
      <Assumed of={assumed} />
      {analysis.chip.chip?.board && !analysis.chip.chip.board.usb && (
        <p className="faint">
          What the own plug of {analysis.chip.chip.board.name} feeds, its file doesn’t say: it is not among
          these.
        </p>
      )}
    </section>
  )
}

/** Lines of one direction to one rail together, the one that carries most first. */
const alike = (ways: readonly Way[]): Way[][] => {
  const groups = new Map<string, Way[]>()
  for (const w of ways) {
    const key = w.line ? `${w.kind} ${w.line.rail}` : w.id
    groups.set(key, [...(groups.get(key) ?? []), w])
  }
  return [...groups.values()].map((g) =>
    [...g].sort((a, b) => (b.current?.value.max ?? 0) - (a.current?.value.max ?? 0)),
  )
}

const Back = ({ way: { words, current, voltage }, more }: { way: Way; more: number }) => (
  <div>
    {words.text}
    {current && (
      <>
        : up to <Num worked={current} show="max" digits={2} />
      </>
    )}
    {voltage && (
      <>
        : up to <Num worked={voltage} show="max" digits={2} />
      </>
    )}
    {more > 0 && `, and through ${more} more ${more === 1 ? 'line' : 'lines'} no more than that each`}
  </div>
)

const Spaced = styled('div')({ margin: '10px 0 14px' })
