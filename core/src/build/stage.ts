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
  after: ['needs', 'clock', 'pins', 'power'],
  run: ({ design, library, needs, clock, pins, power }) =>
    resolveBuild(design, library, needs, clock, pins, power),
  checks: buildChecks,
})
