import { type Check, fromDecision, say } from '../../findings'
import { formatQuantity } from '../../quantity'
import { asStated } from '../../sums'
import { agrees } from '../measured'

export const measuredDiffers: Check = {
  id: 'power.measured-differs',
  stage: 'power',
  looksFor: 'a current measured on the built thing that is none that was predicted',
  rule: 'the reading with what the meter may be off, against the current of that state at its corners',
  run: (stages) =>
    (stages.design.power.measured ?? []).flatMap((m) => {
      // What was found out needs no looking for; a state that is gone is told on the page.
      const compared = m.found === undefined ? agrees(stages, m) : undefined
      if (!compared || compared.agrees) return []
      const { state, predicted, reading } = compared
      const [told, may] = [reading.value, predicted.value]
      const more = told.typ > may.max
      return [
        {
          id: `power.measured-differs:${m.id}`,
          severity: 'notes' as const,
          grade: 'typical' as const,
          ...say`${formatQuantity(m.reading, 'A')} were measured ${state.name}, where ${formatQuantity(may.min, 'A', 2)} to ${formatQuantity(may.max, 'A', 2)} are predicted: something takes ${more ? say`more` : say`less`} than planned.`,
          because: [
            {
              ...say`The meter said ${formatQuantity(m.reading, 'A')}`,
              worked: asStated(
                'Read from the meter',
                'I_read',
                'A',
                fromDecision('I_read', 'what the meter said', m.reading, 'A', 'read from the meter'),
              ),
            },
            { ...say`Predicted are ${formatQuantity(may.typ, 'A', 2)} as usual`, worked: predicted },
          ],
          fixes: [],
        },
      ]
    }),
}
