// What can be plugged in and pulled out, and which rails are fed then.

import type { ChargingResult } from '../charging'
import { fittedFor, type SupportPart } from '../circuit'
import type { Chip } from '../parts'
import { fromTheSource, type OpenSupply, railOf, type RailId } from '../supply'

export type PlugId = 'source' | 'feed' | 'charging' | 'programmer' | 'board'

export interface Plug {
  id: PlugId
  /** In a sentence: “USB port”, “programmer”. */
  name: string
  /** The rail that it is on. */
  rail: RailId
  /** Taken out rather than unplugged. */
  cells?: true
}

/** Some of the plugs in, the others out; with a latch also: in, and switched off. */
export interface Standing {
  id: string
  in: readonly PlugId[]
  /** Its source is in, and the latch is off. */
  off?: true
  /** Rails that are fed the way they are meant to be. */
  fed: readonly RailId[]
}

/** The header has a contact for the supply: a programmer may feed the rail. */
const programmerFeeds = (support: readonly SupportPart[]): boolean =>
  fittedFor(support, 'programming header')?.legs.some((l) => l.net === 'VCC') ?? false

/** In the order in which they are told. */
export const plugsOf = (
  supplies: OpenSupply,
  support: readonly SupportPart[],
  charging: ChargingResult | undefined,
  chip: Chip | undefined,
): Plug[] => {
  const source = supplies.sources.find((s) => s.id === 'source')
  const feed = supplies.sources.find((s) => s.id === 'feed')
  return [
    ...[source, feed].flatMap((s): Plug[] =>
      s
        ? [
            {
              id: s === source ? 'source' : 'feed',
              // Two of a kind are told apart.
              name:
                s === feed && s.part.name === source?.part.name
                  ? `${s.part.name} of the second feed`
                  : s.part.name,
              rail: s.to,
              ...(s.part.sort === 'cells' && { cells: true }),
            },
          ]
        : [],
    ),
    ...(charging?.from && source
      ? [{ id: 'charging' as const, name: `${charging.from.name} for charging`, rail: source.to }]
      : []),
    ...(chip?.board?.usb
      ? [
          {
            id: 'board' as const,
            name: `USB plug of ${chip.board.name}`,
            rail: chip.board.usb.feeds === 'input' ? supplies.fed.source : supplies.own,
          },
        ]
      : []),
    ...(chip && !chip.board && programmerFeeds(support)
      ? [{ id: 'programmer' as const, name: 'programmer', rail: supplies.own }]
      : []),
  ]
}

/** From the rails that a plug is on, through guards and converters, the way current is meant to go. */
const fedFrom = (supplies: OpenSupply, rails: readonly RailId[]): RailId[] => {
  const fed = new Set(rails)
  for (const { id } of fromTheSource(supplies))
    if ([...supplies.guards, ...supplies.converters].some((l) => l.to === id && fed.has(l.from))) fed.add(id)
  return supplies.rails.map((r) => r.id).filter((id) => fed.has(id))
}

/** Every combination in which anything is plugged in: with n plugs 2^n − 1, and those with a latch that is off. */
export const standingsOf = (supplies: OpenSupply, plugs: readonly Plug[]): Standing[] => {
  const latched = supplies.sources.some((s) => s.id === 'source' && s.lead?.pass)
  return Array.from({ length: 2 ** plugs.length - 1 }, (_, k) =>
    plugs.filter((_plug, n) => ((k + 1) >> n) & 1),
  ).flatMap((some): Standing[] => {
    const ids = some.map((p) => p.id)
    const from = (off: boolean) =>
      some.filter((p) => !(off && (p.id === 'source' || p.id === 'charging'))).map((p) => p.rail)
    const standing = (off: boolean): Standing => ({
      id: `${ids.join('+')}${off ? ', off' : ''}`,
      in: ids,
      ...(off && { off: true as const }),
      fed: fedFrom(supplies, from(off)),
    })
    return latched && ids.includes('source') ? [standing(false), standing(true)] : [standing(false)]
  })
}

export const railName = (supplies: OpenSupply, id: RailId): string =>
  id === supplies.own ? 'rail' : railOf(supplies, id).name
