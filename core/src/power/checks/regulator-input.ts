import { type Check, say } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { convertersOf } from './converters'

export const regulatorInput: Check = {
  id: 'power.regulator-input',
  stage: 'power',
  looksFor: 'a source above what the regulator’s input stands',
  rule: 'absolute maximum and recommended input voltage',
  run: (stages) => {
    return convertersOf(stages).flatMap(({ regulator, input, tail, others, sources }) => {
      const absolute = fullRange(regulator.inputAbsolute).max
      const recommended = fullRange(regulator.inputRecommended).max
      if (input.value.max <= recommended) return []
      const breaks = input.value.max > absolute
      return [
        {
          id: `power.regulator-input${tail}`,
          severity: breaks ? ('stops' as const) : ('risks' as const),
          grade: breaks ? ('impossible' as const) : ('outside the sheet' as const),
          ...say`${regulator.name} gets up to ${formatQuantity(input.value.max, 'V', 3)}; ${breaks ? say`it breaks above ${formatQuantity(absolute, 'V')}` : say`${formatQuantity(recommended, 'V')} is recommended`}.`,
          because: [
            {
              ...say`${tail ? 'In front of it' : 'After the plug'} there are up to ${formatQuantity(input.value.max, 'V', 3)}`,
              worked: input,
            },
            say`${regulator.sheet}, ${regulator.inputAbsolute.source ?? 'limits'}: absolute maximum ${formatQuantity(absolute, 'V')}`,
          ],
          fixes: [...others(2), ...sources(2)],
        },
      ]
    })
  },
}
