import { type Check, say } from '../../findings'
import { swapFix } from '../../pins'

export const noRadio: Check = {
  id: 'chip.no-radio',
  stage: 'chip',
  looksFor: 'a program that uses the radio on a chip that has none',
  rule: 'the chip’s part file',
  run: (stages) => {
    const { chip } = stages.chip
    if (!chip || chip.radio || !stages.needs.open.radio) return []
    const other = stages.fitting()
    return [
      {
        id: 'chip.no-radio',
        severity: 'stops',
        grade: 'impossible',
        ...say`${chip.name} has no radio, and the program uses one.`,
        because: [say`The program uses a radio (said on the Needs page)`, say`${chip.sheet} names none`],
        fixes: [
          ...(other ? [swapFix(stages, other)] : []),
          { label: 'Do without the radio', edits: [{ kind: 'setRadio', radio: false }] },
        ],
      },
    ]
  },
}
