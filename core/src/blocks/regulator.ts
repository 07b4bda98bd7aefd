import { everyStance, supportChoice } from '../design'
import { say } from '../findings'
import { formatQuantity, fullRange } from '../quantity'
import { type Converter, railOf } from '../supply'
import { askedCapacitor, type AskedFor } from './asked-capacitor'
import type { LoadedContext, Undrawn } from './block'

declare module '../circuit/support' {
  interface SupportRoles {
    regulator: true
    'regulator input capacitor': true
    'regulator output capacitor': true
  }
}

/** A converter's parts are told apart by what it is called in the supply; the chip's own is `regulator`. */
const itself = ({ id, part: reg, from, to }: Converter, { design, power }: LoadedContext): Undrawn => {
  const [before, behind] = [railOf(power.supplies, from), railOf(power.supplies, to)]
  const nets = { in: before.net, out: behind.net, ground: 'GND', none: '' }
  const regulation = power.regulations.find((r) => r.converter.id === id)?.regulation
  const key = keyOf(id)
  return {
    key,
    role: 'regulator',
    name: to === power.supplies.own ? 'regulator' : `regulator of the ${behind.name}`,
    part: reg,
    legs: reg.legs
      .filter((l) => l.role !== 'none')
      .map((l) => ({ name: `${l.leg} ${l.name}`, net: nets[l.role] })),
    why: `holds the ${behind.name} at ${formatQuantity(fullRange(reg.output).typ, 'V')}`,
    worked: regulation ? [regulation.dissipation, regulation.junction, regulation.margin] : [],
    ...supportChoice(design, key, everyStance),
    risk: {
      severity: 'stops',
      grade: 'impossible',
      ...say`Without it nothing feeds the ${behind.name}.`,
      facts: [say`The ${behind.name} hangs on the regulator’s output`],
    },
  }
}

/** As a key of the builder's in and out choices. */
const keyOf = (id: string) => id.replace(' ', '-')

/** A regulator and the two capacitors its sheet asks for. */
export const regulatorParts = (converter: Converter, context: LoadedContext): Undrawn[] => {
  const { supplies } = context.power
  const { id, part: reg, from, to } = converter
  const { inputCapacitor: input, outputCapacitor: output } = reg
  const own = to === supplies.own
  const behind = railOf(supplies, to)
  const asked: AskedFor[] = [
    {
      key: `${keyOf(id)}-in`,
      role: 'regulator input capacitor',
      name: own ? 'capacitor at the regulator’s input' : `input capacitor of the ${behind.name}`,
      net: railOf(supplies, from).net,
      least: input,
      field: 'inputCapacitor',
      risk: say`The regulator may oscillate with less than ${formatQuantity(input, 'F')} at its input.`,
    },
    {
      key: `${keyOf(id)}-out`,
      role: 'regulator output capacitor',
      name: own ? 'capacitor at the regulator’s output' : `output capacitor of the ${behind.name}`,
      net: behind.net,
      least: output.capacitance,
      field: 'outputCapacitor',
      source: output.source,
      risk: say`Its output may ring or oscillate with less than ${formatQuantity(output.capacitance, 'F')}.`,
    },
  ]
  return [itself(converter, context), ...asked.flatMap((of) => askedCapacitor(reg, of, context))]
}

/** The chip's own, where it has one. */
export const regulator = (context: LoadedContext): Undrawn[] => {
  const { supplies } = context.power
  return supplies.converters.filter((c) => c.to === supplies.own).flatMap((c) => regulatorParts(c, context))
}
