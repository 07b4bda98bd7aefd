// What several pages share, control by control.

jest.mock('../worker/client', () => ({ questions: {} }))

import type { Preview } from '@root-board/core/analysis'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import type { Finding, Shown } from '@root-board/core/findings'
import { show, timer } from '../../test/stage'
import { useProject } from '../store/project'
import { onArrowKeys } from '../kit/arrow-list'
import { Columns, hidden, right, Table } from '../kit/Table'
import { commandKeys } from './keys'
import { LookLonger } from './LookLonger'
import { Mark } from '../kit/Mark'
import { Num } from '../kit/Num'
import { PreviewedFix } from './PreviewedFix'
import { SourceSelect } from './SourceSelect'
import { useStage } from './analysis'

describe('the list of sources', () => {
  const options = () => [...screen.getByRole('combobox').querySelectorAll('option')].map((o) => o.text)
  test('goes by voltage, and says what is chosen', () => {
    show(<SourceSelect id="s" />, timer())
    const names = options()
    // 2.5 V of two cells before 12 V of an adapter before 24 V.
    const at = (pattern: RegExp) => names.findIndex((n) => pattern.test(n))
    expect(at(/two|2 ?×|2 AA|2 cells/i)).toBeGreaterThanOrEqual(0)
    expect(at(/two|2 ?×|2 AA|2 cells/i)).toBeLessThan(at(/5 V/))
    expect(at(/5 V/)).toBeLessThan(at(/9 V/))
    expect(at(/9 V/)).toBeLessThan(at(/12 V/))
    expect(names).not.toContain('choose …')
    expect(screen.getByRole<HTMLSelectElement>('combobox').value).toBe('adapter-12v')
  })
  test('chooses, once there is one no longer none; a second feed can go again', () => {
    show(<SourceSelect id="s" />, { ...timer(), power: {} })
    expect(options()[0]).toBe('choose …')
    fireEvent.change(screen.getByRole('combobox'), { target: { value: 'adapter-9v' } })
    expect(useProject.getState().design?.power.source).toBe('adapter-9v')
  })
  test('of the second feed', () => {
    show(<SourceSelect id="s" feed />, timer())
    expect(options()[0]).toBe('none')
    const choose = (value: string) => fireEvent.change(screen.getByRole('combobox'), { target: { value } })
    choose('adapter-5v')
    expect(useProject.getState().design?.power).toMatchObject({ source: 'adapter-12v', feed: 'adapter-5v' })
    choose('')
    expect(useProject.getState().design?.power.feed).toBeUndefined()
  })
  test('what is chosen and no longer in the library is shown as that, and is not chosen anew', () => {
    show(<SourceSelect id="s" />, { ...timer(), power: { source: 'old-plug' } })
    const field = screen.getByRole<HTMLSelectElement>('combobox')
    expect(field.selectedOptions[0]!.text).toBe('old-plug, not in the library')
    fireEvent.change(field, { target: { value: 'usb-port' } })
    expect(useProject.getState().design?.power.source).toBe('usb-port')
  })
  test('a board that guards a lithium cell stays for another, and goes with the last one, in one step', () => {
    const lead = { wire: 'wire-0-5', length: 0.2, protection: 'cg42-single' }
    const power = () => useProject.getState().design?.power
    show(<SourceSelect id="s" />, { ...timer(), power: { source: 'cell-pouch-bare', lead, feedLead: lead } })
    const choose = (value: string) => fireEvent.change(screen.getByRole('combobox'), { target: { value } })
    choose('cell-pouch-2ah')
    expect(power()).toEqual({ source: 'cell-pouch-2ah', lead, feedLead: lead })
    choose('adapter-9v')
    expect(power()).toEqual({
      source: 'adapter-9v',
      lead: { wire: 'wire-0-5', length: 0.2 },
      feedLead: lead,
    })
    expect(useProject.getState().done.map((d) => d.label)).toEqual([
      'Feed it from lithium pouch cell, 2 Ah',
      'Feed it from 9 V adapter',
    ])
  })
})

