// Charging and plugs on the Power page: added with one press, changed by hand, taken away; which plugs feed what. The numbers are by hand in
// e2e/supply.spec.ts, core/src/charging and core/src/plugs.

jest.mock('../../worker/client', () => jest.requireActual<object>('../../../test/questions'))

import { fireEvent, screen, within } from '@testing-library/react'
import { demo, design, show, steps } from '../../../test/stage'
import { Charging } from './Charging'
import { Plugged } from './Plugged'
import { Switches } from './Switches'

const plain = (element: Element | null) => element?.textContent?.replace(/\s+/g, ' ') ?? ''
const door = () => demo('coop-door')
const choose = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
const rows = (table: string) =>
  within(screen.getByRole('table', { name: table }))
    .getAllByRole('row')
    .map(plain)

test('a cell that can be charged is offered the charger that fits it, from a USB socket', () => {
  const without = { ...door(), power: { ...door().power, charging: undefined } }
  show(<Charging />, without)
  fireEvent.click(screen.getByRole('button', { name: 'Add BC42 single-cell charger' }))
  expect(steps()).toEqual(['Charging: BC42 single-cell charger'])
  expect(design().power.charging).toEqual({ charger: 'bc42-single', from: 'usb-port' })
})

test('neither cells that are not made for it nor an adapter are offered one', () => {
  for (const source of ['cells-3-aa', 'adapter-5v', 'battery-lead-12v']) {
    const { container, unmount } = show(<Charging />, {
      ...door(),
      power: { ...door().power, charging: undefined, source },
    })
    expect([source, plain(container)]).toEqual([source, ''])
    unmount()
  }
})

test('charger, source and current are changed by hand; an emptied field is computed again; it can go', () => {
  show(<Charging />, door())
  expect(screen.getByLabelText('Charging current').getAttribute('placeholder')).toMatch(/^200\smA$/)
  choose('Charger', 'bc42-single')
  choose('Charged from', 'adapter-5v')
  const field = screen.getByLabelText('Charging current')
  fireEvent.change(field, { target: { value: '0.1' } })
  fireEvent.blur(field)
  expect(design().power.charging).toEqual({ charger: 'bc42-single', from: 'adapter-5v', current: 0.1 })
  fireEvent.change(field, { target: { value: '' } })
  fireEvent.blur(field)
  expect(design().power.charging).toEqual({ charger: 'bc42-single', from: 'adapter-5v' })
  expect(plain(document.body)).toContain('Caution. Charge a lithium cell only while somebody is there')
  fireEvent.click(screen.getByRole('button', { name: 'Do without' }))
  expect(design().power.charging).toBeUndefined()
})

test('from a panel the hours of sun are asked for, and a day is reckoned with them', () => {
  show(<Charging />, door())
  expect(screen.queryByLabelText(/^Full sun a day/)).toBeNull()
  choose('Charged from', 'panel-5v')
  const hours = screen.getByLabelText(/^Full sun a day/)
  expect(screen.queryByText('In a day of the poorest month')).toBeNull()
  fireEvent.change(hours, { target: { value: '1.5' } })
  fireEvent.blur(hours)
  expect(steps().at(-1)).toBe('Charging: 1.5 h of full sun')
  expect(design().power.charging).toMatchObject({ from: 'panel-5v', sun: 1.5 })
  const table = rows('What becomes of charging')
  expect(table.find((r) => r.startsWith('In a day'))).toMatch(/\sm?Ahcome, and .*\sm?Ah go: .*\sm?Ah left$/)
  expect(table.find((r) => r.startsWith('Without any sun'))).toMatch(/days|months/)
})

test('one that is not in the library says so, and nothing is computed of it', () => {
  show(<Charging />, { ...door(), power: { ...door().power, charging: { charger: 'gone' } } })
  expect(plain(screen.getByLabelText('Charger'))).toContain('gone, not in the library')
  expect(screen.queryByRole('table')).toBeNull()
})

