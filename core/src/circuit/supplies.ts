// What feeds what: the rail (what the regulator holds, or what the source gives when there is none), the source itself,
// and a feed of its own for heavy loads.

import type { Design, FedBy, NeedDevice } from '../design'
import { fromPart, type Worked } from '../findings'
import { findPart, type Library } from '../parts'
import { sum } from '../sums'

export const railVoltage = (design: Design, library: Library): Worked | undefined => {
  const regulator = findPart(library, 'regulator', design.power.regulator)
  const source = findPart(library, 'source', design.power.source)
  const [part, rated, field] = regulator
    ? [regulator, regulator.output, 'output']
    : [source, source?.voltage, 'voltage']
  if (!part || !rated) return undefined
  const meta = { label: 'Rail voltage', symbol: 'V_DD', unit: 'V' as const }
  return regulator
    ? sum(meta, { V_out: fromPart('V_out', 'regulator’s output', part, field, rated, 'V') }, (i) => i.V_out)
    : sum(meta, { V_source: fromPart('V_source', 'source', part, field, rated, 'V') }, (i) => i.V_source)
}

export interface Supplies extends Partial<Record<FedBy, Worked>> {
  rail?: Worked
}

const straightFrom = (library: Library, id: string | undefined, symbol: string): Worked | undefined => {
  const source = findPart(library, 'source', id)
  return (
    source &&
    sum(
      { label: `Voltage of ${source.name}`, symbol, unit: 'V' },
      { V_source: fromPart('V_source', source.name, source, 'voltage', source.voltage, 'V') },
      (i) => i.V_source,
    )
  )
}

/** Without a regulator the source is the rail: one supply, and not two that happen to be alike. */
export const suppliesOf = (design: Design, library: Library): Supplies => {
  const rail = railVoltage(design, library)
  return {
    rail,
    source: findPart(library, 'regulator', design.power.regulator)
      ? straightFrom(library, design.power.source, 'V_source')
      : rail,
    feed: straightFrom(library, design.power.feed, 'V_feed'),
  }
}

/** What a device is fed with; undefined while it is not decided. */
export const supplyOf = (supplies: Supplies, need: NeedDevice): Worked | undefined =>
  supplies[need.fedBy ?? 'rail']

/** The net of each. Without a regulator the source is the rail. */
export const supplyNet = (design: Design, need: Pick<NeedDevice, 'fedBy'>): string =>
  need.fedBy === 'feed' ? 'VFEED' : need.fedBy === 'source' && design.power.regulator ? 'VIN' : 'VCC'
