// Every stage with the real analysis: what it shows, and that each control makes the edit it says.

import { fireEvent, screen, within } from '@testing-library/react'
import { demo, design, show, steps, timer, library } from '../../test/stage'
import BuildPage from './build/BuildPage'
import { Comparison } from './chip/Comparison'
import { DeviceTable } from './needs/DeviceTable'
import NeedsPage from './needs/NeedsPage'
import { LegPanel } from './pins/LegPanel'
import { SignalList } from './pins/SignalList'
import PowerPage from './power/PowerPage'

jest.mock('../worker/client', () => jest.requireActual<object>('../../test/questions'))

const plain = (element: Element | null) => element?.textContent?.replace(/\s+/g, ' ') ?? ''
const rowOf = (name: RegExp) => screen.getByRole('row', { name })

describe('Needs', () => {
  test('a typed line is understood before it is added, and what is not known stays', () => {
    show(<NeedsPage />)
    const line = screen.getByLabelText('What does it have?')
    fireEvent.change(line, { target: { value: '2 servos, a flux gate' } })
    expect(screen.getByText(/nothing like that in the library/)).toBeTruthy()
    fireEvent.keyDown(line, { key: 'Enter' })
    expect(steps()).toEqual(['Add 2 × Small servo'])
    expect(line).toHaveProperty('value', 'a flux gate')
  })
  test('a wish with several answers asks which', () => {
    show(<NeedsPage />)
    fireEvent.change(screen.getByLabelText('What does it have?'), { target: { value: 'thermometer' } })
    const which = screen.getByLabelText('Which one for “thermometer”')
    fireEvent.change(which, { target: { value: 'temperature-analog' } })
    fireEvent.click(screen.getByRole('button', { name: 'Add' }))
    expect(design().needs.devices.at(-1)?.part).toBe('temperature-analog')
  })
  test('named states stand where the time awake would, with their shares, and can be given up', () => {
    const d = timer()
    const states = [
      // 36 s of 3,600 s
      { id: 'a', name: 'exposing', lasts: 36, every: 3600 },
      { id: 'b', name: 'asleep', chip: 'sleep' },
    ]
    show(<NeedsPage />, { ...d, needs: { ...d.needs, states } })
    expect(screen.queryByLabelText(/Time the chip is awake/)).toBeNull()
    const list = screen.getByRole('list', { name: /^Its states/ })
    expect(plain(list)).toBe('exposing: 1 % of the time, chip runningasleep: 99 % of the time, chip stopped')
    fireEvent.click(within(list).getByRole('button', { name: '1 %' }))
    expect(screen.getByRole('dialog', { name: /Share of the time exposing/ })).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: 'Do without them', hidden: true }))
    expect(steps()).toEqual(['Name no states'])
  })
  test('all devices can be looked through', () => {
    show(<NeedsPage />)
    fireEvent.click(screen.getByRole('button', { name: 'Look through all' }))
    fireEvent.click(screen.getByRole('button', { name: 'Add motion sensor' }))
    expect(steps()).toEqual(['Add Motion sensor'])
  })
  test.each<[string, (label: string) => void, string]>([
    [
      'Name of Dial',
      (l) => {
        const f = screen.getByLabelText(l)
        fireEvent.change(f, { target: { value: 'Knob' } })
        fireEvent.blur(f)
      },
      'Rename Dial to Knob',
    ],
    [
      'Count of Start',
      (l) => fireEvent.change(screen.getByLabelText(l), { target: { value: '3' } }),
      '3 × Start',
    ],
    [
      'Wiring of Safe light',
      (l) => fireEvent.change(screen.getByLabelText(l), { target: { value: 'dimmed' } }),
      'Wire Safe light by dimmed',
    ],
    [
      'Variant',
      (l) => fireEvent.change(screen.getByLabelText(l), { target: { value: 'c' } }),
      'Use variant c of Display',
    ],
    [
      'LED current',
      (l) => {
        const f = screen.getByLabelText(l)
        fireEvent.change(f, { target: { value: '8m' } })
        fireEvent.blur(f)
      },
      'Set light current of Safe light',
    ],
    [
      'Frequency',
      (l) => {
        const f = screen.getByLabelText(l)
        fireEvent.change(f, { target: { value: '3 kHz' } })
        fireEvent.keyDown(f, { key: 'Enter' })
      },
      'Set drive frequency of Buzzer',
    ],
    ['Remove Buzzer', (l) => fireEvent.click(screen.getByLabelText(l)), 'Remove Buzzer'],
  ])('%s', (label, act, step) => {
    show(<DeviceTable />)
    act(label)
    expect(steps()).toEqual([step])
  })
  test.each<[string, string, string]>([
    ['Air around it, at its warmest', '45', 'Set the ambient temperature'],
    ['Air around it, at its coldest', '-5', 'Set the coldest air'],
    ['Current budget from the source', '150m', 'Set the current budget'],
    ['Current budget from the source', '', 'Lift the current budget'],
    ['Parts may cost, in €', '25', 'Set the price limit'],
  ])('limit %s to “%s”', (label, text, step) => {
    show(<NeedsPage />)
    const field = screen.getByLabelText(label)
    fireEvent.change(field, { target: { value: text } })
    fireEvent.blur(field)
    expect(steps()).toEqual([step])
  })
  test('what hangs on a bridge says on which, with no wiring to choose', () => {
    const d = demo('coop-door')
    const bridge = { id: 'd9', part: 'bridge-cool', name: 'Driver', count: 1 }
    const [motor, ...others] = d.needs.devices
    const devices = [{ ...motor!, drivenBy: 'd9', fedBy: undefined }, ...others, bridge]
    const { unmount } = show(<DeviceTable />, { ...d, needs: { ...d.needs, devices } })
    expect(plain(screen.getByLabelText('Name of Door motor').closest('tr'))).toContain('hangs on Driver')
    expect(screen.queryByLabelText('Wiring of Door motor')).toBeNull()
    unmount()
    show(<DeviceTable />, d)
    expect(screen.getAllByLabelText('Wiring of Door motor')).toHaveLength(1)
  })
  test('what feeds a device is asked where there is more than the rail; equal settings are one field', () => {
    show(<NeedsPage />, demo('signal-cabin'))
    const [points] = screen.getAllByLabelText<HTMLSelectElement>('Fed from').filter((l) => l.id !== 'source')
    expect([...points!.options].map((o) => o.textContent)).toEqual(
      expect.arrayContaining(['rail, 3.3 V', 'second feed, 5 V']),
    )
    fireEvent.change(points!, { target: { value: 'rail' } })
    expect(steps()).toEqual(['Feed Points from the rail'])
    expect(design().needs.devices[0]!.fedBy).toBeUndefined()
    const [frequency, ...others] = screen.getAllByLabelText('Frequency')
    expect(others).toEqual([])
    fireEvent.change(frequency!, { target: { value: '60' } })
    fireEvent.blur(frequency!)
    expect(design().needs.devices[0]!.settings).toEqual({
      'S1.frequency': 60,
      'S2.frequency': 60,
      'S3.frequency': 60,
      'S4.frequency': 60,
    })
  })
  test('what it adds up to', () => {
    show(<NeedsPage />)
    expect(plain(rowOf(/^PWM outputs/))).toBe('PWM outputs1Buzzer')
    expect(plain(rowOf(/Program memory/))).toContain('2720')
    expect(screen.getByText(/licensed electrician/)).toBeTruthy()
  })
  test('a part that is not in the library is said', () => {
    const strange = timer()
    strange.needs.devices[0]!.part = 'gone'
    show(<DeviceTable />, strange)
    expect(screen.getByText('not in the library: gone')).toBeTruthy()
  })
})

