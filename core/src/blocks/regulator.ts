import { everyStance, supportChoice } from '../design'
import { say } from '../findings'
import type { Regulator } from '../parts'
import { formatQuantity, fullRange } from '../quantity'
import { askedCapacitor, type AskedFor } from './asked-capacitor'
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
  return [itself(reg, context), ...asked.flatMap((of) => askedCapacitor(reg, of, context))]
}
