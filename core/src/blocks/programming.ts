import { say } from '../findings'
import { type SupportPart } from '../circuit'
import { everyStance, supportChoice } from '../design'
import { partsOfKind } from '../parts'
import { type BlockContext, legNet, type SupportBlock } from './block'
import { joined } from './step'

declare module '../circuit/support' {
  interface SupportRoles {
    'programming header': true
  }
}

/** The header by which code gets in, contact by contact as the chip's sheet lists them. */
const header = ({ chip, design, library, pins }: BlockContext): SupportPart[] => {
  const method = chip.programming[0]!
  const connector = partsOfKind(library, 'connector')
    .filter((c) => c.sort === 'programming header' && c.contacts >= method.contacts.length)
    .sort((a, b) => a.contacts - b.contacts)[0]
  if (!connector) return []
  const netAt = (at: string) => {
    if (at === 'supply') return 'VCC'
    if (at === 'ground') return 'GND'
    return legNet(chip, pins, at)
  }
  return [
    {
      key: 'programming-header',
      role: 'programming header',
      name: 'programming header',
      part: connector,
      legs: method.contacts.map((c, i) => ({ name: `${i + 1} ${c.signal}`, net: netAt(c.at) })),
      why: `the program gets in here: ${method.name}`,
      worked: [],
      ...supportChoice(design, 'programming-header', everyStance),
      risk: {
        severity: 'risks',
        grade: 'guaranteed',
        ...say`To load a program the chip must come out of the board.`,
        facts: [say`${method.contacts.length} lines reach the programmer only through this header`],
      },
    },
  ]
}

export const programmingHeader: SupportBlock = {
  name: 'programming',
  parts: header,
  step: (own, { chip }) => ({
    title: 'Programming header',
    checks: own[0]!.legs
      .filter((l) => l.net !== 'VCC' && l.net !== 'GND')
      .map((l) => {
        const leg = chip.legs.find((c) => c.net === l.net)
        return {
          where: `contact ${l.name} to ${leg ? `leg ${leg.name.replace(' ', ' (')})` : l.net}`,
          powered: false,
          ...joined,
          otherwise: 'open, or on the leg beside it',
        }
      }),
    cautions: ['iron', 'two-supplies'],
  }),
}