describe('Chip', () => {
  test('side by side, what differs first', () => {
    const chip = (id: string) => {
      const p = library.parts[id]!
      if (p.kind !== 'chip') throw new Error(id)
      return p
    }
    show(<Comparison chips={[chip('td8-28-dip'), chip('td8-40-dip')]} />)
    expect(plain(rowOf(/Program memory/))).toBe('Program memory16 KiB32 KiB ▲ best here')
    expect(screen.getByText(/The same on all:/).textContent).toContain('supply of the chip (1.8 V to 5.5 V)')
  })
})

describe('Pins', () => {
  test('signals stand under their devices, with their legs', () => {
    const chosen: string[] = []
    show(<SignalList chosen={undefined} choose={(id) => chosen.push(id)} />)
    const list = screen.getByRole('navigation', { name: 'Signals' })
    expect(
      within(list)
        .getAllByRole('heading')
        .map((h) => h.textContent),
    ).toEqual(['Bus: Display', 'Dial'])
    const buttons = within(list).getAllByRole('button')
    expect(buttons).toHaveLength(11)
    expect(plain(buttons[0]!)).toBe('I2C SDA I2C linePA4')
    fireEvent.click(buttons[3]!)
    expect(chosen).toEqual(['d2.1.B'])
    buttons[0]!.focus()
    fireEvent.keyDown(buttons[0]!, { key: 'ArrowDown' })
    expect(document.activeElement).toBe(buttons[1])
    fireEvent.keyDown(buttons[1]!, { key: 'End' })
    expect(document.activeElement).toBe(buttons[10])
  })
  const chip = library.parts['td8-28-dip']!
  if (chip.kind !== 'chip') throw new Error('no chip')
  const panel = (pinId?: string) =>
    show(
      <LegPanel
        chip={chip}
        pin={chip.pins.find((p) => p.id === pinId)}
        signal={undefined}
        wire={undefined}
        reach={undefined}
        moveHere={() => undefined}
        toggleLock={() => undefined}
      />,
    )
  test.each<[string, RegExp[]]>([
    [
      'PA4',
      [
        /Leg 5 PA4 · number 4/,
        /Can be plain, analog ADC A4, TWO SDA\./,
        /I2C SDA is on it \(I2C line, two-wire port SDA\)/,
        /pull-up8k2/,
      ],
    ],
    ['PC5', [/programming: in-circuit serial programming, SCK/, /section 19/]],
    ['RESET', [/Spoken for: it is the reset leg/]],
    ['PB0', [/Spoken for: the crystal is on it/]],
    ['VCC', [/It is supply\./]],
    ['PC7', [/Safe light is on it \(output\)/, /series resistor680R/]],
  ])('the panel of %s', (pin, words) => {
    const { container } = panel(pin)
    for (const w of words) expect(plain(container)).toMatch(w)
  })
  test('with nothing chosen, the support that all signals need', () => {
    panel()
    expect(screen.getAllByRole('row').length).toBeGreaterThan(10)
    expect(plain(rowOf(/gate pull-down of Buzzer/))).toMatch(/100kR_max 409/)
  })
  test('a leg can be kept free and allowed again', () => {
    panel('PC6')
    fireEvent.click(screen.getByRole('button', { name: 'Keep this leg free' }))
    expect(design().pins.excluded).toEqual(['PC6'])
    fireEvent.click(screen.getByRole('button', { name: 'Allow this leg again' }))
    expect(steps()).toEqual(['Keep PC6 free', 'Allow PC6 again'])
  })
})

