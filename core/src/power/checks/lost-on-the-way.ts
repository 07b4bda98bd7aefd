import { type Check, say } from '../../findings'
import { formatQuantity } from '../../quantity'
import { onTheSource } from '../../supply'
import { starved } from '../starved'
import { otherWires } from './lead'

export const lostOnTheWay: Check = {
  id: 'power.lost-on-the-way',
  stage: 'power',
  looksFor: 'a device beside the chip’s rail that gets too little once all of them work',
  rule: 'the source’s voltage, less what falls inside it, in its lead and in regulators at full work; the device’s lowest supply, by more than 10 mV',
  run: (stages) => {
    const { needs, power } = stages
    return starved(needs, power.supplies, power.loads).map(({ name, rail, least, gets, open }) => {
      const lead = power.leads.find(({ of }) => (of === 'source') === onTheSource(power.supplies, rail))
      const current = power.loads.rails[rail]!.work
      const low = formatQuantity(gets.value.min, 'V', 3)
      return {
        id: `power.lost-on-the-way:${rail}`,
        severity: gets.value.typ < least ? ('stops' as const) : ('risks' as const),
        grade: 'outside the sheet' as const,
        ...say`With all of it working ${name} gets down to ${low}, and needs ${formatQuantity(least, 'V', 3)}: the rest is lost on the way.`,
        because: [
          { ...say`Up to ${formatQuantity(current.value.max, 'A', 3)} flow`, worked: current },
          ...(lead
            ? [
                {
                  ...say`In its lead up to ${formatQuantity(lead.drop.value.max, 'V', 2)} are lost`,
                  worked: lead.drop,
                },
              ]
            : []),
          {
            ...say`So that ${formatQuantity(open.value.min, 'V', 3)} become ${low}`,
            worked: gets,
          },
        ],
        fixes: lead ? otherWires(stages, lead.of) : [],
      }
    })
  },
}
