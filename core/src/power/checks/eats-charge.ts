import { type Check, say } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { headOf, onTheSource } from '../../supply'
import { eatenBy } from '../regulate'
import { convertersOf } from './converters'

export const eatsCharge: Check = {
  id: 'power.eats-charge',
  stage: 'power',
  looksFor: 'a regulator that takes a quarter or more of the cells’ charge for itself',
  rule: 'quiescent current of the regulator against all that the source gives on average',
  run: (stages) => {
    const { power } = stages
    const { source, supplies, loads, average } = power
    const head = loads.rails[headOf(supplies, supplies.own)]!
    return convertersOf(stages).flatMap(({ regulator, out, tail, others }) => {
      if (!onTheSource(supplies, out.rail.id)) return []
      const part = eatenBy({ source, head }, { part: regulator })
      if (!part) return []
      const percent = `${Math.round(part.value.typ * 100)} %`
      return {
        id: `power.eats-charge${tail}`,
        severity: 'risks' as const,
        grade: 'typical' as const,
        ...say`${regulator.name} takes ${formatQuantity(fullRange(regulator.quiescent).typ, 'A', 2)} for itself, day and night: ${percent} of all that the cells give.`,
        because: [
          { ...say`On average the cells give ${formatQuantity(average.value.typ, 'A', 3)}`, worked: average },
          { ...say`Of that the regulator itself takes ${percent}`, worked: part },
        ],
        fixes: others(2),
      }
    })
  },
}
