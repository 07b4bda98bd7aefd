// The controls of every page: what they are called, what they hand on, what they say when it is wrong.

import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { Fold } from './Fold'
import { FileButton } from './FileButton'
import { Choice, TextInput, Tick } from './inputs'
import { Labelled } from './Labelled'
import { Marks } from './Mark'
import { NameInput } from './NameInput'

const web = join(__dirname, '..')

test('a choice of numbers hands on the number, and only one of its own', () => {
  const chosen: number[] = []
  const options = [100, 400].map((value) => ({ value, label: `${value} kHz` }))
  render(<Choice label="Speed" value={100} options={options} onChange={(v) => chosen.push(v)} />)
  const list = screen.getByRole<HTMLSelectElement>('combobox', { name: 'Speed' })
  expect([list.value, [...list.options].map((o) => o.text)]).toEqual(['100', ['100 kHz', '400 kHz']])
  fireEvent.change(list, { target: { value: '400' } })
  expect(chosen).toEqual([400])
})

test('a tick is pressed by its words too; without words it still has a name', () => {
  const On = () => {
    const [on, setOn] = useState(false)
    return (
      <Tick checked={on} onChange={setOn}>
        The program uses a radio
      </Tick>
    )
  }
  render(<On />)
  const box = screen.getByRole<HTMLInputElement>('checkbox', { name: 'The program uses a radio' })
  fireEvent.click(screen.getByText('The program uses a radio'))
  expect(box.checked).toBe(true)
  render(<Tick checked label="Compare" onChange={() => undefined} />)
  expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Compare' }).checked).toBe(true)
})

test('a field that is wrong says so to those who see it and to those who hear it', () => {
  render(
    <Labelled name="Supply" serves="for the pump" fault="At most 60 V">
      {(own) => <TextInput {...own} value="70 V" onChange={() => undefined} />}
    </Labelled>,
  )
  const field = screen.getByRole('textbox', { name: 'Supply for the pump' })
  expect(field.getAttribute('aria-invalid')).toBe('true')
  expect(document.getElementById(field.getAttribute('aria-describedby')!)?.textContent).toBe('At most 60 V')
  // In a line of text: no block of its own.
  expect(field.parentElement!.tagName).toBe('SPAN')
})

test('what is folded away is not there; its heading says whether it is open', () => {
  const Page = () => {
    const [open, setOpen] = useState(false)
    return (
      <Fold title="Legs: 28" open={open} onOpen={setOpen}>
        leg 1
      </Fold>
    )
  }
  render(<Page />)
  const heading = screen.getByRole('button', { name: 'Legs: 28' })
  expect([heading.getAttribute('aria-expanded'), screen.queryByText('leg 1')]).toEqual(['false', null])
  fireEvent.click(heading)
  expect([heading.getAttribute('aria-expanded'), screen.queryByText('leg 1') !== null]).toEqual([
    'true',
    true,
  ])
})

test('the same file can be brought twice', () => {
  const brought: string[] = []
  render(
    <FileButton label="Part file" onFile={(f) => brought.push(f.name)}>
      Bring a file
    </FileButton>,
  )
  const field = screen.getByLabelText<HTMLInputElement>('Part file')
  for (let n = 0; n < 2; n++) fireEvent.change(field, { target: { files: [new File([], 'a.json')] } })
  expect(brought).toEqual(['a.json', 'a.json'])
})

test('marks: how many of each, the worst first, nothing for none', () => {
  const of = (severity: 'stops' | 'risks' | 'notes') => ({ severity }) as never
  const { container } = render(<Marks findings={[of('notes'), of('stops'), of('notes')]} />)
  expect([...container.querySelectorAll('span')].map((s) => s.title)).toEqual([
    '1: stops the work',
    '2: worth knowing',
  ])
})

test('a name counts with Enter and when its field is left, once; not with Esc, and not when there is none', () => {
  const names: string[] = []
  let left = 0
  render(
    <NameInput
      label="Name"
      value="Pump"
      maxLength={80}
      onRename={(to) => names.push(to)}
      onLeave={() => left++}
    />,
  )
  const field = screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' })
  const type = (text: string) => {
    act(() => field.focus())
    fireEvent.change(field, { target: { value: text } })
  }
  type(' Fountain ')
  fireEvent.keyDown(field, { key: 'Enter' })
  expect([names, left, document.activeElement === field]).toEqual([['Fountain'], 1, false])
  type('Not this')
  fireEvent.keyDown(field, { key: 'Escape' })
  expect([names, left, field.value]).toEqual([['Fountain'], 2, 'Pump'])
  for (const same of ['  ', 'Pump ']) {
    type(same)
    act(() => field.blur())
  }
  expect([names, left, field.value]).toEqual([['Fountain'], 4, 'Pump'])
  type('Well')
  act(() => field.blur())
  expect(names).toEqual(['Fountain', 'Well'])
})

test('style sheets hold drawings and print, and no more: everything else has its look beside it', () => {
  const sheets = readdirSync(web, { recursive: true, encoding: 'utf8' }).filter((f) => f.endsWith('.css'))
  const lines = (of: (name: string) => boolean) =>
    sheets
      .filter(of)
      .reduce((sum, name) => sum + readFileSync(join(web, name), 'utf8').trimEnd().split('\n').length, 0)
  expect(sheets.map((f) => f.split('/').at(-1)).sort()).toEqual(['pins.css', 'power.css', 'print.css'])
  expect(lines((name) => !name.endsWith('print.css'))).toBeLessThanOrEqual(500)
})
