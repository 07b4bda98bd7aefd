import { defineStage } from '../findings'
import { buildChecks } from './checks'
import { type BuildResult, resolveBuild } from './resolve'

declare module '../findings/results' {
  interface Results {
    build: BuildResult
  }
}

export const buildStage = defineStage({
  name: 'build',
  after: ['around', 'needs', 'clock', 'pins', 'power'],
  run: resolveBuild,
  checks: buildChecks,
})
