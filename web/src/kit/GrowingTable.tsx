// A table that grows with the project or the library: sorted by any column, narrowed by words, with the columns one wants,
// and taken along as CSV. Its head stays in sight. Sorting and narrowing are TanStack Table's.

import { Button, Menu, MenuItem, styled, TableFooter, TableSortLabel } from '@mui/material'
import {
  type ColumnDef,
  type FilterFn,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingFn,
  type SortingState,
  useReactTable,
  type VisibilityState,
} from '@tanstack/react-table'
import type { Unit } from '@root-board/core/quantity'
import { useSnackbar } from 'notistack'
import { Fragment, type ReactNode, useMemo, useState } from 'react'
import { csvText } from '../shared/csv'
import { download } from '../shared/words'
import { onSideKeys } from './arrow-list'
import { TextInput } from './inputs'
import { Body, Cell, Row, Table } from './Table'
import { Spacer } from './layout'

export interface GrowingColumn<R> {
  id: string
  name: string
  /**
   * What it sorts by, is found by and is copied as; undefined sorts last. Without it the column holds what one presses: its
   * name is only heard, and it is neither sorted, left out nor copied.
   */
  of?: (row: R) => string | number | undefined
  /** What is shown, where that is more than the value. `before`: the row above it as it stands. */
  cell?: (row: R, before: R | undefined) => ReactNode
  right?: boolean
  mono?: boolean
  /** Not shown until it is asked for. */
  away?: boolean
  /** Of its values, where it is copied. */
  unit?: Unit | 'B' | '€'
  /** Pixels that its cells have at least. */
  width?: number
  /** What it comes to, below. */
  foot?: ReactNode
}

interface Props<R> {
  /** Of the whole table, for those who hear it. */
  label: string
  rows: R[]
  columns: GrowingColumn<R>[]
  keyOf: (row: R) => string
  /** Narrowed outside; else from so many rows on there is a field for it. */
  findFrom?: number
  /** Marked as the one in use. */
  isChosen?: (row: R) => boolean
  /** What is opened below a row. */
  below?: (row: R) => ReactNode
  /** Instead of rows. */
  empty?: ReactNode
  tools?: ReactNode
  /** Name of a CSV file that can be taken as well; not where the page has one already. */
  file?: string
}

const Tools = styled('div')({
  display: 'flex',
  flexWrap: 'wrap',
  gap: 8,
  alignItems: 'center',
  margin: '0 0 6px',
})
/** Scrolls sideways where it is narrow; else the page scrolls, and the head stays in its sight. */
const Wide = styled('div')({ '@media (max-width: 999px)': { overflowX: 'auto', position: 'relative' } })
const Head = styled('thead')({
  position: 'sticky',
  // Over the padding of the page, in which rows would still be seen.
  top: -14,
  zIndex: 1,
  background: 'var(--paper)',
  // A border of a table stays behind when its head sticks.
  '&& th': { borderBottom: 0, boxShadow: 'inset 0 -1.5px 0 var(--ink)' },
})

/** The arrow is a sign in its words. */
const Sorter = styled(TableSortLabel)({
  flexDirection: 'row',
  '& .MuiTableSortLabel-icon': { display: 'none' },
})
/** Stays where it is read while a wide table is pushed aside. */
const Below = styled('div')({
  '@media (max-width: 999px)': { position: 'sticky', left: 0, maxWidth: 'calc(100vw - 36px)' },
})
const Rows = styled(Body)({
  '& tr.chosen td': { background: 'var(--shade)' },
  '& tr.chosen td:first-of-type': { boxShadow: 'inset 3px 0 0 var(--green)', paddingLeft: 8 },
})

type Value = string | number | undefined
/** Numbers by size, words as in a list of parts: 2k2 before 10k, leg 9 before leg 10. */
const inOrder: SortingFn<unknown> = (a, b, column) => {
  const [x, y] = [a.getValue<Value>(column), b.getValue<Value>(column)]
  return typeof x === 'number' && typeof y === 'number'
    ? x - y
    : String(x).localeCompare(String(y), 'en', { numeric: true })
}

/** Every word somewhere in the row. */
const holds: FilterFn<unknown> = (row, _column, sought: string) => {
  const text = row
    .getAllCells()
    .map((c) => c.getValue<Value>() ?? '')
    .join(' ')
    .toLowerCase()
  return sought
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word))
}

