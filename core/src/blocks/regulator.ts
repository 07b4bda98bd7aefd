import { preferred, type SupportPart } from '../circuit'
import { careful, everyStance, supportChoice } from '../design'
import { fromPart, type Said, say } from '../findings'
import type { Regulator } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { asStated } from '../sums'
import type { LoadedContext, Undrawn } from './block'

declare module '../circuit/support' {
  interface SupportRoles {
    regulator: true
    'regulator input capacitor': true
    'regulator output capacitor': true
  }
}

const itself = (reg: Regulator, { design, power }: LoadedContext): Undrawn => {
  const nets = { in: 'VIN', out: 'VCC', ground: 'GND', none: '' }
  return {
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
      ...say`Without it nothing feeds the rail.`,
      facts: [say`The rail hangs on the regulator’s output`],
    },
  }
}

/** A capacitor that its sheet asks for. */
interface AskedFor {
  key: string
  role: SupportPart['role']
  name: string
  net: string
  /** Farads, at least. */
  least: number
  field: string
  source?: string
  risk: Said
}

/** From here on electrolytics, farads: ceramics for leads end there. */
const large = 1e-6

const capacitor = (reg: Regulator, of: AskedFor, { design, stock }: LoadedContext): Undrawn[] => {
  const { key, role, name, net, least, field, source, risk } = of
  const polar = least >= large
  const series = polar ? stock.electrolytics : stock.ceramics
  if (!series) return []
  const value = preferred(series, least, 'up')
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
        ...risk,
        facts: [
          {
            ...say`${reg.sheet}, ${source ?? 'application'}: at least ${formatQuantity(least, 'F')}`,
            origin: { kind: 'part', part: reg.id, name: reg.name, field, sheet: reg.sheet, place: source },
          },
        ],
      },
    },
  ]
}

/** The regulator itself and the two capacitors its sheet asks for. */
export const regulator = (context: LoadedContext): Undrawn[] => {
  const reg = context.power.regulator
  if (!reg) return []
  const { inputCapacitor: input, outputCapacitor: output } = reg
  const asked: AskedFor[] = [
    {
      key: 'regulator-in',
      role: 'regulator input capacitor',
      name: 'capacitor at the regulator’s input',
      net: 'VIN',
      least: input,
      field: 'inputCapacitor',
      risk: say`The regulator may oscillate with less than ${formatQuantity(input, 'F')} at its input.`,
    },
    {
      key: 'regulator-out',
      role: 'regulator output capacitor',
      name: 'capacitor at the regulator’s output',
      net: 'VCC',
      least: output.capacitance,
      field: 'outputCapacitor',
      source: output.source,
      risk: say`Its output may ring or oscillate with less than ${formatQuantity(output.capacitance, 'F')}.`,
    },
  ]
  return [itself(reg, context), ...asked.flatMap((of) => capacitor(reg, of, context))]
}
