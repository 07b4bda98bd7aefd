import { defineStage } from '../findings'
import type { OpenSupply } from './graph'
import { supplyOf } from './made'

declare module '../findings/results' {
  interface Between {
    supplies: OpenSupply
  }
}

export const suppliesStage = defineStage({
  name: 'supplies',
  after: [],
  run: ({ design, library }) => supplyOf(design, library),
})
