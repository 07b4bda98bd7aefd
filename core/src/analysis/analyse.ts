// The one way through: design and library in, everything computed out. The only file that knows the order of the stages.

import { buildChecks, resolveBuild } from '../build'
import { chipChecks, resolveChip } from '../chip'
import { clockChecks, resolveClock } from '../clock'
import { type Design, stageNames } from '../design'
import { type Check, type Finding, inOrder, runChecks, type Stages } from '../findings'
import { needsChecks, resolveNeeds } from '../needs'
import type { Library } from '../parts'
import { pinsChecks, resolvePins } from '../pins'
import { powerChecks, railVoltage, resolvePower } from '../power'
import { type Gauge, gaugesOf } from './gauges'

export interface Analysis extends Omit<Stages, 'library'> {
  findings: Finding[]
  gauges: Gauge[]
}

/** Every rule there is. */
export const allChecks: readonly Check[] = [
  ...needsChecks,
  ...chipChecks,
  ...clockChecks,
  ...pinsChecks,
  ...powerChecks,
  ...buildChecks,
]

/** Pure: the same design and library give the same analysis. */
export const analyse = (design: Design, library: Library): Analysis => {
  const needs = resolveNeeds(design, library)
  const rail = railVoltage(design, library)
  const chip = resolveChip(design, library, needs, rail)
  const clock = resolveClock(design, library, chip.chip, rail)
  const pins = resolvePins(design, library, needs, chip.chip, clock, rail)
  const power = resolvePower(design, library, needs, chip.chip, clock, pins)
  const build = resolveBuild(design, library, needs, clock, pins, power)
  const stages = { design, needs, chip, clock, pins, power, build }
  return {
    ...stages,
    findings: inOrder(runChecks(allChecks, { ...stages, library }), stageNames),
    gauges: gaugesOf(stages),
  }
}
