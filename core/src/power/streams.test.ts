// What flows on the way in a state: all power that leaves the source is delivered or turned to heat on the way, over random projects.

import { join } from 'node:path'
import { demo, shippedLibrary } from '../../test/files'
import { ohmsInside, ohmsOf, ohmsOfGuard } from '../../test/physics/board'
import { shelf } from '../../test/referee/files'
import { randomProject } from '../../test/referee/projects'
import { deep, firstSeed } from '../../test/share'
import { analyse } from '../analysis'
import { readDesign } from '../design'
import { partsOfKind } from '../parts'
import { steps } from '../patience'
import { fullRange } from '../quantity'
import { streamsOf } from '.'

const library = shippedLibrary()

test('power out of the source = heat on the way + what rail and source deliver, in every state', () => {
  const files = shelf(join(__dirname, '..', '..', '..'))
  const seed = firstSeed('streams')
  const sources = partsOfKind(library, 'source')
  const regulators = partsOfKind(library, 'regulator')
  let [balanced, switched] = [0, 0]
  for (let n = 0; n < (deep ? 300 : 25); n++) {
    const drawn = randomProject(files, seed + n, { signals: [2, 12] }) as { power: object }
    const power = {
      source: sources[(seed + 5 * n) % sources.length]!.id,
      regulator: n % 6 === 5 ? undefined : regulators[(seed + n) % regulators.length]!.id,
    }
    const design = readDesign({ ...drawn, power: { ...drawn.power, ...power } }, 'random')
    const a = analyse(design, library, steps(3000))
    for (const id of [undefined, ...a.power.states.map((s) => s.id)]) {
      const { source, lead, guard, regulator, rail } = streamsOf(a, id)
      const regulated = a.power.regulator
      const isSwitching = regulated?.topology === 'switching'
      // One that can't hold its output, or whose input comes straight through, is told, and takes its current as if it did.
      const passes =
        a.power.rail && regulated && a.power.rail.value.max > fullRange(regulated.output).max + 1e-9
      const fails = a.power.loads.collapsing.length > 0 || (a.power.regulation?.margin.value.min ?? 0) < 0
      if (!source || (isSwitching && (passes || fails))) continue
      const R =
        ohmsInside(a.power.source, design.needs.limits) +
        ohmsOfGuard(a.power.supplies.sources[0]?.lead?.guard, a.power.source) +
        ohmsOf(design.power.lead, (id) => library.parts[id], design.needs.limits.ambient) +
        (a.latch.latch?.channel?.value.typ ?? 0)
      const V = fullRange(a.power.source!.voltage).typ
      const I = source.current.value.typ
      // A source from which more is asked than it can give at all is told.
      if (I * R >= 0.9 * V) continue
      // Behind plug and diode, where what is fed from the source hangs.
      const behind = guard ? guard.voltage!.value.typ : V - I * R
      const beside = a.power.consumers
        .filter((c) => c.from === 'source')
        .reduce((sum, c) => sum + (id === undefined ? c.work : c.cycle[id]!).value.typ, 0)
      const heat = [source, lead, guard, regulator].reduce((sum, s) => sum + (s?.heat?.value.typ ?? 0), 0)
      const delivered = rail.voltage!.value.typ * rail.current.value.typ + behind * beside
      const where = `seed ${seed + n}, ${power.source}, ${power.regulator}, ${id}`
      // The wire’s copper is reckoned here by 0.00393 a kelvin and there by −234.5 °C: 40 K below 20 °C 0.8428 and 0.84283 of it.
      const off = Math.abs(heat + delivered - V * I)
      const copper = 5e-5 * (lead?.heat?.value.typ ?? 0)
      expect([where, off <= (isSwitching ? 5e-4 : copper + 1e-9 * V * I), off]).toEqual([where, true, off])
      if (isSwitching) switched++
      else balanced++
    }
  }
  expect(balanced).toBeGreaterThan(10)
  if (deep) expect(switched).toBeGreaterThan(10)
}, 600_000)

describe('the hive scale', () => {
  const a = analyse(demo('hive-scale'), library)
  test('asleep less flows than at once, from what is then not at rest; what a part may carry stays', () => {
    const [once, asleep] = [streamsOf(a), streamsOf(a, 'sleeps')]
    expect([once.state, asleep.state]).toEqual([undefined, 'sleeps'])
    // 700 mA of the cells, 600 mA of the regulator
    expect([asleep.source!.allowed, asleep.regulator!.allowed]).toEqual([0.7, 0.6])
    expect(asleep.source!.left!.value.typ).toBeCloseTo(0.7 - asleep.source!.current.value.max, 12)
    // 9 µA of the chip and 2.2 µA of the regulator are in it; the radio's 120 mA are not.
    expect(asleep.loads.find((l) => l.id === 'chip')!.current.value.typ).toBeCloseTo(9e-6, 12)
    expect(once.source!.current.value.typ).toBeGreaterThan(0.12)
    expect(asleep.source!.current.value.typ - asleep.rail.current.value.typ).toBeCloseTo(2.2e-6, 12)
    const all = asleep.loads.reduce((sum, l) => sum + l.current.value.typ, 0)
    expect(asleep.rail.current.value.typ).toBeCloseTo(all, 12)
  })
  test('heat inside the cells is I²·R, at its least, usual and most', () => {
    const { source } = streamsOf(a, 'sends')
    const R = fullRange(a.power.source!.resistance!)
    for (const at of ['min', 'typ', 'max'] as const)
      expect(source!.heat!.value[at]).toBeCloseTo(source!.current.value[at] ** 2 * R[at], 12)
  })
  test('a state that is none of the project’s: the worst', () =>
    expect(streamsOf(a, 'nowhere').source!.current.value).toEqual(a.power.fromSource.value))
})
