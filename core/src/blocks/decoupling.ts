import { preferred, type SupportPart, twoLegs } from '../circuit'
import { byTheBook, careful, supportChoice } from '../design'
import { fromPart, fromRule, say } from '../findings'
import { formatQuantity } from '../quantity'
import { asStated, sum } from '../sums'
import { type BlockContext, pinNet } from './block'

declare module '../circuit/support' {
  interface SupportRoles {
    'decoupling capacitor': true
  }
}

/** One millimetre of wire has about a nanohenry; a hand's breadth to the supply and back. */
const wire = 100e-9
const step = 20e-3
const edge = 5e-9

const dip = sum(
  {
    label: 'Dip of the supply at each clock edge',
    symbol: 'ΔV',
    unit: 'V',
    note: 'A capacitor at the leg gives this current instead of the wire.',
  },
  {
    L: fromRule('L', 'inductance of 100 mm of wire', wire, 'H', 'about 1 nH a millimetre'),
    ΔI: fromRule('ΔI', 'step of the current when many gates switch', step, 'A', 'usual for an 8-bit chip'),
    Δt: fromRule('Δt', 'length of that edge', edge, 's', 'usual'),
  },
  (i) => i.L.times(i.ΔI).over(i.Δt),
)

export const decoupling = ({ chip, design, stock }: BlockContext): SupportPart[] =>
  chip.support.decoupling.flatMap((d, i): SupportPart[] => {
    if (!stock.ceramics) return []
    const key = `decoupling:${d.pin}`
    const value = preferred(stock.ceramics, d.capacitance, 'nearest')
    return [
      {
        key,
        role: 'decoupling capacitor',
        name: `decoupling capacitor at ${d.pin}`,
        part: stock.ceramics,
        value,
        legs: twoLegs(pinNet(chip, d.pin), 'GND'),
        why: `gives ${d.pin} its short bursts of current${d.within ? `, no further than ${formatQuantity(d.within, 'm')} from the leg` : ''}`,
        worked: [
          asStated(
            `Decoupling at ${d.pin}`,
            'C',
            'F',
            fromPart(
              'C_sheet',
              'capacitor the sheet asks for',
              chip,
              `support.decoupling[${i}]`,
              { typ: d.capacitance, kind: 'recommended', source: d.source },
              'F',
            ),
          ),
          dip,
        ],
        ...supportChoice(design, key, i === 0 ? careful : byTheBook),
        risk: {
          severity: 'risks',
          grade: 'outside the sheet',
          ...say`Without it the supply at ${d.pin} dips by about ${formatQuantity(dip.value.typ, 'V', 2)} at each clock edge; the chip may reset or misread at random.`,
          facts: [
            {
              ...say`${chip.sheet}, ${d.source ?? 'support circuit'}: ${formatQuantity(d.capacitance, 'F')} at ${d.pin}`,
              origin: {
                kind: 'part',
                part: chip.id,
                name: chip.name,
                field: `support.decoupling[${i}]`,
                sheet: chip.sheet,
                place: d.source,
              },
            },
            say`The wire to the supply is a small inductance: it resists quick changes of current`,
            { ...say`The supply dips by ${formatQuantity(dip.value.typ, 'V', 2)} at each edge`, worked: dip },
          ],
        },
      },
    ]
  })
