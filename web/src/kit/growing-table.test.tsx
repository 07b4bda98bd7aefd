// Tables that grow: sorted, narrowed, with the columns one wants, copied. What a row holds is by hand.

import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { SnackbarProvider } from 'notistack'
import { type GrowingColumn, GrowingTable } from './GrowingTable'

interface Bag {
  mark: string
  amps?: number
  note: string
}
const bags: Bag[] = [
  { mark: 'R10', amps: 2e-3, note: 'by the reset leg' },
  { mark: 'R9', amps: 1e-7, note: '=HYPERLINK(1)' },
  { mark: 'R2', note: 'spare, reset' },
]
const columns: GrowingColumn<Bag>[] = [
  { id: 'mark', name: 'Mark', of: (b) => b.mark, foot: 'Together' },
  {
    id: 'amps',
    name: 'Draws',
    unit: 'A',
    of: (b) => b.amps,
    cell: (b) => <i>{b.amps ?? 'not known'}</i>,
    foot: '2 mA',
  },
  { id: 'note', name: 'Note', of: (b) => b.note },
]
const start = (rows = bags) =>
  render(
    <SnackbarProvider>
      <GrowingTable
        label="Bags"
        rows={rows}
        columns={columns}
        keyOf={(b) => b.mark}
        findFrom={3}
        empty="No bags."
      />
    </SnackbarProvider>,
  )
const marks = () =>
  within(screen.getByRole('table', { name: 'Bags' }))
    .getAllByRole('row')
    .slice(1, -1)
    .map((r) => r.querySelector('td')!.textContent)
const head = (name: RegExp) => screen.getByRole('columnheader', { name })
const sortBy = (name: RegExp) => fireEvent.click(within(head(name)).getByRole('button'))

test('as it comes until a head is pressed: up, down, and as it came', () => {
  start()
  expect(marks()).toEqual(['R10', 'R9', 'R2'])
  sortBy(/Mark/)
  expect([marks(), head(/Mark/).getAttribute('aria-sort')]).toEqual([['R2', 'R9', 'R10'], 'ascending'])
  sortBy(/Mark/)
  expect([marks(), head(/Mark/).getAttribute('aria-sort')]).toEqual([['R10', 'R9', 'R2'], 'descending'])
  sortBy(/Mark/)
  expect([marks(), head(/Mark/).getAttribute('aria-sort')]).toEqual([['R10', 'R9', 'R2'], null])
})

test('the heads are one stop for the Tab key; left and right go from one to the next', () => {
  start()
  const heads = ['Mark', 'Draws', 'Note'].map((n) => within(head(new RegExp(n))).getByRole('button'))
  const stops = () => heads.map((h) => h.tabIndex)
  expect(stops()).toEqual([0, -1, -1])
  act(() => heads[0]!.focus())
  fireEvent.keyDown(heads[0]!, { key: 'ArrowRight' })
  expect([document.activeElement, stops()]).toEqual([heads[1], [-1, 0, -1]])
  fireEvent.keyDown(heads[1]!, { key: 'End' })
  fireEvent.keyDown(heads[2]!, { key: 'ArrowLeft' })
  expect(document.activeElement).toBe(heads[1])
})

test('numbers by their size, 0.1 µA before 2 mA, and what is not known last either way', () => {
  start()
  sortBy(/Draws/)
  expect(marks()).toEqual(['R9', 'R10', 'R2'])
  sortBy(/Draws/)
  expect(marks()).toEqual(['R10', 'R9', 'R2'])
})

test('narrowed by words in any column and any order; how many are left is said, and when there are none', () => {
  start()
  const find = screen.getByLabelText('Find in Bags')
  fireEvent.change(find, { target: { value: 'RESET r10' } })
  expect([marks(), screen.getByRole('status').textContent]).toEqual([['R10'], '1 of 3'])
  fireEvent.change(find, { target: { value: 'reset valve' } })
  expect(screen.getByRole('table').textContent).toContain('Nothing in it is like “reset valve”.')
})

test('without rows it says so, and has no field to find in', () => {
  start([])
  expect(screen.getByRole('table').textContent).toContain('No bags.')
  expect(screen.queryByLabelText('Find in Bags')).toBeNull()
  // A file of nothing but heads is nobody’s wish.
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Copy as CSV' }).disabled).toBe(true)
})

test('columns go and come, the last one stays; what is seen is copied, with units, and nothing that runs in a spreadsheet', async () => {
  const copied: string[] = []
  Object.defineProperty(navigator, 'clipboard', {
    configurable: true,
    value: { writeText: (t: string) => Promise.resolve(void copied.push(t)) },
  })
  start()
  const copy = () =>
    act(async () => {
      fireEvent.click(screen.getByText('Copy as CSV'))
      await Promise.resolve()
    })
  sortBy(/Mark/)
  await copy()
  expect(copied[0]).toBe(
    'Mark,"Draws, A",Note\r\nR2,,"spare, reset"\r\nR9,1e-7,"\'=HYPERLINK(1)"\r\nR10,0.002,by the reset leg\r\n',
  )
  const toggle = (name: RegExp) => fireEvent.click(screen.getByRole('menuitemcheckbox', { name }))
  fireEvent.click(screen.getByRole('button', { name: 'Columns' }))
  toggle(/Draws/)
  toggle(/Note/)
  expect(screen.getByRole('menuitemcheckbox', { name: /Mark/ }).getAttribute('aria-disabled')).toBe('true')
  await copy()
  expect(copied[1]).toBe('Mark\r\nR2\r\nR9\r\nR10\r\n')
  toggle(/Note/)
  await copy()
  expect(copied[2]!.split('\r\n')[0]).toBe('Mark,Note')
})

test('what one presses in a row is no value: not sorted by, left out or copied; the one in use is marked, what opens stands below its row', async () => {
  const copied: string[] = []
  Object.defineProperty(navigator, 'clipboard', {
    configurable: true,
    value: { writeText: (t: string) => Promise.resolve(void copied.push(t)) },
  })
  render(
    <SnackbarProvider>
      <GrowingTable
        label="Bags"
        rows={bags}
        columns={[
          columns[0]!,
          { id: 'take', name: 'Take', cell: (b) => <button>{`Take ${b.mark}`}</button> },
        ]}
        keyOf={(b) => b.mark}
        isChosen={(b) => b.mark === 'R9'}
        below={(b) => b.mark === 'R2' && 'Opened of R2'}
      />
    </SnackbarProvider>,
  )
  const lines = () =>
    screen
      .getAllByRole('row')
      .slice(1, -1)
      .map((r) => r.textContent)
  expect(lines()).toEqual(['R10Take R10', 'R9Take R9', 'R2Take R2', 'Opened of R2'])
  sortBy(/Mark/)
  expect(lines()).toEqual(['R2Take R2', 'Opened of R2', 'R9Take R9', 'R10Take R10'])
  expect(screen.getAllByRole('row').filter((r) => r.getAttribute('aria-current') === 'true')).toEqual([
    screen.getByRole('row', { name: /R9/ }),
  ])
  expect(within(head(/Take/)).queryByRole('button')).toBeNull()
  await act(async () => {
    fireEvent.click(screen.getByText('Copy as CSV'))
    await Promise.resolve()
  })
  expect(copied).toEqual(['Mark\r\nR2\r\nR9\r\nR10\r\n'])
  fireEvent.click(screen.getByRole('button', { name: 'Columns' }))
  const [only, ...more] = screen.getAllByRole('menuitemcheckbox')
  expect([only!.textContent, only!.getAttribute('aria-disabled'), more]).toEqual(['✓Mark', 'true', []])
})
