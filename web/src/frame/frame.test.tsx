// Root, gauges and top bar around a real analysis.

import { Boundary } from './Boundary'
import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { design, show, steps, timer } from '../../test/stage'
import { useProject } from '../store/project'
import { Gauges } from './Gauges'
import { Root } from './Root'
import { TopBar } from './TopBar'

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

describe('the gauges', () => {
  test('five numbers with their limits', () => {
    show(<Gauges />)
    expect(gauge('Budget used')).toBe('Budget used221 mA of 300 mA')
    expect(gauge('Runtime')).toBe('Runtimeno end: not on cells')
    expect(gauge('Hottest part')).toBe('Hottest part107 °C')
    expect(gauge('Legs left')).toBe('Legs left9')
    expect(gauge('Parts')).toMatch(/^Parts€ 26\.\d\d of € 40\.00$/)
  })
  test('the last edit says by how much it changed what, until another does', () => {
    show(<Gauges />)
    act(() => useProject.getState().edit({ kind: 'setLimit', limit: 'ambient', value: 40 }))
    expect(gauge('Hottest part')).toBe('Hottest part117 °C+10 °C · Set the ambient temperature')
    expect(gauge('Legs left')).toBe('Legs left9')
    act(() => useProject.getState().edit({ kind: 'removeDevice', id: 'd7' }))
    expect(gauge('Legs left')).toBe('Legs left10+1 · Remove Safe light')
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
    [{ kind: 'away' }, 'Server away: kept in this browser'],
    [{ kind: 'refused', why: 'name: must not be blank' }, 'Not saved: name: must not be blank'],
  ] as const)('how saving stands: %j', (save, text) => {
    show(<TopBar />)
    act(() => useProject.getState().setSave(save))
    expect(screen.getByRole('status').textContent).toBe(text)
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
    /The page can’t be shown \(no such leg\).*nothing of it is lost/,
  )
  // The same again fails again; a new analysis shows it.
  rerender(page(false, 1))
  expect(screen.queryByText('legs')).toBeNull()
  rerender(page(false, 2))
  expect(screen.getByText('legs').textContent).toBe('legs')
  quiet.mockRestore()
})
