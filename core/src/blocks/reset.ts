import { preferred, type SupportPart, type SupportRole, twoLegs } from '../circuit'
import { byTheBook, careful, supportChoice } from '../design'
import { fromPart, say } from '../findings'
import { partsOfKind } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { attributeOf } from '../legs'
import { asStated } from '../sums'
import type { BlockContext, SupportBlock } from './block'
import { bridge, joined } from './step'

declare module '../circuit/support' {
  interface SupportRoles {
    'reset pull-up': true
    'reset button': true
  }
}

const parts = ({ chip, design, stock, library }: BlockContext): SupportPart[] => {
  const sheet = chip.support.reset
  const pin = chip.pins.find((p) => p.id === sheet?.pin)
  // A reset leg that serves as a port has no button and no pull-up of ours.
  const asPort = design.pins.resetAsPort && pin && attributeOf(pin, 'reset')?.asPort !== undefined
  if (!sheet || !stock.resistors || asPort) return []
  const wanted = fullRange(sheet.pullUp)
  const value = preferred(stock.resistors, wanted.typ, 'nearest')
  const inside = sheet.internalPullUp && fullRange(sheet.internalPullUp)
  const all: SupportPart[] = [
    {
      key: 'reset-pull-up',
      role: 'reset pull-up',
      name: 'reset pull-up',
      part: stock.resistors,
      value,
      legs: twoLegs('VCC', 'RESET'),
      why: 'holds reset high against noise on the button’s and the programmer’s leads',
      worked: [
        asStated(
          'Reset pull-up',
          'R',
          'Ω',
          fromPart('R_sheet', 'pull-up the sheet asks for', chip, 'support.reset.pullUp', sheet.pullUp, 'Ω'),
        ),
      ],
      ...supportChoice(design, 'reset-pull-up', careful),
      risk: {
        severity: inside ? 'notes' : 'risks',
        grade: inside ? 'typical' : 'outside the sheet',
        ...(inside
          ? say`Only the chip’s own ${formatQuantity(inside.min, 'Ω', 2)} to ${formatQuantity(inside.max, 'Ω', 2)} hold reset high: near a motor or relay it may restart by itself.`
          : say`Reset floats: the chip may restart at any touch.`),
        facts: [
          {
            ...say`${chip.sheet}, ${sheet.source ?? 'support circuit'}: ${formatQuantity(wanted.typ, 'Ω')} from reset to supply`,
            origin: {
              kind: 'part',
              part: chip.id,
              name: chip.name,
              field: 'support.reset',
              sheet: chip.sheet,
              place: sheet.source,
            },
          },
        ],
      },
    },
  ]
  const button = partsOfKind(library, 'switch').find((s) => s.sort === 'push')
  if (button)
    all.push({
      key: 'reset-button',
      role: 'reset button',
      name: 'reset button',
      part: button,
      legs: twoLegs('RESET', 'GND'),
      why: 'starts the program afresh without pulling the plug',
      worked: [],
      ...supportChoice(design, 'reset-button', byTheBook),
      risk: {
        severity: 'notes',
        grade: 'guaranteed',
        ...say`To restart the program, the plug must be pulled.`,
        facts: [say`Nothing else on the board pulls reset low`],
      },
    })
  return all
}

export const reset: SupportBlock = {
  name: 'reset',
  parts,
  step: (own) => {
    const support = (role: SupportRole) => own.find((p) => p.support!.role === role)?.support
    const pull = support('reset pull-up')
    return {
      title: 'Reset',
      checks: [
        ...(pull
          ? [
              bridge(
                'between RESET and VCC, chip out',
                pull,
                'near 0 Ω: the button’s legs are turned, and it is always pressed',
              ),
            ]
          : []),
        ...(support('reset button')
          ? [
              {
                where: 'between RESET and GND, button pressed',
                powered: false,
                ...joined,
                otherwise: 'open: the button is turned by a quarter',
              },
            ]
          : []),
      ],
      cautions: ['iron'],
    }
  },
}
