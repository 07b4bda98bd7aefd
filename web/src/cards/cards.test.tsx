// Cards: each leg where it is, seen from above and from below; what flows on which rail; what the stack takes. Orientation is
// that of every package: anticlockwise from the mark, seen from above; from below it is a mirror’s.

import { type Board, partsOfKind } from '@root-board/core/parts'
import { fireEvent, screen } from '@testing-library/react'
import { demo, library, show, timer } from '../../test/stage'
import CardsPage from './CardsPage'
import { ChipCard } from './ChipCard'
import { fit } from './ink'
import { type Seat, seatsAround } from './layout'
import { PathCard } from './PathCard'
import { StackCard } from './StackCard'

const seat = ({ side, at }: Seat) => `${side} ${at}`

test.each([
  // Eight legs in two rows: 1 at the top left, 4 below it, 5 across from 4, 8 across from 1.
  [8, 2, 'above', ['left 0', 'left 1', 'left 2', 'left 3', 'right 3', 'right 2', 'right 1', 'right 0']],
  [8, 2, 'below', ['right 0', 'right 1', 'right 2', 'right 3', 'left 3', 'left 2', 'left 1', 'left 0']],
  // Eight on four sides, two each.
  [8, 4, 'above', ['left 0', 'left 1', 'bottom 0', 'bottom 1', 'right 1', 'right 0', 'top 1', 'top 0']],
  [8, 4, 'below', ['right 0', 'right 1', 'bottom 1', 'bottom 0', 'left 1', 'left 0', 'top 0', 'top 1']],
] as const)('%d legs on %d sides from %s', (count, sides, from, seats) => {
  expect(seatsAround(count, sides, from).map(seat)).toEqual(seats)
})

test('a name that is too long keeps the short word at its end', () => {
  expect(fit('Soil moisture probe 2', 21)).toBe('Soil moisture probe 2')
  expect(fit('Soil moisture probe 2', 14)).toBe('Soil moistu… 2')
  expect(fit('Thermocouple', 8)).toBe('Thermoc…')
})

/** Where the number of a leg is drawn. */
const at = (leg: number) => {
  const text = document.querySelector(`[data-leg="${leg}"] text`)!
  return { x: Number(text.getAttribute('x')), y: Number(text.getAttribute('y')) }
}

test('the darkroom timer’s chip: leg 1 at the top left from above, at the top right from below; names go with it', () => {
  show(<ChipCard />)
  // 28 legs: 1 and 28 are across from one another, 14 is below 1.
  expect([at(1).x < at(28).x, at(1).y === at(28).y, at(14).y > at(1).y, at(14).x === at(1).x]).toEqual([
    true,
    true,
    true,
    true,
  ])
  const words = (leg: number) => document.querySelector(`[data-leg="${leg}"]`)!.textContent
  const before = words(24)
  expect(before).toMatch(/^24VCCsupply$/)
  fireEvent.change(screen.getByLabelText(/Seen from/), { target: { value: 'below' } })
  expect([at(1).x > at(28).x, at(1).y === at(28).y, words(24)]).toEqual([true, true, before])
  expect(screen.getByRole('img', { name: /from below/ })).toBeTruthy()
})

test('from plug to load: rail under rail, with what hangs on each, the hungriest first', () => {
  show(<PathCard />)
  const lines = [...document.querySelectorAll('svg g')].map((g) => g.textContent.replace(/[\s\u202f]+/g, ' '))
  const line = (start: RegExp) => lines.findIndex((l) => start.test(l))
  // The adapter, the diode at its plug, the regulator, the rail and its loads.
  const order = [
    /^12 V adapter/,
    /^Plug: 11.4 V to 12.8 V/,
    /^through Schottky/,
    /^Source: /,
    /^through BL5 cool/,
    /^Rail: 4.9 V to 5.1 V/,
    /^Display/,
  ]
  const found = order.map(line)
  expect(found).toEqual([...found].sort((a, b) => a - b))
  expect(found).not.toContain(-1)
  // All segments lit: typically 62 mA, at most 88 mA by its sheet.
  expect(lines[line(/^Display/)]).toBe('Displayup to 88 mA')
  // Under what feeds it, further in.
  const left = (start: RegExp) =>
    Number(document.querySelectorAll('svg g')[line(start)]!.querySelector('text')!.getAttribute('x'))
  const steps = [/^Plug:/, /^Source: /, /^Rail:/, /^Display/].map(left)
  expect(steps).toEqual([...new Set(steps)].sort((a, b) => a - b))
})

