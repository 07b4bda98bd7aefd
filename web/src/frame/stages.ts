// The stages there are, in working order, with when one counts as settled.

import type { Analysis } from '@root-board/core/analysis'
import type { StageName } from '@root-board/core/design'
import { isPlanned } from '@root-board/core/legs'

export interface Stage {
  name: StageName
  title: string
  settled: (a: Analysis) => boolean
}

export const stages: Stage[] = [
  { name: 'needs', title: 'Needs', settled: (a) => a.needs.instances.length > 0 },
  { name: 'chip', title: 'Chip', settled: (a) => a.chip.own?.fits ?? false },
  {
    name: 'pins',
    title: 'Pins',
    settled: (a) =>
      a.needs.signals.length > 0 && isPlanned(a.pins.plan) && !a.pins.plan?.wires.some((w) => w.impossible),
  },
  {
    name: 'power',
    title: 'Power',
    settled: (a) => a.power.source !== undefined && a.power.rail !== undefined,
  },
  { name: 'build', title: 'Build', settled: (a) => a.build.steps.length > 0 && a.build.missing.length === 0 },
]

export const isSettled = (stage: Stage, a: Analysis): boolean =>
  stage.settled(a) && !a.findings.some((f) => f.stage === stage.name && f.severity === 'stops')
