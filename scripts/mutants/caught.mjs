// A reporter of Jest that notes, in the file that CAUGHT names, which suite noticed a mutant: one line each.

import { appendFileSync, existsSync, readFileSync } from 'node:fs'

/** @returns the suites that noticed a mutant, one entry each time. */
export const caughtSoFar = () => {
  const file = process.env.CAUGHT
  return file && existsSync(file) ? readFileSync(file, 'utf8').split('\n').filter(Boolean) : []
}

export default class {
  onTestFileResult(test, result) {
    const failed = result.numFailingTests > 0 || result.testExecError !== undefined
    const suite = (process.env.SUITES ?? '').split(',').find((s) => test.path.endsWith(s))
    if (process.env.CAUGHT && failed && suite) appendFileSync(process.env.CAUGHT, `${suite}\n`)
  }
}
