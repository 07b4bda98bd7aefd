// Fixes that several checks propose.

import { swapTo } from '../swap'
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
  const { edits, dropped } = swapTo(stages, stages.library, other)
  const words =
    dropped.length > 0
      ? `; dropped: ${dropped.slice(0, 3).join(', ')}${dropped.length > 3 ? ` and ${dropped.length - 3} more` : ''}`
      : ''
  return { label: `Choose ${other.name}${words}`, edits }
}
