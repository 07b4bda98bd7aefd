import { say } from '../findings'
import { everyStance, supportChoice } from '../design'
import { jackOf, voltageFor } from '../supply'
import type { SupportBlock } from './block'
import { sourceCautions } from './cautions'
import { askingChecks, askingParts, jackLegs } from './jack'
import { apart, volts } from './step'

declare module '../circuit/support' {
  interface SupportRoles {
    'feed entry': true
  }
}

/** Where the second feed comes in: its ground is the board’s, its plus goes to its own loads alone. */
export const secondFeed: SupportBlock = {
  name: 'second feed',
  besideBoards: true,
  loadedParts: ({ power, design, library, stock }) => {
    const source = power.feed?.source
    const jack = source && jackOf(library, source)
    if (!source || !jack) return []
    return [
      {
        key: 'feed',
        role: 'feed entry',
        name: `jack for the second feed, ${source.name}`,
        part: jack,
        legs: jackLegs(jack, source, 'VFEED'),
        why: `${source.plug}, ${source.polarity}; its ground must be joined to the board’s, its plus to nothing of the board`,
        worked: [],
        ...supportChoice(design, 'feed', everyStance),
        risk: {
          severity: 'stops',
          grade: 'impossible',
          ...say`Nothing brings the second feed to its loads.`,
          facts: [say`The second feed ends here`],
        },
      },
      ...askingParts(jack, source, 'VFEED', { design, stock }),
    ]
  },
  /** It is tried before anything hangs on it. */
  step: (own, { power }) => {
    const voltage = voltageFor(power.supplies, { fedBy: 'feed' })
    return {
      title: 'Second feed',
      then: ['Join its ground to the board’s ground; its plus goes to its loads alone.'],
      checks: [
        {
          where: 'between VFEED and VCC, unplugged',
          powered: false,
          ...apart,
          otherwise: 'the two supplies are joined: find the bridge before anything is plugged in',
        },
        ...askingChecks(own),
        ...(voltage
          ? [volts('between VFEED and GND', voltage, 'nothing, or negative: the plug is the other way round')]
          : []),
      ],
      cautions: ['iron', 'eyes', 'joined-grounds', ...sourceCautions(power.feed?.source)],
    }
  },
}
