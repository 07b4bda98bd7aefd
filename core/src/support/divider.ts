// The second half of a divider, for a sensor that is only a resistance.

import { preferred, twoLegs } from '../circuit'
import { everyStance, supportChoice } from '../design'
import { fromPart, say } from '../findings'
import { asStated } from '../sums'
import { endsOf } from '../legs'
import { type SignalSupport } from './context'

export const sensorDivider: SignalSupport = (wire, { stock, design }) => {
  const [found] = endsOf(wire, 'analog')
  if (!found?.electrical.divider || !found.electrical.dividerTo || !stock.resistors) return []
  const { end, electrical: analog } = found
  const key = `divider:${wire.signal.id}`
  const value = preferred(stock.resistors, analog.divider!, 'nearest')
  return [
    {
      key,
      role: 'sensor divider',
      name: `divider resistor of ${wire.signal.name}`,
      part: stock.resistors,
      value,
      legs: twoLegs(wire.signal.net, analog.dividerTo === 'ground' ? 'GND' : 'VCC'),
      why: `${end.instance.name} is a resistance; with this one it makes a voltage to measure`,
      worked: [
        asStated(
          `Divider resistor of ${wire.signal.name}`,
          'R',
          'Ω',
          fromPart(
            'R_sheet',
            'resistor the sensor’s sheet asks for',
            end.instance.part,
            `${end.signal.id}.divider`,
            { typ: analog.divider!, kind: 'recommended', source: end.signal.source },
            'Ω',
          ),
        ),
      ],
      signal: wire.signal.id,
      ...supportChoice(design, key, everyStance),
      risk: {
        severity: 'stops',
        grade: 'impossible',
        ...say`Without it ${wire.signal.name} reads the same, whatever ${end.instance.name} sees.`,
        facts: [say`One resistance alone gives no voltage to measure`],
      },
    },
  ]
}
