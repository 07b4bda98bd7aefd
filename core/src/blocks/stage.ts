import { stockOf } from '../circuit'
import { defineStage } from '../findings'
import { ownVoltage } from '../supply'
import { type Around, blocksAround } from './around'

declare module '../findings/results' {
  interface Between {
    around: readonly Around[]
  }
}

export const aroundStage = defineStage({
  name: 'around',
  after: ['carrier', 'clock', 'pins', 'supplies'],
  run: ({ design, library, carrier, clock, pins, supplies }) => {
    const rail = ownVoltage(supplies)
    return carrier.chip && rail
      ? blocksAround({
          design,
          library,
          stock: stockOf(library),
          chip: carrier.chip,
          clock,
          pins,
          rail,
          supplies,
        })
      : []
  },
})