test('a typed current gets the nearest resistor, and that is said; so is what is assumed', () => {
  // 200 V over the resistor (its sheet): 500 Ω for 400 mA. The drawer has 470 Ω and 560 Ω.
  show(<Charging />, {
    ...door(),
    power: { ...door().power, charging: { ...door().power.charging!, current: 0.4 } },
  })
  const found = rows('What becomes of charging').find((r) => r.startsWith('Current'))
  expect(found).toMatch(/no resistor sets 400\smA, the nearest is 470R: 426\smA usually$/)
  expect(plain(document.body)).toMatch(
    /Assumed, since no sheet states it: share that goes in while the current falls 5 … 15 … 35 %\./,
  )
})

test('a socket that the library no longer has is shown by its name', () => {
  show(<Charging />, {
    ...door(),
    power: { ...door().power, charging: { ...door().power.charging!, from: 'old-plug' } },
  })
  const field = screen.getByLabelText<HTMLSelectElement>('Charged from')
  expect(field.selectedOptions[0]!.textContent).toBe('old-plug, not in the library')
})

test('without a plan of the legs, the lines are said to be missing', () => {
  const cabin = demo('signal-cabin')
  const said = 'The legs are not planned: the lines to the devices'
  const { unmount } = show(<Plugged />, cabin)
  expect(plain(document.body)).not.toContain(said)
  unmount()
  show(<Plugged />, { ...cabin, chip: {} })
  expect(plain(document.body)).toContain(said)
})

test('each combination of plugs, what it feeds, and what stops the rest', () => {
  show(<Plugged />, door())
  const all = rows('What is fed with which plugs in, and what flows back')
  // Three plugs: seven combinations, and the heading.
  expect(all).toHaveLength(8)
  expect(all[1]).toBe('lithium pouch cell, 2 Ahfedfednothing')
  expect(all.find((r) => r.startsWith('programmer'))).toBe('programmerofffednothing')
  expect(all[2]).toMatch(
    /^USB port for chargingfedfedfrom BC42 sparing charger into the project, without lithium/,
  )
  fireEvent.click(screen.getByRole('button', { name: /^3 ways are stopped/ }))
  expect(screen.getAllByRole('listitem').map(plain)).toEqual([
    'From the rail backwards through BL33 sparing 3.3 V to its input: BL33 sparing 3.3 V lets nothing back.',
    'From the programmer into lithium pouch cell, 2 Ah: BL33 sparing 3.3 V lets nothing back.',
    expect.stringMatching(
      /^From lithium pouch cell, 2 Ah backwards through BC42 sparing charger: .* no more than its leakage/,
    ),
  ])
})

test('lines alike are told once, with how many there are besides', () => {
  show(<Plugged />, demo('signal-cabin'))
  const [, alone] = rows('What is fed with which plugs in, and what flows back')
  // Four servos and two relays.
  expect(alone).toMatch(
    /from the leg of .* into (Points|Crane): up to 160\smA, and through 5 more lines no more than that each$/,
  )
  expect(plain(document.body)).toContain('What the own plug of Trestle 32 feeds, its file doesn’t say')
})

test('transistors for the door’s motor: ranked, and chosen by hand', async () => {
  show(<Switches />, door())
  const table = await screen.findByRole('table', { name: 'Transistors for its loads' })
  const row = (name: string) =>
    plain(
      within(table)
        .getAllByRole('row')
        .find((r) => plain(r).startsWith(name))!,
    )
  expect(row('strong n-channel MOSFET')).toMatch(/yes.*43\smW.*chosen$/)
  // In its plus one does: it is there before those that don't.
  expect(row('low-voltage p-channel MOSFET')).toMatch(/in its plus, 2\sA, with small n-channel MOSFET.*yes/)
  fireEvent.click(screen.getByRole('button', { name: /more that don’t do/ }))
  expect(row('plain n-channel MOSFET')).toMatch(/no: .* may need 4\sV to begin to conduct3\.23\sV——/)
  fireEvent.click(screen.getByRole('button', { name: 'Choose low-voltage n-channel MOSFET' }))
  expect(design().needs.devices[0]!.transistors).toEqual({ drive: 'nfet-low' })
  expect(steps()).toEqual(['Low-voltage n-channel MOSFET switches Door motor'])
})
