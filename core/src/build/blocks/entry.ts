import { everyStance, supportChoice } from '../../design'
import { type Library, partsOfKind, type Source } from '../../parts'
import type { SupportBlock } from './block'

const sorts = { adapter: 'barrel jack', usb: 'usb jack', cells: 'cell holder' } as const

const jackOf = (library: Library, source: Source) =>
  partsOfKind(library, 'connector').find((c) => c.sort === sorts[source.sort])

/** Where the second feed comes in: its ground is the board's, its plus goes to its own loads alone. */
export const feedEntry: SupportBlock = ({ power, design, library }) => {
  const source = power.feed?.source
  const jack = source && jackOf(library, source)
  if (!source || !jack) return []
  return [
    {
      key: 'feed',
      role: 'feed entry',
      name: `jack for the second feed, ${source.name}`,
      part: jack,
      legs: [
        { name: '+', net: 'VFEED' },
        { name: '−', net: 'GND' },
      ],
      why: `${source.plug}, ${source.polarity}; its ground must be joined to the board’s, its plus to nothing of the board`,
      worked: [],
      ...supportChoice(design, 'feed', everyStance),
      risk: {
        severity: 'stops',
        grade: 'impossible',
        text: 'Nothing brings the second feed to its loads.',
        facts: [{ text: 'The second feed ends here' }],
      },
    },
  ]
}

/** Where the supply comes onto the board. */
export const entry: SupportBlock = ({ power, design, library }) => {
  if (!power.source) return []
  const jack = jackOf(library, power.source)
  if (!jack) return []
  const first = power.polarity ? 'VPLUG' : power.regulator ? 'VIN' : 'VCC'
  return [
    {
      key: 'entry',
      role: 'entry',
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
