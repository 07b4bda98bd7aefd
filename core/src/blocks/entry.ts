import { say } from '../findings'
import { everyStance, supportChoice } from '../design'
import { jackOf, type OpenSupply } from '../supply'
import { type LoadedContext, sourceNet, type Undrawn } from './block'
import { askingParts, jackLegs } from './jack'
import { latchNet } from './latch'

declare module '../circuit/support' {
  interface SupportRoles {
    entry: true
  }
}

/** Where the source comes in before a transistor that stops it the wrong way round. */
export const guardedNet = 'VPLUG'

/** The net of the source’s own plus: in front of a latch or a guarding transistor, where there is one. */
export const sourceTerminal = (supplies: OpenSupply): string => {
  const lead = supplies.sources.find((s) => s.id === 'source')?.lead
  return lead?.pass ? latchNet : lead?.guard ? guardedNet : sourceNet(supplies)
}

/** Where the supply comes onto the board. */
export const entry = ({ power, design, library, stock, supplies }: LoadedContext): Undrawn[] => {
  if (!power.source) return []
  const jack = jackOf(library, power.source)
  if (!jack) return []
  return [
    {
      key: 'entry',
      role: 'entry',
      name: `jack for ${power.source.name}`,
      part: jack,
      legs: jackLegs(jack, power.source, sourceTerminal(supplies)),
      why: `${power.source.plug}, ${power.source.polarity}`,
      worked: [],
      ...supportChoice(design, 'entry', everyStance),
      risk: {
        severity: 'stops',
        grade: 'impossible',
        ...say`Nothing brings the supply onto the board.`,
        facts: [say`The rail begins at the plug`],
      },
    },
    ...askingParts(jack, power.source, sourceTerminal(supplies), { design, stock }),
  ]
}
