// The stack: which expansion board uses which position of the header, what else is there, and the links to set.

import { styled } from '@mui/material'
import { seatsOf } from '@root-board/core/carrier'
import type { Instance } from '@root-board/core/needs'
import { linksToSet } from '@root-board/core/planner'
import { useStage } from '../../shared/analysis'
import { boardsOf, labelAt, type StackRow, stackRows } from '../../shared/stack-rows'
import { Body, Cell, Columns, Row, Table } from '../../kit/Table'
import { Fragment } from 'react'
import { Choice } from '../../kit/inputs'

export const StackView = () => {
  const { analysis, design, edit } = useStage()
  const chip = analysis.chip.chip!
  const boards = boardsOf(analysis)
  if (!chip.board)
    return (
      <p className="empty">
        {boards.map((b) => b.name).join(', ')} must be plugged onto a header, and {chip.name} has none: choose
        a board with a {boards[0]!.part.expansion!.fits} header on the Chip page.
      </p>
    )
  const rows = stackRows(analysis)
  const headers = [...new Set(rows.map((r) => r.place.header))]
  const passed = [...new Set(seatsOf(chip.board).flatMap((p) => (p.pin === undefined ? p.label : [])))]
  return (
    <Stack>
      <Table>
        <Columns
          of={[
            chip.name,
            'Pin',
            ...boards.map((b, i) => (
              <Fragment key={b.id}>
                {b.name}{' '}
                <span className="faint">{i === boards.length - 1 ? 'on top' : `storey ${i + 1}`}</span>
              </Fragment>
            )),
            'Wired by hand',
          ]}
        />
        {headers.map((header) => (
          <Body key={header}>
            <Row>
              <Cell component="th" scope="rowgroup" colSpan={boards.length + 3} className="faint">
                {header}
              </Cell>
            </Row>
            {rows
              .filter((r) => r.place.header === header)
              .map(({ place, here, over, loose }) => (
                <Row key={place.number} className={over ? 'overlap' : undefined}>
                  <Cell component="th" scope="row" className="mono">
                    {place.label}
                  </Cell>
                  <Cell className="mono faint">{place.pin}</Cell>
                  {boards.map((b) => (
                    <Cell key={b.id}>
                      <Use board={b} place={place.at} here={here} over={over} />
                    </Cell>
                  ))}
                  <Cell>{loose.join(', ')}</Cell>
                </Row>
              ))}
          </Body>
        ))}
      </Table>
      <p className="faint">Passed on from board to board: {passed.join(', ')}.</p>
      <h2>Links to set</h2>
      <ul>
        {boards
          .filter((b) => b.part.links)
          .map((b) => {
            const chosen = design.needs.devices.find((d) => d.id === b.need.id)!
            const links = linksToSet(b.part, b.wiring)
            return (
              <li key={b.id}>
                <b>{b.name}</b>: {b.wiring.name}.{' '}
                {links.length > 0
                  ? `Set ${links.map((l) => `${l.link}: ${l.to}`).join('; ')}.`
                  : 'Links as they leave the factory.'}{' '}
                {b.part.wirings.length > 1 && (
                  <label>
                    Use{' '}
                    <Choice
                      value={chosen.wiring ?? ''}
                      options={[
                        ...(b.part.planChooses ? [{ value: '', label: 'what the plan chooses' }] : []),
                        ...b.part.wirings.map((w) => ({ value: w.id, label: w.name })),
                      ]}
                      onChange={(wiring) =>
                        edit({ kind: 'setWiring', id: b.need.id, wiring: wiring || null })
                      }
                    />
                  </label>
                )}
              </li>
            )
          })}
      </ul>
    </Stack>
  )
}

/** What a board does with a position: its line and its own name for it, or the name alone where it leaves it be. */
const Use = ({
  board,
  place,
  here,
  over,
}: {
  board: Instance
  place: string
  here: StackRow['here']
  over: boolean
}) => {
  const own = here.find((c) => c.seat.instance.id === board.id)
  const label = labelAt(board, place)
  if (!own)
    return label ? <span className="mono faint">{label}, not used</span> : <span className="faint">·</span>
  return (
    <span className={over ? 'stops' : undefined}>
      <span className="mono">{own.seat.label}</span> {own.signal.name.replace(`${board.name} `, '')}
      {over && ' — taken twice'}
    </span>
  )
}

const Stack = styled('div')({
  '& tbody th': { paddingLeft: 7 },
  '& .overlap': { boxShadow: 'inset 3px 0 0 var(--clay)' },
  '& td, & th': { paddingTop: 1, paddingBottom: 1, lineHeight: 1.25 },
  "& tbody th[scope='rowgroup']": { borderBottom: '1px solid var(--line)' },
})
