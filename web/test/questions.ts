// What the worker answers, computed here: the tests’ page has no workers.

import { analyse, regulatorsOf } from '@root-board/core/analysis'
import { type Design, libraryFor } from '@root-board/core/design'
import { library } from './stage'

export const questions = {
  regulators: (design: Design) =>
    Promise.resolve(regulatorsOf(analyse(design, libraryFor(design, library)), libraryFor(design, library))),
}
