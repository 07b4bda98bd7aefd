import type { Worked } from '@root-board/core/findings'
import { fireEvent, render, screen } from '@testing-library/react'
import { Expectation } from './Expectation'
import { Num } from './Num'
import { QuantityField } from './QuantityField'

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
  test('opens its working, and the working of what it stands on', () => {
    render(<Num worked={worked} />)
    fireEvent.click(screen.getByRole('button'))
    const dialog = screen.getByRole('dialog')
    expect(dialog.textContent).toContain('I = V_DD / R')
    expect(dialog.textContent).toContain('5 V / 10 kΩ')
    expect(dialog.textContent).toContain('parts list')
    fireEvent.click(screen.getByText('worked out: show how'))
    expect(dialog.textContent).toContain('V_DD = V_out')
    fireEvent.click(screen.getByText('Pull-up current'))
    expect(dialog.textContent).toContain('A note.')
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
