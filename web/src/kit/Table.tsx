// Dense tables, ruled like a page: a line under the head, a thin one under each row, numbers at the right.

import { styled, Table as MuiTable, TableBody, TableCell, TableHead, TableRow } from '@mui/material'
import type { ReactNode } from 'react'

export const Table = styled(MuiTable)({
  '& th': { color: 'var(--faint)', fontWeight: 600, fontSize: 12.5 },
  '& thead th': { padding: '3px 8px 3px 0', borderBottom: '1.5px solid var(--ink)', verticalAlign: 'bottom' },
  '& tr.total :is(th, td)': { borderTop: '1.5px solid var(--ink)', color: 'var(--ink)' },
  '& th[scope="row"]': { color: 'inherit', fontWeight: 450, fontSize: 'inherit' },
})
export const Body = TableBody
export const Row = TableRow

export const Cell = styled(TableCell)({
  font: 'inherit',
  color: 'inherit',
  padding: '4px 8px 4px 0',
  borderBottom: '1px solid var(--line)',
  verticalAlign: 'top',
  '&.mono': { fontFamily: 'var(--mono)' },
  '&.faint': { color: 'var(--faint)' },
  '&.stops': { color: 'var(--clay)' },
  '&.risks': { color: 'var(--ochre)' },
  '&.settled': { color: 'var(--green)' },
}) as typeof TableCell

interface Column {
  name: ReactNode
  /** Numbers line up at the right. */
  right?: boolean
  /** For those who hear the table: a column whose sight needs no name. */
  hidden?: boolean
}

/** A column of numbers. */
export const right = (name: ReactNode): Column => ({ name, right: true })
/** A column of ticks or buttons. */
export const hidden = (name: string): Column => ({ name, hidden: true })

const isColumn = (c: ReactNode | Column): c is Column => typeof c === 'object' && c !== null && 'name' in c

/** The head: one row of column names. */
export const Columns = ({ of }: { of: (ReactNode | Column)[] }) => (
  <TableHead>
    <Row>
      {of.map((c, i) => {
        const column = isColumn(c) ? c : { name: c }
        return (
          <Cell key={i} component="th" scope="col" align={column.right ? 'right' : 'left'}>
            {column.hidden ? <span className="visually-hidden">{column.name}</span> : column.name}
          </Cell>
        )
      })}
    </Row>
  </TableHead>
)
