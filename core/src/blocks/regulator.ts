import { preferred, type SupportPart } from '../circuit'
import { careful, everyStance, supportChoice } from '../design'
import { fromPart } from '../findings'
import { formatQuantity, fullRange } from '../quantity'
import { asStated } from '../sums'
import type { LoadedContext } from './block'

declare module '../circuit/support' {
  interface SupportRoles {
    regulator: true
    'regulator input capacitor': true
    'regulator output capacitor': true
  }
}

/** The regulator itself and the two capacitors its sheet asks for. */
export const regulator = ({ design, stock, power }: LoadedContext): SupportPart[] => {
  const reg = power.regulator
  if (!reg) return []
  const nets = { in: 'VIN', out: 'VCC', ground: 'GND', none: '' }
  const parts: SupportPart[] = [
    {
      key: 'regulator',
      role: 'regulator',
      name: 'regulator',
      part: reg,
      legs: reg.legs
        .filter((l) => l.role !== 'none')
        .map((l) => ({ name: `${l.leg} ${l.name}`, net: nets[l.role] })),
      why: `holds the rail at ${formatQuantity(fullRange(reg.output).typ, 'V')}`,
      worked: power.regulation
        ? [power.regulation.dissipation, power.regulation.junction, power.regulation.margin]
        : [],
      ...supportChoice(design, 'regulator', everyStance),
      risk: {
        severity: 'stops',
        grade: 'impossible',
        text: 'Without it nothing feeds the rail.',
        facts: [{ text: 'The rail hangs on the regulator’s output' }],
      },
    },
  ]
  const capacitor = (
    key: string,
    role: SupportPart['role'],
    name: string,
    net: string,
    least: number,
    field: string,
    source: string | undefined,
    risk: string,
    farads: 'electrolytics' | 'ceramics',
  ) => {
    const series = stock[farads]
    if (!series) return
    const value = preferred(series, least, 'up')
    parts.push({
      key,
      role,
      name,
      part: series,
      value,
      legs: [
        { name: farads === 'electrolytics' ? '+' : '1', net },
        { name: farads === 'electrolytics' ? '−' : '2', net: 'GND' },
      ],
      why: `${reg.name} asks for at least ${formatQuantity(least, 'F')} there`,
      worked: [
        asStated(
          name,
          'C',
          'F',
          fromPart(
            'C_sheet',
            'least capacitor',
            reg,
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
        text: risk,
        facts: [
          {
            text: `${reg.sheet}, ${source ?? 'application'}: at least ${formatQuantity(least, 'F')}`,
            origin: { kind: 'part', part: reg.id, name: reg.name, field, sheet: reg.sheet, place: source },
          },
        ],
      },
    })
  }
  const pick = (farads: number) => (farads >= 1e-6 ? 'electrolytics' : 'ceramics')
  capacitor(
    'regulator-in',
    'regulator input capacitor',
    'capacitor at the regulator’s input',
    'VIN',
    reg.inputCapacitor,
    'inputCapacitor',
    undefined,
    `The regulator may oscillate with less than ${formatQuantity(reg.inputCapacitor, 'F')} at its input.`,
    pick(reg.inputCapacitor),
  )
  capacitor(
    'regulator-out',
    'regulator output capacitor',
    'capacitor at the regulator’s output',
    'VCC',
    reg.outputCapacitor.capacitance,
    'outputCapacitor',
    reg.outputCapacitor.source,
    `Its output may ring or oscillate with less than ${formatQuantity(reg.outputCapacitor.capacitance, 'F')}.`,
    pick(reg.outputCapacitor.capacitance),
  )
  return parts
}
