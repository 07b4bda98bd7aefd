// The supply of a design: one source, a diode where a plug can come reversed, a regulator or none, a second feed, and further rails, each
// behind a regulator of its own. Only this file knows that there is no more to choose yet.

import { settledBy } from '../carrier'
import {
  careful,
  type Design,
  feederName,
  type FurtherRail,
  furtherNumber,
  sourceOf,
  supportChoice,
} from '../design'
import { byHollowPlug, findPart, type Library, partsOfKind } from '../parts'
import { fullRange } from '../quantity'
import { feederRail, type OpenSupply, type PolarityDiode, type Rail } from './graph'
import { wearOf } from './cells'
import { guardOf } from './guard'
import { leadOf } from './lead'
import { withOpen } from './open'

/** What of a design says how it is fed. */
export type Feeding = Pick<Design, 'chip' | 'power' | 'stance' | 'build'> & {
  needs: Pick<Design['needs'], 'limits' | 'devices'>
}

export const polarityKey = 'polarity-diode'

/**
 * The diode that guards against a plug of the other polarity; absent where none can come reversed. A board brings its own
 * plug: what guards it is the board’s. Without a regulator a diode’s drop would be missing from the rail.
 */
export const polarityOf = (design: Feeding, library: Library): PolarityDiode | undefined => {
  const source = sourceOf(design, library)
  const onBoard = findPart(library, 'board', design.chip.part) !== undefined
  if (!source || !byHollowPlug(source) || onBoard || !findPart(library, 'regulator', design.power.regulator))
    return undefined
  // A transistor takes its place.
  if (guardOf(design, library)) return undefined
  const most = fullRange(source.current).max
  const rating = (d: PolarityDiode['diode']) => fullRange(d.current).max
  const able = partsOfKind(library, 'diode').filter(
    (d) => d.sort === 'schottky' && fullRange(d.reverse).max >= 2 * fullRange(source.voltage).max,
  )
  // One that carries all that the source gives, the cheapest; where there is none, the strongest.
  const enough = able.filter((d) => rating(d) >= most).sort((a, b) => a.price - b.price)
  const diode = enough[0] ?? able.sort((a, b) => rating(b) - rating(a))[0]
  return diode && { ...supportChoice(design, polarityKey, careful), diode }
}

const rails = {
  own: { id: 'rail', name: 'rail', net: 'VCC', symbol: 'V_DD' },
  source: { id: 'source', name: 'source', net: 'VIN', symbol: 'V_source' },
  plug: { id: 'plug', name: 'plug', net: 'VPLUG', symbol: 'V_source' },
  feed: { id: 'feed', name: 'second feed', net: 'VFEED', symbol: 'V_feed' },
} satisfies Record<string, Rail>

const further = ({ id }: FurtherRail): Rail => ({
  id,
  name: feederName(id),
  net: `VCC${furtherNumber(id)}`,
  symbol: `V_${furtherNumber(id)}`,
})

/** Without a regulator the source is on the rail: one supply, and not two that happen to be alike. */
export const supplyOf = (design: Feeding, library: Library): OpenSupply => {
  const source = sourceOf(design, library)
  const regulator = findPart(library, 'regulator', settledBy(design, library).regulator)
  const feed = sourceOf(design, library, 'feed')
  const polarity = polarityOf(design, library)
  const { own, plug } = rails
  const behind = regulator ? rails.source : own
  const fed = { rail: own.id, source: behind.id, feed: rails.feed.id }
  const beside = design.power.rails ?? []
  const wear = wearOf(design.needs.limits)
  return withOpen({
    rails: [
      ...(polarity ? [plug] : []),
      ...(regulator ? [rails.source] : []),
      own,
      rails.feed,
      ...beside.map(further),
    ],
    sources: [
      ...(source
        ? [
            {
              id: 'source',
              part: source,
              to: polarity ? plug.id : behind.id,
              lead: leadOf(design, library, 'source'),
              wear,
            },
          ]
        : []),
      ...(feed
        ? [{ id: 'feed', part: feed, to: rails.feed.id, lead: leadOf(design, library, 'feed'), wear }]
        : []),
    ],
    guards: polarity ? [{ id: 'polarity', diode: polarity, from: plug.id, to: behind.id }] : [],
    converters: [
      ...(regulator ? [{ id: 'regulator', part: regulator, from: behind.id, to: own.id }] : []),
      ...beside.flatMap(({ id, regulator: part, from }) => {
        const converter = findPart(library, 'regulator', part)
        return converter
          ? [{ id: `regulator ${id}`, part: converter, from: feederRail({ fed }, from ?? 'source'), to: id }]
          : []
      }),
    ],
    own: own.id,
    fed,
  })
}
