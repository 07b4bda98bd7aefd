// Root, gauges and top bar around a real analysis.

import { Boundary } from './Boundary'
import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { design, show, steps, timer } from '../../test/stage'
import { useLocation } from 'react-router'
import { useProject } from '../store/project'
import { Gauges } from './Gauges'
import { Keys } from './Keys'
import { Root } from './Root'
import { KeptNowhere } from './ProjectBits'
import { TopBar } from './TopBar'
import { useFrame } from './frame-state'

jest.mock('../worker/client', () => jest.requireActual<object>('../../test/questions'))

const words = (element: Element) => element.textContent?.replace(/\s+/g, ' ') ?? ''
const gauge = (label: string) => words(screen.getByText(label).closest('.gauge')!)

describe('the root', () => {
  const states = () =>
    within(screen.getByRole('navigation', { name: 'Stages' }))
      .getAllByRole('link')
      .map((l) => words(l))
  test('settled from top to bottom on the demo', () => {
    show(<Root />)
    expect(states()).toEqual(['Needssettled', 'Chipsettled', 'Pinssettled', 'Powersettled', 'Buildsettled'])
  })
  test('open where something is missing, and counts where something speaks against it', () => {
    const half = timer()
    half.chip = {}
    half.needs.limits.current = 0.01
    show(<Root />, half)
    expect(states()).toEqual(['Needssettled', 'Chipopen', 'Pinsopen', 'Power 1', 'Buildopen'])
    expect(screen.getByTitle('1: a risk')).toBeTruthy()
  })
})

const onCells = () => {
  const d = timer()
  d.power = { source: 'cells-4-aa' }
  return d
}
describe('the gauges', () => {
  test('five numbers with their limits', () => {
    show(<Gauges />)
    expect(gauge('Budget used')).toBe('Budget used221 mA of 300 mA')
    expect(gauge('Runtime')).toBe('Runtimeno end: not on cells')
    expect(gauge('Hottest part')).toBe('Hottest part106 °C')
    expect(gauge('Legs left')).toBe('Legs left9')
    expect(gauge('Parts')).toMatch(/^Parts€ 26\.\d\d of € 40\.00$/)
  })
  test.each([
    ['Hottest part', timer(), 'greatest', '106.4 °C at the highest'],
    ['Runtime', onCells(), 'least', 's) at the lowest'],
    ['Budget used', timer(), 'greatest', '221'],
  ])('%s opens at the corner that it shows', async (label, d, corner, text) => {
    show(<Gauges />, d)
    fireEvent.click(within(screen.getByText(label).closest<HTMLElement>('.gauge')!).getByRole('button'))
    const pressed = (await screen.findByRole('button', { name: corner })).getAttribute('aria-pressed')
    expect([pressed, words(screen.getByRole('dialog'))]).toEqual(['true', expect.stringContaining(text)])
  })
  test('the last edit says by how much it changed what, until another does', () => {
    show(<Gauges />)
    act(() => useProject.getState().edit({ kind: 'setLimit', limit: 'ambient', value: 40 }))
    expect(gauge('Hottest part')).toBe('Hottest part116 °C+10 °C · Set the ambient temperature')
    expect(gauge('Legs left')).toBe('Legs left9')
    act(() => useProject.getState().edit({ kind: 'removeDevice', id: 'd7' }))
    expect(gauge('Legs left')).toBe('Legs left10+1 · Remove Safe light')
  })
  test('what has no value any more carries no change from before', () => {
    show(<Gauges />, onCells())
    act(() => useProject.getState().edit({ kind: 'setLimit', limit: 'ambient', value: 45 }))
    act(() => useProject.getState().edit({ kind: 'removeDevice', id: 'd7' }))
    expect(gauge('Runtime')).toContain('Remove Safe light')
    act(() => useProject.getState().edit({ kind: 'chooseSource', part: 'adapter-9v', name: '9 V adapter' }))
    expect(gauge('Runtime')).toBe('Runtimeno end: not on cells')
  })
  test('over a limit is said in words too', () => {
    const tight = timer()
    tight.needs.limits.current = 0.1
    show(<Gauges />, tight)
    expect(gauge('Budget used')).toContain('(over the limit)')
  })
})

describe('the top bar', () => {
  test('renames, takes a stance, undoes and redoes by name', () => {
    show(<TopBar />)
    const name = screen.getByLabelText('Project name')
    fireEvent.change(name, { target: { value: 'Enlarger clock' } })
    fireEvent.blur(name)
    fireEvent.change(screen.getByLabelText('Stance'), { target: { value: 'lean' } })
    expect(steps()).toEqual(['Call the project “Enlarger clock”', 'Build lean'])
    fireEvent.click(screen.getByRole('button', { name: 'Undo: Build lean' }))
    expect(design().stance).toBe('by-the-book')
    fireEvent.click(screen.getByRole('button', { name: 'Redo: Build lean' }))
    expect(design().stance).toBe('lean')
  })
  test.each([
    [{ kind: 'saved' }, 'Saved'],
    [{ kind: 'saving' }, 'Saving …'],
    [{ kind: 'away', kept: true }, 'Server away: kept in this browser'],
    [{ kind: 'away', kept: false }, 'Not saved: see below'],
    [{ kind: 'away', why: 'The disk is full', kept: true }, 'The disk is full: kept in this browser'],
    [{ kind: 'refused', why: 'name: must not be blank' }, 'Not saved: name: must not be blank'],
  ] as const)('how saving stands: %j', (save, text) => {
    show(<TopBar />)
    act(() => useProject.getState().setSave(save))
    expect(screen.getByRole('status').textContent).toBe(text)
  })
})

