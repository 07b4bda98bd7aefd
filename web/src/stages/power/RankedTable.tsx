// Parts of the library in the place of the present one: does each do, and if not, why? Those that do come first; of the others the
// nearest, and the rest when they are asked for.

import { type ReactNode, useState } from 'react'
import { Button, styled } from '@mui/material'
import { Body, Cell, Columns, Row, Table, hidden, right } from '../../kit/Table'

export interface RankedRow {
  id: string
  name: string
  /** What it is, in a few words below its name. */
  about: string
  no: readonly { text: string }[]
  chosen: boolean
  cells: readonly ReactNode[]
  choose: () => void
}

/** So many rows at least, where there are so many. */
const few = 4

export const RankedTable = ({
  label,
  what,
  heads,
  rows,
}: {
  label: string
  what: string
  /** Of `cells`. */
  heads: readonly string[]
  rows: readonly RankedRow[]
}) => {
  const [all, setAll] = useState(false)
  const near = rows.filter((r, n) => n < few || r.no.length === 0 || r.chosen)
  const left = rows.length - near.length
  return (
    <div className="scroll-x">
      <Ranked aria-labelledby={label}>
        <Columns of={[what, 'Does it do?', ...heads.map((h) => right(h)), hidden('Choose')]} />
        <Body>
          {(all ? rows : near).map((r) => (
            <Row
              key={r.id}
              className={r.chosen ? 'chosen' : undefined}
              aria-current={r.chosen ? 'true' : undefined}
            >
              <Cell className="who">
                <b>{r.name}</b>
                <br />
                <span className="faint">{r.about}</span>
              </Cell>
              <Cell className="why">
                {r.no.length === 0 ? (
                  <span className="settled">yes</span>
                ) : (
                  <>
                    <span className="stops">no:</span> {r.no.map((n) => n.text).join('; ')}
                  </>
                )}
              </Cell>
              {r.cells.map((cell, n) => (
                <Cell key={heads[n]} align="right" className="mono number">
                  {cell}
                </Cell>
              ))}
              <Cell align="right">
                {r.chosen ? (
                  <span className="settled">chosen</span>
                ) : (
                  <Button onClick={r.choose} aria-label={`Choose ${r.name}`}>
                    Choose
                  </Button>
                )}
              </Cell>
            </Row>
          ))}
        </Body>
      </Ranked>
      {left > 0 && (
        <Button onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? 'Only those that come near' : `${left} more that don’t do, and why`}
        </Button>
      )}
    </div>
  )
}

const Ranked = styled(Table)({
  marginBottom: 6,
  '& .who': { minWidth: 150, maxWidth: 220 },
  '& .why': { minWidth: 180 },
  '& .number': { whiteSpace: 'nowrap' },
})
