// Further rails on the Power page: each field makes the edit it says, and what flows is beside it. The sums are by hand in
// core/src/power/rails.test.ts.

jest.mock('../../worker/client', () => jest.requireActual<object>('../../../test/questions'))

import { act, fireEvent, screen, within } from '@testing-library/react'
import { emptyDesign } from '@root-board/core/design'
import { design, show, steps } from '../../../test/stage'
import { PathDrawing } from './PathDrawing'
import { Regulators } from './Regulators'

const plain = (element: Element | null) => element?.textContent?.replace(/\s+/g, ' ') ?? ''
const weather = () => {
  const d = emptyDesign('Vane')
  return {
    ...d,
    needs: { ...d.needs, devices: [{ id: 'd1', part: 'servo-small', name: 'Flap', count: 1 }] },
    chip: { part: 'qm32-32' },
    power: { source: 'adapter-9v', regulator: 'bl33-low' },
  }
}
/** With the answers that come of it. */
const choose = (
  label: string,
  value: string,
  inside: { getByLabelText: (l: string) => HTMLElement } = screen,
) =>
  act(async () => {
    fireEvent.change(inside.getByLabelText(label), { target: { value } })
    await Promise.resolve()
  })
const press = (button: HTMLElement) =>
  act(async () => {
    fireEvent.click(button)
    await Promise.resolve()
  })

test('a rail is added behind a regulator, is fed from elsewhere, gets another regulator, and goes', async () => {
  show(<PathDrawing />, weather())
  await choose('Another rail, behind a regulator of its own', 'bl5-low')
  const second = () => within(screen.getByRole('region', { name: 'Second rail' }))
  expect(plain(screen.getByRole('region', { name: 'Second rail' }))).toContain(
    'Nothing hangs on it yet: choose what it feeds on the Needs page.',
  )
  await choose('Another rail, behind a regulator of its own', 'bu5-step')
  const third = () => within(screen.getByRole('region', { name: 'Third rail' }))
  // No rail is offered to hang on itself, and none on what it feeds.
  const offered = (of: { getByLabelText: (l: string) => HTMLElement }, label: string) =>
    [...of.getByLabelText(label).querySelectorAll('option')].map((o) => plain(o))
  expect(offered(third(), 'Third rail, from')).toEqual([
    expect.stringMatching(/^source, 8\.\d V$/),
    'rail, 3.3 V',
    'second rail, 5 V',
  ])
  await choose('Third rail, from', 'rail', third())
  expect(design().power.rails![1]).toEqual({ id: 'rail3', regulator: 'bu5-step', from: 'rail' })
  await choose('Second rail, from', 'rail3', second())
  expect(offered(third(), 'Third rail, from')).toEqual([expect.stringMatching(/^source/), 'rail, 3.3 V'])
  await choose('Regulator', 'bs33-drop', second())
  await press(third().getByRole('button', { name: 'Do without it' }))
  expect(design().power.rails).toEqual([{ id: 'rail2', regulator: 'bs33-drop', from: 'rail' }])
  expect(steps()).toEqual([
    'Add a second rail behind BL5 low drop 5 V',
    'Add a third rail behind BU5 step 5 V',
    'Third rail: from the rail',
    'Second rail: from the third rail',
    'Second rail: BS33 drop-in 3.3 V',
    'Do without the third rail',
  ])
  await press(second().getByRole('button', { name: 'Do without it' }))
  expect(design().power.rails).toBeUndefined()
  await screen.findByLabelText('Another rail, behind a regulator of its own')
})

test('what it feeds flows through it, and is what its regulators are ranked by', async () => {
  const d = weather()
  const rails = [{ id: 'rail2' as const, regulator: 'bl5-low' }]
  show(
    <>
      <PathDrawing />
      <Regulators />
    </>,
    {
      ...d,
      needs: { ...d.needs, devices: d.needs.devices.map((x) => ({ ...x, fedBy: 'rail2' as const })) },
      power: { ...d.power, rails },
    },
  )
  const second = screen.getByRole('region', { name: 'Second rail' })
  // 650 mA of the servo when it is stalled, of 800 mA.
  expect(await within(second).findByText(/of 800\smA/)).toBeTruthy()
  expect(plain(second)).toMatch(/650\smA of 800\smA, 150\smA left/)
  expect(plain(within(second).getByRole('list', { name: 'Loads of the second rail' }))).toMatch(
    /^Flap650\smA$/,
  )
  // Ranked for that rail: 3.3 V is too little for the servo.
  await choose('Of', 'rail2')
  expect(await screen.findByLabelText('Choose BS5 drop-in 5 V')).toBeTruthy()
  await press(screen.getByLabelText('Choose BS5 drop-in 5 V'))
  expect(design().power).toMatchObject({
    regulator: 'bl33-low',
    rails: [{ id: 'rail2', regulator: 'bs5-drop' }],
  })
})
