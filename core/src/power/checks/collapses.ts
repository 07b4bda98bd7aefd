import { type Check, say } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { otherSources } from './ways-out'

export const collapses: Check = {
  id: 'power.collapses',
  stage: 'power',
  looksFor: 'a switching regulator that takes more than its source can give at any voltage',
  rule: 'V_in = V_source − R_i·V_out·I_out / (η·V_in) must have a solution above half of what there is without a load',
  run: (stages) => {
    const { loads } = stages.power
    return loads.collapsing.map((c) => {
      const out = loads.rails[c.to]!
      return {
        id: `power.collapses:${c.id}`,
        severity: 'stops' as const,
        grade: 'impossible' as const,
        ...say`${c.part.name} takes power, and the more its input sags the more current: what is in front of it can’t carry ${formatQuantity(out.work.value.max, 'A', 3)} at ${formatQuantity(fullRange(c.part.output).typ, 'V')}, and collapses.`,
        because: [
          {
            ...say`The ${out.rail.name} draws up to ${formatQuantity(out.work.value.max, 'A', 3)}`,
            worked: out.work,
          },
        ],
        fixes: otherSources(stages, 2),
      }
    })
  },
}