test('up and down through a list: held at both ends, to the first and the last, other keys left alone', () => {
  render(
    <div onKeyDown={onArrowKeys} data-testid="list">
      {['a', 'b', 'c'].map((n) => (
        <button key={n} data-item>
          {n}
        </button>
      ))}
    </div>,
  )
  const list = screen.getByTestId('list')
  const press = (key: string) => {
    const untouched = fireEvent.keyDown(list, { key })
    return [document.activeElement?.textContent, !untouched]
  }
  screen.getByText('a').focus()
  expect(press('ArrowDown')).toEqual(['b', true])
  expect(press('ArrowDown')).toEqual(['c', true])
  expect(press('ArrowDown')).toEqual(['c', true])
  expect(press('ArrowUp')).toEqual(['b', true])
  expect(press('Home')).toEqual(['a', true])
  expect(press('ArrowUp')).toEqual(['a', true])
  expect(press('End')).toEqual(['c', true])
  expect(press('x')).toEqual(['c', false])
})

describe('a change that says what it would do', () => {
  const finding = (id: string, severity = 'risks') => ({ id, severity, text: `text of ${id}` }) as Finding
  const fix = { label: 'Call it other', edits: [{ kind: 'renameProject' as const, name: 'Other' }] }
  const told = (known: Preview, asked?: { close: () => void }) => {
    const { unmount } = show(<PreviewedFix fix={fix} known={known} asked={asked} />, timer())
    fireEvent.click(screen.getByRole('button', { name: 'Call it other' }))
    const items = screen.getAllByRole('listitem').map((li) => li.textContent)
    return { items, unmount }
  }
  test.each<[string, Preview, string[]]>([
    ['nothing', { lines: [], cleared: [], appearing: [] }, ['nothing that is computed here']],
    ['one finding', { lines: [], cleared: [finding('a')], appearing: [] }, ['clears this finding']],
    [
      'two findings, and one that comes',
      { lines: ['x'], cleared: [finding('a'), finding('b')], appearing: [finding('c')] },
      ['clears 2 findings', 'brings up: text of c', 'x'],
    ],
    ['ten lines', { lines: [...'0123456789'], cleared: [], appearing: [] }, [...'01234567', 'and 2 more']],
    ['eight lines', { lines: [...'01234567'], cleared: [], appearing: [] }, [...'01234567']],
  ])('%s', (_, preview, items) => expect(told(preview).items).toEqual(items))
  test('is done when pressed again, and not when it is put off', () => {
    told({ lines: [], cleared: [], appearing: [] })
    const before = useProject.getState().design?.name
    fireEvent.click(screen.getByRole('button', { name: 'Not now' }))
    expect(useProject.getState().design?.name).toBe(before)
    expect(screen.queryByRole('list')).toBeNull()
    fireEvent.click(screen.getByRole('button', { name: 'Call it other' }))
    fireEvent.click(screen.getByRole('button', { name: 'Do it' }))
    expect(useProject.getState().design?.name).toBe('Other')
    expect(useProject.getState().done.map((s) => s.label)).toEqual(['Call it other'])
  })
  test('one that is open follows what is known by now; none is opened while that is of before', () => {
    const Asked = () => {
      const [round, setRound] = useState(0)
      const known: Preview = { lines: [`round ${round}`], cleared: [], appearing: [] }
      return (
        <>
          <button onClick={() => setRound(round + 1)}>Answer</button>
          <PreviewedFix fix={fix} known={known} stale={round === 0} />
        </>
      )
    }
    show(<Asked />, timer())
    const open = screen.getByRole('button', { name: 'Call it other' })
    expect((open as HTMLButtonElement).disabled).toBe(true)
    fireEvent.click(screen.getByRole('button', { name: 'Answer' }))
    fireEvent.click(open)
    expect(screen.getByRole('listitem').textContent).toBe('round 1')
    fireEvent.click(screen.getByRole('button', { name: 'Answer' }))
    expect(screen.getByRole('listitem').textContent).toBe('round 2')
  })
})

