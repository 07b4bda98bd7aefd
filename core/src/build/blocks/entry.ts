import { everyStance, supportChoice } from '../../design'
import { partsOfKind } from '../../parts'
import type { SupportBlock } from './block'

const sorts = { adapter: 'barrel jack', usb: 'usb jack', cells: 'cell holder' } as const

/** Where the supply comes onto the board. */
export const entry: SupportBlock = ({ power, design, library }) => {
  if (!power.source) return []
  const jack = partsOfKind(library, 'connector').find((c) => c.sort === sorts[power.source!.sort])
  if (!jack) return []
  const first = power.polarity ? 'VPLUG' : power.regulator ? 'VIN' : 'VCC'
  return [
    {
      key: 'entry',
      name: `jack for ${power.source.name}`,
      part: jack,
      legs: [
        { name: '+', net: first },
        { name: '−', net: 'GND' },
      ],
      why: `${power.source.plug}, ${power.source.polarity}`,
      worked: [],
      ...supportChoice(design, 'entry', everyStance),
      risk: {
        severity: 'stops',
        grade: 'impossible',
        text: 'Nothing brings the supply onto the board.',
        facts: [{ text: 'The source ends here' }],
      },
    },
  ]
}
