// What is lost and gets warm on the way from the board to a device, and what that leaves it.

import type { Design } from '../design'
import { fromPart, type Worked } from '../findings'
import type { Instance, NeedsResult } from '../needs'
import type { Device, Library } from '../parts'
import { fullRange } from '../quantity'
import { asStated } from '../sums'
import { deviceLead, type LeadParts, type LoadedSupply, type OpenSupply } from '../supply'
import { arriving, givenTo } from './arriving'
import type { LoadedBridge } from './bridges'
import { type LoadedLead, throughLead } from './leads'

export interface LedDevice extends Pick<LoadedLead, 'parts' | 'current' | 'resistance' | 'drop' | 'heat'> {
  /** Of the design. */
  need: string
  name: string
  /** So many of them, each with a lead like this. */
  count: number
  part: Device
  /** What feeds it, at the board; and what of that arrives, with all that it draws. */
  given?: Worked
  arrives?: Worked
}

/** The most that one of them takes through its own lead, A: at work, or through what switches it. Undefined where its sheet gives no currents. */
export const ledCurrent = ({
  name,
  part,
  wiring,
}: Pick<Instance, 'name' | 'part' | 'wiring'>): Worked | undefined => {
  const stated = [
    ...part.modes.map((m) => ({ field: `modes.${m.id}.current`, rated: m.current })),
    ...wiring.signals.flatMap(({ id, electrical: e }) =>
      e.kind === 'switched' ? [{ field: `${id}.current`, rated: e.current }] : [],
    ),
  ]
  if (stated.length === 0) return undefined
  const { field, rated } = stated.reduce((a, b) => (fullRange(b.rated).max > fullRange(a.rated).max ? b : a))
  return asStated(
    `${name} takes at most`,
    'I',
    'A',
    fromPart('I', `${name}, at its most`, part, field, rated, 'A'),
  )
}

/** With this lead, of one of the devices. */
export const ledDevice = (
  instance: Instance,
  parts: LeadParts,
  given: Worked | undefined,
): LedDevice | undefined => {
  const current = ledCurrent(instance)
  if (!current) return undefined
  const through = throughLead({ ...parts, flowing: current }, current)
  return {
    need: instance.need.id,
    name: instance.need.name,
    count: instance.need.count,
    part: instance.part,
    ...through,
    parts,
    ...(given && {
      given,
      arrives: arriving(
        instance.name,
        'V_far',
        given,
        through.drop,
        'With all that it draws; half of what is lost is lost in its minus.',
      ),
    }),
  }
}

/** Of one of each kind: each has a lead of its own. */
export const deviceLeadsOf = (
  { needs: { limits } }: Pick<Design, 'needs'>,
  { instances }: Pick<NeedsResult, 'instances'>,
  library: Library,
  { rails }: Pick<LoadedSupply, 'rails'>,
  supplies: OpenSupply,
  bridges: readonly LoadedBridge[] = [],
): LedDevice[] =>
  instances
    .filter((i) => i.at === 1)
    .flatMap((i) => {
      const parts = deviceLead(i.need, limits, library)
      const behind = bridges.flatMap((b) => b.loads).find((l) => l.load.id === i.id)
      const given = behind?.arrives ?? givenTo(i.need, supplies, rails)
      return (parts && ledDevice(i, parts, given)) ?? []
    })
