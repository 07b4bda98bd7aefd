// The states of the machine on the Power page: each field makes the edit it says, and what is shown is by hand.

jest.mock('../../worker/client', () => jest.requireActual<object>('../../../test/questions'))

import { act, fireEvent, screen, within } from '@testing-library/react'
import type { Design, StateChoice } from '@root-board/core/design'
import { analyse } from '@root-board/core/analysis'
import { makeLibrary, type Part } from '@root-board/core/parts'
import { questions } from '../../../test/questions'
import { demo, design, library, show, steps, timer } from '../../../test/stage'
import { Measured } from './Measured'
import { PathDrawing } from './PathDrawing'
import PowerPage from './PowerPage'
import { percent } from './States'

const plain = (element: Element | null) => element?.textContent?.replace(/\s+/g, ' ') ?? ''
const states: StateChoice[] = [
  // 36 s of 3,600 s
  { id: 'a', name: 'exposing', lasts: 36, every: 3600, modes: { d7: 'on' } },
  { id: 'b', name: 'asleep', chip: 'sleep' },
]
const named = (change: Partial<Design['power']> = {}): Design => {
  const d = timer()
  return { ...d, needs: { ...d.needs, states }, power: { ...d.power, ...change } }
}
// Both rank the whole library anew after each edit, and are tested by themselves.
beforeEach(() => {
  jest.spyOn(questions, 'regulators').mockReturnValue(new Promise(() => undefined))
  jest.spyOn(questions, 'sources').mockReturnValue(new Promise(() => undefined))
})

const open = async (of: Design) => {
  show(<PowerPage />, of)
  await act(async () => new Promise((done) => setTimeout(done, 0)))
}
const type = (label: string, text: string) => {
  const field = screen.getByLabelText(label)
  fireEvent.change(field, { target: { value: text } })
  fireEvent.blur(field)
}
const stateRow = (name: string) =>
  screen.getAllByRole('row').find((r) => within(r).queryByDisplayValue(name) !== null)!

test('without states it says what counts, and begins with what the devices can', async () => {
  await open(timer())
  const region = screen.getByRole('region', { name: 'What it does, and when' })
  expect(plain(region)).toContain('Everything counts as at work all the time.')
  fireEvent.click(within(region).getByRole('button', { name: 'Name its states' }))
  expect(steps()).toEqual(['Name the states at work, asleep'])
  expect(design().needs.states!.map((s) => [s.lasts, s.every, s.chip])).toEqual([
    [2, 600, undefined],
    [undefined, undefined, 'sleep'],
  ])
})

test('each field makes its edit, named as one would undo it', async () => {
  await open(named())
  type('Name of exposing', 'exposing')
  type('Name of asleep', ' dozing ')
  type('exposing lasts', '1 min 30 s')
  type('exposing every', '2 h')
  fireEvent.change(screen.getByLabelText('How often exposing comes'), { target: { value: 'perDay' } })
  // 2 h: twelve times a day
  expect(design().needs.states![0]).toMatchObject({ lasts: 90, perDay: 12 })
  type('exposing, times a day', '6')
  fireEvent.change(screen.getByLabelText('How often exposing comes'), { target: { value: 'every' } })
  expect(design().needs.states![0]!.every).toBe(14_400)
  fireEvent.change(screen.getByLabelText('The chip, dozing'), { target: { value: 'idle' } })
  fireEvent.click(screen.getByRole('button', { name: 'Add a state' }))
  fireEvent.click(screen.getByRole('button', { name: 'Take state 3 away' }))
  expect(steps()).toEqual([
    'Call asleep “dozing”',
    'Exposing lasts 1 min 30 s',
    'Exposing every 2 h',
    'Exposing 12 times a day',
    'Exposing 6 times a day',
    'Exposing every 4 h',
    'Change what dozing does',
    'Add the state state 3',
    'Do without state 3',
  ])
  expect(design().needs.states!.map((s) => [s.id, s.chip])).toEqual([
    ['a', undefined],
    ['b', 'idle'],
  ])
})

test('what is no time is told beside its field and changes nothing', async () => {
  await open(named())
  type('exposing lasts', '5 m')
  expect(screen.getByRole('alert').textContent).toContain('minutes or a thousandth: min or ms')
  expect(steps()).toEqual([])
})

