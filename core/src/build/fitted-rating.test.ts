// What resistors and capacitors are made for, against what stands across them: volts and watts by hand.

import { demo, shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import type { Library } from '../parts'
import { steps } from '../patience'

const library = shippedLibrary()
const withPart = (id: string, of: object): Library => ({
  parts: { ...library.parts, [id]: { ...library.parts[id]!, ...of } },
})
const spot = project({
  chip: 'td8-28-dip',
  source: 'adapter-12v',
  regulator: 'bl5-low',
  devices: [['spot-12v', 'Spot', undefined, { fedBy: 'source', transistors: { drive: 'pfet-plain' } }]],
})
const told = (of: Library) =>
  analyse(spot, of, steps(3000)).findings.filter((f) => f.check === 'build.fitted-rating')

test('nothing of the shelf is overdone, here or in a demo', () => {
  expect(told(library)).toEqual([])
  for (const name of ['darkroom-timer', 'hive-scale', 'signal-cabin', 'window-lantern', 'coop-door'])
    expect(
      analyse(demo(name), library, steps(3000)).findings.filter((f) => f.check === 'build.fitted-rating'),
    ).toEqual([])
})

test('a resistor of 15 mW between 12.8 V and a gate that is pulled low: 12.8 V² over 9.5 kΩ are 17 mW; one at 5 V is spared', () => {
  const found = told(withPart('resistor-film', { power: 0.015 }))
  expect(found.map((f) => [f.id, f.severity, f.grade])).toEqual([
    ['build.fitted-rating:gate-pull-up:d1.1.drive', 'risks', 'outside the sheet'],
  ])
  expect(found[0]!.text).toMatch(
    /10k, may turn 17\smW into heat with 1\.35\smA through it; it is made for 15\smW\.$/,
  )
  // The reset’s 10 kΩ at 5.1 V: 2.7 mW; both gates’ and the lamp’s own less than 15 mW.
  expect(told(withPart('resistor-film', { power: 0.0172 })).map((f) => f.id)).toEqual(found.map((f) => f.id))
  expect(told(withPart('resistor-film', { power: 0.0173 }))).toEqual([])
})

test('two in a row share the voltage: at 12.8 V 10 kΩ and 6.8 kΩ of 5 % become 6.1 mW and 4.2 mW at the most', () => {
  const low = project({
    chip: 'td8-28-dip',
    source: 'adapter-12v',
    regulator: 'bl5-low',
    devices: [['spot-12v', 'Spot', undefined, { fedBy: 'source', transistors: { drive: 'pfet-low' } }]],
  })
  const ids = (power: number) =>
    analyse(low, withPart('resistor-film', { power }), steps(3000)).findings.map((f) => f.id)
  const [up, down] = ['gate-pull-up', 'gate-divider'].map((k) => `build.fitted-rating:${k}:d1.1.drive`)
  const top = analyse(low, library, steps(3000)).power.supplies.open.source!.value.max
  // R / (R + r)² is greatest at R = r: the larger of both nearest to that, so at its least, the smaller at its most; the other at its least.
  const upper = (top / ((10e3 + 6.8e3) * 0.95)) ** 2 * 10e3 * 0.95
  const lower = (top / (10e3 * 0.95 + 6.8e3 * 1.05)) ** 2 * 6.8e3 * 1.05
  expect([upper, lower].map((w) => Math.round(w * 1e4) / 10)).toEqual([6.1, 4.2])
  expect(ids(upper * 0.999)).toContain(up)
  expect(ids(upper * 1.001)).not.toContain(up)
  expect(ids(lower * 0.999)).toContain(down)
  expect(ids(lower * 1.001)).not.toContain(down)
})

test('into a base it is the current that counts, and not all that its line has', () => {
  const fan = project({
    chip: 'td8-28-dip',
    source: 'adapter-9v',
    regulator: 'bl5-low',
    devices: [['fan-5v', 'Fan', undefined, { transistors: { drive: 'npn-strong' } }]],
  })
  const look = (power: number) => analyse(fan, withPart('resistor-film', { power }), steps(3000))
  const { current, resistor } = look(0.25).pins.bases['d1.1.drive']!
  // Most flows with the resistor at its least, and so does most become heat.
  const heat = current.value.max ** 2 * resistor.value * 0.95
  const key = 'build.fitted-rating:base-series:d1.1.drive'
  expect(look(heat * 0.99).findings.map((f) => f.id)).toContain(key)
  expect(look(heat * 1.01).findings.map((f) => f.id)).not.toContain(key)
  // V²/R would be more than that.
  expect(5.1 ** 2 / (resistor.value * 0.95)).toBeGreaterThan(heat * 1.02)
})

test('capacitors of 10 V in front of a regulator on 12 V break; those behind it, at 5 V, do not', () => {
  const found = told(withPart('capacitor-electrolytic', { voltage: 10 }))
  expect(found.length).toBeGreaterThan(0)
  for (const f of found) {
    expect([f.severity, f.grade]).toEqual(['stops', 'impossible'])
    expect(f.text).toMatch(/12\.\d\sV across it, and is made for 10\sV: it breaks down/)
  }
  const a = analyse(spot, withPart('capacitor-electrolytic', { voltage: 10 }), steps(3000))
  const bulk = a.build.support.filter(
    (s) => s.part.id === 'capacitor-electrolytic' && s.legs.some((l) => l.net === 'VIN'),
  )
  expect(found.map((f) => f.about?.support).sort()).toEqual(bulk.map((s) => s.key).sort())
})
