import { type Check, say } from '../../findings'
import { swapFix } from '../../pins'
import { formatQuantity, fullRange } from '../../quantity'
import { otherSources } from './ways-out'

export const boardInput: Check = {
  id: 'power.board-input',
  stage: 'power',
  looksFor: 'a source that the board’s input does not take',
  rule: 'recommended and absolute input voltage in the board’s manual',
  run: (stages) => {
    const { source } = stages.power
    const board = stages.chip.chip?.board
    if (!board || !source) return []
    const input = fullRange(board.input)
    const given = fullRange(source.voltage)
    if (given.min >= input.min && given.max <= input.max) return []
    const high = given.max > input.max
    const other = stages.fitting()
    return [
      {
        id: 'power.board-input',
        severity: high ? 'stops' : 'risks',
        grade: 'outside the sheet',
        ...(high
          ? say`${source.name} gives up to ${formatQuantity(given.max, 'V', 3)}; the input of ${board.name} takes ${formatQuantity(input.max, 'V')}.`
          : say`${source.name} gives as little as ${formatQuantity(given.min, 'V', 3)}; ${board.name} needs ${formatQuantity(input.min, 'V')}.`),
        because: [
          say`${source.sheet}: ${formatQuantity(given.min, 'V', 3)} to ${formatQuantity(given.max, 'V', 3)}`,
          say`${board.sheet}, ${board.input.source ?? 'input'}: ${formatQuantity(input.min, 'V')} to ${formatQuantity(input.max, 'V')}`,
        ],
        fixes: [...otherSources(stages, 2), ...(other ? [swapFix(stages, other)] : [])],
      },
    ]
  },
}
