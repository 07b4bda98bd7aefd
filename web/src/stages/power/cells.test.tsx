// Cells on the Power page: how many are joined, how often they are charged, what of them isn't counted. The sums are by hand in
// core/src/power/joined.test.ts and cold.test.ts.

jest.mock('../../worker/client', () => jest.requireActual<object>('../../../test/questions'))

import { act, fireEvent, screen } from '@testing-library/react'
import { type Design, emptyDesign } from '@root-board/core/design'
import { design, show, steps } from '../../../test/stage'
import { PathDrawing } from './PathDrawing'
import PowerPage from './PowerPage'

const plain = (element: Element | null) => element?.textContent?.replace(/\s+/g, ' ') ?? ''
const on = (power: Design['power'], limits: Partial<Design['needs']['limits']> = {}): Design => {
  const d = emptyDesign('Vane')
  return {
    ...d,
    needs: { ...d.needs, limits: { ...d.needs.limits, ...limits } },
    chip: { part: 'td8-28-dip' },
    power,
  }
}
const fill = (label: string, text: string) =>
  act(async () => {
    const field = screen.getByLabelText(label)
    fireEvent.change(field, { target: { value: text } })
    fireEvent.blur(field)
    await Promise.resolve()
  })

test('a cell is chosen, as many as it takes, and then as many as the builder says', async () => {
  show(<PathDrawing />, on({ source: 'usb-port', regulator: 'bl33-low' }))
  expect(screen.queryByLabelText('cells in a row')).toBeNull()
  await act(async () => {
    fireEvent.change(screen.getByLabelText('Source'), { target: { value: 'cell-aa' } })
    await Promise.resolve()
  })
  // 3.57 V over 0.9 V of an empty one.
  expect(screen.getByLabelText<HTMLInputElement>('cells in a row').value).toBe('4')
  await fill('cells in a row', '5')
  await fill('rows beside one another', '2')
  expect(design().power).toEqual({
    source: 'cell-aa',
    regulator: 'bl33-low',
    cells: { series: 5, parallel: 2 },
  })
  expect(steps()).toEqual([
    'Feed it from AA cell, 4 in a row',
    'AA cell: 5 in a row',
    'AA cell: 2 beside one another',
  ])
  // No cells are none, and none is no number of them.
  await fill('cells in a row', '0')
  expect(design().power.cells).toEqual({ series: 5, parallel: 2 })
})

test('against a plug the wrong way round: the diode that is there, a transistor in its place, and none again', async () => {
  show(<PowerPage />, on({ source: 'adapter-9v', regulator: 'bl5-cool' }))
  const choice = () => screen.getByLabelText(/^Against a plug the wrong way round/)
  const line = () => plain(choice().closest('p'))
  expect(line()).toMatch(/Schottky diode 1 A stops it; a transistor loses less/)
  const choose = (value: string) =>
    act(async () => {
      fireEvent.change(choice(), { target: { value } })
      await Promise.resolve()
    })
  await choose('pfet-strong')
  // Its sheet, from 4.5 V on.
  expect(line()).toContain('18 mΩ in the way at the most')
  await choose('')
  expect(steps()).toEqual([
    'Strong p-channel MOSFET against a plug the wrong way round',
    'No transistor against a plug the wrong way round',
  ])
  expect(design().power).not.toHaveProperty('guard')
})

test('cells have nothing that stops it, and say what that would be', () => {
  show(<PowerPage />, on({ source: 'cells-3-aa' }))
  expect(plain(screen.getByLabelText(/^Against cells the wrong way round/).closest('p'))).toContain(
    'Nothing stops it: that would be −3.9 V on the board.',
  )
})

test('what of cold and age isn’t counted is said, and what is', async () => {
  show(<PowerPage />, on({ source: 'cell-pouch-2ah', regulator: 'bl33-sparing' }))
  const section = await screen.findByRole('region', { name: 'How long the cells last' })
  expect(plain(section)).toContain('how cold it gets nobody has said')
  expect(plain(section)).toContain('how often they will have been charged nobody has said')
  expect(plain(section)).not.toContain('here from')
  await fill('Charged so often, until others take their place', '100')
  expect(steps()).toEqual(['Set the number of charges'])
  // Figure 3: 0.88 of 1.9 Ah; new 2.05 Ah.
  expect(plain(section)).toMatch(/hold 2 Ah new and at 20 °C, here from 1\.67 Ah to 2\.05 Ah/)
  expect(plain(section)).not.toContain('how often')
  await fill('Charged so often, until others take their place', '')
  expect(design().needs.limits).not.toHaveProperty('charges', 100)
})

test('cells that are never charged are not asked how often', async () => {
  show(<PowerPage />, on({ source: 'cells-3-aa', regulator: 'bl33-sparing' }, { coldest: -10 }))
  const section = await screen.findByRole('region', { name: 'How long the cells last' })
  expect(screen.queryByLabelText('Charged so often, until others take their place')).toBeNull()
  // Figure 2: a quarter of 1.8 Ah.
  expect(plain(section)).toContain('here from 450 mAh to 2.7 Ah')
  expect(plain(section)).not.toContain('nobody has said')
})