test('devices: what is said of each, on or off where a leg lights it, or its own cycle', async () => {
  await open(named())
  fireEvent.click(screen.getByRole('button', { name: 'What begins it and what the devices do, asleep' }))
  const group = screen.getByRole('group', { name: 'Devices, asleep' })
  const lamp = within(group).getByLabelText<HTMLSelectElement>('Safe light')
  expect([...lamp.options].map((o) => o.textContent)).toEqual(['on', 'off'])
  fireEvent.change(lamp, { target: { value: 'off' } })
  const id = design().needs.devices.find((d) => d.name === 'Safe light')!.id
  expect(design().needs.states![1]!.modes).toEqual({ [id]: 'off' })
  fireEvent.change(within(group).getByLabelText('Safe light'), { target: { value: '' } })
  expect(design().needs.states![1]!.modes).toEqual({})
})

test('what each state takes in a day, and each part of it; shares add up', async () => {
  await open(demo('hive-scale'))
  const table = screen.getByRole('table', { name: 'What it does, and when' })
  const lines = within(table).getAllByRole('row').slice(1)
  expect(lines).toHaveLength(4)
  // 1.5 s of 900 s; 8 · 3 s and 4 · 20 s of 86,400 s; what is left
  const shares = [1.5 / 900, 24 / 86400, 80 / 86400]
  const time = (n: number) => plain(lines[n]!.querySelectorAll('td')[4]!)
  expect([0, 1, 2].map(time)).toEqual(shares.map(percent))
  expect(time(3)).toBe('99.71 %')
  const parts = lines.map((l) => Number(/([\d.]+) %/.exec(plain(l.querySelectorAll('td')[6]!))![1]))
  expect(parts.reduce((a, b) => a + b)).toBeCloseTo(100, 0)
  const eaters = screen.getByRole('table', { name: 'Where the charge goes' })
  expect(plain(within(eaters).getAllByRole('row')[1]!)).toContain('MW2 module')
  expect(screen.getByText(/Three AA cells hold/).textContent).toMatch(/they last \d+ days/)
})

test('a mode of another chip stays to be seen; a state that has the rest of the time can’t be taken away', async () => {
  const d = named()
  await open({ ...d, needs: { ...d.needs, states: [states[0]!, { ...states[1]!, chip: 'deep' }] } })
  expect(screen.getByLabelText<HTMLSelectElement>('The chip, asleep').selectedOptions[0]!.textContent).toBe(
    'deep (not there)',
  )
  expect(screen.queryByRole('button', { name: 'Take asleep away' })).toBeNull()
  expect(within(stateRow('asleep')).getByText('the rest of the time')).toBeTruthy()
})

test('what begins a state, what the program does before each sleep, in turn', async () => {
  await open(demo('hive-scale'))
  const calls = within(screen.getByRole('region', { name: /^Before each sleep/ }))
    .getAllByRole('listitem')
    .map((l) => l.textContent)
  expect(calls).toEqual([
    'Put the devices as they are to be: Scale at rest, Air at rest, Brood waiting, Cells at rest and Display at rest.',
    'Set its clock to what comes first: weighing, every 15 min and sending, 8 times a day.',
    expect.stringMatching(/^Let Look wake it by P\d+, for showing\.$/),
    'Go to “deep sleep”.',
    'Awake again, 8 KiB of its memory are as they were; ask what woke it.',
  ])
  fireEvent.click(screen.getByRole('button', { name: 'What begins it and what the devices do, showing' }))
  const begun = screen.getByLabelText<HTMLSelectElement>('Begun by')
  expect([...begun.options].map((o) => o.textContent)).toEqual([
    'not said',
    'its time, by the chip’s clock',
    'Scale',
    'Look',
  ])
  fireEvent.change(begun, { target: { value: 'clock' } })
  expect(design().needs.states![2]!.begins).toBe('clock')
  fireEvent.change(begun, { target: { value: '' } })
  expect(design().needs.states![2]!.begins).toBeUndefined()
})

test.each([
  [0, '0 %'],
  [0.00004, 'below 0.01 %'],
  [0.0016666, '0.167 %'],
  [0.99713, '99.71 %'],
  [1, '100 %'],
])('a share of %d is %s', (share, words) => expect(percent(share)).toBe(words))

test('a clock that does not go on in the sleep is not set', async () => {
  const d = demo('hive-scale')
  await open({
    ...d,
    chip: { part: 'ox7-module' },
    power: { source: 'usb-port' },
    needs: {
      ...d.needs,
      devices: [],
      states: [
        { id: 'w', name: 'weighing', lasts: 1, every: 600 },
        { id: 'r', name: 'asleep', chip: 'off' },
      ],
    },
  })
  const calls = within(screen.getByRole('region', { name: /^Before each sleep/ })).getAllByRole('listitem')
  expect(calls.map((l) => l.textContent)).toEqual([
    'Go to “processor stopped, design held”.',
    'Awake again, ask what woke it. What memory is kept is not in its file: read it in the sheet.',
  ])
})

