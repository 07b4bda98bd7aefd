// Bursts on the Power page: what falls, for which capacitor, and asked again with another limit. The numbers are by hand in
// core/src/power/bursts.test.ts.

jest.mock('../../worker/client', () => jest.requireActual<object>('../../../test/questions'))

import { fireEvent, screen, within } from '@testing-library/react'
import { demo, show } from '../../../test/stage'
import { Bursts } from './Bursts'

const plain = (element: Element | null) => element?.textContent?.replace(/\s+/g, ' ') ?? ''
const rows = async () =>
  within(await screen.findByRole('table', { name: 'What each state pulls the source down by' }))
    .getAllByRole('row')
    .slice(1)
    .map(plain)

test('a look needs no capacitor, the door none that anybody fits; with more allowed neither does', async () => {
  show(<Bursts />, demo('coop-door'))
  const [looks, moves] = await rows()
  expect(looks).toMatch(/^looking50\sms.*none needed——$/)
  expect(moves).toMatch(
    /^moving the door14\ss804\smA.*more than anybody fits; it lasts too long for a capacitor——$/,
  )
  const field = screen.getByLabelText('It may fall by')
  fireEvent.change(field, { target: { value: '1 V' } })
  fireEvent.blur(field)
  await screen.findByText((_, e) => e?.tagName === 'TR' && /^moving the door.*none needed——$/.test(plain(e)))
})
