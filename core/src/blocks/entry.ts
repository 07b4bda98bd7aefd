import { say } from '../findings'
import { everyStance, supportChoice } from '../design'
import { type LoadedContext, sourceNet, type Undrawn } from './block'
import { jackOf } from './jack'
import { latchNet } from './latch'

declare module '../circuit/support' {
  interface SupportRoles {
    entry: true
  }
}

/** Where the supply comes onto the board. */
export const entry = ({ power, design, library, supplies }: LoadedContext): Undrawn[] => {
  if (!power.source) return []
  const jack = jackOf(library, power.source)
  if (!jack) return []
  const latched = supplies.sources.some((s) => s.id === 'source' && s.lead?.pass)
  return [
    {
      key: 'entry',
      role: 'entry',
      name: `jack for ${power.source.name}`,
      part: jack,
      legs: [
        { name: '+', net: latched ? latchNet : sourceNet(supplies) },
        { name: '−', net: 'GND' },
      ],
      why: `${power.source.plug}, ${power.source.polarity}`,
      worked: [],
      ...supportChoice(design, 'entry', everyStance),
      risk: {
        severity: 'stops',
        grade: 'impossible',
        ...say`Nothing brings the supply onto the board.`,
        facts: [say`The source ends here`],
      },
    },
  ]
}