describe('what is not known is said', () => {
  test('cells whose file has neither curve nor loss', async () => {
    const aa = { ...library.parts['cells-3-aa']!, discharge: undefined, selfDischarge: undefined } as Part
    const others = Object.values(library.parts).filter((p) => p.id !== aa.id)
    const analysis = analyse(demo('hive-scale'), makeLibrary([...others, aa]))
    show(<PowerPage />, demo('hive-scale'), '/', { looking: { analysis } })
    await act(async () => new Promise((done) => setTimeout(done, 0)))
    const cells = screen.getByRole('region', { name: 'How long the cells last' })
    expect(plain(cells)).toContain('no curve of their voltage')
    expect(plain(cells)).toContain('not in its file, and not counted')
  })
  test('with both, neither sentence', async () => {
    await open(demo('hive-scale'))
    const cells = screen.getByRole('region', { name: 'How long the cells last' })
    expect(plain(cells)).not.toMatch(/no curve|not counted/)
  })
  test('a question that failed, and can be asked again', async () => {
    const charge = jest.spyOn(questions, 'charge').mockRejectedValueOnce(new Error('the worker is gone'))
    await open(demo('hive-scale'))
    expect(screen.getByRole('alert').textContent).toContain('the worker is gone')
    fireEvent.click(within(screen.getByRole('alert')).getByRole('button', { name: 'Ask again' }))
    expect(await screen.findByRole('table', { name: 'Where the charge goes' })).toBeTruthy()
    charge.mockRestore()
  })
})

describe('What the meter says', () => {
  const noted = (reading: string) => {
    const hive = demo('hive-scale')
    show(<Measured />, hive)
    fireEvent.click(screen.getByText('Note a measured current'))
    fireEvent.change(screen.getByLabelText('The meter said'), { target: { value: reading } })
    fireEvent.click(screen.getByText('Compare'))
  }
  test('a reading is compared, explained, and what it was is noted', async () => {
    // 12 mA of the display beside what is predicted asleep
    noted('12 mA')
    const list = await screen.findByLabelText('What would explain 12 mA')
    expect(plain(list.querySelector('li'))).toMatch(
      /^Display is working: 12 mA, with which the meter would say 12 mA.*To find out: Take Display off its supply/,
    )
    fireEvent.click(screen.getByLabelText('It was this: Display is working'))
    expect(await screen.findByText('Look again')).toBeTruthy()
    expect(screen.queryByLabelText('What would explain 12 mA')).toBeNull()
    expect(design().power.measured).toEqual([
      { id: 'm1', state: 'sleeps', at: 'source', reading: 12e-3, found: 'Display is working' },
    ])
    fireEvent.click(screen.getByLabelText('Take away 12 mA, asleep'))
    expect(steps()).toEqual([
      'Note that 12 mA were measured',
      'Note what it was: Display is working',
      'Take a measurement away',
    ])
    expect(design().power.measured).toBeUndefined()
  })
  test('cautions stand beside the step: the meter, two supplies at the rail, and cells that must not be shorted', () => {
    const fed = demo('hive-scale')
    show(<Measured />, { ...fed, power: { ...fed.power, source: 'battery-lead-12v' } })
    fireEvent.click(screen.getByText('Note a measured current'))
    const cautions = () => [...document.querySelectorAll('.caution')].map(plain)
    expect(cautions()).toEqual([
      expect.stringMatching(
        /into the line, never across a supply, where it is a short.*licensed electrician/,
      ),
      expect.stringMatching(/hundreds of amperes into a short/),
    ])
    fireEvent.change(screen.getByLabelText('measured'), { target: { value: 'rail' } })
    expect(cautions()[1]).toMatch(/Only one supply at a time/)
  })
  test('what is no current is refused where it stands, and nothing is noted', async () => {
    noted('a lot')
    expect(await screen.findByRole('alert')).toBeTruthy()
    expect(design().power.measured).toBeUndefined()
  })
})

test('the way from plug to load in one state: what flows then, and who takes nothing', async () => {
  show(<PathDrawing />, demo('hive-scale'))
  const path = screen.getByRole('region', { name: 'From plug to load' })
  // 360 mA of the chip with its radio, of 700 mA that the cells give
  await within(path).findByText('MW2 module')
  expect(plain(path)).toMatch(/388 mA of 700 mA, 310 mA left.*MW2 module360 mA/)
  fireEvent.change(screen.getByLabelText('While it is'), { target: { value: 'sleeps' } })
  await within(path).findByText(/nothing then$/)
  expect(plain(path)).toMatch(/574 µA of 700 mA.*MW2 module20 µA.*2 take nothing then/)
})