export const GrowingTable = <R,>({
  label,
  rows,
  columns,
  keyOf,
  findFrom = 12,
  isChosen,
  below,
  empty,
  tools,
  file,
}: Props<R>) => {
  const [sorting, setSorting] = useState<SortingState>([])
  const [sought, setSought] = useState('')
  const [visible, setVisible] = useState<VisibilityState>(
    Object.fromEntries(columns.filter((c) => c.away).map((c) => [c.id, false])),
  )
  /** The column whose head the Tab key comes to. */
  const [at, setAt] = useState<string>()
  const [choosing, setChoosing] = useState<HTMLElement>()
  const { enqueueSnackbar } = useSnackbar()
  const defs = useMemo(
    () =>
      columns.map((c): ColumnDef<R> => ({
        id: c.id,
        header: c.name,
        accessorFn: c.of ?? (() => undefined),
        enableSorting: c.of !== undefined,
        sortUndefined: 'last',
        sortingFn: inOrder as SortingFn<R>,
        sortDescFirst: false,
      })),
    [columns],
  )
  // What it returns is asked anew each time; nothing here is remembered from it.
  // eslint-disable-next-line react-hooks/incompatible-library
  const table = useReactTable({
    data: rows,
    columns: defs,
    state: { sorting, globalFilter: sought.trim(), columnVisibility: visible },
    getRowId: keyOf,
    onSortingChange: setSorting,
    onColumnVisibilityChange: setVisible,
    globalFilterFn: holds as FilterFn<R>,
    getColumnCanGlobalFilter: () => true,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  })
  const shown = table.getRowModel().rows
  const values = columns.filter((c) => c.of !== undefined)
  const seen = columns.filter((c) => table.getColumn(c.id)!.getIsVisible())
  const stop = seen.find((c) => c.id === at && c.of)?.id ?? seen.find((c) => c.of)?.id
  /** What is seen: these rows, these columns. */
  const csv = () => {
    const copied = seen.filter((c) => c.of !== undefined)
    return csvText({
      fields: copied.map((c) => (c.unit ? `${c.name}, ${c.unit}` : c.name)),
      data: shown.map((r) => copied.map((c) => c.of!(r.original) ?? '')),
    })
  }
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(csv())
      enqueueSnackbar(`${shown.length} rows copied as CSV`)
    } catch {
      enqueueSnackbar('The browser did not let this page copy', { variant: 'warning' })
    }
  }
  return (
    <div>
      <Tools>
        {tools}
        {rows.length >= findFrom && (
          <TextInput
            type="search"
            label={`Find in ${label}`}
            placeholder="find in it"
            width={150}
            value={sought}
            onChange={setSought}
          />
        )}
        {sought.trim() !== '' && (
          <span className="faint" role="status">
            {shown.length} of {rows.length}
          </span>
        )}
        <Spacer />
        <Button aria-haspopup="menu" onClick={(e) => setChoosing(e.currentTarget)}>
          Columns
        </Button>
        <Button disabled={shown.length === 0} onClick={() => void copy()}>
          Copy as CSV
        </Button>
        {file && (
          <Button disabled={shown.length === 0} onClick={() => download(file, csv(), 'text/csv')}>
            CSV file
          </Button>
        )}
      </Tools>
      <Menu
        open={choosing !== undefined}
        anchorEl={choosing}
        onClose={() => setChoosing(undefined)}
        slotProps={{ paper: { role: 'dialog', 'aria-label': `Columns of ${label}` } }}
      >
        {values.map((c) => {
          const column = table.getColumn(c.id)!
          const on = column.getIsVisible()
          return (
            <MenuItem
              key={c.id}
              role="menuitemcheckbox"
              aria-checked={on}
              // One must stay.
              disabled={on && values.filter((v) => seen.includes(v)).length === 1}
              onClick={() => column.toggleVisibility()}
            >
              <span aria-hidden="true" style={{ width: 20 }}>
                {on ? '✓' : ''}
              </span>
              {c.name}
            </MenuItem>
          )
        })}
      </Menu>
      <Wide>
        <Table aria-label={label}>
          <Head onKeyDown={onSideKeys}>
            <Row>
              {seen.map((c) => {
                const column = table.getColumn(c.id)!
                const sorted = column.getIsSorted()
                return (
                  <Cell
                    key={c.id}
                    component="th"
                    scope="col"
                    align={c.right ? 'right' : 'left'}
                    sortDirection={sorted}
                  >
                    {c.of ? (
                      <Sorter
                        active={sorted !== false}
                        direction={sorted || 'asc'}
                        onClick={() => column.toggleSorting()}
                        data-item
                        // One stop for the Tab key; ← and → go from column to column.
                        tabIndex={c.id === stop ? 0 : -1}
                        onFocus={() => setAt(c.id)}
                      >
                        {c.name}
                        {sorted && <span aria-hidden="true">{sorted === 'asc' ? '\u00a0↑' : '\u00a0↓'}</span>}
                      </Sorter>
                    ) : (
                      <span className="visually-hidden">{c.name}</span>
                    )}
                  </Cell>
                )
              })}
            </Row>
          </Head>
          <Rows>
            {shown.map((r, i) => {
              const chosen = isChosen?.(r.original)
              const opened = below?.(r.original)
              return (
                <Fragment key={r.id}>
                  <Row className={chosen ? 'chosen' : undefined} aria-current={chosen ? 'true' : undefined}>
                    {seen.map((c) => (
                      <Cell
                        key={c.id}
                        align={c.right ? 'right' : 'left'}
                        className={c.mono ? 'mono' : undefined}
                        // A number stays with its unit.
                        sx={{ ...(c.right && { whiteSpace: 'nowrap' }), minWidth: c.width }}
                      >
                        {c.cell ? c.cell(r.original, shown[i - 1]?.original) : c.of?.(r.original)}
                      </Cell>
                    ))}
                  </Row>
                  {opened && (
                    <Row>
                      <Cell colSpan={seen.length}>
                        <Below>{opened}</Below>
                      </Cell>
                    </Row>
                  )}
                </Fragment>
              )
            })}
            {shown.length === 0 && (
              <Row>
                <Cell colSpan={seen.length} className="faint">
                  {rows.length > 0 ? `Nothing in it is like “${sought.trim()}”.` : empty}
                </Cell>
              </Row>
            )}
          </Rows>
          {seen.some((c) => c.foot !== undefined) && (
            <TableFooter>
              <Row className="total">
                {seen.map((c) => (
                  <Cell key={c.id} align={c.right ? 'right' : 'left'}>
                    {c.foot}
                  </Cell>
                ))}
              </Row>
            </TableFooter>
          )}
        </Table>
      </Wide>
    </div>
  )
}
