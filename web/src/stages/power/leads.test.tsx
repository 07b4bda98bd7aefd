// The leads on the Power page: each field makes the edit it says, what is not said whole is told, and what would do is chosen with one
// press. The numbers are by hand in e2e/supply.spec.ts and core/src/power/leads.test.ts.

jest.mock('../../worker/client', () => jest.requireActual<object>('../../../test/questions'))

import { fireEvent, screen, within } from '@testing-library/react'
import { demo, design, show, steps } from '../../../test/stage'
import { Leads } from './Leads'

const plain = (element: Element | null) => element?.textContent?.replace(/\s+/g, ' ') ?? ''
const cabin = () => demo('signal-cabin')
const bare = () => {
  const d = cabin()
  return { ...d, power: { ...d.power, feedLead: undefined } }
}
const form = (from: string) => within(screen.getByRole('group', { name: `Lead from ${from}` }))
const heavy = () => form('5 V adapter, 4 A')
const type = (field: HTMLElement, text: string) => {
  fireEvent.change(field, { target: { value: text } })
  fireEvent.blur(field)
}
const choose = (label: string, value: string) =>
  fireEvent.change(heavy().getByLabelText(label), { target: { value } })

test('a lead to a device: chosen by name, its fields make its edits, and what arrives is told', () => {
  show(<Leads />, bare())
  const region = screen.getByRole('region', { name: 'Wires and fuses' })
  const away = screen.getByLabelText<HTMLSelectElement>('A lead to')
  const [, first] = [...away.options]
  const name = first!.text
  // With the keyboard a choice goes through the list: only the button adds one, and what it adds has the focus then.
  fireEvent.change(away, { target: { value: first!.value } })
  expect(screen.queryByRole('group', { name: `Lead to ${name}` })).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: 'Add this lead' }))
  expect(document.activeElement?.textContent).toBe(`To ${name}`)
  const fields = within(screen.getByRole('group', { name: `Lead to ${name}` }))
  type(fields.getByLabelText('Length, one way'), '3 m')
  fireEvent.change(fields.getByLabelText('Wire'), { target: { value: 'wire-0-5' } })
  expect(steps()).toEqual([`Lead to ${name}: 3 m`, `Lead to ${name}: Cable 2 × 0.5 mm²`])
  expect(design().needs.devices.find((d) => d.id === first!.value)!.lead).toEqual({
    wire: 'wire-0-5',
    length: 3,
  })
  // 3 A take it 40 K above its air of 30 °C, 2.6 A 30 K: 6 m of 39 mΩ, 294.5 / 254.5 of it, are 271 mΩ.
  expect(plain(region)).toMatch(/through 270\smΩ: .* lost on the way, .* of heat; at least .*\sV arrive\./)
  // Each has one lead: it is no longer offered.
  expect([...screen.getByLabelText<HTMLSelectElement>('A lead to').options].map((o) => o.text)).not.toContain(
    name,
  )
  fireEvent.change(fields.getByLabelText('Wire'), { target: { value: '' } })
  expect(plain(region)).not.toContain('arrive')
})

