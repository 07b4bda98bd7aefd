// A checker for Stryker: whatever is not in the sample counts as "does not compile" and is not run.

import { readFileSync } from 'node:fs'
import { PluginKind, declareClassPlugin } from '@stryker-mutator/api/plugin'
import { keyOf } from './key.mjs'

class OnlyTheSample {
  async init() {
    this.sample = new Set(JSON.parse(readFileSync(process.env.SAMPLE, 'utf8')))
  }

  async check(mutants) {
    return Object.fromEntries(
      mutants.map((m) => [
        m.id,
        this.sample.has(keyOf(m))
          ? { status: 'passed' }
          : { status: 'compileError', reason: 'not in the sample' },
      ]),
    )
  }
}

export const strykerPlugins = [declareClassPlugin(PluginKind.Checker, 'only-the-sample', OnlyTheSample)]
