import { preferred, type Stock, type SupportPart } from '../circuit'
import { careful, type Design, supportChoice } from '../design'
import { fromPart, partOrigin, type Said, say, type SheetPart } from '../findings'
import { formatQuantity } from '../quantity'
import { asStated } from '../sums'
import type { Undrawn } from './block'

/** A capacitor from a net to ground that a part’s sheet asks for. */
export interface AskedFor {
  key: string
  role: SupportPart['role']
  name: string
  net: string
  /** Farads, at least. */
  least: number
  /** That much must really be there: the weakest of the drawer still is. Without it the sheet names the value to fit. */
  evenWeakest?: true
  field: string
  source?: string
  risk: Said
}

/** From here on electrolytics, farads: ceramics for leads end there. */
const large = 1e-6

/** None where the drawer has none of its sort. */
export const askedCapacitor = (
  part: SheetPart,
  { key, role, name, net, least, evenWeakest, field, source, risk }: AskedFor,
  { design, stock }: { design: Design; stock: Stock },
): Undrawn[] => {
  const polar = least >= large
  const series = polar ? stock.electrolytics : stock.ceramics
  if (!series) return []
  const value = preferred(series, evenWeakest ? least / (1 - series.tolerance) : least, 'up')
  return [
    {
      key,
      role,
      name,
      part: series,
      value,
      legs: [
        { name: polar ? '+' : '1', net },
        { name: polar ? '−' : '2', net: 'GND' },
      ],
      why: `${part.name} asks for at least ${formatQuantity(least, 'F')} there`,
      worked: [
        asStated(
          name,
          'C',
          'F',
          fromPart(
            'C_sheet',
            'least capacitor',
            part,
            field,
            { min: least, kind: 'recommended', source },
            'F',
          ),
          `Fitted is the next preferred value, ${formatQuantity(value.value, 'F')}.`,
        ),
      ],
      ...supportChoice(design, key, careful),
      risk: {
        severity: 'risks',
        grade: 'outside the sheet',
        ...risk,
        facts: [
          {
            ...say`${part.sheet}, ${source ?? 'application'}: at least ${formatQuantity(least, 'F')}`,
            origin: partOrigin(part, field, { kind: 'recommended', source }),
          },
        ],
      },
    },
  ]
}
