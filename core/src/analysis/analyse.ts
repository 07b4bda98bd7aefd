// The one way through: design and library in, everything computed out.

import { fittingCarrier } from '../chip'
import { type Design, type FurtherId, stageNames } from '../design'
import {
  type Finding,
  type Fix,
  type Given,
  inOrder,
  type OnDemand,
  type Remembered,
  type Results,
  runChecks,
  runStages,
  type Stages,
} from '../findings'
import { resolveNeeds } from '../needs'
import type { Library } from '../parts'
import { type Patience, usualPatience } from '../patience'
import { type RankedLoad, rankSwitches } from '../pins'
import {
  rankBridges,
  type RankedDriven,
  type RankedLead,
  rankedLeads,
  type RankedRegulator,
  rankRegulators,
  type RankedSource,
  rankSources,
} from '../power'
import { ownVoltage } from '../supply'
import { type Gauge, gaugesOf } from './gauges'
import { allChecks, stagesInTurn } from './stages'

export interface Analysis extends Results {
  design: Design
  findings: Finding[]
  gauges: Gauge[]
}

/** What is remembered of each analysis as long as somebody holds it. */
const memory = new WeakMap<Analysis, Remembered>()

/** Every regulator of the library at the load and input of the project’s rail, or of a further one. */
export const regulatorsOf = (
  analysis: Pick<Analysis, 'design' | 'needs' | 'chip' | 'pins' | 'power' | 'clock'>,
  library: Library,
  rail?: FurtherId,
): RankedRegulator[] => rankRegulators({ ...analysis, library }, rail)

/** Every source of the library with the project’s regulator and load. */
export const sourcesOf = (analysis: Parameters<typeof regulatorsOf>[0], library: Library): RankedSource[] =>
  rankSources({ ...analysis, library })

/** Every wire and fuse of the library in each of the project’s leads. */
export const leadsOf = (analysis: Parameters<typeof regulatorsOf>[0], library: Library): RankedLead[] =>
  rankedLeads({ ...analysis, library })

/** Every transistor of the library behind each switched load. */
export const switchesOf = (analysis: Parameters<typeof regulatorsOf>[0], library: Library): RankedLoad[] =>
  rankSwitches({ ...analysis, library })

/** Every bridge of the library, for each load that could hang on one. */
export const bridgesFor = (analysis: Parameters<typeof regulatorsOf>[0], library: Library): RankedDriven[] =>
  rankBridges({ ...analysis, library })

/** What takes long, worked out at most once, and only when a check asks. */
const onDemand = (
  analysis: Parameters<typeof regulatorsOf>[0],
  { design, library, patience }: Given,
  proposing: boolean,
): OnDemand => ({
  // Other regulators and carriers are looked for only where fixes are asked for.
  regulators: onceFor((rail?: FurtherId) => (proposing ? regulatorsOf(analysis, library, rail) : [])),
  fitting: once(() =>
    proposing
      ? fittingCarrier(
          {
            design,
            library,
            needs: resolveNeeds(design, library),
            rail: ownVoltage(analysis.power.supplies),
          },
          patience,
        )
      : undefined,
  ),
})
const onceFor = <K, T>(work: (of: K) => T): ((of: K) => T) => {
  const known = new Map<K, T>()
  return (of) => {
    if (!known.has(of)) known.set(of, work(of))
    return known.get(of)!
  }
}
const once = <T>(work: () => T): (() => T) => {
  let known: { of: T } | undefined
  return () => (known ??= { of: work() }).of
}

/**
 * Pure: the same design and library give the same analysis, unless `patience` runs out: then what is not known says so.
 * All questions about plans share the one patience, the chosen carrier’s plan first. `before`: an analysis of nearly the same
 * design; what an edit left alone is taken from it, and comes out the same.
 */
export const analyse = (
  design: Design,
  library: Library,
  patience: Patience = usualPatience(),
  before?: Analysis,
): Analysis => {
  const given: Given = { design, library, patience }
  const { results, remembered } = runStages(
    stagesInTurn,
    given,
    ['around', 'asked', 'carrier', 'planned', 'supplies'],
    before && memory.get(before),
  )
  const stages = { ...results, design }
  const findings = runChecks(allChecks, {
    ...given,
    ...results,
    ...onDemand(stages, given, false),
    proposing: false,
  })
  const analysis = { ...stages, findings: inOrder(findings, stageNames), gauges: gaugesOf(stages) }
  memory.set(analysis, remembered)
  return analysis
}

/** All fixes that are proposed for a finding, those that need the planner among them. None of them has been tried. */
export const proposalsFor = (
  analysis: Analysis,
  library: Library,
  finding: Pick<Finding, 'id' | 'check'>,
  patience: Patience = usualPatience(),
): Fix[] => {
  const given: Given = { design: analysis.design, library, patience }
  const check = allChecks.find((c) => c.id === finding.check)
  const stages: Stages = { ...analysis, ...given, ...onDemand(analysis, given, true), proposing: true }
  return check?.run(stages).find((f) => f.id === finding.id)?.fixes ?? []
}
