// Stacks and several boards as properties, on random projects: what the solver answers in one question is the same as
// trying every link by itself, and a plan for several boards is a plan for each.

import { shippedLibrary } from '../../test/files'
import { project, type Project } from '../../test/project'
import { seeded } from '../../test/seeded'
import { analyse, reachIn } from '../analysis'
import { carrierOf } from '../carrier'
import type { Design } from '../design'
import { resolveNeeds } from '../needs'
import { type Board, findPart, partsOfKind } from '../parts'
import { planPins } from './plan'
import { takenPins } from './resolve'

const library = shippedLibrary()
const trestles = ['trestle-plain', 'trestle-32', 'trestle-radio']
const decks = partsOfKind(library, 'device').filter((d) => d.expansion)
const loose = [
  'push-button',
  'lamp-red',
  'temperature-analog',
  'servo-small',
  'track-sensor',
  'motion-sensor',
]

const pick = <T>(random: () => number, from: readonly T[]): T => from[Math.floor(random() * from.length)]!
const planOf = (d: Design) => analyse(d, library).pins.plan!

/** Every way of setting the links of the boards in a stack. */
const settings = (devices: Project['devices']): Project['devices'][] =>
  devices.reduce<Project['devices'][]>(
    (all, [part, name]) => {
      const device = findPart(library, 'device', part)!
      const wirings = device.planChooses ? device.wirings.map((w) => w.id) : [device.wirings[0]!.id]
      return all.flatMap((before) => wirings.map((w): Project['devices'] => [...before, [part, name, w]]))
    },
    [[]],
  )

test('random stacks: links are found exactly where trying them one by one finds any', () => {
  const random = seeded(7)
  let found = 0
  let clashes = 0
  for (let n = 0; n < 60; n++) {
    const chip = pick(random, trestles)
    const devices = Array.from(
      { length: 2 + Math.floor(random() * 3) },
      (_, i): Project['devices'][number] => [
        random() < 0.7 ? pick(random, decks).id : pick(random, loose),
        `D${i}`,
      ],
    )
    const at = { chip, source: 'adapter-9v' }
    const together = planOf(project({ ...at, devices }))
    const oneByOne = settings(devices).map((d) => planOf(project({ ...at, devices: d })))
    const planned = oneByOne.filter((p) => p.status === 'proven')
    expect([n, together.status]).toEqual([n, planned.length > 0 ? 'proven' : 'clash'])
    if (together.status === 'proven') found++
    else clashes++
    // No two lines on one position, whatever was set.
    const positions = together.wires.flatMap((w) =>
      (w.signal.at ?? []).map((s) => `${s.place} ${w.signal.id}`),
    )
    const places = new Set(together.wires.flatMap((w) => (w.signal.at ?? []).map((s) => s.place)))
    expect(new Set(positions.map((p) => p.split(' ').slice(0, 2).join(' '))).size).toBe(places.size)
    for (const w of together.wires)
      for (const seat of w.signal.at ?? []) expect(w.pin.places).toContain(seat.place)
  }
  expect(found).toBeGreaterThan(10)
  expect(clashes).toBeGreaterThan(10)
})

test('random projects on two or three boards: the plan is one of each board alone, and costs no less than the dearest', () => {
  const random = seeded(11)
  let planned = 0
  for (let n = 0; n < 50; n++) {
    const [chip, ...rest] = [...trestles].sort(() => random() - 0.5)
    const also = random() < 0.5 ? rest : rest.slice(0, 1)
    const devices = Array.from(
      { length: 3 + Math.floor(random() * 5) },
      (_, i): Project['devices'][number] => [pick(random, loose), `D${i}`],
    )
    const on = (part: string, others: string[] = []): Design => {
      const d = project({ chip: part, source: 'adapter-9v', devices })
      return { ...d, chip: { part, also: others } }
    }
    const plan = planOf(on(chip!, also))
    const alone = [chip!, ...also].map((part) => ({ part, plan: planOf(on(part)) }))
    if (plan.status !== 'proven') continue
    planned++
    expect(plan.cost).toBeGreaterThanOrEqual(Math.max(...alone.map((a) => a.plan.cost)))
    for (const id of also) {
      const carrier = carrierOf(library, id)!
      const { open } = resolveNeeds(on(id), library)
      const locks = Object.fromEntries(
        plan.wires.map((w) => [w.signal.id, w.others!.find((o) => o.chip.id === id)!.pin.id]),
      )
      // One signal a pin there too, and each pin can do it.
      expect(new Set(Object.values(locks)).size).toBe(plan.wires.length)
      const there = planPins({
        chip: carrier,
        needs: open,
        choices: { locks, excluded: [], kept: {} },
        taken: takenPins(carrier, { pins: [] }),
      })
      expect([there.status, there.wires.filter((w) => w.impossible)]).toEqual(['proven', []])
    }
  }
  expect(planned).toBeGreaterThan(20)
})

