import type { Design } from '../design'
import { defineStage } from '../findings'
import type { Chip, Library } from '../parts'
import { carrierOf, withTargets } from './carrier'

/** The chosen chip or board, not judged yet. */
export interface Carrier {
  chip?: Chip
  /** Chosen, but not in the library. */
  missing?: string
}

declare module '../findings/results' {
  interface Between {
    carrier: Carrier
  }
}

const resolveCarrier = (design: Pick<Design, 'chip'>, library: Library): Carrier => {
  const carrier = carrierOf(library, design.chip.part)
  const chip = carrier && withTargets(carrier, design.chip.also ?? [], library)
  return { chip, missing: design.chip.part && !chip ? design.chip.part : undefined }
}

export const carrierStage = defineStage({
  name: 'carrier',
  after: [],
  run: ({ design, library }) => resolveCarrier(design, library),
})
