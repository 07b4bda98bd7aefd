// Further rails, and bipolar and p-channel transistors, for a random project, from rows of their own.

import type { FurtherRail, NeedDevice } from '../src/design'
import { findPart, type Library, partsOfKind } from '../src/parts'
import { seeded } from './seeded'

interface Fed {
  needs: { devices: NeedDevice[] }
  power: { feed?: string; rails?: FurtherRail[] }
}

/** Bipolar transistors, or p-channel ones in the plus, in the place of half of those that switch a load, but not of a latch. */
export const withOtherSwitches = <D extends Fed>(design: D, seed: number, library: Library): D => {
  const random = seeded(seed * 17 + 3)
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!
  const devices = design.needs.devices.map((d) => {
    const part = findPart(library, 'device', d.part)
    if (!part || part.latch) return d
    const switched = part.wirings
      .flatMap((w) => w.signals)
      .filter((s) => s.electrical.kind === 'switched' && random() < 0.5)
    if (switched.length === 0) return d
    const which = () => pick(['npn-small', 'npn-strong', 'pfet-low', 'pfet-plain', 'pfet-strong'])
    return { ...d, transistors: Object.fromEntries(switched.map((s) => [s.id, which()])) }
  })
  return { ...design, needs: { ...design.needs, devices } }
}

/** What can be turned hangs on a bridge, one to three of them on one, fed as the first. */
export const withBridges = <D extends Fed>(design: D, seed: number, library: Library): D => {
  const random = seeded(seed * 19 + 7)
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!
  const bridges = partsOfKind(library, 'device').filter((d) => d.drives)
  const added: NeedDevice[] = []
  const devices = design.needs.devices.map((d) => {
    const part = findPart(library, 'device', d.part)
    const [signal] = part?.terminals.length === 2 && !part.latch ? part.wirings[0]!.signals : []
    if (signal?.electrical.kind !== 'switched' || signal.electrical.grounded || random() < 0.4) return d
    if (added.length === 0 || random() < 0.5)
      added.push({
        id: `d${90 + added.length}`,
        part: pick(bridges).id,
        name: `Bridge ${added.length + 1}`,
        count: 1 + Math.floor(random() * 2),
        ...(d.fedBy && { fedBy: d.fedBy }),
      })
    const on = added.at(-1)!
    return { ...d, drivenBy: on.id, fedBy: on.fedBy }
  })
  return { ...design, needs: { ...design.needs, devices: [...devices, ...added] } }
}

/** One, two or three of them, each on something in front of it, and a third of the devices on one of them. */
export const withRails = <D extends Fed>(design: D, seed: number, library: Library): D => {
  const random = seeded(seed * 13 + 5)
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!
  const regulators = partsOfKind(library, 'regulator').map((r) => r.id)
  const rails: FurtherRail[] = []
  for (let n = 0; n < 1 + Math.floor(random() * 3); n++)
    rails.push({
      id: `rail${n + 2}`,
      regulator: pick(regulators),
      from: pick<FurtherRail['from']>([
        undefined,
        undefined,
        'rail',
        ...(design.power.feed ? (['feed'] as const) : []),
        ...rails.map((r) => r.id),
      ]),
    })
  const devices = design.needs.devices.map((d) => (random() < 0.35 ? { ...d, fedBy: pick(rails).id } : d))
  return { ...design, needs: { ...design.needs, devices }, power: { ...design.power, rails } }
}