test('a device that hangs before the regulator is drawn there', () => {
  const d = timer()
  d.needs.devices = d.needs.devices.map((n) => (n.id === 'd6' ? { ...n, fedBy: 'source' } : n))
  show(<PathCard />, d)
  const lines = [...document.querySelectorAll('svg g')].map((g) => g.textContent)
  const at = (start: string) => lines.findIndex((l) => l.startsWith(start))
  expect(at('Lamp relay')).toBeLessThan(at('through BL5'))
  expect(at('Lamp relay')).toBeGreaterThan(at('Source:'))
})

test('the signal cabin’s stack: each board’s lines at its positions, what is taken twice is said', () => {
  show(<StackCard />, demo('signal-cabin'))
  const rows = [...document.querySelectorAll('svg g')].map((g) =>
    [...g.querySelectorAll('text')].map((t) => t.textContent),
  )
  expect(rows.find(([place]) => place === 'T2')).toEqual(['T2', 'PA6', 'S1', '', '', ''])
  expect(rows.find(([place]) => place === 'S1')).toEqual(['S1', 'PA0', '', '', '', 'Track 1'])
  expect(document.body.textContent).not.toContain('taken twice')
})

test('of every chip and module of the library each leg is drawn, once, and no number lies on another', () => {
  const d = timer()
  const chips = partsOfKind(library, 'chip')
  expect(chips.length).toBeGreaterThan(10)
  for (const { id, package: package_ } of chips) {
    const { unmount } = show(<ChipCard />, { ...d, needs: { ...d.needs, devices: [] }, chip: { part: id } })
    for (const from of ['above', 'below']) {
      fireEvent.change(screen.getByLabelText(/Seen from/), { target: { value: from } })
      const places = [...document.querySelectorAll('[data-leg] text:first-child')].map((t) => [
        Number(t.getAttribute('x')),
        Number(t.getAttribute('y')),
      ])
      expect([id, places.length]).toEqual([id, package_.legs])
      const near = places.flatMap(([x, y], i) =>
        places.slice(i + 1).filter(([u, v]) => Math.hypot(x! - u!, y! - v!) < 14),
      )
      expect([id, near]).toEqual([id, []])
    }
    unmount()
  }
})

test('a board is drawn header by header in the order of its sheet, from no side: how it lies is in no file', () => {
  show(<CardsPage />, demo('signal-cabin'))
  expect(screen.queryByLabelText(/Seen from/)).toBeNull()
  const picture = screen.getByRole('img', { name: /Trestle 32, header by header/ })
  expect(picture.textContent).toContain('look on the board for where it lies')
  const board = library.parts['trestle-32'] as Board
  for (const header of board.headers) {
    const group = [...picture.querySelectorAll(':scope > g')].find(
      (g) => g.firstChild!.textContent === header.name,
    )!
    const labels = [...group.querySelectorAll('[data-leg]')].map((g) => g.querySelector('text')!.textContent)
    expect(labels).toEqual(header.positions.map((p) => p.label))
  }
  // Locked by hand in the sample’s file: the first track sensor at S1.
  const s1 = [...picture.querySelectorAll('[data-leg]')].find(
    (g) => g.querySelector('text')!.textContent === 'S1',
  )!
  expect(s1.textContent).toBe('S1PA0Track 1')
})

test('what is not settled is said on the page and in each picture, and what can hurt as well', () => {
  const d = timer()
  // Locked where there is no converter.
  d.pins = { ...d.pins, locks: { 'd8.1.level': 'PC0' } }
  show(<CardsPage />, d)
  const open = screen.getByRole('heading', { name: 'Not settled yet' }).parentElement!
  expect(open.textContent).toMatch(/Stops: .*Paper light/)
  expect(screen.getByRole('heading', { name: 'Before you begin' }).parentElement!.textContent).toContain(
    'Mains voltage kills',
  )
  const pictures = screen.getAllByRole('img')
  expect(pictures.length).toBe(2)
  for (const p of pictures) expect(p.textContent).toMatch(/Not settled: .* this project\./)
  expect(pictures[0]!.textContent).toContain('CAN’T WORK: Paper light')
})

test('of what is settled neither the page nor a picture says otherwise', () => {
  show(<CardsPage />)
  expect(document.body.textContent).not.toMatch(/Not settled|CAN’T WORK/)
})
