import { say } from '../findings'
import { type SupportPart, twoLegs } from '../circuit'
import { loadCapacitorKey } from '../clock'
import { careful, everyStance, supportChoice } from '../design'
import { formatQuantity } from '../quantity'
import type { BlockContext, SupportBlock } from './block'
import { apart } from './step'

declare module '../circuit/support' {
  interface SupportRoles {
    'resonating part': true
    'load capacitor': true
  }
}

/** Crystal with two load capacitors, or a resonator; nothing for the chip's own oscillator. */
const parts = ({ clock: chosen, design, stock }: BlockContext): SupportPart[] => {
  const { source, part } = chosen
  if (!source || !part || !source.pins || source.pins.length < 2) return []
  const [a, b] = source.pins as [string, string]
  const dead = {
    severity: 'stops' as const,
    grade: 'impossible' as const,
    ...say`The chip is set to run from it and stays dead without it, to the programmer too.`,
    facts: [
      say`The clock is taken from ${source.name}`,
      say`A chip without a clock does not even answer its programmer`,
    ],
  }
  const all: SupportPart[] = [
    {
      key: 'crystal',
      role: 'resonating part',
      name: part.kind,
      part,
      legs: twoLegs(a, b),
      why: `makes the clock of ${formatQuantity(part.frequency, 'Hz')}`,
      worked: [chosen.frequency],
      ...supportChoice(design, 'crystal', everyStance),
      risk: dead,
    },
  ]
  const { load } = chosen
  if (part.kind === 'crystal' && load && stock.ceramics) {
    const { wanted, fitted, pull, bare } = load
    for (const [i, pin] of [a, b].entries()) {
      const key = loadCapacitorKey(pin)
      all.push({
        key,
        role: 'load capacitor',
        name: `load capacitor at ${pin}`,
        part: stock.ceramics,
        value: fitted,
        legs: twoLegs(pin, 'GND'),
        why: `loads the crystal with the ${formatQuantity(part.loadCapacitance, 'F')} it is cut for`,
        worked: i === 0 ? [wanted, load.load, ...(pull ? [pull] : [])] : [wanted],
        ...supportChoice(design, key, careful),
        risk: {
          severity: 'risks',
          grade: 'outside the sheet',
          ...(bare
            ? say`Without load capacitors the crystal runs ${formatQuantity(bare.value.typ, 'ppm', 2)} fast, if it starts at all.`
            : say`Without load capacitors the crystal may not start.`),
          facts: [
            say`${part.sheet}: cut for a load of ${formatQuantity(part.loadCapacitance, 'F')}`,
            ...(bare ? [{ ...say`Legs and traces alone load it with far less`, worked: bare }] : []),
          ],
        },
      })
    }
  }
  return all
}

export const clock: SupportBlock = {
  name: 'clock',
  parts,
  step: (own) => ({
    title: 'Clock',
    then: ['Keep the leads as short as they can be, with nothing crossing under them.'],
    checks: own
      .filter((p) => p.support!.role === 'resonating part')
      .map(({ legs: [a, b] }) => ({
        where: `between ${a!.net} and ${b!.net}, chip out`,
        powered: false,
        ...apart,
        otherwise: 'a bridge of solder under the crystal',
      })),
    cautions: ['iron'],
  }),
}
