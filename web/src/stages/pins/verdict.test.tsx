// What the page says of a plan that the search did not get to the end of.

import type { Design } from '@root-board/core/design'
import { steps } from '@root-board/core/patience'
import { fireEvent, screen } from '@testing-library/react'
import { design, show, timer } from '../../../test/stage'
import { Gauges } from '../../frame/Gauges'
import { PlanVerdict } from './PlanVerdict'

const many = (): Design => {
  const d = timer()
  const device = (id: string, part: string, count: number, wiring?: string) => ({
    id,
    part,
    name: part,
    count,
    wiring,
  })
  return {
    ...d,
    needs: {
      ...d.needs,
      devices: [
        device('d1', 'line-display', 3),
        device('d2', 'track-sensor', 8),
        device('d3', 'glow-display', 1),
      ],
    },
    chip: { part: 'qm32-48' },
    pins: { locks: {}, excluded: [], kept: {} },
    build: { support: {} },
  }
}
const text = () => document.body.textContent.replace(/[\s\u202f]+/g, ' ')

test('no plan and no proof: not decided, nothing “left over”, and a way to look longer', () => {
  const lookLonger = jest.fn()
  show(
    <>
      <PlanVerdict />
      <Gauges />
    </>,
    many(),
    '/',
    { patience: () => steps(0), looking: { lookLonger } },
  )
  expect(text()).toMatch(/Not decided: no plan was found in the time given, and none is ruled out/)
  expect(text()).toMatch(/Legs left ?not decided/)
  fireEvent.click(screen.getByRole('button', { name: /Look longer/ }))
  expect(lookLonger).toHaveBeenCalledTimes(1)
})

test('a plan without a proof says how much cheaper another may be', () => {
  // Enough steps for a plan, too few for the proof.
  let found = ''
  for (let n = 20; n < 100 && !/best found/.test(found); n++) {
    const { unmount } = show(<PlanVerdict />, many(), '/', { patience: () => steps(n) })
    found = text()
    unmount()
  }
  expect(found).toMatch(
    /the best found in the time given, \d+ points. One up to \d+ points cheaper may exist/,
  )
})

test('while it looks: the best so far, the bound, and an end to it', () => {
  const enough = jest.fn()
  show(<PlanVerdict />, many(), '/', {
    patience: () => steps(0),
    looking: { looking: { best: 24, bound: 16 }, enough },
  })
  expect(text()).toMatch(/best so far 24 points; none costs less than 16/)
  fireEvent.click(screen.getByRole('button', { name: 'Enough' }))
  expect(enough).toHaveBeenCalledTimes(1)
})

test('a proven plan says that no plan costs less', () => {
  show(<PlanVerdict />)
  expect(text()).toMatch(/Every signal has a leg; no plan costs less than this one’s \d+ points/)
})

test('a plan that was looked for longer can be kept, so that the next edit finds it again', () => {
  show(<PlanVerdict />, timer(), '/', { looking: { lookedLonger: true } })
  fireEvent.click(screen.getByRole('button', { name: 'Keep this plan' }))
  expect(Object.keys(design().pins.kept)).toContain('d7.1.light')
})
