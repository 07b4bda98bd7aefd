// Bridges on the Power page: what each leaves a motor, chosen with one press, and back on its transistor. The numbers are by hand in
// core/src/power/bridges.test.ts.

jest.mock('../../worker/client', () => jest.requireActual<object>('../../../test/questions'))

import { fireEvent, screen, within } from '@testing-library/react'
import { demo, design, show, steps } from '../../../test/stage'
import { Bridges } from './Bridges'

const plain = (element: Element | null) => element?.textContent?.replace(/\s+/g, ' ') ?? ''
/** A door’s motor of 3 V to 6 V at 5 V, 0.8 A stalled. */
const door = () => {
  const d = demo('coop-door')
  return {
    ...d,
    needs: { ...d.needs, devices: d.needs.devices.map((n) => ({ ...n, fedBy: undefined })) },
    power: { source: 'adapter-5v' },
  }
}
const row = (name: string) => screen.findByRole('row', { name: new RegExp(`^${name}`) })

test('what does comes first, what doesn’t says why; chosen with one press, and let go with one', async () => {
  show(<Bridges />, door())
  const cool = await row('cool bridge for two motors')
  expect(plain(cool)).toMatch(/yes.*€ 3\.60/)
  expect(plain(await row('bridge for two motors'))).toMatch(
    /no: behind it as little as .* V are left for Door motor/,
  )
  fireEvent.click(within(cool).getByRole('button', { name: 'Choose cool bridge for two motors' }))
  expect(design().needs.devices.at(-1)).toMatchObject({
    part: 'bridge-cool',
    name: 'Cool bridge for two motors',
  })
  expect(design().needs.devices[0]!.drivenBy).toBe(design().needs.devices.at(-1)!.id)
  fireEvent.click(await screen.findByRole('button', { name: 'Switch it by a transistor' }))
  expect(design().needs.devices[0]!.drivenBy).toBeUndefined()
  expect(steps()).toEqual([
    'Hang Door motor on cool bridge for two motors',
    'Door motor is switched by a transistor',
  ])
})

test('nothing is asked where nothing is to turn', () => {
  show(<Bridges />, demo('darkroom-timer'))
  expect(screen.queryByRole('region', { name: 'Bridges for its motors' })).toBeNull()
})