test('each field makes its edit; what is said by half is told, and left out of the sums', () => {
  show(<Leads />, bare())
  const region = screen.getByRole('region', { name: 'Wires and fuses' })
  expect(plain(region).match(/Nothing is said of this lead/g)).toHaveLength(2)
  choose('Wire', 'wire-0-75')
  expect(plain(region)).toContain('Say how long it is: until then this wire is left out of every sum.')
  expect(plain(region).match(/Nothing is said of this lead/g)).toHaveLength(1)
  type(heavy().getByLabelText('Length, one way'), '1.5 m')
  choose('Joints', 'terminal-screw')
  expect(plain(region)).toContain('Say how many joints: until then they are left out of every sum.')
  type(heavy().getByLabelText('How many in all'), '2')
  choose('Fuse', 'fuse-4')
  expect(plain(region)).not.toContain('Say how')
  expect(steps()).toEqual([
    'Lead of the second feed: Cable 2 × 0.75 mm²',
    'Lead of the second feed: 1.5 m',
    'Lead of the second feed: screw terminal',
    'Lead of the second feed: 2 joints',
    'Lead of the second feed: Fuse 4 A',
  ])
  expect(design().power.feedLead).toEqual({
    wire: 'wire-0-75',
    length: 1.5,
    joint: 'terminal-screw',
    joints: 2,
    fuse: 'fuse-4',
  })
  // 3 m of 26 mΩ, warm: 93.3 mΩ; 20 mΩ and 28 mΩ; 2.76 A
  expect(plain(region)).toMatch(/up to 2\.76\sA through 140\smΩ: 390\smV lost on the way, 1\.1\sW of heat/)
  choose('Joints', '')
  expect(design().power.feedLead).toEqual({ wire: 'wire-0-75', length: 1.5, fuse: 'fuse-4' })
  type(heavy().getByLabelText('Length, one way'), '0')
  expect(heavy().getByRole('alert').textContent).toBe('At least 1 mm')
  expect(design().power.feedLead!.length).toBe(1.5)
})

test('what would do is said with a reason for each no, and chosen with one press', async () => {
  show(<Leads />, cabin())
  await screen.findByText('Wires from 5 V adapter, 4 A')
  const table = (what: string) => document.querySelector(`table[aria-labelledby="${what}-feed"]`)!
  const row = (of: Element, name: string) =>
    [...of.querySelectorAll('tr')].find((r) => plain(r).startsWith(name))!
  const wires = table('wires')
  expect(plain(row(wires, 'Cable 2 × 1.5 mm²'))).toMatch(/yes16\sA/)
  expect(plain(row(wires, 'Cable 2 × 0.75 mm²'))).toMatch(/no: Points gets down to 4\.41 V, and needs 4\.5 V/)
  fireEvent.click(screen.getByLabelText('Choose Cable 2 × 0.75 mm²'))
  expect(design().power.feedLead!.wire).toBe('wire-0-75')
  const fuses = table('fuses')
  // Nobody knows what an adapter gives into a short.
  expect(plain(row(fuses, 'Fuse 4 A'))).toMatch(/yes; .*whether a short opens it is not known/)
  expect(plain(row(fuses, 'Fuse 2 A'))).toMatch(/no: Fuse 2 A holds 1\.96 A in air of 30 °C/)
})

test('what guards a lithium cell is chosen where there is one to guard, and nowhere else', () => {
  const of = (source: string) => ({ ...cabin(), power: { ...cabin().power, source, feed: undefined } })
  const field = (from: string) => form(from).queryByLabelText<HTMLSelectElement>('Cell protection')
  const { unmount } = show(<Leads />, of('usb-port'))
  expect(screen.queryByLabelText('Cell protection')).toBeNull()
  unmount()
  const { unmount: gone } = show(<Leads />, of('cell-pouch-2ah'))
  expect(field('lithium pouch cell, 2 Ah')!.selectedOptions[0]!.text).toBe('the one on the cell')
  gone()
  show(<Leads />, of('cell-pouch-bare'))
  const bare = field('lithium pouch cell, 2 Ah, bare')!
  expect(bare.selectedOptions[0]!.text).toBe('none')
  fireEvent.change(bare, { target: { value: 'cg42-single' } })
  expect(design().power.lead).toEqual({ protection: 'cg42-single' })
  expect(steps()).toEqual(['Lead from the source: CG42 cell guard'])
  // 70 mΩ at the most, of the board alone.
  expect(plain(screen.getByRole('region', { name: 'Wires and fuses' }))).toMatch(/through 70\smΩ/)
  fireEvent.change(bare, { target: { value: '' } })
  expect(design().power.lead).toBeUndefined()
})
