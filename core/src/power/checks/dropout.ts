import { type Check, say } from '../../findings'
import { formatQuantity } from '../../quantity'
import { convertersOf } from './converters'
import { insteadOfDiode } from './ways-out'

export const dropout: Check = {
  id: 'power.dropout',
  stage: 'power',
  looksFor: 'too little voltage left for the regulator at the source’s lowest',
  rule: 'V_in ≥ V_out + V_DO; of a switching one also the lowest input of its sheet',
  run: (stages) => {
    const short = convertersOf(stages).filter((c) => c.margin.value.min < 0)
    return short.map((reg) => ({
      id: `power.dropout${reg.tail}`,
      severity: reg.margin.value.typ < 0 ? ('stops' as const) : ('risks' as const),
      grade: 'outside the sheet' as const,
      ...(reg.regulator.topology === 'switching'
        ? say`${reg.regulator.name} needs ${formatQuantity(reg.least.value.max, 'V', 3)} at its input and gets as little as ${formatQuantity(reg.input.value.min, 'V', 3)}: the ${reg.out.rail.name} fails.`
        : say`At its lowest the ${reg.before} leaves ${reg.regulator.name} short by ${formatQuantity(-reg.margin.value.min, 'V', 2)}: the ${reg.out.rail.name} sags.`),
      because: [
        {
          ...say`The input may be as low as ${formatQuantity(reg.input.value.min, 'V', 3)}`,
          worked: reg.input,
        },
        reg.regulator.topology === 'switching'
          ? { ...say`The regulator holds its output from that input on`, worked: reg.least }
          : {
              ...say`The regulator needs its output and its drop-out voltage above that`,
              worked: reg.margin,
            },
      ],
      fixes: [...reg.others(2), ...reg.sources(2), ...insteadOfDiode(stages, -reg.margin.value.min)],
    }))
  },
}
