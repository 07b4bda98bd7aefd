import { type Check, partOrigin, say } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { convertersOf } from './converters'

export const regulatorOverloaded: Check = {
  id: 'power.regulator-overloaded',
  stage: 'power',
  looksFor: 'more current through the regulator than it is made for',
  rule: 'the regulator’s rated output current; of one that steps up its rated input current too',
  run: (stages) => {
    return convertersOf(stages).flatMap(
      ({ regulator, out: { rail, work }, tail, taken, others, sources, apart }) => {
        const limit = fullRange(regulator.current).max
        const swallows = regulator.inputCurrent && fullRange(regulator.inputCurrent).max
        if (work.value.max <= limit)
          return swallows !== undefined && taken && taken.value.max > swallows
            ? [
                {
                  id: `power.regulator-overloaded${tail}`,
                  severity: taken.value.typ > swallows ? ('stops' as const) : ('risks' as const),
                  grade: 'outside the sheet' as const,
                  ...say`${regulator.name} takes up to ${formatQuantity(taken.value.max, 'A', 3)} at its input; it is made for ${formatQuantity(swallows, 'A')}.`,
                  because: [
                    {
                      ...say`The ${rail.name} draws up to ${formatQuantity(work.value.max, 'A', 3)}`,
                      worked: work,
                    },
                    {
                      ...say`The less voltage it gets, the more it takes: up to ${formatQuantity(taken.value.max, 'A', 3)}`,
                      worked: taken,
                    },
                    {
                      ...say`${regulator.sheet}, ${regulator.inputCurrent?.source ?? 'rating'}: ${formatQuantity(swallows, 'A')} at its input`,
                      origin: partOrigin(regulator, 'inputCurrent', regulator.inputCurrent),
                    },
                  ],
                  fixes: [...others(), ...sources(), ...apart()],
                },
              ]
            : []
        return [
          {
            id: `power.regulator-overloaded${tail}`,
            severity: work.value.typ > limit ? ('stops' as const) : ('risks' as const),
            grade: 'outside the sheet' as const,
            ...say`${regulator.name} gives ${formatQuantity(limit, 'A')}; the ${rail.name} draws up to ${formatQuantity(work.value.max, 'A', 3)}.`,
            because: [
              {
                ...say`The ${rail.name} draws up to ${formatQuantity(work.value.max, 'A', 3)}`,
                worked: work,
              },
              say`${regulator.sheet}, ${regulator.current.source ?? 'rating'}: ${formatQuantity(limit, 'A')}`,
            ],
            fixes: [...others(), ...apart()],
          },
        ]
      },
    )
  },
}
