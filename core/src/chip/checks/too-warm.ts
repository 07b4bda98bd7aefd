import { formatQuantity, fullRange } from '../../quantity'
import { partOrigin, type Check, say } from '../../findings'

export const tooWarm: Check = {
  id: 'chip.too-warm',
  stage: 'chip',
  looksFor: 'air around the board that is warmer than the chip is made for',
  rule: 'the chip’s recommended temperature',
  run: (stages) => {
    const {
      design,
      chip: { chip },
    } = stages
    if (!chip?.temperature) return []
    const { ambient } = design.needs.limits
    const range = fullRange(chip.temperature)
    if (ambient <= range.max) return []
    return [
      {
        id: 'chip.too-warm',
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`The air reaches ${formatQuantity(ambient, '°C')}; ${chip.name} is made for at most ${formatQuantity(range.max, '°C')}.`,
        because: [
          say`The project’s limits say ${formatQuantity(ambient, '°C')} at its warmest`,
          {
            ...say`${chip.name}: ${formatQuantity(range.min, '°C')} to ${formatQuantity(range.max, '°C')}`,
            origin: partOrigin(chip, 'temperature', chip.temperature),
          },
        ],
        fixes: [
          {
            label: `Keep it below ${formatQuantity(range.max, '°C')}`,
            edits: [{ kind: 'setLimit', limit: 'ambient', value: range.max }],
          },
        ],
      },
    ]
  },
}
