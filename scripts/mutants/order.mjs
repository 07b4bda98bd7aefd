// Runs first the suite that has caught the most so far for what it takes to ask it, and the nearest first among equals.

import Sequencer from '@jest/test-sequencer'
import { caughtSoFar } from './caught.mjs'

export default class extends Sequencer {
  sort(tests) {
    const order = (process.env.SUITES ?? '').split(',')
    const caught = caughtSoFar()
    const place = (test) => order.findIndex((suite) => test.path.endsWith(suite))
    const times = (test) => caught.filter((suite) => test.path.endsWith(suite)).length
    return [...tests].sort((a, b) => times(b) - times(a) || place(a) - place(b))
  }
}