test('a number can be reached and says what pressing it does; its size is measured by its digits', () => {
  const worked: Shown = { label: 'Rail', symbol: 'V', value: { min: 4.9, typ: 5, max: 5.123456 }, unit: 'V' }
  render(<Num worked={worked} show="max" digits={2} />)
  const button = screen.getByRole('button', { name: /5/ })
  expect(button.title).toBe('Rail: show the working')
  expect(button.textContent?.replace(/\s/g, ' ')).toBe('5.1 V')
  expect(button.getAttribute('aria-expanded')).toBe('false')
})

test('a number of another page, opened where no project is, says so', async () => {
  render(<Num worked={{ label: 'Rail', symbol: 'V', value: { min: 4, typ: 5, max: 6 }, unit: 'V' }} />)
  fireEvent.click(screen.getByRole('button'))
  expect((await screen.findByRole('alert')).textContent).toMatch(
    /could not be fetched \(no project is open\)/,
  )
})

test('a head of columns: numbers at the right, what the eye needs no name for is still named', () => {
  render(
    <Table>
      <Columns of={['Part', right('Price'), hidden('Fitted')]} />
    </Table>,
  )
  const heads = screen.getAllByRole('columnheader')
  expect(
    heads.map((h) => [
      h.textContent,
      getComputedStyle(h).textAlign,
      h.querySelector('.visually-hidden') !== null,
    ]),
  ).toEqual([
    ['Part', 'left', false],
    ['Price', 'right', false],
    ['Fitted', 'left', true],
  ])
})

test('each severity has a shape and a word of its own', () => {
  render(
    <>
      <Mark severity="stops" />
      <Mark severity="risks" size={20} />
      <Mark severity="notes" />
    </>,
  )
  const marks = screen.getAllByRole('img')
  expect(marks.map((m) => m.getAttribute('aria-label'))).toEqual([
    'stops the work',
    'a risk',
    'worth knowing',
  ])
  expect(new Set(marks.map((m) => m.querySelector('path')!.getAttribute('d'))).size).toBe(3)
  expect(marks.map((m) => m.getAttribute('width'))).toEqual(['13', '20', '13'])
})

describe('looking longer', () => {
  test.each([
    [undefined, 0, 'Looking: no plan yet. Enough'],
    [undefined, 30, 'Looking: no plan yet; none costs less than 30. Enough'],
    [40, 30, 'Looking: best so far 40 points; none costs less than 30. Enough'],
    [0, 0, 'Looking: best so far 0 points. Enough'],
  ])('best %s, bound %s', (best, bound, words) => {
    const enough = jest.fn()
    show(<LookLonger />, timer(), '/', { looking: { looking: { best, bound }, enough } })
    expect(screen.getByRole('status').textContent).toBe(words)
    fireEvent.click(screen.getByRole('button', { name: 'Enough' }))
    expect(enough).toHaveBeenCalledTimes(1)
  })
  test('begins when asked to', () => {
    const lookLonger = jest.fn()
    show(<LookLonger />, timer(), '/', { looking: { lookLonger } })
    fireEvent.click(screen.getByRole('button'))
    expect(lookLonger).toHaveBeenCalledTimes(1)
  })
})

test('a single key is a command, but not where one types or chooses from a list', () => {
  const at = (html: string) => {
    document.body.innerHTML = html
    return commandKeys.ignoreEventWhen({
      target: document.body.firstElementChild,
    } as unknown as KeyboardEvent)
  }
  const cases: [string, boolean][] = [
    ['<input type="text">', true],
    ['<input>', true],
    ['<input type="number">', true],
    ['<input type="search">', true],
    ['<input type="checkbox">', false],
    ['<input type="radio">', false],
    ['<textarea></textarea>', true],
    ['<select></select>', true],
    ['<button></button>', false],
    ['<p></p>', false],
  ]
  for (const [html, typing] of cases) expect([html, at(html)]).toEqual([html, typing])
})

test('a page that needs the open project says so where there is none', () => {
  const Page = () => <p>{useStage().design.name}</p>
  const silent = jest.spyOn(console, 'error').mockImplementation(() => undefined)
  expect(() => render(<Page />)).toThrow()
  silent.mockRestore()
})
