// What the worker answers, computed here: the tests’ page has no workers.

import {
  analyse,
  type BudgetName,
  giveUps,
  leadsOf,
  regulatorsOf,
  rhythmsOf,
  sourcesOf,
  bridgesFor,
  switchesOf,
  trendOf,
} from '@root-board/core/analysis'
import { stockOf } from '@root-board/core/circuit'
import { type Design, type FurtherId, libraryFor } from '@root-board/core/design'
import { type LatchTry, runLatch } from '@root-board/core/latch'
import { usualPatience } from '@root-board/core/patience'
import { burstsOf, chargeOf, measuredOf, streamsOf } from '@root-board/core/power'
import { spelled } from '@root-board/core/sums'
import { library } from './stage'

export const questions = {
  regulators: (design: Design, rail?: FurtherId) => {
    const analysis = analyse(design, libraryFor(design, library))
    return Promise.resolve({
      ranked: regulatorsOf(analysis, libraryFor(design, library), rail),
      undecided: analysis.pins.plan?.status === 'undecided',
    })
  },
  streams: (design: Design, state?: string) =>
    Promise.resolve(spelled(streamsOf(analyse(design, libraryFor(design, library)), state))),
  measured: (design: Design) =>
    Promise.resolve(spelled(measuredOf(analyse(design, libraryFor(design, library))))),
  sources: (design: Design) => {
    const analysis = analyse(design, libraryFor(design, library))
    return Promise.resolve(
      spelled({
        ranked: sourcesOf(analysis, libraryFor(design, library)),
        undecided: analysis.pins.plan?.status === 'undecided',
      }),
    )
  },
  bridges: (design: Design) => {
    const analysis = analyse(design, libraryFor(design, library))
    return Promise.resolve(
      spelled({
        ranked: bridgesFor(analysis, libraryFor(design, library)),
        undecided: analysis.pins.plan?.status === 'undecided',
      }),
    )
  },
  switches: (design: Design) => {
    const analysis = analyse(design, libraryFor(design, library))
    return Promise.resolve(
      spelled({
        ranked: switchesOf(analysis, libraryFor(design, library)),
        undecided: analysis.pins.plan?.status === 'undecided',
      }),
    )
  },
  latch: (design: Design, of: LatchTry) => {
    const { facts } = analyse(design, libraryFor(design, library)).latch
    return Promise.resolve(facts && runLatch(facts, of, usualPatience()))
  },
  giveUps: (design: Design, name: BudgetName) => {
    const known = libraryFor(design, library)
    return Promise.resolve(spelled(giveUps(analyse(design, known), known, name, usualPatience())))
  },
  trend: (designs: readonly Design[]) => Promise.resolve(trendOf(designs, library, usualPatience())),
  leads: (design: Design) => {
    const analysis = analyse(design, libraryFor(design, library))
    return Promise.resolve(
      spelled({
        ranked: leadsOf(analysis, libraryFor(design, library)),
        undecided: analysis.pins.plan?.status === 'undecided',
      }),
    )
  },
  bursts: (design: Design, allowed: number) => {
    const known = libraryFor(design, library)
    return Promise.resolve(spelled(burstsOf(analyse(design, known), stockOf(known), allowed)))
  },
  charge: (design: Design) =>
    Promise.resolve(spelled(chargeOf(analyse(design, libraryFor(design, library)).power))),
  rhythms: (design: Design, state: string) => {
    const known = libraryFor(design, library)
    return Promise.resolve(spelled(rhythmsOf(analyse(design, known), known, state)))
  },
}
