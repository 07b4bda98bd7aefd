import type { Worked } from '@root-board/core/findings'
import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { useState } from 'react'
import { show, timer } from '../../test/stage'
import { useStage } from './analysis'
import { Expectation } from '../kit/Expectation'
import { Num } from '../kit/Num'
import { LimitTable } from '../stages/power/LimitTable'
import { QuestionFailed, useAsked } from './use-asked'
import { Waiting } from './Waiting'
import { useProject } from '../store/project'
import { QuantityField } from '../kit/QuantityField'

jest.mock('../worker/client', () => ({ endQuestions: () => undefined }))

const inner: Worked = {
  label: 'Rail voltage',
  symbol: 'V_DD',
  value: { min: 4.9, typ: 5, max: 5.1 },
  unit: 'V',
  formula: 'V_out',
  inputs: [],
}
const worked: Worked = {
  label: 'Pull-up current',
  symbol: 'I',
  value: { min: 0.00049, typ: 0.0005, max: 0.00051 },
  unit: 'A',
  formula: 'V_DD / R',
  inputs: [
    {
      symbol: 'V_DD',
      label: 'Rail voltage',
      value: inner.value,
      unit: 'V',
      origin: { kind: 'worked', of: inner },
    },
    {
      symbol: 'R',
      label: 'pull-up',
      value: { min: 1e4, typ: 1e4, max: 1e4 },
      unit: 'Ω',
      origin: { kind: 'rule', source: 'parts list' },
    },
  ],
  note: 'A note.',
}

describe('a number', () => {
  test.each([
    ['typ', '500 µA'],
    ['max', '510 µA'],
    ['range', '490 … 510 µA'],
  ] as const)('shown as %s', (show, text) => {
    render(<Num worked={worked} show={show} />)
    expect(screen.getByRole('button').textContent?.replace(/\s/g, ' ')).toBe(text)
  })
  test('opens its working, and the working of what it stands on', async () => {
    render(<Num worked={worked} />)
    fireEvent.click(screen.getByRole('button'))
    const dialog = screen.getByRole('dialog')
    await screen.findByText('Copy the working')
    expect(dialog.textContent).toContain('I = V_DD / R')
    expect(dialog.textContent).toContain('5 V / 10 kΩ')
    expect(dialog.textContent).toContain('parts list')
    fireEvent.click(screen.getByText('worked out: show how'))
    expect(dialog.textContent).toContain('V_DD = V_out')
    fireEvent.click(screen.getByText('Pull-up current'))
    expect(dialog.textContent).toContain('A note.')
  })
  const Work = () => <Num worked={useStage().analysis.power.work} />
  test('one of the analysis asks how it was worked out, for what it stands on too', async () => {
    show(<Work />)
    fireEvent.click(screen.getByRole('button'))
    // The current at work adds up what each consumer draws, the lamps' among it.
    expect(await screen.findByText(/I_1 \+ I_2/)).toBeTruthy()
    const dialog = screen.getByRole('dialog')
    fireEvent.click(screen.getAllByText('worked out: show how')[0]!)
    expect(dialog.textContent).toMatch(/usual/)
  })
  test('a sum that the page made asks for what it stands on, and copies it whole', async () => {
    const written: string[] = []
    Object.assign(navigator, {
      clipboard: { writeText: (t: string) => Promise.resolve(void written.push(t)) },
    })
    show(<LimitTable />)
    // allowed 1 A less what the source gives at most
    const source = screen.getByRole('row', { name: /^Source/ })
    fireEvent.click(within(source).getAllByRole('button')[1]!)
    const dialog = screen.getByRole('dialog')
    expect(await within(dialog).findByText(/left = limit − used/)).toBeTruthy()
    await act(async () => void fireEvent.click(within(dialog).getByText('Copy the working')))
    expect(written[0]).toMatch(/I_source = I_rail \+ I_q/)
    fireEvent.click(within(dialog).getByText('worked out: show how'))
    expect(dialog.textContent).toContain('I_source = I_rail + I_q')
    fireEvent.click(within(dialog).getAllByText('worked out: show how')[0]!)
    expect(dialog.textContent).toContain('I_work = I_1 + I_2')
  })
  test('straight from cells the lowest supply is that under load: 1.8 V less 0.6 Ω times the current is too low', () => {
    const d = timer()
    d.power = { source: 'cells-2-aa' }
    show(<LimitTable />, d)
    const numbers = (name: RegExp) =>
      within(screen.getByRole('row', { name }))
        .getAllByRole('button')
        .map((n) => Number.parseFloat(n.textContent.replace('−', '-')))
    const [milliamperes] = numbers(/^Source/)
    const [volts, left] = numbers(/^Chip supply, lowest/)
    expect(volts).toBeCloseTo(1.8 - 0.6 * milliamperes! * 1e-3, 2)
    // in millivolts, below zero
    expect(left).toBeCloseTo((volts! - 1.8) * 1000, -1)
    expect(left).toBeLessThan(-50)
  })
  test.each([
    ['the worker fails', () => Promise.reject(new Error('gone')), 'gone'],
    ['the worker has gone on', () => Promise.resolve(undefined), 'the project has changed meanwhile'],
  ])('where %s, it is said, and the number stays', async (_, workingOf, why) => {
    show(<Work />, timer(), '/', { looking: { workingOf } })
    const number = screen.getByRole('button').textContent
    fireEvent.click(screen.getByRole('button'))
    expect((await screen.findByRole('alert')).textContent).toContain(why)
    expect(screen.getByRole('dialog').textContent).toContain(number.split('\u202f')[0])
  })
})

