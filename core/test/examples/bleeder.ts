// core/src/build/blocks/bleeder.ts: empties the rail when the plug is pulled.
import type { SupportBlock } from '../../src/build/blocks/block'
import { preferred } from '../../src/circuit'
import { byTheBook, supportChoice } from '../../src/design'

export const bleeder: SupportBlock = ({ design, stock }) =>
  stock.resistors
    ? [
        {
          key: 'bleeder',
          role: 'bulk capacitor', // a role of its own is a word more in `SupportRole`
          name: 'bleeder of the rail',
          part: stock.resistors,
          value: preferred(stock.resistors, 10e3, 'nearest'),
          legs: [
            { name: '1', net: 'VCC' },
            { name: '2', net: 'GND' },
          ],
          why: 'empties the capacitors within seconds',
          worked: [],
          ...supportChoice(design, 'bleeder', byTheBook),
          risk: {
            severity: 'notes',
            grade: 'guaranteed',
            text: 'The rail stays up for a while after the plug is pulled.',
            facts: [{ text: 'Only what leaks empties the capacitors' }],
          },
        },
      ]
    : []
