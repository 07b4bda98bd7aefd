// What feeds what: the rail (what the regulator holds, or what the source gives when there is none), the source itself,
// and a feed of its own for heavy loads.

import {
  careful,
  type Design,
  type FedBy,
  type NeedDevice,
  supportChoice,
  type SupportChoice,
} from '../design'
import { fromPart, partOrigin, type Worked, type WorkedInput } from '../findings'
import { type Diode, findPart, type Library, partsOfKind, type Source } from '../parts'
import { fullRange } from '../quantity'
import { readCurve, sum } from '../sums'

/** What of a design says how it is fed. */
export type Feeding = Pick<Design, 'chip' | 'power' | 'stance' | 'build'>

export const railVoltage = (design: Pick<Design, 'power'>, library: Library): Worked | undefined => {
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

export const polarityKey = 'polarity-diode'

/** In or out, and which diode it is. */
export type PolarityDiode = SupportChoice & { diode: Diode }

/**
 * The diode that guards against a plug of the other polarity; absent where none can come reversed. A board brings its own
 * plug: what guards it is the board’s. Without a regulator a diode’s drop would be missing from the rail.
 */
export const polarityOf = (design: Feeding, library: Library): PolarityDiode | undefined => {
  const source = findPart(library, 'source', design.power.source)
  const onBoard = findPart(library, 'board', design.chip.part) !== undefined
  if (source?.sort !== 'adapter' || onBoard || !findPart(library, 'regulator', design.power.regulator))
    return undefined
  const most = fullRange(source.current).max
  const rating = (d: Diode) => fullRange(d.current).max
  const able = partsOfKind(library, 'diode').filter(
    (d) => d.sort === 'schottky' && fullRange(d.reverse).max >= 2 * fullRange(source.voltage).max,
  )
  // One that carries all that the source gives, the cheapest; where there is none, the strongest.
  const enough = able.filter((d) => rating(d) >= most).sort((a, b) => a.price - b.price)
  const diode = enough[0] ?? able.sort((a, b) => rating(b) - rating(a))[0]
  return diode && { ...supportChoice(design, polarityKey, careful), diode }
}

/** What falls across a diode, in volts. Without a current nothing falls: below the curve’s first point it may be as little as that. */
export const forwardOf = (diode: Diode, I: Worked | WorkedInput): Worked => {
  const points = diode.forward.map((p) => ({ x: p.current, y: { source: p.source, ...p.voltage } }))
  const first = [...points].sort((a, b) => a.x - b.x)[0]!
  const { typ, max } = fullRange(first.y)
  return readCurve(
    { label: `Forward voltage of ${diode.name}`, symbol: 'V_F', unit: 'V' },
    {
      part: diode,
      field: 'forward',
      points: [...(first.x > 0 ? [{ x: 0, y: { ...first.y, min: 0, typ, max } }] : []), ...points],
    },
    [I.symbol, I],
  )
}

/** In front of the regulator: behind the diode that guards the plug, with anything from nothing to what the source gives. */
const beforeRegulator = (source: Source, plug: Worked, polarity: PolarityDiode | undefined): Worked => {
  if (!polarity?.present) return plug
  const most = fullRange(source.current).max
  const I: WorkedInput = {
    symbol: 'I',
    label: 'through the plug, anything up to what the source gives',
    value: { min: 0, typ: most / 10, max: most },
    unit: 'A',
    origin: partOrigin(source, 'current', source.current),
    variable: 'through the plug',
  }
  return sum(
    { label: `Voltage of ${source.name} behind the diode`, symbol: 'V_source', unit: 'V' },
    { V_plug: plug, V_F: forwardOf(polarity.diode, I) },
    (i) => i.V_plug.minus(i.V_F),
  )
}

/** Without a regulator the source is the rail: one supply, and not two that happen to be alike. */
export const suppliesOf = (design: Feeding, library: Library): Supplies => {
  const rail = railVoltage(design, library)
  const source = findPart(library, 'source', design.power.source)
  const plug = straightFrom(library, design.power.source, 'V_source')
  return {
    rail,
    source: !findPart(library, 'regulator', design.power.regulator)
      ? rail
      : source && plug && beforeRegulator(source, plug, polarityOf(design, library)),
    feed: straightFrom(library, design.power.feed, 'V_feed'),
  }
}

/** What a device is fed with; undefined while it is not decided. */
export const supplyOf = (supplies: Supplies, need: Pick<NeedDevice, 'fedBy'>): Worked | undefined =>
  supplies[need.fedBy ?? 'rail']

/** The net of each. Without a regulator the source is the rail. */
export const supplyNet = (design: Design, need: Pick<NeedDevice, 'fedBy'>): string =>
  need.fedBy === 'feed' ? 'VFEED' : need.fedBy === 'source' && design.power.regulator ? 'VIN' : 'VCC'
