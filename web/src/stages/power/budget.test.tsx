// The budget on the Power page: each limit makes its edit, what is over is told, and what could be given up is tried and done.

jest.mock('../../worker/client', () => jest.requireActual<object>('../../../test/questions'))

import { act, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { demo, design, show, steps } from '../../../test/stage'
import { useProject } from '../../store/project'
import { Budget } from './Budget'

const plain = (element: Element | null) => element?.textContent?.replace(/\s+/g, ' ') ?? ''
const row = (title: string) => [...document.querySelectorAll('tr')].find((r) => plain(r).startsWith(title))!
const type = (label: string, text: string) => {
  const field = screen.getByLabelText(label)
  fireEvent.change(field, { target: { value: text } })
  fireEvent.blur(field)
}

test('each limit is its own edit, and what is left is said in the words of what is limited', () => {
  show(<Budget />, demo('hive-scale'))
  type('Lasts at least', '90 d')
  type('No hotter than', '80 °C')
  type('Energy a day, at most', '200 mWh')
  type('Pieces, at most', '20')
  type('Board, at most', '50 cm²')
  type('Current, at most', '0.5')
  type('Price, at most, in €', '20')
  expect(steps()).toEqual([
    'Set the runtime that is asked for',
    'Set the heat limit',
    'Set the energy limit',
    'Set the limit of parts',
    'Set the limit of area',
    'Set the current budget',
    'Set the price limit',
  ])
  const limits = {
    ambient: 35,
    current: 0.5,
    price: 20,
    runtime: 7_776_000,
    energy: 0.2,
    heat: 80,
    parts: 20,
    area: 50,
  }
  expect(design().needs.limits).toEqual({ ...limits, ambient: design().needs.limits.ambient })
  // 26 days are there: 64 too few. The other numbers as they are told on the page.
  expect(plain(row('One set of cells lasts'))).toMatch(/26 days.*64 days too short/)
  expect(plain(row('Junction of'))).toMatch(/94\.7 °C.*14\.7 °C too much/)
  expect(plain(row('Energy a day'))).toMatch(/95\.7 mWh.*104 mWh/)
  expect(plain(row('Pieces'))).toMatch(/17.*3/)
  type('Lasts at least', '')
  expect(design().needs.limits.runtime).toBeUndefined()
  type('Pieces, at most', '0')
  expect(screen.getByRole('alert').textContent).toBe('At least 1')
})

test('what could be given up is asked for, in the order of the harm, previewed and done', async () => {
  const d = demo('signal-cabin')
  show(<Budget />, { ...d, needs: { ...d.needs, limits: { ...d.needs.limits, parts: 12 } } })
  fireEvent.click(screen.getByLabelText('What to give up for: Pieces to fit and to join'))
  const one = await screen.findByText('2 of Track instead of 3')
  const part = screen.getByRole('region', { name: 'What could be given up for: Pieces to fit and to join' })
  const heads = [...part.querySelectorAll('h3')].map(plain)
  expect(heads).toEqual(['It does the same', 'It does less', 'It does without'])
  // Thirteen, of which one is enough.
  expect(plain(one.closest('li'))).toMatch(/^2 of Track instead of 3 12, 1 less is enough/)
  expect(within(part).getAllByRole('listitem').length).toBeGreaterThan(4)
  fireEvent.click(screen.getByLabelText('What to give up for: Pieces to fit and to join'))
  await waitFor(() => expect(screen.queryByText('It does without')).toBeNull())
})

test('through the last edits: what each has changed, the last one first, and what is beyond its limit', async () => {
  const d = demo('signal-cabin')
  show(<Budget />, d)
  expect(screen.queryByText(/the last edit/)).toBeNull()
  // A fourth sensor at the track.
  const device = d.needs.devices.find((n) => n.name === 'Track')!
  act(() => useProject.getState().edit({ kind: 'setLimit', limit: 'parts', value: 13 }))
  act(() => useProject.getState().edit({ kind: 'setCount', id: device.id, count: device.count + 1 }))
  fireEvent.click(screen.getByRole('button', { name: 'Through the last edits' }))
  const table = await screen.findByRole('table', { name: 'The budget through the last edits' })
  const [head, last, first, before] = within(table).getAllByRole('row').map(plain)
  // On an adapter there is no runtime.
  expect(head).toBe('AfterCurrentEnergy a dayHottestPricePiecesBoard')
  expect(last).toMatch(new RegExp(`^${device.count + 1} × ${device.name}.*14\\+138 cm²$`))
  expect(first).toMatch(/^Set the limit of parts.*1338 cm²$/)
  expect(before).toMatch(/^before.*1338 cm²$/)
  expect(table.querySelectorAll('.stops')).toHaveLength(1)
  const drawn = screen.getByLabelText<HTMLSelectElement>('Drawn')
  expect([...drawn.options].map((o) => o.textContent)).toEqual([
    'Current from the source, everything at once',
    'Energy a day',
    'Junction of regulator or chip',
    'Price of all parts',
    'Pieces to fit and to join',
    'Board, with room between the parts',
  ])
})
