// core/src/blocks/bleeder.ts: empties the rail when the plug is pulled.
import { bridge } from '../../src/blocks'
import type { SupportBlock } from '../../src/blocks/block'
import { fittedResistor, preferred, twoLegs } from '../../src/circuit'
import { byTheBook, supportChoice } from '../../src/design'
import { say } from '../../src/findings'
import { sum } from '../../src/sums'

declare module '../../src/circuit/support' {
  interface SupportRoles {
    bleeder: true
  }
}

export const bleeder: SupportBlock = {
  name: 'bleeder',
  parts: ({ design, stock, rail: V_DD }) => {
    if (!stock.resistors) return []
    const value = preferred(stock.resistors, 10e3, 'nearest')
    const R = fittedResistor('R', 'bleeder', stock.resistors, value, 'bleeder')
    const draws = sum({ label: 'Through the bleeder', symbol: 'I', unit: 'A' }, { V_DD, R }, (i) =>
      i.V_DD.over(i.R),
    )
    return [
      {
        key: 'bleeder',
        role: 'bleeder',
        name: 'bleeder of the rail',
        part: stock.resistors,
        value,
        legs: twoLegs('VCC', 'GND'),
        why: 'empties the capacitors within seconds',
        worked: [draws],
        draws,
        ...supportChoice(design, 'bleeder', byTheBook),
        risk: {
          severity: 'notes',
          grade: 'guaranteed',
          ...say`The rail stays up for a while after the plug is pulled.`,
          facts: [say`Only what leaks empties the capacitors`],
        },
      },
    ]
  },
  step: ([own]) => ({
    title: 'Bleeder',
    checks: [bridge('between VCC and GND, chip out', own!.support!, 'near 0 Ω: a bridge of solder')],
    cautions: ['iron'],
  }),
}
