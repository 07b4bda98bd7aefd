import { say } from '../findings'
import type { SupportPart } from '../circuit'
import { careful, supportChoice } from '../design'
import { partsOfKind } from '../parts'
import type { BlockContext } from './block'

declare module '../circuit/support' {
  interface SupportRoles {
    socket: true
  }
}

/** A socket, so that the chip goes in last and can come out again. */
export const socket = ({ chip, design, library }: BlockContext): SupportPart[] => {
  if (chip.package.style !== 'dip') return []
  const part = partsOfKind(library, 'connector').find(
    (c) => c.sort === 'socket' && c.contacts === chip.package.legs,
  )
  if (!part) return []
  return [
    {
      key: 'socket',
      role: 'socket',
      name: 'socket of the chip',
      part,
      legs: [],
      why: 'the board is checked before the chip goes in, and the chip can be changed',
      worked: [],
      ...supportChoice(design, 'socket', careful),
      risk: {
        severity: 'notes',
        grade: 'guaranteed',
        ...say`The chip is soldered in by ${chip.package.legs} legs and can’t be taken out whole.`,
        facts: [say`A mistake in the supply is found only after the chip has met it`],
      },
    },
  ]
}
