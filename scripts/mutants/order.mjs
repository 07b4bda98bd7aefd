// Runs the suites in the order they are named in, so that a mutant is caught by its own room's tests first.

import Sequencer from '@jest/test-sequencer'

export default class extends Sequencer {
  sort(tests) {
    const order = (process.env.SUITES ?? '').split(',')
    const place = (test) => order.findIndex((suite) => test.path.endsWith(suite))
    return [...tests].sort((a, b) => place(a) - place(b))
  }
}
