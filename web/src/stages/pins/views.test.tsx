// The views of the pins beside the plan: levels, pulls, sums, bytes, the passport and the stack, on real projects.

import { carrierOf } from '@root-board/core/carrier'
import type { Design } from '@root-board/core/design'
import { fireEvent, screen, within } from '@testing-library/react'
import { demo, design, library, show, steps, timer } from '../../../test/stage'
import { ChipDrawing } from './ChipDrawing'
import { Bytes } from './lines/Bytes'
import { Drive } from './lines/Drive'
import { Levels } from './lines/Levels'
import { Pulls } from './lines/Pulls'
import { Converters, Pulses } from './lines/Sums'
import { PassportView } from './PassportView'
import { StackView } from './StackView'

const plain = (element: Element | null | undefined) =>
  element?.textContent?.replace(/[\s\u202f]+/g, ' ') ?? ''
const row = (name: RegExp) => screen.getByRole('row', { name })

/** A 3.3 V chip with some devices at 5 V in front of its regulator. */
const mixed = (): Design => {
  const d = timer()
  return {
    ...d,
    needs: {
      ...d.needs,
      devices: [
        { id: 'd1', part: 'gas-sensor-5v', name: 'Gas', count: 1, fedBy: 'source' },
        { id: 'd2', part: 'relay-module', name: 'Relay', count: 1, fedBy: 'source' },
        { id: 'd3', part: 'line-display', name: 'Text', count: 1, wiring: 'byte', fedBy: 'source' },
        { id: 'd4', part: 'servo-small', name: 'Arm', count: 1, fedBy: 'source' },
        { id: 'd5', part: 'light-resistor', name: 'Dusk', count: 1 },
      ],
    },
    chip: { part: 'qm32-48', clock: { source: 'internal', frequency: 8e6 } },
    pins: { locks: {}, excluded: [], kept: {}, shifts: {} },
    power: { source: 'usb-port', regulator: 'bl33-low' },
  }
}

describe('Levels', () => {
  test('each line says what reaches its leg, what that stands, and how sure that is', () => {
    show(<Levels />, mixed())
    expect(plain(row(/^Gas/))).toMatch(/5 V.*3.23 V.*outside the sheet: up to 5 V reaches/)
    // 3.366 V less what its pull-down of 12 kΩ and 0.4 mA of leakage drop in 20 Ω of the strongest leg
    expect(plain(row(/^Relay/))).toMatch(/3.35 V.*guaranteed/)
  })
  test('what joins two voltages is named, and can be taken out again', () => {
    const d = mixed()
    d.pins.shifts = { 'd1.1.LVL': 'divider' }
    show(<Levels />, d)
    expect(plain(row(/^Gas/))).toMatch(/guaranteed.*divider/)
    fireEvent.click(screen.getByRole('button', { name: 'Make Gas plain again' }))
    expect(design().pins.shifts).toEqual({})
    expect(steps()).toEqual(['Make Gas a plain line'])
  })
})

describe('Pulls', () => {
  test('the window of each line, and what is fitted in it', () => {
    show(<Pulls />)
    expect(plain(row(/^I2C SDA.*100 kHz/))).toMatch(/1.57 kΩ.*8.2 kΩ of ours/)
    expect(plain(row(/^I2C SDA.*1 MHz/))).toMatch(/—$/)
    expect(plain(row(/^Start/))).toMatch(/10 kΩ of ours/)
  })
  test('the speed of the bus is chosen here', () => {
    show(<Pulls />)
    fireEvent.change(screen.getByLabelText('I2C runs at'), { target: { value: '400000' } })
    expect(design().needs.busSpeed).toBe(400e3)
    expect(plain(row(/^I2C SDA.*400 kHz/))).toMatch(/of ours/)
    fireEvent.change(screen.getByLabelText('I2C runs at'), { target: { value: '100000' } })
    expect(design().needs.busSpeed).toBeUndefined()
  })
  test('a further bus has a speed of its own', () => {
    const d = timer()
    d.needs.devices.find((x) => x.part === 'digit-display-4')!.bus = 2
    show(<Pulls />, d)
    expect(screen.queryByLabelText('I2C runs at')).toBeNull()
    fireEvent.change(screen.getByLabelText('I2C bus 2 runs at'), { target: { value: '400000' } })
    expect(design().needs).toMatchObject({ busSpeeds: { 2: 400e3 } })
    expect(plain(row(/^I2C 2 SDA.*400 kHz/))).not.toMatch(/—$/)
  })
  test('a line that nothing holds is said to float', () => {
    const d = timer()
    d.build.support['pull:d3.1.contact'] = 'out'
    show(<Pulls />, d)
    // The leg's own pull-up is there, once the program switches it on.
    expect(plain(row(/^Start/))).toMatch(/the leg’s own/)
  })
})

