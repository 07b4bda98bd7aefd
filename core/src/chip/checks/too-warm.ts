import { formatQuantity, fullRange } from '../../quantity'
import { partOrigin, type Check, type Found, say } from '../../findings'

export const tooWarm: Check = {
  id: 'chip.too-warm',
  stage: 'chip',
  looksFor: 'air around the board that is warmer, or colder, than the chip is made for',
  rule: 'the chip’s recommended temperature',
  run: (stages) => {
    const {
      design,
      chip: { chip },
    } = stages
    if (!chip?.temperature) return []
    const { ambient, coldest } = design.needs.limits
    const range = fullRange(chip.temperature)
    const made = {
      ...say`${chip.name}: ${formatQuantity(range.min, '°C')} to ${formatQuantity(range.max, '°C')}`,
      origin: partOrigin(chip, 'temperature', chip.temperature),
    }
    const found: Found[] = []
    if (ambient > range.max)
      found.push({
        id: 'chip.too-warm',
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`The air reaches ${formatQuantity(ambient, '°C')}; ${chip.name} is made for at most ${formatQuantity(range.max, '°C')}.`,
        because: [say`The project’s limits say ${formatQuantity(ambient, '°C')} at its warmest`, made],
        fixes: [
          {
            label: `Keep it below ${formatQuantity(range.max, '°C')}`,
            edits: [{ kind: 'setLimit', limit: 'ambient', value: range.max }],
          },
        ],
      })
    if (coldest !== undefined && coldest < range.min)
      found.push({
        id: 'chip.too-warm:cold',
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`The air gets down to ${formatQuantity(coldest, '°C')}; ${chip.name} is made for at least ${formatQuantity(range.min, '°C')}.`,
        because: [say`The project’s limits say ${formatQuantity(coldest, '°C')} at its coldest`, made],
        fixes: [
          {
            label: `Keep it above ${formatQuantity(range.min, '°C')}`,
            edits: [{ kind: 'setLimit', limit: 'coldest', value: range.min }],
          },
        ],
      })
    return found
  },
}
