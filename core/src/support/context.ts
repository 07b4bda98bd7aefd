import type { FittingContext } from '../levels'
import { type SupportPart, twoLegs } from '../circuit'
import type { Resistors } from '../parts'
import type { Wire } from '../legs'

/** The support parts that one wire needs. */
export type SignalSupport = (wire: Wire, context: FittingContext) => SupportPart[]

/** A resistor from the supply to a line: what all pull-ups have in common. */
export const pullUp = (
  kind: 'pull' | 'select',
  { signal }: Wire,
  part: Resistors,
  value: NonNullable<SupportPart['value']>,
): Pick<SupportPart, 'key' | 'role' | 'name' | 'part' | 'value' | 'legs' | 'signal'> => ({
  key: `${kind}:${signal.id}`,
  role: kind === 'pull' ? 'line pull-up' : 'select pull-up',
  name: `pull-up of ${signal.name}`,
  part,
  value,
  legs: twoLegs('VCC', signal.net),
  signal: signal.id,
})