describe('a question about the open design', () => {
  type Answer = { resolve: (text: string) => void; reject: (error: Error) => void }
  const answers: Answer[] = []
  const ask = () => new Promise<string>((resolve, reject) => answers.push({ resolve, reject }))
  const Shown = ({ of }: { of: typeof ask | undefined }) => {
    const { answer, current, failed, again } = useAsked(of)
    return (
      <>
        <p data-testid="asked">{`${answer ?? 'nothing'}${current ? '' : ', of before'}${failed ? `, ${failed}` : ''}`}</p>
        {failed && <QuestionFailed why={failed} again={again} />}
      </>
    )
  }
  const told = () => screen.getByTestId('asked').textContent
  const rename = (name: string) => act(() => useProject.getState().edit({ kind: 'renameProject', name }))
  beforeEach(() => (answers.length = 0))
  test('an answer that comes late never replaces that to a newer question', async () => {
    show(<Shown of={ask} />)
    expect(told()).toBe('nothing, of before')
    rename('B')
    await act(async () => answers[1]!.resolve('second'))
    expect(told()).toBe('second')
    await act(async () => answers[0]!.resolve('first'))
    expect(told()).toBe('second')
    rename('C')
    // Until it is answered anew the last answer stands, and is known to be of before.
    expect(told()).toBe('second, of before')
    await act(async () => answers[2]!.reject(new Error('stopped')))
    expect(told()).toBe('nothing, stopped')
  })
  test('a failure of an older question is not told of a newer one', async () => {
    show(<Shown of={ask} />)
    rename('B')
    await act(async () => answers[0]!.reject(new Error('old')))
    await act(async () => answers[1]!.resolve('second'))
    expect(told()).toBe('second')
  })
  test('one that failed is asked again by a press; one that is opened again is asked anew', async () => {
    const Folded = () => {
      const [open, setOpen] = useState(true)
      return (
        <>
          <button onClick={() => setOpen(!open)}>Fold</button>
          {open && <Shown of={ask} />}
        </>
      )
    }
    show(<Folded />)
    await act(async () => answers[0]!.reject(new Error('gone')))
    expect(told()).toBe('nothing, gone')
    fireEvent.click(screen.getByRole('button', { name: 'Ask again' }))
    // Under way: the failure is told no more, and nothing can be pressed twice.
    await screen.findByText('nothing, of before')
    expect(screen.queryByRole('button', { name: 'Ask again' })).toBeNull()
    await act(async () => answers[1]!.resolve('half, for it was stopped'))
    expect(told()).toBe('half, for it was stopped')
    fireEvent.click(screen.getByRole('button', { name: 'Fold' }))
    await act(async () => new Promise((done) => setTimeout(done, 10)))
    fireEvent.click(screen.getByRole('button', { name: 'Fold' }))
    expect(told()).toBe('nothing, of before')
    await act(async () => answers[2]!.resolve('whole'))
    expect(told()).toBe('whole')
  })
  test('an answer to another question is none to this one', async () => {
    const other = () => new Promise<string>(() => undefined)
    const Two = () => {
      const [first, setFirst] = useState(true)
      return (
        <>
          <button onClick={() => setFirst(false)}>Other</button>
          <Shown of={first ? ask : other} />
        </>
      )
    }
    show(<Two />)
    await act(async () => answers[0]!.resolve('first'))
    fireEvent.click(screen.getByRole('button', { name: 'Other' }))
    expect(told()).toBe('nothing, of before')
  })
  test('without a question nothing is asked', () => {
    show(<Shown of={undefined} />)
    expect([answers.length, told()]).toEqual([0, 'nothing, of before'])
  })
})

