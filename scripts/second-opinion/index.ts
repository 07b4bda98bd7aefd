// The second opinion against the program, over all demos and ten random projects: how many values, and how far apart.

import { join } from 'node:path'
import { type Analysis, analyse } from '@root-board/core/analysis'
import { busSpeedOf, type Design, readDesign } from '@root-board/core/design'
import { makeLibrary } from '@root-board/core/parts'
import { shelf } from '../../core/test/referee/files'
import { randomProject } from '../../core/test/referee/projects'
import { readDesignFile, readLibraryFolder } from '../../server/src/files'
import { type Decided, secondOpinion, type Span } from './opinion'

const decidedBy = (a: Analysis, design: Design): Decided => ({
  legs: a.pins.assignment,
  fitted: Object.fromEntries([
    // A board brings its own, and its sheet doesn’t say which.
    ...(a.chip.chip?.board && a.clock.load
      ? a.clock.pins.map((pin): [string, number] => [`load-capacitor:${pin}`, a.clock.load!.fitted.value])
      : []),
    ...a.build.support
      .filter((s) => s.present)
      .flatMap((s) => [
        ...(s.value ? [[s.key, s.value.value] as const] : []),
        ...(s.key === 'polarity-diode' ? [['polarity', 1] as const] : []),
      ]),
  ]),
  clock: { source: a.clock.source!.id, frequency: a.clock.nominal.value.typ, part: a.clock.part?.id },
  load: a.power.loaded.value,
  through: a.power.through.value,
  led: Object.fromEntries(a.power.leads.map((l) => [l.of, l.current.value])),
  busSpeed: busSpeedOf(design, 1),
  shifted: a.pins.levels.filter((l) => l.shift || l.wire.signal.ends.length > 1).map((l) => l.wire.signal.id),
})

/** The program’s values by the names that the second opinion uses. */
const valuesOf = (a: Analysis): Record<string, Span | undefined> => {
  const consumer = (id: string) => a.power.consumers.find((c) => c.id === id)
  const sda = a.pins.windows.find((w) => w.used && w.wire.signal.id === 'i2c.SDA')
  const exact = (v: number | undefined): Span | undefined =>
    v === undefined ? undefined : { min: v, typ: v, max: v }
  return {
    rail: a.power.rail?.value,
    'load capacitor': a.clock.load?.wanted.value,
    'clock off, ppm': exact(a.clock.deviation?.value.max),
    'clock limit': a.clock.limit?.value,
    'chip active': consumer('chip')?.work.value,
    'chip idle': consumer('chip')?.rest.value,
    'into the regulator': a.power.input?.value,
    'drop-out margin': a.power.regulation?.margin.value,
    'SDA, smallest': exact(sda?.smallest.value.max),
    'SDA, largest': exact(sda?.largest.value.min),
    ...Object.fromEntries(
      a.power.consumers.flatMap((c) => [
        [`${c.id} rest`, c.rest.value],
        [`${c.id} work`, c.work.value],
      ]),
    ),
    ...Object.fromEntries(
      a.power.leads.flatMap((l) => [
        [`lost in the lead of the ${l.of}`, l.drop.value],
        [`heat in the lead of the ${l.of}`, l.heat.value],
      ]),
    ),
    'heat of the regulator': a.power.regulation?.dissipation.value,
    'junction of the regulator': a.power.regulation?.junction.value,
    ...Object.fromEntries(
      a.pins.levels.flatMap((l) => {
        const at = l.direction === 'to the chip' ? 'leg' : 'device'
        const of = (symbol: string) => l.margins.find((m) => m.symbol === symbol)?.value
        return [
          [`high at the ${at} ${l.wire.signal.id}`, of('NM_H')],
          [`low at the ${at} ${l.wire.signal.id}`, of('NM_L')],
        ]
      }),
    ),
    ...Object.fromEntries(
      a.build.support.flatMap((s) =>
        s.key.startsWith('pull:')
          ? s.worked.map((w) => [
              s.key.replace('pull:', w.symbol === 'R_max' ? 'largest pull-up ' : 'pull-up '),
              w.value,
            ])
          : [],
      ),
    ),
    ...Object.fromEntries(Object.entries(a.pins.leds).map(([id, l]) => [`LED ${id}`, l.current.value])),
  }
}

/** Compares; tells every difference of more than half a percent. */
export const compareOpinions = (
  root: string,
): { compared: number; apart: string[]; kinds: Record<string, number> } => {
  const library = makeLibrary(readLibraryFolder(root))
  const files = shelf(root)
  const demos = ['darkroom-timer', 'hive-scale', 'signal-cabin', 'window-lantern', 'coop-door'].map(
    (name) => ({
      name,
      design: readDesignFile(join(root, 'demo', `${name}.json`)),
    }),
  )
  const random = Array.from({ length: 10 }, (_, n) => {
    const project = randomProject(files, 9100 + n, { signals: [3, 20] }) as { power: object }
    const source = ['adapter-9v', 'usb-port', 'cells-3-aa', 'adapter-12v'][n % 4]
    const regulator = ['bl5-low', 'bl33-low', 'bl5-cool'][n % 3]
    return {
      name: `random ${9100 + n}`,
      design: readDesign({ ...project, power: { ...project.power, source, regulator } }, 'random'),
    }
  })
  let compared = 0
  const apart: string[] = []
  const kinds: Record<string, number> = {}
  for (const { name, design } of [...demos, ...random]) {
    const analysis = analyse(design, library)
    const own = valuesOf(analysis)
    for (const [what, other] of Object.entries(secondOpinion(files, design, decidedBy(analysis, design)))) {
      const ours = own[what]
      if (!ours) continue
      const kind = what.replace(/ ?\b(i2c|d\d+)\b\S*/, '').replace(/^ ?(rest|work)$/, 'devices')
      for (const corner of ['min', 'typ', 'max'] as const) {
        compared++
        kinds[kind] = (kinds[kind] ?? 0) + 1
        const scale = Math.max(Math.abs(other[corner]), Math.abs(ours[corner]), 1e-12)
        if (Math.abs(other[corner] - ours[corner]) > 0.005 * scale)
          apart.push(`${name}, ${what}, ${corner}: ${ours[corner]} here, ${other[corner]} there`)
      }
    }
  }
  return { compared, apart, kinds }
}
