import { type Check, say, unsaid } from '../../findings'
import { otherRegulators, swapFix } from '../../pins'
import { formatQuantity, fullRange } from '../../quantity'

export const supplyOutOfRange: Check = {
  id: 'chip.supply-out-of-range',
  stage: 'chip',
  looksFor: 'a rail outside the supply range of the chip',
  rule: 'the chip’s recommended and absolute maximum supply',
  run: (stages) => {
    const {
      chip: { chip },
      power,
    } = stages
    if (!chip || !power.rail) return []
    const recommended = fullRange(chip.supply.recommended)
    const absolute = fullRange(chip.supply.absolute)
    const rail = power.rail.value
    if (rail.min >= recommended.min && rail.max <= recommended.max) return []
    const guess = chip.supply.recommended.kind === 'assumed'
    const dead = rail.max > absolute.max && !guess
    const other = stages.fitting()
    return [
      {
        id: 'chip.supply-out-of-range',
        severity: guess ? 'risks' : 'stops',
        grade: dead ? 'impossible' : 'outside the sheet',
        ...(dead
          ? say`The rail reaches ${formatQuantity(rail.max, 'V', 3)}; ${chip.name} is destroyed above ${formatQuantity(absolute.max, 'V')}.`
          : say`The rail is ${formatQuantity(rail.min, 'V', 3)} to ${formatQuantity(rail.max, 'V', 3)}; ${chip.name} runs on ${formatQuantity(recommended.min, 'V')} to ${formatQuantity(recommended.max, 'V')}${guess ? say`, as far as can be assumed before its sheet is read` : unsaid}.`),
        because: [
          { ...say`The rail is at most ${formatQuantity(rail.max, 'V', 3)}`, worked: power.rail },
          say`${chip.sheet}, ${chip.supply.recommended.source ?? 'supply'}: ${formatQuantity(recommended.min, 'V')} to ${formatQuantity(recommended.max, 'V')}`,
        ],
        fixes: [...otherRegulators(stages, 2), ...(other ? [swapFix(stages, other)] : [])],
      },
    ]
  },
}