describe('a field for quantities', () => {
  const field = (props: Partial<Parameters<typeof QuantityField>[0]> = {}) => {
    const onChange = jest.fn()
    render(
      <QuantityField
        label="LED current"
        unit="A"
        value={0.005}
        min={0.0001}
        max={0.2}
        onChange={onChange}
        {...props}
      />,
    )
    const input = screen.getByLabelText('LED current')
    return {
      onChange,
      input,
      type: (text: string) => {
        fireEvent.change(input, { target: { value: text } })
        fireEvent.blur(input)
      },
    }
  }
  test.each([
    ['8m', 0.008],
    ['8 mA', 0.008],
    ['0,01', 0.01],
    ['1m5', 0.0015],
  ])('“%s” is read as %d', (text, value) => {
    const { onChange, type } = field()
    type(text)
    expect(onChange).toHaveBeenCalledWith(value)
  })
  test.each([
    ['many', /“many” is not a number in A/],
    ['5 V', /is not in A/],
    ['3 A', /At most 200 mA/],
    ['1 µA', /At least 100 µA/],
  ])('“%s” is refused beside the field, and nothing is changed', (text, words) => {
    const { onChange, input, type } = field()
    type(text)
    expect(screen.getByRole('alert').textContent).toMatch(words)
    expect(input.getAttribute('aria-invalid')).toBe('true')
    expect(onChange).not.toHaveBeenCalled()
    fireEvent.keyDown(input, { key: 'Escape' })
    expect(input).toHaveProperty('value', '5 mA')
  })
  test('emptied, it is lifted where that is allowed, else it stays', () => {
    const first = field({ optional: true })
    first.type(' ')
    expect(first.onChange).toHaveBeenCalledWith(null)
  })
  test('what is unchanged is no change', () => {
    const { onChange, type } = field()
    type('5 mA')
    expect(onChange).not.toHaveBeenCalled()
  })
})

test.each([
  [{ min: 4.9, max: 5.1, unit: 'V' as const }, '4.9 V to 5.1 V'],
  [{ min: 1e6, unit: 'Ω' as const }, 'more than 1 MΩ'],
  [{ max: 1, unit: 'Ω' as const }, 'less than 1 Ω'],
])('an expectation %j', (expect_, text) => {
  const { container } = render(
    <Expectation check={{ where: 'x', powered: false, expect: expect_, otherwise: 'y' }} />,
  )
  expect(container.textContent?.replace(/\s/g, ' ')).toBe(text)
})

test('an answer that takes longer than half a second can be ended; a quick one shows nothing to press', () => {
  jest.useFakeTimers()
  let stopped = 0
  render(<Waiting words="Trying what may help …" stop={() => stopped++} />)
  act(() => void jest.advanceTimersByTime(499))
  expect([screen.getByRole('status').textContent?.trim(), screen.queryByRole('button')]).toEqual([
    'Trying what may help …',
    null,
  ])
  act(() => void jest.advanceTimersByTime(2))
  const stop = screen.getByRole<HTMLButtonElement>('button', { name: 'Stop' })
  fireEvent.click(stop)
  expect([stopped, stop.disabled]).toEqual([1, true])
  jest.useRealTimers()
})
