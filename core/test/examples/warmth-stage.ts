// core/src/warmth/stage.ts: all the heat of a project.
import { defineStage, type Worked } from '../../src/findings'
import { sum } from '../../src/sums'

declare module '../../src/findings/results' {
  interface Results {
    warmth?: Worked
  }
}

export const warmthStage = defineStage({
  name: 'warmth',
  after: ['power'],
  run: ({ power: { fromSource, supplies } }) =>
    supplies.open.source &&
    sum(
      { label: 'Heat of everything', symbol: 'P', unit: 'W' },
      { V_source: supplies.open.source, I: fromSource },
      (i) => i.V_source.times(i.I),
    ),
})
