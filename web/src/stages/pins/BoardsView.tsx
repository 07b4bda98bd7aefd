// Other boards of the same header: whether the plan must hold on them too, each position's name on each board, and what
// the program must call it there.

import { styled } from '@mui/material'
import { alike } from '@root-board/core/carrier'
import type { Design } from '@root-board/core/design'
import type { Wire } from '@root-board/core/legs'
import type { ChipPin } from '@root-board/core/parts'
import { useStage } from '../../shared/analysis'
import { QuestionFailed, useAsked } from '../../shared/use-asked'
import { Waiting } from '../../shared/Waiting'
import { questions } from '../../worker/client'
import { Body, Cell, Columns, Row, Table } from '../../kit/Table'
import { Fragment } from 'react'
import { Tick } from '../../kit/inputs'

const ask = (design: Design) => questions.otherBoards(design)

interface Name {
  board: string
  label: string
  pin: ChipPin
}

/** The name of a wire on each board, the first board first. */
const namesOf = (first: string, w: Wire): Name[] => {
  const place = w.others?.[0]?.place
  const at = place === undefined ? 0 : (w.pin.places?.indexOf(place) ?? 0)
  return [
    { board: first, label: w.pin.labels?.[at] ?? w.pin.id, pin: w.pin },
    ...(w.others ?? []).map((o) => ({
      board: o.chip.name,
      label: o.pin.labels![o.pin.places!.indexOf(o.place)]!,
      pin: o.pin,
    })),
  ]
}
const program = ({ number, id }: ChipPin) => (number === undefined ? id : String(number))

export const BoardsView = () => {
  const { analysis, design, library, edit } = useStage()
  const chip = analysis.chip.chip!
  const others = alike(chip, library)
  const also = design.chip.also ?? []
  const { answer: boards, failed, again } = useAsked(also.length > 0 ? ask : undefined)
  const wires = analysis.pins.plan?.wires ?? []
  const rows = wires.map((w) => ({ wire: w, names: namesOf(chip.name, w) }))
  const changed = rows.filter(({ names }) => new Set(names.map((n) => program(n.pin))).size > 1)
  return (
    <View>
      <fieldset>
        <legend>The plan must also hold on</legend>
        {others.map((o) => (
          <Tick
            key={o.id}
            checked={also.includes(o.id)}
            onChange={(on) => edit({ kind: 'setAlso', part: o.id, name: o.name, on })}
          >
            {o.name} <span className="faint">{o.description}</span>
          </Tick>
        ))}
      </fieldset>
      {also.length === 0 && (
        <p className="empty">
          Tick a board of the same header: each signal is then put on a position that serves it on all of
          them.
        </p>
      )}
      {also.length > 0 && rows.length > 0 && (
        <>
          <h2>
            {changed.length === 0
              ? 'Every name in the program stays'
              : `${changed.length} of ${rows.length} names in the program change`}
          </h2>
          <Table>
            <Columns
              of={[
                'Signal',
                ...rows[0]!.names.map((n) => (
                  <Fragment key={n.board}>
                    {n.board} <span className="faint">printed, pin, in the program</span>
                  </Fragment>
                )),
              ]}
            />
            <Body>
              {rows.map(({ wire, names }) => (
                <Row key={wire.signal.id}>
                  <Cell>{wire.signal.name}</Cell>
                  {names.map((n) => (
                    <Cell key={n.board} className="mono">
                      {n.label} {n.pin.number !== undefined && <span className="faint">{n.pin.id} </span>}
                      {program(n.pin) === program(names[0]!.pin) ? program(n.pin) : <b>{program(n.pin)}</b>}
                    </Cell>
                  ))}
                </Row>
              ))}
            </Body>
          </Table>
          {failed && <QuestionFailed why={failed} again={again} />}
          {!boards && !failed && <Waiting words="Looking what is wrong on each of them …" />}
          {boards?.map((b) => (
            <section key={b.id} aria-label={`Findings on ${b.name}`}>
              <h2>On {b.name}</h2>
              {b.undecided && (
                <p className="risks">Not looked at to the end: more may be wrong there than stands here.</p>
              )}
              {b.findings.length === 0 && !b.undecided ? (
                <p className="settled">Nothing is wrong there that is not wrong here.</p>
              ) : (
                <ul>
                  {b.findings.map((f) => (
                    <li key={f.id} className={f.severity}>
                      {f.text}
                    </li>
                  ))}
                </ul>
              )}
            </section>
          ))}
        </>
      )}
    </View>
  )
}

const View = styled('div')({
  '& fieldset': { border: '1px solid var(--line)', display: 'grid', gap: 4, margin: '0 0 10px' },
})