test('that nothing keeps the last changes is said where they are made, and only then', () => {
  show(<KeptNowhere />)
  expect(screen.queryByRole('alert')).toBeNull()
  act(() => useProject.getState().setSave({ kind: 'away', why: 'The disk is full', kept: false }))
  expect(screen.getByRole('alert').textContent).toMatch(/kept nowhere but in this page\. The disk is full,/)
})

describe('keys', () => {
  const Where = () => <output>{useLocation().pathname}</output>
  const press = (key: string, more: object = {}, on: Element = document.body) =>
    fireEvent.keyDown(on, {
      key,
      code: /^\d$/.test(key) ? `Digit${key}` : `Key${key.toUpperCase()}`,
      ...more,
    })
  const at = () => screen.getByRole('status').textContent
  const troubled = () => {
    const d = timer()
    d.needs.limits.current = 0.01
    d.power.regulator = 'bl5-low'
    return d
  }
  const start = (d = timer()) => {
    useFrame.setState({ evidence: true, search: false, help: false, finding: undefined })
    return show(
      <>
        <Keys />
        <Where />
        <input aria-label="typed" />
        <input type="checkbox" aria-label="ticked" />
        <div id="table" tabIndex={-1} />
      </>,
      d,
      '/projects/p1/needs',
    )
  }
  test.each([
    ['1', 'needs'],
    ['2', 'chip'],
    ['3', 'pins'],
    ['4', 'power'],
    ['5', 'build'],
  ])('%s goes to %s', (key, stage) => {
    start()
    press(key)
    expect(at()).toMatch(new RegExp(`/${stage}$`))
  })
  test('what is typed into a field is text; on a tick box keys are commands', () => {
    start()
    press('3', {}, screen.getByLabelText('typed'))
    expect(at()).toBe('/projects/p1/needs')
    press('3', {}, screen.getByLabelText('ticked'))
    expect(at()).toMatch(/pins$/)
  })
  test('Esc leaves what one types into, so that keys count again, and nothing else', () => {
    start()
    const typed = screen.getByLabelText('typed')
    act(() => typed.focus())
    press('Escape', {}, typed)
    expect(document.activeElement).toBe(document.body)
    press('3')
    expect(at()).toMatch(/pins$/)
    // Where nothing is typed one would lose one’s place.
    const ticked = screen.getByLabelText('ticked')
    act(() => ticked.focus())
    press('Escape', {}, ticked)
    expect(document.activeElement).toBe(ticked)
  })
  test('n and p go through the findings, worst first, round and round, and open the evidence', () => {
    start(troubled())
    act(() => useFrame.setState({ evidence: false }))
    press('n')
    const first = useFrame.getState().finding
    expect([useFrame.getState().evidence, first]).toEqual([true, 'power.regulator-too-hot'])
    press('n')
    expect(useFrame.getState().finding).toBe('power.budget-exceeded')
    press('n')
    expect(useFrame.getState().finding).toBe(first)
    press('p')
    expect(useFrame.getState().finding).toBe('power.budget-exceeded')
  })
  test('without findings they do nothing', () => {
    start()
    press('n')
    expect(useFrame.getState().finding).toBeUndefined()
  })
  test('/ finds, e folds the evidence, t jumps to the table, ? lists the keys', () => {
    start()
    fireEvent.keyDown(document.body, { key: '/', code: 'Slash' })
    expect(useFrame.getState().search).toBe(true)
    press('e')
    expect(useFrame.getState().evidence).toBe(false)
    press('t')
    expect(document.activeElement?.id).toBe('table')
    act(() => void fireEvent.keyDown(document.body, { key: '?', code: 'Slash', shiftKey: true }))
    expect(words(screen.getByRole('dialog'))).toMatch(/^Keys1 … 5go to a stage/)
  })
  test('Ctrl Z and Ctrl Shift Z undo and redo the last first', () => {
    start()
    act(() => useProject.getState().edit({ kind: 'renameProject', name: 'One' }))
    act(() => useProject.getState().edit({ kind: 'renameProject', name: 'Two' }))
    const z = (more: object = {}) => act(() => void press('z', { ctrlKey: true, ...more }))
    const name = () => design().name
    z()
    expect(name()).toBe('One')
    z()
    expect(name()).toBe('Darkroom timer')
    z({ shiftKey: true })
    expect(name()).toBe('One')
    act(() => void press('y', { ctrlKey: true }))
    expect(name()).toBe('Two')
  })
})

test('where a part of the page fails, it says so, and something new is tried again', () => {
  const Fails = ({ on }: { on: boolean }) => {
    if (on) throw new Error('no such leg')
    return <p>legs</p>
  }
  const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined)
  const page = (on: boolean, anew: number) => (
    <Boundary what="The page" anew={anew}>
      <Fails on={on} />
    </Boundary>
  )
  const { rerender } = render(page(true, 1))
  expect(screen.getByRole('alert').textContent).toMatch(
    /The page can’t be shown \(no such leg\).*Nothing of your project is lost/,
  )
  // The same again fails again; a new analysis shows it.
  rerender(page(false, 1))
  expect(screen.queryByText('legs')).toBeNull()
  rerender(page(false, 2))
  expect(screen.getByText('legs').textContent).toBe('legs')
  quiet.mockRestore()
})
