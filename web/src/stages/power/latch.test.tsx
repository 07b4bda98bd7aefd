// The latch on the Power page: added with one press, each part of it changed by hand and taken back, what happens told in words. The numbers
// are by hand in e2e/supply.spec.ts and core/src/latch/latch.test.ts.

jest.mock('../../worker/client', () => jest.requireActual<object>('../../../test/questions'))

import { cleanup, fireEvent, screen, within } from '@testing-library/react'
import { demo, design, show, steps } from '../../../test/stage'
import { Latch } from './Latch'

const plain = (element: Element | null) => element?.textContent?.replace(/\s+/g, ' ') ?? ''
const type = (label: string, text: string) => {
  const field = screen.getByLabelText(label)
  fireEvent.change(field, { target: { value: text } })
  fireEvent.blur(field)
}
const choose = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
const lantern = () => demo('window-lantern')
const latched = () => {
  const d = lantern()
  const button = { id: 'd9', part: 'latch-button', name: 'Power', count: 1 }
  return { ...d, needs: { ...d.needs, devices: [...d.needs.devices, button] } }
}

test('a project without one can have one; a board can’t', () => {
  show(<Latch />, lantern())
  fireEvent.click(screen.getByRole('button', { name: 'Add a latching power button' }))
  expect(steps()).toEqual(['Add Power button'])
  expect(
    screen.getByRole('heading', { name: 'Latch: Power button switches it on, the program off' }),
  ).toBeTruthy()
})

test('each part is changed by hand, and as proposed again when its field is emptied', () => {
  show(<Latch />, latched())
  choose('Transistor in the plus', 'pfet-strong')
  choose('Diodes to the button', 'diode-small')
  // 0.5 V / (2 · 0.8 µA) = 312 kΩ, and no more than 100 kΩ.
  expect(screen.getByLabelText('Resistor from gate to source').getAttribute('placeholder')).toBe('100k')
  type('Resistor from gate to source', '22k')
  type('Program sets up for', '0.2')
  expect(steps()).toEqual([
    'Latch: strong p-channel MOSFET',
    'Latch: small silicon diode',
    'Latch: 22 kΩ',
    'Latch: the program holds after 200 ms',
  ])
  expect(design().power.latch).toEqual({
    pass: 'pfet-strong',
    diode: 'diode-small',
    pullUp: 22e3,
    setUp: 0.2,
  })
  type('Resistor from gate to source', '')
  type('Program sets up for', '')
  expect(design().power.latch).toEqual({ pass: 'pfet-strong', diode: 'diode-small' })
  expect(steps().slice(-2)).toEqual(['Latch: resistor as computed', 'Latch: set-up as assumed'])
})

test('what is known is in the table, what is tried is said in words', async () => {
  show(<Latch />, latched())
  const table = screen.getByRole('table', { name: 'How surely the latch is on and off' })
  const row = (name: string) =>
    plain([...table.querySelectorAll('tr')].find((r) => plain(r).startsWith(name))!)
  expect(row('Gate below the source')).toMatch(/1\.79\sVon for sure from 1 V$/)
  expect(row('Drawn while it is off')).toMatch(/3\.7\sµA/)
  await screen.findByText(/^The program holds 71 ms after the press began/)
  type('Pressed for', '50 ms')
  await screen.findByText('Too short: it goes off with the button, before the program holds.')
  type('Pressed for', '200 ms')
  type('The program lets go after', '60 ms')
  await screen.findByText('The program lets go before it holds: it goes off with the button.')
  choose('When', 'plug')
  await screen.findByText('It stays off.')
  const turn = within(screen.getByRole('table', { name: 'What happens, in turn' }))
  expect(turn.getAllByRole('row').map(plain)).toEqual(['AfterWhat', '0 sthe source is put in'])
})

test('a value that the drawer lacks is fitted as the nearest, and that is said; so is what no sheet states', async () => {
  show(<Latch />, latched())
  expect(plain(document.body)).not.toContain('the nearest')
  // The drawer goes by E12: 47 and 56.
  type('Resistor from gate to source', '50k')
  const text = () => plain(document.body)
  expect(text()).toMatch(
    /There is no film resistor of 50\skΩ: fitted and reckoned with is 47k, the nearest\./,
  )
  expect(text()).toMatch(/Assumed, since no sheet states it: settings of the program before it holds 5\sms\./)
  await screen.findByText(/^The program holds/)
})

test('without a source or a chip it says which it waits for', () => {
  const { power, chip, ...rest } = latched()
  show(<Latch />, { ...rest, chip, power: { ...power, source: undefined } })
  expect(plain(document.body)).toContain('It lies in the plus of a source: choose one above.')
  cleanup()
  show(<Latch />, { ...rest, power, chip: { ...chip, part: undefined } })
  expect(plain(document.body)).toContain('Its numbers need a chip')
})

test('one that can’t be there says so, and nothing is computed of it', () => {
  show(<Latch />, { ...latched(), power: { ...latched().power, latch: { pass: 'gone' } } })
  expect(plain(document.body)).toContain('It is left out of every sum')
  expect(screen.queryByRole('table')).toBeNull()
})
