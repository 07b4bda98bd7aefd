// Questions about a design that are asked one at a time, outside the analysis of every edit.

import { carrierOf } from '../carrier'
import { type CandidateChip, judgeChip } from '../chip'
import { applyEdits, type Design } from '../design'
import type { Finding, Worked } from '../findings'
import { resolveNeeds, withWirings } from '../needs'
import { findPart, type Library } from '../parts'
import { type NextPlan, nextBestPlans, questionOf, type ReachEntry, reachOf } from '../planner'
import type { Patience } from '../patience'
import { periodOf } from '../states'
import { ownVoltage, supplyOf } from '../supply'
import { type Analysis, analyse } from './analyse'

/** One carrier against the project; undefined when the library has none of that id. */
export const candidateOf = (
  design: Design,
  library: Library,
  id: string,
  patience?: Patience,
): CandidateChip | undefined => {
  const carrier = carrierOf(library, id)
  return (
    carrier &&
    judgeChip(
      carrier,
      {
        design,
        library,
        needs: resolveNeeds(design, library),
        rail: ownVoltage(supplyOf(design, library)),
      },
      { patience },
    )
  )
}

/** How long one set of cells lasts if a state came more often or less. */
export interface Rhythm {
  /** Seconds from one to the next. */
  every: number
  runtime?: Worked
}

/** Seconds, minutes, hours and days as one would say them. */
const rhythms = [
  ...[1, 2, 5, 10, 15, 30],
  ...[1, 2, 5, 10, 15, 30].map((minutes) => minutes * 60),
  ...[1, 2, 3, 4, 6, 8, 12].map((hours) => hours * 3600),
  ...[1, 2, 7, 14, 30].map((days) => days * 86400),
]
/** So many times as often, and as seldom. */
const spread = 16

/** The state up to sixteen times as often and as seldom, at times that one would say; undefined where it has none. */
export const rhythmsOf = (
  before: Analysis,
  library: Library,
  state: string,
  patience?: Patience,
): Rhythm[] | undefined => {
  const { design } = before
  const choice = design.needs.states?.find((s) => s.id === state)
  const period = choice && periodOf(choice)
  if (!period) return undefined
  const others = rhythms.filter(
    // It can’t come again before it is over.
    (every) =>
      every >= period / spread && every <= period * spread && every >= choice.lasts! && every !== period,
  )
  return [...others, period]
    .sort((a, b) => a - b)
    .map((every) => {
      const changed = applyEdits(design, [
        { kind: 'changeState', id: state, change: { every, perDay: undefined } },
      ])
      return { every, runtime: analyse(changed, library, patience, before).power.runtime }
    })
}

/** One version of a device that the builder may meet instead, and what would then be wrong that is not now. */
export interface VariantVerdict {
  need: string
  name: string
  /** Absent: as in the sheet. */
  variant?: string
  label: string
  tried: boolean
  findings: Finding[]
  /** A search on the way was given up: that there is no finding says nothing. */
  undecided: boolean
}

const givenUp = ({ pins }: Analysis): boolean => pins.plan?.status === 'undecided'

/** The design with the wirings that its plan chose. */
const withPlan = (design: Design, { pins }: Analysis): Design =>
  withWirings(design, Object.fromEntries((pins.plan?.wirings ?? []).map((w) => [w.need, w.wiring.id])))

/** Every other version of every device, with the wires where they are. */
export const variantsOf = (design: Design, library: Library, patience?: Patience): VariantVerdict[] => {
  const base = analyse(design, library, patience)
  const known = new Set(base.findings.map((f) => f.id))
  const wired: Design = { ...withPlan(design, base), pins: { ...design.pins, locks: base.pins.assignment } }
  return design.needs.devices.flatMap((need) => {
    const part = findPart(library, 'device', need.part)
    const versions = [{ id: undefined, name: 'as in the sheet', tried: true }, ...(part?.variants ?? [])]
    return versions.length < 2
      ? []
      : versions
          .filter((v) => v.id !== need.variant)
          .map((v) => {
            const with_ = applyEdits(wired, [{ kind: 'setVariant', id: need.id, variant: v.id ?? null }])
            const there = analyse(with_, library, patience)
            return {
              need: need.id,
              name: need.name,
              variant: v.id,
              label: v.name,
              tried: v.tried ?? false,
              findings: there.findings.filter((f) => !known.has(f.id) && f.severity !== 'notes'),
              undecided: givenUp(base) || givenUp(there),
            }
          })
  })
}

/** Another board that the plan must hold on: what is wrong there that is not wrong on the first. */
export interface OtherBoard {
  id: string
  name: string
  findings: Finding[]
  /** A search on the way was given up: that there is no finding says nothing. */
  undecided: boolean
}

export const otherBoardsOf = (design: Design, library: Library, patience?: Patience): OtherBoard[] => {
  const base = analyse(design, library, patience)
  const known = new Set(base.findings.map((f) => f.id))
  const wires = base.pins.plan?.wires ?? []
  return (base.chip.chip?.alsoOn ?? []).map((chip) => {
    const locks = Object.fromEntries(
      wires.flatMap((w) => {
        const there = w.others?.find((o) => o.chip.id === chip.id)
        return there ? [[w.signal.id, there.pin.id]] : []
      }),
    )
    const alone: Design = {
      ...withPlan(design, base),
      chip: { part: chip.id },
      pins: { ...design.pins, locks, kept: {}, excluded: [] },
    }
    const there = analyse(alone, library, patience)
    return {
      id: chip.id,
      name: chip.name,
      findings: there.findings.filter((f) => !known.has(f.id)),
      undecided: givenUp(base) || givenUp(there),
    }
  })
}

/**
 * The next best pin plans of the chosen carrier; none while there is no proven best one. `complete` is false when the
 * patience ran out before all were known.
 */
export const nextPlansOf = (
  design: Design,
  library: Library,
  patience?: Patience,
  analysis = analyse(design, library, patience),
): { plans: NextPlan[]; complete: boolean } => {
  const question = questionOf(analysis)
  const { plan } = analysis.pins
  return question && plan?.status === 'proven'
    ? nextBestPlans({ ...question, needs: resolveNeeds(design, library).open }, plan, { patience })
    : { plans: [], complete: plan?.status === 'clash' }
}

/** Where a signal could go, leg by leg, with the other signals as they are wired now. */
export const reachIn = (
  design: Design,
  library: Library,
  signal: string,
  patience?: Patience,
  analysis = analyse(design, library, patience),
): ReachEntry[] => {
  const question = questionOf(analysis)
  return question ? reachOf(question, signal, analysis.pins.assignment, patience) : []
}
