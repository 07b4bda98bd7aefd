// Fixes that several checks propose.

import { swapTo, swapWords } from '../swap'
import type { NeedDevice } from '../../design'
import type { Fix, Stages } from '../../findings'
import type { Chip } from '../../parts'

/** Says all that goes: a device that stands for several takes all of them along. */
export const doWithout = (need: NeedDevice): Fix => ({
  label: need.count > 1 ? `Do without all ${need.count} of ${need.name}` : `Do without ${need.name}`,
  edits: [{ kind: 'removeDevice', id: need.id }],
})

/** Another carrier, with what can be kept and a regulator where it needs one. */
export const swapFix = (stages: Stages, other: Chip): Fix => {
  const swap = swapTo(stages, stages.library, other)
  return { label: swapWords(other, swap), edits: swap.edits }
}