describe('Power', () => {
  test('a second feed says what hangs on it; without it the loads go back to the rail', () => {
    const view = show(<PowerPage />, demo('signal-cabin'))
    expect(plain(view.container)).toMatch(/for Points, Crane: 2.76 A of 4 A/)
    fireEvent.change(screen.getByLabelText('Second feed, for heavy loads'), { target: { value: '' } })
    expect(steps()).toEqual(['Do without the second feed'])
    expect(design().needs.devices.filter((d) => d.fedBy)).toEqual([])
  })
  test('limits at the worst corner, with what is left', () => {
    show(<PowerPage />)
    expect(plain(rowOf(/^Regulator junction/))).toMatch(/Regulator junction106 °C125 °C18.6 °C/)
    expect(plain(rowOf(/^Drop-out margin/))).toMatch(/at least 0 V/)
  })
  test('another regulator, another source, none', async () => {
    show(<PowerPage />)
    // By its name alone: to look for it by its role among all that the page holds takes seconds.
    fireEvent.click(await screen.findByLabelText('Choose BR5 plain 5 V'))
    fireEvent.change(screen.getByLabelText('Source'), { target: { value: 'usb-port' } })
    fireEvent.change(screen.getByLabelText('Regulator'), { target: { value: '' } })
    expect(steps()).toEqual([
      'Regulate with BR5 plain 5 V',
      'Feed it from USB port',
      'Feed the rail without a regulator',
    ])
    expect(design().power).toEqual({ source: 'usb-port' })
  })
  test('sources in the place of the present one: which do, why others don’t, and one chosen', async () => {
    show(<PowerPage />)
    const table = await screen.findByRole('table', { name: 'Sources for this project' })
    const rows = () => [...table.querySelectorAll('tbody tr')].map(plain)
    // The regulator that stands 12 V makes 5 V of all that gives more; but not of a lead battery without a fuse. So many cells in a
    // row as it takes give more as well.
    expect(rows().map((r) => /(yes|no:)/.exec(r)![1])).toEqual(['yes', 'yes', 'yes', 'yes', 'yes', 'yes'])
    expect(rows().filter((r) => r.includes('in a row'))).toHaveLength(1)
    const more = within(table.closest('section')!).getByRole('button', { name: /^20 more that don’t do/ })
    fireEvent.click(more)
    expect(rows()).toHaveLength(26)
    expect(rows().find((r) => r.startsWith('lead battery'))).toMatch(
      /no: lead battery.* into a short, and there is no fuse.*(days|h|min)€/,
    )
    expect(rows().find((r) => r.startsWith('USB port'))).toMatch(
      /no: BL5 cool 5 V: it lacks \d+ mV at the lowest input: the output sags/,
    )
    fireEvent.click(more)
    expect(rows()).toHaveLength(6)
    fireEvent.click(screen.getByLabelText('Choose 9 V adapter'))
    expect(steps()).toEqual(['Feed it from 9 V adapter'])
  })
  test('on cells there is a runtime', () => {
    const cells = timer()
    cells.power = { source: 'cells-3-aa' }
    show(<PowerPage />, cells)
    expect(plain(rowOf(/Runtime on one set of cells/))).toMatch(/\d+ (h|days)/)
  })
  test('empty, it says what goes there', () => {
    const empty = timer()
    empty.needs.devices = []
    empty.chip = {}
    empty.power = {}
    show(<PowerPage />, empty)
    expect(screen.getByText(/Nothing draws current yet/)).toBeTruthy()
    expect(screen.getByText(/Choose a source above/)).toBeTruthy()
  })
})

