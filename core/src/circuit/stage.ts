import { defineStage } from '../findings'
import { suppliesOf, type Supplies } from './supplies'

declare module '../findings/results' {
  interface Between {
    supplies: Supplies
  }
}

export const suppliesStage = defineStage({
  name: 'supplies',
  after: [],
  run: ({ design, library }) => suppliesOf(design, library),
})
