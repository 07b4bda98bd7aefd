import type { SupportPart } from '../../circuit'
import { lampKey } from '../../power'
import { formatQuantity } from '../../quantity'
import type { SupportBlock } from './block'

/** The power lamp and its resistor: in and out together. */
export const lamp: SupportBlock = ({ power, stock }) => {
  const on = power.lamp
  if (!on || !stock.resistors) return []
  const common: Pick<SupportPart, 'present' | 'asked' | 'forced' | 'risk'> = {
    present: on.present,
    asked: on.asked,
    forced: on.forced,
    risk: {
      severity: 'notes',
      grade: 'guaranteed',
      text: `Nothing shows that the rail is up; ${formatQuantity(on.current.value.typ, 'A', 2)} is saved.`,
      facts: [{ text: 'A dead board and a board without power look the same', worked: on.current }],
    },
  }
  return [
    {
      ...common,
      key: lampKey,
      role: 'power lamp',
      name: 'power lamp',
      part: on.led,
      legs: [
        { name: 'anode', net: 'LAMP' },
        { name: 'cathode', net: 'GND' },
      ],
      why: 'shows that the rail is up',
      worked: [on.current],
    },
    {
      ...common,
      key: `${lampKey}-resistor`,
      role: 'power lamp resistor',
      name: 'series resistor of the power lamp',
      part: stock.resistors,
      value: on.resistor,
      legs: [
        { name: '1', net: 'VCC' },
        { name: '2', net: 'LAMP' },
      ],
      why: 'sets the lamp’s current',
      worked: [on.resistance],
    },
  ]
}