test('a line of a unit is used once on each of the boards, however many ask for one', () => {
  // On the 32-bit board many pairs of legs share one interrupt line, some a timer's channel: as many as can be had.
  const asked = [...Array<string>(6).fill('motion-sensor'), ...Array<string>(4).fill('servo-small')]
  let shared = 0
  for (const [part, also] of [
    ['trestle-32', ['trestle-radio']],
    ['trestle-32', ['trestle-plain']],
    ['trestle-radio', ['trestle-32']],
    ['trestle-plain', ['trestle-32', 'trestle-radio']],
  ] as const)
    for (let n = 1; n <= asked.length; n++) {
      const devices = asked.slice(0, n).map((d, k): Project['devices'][number] => [d, `D${k}`])
      const d = project({ chip: part, source: 'adapter-9v', devices })
      const { wires } = planOf({ ...d, chip: { part, also: [...also] } })
      for (const id of [part, ...also]) {
        const lines = wires.flatMap((w) => {
          const way = id === part ? w : w.others!.find((o) => o.chip.id === id)!.way
          return way.unit === undefined
            ? []
            : [`${typeof way.unit === 'string' ? way.unit : way.unit.id}.${way.line}`]
        })
        expect([id, n, ...new Set(lines)]).toEqual([id, n, ...lines])
        shared += lines.length
      }
    }
  expect(shared).toBeGreaterThan(50)
})

test('where each board alone has a plan but no positions serve both, the clash is said', () => {
  const d = project({
    chip: 'trestle-plain',
    source: 'adapter-9v',
    devices: [
      ['serial-link', 'Link'],
      ['push-button', 'Go'],
    ],
  })
  for (const part of ['trestle-plain', 'trestle-32'])
    expect(planOf({ ...d, chip: { part } }).status).toBe('proven')
  // The plain board's serial lines are at T1 and T4, the 32-bit one's elsewhere.
  const both = planOf({ ...d, chip: { part: 'trestle-plain', also: ['trestle-32'] } })
  expect(both.status).toBe('clash')
  expect(both.clash.every((s) => s.bus?.kind === 'uart')).toBe(true)
})

test('a leg that could serve on the first board and not on the other says so, by that board’s name', () => {
  const d = project({ chip: 'trestle-32', source: 'adapter-9v', devices: [['temperature-analog', 'Heat']] })
  const { chip, pins } = analyse({ ...d, chip: { part: 'trestle-32', also: ['trestle-radio'] } }, library)
  const needs = resolveNeeds(d, library).open
  // T0 has a converter on the 32-bit board; on the radio one it is a plain leg.
  const signal = pins.plan!.wires[0]!.signal.id
  const wrong = planPins({
    chip: chip.chip!,
    needs,
    choices: { locks: { [signal]: 'PA4' }, excluded: [], kept: {} },
    taken: {},
  })
  expect(wrong.wires[0]!.impossible).toMatch(/on Trestle radio, D00 \(P02\): it has no analog input/)
})

test('a leg whose position another board has not is out of reach, and that board is named', () => {
  const plain = library.parts['trestle-plain']! as Board
  const without = {
    ...plain,
    headers: plain.headers.map((h) => ({ ...h, positions: h.positions.filter((p) => p.label !== 'S1') })),
  }
  const design = project({ chip: 'trestle-32', source: 'adapter-9v', devices: [['push-button', 'Go']] })
  const reach = reachIn(
    { ...design, chip: { part: 'trestle-32', also: ['trestle-plain'] } },
    { parts: { ...library.parts, 'trestle-plain': without } },
    'd1.1.contact',
  )
  const lost = reach.filter((r) => r.reason?.includes('has nothing at this position'))
  expect(lost.map((r) => r.reason)).toEqual([`${plain.name} has nothing at this position`])
})
