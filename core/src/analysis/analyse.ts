// The one way through: design and library in, everything computed out. The only file that knows the order of the stages.

import { buildChecks, resolveBuild } from '../build'
import { asCarried, chipChecks, type ChipResult, fittingCarrier, judgeChip, resolveChip } from '../chip'
import { suppliesOf } from '../circuit'
import { clockChecks, resolveClock } from '../clock'
import { type Design, stageNames } from '../design'
import { type Check, type Finding, type Fix, inOrder, runChecks, type Stages } from '../findings'
import { needsChecks, type NeedsResult, resolveNeeds, withWirings } from '../needs'
import type { Chip, Library } from '../parts'
import { type Patience, pinsChecks, type PinsResult, resolvePins, usualPatience } from '../pins'
import { powerChecks, type RankedRegulator, rankRegulators, resolvePower } from '../power'
import { type Gauge, gaugesOf } from './gauges'

export interface Analysis extends Omit<
  Stages,
  'library' | 'fitting' | 'regulators' | 'patience' | 'proposing'
> {
  /** The design as the builder decided it; `design` is what a board makes of that. */
  decided: Design
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

/** The needs with the wirings that the plan chose. */
const settled = (design: Design, library: Library, asked: NeedsResult, { plan }: PinsResult): NeedsResult => {
  const wirings = plan?.wirings ?? []
  if (wirings.length === 0) return asked
  const chosen = Object.fromEntries(wirings.map((w) => [w.need, w.wiring.id]))
  return resolveNeeds(withWirings(design, chosen), library)
}

/**
 * Pure: the same design and library give the same analysis, unless `patience` runs out: then what is not known says so.
 * All questions about plans share the one patience, the chosen carrier’s plan first.
 */
export const analyse = (
  decided: Design,
  library: Library,
  patience: Patience = usualPatience(),
): Analysis => {
  const design = asCarried(decided, library)
  const asked = resolveNeeds(design, library)
  const supplies = suppliesOf(design, library)
  const { rail } = supplies
  const carrier = resolveChip(design, library)
  const clock = resolveClock(design, library, carrier.chip, rail)
  const pins = resolvePins(design, library, asked, carrier.chip, clock, supplies, patience)
  const chip: ChipResult = {
    ...carrier,
    own: carrier.chip && judgeChip(carrier.chip, design, library, asked, rail, { known: pins.plan }),
  }
  const needs = settled(design, library, asked, pins)
  const power = resolvePower(design, library, needs, chip.chip, clock, pins)
  const build = resolveBuild(design, library, needs, clock, pins, power)
  const stages = { design, needs, chip, clock, pins, power, build }
  const findings = runChecks(allChecks, {
    ...stages,
    library,
    patience,
    proposing: false,
    fitting: () => undefined,
    regulators: once(() => rankRegulators({ ...stages, library })),
  })
  return { ...stages, decided, findings: inOrder(findings, stageNames), gauges: gaugesOf(stages) }
}

const once = <T>(work: () => T): (() => T) => {
  let known: { of: T } | undefined
  return () => (known ??= { of: work() }).of
}

/** Every regulator of the library at the project’s load and input. */
export const regulatorsOf = (analysis: Analysis, library: Library): RankedRegulator[] =>
  rankRegulators({ ...analysis, library })

/** All fixes that are proposed for a finding, those that need the planner among them. None of them has been tried. */
export const proposalsFor = (
  analysis: Analysis,
  library: Library,
  finding: Pick<Finding, 'id' | 'check'>,
  patience: Patience = usualPatience(),
): Fix[] => {
  const { design, power } = analysis
  const check = allChecks.find((c) => c.id === finding.check)
  let found: { chip: Chip | undefined } | undefined
  const stages: Stages = {
    ...analysis,
    library,
    patience,
    proposing: true,
    regulators: once(() => regulatorsOf(analysis, library)),
    fitting: () =>
      (found ??= {
        chip: fittingCarrier(design, library, resolveNeeds(design, library), power.supplies.rail, patience),
      }).chip,
  }
  return check?.run(stages).find((f) => f.id === finding.id)?.fixes ?? []
}
