import { feederName } from '../../design'
import { type Check, say } from '../../findings'
import { voltageFor } from '../../supply'
import { formatQuantity, fullRange } from '../../quantity'
import { otherRegulators } from '../../pins'
import { eachItsVoltage, otherFeeders } from './ways-out'

export const deviceSupply: Check = {
  id: 'power.device-supply',
  stage: 'power',
  looksFor: 'a device fed outside its supply range',
  rule: 'recommended and absolute maximum supply of the device',
  run: (stages) => {
    const { design, needs, power } = stages
    return design.needs.devices.flatMap((need) => {
      const part = needs.instances.find((i) => i.need.id === need.id)?.part
      const rail = voltageFor(power.supplies, need)
      if (!part?.supply || !rail) return []
      const supply = fullRange(part.supply)
      if (rail.value.min >= supply.min && rail.value.max <= supply.max) return []
      const absolute = part.supplyAbsolute ? fullRange(part.supplyAbsolute).max : supply.max * 1.2
      const breaks = rail.value.max > absolute
      return [
        {
          id: `power.device-supply:${need.id}`,
          severity: breaks ? ('stops' as const) : ('risks' as const),
          grade: breaks ? ('impossible' as const) : ('outside the sheet' as const),
          ...say`${need.name} runs on ${formatQuantity(supply.min, 'V')} to ${formatQuantity(supply.max, 'V')}; its ${need.fedBy === 'feed' ? 'feed' : feederName(need.fedBy ?? 'rail')} is ${formatQuantity(rail.value.min, 'V', 3)} to ${formatQuantity(rail.value.max, 'V', 3)}.`,
          because: [
            {
              ...say`${rail.label}: ${formatQuantity(rail.value.min, 'V', 3)} to ${formatQuantity(rail.value.max, 'V', 3)}`,
              worked: rail,
            },
            say`${part.sheet}, ${part.supply.source ?? 'supply'}: ${formatQuantity(supply.min, 'V')} to ${formatQuantity(supply.max, 'V')}`,
          ],
          fixes: [
            ...(need.fedBy ? [] : otherRegulators(stages, 2)),
            ...otherFeeders(stages, need.id, need.name, supply),
            ...(need.fedBy ? [] : eachItsVoltage(stages)),
          ],
          about: { device: need.id },
        },
      ]
    })
  },
}
