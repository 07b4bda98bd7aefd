// What the worker answers, computed here: the tests’ page has no workers.

import { analyse, regulatorsOf } from '@root-board/core/analysis'
import { type Design, libraryFor } from '@root-board/core/design'
import { library } from './stage'

export const questions = {
  regulators: (design: Design) => {
    const analysis = analyse(design, libraryFor(design, library))
    return Promise.resolve({
      ranked: regulatorsOf(analysis, libraryFor(design, library)),
      undecided: analysis.pins.plan?.status === 'undecided',
    })
  },
}
