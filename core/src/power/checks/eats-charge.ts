import { type Check, say } from '../../findings'
import { otherRegulators } from '../../pins'
import { formatQuantity, fullRange } from '../../quantity'
import { wayTo } from '../../supply'
import { eatenBy } from '../regulate'

export const eatsCharge: Check = {
  id: 'power.eats-charge',
  stage: 'power',
  looksFor: 'a regulator that takes a quarter or more of the cells’ charge for itself',
  rule: 'quiescent current of the regulator against all that the source gives on average',
  run: (stages) => {
    const { power } = stages
    const { source, regulator, supplies, loads, average } = power
    const head = loads.rails[wayTo(supplies, supplies.own).head]!
    const part = eatenBy({ source, regulator, head })
    if (!part || !regulator) return []
    const percent = `${Math.round(part.value.typ * 100)} %`
    return [
      {
        id: 'power.eats-charge',
        severity: 'risks',
        grade: 'typical',
        ...say`${regulator.name} takes ${formatQuantity(fullRange(regulator.quiescent).typ, 'A', 2)} for itself, day and night: ${percent} of all that the cells give.`,
        because: [
          { ...say`On average the cells give ${formatQuantity(average.value.typ, 'A', 3)}`, worked: average },
          { ...say`Of that the regulator itself takes ${percent}`, worked: part },
        ],
        fixes: stages.chip.chip?.board ? [] : otherRegulators(stages, 2),
      },
    ]
  },
}