test('what the legs carry: each LED with and without its resistor, and all together', () => {
  const d = mixed()
  d.needs.devices = [
    { id: 'd1', part: 'lamp-red', name: 'Stop', count: 1 },
    { id: 'd2', part: 'lamp-white', name: 'Head', count: 2, settings: { 'light.current': 0.003 } },
  ]
  show(<Drive />, d)
  expect(plain(row(/^Stop/))).toMatch(/red.*guaranteed/)
  const numbers = (r: Element) =>
    within(r as HTMLElement)
      .getAllByRole('button')
      .map((b) => plain(b))
  // Without its resistor more flows, and the sum is of what is fitted.
  const [withIt, without] = numbers(row(/^Stop/))
  expect(parseFloat(without!)).toBeGreaterThan(parseFloat(withIt!))
  expect(plain(row(/^All legs together/))).toMatch(/mA.*mA.*mA.*guaranteed/)
})

test('readings: step, highest code and which way the number goes', () => {
  show(<Converters />, mixed())
  expect(plain(row(/^Gas/))).toMatch(/806 µV.*4095.*a higher voltage reads higher/)
  expect(plain(row(/^Dusk/))).toMatch(/the reading (rises|falls) as the sensor’s resistance falls/)
})

test('pulses: what the timer makes of 50 Hz at 8 MHz: 8 MHz / 3 / 50 Hz = 53333 steps', () => {
  show(<Pulses />, mixed())
  expect(plain(row(/^Arm/))).toMatch(/50 Hz.*50 Hz.*3.*53333.*375 ns/)
})

describe('Bytes', () => {
  const field = (name: string) => screen.getByLabelText<HTMLInputElement>(name)
  const bit = (n: number) => screen.getByRole('button', { name: `Bit ${n}` })
  test('each base follows the others, and the legs follow all', () => {
    show(<Bytes />, mixed())
    fireEvent.change(field('hexadecimal'), { target: { value: 'A5' } })
    fireEvent.blur(field('hexadecimal'))
    expect(field('binary').value).toBe('10100101')
    expect(field('decimal').value).toBe('165')
    expect([7, 6, 5, 4, 3, 2, 1, 0].map((n) => bit(n).textContent === 'high')).toEqual([
      true,
      false,
      true,
      false,
      false,
      true,
      false,
      true,
    ])
    fireEvent.click(bit(1))
    expect(field('decimal').value).toBe('167')
    expect(
      screen.getByText(/In order on port P[AB]: write 0x[0-9A-F]+ under the mask 0x[0-9A-F]+/),
    ).toBeTruthy()
  })
  test('what is no number of eight bits is refused in words, and the pattern stays', () => {
    show(<Bytes />, mixed())
    fireEvent.change(field('decimal'), { target: { value: '300' } })
    expect(screen.getByText('no decimal number of 8 bits')).toBeTruthy()
    expect(field('binary').value).toBe('00000101')
    fireEvent.blur(field('decimal'))
    expect(field('decimal').value).toBe('5')
  })
})

