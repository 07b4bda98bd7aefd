import { say } from '../findings'
import { formatQuantity, fullRange } from '../quantity'
import { polarityKey } from '../supply'
import type { LoadedContext, Undrawn } from './block'

declare module '../circuit/support' {
  interface SupportRoles {
    'polarity diode': true
  }
}

/** A diode in series with the plug, where a plug of the other polarity can be put in. */
export const polarity = ({ power, chip }: LoadedContext): Undrawn[] => {
  if (!power.polarity || !power.source) return []
  const { diode, present, asked, forced } = power.polarity
  const absolute = fullRange(chip.supply.absolute)
  return [
    {
      key: polarityKey,
      role: 'polarity diode',
      name: 'polarity diode',
      part: diode,
      legs: [
        { name: 'anode', net: 'VPLUG' },
        { name: 'cathode', net: power.regulator ? 'VIN' : 'VCC' },
      ],
      series: true,
      why: 'lets current in one way only, should a plug of the other polarity be put in',
      worked: power.input ? [power.input] : [],
      present,
      asked,
      forced,
      risk: {
        severity: 'risks',
        grade: 'outside the sheet',
        ...say`A plug of the other polarity puts −${formatQuantity(fullRange(power.source.voltage).typ, 'V')} on a board that stands ${formatQuantity(absolute.min, 'V')}.`,
        facts: [
          say`${power.source.name} is ${power.source.polarity}; others with the same plug are not`,
          say`${chip.name} stands no less than ${formatQuantity(absolute.min, 'V')} at its supply (${chip.sheet}, ${chip.supply.absolute.source ?? 'absolute maximum'})`,
        ],
      },
    },
  ]
}
