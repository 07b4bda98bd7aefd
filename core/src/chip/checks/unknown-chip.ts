import { type Check, say } from '../../findings'
import { swapFix } from '../../pins'

export const unknownChip: Check = {
  id: 'chip.unknown',
  stage: 'chip',
  looksFor: 'a chosen chip that is not in the library',
  rule: 'nothing can be planned for a chip without facts',
  run: (stages) => {
    const { chip } = stages
    if (!chip.missing) return []
    const best = stages.fitting()
    return [
      {
        id: 'chip.unknown',
        severity: 'stops',
        ...say`The project is planned for “${chip.missing}”, which is not in the library.`,
        because: [say`No part file has that id`],
        fixes: best ? [swapFix(stages, best)] : [],
      },
    ]
  },
}
