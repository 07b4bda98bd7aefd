import { type Check, say } from '../../findings'
import { completenessOf } from '../../parts'

export const restsOnAssumptions: Check = {
  id: 'chip.rests-on-assumptions',
  stage: 'chip',
  looksFor: 'facts of the chip that no sheet was read for',
  rule: 'what the chip’s file lists as assumed',
  run: ({ chip: { chip } }) => {
    if (!chip) return []
    const lacking = completenessOf(chip).filter((c) => c.assumed.length > 0)
    if (lacking.length === 0) return []
    return [
      {
        id: 'chip.rests-on-assumptions',
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`Parts of the sheet of ${chip.name} have not been read: what is said about ${lacking.map((c) => c.serves).join(', ')} rests on careful assumptions.`,
        because: lacking.map(
          (c) => say`For ${c.serves} it is assumed, not known: ${c.assumed.map((a) => a.words).join(', ')}`,
        ),
        fixes: [],
      },
    ]
  },
}
