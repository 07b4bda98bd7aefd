// A step of building: what is fitted, and what is measured before the next one.

import { fittedResistor, type Placed, type SupportPart } from '../circuit'
import { fromRule, type Worked } from '../findings'
import type { Instance } from '../needs'
import type { Part, Resistors } from '../parts'
import type { Unit } from '../quantity'
import { asStated } from '../sums'
import type { Caution } from './cautions'

export interface BoardPart extends Placed {
  kind: 'chip' | 'support' | 'device'
  name: string
  part: Part
  support?: SupportPart
  instance?: Instance
}

export interface StepCheck {
  /** “between VCC and GND” */
  where: string
  powered: boolean
  expect: { min?: number; max?: number; unit: Unit }
  worked?: Worked
  /** What another reading means. */
  otherwise: string
}

export interface BuildStep {
  title: string
  refs: string[]
  does: string[]
  checks: StepCheck[]
  cautions: Caution[]
}

/** A limit that no sheet gives: what a meter shows on a good joint, an open gap, a rail without a short. */
const byRule = (label: string, ohms: number, why: string): Worked =>
  asStated(label, 'R', 'Ω', fromRule('R_rule', 'rule of thumb', ohms, 'Ω', why))
export const joined: Pick<StepCheck, 'expect' | 'worked'> = {
  expect: { max: 1, unit: 'Ω' },
  worked: byRule('A good joint', 1, 'wire, solder and the meter’s leads together stay below an ohm'),
}
export const apart: Pick<StepCheck, 'expect' | 'worked'> = {
  expect: { min: 1e6, unit: 'Ω' },
  worked: byRule(
    'Nothing between',
    1e6,
    'clean board and a crystal conduct no direct current; flux residue may be some megohms',
  ),
}
export const notShorted: Pick<StepCheck, 'expect' | 'worked'> = {
  expect: { min: 100, unit: 'Ω' },
  worked: byRule(
    'A rail without a short',
    100,
    'a regulator and capacitors alone, once these are charged by the meter, are hundreds of ohms and more',
  ),
}

/** With the meter set to diodes: what falls in the diode that every MOSFET has inside, the way that it conducts. */
export const innerDiode: Pick<StepCheck, 'expect' | 'worked'> = {
  expect: { min: 0.3, max: 0.9, unit: 'V' },
  worked: asStated('What falls in an inner diode', 'V_F', 'V', {
    ...fromRule(
      'V_F',
      'rule of thumb',
      0.6,
      'V',
      'a meter’s milliampere leaves 0.3 V to 0.9 V across silicon',
    ),
    value: { min: 0.3, typ: 0.6, max: 0.9 },
  }),
}

/** A resistor that lies between two nets by itself, with the tolerance of its drawer. */
export const bridge = (
  between: string,
  { key, name, part, value }: SupportPart,
  otherwise: string,
): StepCheck => {
  const worked = asStated(
    name,
    'R',
    'Ω',
    fittedResistor('R_fitted', 'fitted value', part as Resistors, value!, key),
  )
  return {
    where: between,
    powered: false,
    expect: { min: worked.value.min, max: worked.value.max, unit: 'Ω' },
    worked,
    otherwise,
  }
}

export const volts = (where: string, worked: Worked, otherwise: string): StepCheck => ({
  where,
  powered: true,
  expect: { min: worked.value.min, max: worked.value.max, unit: 'V' },
  worked,
  otherwise,
})

export const refsOf = (parts: BoardPart[]) => parts.map((p) => p.ref)
export const solderWords = (parts: BoardPart[]) =>
  parts.map((p) => {
    const what = `${p.ref}, ${p.name}${p.support?.value ? ` ${p.support.value.marking}` : ''}`
    return p.legs.length > 0 ? `${what}: ${p.legs.map((l) => `${l.name} to ${l.net}`).join(', ')}` : what
  })