describe('Passport', () => {
  const page = () => screen.getByRole('article')
  test('a leg goes by its names on chip, boards, expansion boards and devices', () => {
    show(<PassportView />, demo('signal-cabin'), '/?leg=PA6')
    const text = plain(page())
    for (const name of ['leg 13', 'PA6', 'number 2', 'T2', 'PB2', 'P1', 'Points S1'])
      expect(text).toContain(name)
    expect(text).toMatch(/Recommended, by the board6 mA/)
    expect(text).toMatch(/Points, to the device: guaranteed/)
  })
  test.each([
    ['P1', 'T2'],
    ['number 2', undefined],
    ['PB13', 'DA'],
    ['Crane K1', 'T4'],
    ['T13', 'T13'],
  ])('typed “%s” it finds %s', (text, place) => {
    show(<PassportView />, demo('signal-cabin'))
    fireEvent.change(screen.getByLabelText('Any name of a leg'), { target: { value: text } })
    if (place) expect(page().getAttribute('aria-label')).toBe(`Passport of ${place}`)
    else expect(screen.getByRole('group', { name: 'Legs of that name' }).children.length).toBeGreaterThan(0)
  })
  test('what no board calls a leg is said', () => {
    show(<PassportView />, demo('signal-cabin'))
    fireEvent.change(screen.getByLabelText('Any name of a leg'), { target: { value: 'zz9' } })
    expect(screen.getByText(/No leg is called that/)).toBeTruthy()
  })
  test('straps and start-up are told as facts', () => {
    show(<PassportView />, { ...demo('hive-scale') }, '/?leg=P03')
    expect(plain(page())).toMatch(/Sampled at reset, must be high: low means waits for a download/)
  })
})

describe('Stack', () => {
  test('who uses which position, what lies idle, and the links the plan set', () => {
    show(<StackView />, demo('signal-cabin'))
    expect(plain(row(/^T4 /))).toMatch(/R3 K1/)
    expect(plain(row(/^T7 /))).toMatch(/P3 S3.*R1, not used/)
    expect(screen.getByText(/Set shunts R: relays at R3 and R4/)).toBeTruthy()
    expect(screen.getByText(/Passed on from board to board: IN, GND, V33, RST/)).toBeTruthy()
  })
  test('an overlap shows on its row; another link clears it', () => {
    const d = demo('signal-cabin')
    d.needs.devices.find((x) => x.id === 'd2')!.wiring = 'outer'
    show(<StackView />, d)
    expect(plain(row(/^T7 /))).toMatch(/taken twice.*taken twice/)
    const crane = screen.getAllByRole('listitem').find((li) => plain(li).startsWith('Crane'))!
    fireEvent.change(within(crane).getByRole('combobox'), { target: { value: '' } })
    expect(plain(row(/^T7 /))).not.toMatch(/taken twice/)
    expect(steps()).toEqual(['Let the plan choose the wiring of Crane'])
  })
  test('without a header it says what to do', () => {
    const d = demo('signal-cabin')
    show(<StackView />, { ...d, chip: { part: 'qm32-64' } })
    expect(screen.getByText(/QM32-64 has none: choose a board with a trestle header/)).toBeTruthy()
  })
})

describe('the drawing', () => {
  const draw = (id: string) => {
    const chip = carrierOf(library, id)!
    show(
      <ChipDrawing
        chip={chip}
        signal={undefined}
        reach={undefined}
        chosen={undefined}
        choose={() => undefined}
      />,
    )
    return screen.getAllByRole('group').map((g) => within(g).getAllByRole('button').length)
  }
  test.each([
    ['td8-08-dip', [4, 4]],
    ['qm32-48', [24, 24]],
    ['qm32-144', [36, 36, 36, 36]],
  ])('%s has its legs on its sides, all there, and one way in by Tab for each side', (id, sides) => {
    expect(draw(id)).toEqual(sides)
    const stops = screen.getAllByRole('button').filter((b) => b.tabIndex === 0)
    expect(stops).toHaveLength(sides.length)
  })
  test('arrows walk down a side', () => {
    draw('qm32-144')
    const [first, second] = screen.getAllByRole('button')
    first!.focus()
    fireEvent.keyDown(first!, { key: 'ArrowDown' })
    expect(document.activeElement).toBe(second)
  })
  test('a board’s header positions are named by their ends, and by no side of a package', () => {
    draw('trestle-32')
    // The first is IN and the fourteenth T2, by the file; the others run from T3 to CL, the last one first.
    expect(screen.getAllByRole('group').map((g) => g.getAttribute('aria-label'))).toEqual([
      'IN to T2',
      'CL to T3',
    ])
    expect(screen.getByRole('region', { name: 'Header positions of Trestle 32' })).toBeTruthy()
  })
})