describe('Build', () => {
  test('a part left out says what that risks, and can come back', () => {
    show(<BuildPage />)
    const tick = () => screen.getByLabelText('gate pull-down of Buzzer on the board')
    fireEvent.click(tick())
    expect(plain(tick().closest('tr'))).toMatch(
      /against the stance.*the gate floats: leakage can switch Buzzer on after 37 µs/,
    )
    fireEvent.click(tick())
    expect(steps()).toEqual(['Leave out the gate pull-down of Buzzer', 'Put in the gate pull-down of Buzzer'])
    expect(tick()).toHaveProperty('checked', true)
  })
  test.each([
    ['parts', /^4 ?ceramic capacitor ?100n|^3 ?ceramic capacitor ?100n/, 'All parts'],
    ['wiring', /I2C_SDAU1 TD8-28 DIP, 5 PA4R3 pull-up of I2C SDA, 2/, 'VPLUG'],
    ['steps', /leg 24 \(VCC\) against GND, before the chip goes inon4\.9 V to 5\.1 V/, 'Paper light'],
  ])('view %s', (view, row, also) => {
    show(<BuildPage />, timer(), `/?view=${view}`)
    expect(screen.getAllByRole('row').some((r) => row.test(plain(r)))).toBe(true)
    expect(screen.getAllByText(new RegExp(also)).length).toBeGreaterThan(0)
  })
  test('without a chip it says what is missing', () => {
    const bare = timer()
    bare.chip = {}
    show(<BuildPage />, bare)
    expect(screen.getByText(/it needs a chip/)).toBeTruthy()
    expect(screen.getByRole('link', { name: 'Choose a chip' })).toBeTruthy()
  })
})
