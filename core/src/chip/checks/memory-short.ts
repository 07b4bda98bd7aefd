import { type Check, say } from '../../findings'
import { swapFix } from '../../pins'

export const memoryShort: Check = {
  id: 'chip.memory-short',
  stage: 'chip',
  looksFor: 'code of the devices that does not fit the chip’s memory',
  rule: 'program and data memory in the part files',
  run: (stages) => {
    const {
      needs,
      chip: { chip, own },
    } = stages
    if (!chip || !own || chip.assumed?.includes('memory') || (own.programLeft >= 0 && own.dataLeft >= 0))
      return []
    const roomy = stages.fitting()
    const short =
      own.programLeft < 0
        ? (['program', -own.programLeft, needs.program] as const)
        : (['data', -own.dataLeft, needs.data] as const)
    return [
      {
        id: 'chip.memory-short',
        severity: 'stops',
        ...say`${chip.name} is ${short[1]} bytes of ${short[0]} memory short.`,
        because: [
          { ...say`The devices’ code takes ${short[2].value.max} bytes`, worked: short[2] },
          say`${chip.name} has ${chip.memory[short[0]]} bytes (${chip.sheet})`,
        ],
        fixes: roomy ? [swapFix(stages, roomy)] : [],
      },
    ]
  },
}
