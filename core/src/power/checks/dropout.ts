import type { Check } from '../../findings'
import { formatQuantity } from '../../quantity'
import { otherRegulators, otherSources } from './ways-out'

export const dropout: Check = {
  id: 'power.dropout',
  stage: 'power',
  looksFor: 'too little voltage left for the regulator at the source’s lowest',
  rule: 'V_in ≥ V_out + V_DO',
  run: (stages) => {
    const { power } = stages
    const reg = power.regulation
    if (!reg || reg.margin.value.min >= 0) return []
    return [
      {
        id: 'power.dropout',
        severity: reg.margin.value.typ < 0 ? 'stops' : 'risks',
        grade: 'outside the sheet',
        text: `At its lowest the source leaves ${reg.regulator.name} ${formatQuantity(-reg.margin.value.min, 'V', 2)} short: the rail sags.`,
        because: [
          {
            text: `The input may be as low as ${formatQuantity(power.input!.value.min, 'V', 3)}`,
            worked: power.input!,
          },
          { text: `The regulator needs its output and its drop-out voltage above that`, worked: reg.margin },
        ],
        fixes: [...otherRegulators(stages, 2), ...otherSources(stages, 2)],
      },
    ]
  },
}
