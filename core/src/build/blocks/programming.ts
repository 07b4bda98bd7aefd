import { netOf } from '../../circuit'
import { careful, everyStance, supportChoice } from '../../design'
import { partsOfKind } from '../../parts'
import { type SupportBlock, pinNet } from './block'

/** The header by which code gets in, contact by contact as the chip's sheet lists them. */
export const programmingHeader: SupportBlock = ({ chip, design, library, pins }) => {
  const method = chip.programming[0]!
  const connector = partsOfKind(library, 'connector')
    .filter((c) => c.sort === 'programming header' && c.contacts >= method.contacts.length)
    .sort((a, b) => a.contacts - b.contacts)[0]
  if (!connector) return []
  const netAt = (at: string) => {
    if (at === 'supply') return 'VCC'
    if (at === 'ground') return 'GND'
    const wire = pins.plan?.wires.find((w) => w.pin.id === at)
    if (at === chip.support.reset?.pin && !wire) return 'RESET'
    return wire ? netOf(wire.signal.name) : pinNet(chip, at)
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
        text: 'To load a program the chip must come out of the board.',
        facts: [{ text: `${method.contacts.length} lines reach the programmer only through this header` }],
      },
    },
  ]
}

/** A socket, so that the chip goes in last and can come out again. */
export const socket: SupportBlock = ({ chip, design, library }) => {
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
        text: `The chip is soldered in by ${chip.package.legs} legs and can’t be taken out whole.`,
        facts: [{ text: 'A mistake in the supply is found only after the chip has met it' }],
      },
    },
  ]
}
