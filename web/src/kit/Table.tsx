// The head of a table: one row of column names.

import type { ReactNode } from 'react'

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

export const Columns = ({ of }: { of: (ReactNode | Column)[] }) => (
  <thead>
    <tr>
      {of.map((c, i) => {
        const column = isColumn(c) ? c : { name: c }
        return (
          <th key={i} scope="col" className={column.right ? 'right' : undefined}>
            {column.hidden ? <span className="visually-hidden">{column.name}</span> : column.name}
          </th>
        )
      })}
    </tr>
  </thead>
)
